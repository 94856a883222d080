//! Random vehicles against a general-purpose optimiser that knows nothing of this solver.

#![allow(clippy::unwrap_used, clippy::indexing_slicing, clippy::cast_precision_loss, reason = "a test fails where it stands")]

#[path = "support/oracle.rs"]
mod oracle;

use oracle::{AxleNumbers, Numbers};
use proptest::prelude::*;
use wise_badger_mechanics::stance::{Outcome, settle};
use wise_badger_mechanics::units::InShopUnits;

prop_compose! {
    fn axles()(per_wheel in 3e3..1e4_f64, rate in 2e4..1e5_f64, stage in (0.02..0.1_f64, 0.0..8e4_f64),
               helper in (-0.02..0.06_f64, 0.0..6e4_f64), stop in (0.04..0.12_f64, 0.0..4e5_f64),
               tyre in 1.5e5..5e5_f64, bar in 0.0..3e4_f64) -> AxleNumbers {
        let ([stage, helper, stop], bar) = ([stage, helper, stop].map(|(at, rate)| [at, rate]), bar);
        AxleNumbers { per_wheel, rate, stage, helper, stop, tyre, bar }
    }
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(48))]

    #[test]
    fn the_solver_and_the_optimiser_come_to_rest_at_the_same_place(
        front in axles(), rear in axles(), wheelbase in 2.5..5.0_f64,
        weight in 0.0..6e3_f64, place in 0.1..1.1_f64, lateral in -0.4..0.4_f64,
    ) {
        let numbers = Numbers { wheelbase, axles: [front, rear], load: [weight, place * wheelbase, lateral] };
        let Ok(Outcome::Settled(stance)) = settle(&numbers.vehicle(), &numbers.state()) else { return Ok(()) };
        let wheels = stance.axles.iter().flat_map(|axle| {
            [axle.ground_to_arch_change.left - axle.hub_to_arch_change.left, axle.ground_to_arch_change.right - axle.hub_to_arch_change.right]
        });
        let mut ours = vec![stance.heave.si(), stance.pitch.value, stance.roll.value];
        ours.extend(wheels.map(|rise| rise.si()));
        // The second writing of the physics finds nothing left over at our answer...
        prop_assert!(numbers.left_over(&ours) < 1e-4, "{} left over at {ours:?}", numbers.left_over(&ours));
        // ...and the optimiser, left alone, comes to the same place as far as it comes to rest at all.
        let theirs = numbers.minimise(1e-7);
        if !theirs.is_empty() && numbers.left_over(&theirs) < 1e-3 {
            for (our, their) in ours.iter().zip(&theirs) {
                prop_assert!((our - their).abs() < 1e-6, "{ours:?} and {theirs:?}");
            }
        }
    }
}
