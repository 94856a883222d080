//! Pads on which the overload leaf comes to bear earlier.

use std::sync::Arc;

use super::overload_leaf::second_stage_moved;
use super::{Caution, CorrectionKind, Ends, FittedOn, Given, KindFigure, KindRow, Needs, PartDoubt, TakesUp, Work};
use crate::bound::Bound;
use crate::stance::Change;
use crate::units::{Length, SpringRate};

/// Contact pads raised at the front and the rear halves of the overload leaves: over the axle the gap closes by the mean of both.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct OverloadPads {
    /// By how much the front contacts are raised.
    pub front_half: Length,
    /// By how much the rear ones are.
    pub rear_half: Length,
}

const HEIGHT: Bound = Bound::inches(0.0, 4.0);

/// What is known of it before its figures.
pub static ROW: KindRow = KindRow {
    word: "overload_pads",
    figures: &[
        KindFigure::within("front_half", HEIGHT, PartDoubt::ENGAGEMENT),
        KindFigure::within("rear_half", HEIGHT, PartDoubt::ENGAGEMENT),
    ],
    ends: Ends::Rear,
    goes_on_one_side: true,
    needs: Needs::Leaves,
    set_by_case: None,
    read: |given| Some(Arc::new(OverloadPads { front_half: given.length("front_half")?, rear_half: given.length("rear_half")? })),
};

impl OverloadPads {
    /// By how much the gap closes over the axle.
    pub fn closes(&self) -> Length {
        (self.front_half + self.rear_half) / 2.0
    }
}

impl CorrectionKind for OverloadPads {
    fn row(&self) -> &'static KindRow {
        &ROW
    }

    fn given(&self) -> Given {
        Given::default().with_length("front_half", self.front_half).with_length("rear_half", self.rear_half)
    }

    fn account(&self) -> Given {
        self.given().with_length("closes", self.closes())
    }

    fn change(&self, on: &FittedOn<'_>) -> Option<Change> {
        Some(second_stage_moved(on, self.closes(), SpringRate::default()))
    }

    fn takes_up(&self) -> TakesUp {
        TakesUp::OverloadLeaf
    }

    fn works(&self) -> Vec<Work> {
        vec![Work::BearsOnTheFrame]
    }

    fn cautions(&self) -> Vec<Caution> {
        vec![
            Caution::AddsNoCapacity,
            Caution::FirmerEmpty,
            Caution::SetEqualSides,
            Caution::HoseSlack,
            Caution::ShockLength,
            Caution::DrivelineAngle,
        ]
    }
}
