//! Finishing a job, and taking it up again.

use actix_web::HttpResponse;
use actix_web::web::{Data, Path};
use wise_badger_casework::entry::{ProofSheetEntry, TickEntry};
use wise_badger_casework::wrench::Step;
use wise_badger_store::job::Closed;
use wise_badger_store::wrench_tick::Tick;
use wise_badger_store::{Database, job, job_sheet};

use super::super::shown_again::{self, must_be_shown};
use super::super::wrench::is_something_loose;
use super::super::{Record, job_record, keep_where, or_fail, see_other};
use super::{is_outside, measured_again};
use crate::error::WebError;
use crate::form::{Posted, Sheet};
use crate::worker::Worker;

/// Longest reason of whoever releases his own work.
const LONGEST_REASON: usize = 300;

pub(crate) async fn finish(
    database: Data<Database>,
    worker: Worker,
    number: Path<i32>,
    posted: Posted,
) -> Result<HttpResponse, WebError> {
    set_finished(&database, &worker, *number, posted, true).await
}

pub(crate) async fn reopen(
    database: Data<Database>,
    worker: Worker,
    number: Path<i32>,
    posted: Posted,
) -> Result<HttpResponse, WebError> {
    set_finished(&database, &worker, *number, posted, false).await
}

async fn set_finished(
    database: &Data<Database>,
    worker: &Worker,
    number: i32,
    posted: Posted,
    finished: bool,
) -> Result<HttpResponse, WebError> {
    must_be_shown(database, worker, shown_again::sent(&posted)).await?;
    let record = job_record(database, worker, number).await?;
    let sheet = Sheet::posted(posted, worker.units());
    let alone: String = sheet.text("released_alone").trim().chars().take(LONGEST_REASON).collect();
    if finished {
        may_be_finished(&record, worker)?;
        if works_alone(&record, worker) && alone.is_empty() {
            return Err(WebError::NotNow(
                "You ticked work on this card yourself, and somebody else of the shop releases it: ask one to look it over and finish it, or say on Proof why you release it alone.",
            ));
        }
    }
    let job = record.file.job.id;
    let proof = ProofSheetEntry { released_alone: alone, ..record.file.case().proof.clone() };
    let closed = if finished { Closed::Refuses } else { Closed::Opens };
    let kept = keep_where(database, worker, &sheet, job, closed, move |connection, person| {
        if finished && !proof.released_alone.is_empty() {
            job_sheet::replace(connection, person, job, &proof)?;
        }
        job::set_finished(connection, person, job, finished)
    });
    or_fail(kept.await?)?;
    Ok(see_other(format!("/jobs/{number}")))
}

/// Whether a job may be finished.
///
/// # Errors     what comes first
fn may_be_finished(record: &Record, worker: &Worker) -> Result<(), WebError> {
    let file = &record.file;
    if !measured_again(file) {
        return Err(WebError::NotNow("Measure the rear again after fitting before the job is finished."));
    }
    let entries: Vec<TickEntry> = record.ticks.iter().map(|tick| tick.entry.0.clone()).collect();
    if is_something_loose(file, &entries) {
        return Err(WebError::NotNow(
            "By the wrench card something is loose or open. Tighten it and tick it there, or take back what was ticked by mistake, before the job is finished.",
        ));
    }
    if file.case().work_plan.extras.iter().any(|extra| extra.agreed.is_none()) {
        return Err(WebError::NotNow(
            "Something on top waits for the customer’s yes or no. Put it down on Plan before the job is finished.",
        ));
    }
    let proof = &file.case().proof;
    if is_outside(file, worker.units()) && (proof.reason.is_none() || proof.reason_words.is_empty()) {
        return Err(WebError::NotNow(
            "A height is outside the band that was promised. Say why on Proof, picked and in words, before the job is finished.",
        ));
    }
    Ok(())
}

/// Whether whoever is working did work on the card, while the shop has others who could release it.
pub(super) fn works_alone(record: &Record, worker: &Worker) -> bool {
    // Who only said that parts are here, or how it is raised, did no work.
    let is_work = |step: &str| Step::of_key(step).is_some();
    let did = |tick: &Tick| tick.recorded_by == worker.person.id && is_work(&tick.entry.0.step);
    record.ticks.iter().any(did) && record.names.another_releases(worker.person.id)
}
