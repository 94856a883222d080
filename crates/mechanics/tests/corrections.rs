//! Every kind of correction that moves a height, by hand: a pair of springs of one rate under a load right over the axle, so that what
//! stands on paper is a sum of springs and one balance of forces. Nothing here comes from the engine but the answer. Heights are in
//! inches, weights in pounds, rates in pounds an inch, pressures in pounds on a square inch.
//!
//! # Source     Hooke's law and springs side by side; rate of a coil `G·d⁴/(8·D³·n)`, of which `G` falls out between two of one steel;
//!              Pascal's law for bags. Any handbook of machine elements. That a shackle lowered by `d` raises the frame by half of it
//!              where the axle sits in the middle: similar triangles.

#![allow(clippy::unwrap_used, clippy::indexing_slicing, reason = "a test fails where it stands")]

#[path = "support/plain_axle.rs"]
mod plain_axle;

use std::f64::consts::PI;

use proptest::prelude::*;
use wise_badger_mechanics::bound::Dimension;
use wise_badger_mechanics::correction::{Axles, CoilSpacer, Correction, Given, KINDS, KindRow, PartDoubt, Quantity, Site, Takes};
use wise_badger_mechanics::side::{Side, Sides};
use wise_badger_mechanics::stance::{
    AxleStance, Change, Element, ElementKind, ForceTable, Load, Mount, Outcome, SpringStage, State, StopCurve, Vehicle, settle,
};
use wise_badger_mechanics::units::{InShopUnits, inches, pounds, pounds_per_inch, psi};

use plain_axle::axle;

/// Rate of the pair of rear springs.
const K: f64 = 400.0;
/// Where the second stage of the vehicle that has one begins, and what it adds, the pair.
const STAGE: (f64, f64) = (1.5, 300.0);
/// Closer than this is the same height.
const SAME: f64 = 1e-4;

/// What stands at the rear.
#[derive(Clone, Copy, PartialEq)]
enum Rear {
    Plain,
    /// With an overload leaf.
    Staged,
    /// With a bump stop an inch and a half off, of a rate of its own, the pair.
    Stopped(f64),
}

fn vehicle(rate: f64, rear: Rear) -> Vehicle {
    let mut axles = vec![axle("front", 0.0, 370.0), axle("rear", 145.0, rate)];
    for side in Side::BOTH {
        let corner = axles[1].corners.get_mut(side);
        match rear {
            Rear::Plain => {}
            Rear::Staged => {
                corner.spring.stages =
                    vec![SpringStage { at_travel: inches(STAGE.0), added_rate: pounds_per_inch(STAGE.1 / 2.0) }];
            }
            Rear::Stopped(rate) => corner.elements.push(Element {
                name: "bump stop".to_owned(),
                lateral: None,
                motion_ratio: 1.0,
                mount: Mount::Frame,
                kind: ElementKind::Bump {
                    gap: inches(1.5),
                    extension: inches(0.0),
                    curve: StopCurve::Linear(pounds_per_inch(rate / 2.0)),
                },
            }),
        }
    }
    Vehicle { axles, points: vec![], sprung_cg_height: inches(28.0), coupler: None, equalisers: vec![] }
}

/// The rear with so much right over it, and with these changes.
fn rear_with(vehicle: &Vehicle, load: f64, changes: Vec<Change>) -> AxleStance {
    let loads = if load > 0.0 { vec![Load::at(pounds(load), inches(145.0))] } else { Vec::new() };
    let state = State { changes, ..State::with_loads("as asked", loads) };
    let Outcome::Settled(stance) = settle(vehicle, &state).unwrap() else { panic!("it stands") };
    stance.axle("rear").unwrap().clone()
}

/// Figures by their names, each in the shop unit of what it measures.
fn given(row: &KindRow, figures: &[(&'static str, f64)]) -> Given {
    assert_eq!(row.figures.len(), figures.len(), "{}: every figure, and no other", row.word);
    figures.iter().fold(Given::default(), |given, (name, value)| {
        let figure =
            row.figures.iter().find(|figure| figure.name == *name).unwrap_or_else(|| panic!("{} has no {name}", row.word));
        given.with(
            name,
            match figure.takes {
                Takes::Within(bound) => in_shop_units(bound.dimension, *value),
                Takes::Any(dimension) => in_shop_units(dimension, *value),
                // The same rate all the way, for three inches.
                _ => Quantity::Table(ForceTable::new(&[(inches(0.0), pounds(0.0)), (inches(3.0), pounds(3.0 * value))]).unwrap()),
            },
        )
    })
}

fn in_shop_units(dimension: Dimension, value: f64) -> Quantity {
    match dimension {
        Dimension::Length => Quantity::Length(inches(value)),
        Dimension::Weight => Quantity::Weight(pounds(value)),
        Dimension::Rate => Quantity::Rate(pounds_per_inch(value)),
        Dimension::Pressure => Quantity::Pressure(psi(value)),
        Dimension::Count => Quantity::Count(value),
    }
}

fn part(word: &str, figures: &[(&'static str, f64)]) -> Correction {
    let row = KindRow::of(word).unwrap_or_else(|| panic!("there is no {word}"));
    let part = row.correction(&given(row, figures), Site::default()).unwrap();
    assert!(part.problems().is_empty(), "{word}: {:?}", part.problems());
    part
}

/// How far a part raises the body over the rear axle under a load.
fn rise(vehicle: &Vehicle, part: &Correction, load: f64) -> f64 {
    let fitted = rear_with(vehicle, load, part.changes(vehicle, &["rear"]));
    let plain = rear_with(vehicle, load, Vec::new());
    let [fitted, plain] = [fitted, plain].map(|axle| axle.hub_to_arch_change);
    let sides = Side::BOTH.map(|side| (*fitted.get(side) - *plain.get(side)).customary());
    assert!((sides[0] - sides[1]).abs() < SAME, "alike on both sides");
    sides[0]
}

/// How far a pair comes down under a load, whatever pushes back: found by halving.
fn down(load: f64, pushes: impl Fn(f64) -> f64) -> f64 {
    let (mut high, mut low) = (-20.0, 20.0);
    for _ in 0..80 {
        let middle = 0.5 * (high + low);
        if pushes(middle) < load { high = middle } else { low = middle }
    }
    0.5 * (high + low)
}

/// A leaf that lifts by `lift` empty is squashed there by what lifts: it carries `K·lift`, and stands so far into its own travel.
fn with_a_leaf(rate: f64, lift: f64) -> impl Fn(f64) -> f64 {
    move |load| load / K - down(load, |down| K * down + (rate * (down + lift) + K * lift).max(0.0))
}

/// Springs that hold it higher by `rise` empty, of another rate.
fn with_other_springs(rate: f64, rise: f64) -> impl Fn(f64) -> f64 {
    move |load| load / K - (load / rate - rise)
}

/// Helpers that begin to bear after a gap.
fn with_helpers(rate: f64, gap: f64) -> impl Fn(f64) -> f64 {
    move |load| load / K - down(load, |down| K * down + rate * (down - gap).max(0.0))
}

type ByHand = Box<dyn Fn(f64) -> f64>;

/// Kind, figures, and the rise under any load by hand.
type OnPaper = (&'static str, Vec<(&'static str, f64)>, ByHand);

fn by_hand() -> Vec<OnPaper> {
    let always = |rise: f64| -> ByHand { Box::new(move |_| rise) };
    let capacity_over_travel = 1_000.0 / 5.0;
    let wire = |wire: f64, outside: f64, turns: f64| wire.powi(4) / ((outside - wire).powi(3) * turns);
    let (new_coil, old_coil) = (wire(0.66, 6.0, 7.0), wire(0.62, 6.0, 7.5));
    // A coil squashed by 4 in empty; the new one is an inch taller and so many times as stiff.
    let squashed = |times: f64| -> ByHand {
        let pushes = move |down: f64| times * K * (4.0 + 1.0 + down) - K * 4.0;
        Box::new(move |load| load / K - down(load, pushes))
    };
    let rubber = |squash: f64| 2.0 * 3_000.0 * (squash.max(0.0) / 2.5).powf(1.2);
    vec![
        ("lift_block", vec![("thickness", 2.0)], always(2.0)),
        ("exchanged_block", vec![("thickness", 3.0), ("replaces", 1.25)], always(1.75)),
        ("tapered_block", vec![("front_end", 1.8), ("rear_end", 2.2), ("length", 5.75)], always(2.0)),
        (
            "exchanged_taper",
            vec![("front_end", 2.0), ("rear_end", 3.0), ("length", 6.0), ("replaces", 1.0), ("replaces_taper", 0.25)],
            always(1.5),
        ),
        ("spring_over", vec![("tube", 3.0), ("stack", 1.75)], always(4.75)),
        ("coil_spacer", vec![("thickness", 1.5), ("replaces", 0.5)], always(1.0)),
        ("strut_spacer", vec![("thickness", 1.0), ("pivot_to_strut", 10.0), ("pivot_to_wheel", 16.0)], always(1.6)),
        ("rearched_pack", vec![("free_height_gained", 1.5)], always(1.5)),
        ("added_leaf", vec![("pair_rate", 100.0), ("lift", 1.0)], Box::new(with_a_leaf(100.0, 1.0))),
        ("leaf_by_lift", vec![("lift", 0.75), ("capacity", 900.0), ("working_travel", 6.0)], Box::new(with_a_leaf(150.0, 0.75))),
        (
            "half_pack",
            vec![("lift", 1.5), ("capacity", 1_800.0), ("working_travel", 6.0), ("stack", 1.0)],
            Box::new(with_a_leaf(300.0, 1.5)),
        ),
        ("helper_spring", vec![("pair_rate", 250.0), ("engagement_gap", 1.0)], Box::new(with_helpers(250.0, 1.0))),
        (
            "helper_by_capacity",
            vec![("capacity", 1_000.0), ("working_travel", 5.0), ("engagement_gap", -0.5)],
            Box::new(with_helpers(capacity_over_travel, -0.5)),
        ),
        (
            "helper_coils",
            vec![("capacity", 1_000.0), ("working_travel", 5.0), ("engagement_gap", 0.5)],
            Box::new(with_helpers(capacity_over_travel, 0.5)),
        ),
        (
            "new_packs",
            vec![("lift", 2.0), ("old_lift", 0.5), ("set", 0.75), ("added_rate", 100.0)],
            Box::new(with_other_springs(K + 100.0, 2.25)),
        ),
        (
            "new_coils",
            vec![("lift", 1.0), ("old_lift", 0.0), ("set", 0.5), ("added_rate", -80.0)],
            Box::new(with_other_springs(K - 80.0, 1.5)),
        ),
        (
            "taller_struts",
            vec![("lift", 2.5), ("old_lift", 0.0), ("set", 0.0), ("added_rate", 0.0)],
            Box::new(with_other_springs(K, 2.5)),
        ),
        (
            "measured_coils",
            vec![
                ("new_height", 16.0),
                ("old_height", 15.0),
                ("standing_height", 11.0),
                ("solid_height", 5.0),
                ("new_rate", 250.0),
                ("old_rate", 200.0),
            ],
            squashed(1.25),
        ),
        (
            "wound_coils",
            vec![
                ("new_height", 16.0),
                ("old_height", 15.0),
                ("standing_height", 11.0),
                ("new_wire", 0.66),
                ("new_outside", 6.0),
                ("new_turns", 7.0),
                ("old_wire", 0.62),
                ("old_outside", 6.0),
                ("old_turns", 7.5),
            ],
            squashed(new_coil / old_coil),
        ),
        ("load_rubber", vec![("clearance", 0.5), ("force", 200.0)], Box::new(with_helpers(400.0, 0.5))),
        (
            "rubber_by_capacity",
            vec![("capacity", 3_000.0), ("free_height", 5.0), ("clearance", 0.5)],
            Box::new(move |load| load / K - down(load, |down| K * down + rubber(down - 0.5))),
        ),
        (
            "air_helper",
            vec![
                ("capacity", 1_000.0),
                ("capacity_pressure", 100.0),
                ("height", 6.0),
                ("pressure", 40.0),
                ("least_pressure", 5.0),
                ("most_pressure", 100.0),
            ],
            always(2.0 * 400.0 / K),
        ),
        (
            "bags_in_coils",
            vec![("diameter", 3.0), ("height", 6.0), ("pressure", 20.0), ("least_pressure", 5.0), ("most_pressure", 35.0)],
            always(2.0 * 20.0 * PI * 9.0 / 4.0 / K),
        ),
    ]
}

/// Kinds that leave a vehicle where it stood, level and clear of its stops: what goes with a correction, and what only tells or holds.
const STAND_STILL: [&str; 9] = [
    "shocks",
    "brake_hoses",
    "u_bolts",
    "bar_links",
    "anti_roll_bar",
    "track_bar",
    "radius_arm_drop",
    "differential_drop",
    "stop_extension",
];

/// Kinds that have a test of their own below, or in `pack_laws.rs`.
const APART: [&str; 5] = ["tires", "longer_shackle", "overload_pads", "other_overload_leaf", "reworked_pack"];

#[test]
fn every_kind_raises_by_what_a_hand_makes_of_it_under_any_load() {
    let vehicle = vehicle(K, Rear::Plain);
    for (word, figures, by_hand) in by_hand() {
        let part = part(word, &figures);
        for load in [0.0, 150.0, 400.0, 850.0, 1_300.0] {
            let (found, wanted) = (rise(&vehicle, &part, load), by_hand(load));
            // A rubber's curve goes through sixteen points.
            let room = if word == "rubber_by_capacity" { 5e-3 } else { SAME };
            assert!((found - wanted).abs() < room, "{word} under {load} lb: {found} in, by hand {wanted} in");
        }
    }
}

#[test]
fn no_kind_is_left_out() {
    let by_hand: Vec<&str> = by_hand().into_iter().map(|(word, ..)| word).collect();
    for row in KINDS {
        let there = [by_hand.as_slice(), &STAND_STILL, &APART].concat().iter().filter(|word| **word == row.word).count();
        assert_eq!(there, 1, "{} has one sum by hand", row.word);
    }
}

#[test]
fn what_goes_with_a_correction_moves_no_height_of_its_own() {
    let vehicle = vehicle(K, Rear::Stopped(2_000.0));
    for word in STAND_STILL {
        let row = KindRow::of(word).unwrap();
        let middle = row.figures.iter().fold(Given::default(), |given, figure| match figure.takes {
            // What is pressed together is shorter than what is not.
            Takes::Within(bound) if figure.name.ends_with("_closed") => {
                given.with(figure.name, Quantity::of(bound.dimension, bound.least))
            }
            Takes::Within(bound) => {
                given.with(figure.name, Quantity::of(bound.dimension, (0.9 * bound.least + 0.1 * bound.most).max(bound.least)))
            }
            _ => panic!("{word} takes more than one number"),
        });
        let part = row.correction(&middle, Site::default()).unwrap();
        let changes = part.changes(&vehicle, &["rear"]);
        for load in [0.0, 100.0] {
            let moved = (rear_with(&vehicle, load, changes.clone()).hub_to_arch_change.left
                - rear_with(&vehicle, load, Vec::new()).hub_to_arch_change.left)
                .customary();
            assert!(moved.abs() < SAME, "{word} moves it by {moved} in");
        }
    }
}

/// Half of what they are larger across, from the ground; nothing from the hub.
#[test]
fn larger_tires_raise_hub_and_arch_alike() {
    let vehicle = vehicle(K, Rear::Plain);
    let part = part("tires", &[("diameter", 33.0), ("old_diameter", 31.5)]);
    for load in [0.0, 700.0] {
        let (fitted, plain) =
            (rear_with(&vehicle, load, part.changes(&vehicle, &["rear"])), rear_with(&vehicle, load, Vec::new()));
        let from_the_ground = (fitted.ground_to_arch_change.left - plain.ground_to_arch_change.left).customary();
        let from_the_hub = (fitted.hub_to_arch_change.left - plain.hub_to_arch_change.left).customary();
        assert!((from_the_ground - 0.75).abs() < SAME && from_the_hub.abs() < SAME, "{from_the_ground} and {from_the_hub}");
    }
}

/// Where the axle sits in the middle of its leaves, by half of what the shackle is longer; ahead of the middle by less.
#[test]
fn a_longer_shackle_raises_by_similar_triangles() {
    let vehicle = vehicle(K, Rear::Plain);
    for (front, rear) in [(26.0, 26.0), (22.0, 30.0)] {
        let part =
            part("longer_shackle", &[("new_length", 5.0), ("old_length", 4.0), ("front_half", front), ("rear_half", rear)]);
        let wanted = front / (front + rear);
        let found = rise(&vehicle, &part, 600.0);
        // To the second order of a small angle.
        assert!((found - wanted).abs() < 1e-3, "{found} in, by hand {wanted} in");
    }
}

/// The gap closes by the mean of both halves, and what it adds is as it was.
#[test]
fn pads_bring_the_overload_leaf_in_earlier() {
    let vehicle = vehicle(K, Rear::Staged);
    let part = part("overload_pads", &[("front_half", 1.0), ("rear_half", 0.5)]);
    for load in [0.0, 250.0, 500.0, 1_200.0] {
        let staged = |gap: f64| down(load, |down| K * down + STAGE.1 * (down - gap).max(0.0));
        let (found, wanted) = (rise(&vehicle, &part, load), staged(STAGE.0) - staged(STAGE.0 - 0.75));
        assert!((found - wanted).abs() < SAME, "under {load} lb: {found} in, by hand {wanted} in");
    }
}

/// A flatter and softer one lets it down, and only once it would have borne.
#[test]
fn another_overload_leaf_bears_from_its_own_gap_at_its_own_rate() {
    let vehicle = vehicle(K, Rear::Staged);
    let part = part("other_overload_leaf", &[("gap_opens", 0.5), ("added_rate", -120.0)]);
    for load in [0.0, 500.0, 700.0, 1_400.0] {
        let staged = |gap: f64, rate: f64| down(load, |down| K * down + rate * (down - gap).max(0.0));
        let wanted = staged(STAGE.0, STAGE.1) - staged(STAGE.0 + 0.5, STAGE.1 - 120.0);
        let found = rise(&vehicle, &part, load);
        assert!((found - wanted).abs() < SAME, "under {load} lb: {found} in, by hand {wanted} in");
        assert!(load > 600.0 || found.abs() < SAME, "clear of it nothing is otherwise");
    }
}

/// A stop that is longer bears by so much earlier.
#[test]
fn a_longer_stop_bears_earlier() {
    let (rate, longer) = (2_000.0, 0.75);
    let vehicle = vehicle(K, Rear::Stopped(rate));
    let part = part("stop_extension", &[("height", longer)]);
    for load in [200.0, 500.0, 1_500.0] {
        let stopped = |gap: f64| down(load, |down| K * down + rate * (down - gap).max(0.0));
        let (found, wanted) = (rise(&vehicle, &part, load), stopped(1.5) - stopped(1.5 - longer));
        assert!((found - wanted).abs() < SAME, "under {load} lb: {found} in, by hand {wanted} in");
    }
}

/// A part on one side of two axles alike: what it does to that side and to the other is what two springs and a rigid body make of it. With
/// a bar nowhere, each corner of an axle by itself would rise by the whole; the front springs hold half of the lean back.
#[test]
fn a_block_on_one_side_leans_the_body_and_raises_its_middle_by_half() {
    let vehicle = vehicle(K, Rear::Plain);
    let row = KindRow::of("lift_block").unwrap();
    let on_the_left = Site { side: Some(Side::Left), ..Site::default() };
    let part = row.correction(&given(row, &[("thickness", 2.0)]), on_the_left).unwrap();
    let fitted = rear_with(&vehicle, 0.0, part.changes(&vehicle, &["rear"]));
    let Sides { left, right } = fitted.hub_to_arch_change;
    let middle = (left + right).customary() / 2.0;
    assert!((middle - 1.0).abs() < 2e-3, "half of the block in the middle: {middle}");
    assert!(left > right, "and the side with the block stands higher");
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 64, ..ProptestConfig::default() })]

    /// What is added beside the springs brings a load's sag down by the ratio of the rates: `W/k − W/(k + a)`, on top of what it lifts.
    #[test]
    fn a_leaf_takes_its_share_of_any_load(rate in 150.0..900.0_f64, leaf in 30.0..300.0_f64, lift in 0.0..2.0_f64, load in 0.0..1_500.0_f64) {
        let vehicle = vehicle(rate, Rear::Plain);
        let part = part("added_leaf", &[("pair_rate", leaf), ("lift", lift)]);
        let wanted = lift + load / rate - load / (rate + leaf);
        prop_assert!((rise(&vehicle, &part, load) - wanted).abs() < SAME);
    }

    /// A block raises by its height whatever the springs are and whatever is aboard: what is in doubt of them is in no block's rise.
    #[test]
    fn a_block_raises_by_its_height(rate in 150.0..900.0_f64, height in 0.25..6.0_f64, load in 0.0..1_500.0_f64) {
        let part = part("lift_block", &[("thickness", height)]);
        prop_assert!((rise(&vehicle(rate, Rear::Plain), &part, load) - height).abs() < SAME);
    }

    /// What air carries it carries at any height, so that it raises by the same under every load.
    #[test]
    fn air_at_a_held_pressure_raises_the_same_under_every_load(rate in 150.0..900.0_f64, pressure in 10.0..90.0_f64, load in 0.0..1_500.0_f64) {
        let figures = [
            ("capacity", 800.0),
            ("capacity_pressure", 100.0),
            ("height", 6.0),
            ("pressure", pressure),
            ("least_pressure", 5.0),
            ("most_pressure", 100.0),
        ];
        let wanted = 2.0 * 8.0 * pressure / rate;
        prop_assert!((rise(&vehicle(rate, Rear::Plain), &part("air_helper", &figures), load) - wanted).abs() < SAME);
    }

    /// Helpers that hang free do nothing, and once they bear they carry their share of what is past the gap.
    #[test]
    fn helpers_bear_past_their_gap_alone(rate in 150.0..900.0_f64, helper in 50.0..400.0_f64, gap in 0.0..3.0_f64, load in 0.0..1_500.0_f64) {
        let vehicle = vehicle(rate, Rear::Plain);
        let part = part("helper_spring", &[("pair_rate", helper), ("engagement_gap", gap)]);
        let past = (load / rate - gap).max(0.0);
        prop_assert!((rise(&vehicle, &part, load) - past * helper / (rate + helper)).abs() < SAME);
    }
}

/// What an independent front makes of a spacer hangs on its arm (our own working rule); where the coil stands on the axle it is what it is.
#[test]
fn a_coil_spacer_in_front_is_no_better_known_than_the_arm_it_stands_on() {
    let spacer = Correction::at_the_rear(CoilSpacer { thickness: inches(2.0), replaces: inches(0.0) });
    let off = |part: &Correction| {
        let (_, [above, below]) = part.one_deviation_off().remove(0);
        [above, below].map(|part| match part.account().get("thickness") {
            Some(Quantity::Length(length)) => length.customary(),
            other => panic!("{other:?}"),
        })
    };
    let [above, below] = off(&spacer);
    assert!((above - 2.03125).abs() < 1e-9 && (below - 1.96875).abs() < 1e-9);
    let [above, below] = off(&spacer.clone().on(Site { axles: Axles::Front, side: None }));
    let sd = 0.3_f64.hypot(1.0 / 32.0);
    assert!((above - 2.0 - sd).abs() < 1e-9 && (2.0 - below - sd).abs() < 1e-9, "{above} {below}");
    // What proofs say of the part is of the part: the arm stays in doubt, and is not learned as if it came out of the box.
    let front = spacer.on(Site { axles: Axles::Front, side: None });
    let figure = front.learned_from_heights().unwrap();
    let PartDoubt::Length(left) = front.clone().knowing(figure, 0.0).doubt_of(figure) else { panic!("a length") };
    assert!((left - inches(0.3).si()).abs() < 1e-12, "{left}");
    match front.by_deviations(figure, 1.0).unwrap().account().get("thickness") {
        Some(Quantity::Length(length)) => assert!((length.customary() - 2.03125).abs() < 1e-9),
        other => panic!("{other:?}"),
    }
}

/// What is left of a doubt is what is told of it, and what it is moved by.
#[test]
fn a_part_known_better_is_moved_by_what_is_left_of_its_doubt() {
    let spacer = Correction::at_the_rear(CoilSpacer { thickness: inches(2.0), replaces: inches(0.0) });
    let figure = spacer.row().figures.iter().find(|figure| figure.name == "thickness").unwrap();
    assert_eq!(spacer.doubt_of(figure), PartDoubt::SPACER);
    assert_eq!(spacer.clone().knowing(figure, 0.5).doubt_of(figure), PartDoubt::SPACER.left(0.5));
    let off = |part: &Correction| match part.one_deviation_off()[0].1[0].account().get("thickness") {
        Some(Quantity::Length(length)) => length.customary(),
        other => panic!("{other:?}"),
    };
    assert!((off(&spacer) - 2.0 - 1.0 / 32.0).abs() < 1e-9);
    assert!((off(&spacer.clone().knowing(figure, 0.5)) - 2.0 - 1.0 / 64.0).abs() < 1e-9);
    let exact = spacer.row().figures.iter().find(|figure| figure.name == "replaces").unwrap();
    assert_eq!(spacer.doubt_of(exact).left(0.5), PartDoubt::Exact);
}
