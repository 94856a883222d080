//! Proof: heights after fitting, after the drive and once it has settled, against what was predicted.

mod finish;
mod layout;

pub(crate) use finish::{finish, reopen};

use std::marker::PhantomData;

use wise_badger_casework::entry::{CheckWord, CheckedWord, OtherwiseWord, OutsideReason, ProofSheetEntry};
use wise_badger_casework::proof::ProofGrade;
use wise_badger_casework::reading::{Phase, Reading};
use wise_badger_casework::route::Stage;
use wise_badger_mechanics::tape::{Datum, TyreSize};
use wise_badger_store::job_file::JobFile;
use wise_badger_store::person::Person;
use wise_badger_store::{JobId, JobNumber, PgConnection, StoreError, job_sheet, reading};

use super::job_form::JobForm;
use super::{Page, Record, Refusal};
use crate::error::WebError;
use crate::form::look_over::word;
use crate::form::{Sheet, tape};
use crate::job_route::StageWords as _;
use crate::view::prediction::Detail;
use crate::view::proof::graded_proof;
use crate::view::{Figure, Units};
use crate::worker::Worker;

/// When a proof is read.
pub(crate) trait When: Send + 'static {
    /// The phase of its readings.
    const PHASE: Phase;
}

/// After fitting, rolled and bounced.
pub(crate) struct AfterFitting;
/// After the drive, with everything tightened again.
pub(crate) struct AfterTheDrive;
/// After some hundred miles.
pub(crate) struct AfterSettling;

impl When for AfterFitting {
    const PHASE: Phase = Phase::Fitted;
}

impl When for AfterTheDrive {
    const PHASE: Phase = Phase::Driven;
}

impl When for AfterSettling {
    const PHASE: Phase = Phase::Settled;
}

/// Where the proof of a phase is found.
fn path_of(number: JobNumber, phase: Phase) -> String {
    let under = match phase {
        Phase::Found | Phase::Fitted => "",
        Phase::Driven => "/driven",
        Phase::Settled => "/settled",
    };
    format!("{}{under}", Stage::Proof.path(number))
}

/// Name of a check's field.
fn check_field(check: CheckWord) -> String {
    format!("check_{}", word(check))
}

/// Name of the field of something that was not as before.
fn otherwise_field(what: OtherwiseWord) -> String {
    format!("otherwise_{}", word(what))
}

/// Heights after fitting, and what stands beside them.
pub(crate) struct ProofEntry {
    phase: Phase,
    readings: Vec<Reading>,
    sheet: ProofSheetEntry,
}

/// What a reason is called where it is picked.
fn reason_name(reason: OutsideReason) -> &'static str {
    match reason {
        OutsideReason::Reading => "the reading: floor, tires, load, or not rolled",
        OutsideReason::Part => "the part is not what was said of it",
        OutsideReason::OtherWork => "something else was changed with it",
        OutsideReason::FirstReadings => "the first readings were off",
        OutsideReason::NotFound => "looked for, and not found",
    }
}

/// Why a height came out of its band, as it was said; nothing where nobody had to.
pub(in crate::pages) fn outside_words(proof: &ProofSheetEntry) -> String {
    let said = proof.reason.map(|reason| format!("Outside the band, because of {}. {}", reason_name(reason), proof.reason_words));
    said.unwrap_or_default()
}

/// The form of the heights of a phase.
pub(crate) struct ProofForm<W>(PhantomData<W>);

impl<W: When> JobForm for ProofForm<W> {
    type Read = Record;
    type Entry = ProofEntry;

    fn on_file(units: Units, record: &Record) -> Sheet {
        let mut sheet = tape::heights_on_file(units, &record.file, W::PHASE);
        let proof = &record.file.case().proof;
        sheet.set("front_tyre_now", proof.front_tyre.clone());
        sheet.set("rear_tyre_now", proof.rear_tyre.clone());
        sheet.set("reason", proof.reason.map(word).unwrap_or_default());
        sheet.set("reason_words", proof.reason_words.clone());
        for what in W::PHASE.otherwise(&proof.otherwise) {
            sheet.set(&otherwise_field(*what), "yes");
        }
        for (check, checked) in &proof.checks {
            sheet.set(&check_field(*check), word(*checked));
        }
        sheet
    }

    fn is_in_turn(record: &Record) -> Result<(), WebError> {
        let chosen = record.file.fitting.as_ref().map(|_| ());
        chosen.ok_or(WebError::NotNow("No correction is chosen, so there is nothing to prove yet."))
    }

    fn check(sheet: &mut Sheet, record: &Record) -> Option<ProofEntry> {
        let datum = record.file.case().measured.datum.unwrap_or(Datum::GroundToArch);
        let states: Vec<_> = record.file.work.found().states().collect();
        let readings = tape::heights(sheet, &states, W::PHASE, datum);
        let before = &record.file.case().sheet;
        let mut tyre = |name: &str, before: &str| {
            let now = sheet.text(name).to_owned();
            match now.parse::<TyreSize>() {
                _ if now.is_empty() => {}
                Err(error) => sheet.refuse(name, format!("{error}.")),
                Ok(_) if before.parse::<TyreSize>().is_err() => {
                    sheet.refuse(name, "Give the size it came with at Intake first: only the difference can be taken out.");
                }
                Ok(_) => {}
            }
            now
        };
        let (front_tyre, rear_tyre) = (tyre("front_tyre_now", &before.front_tyre), tyre("rear_tyre_now", &before.rear_tyre));
        let reason = OutsideReason::ALL.into_iter().find(|reason| word(*reason) == sheet.text("reason"));
        let reason_words = tape::words(sheet, "reason_words");
        let checked = |check: CheckWord| {
            let said = sheet.text(&check_field(check));
            CheckedWord::ALL.into_iter().find(|checked| word(*checked) == said).map(|checked| (check, checked))
        };
        let checks = CheckWord::ALL.into_iter().filter_map(checked).collect();
        let ticked = OtherwiseWord::ALL.into_iter().filter(|what| sheet.is_filled(&otherwise_field(*what))).collect();
        let kept = record.file.case().proof.clone();
        let otherwise = W::PHASE.said_otherwise(kept.otherwise, ticked);
        let released_alone = kept.released_alone;
        let entry = ProofSheetEntry { front_tyre, rear_tyre, reason, reason_words, otherwise, checks, released_alone };
        sheet.is_sound().then_some(ProofEntry { phase: W::PHASE, readings, sheet: entry })
    }

    fn keep(connection: &mut PgConnection, person: &Person, job: JobId, entry: &ProofEntry) -> Result<(), StoreError> {
        reading::replace(connection, person, job, entry.phase, &entry.readings, "")?;
        job_sheet::replace(connection, person, job, &entry.sheet)
    }

    fn page(worker: &Worker, record: &Record, sheet: &Sheet, refusal: Option<&Refusal>) -> Result<Page, WebError> {
        layout::proof_page(worker, record, sheet, refusal, W::PHASE)
    }

    fn leads_to(number: JobNumber) -> String {
        path_of(number, W::PHASE)
    }
}

fn measured_again(file: &JobFile) -> bool {
    file.fitting.is_some() && file.work.is_measured_again()
}

/// Whether a height after fitting is outside what was promised, past what the tape explains.
fn is_outside(file: &JobFile, units: Units) -> bool {
    figures_of(file, units).iter().any(|(grade, _)| *grade == ProofGrade::Outside)
}

fn figures_of(file: &JobFile, units: Units) -> Vec<(ProofGrade, Figure)> {
    let promised = file.fitting.as_ref().map(|fitting| &fitting.predicted.0);
    promised.map(|promised| graded_proof(&file.work, promised, Detail::Sides, units)).unwrap_or_default()
}
