//! What an axle rests on, and what is between.

use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use wise_badger_mechanics::units::Length;

/// What an axle rests on.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, JsonSchema)]
#[serde(rename_all = "snake_case")]
pub enum SpringKind {
    /// Leaf springs.
    Leaf,
    /// Coil springs.
    Coil,
    /// Torsion bars, or a rubber torsion axle.
    Torsion,
    /// Air springs.
    Air,
}

impl SpringKind {
    /// Every one, in the order offered.
    pub const ALL: [SpringKind; 4] = [SpringKind::Leaf, SpringKind::Coil, SpringKind::Torsion, SpringKind::Air];
}

/// A block or a spacer that is there already.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct PartThere {
    /// Its height, where measured.
    pub height: Option<Length>,
}
