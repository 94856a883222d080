//! What a leaf's steel may be asked.

use super::{Pack, PackState};
use crate::units::{Force, Pressure, pascals};

/// Allowable bending stresses of a spring steel. All of it may be edited by the shop; the figures here are from memory.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Steel {
    /// Under the load that the vehicle is rated for.
    pub rated: Pressure,
    /// Against the bump stop.
    pub at_stop: Pressure,
    /// Where it begins to take a set.
    pub yields: Pressure,
}

impl Steel {
    /// Quenched and tempered spring steel.
    ///
    /// # Source     rated load 620 to 760 MPa (the middle of it), at the stop 1,000 to 1,100 MPa (the middle of it): SAE HS-788,
    /// from memory. 51CrV4 hardened and tempered, Rp0.2 at least 1,200 MPa: EN 10089, from memory
    pub fn usual() -> Self {
        Steel { rated: pascals(690e6), at_stop: pascals(1_050e6), yields: pascals(1_200e6) }
    }

    /// What it may be asked under a load: past the load that the vehicle is rated for, what it may be asked at the stop.
    pub fn allowed(&self, load: Force, rated: Force) -> Pressure {
        // A load rounded to the pound is still the rated one.
        if load > rated * 1.001 { self.at_stop } else { self.rated }
    }

    /// Whether a leaf begins to take a set at a stress.
    pub fn sets_at(&self, stress: Pressure) -> bool {
        stress > self.yields
    }

    /// Whether the three stand in their order.
    pub fn is_sound(&self) -> bool {
        let above_nought = self.rated.value.is_finite() && self.rated.value > 0.0;
        above_nought && self.rated <= self.at_stop && self.at_stop <= self.yields && self.yields.value.is_finite()
    }
}

/// How hard a leaf is worked, against what it may be.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
pub enum Strained {
    /// Under half of the allowable.
    Little,
    /// From half of it to four fifths.
    Fairly,
    /// Up to all of it.
    Fully,
    /// Past it.
    Past,
}

impl Strained {
    /// By the share of the allowable.
    pub fn of(stress: Pressure, allowable: Pressure) -> Self {
        match (stress / allowable).value {
            share if share > 1.0 => Strained::Past,
            share if share > 0.8 => Strained::Fully,
            share if share > 0.5 => Strained::Fairly,
            _ => Strained::Little,
        }
    }
}

impl Pack {
    /// The leaf that is worked hardest in a state, with its stress; `None` for no leaves.
    pub fn hardest_worked(&self, state: &PackState) -> Option<(usize, Pressure)> {
        let leaves = state.leaves.iter().map(super::LeafStress::largest).enumerate();
        leaves.max_by(|one, other| one.1.value.total_cmp(&other.1.value))
    }
}
