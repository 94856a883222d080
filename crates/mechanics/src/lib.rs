#![doc = "wip"]
pub mod document;
pub mod side;
pub mod stance;
pub mod tape;
pub mod units;
