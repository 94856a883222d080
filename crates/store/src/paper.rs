//! Papers of a job that were signed: none is ever changed, and a later one stands beside it.

use chrono::{DateTime, Utc};
use diesel::prelude::*;
use wise_badger_casework::entry::PaperEntry;

use crate::json::Json;
use crate::person::Person;
use crate::schema::papers;
use crate::{JobId, PersonId, ShopId, StoreError, happening, job, job_list};

/// Most papers of one job.
pub const MOST: i64 = 60;

/// A paper on record.
#[derive(Debug, Clone, PartialEq, Queryable, Selectable)]
#[diesel(table_name = papers)]
pub struct Paper {
    /// Its place among all papers.
    pub id: i64,
    /// What it said, and who signed.
    pub entry: Json<PaperEntry>,
    /// Who of the shop had it signed.
    pub recorded_by: PersonId,
    /// When.
    pub recorded_at: DateTime<Utc>,
}

/// Keeps a paper.
///
/// # Errors     [`StoreError::Full`] when the job has all it holds
pub fn keep(connection: &mut PgConnection, person: &Person, job: JobId, entry: &PaperEntry) -> Result<(), StoreError> {
    put(connection, person, job, entry, Utc::now())
}

/// Puts down one that was signed elsewhere, at the time at which it was.
pub(crate) fn put(
    connection: &mut PgConnection,
    person: &Person,
    job: JobId,
    entry: &PaperEntry,
    at: DateTime<Utc>,
) -> Result<(), StoreError> {
    let of_job = papers::table.filter(papers::shop_id.eq(person.shop_id)).filter(papers::job_id.eq(job));
    if of_job.count().get_result::<i64>(connection)? >= MOST {
        return Err(StoreError::Full { what: "signed papers", most: MOST });
    }
    let row = (
        papers::shop_id.eq(person.shop_id),
        papers::job_id.eq(job),
        papers::entry.eq(Json(entry.clone())),
        papers::recorded_by.eq(person.id),
        papers::recorded_at.eq(at),
    );
    diesel::insert_into(papers::table).values(row).execute(connection)?;
    // What is due counts from the day on which the vehicle was signed for.
    job_list::forget(connection, &[job])?;
    let number = job::number(connection, person.shop_id, job)?;
    happening::tell(connection, person, Some(number))
}

/// The papers of a job, in the order in which they were signed.
pub fn of_job(connection: &mut PgConnection, shop: ShopId, job: JobId) -> Result<Vec<Paper>, StoreError> {
    let of_job = papers::table.filter(papers::shop_id.eq(shop)).filter(papers::job_id.eq(job));
    Ok(of_job.order(papers::id).select(Paper::as_select()).load(connection)?)
}
