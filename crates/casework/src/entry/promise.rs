//! A promise: what was said of an option when it was chosen, and all that it was said from.

use schemars::JsonSchema;
use serde::{Deserialize, Serialize};

use super::{MoneyEntry, OptionEntry, PredictedFurther, PredictedHeight, PredictedHeights, PredictedSides};
use crate::survey::{End, LoadState};

/// What was promised.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct PromiseEntry {
    /// The program that worked it out.
    pub program: String,
    /// The option, with its parts and settings as they were.
    pub option: OptionEntry,
    /// Every mark that was predicted, with its band.
    pub marks: Vec<PromisedMark>,
    /// What the readings said of the springs then; nothing where they gave no rate.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub rear_rate: Option<PromisedRate>,
    /// The job as it was known then, without its promise; nothing of a promise made before inputs were recorded.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub inputs: Option<serde_json::Value>,
    /// What it was to cost, where that was said.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub price: Option<MoneyEntry>,
}

impl PromiseEntry {
    /// The marks as a proof is held against them.
    pub fn heights(&self) -> PredictedHeights {
        let mark = |end, state, side: Option<PromisedSide>| {
            let of = |mark: &&PromisedMark| mark.end == end && mark.state == state && mark.side == side;
            self.marks.iter().find(of).map(|mark| mark.height)
        };
        let states = self.marks.iter().map(|mark| mark.state).fold(Vec::new(), |mut states, state| {
            if !states.contains(&state) {
                states.push(state);
            }
            states
        });
        let sides = |end, state| {
            let [left, right] = [PromisedSide::Left, PromisedSide::Right].map(|side| mark(end, state, Some(side)));
            left.zip(right).map(|(left, right)| PredictedSides { end, state, left, right })
        };
        let further = |state: &LoadState| {
            let rear = mark(End::Rear, *state, None)?;
            Some(PredictedFurther { state: *state, front: mark(End::Front, *state, None), rear })
        };
        PredictedHeights {
            front_empty: mark(End::Front, LoadState::Empty, None),
            rear_empty: mark(End::Rear, LoadState::Empty, None),
            front_loaded: mark(End::Front, LoadState::Loaded, None),
            rear_loaded: mark(End::Rear, LoadState::Loaded, None),
            sides: states.iter().flat_map(|state| End::BOTH.map(|end| sides(end, *state))).flatten().collect(),
            further: states.iter().filter(|state| matches!(state, LoadState::Further(_))).filter_map(further).collect(),
        }
    }
}

/// The marks of heights, each by itself.
pub fn marks_of(heights: &PredictedHeights, states: impl IntoIterator<Item = LoadState>) -> Vec<PromisedMark> {
    let mut marks = Vec::new();
    for state in states {
        for end in End::BOTH {
            let mean = heights.get(end, state).map(|height| PromisedMark { end, side: None, state, height });
            let sides = heights.sides.iter().find(|sides| sides.end == end && sides.state == state);
            let each = sides.map(|sides| [(PromisedSide::Left, sides.left), (PromisedSide::Right, sides.right)]);
            marks.extend(mean);
            marks.extend(each.into_iter().flatten().map(|(side, height)| PromisedMark { end, side: Some(side), state, height }));
        }
    }
    marks
}

/// A height that was promised.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct PromisedMark {
    /// Of which end.
    pub end: End,
    /// Of which side; the mean of both where it is left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub side: Option<PromisedSide>,
    /// In which state.
    pub state: LoadState,
    /// The height, and half the width of its band.
    pub height: PredictedHeight,
}

/// A side of a vehicle.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, JsonSchema)]
#[serde(rename_all = "snake_case")]
pub enum PromisedSide {
    /// The left.
    Left,
    /// The right.
    Right,
}

/// The rear rate behind a promise.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct PromisedRate {
    /// All rear springs together, N/m.
    pub rate_n_per_m: f64,
    /// Its standard deviation as a share of it.
    pub relative_sd: f64,
}
