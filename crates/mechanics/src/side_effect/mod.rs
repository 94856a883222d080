//! What else changes when a height, a spring or a tyre changes.
//!
//! Each function is one textbook relation; none knows of jobs or readings.
//!
//! - [`ride`]: bounce frequency, roll under a sideways push
//! - [`attitude`]: frame pitch, headlamp aim, what a point or the front axle does when the rear moves
//! - [`driveline`]: shaft and joint angles, the shim for them
//! - [`leaf_end`]: chord of an arc, shackle angle, longer shackles
//! - [`fastening`]: U-bolt legs, clamp load, proof load, stand loads
//! - [`coil`]: rate and bind of a coil, one that is wound in two parts, and either as a main spring
//! - [`travel`]: bump and droop travel left against stops and shock lengths

pub mod attitude;
pub mod coil;
pub mod driveline;
pub mod fastening;
pub mod leaf_end;
pub mod ride;
pub mod travel;

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

fn positive(what: &'static str, quantity: impl InShopUnits) -> Result<f64, OutOfRange> {
    let value = quantity.si();
    within(what, value, value > 0.0, "a finite number above nought")
}

fn within(what: &'static str, value: f64, holds: bool, range: &'static str) -> Result<f64, OutOfRange> {
    if value.is_finite() && holds { Ok(value) } else { Err(OutOfRange { what, value, range }) }
}
