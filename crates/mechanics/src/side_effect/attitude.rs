//! How the frame sits: pitch, headlamps, points behind the axle, weight off the front.

use super::{OutOfRange, positive, within};
use crate::units::{Angle, Force, InShopUnits, Length, metres, newtons, radians};

/// Change of frame pitch: `(Δrear − Δfront) / wheelbase`, as an angle.
///
/// # Sign       rear up is positive
/// # Errors     [`OutOfRange`] names the input
/// # Source     geometry
pub fn pitch_change(front_rise: Length, rear_rise: Length, wheelbase: Length) -> Result<Angle, OutOfRange> {
    let change = within("rise", rear_rise - front_rise, true, "a finite number")?;
    Ok(radians((change / positive("wheelbase", wheelbase)?).atan()))
}

/// How far tilt alone moves a headlamp's spot on a screen: `D·tan(pitch)`.
///
/// # Sign       down is positive: a rear that comes up dips the beam
/// # Valid      the lamp stays fixed to the frame; 25 ft (7.62 m) is the usual aiming screen (SAE J599)
/// # Errors     [`OutOfRange`] names the input
/// # Source     geometry; screen distance SAE J599
/// # Example
/// ```
/// use wise_badger_mechanics::side_effect::attitude::{beam_drop, pitch_change};
/// use wise_badger_mechanics::units::{InShopUnits, inches};
/// // 2 in at the rear of a 145 in wheelbase, seen at 25 ft: 300 × 2 / 145 in.
/// let pitch = pitch_change(inches(0.0), inches(2.0), inches(145.0)).expect("in range");
/// assert!((beam_drop(pitch, inches(300.0)).expect("in range").customary() - 4.138).abs() < 1e-3);
/// ```
pub fn beam_drop(pitch: Angle, distance: Length) -> Result<Length, OutOfRange> {
    let pitch = within("pitch", pitch, pitch.value.abs() < 1.0, "less than a radian")?;
    Ok(metres(positive("distance", distance)? * pitch.tan()))
}

/// How far a headlamp's spot moves on a screen in all: down by what the tilt does to it, up by what the lamp itself comes up.
///
/// `lamp_ahead` is how far the lamp is ahead of the front axle.
///
/// # Sign       down is positive
/// # Errors     [`OutOfRange`] names the input
/// # Source     geometry
/// # Example
/// ```
/// use wise_badger_mechanics::side_effect::attitude::spot_drop;
/// use wise_badger_mechanics::units::{InShopUnits, inches};
/// // The front up 1 in on a 133 in wheelbase, the lamps over its axle: 300 × 1 / 133 in of tilt and 1 in of the lamp itself.
/// let spot = spot_drop(inches(1.0), inches(0.0), inches(133.0), inches(0.0), inches(300.0)).expect("in range");
/// assert!((spot.customary() + 3.2556).abs() < 1e-3);
/// ```
pub fn spot_drop(
    front_rise: Length,
    rear_rise: Length,
    wheelbase: Length,
    lamp_ahead: Length,
    distance: Length,
) -> Result<Length, OutOfRange> {
    let tilt = beam_drop(pitch_change(front_rise, rear_rise, wheelbase)?, distance)?;
    Ok(tilt - point_rise(front_rise, rear_rise, -(wheelbase + lamp_ahead), wheelbase)?)
}

/// Rise of a point on the frame at `behind` the rear axle when the axles rise: `rear + (rear − front)·behind/wheelbase`.
///
/// # Sign       rearward and upward positive; ahead of the rear axle is a negative distance
/// # Errors     [`OutOfRange`] names the input
/// # Source     geometry: with the front still, `(1 + o/L)` of the rear's rise
pub fn point_rise(front_rise: Length, rear_rise: Length, behind: Length, wheelbase: Length) -> Result<Length, OutOfRange> {
    let share = within("distance behind the axle", behind, true, "a finite number")? / positive("wheelbase", wheelbase)?;
    Ok(rear_rise + (rear_rise - front_rise) * share)
}

/// Weight that a tongue or an overhanging load takes off the front axle: `T·o/L`.
///
/// # Sign       a load behind the rear axle gives a positive answer: so much less on the front
/// # Errors     [`OutOfRange`] names the input
/// # Source     lever arms
/// # Example
/// ```
/// use wise_badger_mechanics::side_effect::attitude::front_lightening;
/// use wise_badger_mechanics::units::{InShopUnits, inches, pounds};
/// let off = front_lightening(pounds(600.0), inches(58.0), inches(145.0)).expect("in range");
/// assert!((off.customary() - 240.0).abs() < 1e-9);
/// ```
pub fn front_lightening(weight: Force, behind: Length, wheelbase: Length) -> Result<Force, OutOfRange> {
    let arm = within("distance behind the axle", behind, true, "a finite number")? / positive("wheelbase", wheelbase)?;
    Ok(newtons(within("weight", weight, true, "a finite number")? * arm))
}

/// How far a track bar carries its axle sideways when the axle moves by `rise` against the frame: the bar's slope, plus its arc.
///
/// The bar of length `b` drops by `d` from frame to axle; its span is `√(b² − d²)`, before and after.
///
/// # Sign       away from the frame-side end is positive
/// # Valid      the drop stays under the bar's length
/// # Errors     [`OutOfRange`] names the input
/// # Source     Pythagoras
pub fn track_bar_shift(length: Length, drop: Length, rise: Length) -> Result<Length, OutOfRange> {
    let before = track_bar_span(length, drop)?;
    let after = drop + rise;
    within("drop of the bar afterward", after, after.abs() < length, "less than the bar's length")?;
    Ok(track_bar_span(length, after)? - before)
}

/// How far apart sideways a track bar holds its ends: `√(b² − d²)`, of a bar of length `b` that drops by `d`.
///
/// # Valid      the drop stays under the bar's length
/// # Errors     [`OutOfRange`] names the input
/// # Source     Pythagoras
pub fn track_bar_span(length: Length, drop: Length) -> Result<Length, OutOfRange> {
    let b = positive("bar length", length)?;
    let d = within("drop of the bar", drop, drop.si().abs() < b, "less than the bar's length")?;
    Ok(metres((b * b - d * d).sqrt()))
}

/// Slope of a half-shaft or a control arm's joint when the wheel has moved: `asin(drop / length)`.
///
/// # Errors     [`OutOfRange`] names the input
/// # Source     geometry
pub fn joint_angle(length: Length, drop: Length) -> Result<Angle, OutOfRange> {
    let l = positive("length", length)?;
    Ok(radians((within("drop", drop, drop.si().abs() < l, "less than the length")? / l).asin()))
}
