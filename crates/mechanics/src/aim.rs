//! The aim of a job: what height is right, and whether a height meets it.

use crate::survey::{End, LoadState, Survey};
use crate::uncertain::Uncertain;
use crate::units::{InShopUnits, Length, inches, metres};

/// The height policy of a job.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Aim {
    /// Rear above front by a stated rake when loaded.
    LevelLoaded {
        /// Rear height less front height; 0 is level.
        rake: Length,
        /// How far off still counts.
        tolerance: Length,
    },
    /// Rear as high as front when empty.
    LevelEmpty {
        /// How far off still counts.
        tolerance: Length,
    },
    /// The rear back to a stated height when empty.
    StockHeight {
        /// That height, from the job's datum.
        rear: Length,
        /// How far off still counts.
        tolerance: Length,
    },
}

/// A band on the rear ruler.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct TargetBand {
    /// Its middle.
    pub height: Length,
    /// Half its width.
    pub tolerance: Length,
}

/// Whether a height meets the aim.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum AimVerdict {
    /// It does, even at the edge of its band.
    Meets,
    /// It does, but its band reaches outside.
    LikelyMeets,
    /// It does not, but its band reaches inside.
    MayMiss {
        /// Height less target.
        off: Length,
    },
    /// It does not.
    Misses {
        /// Height less target.
        off: Length,
    },
}

/// Something about an aim that cannot be.
#[derive(Debug, Clone, Copy, PartialEq)]
#[non_exhaustive]
pub enum AimProblem {
    /// A tolerance of nought, or wider than the whole question.
    Tolerance {
        /// The least accepted.
        least: Length,
        /// The most accepted.
        most: Length,
    },
    /// A rake no shop aims at.
    Rake {
        /// The most accepted, either way.
        most: Length,
    },
    /// A stock height further from the measured one than any spring brings it back.
    FarFromMeasured {
        /// What was measured.
        measured: Length,
    },
}

impl Aim {
    /// The state the aim is about.
    pub fn state(&self) -> LoadState {
        match self {
            Aim::LevelLoaded { .. } => LoadState::Loaded,
            Aim::LevelEmpty { .. } | Aim::StockHeight { .. } => LoadState::Empty,
        }
    }

    /// How far off still counts.
    pub fn tolerance(&self) -> Length {
        match self {
            Aim::LevelLoaded { tolerance, .. } | Aim::LevelEmpty { tolerance } | Aim::StockHeight { tolerance, .. } => *tolerance,
        }
    }

    /// Where the rear should stand, in the aim's state; `None` while the front height it hangs on is not read.
    pub fn target(&self, survey: &Survey) -> Option<TargetBand> {
        let front = || survey.height(End::Front, self.state()).map(|height| height.value);
        let height = match self {
            Aim::LevelLoaded { rake, .. } => front()? + *rake,
            Aim::LevelEmpty { .. } => front()?,
            Aim::StockHeight { rear, .. } => *rear,
        };
        Some(TargetBand { height, tolerance: self.tolerance() })
    }

    /// What the aim, met exactly at the rear, makes of the rake in the loaded state.
    ///
    /// Going by the drops measured: `rake loaded = rake aimed at − (rear drop − front drop)`. Exact for a
    /// correction that raises alike in both states; a stiffer rear gives less of a drop.
    pub fn rake_loaded(&self, survey: &Survey) -> Option<Length> {
        match self {
            Aim::LevelLoaded { rake, .. } => Some(*rake),
            Aim::LevelEmpty { .. } | Aim::StockHeight { .. } => {
                let raise = self.target(survey)?.height - survey.height(End::Rear, LoadState::Empty)?.value;
                Some(survey.rake(LoadState::Loaded)? + raise)
            }
        }
    }

    /// Everything about the aim that cannot be.
    pub fn problems(&self, survey: &Survey) -> Vec<AimProblem> {
        let mut problems = Vec::new();
        let (least, most) = (inches(1.0 / 16.0), inches(3.0));
        if self.tolerance() < least || self.tolerance() > most {
            problems.push(AimProblem::Tolerance { least, most });
        }
        match self {
            Aim::LevelLoaded { rake, .. } if rake.si().abs() > inches(8.0).si() => {
                problems.push(AimProblem::Rake { most: inches(8.0) });
            }
            Aim::StockHeight { rear, .. } => {
                if let Some(measured) = survey.height(End::Rear, LoadState::Empty)
                    && (*rear - measured.value).si().abs() > inches(8.0).si()
                {
                    problems.push(AimProblem::FarFromMeasured { measured: measured.value });
                }
            }
            _ => {}
        }
        problems
    }
}

impl TargetBand {
    /// Judges a rear height against the band.
    pub fn judge(&self, height: Uncertain<Length>) -> AimVerdict {
        let off = height.value - self.height;
        let (distance, band) = (off.si().abs(), height.band().si());
        // A tape reads no finer than this; equal figures must not differ by rounding.
        let tolerance = self.tolerance.si() + metres(1e-6).si();
        if distance + band <= tolerance {
            AimVerdict::Meets
        } else if distance <= tolerance {
            AimVerdict::LikelyMeets
        } else if distance - band <= tolerance {
            AimVerdict::MayMiss { off }
        } else {
            AimVerdict::Misses { off }
        }
    }
}
