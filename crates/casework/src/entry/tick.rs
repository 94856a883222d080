//! What was ticked: each tick under a key that the device made, never changed and never taken away.

use schemars::JsonSchema;
use serde::{Deserialize, Serialize};

use super::Typed;

/// The longest note on a tick.
pub const LONGEST_NOTE: usize = 500;

/// The answer to a step.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(tag = "kind", content = "value", rename_all = "snake_case", deny_unknown_fields)]
pub enum Answer {
    /// It is done.
    Done,
    /// A hold: it is so.
    Yes,
    /// A hold: it is not so, and the work waits.
    No,
    /// A torque.
    Torque {
        /// The maker's figure.
        target: Typed,
        /// What the wrench read.
        read: Typed,
        /// Which wrench.
        wrench: String,
    },
    /// One of the card's own questions: how it is raised, which side is begun with.
    Chosen(String),
    /// What was answered before is taken back.
    TakenBack,
}

/// One tick.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct TickEntry {
    /// The step, by its key.
    pub step: String,
    /// What was answered.
    pub answer: Answer,
    /// What else there is to say.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub note: String,
}

impl TickEntry {
    /// Whether it could be ticked: a step by its key, and no longer note than anybody writes.
    pub fn is_sound(&self) -> bool {
        let signs = self.step.bytes().all(|sign| sign.is_ascii_lowercase() || b"0123456789_.".contains(&sign));
        (3..=80).contains(&self.step.len()) && signs && self.note.chars().count() <= LONGEST_NOTE
    }
}
