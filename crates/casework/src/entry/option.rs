//! An option, as typed: parts fitted together, each in its place, some of them set otherwise in some load cases.

use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use wise_badger_mechanics::correction::Correction;

use super::{BenchEntry, CorrectionEntry, Typed, WhenEntry};

/// Most parts of an option.
pub const MOST_PARTS: usize = 6;

/// Parts that would be fitted together.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct OptionEntry {
    /// What the shop calls it; it goes by its parts where that is empty.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub name: String,
    /// Its parts, in the order put together.
    pub parts: Vec<PartEntry>,
}

/// A part in its place.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct PartEntry {
    /// What it is, with its figures, and where it goes.
    pub correction: CorrectionEntry,
    /// How it is set otherwise in a state or a load case.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub settings: Vec<SettingEntry>,
}

/// How a part is set in a state or a case.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct SettingEntry {
    /// When.
    pub when: WhenEntry,
    /// What the figure that may be set is then.
    pub value: Typed,
}

impl From<CorrectionEntry> for OptionEntry {
    fn from(correction: CorrectionEntry) -> Self {
        OptionEntry { name: String::new(), parts: vec![PartEntry { correction, settings: Vec::new() }] }
    }
}

impl OptionEntry {
    /// Its parts as the mechanics take them, set as they are in a state or a case; `None` when one of them is none any more.
    pub fn corrections(&self, when: Option<WhenEntry>) -> Option<Vec<Correction>> {
        self.parts.iter().map(|part| part.correction(when)).collect()
    }

    /// Whether any of its parts is set otherwise somewhere.
    pub fn is_set_by_case(&self) -> bool {
        self.parts.iter().any(|part| !part.settings.is_empty())
    }

    /// Whether a pack of its parts was planned on a bench that has been worked on since.
    pub fn is_out_of_date(&self, bench: Option<&BenchEntry>) -> bool {
        let now = bench.map(|bench| (&bench.found, &bench.planned));
        self.parts.iter().filter_map(|part| part.correction.packs()).any(|of_then| Some(of_then) != now)
    }
}

impl PartEntry {
    /// As the mechanics take it, set as it is in a state or a case; `None` when it is none any more.
    pub fn correction(&self, when: Option<WhenEntry>) -> Option<Correction> {
        let setting = self.settings.iter().find(|setting| Some(setting.when) == when);
        match (setting, self.correction.row.set_by_case) {
            (Some(setting), Some(figure)) => self.correction.with_figure(figure, setting.value.clone().into()).correction(),
            _ => self.correction.correction(),
        }
    }
}
