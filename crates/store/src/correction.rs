//! Options considered on a job: parts that would be fitted together.

use diesel::prelude::*;
use serde_json::Value;
use wise_badger_casework::entry::OptionEntry;

use crate::change::{What, note};
use crate::json::Json;
use crate::person::Person;
use crate::schema::corrections;
use crate::{CorrectionId, JobId, PersonId, ShopId, StoreError};

/// An option that stands on a job.
#[derive(Debug, Clone, PartialEq, Queryable, Selectable)]
#[diesel(table_name = corrections)]
pub struct Considered {
    /// Its key.
    pub id: CorrectionId,
    /// The job.
    pub job_id: JobId,
    /// As typed.
    pub entry: Json<OptionEntry>,
    /// Who thought of it.
    pub recorded_by: PersonId,
}

/// Those that stand on a job, oldest first.
pub fn standing(connection: &mut PgConnection, shop: ShopId, job: JobId) -> Result<Vec<Considered>, StoreError> {
    Ok(corrections::table
        .filter(corrections::shop_id.eq(shop))
        .filter(corrections::job_id.eq(job))
        .filter(corrections::withdrawn_at.is_null())
        .order(corrections::id)
        .select(Considered::as_select())
        .load(connection)?)
}

/// Most that stand on one job's list.
pub const MOST: i64 = 24;

/// Puts one down.
///
/// # Errors     [`StoreError::Full`] when the list has all it holds
pub fn consider(
    connection: &mut PgConnection,
    person: &Person,
    job: JobId,
    entry: &OptionEntry,
) -> Result<CorrectionId, StoreError> {
    room_for_one(connection, person.shop_id, job)?;
    let values = (
        corrections::shop_id.eq(person.shop_id),
        corrections::job_id.eq(job),
        corrections::entry.eq(Json(entry.clone())),
        corrections::recorded_by.eq(person.id),
    );
    Ok(diesel::insert_into(corrections::table).values(values).returning(corrections::id).get_result(connection)?)
}

fn room_for_one(connection: &mut PgConnection, shop: ShopId, job: JobId) -> Result<(), StoreError> {
    let of_job = corrections::table.filter(corrections::shop_id.eq(shop)).filter(corrections::job_id.eq(job));
    let standing: i64 = of_job.filter(corrections::withdrawn_at.is_null()).count().get_result(connection)?;
    if standing < MOST { Ok(()) } else { Err(StoreError::Full { what: "options", most: MOST }) }
}

/// Takes one off the list; it stays on record.
pub fn withdraw(connection: &mut PgConnection, person: &Person, job: JobId, correction: CorrectionId) -> Result<(), StoreError> {
    set_withdrawn(connection, person, job, correction, true)
}

/// Puts one back that was taken off.
///
/// # Errors     [`StoreError::Full`] when the list has all it holds
pub fn restore(connection: &mut PgConnection, person: &Person, job: JobId, correction: CorrectionId) -> Result<(), StoreError> {
    room_for_one(connection, person.shop_id, job)?;
    set_withdrawn(connection, person, job, correction, false)
}

fn set_withdrawn(
    connection: &mut PgConnection,
    person: &Person,
    job: JobId,
    correction: CorrectionId,
    off: bool,
) -> Result<(), StoreError> {
    let one = corrections::table.filter(corrections::shop_id.eq(person.shop_id)).filter(corrections::job_id.eq(job));
    let one = one.filter(corrections::id.eq(correction));
    let entry: Option<Json<Value>> = one.select(corrections::entry).first(connection).optional()?;
    let entry = entry.ok_or(StoreError::NotFound("correction"))?.0;
    let at = off.then(chrono::Utc::now);
    diesel::update(one).set(corrections::withdrawn_at.eq(at)).execute(connection)?;
    let (what, before, after) =
        if off { (What::CorrectionOff, Some(entry), None) } else { (What::CorrectionBack, None, Some(entry)) };
    note(connection, person, job, what, before, after)
}
