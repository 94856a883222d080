//! Pages: each module holds the handlers of one area and the struct its template prints.

pub(crate) mod aim;
pub(crate) mod assets;
pub(crate) mod bays;
pub(crate) mod bench;
pub(crate) mod call;
pub(crate) mod customers;
pub(crate) mod drive;
pub(crate) mod events;
pub(crate) mod finder;
pub(crate) mod handover;
pub(crate) mod hands;
pub(crate) mod health;
pub(crate) mod help;
pub(crate) mod history;
pub(crate) mod intake;
pub(crate) mod intake_sheet;
pub(crate) mod job;
pub(crate) mod job_document;
pub(crate) mod job_form;
mod job_frame;
pub(crate) mod join;
pub(crate) mod ledger;
pub(crate) mod load;
pub(crate) mod look_over;
pub(crate) mod me;
pub(crate) mod options;
pub(crate) mod people;
pub(crate) mod photographs;
pub(crate) mod plan;
pub(crate) mod proof;
pub(crate) mod record;
pub(crate) mod shelf;
mod shown_again;
pub(crate) mod sign_in;
mod signing;
pub(crate) mod sums;
pub(crate) mod takes;
pub(crate) mod tape;
pub(crate) mod understood;
pub(crate) mod units;
pub(crate) mod vehicles;
pub(crate) mod verdict;
pub(crate) mod what_if;
pub(crate) mod wrench;
pub(crate) mod yard;

use actix_web::HttpResponse;
use actix_web::http::StatusCode;
use actix_web::http::header::{CACHE_CONTROL, ContentType, LOCATION};
use actix_web::web::Data;
use askama::Template;
use chrono::{DateTime, Utc};
use wise_badger_store::job::Closed;
use wise_badger_store::job_file::JobFile;
use wise_badger_store::job_sheet;
use wise_badger_store::paper::{self, Paper};
use wise_badger_store::person::{self, Person};
use wise_badger_store::photograph::Photograph;
use wise_badger_store::submission::{self, Sending};
use wise_badger_store::wrench_tick::{self, Tick};
use wise_badger_store::{Database, JobId, JobNumber, PersonId, PgConnection, StoreError, photograph, reading, saving};

use crate::error::{FINISHED, WebError};
use crate::form::{Sheet, new_token};
use crate::rights::Right;
use crate::view::{clock, sentence};
use crate::worked_out;
use crate::worker::Worker;

/// What a page comes to, in bytes: asked for at once, it is not copied while it grows.
const USUAL_SIZE: usize = 80 * 1024;

/// A finished page, drawn wherever that was done. Pages show what is in the database now, so none is kept by a browser.
pub(crate) struct Page {
    status: StatusCode,
    body: String,
}

impl Page {
    /// As an answer.
    pub(crate) fn answer(self) -> HttpResponse {
        let mut answer = HttpResponse::build(self.status);
        answer.insert_header(ContentType::html()).insert_header((CACHE_CONTROL, "no-store")).body(self.body)
    }
}

fn page(status: StatusCode, template: &impl Template) -> Result<Page, WebError> {
    let mut body = String::with_capacity(USUAL_SIZE);
    template.render_into(&mut body)?;
    Ok(Page { status, body })
}

fn see_other(path: impl Into<String>) -> HttpResponse {
    HttpResponse::SeeOther().insert_header((LOCATION, path.into())).finish()
}

/// A path of this program to go on to, or the yard. Never another site.
fn local(path: &str) -> &str {
    let mut signs = path.chars();
    let local = signs.next() == Some('/') && !matches!(signs.next(), Some('/' | '\\'));
    if local && !path.chars().any(char::is_control) { path } else { "/" }
}

async fn job_file(database: &Data<Database>, worker: &Worker, number: i32) -> Result<JobFile, WebError> {
    let shop = worker.shop_id();
    let read = database.read(move |connection| JobFile::find(connection, shop, JobNumber(number)));
    read.await.map(worked_out::lately).map_err(|error| of_job(number, error))
}

/// What went wrong in reading a job.
fn of_job(number: i32, error: StoreError) -> WebError {
    match error {
        StoreError::Unreadable { .. } => WebError::RecordUnreadable { number, source: error },
        other => other.into(),
    }
}

/// A job with its record: who did what, and what was corrected.
pub(crate) struct Record {
    file: JobFile,
    names: Names,
    /// The readings that were corrected and stay on record.
    withdrawn: Vec<reading::Withdrawn>,
    photographs: Vec<Photograph>,
    /// What was ticked on its wrench card.
    ticks: Vec<Tick>,
    /// What was signed.
    papers: Vec<Paper>,
}

async fn job_record(database: &Data<Database>, worker: &Worker, number: i32) -> Result<Record, WebError> {
    let shop = worker.shop_id();
    let read = database.read(move |connection| {
        let file = worked_out::lately(JobFile::find(connection, shop, JobNumber(number))?);
        let people = person::of_shop(connection, shop)?;
        let names = Names::of_people(&people);
        let withdrawn = reading::withdrawn(connection, shop, file.job.id)?;
        let photographs = photograph::of_job(connection, shop, file.job.id)?;
        let ticks = wrench_tick::of_job(connection, shop, file.job.id)?;
        let papers = paper::of_job(connection, shop, file.job.id)?;
        Ok::<_, StoreError>(Record { file, names, withdrawn, photographs, ticks, papers })
    });
    read.await.map_err(|error| of_job(number, error))
}

/// Names of everybody who is or was in the shop, by key.
pub(crate) struct Names(Vec<Named>);

struct Named {
    id: PersonId,
    name: String,
    /// Whether they are in the shop now and may release a job.
    releases: bool,
}

impl Names {
    fn of_people(people: &[Person]) -> Self {
        let named = |person: &Person| Named {
            id: person.id,
            name: person.name.clone(),
            releases: person.is_here() && Right::Release.is_of(person.role),
        };
        Names(people.iter().map(named).collect())
    }

    /// Whether somebody else than this one could release a job.
    fn another_releases(&self, than: PersonId) -> bool {
        self.0.iter().any(|named| named.releases && named.id != than)
    }

    fn of(&self, id: PersonId) -> &str {
        self.0.iter().find(|named| named.id == id).map_or("somebody", |named| &named.name)
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
    /// For a form that is shown on the job as it stands. One that was sent and has not been held against the file keeps the revision it
    /// was filled in on, so that what somebody else saved meanwhile is not written over unseen.
    fn new(sheet: &Sheet, on_file: i32) -> Self {
        let units = sheet.units();
        let revision = if sheet.is_compared() { on_file } else { sheet.revision().unwrap_or(on_file) };
        Hidden { token: new_token(), revision, length_unit: units.length_name(), weight_unit: units.weight_name() }
    }
}

/// Why a form was not taken in, for the top of its page.
#[derive(Debug, Clone)]
pub(crate) enum Refusal {
    /// Some fields are wrong.
    Fields(usize),
    /// The job stands otherwise than the page took it to: saved since, closed, or its list full.
    Conflict(String),
}

impl Refusal {
    fn status(&self) -> StatusCode {
        match self {
            Refusal::Fields(_) => StatusCode::UNPROCESSABLE_ENTITY,
            Refusal::Conflict(_) => StatusCode::CONFLICT,
        }
    }

    fn words(&self) -> String {
        match self {
            Refusal::Fields(1) => "Nothing was saved: one field needs another look. What you typed is still here.".to_owned(),
            Refusal::Fields(count) => {
                format!("Nothing was saved: {count} fields need another look. What you typed is still here.")
            }
            Refusal::Conflict(text) => text.clone(),
        }
    }
}

/// How a saving ended that did not fail outright.
enum Kept {
    Saved,
    Refused(Refusal),
}

/// Saves one form of a job, all of it or nothing: a second tap is taken once, and a page older than the job is turned away.
async fn keep(
    database: &Data<Database>,
    worker: &Worker,
    sheet: &Sheet,
    job: JobId,
    work: impl FnOnce(&mut PgConnection, &Person) -> Result<(), StoreError> + Send + 'static,
) -> Result<Kept, WebError> {
    keep_where(database, worker, sheet, job, Closed::Refuses, work).await
}

async fn keep_where(
    database: &Data<Database>,
    worker: &Worker,
    sheet: &Sheet,
    job: JobId,
    closed: Closed,
    work: impl FnOnce(&mut PgConnection, &Person) -> Result<(), StoreError> + Send + 'static,
) -> Result<Kept, WebError> {
    let (sending, seen, person) = (sheet.sending()?, sheet.revision()?, worker.person.clone());
    let sent = sending.clone();
    let saved = database.write(move |connection| saving::save(connection, &person, &sent, job, seen, closed, work)).await;
    match saved {
        Ok(()) => Ok(Kept::Saved),
        Err(StoreError::Stale { by, at }) => Ok(Kept::Refused(Refusal::Conflict(stale_words(worker, &by, at)))),
        Err(StoreError::Finished) => {
            let text = format!("{FINISHED} What you typed is still here; take the job up again on Proof, then save.");
            Ok(Kept::Refused(Refusal::Conflict(text)))
        }
        Err(full @ StoreError::Full { .. }) => {
            let text = format!("{}. Nothing was saved; take one off the list first.", sentence(&full.to_string()));
            Ok(Kept::Refused(Refusal::Conflict(text)))
        }
        Err(StoreError::OutcomeUnknown(_)) => was_kept(database, worker, sending).await.map(|()| Kept::Saved),
        Err(error) => Err(error.into()),
    }
}

fn stale_words(worker: &Worker, by: &str, at: DateTime<Utc>) -> String {
    let (at, still) = (clock(at), "What you typed is still here; compare it with what is on file now, and save again.");
    if by == worker.person.name {
        return format!(
            "You saved this job at {at} with other figures after this page was opened, so these were not saved. {still}"
        );
    }
    format!("{by} saved this job at {at} after you opened this page, so yours was not saved. {still}")
}

/// What is true after the connection was lost while something was being saved.
///
/// # Errors     an error that says truly that nothing was saved, or that it is not known
async fn was_kept(database: &Data<Database>, worker: &Worker, sending: Sending) -> Result<(), WebError> {
    let person = worker.person.clone();
    // It holds the row, so that a saving that is still under way ends first: no mere reading does.
    let looked: Result<bool, StoreError> =
        database.write(move |connection| submission::was_kept(connection, &person, &sending)).await;
    match looked {
        Ok(true) => Ok(()),
        Ok(false) => Err(StoreError::Unreachable("the connection was lost before it was kept".into()).into()),
        Err(error) => {
            tracing::error!(cause = %error, "it could not be found out whether something was saved");
            Err(WebError::NotKnownWhetherSaved)
        }
    }
}

/// The same for a form that is one sheet of the job.
async fn keep_sheet<S: job_sheet::JobSheet + Send + 'static>(
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
    or_fail(keep(database, worker, sheet, job, work).await?)
}

/// Saves what is none of a job's: a second tap is taken once.
async fn once(
    database: &Data<Database>,
    worker: &Worker,
    sheet: &Sheet,
    work: impl FnOnce(&mut PgConnection, &Person) -> Result<(), StoreError> + Send + 'static,
) -> Result<(), WebError> {
    let (sending, person) = (sheet.sending()?, worker.person.clone());
    let sent = sending.clone();
    match database.write(move |connection| saving::once(connection, &person, &sent, work)).await {
        Err(StoreError::OutcomeUnknown(_)) => was_kept(database, worker, sending).await,
        other => other.map_err(WebError::from),
    }
}

fn or_fail(kept: Kept) -> Result<(), WebError> {
    match kept {
        Kept::Saved => Ok(()),
        Kept::Refused(refusal) => Err(WebError::Refused(refusal.words())),
    }
}

#[cfg(test)]
mod tests {
    use super::local;

    #[test]
    fn nobody_is_led_to_another_site() {
        assert_eq!(local("/jobs/3/tape"), "/jobs/3/tape");
        for elsewhere in ["https://example.org/", "//example.org", "/\\example.org", "", "jobs/3", "/a\r\nSet-Cookie: x"] {
            assert_eq!(local(elsewhere), "/", "{elsewhere}");
        }
    }
}
