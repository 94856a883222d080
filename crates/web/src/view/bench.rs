//! The bench in figures and words.

use wise_badger_mechanics::correction::{Correction, Predictor};
use wise_badger_mechanics::pack::{
    Doubtful, Estimated, Leaf, LeafStress, Pack, PackCurve, PackError, PackState, PackWork, ReadPack, RearchRefusal, Steel,
    Strained,
};
use wise_badger_mechanics::side_effect::ride::bounce_frequency;
use wise_badger_mechanics::survey::{End, LoadState, Survey};
use wise_badger_mechanics::units::{Force, Frequency, Length, Pressure, SpringRate, inches, newtons};
use wise_badger_mechanics::verdict::RateVerdict;
use wise_badger_store::entry::BenchEntry;
use wise_badger_store::job_file::JobFile;

use super::load_plan::case_heights;
use super::{Figure, Sum, Tone, Units, degrees, frequency, percent, sentence};
use crate::drawing::{DrawnPack, LeafMark};

const PACK_SOURCE: &str = "Leaves as cantilevers that press on each other and never pull (Shigley; SAE HS-788, from memory). Friction, windup and shackle angle left out.";
/// Steps of a leaf's half in a drawing.
const STEPS: u32 = 24;
/// An arch under a vehicle is read to some sixteenth of an inch.
const TAPE_IN: f64 = 1.0 / 16.0;
/// Share of a load that leaf friction may hold (common practice).
const FRICTION: f64 = 0.05;

/// A load that a pack is looked at under.
#[derive(Debug, Clone, PartialEq)]
pub(crate) struct NamedLoad {
    pub(crate) name: String,
    pub(crate) load: Force,
}

/// Both packs of a bench, worked out.
pub(crate) struct Bench {
    pub(crate) found: Worked,
    pub(crate) planned: Worked,
    pub(crate) loads: Vec<NamedLoad>,
    /// The load that the axle is rated for, on one spring.
    pub(crate) rated: Force,
    /// On one spring against the bump stop, where its gap was read.
    pub(crate) at_stop: Option<Force>,
    pub(crate) steel: Steel,
}

/// One pack, worked out.
pub(crate) struct Worked {
    pub(crate) pack: Pack,
    pub(crate) estimated: Vec<Estimated>,
    pub(crate) curve: PackCurve,
    pub(crate) second_stage: Option<Force>,
}

impl Worked {
    fn new(read: ReadPack, most: Force) -> Result<Self, PackError> {
        let curve = read.pack.curve_to(most)?;
        let second_stage = read.pack.prepare(most)?.second_stage_load();
        Ok(Worked { pack: read.pack, estimated: read.estimated, curve, second_stage })
    }

    /// How it stands under a load.
    pub(crate) fn state(&self, load: Force, full: Force) -> Result<PackState, PackError> {
        self.pack.prepare(full)?.state(load)
    }
}

impl Bench {
    /// Works both packs out, and finds the loads that matter on this vehicle.
    pub(crate) fn new(
        file: &JobFile,
        survey: &Survey,
        cases: &[(String, Survey)],
        entry: &BenchEntry,
    ) -> Result<Self, PackError> {
        let (vehicle, loads) = (&survey.vehicle, survey.axle_loads());
        let most = vehicle.most_spring_load();
        let found = Worked::new(entry.found.pack()?, most)?;
        let planned = Worked::new(entry.planned.pack()?, most)?;
        let on_one = |rear: Force| vehicle.on_one_spring(rear).max(newtons(0.0));
        let empty = on_one(loads.empty.rear);
        let mut named = vec![NamedLoad { name: "Empty".to_owned(), load: empty }];
        if let Some(rear) = survey.load.as_ref().and_then(|_| loads.loaded(End::Rear)) {
            let name = file.measured_case().map_or_else(|| "Loaded".to_owned(), |case| case.name.clone());
            named.push(NamedLoad { name, load: on_one(rear) });
        }
        for (name, case) in cases {
            let rear = case.axle_loads().loaded(End::Rear);
            named.extend(rear.map(|rear| NamedLoad { name: name.clone(), load: on_one(rear) }));
        }
        let rated = on_one(vehicle.axle_ratings.rear).max(newtons(1.0));
        named.push(NamedLoad { name: "Rated".to_owned(), load: rated });
        let down = survey.stop_gap.empty;
        let at_stop = down.map(|gap| found.curve.load(found.curve.height(empty) - gap));
        let at_stop = at_stop.filter(|load| *load <= found.curve.reaches());
        named.extend(at_stop.map(|load| NamedLoad { name: "At the stop".to_owned(), load }));
        Ok(Bench { found, planned, loads: named, rated, at_stop, steel: entry.steel() })
    }

    /// The highest load that the slider goes to.
    pub(crate) fn most(&self) -> Force {
        self.loads.iter().map(|named| named.load).fold(self.rated, Force::max) * 1.1
    }

    /// What a leaf may be asked under a load: past the rated load, what it may be asked at the stop.
    pub(crate) fn allowed(&self, load: Force) -> Pressure {
        if load > self.rated * 1.001 { self.steel.at_stop } else { self.steel.rated }
    }
}

/// A pack as it is drawn: under a load, or loose.
pub(crate) fn drawn<'a>(
    bench: &'a Bench,
    worked: &'a Worked,
    title: &str,
    load: Option<Force>,
    units: Units,
) -> Result<DrawnPack<'a>, PackError> {
    let pack = &worked.pack;
    let Some(load) = load else {
        let nips = std::iter::once(None).chain(pack.nips().into_iter().map(Some));
        let mark = |(leaf, nip): (&Leaf, Option<Length>)| LeafMark {
            name: leaf.name.clone(),
            words: match nip {
                None => String::new(),
                Some(nip) if units.is_nothing(nip) => "no nip".to_owned(),
                Some(nip) => format!("{} nip", units.height(nip)),
            },
            strained: None,
        };
        return Ok(DrawnPack {
            title: format!("{title}, loose"),
            pack,
            lines: pack.loose_lines(STEPS),
            contacts: Vec::new(),
            marks: pack.leaves.iter().zip(nips).map(mark).collect(),
            arch: None,
        });
    };
    let prepared = pack.prepare(bench.rated)?;
    let state = prepared.state(load)?;
    let allowed = bench.allowed(load);
    let mark = |(leaf, stress): (&Leaf, &LeafStress)| {
        let stress = stress.largest();
        LeafMark {
            name: leaf.name.clone(),
            words: format!("{} · {}", units.stress(stress), percent((stress / allowed).value)),
            strained: Some(Strained::of(stress, allowed)),
        }
    };
    Ok(DrawnPack {
        title: format!("{title}, under {}", units.weight(load)),
        pack,
        lines: prepared.lines(load, STEPS)?,
        marks: pack.leaves.iter().zip(&state.leaves).map(mark).collect(),
        contacts: state.contacts.clone(),
        arch: Some(state.arch.map_or_else(|| "outside the model".to_owned(), |arch| format!("arch {}", units.height(arch)))),
    })
}

fn ride(rate: SpringRate, load: Force) -> Option<Frequency> {
    bounce_frequency(rate, load).ok()
}

/// The two packs under one load, figure by figure: what is planned, and what was found beside it.
pub(crate) fn load_figures(bench: &Bench, load: Force, changed: bool, units: Units) -> Result<Vec<Figure>, PackError> {
    let (before, after) = (bench.found.state(load, bench.rated)?, bench.planned.state(load, bench.rated)?);
    let was = |text: String| if changed { format!("found {text}") } else { String::new() };
    let arch = |state: &PackState| state.arch.map_or_else(|| "outside the model".to_owned(), |arch| units.height(arch));
    let exact = |state: &PackState| {
        state.arch.map_or_else(|| "outside the model: past flat by too much".to_owned(), |arch| units.exact(arch))
    };
    let mut figures = Vec::new();
    let friction = after.friction_band(FRICTION);
    let numbers = vec![
        format!("small slopes {}", units.exact(after.arch_linear)),
        format!("with the large-arch correction {}", exact(&after)),
    ];
    let doubt = format!(
        "± {} of leaf friction at 5 % of the load; up to three times that dry or rusty, half once bounced.",
        units.exact(friction)
    );
    let sum = Sum::new("height of the eyes over the seat: contact solved at 20 places along each overlap", numbers, PACK_SOURCE)
        .doubt(doubt);
    let tone = if after.arch.is_none() { Tone::Act } else { Tone::Plain };
    figures.push(Figure::new("Arch", arch(&after), sum).note(was(arch(&before))).tone(tone));
    let numbers = vec![format!("both rear packs together {}", units.rate(2.0 * after.rate))];
    let sum = Sum::new("rate = load gained / height lost, over one hundredth of rated load either way", numbers, PACK_SOURCE);
    figures.push(Figure::new("Rate of one pack", units.rate(after.rate), sum).note(was(units.rate(before.rate))));
    if let Some((leaf, stress)) = bench.planned.pack.hardest_worked(&after) {
        figures.push(stress_figure(bench, load, leaf, stress, &before, changed, units));
    }
    let second = |load: Option<Force>| load.map_or_else(|| "none, or always".to_owned(), |load| units.weight(load));
    let sum = Sum::new("the load on one pack at which its lowest leaf begins to bear on the one above", Vec::new(), PACK_SOURCE);
    let (now, then) = (second(bench.planned.second_stage), second(bench.found.second_stage));
    figures.push(Figure::new("Second stage from", now, sum).note(was(then)));
    if let Some((after_hz, before_hz)) = ride(after.rate, load).zip(ride(before.rate, load)) {
        let numbers = vec![format!("{} carrying {}", units.rate(after.rate), units.weight(load))];
        let sum = Sum::new("f = √(rate × g / load) / 2π, tyres left out", numbers, "Any vibration text.");
        figures.push(Figure::new("Ride frequency", frequency(after_hz), sum).note(was(frequency(before_hz))));
    }
    let numbers = vec!["above nought: the front eye stands higher, the pinion of an axle below its spring turns down".to_owned()];
    let sum = Sum::new("tilt = (front half's height − rear half's) / length", numbers, PACK_SOURCE);
    figures.push(Figure::new("Seat tilt", degrees(after.seat_tilt), sum).note(was(degrees(before.seat_tilt))));
    if let Some([front, rear]) = after.helper {
        let numbers = vec![format!("front end {}, rear end {}", units.weight(front), units.weight(rear))];
        let sum = Sum::new("tension as set, and its rate times what the main leaf came down since", numbers, PACK_SOURCE);
        figures.push(Figure::new("Helper's ends", units.weight(front.max(rear)), sum));
    }
    Ok(figures)
}

fn stress_figure(
    bench: &Bench,
    load: Force,
    leaf: usize,
    stress: Pressure,
    before: &PackState,
    changed: bool,
    units: Units,
) -> Figure {
    let allowed = bench.allowed(load);
    let name = bench.planned.pack.leaves.get(leaf).map_or("", |leaf| leaf.name.as_str());
    let (which, past) = (if load > bench.rated * 1.001 { "at the stop" } else { "under rated load" }, stress > allowed);
    let numbers = vec![format!("{name}: {} of {} allowed {which}", units.stress(stress), units.stress(allowed))];
    let sum = Sum::new(
        "stress = moment × t / 2I from the leaf's free shape, what being drawn together leaves in it included",
        numbers,
        "Allowables from memory (SAE HS-788, EN 10089), editable on Re-arch.",
    );
    let found = if changed { format!("; found {}", units.stress(before.largest_stress())) } else { String::new() };
    let note = format!("{} of what {} may be asked{found}", percent((stress / allowed).value), sentence(name));
    Figure::new("Hardest worked", units.stress(stress), sum).note(note).tone(if past { Tone::Act } else { Tone::Plain })
}

/// Where the vehicle stands in a case with the pack as found and as planned.
pub(crate) struct HeightLine {
    pub(crate) name: String,
    pub(crate) found: String,
    pub(crate) planned: String,
}

/// Heights in every case, before and after.
pub(crate) fn height_lines(
    file: &JobFile,
    survey: &Survey,
    cases: &[(String, Survey)],
    work: PackWork,
    units: Units,
) -> Vec<HeightLine> {
    let (predictor, correction) = (Predictor::new(survey), Correction::ReworkedPack(Box::new(work)));
    let prediction = predictor.predict(&correction);
    let mut lines = Vec::new();
    for state in LoadState::BOTH {
        let Some(read) = survey.height(End::Rear, state) else { continue };
        let planned = match prediction.get(state) {
            Ok(predicted) => units.predicted(predicted.rear),
            Err(_) => "not predicted".to_owned(),
        };
        let name = match state {
            LoadState::Empty => "Empty".to_owned(),
            LoadState::Loaded => file.measured_case().map_or_else(|| "Loaded".to_owned(), |case| case.name.clone()),
        };
        lines.push(HeightLine { name, found: format!("{}, measured", units.height(read.value)), planned });
    }
    let cases = case_heights(&predictor, cases, &correction, units);
    lines.extend(cases.into_iter().map(|case| HeightLine { name: case.name, found: case.before, planned: case.rear }));
    lines
}

/// How the leaves agree with what the tape says of the springs under the vehicle, in sentences.
pub(crate) fn agreement_words(survey: &Survey, bench: &Bench, read_arch: Option<Length>, units: Units) -> Vec<String> {
    let mut words = Vec::new();
    let empty = bench.loads.first().map_or(Force::default(), |named| named.load);
    let state = bench.found.state(empty, bench.rated).ok();
    if let Some((read, (made, state))) = read_arch.zip(state.as_ref().and_then(|state| Some((state.arch?, state)))) {
        let (off, friction) = (made - read, state.friction_band(FRICTION));
        let judged = if off.abs() <= friction + inches(TAPE_IN) {
            "no more apart than leaf friction explains".to_owned()
        } else if off > Length::default() {
            format!(
                "{} of sag that is not in these figures; check the arches, or bend the pack to what the tape read",
                units.height(off)
            )
        } else {
            format!("{} higher than these figures; check the arches and the thickness", units.height(-off))
        };
        words.push(format!(
            "Under the vehicle, empty, the tape read {} of arch; these leaves make {}: {judged}.",
            units.height(read),
            units.height(made)
        ));
    }
    if let (RateVerdict::Measured(measured), Some(state)) = (RateVerdict::of(survey), &state) {
        let axles = f64::from(survey.vehicle.assumptions().rear_axles);
        let leaves = 2.0 * axles * state.rate;
        let off = (leaves / measured.rate).value - 1.0;
        let judged = match off.abs() {
            off if off <= 2.0 * measured.relative_sd.hypot(0.10) => "they agree as well as tape and thickness can tell",
            _ if off > 0.0 => {
                "the leaves are stiffer on paper: a thickness read too large, worn leaves, or a leaf that does not bear"
            }
            _ => {
                "the leaves are softer on paper: a thickness read too small, a helper or stop that bears, or leaves that are rusted together"
            }
        };
        words.push(format!(
            "The tape made a rear rate of {}; these leaves make {}: {judged}.",
            units.rate(measured.rate),
            units.rate(leaves)
        ));
    }
    words
}

/// What about a pack is estimated, in sentences.
pub(crate) fn estimated_words(worked: &Worked) -> Vec<String> {
    let name = |leaf: &usize| worked.pack.leaves.get(*leaf).map_or("a leaf", |leaf| leaf.name.as_str());
    let chords = worked.estimated.iter().filter(|what| matches!(what, Estimated::Chord(_))).count();
    let mut words: Vec<String> = Vec::new();
    if chords > 0 {
        words.push("Chords that were not read follow from each leaf's length and arch.".to_owned());
    }
    words.extend(worked.estimated.iter().filter_map(|what| match what {
        Estimated::ArchFromAbove(leaf) => {
            Some(format!("The arch of {} is estimated: a little sharper than the leaf above it.", name(leaf)))
        }
        Estimated::ArchFromPack => {
            Some("Arches that were not read are estimated so that the pack stands as it was read.".to_owned())
        }
        Estimated::SteppedLengths => Some("The shorter leaves' lengths are estimated: stepped evenly.".to_owned()),
        Estimated::Chord(_) => None,
    }));
    words
}

/// What looks wrong about a pack, in sentences.
pub(crate) fn doubt_words(pack: &Pack) -> Vec<String> {
    let name = |leaf: usize| pack.leaves.get(leaf).map_or("a leaf", |leaf| leaf.name.as_str());
    let word = |doubt: Doubtful| match doubt {
        Doubtful::LongerThanAbove { leaf } => {
            format!(
                "{} reaches past the leaf above it. Put the leaves in order of length, or check the lengths.",
                sentence(name(leaf))
            )
        }
        Doubtful::OtherWidth { leaf } => {
            format!("{} is of another width than the main leaf; clips and plate may not take it.", sentence(name(leaf)))
        }
        Doubtful::EndForEnd { leaf } => {
            format!(
                "{} has its long end where the main leaf has its short one. Check which end is the front, or turn it.",
                sentence(name(leaf))
            )
        }
        Doubtful::Thickness { leaf } => {
            format!("{} is thinner or thicker than leaves of road vehicles are; check the figure.", sentence(name(leaf)))
        }
        Doubtful::Gapes { leaf } => {
            format!("{} is flatter than the leaf above it: they gape at the ends until it is loaded.", sentence(name(leaf)))
        }
        _ => "Something about the leaves looks wrong; check them.".to_owned(),
    };
    pack.doubts().into_iter().map(word).collect()
}

/// Why a pack is not to be re-arched, in a sentence that says what to do instead.
pub(crate) fn rearch_refusal_words(refusal: &RearchRefusal, units: Units) -> String {
    match refusal {
        RearchRefusal::TooThin { leaf, thickness, least } => format!(
            "{} is {} thick; under {} a leaf does not hold a new arch. Replace it.",
            sentence(leaf),
            units.exact(*thickness),
            units.exact(*least)
        ),
        RearchRefusal::NeedsRate { leaf, stress, allowed } => format!(
            "It needs more rate, not more arch: rated load alone works {leaf} to {}, and {} is allowed. Add a leaf, or take weight off.",
            units.stress(*stress),
            units.stress(*allowed)
        ),
        RearchRefusal::PastAllowable { leaf, stress, allowed, at_stop } => format!(
            "Too much is asked of the steel: {leaf} would come to {} {}, and {} is allowed. Ask for less height, or add a leaf.",
            units.stress(*stress),
            if *at_stop { "at the stop" } else { "under rated load" },
            units.stress(*allowed)
        ),
        RearchRefusal::NothingToGain => "It stands that high already; there is no arch to put in.".to_owned(),
        _ => "It is not to be re-arched.".to_owned(),
    }
}
