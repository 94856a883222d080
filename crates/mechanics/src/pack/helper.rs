//! A helper spring over the pack: fixed at the axle, its two ends under the main leaf, drawn tight by bolts.

use super::half::Half;
use super::{Pack, PackError};
use crate::units::{Force, InShopUnits, Length, SpringRate};

/// A helper over the pack. Its ends push the main leaf up and never pull it down.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct OverHelper {
    /// From the centre bolt to where each end holds the main leaf.
    pub reach: Length,
    /// Rate of one end.
    pub end_rate: SpringRate,
    /// What each end pushes with as it is set: both ends alike. Nought only touches.
    pub tension: Force,
    /// The load on the whole spring when it is set.
    pub set_under: Force,
}

const TURNS: u32 = 60;

impl OverHelper {
    /// Puts its end under a half and finds how high its free end must stand for the tension it was set to.
    pub(super) fn set_on(&self, half: &mut Half, share: f64) -> Result<(), PackError> {
        let (from_clamp, tension) = (self.reach.si() - half.clamp, self.tension.si());
        let (load, rate) = (self.set_under.si() * share, self.end_rate.si());
        let mut bearing = half.unloaded();
        if !half.load(load, &mut bearing) {
            return Err(PackError::NotSolved);
        }
        // Where the main leaf stands there without it: the helper's end lies higher by its own stroke, and by what it lifts.
        let plain = half.height(0, from_clamp, load, &bearing);
        let lifts_at_most = tension * half.lift_of_main(from_clamp);
        half.add_helper(from_clamp, rate);
        let (mut low, mut high) = (plain + tension / rate, plain + tension / rate + lifts_at_most);
        for _ in 0..TURNS {
            let middle = 0.5 * (low + high);
            half.set_helper_height(middle);
            let mut bearing = half.unloaded();
            if !half.load(load, &mut bearing) {
                return Err(PackError::NotSolved);
            }
            if half.helper_force(&bearing) > tension { high = middle } else { low = middle }
        }
        half.set_helper_height(high);
        Ok(())
    }
}

impl Pack {
    /// Refuses a helper that has no meaning on this pack.
    pub(super) fn check_helper(&self) -> Result<(), PackError> {
        let (Some(helper), Some(main)) = (&self.helper, self.leaves.first()) else { return Ok(()) };
        let inside = main.front.min(main.rear).si();
        let clamp = self.clamp.front.max(self.clamp.rear).si();
        let reach = helper.reach.si();
        if !(reach.is_finite() && reach > clamp && reach <= inside + 1e-9) {
            return Err(PackError::NoFigure("the helper's reach (it ends past the clamp, and before the eyes)".to_owned()));
        }
        let sound = |value: f64| value.is_finite() && value >= 0.0;
        if !(sound(helper.end_rate.si()) && helper.end_rate.si() > 0.0) {
            return Err(PackError::NoFigure("the helper's rate".to_owned()));
        }
        if !(sound(helper.tension.si()) && sound(helper.set_under.si())) {
            return Err(PackError::NoFigure("the helper's tension".to_owned()));
        }
        Ok(())
    }
}
