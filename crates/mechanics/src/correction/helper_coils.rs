//! Helper coils between axle and frame, on whatever springs are there.

use std::sync::Arc;

use super::helper_by_capacity::FIGURES;
use super::{Caution, CorrectionKind, Ends, FittedOn, Given, HelperByCapacity, KindRow, Needs, TakesUp, Work};
use crate::stance::Change;
use crate::units::Length;

/// Coils that stand beside or inside the springs and begin to bear after their clearance, as they are bought: what all of them together
/// carry, and over what travel. Their rate is even over that travel, as a coil's is.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct HelperCoils(pub HelperByCapacity);

/// What is known of it before its figures.
pub static ROW: KindRow = KindRow {
    word: "helper_coils",
    figures: &FIGURES,
    ends: Ends::Either,
    goes_on_one_side: true,
    needs: Needs::Nothing,
    set_by_case: None,
    read: |given| Some(Arc::new(HelperCoils(HelperByCapacity::read(given)?))),
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
