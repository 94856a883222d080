//! An anti-roll bar, where there is none or beside the one there is.

use std::sync::Arc;

use super::{Caution, CorrectionKind, Ends, FittedOn, Given, KindFigure, KindRow, Needs, PartDoubt, TakesUp, Work};
use crate::bound::Bound;
use crate::stance::Change;
use crate::units::{InShopUnits, Length, RollStiffness, SpringRate, newton_metres_per_radian};

/// An anti-roll bar across each axle that it goes on.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct AntiRollBar {
    /// Force at one end for each length that end stands above the other.
    pub end_rate: SpringRate,
    /// Between its ends.
    pub base: Length,
}

/// What is known of it before its figures.
pub static ROW: KindRow = KindRow {
    word: "anti_roll_bar",
    figures: &[KindFigure::rate("end_rate"), KindFigure::within("base", Bound::inches(20.0, 100.0), PartDoubt::Exact)],
    ends: Ends::Either,
    goes_on_one_side: false,
    needs: Needs::Nothing,
    set_by_case: None,
    read: |given| Some(Arc::new(AntiRollBar { end_rate: given.rate("end_rate")?, base: given.length("base")? })),
};

impl CorrectionKind for AntiRollBar {
    fn row(&self) -> &'static KindRow {
        &ROW
    }

    fn given(&self) -> Given {
        Given::default().with_rate("end_rate", self.end_rate).with_length("base", self.base)
    }

    /// With the body rolled by `φ` one end stands `b·φ` above the other; the ends push with `k·b·φ` as a couple of arm `b`: the bar
    /// adds `k·b²` to the roll stiffness, and nothing to anything else.
    fn change(&self, on: &FittedOn<'_>) -> Option<Change> {
        Some(Change::AntiRoll { axle: on.axle.name.clone(), stiffness: on.axle.anti_roll + self.adds_roll_stiffness() })
    }

    fn adds_roll_stiffness(&self) -> RollStiffness {
        newton_metres_per_radian(self.end_rate.si() * self.base.si().powi(2))
    }

    fn takes_up(&self) -> TakesUp {
        TakesUp::Bar
    }

    fn works(&self) -> Vec<Work> {
        vec![Work::BearsOnTheFrame]
    }

    fn cautions(&self) -> Vec<Caution> {
        vec![Caution::AddsNoCapacity, Caution::HoseSlack, Caution::BarLinks]
    }
}
