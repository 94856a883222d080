//! Bringing a pack's free arch to the height it is seen to stand at.

use super::{OverloadLeaf, Pack, PackError};
use crate::units::{Curvature, Force, InShopUnits, Length, inches, metres, newtons, per_metre};

const MOST_TURNS: u32 = 60;
/// Heights closer than this are the same height, m.
const SAME_M: f64 = 1e-6;

impl Pack {
    /// The same pack with every leaf but an overload leaf bent by so much more: the nip between them stays as it is.
    #[must_use]
    pub fn bent_by(&self, more: Curvature) -> Pack {
        let mut pack = self.clone();
        // Bending does not make another leaf the overload leaf.
        pack.overload = self.overload_leaf().map_or(OverloadLeaf::None, OverloadLeaf::From);
        for leaf in pack.leaves.iter_mut().take(self.ordinary_leaves()) {
            leaf.curvature += more;
        }
        pack
    }

    /// The same pack with its leaves bent alike until it stands at a height under a load, with what each leaf was bent by.
    ///
    /// # Errors     [`PackError::NotReached`] when no arch that leaves can have brings it there
    pub fn standing_at(&self, arch: Length, load: Force) -> Result<(Pack, Curvature), PackError> {
        let full = load.max(newtons(1.0));
        let above = |more: f64| -> Result<f64, PackError> {
            let pack = self.bent_by(per_metre(more));
            let points = pack.prepare(full)?.curve(&[load])?;
            let point = points.first().ok_or(PackError::OutsideTheModel)?;
            let off = |stands: Length| (stands - arch).si();
            // Outside the model, bent too far either way, small slopes still tell which.
            Ok(point.arch.map_or_else(|| f64::INFINITY.copysign(off(point.arch_linear)), off))
        };
        let half = self.leaves.first().map_or(1.0, |main| (main.front + main.rear).si() / 2.0);
        // An eye rises by about κl²/2.
        let (mut low, mut high, mut more) = (-MOST_BEND, MOST_BEND, 0.0);
        for _ in 0..MOST_TURNS {
            let off = match above(more) {
                Ok(off) => off,
                Err(PackError::OutsideTheModel) => f64::NEG_INFINITY,
                Err(PackError::TooMuchArch(_)) => f64::INFINITY,
                Err(error) => return Err(error),
            };
            if off.abs() < SAME_M {
                return Ok((self.bent_by(per_metre(more)), per_metre(more)));
            }
            if off > 0.0 {
                high = more
            } else {
                low = more
            }
            let next = more - 2.0 * off / (half * half);
            more = if next > low && next < high { next } else { 0.5 * (low + high) };
        }
        Err(PackError::NotReached(metres(arch.si())))
    }
}

impl Pack {
    /// The spacer over the overload leaf that lets the second stage begin at a load, looked for up to `full`; `None` where there is no
    /// overload leaf, or no spacer does.
    ///
    /// # Errors     as the pack's own
    pub fn spacer_for_second_stage(&self, load: Force, full: Force) -> Result<Option<Length>, PackError> {
        let Some(overload) = self.overload_leaf() else { return Ok(None) };
        let begins = |spacer: Length| -> Result<f64, PackError> {
            let mut pack = self.clone();
            if let Some(leaf) = pack.leaves.get_mut(overload) {
                leaf.spacer_above = spacer;
            }
            let prepared = pack.prepare(full)?;
            // Bearing from the start is before any load, and never bearing after all of them.
            let never = prepared.state(full)?.contacts.iter().all(|contact| contact.lower != overload);
            Ok(prepared.second_stage_load().map_or(if never { f64::INFINITY } else { 0.0 }, |load| load.si()))
        };
        let (mut low, mut high) = (metres(0.0), inches(MOST_SPACER_IN));
        if begins(low)? > load.si() || begins(high)? < load.si() {
            return Ok(None);
        }
        while high - low > metres(SAME_SPACER_M) {
            let middle = 0.5 * (low + high);
            if begins(middle)? < load.si() { low = middle } else { high = middle }
        }
        Ok(Some(high))
    }
}

/// No spacer in a pack is thicker.
const MOST_SPACER_IN: f64 = 3.0;
/// A spacer is cut to a tenth of a millimetre.
const SAME_SPACER_M: f64 = 1e-4;
/// More than any leaf is bent, 1/m.
const MOST_BEND: f64 = 6.0;
