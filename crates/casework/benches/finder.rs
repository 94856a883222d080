//! How long the finder takes, in warm stance solves of a two-axle vehicle of the same run.
//!
//! `ratio finder-in-warm-solves N` says how many it takes to look through the demo shop's shelf for a job of several cases, all of it;
//! `ratio finder-against-one-by-one N` how many times longer it would take to predict as many combinations one by one.

#![allow(clippy::unwrap_used, clippy::indexing_slicing, reason = "a made-up job is sound")]

use std::hint::black_box;
use std::sync::LazyLock;
use std::time::Instant;

use criterion::{Criterion, criterion_group, criterion_main};
use wise_badger_casework::casework::Casework;
use wise_badger_casework::entry::TypedIn;
use wise_badger_casework::finder::{Search, ToTheEnd, Weights, find};
use wise_badger_casework::job_document::JobDocument;
use wise_badger_mechanics::stance::{Load, Solver, State, Vehicle};
use wise_badger_mechanics::units::{inches, pounds};

/// The one of the program.
#[global_allocator]
static MEMORY: mimalloc::MiMalloc = mimalloc::MiMalloc;

#[path = "../tests/support/in_short.rs"]
mod in_short;
#[path = "../../mechanics/tests/support/plain_axle.rs"]
mod plain_axle;

use in_short::demo_shelf;
use plain_axle::axle;

const EXAMPLE: &str = include_str!("../../../docs/examples/job.json");

fn finder(criterion: &mut Criterion) {
    let work = Casework::new(JobDocument::read(EXAMPLE).expect("the example").case());
    let shelf = demo_shelf();
    let search = Search { work: &work, shelf: &shelf, weights: Weights::default(), today: None, units: TypedIn::default() };
    let found = find(&search, &ToTheEnd);
    criterion.bench_function("finder", |bencher| bencher.iter(|| find(black_box(&search), &ToTheEnd)));
    let solve = warm_solve();
    let mut rounds: Vec<f64> = (0..5)
        .map(|_| {
            let began = Instant::now();
            black_box(find(&search, &ToTheEnd));
            began.elapsed().as_secs_f64()
        })
        .collect();
    rounds.sort_by(f64::total_cmp);
    let whole = rounds[rounds.len() / 2];
    println!("ratio finder-in-warm-solves {:.0} ({} combinations, {:.3} s)", whole / solve, found.counted.screened, whole);
    let parts: Vec<_> = found.ranked.iter().filter_map(|ranked| ranked.option.corrections(None)).collect();
    let began = Instant::now();
    for parts in &parts {
        black_box(work.predictor().predict(black_box(parts)));
    }
    #[expect(clippy::cast_precision_loss, reason = "a few thousand")]
    let (each, count) = (began.elapsed().as_secs_f64() / parts.len().max(1) as f64, found.counted.screened as f64);
    println!("ratio finder-against-one-by-one {:.1}", each * count / whole);
}

fn warm_solve() -> f64 {
    let mut solver = Solver::new(&VEHICLE, &[]).expect("ready");
    let light = State::with_loads("light", vec![Load::at(pounds(800.0), inches(145.0))]);
    let heavy = State::with_loads("heavy", vec![Load::at(pounds(1_000.0), inches(145.0))]);
    let began = Instant::now();
    for turn in 0..200_000 {
        drop(black_box(solver.settle(black_box(if turn % 2 == 0 { &light } else { &heavy }))));
    }
    began.elapsed().as_secs_f64() / 200_000.0
}

/// A vehicle of two axles alike.
static VEHICLE: LazyLock<Vehicle> = LazyLock::new(|| {
    let axles = vec![axle("front", 0.0, 370.0), axle("rear", 145.0, 370.0)];
    Vehicle { axles, points: vec![], sprung_cg_height: inches(28.0), coupler: None, equalisers: vec![] }
});

criterion_group! { name = benches; config = Criterion::default().sample_size(10); targets = finder }
criterion_main!(benches);
