//! A call that the demo shop's desk took down.

use wise_badger_casework::entry::{AboardEntry, CallEntry, LowWord, PlaceWord, ThingWord, WhenLow};
use wise_badger_casework::survey::{RearWheels, SpringKind, Thing, VehicleClass};
use wise_badger_store::person::Person;
use wise_badger_store::{PgConnection, call};

use super::{DemoError, weight};

pub(super) fn load(connection: &mut PgConnection, desk: &Person) -> Result<(), DemoError> {
    let beekeeper = CallEntry {
        label: "Beekeeper's three-quarter-ton, called about the hives".to_owned(),
        class: VehicleClass::ThreeQuarterTonPickup,
        rear_wheels: RearWheels::Single,
        rear_spring: Some(SpringKind::Leaf),
        rear_rating: None,
        things: vec![ThingWord(Thing::Toolbox)],
        aboard: Some(AboardEntry { weight: weight("900")?, place: PlaceWord::OnTheFloor }),
        low: Some(LowWord::TwoInches),
        when: Some(WhenLow::Loaded),
        leans: false,
        words: "Squats with the hives on, rides fine without them".to_owned(),
        upkeep: Some(false),
        removable: None,
        budget: None,
    };
    call::put(connection, desk, &beekeeper)?;
    Ok(())
}
