//! The whole curve of an asymmetric pack (41 loads, both halves, 5 leaves, 20 stations) against the same dense quadratic
//! programs through clarabel with its default settings, setting up included on both sides.

use std::hint::black_box;
use std::time::Instant;

use criterion::{Criterion, criterion_group, criterion_main};
use wise_badger_mechanics::pack::OverloadLeaf;
use wise_badger_mechanics::pack::{Clamp, Leaf, Pack};
use wise_badger_mechanics::units::{Force, metres, newtons, pascals, per_metre};

#[path = "../tests/support/pack_oracle.rs"]
mod pack_oracle;

const LOADS: u32 = 41;
const ROUNDS: usize = 15;

fn asymmetric() -> Pack {
    let leaf = |name: &str, thickness, front, rear, curvature| Leaf {
        front: metres(front),
        rear: metres(rear),
        curvature: per_metre(curvature),
        ..Leaf::flat(name, metres(0.0635), metres(thickness), metres(front))
    };
    let leaves = vec![
        leaf("main", 0.0079, 0.61, 0.81, 0.63),
        leaf("second", 0.0076, 0.55, 0.72, 0.70),
        leaf("third", 0.0074, 0.44, 0.58, 0.76),
        leaf("fourth", 0.0071, 0.35, 0.43, 0.80),
        leaf("overload", 0.0140, 0.28, 0.33, 0.0),
    ];
    Pack {
        young_modulus: pascals(206e9),
        clamp: Clamp { front: metres(0.0635), rear: metres(0.0762) },
        leaves,
        helper: None,
        overload: OverloadLeaf::default(),
    }
}

fn loads() -> Vec<Force> {
    (0..LOADS).map(|step| newtons(250.0 * f64::from(step))).collect()
}

fn middle(mut times: Vec<f64>) -> f64 {
    times.sort_by(f64::total_cmp);
    times.get(times.len() / 2).copied().unwrap_or(f64::NAN)
}

fn timed(work: impl FnOnce()) -> f64 {
    let began = Instant::now();
    work();
    began.elapsed().as_secs_f64()
}

fn pack(criterion: &mut Criterion) {
    let (pack, loads) = (asymmetric(), loads());
    let ours = || drop(black_box(black_box(&pack).prepare(newtons(10_000.0)).and_then(|prepared| prepared.curve(&loads))));
    criterion.bench_function("pack/curve", |bencher| bencher.iter(ours));
    let theirs = || {
        for load in &loads {
            black_box(pack_oracle::least_energy_eye(&pack, load.value));
        }
    };
    // In turn, so that a machine that is now quicker and now slower is so for both.
    let rounds: Vec<(f64, f64)> = (0..ROUNDS).map(|_| (timed(|| (0..20).for_each(|_| ours())) / 20.0, timed(theirs))).collect();
    let (ours, theirs) =
        (middle(rounds.iter().map(|round| round.0).collect()), middle(rounds.iter().map(|round| round.1).collect()));
    println!("curve {:.2} ms; clarabel {:.1} ms", ours * 1e3, theirs * 1e3);
    println!("ratio pack-curve-vs-qp {:.0}", theirs / ours);
}

criterion_group!(benches, pack);
criterion_main!(benches);
