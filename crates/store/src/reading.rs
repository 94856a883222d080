//! Heights and gaps as read at the vehicle.

use chrono::{DateTime, Utc};
use diesel::prelude::*;
use wise_badger_mechanics::survey::LoadState;
use wise_badger_mechanics::tape::Datum;

use crate::entry::{Typed, UnitWord};
use crate::person::Person;
use crate::schema::readings;
use crate::words::Word;
use crate::{JobId, PersonId, ReadingId, ShopId, StoreError};

/// When in a job a reading was taken.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub enum Phase {
    /// As the vehicle came in.
    Found,
    /// After the correction was fitted.
    Fitted,
}

/// Where on the vehicle a reading was taken.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub enum Place {
    /// Front left arch.
    FrontLeft,
    /// Front right arch.
    FrontRight,
    /// Rear left arch.
    RearLeft,
    /// Rear right arch.
    RearRight,
    /// Rear bump stop.
    StopGap,
}

impl Word for Phase {
    const WHAT: &'static str = "phase";
    const WORDS: &'static [(Self, &'static str)] = &[(Phase::Found, "found"), (Phase::Fitted, "fitted")];
}

/// Only the units a height is typed in: the column holds no others.
impl Word for UnitWord {
    const WHAT: &'static str = "unit";
    const WORDS: &'static [(Self, &'static str)] = &[(UnitWord::In, "in"), (UnitWord::Mm, "mm")];
}

impl Word for Place {
    const WHAT: &'static str = "place";
    const WORDS: &'static [(Self, &'static str)] = &[
        (Place::FrontLeft, "front_left"),
        (Place::FrontRight, "front_right"),
        (Place::RearLeft, "rear_left"),
        (Place::RearRight, "rear_right"),
        (Place::StopGap, "stop_gap"),
    ];
}

/// Which reading: phase, state and place.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub struct Spot {
    /// Before or after fitting.
    pub phase: Phase,
    /// Empty or loaded.
    pub state: LoadState,
    /// Where on the vehicle.
    pub place: Place,
}

/// A reading that stands.
#[derive(Debug, Clone, PartialEq)]
pub struct Reading {
    /// Its key.
    pub id: ReadingId,
    /// The job it belongs to.
    pub job_id: JobId,
    /// What was read.
    pub spot: Spot,
    /// What it was measured from.
    pub datum: Datum,
    /// The height.
    pub height: Typed,
    /// Who read it.
    pub taken_by: PersonId,
    /// When.
    pub taken_at: DateTime<Utc>,
}

/// A height to put down.
#[derive(Debug, Clone, PartialEq)]
pub struct NewReading {
    /// What was read.
    pub spot: Spot,
    /// The height.
    pub height: Typed,
}

#[derive(Queryable, Selectable)]
#[diesel(table_name = readings)]
struct Row {
    id: ReadingId,
    job_id: JobId,
    phase: String,
    load_state: String,
    place: String,
    ordinal: i16,
    datum: String,
    height_text: String,
    height_unit: String,
    height_m: f64,
    taken_by: PersonId,
    taken_at: DateTime<Utc>,
}

impl Row {
    fn spot(&self) -> Result<Spot, StoreError> {
        Ok(Spot {
            phase: Phase::from_word(&self.phase)?,
            state: LoadState::from_word(&self.load_state)?,
            place: Place::from_word(&self.place)?,
        })
    }

    fn height(&self) -> Result<Typed, StoreError> {
        Ok(Typed { text: self.height_text.clone(), unit: UnitWord::from_word(&self.height_unit)?, si: self.height_m })
    }
}

impl TryFrom<Row> for Reading {
    type Error = StoreError;

    fn try_from(row: Row) -> Result<Self, StoreError> {
        Ok(Reading {
            id: row.id,
            job_id: row.job_id,
            spot: row.spot()?,
            datum: Datum::from_word(&row.datum)?,
            height: row.height()?,
            taken_by: row.taken_by,
            taken_at: row.taken_at,
        })
    }
}

/// The readings that stand on some jobs, in the order they were put down.
pub fn standing(connection: &mut PgConnection, shop: ShopId, jobs: &[JobId]) -> Result<Vec<Reading>, StoreError> {
    standing_rows(connection, shop, jobs)?.into_iter().map(Reading::try_from).collect()
}

fn standing_rows(connection: &mut PgConnection, shop: ShopId, jobs: &[JobId]) -> Result<Vec<Row>, StoreError> {
    Ok(readings::table
        .filter(readings::shop_id.eq(shop))
        .filter(readings::job_id.eq_any(jobs))
        .filter(readings::withdrawn_at.is_null())
        .order((readings::ordinal, readings::id))
        .select(Row::as_select())
        .load(connection)?)
}

/// Makes `new` the readings of a phase: what is unchanged stays with whoever took it, what differs is
/// withdrawn and put down anew. Nothing is deleted.
pub fn replace(
    connection: &mut PgConnection,
    person: &Person,
    job: JobId,
    phase: Phase,
    datum: Datum,
    new: &[NewReading],
) -> Result<(), StoreError> {
    let rows = standing_rows(connection, person.shop_id, &[job])?;
    let mut wanted: Vec<(i16, &NewReading)> = Vec::with_capacity(new.len());
    for reading in new.iter().filter(|reading| reading.spot.phase == phase) {
        let before = wanted.iter().filter(|(_, other)| other.spot == reading.spot).count();
        wanted.push((i16::try_from(before).unwrap_or(i16::MAX), reading));
    }
    let mut withdrawn = Vec::new();
    for row in rows.iter().filter(|row| row.phase == phase.word()) {
        let (spot, height) = (row.spot()?, row.height()?);
        let same = |(ordinal, reading): &(i16, &NewReading)| {
            *ordinal == row.ordinal && reading.spot == spot && reading.height == height && row.datum == datum.word()
        };
        match wanted.iter().position(same) {
            Some(index) => drop(wanted.remove(index)),
            None => withdrawn.push(row.id),
        }
    }
    diesel::update(readings::table.filter(readings::shop_id.eq(person.shop_id)).filter(readings::id.eq_any(withdrawn)))
        .set((readings::withdrawn_by.eq(Some(person.id)), readings::withdrawn_at.eq(Some(Utc::now()))))
        .execute(connection)?;
    let rows: Vec<_> = wanted
        .into_iter()
        .map(|(ordinal, reading)| {
            (
                readings::shop_id.eq(person.shop_id),
                readings::job_id.eq(job),
                readings::phase.eq(phase.word()),
                readings::load_state.eq(reading.spot.state.word()),
                readings::place.eq(reading.spot.place.word()),
                readings::ordinal.eq(ordinal),
                readings::datum.eq(datum.word()),
                readings::height_text.eq(&reading.height.text),
                readings::height_unit.eq(reading.height.unit.word()),
                readings::height_m.eq(reading.height.si),
                readings::taken_by.eq(person.id),
            )
        })
        .collect();
    diesel::insert_into(readings::table).values(rows).execute(connection)?;
    Ok(())
}

/// How many readings of a job were withdrawn: they stay on record.
pub fn withdrawn_count(connection: &mut PgConnection, shop: ShopId, job: JobId) -> Result<i64, StoreError> {
    let withdrawn = readings::table.filter(readings::shop_id.eq(shop)).filter(readings::job_id.eq(job));
    Ok(withdrawn.filter(readings::withdrawn_at.is_not_null()).count().get_result(connection)?)
}
