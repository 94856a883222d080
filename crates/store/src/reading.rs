//! Heights, gaps, weights, angles and pressures as read at the vehicle.

use chrono::{DateTime, Utc};
use diesel::prelude::*;
use wise_badger_casework::survey::LoadState;
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
    /// Ground to the hub centre, front: what turns one datum into another.
    HubFront,
    /// The same at the rear.
    HubRear,
    /// Ground to the step.
    Step,
    /// Ground to the hitch.
    Hitch,
    /// Ground to the frame rail behind the rear axle.
    FrameRail,
    /// Ground to the middle of the headlamp.
    Headlamp,
    /// Arch of the left pack, from its eyes.
    ArchLeft,
    /// Arch of the right pack.
    ArchRight,
    /// A corner on a scale.
    WeightFrontLeft,
    /// A corner on a scale.
    WeightFrontRight,
    /// A corner on a scale.
    WeightRearLeft,
    /// A corner on a scale.
    WeightRearRight,
    /// An axle on a scale.
    WeightFront,
    /// An axle on a scale.
    WeightRear,
    /// Shackle from upright, rearward positive.
    ShackleLeft,
    /// Shackle from upright, rearward positive.
    ShackleRight,
    /// Pinion from level, nose up positive.
    Pinion,
    /// Frame from level, rear up positive.
    FrameAngle,
    /// Tyre pressure.
    TyreFrontLeft,
    /// Tyre pressure.
    TyreFrontRight,
    /// Tyre pressure.
    TyreRearLeft,
    /// Tyre pressure.
    TyreRearRight,
}

/// What kind of figure is read at a place.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub enum Kind {
    /// A length from the job's datum.
    Height,
    /// A length.
    Length,
    /// A weight.
    Weight,
    /// An angle.
    Angle,
    /// A pressure.
    Pressure,
}

impl Place {
    /// What kind of figure is read there.
    pub fn kind(self) -> Kind {
        match self {
            Place::FrontLeft | Place::FrontRight | Place::RearLeft | Place::RearRight => Kind::Height,
            Place::StopGap
            | Place::HubFront
            | Place::HubRear
            | Place::Step
            | Place::Hitch
            | Place::FrameRail
            | Place::Headlamp
            | Place::ArchLeft
            | Place::ArchRight => Kind::Length,
            Place::WeightFrontLeft
            | Place::WeightFrontRight
            | Place::WeightRearLeft
            | Place::WeightRearRight
            | Place::WeightFront
            | Place::WeightRear => Kind::Weight,
            Place::ShackleLeft | Place::ShackleRight | Place::Pinion | Place::FrameAngle => Kind::Angle,
            Place::TyreFrontLeft | Place::TyreFrontRight | Place::TyreRearLeft | Place::TyreRearRight => Kind::Pressure,
        }
    }

    /// The word it goes by in the store, and in forms.
    pub fn name(self) -> &'static str {
        self.word()
    }

    /// Every place beside the walk round the vehicle.
    pub fn further() -> impl Iterator<Item = Place> {
        Self::WORDS.iter().map(|(place, _)| *place).filter(|place| place.kind() != Kind::Height && *place != Place::StopGap)
    }
}

impl Word for Phase {
    const WHAT: &'static str = "phase";
    const WORDS: &'static [(Self, &'static str)] = &[(Phase::Found, "found"), (Phase::Fitted, "fitted")];
}

/// Only the units a reading is typed in: the column holds no others.
impl Word for UnitWord {
    const WHAT: &'static str = "unit";
    const WORDS: &'static [(Self, &'static str)] = &[
        (UnitWord::In, "in"),
        (UnitWord::Mm, "mm"),
        (UnitWord::Lb, "lb"),
        (UnitWord::Kg, "kg"),
        (UnitWord::Deg, "deg"),
        (UnitWord::Psi, "psi"),
        (UnitWord::Kpa, "kpa"),
    ];
}

impl Word for Place {
    const WHAT: &'static str = "place";
    const WORDS: &'static [(Self, &'static str)] = &[
        (Place::FrontLeft, "front_left"),
        (Place::FrontRight, "front_right"),
        (Place::RearLeft, "rear_left"),
        (Place::RearRight, "rear_right"),
        (Place::StopGap, "stop_gap"),
        (Place::HubFront, "hub_front"),
        (Place::HubRear, "hub_rear"),
        (Place::Step, "step"),
        (Place::Hitch, "hitch"),
        (Place::FrameRail, "frame_rail"),
        (Place::Headlamp, "headlamp"),
        (Place::ArchLeft, "arch_left"),
        (Place::ArchRight, "arch_right"),
        (Place::WeightFrontLeft, "weight_front_left"),
        (Place::WeightFrontRight, "weight_front_right"),
        (Place::WeightRearLeft, "weight_rear_left"),
        (Place::WeightRearRight, "weight_rear_right"),
        (Place::WeightFront, "weight_front"),
        (Place::WeightRear, "weight_rear"),
        (Place::ShackleLeft, "shackle_left"),
        (Place::ShackleRight, "shackle_right"),
        (Place::Pinion, "pinion"),
        (Place::FrameAngle, "frame_angle"),
        (Place::TyreFrontLeft, "tyre_front_left"),
        (Place::TyreFrontRight, "tyre_front_right"),
        (Place::TyreRearLeft, "tyre_rear_left"),
        (Place::TyreRearRight, "tyre_rear_right"),
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
    /// What it came to.
    pub value: Typed,
    /// Who read it.
    pub taken_by: PersonId,
    /// When.
    pub taken_at: DateTime<Utc>,
}

/// A reading to put down.
#[derive(Debug, Clone, PartialEq)]
pub struct NewReading {
    /// What was read.
    pub spot: Spot,
    /// What it was measured from; for a figure that is no height, the job's datum.
    pub datum: Datum,
    /// What it came to.
    pub value: Typed,
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
    value_text: String,
    value_unit: String,
    value_si: f64,
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

    fn value(&self) -> Result<Typed, StoreError> {
        Ok(Typed { text: self.value_text.clone(), unit: UnitWord::from_word(&self.value_unit)?, si: self.value_si })
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
            value: row.value()?,
            taken_by: row.taken_by,
            taken_at: row.taken_at,
        })
    }
}

/// The readings that stand on a job, in the order they were put down.
pub fn standing(connection: &mut PgConnection, shop: ShopId, job: JobId) -> Result<Vec<Reading>, StoreError> {
    standing_rows(connection, shop, job)?.into_iter().map(Reading::try_from).collect()
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
    new: &[NewReading],
    why: &str,
) -> Result<(), StoreError> {
    let rows = standing_rows(connection, person.shop_id, job)?;
    let mut wanted: Vec<(i16, &NewReading)> = Vec::with_capacity(new.len());
    for reading in new.iter().filter(|reading| reading.spot.phase == phase) {
        let before = wanted.iter().filter(|(_, other)| other.spot == reading.spot).count();
        wanted.push((i16::try_from(before).unwrap_or(i16::MAX), reading));
    }
    let mut withdrawn = Vec::new();
    for row in rows.iter().filter(|row| row.phase == phase.word()) {
        let (spot, value) = (row.spot()?, row.value()?);
        let same = |(ordinal, reading): &(i16, &NewReading)| {
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
