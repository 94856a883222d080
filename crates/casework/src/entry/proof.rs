//! What stands beside the heights after fitting: tyres changed with the job, and why it is outside what was promised.

use schemars::JsonSchema;
use serde::{Deserialize, Serialize};

/// What the proof says beside its heights.
#[derive(Debug, Clone, PartialEq, Eq, Default, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct ProofSheetEntry {
    /// Size of the front tyres now, where they were changed with the job.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub front_tyre: String,
    /// Size of the rear tyres now.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub rear_tyre: String,
    /// Why a height is outside its band, where one is.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub reason: Option<OutsideReason>,
    /// The same in words.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub reason_words: String,
    /// What was checked before it left, each once.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub checks: Vec<(CheckWord, CheckedWord)>,
    /// Why whoever did the work releases it alone.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub released_alone: String,
}

/// What is checked before it leaves.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, JsonSchema)]
#[serde(rename_all = "snake_case")]
pub enum CheckWord {
    /// Spare wheel, skid plates and all that was taken off are back on.
    BackOn,
    /// Headlights aimed.
    Headlights,
    /// Wheel alignment.
    Alignment,
    /// Hoses, lines and wires slack at full droop.
    HoseSlack,
    /// Tires clear at full lock and at full bump.
    TireClearance,
    /// Load-sensing brake valve set.
    BrakeValve,
    /// Height of the hitch.
    HitchHeight,
    /// No leaks.
    Leaks,
    /// Lights and warning lamps.
    Lamps,
}

impl CheckWord {
    /// Every one, in the order in which they are done.
    pub const ALL: [CheckWord; 9] = [
        CheckWord::BackOn,
        CheckWord::HoseSlack,
        CheckWord::TireClearance,
        CheckWord::Leaks,
        CheckWord::Lamps,
        CheckWord::BrakeValve,
        CheckWord::Headlights,
        CheckWord::Alignment,
        CheckWord::HitchHeight,
    ];
}

/// What became of a check.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, JsonSchema)]
#[serde(rename_all = "snake_case")]
pub enum CheckedWord {
    /// It was done, and is right.
    Done,
    /// It was not done: the customer is told.
    NotDone,
    /// The vehicle has nothing of the kind.
    HasNone,
}

impl CheckedWord {
    /// Every one.
    pub const ALL: [CheckedWord; 3] = [CheckedWord::Done, CheckedWord::NotDone, CheckedWord::HasNone];
}

impl ProofSheetEntry {
    /// What became of a check; `None` while nobody said.
    pub fn checked(&self, check: CheckWord) -> Option<CheckedWord> {
        self.checks.iter().find(|(of, _)| *of == check).map(|(_, checked)| *checked)
    }
}

/// Why a height came out otherwise than it was said.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, JsonSchema)]
#[serde(rename_all = "snake_case")]
pub enum OutsideReason {
    /// The reading: floor, tyres, load, or not brought to rest.
    Reading,
    /// The part was not what was said of it.
    Part,
    /// Something else was changed along with it.
    OtherWork,
    /// The first readings were off.
    FirstReadings,
    /// It was looked for and not found.
    NotFound,
}

impl OutsideReason {
    /// Every one, in the order it is offered.
    pub const ALL: [OutsideReason; 5] = [
        OutsideReason::Reading,
        OutsideReason::Part,
        OutsideReason::OtherWork,
        OutsideReason::FirstReadings,
        OutsideReason::NotFound,
    ];
}
