//! The aim of a job: what height is right, and whether a height meets it.

use crate::bounds::{RAKE, RIDE_HEIGHT, TOLERANCE};
use crate::prediction::{CaseHeights, PredictedState};
use crate::survey::{End, Ends, LoadState, Survey};
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
    /// A mark at a height, in any state or case.
    Mark(MarkGoal),
}

/// A mark that is to stand at a height.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct MarkGoal {
    /// What.
    pub mark: GoalMark,
    /// When.
    pub when: GoalCase,
    /// Whether more, or less, is as good.
    pub way: Way,
    /// How high; of a rake or a lean, by how much one stands above the other.
    pub height: Length,
    /// How far off still counts.
    pub tolerance: Length,
}

/// What a goal is about.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum GoalMark {
    /// Mean of the front, from the job's datum.
    Front,
    /// Mean of the rear.
    Rear,
    /// Rear above front.
    Rake,
    /// Right above left, at an end.
    Lean(End),
    /// A point of the body above the ground: what it stood at in each state is the job's to say.
    Point {
        /// How far behind the rear axle it is.
        behind_rear_axle: Length,
        /// Its place among the job's points; `None` is the hitch.
        place: Option<usize>,
    },
}

/// When a goal is to hold.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum GoalCase {
    /// In a state that is read.
    State(LoadState),
    /// In a case of the load plan, by its key.
    Planned(u8),
}

/// Whether more or less than what is wanted is as good.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub enum Way {
    /// Neither is.
    #[default]
    Within,
    /// More is.
    AtLeast,
    /// Less is.
    AtMost,
}

/// Where both ends stand, as far as that is known, predicted or read.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct Stands {
    /// Front.
    pub front: Option<Uncertain<Length>>,
    /// Rear.
    pub rear: Option<Uncertain<Length>>,
    /// Right above left, at either end.
    pub lean: Ends<Option<Uncertain<Length>>>,
    /// How far the front and the rear rose since the point of a goal was read, and what it read then.
    pub point: Option<PointRise>,
}

/// What moved a point of the body.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct PointRise {
    /// What was read of it.
    pub read: Length,
    /// By how much the front has risen since.
    pub front: Uncertain<Length>,
    /// By how much the rear has.
    pub rear: Uncertain<Length>,
}

/// A band on the rear ruler.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct TargetBand {
    /// Its middle.
    pub height: Length,
    /// Half its width.
    pub tolerance: Length,
    /// Whether anything above it, or below it, is as good.
    pub way: Way,
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
    /// A height that no mark of a vehicle stands at.
    Height,
    /// A stock height further from the measured one than any spring brings it back.
    FarFromMeasured {
        /// What was measured.
        measured: Length,
    },
}

impl Aim {
    /// The state the aim is about; a goal in a case of the plan that nobody read is about the loaded vehicle.
    pub fn state(&self) -> LoadState {
        match self {
            Aim::Mark(MarkGoal { when: GoalCase::State(state), .. }) => *state,
            Aim::Mark(MarkGoal { when: GoalCase::Planned(_), .. }) => LoadState::Loaded,
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
            | Aim::Clearance { tolerance, .. }
            | Aim::Mark(MarkGoal { tolerance, .. }) => *tolerance,
        }
    }

    /// Where the rear should stand, in the aim's state; `None` while a height it hangs on is not read, and of a goal that says nothing
    /// of the rear's height.
    ///
    /// A point `o` behind the rear axle moves by `1 + o/L` of what the axle moves, `L` the wheelbase, the front standing
    /// still: `rear = rear now + (wanted − measured)/(1 + o/L)`.
    ///
    /// # Source     similar triangles
    pub fn target(&self, survey: &Survey) -> Option<TargetBand> {
        self.target_over(survey.height(End::Front, self.state()).map(|height| height.value), survey)
    }

    /// The same over a front that stands elsewhere than it was read, as with something fitted there.
    pub fn target_over(&self, front: Option<Length>, survey: &Survey) -> Option<TargetBand> {
        let rear_loaded = || survey.height(End::Rear, LoadState::Loaded).map(|height| height.value);
        let height = match self {
            Aim::LevelLoaded { rake, .. } => front? + *rake,
            Aim::LevelEmpty { .. } => front?,
            Aim::StockHeight { rear, .. } => *rear,
            Aim::RecoverSag { share, .. } => rear_loaded()? + *share * survey.drop(End::Rear)?.value,
            Aim::Clearance { behind_rear_axle, measured, wanted, .. } => {
                let lever = 1.0 + behind_rear_axle.si() / survey.vehicle.wheelbase.si();
                rear_loaded()? + (*wanted - *measured) / lever
            }
            Aim::Mark(goal) => match (goal.mark, goal.when) {
                (GoalMark::Rear, GoalCase::State(_)) => goal.height,
                (GoalMark::Rake, GoalCase::State(_)) => front? + goal.height,
                _ => return None,
            },
        };
        Some(TargetBand { height, tolerance: self.tolerance(), way: self.way() })
    }

    /// Whether more, or less, than what is wanted is as good.
    pub fn way(&self) -> Way {
        match self {
            Aim::LevelLoaded { .. } | Aim::LevelEmpty { .. } | Aim::StockHeight { .. } => Way::Within,
            Aim::RecoverSag { .. } | Aim::Clearance { .. } => Way::AtLeast,
            Aim::Mark(goal) => goal.way,
        }
    }

    /// When the goal is to hold.
    pub fn when(&self) -> GoalCase {
        match self {
            Aim::Mark(goal) => goal.when,
            _ => GoalCase::State(self.state()),
        }
    }

    /// What the goal is about, and what is wanted of it; `None` while a height that it hangs on is not read.
    pub fn wanted(&self, survey: &Survey) -> Option<(GoalMark, TargetBand)> {
        match self {
            Aim::Mark(goal) => Some((goal.mark, TargetBand { height: goal.height, tolerance: goal.tolerance, way: goal.way })),
            // Front and rear together tell a rake, whichever of them is moved.
            Aim::LevelLoaded { rake, tolerance } => {
                Some((GoalMark::Rake, TargetBand { height: *rake, tolerance: *tolerance, way: Way::Within }))
            }
            Aim::LevelEmpty { tolerance } => {
                Some((GoalMark::Rake, TargetBand { height: metres(0.0), tolerance: *tolerance, way: Way::Within }))
            }
            _ => Some((GoalMark::Rear, self.target(survey)?)),
        }
    }

    /// Whether what stands meets the goal; `None` where what it is about is not known.
    pub fn judge(&self, survey: &Survey, stands: &Stands, step: Length) -> Option<AimVerdict> {
        let (mark, band) = self.wanted(survey)?;
        Some(band.judge(mark.of(survey, stands)?.in_steps_of(step)))
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
            Aim::Mark(MarkGoal { mark: GoalMark::Rake | GoalMark::Lean(_), height, .. }) if !RAKE.holds(height.si()) => {
                problems.push(AimProblem::Rake);
            }
            Aim::Mark(MarkGoal { mark: GoalMark::Front | GoalMark::Rear | GoalMark::Point { .. }, height, .. })
                if !RIDE_HEIGHT.holds(height.si()) =>
            {
                problems.push(AimProblem::Height);
            }
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

impl GoalMark {
    /// What it stands at.
    ///
    /// A point `o` behind the rear axle rises by `(1 + o/L)` of what the rear does and `−o/L` of what the front does, `L` the
    /// wheelbase.
    ///
    /// # Source     similar triangles
    pub fn of(&self, survey: &Survey, stands: &Stands) -> Option<Uncertain<Length>> {
        let above = |low: Uncertain<Length>, high: Uncertain<Length>| {
            Uncertain::new(high.value - low.value, Length::hypot(low.sd, high.sd))
        };
        match self {
            GoalMark::Front => stands.front,
            GoalMark::Rear => stands.rear,
            GoalMark::Rake => Some(above(stands.front?, stands.rear?)),
            GoalMark::Lean(end) => *stands.lean.get(*end),
            GoalMark::Point { behind_rear_axle, .. } => {
                let PointRise { read, front, rear } = stands.point?;
                let overhang = behind_rear_axle.si() / survey.vehicle.wheelbase.si();
                let value = read + rear.value * (1.0 + overhang) - front.value * overhang;
                Some(Uncertain::new(value, Length::hypot(rear.sd * (1.0 + overhang).abs(), front.sd * overhang.abs())))
            }
        }
    }
}

impl Stands {
    /// As predicted with a correction fitted.
    pub fn predicted(state: &PredictedState) -> Self {
        Stands { front: state.front, rear: Some(state.rear), lean: state.lean, point: None }
    }

    /// As predicted in a case of the load plan.
    pub fn in_case(case: &CaseHeights) -> Self {
        let lean = Ends { front: None, rear: case.rear_lean };
        Stands { front: case.front, rear: Some(case.rear), lean, point: None }
    }

    /// As read.
    pub fn read(survey: &Survey, state: LoadState) -> Self {
        let lean = |end| {
            let half_sd = survey.half_lean_sd(end, state)?;
            Some(Uncertain::new(survey.lean(end, state)?, 2.0 * half_sd))
        };
        Stands {
            front: survey.height(End::Front, state),
            rear: survey.height(End::Rear, state),
            lean: Ends::from_fn(lean),
            point: None,
        }
    }
}

/// The first two goals that cannot both hold, by their places: two bands on one mark in one state or case that do not meet, or front,
/// rear and rake of which the third denies the other two.
pub fn contradiction(goals: &[Aim], survey: &Survey) -> Option<(usize, usize)> {
    let bands = goals.iter().enumerate().filter_map(|(place, goal)| {
        let (mark, band) = goal.wanted(survey)?;
        Some((place, mark, goal.when(), band.range()))
    });
    let bands: Vec<_> = bands.collect();
    for (later, (place, mark, when, (low, high))) in bands.iter().enumerate() {
        for (before, other, other_when, (other_low, other_high)) in bands.iter().take(later) {
            if mark == other && when == other_when && (low > other_high || other_low > high) {
                return Some((*before, *place));
            }
        }
        // Rake = rear − front: what the other two allow must meet it.
        let of = |wanted: GoalMark| bands.iter().find(|(_, mark, at, _)| *mark == wanted && at == when);
        if let (Some((front_at, _, _, front)), Some((rear_at, _, _, rear)), Some((rake_at, _, _, rake))) =
            (of(GoalMark::Front), of(GoalMark::Rear), of(GoalMark::Rake))
            && (rear.0 - front.1 > rake.1 || rear.1 - front.0 < rake.0)
        {
            let mut places = [*front_at, *rear_at, *rake_at];
            places.sort_unstable();
            return Some((places[1], places[2]));
        }
    }
    None
}

impl TargetBand {
    /// The least and the most that meets it, in metres.
    pub(crate) fn range(&self) -> (f64, f64) {
        let (low, high) = ((self.height - self.tolerance).si(), (self.height + self.tolerance).si());
        match self.way {
            Way::Within => (low, high),
            Way::AtLeast => (low, f64::INFINITY),
            Way::AtMost => (f64::NEG_INFINITY, high),
        }
    }

    /// Whether a height meets it.
    pub fn holds(&self, height: Length) -> bool {
        let (low, high) = self.range();
        let rounding = metres(1e-6).si();
        (low - rounding..=high + rounding).contains(&height.si())
    }

    /// Whether half of a height's band or more lies within what meets it: with less, its middle alone promises nothing.
    fn holds_half_of(&self, height: Uncertain<Length>) -> bool {
        let ((low, high), middle, band) = (self.range(), height.value.si(), height.band().si());
        (middle + band).min(high) - (middle - band).max(low) >= band - metres(1e-6).si()
    }

    /// Judges a rear height against the band.
    pub fn judge(&self, height: Uncertain<Length>) -> AimVerdict {
        let off = height.value - self.height;
        let distance = match self.way {
            Way::Within => off.si().abs(),
            Way::AtLeast => -off.si(),
            Way::AtMost => off.si(),
        };
        let band = height.band().si();
        // A tape reads no finer than this; equal figures must not differ by rounding.
        let tolerance = self.tolerance.si() + metres(1e-6).si();
        if distance + band <= tolerance {
            AimVerdict::Meets
        } else if distance <= tolerance && self.holds_half_of(height) {
            AimVerdict::LikelyMeets
        } else if distance - band <= tolerance {
            AimVerdict::MayMiss { off }
        } else {
            AimVerdict::Misses { off }
        }
    }
}
