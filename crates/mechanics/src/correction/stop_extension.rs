//! The bump stops made longer.

use std::sync::Arc;

use super::{BUMP_STOP, Caution, CorrectionKind, Ends, FittedOn, Given, KindFigure, KindRow, Needs, PartDoubt, TakesUp, Work};
use crate::bound::Bound;
use crate::stance::Change;
use crate::units::Length;

/// A piece between frame and bump stop: the stop bears so much earlier, as it must where a raised frame would let the tire reach it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct StopExtension {
    /// How much longer it is.
    pub height: Length,
}

/// What is known of it before its figures.
pub static ROW: KindRow = KindRow {
    word: "stop_extension",
    figures: &[KindFigure::within("height", Bound::inches(0.25, 6.0), PartDoubt::Exact)],
    ends: Ends::Either,
    goes_on_one_side: false,
    needs: Needs::Nothing,
    set_by_case: None,
    read: |given| Some(Arc::new(StopExtension { height: given.length("height")? })),
};

impl CorrectionKind for StopExtension {
    fn row(&self) -> &'static KindRow {
        &ROW
    }

    fn given(&self) -> Given {
        Given::default().with_length("height", self.height)
    }

    fn change(&self, on: &FittedOn<'_>) -> Option<Change> {
        Some(Change::Gap { axle: on.axle.name.clone(), side: on.side, element: BUMP_STOP.to_owned(), by: -self.height })
    }

    fn opens_the_stop(&self) -> Length {
        -self.height
    }

    fn takes_up(&self) -> TakesUp {
        TakesUp::Stop
    }

    fn works(&self) -> Vec<Work> {
        vec![Work::BearsOnTheFrame]
    }

    fn cautions(&self) -> Vec<Caution> {
        vec![Caution::TravelUsed, Caution::AddsNoCapacity]
    }
}
