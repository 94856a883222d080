//! Putting leaves into a pack and taking them out, and what about their order looks wrong.

use super::{Leaf, Pack};
use crate::units::{Curvature, InShopUnits, Length, inches, metres, per_metre};

/// A kind of leaf from the shelf.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum PartKind {
    /// An add-a-leaf some three fifths of the main leaf.
    ShortAddedLeaf,
    /// An add-a-leaf that ends a little before the main leaf's eyes.
    LongAddedLeaf,
    /// A flat leaf under the pack that bears only once it has come down.
    OverloadLeaf,
    /// A leaf like the one above it, to be given its own sizes.
    OwnMaking,
}

/// Something about a pack that is allowed, and looks wrong.
#[derive(Debug, Clone, PartialEq)]
#[non_exhaustive]
pub enum PackDoubt {
    /// A leaf that reaches past the one above it, and is no overload leaf.
    LongerThanAbove {
        /// The leaf's place.
        leaf: usize,
    },
    /// A leaf of another width.
    OtherWidth {
        /// The leaf's place.
        leaf: usize,
    },
    /// A leaf whose centre hole parts it another way than the main leaf's: perhaps it lies end for end.
    EndForEnd {
        /// The leaf's place.
        leaf: usize,
    },
    /// A leaf thinner or thicker than leaves are.
    Thickness {
        /// The leaf's place.
        leaf: usize,
    },
    /// A leaf that is flatter than the one above it: they gape, and only its own clamp keeps it there.
    Gapes {
        /// The leaf's place.
        leaf: usize,
    },
}

impl PartKind {
    /// The leaf as it would be cut for a pack; `None` for a pack without a main leaf.
    pub fn leaf_for(self, pack: &Pack) -> Option<Leaf> {
        let main = pack.leaves.first()?;
        let last = pack.leaves.last()?;
        let share = |share: f64, clamp: Length, half: Length| clamp + (half - clamp) * share;
        let reach = |part: f64| (share(part, pack.clamp.front, main.front), share(part, pack.clamp.rear, main.rear));
        let arched = |more: f64| Curvature::max(main.curvature, per_metre(0.2)) * more;
        let ((front, rear), thickness, curvature, spacer, name) = match self {
            PartKind::ShortAddedLeaf => (reach(0.6), inches(0.30), arched(1.5), 0.0, "Add-a-leaf"),
            PartKind::LongAddedLeaf => (reach(0.92), inches(0.25), arched(1.2), 0.0, "Long add-a-leaf"),
            PartKind::OverloadLeaf => (reach(0.45), inches(0.50), per_metre(0.0), 0.25, "Overload leaf"),
            PartKind::OwnMaking => ((last.front, last.rear), last.thickness, last.curvature, 0.0, "New leaf"),
        };
        let (name, width, spacer_above) = (name.to_owned(), main.width, inches(spacer));
        Some(Leaf { name, width, thickness, front, rear, curvature, spacer_above })
    }
}

impl Leaf {
    fn length(&self) -> f64 {
        (self.front + self.rear).si()
    }

    /// An overload leaf of the same sizes that lets more go before it bears: flat instead of arched, and of one that is flat already
    /// further away.
    #[must_use]
    pub fn flatter(&self) -> Self {
        let further = if self.curvature.value > 0.0 { 0.0 } else { FURTHER_AWAY_IN };
        Leaf { curvature: self.curvature.min(per_metre(0.0)), spacer_above: self.spacer_above + inches(further), ..self.clone() }
    }

    /// The same leaf turned end for end.
    #[must_use]
    pub fn turned(&self) -> Self {
        Leaf { front: self.rear, rear: self.front, ..self.clone() }
    }
}

impl Pack {
    /// Where a leaf belongs by its length: under every leaf that is as long or longer, over the overload leaf. Never above the main leaf.
    pub fn place_by_length(&self, leaf: &Leaf) -> usize {
        let ordinary = self.ordinary_leaves();
        let shorter = self.leaves.iter().take(ordinary).skip(1).position(|there| there.length() + 1e-9 < leaf.length());
        shorter.map_or(ordinary, |place| place + 1)
    }

    /// What looks wrong about the leaves and their order.
    pub fn doubts(&self) -> Vec<PackDoubt> {
        let mut doubts = Vec::new();
        let Some(main) = self.leaves.first() else { return doubts };
        let ordinary = |place: usize| place < self.ordinary_leaves();
        let (tape, hole) = (metres(0.0016), metres(0.006));
        for (place, (above, leaf)) in self.leaves.iter().zip(self.leaves.iter().skip(1)).enumerate() {
            let place = place + 1;
            if ordinary(place) && (leaf.front > above.front + tape || leaf.rear > above.rear + tape) {
                doubts.push(PackDoubt::LongerThanAbove { leaf: place });
            }
            if (leaf.width - main.width).abs() > tape {
                doubts.push(PackDoubt::OtherWidth { leaf: place });
            }
            let longer_ahead = |leaf: &Leaf| (leaf.front - leaf.rear, leaf.rear - leaf.front);
            let ((main_ahead, main_behind), (ahead, behind)) = (longer_ahead(main), longer_ahead(leaf));
            if (main_ahead > hole && behind > hole) || (main_behind > hole && ahead > hole) {
                doubts.push(PackDoubt::EndForEnd { leaf: place });
            }
            let flatter = leaf.curvature.value < above.curvature.value * 0.98 - 1e-6;
            if ordinary(place) && flatter && leaf.spacer_above.si() <= 0.0 {
                doubts.push(PackDoubt::Gapes { leaf: place });
            }
        }
        for (place, leaf) in self.leaves.iter().enumerate() {
            if !(THINNEST_IN..=THICKEST_IN).contains(&leaf.thickness.customary()) {
                doubts.push(PackDoubt::Thickness { leaf: place });
            }
        }
        doubts
    }
}

/// A spacer that a flat overload leaf gets to bear later.
const FURTHER_AWAY_IN: f64 = 0.25;
/// Leaves of road vehicles are between these (common practice).
const THINNEST_IN: f64 = 0.18;
const THICKEST_IN: f64 = 1.25;
