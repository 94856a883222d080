//! A form of a job that is filled in and saved as a whole: shown, checked, kept, and shown again where it could not be.

use actix_web::HttpResponse;
use actix_web::web::{Data, Path};
use wise_badger_store::job_file::JobFile;
use wise_badger_store::person::Person;
use wise_badger_store::{Database, JobId, JobNumber, PgConnection, StoreError};

use super::shown_again::must_be_shown;
use super::{Kept, Page, Record, Refusal, job_file, job_record, keep, see_other};
use crate::error::WebError;
use crate::form::{Posted, SHOWN_AGAIN, Sheet};
use crate::reckoning::drawn;
use crate::view::Units;
use crate::worker::Worker;

const NOT_SHOWN: &str = "Nothing was saved: this is put down only by somebody who shows once more who they are. Type your password, or on a \
                         shared tablet your PIN, and save again. What you typed is still here.";

/// What a form's page is drawn from.
pub(crate) trait ReadJob: Sized + 'static {
    /// Reads it.
    async fn read(database: &Data<Database>, worker: &Worker, number: i32) -> Result<Self, WebError>;

    /// The job.
    fn file(&self) -> &JobFile;
}

impl ReadJob for JobFile {
    async fn read(database: &Data<Database>, worker: &Worker, number: i32) -> Result<Self, WebError> {
        job_file(database, worker, number).await
    }

    fn file(&self) -> &JobFile {
        self
    }
}

impl ReadJob for Record {
    async fn read(database: &Data<Database>, worker: &Worker, number: i32) -> Result<Self, WebError> {
        job_record(database, worker, number).await
    }

    fn file(&self) -> &JobFile {
        &self.file
    }
}

/// What one form differs in from the others.
pub(crate) trait JobForm: 'static {
    /// What its page is drawn from.
    type Read: ReadJob + Send;
    /// What it comes to.
    type Entry: Send + 'static;

    /// The form as it stands for what is on file.
    fn on_file(units: Units, read: &Self::Read) -> Sheet;

    /// Does what changes the rows of the page, one more or less; whether that was all that was asked. It is saved at once where the
    /// form is sound.
    fn change_the_page(_sheet: &mut Sheet, _read: &Self::Read) -> bool {
        false
    }

    /// Takes over what was looked at while the form was sent, into the form as it was saved.
    fn look_on(_fresh: &mut Sheet, _sent: &Sheet) {}

    /// Refuses a form whose turn it is not.
    ///
    /// # Errors     why it cannot be saved now
    fn is_in_turn(_read: &Self::Read) -> Result<(), WebError> {
        Ok(())
    }

    /// Reads the form; `None` with complaints on the sheet when anything is wrong.
    fn check(sheet: &mut Sheet, read: &Self::Read) -> Option<Self::Entry>;

    /// Whether what is to be saved is dangerous enough that whoever saves it shows once more who they are.
    fn is_dangerous(_read: &Self::Read, _entry: &Self::Entry) -> bool {
        false
    }

    /// Puts it on record.
    fn keep(connection: &mut PgConnection, person: &Person, job: JobId, entry: &Self::Entry) -> Result<(), StoreError>;

    /// The page, with the form as it stands or as it was refused.
    fn page(worker: &Worker, read: &Self::Read, sheet: &Sheet, refusal: Option<&Refusal>) -> Result<Page, WebError>;

    /// Where it leads once it is saved.
    fn leads_to(number: JobNumber) -> String;
}

/// The page of a form.
pub(crate) async fn show<F: JobForm>(
    database: Data<Database>,
    worker: Worker,
    number: Path<i32>,
) -> Result<HttpResponse, WebError> {
    let read = F::Read::read(&database, &worker, *number).await?;
    let sheet = F::on_file(worker.units(), &read);
    drawn(move |_| F::page(&worker, &read, &sheet, None)).await
}

/// Saves a form, or shows it again with what is wrong.
pub(crate) async fn save<F: JobForm>(
    database: Data<Database>,
    worker: Worker,
    number: Path<i32>,
    posted: Posted,
) -> Result<HttpResponse, WebError> {
    let read = F::Read::read(&database, &worker, *number).await?;
    F::is_in_turn(&read)?;
    let mut sheet = Sheet::posted(posted, worker.units());
    sheet.keep_words_of(&F::on_file(sheet.units(), &read));
    let rows_changed = F::change_the_page(&mut sheet, &read);
    let as_changed = rows_changed.then(|| sheet.clone());
    let Some(entry) = F::check(&mut sheet, &read).filter(|_| sheet.is_sound()) else {
        // A row more is shown beside one that is still being filled in; nothing is complained of before it is sent.
        if let Some(sheet) = as_changed {
            return drawn(move |_| F::page(&worker, &read, &sheet, None)).await;
        }
        let refusal = Refusal::Fields(sheet.problem_count());
        return drawn(move |_| F::page(&worker, &read, &sheet, Some(&refusal))).await;
    };
    if F::is_dangerous(&read, &entry) {
        match must_be_shown(&database, &worker, Some(sheet.as_typed(SHOWN_AGAIN))).await {
            Ok(()) => {}
            Err(WebError::NotShownAgain) => {
                let refusal = Refusal::Conflict(NOT_SHOWN.to_owned());
                return drawn(move |_| F::page(&worker, &read, &sheet, Some(&refusal))).await;
            }
            Err(error) => return Err(error),
        }
    }
    let job = read.file().job.id;
    let kept = keep(&database, &worker, &sheet, job, move |connection, person| F::keep(connection, person, job, &entry));
    match kept.await? {
        Kept::Saved if rows_changed => {
            let read = F::Read::read(&database, &worker, *number).await?;
            let mut fresh = F::on_file(worker.units(), &read);
            F::look_on(&mut fresh, &sheet);
            drawn(move |_| F::page(&worker, &read, &fresh, None)).await
        }
        Kept::Saved => Ok(see_other(F::leads_to(read.file().job.number))),
        Kept::Refused(refusal) => {
            let read = F::Read::read(&database, &worker, *number).await?;
            sheet.compare_with(&F::on_file(sheet.units(), &read));
            drawn(move |_| F::page(&worker, &read, &sheet, Some(&refusal))).await
        }
    }
}
