//! Vehicles booked into bays. The database itself keeps two from standing in one bay, and one from standing in two; a booking that is
//! changed stays on record, and the one in its place knows which it followed.

use chrono::{DateTime, Utc};
use diesel::prelude::*;

use crate::person::Person;
use crate::schema::{bays, bookings, jobs};
use crate::{BayId, BookingId, JobId, JobNumber, PersonId, ShopId, StoreError, happening};

/// When and where a vehicle stands, and who works on it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Slot {
    /// The bay.
    pub bay: BayId,
    /// When it is driven in.
    pub begins_at: DateTime<Utc>,
    /// When the bay is free again.
    pub ends_at: DateTime<Utc>,
    /// Who works on it.
    pub person: Option<PersonId>,
    /// Who helps.
    pub second: Option<PersonId>,
}

/// A booking that stands.
#[derive(Debug, Clone, PartialEq)]
pub struct Booking {
    /// Its key: another one as soon as anything of it is changed.
    pub id: BookingId,
    /// The job.
    pub job: JobId,
    /// The job's number.
    pub number: JobNumber,
    /// What the shop calls the job.
    pub label: String,
    /// When and where.
    pub slot: Slot,
}

type Row = (BookingId, JobId, JobNumber, String, BayId, DateTime<Utc>, DateTime<Utc>, Option<PersonId>, Option<PersonId>);

fn booking((id, job, number, label, bay, begins_at, ends_at, person, second): Row) -> Booking {
    Booking { id, job, number, label, slot: Slot { bay, begins_at, ends_at, person, second } }
}

macro_rules! standing {
    ($shop:expr) => {
        bookings::table
            .inner_join(jobs::table.on(jobs::shop_id.eq(bookings::shop_id).and(jobs::id.eq(bookings::job_id))))
            .filter(bookings::shop_id.eq($shop))
            .filter(bookings::withdrawn_at.is_null())
            .order((bookings::begins_at, bookings::id))
            .select((
                bookings::id,
                bookings::job_id,
                jobs::number,
                jobs::label,
                bookings::bay_id,
                bookings::begins_at,
                bookings::ends_at,
                bookings::person_id,
                bookings::second_id,
            ))
    };
}

/// Every booking of a shop that touches a stretch of time.
pub fn between(
    connection: &mut PgConnection,
    shop: ShopId,
    from: DateTime<Utc>,
    to: DateTime<Utc>,
) -> Result<Vec<Booking>, StoreError> {
    let touching = standing!(shop).filter(bookings::begins_at.lt(to)).filter(bookings::ends_at.gt(from));
    Ok(touching.limit(2_000).load::<Row>(connection)?.into_iter().map(booking).collect())
}

/// The bookings of a job.
pub fn of_job(connection: &mut PgConnection, shop: ShopId, job: JobId) -> Result<Vec<Booking>, StoreError> {
    Ok(standing!(shop).filter(bookings::job_id.eq(job)).load::<Row>(connection)?.into_iter().map(booking).collect())
}

/// A booking by its key, while it stands.
///
/// # Errors     [`StoreError::NotFound`] also when it was changed since
pub fn find(connection: &mut PgConnection, shop: ShopId, id: BookingId) -> Result<Booking, StoreError> {
    let one: Option<Row> = standing!(shop).filter(bookings::id.eq(id)).first(connection).optional()?;
    one.map(booking).ok_or(StoreError::NotFound("booking"))
}

/// What became of a booking.
#[derive(Debug, Clone, PartialEq)]
pub enum Became {
    /// It stands as it was booked.
    Stands(Booking),
    /// It was moved or changed, perhaps more than once: how it stands now, and who did so last.
    Moved {
        /// The booking in its place.
        to: Booking,
        /// Who changed it last.
        by: PersonId,
        /// When.
        at: DateTime<Utc>,
    },
    /// It was struck off, after whatever changes.
    StruckOff {
        /// The job that it was of.
        number: JobNumber,
        /// Who struck it off.
        by: PersonId,
        /// When.
        at: DateTime<Utc>,
    },
}

#[derive(QueryableByName)]
struct Last {
    #[diesel(sql_type = diesel::sql_types::BigInt)]
    id: i64,
}

/// What became of a booking since.
///
/// # Errors     [`StoreError::NotFound`] of one that the shop never had
pub fn became(connection: &mut PgConnection, shop: ShopId, id: BookingId) -> Result<Became, StoreError> {
    // Each knows the one that it followed, and keys only rise: the last in the row is the highest.
    let asked = "WITH RECURSIVE row_of (id) AS (
            SELECT id FROM bookings WHERE shop_id = $1 AND id = $2
            UNION ALL
            SELECT later.id FROM bookings later JOIN row_of ON later.shop_id = $1 AND later.follows = row_of.id
        ) SELECT id FROM row_of ORDER BY id DESC LIMIT 1";
    let last = diesel::sql_query(asked)
        .bind::<diesel::sql_types::BigInt, _>(shop)
        .bind::<diesel::sql_types::BigInt, _>(id)
        .get_result::<Last>(connection)
        .optional()?
        .ok_or(StoreError::NotFound("booking"))?;
    let last = BookingId(last.id);
    type Of = (JobNumber, PersonId, DateTime<Utc>, Option<PersonId>, Option<DateTime<Utc>>);
    let (number, recorded_by, recorded_at, withdrawn_by, withdrawn_at): Of = bookings::table
        .inner_join(jobs::table.on(jobs::shop_id.eq(bookings::shop_id).and(jobs::id.eq(bookings::job_id))))
        .filter(bookings::shop_id.eq(shop))
        .filter(bookings::id.eq(last))
        .select((jobs::number, bookings::recorded_by, bookings::recorded_at, bookings::withdrawn_by, bookings::withdrawn_at))
        .first(connection)?;
    match withdrawn_by.zip(withdrawn_at) {
        Some((by, at)) => Ok(Became::StruckOff { number, by, at }),
        None if last == id => Ok(Became::Stands(find(connection, shop, id)?)),
        None => Ok(Became::Moved { to: find(connection, shop, last)?, by: recorded_by, at: recorded_at }),
    }
}

/// Books a job into a bay.
///
/// # Errors     [`StoreError::Overlaps`] when bay or vehicle is taken then, [`StoreError::NotFound`] of the bay
pub fn put(connection: &mut PgConnection, person: &Person, job: JobId, slot: &Slot) -> Result<BookingId, StoreError> {
    insert(connection, person, job, slot, None)
}

fn insert(
    connection: &mut PgConnection,
    person: &Person,
    job: JobId,
    slot: &Slot,
    follows: Option<BookingId>,
) -> Result<BookingId, StoreError> {
    let here = bays::table.filter(bays::shop_id.eq(person.shop_id)).filter(bays::id.eq(slot.bay));
    let open: i64 = here.filter(bays::withdrawn_at.is_null()).count().get_result(connection)?;
    if open == 0 {
        return Err(StoreError::NotFound("bay"));
    }
    let row = (
        bookings::shop_id.eq(person.shop_id),
        bookings::bay_id.eq(slot.bay),
        bookings::job_id.eq(job),
        bookings::begins_at.eq(slot.begins_at),
        bookings::ends_at.eq(slot.ends_at),
        bookings::person_id.eq(slot.person),
        bookings::second_id.eq(slot.second),
        bookings::follows.eq(follows),
        bookings::recorded_by.eq(person.id),
    );
    let id = diesel::insert_into(bookings::table).values(row).returning(bookings::id).get_result(connection)?;
    let number = crate::job::number(connection, person.shop_id, job)?;
    happening::tell(connection, person, Some(number))?;
    Ok(id)
}

/// Moves a booking: in the place of what it was.
///
/// # Errors     as of [`put`]; [`StoreError::StaleRow`] when somebody changed or struck it off since
pub fn change(connection: &mut PgConnection, person: &Person, id: BookingId, slot: &Slot) -> Result<BookingId, StoreError> {
    let job = strike(connection, person, id)?;
    insert(connection, person, job, slot, Some(id))
}

/// Strikes a booking off.
///
/// # Errors     [`StoreError::StaleRow`] when somebody changed or struck it off since
pub fn withdraw(connection: &mut PgConnection, person: &Person, id: BookingId) -> Result<(), StoreError> {
    let job = strike(connection, person, id)?;
    let number = crate::job::number(connection, person.shop_id, job)?;
    happening::tell(connection, person, Some(number))
}

fn strike(connection: &mut PgConnection, person: &Person, id: BookingId) -> Result<JobId, StoreError> {
    let one = bookings::table.filter(bookings::shop_id.eq(person.shop_id)).filter(bookings::id.eq(id));
    let job = diesel::update(one.filter(bookings::withdrawn_at.is_null()))
        .set((bookings::withdrawn_at.eq(Utc::now()), bookings::withdrawn_by.eq(person.id)))
        .returning(bookings::job_id)
        .get_result(connection)
        .optional()?;
    job.ok_or(StoreError::StaleRow { what: "booking" })
}
