//! New coils, by what their box says that they lift.

use std::sync::Arc;

use super::bought_springs::{BoughtSprings, figures};
use super::{Caution, CorrectionKind, FittedOn, Given, KindFigure, KindRow, Needs, PartDoubt, TakesUp, Work};
use crate::stance::Change;
use crate::units::Length;

/// New coils in the place of the old, bought by their lift.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct NewCoils(BoughtSprings);

/// What is known of it before its figures.
pub static ROW: KindRow = KindRow {
    word: "new_coils",
    figures: &figures(PartDoubt::COILS_LIFT),
    goes_on_the_front: true,
    goes_on_one_side: true,
    needs: Needs::Coils,
    set_by_case: None,
    read: |given| Some(Arc::new(NewCoils(BoughtSprings::read(given)?))),
};

/// The cautions of a coil that comes out and another that goes in.
pub(super) fn cautions() -> Vec<Caution> {
    use Caution::*;
    vec![
        CoilStoresEnergy,
        AddsNoCapacity,
        CoilSeated,
        CoilBind,
        FirmerEmpty,
        HoseSlack,
        ShockLength,
        DrivelineAngle,
        BarLinks,
        PivotsAtRideHeight,
        WheelNuts,
        AimAndAlignment,
    ]
}

impl CorrectionKind for NewCoils {
    fn row(&self) -> &'static KindRow {
        &ROW
    }

    fn given(&self) -> Given {
        self.0.given()
    }

    fn account(&self) -> Given {
        self.given().with_length("rises", self.0.rises())
    }

    fn moved(&self, figure: &KindFigure, deviations: f64) -> Option<Arc<dyn CorrectionKind>> {
        Some(Arc::new(NewCoils(self.0.moved(figure, deviations)?)))
    }

    fn change(&self, on: &FittedOn<'_>) -> Change {
        self.0.change(on)
    }

    fn hangs_lower(&self) -> Length {
        self.0.rises()
    }

    fn takes_up(&self) -> TakesUp {
        TakesUp::MainSpring
    }

    fn works(&self) -> Vec<Work> {
        vec![Work::CoilSeat]
    }

    fn cautions(&self) -> Vec<Caution> {
        cautions()
    }
}
