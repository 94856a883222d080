//! How quick a sprung weight bounces.

use uom::si::frequency::hertz;

use crate::range::{OutOfRange, positive, within};
use crate::units::{Force, Frequency, InShopUnits, STANDARD_GRAVITY, SpringRate};

/// Bounce frequency of a sprung weight on its springs, tyre left out: `f = √(k·g/W) / 2π`.
///
/// # Valid      `sprung_weight` > 0, `rate` ≥ 0 (where nothing bears, 0 Hz); small motion about where it stands, damping left out
/// # Errors     [`OutOfRange`] names the input
/// # Source     any vibration text
/// # Example
/// ```
/// use wise_badger_mechanics::stance::bounce_frequency;
/// use wise_badger_mechanics::units::{InShopUnits, pounds, pounds_per_inch};
/// let before = bounce_frequency(pounds_per_inch(372.0), pounds(2800.0)).expect("in range");
/// assert!((before.si() - 1.140).abs() < 5e-4);
/// ```
pub fn bounce_frequency(rate: SpringRate, sprung_weight: Force) -> Result<Frequency, OutOfRange> {
    let k = within("rate", rate, rate.si() >= 0.0, "zero or more")?;
    let w = positive("sprung weight", sprung_weight)?;
    Ok(Frequency::new::<hertz>((k * STANDARD_GRAVITY / w).sqrt() / std::f64::consts::TAU))
}
