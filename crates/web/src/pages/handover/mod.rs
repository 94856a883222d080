//! The sheet that goes with the vehicle: before and after, what was fitted, what it can carry, torques, what is due, what else was seen;
//! signed on the screen or on paper, as a file, and what is due as a calendar.

mod calendar;
mod told;

use std::sync::Arc;

use actix_web::HttpResponse;
use actix_web::http::StatusCode;
use actix_web::http::header::{CACHE_CONTROL, CONTENT_DISPOSITION, CONTENT_TYPE};
use actix_web::web::{Data, Path};
use askama::Template;
use chrono::{Days, Local, NaiveDate};
use wise_badger_casework::case::PlannedCase;
use wise_badger_casework::entry::{Answer, CheckWord, CheckedWord, ExtraEntry, PaperWord};
use wise_badger_casework::look_over::{Area, Grade};
use wise_badger_casework::reading::Phase;
use wise_badger_casework::route::Stage;
use wise_badger_casework::survey::{End, LoadState};
use wise_badger_casework::wrench::{Asks, Card, Due, DueWhat, Phase as WorkPhase, Step, due};
use wise_badger_mechanics::uncertain::Uncertain;
use wise_badger_mechanics::units::{InShopUnits as _, Length};
use wise_badger_store::Database;
use wise_badger_store::job::Job;
use wise_badger_store::job_file::JobFile;
use wise_badger_store::paper::Paper;
use wise_badger_store::wrench_tick::Tick;

use super::job_frame::with_prediction;
use super::signing::{SignForm, SignedView, says_the_same, sign};
use super::wrench::card_of_job;
use super::{Names, Page, Record, job_record, page, see_other};
use crate::correction::correction_name;
use crate::drawing::StanceDrawing;
use crate::error::WebError;
use crate::form::{Posted, Sheet};
use crate::job_route::StageWords as _;
use crate::paper_pdf::{Ruler, Rulers, pdf, sent};
use crate::reckoning::drawn;
use crate::shell::Shell;
use crate::view::load_plan::over_words;
use crate::view::look_over::{area_name, defect_name, put_right_words};
use crate::view::prediction::Detail;
use crate::view::proof::{check_name, proof_figures};
use crate::view::shelf::money_words;
use crate::view::verdict::load_figures;
use crate::view::wrench::{fastener_words, place_words};
use crate::view::{Units, caution_text, class_name, datum_name, end_name, sentence, state_of, torque_words};
use crate::worked_out;
use crate::worker::Worker;

/// What the sheet says.
struct HandoverSheet {
    number: i32,
    shop: String,
    label: String,
    vehicle: String,
    today: String,
    fitted: Vec<String>,
    /// What has to be looked after.
    upkeep: Vec<String>,
    datum: &'static str,
    heights: Vec<HeightLine>,
    /// What is still to be measured.
    not_measured: Vec<String>,
    promised: Vec<(String, String, String)>,
    ratings: Vec<(String, String, String)>,
    /// Cases that it must not be loaded to.
    too_much: Vec<String>,
    torques: Vec<TorqueLine>,
    due: Vec<String>,
    seen: Vec<String>,
    put_right: Vec<String>,
    cautions: Vec<&'static str>,
    /// What was checked, and what was not.
    checked: Vec<String>,
    not_checked: Vec<String>,
    /// What nobody said of.
    not_noted: Vec<String>,
    /// Work on top that the customer agreed to, and what he declined.
    agreed: Vec<String>,
    declined: Vec<String>,
    /// Who released it, where that was whoever did the work.
    released: String,
}

#[derive(Template)]
#[template(path = "handover.html")]
struct HandoverPage {
    sheet: HandoverSheet,
    shell: Shell,
    proof: String,
    /// As it came; nothing, while it was not measured again.
    before: Option<Arc<StanceDrawing>>,
    drawing: Arc<StanceDrawing>,
    sign: SignForm,
    signed: Vec<SignedView>,
}

/// A height before and after.
struct HeightLine {
    name: String,
    before: String,
    after: String,
    change: String,
}

/// A torque, as it was read.
struct TorqueLine {
    what: String,
    figure: String,
    read: String,
    wrench: String,
    by: String,
}

pub(crate) async fn show(database: Data<Database>, worker: Worker, number: Path<i32>) -> Result<HttpResponse, WebError> {
    let record = job_record(&database, &worker, *number).await?;
    drawn(move |_| handover_page(&worker, &record)).await
}

/// Takes the customer's signature in.
pub(crate) async fn sign_handover(
    database: Data<Database>,
    worker: Worker,
    number: Path<i32>,
    posted: Posted,
) -> Result<HttpResponse, WebError> {
    let record = job_record(&database, &worker, *number).await?;
    let sections = told::sections(&handover_sheet(&worker, &record)?);
    let form = Sheet::posted(posted, worker.units());
    sign(&database, &worker, &form, &record.file, PaperWord::Handover, sections).await?;
    Ok(see_other(format!("/jobs/{number}/handover")))
}

/// The sheet as a file to print or to send.
pub(crate) async fn file(database: Data<Database>, worker: Worker, number: Path<i32>) -> Result<HttpResponse, WebError> {
    let record = job_record(&database, &worker, *number).await?;
    let sheet = handover_sheet(&worker, &record)?;
    let signed = record.papers.iter().rev().find(|paper| paper.entry.0.paper == PaperWord::Handover).map(|paper| &paper.entry.0);
    let title = format!("Handover: {}", sheet.label);
    let sections = told::sections(&sheet);
    // A signature stands under what it was put under, and under nothing else.
    let signed = signed.filter(|paper| says_the_same(&paper.sections, &sections));
    let body = pdf(&title, &sheet.heading(), &rulers(&record, worker.units()), &sections, signed);
    Ok(sent(body, &format!("job-{number}-handover.pdf")))
}

/// What is due, as a calendar.
pub(crate) async fn due_dates(database: Data<Database>, worker: Worker, number: Path<i32>) -> Result<HttpResponse, WebError> {
    let record = job_record(&database, &worker, *number).await?;
    let card = card_of_job(&record.file, &record.ticks);
    let due = still_due(&record.file, card.as_ref());
    if due.is_empty() {
        return Err(WebError::NotNow(
            "Nothing is due on this job: no work is on its card, or it was measured after it had settled.",
        ));
    }
    let label = &record.file.case().intake.label;
    let body = calendar::of(&worker.shop, *number, label, &due, begins(&record));
    let name = format!("attachment; filename=\"job-{number}-due.ics\"");
    let mut answer = HttpResponse::Ok();
    answer.insert_header((CONTENT_TYPE, "text/calendar; charset=utf-8")).insert_header((CONTENT_DISPOSITION, name));
    Ok(answer.insert_header((CACHE_CONTROL, "no-store")).body(body))
}

/// The day that what is due counts from: the one on which the customer signed for the vehicle, or it was finished; none before.
pub(super) fn due_from(job: &Job, papers: &[Paper]) -> Option<NaiveDate> {
    let signed = papers.iter().find(|paper| paper.entry.0.paper == PaperWord::Handover).map(|paper| paper.recorded_at);
    signed.or(job.finished_at).map(|at| at.with_timezone(&Local).date_naive())
}

fn begins(record: &Record) -> NaiveDate {
    due_from(&record.file.job, &record.papers).unwrap_or_else(|| Local::now().date_naive())
}

fn handover_page(worker: &Worker, record: &Record) -> Result<Page, WebError> {
    let (file, number) = (&record.file, record.file.job.number);
    let sheet = handover_sheet(worker, record)?;
    let sections = told::sections(&sheet);
    let mut shown = with_prediction(&file.work, None);
    let before = file.work.is_measured_again().then(|| worked_out::stance(file, &shown, worker.units()));
    shown.fitted = file.work.is_measured_again().then(|| file.work.fitted().clone());
    let template = HandoverPage {
        shell: Shell::new(worker, format!("Handover: {}", sheet.label), format!("/jobs/{}/handover", number.0)),
        proof: Stage::Proof.path(number),
        before,
        drawing: worked_out::stance(file, &shown, worker.units()),
        sign: SignForm::new(worker, file, &sections, format!("/jobs/{}/handover/sign", number.0), "The customer received it"),
        signed: SignedView::of(&record.papers, PaperWord::Handover, &sections, &record.names),
        sheet,
    };
    page(StatusCode::OK, &template)
}

/// Both ends' heights before and after, to be drawn.
fn rulers(record: &Record, units: Units) -> Rulers {
    let (found, fitted) = (record.file.work.found(), record.file.work.fitted());
    let class = found.vehicle.class;
    let of_end = |end: End| {
        let marks = found.states().flat_map(|state| {
            let mark = |height: Option<Uncertain<Length>>, when: &str, after: bool| {
                let height = height?.in_steps_of(units.step()).value;
                Some((height.si(), format!("{} {}, {when}", units.height(height), state_of(found, state)), after))
            };
            [mark(found.height(end, state), "before", false), mark(fitted.height(end, state), "after", true)]
        });
        Ruler { name: sentence(end_name(class, end)), marks: marks.flatten().collect() }
    };
    Rulers([End::Front, End::Rear].map(of_end).into_iter().filter(|ruler| !ruler.marks.is_empty()).collect())
}

fn handover_sheet(worker: &Worker, record: &Record) -> Result<HandoverSheet, WebError> {
    let (file, units) = (&record.file, worker.units());
    let (found, fitted, class) = (file.work.found(), file.work.fitted(), file.case().intake.class);
    let Some((option, parts)) = file.work.chosen() else {
        return Err(WebError::NotNow(
            "Nothing is chosen on this job yet, so there is nothing to hand over. Choose on Options first.",
        ));
    };
    let not_measured =
        found.states().filter(|state| found.height(End::Rear, *state).is_some() && fitted.height(End::Rear, *state).is_none());
    let card = card_of_job(file, &record.ticks);
    let over = |case: &PlannedCase| {
        let words = over_words(&case.survey, LoadState::Loaded, units);
        (!words.is_empty()).then(|| format!("“{}”: {words}", case.name))
    };
    let proof = &file.case().proof;
    let checks = |wanted: Option<CheckedWord>| {
        let of = CheckWord::ALL.into_iter().filter(move |check| proof.checked(*check) == wanted);
        of.map(|check| check_name(check).to_owned())
    };
    let extra = |extra: &ExtraEntry| {
        let price = extra.price.as_ref().map(|price| format!(", {}", money_words(price))).unwrap_or_default();
        format!("{}{price} ({})", extra.what, extra.said_by)
    };
    let extras = |agreed: bool| file.case().work_plan.extras.iter().filter(move |extra| extra.agreed == Some(agreed)).map(extra);
    let begins = begins(record);
    Ok(HandoverSheet {
        number: file.job.number.0,
        shop: worker.shop.name.clone(),
        label: file.case().intake.label.clone(),
        vehicle: class_name(class).to_owned(),
        today: Local::now().format("%B %-d, %Y").to_string(),
        fitted: option.parts.iter().map(|part| correction_name(&part.correction, class, units)).collect(),
        upkeep: option
            .parts
            .iter()
            .filter_map(|part| part.shelf.as_deref())
            .map(|part| part.upkeep.clone())
            .filter(|upkeep| !upkeep.is_empty())
            .collect(),
        datum: datum_name(found.vehicle.class, found.datum),
        heights: heights(record, units),
        not_measured: not_measured.map(|state| state_of(found, state).to_owned()).collect(),
        promised: file
            .fitting
            .as_ref()
            .map(|fitting| proof_figures(&file.work, &fitting.predicted.0, Detail::Axles, units))
            .unwrap_or_default()
            .into_iter()
            .map(|figure| (figure.label, figure.value, figure.note))
            .collect(),
        ratings: load_figures(found, &file.case().names_aboard(), units)
            .into_iter()
            .map(|figure| (figure.label, figure.value, figure.note))
            .collect(),
        too_much: file.work.cases().iter().filter_map(over).collect(),
        torques: card.as_ref().map(|card| torques(card, &record.ticks, &record.names, record)).unwrap_or_default(),
        due: still_due(&record.file, card.as_ref()).into_iter().map(|due| due_words(due, begins)).collect(),
        seen: seen(record),
        put_right: put_right_words(&file.work, file.case().chosen).iter().map(|words| sentence(words)).collect(),
        cautions: file.work.cautions(parts).into_iter().map(caution_text).collect(),
        checked: checks(Some(CheckedWord::Done)).collect(),
        not_checked: checks(Some(CheckedWord::NotDone)).collect(),
        not_noted: checks(None).collect(),
        agreed: extras(true).collect(),
        declined: extras(false).collect(),
        released: proof.released_alone.clone(),
    })
}

impl HandoverSheet {
    /// Whose, which, when.
    fn heading(&self) -> String {
        format!("{}, job {}, {}. {}.", self.shop, self.number, self.today, self.vehicle)
    }
}

fn heights(record: &Record, units: Units) -> Vec<HeightLine> {
    let (found, fitted) = (record.file.work.found(), record.file.work.fitted());
    let line = |end: End, state: LoadState| {
        // What is said to have changed is the difference of what stands beside it.
        let before = found.height(end, state)?.in_steps_of(units.step()).value;
        let after = fitted.height(end, state).map(|height| height.in_steps_of(units.step()).value);
        Some(HeightLine {
            name: format!("{}, {}", sentence(end_name(found.vehicle.class, end)), state_of(found, state)),
            before: units.height(before),
            after: after.map_or_else(|| "not measured".to_owned(), |after| units.height(after)),
            change: after.map_or_else(String::new, |after| units.change(after - before)),
        })
    };
    [End::Front, End::Rear].into_iter().flat_map(|end| found.states().filter_map(move |state| line(end, state))).collect()
}

/// Every torque of the card as it was read last.
fn torques(card: &Card, ticks: &[Tick], names: &Names, record: &Record) -> Vec<TorqueLine> {
    let class = record.file.work.found().vehicle.class;
    let line = |step: &Step| {
        let Asks::Torque(fastener) = step.operation.asks else { return None };
        let tick = ticks.iter().rev().find(|tick| tick.entry.0.step == step.key())?;
        let Answer::Torque { target, read, wrench } = &tick.entry.0.answer else { return None };
        Some(TorqueLine {
            what: format!(
                "{}, {}{}",
                sentence(fastener_words(fastener)),
                place_words(&step.place, class).to_lowercase(),
                if step.operation.phase == WorkPhase::Drive { ", after the drive" } else { "" }
            ),
            figure: torque_words(target),
            read: torque_words(read),
            wrench: wrench.clone(),
            by: names.of(tick.recorded_by).to_owned(),
        })
    };
    card.steps.iter().filter_map(line).collect()
}

/// What is due after the work of a card; once it was measured after settling, all of it was done then, but for heights that were all read
/// otherwise than before: they are due as they were.
pub(super) fn still_due(file: &JobFile, card: Option<&Card>) -> Vec<Due> {
    let case = file.case();
    let mut settled = case.readings.iter().map(|reading| reading.spot).filter(|spot| spot.phase == Phase::Settled).peekable();
    let came_back = settled.peek().is_some();
    let as_before = settled.any(|spot| case.otherwise_in(spot.phase, spot.state).is_empty());
    let mut due = card.map(due).unwrap_or_default();
    due.retain(|due| !came_back || !as_before && due.what == DueWhat::Heights);
    due
}

/// What is due, by name.
fn due_name(what: DueWhat) -> &'static str {
    match what {
        DueWhat::LugNuts => "lug nuts tightened again",
        DueWhat::UBolts => "U-bolts tightened again",
        DueWhat::Heights => "heights measured again, once it has settled",
    }
}

/// After how many miles, and by which day at the latest.
fn due_words(due: Due, begins: NaiveDate) -> String {
    let by = (begins + Days::new(due.days)).format("%B %-d");
    format!("{}: {}, by {by} at the latest", after_miles(due), due_name(due.what))
}

fn after_miles(due: Due) -> String {
    let [least, most] = due.miles.map(miles);
    format!("After {least} to {most} miles")
}

/// Miles with thousands set apart.
fn miles(count: u32) -> String {
    if count < 1_000 { count.to_string() } else { format!("{},{:03}", count / 1_000, count % 1_000) }
}

/// What was seen that is watched, or was not put right.
fn seen(record: &Record) -> Vec<String> {
    let findings = &record.file.work.look_over().findings;
    let watched = findings.iter().filter(|finding| finding.counted_grade() == Grade::Watch);
    let words = |area: Area, defects: Vec<String>| {
        if defects.is_empty() { area_name(area).to_owned() } else { format!("{}: {}", area_name(area), defects.join("; ")) }
    };
    watched
        .map(|finding| words(finding.area, finding.all_defects().into_iter().map(|of| defect_name(of).to_owned()).collect()))
        .collect()
}
