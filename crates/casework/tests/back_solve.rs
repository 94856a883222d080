//! What a part would have to be: held against what is predicted of that part, and against what a shop reckons by hand.

#![allow(clippy::unwrap_used, clippy::indexing_slicing, reason = "a test fails where it stands")]

#[path = "support/shelf_part.rs"]
mod shelf_part;

use shelf_part::part;
use wise_badger_casework::back_solve::{Needed, WhatItTakes, kinds_looked_through, nearest, what_it_takes};
use wise_badger_casework::casework::Casework;
use wise_badger_casework::entry::{
    EndWord, FindingEntry, ItemEntry, MeasuredEntry, ShelfPart, Typed, TypedIn, UnitWord, WhenEntry,
};
use wise_badger_casework::job_document::JobDocument;
use wise_badger_casework::look_over::{Addition, Area, Gate, Grade, Measure};
use wise_badger_casework::survey::LoadState;
use wise_badger_casework::what_if::{Aboard, LoadTried};
use wise_badger_mechanics::correction::Quantity;
use wise_badger_mechanics::tape::{LengthUnit, WeightUnit};
use wise_badger_mechanics::units::{InShopUnits, Length, inches, pounds};

const UNITS: TypedIn = TypedIn { length: LengthUnit::Inches, weight: WeightUnit::Pounds };
const EXAMPLE: &str = include_str!("../../../docs/examples/job.json");

fn work() -> Casework {
    Casework::new(JobDocument::read(EXAMPLE).unwrap().case())
}

fn takes(work: &Casework) -> WhatItTakes {
    what_it_takes(work).unwrap()
}

#[test]
fn with_the_figure_it_needs_each_kind_stands_where_the_aim_wants_it() {
    let work = work();
    let takes = takes(&work);
    let mut solved = 0;
    for kind in &takes.kinds {
        if let Needed::Of { rear, part, value, .. } = &kind.answer {
            assert!((rear.value - takes.wanted).abs() < inches(1.0 / 64.0), "{}: {rear:?} {:?}", kind.row.word, takes.wanted);
            let again = work.predictor().predict(part).at(takes.state).unwrap().rear;
            assert_eq!(again, *rear);
            assert!(value.si().unwrap() > 0.0 && rear.sd > Length::default());
            solved += 1;
        }
    }
    assert!(solved >= 3, "{:?}", takes.kinds);
}

/// A block lifts by what it is thick; what holds the rear up must carry the rate times what is gained (Hooke).
#[test]
fn a_block_is_as_thick_as_what_is_gained_and_a_helper_carries_the_rate_times_it() {
    let work = work();
    let takes = takes(&work);
    let gain = takes.wanted - takes.stands;
    assert!(gain > inches(0.25), "{gain:?}");
    let block = takes.kinds.iter().find(|kind| kind.row.word == "lift_block").unwrap();
    let Needed::Of { value: Quantity::Length(thickness), .. } = &block.answer else { panic!("{block:?}") };
    assert!((*thickness - gain).abs() < inches(1.0 / 64.0), "{thickness:?} {gain:?}");
    let rate = work.rate().measured().unwrap().rate;
    let carried = takes.more_to_carry.unwrap().value;
    assert!((carried.customary() - rate.customary() * gain.customary()).abs() < 1.0, "{carried:?}");
}

#[test]
fn the_nearest_of_the_shelf_come_first_each_as_it_is_best_set() {
    let work = work();
    let takes = takes(&work);
    let gain = (takes.wanted - takes.stands).customary();
    let near = |thick: f64| format!("{:.3}", gain + thick);
    let shelf = [
        part("FAR", "lift_block", &[("thickness", &near(1.0))]),
        part("NEAR", "lift_block", &[("thickness", &near(0.1))]),
        part("FRONT", "new_packs", &[("lift", &near(0.0)), ("added_rate", "0")]),
        part("HOSE", "brake_hoses", &[("longer", "2")]),
        part(
            "AIR",
            "air_helper",
            &[
                ("capacity", "2500"),
                ("capacity_pressure", "100"),
                ("height", "7"),
                ("least_pressure", "5"),
                ("most_pressure", "100"),
            ],
        ),
    ];
    let shelf = shelf.map(|part| if part.number == "FRONT" { ShelfPart { end: Some(EndWord::Front), ..part } } else { part });
    let found = nearest(&work, &takes, &shelf);
    let numbers: Vec<&str> = found.iter().map(|near| shelf[near.place].number.as_str()).collect();
    assert_eq!(numbers, ["AIR", "NEAR", "FAR"], "{found:?}");
    let Some(("pressure", Quantity::Pressure(pressure))) = &found[0].setting else { panic!("{:?}", found[0]) };
    assert!((5.0..=100.0).contains(&(pressure.value / 6_894.757)), "{pressure:?}");
    assert!((found[0].rear.value - takes.wanted).abs() < inches(1.0 / 64.0), "a bag is set to where it is wanted");
    assert!((found[1].rear.value - takes.wanted - inches(0.1)).abs() < inches(1.0 / 64.0));
    assert!(kinds_looked_through(&work).contains(&"air_helper") && !kinds_looked_through(&work).contains(&"new_coils"));
}

/// What an option on the list would be ruled out by rules a part out that is not on it: a hose without slack, and over a
/// rating nothing is looked for at all.
#[test]
fn what_rules_an_option_out_rules_out_what_is_looked_for() {
    let mut case = JobDocument::read(EXAMPLE).unwrap().case();
    let slack = Typed { text: "1/8".to_owned(), unit: UnitWord::In, si: inches(0.125).si() };
    let measured = vec![MeasuredEntry { what: Measure::HoseSlack, value: slack }];
    let (area, grade) = (Area::HosesAndWires, Grade::Fine);
    let finding = FindingEntry { area, grade, defects: Vec::new(), measured, words: String::new() };
    case.look_over.get_or_insert_default().findings.push(finding);
    let work = Casework::new(case.clone());
    let takes = takes(&work);
    let block = takes.kinds.iter().find(|kind| kind.row.word == "lift_block").unwrap();
    let Needed::Of { gates, .. } = &block.answer else { panic!("{block:?}") };
    assert!(gates.contains(&Gate::TooShort(Addition::LongerHose)), "{gates:?}");
    let near = nearest(&work, &takes, &[part("BL", "lift_block", &[("thickness", "1 1/2")])]);
    assert_eq!(near[0].gates, *gates, "the nearest of the shelf says so too");
    case.intake.rear_rating.si = 100.0;
    assert!(what_it_takes(&Casework::new(case)).is_none(), "past a rating nothing is proposed");
}

#[test]
fn without_an_aim_nothing_is_asked_of_a_part() {
    let mut case = JobDocument::read(EXAMPLE).unwrap().case();
    case.aim = None;
    assert!(what_it_takes(&Casework::new(case)).is_none());
}

/// A bag is filled as each case asks: more where more is aboard, and never past its own least and most.
#[test]
fn a_bag_comes_with_its_best_pressure_for_each_state_and_case() {
    let bare = work();
    let heavy = LoadTried {
        name: "Twice as much".to_owned(),
        from: Aboard::AsLoaded,
        rearward: Length::default(),
        to_the_right: Length::default(),
        more: Some(ItemEntry::weight_at("more", UNITS.weight(pounds(300.0)), Length::default(), Length::default(), UNITS)),
    };
    let plan = heavy.on_the_plan(&bare, 4, UNITS).unwrap();
    let work = Casework::new(bare.case().clone().with_plan(plan));
    let takes = takes(&work);
    let bag = part(
        "AIR",
        "air_helper",
        &[("capacity", "2500"), ("capacity_pressure", "100"), ("height", "6"), ("least_pressure", "5"), ("most_pressure", "100")],
    );
    let near = nearest(&work, &takes, &[bag]);
    let near = near.first().unwrap();
    let psi = |value: &Quantity| match value {
        Quantity::Pressure(pressure) => pressure.customary(),
        other => panic!("{other:?}"),
    };
    let usual = psi(&near.setting.as_ref().unwrap().1);
    let at = |when: WhenEntry| near.by_case.iter().find(|(of, _)| *of == when).map(|(_, value)| psi(value));
    let (empty, full) = (at(WhenEntry::State(LoadState::Empty)).unwrap(), at(WhenEntry::Case(4)).unwrap());
    assert!(empty < usual && usual < full, "{empty} {usual} {full}");
    assert!((5.0..=5.1).contains(&empty) && full <= 100.0, "empty it stands higher than it is to: its least");
    // What is set once, when it is fitted, has one setting.
    let rubber = part("RB", "rubber_by_capacity", &[("capacity", "2000"), ("free_height", "5"), ("clearance", "1/2")]);
    assert!(nearest(&work, &takes, &[rubber]).iter().all(|near| near.by_case.is_empty()));
}
