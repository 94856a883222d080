//! Corrections considered on a job.

use diesel::prelude::*;

use crate::entry::{CorrectionEntry, Json};
use crate::person::Person;
use crate::schema::corrections;
use crate::{CorrectionId, JobId, PersonId, ShopId, StoreError};

/// A correction that stands on a job.
#[derive(Debug, Clone, PartialEq, Queryable, Selectable)]
#[diesel(table_name = corrections)]
pub struct Considered {
    /// Its key.
    pub id: CorrectionId,
    /// The job.
    pub job_id: JobId,
    /// As typed.
    pub entry: Json<CorrectionEntry>,
    /// Who thought of it.
    pub recorded_by: PersonId,
}

/// Those that stand on some jobs, oldest first.
pub fn standing(connection: &mut PgConnection, shop: ShopId, jobs: &[JobId]) -> Result<Vec<Considered>, StoreError> {
    Ok(corrections::table
        .filter(corrections::shop_id.eq(shop))
        .filter(corrections::job_id.eq_any(jobs))
        .filter(corrections::withdrawn_at.is_null())
        .order(corrections::id)
        .select(Considered::as_select())
        .load(connection)?)
}

/// Puts one down.
pub fn consider(
    connection: &mut PgConnection,
    person: &Person,
    job: JobId,
    entry: &CorrectionEntry,
) -> Result<CorrectionId, StoreError> {
    let values = (
        corrections::shop_id.eq(person.shop_id),
        corrections::job_id.eq(job),
        corrections::entry.eq(Json(entry.clone())),
        corrections::recorded_by.eq(person.id),
    );
    Ok(diesel::insert_into(corrections::table).values(values).returning(corrections::id).get_result(connection)?)
}

/// Takes one off the list; it stays on record.
pub fn withdraw(connection: &mut PgConnection, shop: ShopId, job: JobId, correction: CorrectionId) -> Result<(), StoreError> {
    set_withdrawn(connection, shop, job, correction, true)
}

/// Puts one back that was taken off.
pub fn restore(connection: &mut PgConnection, shop: ShopId, job: JobId, correction: CorrectionId) -> Result<(), StoreError> {
    set_withdrawn(connection, shop, job, correction, false)
}

fn set_withdrawn(
    connection: &mut PgConnection,
    shop: ShopId,
    job: JobId,
    correction: CorrectionId,
    withdrawn: bool,
) -> Result<(), StoreError> {
    let one = corrections::table.filter(corrections::shop_id.eq(shop)).filter(corrections::job_id.eq(job));
    let at = withdrawn.then(chrono::Utc::now);
    let changed =
        diesel::update(one.filter(corrections::id.eq(correction))).set(corrections::withdrawn_at.eq(at)).execute(connection)?;
    if changed == 0 { Err(StoreError::NotFound("correction")) } else { Ok(()) }
}
