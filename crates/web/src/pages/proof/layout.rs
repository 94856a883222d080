//! The page of a proof.

use actix_web::http::StatusCode;
use askama::Template;
use wise_badger_casework::entry::{CheckWord, CheckedWord, OtherwiseWord, OutsideReason, PredictedHeight, PromiseEntry};
use wise_badger_casework::prediction::Prediction;
use wise_badger_casework::proof::ProofGrade;
use wise_badger_casework::reading::{Phase, Place};
use wise_badger_casework::route::Stage;
use wise_badger_casework::survey::{End, LoadState};
use wise_badger_mechanics::side::Side;
use wise_badger_mechanics::tape::Datum;
use wise_badger_mechanics::uncertain::Uncertain;
use wise_badger_mechanics::units::metres;
use wise_badger_store::job_file::JobFile;

use super::super::drive::changes;
use super::super::job_frame::{JobFrame, with_prediction};
use super::super::shown_again::ShownAgain;
use super::super::tape::{PlanWalk, StateForm, state_forms};
use super::super::{Hidden, Names, Page, Record, Refusal, page};
use super::finish::works_alone;
use super::{check_field, figures_of, measured_again, otherwise_field, path_of, reason_name};
use crate::correction::option_name;
use crate::error::WebError;
use crate::form::look_over::word;
use crate::form::{Field, Picks, Sheet, Tick};
use crate::view::proof::{adjust_words, cause_words, check_name, checked_name, otherwise_name, phase_name, settled_rows};
use crate::view::shelf::money_words;
use crate::view::{Figure, Units, caution_text, clock, datum_name, sentence};
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
    /// Where it is saved.
    action: String,
    /// When it is read: what that is called, where it is, whether it is this one, whether it was read.
    phases: Vec<(&'static str, String, bool, bool)>,
    /// How to measure in this one.
    manner: &'static str,
    /// What was chosen; empty while nothing is.
    chosen: String,
    datum: &'static str,
    walk: PlanWalk,
    /// The states beside empty and loaded.
    states: Vec<StateForm>,
    /// What was not as before.
    otherwise: Vec<Tick>,
    /// Whether anything was not.
    is_otherwise: bool,
    /// Tires that were changed with the job.
    tyres: [Field; 2],
    figures: Vec<Figure>,
    /// How it settled: a height, and what it was each time.
    settled: Vec<(String, Vec<String>)>,
    /// Whether any of them is outside its band: then the reason is asked.
    outside: bool,
    /// What is likeliest behind it.
    causes: Vec<String>,
    /// What can be set otherwise.
    adjust: Vec<String>,
    reasons: Picks,
    reason_words: Field,
    /// What was felt on the control drive before and after.
    drive: Vec<String>,
    checks: Vec<Picks>,
    /// How many of them are answered.
    checked: usize,
    cautions: Vec<&'static str>,
    measured: bool,
    /// Why whoever did the work releases it alone.
    alone: Option<Field>,
    /// Who releases it shows once more who they are.
    shown_again: ShownAgain,
    refusal: String,
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

pub(super) fn proof_page(
    worker: &Worker,
    record: &Record,
    sheet: &Sheet,
    refusal: Option<&Refusal>,
    phase: Phase,
) -> Result<Page, WebError> {
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
    let mut first = state_forms(sheet, file, &states, phase, &record.names, promised);
    let further = first.split_off(LoadState::BOTH.len().min(first.len()));
    let outside = figures.iter().any(|(grade, _)| *grade == ProofGrade::Outside);
    let otherwise: Vec<Tick> =
        OtherwiseWord::ALL.into_iter().map(|what| sheet.tick(otherwise_field(what), sentence(otherwise_name(what)))).collect();
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
        is_otherwise: otherwise.iter().any(|tick| tick.ticked),
        otherwise,
        outside,
        causes: if outside { cause_words(file, units) } else { Vec::new() },
        adjust: adjust_words(file, units),
        settled: settled_rows(file, units),
        drive: changes(&file.case().drive),
        action: path_of(file.job.number, phase),
        phases: Phase::AFTER
            .map(|of| {
                let read = file.case().readings.iter().any(|reading| reading.spot.phase == of);
                (phase_name(of), path_of(file.job.number, of), of == phase, read)
            })
            .into(),
        manner: manner(phase),
        checked: CheckWord::ALL.into_iter().filter(|check| sheet.is_filled(&check_field(*check))).count(),
        checks: CheckWord::ALL
            .map(|check| {
                let offered = CheckedWord::ALL.map(|checked| (word(checked), checked_name(checked)));
                sheet.picks(&check_field(check), check_name(check), offered)
            })
            .into(),
        shown_again: ShownAgain::new(worker, "finish"),
        alone: works_alone(record, worker).then(|| {
            let field = Sheet::blank(units);
            field.text_field("released_alone", "You did work on it yourself: why do you release it alone?")
        }),
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

/// How to measure each time.
fn manner(phase: Phase) -> &'static str {
    match phase {
        Phase::Found | Phase::Fitted => "Measure as before: same floor, tires and load, rolled and bounced.",
        Phase::Driven => "Driven 10 to 15 miles and tightened again. Same floor, tires and load; what was taken off is back on.",
        Phase::Settled => "After 500 to 1,000 miles, U-bolts tightened again. Same floor, tires and load.",
    }
}
