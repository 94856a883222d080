//! What was heard, and what follows from it of the vehicle and its load.

use wise_badger_mechanics::uncertain::Uncertain;
use wise_badger_mechanics::units::{Force, Length, pounds};

use super::answer::{First, MayChange};
use crate::entry::{CallEntry, CaseEntry, ItemEntry, LoadPlanEntry, LowWord, PlaceWord, ThingWord, TypedIn, WhenLow};
use crate::survey::{Basis, End, Ends, Item, LoadPut, SpringKind, Thing, VehicleFacts};

/// A rating that nobody told: nothing passes it, and nothing is said of it.
const UNTOLD_RATING_LB: f64 = 1e6;

/// A call, with what follows from it.
pub(super) struct Heard<'c> {
    pub(super) call: &'c CallEntry,
    pub(super) vehicle: VehicleFacts,
    /// What was told to be aboard.
    pub(super) told: Vec<Item>,
}

impl Heard<'_> {
    fn tows(&self) -> bool {
        let on_the_hitch = self.call.aboard.as_ref().is_some_and(|aboard| aboard.place == PlaceWord::OnTheHitch);
        on_the_hitch || self.call.things.contains(&ThingWord(Thing::TongueWeight))
    }

    /// The rear axle with all of that on it, less its rating.
    pub(super) fn over(&self) -> Option<Uncertain<Force>> {
        let rating = self.call.rear_rating.as_ref()?.force();
        let put = LoadPut::Planned { items: self.told.clone(), scale: Ends::default() };
        let loads = put.axle_loads(&self.vehicle);
        let change = loads.change.rear.unwrap_or_else(|| Uncertain::new(Force::default(), Force::default()));
        // Its empty weight is its class's, which nobody weighed either.
        let empty = loads.empty.rear;
        Some(Uncertain::new(empty + change.value - rating, Force::hypot(empty * EMPTY_WEIGHT_SD, change.sd)))
    }

    fn is_near_its_rating(&self) -> bool {
        self.over().is_some_and(|over| over.value + over.band() > Force::default())
    }
}

/// Standard deviation of the empty weight of a class, as a share of it (our own working rule).
const EMPTY_WEIGHT_SD: f64 = 0.10;

/// Whether something is to be said.
pub(super) type Holds = fn(&Heard) -> bool;

/// What to measure or look at first, in its order.
pub(super) const FIRST: &[(First, Holds)] = &[
    (First::BringItLoaded, |heard| heard.call.when != Some(WhenLow::EmptyToo)),
    (First::Ratings, |heard| heard.call.rear_rating.is_none()),
    (First::WeighTheAxles, |_| true),
    (First::TongueWeight, |heard| heard.tows()),
    (First::BallHeight, |heard| heard.call.class.is_trailer()),
    (First::Heights, |_| true),
    (First::StopGap, |_| true),
    (First::BothSides, |heard| heard.call.leans),
    (First::WhichSprings, |heard| heard.call.rear_spring.is_none()),
    (First::Leaves, |heard| heard.call.rear_spring.is_none_or(|on| on == SpringKind::Leaf)),
    (First::Coils, |heard| heard.vehicle.springs.rear == Some(SpringKind::Coil)),
];

/// What could turn the answer, the weightiest first.
pub(super) const MAY_CHANGE: &[(MayChange, Holds)] = &[
    (MayChange::NearItsRating, |heard| heard.is_near_its_rating()),
    (MayChange::NoRating, |heard| heard.call.rear_rating.is_none()),
    (MayChange::Stops, |heard| heard.call.low == Some(LowWord::OnItsStops)),
    (MayChange::NoLoadTold, |heard| heard.told.is_empty()),
    (MayChange::Weight, |heard| !heard.told.is_empty()),
    (MayChange::Stiffness, |_| true),
    (MayChange::NoseUp, |heard| heard.tows()),
    (MayChange::Lean, |heard| heard.call.leans),
    (MayChange::WhichSprings, |heard| heard.call.rear_spring.is_none()),
    (MayChange::FailedPart, |_| true),
];

impl CallEntry {
    /// What was told to be aboard, as the load plan of the vehicle that came in: one case, each thing at its usual weight and place until
    /// somebody weighs it. `None` where nothing was told.
    pub fn load_plan(
        &self,
        vehicle: &VehicleFacts,
        case: &str,
        units: TypedIn,
        name: impl Fn(Option<Thing>) -> &'static str,
    ) -> Option<LoadPlanEntry> {
        const KEY: u8 = 1;
        let named = self.things.iter().map(|thing| Some(thing.0)).filter(|thing| thing.is_some_and(|thing| thing.fits(vehicle)));
        let items: Vec<ItemEntry> = named
            .chain(self.aboard.is_some().then_some(None))
            .zip(told(self, vehicle))
            .map(|(thing, item)| {
                let amount = match (thing, &self.aboard) {
                    (None, Some(aboard)) => aboard.weight.clone(),
                    _ => units.weight(item.weight),
                };
                let placed = ItemEntry::weight_at(name(thing), amount, item.behind_rear_axle, item.lateral, units);
                let height = item.height.map(|height| units.length(height));
                ItemEntry { usual: thing.is_some(), on_hitch: item.on_hitch, height, cases: vec![KEY], ..placed }
            })
            .collect();
        let cases =
            vec![CaseEntry { key: KEY, name: case.to_owned(), front_scale: None, rear_scale: None, with: None, later: false }];
        (!items.is_empty()).then_some(LoadPlanEntry { cases, items })
    }
}

/// The vehicle as its class has it.
pub(super) fn vehicle_of(call: &CallEntry) -> VehicleFacts {
    let assumed = call.class.assumptions(call.rear_wheels, call.rear_spring);
    let untold = pounds(UNTOLD_RATING_LB);
    let rear = call.rear_rating.as_ref().map_or(untold, |rating| rating.force());
    let mut vehicle = VehicleFacts::new(call.class, call.rear_wheels, assumed.wheelbase, Ends { front: untold, rear });
    // Where nobody said, it is what its class mostly is.
    let mostly = call.class.is_seldom_on_leaves(End::Rear).then_some(SpringKind::Coil);
    vehicle.springs.rear = call.rear_spring.or(mostly);
    vehicle
}

/// What was told to be aboard, each at its usual place.
pub(super) fn told(call: &CallEntry, vehicle: &VehicleFacts) -> Vec<Item> {
    let things = call.things.iter().filter(|thing| thing.0.fits(vehicle)).map(|thing| thing.0.usual(vehicle));
    let more = call.aboard.as_ref().map(|aboard| {
        let tail = Thing::TongueWeight.usual(vehicle).behind_rear_axle;
        let behind = match aboard.place {
            PlaceWord::OnTheFloor => Thing::Goods.usual(vehicle).behind_rear_axle,
            PlaceWord::OverTheAxle => Length::default(),
            PlaceWord::AtTheTail | PlaceWord::OnTheHitch => tail,
        };
        let on_hitch = aboard.place == PlaceWord::OnTheHitch && !vehicle.class.is_trailer();
        Item { on_hitch, basis: Basis::Assumed, ..Item::at(aboard.weight.force(), behind) }
    });
    things.chain(more).collect()
}
