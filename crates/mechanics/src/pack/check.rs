//! What about a pack has no meaning.

use super::{Leaf, Pack};
use crate::units::{Curvature, Force, InShopUnits, Length, metres};

/// Most leaves of a pack.
const MOST_LEAVES: usize = 30;

/// Largest size of a leaf, in metres: past it the figures of a pack are none any more.
const LARGEST_M: f64 = 10.0;

/// Largest Young's modulus, in pascals: past any solid's.
const STIFFEST_PA: f64 = 1e13;

/// Why a pack cannot be worked out.
#[derive(Debug, Clone, PartialEq, thiserror::Error)]
#[non_exhaustive]
pub enum PackError {
    /// There is no leaf, or more than any spring has.
    #[error("a pack has from 1 to {MOST_LEAVES} leaves, not {0}")]
    Leaves(usize),
    /// A figure that must be above nought is not.
    #[error("{what} of {leaf} must be above zero")]
    NotPositive {
        /// The leaf's name.
        leaf: String,
        /// Which figure.
        what: &'static str,
    },
    /// A size past any leaf's.
    #[error("{what} of {leaf} is past anything a leaf has; at most {} m", most.si())]
    PastAnyLeaf {
        /// The leaf's name.
        leaf: String,
        /// Which size.
        what: &'static str,
        /// The most that is worked with.
        most: Length,
    },
    /// A figure that is no number, or negative where it cannot be.
    #[error("{0} is not a figure a pack can have")]
    NoFigure(String),
    /// The clamp reaches past an end of a leaf.
    #[error("the clamp reaches past the {half} end of {leaf}")]
    InsideTheClamp {
        /// The leaf's name.
        leaf: String,
        /// Which half.
        half: &'static str,
    },
    /// Another leaf reaches further out than the main leaf, which carries the eyes.
    #[error("{leaf} reaches past the {half} eye of the main leaf")]
    LongerThanMain {
        /// The leaf's name.
        leaf: String,
        /// Which half.
        half: &'static str,
    },
    /// An arch past half its chord: no leaf is bent so far.
    #[error("{0} is arched past half its chord")]
    TooMuchArch(String),
    /// A size that a leaf below takes from the one above, and the main leaf has nowhere to take from.
    #[error("the {what} of {leaf} is not known; read it")]
    NotRead {
        /// The leaf's name.
        leaf: String,
        /// Which size.
        what: &'static str,
    },
    /// No arch was read at all.
    #[error("no arch is known: read the main leaf's, or that of the bolted pack")]
    NoArch,
    /// A chord that is longer than the leaf.
    #[error("the chord of {0} is longer than the leaf itself; the chord is straight from end to end")]
    ChordPastLength(String),
    /// The pack is bent further past flat than the model holds for.
    #[error("outside the model: the pack is bent further past flat than it can be worked out")]
    OutsideTheModel,
    /// No arch brings the pack to a height.
    #[error("no arch that these leaves can have brings the pack to that height")]
    NotReached(Length),
    /// A load below nought, or no number.
    #[error("a load on the pack is zero or more")]
    Load,
    /// Sizes or loads so large or small that the answer is no number.
    #[error("these figures are past anything a spring has; check sizes and loads")]
    PastAllFigures,
    /// Where the leaves press on each other was not found within a counted number of turns.
    #[error("where these leaves press on each other was not found; leave out leaves that are alike, or check their arches")]
    NotSolved,
}

impl Pack {
    /// Refuses what has no meaning.
    pub(super) fn check(&self) -> Result<(), PackError> {
        if self.leaves.is_empty() || self.leaves.len() > MOST_LEAVES {
            return Err(PackError::Leaves(self.leaves.len()));
        }
        let above_nought = |value: f64| value.is_finite() && value > 0.0;
        if !above_nought(self.young_modulus.value) || self.young_modulus.value > STIFFEST_PA {
            return Err(PackError::NoFigure("Young's modulus".to_owned()));
        }
        for clamp in [self.clamp.front, self.clamp.rear] {
            if !(clamp.si().is_finite() && clamp.si() >= 0.0) {
                return Err(PackError::NoFigure("the clamp's length".to_owned()));
            }
        }
        self.leaves.iter().try_for_each(|leaf| self.check_leaf(leaf))
    }

    fn check_leaf(&self, leaf: &Leaf) -> Result<(), PackError> {
        let past = |what| PackError::PastAnyLeaf { leaf: leaf.name.clone(), what, most: metres(LARGEST_M) };
        let figures = [
            ("the width", leaf.width),
            ("the thickness", leaf.thickness),
            ("the front length", leaf.front),
            ("the rear length", leaf.rear),
        ];
        for (what, value) in figures {
            if !(value.si().is_finite() && value.si() > 0.0) {
                return Err(PackError::NotPositive { leaf: leaf.name.clone(), what });
            }
            if value.si() > LARGEST_M {
                return Err(past(what));
            }
        }
        if leaf.spacer_above.si() > LARGEST_M {
            return Err(past("the spacer above"));
        }
        if !(leaf.spacer_above.si().is_finite() && leaf.spacer_above.si() >= 0.0) {
            return Err(PackError::NoFigure(format!("the spacer above {}", leaf.name)));
        }
        let main = self.leaves.first();
        for (half, own, clamp, of_main) in [
            ("front", leaf.front, self.clamp.front, main.map(|main| main.front)),
            ("rear", leaf.rear, self.clamp.rear, main.map(|main| main.rear)),
        ] {
            if own <= clamp {
                return Err(PackError::InsideTheClamp { leaf: leaf.name.clone(), half });
            }
            if of_main.is_some_and(|of_main| own.si() > of_main.si() + 1e-9) {
                return Err(PackError::LongerThanMain { leaf: leaf.name.clone(), half });
            }
        }
        match too_much_arch(leaf.curvature, leaf.front.max(leaf.rear)) {
            true => Err(PackError::TooMuchArch(leaf.name.clone())),
            false => Ok(()),
        }
    }
}

/// Whether a leaf bends through more than a quarter circle either side: its sagitta is past half its chord then.
fn too_much_arch(curvature: Curvature, half: Length) -> bool {
    let turned = (curvature * half).value.abs();
    !turned.is_finite() || turned > std::f64::consts::FRAC_PI_2
}

/// A load that can press on a pack.
pub(super) fn check_load(load: Force) -> Result<(), PackError> {
    let sound = load.si().is_finite() && load.si() >= 0.0;
    if sound { Ok(()) } else { Err(PackError::Load) }
}
