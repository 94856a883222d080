//! How long one prediction takes: a correction on a measured survey, uncertainty and all.
//!
//! `ratio prediction-per-millisecond N` says how many fit into the millisecond that a page could spare for one; `ratio
//! weighing-in-warm-solves N`, how many warm stance solves of a two-axle vehicle it takes to weigh every story of one read in four states;
//! `ratio four-cases-in-warm-solves N`, how many it takes to predict a part in all four once that is done.

use std::hint::black_box;
use std::sync::LazyLock;
use std::time::Instant;

use criterion::{Criterion, criterion_group, criterion_main};
use wise_badger_casework::prediction::Predictor;
use wise_badger_casework::survey::{FurtherLoad, FurtherState, Gaps, LoadPut, Manner, Survey};
use wise_badger_mechanics::correction::{AddedLeaf, Correction, HelperSpring, LiftBlock};
use wise_badger_mechanics::stance::{Load, Solver, State, Vehicle};
use wise_badger_mechanics::units::{inches, pounds, pounds_per_inch};

/// The one of the program.
#[global_allocator]
static MEMORY: mimalloc::MiMalloc = mimalloc::MiMalloc;

#[path = "../../mechanics/tests/support/plain_axle.rs"]
mod plain_axle;
#[path = "../tests/support/mod.rs"]
mod support;

use plain_axle::axle;

fn corrections() -> [(&'static str, Correction); 3] {
    [
        ("block", Correction::at_the_rear(LiftBlock { thickness: inches(2.0) })),
        ("helper", Correction::at_the_rear(HelperSpring { pair_rate: pounds_per_inch(200.0), engagement_gap: inches(1.0) })),
        ("added leaf", Correction::at_the_rear(AddedLeaf { pair_rate: pounds_per_inch(90.0), lift: inches(1.0) })),
    ]
}

fn predictions(criterion: &mut Criterion) {
    let survey = support::half_ton();
    let mut group = criterion.benchmark_group("prediction");
    for (name, correction) in corrections() {
        group.bench_function(name, |bencher| {
            bencher.iter(|| Predictor::new(black_box(&survey)).predict(black_box(&correction)));
        });
    }
    group.finish();
    let rounds = 200_u32;
    let began = Instant::now();
    for _ in 0..rounds {
        for (_, correction) in &corrections() {
            black_box(Predictor::new(black_box(&survey)).predict(black_box(correction)));
        }
    }
    let each = began.elapsed().as_secs_f64() / f64::from(rounds * 3);
    println!("ratio prediction-per-millisecond {:.1}", 1e-3 / each);
    let survey = four_states();
    let weighing = in_warm_solves(|| {
        black_box(Predictor::new(black_box(&survey)).odds());
    });
    println!("ratio weighing-in-warm-solves {weighing:.0}");
    let predictor = Predictor::new(&survey);
    for (name, correction) in &corrections() {
        let predicted = in_warm_solves(|| {
            black_box(predictor.predict(black_box(correction)));
        });
        println!("ratio four-cases-in-warm-solves {predicted:.0} ({name})");
    }
}

/// Both timed in turn, the middle of many rounds: a machine that is now quicker and now slower is so for both.
fn in_warm_solves(what: impl Fn()) -> f64 {
    let mut solver = Solver::new(&VEHICLE, &[]).expect("ready");
    let light = State::with_loads("light", vec![Load::at(pounds(800.0), inches(145.0))]);
    let heavy = State::with_loads("heavy", vec![Load::at(pounds(1_000.0), inches(145.0))]);
    let mut rounds: Vec<f64> = (0..21)
        .map(|_| {
            let began = Instant::now();
            what();
            let taken = began.elapsed().as_secs_f64();
            let began = Instant::now();
            for turn in 0..2_000 {
                drop(black_box(solver.settle(black_box(if turn % 2 == 0 { &light } else { &heavy }))));
            }
            taken / (began.elapsed().as_secs_f64() / 2_000.0)
        })
        .collect();
    rounds.sort_by(f64::total_cmp);
    rounds.get(rounds.len() / 2).copied().unwrap_or(f64::NAN)
}

/// The half-ton with half of its load, and with 200 lb more.
fn four_states() -> Survey {
    let mut survey = support::half_ton();
    for (key, weight, rear) in [(3, 500.0, 20.125), (4, 1_200.0, 18.25)] {
        survey.heights.further.push((key, support::heights(20.5, rear)));
        survey.stop_gap.further.push((key, Gaps::default()));
        survey.manner.further.push((key, Manner::Rolled));
        let load = FurtherLoad::Put(LoadPut::Placed { weight: pounds(weight), behind_rear_axle: inches(0.0) });
        survey.further.push(FurtherState { key, name: format!("{weight} lb"), load, test_weight: false });
    }
    survey
}

/// A vehicle of two axles alike.
static VEHICLE: LazyLock<Vehicle> = LazyLock::new(|| {
    let axles = vec![axle("front", 0.0, 370.0), axle("rear", 145.0, 370.0)];
    Vehicle { axles, points: vec![], sprung_cg_height: inches(28.0), coupler: None, equalisers: vec![] }
});

criterion_group!(benches, predictions);
criterion_main!(benches);
