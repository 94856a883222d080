//! The aim of a job: what height is right, and whether a height meets it.

use crate::bounds::{RAKE, TOLERANCE};
use crate::survey::{End, LoadState, Survey};
use wise_badger_mechanics::uncertain::Uncertain;
use wise_badger_mechanics::units::{InShopUnits, Length, inches, metres};

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
    /// At least part of the sag back, loaded.
    RecoverSag {
        /// The share of the sag to recover, 0 to 1.
        share: f64,
        /// How far short still counts.
        tolerance: Length,
    },
    /// At least a clearance under a named point, loaded.
    Clearance {
        /// Where the point is, rearward from the rear axle.
        behind_rear_axle: Length,
        /// What was measured under it, loaded.
        measured: Length,
        /// What is wanted there.
        wanted: Length,
        /// How far short still counts.
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
    /// Whether anything above it is as good.
    pub at_least: bool,
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
    Tolerance,
    /// A share of the sag that is none.
    Share,
    /// A point off the vehicle, or a clearance no vehicle has.
    Clearance {
        /// The furthest behind the rear axle that is believed.
        furthest: Length,
        /// The most clearance that is believed.
        most: Length,
    },
    /// A rake no shop aims at.
    Rake,
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
            Aim::LevelLoaded { .. } | Aim::RecoverSag { .. } | Aim::Clearance { .. } => LoadState::Loaded,
            Aim::LevelEmpty { .. } | Aim::StockHeight { .. } => LoadState::Empty,
        }
    }

    /// How far off still counts.
    pub fn tolerance(&self) -> Length {
        match self {
            Aim::LevelLoaded { tolerance, .. }
            | Aim::LevelEmpty { tolerance }
            | Aim::StockHeight { tolerance, .. }
            | Aim::RecoverSag { tolerance, .. }
            | Aim::Clearance { tolerance, .. } => *tolerance,
        }
    }

    /// Where the rear should stand, in the aim's state; `None` while a height it hangs on is not read.
    ///
    /// A point `o` behind the rear axle moves by `1 + o/L` of what the axle moves, `L` the wheelbase, the front standing
    /// still: `rear = rear now + (wanted − measured)/(1 + o/L)`.
    ///
    /// # Source     similar triangles
    pub fn target(&self, survey: &Survey) -> Option<TargetBand> {
        let front = || survey.height(End::Front, self.state()).map(|height| height.value);
        let rear_loaded = || survey.height(End::Rear, LoadState::Loaded).map(|height| height.value);
        let height = match self {
            Aim::LevelLoaded { rake, .. } => front()? + *rake,
            Aim::LevelEmpty { .. } => front()?,
            Aim::StockHeight { rear, .. } => *rear,
            Aim::RecoverSag { share, .. } => rear_loaded()? + *share * survey.drop(End::Rear)?.value,
            Aim::Clearance { behind_rear_axle, measured, wanted, .. } => {
                let lever = 1.0 + behind_rear_axle.si() / survey.vehicle.wheelbase.si();
                rear_loaded()? + (*wanted - *measured) / lever
            }
        };
        let at_least = matches!(self, Aim::RecoverSag { .. } | Aim::Clearance { .. });
        Some(TargetBand { height, tolerance: self.tolerance(), at_least })
    }

    /// What the aim, met exactly at the rear, makes of the rake in the loaded state.
    ///
    /// Going by the drops measured: `rake loaded = rake aimed at − (rear drop − front drop)`. Exact for a
    /// correction that raises alike in both states; a stiffer rear gives less of a drop.
    pub fn rake_loaded(&self, survey: &Survey) -> Option<Length> {
        match self {
            Aim::LevelLoaded { rake, .. } => Some(*rake),
            _ => Some(survey.rake(LoadState::Loaded)? + self.raise(survey)?),
        }
    }

    /// How much the rear must come up to meet the aim exactly.
    pub fn raise(&self, survey: &Survey) -> Option<Length> {
        Some(self.target(survey)?.height - survey.height(End::Rear, self.state())?.value)
    }

    /// Everything about the aim that cannot be.
    pub fn problems(&self, survey: &Survey) -> Vec<AimProblem> {
        let mut problems = Vec::new();
        if !TOLERANCE.holds(self.tolerance().si()) {
            problems.push(AimProblem::Tolerance);
        }
        match self {
            Aim::LevelLoaded { rake, .. } if !RAKE.holds(rake.si()) => problems.push(AimProblem::Rake),
            Aim::StockHeight { rear, .. } => {
                if let Some(measured) = survey.height(End::Rear, LoadState::Empty)
                    && (*rear - measured.value).si().abs() > inches(8.0).si()
                {
                    problems.push(AimProblem::FarFromMeasured { measured: measured.value });
                }
            }
            Aim::RecoverSag { share, .. } if !(*share > 0.0 && *share <= 1.5) => problems.push(AimProblem::Share),
            Aim::Clearance { behind_rear_axle, measured, wanted, .. } => {
                let (furthest, most) = (survey.vehicle.wheelbase, inches(60.0));
                let nought = Length::default();
                let off = *behind_rear_axle < -furthest || *behind_rear_axle > furthest;
                if off || [measured, wanted].into_iter().any(|height| *height < nought || *height > most) {
                    problems.push(AimProblem::Clearance { furthest, most });
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
        let (distance, band) = (if self.at_least { -off.si() } else { off.si().abs() }, height.band().si());
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
