//! What was said at the counter or on the phone, before anything was measured.

use serde::{Deserialize, Serialize};

use super::{MoneyEntry, Typed};
use crate::survey::{RearWheels, SpringKind, Thing, VehicleClass};
use crate::words::by_word;

/// A call, as it was taken down.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct CallEntry {
    /// What it goes by: the vehicle, who called.
    pub label: String,
    /// The vehicle's class.
    #[serde(with = "by_word")]
    pub class: VehicleClass,
    /// Its rear wheels.
    #[serde(with = "by_word")]
    pub rear_wheels: RearWheels,
    /// What its rear rests on, where that was said.
    pub rear_spring: Option<SpringKind>,
    /// What the rear axle may carry, where that was said.
    pub rear_rating: Option<Typed>,
    /// Things that such vehicles commonly carry, at their usual weights and places.
    pub things: Vec<ThingWord>,
    /// What else is aboard.
    pub aboard: Option<AboardEntry>,
    /// How low it sits.
    pub low: Option<LowWord>,
    /// When it sits low.
    pub when: Option<WhenLow>,
    /// Whether it leans.
    pub leans: bool,
    /// The customer's words.
    pub words: String,
    /// Whether he will look after something that wants upkeep.
    pub upkeep: Option<bool>,
    /// Whether it must come off again.
    pub removable: Option<bool>,
    /// What it may cost.
    pub budget: Option<MoneyEntry>,
}

/// A thing by its word.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[serde(transparent)]
pub struct ThingWord(#[serde(with = "by_word")] pub Thing);

/// A weight that was told.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct AboardEntry {
    /// How much.
    pub weight: Typed,
    /// Where it sits.
    pub place: PlaceWord,
}

/// Where a weight sits, as it is said.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "snake_case")]
pub enum PlaceWord {
    /// Along the load floor.
    OnTheFloor,
    /// Over the rear axle.
    OverTheAxle,
    /// At the tail.
    AtTheTail,
    /// On the hitch.
    OnTheHitch,
}

/// How low it sits, as it is said.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "snake_case")]
pub enum LowWord {
    /// About an inch.
    AnInch,
    /// Two inches, or two fingers.
    TwoInches,
    /// Three inches.
    ThreeInches,
    /// A hand, four inches or more.
    AHand,
    /// On its stops.
    OnItsStops,
}

/// When it sits low.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "snake_case")]
pub enum WhenLow {
    /// With the load on, and not empty.
    Loaded,
    /// Empty too.
    EmptyToo,
}
