//! Side effects against hand sums and the trade's own figures.

#![allow(clippy::unwrap_used, clippy::indexing_slicing, reason = "a test fails where it stands")]

use proptest::prelude::*;
use wise_badger_mechanics::side_effect::attitude::{
    beam_drop, front_lightening, joint_angle, pitch_change, point_rise, track_bar_shift,
};
use wise_badger_mechanics::side_effect::coil::{Coil, series_rate};
use wise_badger_mechanics::side_effect::driveline::{AxlePlace, ShimEnd, shaft_angles, shim_angle, shim_end_forward};
use wise_badger_mechanics::side_effect::fastening::{
    BoltGrade, NUT_FACTOR_DRY, NUT_FACTOR_OILED, UboltStack, clamp_load, worst_stand,
};
use wise_badger_mechanics::side_effect::leaf_end::{chord, longer_shackle, shackle_angle};
use wise_badger_mechanics::side_effect::ride::{bounce_frequency, roll_angle, speed_ratio};
use wise_badger_mechanics::units::{
    InShopUnits, inches, metres, newton_metres_per_radian, newtons, pounds, pounds_per_inch, radians,
};

const DEGREE: f64 = std::f64::consts::PI / 180.0;

#[track_caller]
fn close(got: f64, expected: f64, within: f64) {
    assert!((got - expected).abs() <= within, "{got} where {expected} ± {within} was expected");
}

#[test]
fn a_step_behind_the_axle_gains_more_than_the_arch() {
    // Common practice: wedges that raise the arch 1/2 in raise a step behind the axle 5/8 in, ratio 1.25 to 1.43.
    let step = point_rise(inches(0.0), inches(0.5), inches(40.0), inches(145.0)).unwrap();
    close(step.customary(), 0.638, 1e-3);
    close(point_rise(inches(0.5), inches(0.5), inches(40.0), inches(145.0)).unwrap().customary(), 0.5, 1e-12);
}

#[test]
fn a_headlamp_dips_by_the_lever_of_the_screen() {
    // SAE J599 aims at 25 ft: 1 in at the rear of a 150 in wheelbase is 2 in on the screen.
    let pitch = pitch_change(inches(0.0), inches(1.0), inches(150.0)).unwrap();
    close(beam_drop(pitch, inches(300.0)).unwrap().customary(), 2.0, 1e-9);
    close(
        beam_drop(pitch_change(inches(1.0), inches(1.0), inches(150.0)).unwrap(), inches(300.0)).unwrap().customary(),
        0.0,
        1e-12,
    );
}

#[test]
fn a_tongue_takes_its_lever_off_the_front() {
    close(front_lightening(pounds(1_000.0), inches(50.0), inches(150.0)).unwrap().customary(), 333.333, 1e-3);
    assert!(front_lightening(pounds(1_000.0), inches(-50.0), inches(150.0)).unwrap().si() < 0.0, "a load ahead presses on it");
}

#[test]
fn a_track_bar_moves_its_axle_by_slope_and_arc() {
    // A level bar moves by the arc alone: 36 − √(36² − 2²) = 0.056 in towards the frame.
    close(track_bar_shift(inches(36.0), inches(0.0), inches(2.0)).unwrap().customary(), -0.0556, 1e-4);
    // One that drops 6 in moves by some 2 × 6/36 more.
    close(track_bar_shift(inches(36.0), inches(6.0), inches(2.0)).unwrap().customary(), -0.396, 2e-3);
    assert_eq!(track_bar_shift(inches(36.0), inches(35.0), inches(2.0)).unwrap_err().what, "drop of the bar afterward");
    close(joint_angle(inches(20.0), inches(10.0)).unwrap().value / DEGREE, 30.0, 1e-9);
}

#[test]
fn a_shim_turns_the_pinion_the_way_its_thin_end_points() {
    close(shim_angle(inches(0.36), inches(0.25), inches(2.5)).unwrap().value / DEGREE, 2.519, 1e-3);
    assert_eq!(shim_end_forward(AxlePlace::BelowSpring, true), ShimEnd::Thin);
    assert_eq!(shim_end_forward(AxlePlace::AboveSpring, true), ShimEnd::Thick);
    assert_eq!(shim_end_forward(AxlePlace::AboveSpring, false), ShimEnd::Thin);
    let angles = shaft_angles(inches(6.0), inches(60.0), radians(3.0 * DEGREE), radians(1.0 * DEGREE)).unwrap();
    close(angles.rear_joint.value / DEGREE, 5.7106 - 1.0, 1e-3);
}

#[test]
fn shackles_hang_by_their_circles() {
    // Pressed flatter, the spring grows and pushes the shackle's foot back.
    let hang = |length: f64| shackle_angle(inches(length), inches(4.0), inches(56.0), inches(4.0)).unwrap().value;
    assert!(hang(56.5) > hang(56.0) && hang(55.5) < hang(56.0));
    assert!(shackle_angle(inches(40.0), inches(4.0), inches(56.0), inches(4.0)).is_err());
    let (rise, tilt) = longer_shackle(inches(2.0), inches(28.0), inches(56.0)).unwrap();
    close(rise.customary(), 1.0, 1e-12);
    close(tilt.value / DEGREE, 2.045, 1e-3);
}

#[test]
fn ubolts_reach_through_everything_and_show_three_threads() {
    let stack = UboltStack {
        tube_and_seat: inches(4.0),
        pack: inches(2.5),
        block: inches(2.0),
        plate: inches(0.5),
        washer: inches(0.1),
        nut: inches(0.5),
        thread_pitch: inches(1.0 / 18.0),
    };
    close(stack.leg().unwrap().customary(), 9.6 + 3.0 / 18.0, 1e-9);
    assert_eq!(UboltStack { plate: inches(-1.0), ..stack }.leg().unwrap_err().what, "plate");
}

#[test]
fn clamp_load_comes_from_torque_and_stays_under_proof() {
    let torque = newton_metres_per_radian(135.582);
    let (dry, oiled) =
        (clamp_load(torque, inches(0.5), NUT_FACTOR_DRY).unwrap(), clamp_load(torque, inches(0.5), NUT_FACTOR_OILED).unwrap());
    close(dry.customary(), 12_000.0, 1.0);
    close(oiled.si() / dry.si(), 4.0 / 3.0, 1e-9);
    // SAE J429, from memory: 1/2-13 grade 5 proof load 12,050 lb (0.1419 in² at 85 ksi); grade 8 17,050 lb.
    let coarse = inches(1.0 / 13.0);
    close(BoltGrade::SaeGrade5.proof_load(inches(0.5), coarse).unwrap().customary(), 12_060.0, 30.0);
    close(BoltGrade::SaeGrade8.proof_load(inches(0.5), coarse).unwrap().customary(), 17_030.0, 40.0);
    // ISO 898-1, from memory: M10 × 1.5 class 10.9 48,100 N (58.0 mm² at 830 MPa).
    close(BoltGrade::Iso10_9.proof_load(metres(0.010), metres(0.0015)).unwrap().si(), 48_100.0, 100.0);
    assert!(clamp_load(torque, inches(0.5), 0.9).is_err());
}

#[test]
fn the_worst_stand_under_a_camper_van_is_borderline_for_two_tons() {
    // Common practice: near 10,000 lb, about 2,500 lb on one rear stand.
    close(worst_stand(pounds(10_000.0), inches(74.0), inches(148.0), 0.5).unwrap().customary(), 2_500.0, 1e-9);
    assert!(worst_stand(pounds(10_000.0), inches(200.0), inches(148.0), 0.5).is_err());
}

#[test]
fn coils_of_equal_length_are_not_equal_springs() {
    let coil =
        Coil { wire: metres(0.015), mean_diameter: metres(0.12), active_coils: 7.0, total_coils: 8.5, free_length: metres(0.42) };
    let softer = Coil { wire: metres(0.014), ..coil };
    close(softer.rate().unwrap().si() / coil.rate().unwrap().si(), (14.0_f64 / 15.0).powi(4), 1e-12);
    close(coil.travel_to_bind().unwrap().si(), 0.42 - 0.1275, 1e-12);
    assert_eq!(Coil { free_length: metres(0.1), ..coil }.travel_to_bind().unwrap_err().what, "free length");
    close(series_rate(pounds_per_inch(200.0), pounds_per_inch(200.0)).unwrap().customary(), 100.0, 1e-9);
}

#[test]
fn ride_roll_and_speed_follow_their_textbook_forms() {
    let soft = bounce_frequency(pounds_per_inch(372.0), pounds(1_800.0)).unwrap();
    let loaded = bounce_frequency(pounds_per_inch(372.0), pounds(2_800.0)).unwrap();
    close(soft.si() / loaded.si(), (2_800.0_f64 / 1_800.0).sqrt(), 1e-9);
    let over = roll_angle(0.2, newtons(20_000.0), metres(1.0), newton_metres_per_radian(19_000.0));
    assert_eq!(over.unwrap_err().what, "roll stiffness");
    close(speed_ratio(inches(15.0), inches(15.75)).unwrap(), 1.05, 1e-12);
    assert_eq!(bounce_frequency(pounds_per_inch(f64::NAN), pounds(1.0)).unwrap_err().what, "rate");
}

proptest! {
    #[test]
    fn a_chord_is_shorter_than_its_arc_and_near_the_short_form(arc in 20.0..80.0_f64, share in 0.0..0.12_f64) {
        let sagitta = arc * share;
        let exact = chord(inches(arc), inches(sagitta)).unwrap().customary();
        prop_assert!(exact <= arc + 1e-9);
        prop_assert!((exact - (arc - 8.0 * sagitta * sagitta / (3.0 * arc))).abs() < 0.003 * arc);
        // Back again: R from S and C by the measured-arch relation gives the same arc.
        if sagitta > 0.1 {
            let radius = sagitta / 2.0 + exact * exact / (8.0 * sagitta);
            prop_assert!((2.0 * radius * (exact / (2.0 * radius)).asin() - arc).abs() < 1e-6 * arc);
        }
    }
}

#[test]
fn a_dual_rate_coil_runs_soft_then_stiff_then_solid() {
    use wise_badger_mechanics::side_effect::coil::DualRateCoil;
    let part = |active: f64, free: f64| Coil {
        wire: metres(0.016),
        mean_diameter: metres(0.12),
        active_coils: active,
        total_coils: active,
        free_length: metres(free),
    };
    // By hand, 79.3e9 × 0.016⁴ / (8 × 0.12³ × n): 375.94 kN/m over n; the softer binds at 93.99 × 0.036 = 3.383 kN, the
    // stiffer at 62.66 × (0.25 − 0.096) = 9.649 kN.
    let coil = DualRateCoil { soft: part(4.0, 0.1), stiff: part(6.0, 0.25) };
    let spring = coil.main_spring(newtons(3_000.0), 1.0).unwrap();
    assert!((spring.rate.si() - 37_594.0).abs() < 10.0, "{:?}", spring.rate);
    assert!((spring.stages[0].at_travel.si() - 383.4 / 37_594.0).abs() < 1e-4, "{:?}", spring.stages);
    assert!(((spring.rate + spring.stages[0].added_rate).si() - 62_657.0).abs() < 10.0);
    assert!((spring.stages[1].at_travel.si() - (383.4 / 37_594.0 + 6_266.0 / 62_657.0)).abs() < 2e-4, "{:?}", spring.stages);
    assert_eq!(coil.main_spring(newtons(9_700.0), 1.0).unwrap_err().what, "load at curb weight");
    // Two coils of one free length: the stiffer stands higher under the same weight.
    let (slack, firm) = (part(7.0, 0.4), part(6.0, 0.4));
    assert!((firm.force_gained_over(&slack, newtons(5_000.0)).unwrap().si() - 5_000.0 / 6.0).abs() < 1e-6);
}

#[test]
fn a_raise_eats_droop_and_opens_bump_unless_the_whole_strut_moves() {
    use wise_badger_mechanics::side_effect::travel::{RaisedBy, Shock, TravelEnd, TravelLimits};
    let shock = Shock { length: inches(18.0), closed: inches(14.0), extended: inches(21.0), motion_ratio: 0.5 };
    let limits = TravelLimits { shock, bump_gap: Some(inches(3.0)), droop_gap: Some(inches(5.0)) };
    let spaced = limits.raised(inches(2.0), RaisedBy::AxleAway);
    // At half the wheel's travel the shock has (21 − 19) / 0.5 = 4 in of droop left, the check 3.
    assert!((spaced.droop().unwrap().travel.customary() - 3.0).abs() < 1e-9);
    assert_eq!((spaced.droop().unwrap().ends_on, limits.bump().unwrap().ends_on), (TravelEnd::Stop, TravelEnd::Stop));
    assert!((spaced.bump().unwrap().travel.customary() - 5.0).abs() < 1e-9);
    assert_eq!(limits.raised(inches(2.0), RaisedBy::WholeStrut), limits);
    let bent = TravelLimits { shock: Shock { extended: inches(13.0), ..shock }, ..limits };
    assert_eq!(bent.droop().unwrap_err().what, "extended length");
}
