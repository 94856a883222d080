//! The survey: everything known of the vehicle in the bay before anything is judged.

mod basis;
mod class;
mod customer;
mod end;
mod fit;
mod item;
mod load;
mod overload_leaf;
mod spring;
mod state;
mod things;
mod vehicle;

pub use basis::Basis;
pub use class::{ASSUMED_RATE_SD, ASSUMED_TYRE_SD, ClassAssumptions, RearWheels, VehicleClass};
pub use customer::{Complaint, Modification};
pub use end::{End, Ends};
pub use fit::NoFit;
pub use item::{Centre, Item, place_sd, scale_sd};
pub use load::{AxleLoads, EmptyAndLoaded, LoadProblem, LoadPut};
pub use overload_leaf::{OverloadLeaves, SecondStage};
pub use spring::{PartThere, SpringKind};
pub use state::{FurtherLoad, FurtherState, Gaps, LoadState, MOST_FURTHER, Manner, States};
pub use things::{Liquid, Thing};
pub use vehicle::{Tandem, VehicleFacts, VehicleProblem};

use wise_badger_mechanics::side::{Side, Sides};
use wise_badger_mechanics::tape::{AxleReadings, Datum, HeightReadings, ReadingPrecision};
use wise_badger_mechanics::uncertain::Uncertain;
use wise_badger_mechanics::units::{Force, Length, inches, metres};

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
    /// Clearances at the bump stops in each state, where read.
    pub stop_gap: States<Gaps>,
    /// How the vehicle was brought to rest in each state before it was read.
    pub manner: States<Manner>,
    /// The states beside empty and loaded, in the order read.
    pub further: Vec<FurtherState>,
    /// What was seen of the overload leaves.
    pub overload_leaves: OverloadLeaves,
    /// Whether what was put on is a weight for the reading alone.
    pub test_weight: bool,
    /// What somebody saw of leaves and stops that bears on how the readings are to be taken.
    pub seen: Seen,
}

/// What somebody saw, or the customer said, that bears on how the readings are to be taken.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub struct Seen {
    /// The rear leaves rub on each other dry or rusty: friction holds them further off.
    pub dry_leaves: bool,
    /// The bump stops have been hitting.
    pub stops_hit: bool,
}

/// What was not read.
static NOTHING_READ: AxleReadings = AxleReadings { corners: Sides { left: Vec::new(), right: Vec::new() } };

impl Survey {
    /// Every state of the job, in the order read.
    pub fn states(&self) -> impl Iterator<Item = LoadState> {
        LoadState::BOTH.into_iter().chain(self.further.iter().map(|further| LoadState::Further(further.key)))
    }

    /// What is known of a state beside the first two.
    pub fn further(&self, state: LoadState) -> Option<&FurtherState> {
        self.further.iter().find(|further| LoadState::Further(further.key) == state)
    }

    /// How it was brought to rest in a state.
    pub fn manner(&self, state: LoadState) -> Manner {
        self.manner.get(state).copied().unwrap_or_default()
    }

    /// Clearance at the rear bump stops in a state, where it was read: of the side that bears first.
    pub fn gap(&self, state: LoadState) -> Option<Length> {
        self.stop_gap.get(state)?.least(End::Rear)
    }

    /// Both sides of it, where they were read and differ.
    pub fn gaps_that_differ(&self, state: LoadState) -> Option<Sides<Length>> {
        let read = self.stop_gap.get(state)?.rear;
        let sides = Sides { left: read.left?, right: read.right? };
        ((sides.left - sides.right).abs() > ReadingPrecision::shop_tape().tape / 2.0).then_some(sides)
    }

    /// The same of the middle of the rear axle, as a reading: what it changes by is what the rear springs come down.
    pub fn middle_gap(&self, state: LoadState) -> Option<Uncertain<Length>> {
        let tape = self.middle_gap_by_tape(state)?;
        Some(Uncertain::new(tape.value, Length::hypot(tape.sd, ReadingPrecision::shop_tape().settling)))
    }

    /// The same with the tape's own doubt alone: how the vehicle settled, it has in common with the heights of the state.
    pub fn middle_gap_by_tape(&self, state: LoadState) -> Option<Uncertain<Length>> {
        let gap = self.stop_gap.get(state)?.mean(End::Rear)?;
        Some(Uncertain::new(gap, ReadingPrecision::shop_tape().tape))
    }

    /// Mean height of an axle in a state with the tape's own doubt alone.
    pub fn height_by_tape(&self, end: End, state: LoadState) -> Option<Uncertain<Length>> {
        self.readings(end, state).height(&ReadingPrecision { settling: Length::default(), ..ReadingPrecision::shop_tape() })
    }

    /// Mean height of an axle in a state.
    pub fn height(&self, end: End, state: LoadState) -> Option<Uncertain<Length>> {
        self.readings(end, state).height(&ReadingPrecision::shop_tape())
    }

    /// Everything read at an end in a state.
    pub fn readings(&self, end: End, state: LoadState) -> &AxleReadings {
        self.heights.get(state).map_or(&NOTHING_READ, |readings| match end {
            End::Front => &readings.front,
            End::Rear => &readings.rear,
        })
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

    /// What the axles carry in a state; `None` where what is aboard in it is not known.
    pub fn axle_loads_in(&self, state: LoadState) -> Option<AxleLoads> {
        match (state, self.further(state).map(|further| &further.load)) {
            (LoadState::Empty, _) => Some(AxleLoads { change: Ends { front: None, rear: None }, ..self.axle_loads() }),
            (LoadState::Loaded, _) => self.load.as_ref().map(|load| load.axle_loads(&self.vehicle)),
            (LoadState::Further(_), Some(FurtherLoad::Put(put))) => Some(put.axle_loads(&self.vehicle)),
            (LoadState::Further(_), Some(FurtherLoad::Over { state: under, more })) if self.precedes(*under, state) => {
                let under = self.axle_loads_in(*under)?;
                Some(match more {
                    Some((weight, behind_rear_axle)) => under.and_more(*weight, *behind_rear_axle, &self.vehicle),
                    None => under,
                })
            }
            (LoadState::Further(_), _) => None,
        }
    }

    /// Whether a state was read before another: only on such a one can the other's load stand.
    pub fn precedes(&self, before: LoadState, state: LoadState) -> bool {
        let place = |of| self.states().position(|state| state == of);
        place(before).zip(place(state)).is_some_and(|(before, at)| before < at)
    }

    /// What was put on in a state; of one that is another with a weight more, what was put on in that.
    pub fn put_in(&self, state: LoadState) -> Option<&LoadPut> {
        match (state, self.further(state).map(|further| &further.load)) {
            (LoadState::Loaded, _) => self.load.as_ref(),
            (LoadState::Further(_), Some(FurtherLoad::Put(put))) => Some(put),
            (LoadState::Further(_), Some(FurtherLoad::Over { state: under, .. })) if self.precedes(*under, state) => {
                self.put_in(*under)
            }
            _ => None,
        }
    }

    /// What came aboard in a state, as far as that is known thing by thing.
    pub fn items_in(&self, state: LoadState) -> &[Item] {
        match self.put_in(state) {
            Some(LoadPut::Planned { items, .. }) => items,
            _ => &[],
        }
    }

    /// Whether what came aboard is known thing by thing, and no scale says otherwise.
    pub fn load_is_as_planned(&self) -> bool {
        let Some(LoadPut::Planned { items, scale }) = &self.load else { return false };
        let overridden = |end| scale.get(end).is_some() && self.vehicle.kerb.get(end).is_some();
        !items.is_empty() && !End::BOTH.into_iter().any(overridden)
    }

    /// The same vehicle with other things aboard in its loaded state, and what the tape read there set aside.
    pub fn in_case(&self, items: Vec<Item>, scale: Ends<Option<Force>>) -> Survey {
        let load = Some(LoadPut::Planned { items, scale });
        let heights = States::of(self.heights.empty.clone(), HeightReadings::default());
        Survey {
            load,
            heights,
            stop_gap: States::of(self.stop_gap.empty, Gaps::default()),
            manner: States::of(self.manner.empty, self.manner.empty),
            further: Vec::new(),
            overload_leaves: OverloadLeaves { bears: States::default(), ..self.overload_leaves.clone() },
            test_weight: false,
            seen: Seen { stops_hit: false, ..self.seen },
            ..self.clone()
        }
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

    /// Rear corners that stand higher loaded than empty by more than the tape explains: worth asking about, unless what was put on
    /// takes weight off the rear, as a plow does.
    pub fn rear_corners_that_rose(&self) -> Vec<Side> {
        if self.axle_loads().change.rear.is_some_and(|change| change.value < Force::default()) {
            return Vec::new();
        }
        let tolerance = 2.0 * ReadingPrecision::shop_tape().tape;
        let rear = |state: LoadState, side| self.readings(End::Rear, state).corner(side);
        Side::BOTH
            .into_iter()
            .filter(|side| match (rear(LoadState::Empty, *side), rear(LoadState::Loaded, *side)) {
                (Some(empty), Some(loaded)) => loaded > empty + tolerance,
                _ => false,
            })
            .collect()
    }
}
