//! A figure with its standard deviation.

use std::ops::Mul;

/// A figure and one standard deviation of it, in the same quantity.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Uncertain<Q> {
    /// The figure.
    pub value: Q,
    /// One standard deviation; never negative.
    pub sd: Q,
}

impl<Q> Uncertain<Q> {
    /// A figure with its standard deviation.
    pub fn new(value: Q, sd: Q) -> Self {
        Uncertain { value, sd }
    }

    /// The half-width of the band shown to people: two standard deviations.
    pub fn band(self) -> Q
    where
        f64: Mul<Q, Output = Q>,
    {
        2.0 * self.sd
    }
}
