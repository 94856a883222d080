//! Identifying a whole vehicle and predicting from it: how long it takes, and how often two standard deviations of a
//! prediction hold the truth, three seeds of a thousand.

use std::hint::black_box;

use criterion::{Criterion, criterion_group, criterion_main};
use wise_badger_mechanics::identification::{Doubt, Doubtful, Experiment, LoadDoubt, MeasuredState, Measurement, Rest, TapeMark};
use wise_badger_mechanics::stance::{Change, Element, ElementKind, Load, Mount, Outcome, State, Vehicle, settle};
use wise_badger_mechanics::tape::Datum;
use wise_badger_mechanics::uncertain::Uncertain;
use wise_badger_mechanics::units::{InShopUnits, metres, newtons, newtons_per_metre};

#[allow(dead_code, reason = "the tests' alone")]
#[path = "../tests/support/errors.rs"]
mod errors;
#[allow(dead_code, reason = "the tests' alone")]
#[path = "../tests/support/oracle.rs"]
mod oracle;

use errors::Errors;
use oracle::{AxleNumbers, Numbers};

const TAPE_M: f64 = 0.0016;
const SCALE_N: f64 = 116.0;
const WHEELBASE_M: f64 = 3.6;
const CASES: u32 = 1_000;

fn vehicle(rear_factor: f64) -> Vehicle {
    let front = AxleNumbers {
        per_wheel: 7_000.0,
        rate: 45_000.0,
        stage: [0.1, 0.0],
        helper: [0.0, 0.0],
        stop: [0.5, 2e5],
        tyre: 2.5e5,
        bar: 2e4,
    };
    let rear = AxleNumbers { per_wheel: 5_500.0, rate: 33_000.0 * rear_factor, bar: 0.0, ..front };
    Numbers { wheelbase: WHEELBASE_M, axles: [front, rear], load: [0.0; 3] }.vehicle()
}

fn loaded(weight: f64) -> State {
    State::with_loads("loaded", vec![Load::at(newtons(weight), metres(WHEELBASE_M))])
}

fn helpers(_: &Vehicle) -> Vec<Change> {
    let kind = ElementKind::Helper { gap: metres(0.025), rate: newtons_per_metre(17_500.0), already_fitted: false };
    let element = Element { name: "fitted".into(), lateral: None, motion_ratio: 1.0, mount: Mount::Frame, kind };
    vec![Change::Add { axle: "R".into(), side: None, element }]
}

fn rear_height(vehicle: &Vehicle, state: &State) -> f64 {
    match settle(vehicle, state) {
        Ok(Outcome::Settled(stance)) => 0.54 + stance.axles.last().map_or(0.0, |axle| axle.hub_to_arch_change.left.si()),
        _ => f64::NAN,
    }
}

fn experiment(truth: &Vehicle, errors: &mut Errors) -> Experiment {
    let states = [0.0, 4_000.0].map(|weight| {
        let height = rear_height(truth, &loaded(weight)) + TAPE_M * errors.normal();
        let height = Uncertain::new(metres(height), metres(TAPE_M));
        // Empty is empty; what was put on is stated as the scale said.
        let off = if weight > 0.0 { SCALE_N } else { 0.0 };
        MeasuredState {
            state: loaded(weight + off * errors.normal()),
            load_doubts: vec![LoadDoubt { weight: newtons(off), position: metres(0.0) }],
            settling: metres(0.0),
            rest: Rest::RolledAndBounced,
            readings: vec![Measurement::Height { mark: TapeMark::axle("R", Datum::HubToArch), height }],
        }
    });
    let doubts = vec![Doubt { what: Doubtful::SpringRate, axles: vec!["R".into()], relative_sd: 0.35 }];
    Experiment { vehicle: vehicle(1.0), doubts, friction: vec![], states: states.to_vec() }
}

fn identification(criterion: &mut Criterion) {
    let sample = experiment(&vehicle(1.1), &mut Errors::new(7));
    criterion.bench_function("identification/two states", |bencher| bencher.iter(|| black_box(sample.clone()).identify()));
    let found = sample.identify().expect("sound states");
    criterion.bench_function("identification/one prediction", |bencher| bencher.iter(|| found.forecast(black_box(1), helpers)));
    for seed in [1, 2, 3] {
        let mut errors = Errors::new(seed);
        let held = (0..CASES).filter(|_| {
            let truth = vehicle((0.35 * errors.normal()).exp());
            let found = experiment(&truth, &mut errors).identify().expect("sound states");
            let truly = rear_height(&truth, &loaded(4_000.0).changed(helpers(&truth)));
            let forecast = found.forecast(1, helpers).expect("it stands");
            let height = found.height(&forecast, &TapeMark::axle("R", Datum::HubToArch)).expect("read");
            (height.value.si() - truly).abs() <= height.band().si()
        });
        println!("seed {seed}: two standard deviations of a prediction held the truth in {} of {CASES}", held.count());
    }
}

criterion_group!(benches, identification);
criterion_main!(benches);
