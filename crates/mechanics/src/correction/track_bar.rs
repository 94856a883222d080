//! A track bar's bracket brought down, or a bar that is longer.

use std::sync::Arc;

use super::{Caution, CorrectionKind, Ends, Given, KindFigure, KindRow, MakesGood, Needs, PartDoubt, TakesUp, Work};
use crate::bound::Bound;
use crate::units::Length;

/// What brings an axle back under the middle of its vehicle once that was raised.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct TrackBar {
    /// How far the bracket on the frame brings the bar's end down; nought where it stays.
    pub dropped: Length,
    /// How much longer the bar is made; nought of the bar there is.
    pub longer: Length,
}

/// What is known of it before its figures.
pub static ROW: KindRow = KindRow {
    word: "track_bar",
    figures: &[
        KindFigure::within("dropped", Bound::inches(0.0, 8.0), PartDoubt::Exact),
        KindFigure::within("longer", Bound::inches(-3.0, 3.0), PartDoubt::Exact),
    ],
    ends: Ends::Either,
    goes_on_one_side: false,
    needs: Needs::Nothing,
    set_by_case: None,
    read: |given| Some(Arc::new(TrackBar { dropped: given.length("dropped")?, longer: given.length("longer")? })),
};

impl CorrectionKind for TrackBar {
    fn row(&self) -> &'static KindRow {
        &ROW
    }

    fn given(&self) -> Given {
        Given::default().with_length("dropped", self.dropped).with_length("longer", self.longer)
    }

    fn makes_good(&self) -> Vec<(MakesGood, Length)> {
        vec![(MakesGood::TrackBarDrop, self.dropped), (MakesGood::TrackBarLength, self.longer)]
    }

    fn takes_up(&self) -> TakesUp {
        TakesUp::TrackBar
    }

    fn works(&self) -> Vec<Work> {
        vec![Work::BearsOnTheFrame]
    }

    fn cautions(&self) -> Vec<Caution> {
        vec![Caution::SteeringParallel, Caution::AxleHeld, Caution::PivotsAtRideHeight, Caution::AimAndAlignment]
    }
}
