//! The job on one page, as it is printed.

use actix_web::HttpResponse;
use actix_web::http::StatusCode;
use actix_web::web::{Data, Path};
use askama::Template;
use wise_badger_casework::casework::Casework;
use wise_badger_casework::prediction::Prediction;
use wise_badger_casework::route::Progress;
use wise_badger_casework::survey::{End, LoadState, Survey};
use wise_badger_casework::words::Word;
use wise_badger_mechanics::correction::Correction;
use wise_badger_mechanics::units::metres;
use wise_badger_store::Database;
use wise_badger_store::job_file::JobFile;
use wise_badger_store::job_list::{self, Which};

use super::hands::{Around, HandsForm};
use super::job_frame::{JobFrame, with_prediction};
use super::proof::outside_words;
use super::sums::{KeptLine, kept_lines};
use super::yard::{Known, RULES, with_stands};
use super::{Hidden, Page, Record, job_record, page};
use crate::correction::option_name;
use crate::drawing::{EarlierHeight, Shown};
use crate::error::WebError;
use crate::form::Sheet;
use crate::job_route::{missing, to_do_words};
use crate::reckoning::drawn;
use crate::view::aim::aim_words;
use crate::view::look_over::put_right_words;
use crate::view::overload::{OverloadWords, overload_words};
use crate::view::prediction::{Detail, goal_sentence, prediction_figures};
use crate::view::proof::proof_figures;
use crate::view::verdict::{height_figures, load_figures, rate_figures};
use crate::view::{Figure, Units, caution_text, clock, datum_name, end_name, sentence, state_of};
use crate::worker::Worker;

/// So many visits before this one are looked through for heights.
const MOST_EARLIER: i64 = 6;

#[derive(Template)]
#[template(path = "job.html")]
struct JobPage {
    frame: JobFrame,
    number: i32,
    stands: String,
    missing: Vec<String>,
    overload: Option<OverloadWords>,
    datum: &'static str,
    /// The states read, by name.
    states: Vec<String>,
    /// A row for each axle: its name, its heights in every state, and the same after fitting.
    heights: Vec<HeightRow>,
    figures: Vec<Figure>,
    aim: String,
    chosen: String,
    predicted: Vec<Figure>,
    aim_verdict: String,
    proof: Vec<Figure>,
    /// What is to be put right along with it.
    put_right: Vec<String>,
    cautions: Vec<&'static str>,
    opened: String,
    measured_by: String,
    hidden: Hidden,
    hands: HandsForm,
    /// Why a height came out of its band, where somebody had to say so.
    outside: String,
    sums: Vec<KeptLine>,
}

pub(crate) async fn show(database: Data<Database>, worker: Worker, number: Path<i32>) -> Result<HttpResponse, WebError> {
    let record = job_record(&database, &worker, *number).await?;
    let around = Around::read(&database, worker.shop_id(), record.file.job.id).await?;
    let earlier = earlier(&database, &record.file, &around).await?;
    drawn(move |_| job_page(&worker, &record, &around, earlier)).await
}

/// Rear heights of the vehicle's latest visit before this one that was measured from the same: as it left, or as it was found.
async fn earlier(database: &Data<Database>, file: &JobFile, around: &Around) -> Result<Vec<EarlierHeight>, WebError> {
    let (shop, number) = (file.job.shop_id, file.job.number);
    let Some(vehicle) = around.vehicle.as_ref().map(|vehicle| vehicle.id).filter(|_| around.visits.len() > 1) else {
        return Ok(Vec::new());
    };
    let listed = database.read(move |connection| {
        job_list::newest(connection, shop, &Which::OfVehicle(vehicle), &RULES, MOST_EARLIER, Some(number))
    });
    let datum = file.case().measured.datum.map(Word::word).unwrap_or_default();
    let heights = |known: Known| {
        let visit = known.stands.filter(|stands| stands.visit.datum == datum)?.visit;
        // As it left, where anything was read then: before and after are never mixed.
        let left = visit.fitted.iter().any(Option::is_some);
        let each = LoadState::BOTH.into_iter().zip(if left { visit.fitted } else { visit.found });
        let read = |(state, height): (LoadState, Option<f64>)| {
            Some(EarlierHeight { visit: known.job.number.0, state, height: metres(height?) })
        };
        Some(each.filter_map(read).collect::<Vec<_>>()).filter(|heights| !heights.is_empty())
    };
    Ok(with_stands(database, listed.await?).await?.into_iter().find_map(heights).unwrap_or_default())
}

fn job_page(worker: &Worker, record: &Record, around: &Around, earlier: Vec<EarlierHeight>) -> Result<Page, WebError> {
    let Record { file, names, .. } = record;
    let (units, survey) = (worker.units(), file.work.found());
    let fitted = file.work.fitted();
    let overload = overload_words(&file.work, units);
    let (class, chosen) = (file.case().intake.class, file.work.chosen());
    let (correction, prediction) = (chosen.map(|(_, parts)| parts), file.work.chosen_predicted());
    let most = file.case().aim.as_ref().map_or(0, |aim| aim.most);
    let option = file.case().chosen.filter(|_| prediction.is_some());
    let aim_verdict = option.and_then(|option| goal_sentence(&file.work, most, option, units));
    let progress = Progress::of(&file.work, file.job.finished_at.is_some());
    let mut readers: Vec<&str> = file.taken.iter().map(|(by, _)| names.of(*by)).collect();
    readers.sort_unstable();
    readers.dedup();
    let template = JobPage {
        frame: JobFrame::new(worker, file, None, &Shown { earlier, ..with_prediction(&file.work, prediction) }),
        number: file.job.number.0,
        stands: sentence(&to_do_words(&progress, Some(class))),
        missing: missing(&file.work),
        overload,
        datum: datum_name(survey.vehicle.class, survey.datum),
        states: survey.states().map(|state| sentence(state_of(survey, state))).collect(),
        heights: [End::Front, End::Rear].map(|end| height_row(end, survey, fitted, units)).into(),
        figures: key_figures(&file.work, units),
        aim: aim_words(&file.work, units),
        chosen: chosen.map(|(entry, _)| option_name(entry, class, units)).unwrap_or_default(),
        predicted: prediction_parts(&file.work, correction, prediction, units),
        put_right: put_right_words(&file.work, file.case().chosen),
        aim_verdict: aim_verdict.map(|(_, text)| text).unwrap_or_default(),
        proof: file
            .fitting
            .as_ref()
            .map(|fitting| proof_figures(&file.work, &fitting.predicted.0, Detail::Axles, units))
            .unwrap_or_default(),
        cautions: correction
            .filter(|_| prediction.is_some())
            .map(|parts| file.work.cautions(parts).into_iter().map(caution_text).collect())
            .unwrap_or_default(),
        opened: format!("Opened by {}, {}", names.of(file.job.opened_by), clock(file.job.opened_at)),
        measured_by: readers.join(", "),
        hidden: Hidden::new(&Sheet::blank(units), file.job.revision),
        hands: HandsForm::new(around, &file.job, worker),
        outside: outside_words(&file.case().proof),
        sums: kept_lines(worker, file),
    };
    page(StatusCode::OK, &template)
}

/// Heights of an axle before and after.
struct HeightRow {
    name: String,
    before: Vec<String>,
    after: Vec<String>,
}

fn height_row(end: End, found: &Survey, fitted: &Survey, units: Units) -> HeightRow {
    let heights = |survey: &Survey| {
        let height = |state| survey.height(end, state).map_or_else(|| "–".to_owned(), |height| units.height(height.value));
        survey.states().map(height).collect()
    };
    HeightRow { name: sentence(end_name(found.vehicle.class, end)), before: heights(found), after: heights(fitted) }
}

/// The figures a job card needs; leans and the rest stand on Verdict.
fn key_figures(work: &Casework, units: Units) -> Vec<Figure> {
    let survey = work.found();
    let heights = height_figures(survey, units).into_iter().filter(|figure| !figure.label.starts_with("Lean"));
    let loads = load_figures(survey, &work.case().names_aboard(), units);
    heights.chain(loads).chain(rate_figures(work.predictor(), units)).collect()
}

fn prediction_parts(
    work: &Casework,
    correction: Option<&[Correction]>,
    prediction: Option<&Prediction>,
    units: Units,
) -> Vec<Figure> {
    let both = correction.zip(prediction);
    both.map(|(correction, prediction)| prediction_figures(work.predictor(), correction, prediction, Detail::Axles, units))
        .unwrap_or_default()
}
