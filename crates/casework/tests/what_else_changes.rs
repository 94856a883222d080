//! What else changes with an option, by hand: hose, shock, stop, U-bolts and shaft.

#![allow(clippy::unwrap_used, clippy::indexing_slicing, reason = "a test fails where it stands")]

#[allow(dead_code, reason = "shared by several test files")]
mod support;

use support::half_ton;
use wise_badger_casework::consequence::{Consequence, OptionFitted, consequences};
use wise_badger_casework::look_over::{Addition, Area, Finding, Grade, LookOver, Measure, Measured};
use wise_badger_casework::prediction::Predictor;
use wise_badger_mechanics::correction::{
    AddedLeaf, Axles, CoilSpacer, Correction, ExchangedBlock, HelperSpring, LiftBlock, LongerShackle, RearchedPack, Site,
    TaperedBlock,
};
use wise_badger_mechanics::side::Side;
use wise_badger_mechanics::units::{InShopUnits, Length, inches, pounds_per_inch};

fn measured(taken: &[(Measure, f64)]) -> LookOver {
    let finding = |(what, value): &(Measure, f64)| Finding {
        area: what.area(),
        grade: Grade::Fine,
        defects: Vec::new(),
        measured: vec![Measured { what: *what, value: inches(*value) }],
    };
    LookOver { findings: taken.iter().map(finding).collect(), ..LookOver::default() }
}

fn of(parts: &[Correction], look_over: &LookOver) -> Vec<Consequence> {
    let prediction = Predictor::new(&half_ton()).predict(parts);
    consequences(&OptionFitted { parts, prediction: Some(&prediction), benches: &[], look_over })
}

fn close(got: Length, inch: f64) {
    assert!((got.customary() - inch).abs() < 1e-6, "{} is not {inch}", got.customary());
}

fn block(inch: f64) -> Correction {
    Correction::at_the_rear(LiftBlock { thickness: inches(inch) })
}

#[test]
fn a_block_takes_its_height_from_hose_and_shock_and_opens_the_stop() {
    let taken = measured(&[
        (Measure::HoseSlack, 1.0),
        (Measure::ShockRod, 4.0),
        (Measure::UBoltLeg, 9.5),
        (Measure::ShaftLength, 50.0),
        (Measure::ShaftDrop, 5.0),
    ]);
    let told = of(&[block(2.0)], &taken);
    let [
        hose,
        shock,
        Consequence::StopOpens(opens),
        Consequence::UBoltLeg { measured, longer },
        Consequence::Shaft { before, after },
    ] = told[..]
    else {
        panic!("{told:?}")
    };
    close(hose.left().unwrap(), -1.0);
    assert_eq!(hose.asks_for(), Some(Addition::LongerHose));
    close(shock.left().unwrap(), 2.0);
    assert_eq!(shock.asks_for(), None, "two inches are enough");
    close(opens, 2.0);
    close(measured.unwrap() + longer, 11.5);
    // The span stays √(50² − 5²) under the slope before; two inches more drop over it.
    assert!((before.value.sin() - 5.0 / 50.0).abs() < 1e-9);
    let span = (50.0_f64.powi(2) - 7.0_f64.powi(2)).sqrt();
    assert!((after.value.tan() - 7.0 / span).abs() < 1e-9);
}

#[test]
fn what_raises_no_spring_hangs_the_axle_no_lower() {
    let taken = measured(&[(Measure::HoseSlack, 1.0), (Measure::ShockRod, 0.5)]);
    let hangs = |part: Correction| {
        let told = of(&[part], &taken);
        told.iter().find_map(|one| if let Consequence::HoseSlack { .. } = one { one.left() } else { None })
    };
    let helper = Correction::at_the_rear(HelperSpring { pair_rate: pounds_per_inch(300.0), engagement_gap: inches(-0.5) });
    assert_eq!(hangs(helper.clone()), None);
    // It stands higher all the same, which the shock feels.
    let told = of(&[helper], &taken);
    assert!(matches!(told[..], [Consequence::ShockRod { .. }]), "{told:?}");
    assert_eq!(told[0].asks_for(), Some(Addition::LongerShocks));
    close(hangs(Correction::at_the_rear(RearchedPack { free_height_gained: inches(1.5) })).unwrap(), -0.5);
    close(hangs(Correction::at_the_rear(AddedLeaf { pair_rate: pounds_per_inch(100.0), lift: inches(0.75) })).unwrap(), 0.25);
    let exchanged = |thickness| Correction::at_the_rear(ExchangedBlock { thickness: inches(thickness), replaces: inches(2.0) });
    close(hangs(exchanged(3.0)).unwrap(), 0.0);
    assert_eq!(hangs(exchanged(1.0)), None, "nobody said that the shortest hose is at that end");
    // Of parts at both ends the end that hangs lower counts; at one end they add up.
    let front = Correction::at_the_rear(RearchedPack { free_height_gained: inches(0.5) })
        .on(Site { axles: Axles::Front, ..Site::default() });
    let told = of(&[block(1.0), front], &taken);
    close(told[0].left().unwrap(), 0.0);
}

/// A coil's shock and stop stay where they are: the axle hangs no lower, nothing reaches round more, and the stop opens by what the
/// coil is set off.
#[test]
fn a_coil_spacer_opens_the_stop_and_takes_nothing_from_the_hose() {
    let taken = measured(&[(Measure::HoseSlack, 1.0), (Measure::ShockRod, 2.5), (Measure::UBoltLeg, 9.5)]);
    let spacer = |replaces| Correction::at_the_rear(CoilSpacer { thickness: inches(2.0), replaces: inches(replaces) });
    let told = of(&[spacer(0.5)], &taken);
    let [shock, Consequence::StopOpens(opens)] = told[..] else { panic!("{told:?}") };
    close(shock.left().unwrap(), 1.0);
    close(opens, 1.5);
    let told = of(&[spacer(0.0)], &taken);
    assert_eq!(told[0].asks_for(), Some(Addition::LongerShocks), "half an inch of rod is none to spare");
}

/// Lever arms along the pack: 2 in longer, 25 and 31 in, raises by 2 × 25/56 and turns the seat by atan(2/56), nose up.
#[test]
fn a_longer_shackle_turns_the_seat_and_hangs_the_axle_lower() {
    let shackle =
        LongerShackle { new_length: inches(6.5), old_length: inches(4.5), front_half: inches(25.0), rear_half: inches(31.0) };
    let taken = measured(&[(Measure::HoseSlack, 2.0), (Measure::UBoltLeg, 9.5)]);
    let told = of(&[Correction::at_the_rear(shackle)], &taken);
    let [hose, Consequence::StopOpens(opens), Consequence::SeatTurns(turned)] = told[..] else { panic!("{told:?}") };
    close(hose.left().unwrap(), 2.0 - 50.0 / 56.0);
    close(opens, 50.0 / 56.0);
    assert!((turned.value.tan() - 2.0 / 56.0).abs() < 1e-9, "{turned:?}");
    // One no longer than the other changes nothing.
    let same = LongerShackle { new_length: inches(4.5), ..shackle };
    assert!(of(&[Correction::at_the_rear(same)], &taken).is_empty());
}

/// A part a side is not two parts: what it opens and turns is told of the side where it is most.
#[test]
fn parts_on_either_side_do_not_add_up() {
    let shackle = |new: f64, side| {
        let shackle =
            LongerShackle { new_length: inches(new), old_length: inches(4.5), front_half: inches(28.0), rear_half: inches(28.0) };
        Correction::at_the_rear(shackle).on(Site { side: Some(side), ..Site::default() })
    };
    let taken = measured(&[(Measure::HoseSlack, 3.0)]);
    let told = of(&[shackle(6.5, Side::Left), shackle(5.5, Side::Right)], &taken);
    let [hose, Consequence::StopOpens(opens), Consequence::SeatTurns(turned)] = told[..] else { panic!("{told:?}") };
    close(hose.left().unwrap(), 2.0);
    close(opens, 1.0);
    assert!((turned.value.tan() - 2.0 / 56.0).abs() < 1e-9, "{turned:?}");
}

/// A block of 1.8 and 2.2 in, 5 3/4 in long: 2 in of lift, and the nose of the pinion up by atan(0.4/5.75).
#[test]
fn a_tapered_block_raises_as_its_middle_does_and_turns_the_pinion() {
    let tapered = |front: f64, rear: f64| {
        Correction::at_the_rear(TaperedBlock { front_end: inches(front), rear_end: inches(rear), length: inches(5.75) })
    };
    let told = of(&[tapered(1.8, 2.2)], &measured(&[(Measure::UBoltLeg, 9.5)]));
    let [Consequence::StopOpens(opens), Consequence::UBoltLeg { longer, .. }, Consequence::PinionTurned(up)] = told[..] else {
        panic!("{told:?}")
    };
    close(opens, 2.0);
    close(longer, 2.0);
    assert!((up.value.tan() - 0.4 / 5.75).abs() < 1e-9, "{up:?}");
    let Some(Consequence::PinionTurned(down)) = of(&[tapered(2.2, 1.8)], &LookOver::default()).pop() else { panic!() };
    assert!((down + up).abs().value < 1e-9, "the other way round, the other way");
    // A shim against what a longer shackle turns leaves nothing to shim.
    let shackle =
        LongerShackle { new_length: inches(6.5), old_length: inches(4.5), front_half: inches(28.0), rear_half: inches(28.0) };
    let against = 5.75 * 2.0 / 56.0;
    let told = of(&[Correction::at_the_rear(shackle), tapered(against, 0.0)], &LookOver::default());
    assert!(!told.iter().any(|one| matches!(one, Consequence::SeatTurns(_))), "{told:?}");
    assert!(matches!(told.last(), Some(Consequence::PinionTurned(_))));
}

#[test]
fn nothing_is_told_of_what_was_not_measured_but_what_follows_by_itself() {
    let told = of(&[block(2.0)], &LookOver::default());
    assert!(matches!(told[..], [Consequence::StopOpens(_), Consequence::UBoltLeg { measured: None, .. }]), "{told:?}");
    assert!(told.iter().all(|one| one.asks_for().is_none()));
    assert_eq!(Measure::ShockRod.area(), Area::Shocks);
}
