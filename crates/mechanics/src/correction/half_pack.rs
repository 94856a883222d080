//! A half-pack under each main pack, clamped with it as one unit.

use std::sync::Arc;

use super::added_leaf::LIFT;
use super::leaf_by_lift::{CAPACITY, TRAVEL};
use super::{Caution, CorrectionKind, Ends, FittedOn, Given, KindFigure, KindRow, LeafByLift, Needs, PartDoubt, TakesUp, Work};
use crate::bound::Bound;
use crate::stance::Change;
use crate::units::{Force, Length};

/// A few leaves with their block, bought as one unit, that go between main pack and axle on a longer center bolt. They bear as leaves
/// do that are added, and the U-bolts reach round their stack as well. The seat has room for one such stack: never with a block.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct HalfPack {
    /// What it lifts a sound pack empty, its stack and its arch together.
    pub lift: Length,
    /// What the half-packs of all packs carry together at the end of their travel.
    pub capacity: Force,
    /// From where they begin to bear to there.
    pub working_travel: Length,
    /// Its leaves and its block at the center bolt.
    pub stack: Length,
}

/// What is known of it before its figures.
pub static ROW: KindRow = KindRow {
    word: "half_pack",
    figures: &[
        KindFigure::within("lift", LIFT, PartDoubt::ADVERTISED_LIFT),
        KindFigure::within("capacity", CAPACITY, PartDoubt::HELPER_CAPACITY),
        KindFigure::within("working_travel", TRAVEL, PartDoubt::Exact),
        KindFigure::within("stack", Bound::inches(0.25, 5.0), PartDoubt::Exact),
    ],
    // A stack between spring and axle is a block, and a steered axle has none.
    ends: Ends::Rear,
    goes_on_one_side: true,
    needs: Needs::BareSeat,
    set_by_case: None,
    read: |given| {
        let (lift, capacity, stack) = (given.length("lift")?, given.weight("capacity")?, given.length("stack")?);
        Some(Arc::new(HalfPack { lift, capacity, working_travel: given.length("working_travel")?, stack }))
    },
};

impl HalfPack {
    fn as_leaves(&self) -> LeafByLift {
        LeafByLift { lift: self.lift, capacity: self.capacity, working_travel: self.working_travel }
    }
}

impl CorrectionKind for HalfPack {
    fn row(&self) -> &'static KindRow {
        &ROW
    }

    fn given(&self) -> Given {
        self.as_leaves().given().with_length("stack", self.stack)
    }

    fn account(&self) -> Given {
        self.as_leaves().account().with_length("stack", self.stack)
    }

    fn change(&self, on: &FittedOn<'_>) -> Option<Change> {
        self.as_leaves().change(on)
    }

    fn hangs_lower(&self) -> Length {
        self.as_leaves().hangs_lower()
    }

    fn off_the_seat(&self) -> Length {
        self.stack
    }

    /// What it lifts the spring does, stack and all.
    fn opens_the_stop(&self) -> Length {
        Length::default()
    }

    fn takes_up(&self) -> TakesUp {
        TakesUp::Seat
    }

    fn works(&self) -> Vec<Work> {
        [self.as_leaves().works(), vec![Work::Block]].concat()
    }

    fn cautions(&self) -> Vec<Caution> {
        [vec![Caution::OneBlockOnly], self.as_leaves().cautions()].concat()
    }
}
