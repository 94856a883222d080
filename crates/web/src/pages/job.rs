//! The job on one page, as it is printed.

use actix_web::HttpResponse;
use actix_web::http::StatusCode;
use actix_web::web::{Data, Path};
use askama::Template;
use wise_badger_casework::prediction::Predictor;
use wise_badger_casework::reading::Phase;
use wise_badger_casework::survey::{End, LoadState, Survey};
use wise_badger_store::Database;

use super::job_frame::{JobFrame, found, with_prediction};
use super::{Hidden, Page, Record, job_record, page};
use crate::correction::correction_name;
use crate::error::WebError;
use crate::form::Sheet;
use crate::job_route::{Standing, missing_on_tape};
use crate::reckoning::drawn;
use crate::view::aim::aim_name;
use crate::view::overload::{OverloadWords, overload_words};
use crate::view::prediction::{aim_sentence, prediction_figures};
use crate::view::proof::proof_figures;
use crate::view::verdict::{height_figures, load_figures, rate_figures};
use crate::view::{Figure, Units, caution_text, clock, datum_name, sentence};
use crate::worker::Worker;

#[derive(Template)]
#[template(path = "job.html")]
struct JobPage {
    frame: JobFrame,
    number: i32,
    stands: String,
    missing: Vec<String>,
    overload: Option<OverloadWords>,
    datum: &'static str,
    /// A row for each axle: name, empty, loaded, after empty, after loaded.
    heights: Vec<[String; 5]>,
    figures: Vec<Figure>,
    aim: String,
    chosen: String,
    predicted: Vec<Figure>,
    aim_verdict: String,
    proof: Vec<Figure>,
    cautions: Vec<&'static str>,
    opened: String,
    measured_by: String,
    hidden: Hidden,
}

pub(crate) async fn show(database: Data<Database>, worker: Worker, number: Path<i32>) -> Result<HttpResponse, WebError> {
    let record = job_record(&database, &worker, *number).await?;
    drawn(move |_| job_page(&worker, &record)).await
}

fn job_page(worker: &Worker, record: &Record) -> Result<Page, WebError> {
    let Record { file, names, .. } = record;
    let (units, survey) = found(worker, file);
    let fitted = file.case.survey(Phase::Fitted);
    let overload = overload_words(&survey, &file.case.names_aboard(), units);
    let chosen = file.fitting.as_ref().and_then(|fitting| file.corrections.iter().find(|c| c.id == fitting.correction_id));
    let correction = chosen.and_then(|considered| considered.entry.0.correction()).filter(|_| overload.is_none());
    let prediction = correction.as_ref().map(|correction| Predictor::new(&survey).predict(correction));
    let aim = file.case.aim.as_ref().map(|entry| entry.aim());
    let aim_verdict =
        prediction.as_ref().zip(aim.as_ref()).and_then(|(prediction, aim)| aim_sentence(aim, &survey, prediction, units));
    let mut readers: Vec<&str> = file.taken.iter().map(|(by, _)| names.of(*by)).collect();
    readers.sort_unstable();
    readers.dedup();
    let template = JobPage {
        frame: JobFrame::new(worker, file, None, &with_prediction(file, &survey, prediction)),
        number: file.job.number.0,
        stands: sentence(&Standing::of(file).words),
        missing: missing_on_tape(&survey),
        overload,
        datum: datum_name(survey.vehicle.class, survey.datum),
        heights: [End::Front, End::Rear].map(|end| height_row(end, &survey, &fitted, units)).to_vec(),
        figures: key_figures(&survey, &file.case.names_aboard(), units),
        aim: aim.map(|aim| aim_name(&aim, units)).unwrap_or_default(),
        chosen: chosen.map(|considered| correction_name(&considered.entry.0, file.case.intake.class, units)).unwrap_or_default(),
        predicted: prediction_parts(&survey, correction.as_ref(), prediction.as_ref(), units),
        aim_verdict: aim_verdict.map(|(_, text)| text).unwrap_or_default(),
        proof: file.fitting.as_ref().map(|fitting| proof_figures(&fitting.predicted.0, &fitted, units)).unwrap_or_default(),
        cautions: correction.map(|c| c.cautions().into_iter().map(caution_text).collect()).unwrap_or_default(),
        opened: format!("Opened by {}, {}", names.of(file.job.opened_by), clock(file.job.opened_at)),
        measured_by: readers.join(", "),
        hidden: Hidden::new(&Sheet::blank(units), file.job.revision),
    };
    page(StatusCode::OK, &template)
}

fn height_row(end: End, found: &Survey, fitted: &Survey, units: Units) -> [String; 5] {
    let height = |survey: &Survey, state| survey.height(end, state).map_or_else(|| "–".to_owned(), |h| units.height(h.value));
    [
        sentence(crate::view::end_name(found.vehicle.class, end)),
        height(found, LoadState::Empty),
        height(found, LoadState::Loaded),
        height(fitted, LoadState::Empty),
        height(fitted, LoadState::Loaded),
    ]
}

/// The figures a job card needs; leans and the rest stand on Verdict.
fn key_figures(survey: &Survey, names: &[String], units: Units) -> Vec<Figure> {
    let heights = height_figures(survey, units).into_iter().filter(|figure| !figure.label.starts_with("Lean"));
    heights.chain(load_figures(survey, names, units)).chain(rate_figures(survey, units)).collect()
}

fn prediction_parts(
    survey: &Survey,
    correction: Option<&wise_badger_mechanics::correction::Correction>,
    prediction: Option<&wise_badger_casework::prediction::Prediction>,
    units: Units,
) -> Vec<Figure> {
    match (correction, prediction) {
        (Some(correction), Some(prediction)) => prediction_figures(survey, correction, prediction, units),
        _ => Vec::new(),
    }
}
