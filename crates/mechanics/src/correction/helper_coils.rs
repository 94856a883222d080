//! Helper coils between axle and frame, on whatever springs are there.

use std::sync::Arc;

use super::helper_spring::GAP;
use super::{
    Caution, CorrectionKind, Ends, FittedOn, Given, HelperByCapacity, KindFigure, KindRow, Needs, PartDoubt, TakesUp, Work,
};
use crate::bound::Bound;
use crate::stance::Change;
use crate::units::Length;

/// Coils that stand beside or inside the springs and begin to bear after their clearance, as they are bought: what all of them together
/// carry, and over what travel. Their rate is even over that travel, as a coil's is.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct HelperCoils(pub HelperByCapacity);

/// What is known of it before its figures.
pub static ROW: KindRow = KindRow {
    word: "helper_coils",
    figures: &[
        KindFigure::within("capacity", Bound::pounds(100.0, 20_000.0), PartDoubt::HELPER_CAPACITY),
        KindFigure::within("working_travel", Bound::inches(1.0, 14.0), PartDoubt::Exact),
        KindFigure::within("engagement_gap", GAP, PartDoubt::ENGAGEMENT_AS_SOLD),
    ],
    ends: Ends::Either,
    goes_on_one_side: true,
    needs: Needs::Nothing,
    set_by_case: None,
    read: |given| {
        let (capacity, working_travel) = (given.weight("capacity")?, given.length("working_travel")?);
        let engagement_gap = given.length("engagement_gap")?;
        Some(Arc::new(HelperCoils(HelperByCapacity { capacity, working_travel, engagement_gap })))
    },
};

impl CorrectionKind for HelperCoils {
    fn row(&self) -> &'static KindRow {
        &ROW
    }

    fn given(&self) -> Given {
        self.0.given()
    }

    fn account(&self) -> Given {
        self.0.account()
    }

    fn change(&self, on: &FittedOn<'_>) -> Option<Change> {
        self.0.change(on)
    }

    fn set_to_a_clearance(&self) -> Option<&'static str> {
        self.0.set_to_a_clearance()
    }

    fn most_pressed(&self) -> Option<Length> {
        self.0.most_pressed()
    }

    fn takes_up(&self) -> TakesUp {
        self.0.takes_up()
    }

    fn works(&self) -> Vec<Work> {
        self.0.works()
    }

    fn cautions(&self) -> Vec<Caution> {
        vec![
            Caution::CoilSeated,
            Caution::CoilBind,
            Caution::AddsNoCapacity,
            Caution::FirmerEmpty,
            Caution::TravelUsed,
            Caution::HoseSlack,
        ]
    }
}
