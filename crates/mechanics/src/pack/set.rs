//! What a pack loses for good where its leaves are worked past yield.

use super::{Leaf, Pack};
use crate::units::{Curvature, Force, InShopUnits, Pressure, per_metre};

impl Leaf {
    /// The curvature that a leaf loses for good when it is worked past the stress that it holds: `2(σ − σ_held)/(E t)`.
    ///
    /// # Valid      a little past yield, and counted no further than a quarter past it: what is asked more bends it out of any shape that
    /// could be worked out. Nought where it holds
    /// # Source     working rule of our own, on the low side: all of the strain past yield at the leaf's surface is taken to stay, over
    /// its whole length. An elastic, perfectly plastic section would keep some of it as spring
    pub fn set(&self, stress: Pressure, held: Pressure, young_modulus: Pressure) -> Curvature {
        let past = (stress - held).value.clamp(0.0, COUNTED_PAST_YIELD * held.value);
        per_metre(2.0 * past / (young_modulus.value * self.thickness.si()))
    }
}

impl Pack {
    /// The same pack after a load worked each of its leaves past what it holds, leaf by leaf from the main leaf down.
    ///
    /// # Errors     as the pack's own states
    pub fn after_its_set(&self, load: Force, held: &[Pressure]) -> Result<Pack, super::PackError> {
        let state = self.prepare(load)?.state(load)?;
        let mut pack = self.clone();
        for ((leaf, stress), held) in pack.leaves.iter_mut().zip(&state.leaves).zip(held) {
            leaf.curvature -= leaf.set(stress.largest(), *held, self.young_modulus);
        }
        Ok(pack)
    }
}

/// How far past what it holds a leaf's set is counted, as a share of that.
const COUNTED_PAST_YIELD: f64 = 0.25;
