//! Proof: heights after fitting, against what was predicted.

use actix_web::HttpResponse;
use actix_web::http::StatusCode;
use actix_web::web::{Data, Path};
use askama::Template;
use wise_badger_casework::entry::{OutsideReason, PredictedHeight, PromiseEntry, ProofSheetEntry};
use wise_badger_casework::prediction::Prediction;
use wise_badger_casework::proof::ProofGrade;
use wise_badger_casework::reading::{Phase, Place, Reading};
use wise_badger_casework::route::Stage;
use wise_badger_casework::survey::{End, LoadState};
use wise_badger_mechanics::side::Side;
use wise_badger_mechanics::tape::{Datum, TyreSize};
use wise_badger_mechanics::uncertain::Uncertain;
use wise_badger_mechanics::units::metres;
use wise_badger_store::job::Closed;
use wise_badger_store::job_file::JobFile;
use wise_badger_store::person::Person;
use wise_badger_store::{Database, JobId, JobNumber, PgConnection, StoreError, job, job_sheet, reading};

use super::job_form::JobForm;
use super::job_frame::{JobFrame, with_prediction};
use super::tape::{PlanWalk, StateForm, state_forms};
use super::wrench::is_something_loose;
use super::{Hidden, Names, Page, Record, Refusal, job_file, keep_where, or_fail, page, see_other};
use crate::correction::option_name;
use crate::error::WebError;
use crate::form::look_over::word;
use crate::form::{Field, Picks, Posted, Sheet, tape};
use crate::job_route::StageWords as _;
use crate::view::prediction::Detail;
use crate::view::proof::graded_proof;
use crate::view::shelf::money_words;
use crate::view::{Figure, Units, caution_text, clock, datum_name};
use crate::worker::Worker;

#[derive(Template)]
#[template(path = "proof.html")]
struct ProofPage {
    frame: JobFrame,
    /// Who promised it, and from what.
    promised: String,
    number: i32,
    hidden: Hidden,
    finish_hidden: Hidden,
    /// What was chosen; empty while nothing is.
    chosen: String,
    datum: &'static str,
    walk: PlanWalk,
    /// The states beside empty and loaded.
    states: Vec<StateForm>,
    /// Tires that were changed with the job.
    tyres: [Field; 2],
    figures: Vec<Figure>,
    /// Whether any of them is outside its band: then the reason is asked.
    outside: bool,
    reasons: Picks,
    reason_words: Field,
    cautions: Vec<&'static str>,
    measured: bool,
    refusal: String,
}

/// Heights after fitting, and what stands beside them.
pub(crate) struct ProofEntry {
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
pub(super) fn outside_words(proof: &ProofSheetEntry) -> String {
    let said = proof.reason.map(|reason| format!("Outside the band, because of {}. {}", reason_name(reason), proof.reason_words));
    said.unwrap_or_default()
}

/// The form of the heights after fitting.
pub(crate) struct ProofForm;

impl JobForm for ProofForm {
    type Read = Record;
    type Entry = ProofEntry;

    fn on_file(units: Units, record: &Record) -> Sheet {
        let mut sheet = tape::heights_on_file(units, &record.file, Phase::Fitted);
        let proof = &record.file.case().proof;
        sheet.set("front_tyre_now", proof.front_tyre.clone());
        sheet.set("rear_tyre_now", proof.rear_tyre.clone());
        sheet.set("reason", proof.reason.map(word).unwrap_or_default());
        sheet.set("reason_words", proof.reason_words.clone());
        sheet
    }

    fn is_in_turn(record: &Record) -> Result<(), WebError> {
        let chosen = record.file.fitting.as_ref().map(|_| ());
        chosen.ok_or(WebError::NotNow("No correction is chosen, so there is nothing to prove yet."))
    }

    fn check(sheet: &mut Sheet, record: &Record) -> Option<ProofEntry> {
        let datum = record.file.case().measured.datum.unwrap_or(Datum::GroundToArch);
        let states: Vec<_> = record.file.work.found().states().collect();
        let readings = tape::heights(sheet, &states, Phase::Fitted, datum);
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
        let sheet_entry = ProofSheetEntry { front_tyre, rear_tyre, reason, reason_words };
        sheet.is_sound().then_some(ProofEntry { readings, sheet: sheet_entry })
    }

    fn keep(connection: &mut PgConnection, person: &Person, job: JobId, entry: &ProofEntry) -> Result<(), StoreError> {
        reading::replace(connection, person, job, Phase::Fitted, &entry.readings, "")?;
        job_sheet::replace(connection, person, job, &entry.sheet)
    }

    fn page(worker: &Worker, record: &Record, sheet: &Sheet, refusal: Option<&Refusal>) -> Result<Page, WebError> {
        proof_page(worker, record, sheet, refusal)
    }

    fn leads_to(number: JobNumber) -> String {
        Stage::Proof.path(number)
    }
}

pub(crate) async fn finish(
    database: Data<Database>,
    worker: Worker,
    number: Path<i32>,
    posted: Posted,
) -> Result<HttpResponse, WebError> {
    set_finished(&database, &worker, *number, posted, true).await
}

pub(crate) async fn reopen(
    database: Data<Database>,
    worker: Worker,
    number: Path<i32>,
    posted: Posted,
) -> Result<HttpResponse, WebError> {
    set_finished(&database, &worker, *number, posted, false).await
}

async fn set_finished(
    database: &Data<Database>,
    worker: &Worker,
    number: i32,
    posted: Posted,
    finished: bool,
) -> Result<HttpResponse, WebError> {
    let file = job_file(database, worker, number).await?;
    if finished && !measured_again(&file) {
        return Err(WebError::NotNow("Measure the rear again after fitting before the job is finished."));
    }
    if finished && is_something_loose(database, worker, &file).await? {
        return Err(WebError::NotNow(
            "By the wrench card something is loose or open. Tighten it and tick it there, or take back what was ticked by mistake, before the job is finished.",
        ));
    }
    let proof = &file.case().proof;
    if finished && is_outside(&file, worker.units()) && (proof.reason.is_none() || proof.reason_words.is_empty()) {
        return Err(WebError::NotNow(
            "A height is outside the band that was promised. Say why on Proof, picked and in words, before the job is finished.",
        ));
    }
    let sheet = Sheet::posted(posted, worker.units());
    let job = file.job.id;
    let closed = if finished { Closed::Refuses } else { Closed::Opens };
    let kept = keep_where(database, worker, &sheet, job, closed, move |connection, person| {
        job::set_finished(connection, person, job, finished)
    });
    or_fail(kept.await?)?;
    Ok(see_other(format!("/jobs/{number}")))
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

/// What was promised of a corner: its own height where the vehicle leans, or its axle's; nothing of a gap.
fn promised_at(file: &JobFile, state: LoadState, place: Place, units: Units) -> String {
    let (end, side) = match place {
        Place::FrontLeft => (End::Front, Side::Left),
        Place::FrontRight => (End::Front, Side::Right),
        Place::RearLeft => (End::Rear, Side::Left),
        Place::RearRight => (End::Rear, Side::Right),
        _ => return String::new(),
    };
    let promised = file.fitting.as_ref().and_then(|fitting| {
        let heights = &fitting.predicted.0;
        let sides = heights.sides.iter().find(|sides| sides.end == end && sides.state == state);
        let of_side = sides.map(|sides| if side == Side::Left { sides.left } else { sides.right });
        of_side.or_else(|| heights.get(end, state))
    });
    let words = |height: PredictedHeight| {
        let height = Uncertain::new(metres(height.height_m), metres(height.band_of_a_reading() / 2.0));
        format!("predicted {}", units.predicted(height))
    };
    promised.map(words).unwrap_or_default()
}

/// Who promised it, by which program, and whether what it was said from has been changed since.
fn promised_words(file: &JobFile, names: &Names) -> String {
    let Some(fitting) = &file.fitting else { return String::new() };
    let by = format!("Chosen by {}, {}", names.of(fitting.recorded_by), clock(fitting.recorded_at));
    match &fitting.promise {
        None => format!("{by}; what it was worked out from was not recorded then."),
        Some(promise) if file.work.has_changed_since(&promise.0) => {
            format!(
                "{by}, by {}. What it was worked out from has been changed since; the promise stays as it was.{}",
                promise.0.program,
                cost_words(&promise.0)
            )
        }
        Some(promise) => format!("{by}, by {}, from what stands on the job.{}", promise.0.program, cost_words(&promise.0)),
    }
}

/// What its parts cost when it was chosen.
fn cost_words(promise: &PromiseEntry) -> String {
    promise.price.as_ref().map_or_else(String::new, |price| format!(" Parts by the shelf then: {}.", money_words(price)))
}

fn proof_page(worker: &Worker, record: &Record, sheet: &Sheet, refusal: Option<&Refusal>) -> Result<Page, WebError> {
    let file = &record.file;
    let units = worker.units();
    let measured = measured_again(file);
    let mut shown = with_prediction(&file.work, file.work.chosen_predicted().map(Prediction::as_read).as_ref());
    shown.fitted = measured.then(|| file.work.fitted().clone());
    let chosen = file.work.chosen();
    let figures = figures_of(file, units);
    let tyre = |name: &str, label: &str| {
        sheet.text_field(name, label).hint("only where changed with the job; the difference is taken out")
    };
    let states: Vec<LoadState> = file.work.found().states().collect();
    let promised = |state, place| promised_at(file, state, place, units);
    let mut first = state_forms(sheet, file, &states, Phase::Fitted, &record.names, promised);
    let further = first.split_off(LoadState::BOTH.len().min(first.len()));
    let template = ProofPage {
        frame: JobFrame::new(worker, file, Some(Stage::Proof), &shown),
        number: file.job.number.0,
        hidden: Hidden::new(sheet, file.job.revision),
        finish_hidden: Hidden::new(sheet, file.job.revision),
        chosen: chosen.map(|(entry, _)| option_name(entry, file.case().intake.class, units)).unwrap_or_default(),
        datum: datum_name(file.case().intake.class, file.case().measured.datum.unwrap_or(Datum::GroundToArch)),
        walk: PlanWalk::of(file, first),
        states: further,
        tyres: [tyre("front_tyre_now", "Front tires now"), tyre("rear_tyre_now", "Rear tires now")],
        outside: figures.iter().any(|(grade, _)| *grade == ProofGrade::Outside),
        reasons: sheet.picks(
            "reason",
            "Outside the band, because of",
            OutsideReason::ALL.map(|reason| (word(reason), reason_name(reason))),
        ),
        reason_words: sheet.text_field("reason_words", "In words"),
        figures: figures.into_iter().map(|(_, figure)| figure).collect(),
        cautions: chosen.map(|(_, parts)| file.work.cautions(parts).into_iter().map(caution_text).collect()).unwrap_or_default(),
        promised: promised_words(file, &record.names),
        measured,
        refusal: refusal.map(Refusal::words).unwrap_or_default(),
    };
    page(refusal.map_or(StatusCode::OK, Refusal::status), &template)
}
