//! What is due on jobs and by which day, and what was said to it.

use chrono::{DateTime, NaiveDate, Utc};
use diesel::prelude::*;

use crate::person::Person;
use crate::schema::{due_marks, job_dues, jobs};
use crate::{JobId, JobNumber, PersonId, ShopId, StoreError};

/// Something that is due, in a list.
#[derive(Debug, Clone, PartialEq)]
pub struct DueListed {
    /// Its job.
    pub job: JobId,
    /// The job's number.
    pub number: JobNumber,
    /// What the shop calls the job.
    pub label: String,
    /// Word of what it is.
    pub what: String,
    /// By which day.
    pub day: NaiveDate,
    /// What was said to it last.
    pub mark: Option<Mark>,
}

/// What was said to something that is due.
#[derive(Debug, Clone, PartialEq, Queryable, Selectable)]
#[diesel(table_name = due_marks)]
pub struct Mark {
    /// Of which job.
    pub job_id: JobId,
    /// To what.
    pub what: String,
    /// `done`, `called` or `declined`.
    pub mark: String,
    /// What else there is to say.
    pub note: String,
    /// Who said it.
    pub recorded_by: PersonId,
    /// When.
    pub recorded_at: DateTime<Utc>,
}

/// Words that end what is due.
const ENDS: [&str; 2] = ["done", "declined"];
/// Everything that may be said.
pub const MARKS: [&str; 3] = ["done", "called", "declined"];

/// What is due up to a day, of kinds by their words, the earliest first; what was done or declined is not. Of more than `most` the longest
/// overdue are left out, so that what nobody ever answered does not hide today.
pub fn until(
    connection: &mut PgConnection,
    shop: ShopId,
    of: &[&str],
    day: NaiveDate,
    most: i64,
) -> Result<Vec<DueListed>, StoreError> {
    let ended = due_marks::table
        .filter(due_marks::shop_id.eq(job_dues::shop_id))
        .filter(due_marks::job_id.eq(job_dues::job_id))
        .filter(due_marks::what.eq(job_dues::what))
        .filter(due_marks::mark.eq_any(ENDS));
    let due = job_dues::table
        .inner_join(jobs::table.on(jobs::shop_id.eq(job_dues::shop_id).and(jobs::id.eq(job_dues::job_id))))
        .filter(job_dues::shop_id.eq(shop))
        .filter(job_dues::what.eq_any(of))
        .filter(job_dues::day.le(day))
        .filter(diesel::dsl::not(diesel::dsl::exists(ended)));
    let rows: Vec<(JobId, JobNumber, String, String, NaiveDate)> = due
        .order((job_dues::day.desc(), jobs::number.desc()))
        .limit(most)
        .select((jobs::id, jobs::number, jobs::label, job_dues::what, job_dues::day))
        .load(connection)?;
    let jobs: Vec<JobId> = rows.iter().map(|(job, ..)| *job).collect();
    let said = due_marks::table.filter(due_marks::shop_id.eq(shop)).filter(due_marks::job_id.eq_any(jobs));
    let said: Vec<Mark> = said.order(due_marks::id.desc()).select(Mark::as_select()).load(connection)?;
    let listed = |(job, number, label, what, day): (JobId, JobNumber, String, String, NaiveDate)| {
        let mark = said.iter().find(|mark| mark.job_id == job && mark.what == what).cloned();
        DueListed { job, number, label, what, day, mark }
    };
    Ok(rows.into_iter().rev().map(listed).collect())
}

/// Says something to what is due on a job; also on a finished one.
///
/// # Errors     [`StoreError::NotFound`]
pub fn mark(
    connection: &mut PgConnection,
    person: &Person,
    number: JobNumber,
    what: &str,
    mark: &str,
    note: &str,
) -> Result<(), StoreError> {
    let one = jobs::table.filter(jobs::shop_id.eq(person.shop_id)).filter(jobs::number.eq(number)).select(jobs::id);
    let job: JobId = one.first(connection).optional()?.ok_or(StoreError::NotFound("job"))?;
    let there = job_dues::table.filter(job_dues::shop_id.eq(person.shop_id)).filter(job_dues::job_id.eq(job));
    let due: i64 = there.filter(job_dues::what.eq(what)).count().get_result(connection)?;
    if due == 0 || !MARKS.contains(&mark) {
        return Err(StoreError::NotFound("thing due"));
    }
    let row = (
        due_marks::shop_id.eq(person.shop_id),
        due_marks::job_id.eq(job),
        due_marks::what.eq(what),
        due_marks::mark.eq(mark),
        due_marks::note.eq(note),
        due_marks::recorded_by.eq(person.id),
    );
    diesel::insert_into(due_marks::table).values(row).execute(connection)?;
    crate::happening::tell(connection, person, Some(number))
}
