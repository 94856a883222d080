//! The rules of the shop: what a vehicle, a load, a reading, an aim and a proof may be.

#![allow(clippy::unwrap_used, clippy::indexing_slicing, reason = "a test fails where it stands")]

mod support;

use proptest::prelude::*;
use support::{half_ton, heights, on_springs_alone};
use wise_badger_casework::aim::{Aim, AimProblem, AimVerdict, TargetBand, Way};
use wise_badger_casework::prediction::Predictor;
use wise_badger_casework::proof::{ProofCheck, ProofGrade};
use wise_badger_casework::survey::{
    Basis, EmptyAndLoaded, End, Gaps, LoadProblem, LoadPut, LoadState, RearWheels, VehicleClass, VehicleProblem,
};
use wise_badger_casework::verdict::{Overload, RateVerdict, Rated, RatingCheck, Relief, contact_suspicion};
use wise_badger_mechanics::axle_rate::ContactSuspicion;
use wise_badger_mechanics::correction::{Correction, CorrectionProblem, HelperSpring, LiftBlock};
use wise_badger_mechanics::side::{Side, Sides};
use wise_badger_mechanics::stance::ForceTable;
use wise_badger_mechanics::tape::{
    AxleReadings, Beside, Datum, LengthUnit, ReadingDoubt, Repeats, WeightUnit, format_length, parse_length, parse_rate,
    parse_weight,
};
use wise_badger_mechanics::uncertain::Uncertain;
use wise_badger_mechanics::units::{InShopUnits, Length, inches, metres, pounds, pounds_per_inch};

#[track_caller]
fn close(got: f64, expected: f64, within: f64) {
    assert!((got - expected).abs() <= within, "{got} where {expected} ± {within} was expected");
}

fn placed(weight: f64, behind: f64) -> LoadPut {
    LoadPut::Placed { weight: pounds(weight), behind_rear_axle: inches(behind) }
}

#[test]
fn every_class_is_a_vehicle_that_can_stand() {
    for class in VehicleClass::all() {
        for rear_wheels in [RearWheels::Single, RearWheels::Dual] {
            let mut vehicle = half_ton().vehicle;
            (vehicle.class, vehicle.rear_wheels) = (class, rear_wheels);
            vehicle.axle_ratings.front = pounds(20_000.0);
            vehicle.axle_ratings.rear = pounds(20_000.0);
            assert_eq!(vehicle.problems(), [], "{class:?} {rear_wheels:?}");
            let assumed = vehicle.assumptions();
            assert!(assumed.rear_rate.si() > 0.0 && assumed.rear_unsprung < assumed.kerb_rear);
            assert_eq!(vehicle.kerb_weight(End::Rear), (assumed.kerb_rear, Basis::Assumed));
        }
    }
}

#[test]
fn a_vehicle_that_cannot_be_is_found_out() {
    let problems = |spoil: &dyn Fn(&mut wise_badger_casework::survey::VehicleFacts)| {
        let mut vehicle = half_ton().vehicle;
        spoil(&mut vehicle);
        vehicle.problems()
    };
    assert!(matches!(problems(&|v| v.wheelbase = inches(12.0))[..], [VehicleProblem::Wheelbase]));
    assert!(matches!(
        problems(&|v| v.kerb.rear = Some(pounds(300.0)))[..],
        [VehicleProblem::KerbTooLight { end: End::Rear, .. }]
    ));
}

#[test]
fn a_load_sits_on_the_vehicle_and_leaves_its_wheels_down() {
    let vehicle = half_ton().vehicle;
    assert_eq!(placed(500.0, 40.0).problems(&vehicle), []);
    assert_eq!(placed(500.0, -145.0).problems(&vehicle), [], "over the front axle");
    assert!(matches!(placed(500.0, 120.0).problems(&vehicle)[..], [LoadProblem::OffTheVehicle { .. }]));
    assert!(matches!(placed(500.0, -250.0).problems(&vehicle)[..], [LoadProblem::OffTheVehicle { .. }]));
    assert_eq!(placed(0.0, 0.0).problems(&vehicle), [LoadProblem::Nothing]);
    // 3,000 lb in front is lifted by W·x/L: 12,000 lb 40 in behind takes 12,000 × 40 / 145 = 3,310 lb off it.
    assert_eq!(placed(12_000.0, 40.0).problems(&vehicle), [LoadProblem::LiftsTheFront]);
    let weighed =
        |empty, loaded| LoadPut::Weighed { rear: EmptyAndLoaded { empty: pounds(empty), loaded: pounds(loaded) }, front: None };
    assert_eq!(weighed(2300.0, 3300.0).problems(&vehicle), []);
    for (empty, loaded) in [(2300.0, 2300.0), (2300.0, 2200.0), (400.0, 1400.0)] {
        assert_eq!(weighed(empty, loaded).problems(&vehicle), [LoadProblem::ScaleOrder(End::Rear)], "{empty} {loaded}");
    }
}

#[test]
fn scale_readings_take_the_place_of_assumed_weights() {
    let mut survey = half_ton();
    survey.load = Some(LoadPut::Weighed {
        rear: EmptyAndLoaded { empty: pounds(2400.0), loaded: pounds(3450.0) },
        front: Some(EmptyAndLoaded { empty: pounds(3100.0), loaded: pounds(3060.0) }),
    });
    let loads = survey.axle_loads();
    close(loads.empty.rear.customary(), 2400.0, 1e-9);
    close(loads.loaded(End::Front).unwrap().customary(), 3060.0, 1e-9);
    assert_eq!(loads.empty_basis.rear, Basis::Stated);
    // Two scale readings of 26 lb each: √2 × 26.
    close(loads.change.rear.unwrap().sd.customary(), 36.77, 0.01);
    let figure = RateVerdict::of_two_states(&survey);
    close(figure.measured().unwrap().rate.customary(), 1050.0 / 2.6875, 1e-6);
}

#[test]
fn a_gross_rating_is_held_as_well_as_the_axles() {
    let mut survey = half_ton();
    survey.vehicle.gross_rating = Some(pounds(6100.0));
    // 3,000 + 2,250 + 1,000 = 6,250: 150 lb over the gross rating, neither axle over its own.
    let overload = Overload::of(&survey).unwrap();
    assert_eq!(overload.over.iter().map(|check| check.rated).collect::<Vec<_>>(), [Rated::Gross]);
    let Relief::TakeOff { weight, or_move_forward, .. } = overload.relief else { panic!("{overload:?}") };
    close(weight.customary(), 150.0, 1e-6);
    assert_eq!(or_move_forward, None, "moving a load takes nothing off the whole");
    survey.vehicle.gross_rating = None;
    survey.vehicle.kerb.rear = Some(pounds(4200.0));
    assert_eq!(Overload::of(&survey).unwrap().relief, Relief::EmptyIsOver);
}

#[test]
fn a_load_is_moved_forward_only_where_the_front_has_room() {
    let mut survey = half_ton();
    survey.load = Some(placed(1900.0, 10.0));
    // 1,900 × 155 / 145 = 2,031 on 2,250: 181 over; 181 × 145 / 1,900 = 13.8 in further forward.
    let Relief::TakeOff { or_move_forward, .. } = Overload::of(&survey).unwrap().relief else { panic!("over") };
    close(or_move_forward.unwrap().customary(), 13.82, 0.02);
    survey.vehicle.axle_ratings.front = pounds(3001.0);
    let Relief::TakeOff { or_move_forward, .. } = Overload::of(&survey).unwrap().relief else { panic!("over") };
    assert_eq!(or_move_forward, None);
    let checks = RatingCheck::all(&survey);
    assert_eq!(checks.iter().filter(|check| check.margin().si() < 0.0).count(), 1);
}

#[test]
fn a_corner_that_rose_is_told_by_its_side() {
    let mut survey = half_ton();
    assert_eq!(survey.rear_corners_that_rose(), []);
    survey.heights.loaded.rear.corners.left = vec![inches(22.0)];
    assert_eq!(survey.rear_corners_that_rose(), [Side::Left]);
    survey.heights.loaded = heights(21.5, 18.0);
    assert_eq!(survey.rear_corners_that_rose(), [], "a front that rises is nobody's mistake");
}

#[test]
fn aims_have_their_bounds() {
    let survey = half_ton();
    let tolerance = inches(0.25);
    let problems = |aim: Aim| aim.problems(&survey);
    assert_eq!(problems(Aim::LevelEmpty { tolerance }), []);
    assert!(matches!(problems(Aim::LevelEmpty { tolerance: inches(0.01) })[..], [AimProblem::Tolerance]));
    assert!(matches!(problems(Aim::LevelLoaded { rake: inches(-9.0), tolerance })[..], [AimProblem::Rake]));
    assert_eq!(problems(Aim::RecoverSag { share: 0.0, tolerance })[..], [AimProblem::Share]);
    // Half of the 2 11/16 in of sag back: 18 13/16 + 1 11/32 in, and more is as good.
    let half = Aim::RecoverSag { share: 0.5, tolerance }.target(&survey).unwrap();
    close(half.height.customary(), 18.8125 + 2.6875 / 2.0, 1e-9);
    assert_eq!(half.judge(Uncertain::new(inches(22.0), inches(0.1))), AimVerdict::Meets);
    // A level stance goes by the front, wherever that is put; a share of the sag does not.
    let level = Aim::LevelLoaded { rake: inches(0.5), tolerance };
    let over = |aim: &Aim, front: f64| aim.target_over(Some(inches(front)), &survey).unwrap().height.customary();
    close(level.target(&survey).unwrap().height.customary(), 21.0, 1e-9);
    close(over(&level, 22.0), 22.5, 1e-9);
    close(over(&Aim::RecoverSag { share: 0.5, tolerance }, 22.0), half.height.customary(), 1e-9);
    assert!(level.target_over(None, &survey).is_none());
    // A step 58 in behind the axle, wheelbase 145 in, wants 2 1/2 in more: (1 + 58/145) = 1.4 of what the axle rises.
    let (point, measured, wanted) = (inches(58.0), inches(9.0), inches(11.5));
    let step = Aim::Clearance { behind_rear_axle: point, measured, wanted, tolerance };
    close(step.raise(&survey).unwrap().customary(), 2.5 / 1.4, 1e-9);
    let off = Aim::Clearance { behind_rear_axle: inches(300.0), measured, wanted, tolerance };
    assert!(matches!(problems(off)[..], [AimProblem::Clearance { .. }]));
    let far = Aim::StockHeight { rear: inches(37.0), tolerance };
    assert!(matches!(problems(far)[..], [AimProblem::FarFromMeasured { .. }]));
    assert_eq!(far.state(), LoadState::Empty);
    close(Aim::StockHeight { rear: inches(23.0), tolerance }.rake_loaded(&survey).unwrap().customary(), -0.1875, 1e-9);
}

#[test]
fn corrections_have_their_bounds() {
    let problems = |correction: Correction| correction.problems();
    for thickness in [0.0, 12.0] {
        let block = Correction::at_the_rear(LiftBlock { thickness: inches(thickness) });
        assert!(matches!(problems(block)[..], [CorrectionProblem::OutOfBounds { figure: "thickness", .. }]), "{thickness}");
    }
    let helper =
        |rate, gap| Correction::at_the_rear(HelperSpring { pair_rate: pounds_per_inch(rate), engagement_gap: inches(gap) });
    assert_eq!(problems(helper(200.0, -0.5)), [], "a helper may be set tight");
    assert!(matches!(problems(helper(0.0, 1.0))[..], [CorrectionProblem::OutOfBounds { figure: "pair_rate", .. }]));
    assert!(matches!(problems(helper(200.0, 40.0))[..], [CorrectionProblem::OutOfBounds { figure: "engagement_gap", .. }]));
}

#[test]
fn a_proof_is_inside_outside_or_within_what_the_tape_explains() {
    let check = |of_a_reading: bool| {
        move |off: f64| {
            let measured = Uncertain::new(inches(20.0 + off), inches(0.075));
            ProofCheck { predicted: inches(20.0), band: inches(0.2), of_a_reading, measured }.grade()
        }
    };
    let grade = check(false);
    assert_eq!([0.0, -0.19].map(&grade), [ProofGrade::Inside; 2]);
    // √(0.2² + 0.15²) = 0.25.
    assert_eq!([0.21, -0.24].map(&grade), [ProofGrade::WithinTheTape; 2]);
    assert_eq!([0.26, -1.0].map(&grade), [ProofGrade::Outside; 2]);
    // Where the band has the tape's own doubt in it, it does not count twice.
    assert_eq!([0.19, 0.21].map(check(true)), [ProofGrade::Inside, ProofGrade::Outside]);
}

/// Whatever lies behind the figures that are printed, the verdict is the one that the printed figures give.
#[test]
fn a_verdict_never_contradicts_the_figures_that_are_printed() {
    let sixteenth = inches(1.0 / 16.0);
    // Said to be 39 1/4 ± 1/4 and read as 39 1/2.
    for predicted in [39.22, 39.235, 39.27, 39.28] {
        for band in [0.2, 0.24, 0.25] {
            let measured = Uncertain::new(inches(39.5), inches(0.075));
            let check = ProofCheck { predicted: inches(predicted), band: inches(band), of_a_reading: true, measured };
            let check = check.in_steps_of(sixteenth);
            assert_eq!(check.grade(), ProofGrade::Inside, "{predicted} ± {band}");
        }
    }
    // A target of 23 1/2 ± 1/4, met by 23 1/4 however that came about, and in millimeters by what is printed there.
    let target = TargetBand { height: inches(23.5), tolerance: inches(0.25), way: Way::Within };
    for height in [23.22, 23.25, 23.28] {
        let printed = Uncertain::new(inches(height), inches(0.1)).in_steps_of(sixteenth);
        assert_eq!(target.judge(printed), AimVerdict::LikelyMeets, "{height}");
    }
    let millimetre = inches(1.0 / 25.4);
    let untouched = Uncertain::new(millimetre * 740.0, millimetre).in_steps_of(millimetre);
    close(untouched.value.si(), 0.740, 1e-9);
}

#[test]
fn one_side_read_is_a_height_but_no_lean() {
    let mut survey = half_ton();
    survey.heights.empty.rear = AxleReadings { corners: Sides { left: vec![inches(21.5)], right: vec![] } };
    let one = survey.height(End::Rear, LoadState::Empty).unwrap();
    let two = half_ton().height(End::Rear, LoadState::Empty).unwrap();
    close(one.value.customary(), 21.5, 1e-9);
    assert!(one.sd > two.sd, "half as many readings are less sure");
    assert_eq!(survey.lean(End::Rear, LoadState::Empty), None);
}

proptest! {
    #[test]
    fn every_sixteenth_survives_being_written_and_read(sixteenths in -1600_i32..16_000) {
        let height = inches(f64::from(sixteenths) / 16.0);
        let text = format_length(height, LengthUnit::Inches, 16);
        let read = parse_length(&text, LengthUnit::Millimetres).unwrap();
        prop_assert!((read - height).si().abs() < 1e-12, "{text}");
        let millimetres = metres(f64::from(sixteenths) / 1000.0);
        let text = format_length(millimetres, LengthUnit::Millimetres, 16);
        prop_assert!((parse_length(&text, LengthUnit::Inches).unwrap() - millimetres).si().abs() < 1e-12, "{text}");
    }

    #[test]
    fn no_text_makes_the_tape_stumble(text in "\\PC{0,24}") {
        for unit in [LengthUnit::Inches, LengthUnit::Millimetres] {
            if let Ok(length) = parse_length(&text, unit) {
                prop_assert!(length.si().is_finite());
            }
        }
        for unit in [WeightUnit::Pounds, WeightUnit::Kilograms] {
            if let Ok(force) = parse_weight(&text, unit) {
                prop_assert!(force.si().is_finite() && force.si() >= 0.0);
            }
            if let Ok(rate) = parse_rate(&text, unit) {
                prop_assert!(rate.si().is_finite() && rate.si() >= 0.0);
            }
        }
    }

    #[test]
    fn a_rising_force_table_never_falls_between_its_points(steps in prop::collection::vec((0.001_f64..0.05, 0.0_f64..3e3), 1..8)) {
        let mut points = vec![(metres(0.0), pounds(0.0))];
        for (travel, force) in &steps {
            let (last_travel, last_force) = points[points.len() - 1];
            points.push((last_travel + metres(*travel), last_force + pounds(*force)));
        }
        let table = ForceTable::new(&points).unwrap();
        let end = points[points.len() - 1].0.si();
        let mut last = -1e-9;
        for step in 0..=200 {
            let force = table.force(metres(end * 1.2 * f64::from(step) / 200.0)).si();
            prop_assert!(force >= last - 1e-9, "{force} after {last}");
            last = force;
        }
        for (travel, force) in &points {
            prop_assert!((table.force(*travel) - *force).si().abs() < 1e-6);
        }
    }

    #[test]
    fn a_block_lifts_by_its_height_whatever_was_read(rear in 18.0_f64..24.0, drop in 0.3_f64..4.0, block in 0.5_f64..4.0) {
        let mut survey = on_springs_alone(half_ton());
        survey.heights.empty = heights(20.5, rear);
        survey.heights.loaded = heights(20.5, rear - drop);
        let prediction = Predictor::new(&survey).predict(&Correction::at_the_rear(LiftBlock { thickness: inches(block) }));
        for state in LoadState::BOTH {
            let predicted = prediction.at(state).unwrap();
            prop_assert!((predicted.rise.value - inches(block)).si().abs() < 1e-9);
            prop_assert!(predicted.rear.sd > Length::default());
        }
    }

    #[test]
    fn a_wider_band_never_makes_a_surer_verdict(off in 0.0_f64..2.0, sd in 0.0_f64..0.5, more in 0.0_f64..0.5) {
        let target = TargetBand { height: inches(20.0), tolerance: inches(0.5), way: Way::Within };
        let rank = |sd: f64| match target.judge(Uncertain::new(inches(20.0 + off), inches(sd))) {
            AimVerdict::Meets | AimVerdict::Misses { .. } => 2,
            AimVerdict::LikelyMeets | AimVerdict::MayMiss { .. } => 1,
        };
        prop_assert!(rank(sd + more) <= rank(sd));
    }
}

#[test]
fn a_rate_far_above_its_class_asks_for_the_stop_gap() {
    let mut survey = half_ton();
    // 1,000 lb and 2 in: 500 lb/in where a half-ton usually has 370.
    survey.heights.loaded.rear = AxleReadings { corners: Sides::both(vec![inches(19.5)]) };
    let Some(ContactSuspicion::StifferThanItsClass { times }) = contact_suspicion(&survey, &RateVerdict::of_two_states(&survey))
    else {
        panic!("not suspected")
    };
    close(times, 500.0 / 370.0, 1e-9);
    survey.stop_gap.loaded = Gaps::at_the_rear(inches(1.5));
    let still = contact_suspicion(&survey, &RateVerdict::of_two_states(&survey));
    assert!(still.is_some(), "a gap read with the load on clears the stop; an overload leaf may bear all the same");
    survey.stop_gap.empty = Gaps::at_the_rear(inches(3.5));
    assert_eq!(contact_suspicion(&survey, &RateVerdict::of_two_states(&survey)), None, "both gaps have their say in the rate");
    assert_eq!(contact_suspicion(&half_ton(), &RateVerdict::of_two_states(&half_ton())), None);
}

#[test]
fn a_rim_or_tyre_top_height_gives_the_same_rate_as_the_hub() {
    let rate = |datum| {
        let mut survey = half_ton();
        survey.datum = datum;
        RateVerdict::of_two_states(&survey).measured().map(|figure| figure.rate)
    };
    assert_eq!(rate(Datum::RimToArch), rate(Datum::HubToArch));
    assert_eq!(rate(Datum::TyreTopToArch), rate(Datum::HubToArch));
    assert_ne!(rate(Datum::GroundToArch), rate(Datum::HubToArch));
}

#[test]
fn a_height_is_questioned_by_what_was_read_beside_it_and_at_the_limit_it_is_not() {
    let doubt = |beside: Beside| ReadingDoubt::of(inches(38.75), &beside);
    let at = |height: f64| Some(inches(height));
    for (beside, doubted) in [
        (Beside { repeat: at(38.0), ..Beside::default() }, true),
        (Beside { repeat: at(38.5), ..Beside::default() }, false),
        (Beside { other_side: at(36.0), ..Beside::default() }, true),
        (Beside { other_side: at(36.75), ..Beside::default() }, false),
        (Beside { empty: at(38.5), ..Beside::default() }, true),
        (Beside { empty: at(41.0), ..Beside::default() }, false),
        (Beside::default(), false),
    ] {
        assert_eq!(doubt(beside).is_some(), doubted, "{beside:?}");
    }
    // The other read of the same corner speaks first.
    let both = Beside { repeat: at(38.0), empty: at(38.0), ..Beside::default() };
    assert_eq!(doubt(both), Some(ReadingDoubt::Repeat(inches(38.75) - inches(38.0))));
}

#[test]
fn several_reads_come_to_their_mean_and_how_far_they_lie_apart() {
    let repeats = Repeats::of(&[inches(21.5), inches(21.625), inches(21.5)]).unwrap();
    assert_eq!(repeats.count, 3);
    close(repeats.apart.customary(), 0.125, 1e-9);
    close(repeats.mean.customary(), 64.625 / 3.0, 1e-9);
    assert_eq!(Repeats::of(&[]), None);
}

#[test]
fn a_height_is_said_to_meet_its_aim_only_with_half_of_its_band_inside() {
    let aim = |way| TargetBand { height: inches(38.5), tolerance: inches(0.5), way };
    let judged = |way, middle: f64, band: f64| aim(way).judge(Uncertain::new(inches(middle), inches(band / 2.0)));
    assert_eq!(judged(Way::Within, 38.5, 0.4), AimVerdict::Meets);
    // 37.7 to 39.3 has 1.0 of 1.6 in within 38 to 39; 36.75 to 40.25 has 1.0 of 3.5.
    assert_eq!(judged(Way::Within, 38.5, 0.8), AimVerdict::LikelyMeets);
    assert!(matches!(judged(Way::Within, 38.5, 1.75), AimVerdict::MayMiss { .. }));
    // Where more is as good, half of any band lies beyond its middle.
    assert_eq!(judged(Way::AtLeast, 38.5, 1.75), AimVerdict::LikelyMeets);
}
