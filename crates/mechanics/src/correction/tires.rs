//! Tires of another size.

use std::sync::Arc;

use super::{Caution, CorrectionKind, Ends, FittedOn, Given, KindFigure, KindRow, Needs, PartDoubt, TakesUp, Work};
use crate::bound::Bound;
use crate::stance::Change;
use crate::units::Length;

/// Other tires on every wheel of an axle: it stands higher from the ground by half of what they are larger across. Their rate is taken
/// to be that of the ones that come off.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Tires {
    /// Across, of those that go on.
    pub diameter: Length,
    /// Across, of those that come off.
    pub old_diameter: Length,
}

const DIAMETER: Bound = Bound::inches(15.0, 60.0);

/// What is known of it before its figures.
pub static ROW: KindRow = KindRow {
    word: "tires",
    figures: &[
        KindFigure::within("diameter", DIAMETER, PartDoubt::TIRE_SIZE),
        KindFigure::within("old_diameter", DIAMETER, PartDoubt::TIRE_SIZE).of_the_vehicle(),
    ],
    ends: Ends::Either,
    goes_on_one_side: false,
    needs: Needs::Nothing,
    set_by_case: None,
    read: |given| Some(Arc::new(Tires { diameter: given.length("diameter")?, old_diameter: given.length("old_diameter")? })),
};

impl Tires {
    /// How much higher the axle stands.
    pub fn raises(&self) -> Length {
        (self.diameter - self.old_diameter) / 2.0
    }
}

impl CorrectionKind for Tires {
    fn row(&self) -> &'static KindRow {
        &ROW
    }

    fn given(&self) -> Given {
        Given::default().with_length("diameter", self.diameter).with_length("old_diameter", self.old_diameter)
    }

    fn account(&self) -> Given {
        self.given().with_length("raises", self.raises())
    }

    fn change(&self, on: &FittedOn<'_>) -> Option<Change> {
        Some(Change::Tyre { axle: on.axle.name.clone(), rate: None, radius_change: self.raises() })
    }

    fn takes_up(&self) -> TakesUp {
        TakesUp::Tires
    }

    fn works(&self) -> Vec<Work> {
        vec![Work::Wheels]
    }

    fn cautions(&self) -> Vec<Caution> {
        vec![Caution::TireClearance, Caution::AddsNoCapacity, Caution::WheelNuts, Caution::AimAndAlignment]
    }
}
