//! Bags of air inside the coils.

use std::f64::consts::FRAC_PI_4;
use std::sync::Arc;

use super::air_bags::{AirBags, CAUTIONS, FIGURES, GAUGE};
use super::{
    Caution, CorrectionKind, CorrectionProblem, Ends, FittedOn, Given, KindFigure, KindRow, Needs, PartDoubt, TakesUp, Work,
};
use crate::bound::Bound;
use crate::stance::Change;
use crate::units::{Area, Length};

/// Bags that stand inside the coils, by their diameter there and the pressures that they take.
///
/// A bag pushes with its gauge pressure on the area of its own round; it is taken to reach the wheel whole, as from a coil that stands on
/// the axle.
#[derive(Debug, Clone, PartialEq)]
pub struct BagsInCoils {
    /// Across, blown up: at most the inside of the coil.
    pub diameter: Length,
    /// The bags themselves.
    pub bags: AirBags,
}

/// What is known of it before its figures.
pub static ROW: KindRow = KindRow {
    word: "bags_in_coils",
    figures: &[
        KindFigure::within("diameter", Bound::inches(1.5, 8.0), PartDoubt::BAG_DIAMETER),
        FIGURES[0],
        FIGURES[1],
        FIGURES[2],
        FIGURES[3],
    ],
    // In front it stands on an arm, and how much of it reaches the wheel nobody said.
    ends: Ends::Rear,
    goes_on_one_side: true,
    needs: Needs::Coils,
    set_by_case: Some(GAUGE),
    read: |given| Some(Arc::new(BagsInCoils { diameter: given.length("diameter")?, bags: AirBags::read(given)? })),
};

impl BagsInCoils {
    /// The area that its pressure pushes on: that of its round.
    ///
    /// # Source     Pascal's law, any text of physics
    pub fn area(&self) -> Area {
        FRAC_PI_4 * self.diameter * self.diameter
    }
}

impl CorrectionKind for BagsInCoils {
    fn row(&self) -> &'static KindRow {
        &ROW
    }

    fn given(&self) -> Given {
        self.bags.given(Given::default().with_length("diameter", self.diameter))
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
        TakesUp::InsideTheCoil
    }

    fn works(&self) -> Vec<Work> {
        vec![Work::CoilSeat]
    }

    fn cautions(&self) -> Vec<Caution> {
        CAUTIONS.to_vec()
    }
}
