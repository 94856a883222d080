//! Helpers of which the box says what they carry, and no rate.

use std::sync::Arc;

use super::helper_spring::GAP;
use super::{Caution, CorrectionKind, Ends, FittedOn, Given, HelperSpring, KindFigure, KindRow, Needs, PartDoubt, TakesUp, Work};
use crate::bound::Bound;
use crate::stance::Change;
use crate::units::{Force, Length, SpringRate};

/// Helpers as they are bought: what all of them together carry, and over what travel.
///
/// Their rate is taken to be even over that travel (our own working rule): `capacity / working travel`.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct HelperByCapacity {
    /// What all of them together carry at the end of their travel.
    pub capacity: Force,
    /// From where they begin to bear to there.
    pub working_travel: Length,
    /// Clearance empty; negative is set tight by so much.
    pub engagement_gap: Length,
}

/// What is asked of whatever helps by its capacity.
pub(super) const FIGURES: [KindFigure; 3] = [
    KindFigure::within("capacity", Bound::pounds(100.0, 20_000.0), PartDoubt::HELPER_CAPACITY),
    KindFigure::within("working_travel", Bound::inches(1.0, 14.0), PartDoubt::Exact),
    KindFigure::within("engagement_gap", GAP, PartDoubt::ENGAGEMENT_AS_SOLD).as_set(),
];

/// What is known of it before its figures.
pub static ROW: KindRow = KindRow {
    word: "helper_by_capacity",
    figures: &FIGURES,
    ends: Ends::Either,
    goes_on_one_side: true,
    needs: Needs::Leaves,
    set_by_case: Some("engagement_gap"),
    read: |given| Some(Arc::new(HelperByCapacity::read(given)?)),
};

impl HelperByCapacity {
    pub(super) fn read(given: &Given) -> Option<Self> {
        let (capacity, working_travel) = (given.weight("capacity")?, given.length("working_travel")?);
        Some(HelperByCapacity { capacity, working_travel, engagement_gap: given.length("engagement_gap")? })
    }

    /// The rate that its capacity comes to, all helpers together.
    pub fn pair_rate(&self) -> SpringRate {
        (self.capacity / self.working_travel).into()
    }

    fn as_a_spring(&self) -> HelperSpring {
        HelperSpring { pair_rate: self.pair_rate(), engagement_gap: self.engagement_gap }
    }
}

impl CorrectionKind for HelperByCapacity {
    fn row(&self) -> &'static KindRow {
        &ROW
    }

    fn given(&self) -> Given {
        Given::default()
            .with_weight("capacity", self.capacity)
            .with_length("working_travel", self.working_travel)
            .with_length("engagement_gap", self.engagement_gap)
    }

    fn account(&self) -> Given {
        self.given().with_rate("pair_rate", self.pair_rate())
    }

    fn change(&self, on: &FittedOn<'_>) -> Option<Change> {
        self.as_a_spring().change(on)
    }

    fn set_to_a_clearance(&self) -> Option<&'static str> {
        self.as_a_spring().set_to_a_clearance()
    }

    fn most_pressed(&self) -> Option<Length> {
        Some(self.working_travel)
    }

    fn takes_up(&self) -> TakesUp {
        self.as_a_spring().takes_up()
    }

    fn works(&self) -> Vec<Work> {
        self.as_a_spring().works()
    }

    fn cautions(&self) -> Vec<Caution> {
        self.as_a_spring().cautions()
    }
}
