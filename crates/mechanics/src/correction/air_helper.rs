//! Bags of air between frame and axle.

use std::sync::Arc;

use super::air_bags::{Bags, CAUTIONS, HEIGHT, PRESSURE};
use super::{Caution, CorrectionKind, CorrectionProblem, FittedOn, Given, KindFigure, KindRow, Needs, PartDoubt, TakesUp, Work};
use crate::bound::Bound;
use crate::stance::Change;
use crate::units::{Area, Force, Length, Pressure};

/// Air helpers as they are bought: what one carries at a pressure, and the pressures that it takes.
///
/// Its effective area is that load over that pressure, and it carries its gauge pressure times that area.
#[derive(Debug, Clone, PartialEq)]
pub struct AirHelper {
    /// What one bag carries.
    pub capacity: Force,
    /// At this pressure.
    pub capacity_pressure: Pressure,
    /// How tall it stands.
    pub height: Length,
    /// What the gauge reads.
    pub pressure: Pressure,
    /// The least that it takes.
    pub least_pressure: Pressure,
    /// The most that it takes.
    pub most_pressure: Pressure,
}

/// What is known of it before its figures.
pub static ROW: KindRow = KindRow {
    word: "air_helper",
    figures: &[
        KindFigure::within("capacity", Bound::pounds(50.0, 10_000.0), PartDoubt::BAG_CAPACITY),
        KindFigure::within("capacity_pressure", Bound::psi(1.0, 200.0), PartDoubt::Exact),
        KindFigure::within("height", HEIGHT, PartDoubt::Exact),
        KindFigure::within("pressure", PRESSURE, PartDoubt::GAUGE),
        KindFigure::within("least_pressure", PRESSURE, PartDoubt::Exact),
        KindFigure::within("most_pressure", PRESSURE, PartDoubt::Exact),
    ],
    // In front it stands on an arm, and how much of it reaches the wheel nobody said.
    goes_on_the_front: false,
    goes_on_one_side: true,
    needs: Needs::Nothing,
    set_by_case: Some("pressure"),
    read: |given| {
        Some(Arc::new(AirHelper {
            capacity: given.weight("capacity")?,
            capacity_pressure: given.pressure("capacity_pressure")?,
            height: given.length("height")?,
            pressure: given.pressure("pressure")?,
            least_pressure: given.pressure("least_pressure")?,
            most_pressure: given.pressure("most_pressure")?,
        }))
    },
};

impl AirHelper {
    /// The area that its pressure pushes on: load over pressure.
    ///
    /// # Example
    /// ```
    /// use wise_badger_mechanics::correction::AirHelper;
    /// use wise_badger_mechanics::units::{METRES_PER_INCH, inches, pounds, psi};
    /// let helper = AirHelper {
    ///     capacity: pounds(1000.0), capacity_pressure: psi(100.0), height: inches(6.0),
    ///     pressure: psi(40.0), least_pressure: psi(5.0), most_pressure: psi(100.0),
    /// };
    /// assert!((helper.area().value / METRES_PER_INCH.powi(2) - 10.0).abs() < 1e-9);
    /// ```
    pub fn area(&self) -> Area {
        self.capacity / self.capacity_pressure
    }

    fn bags(&self) -> Bags {
        let (least, most) = (self.least_pressure, self.most_pressure);
        Bags { area: self.area(), height: self.height, pressure: self.pressure, least, most }
    }
}

impl CorrectionKind for AirHelper {
    fn row(&self) -> &'static KindRow {
        &ROW
    }

    fn given(&self) -> Given {
        Given::default()
            .with_weight("capacity", self.capacity)
            .with_pressure("capacity_pressure", self.capacity_pressure)
            .with_length("height", self.height)
            .with_pressure("pressure", self.pressure)
            .with_pressure("least_pressure", self.least_pressure)
            .with_pressure("most_pressure", self.most_pressure)
    }

    fn account(&self) -> Given {
        self.given().with_weight("carries", self.area() * self.pressure)
    }

    fn change(&self, on: &FittedOn<'_>) -> Change {
        self.bags().change(on)
    }

    fn problem(&self) -> Option<CorrectionProblem> {
        self.bags().problem("pressure")
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
