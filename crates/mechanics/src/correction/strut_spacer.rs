//! A spacer on top of each strut.

use std::sync::Arc;

use super::{Caution, CorrectionKind, Ends, FittedOn, Given, KindFigure, KindRow, Needs, PartDoubt, TakesUp, Work};
use crate::bound::Bound;
use crate::stance::Change;
use crate::units::Length;

/// A spacer between each strut and the body. The strut stands on an arm part of the way to the wheel, so that the wheel goes further:
/// `lift = thickness · (pivot to wheel) / (pivot to strut)`.
///
/// The whole strut comes down with it, stop and shock, so that the wheel hangs lower at full droop by as much as it is lifted, and the
/// stop's gap opens by nothing that the spring does not lift.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct StrutSpacer {
    /// As it goes onto the strut.
    pub thickness: Length,
    /// Along the lower arm, from its pivot to where the strut stands on it.
    pub pivot_to_strut: Length,
    /// To its ball joint.
    pub pivot_to_wheel: Length,
}

const ARM: Bound = Bound::inches(3.0, 40.0);

/// What is known of it before its figures.
pub static ROW: KindRow = KindRow {
    word: "strut_spacer",
    figures: &[
        KindFigure::within("thickness", Bound::inches(0.125, 4.0), PartDoubt::Exact),
        KindFigure::within("pivot_to_strut", ARM, PartDoubt::MOTION_RATIO).of_the_vehicle(),
        KindFigure::within("pivot_to_wheel", ARM, PartDoubt::Exact).of_the_vehicle(),
    ],
    ends: Ends::Either,
    goes_on_one_side: true,
    needs: Needs::Coils,
    set_by_case: None,
    read: |given| {
        let (pivot_to_strut, pivot_to_wheel) = (given.length("pivot_to_strut")?, given.length("pivot_to_wheel")?);
        Some(Arc::new(StrutSpacer { thickness: given.length("thickness")?, pivot_to_strut, pivot_to_wheel }))
    },
};

impl StrutSpacer {
    fn lifts(&self) -> Length {
        self.thickness * (self.pivot_to_wheel / self.pivot_to_strut).value
    }
}

impl CorrectionKind for StrutSpacer {
    fn row(&self) -> &'static KindRow {
        &ROW
    }

    fn given(&self) -> Given {
        Given::default()
            .with_length("thickness", self.thickness)
            .with_length("pivot_to_strut", self.pivot_to_strut)
            .with_length("pivot_to_wheel", self.pivot_to_wheel)
    }

    fn account(&self) -> Given {
        self.given().with_length("lifts", self.lifts())
    }

    fn change(&self, on: &FittedOn<'_>) -> Option<Change> {
        Some(Change::Spacer { axle: on.axle.name.clone(), side: on.side, thickness: self.lifts() })
    }

    fn hangs_lower(&self) -> Length {
        self.lifts()
    }

    fn takes_the_shock_along(&self) -> Length {
        self.lifts()
    }

    fn opens_the_stop(&self) -> Length {
        Length::default()
    }

    fn takes_up(&self) -> TakesUp {
        TakesUp::CoilSeat
    }

    fn works(&self) -> Vec<Work> {
        vec![Work::CoilSeat]
    }

    fn cautions(&self) -> Vec<Caution> {
        use Caution::*;
        vec![
            CoilStoresEnergy,
            AddsNoCapacity,
            HoseSlack,
            ShockLength,
            DrivelineAngle,
            BarLinks,
            PivotsAtRideHeight,
            WheelNuts,
            AimAndAlignment,
        ]
    }
}
