//! Photographs of a job.

use chrono::{DateTime, Utc};
use diesel::prelude::*;
use serde_json::json;

use crate::change::{What, note};
use crate::person::Person;
use crate::schema::photographs;
use crate::{JobId, PersonId, PhotographId, ShopId, StoreError};

/// A photograph without its picture.
#[derive(Debug, Clone, PartialEq, Queryable, Selectable)]
#[diesel(table_name = photographs)]
pub struct Photograph {
    /// Its key.
    pub id: PhotographId,
    /// What it shows: the word of a reading's place, or of an area of the look-over.
    pub subject: String,
    /// Width in pixels.
    pub width: i32,
    /// Height in pixels.
    pub height: i32,
    /// Who took it.
    pub taken_by: PersonId,
    /// When it was sent.
    pub taken_at: DateTime<Utc>,
}

/// A picture to keep.
#[derive(Debug, Clone, PartialEq)]
pub struct NewPhotograph {
    /// What it shows.
    pub subject: String,
    /// The picture.
    pub jpeg: Vec<u8>,
    /// Width in pixels.
    pub width: i32,
    /// Height in pixels.
    pub height: i32,
}

/// The photographs of a job that stand, in the order they came.
pub fn of_job(connection: &mut PgConnection, shop: ShopId, job: JobId) -> Result<Vec<Photograph>, StoreError> {
    Ok(photographs::table
        .filter(photographs::shop_id.eq(shop))
        .filter(photographs::job_id.eq(job))
        .filter(photographs::withdrawn_at.is_null())
        .order(photographs::id)
        .select(Photograph::as_select())
        .load(connection)?)
}

/// Most photographs of one job, those taken off included.
pub const MOST: i64 = 200;

/// The picture of a photograph that stands.
pub fn jpeg(connection: &mut PgConnection, shop: ShopId, job: JobId, id: PhotographId) -> Result<Vec<u8>, StoreError> {
    let one = photographs::table.filter(photographs::shop_id.eq(shop)).filter(photographs::job_id.eq(job));
    let one = one.filter(photographs::id.eq(id)).filter(photographs::withdrawn_at.is_null()).select(photographs::jpeg);
    one.first(connection).optional()?.ok_or(StoreError::NotFound("photograph"))
}

/// Keeps a picture.
///
/// # Errors     [`StoreError::Full`] when the job has all it holds
pub fn keep(connection: &mut PgConnection, person: &Person, job: JobId, new: &NewPhotograph) -> Result<PhotographId, StoreError> {
    let of_job = photographs::table.filter(photographs::shop_id.eq(person.shop_id)).filter(photographs::job_id.eq(job));
    let kept: i64 = of_job.count().get_result(connection)?;
    if kept >= MOST {
        return Err(StoreError::Full { what: "photographs", most: MOST });
    }
    let values = (
        photographs::shop_id.eq(person.shop_id),
        photographs::job_id.eq(job),
        photographs::subject.eq(&new.subject),
        photographs::jpeg.eq(&new.jpeg),
        photographs::width.eq(new.width),
        photographs::height.eq(new.height),
        photographs::taken_by.eq(person.id),
    );
    Ok(diesel::insert_into(photographs::table).values(values).returning(photographs::id).get_result(connection)?)
}

/// Takes a photograph off the job; it stays on record.
pub fn withdraw(connection: &mut PgConnection, person: &Person, job: JobId, id: PhotographId) -> Result<(), StoreError> {
    let one = photographs::table.filter(photographs::shop_id.eq(person.shop_id)).filter(photographs::job_id.eq(job));
    let changed = diesel::update(one.filter(photographs::id.eq(id)).filter(photographs::withdrawn_at.is_null()))
        .set((photographs::withdrawn_by.eq(Some(person.id)), photographs::withdrawn_at.eq(Some(Utc::now()))))
        .returning(photographs::subject)
        .get_result::<String>(connection)
        .optional()?;
    let subject = changed.ok_or(StoreError::NotFound("photograph"))?;
    note(connection, person, job, What::PhotographOff, Some(json!({ "subject": subject })), None)
}

/// The pictures themselves of a job's photographs, taken off or not.
pub fn pictures_of(
    connection: &mut PgConnection,
    shop: ShopId,
    number: crate::JobNumber,
) -> Result<Vec<(PhotographId, Vec<u8>)>, StoreError> {
    use crate::schema::jobs;
    let of_job = photographs::table
        .inner_join(jobs::table.on(jobs::shop_id.eq(photographs::shop_id).and(jobs::id.eq(photographs::job_id))))
        .filter(photographs::shop_id.eq(shop))
        .filter(jobs::number.eq(number));
    Ok(of_job.order(photographs::id).select((photographs::id, photographs::jpeg)).load(connection)?)
}
