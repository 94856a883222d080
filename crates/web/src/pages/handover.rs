//! The sheet that goes with the vehicle: before and after, what was fitted, what it can carry, torques, what is due, what else was seen.

use std::sync::Arc;

use actix_web::HttpResponse;
use actix_web::http::StatusCode;
use actix_web::web::{Data, Path};
use askama::Template;
use chrono::Local;
use wise_badger_casework::case::PlannedCase;
use wise_badger_casework::look_over::{Area, Grade};
use wise_badger_casework::route::Stage;
use wise_badger_casework::survey::{End, LoadState};
use wise_badger_casework::wrench::{Answer, Asks, Card, Due, DueWhat, Step, due};
use wise_badger_store::Database;
use wise_badger_store::wrench_tick::Tick;

use super::job_frame::with_prediction;
use super::wrench::{card_of_job, ticked};
use super::{Names, Page, Record, job_record, page};
use crate::correction::correction_name;
use crate::drawing::StanceDrawing;
use crate::error::WebError;
use crate::job_route::StageWords as _;
use crate::reckoning::drawn;
use crate::shell::Shell;
use crate::view::load_plan::over_words;
use crate::view::look_over::{area_name, defect_name, put_right_words};
use crate::view::prediction::Detail;
use crate::view::proof::proof_figures;
use crate::view::verdict::load_figures;
use crate::view::wrench::{fastener_words, place_words};
use crate::view::{Units, caution_text, class_name, datum_name, end_name, sentence, state_of, typed_text};
use crate::worked_out;
use crate::worker::Worker;

#[derive(Template)]
#[template(path = "handover.html")]
struct HandoverPage {
    shell: Shell,
    number: i32,
    proof: String,
    shop: String,
    label: String,
    vehicle: String,
    today: String,
    fitted: Vec<String>,
    /// What has to be looked after.
    upkeep: Vec<String>,
    drawing: Arc<StanceDrawing>,
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
    let (ticks, _) = ticked(&database, &worker, &record.file).await?;
    drawn(move |_| handover_page(&worker, &record, &ticks)).await
}

fn handover_page(worker: &Worker, record: &Record, ticks: &[Tick]) -> Result<Page, WebError> {
    let (file, units) = (&record.file, worker.units());
    let (found, fitted, class) = (file.work.found(), file.work.fitted(), file.case().intake.class);
    let number = file.job.number;
    let Some((option, parts)) = file.work.chosen() else {
        return Err(WebError::NotNow(
            "Nothing is chosen on this job yet, so there is nothing to hand over. Choose on Options first.",
        ));
    };
    let heights = heights(record, units);
    let not_measured =
        found.states().filter(|state| found.height(End::Rear, *state).is_some() && fitted.height(End::Rear, *state).is_none());
    let mut shown = with_prediction(&file.work, None);
    shown.fitted = file.work.is_measured_again().then(|| fitted.clone());
    let card = card_of_job(file, ticks);
    let over = |case: &PlannedCase| {
        let words = over_words(&case.survey, LoadState::Loaded, units);
        (!words.is_empty()).then(|| format!("“{}”: {words}", case.name))
    };
    let template = HandoverPage {
        shell: Shell::new(worker, format!("Handover: {}", file.case().intake.label), format!("/jobs/{}/handover", number.0)),
        number: number.0,
        proof: Stage::Proof.path(number),
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
        drawing: worked_out::stance(file, &shown, units),
        datum: datum_name(found.vehicle.class, found.datum),
        heights,
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
        torques: card.as_ref().map(|card| torques(card, ticks, &record.names, record, units)).unwrap_or_default(),
        due: card.as_ref().map(|card| due(card).into_iter().map(due_words).collect()).unwrap_or_default(),
        seen: seen(record),
        put_right: put_right_words(&file.work, file.case().chosen).iter().map(|words| sentence(words)).collect(),
        cautions: file.work.cautions(parts).into_iter().map(caution_text).collect(),
    };
    page(StatusCode::OK, &template)
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
fn torques(card: &Card, ticks: &[Tick], names: &Names, record: &Record, units: Units) -> Vec<TorqueLine> {
    let class = record.file.work.found().vehicle.class;
    let line = |step: &Step| {
        let Asks::Torque(fastener) = step.operation.asks else { return None };
        let tick = ticks.iter().rev().find(|tick| tick.entry.0.step == step.key())?;
        let Answer::Torque { target, read, wrench } = &tick.entry.0.answer else { return None };
        Some(TorqueLine {
            what: format!("{}, {}", sentence(fastener_words(fastener)), place_words(&step.place, class).to_lowercase()),
            figure: typed_text(target, units),
            read: typed_text(read, units),
            wrench: wrench.clone(),
            by: names.of(tick.recorded_by).to_owned(),
        })
    };
    card.steps.iter().filter_map(line).collect()
}

fn due_words(due: Due) -> String {
    let [least, most] = due.miles.map(miles);
    let what = match due.what {
        DueWhat::LugNuts => "lug nuts tightened again",
        DueWhat::UBolts => "U-bolts tightened again",
        DueWhat::Heights => "heights measured again, once it has settled",
    };
    format!("After {least} to {most} miles: {what}")
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
