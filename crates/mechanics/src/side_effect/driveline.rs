//! Propeller shaft and pinion.

use super::{OutOfRange, positive, within};
use crate::units::{Angle, Length, radians};

/// The angles of a one-piece shaft with a joint at either end.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct ShaftAngles {
    /// Of the shaft, down towards the rear positive.
    pub shaft: Angle,
    /// At the gearbox: shaft less gearbox.
    pub front_joint: Angle,
    /// At the axle: shaft less pinion.
    pub rear_joint: Angle,
}

/// Shaft and joint angles from the drop of the shaft over its span: `atan(drop/span)`, joints by difference.
///
/// # Sign       down towards the rear is positive for shaft, gearbox and pinion alike; equal joint angles cancel
/// # Errors     [`OutOfRange`] names the input
/// # Source     geometry
/// # Example
/// ```
/// use wise_badger_mechanics::side_effect::driveline::shaft_angles;
/// use wise_badger_mechanics::units::{inches, radians};
/// let degree = std::f64::consts::PI / 180.0;
/// let angles = shaft_angles(inches(5.0), inches(57.15), radians(3.0 * degree), radians(3.0 * degree)).expect("in range");
/// assert!((angles.shaft.value / degree - 5.0).abs() < 2e-3);
/// assert!((angles.front_joint - angles.rear_joint).value.abs() < 1e-12);
/// ```
pub fn shaft_angles(drop: Length, span: Length, gearbox: Angle, pinion: Angle) -> Result<ShaftAngles, OutOfRange> {
    let shaft = radians((within("drop", drop, true, "a finite number")? / positive("span", span)?).atan());
    let steep = |what, angle: Angle| within(what, angle, angle.value.abs() < 1.0, "less than a radian");
    steep("gearbox angle", gearbox)?;
    steep("pinion angle", pinion)?;
    Ok(ShaftAngles { shaft, front_joint: shaft - gearbox, rear_joint: shaft - pinion })
}

/// Angle of a shim by its thick and thin end over its length: `atan(Δthickness/length)`.
///
/// # Errors     [`OutOfRange`] names the input
/// # Source     geometry
pub fn shim_angle(thick: Length, thin: Length, length: Length) -> Result<Angle, OutOfRange> {
    let step = within("difference of the ends", thick - thin, thick >= thin, "zero or more")?;
    Ok(radians((step / positive("shim length", length)?).atan()))
}

/// On which side of its spring an axle sits.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum AxlePlace {
    /// The axle hangs below its spring.
    BelowSpring,
    /// The axle lies on top of its spring.
    AboveSpring,
}

/// Which end of a shim goes forward.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum ShimEnd {
    /// The thin end.
    Thin,
    /// The thick end.
    Thick,
}

/// Which end of the shim goes forward to turn a rear axle's pinion up, or down.
///
/// Under the spring the seat comes down at the thick end: thin end forward turns the pinion up with the axle below
/// its spring, and down with the axle above it.
///
/// # Source     geometry of a wedge between spring and seat
pub fn shim_end_forward(place: AxlePlace, pinion_up: bool) -> ShimEnd {
    if (place == AxlePlace::BelowSpring) == pinion_up { ShimEnd::Thin } else { ShimEnd::Thick }
}
