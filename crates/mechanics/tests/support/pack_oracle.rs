//! The same packs left to a general-purpose solver: clarabel's interior point on the dense quadratic program of the contact
//! forces, `min ½λᵀAλ + (q + rP)ᵀλ` over `λ ≥ 0`. The stations and the beam formula are written a second time.

#![allow(clippy::indexing_slicing, reason = "counted by hand")]

use clarabel::algebra::CscMatrix;
use clarabel::solver::{DefaultSettings, DefaultSolver, IPSolver, NonnegativeConeT};
use wise_badger_mechanics::pack::Pack;
use wise_badger_mechanics::units::InShopUnits;

const STATIONS: u32 = 20;

/// Eye chord over the seat, by small slopes.
pub(crate) fn least_energy_eye(pack: &Pack, load: f64) -> f64 {
    let main = &pack.leaves[0];
    let (a, b) = (main.front.si(), main.rear.si());
    let front = half_eye(pack, load * b / (a + b), |leaf| leaf.front.si() - pack.clamp.front.si());
    let rear = half_eye(pack, load * a / (a + b), |leaf| leaf.rear.si() - pack.clamp.rear.si());
    (b * front + a * rear) / (a + b)
}

fn beam(x: f64, s: f64) -> f64 {
    if x < s { x * x * (3.0 * s - x) / 6.0 } else { s * s * (3.0 * x - s) / 6.0 }
}

/// Evenly along an overlap, and where any leaf ends within it; an even place that a leaf ends close to gives way.
fn looked_at(overlap: f64, lengths: &[f64]) -> Vec<f64> {
    let near = 0.2 * overlap / f64::from(STATIONS);
    let mut ends: Vec<f64> = lengths.iter().copied().filter(|length| *length < overlap - near).collect();
    ends.push(overlap);
    ends.sort_by(f64::total_cmp);
    let mut kept: Vec<f64> = Vec::new();
    for end in ends {
        if kept.last().is_none_or(|last| end - last >= near) {
            kept.push(end);
        }
    }
    for step in 1..STATIONS {
        let x = overlap * f64::from(step) / f64::from(STATIONS);
        if kept.iter().all(|end| (end - x).abs() >= near) {
            kept.push(x);
        }
    }
    kept
}

fn half_eye(pack: &Pack, load: f64, active: impl Fn(&wise_badger_mechanics::pack::Leaf) -> f64) -> f64 {
    let lengths: Vec<f64> = pack.leaves.iter().map(&active).collect();
    let stiffness: Vec<f64> =
        pack.leaves.iter().map(|leaf| pack.young_modulus.value * leaf.width.si() * leaf.thickness.si().powi(3) / 12.0).collect();
    let mut contacts = Vec::new();
    for upper in 0..lengths.len() {
        for lower in upper + 1..lengths.len() {
            let reach = lengths[upper + 1..lower].iter().copied().fold(0.0, f64::max);
            let gap: f64 = (upper + 1..=lower)
                .map(|leaf| {
                    pack.leaves[leaf].spacer_above.si() + if leaf < lower { pack.leaves[leaf].thickness.si() } else { 0.0 }
                })
                .sum();
            for x in looked_at(lengths[upper].min(lengths[lower]), &lengths) {
                if x > reach + 1e-9 {
                    contacts.push((upper, lower, x, gap));
                }
            }
        }
    }
    let n = contacts.len();
    let sign = |contact: &(usize, usize, f64, f64), leaf: usize| {
        f64::from(u8::from(contact.0 == leaf)) - f64::from(u8::from(contact.1 == leaf))
    };
    // Forces in kilonewtons and gaps in millimetres, so that the program is well scaled.
    let compliance = |one: &(usize, usize, f64, f64), other: &(usize, usize, f64, f64)| -> f64 {
        (0..lengths.len()).map(|leaf| 1e6 * sign(one, leaf) * sign(other, leaf) * beam(one.2, other.2) / stiffness[leaf]).sum()
    };
    let curvature = |leaf: usize| pack.leaves[leaf].curvature.value;
    let linear: Vec<f64> = contacts
        .iter()
        .map(|(upper, lower, x, gap)| {
            let pressed = if *upper == 0 { load * beam(*x, lengths[0]) / stiffness[0] } else { 0.0 };
            1e3 * ((curvature(*upper) - curvature(*lower)) * x * x / 2.0 + gap - pressed)
        })
        .collect();
    let forces = match n {
        0 => Vec::new(),
        _ => {
            let dense: Vec<Vec<f64>> = (0..n)
                .map(|row| {
                    (0..n).map(|column| if column >= row { compliance(&contacts[row], &contacts[column]) } else { 0.0 }).collect()
                })
                .collect();
            let quadratic = CscMatrix::from(&dense);
            let cone = (0..n).map(|row| (0..n).map(|column| if row == column { -1.0 } else { 0.0 }).collect::<Vec<f64>>());
            let cone = CscMatrix::from(&cone.collect::<Vec<_>>());
            let settings = DefaultSettings { verbose: false, ..DefaultSettings::default() };
            let mut solver = DefaultSolver::new(&quadratic, &linear, &cone, &vec![0.0; n], &[NonnegativeConeT(n)], settings)
                .expect("a program");
            solver.solve();
            solver.solution.x.clone()
        }
    };
    let lifted: f64 =
        contacts.iter().zip(&forces).map(|(contact, force)| 1e3 * force * sign(contact, 0) * beam(lengths[0], contact.2)).sum();
    curvature(0) * lengths[0] * lengths[0] / 2.0 + (lifted - load * beam(lengths[0], lengths[0])) / stiffness[0]
}
