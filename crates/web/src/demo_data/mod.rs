//! The demo shop: made-up people, vehicles and readings, one job in each of eleven situations, and four that a ledger is kept from.

mod around;
mod calls;
mod coils;
mod flat_packs;
mod proved;
mod shelf;
mod to_the_end;
mod water_tank;

use wise_badger_casework::entry::{
    AimSheet, CorrectionEntry, Currency, GoalEntry, LoadEntry, MoneyEntry, NoCorrection, NotDrawn, TapeSheetEntry, Typed,
    UnitWord,
};
use wise_badger_casework::intake::{Intake, TapeManner};
use wise_badger_casework::reading::{Phase, Place, Reading, Spot};
use wise_badger_casework::shelf::ShelfFileError;
use wise_badger_casework::survey::{LoadState, Manner, RearWheels, VehicleClass};
use wise_badger_casework::work_plan::ShopTerms;
use wise_badger_mechanics::correction::{added_leaf, helper_spring, lift_block, rearched_pack};
use wise_badger_mechanics::tape::{Datum, LengthUnit, TypedError, WeightUnit, parse_length, parse_rate, parse_weight};
use wise_badger_mechanics::units::InShopUnits;
use wise_badger_store::job::Job;
use wise_badger_store::job_file::JobFile;
use wise_badger_store::person::Person;
use wise_badger_store::shop::Shops;
use wise_badger_store::{
    CorrectionId, PgConnection, Role, StoreError, correction, fitting, job, job_sheet, person, reading, shop,
};

/// Why the demo data could not be loaded.
#[derive(Debug, thiserror::Error)]
pub enum DemoError {
    /// The store could not take it.
    #[error(transparent)]
    Store(#[from] StoreError),
    /// A figure written here cannot be read.
    #[error(transparent)]
    Typed(#[from] TypedError),
    /// A demo correction lacks a figure.
    #[error(transparent)]
    NoCorrection(#[from] NoCorrection),
    /// The table of the shelf cannot be read.
    #[error(transparent)]
    ShelfFile(#[from] ShelfFileError),
    /// A row of it cannot.
    #[error("the demo shelf, {0}")]
    Shelf(String),
    /// A demo signature cannot be drawn.
    #[error(transparent)]
    Signature(NotDrawn),
    /// A demo correction makes no correction.
    #[error("a demo correction cannot be predicted")]
    Correction,
}

impl From<wise_badger_store::DieselError> for DemoError {
    fn from(error: wise_badger_store::DieselError) -> Self {
        DemoError::Store(error.into())
    }
}

/// Loads the demo shop, all of it or nothing, unless the database has a shop already.
///
/// # Errors     when the store refuses
pub fn load(connection: &mut PgConnection) -> Result<(), DemoError> {
    wise_badger_store::in_transaction(connection, |connection| {
        shop::one_at_a_time(connection)?;
        if shop::shops(connection)? != Shops::None {
            return Ok(());
        }
        let shop = shop::open_demo(connection, "Millrace Spring Works")?;
        person::take_on(connection, shop.id, "Halvard", "Owner", Role::Owner)?;
        let lead = person::take_on(connection, shop.id, "Odalys", "Lead", Role::Lead)?;
        let technician = person::take_on(connection, shop.id, "Bram", "Technician", Role::Technician)?;
        let desk = person::take_on(connection, shop.id, "Ines", "Front desk", Role::Desk)?;
        let apprentice = person::take_on(connection, shop.id, "Tuck", "Apprentice", Role::Apprentice)?;
        shelf::load(connection, &lead)?;
        finished(connection, &technician, &lead)?;
        over_a_rating(connection, &technician)?;
        too_weak(connection, &technician)?;
        choosing(connection, &lead)?;
        trailer(connection, &technician)?;
        water_tank::water_tank(connection, &technician)?;
        flat_packs::flat_packs(connection, &technician)?;
        coils::kit_wagon(connection, &technician)?;
        coils::both_ends(connection, &technician)?;
        to_the_end::came_back(connection, &technician, &lead)?;
        to_the_end::nose_up(connection, &technician, &lead)?;
        proved::load(connection, &technician, &lead)?;
        shop::set_terms(connection, &lead, &terms())?;
        let crew = around::Crew { lead: &lead, technician: &technician, apprentice: &apprentice };
        around::load(connection, &crew, &terms())?;
        calls::load(connection, &desk)
    })
}

/// What the shop charges, and when it works.
fn terms() -> ShopTerms {
    let hourly = MoneyEntry { text: "118".to_owned(), hundredths: 11_800, currency: Currency::Usd };
    ShopTerms { hourly: Some(hourly), tax_on_parts: 6.25, ..ShopTerms::default() }
}

/// A half-ton that bottomed with its mower rack: helpers fitted, measured again, done.
fn finished(connection: &mut PgConnection, technician: &Person, lead: &Person) -> Result<(), DemoError> {
    let job = open(
        connection,
        technician,
        "Grounds crew half-ton, sits low with the mower rack",
        VehicleClass::HalfTonPickup,
        "145",
        ["3,900", "4,100"],
        None,
    )?;
    let heights = Walk { front: ["20 9/16", "20 1/2"], rear: ["21 5/8", "21 9/16"] };
    let loaded = Walk { front: ["20 5/8", "20 9/16"], rear: ["18 15/16", "18 13/16"] };
    let gaps = [Some("3 3/8"), Some("11/16")];
    tape(connection, technician, &job, Datum::HubToArch, [&heights, &loaded], gaps)?;
    put_on(connection, technician, &job, "1,050", "4", true)?;
    let rake = GoalEntry::LevelLoaded { rake: length("0")?, tolerance: length("1/2")? };
    job_sheet::replace(connection, technician, job.id, &AimSheet::from(rake))?;
    let block = CorrectionEntry::of(&lift_block::ROW, [("thickness", length("1 1/2")?.into())])?;
    correction::consider(connection, lead, job.id, &block.into())?;
    let helpers = CorrectionEntry::of(
        &helper_spring::ROW,
        [("pair_rate", rate("450")?.into()), ("engagement_gap", length("1/4")?.into())],
    )?;
    let chosen = correction::consider(connection, lead, job.id, &helpers.into())?;
    choose(connection, lead, &job, chosen)?;
    let after_empty = Walk { front: ["20 1/2", "20 9/16"], rear: ["21 5/8", "21 5/8"] };
    let after_loaded = Walk { front: ["20 9/16", "20 5/8"], rear: ["20 1/4", "20 3/16"] };
    let readings = walks(Phase::Fitted, Datum::HubToArch, [&after_empty, &after_loaded], [None, None])?;
    reading::replace(connection, technician, job.id, Phase::Fitted, &readings, "")?;
    job::set_finished(connection, lead, job.id, true)?;
    Ok(())
}

/// A flatbed carrying more than its rear axle may: no spring is the answer.
fn over_a_rating(connection: &mut PgConnection, technician: &Person) -> Result<(), DemoError> {
    let job = open(
        connection,
        technician,
        "Fence contractor's flatbed, post driver and tank aboard",
        VehicleClass::Flatbed,
        "162",
        ["5,600", "9,200"],
        Some(["4,520", "3,880"]),
    )?;
    let heights = Walk { front: ["37 1/4", "37 1/4"], rear: ["41 1/8", "41"] };
    let loaded = Walk { front: ["37 5/8", "37 9/16"], rear: ["37 3/16", "36 15/16"] };
    tape(connection, technician, &job, Datum::GroundToArch, [&heights, &loaded], [Some("5 1/4"), Some("2 1/4")])?;
    put_on(connection, technician, &job, "5,250", "18", false)
}

/// A van measured with too little aboard to know its springs.
fn too_weak(connection: &mut PgConnection, technician: &Person) -> Result<(), DemoError> {
    let job =
        open(connection, technician, "Florist's van, leans back a little", VehicleClass::Van, "136", ["4,100", "4,300"], None)?;
    let heights = Walk { front: ["31 7/8", "31 13/16"], rear: ["32 3/8", "32 5/16"] };
    let loaded = Walk { front: ["31 7/8", "31 7/8"], rear: ["31 7/8", "31 7/8"] };
    tape(connection, technician, &job, Datum::GroundToArch, [&heights, &loaded], [None, None])?;
    put_on(connection, technician, &job, "180", "0", false)?;
    let level = GoalEntry::LevelEmpty { tolerance: length("1/4")? };
    job_sheet::replace(connection, technician, job.id, &AimSheet::from(level))?;
    let block = CorrectionEntry::of(&lift_block::ROW, [("thickness", length("1")?.into())])?;
    correction::consider(connection, technician, job.id, &block.into())?;
    Ok(())
}

/// A clinic on a motorhome's frame with a permanent fit-out: two corrections looked at, none chosen yet.
fn choosing(connection: &mut PgConnection, lead: &Person) -> Result<(), DemoError> {
    let job = open(
        connection,
        lead,
        "Mobile clinic, ramp too steep since the exam room went in",
        VehicleClass::Motorhome,
        "176",
        ["4,850", "8,120"],
        Some(["4,020", "4,790"]),
    )?;
    let heights = Walk { front: ["34 13/16", "34 3/4"], rear: ["36 5/8", "36 3/8"] };
    let loaded = Walk { front: ["34 3/4", "34 3/4"], rear: ["33 15/16", "33 9/16"] };
    tape(connection, lead, &job, Datum::GroundToArch, [&heights, &loaded], [Some("3 3/16"), Some("15/16")])?;
    put_on(connection, lead, &job, "1,980", "14", true)?;
    let rake = GoalEntry::LevelLoaded { rake: length("1/2")?, tolerance: length("3/8")? };
    job_sheet::replace(connection, lead, job.id, &AimSheet::from(rake))?;
    let block = CorrectionEntry::of(&lift_block::ROW, [("thickness", length("1 1/2")?.into())])?;
    correction::consider(connection, lead, job.id, &block.into())?;
    let leaf = CorrectionEntry::of(&added_leaf::ROW, [("pair_rate", rate("150")?.into()), ("lift", length("1 1/4")?.into())])?;
    correction::consider(connection, lead, job.id, &leaf.into())?;
    Ok(())
}

/// A tandem trailer whose packs went flat: re-arching and an added leaf looked at.
fn trailer(connection: &mut PgConnection, technician: &Person) -> Result<(), DemoError> {
    let job = open(
        connection,
        technician,
        "Mower trailer, tail drags on the shop apron",
        VehicleClass::TandemTrailer,
        "168",
        ["1,000", "7,000"],
        Some(["420", "2,480"]),
    )?;
    let heights = Walk { front: ["19 1/2", "19 1/2"], rear: ["19 1/8", "19 1/4"] };
    let loaded = Walk { front: ["19 1/4", "19 3/16"], rear: ["17 3/16", "17 1/4"] };
    tape(connection, technician, &job, Datum::GroundToArch, [&heights, &loaded], [None, None])?;
    put_on(connection, technician, &job, "2,600", "8", true)?;
    let level = GoalEntry::LevelLoaded { rake: length("0")?, tolerance: length("1/2")? };
    job_sheet::replace(connection, technician, job.id, &AimSheet::from(level))?;
    let rearched = CorrectionEntry::of(&rearched_pack::ROW, [("free_height_gained", length("1 3/4")?.into())])?;
    correction::consider(connection, technician, job.id, &rearched.into())?;
    let leaf = CorrectionEntry::of(&added_leaf::ROW, [("pair_rate", rate("560")?.into()), ("lift", length("1 1/8")?.into())])?;
    correction::consider(connection, technician, job.id, &leaf.into())?;
    Ok(())
}

/// Left and right readings of both axles.
struct Walk {
    front: [&'static str; 2],
    rear: [&'static str; 2],
}

fn length(text: &str) -> Result<Typed, TypedError> {
    let si = parse_length(text, LengthUnit::Inches)?.si();
    Ok(Typed { text: text.to_owned(), unit: UnitWord::In, si })
}

fn weight(text: &str) -> Result<Typed, TypedError> {
    let si = parse_weight(text, WeightUnit::Pounds)?.si();
    Ok(Typed { text: text.to_owned(), unit: UnitWord::Lb, si })
}

fn rate(text: &str) -> Result<Typed, TypedError> {
    let si = parse_rate(text, WeightUnit::Pounds)?.si();
    Ok(Typed { text: text.to_owned(), unit: UnitWord::LbPerIn, si })
}

fn open(
    connection: &mut PgConnection,
    person: &Person,
    label: &str,
    class: VehicleClass,
    wheelbase: &str,
    ratings: [&str; 2],
    kerb: Option<[&str; 2]>,
) -> Result<Job, DemoError> {
    let [front_rating, rear_rating] = ratings;
    let dual = class == VehicleClass::Flatbed;
    let intake = Intake {
        label: label.to_owned(),
        class,
        rear_wheels: if dual { RearWheels::Dual } else { RearWheels::Single },
        wheelbase: length(wheelbase)?,
        axle_spread: class.is_trailer().then(|| length("34")).transpose()?,
        equalised: true,
        front_rating: weight(front_rating)?,
        rear_rating: weight(rear_rating)?,
        gross_rating: None,
        kerb_front: kerb.map(|[front, _]| weight(front)).transpose()?,
        kerb_rear: kerb.map(|[_, rear]| weight(rear)).transpose()?,
    };
    Ok(job::open(connection, person, &intake)?)
}

fn walks(phase: Phase, datum: Datum, states: [&Walk; 2], gaps: [Option<&str>; 2]) -> Result<Vec<Reading>, DemoError> {
    let mut readings = Vec::new();
    for ((state, walk), gap) in LoadState::BOTH.into_iter().zip(states).zip(gaps) {
        let places = [
            (Place::FrontLeft, Some(walk.front[0])),
            (Place::FrontRight, Some(walk.front[1])),
            (Place::RearLeft, Some(walk.rear[0])),
            (Place::RearRight, Some(walk.rear[1])),
            (Place::StopGap, gap),
        ];
        for (place, text) in places {
            if let Some(text) = text {
                readings.push(Reading { spot: Spot { phase, state, place }, datum, value: length(text)? });
            }
        }
    }
    Ok(readings)
}

fn tape(
    connection: &mut PgConnection,
    person: &Person,
    job: &Job,
    datum: Datum,
    states: [&Walk; 2],
    gaps: [Option<&str>; 2],
) -> Result<(), DemoError> {
    job::set_tape_manner(connection, person, job.id, TapeManner { datum, rear_rise_confirmed: false })?;
    job_sheet::replace(connection, person, job.id, &rolled(None))?;
    let readings = walks(Phase::Found, datum, states, gaps)?;
    Ok(reading::replace(connection, person, job.id, Phase::Found, &readings, "")?)
}

fn put_on(
    connection: &mut PgConnection,
    person: &Person,
    job: &Job,
    pounds: &str,
    inches: &str,
    ahead: bool,
) -> Result<(), DemoError> {
    let load = LoadEntry::Placed { weight: weight(pounds)?, distance: length(inches)?, ahead };
    Ok(job_sheet::replace(connection, person, job.id, &rolled(Some(load)))?)
}

/// Both states rolled and bounced, with what was put on.
fn rolled(load: Option<LoadEntry>) -> TapeSheetEntry {
    let mut tape = TapeSheetEntry::default();
    tape.states.iter_mut().for_each(|state| state.manner = Manner::Rolled);
    tape.with_load(LoadState::Loaded, load)
}

fn choose(connection: &mut PgConnection, person: &Person, job: &Job, chosen: CorrectionId) -> Result<(), DemoError> {
    let file = JobFile::find(connection, person.shop_id, job.number)?;
    let place = file.considered.iter().position(|considered| *considered == chosen);
    let promised = place.and_then(|place| file.work.promise(place, "Wise Badger"));
    let (predicted, promise) = promised.ok_or(DemoError::Correction)?;
    Ok(fitting::choose(connection, person, job.id, chosen, &predicted, Some(&promise))?)
}
