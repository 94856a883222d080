//! A forecast lays out one vehicle after another in the room of the last. Each comes to rest where it would were it the only one: every stance
//! that a figure is told from is held against the same vehicle solved by itself.

#![allow(clippy::unwrap_used, clippy::indexing_slicing, reason = "a test fails where it stands")]

#[path = "support/plain_axle.rs"]
mod plain_axle;

use plain_axle::axle;
use proptest::prelude::*;
use wise_badger_mechanics::identification::{
    Doubt, Doubtful, Experiment, Identified, MeasuredState, Measurement, Moving, Rest, TapeMark,
};
use wise_badger_mechanics::side::Side;
use wise_badger_mechanics::stance::{
    AirBag, Change, Coupler, Element, ElementKind, Equaliser, Load, Mount, Outcome, SpringStage, Stance, State, StopCurve,
    Vehicle, settle,
};
use wise_badger_mechanics::tape::Datum;
use wise_badger_mechanics::uncertain::Uncertain;
use wise_badger_mechanics::units::{
    InShopUnits, Length, cubic_metres, inches, metres, pascals, pounds, pounds_per_inch, radians, square_metres,
};

const WHEELBASE_IN: f64 = 145.0;

fn element(name: &str, kind: ElementKind) -> Element {
    Element { name: name.into(), lateral: None, motion_ratio: 1.0, mount: Mount::Frame, kind }
}

fn stop(gap: f64) -> Element {
    element(
        "bump stop",
        ElementKind::Bump { gap: inches(gap), extension: metres(0.0), curve: StopCurve::Linear(pounds_per_inch(900.0)) },
    )
}

fn helper(gap: f64) -> Element {
    element("helper", ElementKind::Helper { gap: inches(gap), rate: pounds_per_inch(120.0), already_fitted: false })
}

fn bag(shares_line: bool) -> Element {
    let air = AirBag {
        area: square_metres(0.012),
        volume: cubic_metres(0.002),
        fill_pressure: pascals(2e5),
        fill_travel: metres(0.0),
        polytropic_exponent: 1.3,
        area_slope: metres(0.0),
        shares_line,
        line_volume: cubic_metres(0.0003),
        held_pressure: false,
        already_fitted: false,
    };
    element("bag", ElementKind::Air(air))
}

/// A truck with a second stage and stops at the rear.
fn truck() -> Vehicle {
    let mut rear = axle("rear", WHEELBASE_IN, 370.0);
    for side in Side::BOTH {
        let corner = rear.corners.get_mut(side);
        corner.elements.push(stop(3.0));
        corner.spring.stages = vec![SpringStage { at_travel: inches(2.0), added_rate: pounds_per_inch(150.0) }];
    }
    let axles = vec![axle("front", 0.0, 500.0), rear];
    Vehicle { axles, points: vec![], sprung_cg_height: inches(28.0), coupler: None, equalisers: vec![] }
}

/// A tandem trailer on rockers.
fn trailer() -> Vehicle {
    let arm = inches(17.0);
    let names = ["rear", "second"].map(str::to_owned);
    let rocker = |side| Equaliser { side, axles: names.clone(), front_arm: arm, rear_arm: arm, stop: radians(0.5) };
    Vehicle {
        axles: vec![axle("rear", 151.0, 800.0), axle("second", 185.0, 800.0)],
        coupler: Some(Coupler { position: inches(0.0), lateral: inches(0.0), kerb_load: pounds(400.0) }),
        equalisers: Side::BOTH.map(rocker).to_vec(),
        points: vec![],
        sprung_cg_height: inches(28.0),
    }
}

fn mark() -> TapeMark {
    TapeMark::axle("rear", Datum::HubToArch)
}

fn stands(vehicle: &Vehicle, state: &State) -> Stance {
    match settle(vehicle, state).unwrap() {
        Outcome::Settled(stance) => stance,
        Outcome::NoEquilibrium => panic!("{} tips", state.name),
    }
}

/// The vehicle measured without a fault in states that are changed otherwise, each.
fn experiment(vehicle: &Vehicle, doubts: Vec<Doubt>, states: Vec<State>) -> Identified {
    let each = states.into_iter().map(|state| {
        let stance = stands(vehicle, &state);
        let change = stance.axle("rear").unwrap().hub_to_arch_change;
        let height = inches(21.5) + (change.left + change.right) / 2.0;
        let readings = vec![Measurement::Height { mark: mark(), height: Uncertain::new(height, inches(0.06)) }];
        MeasuredState { state, load_doubts: vec![], settling: inches(0.06), rest: Rest::RolledAndBounced, readings }
    });
    Experiment { vehicle: vehicle.clone(), doubts, friction: vec![], states: each.collect() }.identify().unwrap()
}

fn doubt(what: Doubtful, relative_sd: f64) -> Doubt {
    Doubt { what, axles: vec!["rear".into()], relative_sd }
}

fn loaded(name: &str, weight: f64, changes: Vec<Change>) -> State {
    State::with_loads(name, vec![Load::at(pounds(weight), inches(WHEELBASE_IN))]).changed(changes)
}

fn add(element: Element) -> Change {
    Change::Add { axle: "rear".into(), side: None, element }
}

/// What two stances of one vehicle differ by at most.
fn apart(one: &Stance, other: &Stance) -> f64 {
    let heights = |stance: &Stance| -> Vec<Length> {
        let of_axle = stance.axles.iter().flat_map(|axle| {
            let (ground, hub) = (axle.ground_to_arch_change, axle.hub_to_arch_change);
            let gaps = axle.gaps.iter().map(|gap| gap.gap);
            [ground.left, ground.right, hub.left, hub.right].into_iter().chain(gaps).collect::<Vec<_>>()
        });
        of_axle.collect()
    };
    let (one, other) = (heights(one), heights(other));
    assert_eq!(one.len(), other.len(), "as many heights and gaps");
    one.iter().zip(&other).map(|(one, other)| (*one - *other).si().abs()).fold(0.0, f64::max)
}

/// Holds every stance of forecasts in some states, with parts fitted, against the vehicle by itself. How many were held.
fn hold(found: &Identified, states: &[State], parts: &[Change]) -> usize {
    let places: Vec<usize> = (0..states.len()).collect();
    let forecasts = found.forecasts(&places, Moving::Everything, |_| parts.to_vec());
    let held = std::cell::Cell::new(0);
    for (state, forecast) in states.iter().zip(&forecasts) {
        let forecast = forecast.as_ref().unwrap();
        let alone = |vehicle: &Vehicle| {
            let changes = [&state.changes[..], parts].concat();
            stands(vehicle, &State { changes, ..state.clone() })
        };
        let told = found.tell(&[forecast], |vehicle, stances| {
            assert!(apart(stances[0], &alone(vehicle)) < 1e-9, "{}: laid out with others it stands elsewhere", state.name);
            held.set(held.get() + 1);
            Some(0.0)
        });
        assert!(told.is_some());
    }
    held.get()
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(24))]

    /// A truck whose states are fitted out otherwise, each, so that several layouts take turns in the same room.
    #[test]
    fn a_truck_stands_where_it_would_by_itself(
        weight in 300.0_f64..1_400.0,
        gap in -0.5_f64..3.0,
        block in 0.0_f64..3.0,
        shares_line: bool,
        rate_sd in 0.02_f64..0.35,
    ) {
        let states = vec![
            State::with_loads("empty", vec![]),
            loaded("bare", weight, vec![]),
            loaded("helper", weight, vec![add(helper(gap))]),
            loaded("bags", 0.5 * weight, vec![add(bag(shares_line)), add(helper(gap))]),
            loaded("no stops", weight, vec![Change::Remove { axle: "rear".into(), side: None, element: "bump stop".into() }]),
        ];
        let doubts = vec![
            doubt(Doubtful::SpringRate, rate_sd),
            doubt(Doubtful::StageTravel, 0.2),
            doubt(Doubtful::StageRate, 0.3),
            doubt(Doubtful::StopGap, 0.2),
            doubt(Doubtful::StopRate, 0.4),
            doubt(Doubtful::TyreRate, 0.15),
            doubt(Doubtful::RightOverLeft, 0.1),
        ];
        let found = experiment(&truck(), doubts, states.clone());
        let parts = vec![Change::Spacer { axle: "rear".into(), side: None, thickness: inches(block) }];
        // The best, and each of seven doubts up and down, in five states; the loads are not in doubt.
        prop_assert_eq!(hold(&found, &states, &parts), 5 * 15);
    }

    /// A trailer, whose coupler gives the body's rise, on rockers.
    #[test]
    fn a_tandem_trailer_stands_where_it_would_by_itself(weight in 300.0_f64..2_500.0, gap in 0.0_f64..2.0) {
        let states = vec![
            State::with_loads("empty", vec![]),
            loaded("bare", weight, vec![]),
            loaded("helper", weight, vec![add(helper(gap))]),
        ];
        let both = |what, relative_sd| Doubt { what, axles: vec!["rear".into(), "second".into()], relative_sd };
        let doubts = vec![both(Doubtful::SpringRate, 0.35), both(Doubtful::TyreRate, 0.15)];
        let found = experiment(&trailer(), doubts, states.clone());
        prop_assert_eq!(hold(&found, &states, &[add(stop(1.5))]), 3 * 5);
    }
}

/// Only the figures that are asked for are moved; what is told of the others is nothing, and where it stands is the same.
#[test]
fn what_is_not_moved_stands_where_it_did_and_tells_nothing() {
    let states = vec![State::with_loads("empty", vec![]), loaded("loaded", 900.0, vec![])];
    let found = experiment(&truck(), vec![doubt(Doubtful::SpringRate, 0.35), doubt(Doubtful::TyreRate, 0.15)], states);
    let forecast = |moving: Moving<'_>| found.forecasts(&[1], moving, |_| vec![]).remove(0).unwrap();
    let springs = |doubt: &Doubt| doubt.what == Doubtful::SpringRate;
    let (all, some, none) = (forecast(Moving::Everything), forecast(Moving::These(&springs)), forecast(Moving::Nothing));
    assert_eq!(all.stance, some.stance);
    assert_eq!(all.stance, none.stance);
    let spread = |forecast| {
        let told = found.tell(&[forecast], |_, stances| Some(stances[0].axle("rear")?.ground_to_arch_change.left.si())).unwrap();
        found.covariance(&told, &told).sqrt()
    };
    assert!(spread(&none) < 1e-15 && spread(&some) > 1e-5, "{} {}", spread(&none), spread(&some));
    assert!(found.rise(&none, &none, &mark()).unwrap().sd.si() < 1e-15);
}
