//! Several accounts of one figure, and what a reading not yet taken would be worth.

use proptest::prelude::*;
use wise_badger_mechanics::mixture::{
    Foreseen, ForeseenAnswer, Mixture, Part, half_width_after_a_reading, half_width_after_an_answer,
};

fn part(weight: f64, mean: f64, sd: f64) -> Part {
    Part { weight, mean, sd }
}

#[test]
fn one_account_alone_has_a_band_of_two_standard_deviations() {
    let alone = Mixture::new(vec![part(3.0, 5.0, 0.7)]);
    assert!((alone.half_width_about(5.0) - 1.4).abs() < 1e-5);
}

#[test]
fn a_reading_of_the_figure_itself_leaves_what_two_readings_leave() {
    // Known to ±1 and read to ±1: one over the root of two, whatever is read (Kalman's gain of a half).
    let seen = Foreseen { figure: part(1.0, 0.0, 1.0), reading: 0.0, reading_sd: 2.0_f64.sqrt(), covariance: 1.0 };
    assert!((half_width_after_a_reading(&[seen]) - 2.0_f64.sqrt()).abs() < 1e-4);
}

#[test]
fn an_answer_that_tells_two_accounts_apart_leaves_each_its_own_band() {
    let told = |yes| {
        let of = |mean, yes| ForeseenAnswer { figure: part(0.5, mean, 1.0), yes };
        half_width_after_an_answer(&[of(-10.0, yes), of(10.0, 1.0 - yes)])
    };
    assert!((told(1.0) - 2.0).abs() < 1e-4, "{}", told(1.0));
    let of_nothing = Mixture::new(vec![part(0.5, -10.0, 1.0), part(0.5, 10.0, 1.0)]).half_width_about(0.0);
    assert!((told(0.5) - of_nothing).abs() < 1e-9);
}

fn parts() -> impl Strategy<Value = Vec<Part>> {
    prop::collection::vec((0.01..1.0_f64, -3.0..3.0_f64, 0.05..2.0_f64), 1..6)
        .prop_map(|parts| parts.into_iter().map(|(weight, mean, sd)| part(weight, mean, sd)).collect())
}

proptest! {
    /// Counted out on a fine grid instead of by the error function.
    #[test]
    fn a_band_holds_what_two_standard_deviations_hold(parts in parts(), centre in -3.0..3.0_f64) {
        let half = Mixture::new(parts.clone()).half_width_about(centre);
        let total: f64 = parts.iter().map(|part| part.weight).sum();
        let density = |x: f64| -> f64 {
            let of = |part: &Part| part.weight / total * (-0.5 * ((x - part.mean) / part.sd).powi(2)).exp() / part.sd;
            parts.iter().map(of).sum::<f64>() / (2.0 * std::f64::consts::PI).sqrt()
        };
        let steps = 20_000;
        let step = 2.0 * half / f64::from(steps);
        let held: f64 = (0..steps).map(|at| density(centre - half + (f64::from(at) + 0.5) * step) * step).sum();
        prop_assert!((held - 0.9545).abs() < 1e-3, "{held}");
    }

    /// What nobody reads anything in tells nothing; what is read exactly leaves no more open than before.
    #[test]
    fn a_reading_that_has_nothing_to_do_with_it_changes_nothing(parts in parts(), sd in 0.1..2.0_f64) {
        let mixture = Mixture::new(parts.clone());
        let before = mixture.half_width_about(mixture.mean());
        let idle: Vec<Foreseen> =
            parts.iter().map(|figure| Foreseen { figure: *figure, reading: 1.0, reading_sd: sd, covariance: 0.0 }).collect();
        prop_assert!((half_width_after_a_reading(&idle) - before).abs() < 1e-6 * before);
    }
}
