//! The survey: everything known of the vehicle in the bay before anything is judged.

mod class;
mod customer;
mod end;
mod item;
mod load;
mod shelf;
mod vehicle;

pub use class::{ASSUMED_RATE_SD, ASSUMED_TYRE_SD, ClassAssumptions, RearWheels, VehicleClass};
pub use customer::{Complaint, Modification};
pub use end::{End, Ends};
pub use item::{Centre, Item, place_sd, scale_sd};
pub use load::{AxleLoads, EmptyAndLoaded, LoadProblem, LoadPut};
pub use shelf::{Liquid, Thing};
pub use vehicle::{Basis, Tandem, VehicleFacts, VehicleProblem};

use serde::{Deserialize, Serialize};
use wise_badger_mechanics::side::Side;
use wise_badger_mechanics::tape::{AxleReadings, Datum, HeightReadings, ReadingPrecision};
use wise_badger_mechanics::uncertain::Uncertain;
use wise_badger_mechanics::units::{Force, Length, inches, metres};

/// Whether the load is on.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, Deserialize)]
#[serde(rename_all = "snake_case")]
pub enum LoadState {
    /// As it drives home empty.
    Empty,
    /// With what was put on.
    Loaded,
}

/// A thing for each of the two measured states.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct States<T> {
    /// Empty.
    pub empty: T,
    /// Loaded.
    pub loaded: T,
}

impl<T> States<T> {
    /// The one for `state`.
    pub fn get(&self, state: LoadState) -> &T {
        match state {
            LoadState::Empty => &self.empty,
            LoadState::Loaded => &self.loaded,
        }
    }

    /// A pair made state by state.
    pub fn from_fn(mut make: impl FnMut(LoadState) -> T) -> Self {
        States { empty: make(LoadState::Empty), loaded: make(LoadState::Loaded) }
    }
}

impl LoadState {
    /// Empty, then loaded.
    pub const BOTH: [LoadState; 2] = [LoadState::Empty, LoadState::Loaded];
}

/// A lean under this is within the tape, in inches.
pub const LEAN_SEEN_IN: f64 = 1.0 / 8.0;

/// Whether one side stands above the other by more than the tape explains.
pub fn is_a_lean(lean: Length) -> bool {
    // What reads as the limit itself must not fall to either side by rounding.
    lean.abs() > inches(LEAN_SEEN_IN) - metres(1e-6)
}

/// Everything measured and stated about one vehicle.
#[derive(Debug, Clone, PartialEq)]
pub struct Survey {
    /// The vehicle.
    pub vehicle: VehicleFacts,
    /// What the heights are measured from.
    pub datum: Datum,
    /// The heights read in either state.
    pub heights: States<HeightReadings>,
    /// What was put on between them.
    pub load: Option<LoadPut>,
    /// Clearance at the rear bump stops in either state, where read.
    pub stop_gap: States<Option<Length>>,
    /// Whether the vehicle was rolled and bounced before reading, so that the leaves came to rest.
    pub rolled_and_bounced: bool,
}

impl Survey {
    /// Mean height of an axle in a state.
    pub fn height(&self, end: End, state: LoadState) -> Option<Uncertain<Length>> {
        self.readings(end, state).height(&ReadingPrecision::shop_tape())
    }

    /// Everything read at an end in a state.
    pub fn readings(&self, end: End, state: LoadState) -> &AxleReadings {
        let readings = self.heights.get(state);
        match end {
            End::Front => &readings.front,
            End::Rear => &readings.rear,
        }
    }

    /// Height of one side of an end, where both were read: as sure as the axle's, and what its own side may be off beside that.
    pub fn side(&self, end: End, state: LoadState, side: Side) -> Option<Uncertain<Length>> {
        let sd = Length::hypot(self.height(end, state)?.sd, self.half_lean_sd(end, state)?);
        Some(Uncertain::new(self.readings(end, state).corner(side)?, sd))
    }

    /// Whether an end leans by more than the tape explains.
    pub fn leans(&self, end: End, state: LoadState) -> bool {
        self.lean(end, state).is_some_and(is_a_lean)
    }

    /// Standard deviation of half the lean of an end; `None` where one side was not read.
    pub fn half_lean_sd(&self, end: End, state: LoadState) -> Option<Length> {
        self.readings(end, state).half_lean_sd(&ReadingPrecision::shop_tape())
    }

    /// What the axles carry.
    pub fn axle_loads(&self) -> AxleLoads {
        self.load.as_ref().map_or_else(|| LoadPut::empty_loads(&self.vehicle), |load| load.axle_loads(&self.vehicle))
    }

    /// Whether what came aboard is known thing by thing, and no scale says otherwise.
    pub fn load_is_as_planned(&self) -> bool {
        let Some(LoadPut::Planned { items, scale }) = &self.load else { return false };
        let overridden = |end| scale.get(end).is_some() && self.vehicle.kerb.get(end).is_some();
        !items.is_empty() && !End::BOTH.into_iter().any(overridden)
    }

    /// The same vehicle with other things aboard in its loaded state, and what the tape read there set aside.
    pub fn in_case(&self, items: Vec<Item>, scale: Ends<Option<Force>>) -> Survey {
        let heights = States { empty: self.heights.empty.clone(), loaded: HeightReadings::default() };
        let stop_gap = States { loaded: None, ..self.stop_gap };
        Survey { load: Some(LoadPut::Planned { items, scale }), heights, stop_gap, ..self.clone() }
    }

    /// How far an axle came down when the load went on.
    pub fn drop(&self, end: End) -> Option<Uncertain<Length>> {
        let (empty, loaded) = (self.height(end, LoadState::Empty)?, self.height(end, LoadState::Loaded)?);
        Some(Uncertain::new(empty.value - loaded.value, Length::hypot(empty.sd, loaded.sd)))
    }

    /// Rear height less front height.
    pub fn rake(&self, state: LoadState) -> Option<Length> {
        Some(self.height(End::Rear, state)?.value - self.height(End::Front, state)?.value)
    }

    /// How much higher an axle's right side stands than its left.
    pub fn lean(&self, end: End, state: LoadState) -> Option<Length> {
        self.readings(end, state).lean()
    }

    /// Rear corners that stand higher loaded than empty by more than the tape explains: worth asking about.
    pub fn rear_corners_that_rose(&self) -> Vec<Side> {
        let tolerance = 2.0 * ReadingPrecision::shop_tape().tape;
        let rear = |state: LoadState, side| self.heights.get(state).rear.corner(side);
        Side::BOTH
            .into_iter()
            .filter(|side| match (rear(LoadState::Empty, *side), rear(LoadState::Loaded, *side)) {
                (Some(empty), Some(loaded)) => loaded > empty + tolerance,
                _ => false,
            })
            .collect()
    }
}
