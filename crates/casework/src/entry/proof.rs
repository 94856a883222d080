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
