//! A leaf added to each pack, of which the box says what it lifts and what it carries, and no rate.

use std::sync::Arc;

use super::added_leaf::LIFT;
use super::{AddedLeaf, Caution, CorrectionKind, Ends, FittedOn, Given, KindFigure, KindRow, Needs, PartDoubt, TakesUp, Work};
use crate::bound::Bound;
use crate::stance::Change;
use crate::units::{Force, Length};

/// A leaf added to each pack, as it is bought. Its rate is taken to be even over its travel (our own working rule):
/// `capacity / working travel`. What the old leaves have set stays: they stay.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct LeafByLift {
    /// What it lifts a sound pack empty.
    pub lift: Length,
    /// What the leaves of all packs carry together at the end of their travel.
    pub capacity: Force,
    /// From where they begin to bear to there.
    pub working_travel: Length,
}

/// Between what the capacity of leaves must lie, and their travel.
pub(super) const CAPACITY: Bound = Bound::pounds(100.0, 20_000.0);
pub(super) const TRAVEL: Bound = Bound::inches(1.0, 14.0);

/// What is known of it before its figures.
pub static ROW: KindRow = KindRow {
    word: "leaf_by_lift",
    figures: &[
        KindFigure::within("lift", LIFT, PartDoubt::ADVERTISED_LIFT),
        KindFigure::within("capacity", CAPACITY, PartDoubt::HELPER_CAPACITY),
        KindFigure::within("working_travel", TRAVEL, PartDoubt::Exact),
    ],
    ends: Ends::Either,
    goes_on_one_side: true,
    needs: Needs::Leaves,
    set_by_case: None,
    read: |given| {
        let (lift, capacity) = (given.length("lift")?, given.weight("capacity")?);
        Some(Arc::new(LeafByLift { lift, capacity, working_travel: given.length("working_travel")? }))
    },
};

impl LeafByLift {
    fn as_a_leaf(&self) -> AddedLeaf {
        AddedLeaf { pair_rate: (self.capacity / self.working_travel).into(), lift: self.lift }
    }
}

impl CorrectionKind for LeafByLift {
    fn row(&self) -> &'static KindRow {
        &ROW
    }

    fn given(&self) -> Given {
        Given::default()
            .with_length("lift", self.lift)
            .with_weight("capacity", self.capacity)
            .with_length("working_travel", self.working_travel)
    }

    fn account(&self) -> Given {
        self.given().with_rate("pair_rate", self.as_a_leaf().pair_rate)
    }

    fn change(&self, on: &FittedOn<'_>) -> Option<Change> {
        self.as_a_leaf().change(on)
    }

    fn hangs_lower(&self) -> Length {
        self.as_a_leaf().hangs_lower()
    }

    fn takes_up(&self) -> TakesUp {
        self.as_a_leaf().takes_up()
    }

    fn works(&self) -> Vec<Work> {
        self.as_a_leaf().works()
    }

    fn cautions(&self) -> Vec<Caution> {
        self.as_a_leaf().cautions()
    }
}
