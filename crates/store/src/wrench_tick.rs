//! What was ticked on a job's wrench card: it stands in nobody's way, and nothing of it is ever changed.

use chrono::{DateTime, Utc};
use diesel::prelude::*;
use wise_badger_casework::entry::TickEntry;

use crate::json::Json;
use crate::person::Person;
use crate::schema::wrench_ticks;
use crate::{JobId, PersonId, ShopId, StoreError, happening, job, job_list};

/// Most ticks of one job, those taken back included.
pub const MOST: i64 = 4_000;

/// A tick on record.
#[derive(Debug, Clone, PartialEq, Queryable, Selectable)]
#[diesel(table_name = wrench_ticks)]
pub struct Tick {
    /// Its place among all ticks: in this order they came in.
    pub id: i64,
    /// The key that the device made.
    pub device_key: String,
    /// What was answered.
    pub entry: Json<TickEntry>,
    /// When, by the device's clock.
    pub ticked_at: DateTime<Utc>,
    /// By whom.
    pub recorded_by: PersonId,
}

/// What becomes of a tick that is sent in.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Taken {
    /// It is on record now.
    New,
    /// It was before: it was sent twice.
    Again,
}

/// Takes a tick in. One that is on record already is taken for the same, whatever it says.
///
/// # Errors     [`StoreError::Finished`] on a job that is closed, [`StoreError::Full`], [`StoreError::NotFound`]
pub fn take(
    connection: &mut PgConnection,
    person: &Person,
    job: JobId,
    device_key: &str,
    ticked_at: DateTime<Utc>,
    entry: &TickEntry,
) -> Result<Taken, StoreError> {
    let of_key = wrench_ticks::table.filter(wrench_ticks::shop_id.eq(person.shop_id));
    let there: i64 = of_key.filter(wrench_ticks::device_key.eq(device_key)).count().get_result(connection)?;
    if there > 0 {
        return Ok(Taken::Again);
    }
    job::must_be_open(connection, person.shop_id, job)?;
    let of_job = wrench_ticks::table.filter(wrench_ticks::shop_id.eq(person.shop_id)).filter(wrench_ticks::job_id.eq(job));
    if of_job.count().get_result::<i64>(connection)? >= MOST {
        return Err(StoreError::Full { what: "ticks", most: MOST });
    }
    let row = (
        wrench_ticks::shop_id.eq(person.shop_id),
        wrench_ticks::job_id.eq(job),
        wrench_ticks::device_key.eq(device_key),
        wrench_ticks::entry.eq(Json(entry.clone())),
        wrench_ticks::ticked_at.eq(ticked_at),
        wrench_ticks::recorded_by.eq(person.id),
    );
    let kept = diesel::insert_into(wrench_ticks::table).values(row).on_conflict_do_nothing().execute(connection)?;
    // Ticks are outside the job's revisions, and say whether parts came in.
    job_list::forget(connection, &[job])?;
    let number = job::number(connection, person.shop_id, job)?;
    happening::tell(connection, person, Some(number))?;
    Ok(if kept == 0 { Taken::Again } else { Taken::New })
}

/// The ticks of a job, in the order in which they came in.
pub fn of_job(connection: &mut PgConnection, shop: ShopId, job: JobId) -> Result<Vec<Tick>, StoreError> {
    let of_job = wrench_ticks::table.filter(wrench_ticks::shop_id.eq(shop)).filter(wrench_ticks::job_id.eq(job));
    Ok(of_job.order(wrench_ticks::id).select(Tick::as_select()).load(connection)?)
}
