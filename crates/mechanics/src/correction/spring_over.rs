//! Springs taken from under a trailer's axles to over them.

use std::sync::Arc;

use super::{Caution, CorrectionKind, Ends, FittedOn, Given, KindFigure, KindRow, Needs, PartDoubt, TakesUp, Work};
use crate::bound::Bound;
use crate::stance::Change;
use crate::units::Length;

/// The axle clamped under its springs instead of over them: the frame comes up by the axle's tube and the height of the pack.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct SpringOver {
    /// Across the axle's tube, seats and all.
    pub tube: Length,
    /// The pack's height where it is clamped.
    pub stack: Length,
}

/// What is known of it before its figures.
pub static ROW: KindRow = KindRow {
    word: "spring_over",
    figures: &[
        KindFigure::within("tube", Bound::inches(1.0, 8.0), PartDoubt::SPACER).of_the_vehicle(),
        KindFigure::within("stack", Bound::inches(0.25, 6.0), PartDoubt::SPACER).of_the_vehicle(),
    ],
    ends: Ends::Rear,
    goes_on_one_side: false,
    needs: Needs::SpringUnder,
    set_by_case: None,
    read: |given| Some(Arc::new(SpringOver { tube: given.length("tube")?, stack: given.length("stack")? })),
};

impl SpringOver {
    /// How much higher the frame stands.
    pub fn raises(&self) -> Length {
        self.tube + self.stack
    }
}

impl CorrectionKind for SpringOver {
    fn row(&self) -> &'static KindRow {
        &ROW
    }

    fn given(&self) -> Given {
        Given::default().with_length("tube", self.tube).with_length("stack", self.stack)
    }

    fn account(&self) -> Given {
        self.given().with_length("raises", self.raises())
    }

    fn change(&self, on: &FittedOn<'_>) -> Option<Change> {
        Some(Change::Spacer { axle: on.axle.name.clone(), side: on.side, thickness: self.raises() })
    }

    fn hangs_lower(&self) -> Length {
        self.raises()
    }

    fn opens_the_stop(&self) -> Length {
        self.raises()
    }

    fn takes_up(&self) -> TakesUp {
        TakesUp::Seat
    }

    fn works(&self) -> Vec<Work> {
        vec![Work::Block]
    }

    fn cautions(&self) -> Vec<Caution> {
        vec![
            Caution::SeatsWelded,
            Caution::AddsNoCapacity,
            Caution::NewUBolts,
            Caution::PinSeated,
            Caution::HoseSlack,
            Caution::ShockLength,
            Caution::DrivelineAngle,
            Caution::WheelNuts,
            Caution::AimAndAlignment,
        ]
    }
}
