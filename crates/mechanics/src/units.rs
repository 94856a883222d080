//! The quantities of the shop: what crosses the public boundary of this crate, and the exact shop units.
//!
//! Everything public is an SI quantity from `uom`. Three kinds are named here because `uom` knows
//! them only under another name: [`SpringRate`], [`RollStiffness`] and [`Moment`]. The type system
//! then keeps a rate from being added to a force, but it does **not** tell a rate from a surface
//! tension, nor a roll stiffness from a moment: those share a dimension.
//!
//! `uom`'s own pound-force is cut to seven digits, so the shop's units are defined here, from the
//! exact definitions of NIST Special Publication 811 (2008), Appendix B.8 and B.9.

pub use uom::si::f64::{Angle, Area, Force, Frequency, Length, Pressure, Volume};

use uom::si::angle::radian;
use uom::si::area::square_meter;
use uom::si::force::newton;
use uom::si::frequency::hertz;
use uom::si::length::meter;
use uom::si::linear_number_density::per_meter;
use uom::si::pressure::pascal;
use uom::si::surface_tension::newton_per_meter;
use uom::si::torque::newton_meter;
use uom::si::volume::cubic_meter;

/// Force gained per unit of shortening, in N/m.
pub type SpringRate = uom::si::f64::SurfaceTension;

/// Moment per unit of roll angle, in N·m/rad (the radian has no dimension).
pub type RollStiffness = uom::si::f64::Torque;

/// Turn per length of an arc, in 1/m: one over its radius.
pub type Curvature = uom::si::f64::LinearNumberDensity;

/// A turning moment, in N·m.
pub type Moment = uom::si::f64::Torque;

/// One inch in metres, exact (NIST SP 811, B.8).
pub const METRES_PER_INCH: f64 = 0.0254;

/// One pound-force in newtons, exact (NIST SP 811, B.8: 0.453 592 37 kg × 9.806 65 m/s²).
///
/// ```
/// use wise_badger_mechanics::units::NEWTONS_PER_POUND;
/// assert_eq!(NEWTONS_PER_POUND, 4.448_221_615_260_5);
/// ```
pub const NEWTONS_PER_POUND: f64 = 4.448_221_615_260_5;
/// One foot-pound in newton metres: 12 in by one pound-force.
pub const NEWTON_METRES_PER_POUND_FOOT: f64 = 12.0 * METRES_PER_INCH * NEWTONS_PER_POUND;
/// Pascals in a pound-force per square inch, from the exact inch and pound-force.
pub const PASCALS_PER_PSI: f64 = NEWTONS_PER_POUND / (METRES_PER_INCH * METRES_PER_INCH);

/// Standard acceleration of free fall, in m/s², exact (NIST SP 811, B.8). Also the weight in newtons of one kilogram.
pub const STANDARD_GRAVITY: f64 = 9.806_65;

/// A length given in metres.
pub fn metres(value: f64) -> Length {
    Length::new::<meter>(value)
}

/// A length given in inches.
pub fn inches(value: f64) -> Length {
    metres(value * METRES_PER_INCH)
}

/// A force given in newtons.
pub fn newtons(value: f64) -> Force {
    Force::new::<newton>(value)
}

/// The weight of a mass given in pounds.
pub fn pounds(value: f64) -> Force {
    newtons(value * NEWTONS_PER_POUND)
}

/// The weight of a mass given in kilograms.
pub fn kilograms(value: f64) -> Force {
    newtons(value * STANDARD_GRAVITY)
}

/// A rate given in newtons per metre.
pub fn newtons_per_metre(value: f64) -> SpringRate {
    SpringRate::new::<newton_per_meter>(value)
}

/// A rate given in pounds per inch.
pub fn pounds_per_inch(value: f64) -> SpringRate {
    newtons_per_metre(value * NEWTONS_PER_POUND / METRES_PER_INCH)
}

/// A torque given in newton metres.
pub fn newton_metres(value: f64) -> Moment {
    Moment::new::<newton_meter>(value)
}

/// A roll stiffness given in N·m/rad.
pub fn newton_metres_per_radian(value: f64) -> RollStiffness {
    RollStiffness::new::<newton_meter>(value)
}

/// An area in square metres.
pub fn square_metres(value: f64) -> Area {
    Area::new::<square_meter>(value)
}

/// A curvature in turns per metre: one over the radius in metres.
pub fn per_metre(value: f64) -> Curvature {
    Curvature::new::<per_meter>(value)
}

/// A volume in cubic metres.
pub fn cubic_metres(value: f64) -> Volume {
    Volume::new::<cubic_meter>(value)
}

/// A volume in litres.
pub fn litres(value: f64) -> Volume {
    cubic_metres(value / 1000.0)
}

/// A volume in gallons of the United States: 231 cubic inches, exact (NIST SP 811, B.8).
pub fn us_gallons(value: f64) -> Volume {
    cubic_metres(value * 231.0 * METRES_PER_INCH.powi(3))
}

/// A pressure in pounds-force per square inch.
pub fn psi(value: f64) -> Pressure {
    pascals(value * PASCALS_PER_PSI)
}

/// A pressure in pascals.
pub fn pascals(value: f64) -> Pressure {
    Pressure::new::<pascal>(value)
}

/// An angle given in radians.
pub fn radians(value: f64) -> Angle {
    Angle::new::<radian>(value)
}

/// Readings of a quantity as a plain number in a shop unit, for the edge of the program.
pub trait InShopUnits {
    /// The value in the customary unit of the inch-and-pound shop (in, lb, lb/in, psi, US gal, Hz).
    fn customary(&self) -> f64;
    /// The value in SI base units (m, N, N/m, Pa, m³, Hz).
    fn si(&self) -> f64;
}

impl InShopUnits for Length {
    fn customary(&self) -> f64 {
        self.value / METRES_PER_INCH
    }
    fn si(&self) -> f64 {
        self.value
    }
}

impl InShopUnits for Force {
    fn customary(&self) -> f64 {
        self.value / NEWTONS_PER_POUND
    }
    fn si(&self) -> f64 {
        self.value
    }
}

impl InShopUnits for SpringRate {
    fn customary(&self) -> f64 {
        self.value * METRES_PER_INCH / NEWTONS_PER_POUND
    }
    fn si(&self) -> f64 {
        self.value
    }
}

impl InShopUnits for Volume {
    fn customary(&self) -> f64 {
        self.value / us_gallons(1.0).value
    }
    fn si(&self) -> f64 {
        self.value
    }
}

impl InShopUnits for Pressure {
    fn customary(&self) -> f64 {
        self.value / PASCALS_PER_PSI
    }
    fn si(&self) -> f64 {
        self.value
    }
}

impl InShopUnits for Frequency {
    fn customary(&self) -> f64 {
        self.si()
    }
    fn si(&self) -> f64 {
        self.get::<hertz>()
    }
}

/// A count of steps to the nearest whole one. What lies midway, to what working it out may be off by, goes away from nought, however
/// it was come by: the same height never prints as two.
///
/// # Example
/// ```
/// use wise_badger_mechanics::units::nearest_step;
/// assert_eq!([nearest_step(2.5), nearest_step(2.499_999_9), nearest_step(-2.5), nearest_step(2.4)], [3.0, 3.0, -3.0, 2.0]);
/// ```
pub fn nearest_step(steps: f64) -> f64 {
    const WORKING: f64 = 1e-5;
    (steps.abs() + WORKING).round().copysign(steps)
}
