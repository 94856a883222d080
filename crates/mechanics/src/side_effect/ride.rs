//! Bounce frequency and roll.

use super::{OutOfRange, positive, within};
pub use crate::stance::bounce_frequency;
use crate::units::{Angle, Force, Length, RollStiffness, radians};

/// Body roll under a sideways push: `φ = a·W·h / (K − W·h)`, `a` in units of g, `h` of the centre of gravity above the
/// roll axis, `K` the whole vehicle's roll stiffness.
///
/// # Sign       a push to the right rolls the body to the right, which is returned as positive
/// # Valid      small angles; `K > W·h`, otherwise the body goes over by itself
/// # Errors     [`OutOfRange`] names the input
/// # Source     moments about the roll axis; any vehicle dynamics text
/// # Example
/// ```
/// use wise_badger_mechanics::side_effect::ride::roll_angle;
/// use wise_badger_mechanics::units::{metres, newton_metres_per_radian, newtons};
/// let roll = roll_angle(0.3, newtons(25_000.0), metres(0.6), newton_metres_per_radian(115_000.0)).expect("stands");
/// assert!((roll.value - 4_500.0 / 100_000.0).abs() < 1e-12);
/// ```
pub fn roll_angle(push_g: f64, sprung_weight: Force, arm: Length, stiffness: RollStiffness) -> Result<Angle, OutOfRange> {
    let push = within("sideways push", push_g, true, "a finite number")?;
    let heeling = positive("sprung weight", sprung_weight)? * within("arm", arm, true, "a finite number")?;
    let stiffness = within("roll stiffness", stiffness, stiffness.value > heeling, "more than weight times arm")?;
    Ok(radians(push * heeling / (stiffness - heeling)))
}

/// True speed over shown speed after a change of tyre: `R_new / R_old`.
///
/// # Errors     [`OutOfRange`] names the input
/// # Source     rolling without slip
pub fn speed_ratio(old_radius: Length, new_radius: Length) -> Result<f64, OutOfRange> {
    Ok(positive("new radius", new_radius)? / positive("old radius", old_radius)?)
}
