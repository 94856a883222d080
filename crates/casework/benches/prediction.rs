//! How long one prediction takes: a correction on a measured survey, uncertainty and all.
//!
//! `ratio prediction-per-millisecond N` says how many fit into the millisecond that a page could spare for one.

use std::hint::black_box;
use std::time::Instant;

use criterion::{Criterion, criterion_group, criterion_main};
use wise_badger_casework::prediction::Predictor;
use wise_badger_mechanics::correction::{AddedLeaf, Correction, HelperSpring, LiftBlock};
use wise_badger_mechanics::units::{inches, pounds_per_inch};

#[path = "../tests/support/mod.rs"]
mod support;

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
    let rounds = 2_000_u32;
    let began = Instant::now();
    for _ in 0..rounds {
        for (_, correction) in &corrections() {
            black_box(Predictor::new(black_box(&survey)).predict(black_box(correction)));
        }
    }
    let each = began.elapsed().as_secs_f64() / f64::from(rounds * 3);
    println!("ratio prediction-per-millisecond {:.1}", 1e-3 / each);
}

criterion_group!(benches, predictions);
criterion_main!(benches);
