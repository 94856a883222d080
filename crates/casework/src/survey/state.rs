//! The states that a vehicle was read in: empty, loaded, and as many more as a shop cares to read.

use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use wise_badger_mechanics::side::Sides;
use wise_badger_mechanics::tape::Repeats;
use wise_badger_mechanics::units::{Force, Length};

use super::end::End;
use super::load::LoadPut;

/// A state that a vehicle was read in.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord)]
pub enum LoadState {
    /// As it drives home empty.
    Empty,
    /// With what was put on.
    Loaded,
    /// One more, by its key in the job.
    Further(u8),
}

impl LoadState {
    /// The two that every job begins with.
    pub const BOTH: [LoadState; 2] = [LoadState::Empty, LoadState::Loaded];
}

/// Most states of a job beside the first two.
pub const MOST_FURTHER: u8 = 8;

/// A thing for each of the states of a job.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct States<T> {
    /// Empty.
    pub empty: T,
    /// Loaded.
    pub loaded: T,
    /// In every further state, by its key, in the order read.
    pub further: Vec<(u8, T)>,
}

impl<T> States<T> {
    /// Of a job with the first two states alone.
    pub fn of(empty: T, loaded: T) -> Self {
        States { empty, loaded, further: Vec::new() }
    }

    /// The one for `state`; `None` for a state that the job does not have.
    pub fn get(&self, state: LoadState) -> Option<&T> {
        match state {
            LoadState::Empty => Some(&self.empty),
            LoadState::Loaded => Some(&self.loaded),
            LoadState::Further(key) => self.further.iter().find(|(of, _)| *of == key).map(|(_, it)| it),
        }
    }

    /// One for each state, made state by state; `further` are the keys of those beside the first two.
    pub fn from_fn(further: impl IntoIterator<Item = u8>, mut make: impl FnMut(LoadState) -> T) -> Self {
        let (empty, loaded) = (make(LoadState::Empty), make(LoadState::Loaded));
        States { empty, loaded, further: further.into_iter().map(|key| (key, make(LoadState::Further(key)))).collect() }
    }

    /// Each with its state, in the order read.
    pub fn each(&self) -> impl Iterator<Item = (LoadState, &T)> {
        let first = [(LoadState::Empty, &self.empty), (LoadState::Loaded, &self.loaded)];
        first.into_iter().chain(self.further.iter().map(|(key, it)| (LoadState::Further(*key), it)))
    }
}

/// How a vehicle was brought to rest before it was read.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Default, Serialize, Deserialize, JsonSchema)]
#[serde(rename_all = "snake_case")]
pub enum Manner {
    /// As it stood: nobody said.
    #[default]
    AsItStood,
    /// Rolled and bounced, so that the leaves came to rest.
    Rolled,
    /// Pressed down by hand and let come up: friction holds it low.
    PressedDown,
    /// Lifted and let come down: friction holds it high.
    Lifted,
}

impl Manner {
    /// Whether leaf friction had it stand to one side of where it would come to rest.
    pub fn is_held_by_friction(self) -> bool {
        matches!(self, Manner::PressedDown | Manner::Lifted)
    }
}

/// What is aboard in a state beside the first two.
#[derive(Debug, Clone, PartialEq)]
pub enum FurtherLoad {
    /// What another state carries, and perhaps a weight more.
    Over {
        /// That state.
        state: LoadState,
        /// The weight, and how far behind the rear axle it sits.
        more: Option<(Force, Length)>,
    },
    /// A load of its own.
    Put(LoadPut),
    /// A case of the plan that the plan no longer has, or in which nothing comes aboard.
    NotKnown,
}

/// A state beside the first two.
#[derive(Debug, Clone, PartialEq)]
pub struct FurtherState {
    /// Its key in the job.
    pub key: u8,
    /// What the shop calls it.
    pub name: String,
    /// What is aboard.
    pub load: FurtherLoad,
    /// Whether that is a weight put on for the reading alone, which the vehicle does not carry in use.
    pub test_weight: bool,
}

/// Clearances at the bump stops, corner by corner, where they were read.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct Gaps {
    /// In front.
    pub front: Sides<Option<Length>>,
    /// At the rear; of a trailer, alike on all its axles.
    pub rear: Sides<Option<Length>>,
}

impl Gaps {
    /// The same on both sides of the rear, and none read in front.
    pub fn at_the_rear(gap: Length) -> Self {
        Gaps { rear: Sides::both(Some(gap)), ..Gaps::default() }
    }

    /// The mean of those read at an end: where the axle's middle stands to its stops.
    pub fn mean(&self, end: End) -> Option<Length> {
        let sides = if end == End::Front { self.front } else { self.rear };
        let read: Vec<Length> = [sides.left, sides.right].into_iter().flatten().collect();
        Repeats::of(&read).map(|repeats| repeats.mean)
    }

    /// The least at an end: the stop that bears first.
    pub fn least(&self, end: End) -> Option<Length> {
        let sides = if end == End::Front { self.front } else { self.rear };
        [sides.left, sides.right].into_iter().flatten().reduce(Length::min)
    }
}
