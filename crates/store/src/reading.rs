//! Heights, gaps, weights, angles and pressures as read at the vehicle.

use chrono::{DateTime, Utc};
use diesel::prelude::*;
use wise_badger_casework::entry::Typed;
use wise_badger_casework::reading::{Phase, Reading, Spot};
use wise_badger_casework::words::Word;

use crate::person::Person;
use crate::schema::readings;
use crate::words;
use crate::{JobId, PersonId, ReadingId, ShopId, StoreError};

/// A reading that stands, with who took it.
#[derive(Debug, Clone, PartialEq)]
pub struct Taken {
    /// What was read.
    pub reading: Reading,
    /// Who read it.
    pub by: PersonId,
    /// When.
    pub at: DateTime<Utc>,
}

#[derive(Queryable, Selectable)]
#[diesel(table_name = readings)]
struct Row {
    id: ReadingId,
    phase: String,
    load_state: String,
    place: String,
    ordinal: i16,
    datum: String,
    value_text: String,
    value_unit: String,
    value_si: f64,
    taken_by: PersonId,
    taken_at: DateTime<Utc>,
}

impl Row {
    fn spot(&self) -> Result<Spot, StoreError> {
        Ok(Spot { phase: words::read(&self.phase)?, state: words::read(&self.load_state)?, place: words::read(&self.place)? })
    }

    fn value(&self) -> Result<Typed, StoreError> {
        Ok(Typed { text: self.value_text.clone(), unit: words::read(&self.value_unit)?, si: self.value_si })
    }
}

impl TryFrom<Row> for Taken {
    type Error = StoreError;

    fn try_from(row: Row) -> Result<Self, StoreError> {
        let reading = Reading { spot: row.spot()?, datum: words::read(&row.datum)?, value: row.value()? };
        Ok(Taken { reading, by: row.taken_by, at: row.taken_at })
    }
}

/// The readings that stand on a job, in the order they were put down.
pub fn standing(connection: &mut PgConnection, shop: ShopId, job: JobId) -> Result<Vec<Taken>, StoreError> {
    standing_rows(connection, shop, job)?.into_iter().map(Taken::try_from).collect()
}

fn standing_rows(connection: &mut PgConnection, shop: ShopId, job: JobId) -> Result<Vec<Row>, StoreError> {
    Ok(readings::table
        .filter(readings::shop_id.eq(shop))
        .filter(readings::job_id.eq(job))
        .filter(readings::withdrawn_at.is_null())
        .order((readings::ordinal, readings::id))
        .select(Row::as_select())
        .load(connection)?)
}

/// Makes `new` the readings of a phase: what is unchanged stays with whoever took it, what differs is
/// withdrawn, with why, and put down anew. Nothing is deleted.
pub fn replace(
    connection: &mut PgConnection,
    person: &Person,
    job: JobId,
    phase: Phase,
    new: &[Reading],
    why: &str,
) -> Result<(), StoreError> {
    let rows = standing_rows(connection, person.shop_id, job)?;
    let mut wanted: Vec<(i16, &Reading)> = Vec::with_capacity(new.len());
    for reading in new.iter().filter(|reading| reading.spot.phase == phase) {
        let before = wanted.iter().filter(|(_, other)| other.spot == reading.spot).count();
        wanted.push((i16::try_from(before).unwrap_or(i16::MAX), reading));
    }
    let mut withdrawn = Vec::new();
    for row in rows.iter().filter(|row| row.phase == phase.word()) {
        let (spot, value) = (row.spot()?, row.value()?);
        let same = |(ordinal, reading): &(i16, &Reading)| {
            *ordinal == row.ordinal && reading.spot == spot && reading.value == value && row.datum == reading.datum.word()
        };
        match wanted.iter().position(same) {
            Some(index) => drop(wanted.remove(index)),
            None => withdrawn.push(row.id),
        }
    }
    diesel::update(readings::table.filter(readings::shop_id.eq(person.shop_id)).filter(readings::id.eq_any(withdrawn)))
        .set((
            readings::withdrawn_by.eq(Some(person.id)),
            readings::withdrawn_at.eq(Some(Utc::now())),
            readings::withdrawn_why.eq(Some(why).filter(|why| !why.is_empty())),
        ))
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
                readings::datum.eq(reading.datum.word()),
                readings::value_text.eq(&reading.value.text),
                readings::value_unit.eq(reading.value.unit.word()),
                readings::value_si.eq(reading.value.si),
                readings::taken_by.eq(person.id),
            )
        })
        .collect();
    diesel::insert_into(readings::table).values(rows).execute(connection)?;
    Ok(())
}

/// Who took a reading and when, as far as that is known.
#[derive(Debug, Clone, PartialEq)]
pub struct Taker {
    /// The reading.
    pub reading: Reading,
    /// Who took it.
    pub by: Option<PersonId>,
    /// When.
    pub at: Option<DateTime<Utc>>,
}

/// Says of the readings that stand on a job who took each and when, where that is known: for readings that come from elsewhere.
pub fn set_takers(connection: &mut PgConnection, shop: ShopId, job: JobId, taken: &[Taker]) -> Result<(), StoreError> {
    let mut rows = standing_rows(connection, shop, job)?;
    for Taker { reading, by, at } in taken {
        let same = |row: &Row| {
            let spot = row.spot()?;
            Ok::<_, StoreError>(spot == reading.spot && row.value()? == reading.value && row.datum == reading.datum.word())
        };
        let mut place = None;
        for (index, row) in rows.iter().enumerate() {
            if same(row)? {
                place = Some(index);
                break;
            }
        }
        let Some(place) = place else { continue };
        let row = rows.remove(place);
        let (by, at) = (by.unwrap_or(row.taken_by), at.unwrap_or(row.taken_at));
        let one = readings::table.filter(readings::shop_id.eq(shop)).filter(readings::id.eq(row.id));
        diesel::update(one).set((readings::taken_by.eq(by), readings::taken_at.eq(at))).execute(connection)?;
    }
    Ok(())
}

/// A reading that was corrected, and stays on record.
#[derive(Debug, Clone, PartialEq)]
pub struct Withdrawn {
    /// What was read.
    pub spot: Spot,
    /// What it came to.
    pub value: Typed,
    /// Who read it.
    pub taken_by: PersonId,
    /// Who corrected it.
    pub withdrawn_by: Option<PersonId>,
    /// When.
    pub withdrawn_at: Option<DateTime<Utc>>,
    /// And why, where somebody said.
    pub why: Option<String>,
}

/// Most corrected readings that a page lists; the history has them all.
pub const MOST_WITHDRAWN: i64 = 60;

/// The readings of a job that were corrected, the latest first, up to [`MOST_WITHDRAWN`].
pub fn withdrawn(connection: &mut PgConnection, shop: ShopId, job: JobId) -> Result<Vec<Withdrawn>, StoreError> {
    type Columns = (Row, Option<PersonId>, Option<DateTime<Utc>>, Option<String>);
    let rows: Vec<Columns> = readings::table
        .filter(readings::shop_id.eq(shop))
        .filter(readings::job_id.eq(job))
        .filter(readings::withdrawn_at.is_not_null())
        .order((readings::withdrawn_at.desc(), readings::id))
        .limit(MOST_WITHDRAWN)
        .select((Row::as_select(), readings::withdrawn_by, readings::withdrawn_at, readings::withdrawn_why))
        .load(connection)?;
    let read = |(row, withdrawn_by, withdrawn_at, why): Columns| {
        Ok(Withdrawn { spot: row.spot()?, value: row.value()?, taken_by: row.taken_by, withdrawn_by, withdrawn_at, why })
    };
    rows.into_iter().map(read).collect()
}
