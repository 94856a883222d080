//! The words that types go by on the wire and in the record: one list a type, in the order offered.

use std::borrow::Cow;

use schemars::{JsonSchema, Schema, SchemaGenerator, json_schema};
use serde::de::Error as _;
use serde::{Deserialize, Deserializer, Serialize, Serializer};

use crate::survey::{LoadState, RearWheels, Thing, VehicleClass};
use wise_badger_mechanics::correction::Axles;
use wise_badger_mechanics::side::Side;
use wise_badger_mechanics::tape::Datum;

/// A type that goes by one of a few words.
pub trait Word: Copy + PartialEq + 'static {
    /// What it is, for whoever meets a word that is none of these.
    const WHAT: &'static str;
    /// Each with its word.
    const WORDS: &'static [(Self, &'static str)];

    /// Its word.
    fn word(self) -> &'static str {
        Self::WORDS.iter().find(|(value, _)| *value == self).map_or("", |(_, word)| word)
    }

    /// What goes by a word.
    fn from_word(text: &str) -> Option<Self> {
        Self::WORDS.iter().find(|(_, word)| *word == text).map(|(value, _)| *value)
    }
}

impl Word for VehicleClass {
    const WHAT: &'static str = "vehicle class";
    const WORDS: &'static [(Self, &'static str)] = &[
        (VehicleClass::HalfTonPickup, "half_ton_pickup"),
        (VehicleClass::MidSizePickup, "mid_size_pickup"),
        (VehicleClass::ThreeQuarterTonPickup, "three_quarter_ton_pickup"),
        (VehicleClass::OneTonPickup, "one_ton_pickup"),
        (VehicleClass::Flatbed, "flatbed"),
        (VehicleClass::ServiceBody, "service_body"),
        (VehicleClass::Wagon, "wagon"),
        (VehicleClass::Van, "van"),
        (VehicleClass::BoxTruck, "box_truck"),
        (VehicleClass::Motorhome, "motorhome"),
        (VehicleClass::SingleTrailer, "single_trailer"),
        (VehicleClass::TandemTrailer, "tandem_trailer"),
        (VehicleClass::TripleTrailer, "triple_trailer"),
    ];
}

impl Word for Thing {
    const WHAT: &'static str = "thing commonly carried";
    const WORDS: &'static [(Self, &'static str)] = &[
        (Thing::Occupant, "occupant"),
        (Thing::OccupantWithLuggage, "occupant_luggage"),
        (Thing::WaterTank, "water_tank"),
        (Thing::FuelTank, "fuel_tank"),
        (Thing::Toolbox, "toolbox"),
        (Thing::Drawers, "drawers"),
        (Thing::SlideInCamper, "slide_in_camper"),
        (Thing::SnowPlough, "snow_plough"),
        (Thing::TongueWeight, "tongue"),
        (Thing::BicycleRack, "bicycles"),
        (Thing::Goods, "goods"),
    ];
}

impl Word for RearWheels {
    const WHAT: &'static str = "rear wheel arrangement";
    const WORDS: &'static [(Self, &'static str)] = &[(RearWheels::Single, "single"), (RearWheels::Dual, "dual")];
}

impl Word for Datum {
    const WHAT: &'static str = "datum";
    const WORDS: &'static [(Self, &'static str)] = &[
        (Datum::GroundToArch, "ground_to_arch"),
        (Datum::HubToArch, "hub_to_arch"),
        (Datum::RimToArch, "rim_to_arch"),
        (Datum::TyreTopToArch, "tyre_top_to_arch"),
        (Datum::StopGap, "stop_gap"),
    ];
}

impl Word for LoadState {
    const WHAT: &'static str = "load state";
    const WORDS: &'static [(Self, &'static str)] = &[
        (LoadState::Empty, "empty"),
        (LoadState::Loaded, "loaded"),
        (LoadState::Further(1), "further_1"),
        (LoadState::Further(2), "further_2"),
        (LoadState::Further(3), "further_3"),
        (LoadState::Further(4), "further_4"),
        (LoadState::Further(5), "further_5"),
        (LoadState::Further(6), "further_6"),
        (LoadState::Further(7), "further_7"),
        (LoadState::Further(8), "further_8"),
    ];
}

/// In the record and in documents a state goes by its word.
impl Serialize for LoadState {
    fn serialize<S: Serializer>(&self, serializer: S) -> Result<S::Ok, S::Error> {
        self.word().serialize(serializer)
    }
}

impl<'de> Deserialize<'de> for LoadState {
    fn deserialize<D: Deserializer<'de>>(deserializer: D) -> Result<Self, D::Error> {
        let text = String::deserialize(deserializer)?;
        LoadState::from_word(&text).ok_or_else(|| D::Error::custom(format!("“{text}” is no state of a vehicle")))
    }
}

impl JsonSchema for LoadState {
    fn schema_name() -> Cow<'static, str> {
        "LoadState".into()
    }

    fn json_schema(_: &mut SchemaGenerator) -> Schema {
        words_schema::<LoadState>("A state that a vehicle was read in.")
    }
}

/// In the record, a field of a type that goes by one of a few words.
pub mod by_word {
    use super::Word;
    use serde::de::Error as _;
    use serde::{Deserialize as _, Deserializer, Serialize as _, Serializer};

    /// As its word.
    ///
    /// # Errors     the serializer's
    pub fn serialize<W: Word, S: Serializer>(value: &W, serializer: S) -> Result<S::Ok, S::Error> {
        value.word().serialize(serializer)
    }

    /// By its word.
    ///
    /// # Errors     the deserializer's, and where the word is none of them
    pub fn deserialize<'de, W: Word, D: Deserializer<'de>>(deserializer: D) -> Result<W, D::Error> {
        let text = String::deserialize(deserializer)?;
        W::from_word(&text).ok_or_else(|| D::Error::custom(format!("“{text}” is no {}", W::WHAT)))
    }
}

/// The schema of a type that goes by one of a few words.
pub(crate) fn words_schema<W: Word>(description: &str) -> Schema {
    let words: Vec<&str> = W::WORDS.iter().map(|(_, word)| *word).collect();
    json_schema!({ "description": description, "type": "string", "enum": words })
}

impl Word for Side {
    const WHAT: &'static str = "side";
    const WORDS: &'static [(Self, &'static str)] = &[(Side::Left, "left"), (Side::Right, "right")];
}

impl Word for Axles {
    const WHAT: &'static str = "axle";
    const WORDS: &'static [(Self, &'static str)] = &[
        (Axles::Rear, "rear"),
        (Axles::Front, "front"),
        (Axles::OneOfRear(1), "rear_1"),
        (Axles::OneOfRear(2), "rear_2"),
        (Axles::OneOfRear(3), "rear_3"),
    ];
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::survey::MOST_FURTHER;

    #[test]
    fn every_state_that_a_job_can_have_has_its_word() {
        for key in 1..=MOST_FURTHER {
            assert_eq!(LoadState::from_word(LoadState::Further(key).word()), Some(LoadState::Further(key)));
        }
    }

    #[test]
    fn every_class_has_its_row_and_its_word() {
        let worded: Vec<VehicleClass> = VehicleClass::WORDS.iter().map(|(class, _)| *class).collect();
        assert_eq!(VehicleClass::all().collect::<Vec<_>>(), worded);
    }
}
