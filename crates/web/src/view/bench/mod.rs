//! The bench in figures and words.

mod at_load;
mod heights;
mod words;

pub(crate) use at_load::{ContactLine, Standing, contact_lines, drawn, drawn_loose, load_figures};
pub(crate) use heights::{HeightLine, agreement_words, height_lines, second_stage_figure};
pub(crate) use words::{doubt_words, estimated_words, rearch_refusal_words};

use wise_badger_casework::entry::BenchEntry;
use wise_badger_casework::survey::{End, States, Survey, VehicleFacts};
use wise_badger_mechanics::pack::{Estimated, Pack, PackError, PackWork, Steel};
use wise_badger_mechanics::units::{Force, Length, Pressure, newtons};
use wise_badger_store::job_file::JobFile;

const PACK_SOURCE: &str = "Leaves as cantilevers that press on each other and never pull (Shigley; SAE HS-788, from memory). Friction, windup and shackle angle left out.";

/// Both packs of a bench, and what they may be asked: all that a picture under a load needs.
pub(crate) struct Packs {
    pub(crate) found: Pack,
    pub(crate) planned: Pack,
    /// Whether anything is planned.
    pub(crate) changed: bool,
    /// What of the pack found is estimated.
    pub(crate) estimated: Vec<Estimated>,
    /// The load that the axle is rated for, on one spring.
    pub(crate) rated: Force,
    pub(crate) steel: Steel,
}

impl Packs {
    pub(crate) fn new(vehicle: &VehicleFacts, entry: &BenchEntry) -> Result<Self, PackError> {
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
    pub(crate) fn allowed(&self, load: Force) -> Pressure {
        self.steel.allowed(load, self.rated)
    }
}

/// A load that a pack is looked at under.
#[derive(Debug, Clone, PartialEq)]
pub(crate) struct NamedLoad {
    pub(crate) name: String,
    pub(crate) load: Force,
}

/// Both packs worked out over all of their loads, with the loads that matter on this vehicle.
pub(crate) struct Bench {
    pub(crate) packs: Packs,
    /// Their curves.
    pub(crate) work: PackWork,
    /// Where the second stage begins, found and planned.
    pub(crate) second_stage: [Option<Force>; 2],
    pub(crate) loads: Vec<NamedLoad>,
    /// What one spring carried in either state that was measured; loaded, where what was put on is known.
    pub(crate) measured: States<Option<Force>>,
    /// The arch that the bump stop leaves, where its gap was read.
    pub(crate) at_stop: Option<Length>,
}

impl Bench {
    pub(crate) fn new(
        file: &JobFile,
        survey: &Survey,
        cases: &[(String, Survey)],
        entry: &BenchEntry,
    ) -> Result<Self, PackError> {
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
        let mut named = vec![NamedLoad { name: "Empty".to_owned(), load: empty }];
        let loaded = survey.load.as_ref().and_then(|_| loads.loaded(End::Rear)).map(on_one);
        if let Some(load) = loaded {
            let name = file.case.measured_case().map_or_else(|| "Loaded".to_owned(), |case| case.name.clone());
            named.push(NamedLoad { name, load });
        }
        for (name, case) in cases {
            let rear = case.axle_loads().loaded(End::Rear);
            named.extend(rear.map(|rear| NamedLoad { name: name.clone(), load: on_one(rear) }));
        }
        named.push(NamedLoad { name: "Rated".to_owned(), load: packs.rated });
        let at_stop = survey.stop_gap.empty.map(|gap| work.found.height(empty) - gap);
        // The stop is where it was: a pack with more arch is pressed down to it by more.
        let stops = match packs.changed {
            true => vec![("Stop, found", &work.found), ("Stop, planned", &work.planned)],
            false => vec![("At the stop", &work.found)],
        };
        let reached = at_stop
            .into_iter()
            .flat_map(|arch| stops.iter().map(move |(name, curve)| (*name, curve.load(arch), curve.reaches())));
        named.extend(
            reached.filter(|(_, load, reaches)| load <= reaches).map(|(name, load, _)| NamedLoad { name: name.to_owned(), load }),
        );
        let measured = States { empty: Some(empty), loaded };
        Ok(Bench { packs, work, second_stage, loads: named, measured, at_stop })
    }

    /// The highest load that the slider goes to.
    pub(crate) fn most(&self) -> Force {
        self.loads.iter().map(|named| named.load).fold(self.packs.rated, Force::max) * 1.1
    }
}
