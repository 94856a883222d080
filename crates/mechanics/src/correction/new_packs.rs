//! Whole new packs, by what their maker says that they lift.

use std::sync::Arc;

use super::bought_springs::{BoughtSprings, figures};
use super::{Caution, CorrectionKind, FittedOn, Given, KindFigure, KindRow, Needs, PartDoubt, TakesUp, Work};
use crate::stance::Change;
use crate::units::Length;

/// New packs in the place of the old, bought by their lift, with their bushings.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct NewPacks(BoughtSprings);

/// What is known of it before its figures.
pub static ROW: KindRow = KindRow {
    word: "new_packs",
    figures: &figures(PartDoubt::ADVERTISED_LIFT),
    goes_on_the_front: true,
    goes_on_one_side: true,
    needs: Needs::Leaves,
    set_by_case: None,
    read: |given| Some(Arc::new(NewPacks(BoughtSprings::read(given)?))),
};

impl CorrectionKind for NewPacks {
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
        Some(Arc::new(NewPacks(self.0.moved(figure, deviations)?)))
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

    /// The pack that comes out takes what was found on its leaves and in its eyes along.
    fn works(&self) -> Vec<Work> {
        vec![Work::WholePack]
    }

    fn cautions(&self) -> Vec<Caution> {
        use Caution::*;
        vec![
            AddsNoCapacity,
            StoredEnergy,
            NewUBolts,
            PinSeated,
            TakesASet,
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
}
