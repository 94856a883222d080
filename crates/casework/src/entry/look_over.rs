//! The look-over, as it was written down.

use schemars::JsonSchema;
use serde::{Deserialize, Serialize};

use super::Typed;
use crate::look_over::{Addition, Area, Defect, Finding, Grade, LookOver, Measure, Measured};

/// What was found, area by area.
#[derive(Debug, Clone, PartialEq, Default, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct LookOverEntry {
    /// The areas somebody looked at.
    pub findings: Vec<FindingEntry>,
    /// The repairs that are on the job.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub repairs: Vec<Addition>,
}

/// What was found in one area.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct FindingEntry {
    /// Where.
    pub area: Area,
    /// The grade that was given.
    pub grade: Grade,
    /// What was named.
    pub defects: Vec<Defect>,
    /// Figures, as typed.
    pub measured: Vec<MeasuredEntry>,
    /// What else there is to say.
    pub words: String,
}

/// A figure taken during the look-over.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct MeasuredEntry {
    /// What was measured.
    pub what: Measure,
    /// How much.
    pub value: Typed,
}

impl LookOverEntry {
    /// As the mechanics take it.
    pub fn look_over(&self) -> LookOver {
        LookOver { findings: self.findings.iter().map(FindingEntry::finding).collect(), repairs: self.repairs.clone() }
    }

    /// What was written of an area.
    pub fn of(&self, area: Area) -> Option<&FindingEntry> {
        self.findings.iter().find(|finding| finding.area == area)
    }
}

impl FindingEntry {
    fn finding(&self) -> Finding {
        let measured = self.measured.iter().map(|entry| Measured { what: entry.what, value: entry.value.length() });
        Finding { area: self.area, grade: self.grade, defects: self.defects.clone(), measured: measured.collect() }
    }
}
