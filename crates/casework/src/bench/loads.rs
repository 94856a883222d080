//! Both packs of a bench over all of their loads, with the loads that matter on this vehicle.

use wise_badger_mechanics::pack::{Estimated, Pack, PackError, PackWork, Steel};
use wise_badger_mechanics::units::{Force, Length, Pressure, newtons};

use crate::case::{Case, PlannedCase};
use crate::entry::BenchEntry;
use crate::survey::{End, LoadState, States, Survey, VehicleFacts};

/// Both packs of a bench, and what they may be asked: all that a picture under a load needs.
#[derive(Debug, Clone)]
pub struct Packs {
    /// As it came in.
    pub found: Pack,
    /// As it is to be built.
    pub planned: Pack,
    /// Whether anything is planned.
    pub changed: bool,
    /// What of the pack found is estimated.
    pub estimated: Vec<Estimated>,
    /// The load that the axle is rated for, on one spring.
    pub rated: Force,
    /// What the steel may be asked.
    pub steel: Steel,
}

impl Packs {
    /// The packs of a bench on a vehicle.
    ///
    /// # Errors     [`PackError`] names what about a pack cannot be
    pub fn new(vehicle: &VehicleFacts, entry: &BenchEntry) -> Result<Self, PackError> {
        let (found, planned) = (entry.found.pack()?, entry.planned.pack()?);
        Ok(Packs {
            found: found.pack,
            planned: planned.pack,
            changed: entry.is_changed(),
            estimated: found.estimated,
            rated: vehicle.on_one_spring(vehicle.axle_ratings.rear).max(newtons(1.0)),
            steel: entry.steel(),
        })
    }

    /// What a leaf may be asked under a load.
    pub fn allowed(&self, load: Force) -> Pressure {
        self.steel.allowed(load, self.rated)
    }
}

/// What a load on a pack is.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum LoadName {
    /// What it carries empty.
    Empty,
    /// What it carries with what was put on.
    Loaded,
    /// What it carries in a case of the load plan.
    Case(String),
    /// What the axle is rated for.
    Rated,
    /// What presses the pack as found to the bump stop, where a pack is planned beside it.
    StopFound,
    /// What presses the planned pack to the bump stop.
    StopPlanned,
    /// What presses the pack to the bump stop.
    Stop,
}

/// A load that a pack is looked at under.
#[derive(Debug, Clone, PartialEq)]
pub struct NamedLoad {
    /// What it is.
    pub name: LoadName,
    /// How much.
    pub load: Force,
}

/// Both packs worked out over all of their loads.
#[derive(Debug, Clone)]
pub struct BenchWork {
    /// The packs.
    pub packs: Packs,
    /// Their curves.
    pub work: PackWork,
    /// Where the second stage begins, found and planned.
    pub second_stage: [Option<Force>; 2],
    /// The loads that matter on this vehicle.
    pub loads: Vec<NamedLoad>,
    /// What one spring carried in either state that was measured; loaded, where what was put on is known.
    pub measured: States<Option<Force>>,
    /// The arch that the bump stop leaves, where its gap was read.
    pub at_stop: Option<Length>,
}

impl BenchWork {
    /// The packs of a bench worked out on a vehicle as it was found, with the cases of its load plan.
    ///
    /// # Errors     [`PackError`] names what about a pack cannot be
    pub fn new(case: &Case, survey: &Survey, cases: &[PlannedCase], entry: &BenchEntry) -> Result<Self, PackError> {
        let (vehicle, loads) = (&survey.vehicle, survey.axle_loads());
        let (packs, most) = (Packs::new(vehicle, entry)?, vehicle.most_spring_load());
        let work = PackWork::new(&packs.found, &packs.planned, most)?;
        // Of a pack without an overload leaf the lowest leaf is one like the others.
        let begins = |pack: &Pack| match pack.overload_leaf() {
            Some(_) => Ok(pack.prepare(most)?.second_stage_load()),
            None => Ok(None),
        };
        let second_stage = [begins(&packs.found)?, begins(&packs.planned)?];
        let on_one = |rear: Force| vehicle.on_one_spring(rear).max(newtons(0.0));
        let empty = on_one(loads.empty.rear);
        let mut named = vec![NamedLoad { name: LoadName::Empty, load: empty }];
        let loaded = survey.load.as_ref().and_then(|_| loads.loaded(End::Rear)).map(on_one);
        if let Some(load) = loaded {
            let name = case.measured_case().map_or(LoadName::Loaded, |case| LoadName::Case(case.name.clone()));
            named.push(NamedLoad { name, load });
        }
        for case in cases {
            let rear = case.survey.axle_loads().loaded(End::Rear);
            named.extend(rear.map(|rear| NamedLoad { name: LoadName::Case(case.name.clone()), load: on_one(rear) }));
        }
        named.push(NamedLoad { name: LoadName::Rated, load: packs.rated });
        let at_stop = survey.gap(LoadState::Empty).map(|gap| work.found.height(empty) - gap);
        // The stop is where it was: a pack with more arch is pressed down to it by more.
        let stops = match packs.changed {
            true => vec![(LoadName::StopFound, &work.found), (LoadName::StopPlanned, &work.planned)],
            false => vec![(LoadName::Stop, &work.found)],
        };
        if let Some(arch) = at_stop {
            let reached = stops.into_iter().map(|(name, curve)| (name, curve.load(arch), curve.reaches()));
            let reached = reached.filter(|(_, load, reaches)| load <= reaches);
            named.extend(reached.map(|(name, load, _)| NamedLoad { name, load }));
        }
        let measured = States::from_fn(survey.further.iter().map(|further| further.key), |state| match state {
            LoadState::Empty => Some(empty),
            LoadState::Loaded => loaded,
            LoadState::Further(_) => {
                survey.axle_loads_in(state).map(|loads| on_one(loads.loaded(End::Rear).unwrap_or(loads.empty.rear)))
            }
        });
        Ok(BenchWork { packs, work, second_stage, loads: named, measured, at_stop })
    }

    /// The highest load that is looked at.
    pub fn most(&self) -> Force {
        self.loads.iter().map(|named| named.load).fold(self.packs.rated, Force::max) * 1.1
    }
}
