//! The order of the unknowns: the body's three, two wheels an axle, the rockers.

use crate::side::Side;

pub(super) const HEAVE: usize = 0;
pub(super) const PITCH: usize = 1;
pub(super) const ROLL: usize = 2;
/// Unknowns of the body.
const BODY: usize = 3;

/// The unknown that is the height of one wheel.
pub(super) fn wheel(axle: usize, side: Side) -> usize {
    BODY + 2 * axle + usize::from(side == Side::Right)
}

/// The unknown that is the angle of one rocker.
pub(super) fn rocker(axles: usize, equaliser: usize) -> usize {
    BODY + 2 * axles + equaliser
}
