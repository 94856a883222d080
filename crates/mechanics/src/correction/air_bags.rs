//! What bags of air do, wherever they stand.

use super::{Caution, CorrectionProblem, FittedOn, Given, KindFigure, PartDoubt};
use crate::bound::{Bound, Dimension};
use crate::stance::{AirBag, Change, ElementKind, Mount};
use crate::units::{Area, InShopUnits, Length, Pressure, metres, pascals};

/// The element's name on the vehicle.
const ELEMENT: &str = "air bag";
/// What a bag may be let down and blown up to.
const PRESSURE: Bound = Bound::psi(0.0, 200.0);
/// The figures of every bag: its height, what the gauge reads, and what it takes.
pub(super) const FIGURES: [KindFigure; 4] = [
    KindFigure::within("height", Bound::inches(2.0, 20.0), PartDoubt::Exact),
    KindFigure::within(GAUGE, PRESSURE, PartDoubt::GAUGE).as_set(),
    KindFigure::within("least_pressure", PRESSURE, PartDoubt::Exact),
    KindFigure::within("most_pressure", PRESSURE, PartDoubt::Exact),
];
/// The figure that the gauge reads.
pub(super) const GAUGE: &str = "pressure";
/// Between air that keeps its temperature (1) and air that has no time to (1.4), as a bag on the road has it.
const POLYTROPIC: f64 = 1.3;

/// A bag on either side, with what its gauge reads.
///
/// The pressure is what the gauge reads in the very state that is asked about: it is set there, and held against everything that is
/// in doubt. What air that nobody lets out comes to under more load is another reading of the gauge.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct AirBags {
    /// How tall one stands, the vehicle empty.
    pub height: Length,
    /// What the gauge reads.
    pub pressure: Pressure,
    /// The least that it takes, so that nothing pinches it.
    pub least: Pressure,
    /// The most that it takes.
    pub most: Pressure,
}

impl AirBags {
    pub(super) fn read(given: &Given) -> Option<Self> {
        Some(AirBags {
            height: given.length("height")?,
            pressure: given.pressure(GAUGE)?,
            least: given.pressure("least_pressure")?,
            most: given.pressure("most_pressure")?,
        })
    }

    /// Figures of another sort with those of every bag.
    pub(super) fn given(&self, own: Given) -> Given {
        own.with_length("height", self.height)
            .with_pressure(GAUGE, self.pressure)
            .with_pressure("least_pressure", self.least)
            .with_pressure("most_pressure", self.most)
    }

    /// `F = p·A` more at each of its corners, at any travel; on the road its air is shut in, and adds `n·(p + p_atm)·A/h`.
    pub(super) fn change(&self, area: Area, on: &FittedOn<'_>) -> Change {
        let bag = AirBag {
            area,
            volume: area * self.height,
            fill_pressure: self.pressure.max(pascals(0.0)),
            fill_travel: metres(0.0),
            polytropic_exponent: POLYTROPIC,
            area_slope: metres(0.0),
            shares_line: false,
            line_volume: metres(0.0) * area,
            held_pressure: true,
            already_fitted: false,
        };
        on.adds(ELEMENT, Mount::Frame, ElementKind::Air(bag))
    }

    /// A pressure that such a bag does not take.
    pub(super) fn problem(&self) -> Option<CorrectionProblem> {
        let bound = Bound { dimension: Dimension::Pressure, least: self.least.si(), most: self.most.si() };
        (!bound.holds(self.pressure.si())).then_some(CorrectionProblem::PressureOutside { figure: GAUGE, bound })
    }
}

/// The cautions of every bag.
pub(super) const CAUTIONS: [Caution; 9] = [
    Caution::ChargedBag,
    Caution::AddsNoCapacity,
    Caution::BagKept,
    Caution::SharedLine,
    Caution::HoseSlack,
    Caution::ShockLength,
    Caution::DrivelineAngle,
    Caution::WheelNuts,
    Caution::AimAndAlignment,
];
