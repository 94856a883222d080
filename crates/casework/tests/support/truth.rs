//! Made-up vehicles whose truth is known, measured with made-up errors, and how often the program's bands hold it.
//!
//! The truth is written apart from the engine: one rear axle as a sum of springs, found by halving; inches and pounds. What is
//! put on sits over the rear axle (or over the middle of a trailer's), so that all of it is the rear's. Vehicles of every class; rates
//! are off from the class's by 35 % and tires by 15 %, as one standard deviation; loads are stated to 26 lb, and read to a sixteenth
//! with a sixteenth of tape and a sixteenth of settling.

#[path = "../../../mechanics/tests/support/errors.rs"]
mod errors;

use errors::Errors;
use wise_badger_casework::prediction::{Moment, NextReading, Predictor, Story};
use wise_badger_casework::survey::{
    Ends, FurtherLoad, FurtherState, Gaps, LoadPut, LoadState, Manner, OverloadLeaves, RearWheels, Seen, States, Survey,
    VehicleClass, VehicleFacts,
};
use wise_badger_casework::verdict::RateVerdict;
use wise_badger_casework::words::Word as _;
use wise_badger_mechanics::axle_rate::RateGrade;
use wise_badger_mechanics::correction::{AddedLeaf, Correction, HelperSpring, LiftBlock, LoadRubber};
use wise_badger_mechanics::side::Sides;
use wise_badger_mechanics::stance::ForceTable;
use wise_badger_mechanics::tape::{AxleReadings, Datum, HeightReadings};
use wise_badger_mechanics::units::{InShopUnits, inches, pounds, pounds_per_inch};

/// What a row of the table is about.
#[derive(Clone, Copy)]
pub(crate) struct Row {
    pub(crate) what: &'static str,
    /// What the program is told.
    #[allow(dead_code, reason = "the table's alone")]
    pub(crate) told: &'static str,
    pub(crate) read: Read,
    pub(crate) manner: Manner,
    pub(crate) dry: bool,
    pub(crate) stops_hit: bool,
    /// Half of the leaf friction that there is, as a share of the load; nothing where it is what the program believes.
    pub(crate) friction_sd: Option<f64>,
    pub(crate) stage: bool,
    pub(crate) stop: bool,
    pub(crate) misread: bool,
}

/// What is read of a job.
#[derive(Clone, Copy, PartialEq, Eq)]
pub(crate) enum Read {
    /// Empty, half of the load, all of it.
    Three,
    /// Empty and loaded, with the stop gap in both.
    TwoWithGaps,
    /// Empty and loaded, and nothing else.
    Two,
}

const PLAIN: Row = Row {
    what: "assumptions hold",
    told: "rolled",
    read: Read::Three,
    manner: Manner::Rolled,
    dry: false,
    stops_hit: false,
    friction_sd: None,
    stage: false,
    stop: false,
    misread: false,
};

/// The rows of the table.
pub(crate) const ROWS: &[Row] = &[
    PLAIN,
    Row { read: Read::TwoWithGaps, ..PLAIN },
    Row { what: "friction ±2.5 % of the load", friction_sd: Some(0.0125), ..PLAIN },
    Row { what: "friction ±5 %", told: "as it stood", manner: Manner::AsItStood, friction_sd: Some(0.025), ..PLAIN },
    Row {
        what: "friction ±15 %",
        told: "as it stood, dry leaves",
        manner: Manner::AsItStood,
        dry: true,
        friction_sd: Some(0.075),
        ..PLAIN
    },
    Row { what: "a second stage", told: "rolled; nothing of it", stage: true, ..PLAIN },
    Row { what: "a second stage", told: "rolled; nothing of it", stage: true, read: Read::TwoWithGaps, ..PLAIN },
    Row { what: "a hidden stop contact", told: "rolled; bottoms out", stop: true, stops_hit: true, ..PLAIN },
    Row { what: "a hidden stop contact", told: "rolled; nothing of it", stop: true, ..PLAIN },
    Row { what: "one state misread by 1/2 in", told: "rolled; nothing of it", misread: true, ..PLAIN },
    Row { what: "one height misread by 1/2 in", told: "rolled; nothing of it", misread: true, read: Read::TwoWithGaps, ..PLAIN },
    Row { read: Read::Two, ..PLAIN },
];

/// How often, of how many, and how wide.
#[derive(Default)]
pub(crate) struct Tally {
    #[allow(dead_code, reason = "the table's alone")]
    pub(crate) jobs: u32,
    pub(crate) rates: u32,
    pub(crate) rates_inside: u32,
    pub(crate) heights: u32,
    pub(crate) heights_inside: u32,
    /// By part: block, helper, added leaf, rubber.
    pub(crate) by_part: [(u32, u32); 4],
    pub(crate) tapes_inside: u32,
    pub(crate) good: u32,
    pub(crate) good_and_wrong: u32,
    pub(crate) rate_bands: Vec<f64>,
    pub(crate) height_bands: Vec<f64>,
    /// How likely each job is taken to hide a stop contact, a second stage, a misreading.
    pub(crate) suspected: Vec<[f64; 3]>,
}

/// Runs so many jobs of a row.
pub(crate) fn run(row: &Row, seed: u64, jobs: u32) -> Tally {
    let mut errors = Errors::new(seed);
    let mut tally = Tally { jobs, ..Tally::default() };
    for number in 0..jobs {
        let job = Job::make(row, number, &mut errors);
        tally.count(&job, &mut errors);
    }
    tally
}

impl Tally {
    fn count(&mut self, job: &Job, errors: &mut Errors) {
        let predictor = Predictor::new(&job.survey);
        self.suspected.push(suspicion(&predictor));
        if let Some(figure) = predictor.rate().measured() {
            let off = (figure.rate.customary() / job.truth.secant(job.load)).ln();
            self.rates += 1;
            self.rates_inside += u32::from(off.abs() <= 2.0 * figure.relative_sd);
            self.rate_bands.push(2.0 * figure.relative_sd);
            if figure.grade == RateGrade::Good {
                self.good += 1;
                self.good_and_wrong += u32::from(off.abs() > 1.2_f64.ln());
            }
        }
        for (place, (part, fitted)) in parts(job).into_iter().enumerate() {
            let predicted = predictor.predict(&part).loaded;
            let Ok(predicted) = predicted else { continue };
            let truly = job.truth.height(job.load, &fitted);
            // The parts are what was said of them: what they might be off by is taken out of the band.
            let own = |sd: f64| 2.0 * (sd.powi(2) - (predicted.part.customary() / 2.0).powi(2)).max(0.0).sqrt();
            let inside = |value: f64, band: f64| u32::from((value - predicted.rear.value.customary()).abs() <= band);
            let held = inside(truly, own(predicted.rear.sd.customary()));
            self.heights += 1;
            self.heights_inside += held;
            let (of, in_it) = &mut self.by_part[place];
            (*of, *in_it) = (*of + 1, *in_it + held);
            self.height_bands.push(own(predicted.rear.sd.customary()));
            let fresh = truly + job.fresh(&fitted, errors);
            self.tapes_inside += inside(fresh, own(predicted.tape().sd.customary()));
        }
    }

    pub(crate) fn share(part: u32, of: u32) -> f64 {
        f64::from(part) / f64::from(of.max(1))
    }
}

/// The middle one.
pub(crate) fn median(values: &[f64]) -> f64 {
    let mut sorted = values.to_vec();
    sorted.sort_by(f64::total_cmp);
    sorted.get(sorted.len() / 2).copied().unwrap_or(f64::NAN)
}

/// How much of the band of the rate the reading that is named to settle most leaves, once it is taken: two heights and no gap, of every
/// fourth job with a second stage and every fourth with a stop that bears. Jobs in which none is named are left out.
pub(crate) fn settled(seed: u64, jobs: u32) -> Vec<f64> {
    let mut errors = Errors::new(seed);
    let mut left = Vec::new();
    for number in 0..jobs {
        let row = Row { read: Read::Two, stage: number % 4 == 0, stop: number % 4 == 1, ..PLAIN };
        let job = Job::make(&row, number, &mut errors);
        let before = Predictor::new(&job.survey);
        let Some(most) = before.settles_most() else { continue };
        let after = Predictor::new(&job.once_read(most.reading, &mut errors));
        if let Some((before, after)) = spread(&before).zip(spread(&after)) {
            left.push(after / before);
        }
    }
    left
}

/// Chances as they are stated that the rear stands within a stated band empty and within another loaded, at once, and whether it does: made-up
/// jobs of a row, four parts each, which are off from what was said of them as much as they may be.
pub(crate) fn promised(row: &Row, seed: u64, jobs: u32) -> Vec<(f64, bool)> {
    let mut errors = Errors::new(seed);
    let mut promised = Vec::new();
    for number in 0..jobs {
        let job = Job::make(row, number, &mut errors);
        let predictor = Predictor::new(&job.survey);
        for (part, fitted) in parts(&job) {
            let fitted = fitted.turned_out(&mut errors);
            let set = std::slice::from_ref(&part);
            let prediction = predictor.predict(&part);
            let (Ok(empty), Ok(loaded)) = (prediction.empty, prediction.loaded) else { continue };
            let mut goal = |said: f64| (said + 0.4 * errors.normal(), between(&mut errors, 0.2, 0.9));
            let goals = [goal(empty.rear.value.customary()), goal(loaded.rear.value.customary())];
            let met = |heights: [f64; 2]| heights.iter().zip(goals).all(|(height, (middle, off))| (height - middle).abs() <= off);
            let moments = [(Moment::State(LoadState::Empty), set), (Moment::State(LoadState::Loaded), set)];
            let Ok(joint) = predictor.joint(&moments) else { continue };
            let drawn =
                joint.draw(1_000, 2).filter(|drawn| met([0, 1].map(|at: usize| drawn[at].rear.unwrap().customary()))).count();
            let truly = met([0.0, job.load].map(|load| job.truth.height(load, &fitted)));
            #[allow(clippy::cast_precision_loss, reason = "a thousand at most")]
            promised.push((drawn as f64 / 1_000.0, truly));
        }
    }
    promised
}

/// Of all that were promised with a chance between two, how many came true, and of how many.
pub(crate) fn came_true(promised: &[(f64, bool)], from: f64, to: f64) -> (u32, u32) {
    let such = || promised.iter().filter(|(chance, _)| (from..to).contains(chance));
    let count = |of: usize| u32::try_from(of).unwrap();
    (count(such().filter(|(_, met)| *met).count()), count(such().count()))
}

fn spread(predictor: &Predictor) -> Option<f64> {
    match predictor.rate() {
        RateVerdict::Measured(figure) => Some(figure.relative_sd),
        RateVerdict::TooWeak { relative_sd, .. } => *relative_sd,
        _ => None,
    }
}

fn suspicion(predictor: &Predictor) -> [f64; 3] {
    let mut suspected = [0.0; 3];
    for (story, odds) in predictor.odds() {
        match story {
            Story::StopContact => suspected[0] += odds,
            Story::SecondStage => suspected[1] += odds,
            Story::Misread(_) => suspected[2] += odds,
            _ => {}
        }
    }
    suspected
}

/// What stands between axle and body at the rear, all of it together; positions are travel from rest at kerb.
#[derive(Clone, Default)]
struct Truth {
    rate: f64,
    /// Travel at which it joins in, and what it adds.
    stage: Option<(f64, f64)>,
    /// Clearance of the stops, and their force per square of what they are squashed by beside that per inch.
    stop: Option<(f64, f64)>,
    tires: f64,
    kerb_height: f64,
    sprung: f64,
}

/// What is fitted.
#[derive(Clone, Default)]
struct Fitted {
    block: f64,
    /// Rate and clearance.
    helper: Option<(f64, f64)>,
    /// Rate and lift.
    leaf: Option<(f64, f64)>,
    /// Rate and clearance; the stops come out.
    rubber: Option<(f64, f64)>,
}

impl Fitted {
    /// The same part a little off from what was said of it: rates by a tenth, where it begins to bear by an eighth of an inch, and the lift
    /// of a leaf by half an inch, as one standard deviation.
    fn turned_out(mut self, errors: &mut Errors) -> Self {
        for part in [&mut self.helper, &mut self.rubber] {
            *part = part.map(|(rate, gap)| (rate * (1.0 + 0.1 * errors.normal()), gap + 0.125 * errors.normal()));
        }
        self.leaf = self.leaf.map(|(rate, lift)| (rate * (1.0 + 0.1 * errors.normal()), lift + 0.5 * errors.normal()));
        self
    }
}

impl Truth {
    /// What the springs carry more than at kerb.
    fn springs(&self, travel: f64) -> f64 {
        let stage = self.stage.map_or(0.0, |(at, adds)| adds * (travel - at).max(0.0));
        self.rate * travel + stage
    }

    /// Everything that pushes, at an axle-to-body travel.
    fn force(&self, travel: f64, fitted: &Fitted) -> f64 {
        let past = |gap: f64| (travel - gap).max(0.0);
        let stop = self.stop.filter(|_| fitted.rubber.is_none());
        let stop = stop.map_or(0.0, |(gap, rate)| rate * past(gap) * (0.6 + 0.4 * past(gap)));
        let helper = fitted.helper.map_or(0.0, |(rate, gap)| rate * past(gap));
        let leaf = fitted.leaf.map_or(0.0, |(rate, lift)| self.rate * lift + rate * (travel + lift));
        let rubber = fitted.rubber.map_or(0.0, |(rate, gap)| rate * past(gap));
        self.springs(travel + fitted.block) + stop + helper + leaf + rubber
    }

    /// Travel under a load more than at kerb, friction holding up by so much.
    fn travel(&self, load: f64, held: f64, fitted: &Fitted) -> f64 {
        let (mut low, mut high) = (-30.0, 60.0);
        for _ in 0..60 {
            let middle = (low + high) / 2.0;
            if self.force(middle, fitted) < load - held { low = middle } else { high = middle }
        }
        (low + high) / 2.0
    }

    fn height(&self, load: f64, fitted: &Fitted) -> f64 {
        self.held(load, 0.0, fitted)
    }

    fn held(&self, load: f64, held: f64, fitted: &Fitted) -> f64 {
        self.kerb_height - self.travel(load, held, fitted) - load / self.tires
    }

    fn secant(&self, load: f64) -> f64 {
        let travel = self.travel(load, 0.0, &Fitted::default());
        self.springs(travel) / travel
    }
}

/// A job: what is true, and what the shop read.
struct Job {
    truth: Truth,
    load: f64,
    stated: f64,
    survey: Survey,
    friction_sd: f64,
    /// Clearance at the stops, empty.
    stop_gap: f64,
}

impl Job {
    fn make(row: &Row, number: u32, errors: &mut Errors) -> Job {
        let classes: Vec<VehicleClass> = VehicleClass::WORDS.iter().map(|(class, _)| *class).collect();
        // Only where the stops of one axle are read do their gaps go into the sums.
        let fits = |class: &&VehicleClass| row.read != Read::TwoWithGaps || class.rear_axles() == 1;
        let classes: Vec<&VehicleClass> = classes.iter().filter(fits).collect();
        let class = *classes[number as usize % classes.len()];
        let wheelbase = 145.0;
        let vehicle = VehicleFacts::new(
            class,
            RearWheels::Single,
            inches(wheelbase),
            Ends { front: pounds(20_000.0), rear: pounds(40_000.0) },
        );
        let assumed = vehicle.assumptions();
        let class_rate = assumed.rear_rate.customary();
        let rate = class_rate * (0.35 * errors.normal()).exp();
        let stated = (class_rate * between(errors, 1.5, 3.5)).round();
        let load = (stated + 26.0 * errors.normal()) * (1.0 + 2.0 * errors.normal() / wheelbase);
        let travel = load / rate;
        let stage = row.stage.then(|| (travel * between(errors, 0.3, 0.8), rate * 1.2 * (0.4 * errors.normal()).exp()));
        let stop = row.stop.then(|| (travel * between(errors, 0.5, 0.9), 3.0 * rate * (0.4 * errors.normal()).exp()));
        let truth = Truth {
            rate,
            stage,
            stop,
            tires: assumed.rear_tyres().customary() * (0.15 * errors.normal()).exp(),
            kerb_height: between(errors, 30.0, 42.0),
            sprung: (assumed.kerb_rear - assumed.rear_unsprung).customary(),
        };
        let spread = if row.manner == Manner::Rolled { 0.5 } else { 1.0 };
        let friction_sd = row.friction_sd.unwrap_or_else(|| spread * 0.025 * (0.5 * errors.normal()).exp());
        let clear = between(errors, 1.0, 2.0) + truth.travel(load, 0.0, &Fitted::default());
        let stop_gap = truth.stop.map_or(clear, |(gap, _)| gap);
        let states: &[f64] = if row.read == Read::Three { &[0.0, 0.5, 1.0] } else { &[0.0, 1.0] };
        #[allow(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "one of three")]
        let misread = row.misread.then(|| (between(errors, 0.0, states.len() as f64 - 1e-9) as usize, errors.normal().signum()));
        let mut read = Vec::new();
        for (place, share) in states.iter().enumerate() {
            // Half a load is another load: stated and put on anew.
            let put = if *share > 0.0 && *share < 1.0 { stated / 2.0 + 26.0 * errors.normal() } else { load * share };
            let held = friction_sd * errors.normal() * (truth.sprung + put);
            let (travel, settled) = (truth.travel(put, held, &Fitted::default()), errors.normal() / 16.0);
            let off = misread.filter(|(state, _)| *state == place).map_or(0.0, |(_, way)| way * 0.5);
            let height = truth.held(put, held, &Fitted::default()) + settled;
            let mut tape = |height: f64| ((height + errors.normal() / 16.0) * 16.0).round() / 16.0;
            let sides = Sides { left: vec![inches(tape(height) + off)], right: vec![inches(tape(height) + off)] };
            read.push((sides, tape(stop_gap - travel + settled)));
        }
        let rear = |place: usize| HeightReadings {
            front: AxleReadings::default(),
            rear: AxleReadings { corners: read[place].0.clone() },
        };
        let gap = |place: usize| {
            let there = row.read == Read::TwoWithGaps;
            if there { Gaps::at_the_rear(inches(read[place].1)) } else { Gaps::default() }
        };
        let last = states.len() - 1;
        let half = LoadPut::Placed { weight: pounds(stated / 2.0), behind_rear_axle: inches(0.0) };
        let further = (row.read == Read::Three).then(|| FurtherState {
            key: 3,
            name: "half".to_owned(),
            load: FurtherLoad::Put(half),
            test_weight: false,
        });
        let of_further = |make: &dyn Fn() -> HeightReadings| further.iter().map(|state| (state.key, make())).collect();
        let survey = Survey {
            vehicle,
            datum: Datum::GroundToArch,
            heights: States { further: of_further(&|| rear(1)), ..States::of(rear(0), rear(last)) },
            load: Some(LoadPut::Placed { weight: pounds(stated), behind_rear_axle: inches(0.0) }),
            stop_gap: States {
                further: further.iter().map(|state| (state.key, Gaps::default())).collect(),
                ..States::of(gap(0), gap(last))
            },
            manner: States {
                further: further.iter().map(|state| (state.key, row.manner)).collect(),
                ..States::of(row.manner, row.manner)
            },
            further: further.into_iter().collect(),
            overload_leaves: OverloadLeaves::default(),
            test_weight: false,
            seen: Seen { dry_leaves: row.dry, stops_hit: row.stops_hit },
        };
        Job { truth, load, stated, survey, friction_sd, stop_gap }
    }

    /// The survey once a reading more is taken.
    fn once_read(&self, reading: NextReading, errors: &mut Errors) -> Survey {
        let mut survey = self.survey.clone();
        let travel = self.truth.travel(self.load, 0.0, &Fitted::default());
        let more = |stated: f64, true_load: f64, manner: Manner, errors: &mut Errors| {
            let pull = match manner {
                Manner::PressedDown => -2.0 * self.friction_sd * (1.0 + 0.15 * errors.normal()),
                Manner::Lifted => 2.0 * self.friction_sd * (1.0 + 0.15 * errors.normal()),
                _ => self.friction_sd * errors.normal(),
            };
            let held = pull * (self.truth.sprung + true_load);
            let height = self.truth.held(true_load, held, &Fitted::default()) + errors.normal() / 16.0;
            let mut tape = || vec![inches(((height + errors.normal() / 16.0) * 16.0).round() / 16.0)];
            (stated, Sides { left: tape(), right: tape() }, manner)
        };
        let (as_stated, as_put) = (self.stated, self.load);
        let states = match reading {
            NextReading::StopGap => {
                survey.stop_gap.loaded = Gaps::at_the_rear(inches((self.stop_gap - travel).max(0.0)));
                Vec::new()
            }
            NextReading::LeafContact => {
                survey.overload_leaves.bears.loaded = Some(self.truth.stage.is_some_and(|(at, _)| travel > at));
                Vec::new()
            }
            NextReading::MoreLoad(weight) => {
                let weight = weight.customary();
                vec![more(as_stated + weight, as_put + weight + 26.0 * errors.normal(), Manner::Rolled, errors)]
            }
            NextReading::HalfTheLoad => {
                vec![more(as_stated / 2.0, as_stated / 2.0 + 26.0 * errors.normal(), Manner::Rolled, errors)]
            }
            NextReading::Again(LoadState::Empty) => vec![more(0.0, 0.0, Manner::Rolled, errors)],
            NextReading::PressedAndLifted => {
                [Manner::PressedDown, Manner::Lifted].map(|manner| more(as_stated, as_put, manner, errors)).to_vec()
            }
            _ => vec![more(as_stated, as_put, Manner::Rolled, errors)],
        };
        for (key, (stated, sides, manner)) in (5_u8..).zip(states) {
            // What a further state carries is known as well as the load is; nothing more aboard is the empty vehicle.
            let put = LoadPut::Placed { weight: pounds(stated.max(1.0)), behind_rear_axle: inches(0.0) };
            let heights = HeightReadings { front: AxleReadings::default(), rear: AxleReadings { corners: sides } };
            survey.heights.further.push((key, heights));
            survey.stop_gap.further.push((key, Gaps::default()));
            survey.manner.further.push((key, manner));
            survey.further.push(FurtherState { key, name: "more".to_owned(), load: FurtherLoad::Put(put), test_weight: true });
        }
        survey
    }

    /// What lies on top of a height at rest when it is read anew.
    fn fresh(&self, fitted: &Fitted, errors: &mut Errors) -> f64 {
        let held = self.friction_sd * errors.normal() * (self.truth.sprung + self.load);
        let held = self.truth.held(self.load, held, fitted) - self.truth.height(self.load, fitted);
        // Two sides, one reading each, on one settling.
        held + errors.normal() / 16.0 + errors.normal() / 16.0 / 2.0_f64.sqrt()
    }
}

fn between(errors: &mut Errors, low: f64, high: f64) -> f64 {
    low + (high - low) * errors.uniform()
}

/// Parts for a job, as the program is told of them and as the truth has them.
fn parts(job: &Job) -> [(Correction, Fitted); 4] {
    let rate = job.survey.vehicle.assumptions().rear_rate.customary();
    let axles = f64::from(job.survey.vehicle.class.rear_axles());
    let (helper, leaf, rubber) = (0.5 * rate, 0.25 * rate, 1.5 * rate);
    let one = |all: f64, squash: f64| (inches(squash), pounds(all / axles / 2.0 * squash));
    let table = ForceTable::new(&[one(rubber, 0.0), one(rubber, 1.0), one(rubber, 2.0)]).unwrap();
    [
        (Correction::at_the_rear(LiftBlock { thickness: inches(2.0) }), Fitted { block: 2.0, ..Fitted::default() }),
        (
            Correction::at_the_rear(HelperSpring { pair_rate: pounds_per_inch(helper), engagement_gap: inches(0.5) }),
            Fitted { helper: Some((helper, 0.5)), ..Fitted::default() },
        ),
        (
            Correction::at_the_rear(AddedLeaf { pair_rate: pounds_per_inch(leaf), lift: inches(1.0) }),
            Fitted { leaf: Some((leaf, 1.0)), ..Fitted::default() },
        ),
        (
            Correction::at_the_rear(LoadRubber { clearance: inches(0.5), force: table }),
            Fitted { rubber: Some((rubber, 0.5)), ..Fitted::default() },
        ),
    ]
}
