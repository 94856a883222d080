//! Whether a correction fits what an axle rests on.

use wise_badger_mechanics::correction::{KindRow, Needs};

use super::{End, SpringKind, VehicleClass, VehicleFacts};

/// Why a correction does not go onto the springs that are there.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum NoFit {
    /// It is work on leaves, and the end rests on something else.
    NoLeaves(End, SpringKind),
    /// It goes between a spring and the axle it is clamped to, and nothing there is clamped.
    NothingClamped(End, SpringKind),
    /// It goes between spring and axle, and the axle sits over its spring: the vehicle would come down by it.
    Lowers(End),
    /// A block is there already, and one is never put on another.
    OnABlock(End),
    /// It goes in place of a block, and none is there.
    NoBlockThere(End),
    /// Nobody has said what the end rests on, and on this class it is seldom leaves.
    NotSaid(End),
}

impl VehicleFacts {
    /// What a new block at the rear needs: a bare seat, or the block that is there taken out.
    pub fn needs_of_a_block(&self) -> Needs {
        if self.rear_block.is_some() { Needs::BlockThere } else { Needs::BareSeat }
    }

    /// Why what has such needs does not go onto an end; `None` where it does.
    pub fn no_fit(&self, end: End, needs: Needs) -> Option<NoFit> {
        let on = self.springs.get(end);
        let on_leaves = matches!(on, None | Some(SpringKind::Leaf));
        let under = end == End::Rear && self.rear_spring_over == Some(false);
        let block = end == End::Rear && self.rear_block.is_some();
        match (needs, on) {
            (Needs::Nothing, _) => None,
            (Needs::BlockThere, _) if !block => Some(NoFit::NoBlockThere(end)),
            (Needs::BareSeat | Needs::BlockThere, _) if on_leaves && under => Some(NoFit::Lowers(end)),
            (Needs::BareSeat, _) if on_leaves && block => Some(NoFit::OnABlock(end)),
            (_, None) if self.class.is_seldom_on_leaves(end) => Some(NoFit::NotSaid(end)),
            (_, None | Some(SpringKind::Leaf)) => None,
            (Needs::Leaves, Some(on)) => Some(NoFit::NoLeaves(end, *on)),
            (Needs::BareSeat | Needs::BlockThere, Some(on)) => Some(NoFit::NothingClamped(end, *on)),
        }
    }

    /// Why a kind goes onto neither end, said of the rear; `None` where it goes onto one.
    pub fn fits_nowhere(&self, row: &KindRow) -> Option<NoFit> {
        let in_front = row.goes_on_the_front && !self.class.is_trailer() && self.no_fit(End::Front, row.needs).is_none();
        self.no_fit(End::Rear, row.needs).filter(|_| !in_front)
    }
}

impl VehicleClass {
    /// Whether an end of this class rests on something else than leaves as often as not (common practice).
    fn is_seldom_on_leaves(self, end: End) -> bool {
        match end {
            End::Front => self != VehicleClass::BoxTruck,
            End::Rear => self == VehicleClass::Wagon,
        }
    }
}
