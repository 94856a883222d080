//! Jobs: one vehicle brought in once.

use chrono::{DateTime, NaiveDate, Utc};
use diesel::prelude::*;
use serde::Serialize;
use wise_badger_casework::entry::Typed;
use wise_badger_casework::intake::{Intake, Measured, TapeManner};
use wise_badger_casework::words::Word;

use crate::change::{self, What, note};
use crate::happening;
use crate::json::Json;
use crate::person::{self, Person};
use crate::schema::{jobs, people};
use crate::words;
use crate::{JobId, JobNumber, PersonId, ShopId, StoreError};

/// A job, without what it knows of its vehicle.
#[derive(Debug, Clone, PartialEq)]
pub struct Job {
    /// Its key.
    pub id: JobId,
    /// Its shop.
    pub shop_id: ShopId,
    /// Its number in the shop.
    pub number: JobNumber,
    /// Counts savings, so that a stale page is noticed.
    pub revision: i32,
    /// When it was last saved.
    pub revised_at: DateTime<Utc>,
    /// Who opened it.
    pub opened_by: PersonId,
    /// When.
    pub opened_at: DateTime<Utc>,
    /// When it was finished.
    pub finished_at: Option<DateTime<Utc>>,
    /// In whose hands it is, and when it is promised.
    pub hands: Hands,
}

/// In whose hands a job is, and when it is promised.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Queryable, Selectable, AsChangeset, Serialize)]
#[diesel(table_name = jobs, treat_none_as_null = true)]
pub struct Hands {
    /// Who has it.
    pub assigned_to: Option<PersonId>,
    /// The day that it was promised for.
    pub promised_on: Option<NaiveDate>,
}

/// What a job's own row holds.
#[derive(Debug, Clone, PartialEq)]
pub struct JobRow {
    /// The job.
    pub job: Job,
    /// What intake wrote down of the vehicle.
    pub intake: Intake,
    /// How its heights were read.
    pub measured: Measured,
}

#[derive(Queryable, Selectable)]
#[diesel(table_name = jobs)]
struct Row {
    id: JobId,
    shop_id: ShopId,
    number: JobNumber,
    label: String,
    vehicle_class: String,
    rear_wheels: String,
    wheelbase: Json<Typed>,
    axle_spread: Option<Json<Typed>>,
    equalised: bool,
    front_rating: Json<Typed>,
    rear_rating: Json<Typed>,
    gross_rating: Option<Json<Typed>>,
    kerb_front: Option<Json<Typed>>,
    kerb_rear: Option<Json<Typed>>,
    datum: Option<String>,
    rear_rise_confirmed: bool,
    revision: i32,
    revised_at: DateTime<Utc>,
    opened_by: PersonId,
    opened_at: DateTime<Utc>,
    finished_at: Option<DateTime<Utc>>,
    #[diesel(embed)]
    hands: Hands,
}

impl Row {
    fn read(self) -> Result<JobRow, StoreError> {
        let row = self;
        let job = Job {
            id: row.id,
            shop_id: row.shop_id,
            number: row.number,
            revision: row.revision,
            revised_at: row.revised_at,
            opened_by: row.opened_by,
            opened_at: row.opened_at,
            finished_at: row.finished_at,
            hands: row.hands,
        };
        let measured =
            Measured { datum: row.datum.as_deref().map(words::read).transpose()?, rear_rise_confirmed: row.rear_rise_confirmed };
        let intake = Intake {
            label: row.label,
            class: words::read(&row.vehicle_class)?,
            rear_wheels: words::read(&row.rear_wheels)?,
            wheelbase: row.wheelbase.0,
            axle_spread: row.axle_spread.map(|typed| typed.0),
            equalised: row.equalised,
            front_rating: row.front_rating.0,
            rear_rating: row.rear_rating.0,
            gross_rating: row.gross_rating.map(|typed| typed.0),
            kerb_front: row.kerb_front.map(|typed| typed.0),
            kerb_rear: row.kerb_rear.map(|typed| typed.0),
        };
        Ok(JobRow { job, intake, measured })
    }
}

#[derive(Insertable, AsChangeset, Serialize)]
#[diesel(table_name = jobs, treat_none_as_null = true)]
struct IntakeColumns {
    label: String,
    vehicle_class: &'static str,
    rear_wheels: &'static str,
    wheelbase: Json<Typed>,
    axle_spread: Option<Json<Typed>>,
    equalised: bool,
    front_rating: Json<Typed>,
    rear_rating: Json<Typed>,
    gross_rating: Option<Json<Typed>>,
    kerb_front: Option<Json<Typed>>,
    kerb_rear: Option<Json<Typed>>,
}

impl From<&Intake> for IntakeColumns {
    fn from(intake: &Intake) -> Self {
        let optional = |typed: &Option<Typed>| typed.clone().map(Json);
        IntakeColumns {
            label: intake.label.clone(),
            vehicle_class: intake.class.word(),
            rear_wheels: intake.rear_wheels.word(),
            wheelbase: Json(intake.wheelbase.clone()),
            axle_spread: optional(&intake.axle_spread),
            equalised: intake.equalised,
            front_rating: Json(intake.front_rating.clone()),
            rear_rating: Json(intake.rear_rating.clone()),
            gross_rating: optional(&intake.gross_rating),
            kerb_front: optional(&intake.kerb_front),
            kerb_rear: optional(&intake.kerb_rear),
        }
    }
}

/// Opens a job under the shop's next number.
pub fn open(connection: &mut PgConnection, person: &Person, intake: &Intake) -> Result<Job, StoreError> {
    // Two jobs opened at once must not get one number: the shop's row is held until the end of the transaction.
    crate::schema::shops::table.find(person.shop_id).select(crate::schema::shops::id).for_update().first::<ShopId>(connection)?;
    let last: Option<i32> =
        jobs::table.filter(jobs::shop_id.eq(person.shop_id)).select(diesel::dsl::max(jobs::number)).first(connection)?;
    let row: Row = diesel::insert_into(jobs::table)
        .values((
            jobs::shop_id.eq(person.shop_id),
            jobs::number.eq(last.unwrap_or(0) + 1),
            jobs::revised_by.eq(person.id),
            jobs::opened_by.eq(person.id),
            jobs::searched.eq(intake.label.to_lowercase()),
            IntakeColumns::from(intake),
        ))
        .returning(Row::as_returning())
        .get_result(connection)?;
    let job = row.read()?.job;
    happening::tell(connection, person, Some(job.number))?;
    Ok(job)
}

/// The job with a number, with what its row knows of the vehicle and of how it is measured.
pub fn find(connection: &mut PgConnection, shop: ShopId, number: JobNumber) -> Result<JobRow, StoreError> {
    let found = jobs::table.filter(jobs::shop_id.eq(shop)).filter(jobs::number.eq(number)).select(Row::as_select());
    found.first(connection).optional()?.ok_or(StoreError::NotFound("job"))?.read()
}

/// What a finished job says to a change.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Closed {
    /// It is closed until it is taken up again.
    Refuses,
    /// This is the taking up again.
    Opens,
}

/// Counts a saving up and gives the revision it makes; refuses when somebody saved since `seen`, or when the job is closed.
/// To be called first in the transaction that saves.
///
/// # Errors     [`StoreError::Stale`], [`StoreError::Finished`], [`StoreError::NotFound`]
pub fn revise(connection: &mut PgConnection, person: &Person, job: JobId, seen: i32, closed: Closed) -> Result<i32, StoreError> {
    let one = jobs::table.filter(jobs::shop_id.eq(person.shop_id)).filter(jobs::id.eq(job));
    let revised: Option<(i32, Option<DateTime<Utc>>, JobNumber)> = diesel::update(one.filter(jobs::revision.eq(seen)))
        .set((jobs::revision.eq(jobs::revision + 1), jobs::revised_by.eq(person.id), jobs::revised_at.eq(diesel::dsl::now)))
        .returning((jobs::revision, jobs::finished_at, jobs::number))
        .get_result(connection)
        .optional()?;
    match revised {
        Some((_, Some(_), _)) if closed == Closed::Refuses => return Err(StoreError::Finished),
        Some((revision, _, number)) => {
            happening::tell(connection, person, Some(number))?;
            return Ok(revision);
        }
        None => {}
    }
    let by = jobs::table
        .inner_join(people::table.on(people::id.eq(jobs::revised_by)))
        .filter(jobs::shop_id.eq(person.shop_id))
        .filter(jobs::id.eq(job))
        .select((people::name, jobs::revised_at));
    let (by, at) = by.first(connection).optional()?.ok_or(StoreError::NotFound("job"))?;
    Err(StoreError::Stale { by, at })
}

/// Refuses on a finished job, and holds it open until the transaction ends.
///
/// # Errors     [`StoreError::Finished`], [`StoreError::NotFound`]
pub fn must_be_open(connection: &mut PgConnection, shop: ShopId, job: JobId) -> Result<(), StoreError> {
    let one = jobs::table.filter(jobs::shop_id.eq(shop)).filter(jobs::id.eq(job)).select(jobs::finished_at);
    let finished: Option<DateTime<Utc>> =
        one.for_no_key_update().first(connection).optional()?.ok_or(StoreError::NotFound("job"))?;
    if finished.is_some() { Err(StoreError::Finished) } else { Ok(()) }
}

/// Writes intake anew; what stood there before goes on record.
pub fn set_intake(connection: &mut PgConnection, person: &Person, job: JobId, intake: &Intake) -> Result<(), StoreError> {
    let one = jobs::table.filter(jobs::shop_id.eq(person.shop_id)).filter(jobs::id.eq(job));
    let stood = one.select(Row::as_select()).first(connection)?.read()?;
    let (before, after) = (IntakeColumns::from(&stood.intake), IntakeColumns::from(intake));
    note(connection, person, job, What::Intake, Some(change::state(&before)?), Some(change::state(&after)?))?;
    diesel::update(one).set(after).execute(connection)?;
    Ok(())
}

#[derive(Queryable, Selectable, AsChangeset, Serialize)]
#[diesel(table_name = jobs, treat_none_as_null = true)]
struct MannerColumns {
    datum: Option<String>,
    rear_rise_confirmed: bool,
}

/// Writes down how the heights are read; what was said before goes on record.
pub fn set_tape_manner(connection: &mut PgConnection, person: &Person, job: JobId, manner: TapeManner) -> Result<(), StoreError> {
    let one = jobs::table.filter(jobs::shop_id.eq(person.shop_id)).filter(jobs::id.eq(job));
    let before: MannerColumns = one.select(MannerColumns::as_select()).first(connection)?;
    let after = MannerColumns { datum: Some(manner.datum.word().to_owned()), rear_rise_confirmed: manner.rear_rise_confirmed };
    // Nothing was said before the first readings.
    if before.datum.is_some() {
        note(connection, person, job, What::TapeManner, Some(change::state(&before)?), Some(change::state(&after)?))?;
    }
    diesel::update(one).set(after).execute(connection)?;
    Ok(())
}

/// Puts a job into somebody's hands, and says when it is promised; what was said before goes on record.
///
/// # Errors     [`StoreError::NotFound`] of the person
pub fn set_hands(connection: &mut PgConnection, person: &Person, job: JobId, hands: Hands) -> Result<(), StoreError> {
    if let Some(id) = hands.assigned_to {
        person::working(connection, person.shop_id, id)?;
    }
    let one = jobs::table.filter(jobs::shop_id.eq(person.shop_id)).filter(jobs::id.eq(job));
    let before: Hands = one.select(Hands::as_select()).first(connection)?;
    note(connection, person, job, What::Hands, Some(change::state(&before)?), Some(change::state(&hands)?))?;
    diesel::update(one).set(hands).execute(connection)?;
    Ok(())
}

/// Finishes a job, or takes it up again.
pub fn set_finished(connection: &mut PgConnection, person: &Person, job: JobId, finished: bool) -> Result<(), StoreError> {
    let one = jobs::table.filter(jobs::shop_id.eq(person.shop_id)).filter(jobs::id.eq(job));
    let what = if finished { What::Finished } else { What::Reopened };
    note(connection, person, job, what, None, None)?;
    diesel::update(one).set(jobs::finished_at.eq(finished.then(Utc::now))).execute(connection)?;
    Ok(())
}

/// The number of a job.
pub fn number(connection: &mut PgConnection, shop: ShopId, job: JobId) -> Result<JobNumber, StoreError> {
    let found = jobs::table.filter(jobs::shop_id.eq(shop)).filter(jobs::id.eq(job)).select(jobs::number);
    found.first(connection).optional()?.ok_or(StoreError::NotFound("job"))
}
