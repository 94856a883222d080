//! What a figure may be at least and at most: said once, for the check, for the sentence that refuses, and for made-up inputs.

use crate::units::{METRES_PER_INCH, NEWTONS_PER_POUND, PASCALS_PER_PSI};

/// What a figure measures, and so the units it is read and written in.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Dimension {
    /// A length; m.
    Length,
    /// A weight or another force; N.
    Weight,
    /// A spring rate; N/m.
    Rate,
    /// A gauge pressure; Pa.
    Pressure,
    /// A count that need not be whole: the turns of a coil.
    Count,
}

/// The least and the most that a figure may be, in SI units, both of them allowed.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Bound {
    /// What it measures.
    pub dimension: Dimension,
    /// The least.
    pub least: f64,
    /// The most.
    pub most: f64,
}

impl Bound {
    const fn new(dimension: Dimension, unit: f64, least: f64, most: f64) -> Self {
        Bound { dimension, least: least * unit, most: most * unit }
    }

    /// Of a length, told in inches.
    pub const fn inches(least: f64, most: f64) -> Self {
        Bound::new(Dimension::Length, METRES_PER_INCH, least, most)
    }

    /// Of a length, told in metres.
    pub const fn metres(least: f64, most: f64) -> Self {
        Bound::new(Dimension::Length, 1.0, least, most)
    }

    /// Of a weight, told in pounds.
    pub const fn pounds(least: f64, most: f64) -> Self {
        Bound::new(Dimension::Weight, NEWTONS_PER_POUND, least, most)
    }

    /// Of a rate, told in pounds per inch.
    pub const fn pounds_per_inch(least: f64, most: f64) -> Self {
        Bound::new(Dimension::Rate, NEWTONS_PER_POUND / METRES_PER_INCH, least, most)
    }

    /// Of a pressure, told in pounds-force per square inch.
    pub const fn psi(least: f64, most: f64) -> Self {
        Bound::new(Dimension::Pressure, PASCALS_PER_PSI, least, most)
    }

    /// Of a count.
    pub const fn count(least: f64, most: f64) -> Self {
        Bound::new(Dimension::Count, 1.0, least, most)
    }

    /// Whether a figure lies within; none that is no number does.
    ///
    /// # Example
    /// ```
    /// use wise_badger_mechanics::bound::Bound;
    /// use wise_badger_mechanics::units::{InShopUnits, inches};
    /// let block = Bound::inches(0.25, 6.0);
    /// assert!(block.holds(inches(6.0).si()) && !block.holds(inches(6.01).si()) && !block.holds(f64::NAN));
    /// ```
    pub fn holds(&self, si: f64) -> bool {
        (self.least..=self.most).contains(&si)
    }
}
