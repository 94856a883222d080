//! Coil springs by wire, diameter and turns.

use super::{OutOfRange, positive, within};
use crate::units::{InShopUnits, Length, SpringRate, metres, newtons_per_metre};

/// Shear modulus of spring steel, Pa (common practice: 79 to 80 GPa).
pub const SHEAR_MODULUS_PA: f64 = 79.3e9;

/// A round-wire helical compression spring.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Coil {
    /// Wire diameter.
    pub wire: Length,
    /// Mean coil diameter.
    pub mean_diameter: Length,
    /// Coils that work.
    pub active_coils: f64,
    /// All coils, ends and all.
    pub total_coils: f64,
    /// Length with nothing on it.
    pub free_length: Length,
}

impl Coil {
    /// Rate: force gained per unit of shortening, `k = G·d⁴ / (8·D³·n)`.
    ///
    /// # Sign       shortening and compressive force are positive; the rate is always above nought
    /// # Valid      `0 < d < D`, `n > 0`; trusted for `4 ≤ D/d ≤ 12`; small deflection, no coil touching
    /// # Errors     [`OutOfRange`] names the input
    /// # Source     Shigley, Mechanical Engineering Design, helical springs (from memory)
    /// # Example
    /// ```
    /// use wise_badger_mechanics::side_effect::coil::Coil;
    /// use wise_badger_mechanics::units::{InShopUnits, metres};
    /// let coil = Coil { wire: metres(0.016), mean_diameter: metres(0.12), active_coils: 6.0, total_coils: 7.5, free_length: metres(0.4) };
    /// // 79.3e9 × 0.016⁴ / (8 × 0.12³ × 6) = 62.66 kN/m.
    /// assert!((coil.rate().expect("in range").si() - 62_657.0).abs() < 10.0);
    /// ```
    pub fn rate(&self) -> Result<SpringRate, OutOfRange> {
        let (d, mean) = (positive("wire diameter", self.wire)?, positive("mean diameter", self.mean_diameter)?);
        within("wire diameter", d, d < mean, "less than the mean diameter")?;
        let n = within("active coils", self.active_coils, self.active_coils > 0.0, "more than nought")?;
        Ok(newtons_per_metre(SHEAR_MODULUS_PA * d.powi(4) / (8.0 * mean.powi(3) * n)))
    }

    /// Length at which every coil touches the next: `n_total·d`.
    ///
    /// # Errors     [`OutOfRange`] names the input
    /// # Source     geometry, ends ground or not making at most a wire's difference
    pub fn bind_length(&self) -> Result<Length, OutOfRange> {
        let all = self.total_coils;
        let turns = within("total coils", all, all >= self.active_coils, "no fewer than the active ones")?;
        Ok(metres(turns * positive("wire diameter", self.wire)?))
    }

    /// Travel from free to coil bind.
    ///
    /// # Errors     [`OutOfRange`] names the input, or a free length that is shorter than the coils
    /// # Source     geometry
    pub fn travel_to_bind(&self) -> Result<Length, OutOfRange> {
        let bind = self.bind_length()?;
        let free = within("free length", self.free_length.si(), self.free_length > bind, "more than its coils stacked")?;
        Ok(metres(free) - bind)
    }
}

/// Rate of a coil wound in two parts, the softer of which binds first: in series `k₁k₂/(k₁+k₂)` until then, `k₂` after.
///
/// # Errors     [`OutOfRange`] names the input
/// # Source     springs in series
pub fn series_rate(soft: SpringRate, stiff: SpringRate) -> Result<SpringRate, OutOfRange> {
    let (a, b) = (positive("softer rate", soft)?, positive("stiffer rate", stiff)?);
    Ok(newtons_per_metre(a * b / (a + b)))
}
