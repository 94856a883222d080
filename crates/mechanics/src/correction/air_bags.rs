//! What bags of air do, wherever they stand.

use super::{Caution, CorrectionProblem, FittedOn};
use crate::bound::{Bound, Dimension};
use crate::stance::{AirBag, Change, ElementKind, Mount};
use crate::units::{Area, InShopUnits, Length, Pressure, metres, pascals};

/// The element's name on the vehicle.
pub(super) const ELEMENT: &str = "air bag";
/// What a bag may be let down and blown up to.
pub(super) const PRESSURE: Bound = Bound::psi(0.0, 200.0);
/// How tall a bag stands.
pub(super) const HEIGHT: Bound = Bound::inches(2.0, 20.0);
/// Between air that keeps its temperature (1) and air that has no time to (1.4), as a bag on the road has it.
const POLYTROPIC: f64 = 1.3;

/// A bag on either side, with what its gauge reads.
///
/// The pressure is what the gauge reads in the very state that is asked about: it is set there, and held against everything that is
/// in doubt. What air that nobody lets out comes to under more load is another reading of the gauge.
#[derive(Debug, Clone, Copy)]
pub(super) struct Bags {
    pub(super) area: Area,
    pub(super) height: Length,
    pub(super) pressure: Pressure,
    pub(super) least: Pressure,
    pub(super) most: Pressure,
}

impl Bags {
    /// `F = p·A` more at each of its corners, at any travel; on the road its air is shut in, and adds `n·(p + p_atm)·A/h`.
    pub(super) fn change(&self, on: &FittedOn<'_>) -> Change {
        let bag = AirBag {
            area: self.area,
            volume: self.area * self.height,
            fill_pressure: self.pressure.max(pascals(0.0)),
            fill_travel: metres(0.0),
            polytropic_exponent: POLYTROPIC,
            area_slope: metres(0.0),
            shares_line: false,
            line_volume: metres(0.0) * self.area,
            held_pressure: true,
            already_fitted: false,
        };
        on.adds(ELEMENT, Mount::Frame, ElementKind::Air(bag))
    }

    /// A pressure that such a bag does not take, of a figure.
    pub(super) fn problem(&self, figure: &'static str) -> Option<CorrectionProblem> {
        let bound = Bound { dimension: Dimension::Pressure, least: self.least.si(), most: self.most.si() };
        (!bound.holds(self.pressure.si())).then_some(CorrectionProblem::PressureOutside { figure, bound })
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
