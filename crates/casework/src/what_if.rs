//! A load that is only tried: what is aboard, moved, and one more thing. As a case of the load plan it is a case like others.

use wise_badger_mechanics::units::{Force, Length, metres};

use crate::casework::Casework;
use crate::entry::{CaseEntry, ItemEntry, LoadPlanEntry, TypedIn};
use crate::survey::{LoadProblem, LoadPut};

/// What is aboard to begin with.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Aboard {
    /// Nothing.
    Nothing,
    /// What was aboard when the vehicle was read loaded.
    AsLoaded,
    /// What is aboard in a case of the load plan, by its key.
    Case(u8),
}

/// A load to be tried.
#[derive(Debug, Clone)]
pub struct LoadTried {
    /// What the case is called.
    pub name: String,
    /// What is aboard to begin with.
    pub from: Aboard,
    /// How far all of that is moved rearward; negative is forward.
    pub rearward: Length,
    /// How far all of that is moved to the right; negative is to the left.
    pub to_the_right: Length,
    /// One more thing.
    pub more: Option<ItemEntry>,
}

/// Why a load cannot be tried.
#[derive(Debug, Clone, PartialEq)]
pub enum CannotTry {
    /// What was aboard when it was read loaded is not known.
    NothingWasRead,
    /// The case is no longer on the plan.
    NoSuchCase,
    /// Nothing would be aboard.
    NothingAboard,
    /// A thing that is moved would be where it cannot be.
    Moved(LoadProblem),
    /// The thing more would be where it cannot be, or weighs nothing.
    More(LoadProblem),
    /// With all of it aboard, an axle is lifted off the ground.
    LiftsAnAxle,
}

impl LoadTried {
    /// The load plan of a job with this load in a case of its own, which goes by `key`. What was on the plan stays as it is.
    ///
    /// # Errors     [`CannotTry`]
    pub fn on_the_plan(&self, work: &Casework, key: u8, units: TypedIn) -> Result<LoadPlanEntry, CannotTry> {
        let vehicle = &work.found().vehicle;
        let mut plan = work.case().plan.clone().unwrap_or_default();
        plan.cases.retain(|case| case.key != key);
        plan.items.retain(|item| item.always || item.cases != [key]);
        plan.items.iter_mut().for_each(|item| item.cases.retain(|case| *case != key));
        let from = match (self.from, work.case().measured_case()) {
            (Aboard::AsLoaded, Some(case)) => Aboard::Case(case.key),
            (from, _) => from,
        };
        let still = self.rearward.abs() <= metres(0.0) && self.to_the_right.abs() <= metres(0.0);
        // What stays where it is need not be written down twice.
        let with = match from {
            Aboard::Case(of) if still && of != key => Some(of),
            _ => None,
        };
        let begins = if with.is_some() { Vec::new() } else { begins_with(from, work, units)? };
        if let Aboard::Case(of) = from
            && work.case().plan.as_ref().is_none_or(|plan| plan.case(of).is_none())
        {
            return Err(CannotTry::NoSuchCase);
        }
        let moved = begins.into_iter().map(|item| ItemEntry { always: false, cases: vec![key], ..self.moved(item, units) });
        for item in moved {
            if let Some(problem) = item.item().problem(vehicle) {
                return Err(CannotTry::Moved(problem));
            }
            plan.items.push(item);
        }
        if let Some(more) = &self.more {
            let more = ItemEntry { always: false, cases: vec![key], ..more.clone() };
            if let Some(problem) = more.item().problem(vehicle) {
                return Err(CannotTry::More(problem));
            }
            plan.items.push(more);
        }
        plan.cases.push(CaseEntry { key, name: self.name.clone(), front_scale: None, rear_scale: None, with, later: false });
        let items = plan.items_of(key);
        if items.is_empty() {
            return Err(CannotTry::NothingAboard);
        }
        let put = LoadPut::Planned { items, scale: Default::default() };
        if put.problems(vehicle).contains(&LoadProblem::LiftsTheFront) {
            return Err(CannotTry::LiftsAnAxle);
        }
        Ok(plan)
    }

    fn moved(&self, item: ItemEntry, units: TypedIn) -> ItemEntry {
        // A tongue presses where the hitch is.
        if item.on_hitch {
            return item;
        }
        let there = item.item();
        let mut item = item;
        if self.rearward.abs() > metres(0.0) {
            let behind = there.behind_rear_axle + self.rearward;
            (item.distance, item.ahead) = (units.length(behind.abs()), behind < metres(0.0));
        }
        if self.to_the_right.abs() > metres(0.0) {
            let right = there.lateral + self.to_the_right;
            (item.lateral, item.left) = (Some(units.length(right.abs())), right < metres(0.0));
        }
        item
    }
}

/// What is aboard to begin with.
fn begins_with(from: Aboard, work: &Casework, units: TypedIn) -> Result<Vec<ItemEntry>, CannotTry> {
    match from {
        Aboard::Nothing => Ok(Vec::new()),
        Aboard::Case(key) => Ok(work.case().plan.iter().flat_map(|plan| plan.put_for(key)).cloned().collect()),
        Aboard::AsLoaded => as_weighed(work, units).map(|item| vec![item]).ok_or(CannotTry::NothingWasRead),
    }
}

/// The load of the readings as one thing, where the axles say that it sits.
fn as_weighed(work: &Casework, units: TypedIn) -> Option<ItemEntry> {
    let change = work.found().axle_loads().change;
    let rear = change.rear?.value;
    let front = change.front.map_or(Force::default(), |front| front.value);
    let weight = rear + front;
    if weight <= Force::default() {
        return None;
    }
    // By the moment about the rear axle.
    let ahead = work.found().vehicle.wheelbase * (front / weight).value;
    Some(ItemEntry::weight_at("What was aboard", units.weight(weight), -ahead, metres(0.0), units))
}
