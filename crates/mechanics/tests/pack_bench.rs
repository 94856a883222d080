//! Work on the bench: what was read becomes a pack, the pack a spring under a vehicle, and a height an arch for every leaf.

#![allow(clippy::unwrap_used, clippy::indexing_slicing, clippy::cast_precision_loss, reason = "a test fails where it stands")]

#[path = "support/truck.rs"]
mod truck;

use proptest::prelude::*;
use serde_json::Value;
use truck::{arch, leaf, truck};
use wise_badger_mechanics::document::PackDocument;
use wise_badger_mechanics::pack::{
    ArchAgreement, ArchSheet, Bits, BitsGiven, Clamp, Estimated, Leaf, LeafReading, OverHelper, Pack, PackDoubt, PackError,
    PackReading, Presetting, Rearch, RearchRefusal, Rule, Steel, WantedArch, sagitta_of_arc,
};
use wise_badger_mechanics::pack::{OverloadLeaf, shim_for};
use wise_badger_mechanics::units::{
    Force, InShopUnits, Length, inches, metres, newtons, pascals, per_metre, pounds, pounds_per_inch, radians,
};

/// OpenSees, beams joined by springs that only push: see `scripts/finite-elements/leaf_packs.py`, and `random_packs.py` for those made
/// up. Heights to 0.2 mm, tilt to a tenth of a milliradian, the stress of every single leaf to the larger of 8 MPa and 2 %.
#[test]
fn finite_elements_come_to_the_same_heights_and_stresses() {
    let folder = std::path::Path::new(env!("CARGO_MANIFEST_DIR")).join("tests/reference");
    let mut packs = 0;
    for entry in std::fs::read_dir(folder.join("finite_elements")).unwrap() {
        let name = entry.unwrap().file_name().into_string().unwrap();
        let read = |of: &str| std::fs::read_to_string(folder.join(of).join(&name)).unwrap();
        let elements: Value = serde_json::from_str(&read("finite_elements")).unwrap();
        let document = PackDocument::read(&read("pack")).unwrap();
        let prepared = document.pack.prepare(document.full_load).unwrap();
        for wanted in elements["states"].as_array().unwrap() {
            let state = prepared.state(newtons(wanted["load_n"].as_f64().unwrap())).unwrap();
            let off = state.arch_linear.si() - wanted["arch_linear_m"].as_f64().unwrap();
            assert!(off.abs() < 2e-4, "{name} at {}: {off} m off", state.load.si());
            if let Some(tilt) = wanted["seat_tilt_rad"].as_f64() {
                assert!((state.seat_tilt.value - tilt).abs() < 1e-4, "{name} at {}: tilt", state.load.si());
            }
            for (index, stress) in state.leaves.iter().enumerate() {
                for (half, got) in [("front", stress.front), ("rear", stress.rear)] {
                    let wanted = wanted[format!("{half}_peak_stress_pa")][index].as_f64().unwrap();
                    let off = got.value - wanted;
                    assert!(off.abs() < (0.02 * wanted).max(8e6), "{name}, leaf {index} {half}: {off} Pa off {wanted}");
                }
            }
        }
        // The rate, where finite elements were asked a little below and a little above.
        let states = elements["states"].as_array().unwrap();
        if let [_, below, at, above, _] = states.as_slice() {
            let of = |state: &Value, what: &str| state[what].as_f64().unwrap();
            let rate = (of(above, "load_n") - of(below, "load_n")) / (of(below, "arch_linear_m") - of(above, "arch_linear_m"));
            let ours = prepared.state(newtons(of(at, "load_n"))).unwrap().rate.si();
            assert!((ours / rate - 1.0).abs() < 0.02, "{name}: rate {ours}, {rate} by finite elements");
        }
        packs += 1;
    }
    assert!(packs >= 20, "{packs}");
}

/// Strain energy of the leaves from their lines: half of EI times the square of what they are bent from their free curvature.
fn strain_energy(pack: &Pack, load: Force) -> f64 {
    let lines = pack.prepare(pounds(1600.0)).unwrap().lines(load, 600).unwrap();
    let of_leaf = |(leaf, points): (&Leaf, Vec<(Length, Length)>)| {
        let stiffness = pack.young_modulus.value * leaf.width.si() * leaf.thickness.si().powi(3) / 12.0;
        let bent = points.windows(3).map(|three| {
            let (before, at, after) = (three[0], three[1], three[2]);
            let step = (after.0 - at.0).si();
            // Across the clamp the step changes, and the leaf is held straight there.
            if ((at.0 - before.0).si() - step).abs() > 1e-9 {
                return 0.0;
            }
            let curvature = (before.1 - 2.0 * at.1 + after.1).si() / (step * step);
            0.5 * stiffness * (curvature - leaf.curvature.value).powi(2) * step
        });
        bent.sum::<f64>()
    };
    pack.leaves.iter().zip(lines.into_iter().map(|line| line.points)).map(of_leaf).sum()
}

fn lengthened(pack: &Pack, front: f64, curvature: f64) -> Pack {
    let mut pack = pack.bent_by(per_metre(curvature));
    pack.leaves.iter_mut().for_each(|leaf| leaf.front *= front);
    pack
}

#[test]
fn from_an_arch_past_the_model_the_way_back_down_is_found() {
    let mut pack = truck();
    pack.leaves.pop();
    let wanted = arch(&pack, pounds(0.0));
    let (fitted, by) = pack.bent_by(per_metre(0.42)).standing_at(wanted, pounds(0.0)).unwrap();
    assert!((arch(&fitted, pounds(0.0)) - wanted).si().abs() < 2e-6 && (by.value + 0.42).abs() < 1e-3, "{by:?}");
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(24))]

    #[test]
    fn what_the_load_does_is_kept_in_the_leaves(front in 0.75..1.0_f64, curvature in -0.1..0.3_f64, most in 500.0..1600.0_f64) {
        let pack = lengthened(&truck(), front, curvature);
        let prepared = pack.prepare(pounds(1600.0)).unwrap();
        let loads: Vec<Force> = (0..=400).map(|step| pounds(most * f64::from(step) / 400.0)).collect();
        let points = prepared.curve(&loads).unwrap();
        let area: f64 = points.windows(2).map(|two| {
            0.5 * (two[0].load + two[1].load).si() * (two[0].arch_linear - two[1].arch_linear).si()
        }).sum();
        let kept = strain_energy(&pack, pounds(most)) - strain_energy(&pack, newtons(0.0));
        prop_assert!((kept / area - 1.0).abs() < 0.02, "{kept} J kept of {area} J");
    }

    #[test]
    fn bending_all_leaves_alike_moves_the_eye_and_leaves_the_nip(more in -0.1..0.4_f64, load in 0.0..700.0_f64) {
        let mut pack = truck();
        pack.leaves.pop();
        let bent = pack.bent_by(per_metre(more));
        let state = |pack: &Pack| pack.prepare(pounds(1600.0)).unwrap().state(pounds(load)).unwrap();
        let (before, after) = (state(&pack), state(&bent));
        for (one, other) in before.leaves.iter().zip(&after.leaves) {
            prop_assert!((one.front - other.front).value.abs() < 1e3);
        }
        let active: f64 = inches(25.0).si();
        prop_assert!(((after.arch_linear - before.arch_linear).si() - more * active * active / 2.0).abs() < 1e-6);
        // And back again, from what it stands at.
        let wanted = before.arch.unwrap();
        let (fitted, by) = bent.standing_at(wanted, pounds(load)).unwrap();
        prop_assert!((arch(&fitted, pounds(load)) - wanted).si().abs() < 2e-6);
        prop_assert!((by.value + more).abs() < 1e-3);
    }

    #[test]
    fn a_curve_is_the_pack_and_its_spring_is_the_curve(front in 0.75..1.0_f64, load in 50.0..1500.0_f64, kerb in 200.0..900.0_f64) {
        let pack = lengthened(&truck(), front, 0.0);
        let curve = pack.curve_to(pounds(1600.0)).unwrap();
        prop_assume!(pounds(load) < curve.reaches());
        prop_assert!((curve.height(pounds(load)) - arch(&pack, pounds(load))).si().abs() < 3e-4);
        prop_assert!((curve.load(curve.height(pounds(load))) - pounds(load)).si().abs() < 1e-6);
        let spring = curve.main_spring(pounds(kerb));
        let travel = curve.height(pounds(kerb)) - curve.height(pounds(load));
        let carried = spring.stages.iter().fold(pounds(kerb) + spring.rate * travel, |force, stage| {
            let nothing = metres(0.0);
            force + stage.added_rate * ((travel - stage.at_travel).max(nothing) - (-stage.at_travel).max(nothing))
        });
        prop_assert!((carried - pounds(load)).si().abs() < 1e-6, "{} for {load}", carried.customary());
    }
}

#[test]
fn a_pack_agrees_with_the_tape_within_friction_and_a_sixteenth() {
    let pack = truck();
    let state = pack.prepare(pounds(1600.0)).unwrap().state(pounds(600.0)).unwrap();
    let (made, held) = (state.arch.unwrap(), state.friction_band() + inches(1.0 / 16.0));
    // 5 % of 600 lb on 186 lb/in.
    assert!((state.friction_band().customary() - 30.0 / 186.0).abs() < 0.002);
    assert_eq!(state.against_arch(made + held * 0.9), Some(ArchAgreement::Agrees));
    let lower = state.against_arch(made - inches(1.0)).unwrap();
    assert!(matches!(lower, ArchAgreement::ReadLower(by) if (by.customary() - 1.0).abs() < 1e-9), "{lower:?}");
    assert!(matches!(state.against_arch(made + inches(1.0)), Some(ArchAgreement::ReadHigher(_))));
    let steel = Steel::usual();
    assert_eq!(steel.allowed(pounds(800.2), pounds(800.0)), steel.rated, "the rated load, rounded to the pound");
    assert_eq!(steel.allowed(pounds(900.0), pounds(800.0)), steel.at_stop);
    assert!(steel.sets_at(pascals(1_210e6)) && !steel.sets_at(steel.at_stop));
    let short = Clamp::usual(inches(8.0), inches(28.0));
    assert!((short.front.customary() - 2.4).abs() < 1e-9 && (short.rear.customary() - 3.0).abs() < 1e-9);
}

#[test]
fn a_spacer_gives_the_second_stage_its_load_back() {
    let found = truck();
    let before = found.prepare(pounds(1600.0)).unwrap().second_stage_load().unwrap();
    let mut higher = found.bent_by(per_metre(0.1));
    let later = higher.prepare(pounds(1600.0)).unwrap().second_stage_load().unwrap();
    assert!(later > before, "more arch lets the leaf bear later");
    let spacer = higher.spacer_for_second_stage(before, pounds(1600.0)).unwrap().unwrap();
    assert!(spacer < found.leaves[3].spacer_above);
    higher.leaves[3].spacer_above = spacer;
    let now = higher.prepare(pounds(1600.0)).unwrap().second_stage_load().unwrap();
    assert!((now / before).value - 1.0 < 0.01, "{} for {}", now.customary(), before.customary());
    assert_eq!(higher.spacer_for_second_stage(pounds(1.0), pounds(1600.0)).unwrap(), None, "no spacer is thin enough");
    higher.leaves.pop();
    assert_eq!(higher.spacer_for_second_stage(before, pounds(1600.0)).unwrap(), None);
}

#[test]
fn a_helper_is_set_to_its_tension_and_bears_more_with_the_load() {
    let helper =
        OverHelper { reach: inches(20.0), end_rate: pounds_per_inch(60.0), tension: pounds(80.0), set_under: pounds(500.0) };
    let (plain, helped) = (truck(), Pack { helper: Some(helper), ..truck() });
    let state = |pack: &Pack, load: f64| pack.prepare(pounds(1600.0)).unwrap().state(pounds(load)).unwrap();
    for force in state(&helped, 500.0).helper.unwrap() {
        assert!((force.customary() - 80.0).abs() < 0.01, "{}", force.customary());
    }
    let [empty, set, full] = [0.0, 500.0, 1200.0].map(|load| state(&helped, load));
    assert!(empty.helper.unwrap()[0] < set.helper.unwrap()[0] && set.helper.unwrap()[0] < full.helper.unwrap()[0]);
    for load in [0.0, 500.0, 1200.0] {
        assert!(state(&helped, load).arch_linear > state(&plain, load).arch_linear, "{load}");
    }
    assert!(set.rate > state(&plain, 500.0).rate);
    // With no tension it only touches: the height there is the plain pack's.
    let slack = Pack { helper: Some(OverHelper { tension: pounds(0.0), ..helper }), ..truck() };
    assert!((state(&slack, 500.0).arch_linear - state(&plain, 500.0).arch_linear).si().abs() < 1e-6);
    let outside = Pack { helper: Some(OverHelper { reach: inches(29.0), ..helper }), ..truck() };
    assert!(matches!(outside.prepare(pounds(1600.0)).err(), Some(PackError::NoFigure(_))));
    // And it goes through a pack file unchanged.
    let document = PackDocument { pack: helped, loads: vec![pounds(500.0)], full_load: pounds(1600.0) };
    assert_eq!(PackDocument::read(&document.to_json()).unwrap(), document);
}

fn reading(name: &str, half: f64, arch: Option<f64>, chord: Option<f64>) -> LeafReading {
    LeafReading {
        name: name.to_owned(),
        width: Some(inches(2.5)),
        thickness: Some(inches(0.31)),
        front: Some(inches(half)),
        rear: Some(inches(half)),
        arch: arch.map(inches),
        chord: chord.map(inches),
        spacer_above: inches(0.0),
    }
}

#[test]
fn what_is_read_becomes_curvature_and_what_is_not_is_named() {
    let clamp = Clamp::default();
    let read = PackReading {
        leaves: vec![reading("main", 26.0, Some(5.0), Some(50.0)), reading("second", 20.0, None, None)],
        clamp,
        pack_arch: None,
        overload: OverloadLeaf::default(),
    };
    let made = read.pack().unwrap();
    assert!((1.0 / made.pack.leaves[0].curvature.value - inches(65.0).si()).abs() < 1e-9);
    assert!(made.pack.leaves[1].curvature > made.pack.leaves[0].curvature);
    assert_eq!(made.estimated, [Estimated::ArchFromAbove(1)]);
    // Without its chord: the arc's length and arch make one.
    let made = PackReading {
        leaves: vec![reading("main", 28.0, Some(6.0), None)],
        clamp,
        pack_arch: None,
        overload: OverloadLeaf::default(),
    }
    .pack()
    .unwrap();
    assert_eq!(made.estimated, [Estimated::Chord(0)]);
    let sheet = ArchSheet::of(&made.pack.leaves[0]);
    assert!((sheet.sagitta().customary() - 6.0).abs() < 1e-6);
    // From little more than the pack's arch.
    let unread =
        |name: &str| LeafReading { width: None, thickness: None, front: None, rear: None, ..reading(name, 0.0, None, None) };
    let leaves = vec![reading("main", 28.0, None, None), unread("second"), unread("third"), unread("fourth")];
    let few = PackReading { leaves, clamp, pack_arch: Some(inches(5.5)), overload: OverloadLeaf::default() }.pack().unwrap();
    let halves: Vec<f64> = few.pack.leaves.iter().map(|leaf| leaf.front.customary()).collect();
    for (half, stepped) in halves.iter().zip([28.0, 22.4, 16.8, 11.2]) {
        assert!((half - stepped).abs() < 1e-9, "down to two fifths: {halves:?}");
    }
    assert!(few.estimated.contains(&Estimated::ArchFromPack) && few.estimated.contains(&Estimated::Length(3)));
    assert!(few.estimated.contains(&Estimated::Section(1)) && !few.estimated.contains(&Estimated::Section(0)));
    // Between leaves that were read, a leaf is as long as its place says.
    let leaves = vec![reading("main", 28.0, Some(5.0), None), unread("second"), reading("third", 20.0, Some(3.0), None)];
    let between = PackReading { leaves, clamp, pack_arch: None, overload: OverloadLeaf::default() }.pack().unwrap();
    assert!((between.pack.leaves[1].rear.customary() - 24.0).abs() < 1e-9);
    let nothing =
        PackReading { leaves: vec![unread("main")], clamp, pack_arch: Some(inches(5.0)), overload: OverloadLeaf::default() };
    assert!(matches!(nothing.pack().err(), Some(PackError::NotRead { what: "width", .. })));
    assert!((arch(&few.pack, newtons(0.0)).customary() - 5.5).abs() < 0.001);
    let nothing = PackReading {
        leaves: vec![reading("main", 28.0, None, None)],
        clamp,
        pack_arch: None,
        overload: OverloadLeaf::default(),
    };
    assert_eq!(nothing.pack().err(), Some(PackError::NoArch));
    for (arch, chord, wanted) in [
        (26.0, Some(50.0), PackError::TooMuchArch("main".to_owned())),
        (25.0, None, PackError::TooMuchArch("main".to_owned())),
        (5.0, Some(60.0), PackError::ChordPastLength("main".to_owned())),
    ] {
        let leaves = vec![reading("main", 28.0, Some(arch), chord)];
        assert_eq!(PackReading { leaves, clamp, pack_arch: None, overload: OverloadLeaf::default() }.pack().err(), Some(wanted));
    }
}

#[test]
fn a_rearch_stands_where_it_is_wanted_and_is_pressed_further() {
    let found = truck();
    let load = pounds(600.0);
    let wanted = WantedArch { arch: arch(&found, load) + inches(1.0), load, full_load: pounds(800.0) };
    let rearch = Rearch::new(&found, &wanted, Rule::KeepNip).unwrap();
    assert!((arch(&rearch.wanted, load) - wanted.arch).si().abs() < 1e-5);
    assert_eq!(rearch.wanted.leaves[3], found.leaves[3], "an overload leaf is left as it is");
    let pressed = Presetting { lost: 0.2 }.pressed_leaves(&found, &rearch.wanted);
    for ((from, to), pressed) in found.leaves.iter().zip(&rearch.wanted.leaves).zip(&pressed).take(3) {
        // A fifth of what is pressed in is lost, and the rest is what was wanted.
        let (in_all, stays) = ((*pressed - from.curvature).value, (to.curvature - from.curvature).value);
        assert!((in_all * 0.8 - stays).abs() < 1e-9 && stays > 0.0);
    }
    let spread = |pack: &Pack| {
        let state = pack.prepare(pounds(800.0)).unwrap().state(pounds(800.0)).unwrap();
        let stresses: Vec<f64> = state.leaves.iter().take(3).map(|leaf| leaf.largest().value).collect();
        stresses.iter().copied().fold(0.0, f64::max) - stresses.iter().copied().fold(f64::INFINITY, f64::min)
    };
    let evened = Rearch::new(&found, &wanted, Rule::EvenStress).unwrap();
    assert!((arch(&evened.wanted, load) - wanted.arch).si().abs() < 1e-5);
    assert!(spread(&evened.wanted) < 0.5 * spread(&rearch.wanted), "{} of {}", spread(&evened.wanted), spread(&rearch.wanted));
}

#[test]
fn what_speaks_against_re_arching_is_said() {
    let load = pounds(500.0);
    let refused = |found: &Pack, more: f64, full: f64, steel: Steel| {
        let wanted = WantedArch { arch: arch(found, load) + inches(more), load, full_load: pounds(full) };
        let rearch = Rearch::new(found, &wanted, Rule::KeepNip).unwrap();
        rearch.refusals(pounds(full), &steel).unwrap()
    };
    let (sound, usual) = (truck(), Steel::usual());
    assert_eq!(refused(&sound, 0.8, 700.0, usual), []);
    assert!(matches!(refused(&sound, -0.5, 700.0, usual)[..], [RearchRefusal::NothingToGain]));
    let needs_rate = refused(&sound, 0.8, 1_600.0, usual);
    assert!(needs_rate.iter().any(|refusal| matches!(refusal, RearchRefusal::NeedsRate { .. })), "{needs_rate:?}");
    let mut thin = truck();
    thin.leaves[2].thickness = inches(0.18);
    assert!(
        refused(&thin, 0.8, 500.0, usual).iter().any(|r| matches!(r, RearchRefusal::TooThin { leaf, .. } if leaf == "third"))
    );
}

#[test]
fn the_sheet_gives_the_circle_that_the_leaf_lies_on() {
    let long = Leaf { front: inches(24.0), rear: inches(30.0), ..leaf("main", 0.31, 27.0, 60.0) };
    let sheet = ArchSheet::of(&long);
    let (radius, chord) = (sheet.radius().unwrap(), sheet.chord());
    assert!((radius.customary() - 60.0).abs() < 1e-9);
    assert!((sagitta_of_arc(radius, chord).unwrap() - sheet.sagitta()).si().abs() < 1e-12);
    let offsets = sheet.offsets(inches(2.0));
    assert_eq!(offsets.len(), 11 + 1 + 14, "every 2 in from the center hole, inside the ends");
    for at in [-inches(24.0), inches(30.0)] {
        assert!(sheet.offset(at).si().abs() < 1e-12, "the ends stand on the chord");
    }
    let largest = offsets.iter().map(|offset| offset.offset.customary()).fold(0.0, f64::max);
    assert!(largest <= sheet.sagitta().customary() && largest > sheet.sagitta().customary() - 0.02);
    // Every point of the arc lies a radius from the circle's middle.
    let middle = (chord / 2.0, radius - sheet.sagitta());
    for (x, y) in sheet.arc(40) {
        assert!(((x - middle.0).hypot(y - middle.1) - radius).si().abs() < 1e-9);
    }
    let flat = sheet.bent_to(per_metre(0.0));
    assert_eq!((flat.radius(), flat.sagitta(), flat.chord()), (None, inches(0.0), inches(54.0)));
}

#[test]
fn order_and_orientation_are_looked_at_when_leaves_are_changed() {
    let mut pack = truck();
    assert_eq!(pack.doubts(), []);
    pack.leaves.swap(1, 2);
    assert!(pack.doubts().contains(&PackDoubt::LongerThanAbove { leaf: 2 }), "{:?}", pack.doubts());
    let mut uneven = truck();
    for leaf in &mut uneven.leaves {
        leaf.front *= 0.9;
    }
    assert_eq!(uneven.doubts(), []);
    uneven.leaves[1] = uneven.leaves[1].turned();
    assert!(uneven.doubts().contains(&PackDoubt::EndForEnd { leaf: 1 }), "{:?}", uneven.doubts());
    let mut flat = truck();
    flat.leaves[2].curvature = per_metre(0.4);
    assert_eq!(flat.doubts(), [PackDoubt::Gapes { leaf: 2 }]);
    flat.leaves[0].thickness = inches(0.1);
    assert!(flat.doubts().contains(&PackDoubt::Thickness { leaf: 0 }));
}

#[test]
fn bolts_and_clips_follow_from_the_stack() {
    let given = BitsGiven { tube_and_seat: inches(3.5), plate: inches(0.5), block: inches(0.0), u_bolt: inches(0.5625) };
    let bits = Bits::of(&truck(), &given).unwrap();
    // 0.31 + 0.31 + 0.28 + 0.6 of leaves and 0.25 of spacer.
    assert!((bits.stack.customary() - 1.75).abs() < 1e-9);
    assert!((bits.centre_bolt.customary() - 0.375).abs() < 1e-9, "2 1/2 in leaves");
    // Stack, a nut of 0.328 and three threads of 1/24.
    assert!((bits.centre_bolt_length.customary() - (1.75 + 0.328_125 + 0.125)).abs() < 1e-6);
    // Tube, stack, plate, washer, nut and three threads of 1/18.
    assert!((bits.u_bolt_leg.customary() - (3.5 + 1.75 + 0.5 + 0.1 + 0.492_187_5 + 3.0 / 18.0)).abs() < 1e-6);
    assert_eq!(bits.clips.iter().map(|clip| clip.leaf).collect::<Vec<_>>(), [1, 2]);
    assert!((bits.clips[1].height.customary() - (0.31 + 0.31 + 0.28 + 0.0625)).abs() < 1e-9);
    assert_eq!(shim_for(radians(0.02)), Some(radians(-0.02)));
    assert_eq!(shim_for(radians(0.005)), None, "hardly turned");
}
