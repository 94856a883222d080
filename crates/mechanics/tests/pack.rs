//! Leaf packs: reference answers, closed forms of the handbooks, laws that hold for any pack, and what is refused.

#![allow(clippy::unwrap_used, clippy::indexing_slicing, clippy::cast_precision_loss, reason = "a test fails where it stands")]

#[path = "support/pack_oracle.rs"]
mod pack_oracle;

use pack_oracle::least_energy_eye;
use proptest::prelude::*;
use serde_json::Value;
use wise_badger_mechanics::document::PackDocument;
use wise_badger_mechanics::pack::OverloadLeaf;
use wise_badger_mechanics::pack::{
    Clamp, HalfName, Leaf, Pack, PackError, PackState, arch_with_large_deflection, radius_from_sagitta, sagitta_of_arc,
};
use wise_badger_mechanics::units::{InShopUnits, inches, metres, newtons, pascals, per_metre, pounds};

const E: f64 = 206e9;

fn folder() -> std::path::PathBuf {
    std::path::Path::new(env!("CARGO_MANIFEST_DIR")).join("tests/reference/pack")
}

fn leaf(name: &str, thickness: f64, half: f64, curvature: f64) -> Leaf {
    Leaf { curvature: per_metre(curvature), ..Leaf::flat(name, metres(0.0635), metres(thickness), metres(half)) }
}

fn pack(leaves: Vec<Leaf>) -> Pack {
    Pack { young_modulus: pascals(E), clamp: Clamp::default(), leaves, helper: None, overload: OverloadLeaf::default() }
}

fn at(pack: &Pack, load: f64) -> PackState {
    pack.prepare(newtons(5_000.0)).unwrap().state(newtons(load)).unwrap()
}

fn number(value: &Value, case: &str) -> f64 {
    value.as_f64().unwrap_or_else(|| panic!("{case}: no figure"))
}

#[test]
fn every_reference_pack_gets_its_expected_answer() {
    let mut cases = 0;
    for entry in std::fs::read_dir(folder()).unwrap() {
        let name = entry.unwrap().file_name().into_string().unwrap();
        let Some(stem) = name.strip_suffix(".expected.json") else { continue };
        let read = |name: &str| std::fs::read_to_string(folder().join(name)).unwrap();
        let expected: Value = serde_json::from_str(&read(&name)).unwrap();
        let answer = PackDocument::read(&read(&format!("{stem}.json"))).unwrap().solve().unwrap().to_json();
        let answer: Value = serde_json::from_str(&answer).unwrap();
        let tolerance = &expected["tolerance"];
        let (arch, rate) = (number(&tolerance["arch_m"], stem), number(&tolerance["rate_rel"], stem));
        let (stress, stress_rel) = (number(&tolerance["stress_pa"], stem), number(&tolerance["stress_rel"], stem));
        for (index, state) in expected["states"].as_array().unwrap().iter().enumerate() {
            let (case, got) = (format!("{stem} at {}", state["load_n"]), &answer["states"][index]);
            for field in ["arch_linear_m", "arch_m"] {
                match state.get(field) {
                    Some(wanted) => {
                        let off = number(&got[field], &case) - number(wanted, &case);
                        assert!(off.abs() <= arch, "{case}: {field} is {off} off");
                    }
                    None => assert!(got.get(field).is_none() && got["outside_model"] == true, "{case}: {field}"),
                }
            }
            let (wanted, got_rate) = (number(&state["rate_n_per_m"], &case), number(&got["rate_n_per_m"], &case));
            assert!((got_rate / wanted - 1.0).abs() <= rate, "{case}: rate {got_rate}, expected {wanted}");
            for (leaf, wanted) in state["leaves"].as_array().unwrap().iter().enumerate() {
                for half in ["front_peak_stress_pa", "rear_peak_stress_pa"] {
                    let (wanted, got) = (number(&wanted[half], &case), number(&got["leaves"][leaf][half], &case));
                    let allowed = stress.max(stress_rel * wanted);
                    assert!((got - wanted).abs() <= allowed, "{case}: leaf {leaf} {half} {got}, expected {wanted}");
                }
            }
            cases += 1;
        }
    }
    assert!(cases > 50, "{cases}");
}

/// Thirty leaves all but alike press on each other all along: whatever is inside the format's limits is answered after a counted number
/// of turns, or refused.
#[test]
fn many_leaves_that_lie_on_each_other_all_along_are_answered() {
    let text = std::fs::read_to_string(folder().join("thirty_leaves_alike.json")).unwrap();
    let document = PackDocument::read(&text).unwrap();
    let prepared = document.pack.prepare(document.full_load).unwrap();
    let states = prepared.states(&document.loads).unwrap();
    assert_eq!(states.len(), 41);
    for pair in states.windows(2) {
        assert!(pair[1].arch_linear < pair[0].arch_linear);
        assert!(pair[1].contacts.iter().all(|contact| contact.force.si() > 0.0));
    }
}

/// Shigley, Mechanical Engineering Design (from memory): a single leaf `k = 4Ewt³/L³`, its stress `3WL/(2wt²)`.
#[test]
fn a_single_leaf_is_a_beam_loaded_in_the_middle() {
    let (w, t, length) = (0.0635, 0.00762, 1.4224);
    let single = pack(vec![leaf("main", t, length / 2.0, 0.6)]);
    let state = at(&single, 800.0);
    assert!((state.rate.si() / (4.0 * E * w * t.powi(3) / length.powi(3)) - 1.0).abs() < 1e-9);
    assert!((state.leaves[0].front.value / (3.0 * 800.0 * length / (2.0 * w * t * t)) - 1.0).abs() < 1e-9);
    assert!(state.contacts.is_empty());
}

/// Equal leaves of equal length and arch share the load evenly: n single leaves beside each other.
#[test]
fn equal_leaves_are_as_stiff_as_so_many_singles() {
    let one = || leaf("leaf", 0.0075, 0.65, 0.5);
    let (single, triple) = (pack(vec![one()]), pack(vec![one(), one(), one()]));
    let (single, triple) = (at(&single, 500.0), at(&triple, 1_500.0));
    assert!((triple.rate.si() / (3.0 * single.rate.si()) - 1.0).abs() < 1e-6);
    assert!((triple.arch_linear - single.arch_linear).si().abs() < 1e-9);
    for stress in &triple.leaves {
        assert!((stress.front.value / single.leaves[0].front.value - 1.0).abs() < 1e-6);
    }
}

/// The ideal triangle is `k = 8Enwt³/(3L³)`; stepped packs come out 23, 15, 8, 6 and 2 % stiffer for n = 2, 3, 5, 7 and 20.
#[test]
fn a_stepped_pack_is_stiffer_than_the_ideal_triangle_by_a_known_share() {
    let (w, t, half) = (0.0635, 0.00762, 0.7112_f64);
    for (n, excess) in [(2_u32, 0.23), (3, 0.15), (5, 0.08), (7, 0.06), (20, 0.02)] {
        let step = |index: u32| leaf("leaf", t, half * f64::from(n - index) / f64::from(n), 0.5);
        let graded = pack((0..n).map(step).collect());
        let ideal = 8.0 * E * f64::from(n) * w * t.powi(3) / (3.0 * (2.0 * half).powi(3));
        let got = at(&graded, 1_000.0).rate.si() / ideal - 1.0;
        assert!((got - excess).abs() < 0.015, "{n} leaves: {got}");
    }
}

/// Mixed full-length and graduated leaves deflect by `δ = 12FL³/(Ewt³(2n_g + 3n_f))`, half-length L and half-load F, within
/// 2 % (Shigley, from memory; its stress split is not what a stack does and is not looked at).
#[test]
fn full_length_and_graduated_leaves_deflect_as_the_handbook_says() {
    let (w, t, half, graduated) = (0.0635, 0.0075, 0.7_f64, 8_u32);
    let mut leaves = vec![leaf("main", t, half, 0.4), leaf("second", t, half, 0.4)];
    leaves.extend(
        (1..=graduated)
            .map(|index| leaf("graduated", t, half * f64::from(graduated + 1 - index) / f64::from(graduated + 1), 0.4)),
    );
    let mixed = pack(leaves);
    let load = 4_000.0;
    let deflection = at(&mixed, 0.0).arch_linear.si() - at(&mixed, load).arch_linear.si();
    let handbook = 12.0 * (load / 2.0) * half.powi(3) / (E * w * t.powi(3) * f64::from(2 * graduated + 3 * 2));
    assert!((deflection / handbook - 1.0).abs() < 0.04, "{}", deflection / handbook);
}

/// A truck pack worked out in inches and pounds for the shop's own rules: 186 lb/in, and 236 with a leaf of 36 in added.
#[test]
fn an_added_leaf_lifts_more_under_load_than_empty() {
    let inch = |name: &str, width: f64, thickness: f64, half: f64, radius: f64| Leaf {
        curvature: per_metre(1.0 / inches(radius).si()),
        ..Leaf::flat(name, inches(width), inches(thickness), inches(half))
    };
    let overload = Leaf { spacer_above: inches(0.25), ..Leaf::flat("overload", inches(2.5), inches(0.6), inches(13.0)) };
    let clamp = Clamp { front: inches(3.0), rear: inches(3.0) };
    let leaves = |added: Option<f64>| {
        let mut leaves = vec![inch("main", 2.5, 0.31, 28.0, 60.0), inch("second", 2.5, 0.31, 25.0, 55.0)];
        leaves.push(inch("third", 2.5, 0.28, 19.0, 52.0));
        // By its length it goes under the third; its arch is that of the model's parabola, y = κx²/2.
        leaves.extend(added.map(|arch| inch("added", 2.5, 0.30, 18.0, 18.0 * 18.0 / (2.0 * arch))));
        leaves.push(overload.clone());
        leaves
    };
    let packed =
        |added| Pack { young_modulus: pascals(E), clamp, leaves: leaves(added), helper: None, overload: OverloadLeaf::default() };
    let height = |pack: &Pack, load: f64| {
        let state = pack.prepare(pounds(1600.0)).unwrap().state(pounds(load)).unwrap();
        (state.arch_linear.customary(), state.rate.customary())
    };
    let plain = packed(None);
    for (load, arch, rate) in [(0.0, 5.55, 186.0), (800.0, 1.25, 186.0), (1600.0, -1.57, 348.0)] {
        let (got, got_rate) = height(&plain, load);
        assert!((got - arch).abs() < 0.01, "{load}: {got}");
        assert!((got_rate / rate - 1.0).abs() < 0.005, "{load}: {got_rate}");
    }
    for (arch, empty, loaded) in [(4.05, 0.41, 1.31), (4.8, 0.66, 1.56), (5.4, 0.88, 1.79), (6.2, 1.17, 2.08)] {
        let with = packed(Some(arch));
        let lift = |load| height(&with, load).0 - height(&plain, load).0;
        assert!((lift(0.0) - empty).abs() < 0.02, "{arch}: {} empty", lift(0.0));
        assert!((lift(800.0) - loaded).abs() < 0.02, "{arch}: {} loaded", lift(800.0));
    }
    assert!((height(&packed(Some(4.8)), 800.0).1 / 236.0 - 1.0).abs() < 0.04);
}

#[test]
fn what_has_no_meaning_is_refused_by_its_leaf() {
    let good = || vec![leaf("main", 0.0075, 0.65, 0.5), leaf("second", 0.0075, 0.5, 0.6)];
    let spoilt = |spoil: &dyn Fn(&mut Leaf)| {
        let mut leaves = good();
        spoil(&mut leaves[1]);
        pack(leaves).prepare(newtons(1000.0)).err().unwrap()
    };
    assert!(matches!(spoilt(&|leaf| leaf.thickness = metres(0.0)), PackError::NotPositive { what: "the thickness", .. }));
    assert!(matches!(spoilt(&|leaf| leaf.rear = metres(0.8)), PackError::LongerThanMain { half: "rear", .. }));
    assert!(matches!(spoilt(&|leaf| leaf.curvature = per_metre(4.0)), PackError::TooMuchArch(_)));
    assert!(matches!(spoilt(&|leaf| leaf.width = metres(f64::NAN)), PackError::NotPositive { .. }));
    let clamped = Pack { clamp: Clamp { front: metres(0.55), rear: metres(0.1) }, ..pack(good()) };
    assert!(matches!(clamped.prepare(newtons(1000.0)).err(), Some(PackError::InsideTheClamp { half: "front", .. })));
    assert_eq!(pack(vec![]).prepare(newtons(1000.0)).err(), Some(PackError::Leaves(0)));
    let sound = pack(good());
    assert_eq!(sound.prepare(newtons(1000.0)).unwrap().state(newtons(-1.0)).err(), Some(PackError::Load));
}

#[test]
fn a_spoilt_document_names_its_field() {
    let good = std::fs::read_to_string(folder().join("08_truck_overload.json")).unwrap();
    for (from, to, names) in [
        ("\"version\": 1", "\"version\": 2", "version: this is version 2"),
        ("\"width_m\": 0.0635", "\"width_m\": -1", "leaves[0].width_m: must be above 0"),
        ("\"width_m\": 0.0635", "\"broad_m\": 1", "leaves[0].broad_m: unknown field"),
        ("\"front_m\": 0.5842", "\"front_m\": 0.9", "leaves[1]: second reaches past the front eye of the main leaf"),
        ("\"loads_n\": [\n  0.0", "\"loads_n\": [\n  -1.0", "loads_n[0]: must be 0 or more"),
        ("wise-badger/pack", "wise-badger/stance", "format: this is"),
    ] {
        let spoilt = good.replacen(from, to, 1);
        assert_ne!(spoilt, good, "{from}");
        let told = PackDocument::read(&spoilt).err().unwrap().to_string();
        assert!(told.contains(names), "{told}");
    }
    let unloaded = good.replacen("\"loads_n\": [", "\"full_load_n\": 0, \"loads_n\": [", 1);
    assert!(PackDocument::read(&unloaded).err().unwrap().to_string().starts_with("full_load_n"));
}

#[test]
fn arcs_turn_into_radii_and_back_and_no_leaf_is_bent_past_half_its_chord() {
    for (sagitta, chord) in [(5.0, 50.0), (-2.0, 40.0), (20.0, 40.0)] {
        let radius = radius_from_sagitta(inches(sagitta), inches(chord)).unwrap();
        assert!((sagitta_of_arc(radius, inches(chord)).unwrap().customary() - sagitta).abs() < 1e-9);
    }
    assert_eq!(radius_from_sagitta(inches(21.0), inches(40.0)), None);
    assert_eq!(radius_from_sagitta(inches(0.0), inches(40.0)), None);
}

/// The exact elastica of a curved cantilever whose end is pressed down, by shooting: `EI κ' = −P cos θ` along the arc, with
/// the end free of moment. Its end stands where the correction says, within 0.2 mm while the arch is not far past flat.
#[test]
fn the_large_arch_correction_meets_the_exact_curve() {
    let (length, stiffness) = (0.7112_f64, 206e9 * 0.0635 * 0.00762_f64.powi(3) / 12.0);
    for arch in [0.1_f64, 0.15, 0.2] {
        let curvature = 2.0 * arch / (length * length);
        for share in [0.0, 0.4, 0.8, 1.0, 1.25] {
            let load = share * 3.0 * stiffness * arch / length.powi(3);
            let linear = arch - load * length.powi(3) / (3.0 * stiffness);
            let exact = exact_end_height(length, stiffness, curvature, load);
            let corrected = arch_with_large_deflection(metres(linear), metres(arch), metres(length)).unwrap().si();
            assert!((corrected - exact).abs() < 0.0004, "{arch} at {share}: {corrected}, exactly {exact}");
        }
    }
    // What bounds it is how steep a leaf gets, not the arch it began with: a pack that has gone flat is answered past flat.
    let flat = |height| arch_with_large_deflection(metres(height), metres(0.002), metres(0.65));
    assert!(flat(-0.025).is_some() && flat(-0.055).is_some());
    assert_eq!(flat(-0.114), None);
    assert_eq!(arch_with_large_deflection(metres(-0.2), metres(0.2), metres(0.7)), None);
    assert_eq!(
        arch_with_large_deflection(metres(0.084), metres(0.265), metres(0.4)),
        None,
        "an arch steeper than any leaf is made with"
    );
}

/// Height of the end over the root, the load staying vertical, in small steps from the root with the root's moment found by
/// bisection.
fn exact_end_height(length: f64, stiffness: f64, curvature: f64, load: f64) -> f64 {
    let steps = 4_000;
    let step = length / f64::from(steps);
    let shoot = |root: f64| {
        // κ at the root; the moment falls to nought at the end.
        let (mut angle, mut bend, mut height) = (0.0_f64, root, 0.0);
        for _ in 0..steps {
            let middle = angle + 0.5 * step * bend;
            height += step * middle.sin();
            bend += step * load * middle.cos() / stiffness;
            angle = middle + 0.5 * step * bend;
        }
        (bend - curvature, height)
    };
    let (mut low, mut high) = (curvature - load * length / stiffness - 1.0, curvature + 1.0);
    for _ in 0..100 {
        let middle = 0.5 * (low + high);
        if shoot(middle).0 > 0.0 { high = middle } else { low = middle }
    }
    shoot(low).1
}

/// Packs of two to five leaves, each no longer than the main leaf, at any order of lengths.
fn any_pack() -> impl Strategy<Value = Pack> {
    let any_leaf = (0.3..1.0_f64, 0.3..1.0_f64, 0.005..0.012_f64, -0.2..1.2_f64, prop_oneof![Just(0.0), 0.0..0.01_f64]);
    (0.45..0.8_f64, 0.45..0.8_f64, prop::collection::vec(any_leaf, 1..5), 0.005..0.011_f64, 0.2..0.9_f64, 0.0..0.08_f64).prop_map(
        |(front, rear, below, thickness, curvature, clamp)| {
            let main = Leaf { front: metres(front), rear: metres(rear), ..leaf("main", thickness, front, curvature) };
            let below = below.into_iter().enumerate().map(|(index, (a, b, t, k, spacer))| Leaf {
                front: metres(clamp + (front - clamp) * a),
                rear: metres(clamp + (rear - clamp) * b),
                spacer_above: metres(spacer),
                ..leaf(&format!("leaf {index}"), t, front, k)
            });
            let leaves = std::iter::once(main).chain(below).collect();
            Pack {
                young_modulus: pascals(E),
                clamp: Clamp { front: metres(clamp), rear: metres(clamp) },
                leaves,
                helper: None,
                overload: OverloadLeaf::default(),
            }
        },
    )
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(128))]

    /// Wherever the correction is given, the exact curve lies within a quarter of a hundredth of the length.
    #[test]
    fn where_the_correction_is_given_it_holds(arch in -0.05..0.27_f64, down in 0.0..0.5_f64, length in 0.4..0.8_f64) {
        let corrected = arch_with_large_deflection(metres(arch - down), metres(arch), metres(length));
        if let Some(corrected) = corrected.map(|corrected| corrected.si()) {
            let stiffness = 1_000.0;
            let (load, curvature) = (3.0 * stiffness * down / length.powi(3), 2.0 * arch / (length * length));
            let exact = exact_end_height(length, stiffness, curvature, load);
            prop_assert!((corrected - exact).abs() < 0.0025 * length, "{corrected}, exactly {exact}");
        }
    }

    #[test]
    fn more_load_never_stands_higher_and_contact_never_pulls(pack in any_pack()) {
        let loads: Vec<_> = (0..12).map(|step| newtons(500.0 * f64::from(step))).collect();
        let states = pack.prepare(newtons(6_000.0)).unwrap().states(&loads).unwrap();
        for pair in states.windows(2) {
            prop_assert!(pair[1].arch_linear < pair[0].arch_linear + metres(1e-9));
        }
        for state in &states {
            prop_assert!(state.rate.si() > 0.0);
            prop_assert!(state.contacts.iter().all(|contact| contact.force.si() > 0.0));
        }
        // Energy put in is the area under the curve, which is convex where leaves only ever come into contact.
        let alone = pack.prepare(newtons(6_000.0)).unwrap().state(newtons(3_000.0)).unwrap();
        prop_assert!((alone.arch_linear - states[6].arch_linear).si().abs() < 1e-8, "a load stands alone as it stands in a row");
    }

    #[test]
    fn halves_alike_agree_and_a_pack_turned_round_tilts_the_other_way(pack in any_pack()) {
        let turned = Pack {
            clamp: Clamp { front: pack.clamp.rear, rear: pack.clamp.front },
            leaves: pack.leaves.iter().map(|leaf| Leaf { front: leaf.rear, rear: leaf.front, ..leaf.clone() }).collect(),
            ..pack.clone()
        };
        let (one, other) = (at(&pack, 2_000.0), at(&turned, 2_000.0));
        prop_assert!((one.arch_linear - other.arch_linear).si().abs() < 1e-9);
        prop_assert!((one.seat_tilt + other.seat_tilt).value.abs() < 1e-9);
        let force = |state: &PackState, half| -> f64 {
            state.contacts.iter().filter(|contact| contact.half == half).map(|contact| contact.force.si()).sum()
        };
        let (front, rear) = (force(&one, HalfName::Front), force(&other, HalfName::Rear));
        prop_assert!((front - rear).abs() <= 1e-6 * front.max(1.0));
    }

    #[test]
    fn a_spoilt_document_is_answered_or_refused_and_never_with_what_is_no_number(
        at in any::<prop::sample::Index>(), with in prop_oneof![
            Just("0"), Just("-1"), Just("1e300"), Just("1e-300"), Just("null"), Just("\"a\""), Just("[]"), Just("7e7"), Just("0.05"),
        ],
    ) {
        let good = std::fs::read_to_string(folder().join("15_long_overload.json")).unwrap();
        // Each figure of the document in turn is made into something else.
        let figures: Vec<(usize, usize)> = {
            let bytes = good.as_bytes();
            let is_figure = |byte: u8| byte.is_ascii_digit() || b".-e+".contains(&byte);
            let starts = (1..bytes.len()).filter(|place| is_figure(bytes[*place]) && matches!(bytes[place - 1], b' ' | b'['));
            starts.map(|start| (start, (start..bytes.len()).find(|place| !is_figure(bytes[*place])).unwrap())).collect()
        };
        let (start, end) = figures[at.index(figures.len())];
        let spoilt = format!("{}{with}{}", &good[..start], &good[end..]);
        if let Ok(answer) = PackDocument::read(&spoilt).and_then(|document| document.solve()) {
            prop_assert!(!answer.to_json().contains(": null"), "{start}: {with}");
        }
    }

    #[test]
    fn a_leaf_more_is_never_softer_or_lower(pack in any_pack()) {
        let mut fewer = pack.clone();
        fewer.leaves.pop();
        let (with, without) = (at(&pack, 4_000.0), at(&fewer, 4_000.0));
        // Where the leaf ends is one more place that is looked at.
        prop_assert!(with.arch_linear > without.arch_linear - metres(5e-5));
    }

    #[test]
    fn the_eye_stands_where_a_general_solver_puts_it(pack in any_pack(), load in 0.0..6_000.0_f64) {
        let prepared = pack.prepare(newtons(6_000.0)).unwrap();
        // With the stations as they are set before any load; closer ones move it by no more than a tape could tell.
        let ours = prepared.curve(&[newtons(load)]).unwrap()[0].arch_linear.si();
        let theirs = least_energy_eye(&pack, load);
        prop_assert!((ours - theirs).abs() < 2e-5, "ours {ours}, clarabel {theirs}");
        let closer = prepared.state(newtons(load)).unwrap().arch_linear.si();
        prop_assert!((closer - ours).abs() < 3e-4, "closer {closer}, set before {ours}");
    }
}
