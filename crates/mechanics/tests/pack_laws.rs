//! Laws that hold for any work on a pack, and for any spring that takes another's place under a vehicle.

#![allow(clippy::unwrap_used, clippy::indexing_slicing, reason = "a test fails where it stands")]

use proptest::prelude::*;
use wise_badger_mechanics::document::PackDocument;
use wise_badger_mechanics::pack::OverloadLeaf;
use wise_badger_mechanics::pack::{
    ArchSheet, Clamp, Leaf, LeafReading, OverHelper, Pack, PackDoubt, PackError, PackReading, PackWork, Presetting,
};
use wise_badger_mechanics::side::Sides;
use wise_badger_mechanics::stance::{
    Axle, AxleKind, Change, Corner, Load, MainSpring, Outcome, SpringDifference, SpringStage, Stance, StanceError, State,
    Vehicle, settle,
};
use wise_badger_mechanics::units::{
    Force, InShopUnits, inches, metres, newton_metres_per_radian, newtons, newtons_per_metre, per_metre, pounds,
};

fn leaf(name: &str, thickness: f64, front: f64, rear: f64, curvature: f64) -> Leaf {
    Leaf {
        front: metres(front),
        rear: metres(rear),
        curvature: per_metre(curvature),
        ..Leaf::flat(name, metres(0.0635), metres(thickness), metres(front))
    }
}

/// Packs whose leaves step down and bend sharper, as a smith builds them, over a flat overload leaf or none.
fn built() -> impl Strategy<Value = Pack> {
    let sizes = (0.55..0.75_f64, 0.6..0.85_f64, 0.006..0.0095_f64, 0.3..0.8_f64, 0.0..0.05_f64);
    (2..5_u8, sizes, prop::bool::ANY).prop_map(|(count, (front, rear, thickness, bend, sharper), overload)| {
        let share = |index: u8| 1.0 - 0.55 * f64::from(index) / f64::from(count);
        let mut leaves: Vec<Leaf> = (0..count)
            .map(|index| {
                let curvature = bend * (1.0 + sharper * f64::from(index));
                leaf(&format!("leaf {index}"), thickness, front * share(index), rear * share(index), curvature)
            })
            .collect();
        if overload {
            let flat = leaf("overload", 0.014, front * 0.4, rear * 0.4, 0.0);
            leaves.push(Leaf { spacer_above: metres(0.004), ..flat });
        }
        Pack::of(leaves, Clamp { front: metres(0.07), rear: metres(0.075) })
    })
}

fn arch(pack: &Pack, load: f64) -> f64 {
    pack.prepare(newtons(8_000.0)).unwrap().state(newtons(load)).unwrap().arch_linear.si()
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(48))]

    #[test]
    fn more_tension_in_a_helper_never_stands_lower_and_it_never_pulls_down(
        pack in built(), reach in 0.3..0.9_f64, rate in 2_000.0..30_000.0_f64, tension in 0.0..900.0_f64, more in 1.0..400.0_f64,
        set_under in 0.0..4_000.0_f64, load in 0.0..6_000.0_f64,
    ) {
        let main = &pack.leaves[0];
        let between = |share: f64| metres(0.08 + (main.front.min(main.rear).si() - 0.08) * share);
        let helped = |tension: f64| Pack {
            helper: Some(OverHelper {
                reach: between(reach),
                end_rate: newtons_per_metre(rate),
                tension: newtons(tension),
                set_under: newtons(set_under),
            }),
            ..pack.clone()
        };
        let (plain, slack, tight) = (arch(&pack, load), arch(&helped(tension), load), arch(&helped(tension + more), load));
        prop_assert!(slack >= plain - 1e-9 && tight >= slack - 1e-9, "{plain} {slack} {tight}");
        let state = helped(tension).prepare(newtons(8_000.0)).unwrap().state(newtons(set_under)).unwrap();
        for force in state.helper.unwrap() {
            prop_assert!((force.si() - tension).abs() < 0.5, "set to {tension}, pushes {}", force.si());
        }
    }

    #[test]
    fn a_leaf_goes_where_its_length_puts_it_and_the_order_stays(pack in built(), share in 0.3..1.0_f64) {
        let mut pack = pack;
        let main = pack.leaves[0].clone();
        let new = Leaf { name: "new".to_owned(), front: main.front * share, rear: main.rear * share, ..main };
        let place = pack.place_by_length(&new);
        prop_assert!(place >= 1 && place <= pack.leaves.len());
        prop_assert!(pack.overload_leaf().is_none_or(|overload| place <= overload), "never under the overload leaf");
        pack.leaves.insert(place, new);
        let out_of_order = pack.doubts().into_iter().any(|doubt| matches!(doubt, PackDoubt::LongerThanAbove { .. }));
        prop_assert!(!out_of_order, "{:?}", pack.doubts());
    }

    #[test]
    fn turning_every_leaf_round_turns_the_tilt_round(pack in built(), load in 0.0..4_000.0_f64) {
        let clamp = Clamp { front: pack.clamp.rear, rear: pack.clamp.front };
        let round = Pack { clamp, leaves: pack.leaves.iter().map(Leaf::turned).collect(), ..pack.clone() };
        let state = |pack: &Pack| pack.prepare(newtons(8_000.0)).unwrap().state(newtons(load)).unwrap();
        let (one, other) = (state(&pack), state(&round));
        prop_assert!((one.arch_linear - other.arch_linear).si().abs() < 1e-9);
        prop_assert!((one.seat_tilt + other.seat_tilt).value.abs() < 1e-9);
        let twice: Vec<Leaf> = round.leaves.iter().map(Leaf::turned).collect();
        prop_assert_eq!(twice, pack.leaves);
    }

    #[test]
    fn what_is_read_off_a_leaf_makes_the_leaf_again(
        front in 0.3..0.8_f64, rear in 0.3..0.8_f64, curvature in -0.4..1.1_f64, with_chord in prop::bool::ANY,
    ) {
        let whole = leaf("main", 0.008, front, rear, curvature);
        let sheet = ArchSheet::of(&whole);
        let reading = LeafReading {
            name: whole.name.clone(),
            width: Some(whole.width),
            thickness: Some(whole.thickness),
            front: Some(whole.front),
            rear: Some(whole.rear),
            arch: Some(sheet.sagitta()),
            chord: with_chord.then(|| sheet.chord()),
            spacer_above: metres(0.0),
        };
        let made = PackReading { leaves: vec![reading], clamp: Clamp::default(), pack_arch: None, overload: OverloadLeaf::default() }.pack().unwrap();
        prop_assert!((made.pack.leaves[0].curvature.value - curvature).abs() < 1e-6);
    }

    #[test]
    fn the_arc_is_as_long_as_the_leaf_and_passes_every_offset(
        front in 0.3..0.8_f64, rear in 0.3..0.8_f64, curvature in -0.6..1.2_f64,
    ) {
        let sheet = ArchSheet::of(&leaf("main", 0.008, front, rear, curvature));
        let arc = sheet.arc(400);
        let long: f64 = arc.windows(2).map(|two| (two[1].0 - two[0].0).si().hypot((two[1].1 - two[0].1).si())).sum();
        prop_assert!((long - front - rear).abs() < 1e-4, "{long}");
        prop_assert!((arc[400].0 - sheet.chord()).si().abs() < 1e-9 && arc[400].1.si().abs() < 1e-9);
        for offset in sheet.offsets(metres(0.05)) {
            let on_arc = sheet.on_arc(sheet.front + offset.along);
            prop_assert!((on_arc.1 + offset.offset).si().abs() < 1e-12);
        }
    }

    #[test]
    fn what_is_pressed_in_settles_to_what_is_wanted(lost in 0.0..0.5_f64, from in -0.2..0.8_f64, gained in 0.0..0.5_f64) {
        let rule = Presetting { lost };
        let pressed = rule.pressed(per_metre(from), per_metre(from + gained)).value;
        prop_assert!(pressed >= from + gained - 1e-12);
        prop_assert!((from + (pressed - from) * (1.0 - lost) - (from + gained)).abs() < 1e-9);
    }

    #[test]
    fn a_pack_in_its_own_place_changes_nothing_and_another_brings_its_own_force(
        found in built(), planned in built(), kerb in 500.0..4_000.0_f64, travel in -0.03..0.06_f64,
    ) {
        let most = newtons(9_000.0);
        let rate = found.curve_to(most).unwrap().rate(newtons(kerb));
        let force = |difference: &SpringDifference| {
            let u = metres(travel);
            difference.stages.iter().fold(difference.force + difference.rate * u, |force, stage| {
                let nothing = metres(0.0);
                force + stage.added_rate * ((u - stage.at_travel).max(nothing) - (-stage.at_travel).max(nothing))
            })
        };
        let same = PackWork::new(&found, &found, most).unwrap().difference(newtons(kerb), rate);
        prop_assert!(force(&same).si().abs() < 1e-6);
        let work = PackWork::new(&found, &planned, most).unwrap();
        let height = work.found.height(newtons(kerb)) - metres(travel);
        let own = work.planned.load(height) - work.found.load(height);
        prop_assert!((force(&work.difference(newtons(kerb), rate)) - own).si().abs() < 1e-3, "at the pack's own rate, the packs' own forces");
    }
}

fn pickup(spring: &MainSpring) -> Vehicle {
    let axle = |name: &str, position: f64, wheel: f64, spring: MainSpring| Axle {
        name: name.to_owned(),
        position: metres(position),
        kind: AxleKind::Solid,
        track: metres(1.7),
        spring_base: metres(1.1),
        unsprung_weight: newtons(0.0),
        kerb_wheel_loads: Sides::both(newtons(wheel)),
        tyre_rate: newtons_per_metre(300_000.0),
        anti_roll: newton_metres_per_radian(0.0),
        roll_centre_height: metres(0.5),
        hub_height: metres(0.38),
        arch_lateral: None,
        corners: Sides::both(Corner { spring, elements: Vec::new() }),
    };
    let front = axle("front", 0.0, 6_500.0, MainSpring::linear(newtons_per_metre(45_000.0)));
    Vehicle {
        axles: vec![front, axle("rear", 3.6, 4_500.0, spring.clone())],
        points: Vec::new(),
        sprung_cg_height: metres(0.7),
        coupler: None,
        equalisers: Vec::new(),
    }
}

fn stands(vehicle: &Vehicle, weight: f64, changes: Vec<Change>) -> Result<Stance, StanceError> {
    let state = State::with_loads("state", vec![Load::at(newtons(weight), metres(3.4))]).changed(changes);
    match settle(vehicle, &state)? {
        Outcome::Settled(stance) => Ok(stance),
        Outcome::NoEquilibrium => panic!("it stands"),
    }
}

fn stage(at: f64, added: f64) -> SpringStage {
    SpringStage { at_travel: metres(at), added_rate: newtons_per_metre(added) }
}

fn other(difference: SpringDifference) -> Vec<Change> {
    vec![Change::OtherSpring { axle: "rear".to_owned(), side: None, difference }]
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(64))]

    /// A vehicle whose spring was exchanged stands where the vehicle stands that had the other spring from the start, and was
    /// pushed up by as much as the other spring carries more.
    #[test]
    fn an_exchanged_spring_is_the_other_spring(
        rate in 20_000.0..60_000.0_f64, more in -0.5..0.8_f64, at in -0.02..0.09_f64, joins in -0.3..2.0_f64, force in -900.0..900.0_f64,
        weight in 0.0..9_000.0_f64,
    ) {
        let plain = MainSpring::linear(newtons_per_metre(rate));
        let joins = stage(at, joins * rate * (1.0 + more));
        let difference = SpringDifference { force: newtons(force), rate: newtons_per_metre(more * rate), stages: vec![joins] };
        let exchanged = stands(&pickup(&plain), weight, other(difference)).unwrap();
        let whole = MainSpring { stages: vec![joins], ..MainSpring::linear(newtons_per_metre(rate * (1.0 + more))) };
        let pushed = Change::Spring { axle: "rear".to_owned(), side: None, added_force: newtons(force) };
        let built = stands(&pickup(&whole), weight, vec![pushed]).unwrap();
        let off = exchanged.axles[1].hub_to_arch_change.left - built.axles[1].hub_to_arch_change.left;
        prop_assert!(off.si().abs() < 1e-9, "{} m apart", off.si());
    }
}

#[test]
fn a_spring_that_would_be_left_without_a_rate_is_refused() {
    let vehicle = pickup(&MainSpring::linear(newtons_per_metre(30_000.0)));
    let nothing = newtons(0.0);
    for (rate, stages) in [
        (-31_000.0, vec![]),
        (-10_000.0, vec![stage(0.02, -21_000.0)]),
        (0.0, vec![stage(0.05, -20_000.0), stage(0.02, -11_000.0)]),
        (f64::NAN, vec![]),
    ] {
        let difference = SpringDifference { force: nothing, rate: newtons_per_metre(rate), stages };
        assert!(matches!(stands(&vehicle, 1_000.0, other(difference)), Err(StanceError::OutOfRange { .. })), "{rate}");
    }
    // It may soften on its way, as long as something is left.
    let softens = SpringDifference { force: nothing, rate: newtons_per_metre(5_000.0), stages: vec![stage(0.02, -20_000.0)] };
    assert!(stands(&vehicle, 1_000.0, other(softens)).is_ok());
}

#[test]
fn a_helper_in_a_document_is_read_or_refused_by_its_field() {
    let pack = Pack::of(vec![leaf("main", 0.008, 0.7, 0.7, 0.5)], Clamp::default());
    let helper = OverHelper {
        reach: metres(0.5),
        end_rate: newtons_per_metre(9_000.0),
        tension: newtons(200.0),
        set_under: newtons(900.0),
    };
    let document =
        PackDocument { pack: Pack { helper: Some(helper), ..pack }, loads: vec![newtons(900.0)], full_load: newtons(3_000.0) };
    let good = document.to_json();
    let result = PackDocument::read(&good).unwrap().solve().unwrap().to_json();
    assert!(result.contains("arch_m"), "{result}");
    for (from, to, says) in [
        ("\"tension_n\": 200.0", "\"tension_n\": -1", "helper.tension_n: must be 0 or more"),
        ("\"end_rate_n_per_m\": 9000.0", "\"end_rate_n_per_m\": 0", "helper.end_rate_n_per_m: must be above 0"),
        ("\"reach_m\": 0.5", "\"reach_m\": 0.9", "the helper's reach"),
        ("\"reach_m\": 0.5", "\"reaches_m\": 0.5", "unknown field"),
    ] {
        let spoilt = good.replacen(from, to, 1);
        assert_ne!(spoilt, good, "{from}");
        let told = PackDocument::read(&spoilt).err().unwrap().to_string();
        assert!(told.contains(says), "{told}");
    }
}

/// Where it is bent past flat by more than its own arch the pack has no height any more, and every way to it says so.
#[test]
fn past_the_model_nothing_is_made_up() {
    let weak = Pack::of(vec![leaf("main", 0.006, 0.7, 0.7, 0.3)], Clamp::default());
    let curve = weak.curve_to(newtons(8_000.0)).unwrap();
    assert!(curve.reaches() < newtons(8_000.0) && curve.lowest().si() < 0.0);
    let prepared = weak.prepare(newtons(8_000.0)).unwrap();
    assert_eq!(prepared.state(curve.reaches() * 1.5).unwrap().arch, None);
    assert!(prepared.state(curve.reaches() * 0.99).unwrap().arch.is_some());
    // An arch can still be asked for under a load that flattens it: more is put in.
    let (arched, more) = weak.standing_at(metres(0.05), newtons(1_000.0)).unwrap();
    assert!(more.value > 0.0 && arched.prepare(newtons(8_000.0)).unwrap().state(newtons(1_000.0)).unwrap().arch.is_some());
    assert!(matches!(weak.standing_at(metres(5.0), newtons(2_000.0)), Err(PackError::NotReached(_))));
}

/// SAE HS-788 (from memory) and any spring shop: rate goes with the cube of thickness, and with the width.
#[test]
fn a_rate_goes_with_the_cube_of_the_thickness_and_with_the_width() {
    let rate = |thickness: f64, width: f64| {
        let single = Leaf { width: inches(width), ..leaf("main", thickness, 0.7, 0.7, 0.5) };
        Pack::of(vec![single], Clamp::default()).prepare(pounds(1_000.0)).unwrap().state(Force::default()).unwrap().rate
    };
    let base = rate(0.007, 2.5);
    assert!(((rate(0.0077, 2.5) / base).value - 1.331).abs() < 1e-9);
    assert!(((rate(0.007, 3.0) / base).value - 1.2).abs() < 1e-9);
}
