//! Whether a correction fits what an axle rests on.

use wise_badger_mechanics::correction::{KindRow, Needs};

use super::{End, SpringKind, VehicleClass, VehicleFacts};

/// Why a correction does not go onto the springs that are there.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Misfit {
    /// It is work on leaves, and the end rests on something else.
    NoLeaves(End, SpringKind),
    /// It goes between a spring and the axle it is clamped to, and nothing there is clamped.
    NothingClamped(End, SpringKind),
    /// It goes between spring and axle, and the axle sits over its spring: the vehicle would come down by it.
    Lowers(End),
    /// Nobody has said what the end rests on, and on this class it is seldom leaves.
    NotSaid(End),
}

impl VehicleFacts {
    /// Why what has such needs does not go onto an end; `None` where it does.
    pub fn misfit(&self, end: End, needs: Needs) -> Option<Misfit> {
        let on = self.springs.get(end);
        match (needs, on) {
            (Needs::Nothing, _) => None,
            (Needs::ClampedSpring, None | Some(SpringKind::Leaf)) if end == End::Rear && self.rear_spring_over == Some(false) => {
                Some(Misfit::Lowers(end))
            }
            (_, None) if self.class.is_seldom_on_leaves(end) => Some(Misfit::NotSaid(end)),
            (_, None | Some(SpringKind::Leaf)) => None,
            (Needs::Leaves, Some(on)) => Some(Misfit::NoLeaves(end, *on)),
            (Needs::ClampedSpring, Some(on)) => Some(Misfit::NothingClamped(end, *on)),
        }
    }

    /// Why a kind goes onto neither end, said of the rear; `None` where it goes onto one.
    pub fn fits_nowhere(&self, row: &KindRow) -> Option<Misfit> {
        let in_front = row.goes_on_the_front && !self.class.is_trailer() && self.misfit(End::Front, row.needs).is_none();
        self.misfit(End::Rear, row.needs).filter(|_| !in_front)
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
