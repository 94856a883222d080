//! A plan on the bench: what was estimated stays as it was, and what is asked of the steel is said before it is chosen.

#![allow(clippy::unwrap_used, clippy::indexing_slicing, reason = "a test fails where it stands")]

#[path = "support/case.rs"]
mod opened;
mod support;

use support::half_ton;
use wise_badger_casework::bench::{Act, BenchWork, Cannot, Limit, LoadName, StrainGrade, StrainedAt, done};
use wise_badger_casework::entry::{BenchEntry, LeafEntry, OverloadEntry, PackEntry, SteelEntry, Typed, TypedIn, UnitWord};
use wise_badger_casework::survey::{Gaps, Survey};
use wise_badger_mechanics::pack::{ArchSheet, Leaf, Pack, PartKind, Steel};
use wise_badger_mechanics::tape::{LengthUnit, WeightUnit};
use wise_badger_mechanics::units::{Force, InShopUnits, Length, inches, newtons, pounds};

const SHOP: TypedIn = TypedIn { length: LengthUnit::Inches, weight: WeightUnit::Pounds };

fn unread(name: &str) -> LeafEntry {
    LeafEntry { name: name.to_owned(), ..LeafEntry::default() }
}

fn read(name: &str, [width, thickness, front, rear]: [f64; 4], arch: Option<f64>) -> LeafEntry {
    let length = |value: f64| Some(SHOP.length(inches(value)));
    LeafEntry {
        width: length(width),
        thickness: length(thickness),
        front: length(front),
        rear: length(rear),
        arch: arch.and_then(length),
        ..unread(name)
    }
}

fn pack(leaves: Vec<LeafEntry>, arch: Option<f64>) -> PackEntry {
    let length = |value: f64| SHOP.length(inches(value));
    PackEntry {
        leaves,
        clamp_front: length(3.0),
        clamp_rear: length(3.0),
        pack_arch: arch.map(length),
        helper: None,
        young_modulus_pa: None,
        overload: None,
    }
}

/// Four leaves of 3 by 0.325 in, 27 in ahead of the bolt and 31 behind, 5 in of arch as bolted: all that is known.
fn six_figures() -> PackEntry {
    let main = read("Main leaf", [3.0, 0.325, 27.0, 31.0], None);
    pack(vec![main, unread("Leaf 2"), unread("Leaf 3"), unread("Leaf 4")], Some(5.0))
}

/// The same with every leaf read, as the estimate has them.
fn leaf_by_leaf() -> PackEntry {
    let made = six_figures().pack().unwrap().pack;
    let leaf = |leaf: &Leaf| {
        let sizes = [leaf.width, leaf.thickness, leaf.front, leaf.rear].map(|size| size.customary());
        read(&leaf.name, sizes, Some(ArchSheet::of(leaf).sagitta().customary()))
    };
    pack(made.leaves.iter().map(leaf).collect(), None)
}

fn with_a_long_leaf(found: &PackEntry) -> BenchEntry {
    let made = found.pack().unwrap().pack;
    let planned = done(found, &made, Act::Insert { kind: PartKind::LongAddedLeaf, at: None }, SHOP).unwrap();
    BenchEntry { planned, ..BenchEntry::found(found.clone()) }
}

fn both(bench: &BenchEntry) -> [Pack; 2] {
    bench.packs().unwrap().map(|read| read.pack)
}

fn height(pack: &Pack, load: Force) -> Length {
    pack.curve_to(pounds(2_000.0)).unwrap().height(load)
}

fn worked(bench: &BenchEntry, survey: &Survey) -> BenchWork {
    BenchWork::new(&opened::half_ton(), survey, &[], bench).unwrap()
}

#[test]
fn a_leaf_that_goes_in_changes_none_that_was_there() {
    let bench = with_a_long_leaf(&six_figures());
    let [found, planned] = both(&bench);
    assert_eq!(planned.leaves.len(), 5);
    for leaf in &found.leaves {
        let there = planned.leaves.iter().find(|planned| planned.name == leaf.name);
        assert_eq!(there, Some(leaf), "as it was");
    }
    let rises = |[found, planned]: [Pack; 2]| {
        [0.0, 400.0, 800.0].map(|load| height(&planned, pounds(load)) - height(&found, pounds(load)))
    };
    let (estimated, read) = (rises(both(&bench)), rises(both(&with_a_long_leaf(&leaf_by_leaf()))));
    for (one, other) in estimated.iter().zip(&read) {
        assert!(one.si() > 0.0 && (*one - *other).si().abs() < 2e-4, "{estimated:?} read as {read:?}");
    }
}

#[test]
fn a_leaf_that_comes_out_or_is_turned_or_moved_leaves_the_others_as_they_were() {
    let found = six_figures();
    let made = found.pack().unwrap().pack;
    let planned = |act| {
        let planned = done(&found, &made, act, SHOP).unwrap();
        planned.pack_after(&found).unwrap().pack
    };
    let out = planned(Act::Remove(1));
    assert_eq!(out.leaves[1], made.leaves[2], "its lengths are not stepped anew");
    let turned = planned(Act::Turn(2));
    assert!((turned.leaves[2].front - made.leaves[2].rear).si().abs() < 1e-5);
    assert!((turned.leaves[2].rear - made.leaves[2].front).si().abs() < 1e-5);
    assert_eq!(turned.leaves[3], made.leaves[3]);
    let moved = planned(Act::Down(1));
    assert_eq!((&moved.leaves[1], &moved.leaves[2]), (&made.leaves[2], &made.leaves[1]));
}

#[test]
fn the_overload_leaf_that_was_marked_is_the_one_exchanged() {
    let found = six_figures();
    let made = found.pack().unwrap().pack;
    assert_eq!(made.overload_leaf(), None, "all four are arched alike");
    assert_eq!(done(&found, &made, Act::FlatterOverload, SHOP).err(), Some(Cannot::NoOverloadLeaf));
    let marked = PackEntry { overload: Some(OverloadEntry::Leaf("Leaf 4".to_owned())), ..found };
    let made = marked.pack().unwrap().pack;
    assert_eq!(made.overload_leaf(), Some(3));
    assert!(made.leaves[3].curvature.value.abs() < 1e-12, "not read, and flat as they usually are");
    let planned = done(&marked, &made, Act::FlatterOverload, SHOP).unwrap();
    let names: Vec<&str> = planned.leaves.iter().map(|leaf| leaf.name.as_str()).collect();
    assert_eq!(names, ["Main leaf", "Leaf 2", "Leaf 3", "Flatter overload leaf"]);
    let pack = planned.pack_after(&marked).unwrap().pack;
    assert_eq!(pack.overload_leaf(), Some(3));
    assert_eq!(pack.leaves[..3], made.leaves[..3]);
    assert!(pack.leaves[3].spacer_above > made.leaves[3].spacer_above, "it bears later");
    // What it no longer holds up is said, and is more the more there is on it.
    let bench = BenchEntry { planned, ..BenchEntry::found(marked.clone()) };
    let lost = worked(&bench, &half_ton()).lost_support;
    let [.., (at, most)] = &lost[..] else { panic!("{lost:?}") };
    assert!(at.name == LoadName::Rated && most.si() > 1e-3, "{lost:?}");
    assert!(worked(&with_a_long_leaf(&marked), &half_ton()).lost_support.is_empty(), "it stayed where it was");
    // There is none where somebody said so, however flat the lowest is.
    let none = PackEntry { overload: Some(OverloadEntry::None), ..leaf_by_leaf() };
    assert_eq!(none.pack().unwrap().pack.overload_leaf(), None);
}

/// A vehicle with 1,000 lb on each spring under rated load.
fn light() -> Survey {
    let mut survey = half_ton();
    survey.vehicle.axle_ratings.rear = pounds(2_450.0);
    survey
}

/// A pack read leaf by leaf with a short leaf of 0.30 in of so much arch put in: its stress reaches what add-a-leafs commonly do.
fn with_a_short_leaf(arch: f64) -> BenchEntry {
    let found = pack(
        vec![
            read("Main", [2.5, 0.31, 28.0, 28.0], Some(6.414)),
            read("Second", [2.5, 0.31, 25.0, 25.0], Some(5.583)),
            read("Third", [2.5, 0.28, 19.0, 19.0], Some(3.433)),
        ],
        None,
    );
    let mut planned = found.clone();
    planned.leaves.insert(2, read("Add-a-leaf", [2.5, 0.30, 18.0, 18.0], Some(arch)));
    BenchEntry { planned, ..BenchEntry::found(found) }
}

#[test]
fn an_added_leaf_past_yield_under_rated_load_is_refused_and_one_past_the_allowable_only_told() {
    let survey = light();
    let (modest, bold) = (worked(&with_a_short_leaf(3.6), &survey), worked(&with_a_short_leaf(6.2), &survey));
    let of = |bench: &BenchWork| bench.strains.iter().find(|strain| strain.leaf == "Add-a-leaf").cloned().unwrap();
    let told = of(&modest);
    assert_eq!((told.grade, told.limit, told.at), (StrainGrade::Warned, Limit::Allowable, StrainedAt::Rated), "{told:?}");
    assert!(modest.refused().is_none() && modest.set.is_none());
    let refused = of(&bold);
    assert_eq!(
        (refused.grade, refused.limit, refused.at),
        (StrainGrade::Refused, Limit::Yield, StrainedAt::Rated),
        "{refused:?}"
    );
    assert!(refused.stress > Steel::usual().yields && bold.refused() == Some(&refused));
    // By hand: what the pack's own state says of that leaf under that load.
    let [_, planned] = both(&with_a_short_leaf(6.2));
    let rated = bold.packs.rated;
    let stress = planned.prepare(rated).unwrap().state(rated).unwrap().leaves[2].largest();
    assert!((stress - refused.stress).value.abs() < 1e3);
}

#[test]
fn the_same_leaf_on_estimated_sizes_is_told_and_its_set_comes_off_the_height() {
    let (bench, survey) = (with_a_short_leaf(6.2), light());
    let mut estimated = bench.clone();
    estimated.found.leaves[2].thickness = None;
    let (read, guessed) = (worked(&bench, &survey), worked(&estimated, &survey));
    let strain = guessed.strains.iter().find(|strain| strain.leaf == "Add-a-leaf").unwrap();
    assert_eq!((strain.grade, strain.estimated), (StrainGrade::Warned, true));
    assert!(guessed.refused().is_none());
    // δκ = 2(σ − σ_yield)/(E t), by hand, for the leaf put in.
    let set = read.set.expect("it takes one");
    let strain = read.refused().unwrap();
    let lost = 2.0 * (strain.stress.value - 1_200e6) / (206e9 * inches(0.30).si());
    let [found, mut by_hand] = both(&bench);
    by_hand.leaves[2].curvature.value -= lost;
    assert!(by_hand.leaves[2].curvature.value > 0.0 && lost > 0.0);
    let wanted = height(&both(&bench)[1], newtons(0.0)) - height(&by_hand, newtons(0.0));
    assert!((set - wanted).si().abs() < 3e-4, "{} by hand {}", set.customary(), wanted.customary());
    assert!(read.work.planned.height(newtons(0.0)) > height(&found, newtons(0.0)), "and it still lifts");
    assert!(read.work.adds_leaves && !read.work.rearches, "a leaf that settles is not one that is bent");
}

#[test]
fn what_is_past_its_limit_as_it_came_in_is_a_finding_and_past_yield_at_the_stop_is_told() {
    let soft = |rated: f64, at_stop: f64, yields: f64| {
        let stress = |mpa: f64| Typed { text: mpa.to_string(), unit: UnitWord::Mpa, si: mpa * 1e6 };
        Some(SteelEntry { rated: stress(rated), at_stop: stress(at_stop), yields: stress(yields) })
    };
    let mut survey = light();
    survey.stop_gap.empty = Gaps::at_the_rear(inches(2.5));
    let found = BenchEntry::found(with_a_short_leaf(3.6).found);
    let as_found = worked(&BenchEntry { steel: soft(200.0, 2_000.0, 2_000.0), ..found.clone() }, &survey);
    assert!(!as_found.strains.is_empty());
    assert!(as_found.strains.iter().all(|strain| strain.grade == StrainGrade::AsFound && strain.limit == Limit::Allowable));
    let stop = as_found.loads.iter().find(|named| named.name == LoadName::Stop).expect("it reaches the stop");
    assert!(stop.load > as_found.packs.rated);
    // Between what it is asked at rated load and at the stop.
    let bench = with_a_short_leaf(3.6);
    let at = |load: Force| {
        let pack = &both(&bench)[1];
        pack.prepare(load).unwrap().state(load).unwrap().leaves[2].largest().value / 1e6
    };
    let planned = worked(&bench, &survey);
    let stop = planned.loads.iter().find(|named| named.name == LoadName::StopPlanned).unwrap().load;
    let between = 0.5 * (at(planned.packs.rated) + at(stop));
    let told = worked(&BenchEntry { steel: soft(between, between, between), ..bench.clone() }, &survey);
    let strain = told.strains.iter().find(|strain| strain.leaf == "Add-a-leaf").unwrap();
    assert_eq!((strain.limit, strain.at, strain.grade), (Limit::Yield, StrainedAt::Stop, StrainGrade::Warned));
}
