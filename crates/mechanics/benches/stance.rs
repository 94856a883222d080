//! The stance solver on a two-axle vehicle with six elements, against a general-purpose optimiser.
//!
//! The optimiser is argmin's L-BFGS with the More-Thuente line search: analytic gradients, the same start (the kerb
//! state), and the gradient tolerance that the solver itself holds (1e-10 of the forces at work, here some 1e-6 N). It
//! stops a little before that, where the energy no longer changes in its last digit: what it leaves over is printed.

use std::hint::black_box;
use std::time::Instant;

use criterion::{Criterion, criterion_group, criterion_main};
use wise_badger_mechanics::stance::{Solver, settle};
use wise_badger_mechanics::units::newtons;

#[allow(dead_code, reason = "the tests' alone")]
#[path = "../tests/support/oracle.rs"]
mod oracle;

use oracle::{AxleNumbers, Numbers};

fn numbers() -> Numbers {
    let front = AxleNumbers {
        per_wheel: 7_000.0,
        rate: 45_000.0,
        stage: [0.1, 0.0],
        helper: [0.0, 0.0],
        stop: [0.06, 2e5],
        tyre: 2.5e5,
        bar: 2e4,
    };
    let rear =
        AxleNumbers { per_wheel: 5_500.0, rate: 33_000.0, stage: [0.06, 4e4], helper: [0.02, 3e4], stop: [0.09, 2e5], ..front };
    Numbers { wheelbase: 3.6, axles: [front, rear], load: [5_000.0, 3.5, 0.15] }
}

/// Seconds a turn of one piece of work takes.
fn seconds_each(turns: u32, work: &mut dyn FnMut()) -> f64 {
    let began = Instant::now();
    (0..turns).for_each(|_| work());
    began.elapsed().as_secs_f64() / f64::from(turns)
}

/// Seconds that each of several pieces of work takes, timed in turn over and over: the middle of many rounds, so that a
/// machine that is now quicker and now slower is so for all of them.
fn in_turn<const N: usize>(mut pieces: [(u32, &mut dyn FnMut()); N]) -> [f64; N] {
    let rounds: Vec<[f64; N]> =
        (0..ROUNDS).map(|_| pieces.each_mut().map(|(turns, work)| seconds_each(*turns, &mut **work))).collect();
    std::array::from_fn(|piece| {
        let mut times: Vec<f64> = rounds.iter().filter_map(|round| round.get(piece).copied()).collect();
        times.sort_by(f64::total_cmp);
        times.get(times.len() / 2).copied().unwrap_or(f64::NAN)
    })
}

const ROUNDS: usize = 41;

fn stance(criterion: &mut Criterion) {
    let numbers = numbers();
    let (vehicle, state) = (numbers.vehicle(), numbers.state());
    criterion.bench_function("stance/cold", |bencher| bencher.iter(|| settle(black_box(&vehicle), black_box(&state))));
    let mut solver = Solver::new(&vehicle, &state.changes).expect("ready");
    let mut heavier = state.clone();
    for load in &mut heavier.loads {
        load.weight += newtons(200.0);
    }
    let mut turn = false;
    criterion.bench_function("stance/warm", |bencher| {
        bencher.iter(|| {
            turn = !turn;
            black_box(solver.settle(black_box(if turn { &state } else { &heavier })))
        });
    });
    // The optimiser is handed a problem made ready, and so is the solver; setting it up is timed apart.
    let mut ready = || {
        solver.begin_at_kerb();
        drop(black_box(solver.settle(black_box(&state))));
    };
    let mut cold = || drop(black_box(settle(black_box(&vehicle), black_box(&state))));
    let mut minimise = || drop(black_box(black_box(&numbers).minimise(1e-6)));
    let [ready, cold, oracle] = in_turn([(2_000, &mut ready), (1_000, &mut cold), (50, &mut minimise)]);
    println!(
        "solver {:.1} µs made ready, {:.1} µs with setting up; L-BFGS {:.1} µs leaving {:.1e} N over",
        ready * 1e6,
        cold * 1e6,
        oracle * 1e6,
        numbers.left_over(&numbers.minimise(1e-6))
    );
    println!("ratio stance-vs-lbfgs {:.0}", oracle / ready);
    println!("ratio stance-set-up-vs-lbfgs {:.0}", oracle / cold);
}

criterion_group!(benches, stance);
criterion_main!(benches);
