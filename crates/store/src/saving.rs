//! Saving one form of a job: all of it or nothing, once, and never over what somebody else saved.

use chrono::Utc;
use diesel::PgConnection;
use wise_badger_casework::entry::IntakeSheetEntry;
use wise_badger_casework::intake::Intake;
use wise_badger_casework::job_document::JobDocument;

use crate::job::{self, Closed};
use crate::person::Person;
use crate::submission::{self, Claim, Made, Sending};
use crate::{JobId, JobNumber, StoreError, job_document, job_sheet};

/// Saves one form of a job. To be run in a transaction of its own.
///
/// The same sending is taken once. Another content from the same drawing of the form (its answer was lost, and what was typed
/// changed since) is saved in its turn while the job stands at the revision that the first one made.
///
/// # Errors     [`StoreError::Stale`] when the job was saved since, [`StoreError::Finished`] when it is closed, and what `work` says
pub fn save(
    connection: &mut PgConnection,
    person: &Person,
    sending: &Sending,
    job: JobId,
    seen: i32,
    closed: Closed,
    work: impl FnOnce(&mut PgConnection, &Person) -> Result<(), StoreError>,
) -> Result<(), StoreError> {
    let stands_at = match submission::claim(connection, person, sending)? {
        Claim::New | Claim::Changed(None) => seen,
        Claim::Again(_) => return Ok(()),
        Claim::Changed(Some(made)) => made.revision,
        Claim::Overtaken(at) => return Err(StoreError::Stale { by: person.name.clone(), at }),
    };
    let revision = job::revise(connection, person, job, stands_at, closed)?;
    work(connection, person)?;
    submission::settle(connection, person, sending, Made { job, revision })
}

/// Saves what comes on top of a job and stands in nobody's way (a photograph): once, and not on a finished job.
///
/// # Errors     [`StoreError::Finished`], and what `work` says
pub fn add(
    connection: &mut PgConnection,
    person: &Person,
    sending: &Sending,
    job: JobId,
    work: impl FnOnce(&mut PgConnection, &Person) -> Result<(), StoreError>,
) -> Result<(), StoreError> {
    match submission::claim(connection, person, sending)? {
        Claim::Again(_) | Claim::Overtaken(_) => return Ok(()),
        Claim::New | Claim::Changed(_) => {}
    }
    job::must_be_open(connection, person.shop_id, job)?;
    work(connection, person)
}

/// Saves a form that is none of a job's, once.
///
/// # Errors     what `work` says
pub fn once(
    connection: &mut PgConnection,
    person: &Person,
    sending: &Sending,
    work: impl FnOnce(&mut PgConnection, &Person) -> Result<(), StoreError>,
) -> Result<(), StoreError> {
    match submission::claim(connection, person, sending)? {
        Claim::Again(_) => Ok(()),
        Claim::Overtaken(at) => Err(StoreError::Stale { by: person.name.clone(), at }),
        Claim::New | Claim::Changed(_) => work(connection, person),
    }
}

/// Takes a document in as a new job, once: the same sending again gives the same job.
///
/// # Errors     [`StoreError::Stale`] when another document was taken in from the same drawing of the form
pub fn take_in(
    connection: &mut PgConnection,
    person: &Person,
    sending: &Sending,
    document: &JobDocument,
) -> Result<JobNumber, StoreError> {
    let made = match submission::claim(connection, person, sending)? {
        Claim::Again(None) => return Err(StoreError::NotFound("job")),
        Claim::New | Claim::Changed(None) => {
            let opened = job_document::take_in(connection, person, document)?;
            Made { job: opened.id, revision: opened.revision }
        }
        Claim::Again(Some(made)) => return job::number(connection, person.shop_id, made.job),
        Claim::Changed(Some(_)) => return Err(StoreError::Stale { by: person.name.clone(), at: Utc::now() }),
        Claim::Overtaken(at) => return Err(StoreError::Stale { by: person.name.clone(), at }),
    };
    submission::settle(connection, person, sending, made)?;
    job::number(connection, person.shop_id, made.job)
}

/// Opens a job, once: the same sending again gives the same job. Another content from the same drawing of the form (the answer to
/// the first was lost, and what was typed changed since) is written over what the first one opened, while nobody has saved it since.
/// `asked` is what was asked at the counter with it.
///
/// # Errors     [`StoreError::Stale`] when it was saved since
pub fn open(
    connection: &mut PgConnection,
    person: &Person,
    sending: &Sending,
    intake: &Intake,
    asked: &IntakeSheetEntry,
) -> Result<JobNumber, StoreError> {
    let made = match submission::claim(connection, person, sending)? {
        // What was opened is noted in the transaction that opened it.
        Claim::Again(None) => return Err(StoreError::NotFound("job")),
        Claim::New | Claim::Changed(None) => {
            let opened = job::open(connection, person, intake)?;
            if *asked != IntakeSheetEntry::default() {
                job_sheet::replace(connection, person, opened.id, asked)?;
            }
            Made { job: opened.id, revision: opened.revision }
        }
        Claim::Again(Some(made)) => return job::number(connection, person.shop_id, made.job),
        Claim::Changed(Some(made)) => {
            let revision = job::revise(connection, person, made.job, made.revision, Closed::Refuses)?;
            job::set_intake(connection, person, made.job, intake)?;
            job_sheet::replace(connection, person, made.job, asked)?;
            Made { job: made.job, revision }
        }
        Claim::Overtaken(at) => return Err(StoreError::Stale { by: person.name.clone(), at }),
    };
    submission::settle(connection, person, sending, made)?;
    job::number(connection, person.shop_id, made.job)
}
