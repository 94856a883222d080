//! Pages: each module holds the handlers of one area and the struct its template prints.

pub(crate) mod aim;
pub(crate) mod assets;
pub(crate) mod bench;
pub(crate) mod drive;
pub(crate) mod history;
pub(crate) mod intake;
pub(crate) mod intake_sheet;
pub(crate) mod job;
mod job_frame;
pub(crate) mod load;
pub(crate) mod look_over;
pub(crate) mod options;
pub(crate) mod photographs;
pub(crate) mod proof;
pub(crate) mod sums;
pub(crate) mod tape;
pub(crate) mod understood;
pub(crate) mod verdict;
pub(crate) mod who;
pub(crate) mod yard;

use actix_web::HttpResponse;
use actix_web::http::StatusCode;
use actix_web::http::header::{CACHE_CONTROL, ContentType, LOCATION};
use actix_web::web::{Data, Form};
use askama::Template;
use wise_badger_store::job as jobs;
use wise_badger_store::job_file::JobFile;
use wise_badger_store::job_sheet;
use wise_badger_store::person::{self, Person};
use wise_badger_store::photograph::Photograph;
use wise_badger_store::{Database, JobId, JobNumber, PersonId, PgConnection, StoreError, photograph, reading, submission};

use crate::error::WebError;
use crate::form::{Sheet, new_token};
use crate::view::clock;
use crate::worker::Worker;

/// What a form posts: names and texts, in order.
pub(crate) type Posted = Form<Vec<(String, String)>>;

/// A finished page. Pages show what is in the database now, so none is kept by a browser.
fn page(status: StatusCode, template: &impl Template) -> Result<HttpResponse, WebError> {
    let body = template.render()?;
    Ok(HttpResponse::build(status).insert_header(ContentType::html()).insert_header((CACHE_CONTROL, "no-store")).body(body))
}

fn see_other(path: impl Into<String>) -> HttpResponse {
    HttpResponse::SeeOther().insert_header((LOCATION, path.into())).finish()
}

async fn job_file(database: &Data<Database>, worker: &Worker, number: i32) -> Result<JobFile, WebError> {
    let shop = worker.shop_id();
    Ok(database.read(move |connection| JobFile::find(connection, shop, JobNumber(number))).await?)
}

/// A job with its record: who did what, and what was corrected.
struct Record {
    file: JobFile,
    names: Names,
    /// The readings that were corrected and stay on record.
    withdrawn: Vec<reading::Withdrawn>,
    photographs: Vec<Photograph>,
}

async fn job_record(database: &Data<Database>, worker: &Worker, number: i32) -> Result<Record, WebError> {
    let shop = worker.shop_id();
    let read = database.read(move |connection| {
        let file = JobFile::find(connection, shop, JobNumber(number))?;
        let people = person::of_shop(connection, shop)?;
        let names = Names(people.into_iter().map(|person| (person.id, person.name)).collect());
        let withdrawn = reading::withdrawn(connection, shop, file.job.id)?;
        let photographs = photograph::of_job(connection, shop, file.job.id)?;
        Ok::<_, StoreError>(Record { file, names, withdrawn, photographs })
    });
    Ok(read.await?)
}

/// Names of the shop's people by key.
struct Names(Vec<(PersonId, String)>);

impl Names {
    fn of(&self, id: PersonId) -> &str {
        self.0.iter().find(|(of, _)| *of == id).map_or("somebody", |(_, name)| name)
    }
}

/// The hidden fields of a form: which sending this is, what the page showed, and the units it showed it in.
#[derive(Template)]
#[template(path = "parts/hidden.html")]
struct Hidden {
    token: String,
    revision: i32,
    length_unit: &'static str,
    weight_unit: &'static str,
}

impl askama::filters::HtmlSafe for Hidden {}

impl Hidden {
    fn new(sheet: &Sheet, revision: i32) -> Self {
        let units = sheet.units();
        Hidden { token: new_token(), revision, length_unit: units.length_name(), weight_unit: units.weight_name() }
    }
}

/// Why a form was not taken in, for the top of its page.
#[derive(Debug, Clone)]
enum Refusal {
    /// Some fields are wrong.
    Fields(usize),
    /// Somebody saved the job since the page was opened.
    Stale(String),
}

impl Refusal {
    fn status(&self) -> StatusCode {
        match self {
            Refusal::Fields(_) => StatusCode::UNPROCESSABLE_ENTITY,
            Refusal::Stale(_) => StatusCode::CONFLICT,
        }
    }

    fn words(&self) -> String {
        match self {
            Refusal::Fields(1) => "Nothing was saved: one field needs another look. What you typed is still here.".to_owned(),
            Refusal::Fields(count) => {
                format!("Nothing was saved: {count} fields need another look. What you typed is still here.")
            }
            Refusal::Stale(text) => text.clone(),
        }
    }
}

/// How a saving ended that did not fail outright.
enum Kept {
    Saved,
    Stale(Refusal),
}

/// Saves one form of a job, all of it or nothing: a second tap is taken once, and a page older than the job is turned away.
async fn keep(
    database: &Data<Database>,
    worker: &Worker,
    sheet: &Sheet,
    job: JobId,
    work: impl FnOnce(&mut PgConnection, &Person) -> Result<(), StoreError> + Send + 'static,
) -> Result<Kept, WebError> {
    let (token, seen, person) = (sheet.token()?, sheet.revision()?, worker.person.clone());
    let saved = database.write(move |connection| -> Result<(), StoreError> {
        if submission::claim(connection, &token, &person)? {
            jobs::revise(connection, &person, job, seen)?;
            work(connection, &person)?;
        }
        Ok(())
    });
    match saved.await {
        Ok(()) => Ok(Kept::Saved),
        Err(StoreError::Stale { by, at }) => {
            let text = format!(
                "{by} saved this job at {} after you opened this page, so yours was not saved. What you typed is still here; \
                 compare it with what is on file now, and save again.",
                clock(at)
            );
            Ok(Kept::Stale(Refusal::Stale(text)))
        }
        Err(error) => Err(error.into()),
    }
}

/// The same for a form that is one sheet of the job.
async fn keep_sheet<S: job_sheet::Sheet + Send + 'static>(
    database: &Data<Database>,
    worker: &Worker,
    sheet: &Sheet,
    job: JobId,
    entry: S,
) -> Result<Kept, WebError> {
    keep(database, worker, sheet, job, move |connection, person| job_sheet::replace(connection, person, job, &entry)).await
}

/// The same for a form that has nothing to fill in: a stale page is then simply an error.
async fn keep_or_fail(
    database: &Data<Database>,
    worker: &Worker,
    sheet: &Sheet,
    job: JobId,
    work: impl FnOnce(&mut PgConnection, &Person) -> Result<(), StoreError> + Send + 'static,
) -> Result<(), WebError> {
    match keep(database, worker, sheet, job, work).await? {
        Kept::Saved => Ok(()),
        Kept::Stale(_) => Err(WebError::NotNow("Somebody saved this job after the page was opened. Nothing of yours was saved.")),
    }
}
