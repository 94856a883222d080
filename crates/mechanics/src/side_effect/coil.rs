//! Coil springs by wire, diameter and turns.

use super::{OutOfRange, positive, within};
use crate::stance::{MainSpring, SpringStage};
use crate::units::{Force, InShopUnits, Length, SpringRate, metres, newtons, newtons_per_metre};

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
        within("wire diameter", self.wire, d < mean, "less than the mean diameter")?;
        let n = within("active coils", self.active_coils, self.active_coils > 0.0, "more than zero")?;
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
        let free = within("free length", self.free_length, self.free_length > bind, "more than its coils stacked")?;
        Ok(metres(free) - bind)
    }
}

/// Rate of a coil, or of a part of one, whose coils all touch: as stiff as a bar beside any spring (N/m).
const BOUND_RATE: f64 = 1e7;

impl Coil {
    /// Force at a length: `k·(free length − length)`, nought where it stands free.
    ///
    /// Equal free lengths do not make equal ride heights: the stiffer coil pushes harder at the same length.
    ///
    /// # Valid      no coil touching
    /// # Errors     [`OutOfRange`] names the input
    /// # Source     Hooke
    pub fn force_at(&self, length: Length) -> Result<Force, OutOfRange> {
        let bound = self.bind_length()?;
        within("length", length, length >= bound, "no shorter than the coils stacked")?;
        Ok(newtons(self.rate()?.si() * (self.free_length - length).si().max(0.0)))
    }

    /// What the main spring gains in force when this coil takes another's place at the length the other stood at under
    /// `kerb_force`: what [`crate::stance::Change::Spring`] takes, for a vehicle that was given this coil's rate.
    ///
    /// # Errors     [`OutOfRange`] names the input
    pub fn force_gained_over(&self, other: &Coil, kerb_force: Force) -> Result<Force, OutOfRange> {
        let force = positive("load at curb weight", kerb_force)?;
        let stood_at = other.free_length - metres(force / other.rate()?.si());
        Ok(self.force_at(stood_at)? - kerb_force)
    }

    /// As a main spring that carries `kerb_force`, going solid where its coils touch.
    ///
    /// # Valid      `motion_ratio` as of [`MainSpring`]
    /// # Errors     [`OutOfRange`] names the input, or a kerb force that has bound it already
    pub fn main_spring(&self, kerb_force: Force, motion_ratio: f64) -> Result<MainSpring, OutOfRange> {
        let rate = self.rate()?;
        let left = self.travel_to_bind()? - metres(positive("load at curb weight", kerb_force)? / rate.si());
        within("load at curb weight", kerb_force, left > metres(0.0), "less than binds the coil")?;
        let bound = SpringStage { at_travel: left, added_rate: newtons_per_metre(BOUND_RATE) };
        Ok(MainSpring { rate, motion_ratio, captive: false, stages: vec![bound] })
    }
}

/// A coil wound in two parts: the softer binds first, and the stiffer goes on alone.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct DualRateCoil {
    /// The part that binds first.
    pub soft: Coil,
    /// The part that goes on.
    pub stiff: Coil,
}

impl DualRateCoil {
    /// As a main spring that carries `kerb_force`: `k₁k₂/(k₁+k₂)` until the softer part binds at `F = k₁·s₁`, `k₂` from there,
    /// solid where the stiffer binds too.
    ///
    /// # Errors     [`OutOfRange`] names the input, a softer part that would not bind first, or a kerb force past all of it
    /// # Source     springs in series
    pub fn main_spring(&self, kerb_force: Force, motion_ratio: f64) -> Result<MainSpring, OutOfRange> {
        let (soft, stiff) = (self.soft.rate()?, self.stiff.rate()?);
        let force = positive("load at curb weight", kerb_force)?;
        let soft_binds = soft.si() * self.soft.travel_to_bind()?.si();
        let stiff_binds = stiff.si() * self.stiff.travel_to_bind()?.si();
        within("force that binds the softer part", newtons(soft_binds), soft_binds < stiff_binds, "less than binds the stiffer")?;
        within("load at curb weight", kerb_force, force < stiff_binds, "less than binds the coil")?;
        let together = series_rate(soft, stiff)?;
        let after = stiff - together;
        // Where the softer part is bound at kerb already, the way back to where it opens goes at the stiffer rate.
        let to_soft = (soft_binds - force) / if force < soft_binds { together.si() } else { stiff.si() };
        let to_solid = if force < soft_binds {
            to_soft + (stiff_binds - soft_binds) / stiff.si()
        } else {
            (stiff_binds - force) / stiff.si()
        };
        let stages = vec![
            SpringStage { at_travel: metres(to_soft), added_rate: after },
            SpringStage { at_travel: metres(to_solid), added_rate: newtons_per_metre(BOUND_RATE) },
        ];
        Ok(MainSpring { rate: together, motion_ratio, captive: false, stages })
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
