//! Stances worked out by hand: series springs, lever arms, gas, rockers, roll.

#![allow(clippy::unwrap_used, clippy::indexing_slicing, reason = "a test fails where it stands")]

use proptest::prelude::*;
use wise_badger_mechanics::side::{Side, Sides};
use wise_badger_mechanics::stance::{
    AirBag, Axle, AxleKind, Ball, BodyPoint, Change, Corner, Coupler, Element, ElementKind, Equaliser, Load, MainSpring, Mount,
    Outcome, SidewaysPull, Solver, Stance, StanceError, State, StopCurve, Vehicle, settle, settle_train,
};
use wise_badger_mechanics::units::{
    InShopUnits, cubic_metres, metres, newton_metres_per_radian, newtons, newtons_per_metre, pascals, radians, square_metres,
};

const RATE: f64 = 40_000.0;
const TYRE: f64 = 250_000.0;
const TRACK: f64 = 1.7;
const BASE: f64 = 1.1;
const WHEELBASE: f64 = 3.6;

fn axle(name: &str, position: f64, per_wheel: f64) -> Axle {
    Axle {
        name: name.to_owned(),
        position: metres(position),
        kind: AxleKind::Solid,
        track: metres(TRACK),
        spring_base: metres(BASE),
        unsprung_weight: newtons(1_500.0),
        kerb_wheel_loads: Sides::both(newtons(per_wheel)),
        tyre_rate: newtons_per_metre(TYRE),
        anti_roll: newton_metres_per_radian(0.0),
        roll_centre_height: metres(0.5),
        hub_height: metres(0.36),
        arch_lateral: None,
        corners: Sides::both(Corner { spring: MainSpring::linear(newtons_per_metre(RATE)), elements: vec![] }),
    }
}

fn truck() -> Vehicle {
    Vehicle {
        axles: vec![axle("F", 0.0, 7_000.0), axle("R", WHEELBASE, 5_500.0)],
        points: vec![BodyPoint { name: "hitch".to_owned(), position: metres(WHEELBASE + 1.2), lateral: metres(0.0) }],
        sprung_cg_height: metres(0.5),
        coupler: None,
        equalisers: vec![],
    }
}

fn trailer(axles: &[f64]) -> Vehicle {
    let names = ["A1", "A2", "A3"];
    Vehicle {
        axles: axles.iter().zip(names).map(|(position, name)| axle(name, *position, 5_000.0)).collect(),
        points: vec![],
        sprung_cg_height: metres(0.5),
        coupler: Some(Coupler { position: metres(0.0), lateral: metres(0.0), kerb_load: newtons(2_500.0) }),
        equalisers: vec![],
    }
}

fn rocker(side: Side, axles: [&str; 2], arms: [f64; 2]) -> Equaliser {
    let [front_arm, rear_arm] = arms.map(metres);
    Equaliser { side, axles: axles.map(str::to_owned), front_arm, rear_arm, stop: radians(0.6) }
}

fn bag() -> AirBag {
    AirBag {
        area: square_metres(0.012),
        volume: cubic_metres(0.002),
        fill_pressure: pascals(2e5),
        fill_travel: metres(0.0),
        polytropic_exponent: 1.0,
        area_slope: metres(0.0),
        shares_line: false,
        line_volume: cubic_metres(0.0),
        held_pressure: false,
        already_fitted: false,
    }
}

fn element(name: &str, kind: ElementKind) -> Element {
    Element { name: name.to_owned(), lateral: None, motion_ratio: 1.0, mount: Mount::Frame, kind }
}

fn add(axle: &str, side: Option<Side>, kind: ElementKind) -> Change {
    Change::Add { axle: axle.to_owned(), side, element: element("added", kind) }
}

fn helper(gap: f64, rate: f64) -> ElementKind {
    ElementKind::Helper { gap: metres(gap), rate: newtons_per_metre(rate), already_fitted: false }
}

fn loaded(loads: &[(f64, f64)]) -> State {
    State::with_loads("loaded", loads.iter().map(|(weight, place)| Load::at(newtons(*weight), metres(*place))).collect())
}

#[track_caller]
fn stance(vehicle: &Vehicle, state: &State) -> Stance {
    match settle(vehicle, state) {
        Ok(Outcome::Settled(stance)) => stance,
        other => panic!("it stands: {other:?}"),
    }
}

#[track_caller]
fn close(got: f64, expected: f64, within: f64) {
    assert!((got - expected).abs() <= within, "{got} where {expected} ± {within} was expected");
}

#[test]
fn spring_and_tyre_give_in_series() {
    // 4,000 N over the axle: two springs 4,000 / 80,000 = 50 mm, two tyres 4,000 / 500,000 = 8 mm.
    let stance = stance(&truck(), &loaded(&[(4_000.0, WHEELBASE)]));
    let rear = &stance.axles[1];
    close(rear.hub_to_arch_change.left.si(), -0.050, 1e-9);
    close(rear.ground_to_arch_change.right.si(), -0.058, 1e-9);
    close(rear.load().si(), 15_000.0, 1e-6);
    // The front is not moved, and a point 1.2 m behind goes down by (1 + 1.2/3.6) of it.
    close(stance.axles[0].ground_to_arch_change.left.si(), 0.0, 1e-9);
    close(stance.points[0].1.si(), -0.058 * (1.0 + 1.2 / WHEELBASE), 1e-9);
    // √(80,000·9.80665/13,500)/2π.
    close(rear.ride_frequency.unwrap().value, 1.213_3, 1e-3);
}

#[test]
fn a_weight_off_the_middle_leans_by_the_lever_arms_of_springs_and_tyres() {
    // Solid axles: springs 2·k·(b/2)² and tyres 2·k_t·(t/2)² a side each, both axles alike; the moment is shared by stiffness.
    let mut load = Load::at(newtons(3_000.0), metres(WHEELBASE / 2.0));
    load.lateral = metres(0.4);
    let stance = stance(&truck(), &State::with_loads("off the middle", vec![load]));
    let (springs, tyres) = (RATE * BASE * BASE / 2.0, TYRE * TRACK * TRACK / 2.0);
    let per_axle = 1.0 / (1.0 / springs + 1.0 / tyres);
    close(stance.roll.value, -3_000.0 * 0.4 / (2.0 * per_axle), 1e-9);
    let moment: f64 = stance.axles.iter().map(|a| (a.wheel_loads.right - a.wheel_loads.left).si() * TRACK / 2.0).sum();
    close(moment, 3_000.0 * 0.4, 1e-6);
}

#[test]
fn a_pull_to_one_side_is_held_by_the_springs_from_the_roll_center_up_and_by_the_tires_from_the_ground_up() {
    let pull = SidewaysPull { force: newtons(2_000.0), height: metres(1.4), position: metres(WHEELBASE / 2.0) };
    let still = State::with_loads("pulled", vec![]);
    let stance = stance(&truck(), &State { sideways_pull: Some(pull), ..still });
    let (springs, tyres) = (RATE * BASE * BASE, TYRE * TRACK * TRACK);
    let expected = 2_000.0 * (1.4 - 0.5) / springs + 2_000.0 * 1.4 / tyres;
    close(stance.roll.value, -expected, 1e-9);
    // What the wheels on the one side gain stands against the pull about the ground.
    let moment: f64 = stance.axles.iter().map(|a| (a.wheel_loads.right - a.wheel_loads.left).si() * TRACK / 2.0).sum();
    close(moment, 2_000.0 * 1.4, 1e-6);
}

#[test]
fn gravity_takes_part_in_roll_and_beats_soft_springs() {
    let mut vehicle = truck();
    vehicle.sprung_cg_height = metres(1.3);
    let mut state = State::with_loads("in a bend", vec![]);
    state.lateral_acceleration_g = 0.3;
    let stance = stance(&vehicle, &state);
    let sprung: f64 = vehicle.axles.iter().map(|a| (a.kerb_load() - a.unsprung_weight).si()).sum();
    let heeling = sprung * (1.3 - 0.5);
    let (springs, tyres) = (RATE * BASE * BASE, TYRE * TRACK * TRACK);
    // The body's own moment turns springs and tyres; what acts on the axles turns the tyres alone.
    let on_axles: f64 =
        0.3 * vehicle.axles.iter().map(|a| (a.kerb_load() - a.unsprung_weight).si() * 0.5 + 1_500.0 * 0.36).sum::<f64>();
    let body = |phi: f64| 0.3 * heeling + heeling * phi;
    let axle_roll = |phi: f64| (body(phi) + on_axles) / tyres;
    // φ = φ_axle + body moment / springs, solved for φ.
    let expected = (0.3 * heeling / springs + (0.3 * heeling + on_axles) / tyres) / (1.0 - heeling / springs - heeling / tyres);
    close(axle_roll(expected) + body(expected) / springs, expected, 1e-12);
    close(stance.roll.value, expected, 1e-9);
    vehicle.sprung_cg_height = metres(6.0);
    assert_eq!(settle(&vehicle, &State::with_loads("top-heavy", vec![])), Ok(Outcome::NoEquilibrium));
}

#[test]
fn an_anti_roll_bar_turns_against_the_axle_only() {
    let mut vehicle = truck();
    let mut load = Load::at(newtons(3_000.0), metres(WHEELBASE));
    load.lateral = metres(0.5);
    let plain = stance(&vehicle, &State::with_loads("plain", vec![load]));
    vehicle.axles[1].anti_roll = newton_metres_per_radian(20_000.0);
    let barred = stance(&vehicle, &State::with_loads("with a bar", vec![load]));
    assert!(barred.roll.value.abs() < plain.roll.value.abs());
    close(barred.heave.si(), plain.heave.si(), 1e-9);
}

#[test]
fn a_wheel_off_the_ground_carries_nought_and_is_an_answer() {
    let mut vehicle = truck();
    vehicle.axles[0].anti_roll = newton_metres_per_radian(3e5);
    let mut load = Load::at(newtons(12_000.0), metres(2.0));
    load.lateral = metres(2.2);
    let stance = stance(&vehicle, &State::with_loads("hard over", vec![load]));
    close(stance.axles[0].wheel_loads.left.si(), 0.0, 0.0);
    let total: f64 = stance.axles.iter().map(|axle| axle.load().si()).sum();
    close(total, 25_000.0 + 12_000.0, 1e-5);
}

#[test]
fn a_spring_that_only_pushes_lets_go_in_droop() {
    let mut vehicle = truck();
    for side in Side::BOTH {
        vehicle.axles[1].corners.get_mut(side).spring.captive = false;
    }
    let mut state = State::with_loads("rear pulled up", vec![]);
    // 9,500 N of the rear are sprung; a couple that takes 9,600 N off it would pull a captive spring.
    state.pitch_couple = newton_metres_per_radian(9_400.0 * WHEELBASE);
    let stance = stance(&vehicle, &state);
    close(stance.axles[1].load().si(), 11_000.0 - 9_400.0, 1e-5);
    state.pitch_couple = newton_metres_per_radian(11_100.0 * WHEELBASE);
    assert_eq!(settle(&vehicle, &state), Ok(Outcome::NoEquilibrium));
}

#[test]
fn a_coil_spacer_lifts_through_its_motion_ratio_and_a_strut_spacer_moves_the_stop_with_it() {
    let mut vehicle = truck();
    vehicle.axles[0].kind = AxleKind::Independent;
    for side in Side::BOTH {
        let corner = vehicle.axles[0].corners.get_mut(side);
        corner.spring.motion_ratio = 0.5;
        corner.spring.rate = newtons_per_metre(160_000.0);
        let curve = StopCurve::Linear(newtons_per_metre(1e6));
        let stop = |name: &str, mount| Element {
            motion_ratio: 0.5,
            mount,
            ..element(name, ElementKind::Bump { gap: metres(0.04), extension: metres(0.0), curve: curve.clone() })
        };
        corner.elements = vec![stop("on the frame", Mount::Frame), stop("in the strut", Mount::Pack)];
    }
    let spacer = Change::Spacer { axle: "F".to_owned(), side: None, thickness: metres(0.0381) };
    let raised = stance(&vehicle, &State::with_loads("spacer", vec![]).changed(vec![spacer]));
    let front = &raised.axles[0];
    // 1 1/2 in at a motion ratio of 0.5 raises 3 in.
    close(front.hub_to_arch_change.left.si(), 0.0762, 1e-9);
    close(front.gap(Side::Left, "on the frame").unwrap().si(), 0.04 + 0.0381, 1e-9);
    close(front.gap(Side::Left, "in the strut").unwrap().si(), 0.04, 1e-9);
}

/// A rebound stop counts the other way round (motion ratio −1). In the pack it goes with the spring: a block lifts by itself and leaves
/// the stop's clearance as it was; on the frame it is the block's height nearer to its stop.
#[test]
fn a_block_leaves_a_stop_that_goes_with_the_spring_where_it_was_whichever_way_it_counts() {
    let lifted = |mount, ratio: f64| {
        let mut vehicle = truck();
        for side in Side::BOTH {
            let kind =
                ElementKind::Bump { gap: metres(0.06), extension: metres(0.0), curve: StopCurve::Linear(newtons_per_metre(4e5)) };
            vehicle.axles[1].corners.get_mut(side).elements =
                vec![Element { motion_ratio: ratio, mount, ..element("stop", kind) }];
        }
        let block = Change::Spacer { axle: "R".to_owned(), side: None, thickness: metres(0.05) };
        let raised = stance(&vehicle, &State::with_loads("block", vec![]).changed(vec![block]));
        (raised.axles[1].hub_to_arch_change.left.si(), raised.axles[1].gap(Side::Left, "stop").unwrap().si())
    };
    for ratio in [-1.0, 1.0] {
        let (rise, gap) = lifted(Mount::Pack, ratio);
        close(rise, 0.05, 1e-9);
        close(gap, 0.06, 1e-9);
    }
    close(lifted(Mount::Frame, -1.0).1, 0.01, 1e-9);
    close(lifted(Mount::Frame, 1.0).1, 0.11, 1e-9);
}

#[test]
fn a_held_bag_pushes_with_its_pressure_on_its_area() {
    let held = AirBag { held_pressure: true, ..bag() };
    let state = State::with_loads("held", vec![]).changed(vec![add("R", None, ElementKind::Air(held))]);
    // 200 kPa on 0.012 m²: 2,400 N a side against 40,000 N/m.
    close(stance(&truck(), &state).axles[1].hub_to_arch_change.left.si(), 2_400.0 / RATE, 1e-9);
}

#[test]
fn closed_air_follows_boyle_and_a_shared_line_carries_no_lean() {
    let mut load = Load::at(newtons(5_000.0), metres(WHEELBASE));
    load.lateral = metres(0.3);
    let lean = |shares_line, line_volume| {
        let air = AirBag { shares_line, line_volume: cubic_metres(line_volume), ..bag() };
        let state = State::with_loads("air", vec![load]).changed(vec![add("R", None, ElementKind::Air(air))]);
        stance(&truck(), &state)
    };
    let (own, shared) = (lean(false, 0.0), lean(true, 0.0));
    let none = stance(&truck(), &State::with_loads("none", vec![load]));
    assert!(own.roll.value.abs() < 0.97 * none.roll.value.abs(), "a bag a side stiffens roll");
    close(shared.roll.value, none.roll.value, 1e-9);
    // By Boyle, p·V stays: the mean height solves k·u + A·((p₀ + p_a)·V₀/(V₀ − A·u) − p_a) = W/2 a side.
    let stroke =
        |stance: &Stance| -(stance.axles[1].hub_to_arch_change.left + stance.axles[1].hub_to_arch_change.right).si() / 2.0;
    let balance =
        |u: f64, volume: f64| RATE * u + 0.012 * ((2e5 + 101_325.0) * volume / (volume - 0.012 * u) - 101_325.0) - 2_500.0;
    close(balance(stroke(&shared), 0.002), 0.0, 1e-4);
    let longer = lean(true, 0.001);
    close(balance(stroke(&longer), 0.0025), 0.0, 1e-4);
}

#[test]
fn bags_on_one_line_must_be_filled_alike() {
    let shared = AirBag { shares_line: true, ..bag() };
    let harder = AirBag { fill_pressure: pascals(3e5), ..shared };
    let changes =
        vec![add("R", Some(Side::Left), ElementKind::Air(shared)), add("R", Some(Side::Right), ElementKind::Air(harder))];
    let refused = settle(&truck(), &State::with_loads("unlike", vec![]).changed(changes));
    assert_eq!(refused, Err(StanceError::LineNotAlike("added".to_owned())));
}

#[test]
fn a_bag_already_fitted_is_part_of_the_kerb_state() {
    let mut vehicle = truck();
    for side in Side::BOTH {
        let air = AirBag { already_fitted: true, ..bag() };
        vehicle.axles[1].corners.get_mut(side).elements.push(element("old bag", ElementKind::Air(air)));
    }
    let at_kerb = stance(&vehicle, &State::with_loads("kerb", vec![]));
    close(at_kerb.axles[1].ground_to_arch_change.left.si(), 0.0, 1e-12);
    let removal = Change::Remove { axle: "R".to_owned(), side: None, element: "old bag".to_owned() };
    let without = stance(&vehicle, &State::with_loads("taken off", vec![]).changed(vec![removal]));
    close(without.axles[1].hub_to_arch_change.left.si(), -2_400.0 / RATE, 1e-9);
}

#[test]
fn one_trailer_axle_shares_with_the_coupler_by_lever_arms() {
    let vehicle = trailer(&[5.0]);
    // 6,000 N at 4 m: a fifth on the coupler.
    let ahead = stance(&vehicle, &loaded(&[(6_000.0, 4.0)]));
    close(ahead.tongue_weight.unwrap().si(), 2_500.0 + 1_200.0, 1e-6);
    close(ahead.axles[0].load().si(), 10_000.0 + 4_800.0, 1e-6);
    // 15,000 N a metre behind the axle lift it by 3,000: the coupler holds the trailer down.
    let behind = stance(&vehicle, &loaded(&[(15_000.0, 6.0)]));
    close(behind.tongue_weight.unwrap().si(), 2_500.0 - 3_000.0, 1e-6);
    let mut raised = loaded(&[]);
    raised.coupler_rise = metres(0.1);
    close(stance(&vehicle, &raised).axles[0].ground_to_arch_change.left.si(), 0.0, 1e-9);
}

#[test]
fn equalised_axles_carry_alike_at_any_coupler_height_and_bare_ones_do_not() {
    let mut vehicle = trailer(&[4.6, 5.5]);
    let mut nose_high = loaded(&[(8_000.0, 4.8)]);
    nose_high.coupler_rise = metres(0.1);
    let bare = stance(&vehicle, &nose_high);
    assert!(bare.axles[1].load().si() - bare.axles[0].load().si() > 1_000.0, "the rear axle takes over when the nose is high");
    vehicle.equalisers = Side::BOTH.map(|side| rocker(side, ["A1", "A2"], [0.09, 0.09])).to_vec();
    let equal = stance(&vehicle, &nose_high);
    close(equal.axles[0].load().si(), equal.axles[1].load().si(), 1e-5);
    // Uneven arms: spring forces as the arms' inverse, F₁·a₁ = F₂·a₂ in what the loads added.
    vehicle.equalisers = Side::BOTH.map(|side| rocker(side, ["A1", "A2"], [0.06, 0.12])).to_vec();
    let uneven = stance(&vehicle, &loaded(&[(8_000.0, 4.8)]));
    let gained = |index: usize| uneven.axles[index].load().si() - 10_000.0;
    close(gained(0) * 0.06, gained(1) * 0.12, 1e-5);
}

#[test]
fn three_axles_on_two_pairs_of_rockers_carry_the_whole_weight() {
    let mut vehicle = trailer(&[4.2, 5.0, 5.8]);
    let pairs = [["A1", "A2"], ["A2", "A3"]];
    let both = |axles: [&'static str; 2]| Side::BOTH.map(|side| rocker(side, axles, [0.09, 0.09]));
    vehicle.equalisers = pairs.into_iter().flat_map(both).collect();
    let mut nose_low = loaded(&[(9_000.0, 5.0)]);
    nose_low.coupler_rise = metres(-0.08);
    let stance = stance(&vehicle, &nose_low);
    let loads: Vec<f64> = stance.axles.iter().map(|axle| axle.load().si()).collect();
    close(loads.iter().sum::<f64>() + stance.tongue_weight.unwrap().si(), 30_000.0 + 2_500.0 + 9_000.0, 1e-5);
    // Both rockers have even arms, so what the load added is the same on all three, however low the nose.
    close(loads[0], loads[1], 1e-5);
    close(loads[1], loads[2], 1e-5);
}

#[test]
fn a_coupled_trailer_stands_where_its_tongue_weight_lets_the_ball_down() {
    let (truck, trailer) = (truck(), trailer(&[5.0]));
    let ball = Ball { position: metres(WHEELBASE + 1.2), lateral: metres(0.0), above_coupler: metres(0.05) };
    let (bare, cargo) = (State::with_loads("truck", vec![]), loaded(&[(6_000.0, 4.0)]));
    let train = settle_train((&truck, &bare), &ball, (&trailer, &cargo)).unwrap().unwrap();
    let tongue = train.tongue_weight.si();
    close(tongue, 3_700.0, 1e-6);
    // Lever arms: 3,700 N 1.2 m behind put 3,700·4.8/3.6 on the rear axle and take 3,700·1.2/3.6 off the front.
    close(train.truck.axles[1].load().si(), 11_000.0 + tongue * 4.8 / 3.6, 1e-5);
    close(train.truck.axles[0].load().si(), 14_000.0 - tongue * 1.2 / 3.6, 1e-5);
    let rate = 1.0 / (1.0 / (2.0 * RATE) + 1.0 / (2.0 * TYRE));
    let (rear, front) = (-tongue * 4.8 / 3.6 / rate, tongue * 1.2 / 3.6 / rate);
    close(train.ball_rise.si(), rear + (rear - front) * 1.2 / 3.6, 1e-8);
    close(train.trailer.heave.si(), train.ball_rise.si() + 0.05, 1e-8);
    // Heavy behind, the trailer lifts the ball.
    let heavy_behind = loaded(&[(20_000.0, 6.0)]);
    let lifted = settle_train((&truck, &bare), &ball, (&trailer, &heavy_behind)).unwrap().unwrap();
    close(lifted.tongue_weight.si(), 2_500.0 - 4_000.0, 1e-5);
    assert!(lifted.ball_rise.si() > 0.0);
}

#[test]
fn what_has_no_meaning_is_named() {
    let named = |spoil: &dyn Fn(&mut Vehicle, &mut State)| {
        let (mut vehicle, mut state) = (trailer(&[4.6, 5.5]), loaded(&[(100.0, 5.0)]));
        vehicle.equalisers = vec![rocker(Side::Left, ["A1", "A2"], [0.09, 0.09])];
        spoil(&mut vehicle, &mut state);
        settle(&vehicle, &state).map(|_| ()).unwrap_err().to_string()
    };
    for (spoil, names) in [
        (&(|v: &mut Vehicle, _: &mut State| v.axles.clear()) as &dyn Fn(&mut Vehicle, &mut State), "needs 1 or more axles"),
        (&|v, _| v.coupler.as_mut().unwrap().position = metres(4.7), "distance from the coupler"),
        (&|v, _| v.equalisers[0].front_arm = metres(0.0), "front arm of the left equalizer"),
        (&|v, _| v.equalisers[0].axles.swap(0, 1), "order of the axles of the left equalizer"),
        (&|v, _| v.equalisers[0].axles[1] = "A9".to_owned(), "no axle “A9”"),
        (&|v, _| v.equalisers.push(rocker(Side::Left, ["A1", "A2"], [0.1, 0.1])), "“A1” is used twice"),
        (&|v, _| v.axles[0].tyre_rate = newtons_per_metre(f64::NAN), "tire rate of axle “A1”"),
        (&|v, _| v.axles[1].unsprung_weight = newtons(1e9), "unsprung weight of axle “A2”"),
        (&|_, s| s.coupler_rise = metres(f64::INFINITY), "coupler rise"),
        (&|_, s| s.loads[0].weight = newtons(-1.0), "weight in state"),
        (&|_, s| s.changes = vec![add("A1", None, helper(0.0, -1.0))], "rate of “added” on axle “A1”"),
        (
            &|_, s| s.changes = vec![Change::Remove { axle: "A1".into(), side: None, element: "ghost".into() }],
            "no element “ghost”",
        ),
    ] {
        let sentence = named(spoil);
        assert!(sentence.contains(names), "“{sentence}” does not name {names}");
    }
}

#[test]
fn a_solver_kept_warm_answers_as_a_cold_one() {
    let vehicle = truck();
    let changes = vec![add("R", None, helper(0.03, 30_000.0))];
    let mut solver = Solver::new(&vehicle, &changes).unwrap();
    for weight in [0.0, 5_000.0, 500.0, 9_000.0, 2_000.0] {
        let state = loaded(&[(weight, WHEELBASE)]).changed(changes.clone());
        let (Ok(Outcome::Settled(warm)), Ok(Outcome::Settled(cold))) = (solver.settle(&state), settle(&vehicle, &state)) else {
            panic!("both stand")
        };
        close(warm.axles[1].ground_to_arch_change.left.si(), cold.axles[1].ground_to_arch_change.left.si(), 1e-10);
    }
    // A load past all figures leaves nothing behind that the next answer could be spoilt by.
    let absurd = loaded(&[(1e308, WHEELBASE - 1.0), (1e308, WHEELBASE - 1.0)]);
    assert!(!matches!(solver.settle(&absurd), Ok(Outcome::Settled(_))));
    let state = loaded(&[(5_000.0, WHEELBASE)]).changed(changes.clone());
    assert_eq!(solver.settle(&state), Solver::new(&vehicle, &changes).unwrap().settle(&state));
}

proptest! {
    /// Whatever is thrown at it, the solver answers or says why not.
    #[test]
    fn no_vehicle_makes_the_solver_stumble(
        numbers in prop::collection::vec(prop_oneof![Just(0.0), Just(f64::NAN), Just(-1.0), -1e6..1e6_f64, 1e-9..1e9_f64], 14),
        trailing in any::<bool>(),
    ) {
        let mut vehicle = if trailing { trailer(&[4.0, 5.0]) } else { truck() };
        let axle = &mut vehicle.axles[1];
        axle.track = metres(numbers[0]);
        axle.tyre_rate = newtons_per_metre(numbers[1]);
        axle.anti_roll = newton_metres_per_radian(numbers[2]);
        axle.kerb_wheel_loads.left = newtons(numbers[3]);
        axle.corners.left.spring.rate = newtons_per_metre(numbers[4]);
        vehicle.sprung_cg_height = metres(numbers[5]);
        let air = AirBag { area_slope: metres(numbers[6]), volume: cubic_metres(numbers[7]), fill_travel: metres(numbers[8]), ..bag() };
        let last = vehicle.axles[1].name.clone();
        let mut state = loaded(&[(numbers[9], numbers[10])]);
        state.lateral_acceleration_g = numbers[11];
        state.changes = vec![add(&last, None, ElementKind::Air(air)), Change::Spacer { axle: last, side: None, thickness: metres(numbers[12]) }];
        state.coupler_rise = metres(numbers[13]);
        if let Ok(Outcome::Settled(stance)) = settle(&vehicle, &state) {
            prop_assert!(stance.axles.iter().all(|axle| axle.load().si().is_finite() && axle.wheel_loads.left.si() >= 0.0));
        }
    }
}
