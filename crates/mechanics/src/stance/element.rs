//! What bears between axle and body besides the main spring.

use super::force_table::ForceTable;
use super::vehicle::{StanceError, finite, nought_or_more, require_ratio};
use crate::units::{InShopUnits, Length, SpringRate};

/// A stop, load rubber, helper or added leaf at one corner.
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
    /// To the spring pack or strut: goes with blocks and spacers.
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
}

/// The force of a stop against its compression.
#[derive(Debug, Clone, PartialEq)]
pub enum StopCurve {
    /// The same rate all the way.
    Linear(SpringRate),
    /// A measured table.
    Table(ForceTable),
}

impl StopCurve {
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
    /// Clearance at kerb once its extension is taken off, in metres.
    pub(super) fn clearance_m(&self) -> f64 {
        match &self.kind {
            ElementKind::Bump { gap, extension, .. } => gap.si() - extension.si(),
            ElementKind::Helper { gap, .. } => gap.si(),
        }
    }

    /// Force (N) and rate (N/m) at a stroke (m) along the element.
    pub(super) fn force(&self, stroke_m: f64) -> (f64, f64) {
        let compression = stroke_m - self.clearance_m();
        match &self.kind {
            ElementKind::Bump { curve, .. } => curve.force(compression),
            ElementKind::Helper { rate, .. } if compression > 0.0 => (rate.si() * compression, rate.si()),
            ElementKind::Helper { .. } => (0.0, 0.0),
        }
    }

    /// Whether it carries part of the kerb weight rather than coming on top of it.
    pub(super) fn already_fitted(&self) -> bool {
        matches!(self.kind, ElementKind::Helper { already_fitted: true, .. })
    }

    /// Opens (+) or closes (−) the clearance.
    pub(super) fn open_gap(&mut self, by: Length) {
        match &mut self.kind {
            ElementKind::Bump { gap, .. } | ElementKind::Helper { gap, .. } => *gap += by,
        }
    }

    pub(super) fn check(&self, axle: &str) -> Result<(), StanceError> {
        let named = |what: &str| format!("{what} of “{}” on axle “{axle}”", self.name);
        require_ratio(named("motion ratio"), self.motion_ratio)?;
        if let Some(lateral) = self.lateral {
            finite(named("lateral place"), lateral.si())?;
        }
        finite(named("gap"), self.clearance_m())?;
        match &self.kind {
            ElementKind::Bump { curve: StopCurve::Linear(rate), .. } | ElementKind::Helper { rate, .. } => {
                nought_or_more(named("rate"), rate.si())
            }
            ElementKind::Bump { curve: StopCurve::Table(_), .. } => Ok(()),
        }
    }
}
