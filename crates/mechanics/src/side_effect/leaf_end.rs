//! The ends of a leaf spring: chord of its arc, shackle angle, longer shackles.

use super::{OutOfRange, positive, within};
use crate::units::{Angle, InShopUnits, Length, metres, radians};

/// Chord of an arc of a length and a sagitta: exact from `c = S(1 − cos α)/(2α)`, `chord = S·sin α/α`.
///
/// `S − 8c²/(3S)` is the usual short form. `α` is half the arc's angle, found by Newton from `α ≈ 4c/S`.
///
/// # Valid      sagitta from nought to `S/π` (a half circle)
/// # Errors     [`OutOfRange`] names the input
/// # Source     circle geometry; any engineering handbook
/// # Example
/// ```
/// use wise_badger_mechanics::side_effect::leaf_end::chord;
/// use wise_badger_mechanics::units::{InShopUnits, inches};
/// let exact = chord(inches(56.0), inches(6.0)).expect("in range").customary();
/// assert!((exact - (56.0 - 8.0 * 36.0 / (3.0 * 56.0))).abs() < 0.05);
/// ```
pub fn chord(arc: Length, sagitta: Length) -> Result<Length, OutOfRange> {
    let s = positive("arc length", arc)?;
    let most = s / std::f64::consts::PI;
    let c = within("arch", sagitta, (0.0..=most).contains(&sagitta.si()), "from zero to a half circle's")?;
    if c <= 0.0 {
        return Ok(arc);
    }
    let mut alpha = 4.0 * c / s;
    for _ in 0..50 {
        // f(α) = S(1 − cos α) − 2αc
        let (f, slope) = (s * (1.0 - alpha.cos()) - 2.0 * alpha * c, s * alpha.sin() - 2.0 * c);
        let step = f / slope;
        alpha -= step;
        if step.abs() < 1e-15 {
            break;
        }
    }
    Ok(metres(s * alpha.sin() / alpha))
}

/// Slope of a shackle from the upright, from where its pivot hangs over the spring's fixed eye.
///
/// The eye lies on the circle of the chord about the fixed eye and on the shackle's about its pivot.
///
/// # Sign       the lower end rearward of the pivot is positive; a shackle that hangs forward is negative
/// # Valid      `pivot_ahead` is the distance from fixed eye to pivot along the frame, `pivot_above` above it
/// # Errors     [`OutOfRange`] when chord and shackle cannot meet
/// # Source     intersection of two circles
/// # Example
/// ```
/// use wise_badger_mechanics::side_effect::leaf_end::shackle_angle;
/// use wise_badger_mechanics::units::inches;
/// // A pivot 56 in along and 4 in above: a 56 in chord and a 4 in shackle hang straight down.
/// let angle = shackle_angle(inches(56.0), inches(4.0), inches(56.0), inches(4.0)).expect("they meet");
/// assert!(angle.value.abs() < 1e-9);
/// ```
pub fn shackle_angle(chord: Length, shackle: Length, pivot_ahead: Length, pivot_above: Length) -> Result<Angle, OutOfRange> {
    let (r, l) = (positive("chord", chord)?, positive("shackle length", shackle)?);
    let (px, py) = (positive("distance to the pivot", pivot_ahead)?, pivot_above.si());
    let apart = within("height of the pivot", pivot_above, true, "a finite number")?.hypot(px);
    let meets = apart <= r + l && apart >= (r - l).abs();
    let apart = within("distance between eye and pivot", metres(apart), meets, "such that chord and shackle meet")?;
    // From the fixed eye towards the pivot by `along`, then square to it by `across`, downward.
    let along = (r * r - l * l + apart * apart) / (2.0 * apart);
    let across = (r * r - along * along).max(0.0).sqrt();
    let (ux, uy) = (px / apart, py / apart);
    let (ex, ey) = (along * ux + across * uy, along * uy - across * ux);
    Ok(radians((ex - px).atan2(py - ey)))
}

/// What a longer shackle does: lowering the rear eye by `d` raises the frame over the axle by `d·a/L` and tilts the seat by `d/L`.
///
/// `a` is the front half's length, `L` the whole. Answers the rise and the tilt.
///
/// # Sign       tilt positive: the seat's rear end comes down against the front
/// # Errors     [`OutOfRange`] names the input
/// # Source     lever arms along the spring
pub fn longer_shackle(eye_lowered: Length, front_half: Length, whole: Length) -> Result<(Length, Angle), OutOfRange> {
    let l = positive("spring length", whole)?;
    let a = within("front half", front_half, front_half > metres(0.0) && front_half < whole, "less than the whole")?;
    let d = within("eye lowered", eye_lowered, eye_lowered.si().abs() < l, "less than the spring")?;
    Ok((metres(d * a / l), radians((d / l).atan())))
}
