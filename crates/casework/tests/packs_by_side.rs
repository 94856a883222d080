//! Packs that differ left and right: each is read, planned and judged by itself, and no side is averaged away.

#![allow(clippy::unwrap_used, clippy::indexing_slicing, reason = "a test fails where it stands")]

#[path = "support/case.rs"]
mod opened;

use wise_badger_casework::bench::{Act, done};
use wise_badger_casework::case::Case;
use wise_badger_casework::casework::Casework;
use wise_badger_casework::entry::{BenchEntry, LeafEntry, OptionEntry, PackEntry, SidePackEntry, TypedIn};
use wise_badger_casework::prediction::PredictedState;
use wise_badger_casework::reading::{Phase, Place, Reading, Spot};
use wise_badger_casework::survey::{End, LoadState};
use wise_badger_mechanics::pack::{PackCurve, PartKind};
use wise_badger_mechanics::side::Side;
use wise_badger_mechanics::tape::{Datum, LengthUnit, WeightUnit};
use wise_badger_mechanics::units::{InShopUnits, Length, inches, pounds};

const SHOP: TypedIn = TypedIn { length: LengthUnit::Inches, weight: WeightUnit::Pounds };

fn leaf(name: &str, thickness: f64, half: f64, arch: f64) -> LeafEntry {
    let length = |value: f64| Some(SHOP.length(inches(value)));
    LeafEntry {
        name: name.to_owned(),
        width: length(2.5),
        thickness: length(thickness),
        front: length(half),
        rear: length(half),
        arch: length(arch),
        ..LeafEntry::default()
    }
}

fn pack(arch: f64) -> PackEntry {
    let clamp = || SHOP.length(inches(2.5));
    PackEntry {
        leaves: vec![
            leaf("Main", 0.32, 26.0, arch),
            leaf("Second", 0.32, 20.0, arch * 0.6),
            leaf("Third", 0.32, 14.0, arch * 0.3),
        ],
        clamp_front: clamp(),
        clamp_rear: clamp(),
        pack_arch: None,
        helper: None,
        young_modulus_pa: None,
        overload: None,
    }
}

/// With a long leaf of the shelf put in.
fn with_a_leaf(found: &PackEntry) -> PackEntry {
    done(found, &found.pack().unwrap().pack, Act::Insert { kind: PartKind::LongAddedLeaf, at: None }, SHOP).unwrap()
}

/// A bench of both sides alike, nothing planned.
fn alike() -> BenchEntry {
    BenchEntry::found(pack(5.0))
}

/// The half-ton read empty at every corner, from the hub.
fn measured() -> Case {
    let mut case = opened::half_ton();
    case.measured.datum = Some(Datum::HubToArch);
    let read = |place, height| Reading {
        spot: Spot { phase: Phase::Found, state: LoadState::Empty, place },
        datum: Datum::HubToArch,
        value: opened::inches(height),
    };
    case.readings = vec![
        read(Place::FrontLeft, 20.0),
        read(Place::FrontRight, 20.0),
        read(Place::RearLeft, 21.5),
        read(Place::RearRight, 21.5),
    ];
    case
}

/// The half-ton with a bench and what is planned there as its one option.
fn job(bench: BenchEntry) -> Casework {
    let case = measured();
    let most = case.vehicle().most_spring_load();
    let option = OptionEntry::of_bench(&bench, |_| "a leaf in".to_owned(), most).unwrap();
    let mut case = case.with_bench(Some(bench));
    case.options = vec![option];
    Casework::new(case)
}

fn empty(work: &Casework) -> &PredictedState {
    work.predicted(0).unwrap().empty.as_ref().unwrap()
}

fn assert_close(one: Length, other: Length) {
    assert!((one - other).si().abs() < 2e-6, "{} and {}", one.customary(), other.customary());
}

#[test]
fn told_apart_and_alike_all_the_same_two_packs_are_the_same_as_one_of_both() {
    let both = BenchEntry { planned: with_a_leaf(&pack(5.0)), ..alike() };
    let apart = both.clone().told_apart();
    let (one, two) = (job(both), job(apart));
    assert_eq!(two.case().options[0].parts.len(), 2, "a part for each side");
    let (one, two) = (empty(&one), empty(&two));
    assert!(one.rise.value > inches(0.3), "it lifts: {}", one.rise.value.customary());
    assert_close(one.rise.value, two.rise.value);
    assert_close(one.part, two.part);
    assert_close(one.rear.sd, two.rear.sd);
    assert_close(one.front.unwrap().value, two.front.unwrap().value);
}

#[test]
fn a_leaf_in_the_right_pack_alone_lifts_the_right_and_is_a_part_of_the_right() {
    let apart = alike().told_apart();
    let right = SidePackEntry { planned: with_a_leaf(&pack(5.0)), found: pack(5.0) };
    let work = job(BenchEntry { right: Some(Box::new(right)), ..apart });
    let part = &work.case().options[0].parts[..];
    assert_eq!(part.len(), 1, "nothing is planned on the left");
    assert_eq!(part[0].correction.site.side, Some(Side::Right));
    let sides = empty(&work).rear_sides.unwrap();
    let stood = work.found().side(End::Rear, LoadState::Empty, Side::Left).unwrap().value;
    let (left, right) = (sides.left.value - stood, sides.right.value - stood);
    assert!(right > inches(0.3) && right > left + inches(0.25), "left {}, right {}", left.customary(), right.customary());
    // In a mirror the other side.
    let other = job(BenchEntry { planned: with_a_leaf(&pack(5.0)), ..alike().told_apart() });
    let mirrored = empty(&other).rear_sides.unwrap();
    assert_close(mirrored.left.value, sides.right.value);
    assert_close(mirrored.right.value, sides.left.value);
    assert_close(mirrored.left.sd, sides.right.sd);
}

#[test]
fn a_weak_pack_on_one_side_is_the_spring_of_that_side_alone() {
    let weak = SidePackEntry {
        found: PackEntry { leaves: pack(5.0).leaves[..2].to_vec(), ..pack(5.0) },
        planned: PackEntry { leaves: pack(5.0).leaves[..2].to_vec(), ..pack(5.0) },
    };
    let bench = BenchEntry { right: Some(Box::new(weak)), ..alike() };
    let case = measured().with_bench(Some(bench));
    let packs = case.vehicle().rear_pack.unwrap();
    let sag = |curve: &PackCurve| curve.height(pounds(0.0)) - curve.height(pounds(600.0));
    assert!(sag(&packs.right) > 1.3 * sag(&packs.left), "two leaves give more than three");
}

#[test]
fn an_option_is_out_of_date_once_its_own_side_was_worked_on_or_the_sides_were_told_apart() {
    let planned = || with_a_leaf(&pack(5.0));
    let both = BenchEntry { planned: planned(), ..alike() };
    let option = |bench: &BenchEntry| OptionEntry::of_bench(bench, |_| String::new(), pounds(2_000.0)).unwrap();
    let apart = both.clone().told_apart();
    assert!(!option(&both).is_out_of_date(Some(&both)));
    assert!(option(&both).is_out_of_date(Some(&apart)), "what was one pack is two");
    assert!(!option(&apart).is_out_of_date(Some(&apart)));
    assert!(option(&apart).is_out_of_date(Some(&both)), "what were two is one");
    // Of the right alone: work on the left is none of its business, work on the right is.
    let right = BenchEntry { planned: planned(), ..alike() };
    let only_right = alike().told_apart().with_side(Some(Side::Right), right);
    let of_the_right = option(&only_right);
    let left_too = only_right.with_side(Some(Side::Left), BenchEntry { planned: planned(), ..alike() });
    assert!(!of_the_right.is_out_of_date(Some(&left_too)));
    assert!(of_the_right.is_out_of_date(Some(&only_right.with_side(Some(Side::Right), alike()))));
    assert!(of_the_right.is_out_of_date(None), "no bench at all");
}

#[test]
fn both_sides_are_written_and_read_again_and_an_older_bench_still_reads() {
    let bench = BenchEntry { planned: with_a_leaf(&pack(5.0)), ..alike().told_apart() };
    let text = serde_json::to_string(&bench).unwrap();
    assert_eq!(serde_json::from_str::<BenchEntry>(&text).unwrap(), bench);
    let older = serde_json::to_string(&alike()).unwrap();
    assert!(!older.contains("right\":"), "what is alike is written as it always was");
    assert_eq!(serde_json::from_str::<BenchEntry>(&older).unwrap(), alike());
    assert_eq!(bench.alike(), BenchEntry { planned: with_a_leaf(&pack(5.0)), ..alike() });
}
