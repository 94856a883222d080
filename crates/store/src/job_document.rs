//! Jobs as open documents: given out, and taken in as new jobs.

use chrono::{DateTime, Utc};
use diesel::prelude::*;
use wise_badger_casework::entry::PromiseEntry;
use wise_badger_casework::intake::TapeManner;
use wise_badger_casework::job_document::{JobDocument, PaperContent, TickContent};
use wise_badger_casework::reading::{Phase, Reading};

use crate::job::{self, Job};
use crate::job_file::JobFile;
use crate::paper::{self, Paper};
use crate::person::{self, Person};
use crate::wrench_tick::{self, Tick};
use crate::{JobNumber, PersonId, ShopId, StoreError, correction, fitting, job_sheet, reading};

/// A job as a document, with who took its readings.
///
/// # Errors     [`StoreError::NotFound`]
pub fn export(connection: &mut PgConnection, shop: ShopId, number: JobNumber) -> Result<JobDocument, StoreError> {
    let file = JobFile::find(connection, shop, number)?;
    let people = person::of_shop(connection, shop)?;
    let promise = file.fitting.as_ref().and_then(|fitting| fitting.promise.clone()).map(|promise| promise.0);
    let mut document = JobDocument::of(file.case(), promise);
    for (content, (by, at)) in document.readings.iter_mut().zip(&file.taken) {
        content.taken_by = people.iter().find(|person| person.id == *by).map(|person| person.name.clone());
        content.taken_at = Some(at.to_rfc3339());
    }
    let named = |by: PersonId| people.iter().find(|person| person.id == by).map_or_else(String::new, |of| of.name.clone());
    let ticks = wrench_tick::of_job(connection, shop, file.job.id)?;
    let content = |tick: Tick| TickContent { tick: tick.entry.0, by: named(tick.recorded_by), at: tick.ticked_at.to_rfc3339() };
    document.ticks = ticks.into_iter().map(content).collect();
    let papers = paper::of_job(connection, shop, file.job.id)?;
    let content =
        |paper: Paper| PaperContent { paper: paper.entry.0, by: named(paper.recorded_by), at: paper.recorded_at.to_rfc3339() };
    document.papers = papers.into_iter().map(content).collect();
    Ok(document)
}

/// Takes a document in as a new job of a shop. Readings stay with whoever took them where somebody of that name works there, and with
/// whoever takes the document in elsewhere.
pub fn take_in(connection: &mut PgConnection, person: &Person, document: &JobDocument) -> Result<Job, StoreError> {
    let case = document.case();
    let job = job::open(connection, person, &case.intake)?;
    if let Some(datum) = case.measured.datum {
        let manner = TapeManner { datum, rear_rise_confirmed: case.measured.rear_rise_confirmed };
        job::set_tape_manner(connection, person, job.id, manner)?;
    }
    job_sheet::replace(connection, person, job.id, &case.tape)?;
    job_sheet::replace(connection, person, job.id, &case.sheet)?;
    job_sheet::replace(connection, person, job.id, &case.drive)?;
    job_sheet::replace(connection, person, job.id, &case.work_plan)?;
    job_sheet::replace(connection, person, job.id, &case.proof)?;
    job_sheet::replace(connection, person, job.id, &case.sums)?;
    replace_if_there(connection, person, &job, case.plan.as_ref())?;
    replace_if_there(connection, person, &job, case.look_over.as_ref())?;
    replace_if_there(connection, person, &job, case.aim.as_ref())?;
    replace_if_there(connection, person, &job, case.bench.as_ref())?;
    for phase in [Phase::Found].into_iter().chain(Phase::AFTER) {
        let of_phase: Vec<Reading> = case.readings.iter().filter(|reading| reading.spot.phase == phase).cloned().collect();
        reading::replace(connection, person, job.id, phase, &of_phase, "")?;
    }
    keep_takers(connection, person, &job, document)?;
    keep_work(connection, person, &job, document)?;
    let mut chosen = None;
    for (place, option) in case.options.iter().enumerate() {
        let id = correction::consider(connection, person, job.id, option)?;
        chosen = chosen.or((case.chosen == Some(place)).then_some(id));
    }
    if let Some(id) = chosen {
        let promised = document.promise.as_ref().map(PromiseEntry::heights).unwrap_or_default();
        fitting::choose(connection, person, job.id, id, &promised, document.promise.as_ref())?;
    }
    Ok(job)
}

fn replace_if_there<S: job_sheet::JobSheet>(
    connection: &mut PgConnection,
    person: &Person,
    job: &Job,
    sheet: Option<&S>,
) -> Result<(), StoreError> {
    sheet.map_or(Ok(()), |sheet| job_sheet::replace(connection, person, job.id, sheet))
}

/// Puts down what was ticked and signed, by whom and when the document says; by whoever takes it in, where nobody of that name works
/// here.
fn keep_work(connection: &mut PgConnection, person: &Person, job: &Job, document: &JobDocument) -> Result<(), StoreError> {
    let people = person::of_shop(connection, person.shop_id)?;
    let of = |name: &str| people.iter().find(|person| person.name == name).unwrap_or(person);
    for (place, content) in document.ticks.iter().enumerate() {
        let key = format!("taken-in-{}-{place}", job.id.0);
        wrench_tick::take(connection, of(&content.by), job.id, &key, moment(&content.at), &content.tick)?;
    }
    for content in &document.papers {
        paper::put(connection, of(&content.by), job.id, &content.paper, moment(&content.at))?;
    }
    Ok(())
}

/// When something was, as a document says it; now, where it says nothing that can have been.
fn moment(text: &str) -> DateTime<Utc> {
    past(text).unwrap_or_else(Utc::now)
}

fn past(text: &str) -> Option<DateTime<Utc>> {
    let at = DateTime::parse_from_rfc3339(text).ok()?.with_timezone(&Utc);
    (at <= Utc::now()).then_some(at)
}

/// Puts down who took which reading and when, as the document says it.
fn keep_takers(connection: &mut PgConnection, person: &Person, job: &Job, document: &JobDocument) -> Result<(), StoreError> {
    let people = person::of_shop(connection, person.shop_id)?;
    let named = |name: &Option<String>| -> Option<PersonId> {
        let name = name.as_ref()?;
        people.iter().find(|person| person.name == *name).map(|person| person.id)
    };
    let taken: Vec<reading::Taker> = document
        .readings
        .iter()
        .map(|content| {
            let at = content.taken_at.as_deref().and_then(past);
            reading::Taker { reading: content.reading(), by: named(&content.taken_by), at }
        })
        .collect();
    reading::set_takers(connection, person.shop_id, job.id, &taken)
}
