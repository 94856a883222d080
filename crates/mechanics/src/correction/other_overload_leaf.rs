//! Another overload leaf in the place of the one that is there.

use std::sync::Arc;

use super::overload_leaf::second_stage_moved;
use super::{Caution, CorrectionKind, Ends, FittedOn, Given, KindFigure, KindRow, Needs, PartDoubt, TakesUp, Work};
use crate::bound::Bound;
use crate::stance::Change;
use crate::units::{Length, SpringRate};

/// An overload leaf that is flatter or rounder, softer or stiffer than the one that comes out.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct OtherOverloadLeaf {
    /// By how much its gap is wider; less than nothing where it joins in earlier.
    pub gap_opens: Length,
    /// What it adds more once it bears, both together; less than nothing of a softer one.
    pub added_rate: SpringRate,
}

/// What is known of it before its figures.
pub static ROW: KindRow = KindRow {
    word: "other_overload_leaf",
    figures: &[
        KindFigure::within("gap_opens", Bound::inches(-3.0, 4.0), PartDoubt::ENGAGEMENT_AS_SOLD),
        KindFigure::within("added_rate", Bound::pounds_per_inch(-5_000.0, 5_000.0), PartDoubt::BOUGHT_RATE),
    ],
    ends: Ends::Rear,
    goes_on_one_side: false,
    needs: Needs::Leaves,
    set_by_case: None,
    read: |given| {
        Some(Arc::new(OtherOverloadLeaf { gap_opens: given.length("gap_opens")?, added_rate: given.rate("added_rate")? }))
    },
};

impl CorrectionKind for OtherOverloadLeaf {
    fn row(&self) -> &'static KindRow {
        &ROW
    }

    fn given(&self) -> Given {
        Given::default().with_length("gap_opens", self.gap_opens).with_rate("added_rate", self.added_rate)
    }

    fn change(&self, on: &FittedOn<'_>) -> Option<Change> {
        Some(second_stage_moved(on, -self.gap_opens, self.added_rate))
    }

    fn takes_up(&self) -> TakesUp {
        TakesUp::OverloadLeaf
    }

    fn works(&self) -> Vec<Work> {
        vec![Work::AddedLeaf]
    }

    fn cautions(&self) -> Vec<Caution> {
        vec![
            Caution::StoredEnergy,
            Caution::AddsNoCapacity,
            Caution::ClampsDraw,
            Caution::PinSeated,
            Caution::NewUBolts,
            Caution::SoundPackOnly,
            Caution::HoseSlack,
            Caution::ShockLength,
            Caution::DrivelineAngle,
            Caution::PivotsAtRideHeight,
            Caution::WheelNuts,
        ]
    }
}
