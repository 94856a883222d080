//! A block between spring and axle.

use std::sync::Arc;

use super::{Caution, CorrectionKind, Ends, FittedOn, Given, KindFigure, KindRow, Needs, PartDoubt, TakesUp, Work};
use crate::bound::Bound;
use crate::stance::Change;
use crate::units::Length;

/// A block between spring and axle, on each side.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct LiftBlock {
    /// Its height.
    pub thickness: Length,
}

/// What is known of it before its figures.
pub static ROW: KindRow = KindRow {
    word: "lift_block",
    figures: &[KindFigure::within("thickness", Bound::inches(0.25, 6.0), PartDoubt::Exact)],
    // A block under a steered axle may let it turn about its own seat.
    ends: Ends::Rear,
    goes_on_one_side: true,
    needs: Needs::BareSeat,
    set_by_case: None,
    read: |given| Some(Arc::new(LiftBlock { thickness: given.length("thickness")? })),
};

impl CorrectionKind for LiftBlock {
    fn row(&self) -> &'static KindRow {
        &ROW
    }

    fn given(&self) -> Given {
        Given::default().with_length("thickness", self.thickness)
    }

    fn change(&self, on: &FittedOn<'_>) -> Option<Change> {
        Some(Change::Spacer { axle: on.axle.name.clone(), side: on.side, thickness: self.thickness })
    }

    fn hangs_lower(&self) -> Length {
        self.thickness
    }

    fn off_the_seat(&self) -> Length {
        self.thickness
    }

    fn takes_up(&self) -> TakesUp {
        TakesUp::Seat
    }

    fn works(&self) -> Vec<Work> {
        vec![Work::Block]
    }

    fn cautions(&self) -> Vec<Caution> {
        use Caution::*;
        vec![
            AddsNoCapacity,
            OneBlockOnly,
            NewUBolts,
            PinSeated,
            HoseSlack,
            ShockLength,
            DrivelineAngle,
            BarLinks,
            WheelNuts,
            AimAndAlignment,
        ]
    }
}
