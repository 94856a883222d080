//! Inputs of a relation, held against the range it holds for.

use crate::units::InShopUnits;

/// An input outside the range a relation holds for.
#[derive(Debug, Clone, PartialEq, thiserror::Error)]
#[error("{what} is {value}, and must be {range}")]
pub struct OutOfRange {
    /// Which input.
    pub what: &'static str,
    /// Its value in SI units.
    pub value: f64,
    /// What it must be.
    pub range: &'static str,
}

pub(crate) fn positive(what: &'static str, quantity: impl InShopUnits) -> Result<f64, OutOfRange> {
    let value = quantity.si();
    within(what, value, value > 0.0, "a finite number above nought")
}

pub(crate) fn within(what: &'static str, value: f64, holds: bool, range: &'static str) -> Result<f64, OutOfRange> {
    if value.is_finite() && holds { Ok(value) } else { Err(OutOfRange { what, value, range }) }
}
