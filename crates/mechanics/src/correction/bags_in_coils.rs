//! Bags of air inside the coils.

use std::f64::consts::FRAC_PI_4;
use std::sync::Arc;

use super::air_bags::{Bags, CAUTIONS, HEIGHT, PRESSURE};
use super::{Caution, CorrectionKind, CorrectionProblem, FittedOn, Given, KindFigure, KindRow, Needs, PartDoubt, TakesUp, Work};
use crate::bound::Bound;
use crate::stance::Change;
use crate::units::{Area, Length, Pressure};

/// Bags that stand inside the coils, by their diameter there and the pressures that they take.
///
/// A bag pushes with its gauge pressure on the area of its own round; taken to reach the wheel whole, as from a coil that stands on the axle.
#[derive(Debug, Clone, PartialEq)]
pub struct BagsInCoils {
    /// Across, blown up: at most the inside of the coil.
    pub diameter: Length,
    /// How tall it stands.
    pub height: Length,
    /// What the gauge reads.
    pub pressure: Pressure,
    /// The least that it takes, so that the coil does not pinch it.
    pub least_pressure: Pressure,
    /// The most that it takes.
    pub most_pressure: Pressure,
}

/// What is known of it before its figures.
pub static ROW: KindRow = KindRow {
    word: "bags_in_coils",
    figures: &[
        KindFigure::within("diameter", Bound::inches(1.5, 8.0), PartDoubt::BAG_DIAMETER),
        KindFigure::within("height", HEIGHT, PartDoubt::Exact),
        KindFigure::within("pressure", PRESSURE, PartDoubt::GAUGE),
        KindFigure::within("least_pressure", PRESSURE, PartDoubt::Exact),
        KindFigure::within("most_pressure", PRESSURE, PartDoubt::Exact),
    ],
    // In front it stands on an arm, and how much of it reaches the wheel nobody said.
    goes_on_the_front: false,
    goes_on_one_side: true,
    needs: Needs::Coils,
    set_by_case: Some("pressure"),
    read: |given| {
        Some(Arc::new(BagsInCoils {
            diameter: given.length("diameter")?,
            height: given.length("height")?,
            pressure: given.pressure("pressure")?,
            least_pressure: given.pressure("least_pressure")?,
            most_pressure: given.pressure("most_pressure")?,
        }))
    },
};

impl BagsInCoils {
    /// The area that its pressure pushes on: that of its round.
    ///
    /// # Source     Pascal's law, any text of physics
    pub fn area(&self) -> Area {
        FRAC_PI_4 * self.diameter * self.diameter
    }

    fn bags(&self) -> Bags {
        let (least, most) = (self.least_pressure, self.most_pressure);
        Bags { area: self.area(), height: self.height, pressure: self.pressure, least, most }
    }
}

impl CorrectionKind for BagsInCoils {
    fn row(&self) -> &'static KindRow {
        &ROW
    }

    fn given(&self) -> Given {
        Given::default()
            .with_length("diameter", self.diameter)
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
        TakesUp::InsideTheCoil
    }

    fn works(&self) -> Vec<Work> {
        vec![Work::CoilSeat]
    }

    fn cautions(&self) -> Vec<Caution> {
        CAUTIONS.to_vec()
    }
}
