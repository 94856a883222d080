//! The finder: what the shelf has for a job, the best beside one another, all that is allowed in a list, and why not the others.

mod columns;
mod layout;
mod list;
mod looking;
mod schools;
mod weighing;
mod why_not;

use std::hash::{DefaultHasher, Hash as _, Hasher as _};
use std::sync::Arc;

use actix_web::HttpResponse;
use actix_web::http::header::{CACHE_CONTROL, ContentType};
use actix_web::web::{Data, Path, Query};
use chrono::Local;
use wise_badger_casework::entry::OptionEntry;
use wise_badger_casework::finder::Weights;
use wise_badger_store::job_file::JobFile;
use wise_badger_store::{Database, JobNumber, StoreError, correction, shelf, shop};

use self::layout::finder_page;
use self::looking::{Looking, Question, Stands};
use self::weighing::{along, weights_of};
use super::options::{newest_of, refuse_what_cannot_be_cured};
use super::{job_file, keep_or_fail, once, see_other};
use crate::error::WebError;
use crate::form::{Posted, Sheet, asked_by_address};
use crate::reckoning::{drawn, run};
use crate::view::finder::came_words;
use crate::worker::Worker;

fn address(number: i32) -> String {
    format!("/jobs/{number}/finder")
}

pub(crate) async fn show(
    database: Data<Database>,
    worker: Worker,
    number: Path<i32>,
    asked: Query<Vec<(String, String)>>,
) -> Result<HttpResponse, WebError> {
    let (file, sheet, looking, weights) = asked_for(&database, &worker, *number, asked).await?;
    let stands = looking.stands().await?;
    drawn(move |_| finder_page(&worker, &file, &sheet, weights, looking.id, &stands)).await
}

/// How a search stands, for a page that shows it: `looking` with how far it has come and how much it has found, `ended`, or `stale` when
/// the job, the shelf or what counts is another by now; then the search for that has begun.
pub(crate) async fn look(
    database: Data<Database>,
    worker: Worker,
    number: Path<i32>,
    asked: Query<Vec<(String, String)>>,
) -> Result<HttpResponse, WebError> {
    let (_, sheet, looking, _) = asked_for(&database, &worker, *number, asked).await?;
    let text = match looking.now()? {
        _ if sheet.text("look") != looking.id.to_string() => "stale".to_owned(),
        Stands::Ended(_) => "ended".to_owned(),
        Stands::GoesOn(found, came) => {
            let (done, of) = came.map_or((0, 0), |came| (came.done, came.of));
            let found = found.map_or(0, |found| found.ranked.len());
            format!("looking\n{}\n{done}\n{of}\n{found}", came_words(came))
        }
    };
    Ok(HttpResponse::Ok().insert_header(ContentType::plaintext()).insert_header((CACHE_CONTROL, "no-store")).body(text))
}

/// Calls a search off: what was found by then is shown.
pub(crate) async fn stop(worker: Worker, number: Path<i32>, posted: Posted) -> Result<HttpResponse, WebError> {
    let sheet = Sheet::posted(posted, worker.units());
    if let Ok(id) = sheet.text("look").parse() {
        Looking::call_off(id, worker.shop_id(), JobNumber(*number));
    }
    Ok(back_to(*number, &sheet))
}

/// Begins a search anew that was called off.
pub(crate) async fn again(worker: Worker, number: Path<i32>, posted: Posted) -> Result<HttpResponse, WebError> {
    let sheet = Sheet::posted(posted, worker.units());
    if let Ok(id) = sheet.text("look").parse() {
        Looking::forget(id, worker.shop_id(), JobNumber(*number));
    }
    Ok(back_to(*number, &sheet))
}

/// Keeps what counts as the shop's, for every job from now on.
pub(crate) async fn keep_weights(
    database: Data<Database>,
    worker: Worker,
    number: Path<i32>,
    posted: Posted,
) -> Result<HttpResponse, WebError> {
    let sheet = Sheet::posted(posted, worker.units());
    let weights = weights_of(&sheet, usual(&database, &worker).await?);
    once(&database, &worker, &sheet, move |connection, person| shop::weigh(connection, person, weights)).await?;
    Ok(see_other(address(*number)))
}

/// Puts an option that was found on the job's list. It is looked for again: what has changed meanwhile is found otherwise.
pub(crate) async fn keep(
    database: Data<Database>,
    worker: Worker,
    number: Path<i32>,
    posted: Posted,
) -> Result<HttpResponse, WebError> {
    let file = job_file(&database, &worker, *number).await?;
    refuse_what_cannot_be_cured(&file)?;
    let sheet = Sheet::posted(posted, worker.units());
    let (looking, _) = join(&database, &worker, &file, &sheet).await?;
    let found = looking.to_its_end().await?;
    let key = sheet.text("option").to_owned();
    let kept = run(move |_| Ok(found.ranked.iter().map(|ranked| &ranked.option).find(|option| key_of(option) == key).cloned()));
    let entry = kept.await?.ok_or(WebError::NotNow(
        "The readings, the aim or the shelf have changed since, and this option is not found any more. Go back and look again.",
    ))?;
    let job = file.job.id;
    keep_or_fail(&database, &worker, &sheet, job, move |connection, person| {
        correction::consider(connection, person, job, &entry).map(|_| ())
    })
    .await?;
    Ok(see_other(newest_of(file.job.number)))
}

/// Back to the page, what counts as it was.
fn back_to(number: i32, sheet: &Sheet) -> HttpResponse {
    let weights = weights_of(sheet, Weights::default());
    see_other(format!("{}?{}", address(number), along(&weights, &[])))
}

/// A job, what is asked of it in the address, and the search for that.
async fn asked_for(
    database: &Data<Database>,
    worker: &Worker,
    number: i32,
    asked: Query<Vec<(String, String)>>,
) -> Result<(JobFile, Sheet, Arc<Looking>, Weights), WebError> {
    let file = job_file(database, worker, number).await?;
    let sheet = Sheet::posted(asked_by_address(asked.into_inner()), worker.units());
    let (looking, weights) = join(database, worker, &file, &sheet).await?;
    Ok((file, sheet, looking, weights))
}

/// What counts for the shop.
async fn usual(database: &Data<Database>, worker: &Worker) -> Result<Weights, WebError> {
    let shop = worker.shop_id();
    Ok(database.read(move |connection| shop::weights(connection, shop)).await?)
}

/// The search for a job as it stands, and what counts in it.
async fn join(
    database: &Data<Database>,
    worker: &Worker,
    file: &JobFile,
    sheet: &Sheet,
) -> Result<(Arc<Looking>, Weights), WebError> {
    let shop = worker.shop_id();
    let read =
        database.read(move |connection| Ok::<_, StoreError>((shop::weights(connection, shop)?, shelf::stamp(connection, shop)?)));
    let (usual, stamp) = read.await?;
    let weights = weights_of(sheet, usual);
    let question = Question {
        shop,
        number: file.job.number,
        work: Arc::clone(&file.work),
        shelf: stamp,
        weights,
        today: Local::now().date_naive().to_string(),
        units: worker.units(),
    };
    let parts = || async { Ok(database.read(move |connection| shelf::all_as_known(connection, shop)).await?) };
    Ok((Looking::join(question, parts).await?, weights))
}

/// What an option goes by between two looks: its parts and how they are set.
fn key_of(option: &OptionEntry) -> String {
    let mut hasher = DefaultHasher::new();
    serde_json::to_string(option).unwrap_or_default().hash(&mut hasher);
    format!("{:016x}", hasher.finish())
}
