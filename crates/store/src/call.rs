//! Calls: what was said before a vehicle came in. What is changed or struck off stays on record.

use chrono::{DateTime, Utc};
use diesel::prelude::*;
use wise_badger_casework::entry::{CallEntry, LoadPlanEntry};

use crate::json::Json;
use crate::person::Person;
use crate::schema::{calls, jobs};
use crate::{CallId, JobId, JobNumber, PersonId, ShopId, StoreError, job_sheet};

/// A call whose vehicle is still to come.
#[derive(Debug, Clone, PartialEq, Queryable, Selectable)]
#[diesel(table_name = calls)]
pub struct Expected {
    /// Its key: another one as soon as anything of it is changed.
    pub id: CallId,
    /// What was said.
    pub entry: Json<CallEntry>,
    /// Who took it down last.
    pub recorded_by: PersonId,
    /// When.
    pub recorded_at: DateTime<Utc>,
}

/// A call, wherever it stands.
#[derive(Debug, Clone, PartialEq)]
pub struct Found {
    /// What was said.
    pub entry: CallEntry,
    /// Whether it was neither changed since nor struck off.
    pub stands: bool,
    /// The job that it became.
    pub job: Option<JobNumber>,
}

#[derive(Insertable)]
#[diesel(table_name = calls)]
struct NewCall {
    shop_id: ShopId,
    entry: Json<CallEntry>,
    follows: Option<CallId>,
    recorded_by: PersonId,
}

/// The calls whose vehicles are still to come, the latest first.
pub fn expected(connection: &mut PgConnection, shop: ShopId, most: i64) -> Result<Vec<Expected>, StoreError> {
    let standing = calls::table.filter(calls::shop_id.eq(shop)).filter(calls::withdrawn_at.is_null());
    let to_come = standing.filter(calls::job_id.is_null()).order(calls::id.desc()).limit(most);
    Ok(to_come.select(Expected::as_select()).load(connection)?)
}

/// A call by its key.
///
/// # Errors     [`StoreError::NotFound`]
pub fn find(connection: &mut PgConnection, shop: ShopId, id: CallId) -> Result<Found, StoreError> {
    let one = calls::table.left_join(jobs::table).filter(calls::shop_id.eq(shop)).filter(calls::id.eq(id));
    let row: Option<(Json<CallEntry>, bool, Option<JobNumber>)> =
        one.select((calls::entry, calls::withdrawn_at.is_null(), jobs::number.nullable())).first(connection).optional()?;
    let (entry, stands, job) = row.ok_or(StoreError::NotFound("call"))?;
    Ok(Found { entry: entry.0, stands, job })
}

/// Takes a call down.
pub fn put(connection: &mut PgConnection, person: &Person, entry: &CallEntry) -> Result<CallId, StoreError> {
    insert(connection, person, entry, None)
}

fn insert(
    connection: &mut PgConnection,
    person: &Person,
    entry: &CallEntry,
    follows: Option<CallId>,
) -> Result<CallId, StoreError> {
    let row = NewCall { shop_id: person.shop_id, entry: Json(entry.clone()), follows, recorded_by: person.id };
    Ok(diesel::insert_into(calls::table).values(row).returning(calls::id).get_result(connection)?)
}

/// Puts a call in the place of what it was.
///
/// # Errors     [`StoreError::NotFound`] when that was changed, struck off or became a job meanwhile
pub fn change(connection: &mut PgConnection, person: &Person, id: CallId, entry: &CallEntry) -> Result<CallId, StoreError> {
    withdraw(connection, person, id)?;
    insert(connection, person, entry, Some(id))
}

/// Strikes a call off.
///
/// # Errors     as of [`change`]
pub fn withdraw(connection: &mut PgConnection, person: &Person, id: CallId) -> Result<(), StoreError> {
    let one = calls::table.filter(calls::shop_id.eq(person.shop_id)).filter(calls::id.eq(id));
    let to_come = one.filter(calls::withdrawn_at.is_null()).filter(calls::job_id.is_null());
    let off = (calls::withdrawn_at.eq(Utc::now()), calls::withdrawn_by.eq(person.id));
    let rows = diesel::update(to_come).set(off).execute(connection)?;
    if rows == 1 { Ok(()) } else { Err(StoreError::NotFound("call")) }
}

/// Puts a call back that was struck off; one that was changed since stays as it was changed.
///
/// # Errors     [`StoreError::NotFound`]
pub fn restore(connection: &mut PgConnection, person: &Person, id: CallId) -> Result<(), StoreError> {
    let followed: i64 =
        calls::table.filter(calls::shop_id.eq(person.shop_id)).filter(calls::follows.eq(id)).count().get_result(connection)?;
    if followed > 0 {
        return Err(StoreError::NotFound("call"));
    }
    let one = calls::table.filter(calls::shop_id.eq(person.shop_id)).filter(calls::id.eq(id));
    let back = (calls::withdrawn_at.eq(None::<DateTime<Utc>>), calls::withdrawn_by.eq(None::<PersonId>));
    let rows = diesel::update(one).set(back).execute(connection)?;
    if rows == 1 { Ok(()) } else { Err(StoreError::NotFound("call")) }
}

/// The key of a call as it was changed last: whoever opened its page before that has an older one.
fn as_changed_last(connection: &mut PgConnection, shop: ShopId, id: CallId) -> Result<CallId, StoreError> {
    let mut last = id;
    loop {
        let next = calls::table.filter(calls::shop_id.eq(shop)).filter(calls::follows.eq(last)).select(calls::id);
        match next.first(connection).optional()? {
            Some(next) => last = next,
            None => return Ok(last),
        }
    }
}

/// The vehicle of a call came in: the call becomes the job that was opened for it, with what was told to be aboard as its load plan. A
/// call that became a job already stays that one's.
///
/// # Errors     [`StoreError::NotFound`] of the call or the job
pub fn came_in(
    connection: &mut PgConnection,
    person: &Person,
    id: CallId,
    number: JobNumber,
    plan: Option<&LoadPlanEntry>,
) -> Result<(), StoreError> {
    let job: JobId = jobs::table
        .filter(jobs::shop_id.eq(person.shop_id))
        .filter(jobs::number.eq(number))
        .select(jobs::id)
        .first(connection)
        .optional()?
        .ok_or(StoreError::NotFound("job"))?;
    let id = as_changed_last(connection, person.shop_id, id)?;
    let one = calls::table.filter(calls::shop_id.eq(person.shop_id)).filter(calls::id.eq(id));
    let became = diesel::update(one.filter(calls::job_id.is_null())).set(calls::job_id.eq(job)).execute(connection)?;
    if became == 0 {
        return find(connection, person.shop_id, id).map(|_| ());
    }
    plan.map_or(Ok(()), |plan| job_sheet::replace(connection, person, job, plan))
}
