//! Both packs of a bench over all of their loads, with the loads that matter on this vehicle.

use wise_badger_mechanics::correction::{Correction, ReworkedPack, Site};
use wise_badger_mechanics::pack::{Estimated, Leaf, OverloadLeaf, Pack, PackCurve, PackError, PackWork, Steel};
use wise_badger_mechanics::side::Side;
use wise_badger_mechanics::units::{Angle, Force, InShopUnits, Length, Pressure, newtons};

use super::strain::{LeafStrain, StrainGrade, Strains, is_estimated};
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
        let [found, planned] = entry.packs()?;
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
    /// Leaves of the planned pack that are worked past a limit.
    pub strains: Vec<LeafStrain>,
    /// What the planned pack loses of its height with no load, where leaves of it take a set.
    pub set: Option<Length>,
    /// What an exchanged overload leaf no longer holds up, at the loads where that is anything.
    pub lost_support: Vec<(NamedLoad, Length)>,
}

impl BenchWork {
    /// The packs of a bench worked out on a vehicle as it was found, with the cases of its load plan.
    ///
    /// # Errors     [`PackError`] names what about a pack cannot be
    pub fn new(case: &Case, survey: &Survey, cases: &[PlannedCase], entry: &BenchEntry) -> Result<Self, PackError> {
        let (vehicle, loads) = (&survey.vehicle, survey.axle_loads());
        let (packs, most) = (Packs::new(vehicle, entry)?, vehicle.most_spring_load());
        let as_built = PackWork::new(&packs.found, &packs.planned, most)?;
        let found_empty = as_built.found.height(vehicle.on_one_spring(loads.empty.rear).max(newtons(0.0)));
        let at_stop = survey.gap(LoadState::Empty).map(|gap| found_empty - gap);
        let presses_to_the_stop = |curve: &PackCurve| Some(curve.load(at_stop?)).filter(|load| *load <= curve.reaches());
        let stops = [&as_built.found, &as_built.planned].map(presses_to_the_stop);
        let estimated = is_estimated(&packs.estimated);
        let strains = Strains::of([&packs.found, &packs.planned], packs.rated, stops, &packs.steel, estimated)?;
        let work = as_built.settled_to(&strains.settled, most);
        let set = as_built.planned.height(newtons(0.0)) - work.planned.height(newtons(0.0));
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
        // The stop is where it was: a pack with more arch is pressed down to it by more.
        let names = match packs.changed {
            true => vec![LoadName::StopFound, LoadName::StopPlanned],
            false => vec![LoadName::Stop],
        };
        let reached = names.into_iter().zip(stops).filter_map(|(name, load)| Some(NamedLoad { name, load: load? }));
        let lost_support = support_lost(&packs, &named, &as_built.planned, most)?;
        named.extend(reached);
        let measured = States::from_fn(survey.further.iter().map(|further| further.key), |state| match state {
            LoadState::Empty => Some(empty),
            LoadState::Loaded => loaded,
            LoadState::Further(_) => {
                survey.axle_loads_in(state).map(|loads| on_one(loads.loaded(End::Rear).unwrap_or(loads.empty.rear)))
            }
        });
        let set = (set.si() > SMALLEST_SET_M).then_some(set);
        let strains = strains.leaves;
        Ok(BenchWork { packs, work, second_stage, loads: named, measured, at_stop, strains, set, lost_support })
    }

    /// How far the plan turns the seat, nose of the pinion up positive, as the vehicle stands empty; `None` where that was not read.
    pub fn seat_turned(&self) -> Option<Angle> {
        let load = self.measured.empty?;
        let tilt = |pack: &Pack| Some(pack.prepare(self.packs.rated).ok()?.state(load).ok()?.seat_tilt);
        Some(tilt(&self.packs.planned)? - tilt(&self.packs.found)?)
    }

    /// The leaf for which the plan is not taken, where there is one.
    pub fn refused(&self) -> Option<&LeafStrain> {
        self.strains.iter().find(|strain| strain.grade == StrainGrade::Refused)
    }

    /// The highest load that is looked at.
    pub fn most(&self) -> Force {
        self.loads.iter().map(|named| named.load).fold(self.packs.rated, Force::max) * 1.1
    }
}

/// The bench of one side, or of both alike, worked out.
#[derive(Debug, Clone)]
pub struct SideBench {
    /// On which side; both alike where there is none.
    pub side: Option<Side>,
    /// As worked out.
    pub work: BenchWork,
}

impl SideBench {
    /// What is planned on it as a correction.
    pub fn correction(&self) -> Correction {
        Correction::at_the_rear(ReworkedPack(self.work.work.clone())).on(Site { side: self.side, ..Site::default() })
    }
}

/// Every side of a bench worked out.
#[derive(Debug, Clone)]
pub struct Benches {
    /// Of both sides alike, or of the left.
    pub first: SideBench,
    /// Of the right, where it is told apart.
    pub right: Option<SideBench>,
}

impl Benches {
    /// Each of them.
    pub fn each(&self) -> impl Iterator<Item = &SideBench> {
        std::iter::once(&self.first).chain(&self.right)
    }

    /// A side's; either side's where both are alike.
    pub fn of_side(&self, side: Option<Side>) -> &BenchWork {
        &self.right.as_ref().filter(|_| side == Some(Side::Right)).unwrap_or(&self.first).work
    }

    /// The same with another pack worked out for a side.
    #[must_use]
    pub fn with_side(self, side: Option<Side>, work: BenchWork) -> Self {
        match (side, self.right) {
            (Some(Side::Right), Some(right)) => Benches { right: Some(SideBench { work, ..right }), ..self },
            (_, right) => Benches { first: SideBench { work, ..self.first }, right },
        }
    }

    /// What is planned on all of them, as corrections.
    pub fn corrections(&self) -> Vec<Correction> {
        self.each().map(SideBench::correction).collect()
    }
}

/// What an overload leaf that takes another's place no longer holds up: how much lower the planned pack stands than it would with the
/// leaf that came out.
fn support_lost(
    packs: &Packs,
    loads: &[NamedLoad],
    planned: &PackCurve,
    most: Force,
) -> Result<Vec<(NamedLoad, Length)>, PackError> {
    let overload = |pack: &Pack| -> Vec<Leaf> { pack.leaves.get(pack.ordinary_leaves()..).unwrap_or_default().to_vec() };
    let (out, put_in) = (overload(&packs.found), overload(&packs.planned));
    if out.is_empty() || out == put_in {
        return Ok(Vec::new());
    }
    let mut kept = packs.planned.clone();
    kept.leaves.truncate(packs.planned.ordinary_leaves());
    kept.overload = OverloadLeaf::From(kept.leaves.len());
    kept.leaves.extend(out);
    let kept = kept.curve_to(most)?;
    let inside = |named: &&NamedLoad| named.load <= kept.reaches().min(planned.reaches());
    let lost = loads.iter().filter(inside).map(|named| (named.clone(), kept.height(named.load) - planned.height(named.load)));
    Ok(lost.filter(|(_, lost)| lost.si() > SMALLEST_SET_M).collect())
}

/// Less than this nobody reads on a tape, m.
const SMALLEST_SET_M: f64 = 5e-4;
