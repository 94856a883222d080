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
    /// What was not as when it was first measured.
    #[serde(default, skip_serializing_if = "OtherwiseEntry::is_empty")]
    pub otherwise: OtherwiseEntry,
    /// What was checked before it left, each once.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub checks: Vec<(CheckWord, CheckedWord)>,
    /// Why whoever did the work releases it alone.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub released_alone: String,
}

/// What was not as when the vehicle was first measured, each time that it was read after fitting.
#[derive(Debug, Clone, PartialEq, Eq, Default, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct OtherwiseEntry {
    /// After fitting.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub fitted: Vec<OtherwiseWord>,
    /// After the drive.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub driven: Vec<OtherwiseWord>,
    /// After settling.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub settled: Vec<OtherwiseWord>,
}

/// Something that was not as when the vehicle was first measured.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, JsonSchema)]
#[serde(rename_all = "snake_case")]
pub enum OtherwiseWord {
    /// Another floor, or another spot on it.
    Floor,
    /// Tires or their pressures.
    Tires,
    /// What is aboard, or where it sits.
    Load,
    /// It was not rolled and bounced.
    NotRolled,
    /// Something that was taken off is not back on.
    LeftOff,
}

impl OtherwiseWord {
    /// Every one, in the order in which they are asked.
    pub const ALL: [OtherwiseWord; 5] =
        [OtherwiseWord::Floor, OtherwiseWord::Tires, OtherwiseWord::Load, OtherwiseWord::NotRolled, OtherwiseWord::LeftOff];
}

impl OtherwiseEntry {
    /// Whether all was as before, each time.
    pub fn is_empty(&self) -> bool {
        self.fitted.is_empty() && self.driven.is_empty() && self.settled.is_empty()
    }
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
    /// Whether a miss is put down to something that says nothing of the parts.
    pub fn clears_the_parts(&self) -> bool {
        match self.reason {
            Some(OutsideReason::Reading | OutsideReason::OtherWork | OutsideReason::FirstReadings) => true,
            Some(OutsideReason::Part | OutsideReason::NotFound) | None => false,
        }
    }

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
