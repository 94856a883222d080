//! What parts really did, and what that says of the next one.

#![allow(clippy::unwrap_used, clippy::indexing_slicing, reason = "a test fails where it stands")]

use proptest::prelude::*;
use rand::{RngExt, SeedableRng};
use rand_pcg::Pcg64Mcg;
use wise_badger_casework::ledger::{BETWEEN_NUMBERS, LEAST_JOBS, ReadsHow, mean_and_sd, reads_how, record, taken_for_m};
use wise_badger_mechanics::correction::{Correction, LeafByLift, LiftBlock};
use wise_badger_mechanics::units::{inches, pounds};

/// Draws from a fixed beginning.
struct Dice(Pcg64Mcg);

impl Dice {
    fn between(&mut self, least: f64, most: f64) -> f64 {
        self.0.random_range(least..most)
    }

    /// Standard normal, by the Box-Muller transform.
    fn normal(&mut self) -> f64 {
        let (one, other) = (self.between(1e-12, 1.0), self.between(0.0, std::f64::consts::TAU));
        (-2.0 * one.ln()).sqrt() * other.cos()
    }
}

#[test]
fn a_reader_is_held_against_what_the_bands_take_a_reading_for() {
    // One standard deviation of a sixteenth of an inch, as every band takes it.
    assert!((taken_for_m() - 0.0254 / 16.0).abs() < 1e-12);
    assert_eq!(reads_how(4, 0.1), ReadsHow::TooFew, "however wide");
    assert_eq!(reads_how(5, 0.0254 / 16.0), ReadsHow::AsTaken, "a sixteenth is what is allowed for");
    assert_eq!(reads_how(5, 0.0254 / 8.0), ReadsHow::Wider);
}

#[test]
fn a_mean_and_how_far_about_it() {
    assert_eq!(mean_and_sd(&[]), (0.0, 0.0));
    assert_eq!(mean_and_sd(&[3.0]), (3.0, 0.0));
    // By hand: 2, 4, 6 are 4 on the mean; (4 + 0 + 4) / 2 = 4, whose root is 2.
    assert_eq!(mean_and_sd(&[2.0, 4.0, 6.0]), (4.0, 2.0));
}

#[test]
fn few_proofs_say_nothing_and_many_good_ones_speak_for_themselves() {
    assert_eq!(record(&[]), None);
    assert_eq!(record(&[(1.0, 0.1); LEAST_JOBS - 1]), None);
    // By hand: three jobs that each say 1.0 ± 0.5. 1/0.8 + 3/(0.2 + 0.25) = 1.25 + 6.667 = 7.917; 6.667/7.917 = 0.842.
    let three = record(&[(1.0, 0.5); 3]).unwrap();
    assert!((three.deviations - 0.842).abs() < 0.001 && (three.left - (0.1263_f64 + 0.2).sqrt()).abs() < 0.001, "{three:?}");
    let many = record(&[(1.0, 0.1); 400]).unwrap();
    assert!((many.deviations - 1.0).abs() < 0.01, "{many:?}");
    assert!(many.left > (1.0 - BETWEEN_NUMBERS).sqrt(), "each single one still differs from its fellows: {many:?}");
    let rough = record(&[(2.0, 6.0); 4]).unwrap();
    assert!(rough.deviations < 0.2 && rough.left > 0.95, "rough ones hardly move it: {rough:?}");
}

#[test]
fn the_band_of_the_next_one_holds_it_in_made_up_histories() {
    let mut dice = Dice(Pcg64Mcg::seed_from_u64(20_261_130));
    for jobs in [3, 6, 20] {
        let (mut inside, mut narrower, mut closer) = (0, 0.0, 0);
        let histories = 4_000;
        for _ in 0..histories {
            let of_number = dice.normal() * BETWEEN_NUMBERS.sqrt();
            let parts: Vec<f64> = (0..=jobs).map(|_| of_number + dice.normal() * (1.0 - BETWEEN_NUMBERS).sqrt()).collect();
            let said: Vec<(f64, f64)> = parts[..jobs]
                .iter()
                .map(|part| {
                    let sd = dice.between(0.2, 1.5);
                    (part + dice.normal() * sd, sd)
                })
                .collect();
            let known = record(&said).unwrap();
            let next = parts[jobs];
            inside += u32::from((next - known.deviations).abs() <= 2.0 * known.left);
            closer += u32::from((next - known.deviations).abs() < next.abs());
            narrower += known.left;
        }
        let share = f64::from(inside) / f64::from(histories);
        assert!((0.94..0.97).contains(&share), "{jobs} jobs: {share} of the next ones inside two deviations");
        let left = narrower / f64::from(histories);
        assert!(left < 0.85, "{jobs} jobs leave {left}");
        assert!(f64::from(closer) / f64::from(histories) > 0.55, "{jobs} jobs: closer than what was said");
    }
}

#[test]
fn a_known_part_is_moved_and_its_doubt_narrower_and_an_exact_one_is_as_it_was() {
    let leaf = || Correction::at_the_rear(LeafByLift { lift: inches(1.5), capacity: pounds(500.0), working_travel: inches(3.0) });
    let lift = |part: &Correction| part.account().get("lift").and_then(|figure| figure.si()).unwrap() / 0.0254;
    let known = leaf().known_as(-1.0, 0.5);
    assert!((lift(&known) - 1.0).abs() < 1e-9, "half an inch is a deviation of an advertised lift");
    let off = |part: &Correction| {
        let off = part.one_deviation_off();
        let (_, [up, down]) = off.iter().find(|(figure, _)| figure.name == "lift").unwrap();
        (lift(up), lift(down))
    };
    let (up, down) = off(&leaf());
    assert!((up - 2.0).abs() < 1e-9 && (down - 1.0).abs() < 1e-9, "{up} {down}");
    let (up, down) = off(&known);
    assert!((up - 1.25).abs() < 1e-9 && (down - 0.75).abs() < 1e-9, "{up} {down}");
    let capacity = |part: &Correction| {
        part.one_deviation_off().iter().find(|(figure, _)| figure.name == "capacity").map(|(_, [up, _])| up.account())
    };
    assert_eq!(
        format!("{:?}", capacity(&known).unwrap().get("capacity")),
        format!("{:?}", capacity(&leaf()).unwrap().get("capacity"))
    );
    let block = Correction::at_the_rear(LiftBlock { thickness: inches(2.0) }).known_as(1.0, 0.5);
    assert!(block.learned_from_heights().is_none());
    assert!((block.account().get("thickness").and_then(|figure| figure.si()).unwrap() / 0.0254 - 2.0).abs() < 1e-12);
}

proptest! {
    #[test]
    fn what_is_known_is_never_in_more_doubt_than_before_and_lies_between_what_was_said_and_seen(
        jobs in prop::collection::vec((-3.0_f64..3.0, 0.05_f64..5.0), LEAST_JOBS..30),
    ) {
        let known = record(&jobs).unwrap();
        prop_assert!(known.is_sound() && known.left <= 1.0);
        let (least, most) = jobs.iter().fold((0.0_f64, 0.0_f64), |(least, most), (at, _)| (least.min(*at), most.max(*at)));
        prop_assert!((least..=most).contains(&known.deviations));
        let mut more = jobs.clone();
        more.push((known.deviations, 0.3));
        prop_assert!(record(&more).unwrap().left < known.left, "one more proof leaves less doubt");
    }
}
