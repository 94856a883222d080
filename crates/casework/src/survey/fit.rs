//! Whether a correction fits what an axle rests on.

use wise_badger_mechanics::correction::{Axles, Correction, KindRow, Needs};
use wise_badger_mechanics::units::{Length, inches, metres};

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
    /// It goes on a front axle, and a trailer has none.
    NoFront,
    /// It goes between a coil and its seat, and the end rests on something else.
    NoCoils(End, SpringKind),
    /// It bears or lifts, and the end rests on air springs: their height is their valve's.
    OnAir(End),
    /// It takes a spring from under its axle, and the end's is over it, or nobody said where it is.
    NotUnder(End),
    /// It takes the place of shackles, and a trailer's springs hang on rockers and slippers.
    NoShackles,
    /// A part is to come out, and none is noted there.
    NoneComesOut(End),
    /// One is there, of whatever height, and none is to come out.
    OneComesOut(End),
    /// Another height is noted of the one that is there.
    OtherComesOut(End),
    /// Nobody has said what the end rests on, and on this class it is seldom leaves.
    NotSaid(End),
    /// Nobody has said that the end rests on coils.
    CoilsNotSaid(End),
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
            (Needs::Nothing, _) | (Needs::Coils, Some(SpringKind::Coil)) => None,
            (Needs::Coils, Some(on)) => Some(NoFit::NoCoils(end, *on)),
            (Needs::Coils, None) => Some(NoFit::CoilsNotSaid(end)),
            (Needs::Shackle, _) if on_leaves && self.class.is_trailer() => Some(NoFit::NoShackles),
            (Needs::BlockThere, _) if !block => Some(NoFit::NoBlockThere(end)),
            (Needs::SpringUnder, _) if on_leaves && !under => Some(NoFit::NotUnder(end)),
            (Needs::BareSeat | Needs::BlockThere, _) if on_leaves && under => Some(NoFit::Lowers(end)),
            (Needs::BareSeat, _) if on_leaves && block => Some(NoFit::OnABlock(end)),
            (_, None) if self.class.is_seldom_on_leaves(end) => Some(NoFit::NotSaid(end)),
            (_, None | Some(SpringKind::Leaf)) => None,
            (Needs::Leaves | Needs::Shackle, Some(on)) => Some(NoFit::NoLeaves(end, *on)),
            (Needs::BareSeat | Needs::BlockThere | Needs::SpringUnder, Some(on)) => Some(NoFit::NothingClamped(end, *on)),
        }
    }

    /// Why a correction does not go onto the end that it is for; `None` where it does.
    pub fn no_fit_of(&self, part: &Correction) -> Option<NoFit> {
        let end = if part.site().axles == Axles::Front { End::Front } else { End::Rear };
        let needs = part.row().needs;
        self.no_fit(end, needs).or_else(|| self.held_by_air(end, part)).or_else(|| self.other_comes_out(end, part))
    }

    /// A leveling valve lets out what a part lifts, and holds up what no part does: nothing that bears is told of there.
    fn held_by_air(&self, end: End, part: &Correction) -> Option<NoFit> {
        (*self.springs.get(end) == Some(SpringKind::Air) && part.takes_up().holds_the_vehicle_up()).then_some(NoFit::OnAir(end))
    }

    /// What comes out must be what is there: else a part would stand on another, or one would be taken off that is not there.
    fn other_comes_out(&self, end: End, part: &Correction) -> Option<NoFit> {
        let out = part.takes_out()?;
        let there = match part.row().needs {
            Needs::Coils => *self.spacers.get(end),
            _ => self.rear_block,
        };
        // Within what a tape tells apart.
        let same = |there: Length| (there - out).abs() <= inches(1.0 / 16.0) + metres(1e-6);
        let nothing = same(Length::default());
        match there.map(|there| there.height) {
            None if !nothing => Some(NoFit::NoneComesOut(end)),
            Some(None) if nothing => Some(NoFit::OneComesOut(end)),
            Some(Some(height)) if !same(height) => Some(NoFit::OtherComesOut(end)),
            _ => None,
        }
    }

    /// Why what goes on a front axle alone does not go onto this one.
    fn no_front_for(&self, row: &KindRow) -> Option<NoFit> {
        if self.class.is_trailer() { Some(NoFit::NoFront) } else { self.no_fit(End::Front, row.needs) }
    }

    /// Why a kind goes onto neither end, said of the rear; `None` where it goes onto one.
    pub fn fits_nowhere(&self, row: &KindRow) -> Option<NoFit> {
        let in_front = row.ends.have_a_front() && !self.class.is_trailer() && self.no_fit(End::Front, row.needs).is_none();
        let behind = if row.ends.have_a_rear() { self.no_fit(End::Rear, row.needs) } else { self.no_front_for(row) };
        behind.filter(|_| !in_front)
    }
}

impl VehicleClass {
    /// Whether an end of this class rests on something else than leaves as often as not (common practice).
    pub(crate) fn is_seldom_on_leaves(self, end: End) -> bool {
        match end {
            End::Front => self != VehicleClass::BoxTruck,
            End::Rear => self == VehicleClass::Wagon,
        }
    }
}
