//! Bags of air between frame and axle.

use std::sync::Arc;

use super::air_bags::{AirBags, CAUTIONS, FIGURES, GAUGE};
use super::{
    Caution, CorrectionKind, CorrectionProblem, Ends, FittedOn, Given, KindFigure, KindRow, Needs, PartDoubt, TakesUp, Work,
};
use crate::bound::Bound;
use crate::stance::Change;
use crate::units::{Area, Force, Pressure};

/// Air helpers as they are bought: what one carries at a pressure, and the pressures that it takes.
///
/// Its effective area is that load over that pressure, and it carries its gauge pressure times that area.
#[derive(Debug, Clone, PartialEq)]
pub struct AirHelper {
    /// What one bag carries.
    pub capacity: Force,
    /// At this pressure.
    pub capacity_pressure: Pressure,
    /// The bags themselves.
    pub bags: AirBags,
}

/// What is known of it before its figures.
pub static ROW: KindRow = KindRow {
    word: "air_helper",
    figures: &[
        KindFigure::within("capacity", Bound::pounds(50.0, 10_000.0), PartDoubt::BAG_CAPACITY),
        KindFigure::within("capacity_pressure", Bound::psi(1.0, 200.0), PartDoubt::Exact),
        FIGURES[0],
        FIGURES[1],
        FIGURES[2],
        FIGURES[3],
    ],
    // In front it stands on an arm, and how much of it reaches the wheel nobody said.
    ends: Ends::Rear,
    goes_on_one_side: true,
    needs: Needs::Nothing,
    set_by_case: Some(GAUGE),
    read: |given| {
        let (capacity, capacity_pressure) = (given.weight("capacity")?, given.pressure("capacity_pressure")?);
        Some(Arc::new(AirHelper { capacity, capacity_pressure, bags: AirBags::read(given)? }))
    },
};

impl AirHelper {
    /// The area that its pressure pushes on: load over pressure.
    ///
    /// # Example
    /// ```
    /// use wise_badger_mechanics::correction::{AirBags, AirHelper};
    /// use wise_badger_mechanics::units::{METRES_PER_INCH, inches, pounds, psi};
    /// let bags = AirBags { height: inches(6.0), pressure: psi(40.0), least: psi(5.0), most: psi(100.0) };
    /// let helper = AirHelper { capacity: pounds(1000.0), capacity_pressure: psi(100.0), bags };
    /// assert!((helper.area().value / METRES_PER_INCH.powi(2) - 10.0).abs() < 1e-9);
    /// ```
    pub fn area(&self) -> Area {
        self.capacity / self.capacity_pressure
    }
}

impl CorrectionKind for AirHelper {
    fn row(&self) -> &'static KindRow {
        &ROW
    }

    fn given(&self) -> Given {
        let own = Given::default().with_weight("capacity", self.capacity);
        self.bags.given(own.with_pressure("capacity_pressure", self.capacity_pressure))
    }

    fn account(&self) -> Given {
        self.given().with_weight("carries", self.area() * self.bags.pressure)
    }

    fn change(&self, on: &FittedOn<'_>) -> Option<Change> {
        Some(self.bags.change(self.area(), on))
    }

    fn problem(&self) -> Option<CorrectionProblem> {
        self.bags.problem()
    }

    fn takes_up(&self) -> TakesUp {
        TakesUp::Helper
    }

    fn works(&self) -> Vec<Work> {
        vec![Work::BearsOnTheFrame]
    }

    fn cautions(&self) -> Vec<Caution> {
        CAUTIONS.to_vec()
    }
}
