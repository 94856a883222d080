//! The states that a vehicle was read in, as typed: what is aboard in each, how it was brought to rest, and what was looked at
//! beside the figures.

use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use wise_badger_mechanics::units::Length;

use super::{LoadEntry, LoadPlanEntry, Typed};
use crate::survey::{FurtherLoad, FurtherState, LoadState, Manner};

/// What the tape was put to.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct TapeSheetEntry {
    /// Every state, in the order read: empty, loaded, and those beside them.
    pub states: Vec<StateEntry>,
    /// Points of the body, each read in any of the states.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub points: Vec<PointEntry>,
}

/// A state.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct StateEntry {
    /// Which.
    pub state: LoadState,
    /// What the shop calls it; empty and loaded go by their own names.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub name: String,
    /// What is aboard beside what is always there.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub load: Option<LoadEntry>,
    /// Whether that is a weight put on for the reading alone.
    #[serde(default, skip_serializing_if = "is_not")]
    pub test_weight: bool,
    /// How the vehicle was brought to rest.
    #[serde(default)]
    pub manner: Manner,
    /// The floor, in words.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub floor: String,
    /// Fuel in the tank, in words.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub fuel: String,
    /// Where the overload leaves bear.
    #[serde(default, skip_serializing_if = "ContactEntry::is_not_looked_at")]
    pub contact: ContactEntry,
}

/// Whether the halves of the overload leaves bear; nothing where nobody looked.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields, default)]
pub struct ContactEntry {
    /// Left pack, the half ahead of the axle.
    pub left_front: Option<bool>,
    /// Left pack, the half behind it.
    pub left_rear: Option<bool>,
    /// Right pack, the half ahead of the axle.
    pub right_front: Option<bool>,
    /// Right pack, the half behind it.
    pub right_rear: Option<bool>,
}

/// A point of the body.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct PointEntry {
    /// What it is called.
    pub name: String,
    /// How far from the rear axle.
    pub distance: Typed,
    /// Whether that is ahead of the axle.
    pub ahead: bool,
    /// How far from the middle.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub lateral: Option<Typed>,
    /// Whether that is to the left.
    #[serde(default, skip_serializing_if = "is_not")]
    pub left: bool,
    /// Its height above the ground, by state.
    pub heights: Vec<PointHeightEntry>,
}

/// A point's height in a state.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct PointHeightEntry {
    /// In which state.
    pub state: LoadState,
    /// Above the ground.
    pub height: Typed,
}

/// Most points of a job.
pub const MOST_POINTS: usize = 8;

#[expect(clippy::trivially_copy_pass_by_ref, reason = "as serde asks it")]
fn is_not(flag: &bool) -> bool {
    !flag
}

impl Default for TapeSheetEntry {
    fn default() -> Self {
        TapeSheetEntry { states: LoadState::BOTH.map(StateEntry::of).into(), points: Vec::new() }
    }
}

impl ContactEntry {
    /// Whether any half bears; nothing where nobody looked at any.
    pub fn bears(&self) -> Option<bool> {
        let halves = [self.left_front, self.left_rear, self.right_front, self.right_rear];
        halves.into_iter().flatten().reduce(|one, other| one || other)
    }

    fn is_not_looked_at(&self) -> bool {
        *self == ContactEntry::default()
    }
}

impl StateEntry {
    /// A state of which nothing is said.
    pub fn of(state: LoadState) -> Self {
        StateEntry {
            state,
            name: String::new(),
            load: None,
            test_weight: false,
            manner: Manner::default(),
            floor: String::new(),
            fuel: String::new(),
            contact: ContactEntry::default(),
        }
    }
}

impl PointEntry {
    /// How far behind the rear axle it is.
    pub fn behind_rear_axle(&self) -> Length {
        if self.ahead { -self.distance.length() } else { self.distance.length() }
    }

    /// Its height in a state, where it was read.
    pub fn height(&self, state: LoadState) -> Option<&Typed> {
        self.heights.iter().find(|read| read.state == state).map(|read| &read.height)
    }
}

impl TapeSheetEntry {
    /// A state, where the job has it.
    pub fn state(&self, state: LoadState) -> Option<&StateEntry> {
        self.states.iter().find(|entry| entry.state == state)
    }

    /// The same with what is aboard in a state.
    #[must_use]
    pub fn with_load(mut self, state: LoadState, load: Option<LoadEntry>) -> Self {
        match self.states.iter_mut().find(|entry| entry.state == state) {
            Some(entry) => entry.load = load,
            None => self.states.push(StateEntry { load, ..StateEntry::of(state) }),
        }
        self
    }

    /// What was put on between empty and loaded.
    pub fn load(&self) -> Option<&LoadEntry> {
        self.state(LoadState::Loaded)?.load.as_ref()
    }

    /// The keys of the states beside empty and loaded, in the order read.
    pub fn further_keys(&self) -> impl Iterator<Item = u8> {
        self.states.iter().filter_map(|entry| match entry.state {
            LoadState::Further(key) => Some(key),
            LoadState::Empty | LoadState::Loaded => None,
        })
    }

    /// The states beside empty and loaded, as the mechanics take them.
    pub fn further(&self, plan: Option<&LoadPlanEntry>) -> Vec<FurtherState> {
        let further = |entry: &StateEntry| {
            let LoadState::Further(key) = entry.state else { return None };
            let load = entry.load.as_ref().map_or(FurtherLoad::NotKnown, |load| load.further(plan));
            Some(FurtherState { key, name: entry.name.clone(), load, test_weight: entry.test_weight })
        };
        self.states.iter().filter_map(further).collect()
    }
}
