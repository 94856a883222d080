//! The job on one page, as it is printed.

use actix_web::HttpResponse;
use actix_web::http::StatusCode;
use actix_web::web::{Data, Path};
use askama::Template;
use wise_badger_casework::casework::Casework;
use wise_badger_casework::prediction::Prediction;
use wise_badger_casework::route::Progress;
use wise_badger_casework::survey::{End, LoadState, Survey};
use wise_badger_mechanics::correction::Correction;
use wise_badger_store::Database;

use super::job_frame::{JobFrame, with_prediction};
use super::{Hidden, Page, Record, job_record, page};
use crate::correction::correction_name;
use crate::error::WebError;
use crate::form::Sheet;
use crate::job_route::{missing, to_do_words};
use crate::reckoning::drawn;
use crate::view::aim::aim_name;
use crate::view::overload::{OverloadWords, overload_words};
use crate::view::prediction::{Detail, aim_sentence, prediction_figures};
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
    let (units, survey) = (worker.units(), file.work.found());
    let fitted = file.work.fitted();
    let overload = overload_words(&file.work, units);
    let (class, chosen) = (file.case().intake.class, file.work.chosen());
    let (correction, prediction) = (chosen.map(|(_, correction)| correction), file.work.chosen_predicted());
    let aim = file.work.aim();
    let aim_verdict = prediction.zip(aim.as_ref()).and_then(|(prediction, aim)| aim_sentence(aim, survey, prediction, units));
    let progress = Progress::of(&file.work, file.job.finished_at.is_some());
    let mut readers: Vec<&str> = file.taken.iter().map(|(by, _)| names.of(*by)).collect();
    readers.sort_unstable();
    readers.dedup();
    let template = JobPage {
        frame: JobFrame::new(worker, file, None, &with_prediction(&file.work, prediction)),
        number: file.job.number.0,
        stands: sentence(&to_do_words(&progress, Some(class))),
        missing: missing(survey),
        overload,
        datum: datum_name(survey.vehicle.class, survey.datum),
        heights: [End::Front, End::Rear].map(|end| height_row(end, survey, fitted, units)).to_vec(),
        figures: key_figures(&file.work, units),
        aim: aim.map(|aim| aim_name(&aim, units)).unwrap_or_default(),
        chosen: chosen.map(|(entry, _)| correction_name(entry, class, units)).unwrap_or_default(),
        predicted: prediction_parts(&file.work, correction, prediction, units),
        aim_verdict: aim_verdict.map(|(_, text)| text).unwrap_or_default(),
        proof: file
            .fitting
            .as_ref()
            .map(|fitting| proof_figures(&fitting.predicted.0, fitted, Detail::Axles, units))
            .unwrap_or_default(),
        cautions: correction
            .filter(|_| prediction.is_some())
            .map(|c| c.cautions().into_iter().map(caution_text).collect())
            .unwrap_or_default(),
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
fn key_figures(work: &Casework, units: Units) -> Vec<Figure> {
    let survey = work.found();
    let heights = height_figures(survey, units).into_iter().filter(|figure| !figure.label.starts_with("Lean"));
    let loads = load_figures(survey, &work.case().names_aboard(), units);
    heights.chain(loads).chain(rate_figures(survey, work.rate(), units)).collect()
}

fn prediction_parts(
    work: &Casework,
    correction: Option<&Correction>,
    prediction: Option<&Prediction>,
    units: Units,
) -> Vec<Figure> {
    let both = correction.zip(prediction);
    both.map(|(correction, prediction)| prediction_figures(work.predictor(), correction, prediction, Detail::Axles, units))
        .unwrap_or_default()
}
