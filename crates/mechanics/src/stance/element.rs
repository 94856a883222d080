//! What bears between axle and body besides the main spring.

use super::force_table::ForceTable;
use crate::units::{Area, InShopUnits, Length, Pressure, SpringRate, Volume};

/// A stop, load rubber, helper, added leaf or air bag at one corner.
#[derive(Debug, Clone, PartialEq)]
pub struct Element {
    /// A name no other element of the corner has.
    pub name: String,
    /// Sideways distance from the middle; the main spring's own place when absent.
    pub lateral: Option<Length>,
    /// Element travel over wheel travel; −1 makes a stop for droop.
    pub motion_ratio: f64,
    /// What its inner end is fastened to.
    pub mount: Mount,
    /// How it bears.
    pub kind: ElementKind,
}

/// What an element is fastened to: decides whether a block moves it.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Mount {
    /// To frame and axle: a block opens its gap.
    Frame,
    /// To the spring pack or strut: goes with blocks and spacers, and rides on an equaliser.
    Pack,
}

/// How an element bears.
#[derive(Debug, Clone, PartialEq)]
pub enum ElementKind {
    /// A stop or load rubber: nothing until its gap is used up, then a curve.
    Bump {
        /// Clearance at kerb; negative when it is touching by so much.
        gap: Length,
        /// How far it was made longer, which takes up clearance.
        extension: Length,
        /// Force against its own compression.
        curve: StopCurve,
    },
    /// A spring that bears past a gap: helper, added leaf, overload leaf, second coil.
    Helper {
        /// Clearance at kerb; negative is a preload of so much compression.
        gap: Length,
        /// Its rate.
        rate: SpringRate,
        /// Whether it was there when the kerb state was measured, and so carries part of the kerb weight.
        already_fitted: bool,
    },
    /// A bag of air.
    Air(AirBag),
}

/// The force of a stop against its compression.
#[derive(Debug, Clone, PartialEq)]
pub enum StopCurve {
    /// The same rate all the way.
    Linear(SpringRate),
    /// A measured table.
    Table(ForceTable),
}

/// An air bag. It pushes with its gauge pressure on its area, and never pulls.
///
/// `F = (p − p_atm)·A(u)`, `A = area + area_slope·(u − fill_travel)`; unless the pressure is held,
/// `p = (p_fill + p_atm)·(V₀/(V₀ − v))ⁿ` with `v = ∫A du` from the travel it was filled at. Bags of one
/// axle on a shared line are one gas: `V₀` is the sum of their volumes and the line's, `v` the sum of theirs.
///
/// # Valid      the same air all the time; warming and leaks are left out
/// # Source     polytropic gas, any thermodynamics text; `p_atm` 101,325 Pa
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct AirBag {
    /// Effective area at the travel it was filled at.
    pub area: Area,
    /// Volume at that travel.
    pub volume: Volume,
    /// Gauge pressure it was filled to.
    pub fill_pressure: Pressure,
    /// Travel at which it was filled.
    pub fill_travel: Length,
    /// 1 when the air keeps its temperature, up to 1.4 when it has no time to.
    pub polytropic_exponent: f64,
    /// Area gained per length of travel; negative for a bag that slims.
    pub area_slope: Length,
    /// Whether it shares one line with the axle's other bags.
    pub shares_line: bool,
    /// Volume of that line, counted once.
    pub line_volume: Volume,
    /// Whether a regulator holds the fill pressure at any travel.
    pub held_pressure: bool,
    /// Whether it was there when the kerb state was measured.
    pub already_fitted: bool,
}

impl AirBag {
    /// Whether another bag can share a line with it: one gas has one pressure.
    pub(super) fn is_filled_like(&self, other: &AirBag) -> bool {
        self.fill_pressure == other.fill_pressure
            && self.polytropic_exponent.to_bits() == other.polytropic_exponent.to_bits()
            && self.held_pressure == other.held_pressure
    }
}

impl StopCurve {
    /// One that pushes so many times as hard at every compression.
    pub(crate) fn times(&self, factor: f64) -> Self {
        match self {
            StopCurve::Linear(rate) => StopCurve::Linear(*rate * factor),
            StopCurve::Table(table) => StopCurve::Table(table.times(factor)),
        }
    }

    /// Force (N) and rate (N/m) at a compression (m); nought while not compressed.
    pub(super) fn force(&self, compression_m: f64) -> (f64, f64) {
        if compression_m <= 0.0 {
            return (0.0, 0.0);
        }
        match self {
            StopCurve::Linear(rate) => (rate.si() * compression_m, rate.si()),
            StopCurve::Table(table) => table.force_and_rate(compression_m),
        }
    }
}

impl Element {
    /// Clearance at kerb once its extension is taken off, in metres; an air bag bears from the start.
    pub(super) fn clearance_m(&self) -> f64 {
        match &self.kind {
            ElementKind::Bump { gap, extension, .. } => gap.si() - extension.si(),
            ElementKind::Helper { gap, .. } => gap.si(),
            ElementKind::Air(_) => 0.0,
        }
    }

    /// Whether it carries part of the kerb weight rather than coming on top of it.
    pub(super) fn already_fitted(&self) -> bool {
        match &self.kind {
            ElementKind::Bump { .. } => false,
            ElementKind::Helper { already_fitted, .. } => *already_fitted,
            ElementKind::Air(bag) => bag.already_fitted,
        }
    }
}
