//! The aim of a job, as typed: a list of goals.

use schemars::JsonSchema;
use serde::{Deserialize, Serialize};

use super::{TapeSheetEntry, Typed};
use crate::aim::{Aim, GoalCase, GoalMark, MarkGoal, Way};
use crate::survey::{End, LoadState};
use wise_badger_mechanics::units::Length;

/// What a job is to come to.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct AimSheet {
    /// What is wanted; the first is the height policy that the job's screens go by.
    pub goals: Vec<GoalEntry>,
    /// Which of them matters most, by its place.
    #[serde(default)]
    pub most: usize,
    /// How far one side may stand above the other, where the customer cares.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub side_to_side: Option<Typed>,
}

/// Most goals of a job.
pub const MOST_GOALS: usize = 8;

/// A goal, as typed.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(tag = "kind", rename_all = "snake_case", deny_unknown_fields)]
pub enum GoalEntry {
    /// Level when loaded, with a rake.
    LevelLoaded {
        /// Rear above front.
        rake: Typed,
        /// How far off still counts.
        tolerance: Typed,
    },
    /// Level when empty.
    LevelEmpty {
        /// How far off still counts.
        tolerance: Typed,
    },
    /// Back to a stated height.
    StockHeight {
        /// The rear's height.
        rear: Typed,
        /// How far off still counts.
        tolerance: Typed,
    },
    /// At least part of the sag back.
    RecoverSag {
        /// The share, in hundredths.
        percent: f64,
        /// How far short still counts.
        tolerance: Typed,
    },
    /// At least a clearance under a point.
    Clearance {
        /// What the point is called.
        point: String,
        /// How far from the rear axle.
        distance: Typed,
        /// Whether that is ahead of the axle.
        ahead: bool,
        /// What was measured under it, loaded.
        measured: Typed,
        /// What is wanted.
        wanted: Typed,
        /// How far short still counts.
        tolerance: Typed,
    },
    /// A mark at a height, in any state or case.
    Mark {
        /// What.
        mark: MarkEntry,
        /// When.
        when: WhenEntry,
        /// Whether more, or less, is as good.
        way: WayWord,
        /// How high.
        height: Typed,
        /// How far off still counts.
        tolerance: Typed,
    },
}

/// What a goal is about.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, JsonSchema)]
#[serde(rename_all = "snake_case")]
pub enum MarkEntry {
    /// Mean of the front.
    Front,
    /// Mean of the rear.
    Rear,
    /// Rear above front.
    Rake,
    /// Right above left, in front.
    LeanFront,
    /// Right above left, at the rear.
    LeanRear,
    /// The hitch: where a ball stands.
    Hitch,
    /// A point of the body, by the name it has on Tape.
    Point(String),
}

/// When a goal is to hold.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, JsonSchema)]
#[serde(rename_all = "snake_case")]
pub enum WhenEntry {
    /// In a state that is read.
    State(LoadState),
    /// In a case of the load plan, by its key.
    Case(u8),
}

/// Whether more or less than what is wanted is as good.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, JsonSchema)]
#[serde(rename_all = "snake_case")]
pub enum WayWord {
    /// Neither is.
    Within,
    /// More is.
    AtLeast,
    /// Less is.
    AtMost,
}

impl WayWord {
    /// Every one, in the order offered.
    pub const ALL: [WayWord; 3] = [WayWord::Within, WayWord::AtLeast, WayWord::AtMost];

    /// As it is judged.
    pub fn way(self) -> Way {
        match self {
            WayWord::Within => Way::Within,
            WayWord::AtLeast => Way::AtLeast,
            WayWord::AtMost => Way::AtMost,
        }
    }
}

impl From<GoalEntry> for AimSheet {
    fn from(goal: GoalEntry) -> Self {
        AimSheet { goals: vec![goal], most: 0, side_to_side: None }
    }
}

impl GoalEntry {
    /// As it is judged; `None` where its point is no longer on Tape, or nobody said where the hitch is.
    ///
    /// `overhang` is how far behind the rear axle the hitch is.
    pub fn aim(&self, tape: &TapeSheetEntry, overhang: Option<Length>) -> Option<Aim> {
        Some(match self {
            GoalEntry::LevelLoaded { rake, tolerance } => Aim::LevelLoaded { rake: rake.length(), tolerance: tolerance.length() },
            GoalEntry::LevelEmpty { tolerance } => Aim::LevelEmpty { tolerance: tolerance.length() },
            GoalEntry::StockHeight { rear, tolerance } => Aim::StockHeight { rear: rear.length(), tolerance: tolerance.length() },
            GoalEntry::RecoverSag { percent, tolerance } => {
                Aim::RecoverSag { share: percent / 100.0, tolerance: tolerance.length() }
            }
            GoalEntry::Clearance { distance, ahead, measured, wanted, tolerance, .. } => Aim::Clearance {
                behind_rear_axle: if *ahead { -distance.length() } else { distance.length() },
                measured: measured.length(),
                wanted: wanted.length(),
                tolerance: tolerance.length(),
            },
            GoalEntry::Mark { mark, when, way, height, tolerance } => Aim::Mark(MarkGoal {
                mark: mark.mark(tape, overhang)?,
                when: match when {
                    WhenEntry::State(state) => GoalCase::State(*state),
                    WhenEntry::Case(key) => GoalCase::Planned(*key),
                },
                way: way.way(),
                height: height.length(),
                tolerance: tolerance.length(),
            }),
        })
    }
}

impl MarkEntry {
    fn mark(&self, tape: &TapeSheetEntry, overhang: Option<Length>) -> Option<GoalMark> {
        Some(match self {
            MarkEntry::Front => GoalMark::Front,
            MarkEntry::Rear => GoalMark::Rear,
            MarkEntry::Rake => GoalMark::Rake,
            MarkEntry::LeanFront => GoalMark::Lean(End::Front),
            MarkEntry::LeanRear => GoalMark::Lean(End::Rear),
            MarkEntry::Hitch => GoalMark::Point { behind_rear_axle: overhang?, place: None },
            MarkEntry::Point(name) => {
                let place = tape.points.iter().position(|point| point.name == *name)?;
                GoalMark::Point { behind_rear_axle: tape.points.get(place)?.behind_rear_axle(), place: Some(place) }
            }
        })
    }
}
