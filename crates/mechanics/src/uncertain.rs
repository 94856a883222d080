//! A figure with its standard deviation.

use std::ops::Mul;

use crate::units::{Length, nearest_step};

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

impl Uncertain<Length> {
    /// The same as it is printed in steps of a length: to the nearest one, its band out to the next, and never less than one.
    ///
    /// # Example
    /// ```
    /// use wise_badger_mechanics::uncertain::Uncertain;
    /// use wise_badger_mechanics::units::{InShopUnits, inches};
    /// let printed = Uncertain::new(inches(39.22), inches(0.1225)).in_steps_of(inches(1.0 / 16.0));
    /// assert!((printed.value.customary() - 39.25).abs() < 1e-9 && (printed.band().customary() - 0.25).abs() < 1e-9);
    /// ```
    #[must_use]
    pub fn in_steps_of(self, step: Length) -> Self {
        let band = (((2.0 * self.sd) / step).value - 1e-6).ceil().max(1.0);
        Uncertain { value: step * nearest_step((self.value / step).value), sd: step * (band / 2.0) }
    }
}
