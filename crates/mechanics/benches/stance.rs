//! The stance solver: a two-axle vehicle with six elements, cold and warm.

use std::hint::black_box;

use criterion::{Criterion, criterion_group, criterion_main};
use wise_badger_mechanics::document::StanceDocument;
use wise_badger_mechanics::stance::{Solver, settle};
use wise_badger_mechanics::units::newtons;

const DOCUMENT: &str = include_str!("../tests/reference/stance/F14_van_helper_coil_spacer.json");

fn stance(criterion: &mut Criterion) {
    let document = StanceDocument::read(DOCUMENT).expect("the reference document");
    let state = document.states.first().expect("it has a state");
    let elements: usize =
        document.vehicle.axles.iter().map(|a| a.corners.left.elements.len() + a.corners.right.elements.len()).sum();
    println!("{elements} elements, {} changes", state.changes.len());
    criterion.bench_function("stance/cold", |bencher| bencher.iter(|| settle(black_box(&document.vehicle), black_box(state))));
    let mut solver = Solver::new(&document.vehicle, &state.changes).expect("ready");
    let mut heavier = state.clone();
    for load in &mut heavier.loads {
        load.weight += newtons(200.0);
    }
    criterion.bench_function("stance/warm", |bencher| {
        bencher.iter(|| {
            let _ = black_box(solver.settle(black_box(state)));
            black_box(solver.settle(black_box(&heavier)))
        });
    });
}

criterion_group!(benches, stance);
criterion_main!(benches);
