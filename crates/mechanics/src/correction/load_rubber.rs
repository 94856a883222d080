//! A rubber in place of each bump stop that carries load.

use std::sync::Arc;

use super::{
    Caution, CorrectionKind, Ends, FigureRole, FittedOn, Given, KindFigure, KindRow, Needs, PartDoubt, Quantity, Takes, TakesUp,
    Work,
};
use crate::bound::Bound;
use crate::stance::{Change, ElementKind, ForceTable, Mount, StopCurve};
use crate::units::{Length, metres};

const LOAD_RUBBER: &str = "load rubber";

/// A rubber in place of each bump stop that carries load.
#[derive(Debug, Clone, PartialEq)]
pub struct LoadRubber {
    /// Clearance empty.
    pub clearance: Length,
    /// Force of one rubber against its compression.
    pub force: ForceTable,
}

/// What is known of it before its figures.
pub static ROW: KindRow = KindRow {
    word: "load_rubber",
    figures: &[
        KindFigure::within("clearance", Bound::inches(0.0, 8.0), PartDoubt::ENGAGEMENT).as_set(),
        KindFigure { name: "force", takes: Takes::Table, doubt: PartDoubt::RUBBER_FORCE, role: FigureRole::OfThePart },
    ],
    ends: Ends::Either,
    goes_on_one_side: false,
    needs: Needs::Nothing,
    set_by_case: Some("clearance"),
    read: |given| Some(Arc::new(LoadRubber { clearance: given.length("clearance")?, force: given.table("force")?.clone() })),
};

impl CorrectionKind for LoadRubber {
    fn row(&self) -> &'static KindRow {
        &ROW
    }

    fn given(&self) -> Given {
        Given::default().with_length("clearance", self.clearance).with("force", Quantity::Table(self.force.clone()))
    }

    fn change(&self, on: &FittedOn<'_>) -> Option<Change> {
        let curve = StopCurve::Table(self.force.clone());
        Some(on.adds(LOAD_RUBBER, Mount::Frame, ElementKind::Bump { gap: self.clearance, extension: metres(0.0), curve }))
    }

    fn set_to_a_clearance(&self) -> Option<&'static str> {
        Some(LOAD_RUBBER)
    }

    fn takes_up(&self) -> TakesUp {
        TakesUp::Stop
    }

    fn works(&self) -> Vec<Work> {
        vec![Work::BearsOnTheFrame]
    }

    fn cautions(&self) -> Vec<Caution> {
        use Caution::*;
        vec![AddsNoCapacity, TravelUsed, HoseSlack, DrivelineAngle, BarLinks, AimAndAlignment]
    }

    fn stands_for_the_stop(&self) -> Option<&'static str> {
        Some(LOAD_RUBBER)
    }
}
