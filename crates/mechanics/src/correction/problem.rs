//! Why a correction cannot be.

use crate::bound::Bound;

/// Why a correction is not one.
#[derive(Debug, Clone, Copy, PartialEq, thiserror::Error)]
#[non_exhaustive]
pub enum CorrectionProblem {
    /// A figure outside what such a part has.
    #[error("{figure} is from {:.4} to {:.4} in SI units", bound.least, bound.most)]
    OutOfBounds {
        /// Which.
        figure: &'static str,
        /// What it may be.
        bound: Bound,
    },
    /// It does not go on a front axle.
    #[error("it goes at the rear only, never on a steered axle")]
    NotOnTheFront,
    /// It does not go on a rear axle.
    #[error("it goes at the front only")]
    NotAtTheRear,
    /// It goes on both sides or on neither.
    #[error("it goes on both sides or on neither")]
    NotOnOneSide,
    /// One figure must be the larger of two.
    #[error("{figure} must be more than {than}")]
    NotLonger {
        /// The one that must be larger.
        figure: &'static str,
        /// Than which.
        than: &'static str,
    },
    /// A coil that is no taller free than pressed solid.
    #[error("{figure} must be more than the coil pressed solid")]
    SolidAlready {
        /// The figure of its free height.
        figure: &'static str,
    },
    /// A pressure that the part itself does not take.
    #[error("{figure} is from {:.0} to {:.0} Pa for this part", bound.least, bound.most)]
    PressureOutside {
        /// The figure of the pressure.
        figure: &'static str,
        /// What the part takes.
        bound: Bound,
    },
}
