//! The rate fit: how long it takes, and how often two standard deviations hold the truth, three seeds of a thousand.

use std::hint::black_box;

use criterion::{Criterion, criterion_group, criterion_main};
use wise_badger_mechanics::axle_rate::{AxleState, RatePrior, fit_rate};
use wise_badger_mechanics::uncertain::Uncertain;
use wise_badger_mechanics::units::{InShopUnits, inches, pounds, pounds_per_inch};

const SCALE_LB: f64 = 26.0;
const HEIGHT_IN: f64 = 0.075;
const CASES: u32 = 1_000;

#[path = "../tests/support/errors.rs"]
mod errors;

fn state(load: f64, height: f64) -> AxleState {
    AxleState { load: Uncertain::new(pounds(load), pounds(SCALE_LB)), height: Uncertain::new(inches(height), inches(HEIGHT_IN)) }
}

fn fits(criterion: &mut Criterion) {
    let prior = RatePrior { rate: pounds_per_inch(370.0), relative_sd: 0.35 };
    let two = [state(0.0, 21.5), state(1_000.0, 18.8125)];
    criterion.bench_function("fit/single rate", |bencher| bencher.iter(|| fit_rate(black_box(&two), &prior, None)));
    let staged = |load: f64| if load > 740.0 { 2.0 + (load - 740.0) / 1_110.0 } else { load / 370.0 };
    let eight: Vec<AxleState> = (0..8).map(|n| 300.0 * f64::from(n)).map(|load| state(load, 21.5 - staged(load))).collect();
    criterion.bench_function("fit/two stages", |bencher| bencher.iter(|| fit_rate(black_box(&eight), &prior, None)));
    for seed in [1, 2, 3] {
        let mut errors = errors::Errors::new(seed);
        let held = (0..CASES)
            .filter(|case| {
                let truth = 370.0 * (0.35 * errors.normal()).exp();
                let loads: &[f64] = if case % 2 == 0 { &[0.0, 900.0] } else { &[0.0, 400.0, 800.0] };
                let mut read =
                    |load: f64| state(load + SCALE_LB * errors.normal(), 21.5 - load / truth + HEIGHT_IN * errors.normal());
                let states: Vec<AxleState> = loads.iter().map(|load| read(*load)).collect();
                let fit = fit_rate(&states, &prior, None).expect("sound states");
                (fit.rate.customary() / truth).ln().abs() <= 2.0 * fit.relative_sd
            })
            .count();
        println!("seed {seed}: two standard deviations held the truth in {held} of {CASES}");
    }
}

criterion_group!(benches, fits);
criterion_main!(benches);
