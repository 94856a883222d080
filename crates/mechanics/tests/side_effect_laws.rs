//! Side effects held to what they must fulfil: points of a rigid frame turned by hand, circles that chord and shackle lie on, coils that
//! share one force, moments about the wheels that stay down. The answer is put back into the condition that it has to meet, or the same
//! is reckoned by another way; and what has no meaning is named.

#![allow(clippy::unwrap_used, clippy::indexing_slicing, reason = "a test fails where it stands")]

use proptest::prelude::*;
use wise_badger_mechanics::side_effect::OutOfRange;
use wise_badger_mechanics::side_effect::attitude::{
    beam_drop, front_lightening, joint_angle, pitch_change, point_rise, spot_drop, track_bar_shift, track_bar_span,
};
use wise_badger_mechanics::side_effect::coil::{Coil, DualRateCoil, SHEAR_MODULUS_PA, series_rate};
use wise_badger_mechanics::side_effect::driveline::{AxlePlace, ShimEnd, shaft_angles, shim_angle, shim_end_forward};
use wise_badger_mechanics::side_effect::fastening::{BoltGrade, UboltStack, clamp_load, worst_stand};
use wise_badger_mechanics::side_effect::leaf_end::{chord, longer_shackle, shackle_angle};
use wise_badger_mechanics::side_effect::ride::{roll_angle, speed_ratio};
use wise_badger_mechanics::side_effect::travel::{RaisedBy, Shock, TravelEnd, TravelLimits, hangs_lower};
use wise_badger_mechanics::units::{
    InShopUnits, Length, inches, metres, newton_metres_per_radian, newtons, pounds, pounds_per_inch, radians,
};

/// A rise of the front and of the rear, in inches.
fn rises() -> impl Strategy<Value = (f64, f64)> {
    (-4.0..6.0_f64, -4.0..6.0_f64)
}

/// A coil of a truck: wire, mean diameter, turns that work, free length, all in inches but the turns.
fn coils() -> impl Strategy<Value = Coil> {
    (0.4..0.8_f64, 4.5..6.5_f64, 4.0..9.0_f64, 0.5..2.0_f64, 1.3..2.2_f64).prop_map(|(wire, mean, active, seated, slack)| Coil {
        wire: inches(wire),
        mean_diameter: inches(mean),
        active_coils: active,
        total_coils: active + seated,
        free_length: inches(wire * (active + seated) * slack),
    })
}

/// The point where two springs in series with the same force in both are shortened together by so much: found by halving the force.
fn force_in_series(shortening: f64, each: [&dyn Fn(f64) -> f64; 2]) -> f64 {
    let (mut low, mut high) = (0.0, 1e7);
    for _ in 0..200 {
        let middle = 0.5 * (low + high);
        if each[0](middle) + each[1](middle) < shortening { low = middle } else { high = middle }
    }
    0.5 * (low + high)
}

proptest! {
    /// The frame is a straight line through the arches: every point of it rises with the line, whatever it is counted from.
    #[test]
    fn a_point_of_the_frame_stays_on_its_line((front, rear) in rises(), wheelbase in 90.0..220.0_f64, behind in -260.0..90.0_f64) {
        let rise = point_rise(inches(front), inches(rear), inches(behind), inches(wheelbase)).unwrap().customary();
        // By the front axle instead.
        let from_the_front = front + (rear - front) * (wheelbase + behind) / wheelbase;
        prop_assert!((rise - from_the_front).abs() < 1e-9);
        let pitch = pitch_change(inches(front), inches(rear), inches(wheelbase)).unwrap();
        prop_assert!((rise - (rear + behind * pitch.value.tan())).abs() < 1e-9, "and it turns by the pitch");
    }

    /// A beam is a straight line out of the lamp: lamp and spot lie on the same line before and after, turned with the frame.
    #[test]
    fn a_beam_is_a_line_turned_with_the_frame((front, rear) in rises(), wheelbase in 90.0..220.0_f64, ahead in 0.0..40.0_f64) {
        let screen = 300.0;
        let spot = spot_drop(inches(front), inches(rear), inches(wheelbase), inches(ahead), inches(screen)).unwrap().customary();
        let slope = (rear - front) / wheelbase;
        let lamp = front - slope * ahead;
        prop_assert!((spot - (slope * screen - lamp)).abs() < 1e-9, "{spot}");
        let pitch = pitch_change(inches(front), inches(rear), inches(wheelbase)).unwrap();
        prop_assert!((beam_drop(pitch, inches(screen)).unwrap().customary() - slope * screen).abs() < 1e-9);
    }

    /// A load behind the rear axle is held by both axles: their forces and their moments about the rear axle balance.
    #[test]
    fn what_a_tongue_takes_off_the_front_balances_about_the_rear_axle(weight in 0.0..3_000.0_f64, behind in -150.0..90.0_f64, wheelbase in 90.0..220.0_f64) {
        let off = front_lightening(pounds(weight), inches(behind), inches(wheelbase)).unwrap().customary();
        let (front, rear) = (-off, weight + off);
        prop_assert!((front + rear - weight).abs() < 1e-9, "forces");
        // About the rear axle, forward positive: the front axle pushes up, the weight down.
        prop_assert!((front * wheelbase + weight * behind).abs() < 1e-6, "moments");
    }

    /// A bar keeps its length, wherever its ends go.
    #[test]
    fn a_track_bar_keeps_its_length(length in 24.0..44.0_f64, drop in -8.0..8.0_f64, rise in -6.0..6.0_f64) {
        let span = track_bar_span(inches(length), inches(drop)).unwrap().customary();
        let shift = track_bar_shift(inches(length), inches(drop), inches(rise)).unwrap().customary();
        prop_assert!(((span + shift).hypot(drop + rise) - length).abs() < 1e-9);
        // And a joint at its end turns by as much as the bar does.
        let slope = joint_angle(inches(length), inches(drop)).unwrap().value;
        prop_assert!((slope.sin() * length - drop).abs() < 1e-9 && (slope.cos() * length - span).abs() < 1e-9);
    }

    /// An arc of a circle of so much radius has the length, the sagitta and the chord that belong together.
    #[test]
    fn arc_sagitta_and_chord_lie_on_one_circle(arc in 30.0..70.0_f64, half_angle in 0.01..1.5_f64) {
        let radius = arc / (2.0 * half_angle);
        let sagitta = radius * (1.0 - half_angle.cos());
        let found = chord(inches(arc), inches(sagitta)).unwrap().customary();
        prop_assert!((found - 2.0 * radius * half_angle.sin()).abs() < 1e-7 * arc, "{found}");
    }

    /// The eye is a chord away from the fixed eye and a shackle away from its pivot.
    #[test]
    fn a_shackle_ends_where_the_chord_does(chord_length in 40.0..64.0_f64, shackle in 3.0..6.0_f64, ahead in -2.5..2.5_f64, above in 1.0..6.0_f64) {
        let pivot = (chord_length + ahead, above);
        let apart = pivot.0.hypot(pivot.1);
        prop_assume!(apart < chord_length + shackle - 0.01 && apart > chord_length - shackle + 0.01);
        let angle = shackle_angle(inches(chord_length), inches(shackle), inches(pivot.0), inches(pivot.1)).unwrap().value;
        let eye = (pivot.0 + shackle * angle.sin(), pivot.1 - shackle * angle.cos());
        prop_assert!((eye.0.hypot(eye.1) - chord_length).abs() < 1e-8, "on the circle of the chord");
    }

    /// A leaf let down at its rear eye turns about the front one: what lies a share of the way along comes down by that share.
    #[test]
    fn a_longer_shackle_turns_the_leaf_about_its_front_eye(lowered in -2.0..3.0_f64, front in 15.0..35.0_f64, rear in 15.0..35.0_f64) {
        let (rise, turn) = longer_shackle(inches(lowered), inches(front), inches(front + rear)).unwrap();
        prop_assert!((turn.value.tan() * front - rise.customary()).abs() < 1e-9);
        prop_assert!((turn.value.tan() * (front + rear) - lowered).abs() < 1e-9);
    }

    /// Of two angles at a shaft's joints each is what the shaft makes with its neighbor: turn all three alike, and both stay.
    #[test]
    fn joints_see_differences_alone(drop in -8.0..14.0_f64, span in 35.0..70.0_f64, gearbox in -0.1..0.1_f64, pinion in -0.1..0.2_f64, turned in -0.1..0.1_f64) {
        let as_it_is = shaft_angles(inches(drop), inches(span), radians(gearbox), radians(pinion)).unwrap();
        let slope = (drop / span).atan() + turned;
        let turned = shaft_angles(inches(span * slope.tan()), inches(span), radians(gearbox + turned), radians(pinion + turned)).unwrap();
        prop_assert!((as_it_is.front_joint - turned.front_joint).value.abs() < 1e-12);
        prop_assert!((as_it_is.rear_joint - turned.rear_joint).value.abs() < 1e-12);
    }

    /// A wedge of a degree and another of a degree make one of two, nearly; and a straight one turns nothing.
    #[test]
    fn a_shim_turns_by_its_slope(thin in 0.0..0.5_f64, step in 0.0..0.6_f64, length in 4.0..8.0_f64) {
        let angle = shim_angle(inches(thin + step), inches(thin), inches(length)).unwrap().value;
        prop_assert!((angle.tan() * length - step).abs() < 1e-9);
        let twice = shim_angle(inches(thin + 2.0 * step), inches(thin), inches(length)).unwrap().value;
        prop_assert!(twice <= 2.0 * angle + 1e-12 && twice >= angle);
    }

    /// A coil is a bar in torsion: one turn under the other adds its give, and half the turns are twice as stiff.
    #[test]
    fn turns_of_a_coil_give_one_after_another(coil in coils()) {
        let rate = coil.rate().unwrap().si();
        let half = Coil { active_coils: coil.active_coils / 2.0, ..coil }.rate().unwrap();
        prop_assert!((series_rate(half, half).unwrap().si() / rate - 1.0).abs() < 1e-12);
        // Castigliano: U = T²·l / (2·G·J), T = F·D/2, l = π·D·n, J = π·d⁴/32.
        let (d, mean) = (coil.wire.si(), coil.mean_diameter.si());
        let polar = std::f64::consts::PI * d.powi(4) / 32.0;
        let give = (mean / 2.0).powi(2) * std::f64::consts::PI * mean * coil.active_coils / (SHEAR_MODULUS_PA * polar);
        prop_assert!((rate * give - 1.0).abs() < 1e-12, "by the strain energy of the wire");
    }

    /// What a coil carries more than another at the length where the other stood is what stands between their lines.
    #[test]
    fn a_coil_in_anothers_place_pushes_by_its_own_line(old in coils(), new in coils(), share in 0.1..0.8_f64) {
        let carried = newtons(share * old.rate().unwrap().si() * old.travel_to_bind().unwrap().si());
        let length = old.free_length.si() - carried.si() / old.rate().unwrap().si();
        prop_assume!(length > new.bind_length().unwrap().si());
        let gained = new.force_gained_over(&old, carried).unwrap().si();
        let pushes = (new.rate().unwrap().si() * (new.free_length.si() - length)).max(0.0);
        prop_assert!((gained - (pushes - carried.si())).abs() < 1e-6 * carried.si().max(1.0));
        prop_assert!(old.force_gained_over(&old, carried).unwrap().si().abs() < 1e-6, "the same coil gains nothing");
    }

    /// A coil of two parts is two coils with one force: the softer goes solid, and the stiffer goes on alone.
    #[test]
    fn two_parts_of_a_coil_share_one_force(soft in coils(), stiff in coils(), share in 0.05..0.9_f64, down in -1.0..4.0_f64) {
        let parts = [soft, stiff].map(|part| (part.rate().unwrap().si(), part.travel_to_bind().unwrap().si()));
        let binds = parts.map(|(rate, travel)| rate * travel);
        prop_assume!(binds[0] < 0.95 * binds[1]);
        let carried = share * binds[1];
        let spring = DualRateCoil { soft, stiff }.main_spring(newtons(carried), 1.0).unwrap();
        let down = inches(down).si();
        // How much either part is shortened by a force; a solid one no further.
        let give = |(rate, travel): (f64, f64)| move |force: f64| (force / rate).min(travel);
        let (soft, stiff) = (give(parts[0]), give(parts[1]));
        let shortened = soft(carried) + stiff(carried) + down;
        prop_assume!(shortened > 0.0 && shortened < 0.99 * (parts[0].1 + parts[1].1));
        let wanted = force_in_series(shortened, [&soft, &stiff]);
        let found = carried + spring.gained(metres(down)).si();
        prop_assert!((found - wanted).abs() < 1e-5 * wanted.max(100.0), "{found} N, one force in both {wanted} N");
    }

    /// Moments about the axle that stays down: what the stands carry holds the weight up.
    #[test]
    fn stands_hold_the_weight_about_the_axle_that_stays_down(weight in 2_000.0..12_000.0_f64, stands in 60.0..200.0_f64, at in 0.05..1.0_f64, uneven in 0.5..1.0_f64) {
        let worst = worst_stand(pounds(weight), inches(at * stands), inches(stands), uneven).unwrap().customary();
        let pair = worst / uneven;
        prop_assert!((pair * stands - weight * at * stands).abs() < 1e-6 * weight * stands);
        prop_assert!(worst <= weight + 1e-9 && worst >= 0.5 * pair - 1e-9);
    }

    /// A leg reaches through everything: a block more is a leg longer by the block, and nothing else.
    #[test]
    fn a_leg_is_as_long_as_what_it_goes_through(parts in prop::array::uniform6(0.0..4.0_f64), threads in 10.0..24.0_f64) {
        let pitch = 1.0 / threads;
        let stack = UboltStack {
            tube_and_seat: inches(parts[0]),
            pack: inches(parts[1]),
            block: inches(parts[2]),
            plate: inches(parts[3]),
            washer: inches(parts[4]),
            nut: inches(parts[5]),
            thread_pitch: inches(pitch),
        };
        let leg = stack.leg().unwrap().customary();
        prop_assert!((leg - (parts.iter().sum::<f64>() + 3.0 * pitch)).abs() < 1e-9, "three threads show");
        let taller = UboltStack { block: stack.block + inches(2.0), ..stack };
        prop_assert!((taller.leg().unwrap().customary() - leg - 2.0).abs() < 1e-9);
    }

    /// Twice the torque clamps twice as hard, on half the diameter too.
    #[test]
    fn clamp_load_goes_with_torque_and_against_diameter(torque in 20.0..400.0_f64, diameter in 0.3..1.0_f64, factor in 0.1..0.3_f64) {
        let load = |torque: f64, diameter: f64| clamp_load(newton_metres_per_radian(torque), inches(diameter), factor).unwrap().si();
        let once = load(torque, diameter);
        prop_assert!((load(2.0 * torque, diameter) / once - 2.0).abs() < 1e-9);
        prop_assert!((load(torque, diameter / 2.0) / once - 2.0).abs() < 1e-9);
    }

    /// Bump and droop are two ends of one stroke: a raise takes from the one what it gives to the other, and a whole strut neither.
    #[test]
    fn what_a_raise_takes_from_droop_it_gives_to_bump(length in 16.0..24.0_f64, closed in 10.0..15.0_f64, more in 1.0..8.0_f64, by in -3.0..4.0_f64, ratio in 0.4..1.0_f64) {
        let shock = Shock { length: inches(length), closed: inches(closed), extended: inches(length + more), motion_ratio: ratio };
        let limits = TravelLimits { shock, bump_gap: None, droop_gap: None };
        let both = |limits: TravelLimits| (limits.bump().unwrap().travel.customary(), limits.droop().unwrap().travel.customary());
        let ((bump, droop), (raised_bump, raised_droop)) = (both(limits), both(limits.raised(inches(by), RaisedBy::AxleAway)));
        prop_assert!((raised_bump - bump - by).abs() < 1e-9 && (raised_droop - droop + by).abs() < 1e-9);
        prop_assert!((bump + droop - (length + more - closed) / ratio).abs() < 1e-9, "the whole stroke, at the wheel");
        prop_assert_eq!(both(limits.raised(inches(by), RaisedBy::WholeStrut)), (bump, droop));
        prop_assert_eq!(hangs_lower(inches(by), RaisedBy::WholeStrut), inches(by));
    }

    /// Whichever comes first ends the travel, and is named.
    #[test]
    fn the_first_of_stop_and_shock_ends_the_travel(gap in 0.0..6.0_f64, stroke in 0.0..6.0_f64) {
        let shock = Shock { length: inches(12.0 + stroke), closed: inches(12.0), extended: inches(30.0), motion_ratio: 1.0 };
        let left = TravelLimits { shock, bump_gap: Some(inches(gap)), droop_gap: None }.bump().unwrap();
        prop_assert!((left.travel.customary() - gap.min(stroke)).abs() < 1e-9);
        prop_assert_eq!(left.ends_on == TravelEnd::Stop, gap <= left.travel.customary() + 1e-12);
    }

    /// The body rolls until springs and gravity together hold the push: moments about the roll axis.
    #[test]
    fn roll_balances_push_gravity_and_springs(push in -0.8..0.8_f64, weight in 8_000.0..40_000.0_f64, arm in 0.1..0.9_f64, times in 1.2..9.0_f64) {
        let stiffness = times * weight * arm;
        let roll = roll_angle(push, newtons(weight), metres(arm), newton_metres_per_radian(stiffness)).unwrap().value;
        let (held, pushed) = (stiffness * roll, push * weight * arm + weight * arm * roll);
        prop_assert!((held - pushed).abs() < 1e-9 * stiffness);
    }

    /// Tires changed and changed back show the speed that they showed.
    #[test]
    fn a_speed_shown_comes_back_with_the_tires(old in 12.0..18.0_f64, new in 12.0..18.0_f64) {
        let there = speed_ratio(inches(old), inches(new)).unwrap();
        prop_assert!((there * speed_ratio(inches(new), inches(old)).unwrap() - 1.0).abs() < 1e-12);
        prop_assert_eq!(there > 1.0, new > old);
    }
}

#[test]
fn the_thin_end_goes_where_the_pinion_is_to_go() {
    use AxlePlace::*;
    use ShimEnd::*;
    for (place, pinion_up, end) in
        [(BelowSpring, true, Thin), (BelowSpring, false, Thick), (AboveSpring, true, Thick), (AboveSpring, false, Thin)]
    {
        assert_eq!(shim_end_forward(place, pinion_up), end, "{place:?}, pinion up: {pinion_up}");
    }
}

/// A finer thread leaves more of the bolt, a better steel carries more, and no bolt is all thread.
#[test]
fn proof_loads_go_with_steel_and_with_what_the_thread_leaves() {
    let (coarse, fine) = (metres(0.002), metres(0.001_5));
    for grade in [BoltGrade::SaeGrade5, BoltGrade::SaeGrade8, BoltGrade::Iso8_8, BoltGrade::Iso10_9] {
        let load = |pitch: Length| grade.proof_load(metres(0.014), pitch).unwrap();
        assert!(load(fine) > load(coarse), "{grade:?}");
        assert_eq!(grade.proof_load(metres(0.002), coarse).unwrap_err().what, "thread pitch");
    }
    let of = |grade: BoltGrade| grade.proof_stress_pa();
    assert!(of(BoltGrade::SaeGrade8) > of(BoltGrade::SaeGrade5) && of(BoltGrade::Iso10_9) > of(BoltGrade::Iso8_8));
}

/// What goes in is named where it has no meaning, and nothing is answered.
#[test]
fn what_has_no_meaning_is_refused_by_name() {
    let (inch, none, no_number) = (inches(1.0), inches(0.0), inches(f64::NAN));
    let coil =
        Coil { wire: inches(0.6), mean_diameter: inches(5.0), active_coils: 6.0, total_coils: 7.5, free_length: inches(12.0) };
    let shock = Shock { length: inches(20.0), closed: inches(15.0), extended: inches(23.0), motion_ratio: 1.0 };
    let limits = |shock: Shock| TravelLimits { shock, bump_gap: None, droop_gap: None };
    let what = |error: OutOfRange| error.what;
    let refused = [
        (pitch_change(none, inch, none).map(drop).map_err(what), "wheelbase"),
        (pitch_change(none, no_number, inch).map(drop).map_err(what), "rise"),
        (beam_drop(radians(1.5), inch).map(drop).map_err(what), "pitch"),
        (beam_drop(radians(0.0), none).map(drop).map_err(what), "distance"),
        (point_rise(none, inch, no_number, inch).map(drop).map_err(what), "distance behind the axle"),
        (front_lightening(pounds(f64::INFINITY), inch, inch).map(drop).map_err(what), "weight"),
        (track_bar_span(inch, inch).map(drop).map_err(what), "drop of the bar"),
        (track_bar_span(none, none).map(drop).map_err(what), "bar length"),
        (joint_angle(inch, inches(2.0)).map(drop).map_err(what), "drop"),
        (shaft_angles(inch, none, radians(0.0), radians(0.0)).map(drop).map_err(what), "span"),
        (shaft_angles(inch, inch, radians(1.2), radians(0.0)).map(drop).map_err(what), "gearbox angle"),
        (shaft_angles(inch, inch, radians(0.0), radians(-1.2)).map(drop).map_err(what), "pinion angle"),
        (shim_angle(none, inch, inch).map(drop).map_err(what), "difference of the ends"),
        (shim_angle(inch, none, none).map(drop).map_err(what), "shim length"),
        (chord(none, none).map(drop).map_err(what), "arc length"),
        (chord(inches(30.0), inches(10.0)).map(drop).map_err(what), "arch"),
        (shackle_angle(inches(50.0), inches(4.0), inches(60.0), none).map(drop).map_err(what), "distance between eye and pivot"),
        (longer_shackle(inch, inches(60.0), inches(50.0)).map(drop).map_err(what), "front half"),
        (Coil { wire: inches(6.0), ..coil }.rate().map(drop).map_err(what), "wire diameter"),
        (Coil { active_coils: 0.0, ..coil }.rate().map(drop).map_err(what), "active coils"),
        (Coil { total_coils: 5.0, ..coil }.bind_length().map(drop).map_err(what), "total coils"),
        (Coil { free_length: inches(4.0), ..coil }.travel_to_bind().map(drop).map_err(what), "free length"),
        (coil.force_at(inches(3.0)).map(drop).map_err(what), "length"),
        (coil.main_spring(pounds(90_000.0), 1.0).map(drop).map_err(what), "load at curb weight"),
        (series_rate(pounds_per_inch(0.0), pounds_per_inch(1.0)).map(drop).map_err(what), "softer rate"),
        (clamp_load(newton_metres_per_radian(100.0), inch, 0.5).map(drop).map_err(what), "nut factor"),
        (worst_stand(pounds(5_000.0), inches(50.0), inches(40.0), 0.5).map(drop).map_err(what), "center of gravity"),
        (worst_stand(pounds(5_000.0), inches(30.0), inches(40.0), 0.4).map(drop).map_err(what), "the worst stand's share"),
        (limits(Shock { extended: inches(14.0), ..shock }).bump().map(drop).map_err(what), "extended length"),
        (limits(Shock { motion_ratio: 0.0, ..shock }).droop().map(drop).map_err(what), "motion ratio"),
        (roll_angle(0.3, pounds(5_000.0), inches(20.0), newton_metres_per_radian(1.0)).map(drop).map_err(what), "roll stiffness"),
        (speed_ratio(none, inch).map(drop).map_err(what), "old radius"),
    ];
    for (place, (answer, name)) in refused.into_iter().enumerate() {
        assert_eq!(answer, Err(name), "row {place}");
    }
    // A stiffer part that would bind before the softer has none of a coil of two parts.
    let short = Coil { free_length: inches(5.0), ..coil };
    let turned_round = DualRateCoil { soft: coil, stiff: short }.main_spring(pounds(100.0), 1.0);
    assert_eq!(turned_round.unwrap_err().what, "force that binds the softer part");
}
