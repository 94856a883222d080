//! Sums of the shop that were worked out for a job and kept with it.

use std::collections::BTreeMap;

use schemars::JsonSchema;
use serde::{Deserialize, Serialize};

/// Most sums that a job keeps.
pub const MOST_SUMS: usize = 24;

/// The sums kept with a job, in the order they were kept.
#[derive(Debug, Clone, PartialEq, Eq, Default, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct KeptSumsEntry {
    /// Each as it was asked; it is worked out anew wherever it is shown.
    pub sums: Vec<KeptSum>,
}

/// A sum with what it was given.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct KeptSum {
    /// The sum's word.
    pub sum: String,
    /// The unit in which bare lengths were typed.
    pub length_unit: String,
    /// The unit in which bare weights were typed.
    pub weight_unit: String,
    /// What was typed, by input.
    pub inputs: BTreeMap<String, String>,
}

impl KeptSumsEntry {
    /// With one more at the end; one that was asked just so before is there once. `None` where there are as many as a job keeps.
    #[must_use]
    pub fn with(&self, kept: KeptSum) -> Option<Self> {
        let mut sums: Vec<_> = self.sums.iter().filter(|sum| **sum != kept).cloned().collect();
        sums.push(kept);
        (sums.len() <= MOST_SUMS).then_some(KeptSumsEntry { sums })
    }

    /// Without the one at a place.
    #[must_use]
    pub fn without(&self, place: usize) -> Self {
        let sums = self.sums.iter().enumerate().filter(|(at, _)| *at != place).map(|(_, sum)| sum.clone()).collect();
        KeptSumsEntry { sums }
    }
}
