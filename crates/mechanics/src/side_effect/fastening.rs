//! U-bolts, clamp loads, stands.

use super::{OutOfRange, positive, within};
use crate::units::{Force, InShopUnits, Length, Moment, newtons};

/// What a U-bolt goes round and through, top to bottom.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct UboltStack {
    /// From the inside of the bend to the top of the stack: the axle tube and its seat.
    pub tube_and_seat: Length,
    /// The leaves.
    pub pack: Length,
    /// Block or shim, if any.
    pub block: Length,
    /// The plate under the nuts.
    pub plate: Length,
    /// One washer.
    pub washer: Length,
    /// One nut.
    pub nut: Length,
    /// The thread's pitch.
    pub thread_pitch: Length,
}

impl UboltStack {
    /// Length of a leg: everything stacked, washer, nut, and three threads showing.
    ///
    /// # Errors     [`OutOfRange`] names the part that is below nought, or a pitch that is nought
    /// # Source     common practice for threads showing
    pub fn leg(&self) -> Result<Length, OutOfRange> {
        let parts = [
            ("tube and seat", self.tube_and_seat),
            ("pack", self.pack),
            ("block", self.block),
            ("plate", self.plate),
            ("washer", self.washer),
            ("nut", self.nut),
        ];
        let mut leg = crate::units::metres(3.0 * positive("thread pitch", self.thread_pitch)?);
        for (what, part) in parts {
            within(what, part, part.si() >= 0.0, "zero or more")?;
            leg += part;
        }
        Ok(leg)
    }
}

/// Nut factor of a dry thread (common practice).
pub const NUT_FACTOR_DRY: f64 = 0.20;
/// Nut factor of an oiled thread (common practice).
pub const NUT_FACTOR_OILED: f64 = 0.15;

/// Clamp load of a bolt from its torque: `F = T / (K·d)`.
///
/// # Valid      `nut_factor` 0.1 to 0.3; the true load scatters by a quarter either way
/// # Errors     [`OutOfRange`] names the input
/// # Source     Shigley, Mechanical Engineering Design, bolt torque relation (from memory)
/// # Example
/// ```
/// use wise_badger_mechanics::side_effect::fastening::{NUT_FACTOR_DRY, clamp_load};
/// use wise_badger_mechanics::units::{InShopUnits, inches, newton_metres_per_radian};
/// // 100 lb·ft (135.6 N·m) on a dry 9/16 in thread: 1,200 / (0.2 × 0.5625) = 10,667 lb.
/// let load = clamp_load(newton_metres_per_radian(135.582), inches(0.5625), NUT_FACTOR_DRY).expect("in range");
/// assert!((load.customary() - 10_667.0).abs() < 2.0);
/// ```
pub fn clamp_load(torque: Moment, diameter: Length, nut_factor: f64) -> Result<Force, OutOfRange> {
    let t = within("torque", torque, torque.value >= 0.0, "zero or more")?;
    let k = within("nut factor", nut_factor, (0.1..=0.3).contains(&nut_factor), "from 0.1 to 0.3")?;
    Ok(newtons(t / (k * positive("diameter", diameter)?)))
}

/// Strength grades of bolts, with the proof stress their standard gives.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum BoltGrade {
    /// SAE J429 grade 5, to 1 in: 85 ksi.
    SaeGrade5,
    /// SAE J429 grade 8, to 1 1/2 in: 120 ksi.
    SaeGrade8,
    /// ISO 898-1 property class 8.8, M16 and under: 580 MPa.
    Iso8_8,
    /// ISO 898-1 property class 10.9: 830 MPa.
    Iso10_9,
}

impl BoltGrade {
    /// Proof stress, Pa.
    ///
    /// # Source     SAE J429 table 1; ISO 898-1 table 3 (stress under proof load), both from memory
    pub fn proof_stress_pa(self) -> f64 {
        const KSI: f64 = 6.894_757e6;
        match self {
            BoltGrade::SaeGrade5 => 85.0 * KSI,
            BoltGrade::SaeGrade8 => 120.0 * KSI,
            BoltGrade::Iso8_8 => 580e6,
            BoltGrade::Iso10_9 => 830e6,
        }
    }

    /// How much of its pitch a thread loses on its diameter, for the stress area its standard works with.
    fn pitch_lost(self) -> f64 {
        match self {
            BoltGrade::SaeGrade5 | BoltGrade::SaeGrade8 => 0.974_3,
            BoltGrade::Iso8_8 | BoltGrade::Iso10_9 => 0.938_194,
        }
    }

    /// Proof load of a thread: proof stress on the stress area `π/4·(d − c·P)²`, `c` 0.9743 for inch threads and
    /// 0.938194 for metric ones.
    ///
    /// # Errors     [`OutOfRange`] names the input
    /// # Source     stress areas of ASME B1.1 and ISO 898-1 (from memory)
    /// # Example
    /// ```
    /// use wise_badger_mechanics::side_effect::fastening::BoltGrade;
    /// use wise_badger_mechanics::units::{InShopUnits, metres};
    /// // ISO 898-1, from memory: M12 coarse, class 8.8, 48,900 N (580 MPa on 84.3 mm²).
    /// let load = BoltGrade::Iso8_8.proof_load(metres(0.012), metres(0.001_75)).expect("in range");
    /// assert!((load.si() - 48_900.0).abs() < 100.0);
    /// ```
    pub fn proof_load(self, diameter: Length, pitch: Length) -> Result<Force, OutOfRange> {
        let (d, p) = (positive("diameter", diameter)?, positive("thread pitch", pitch)?);
        within("thread pitch", pitch, p < d, "less than the diameter")?;
        let core = d - self.pitch_lost() * p;
        Ok(newtons(self.proof_stress_pa() * std::f64::consts::FRAC_PI_4 * core * core))
    }
}

/// What a pair of stands under the frame carries, when one end of a vehicle is lifted: all that lies on them by lever arms.
///
/// `weight` of the whole vehicle acts `x` from the axle that stays down; the stands stand at `stands`. The worst stand is
/// taken to carry `uneven` of the pair (0.5 when they share alike).
///
/// # Errors     [`OutOfRange`] names the input
/// # Source     lever arms
pub fn worst_stand(weight: Force, centre: Length, stands: Length, uneven: f64) -> Result<Force, OutOfRange> {
    let share = within("the worst stand's share", uneven, (0.5..=1.0).contains(&uneven), "from a half to one")?;
    let arm = positive("place of the stands", stands)?;
    let x = within("center of gravity", centre, (0.0..=arm).contains(&centre.si()), "between the axle and the stands")?;
    Ok(newtons(positive("weight", weight)? * x / arm * share))
}
