//! When a vehicle can stand in a bay.

#![allow(clippy::unwrap_used, clippy::indexing_slicing, reason = "a test fails where it stands")]

use chrono::{Days, NaiveDate, NaiveDateTime, TimeDelta};
use proptest::prelude::*;
use wise_badger_casework::bay_plan::{FreeBay, Slot, Taken, Wanted, WorkDays, earliest, people_taken};
use wise_badger_casework::work_plan::ShopTerms;

/// 2026-12-07 is a Monday.
fn at(day: u32, hour: u32, minute: u32) -> NaiveDateTime {
    NaiveDate::from_ymd_opt(2026, 12, day).unwrap().and_hms_opt(hour, minute, 0).unwrap()
}

fn days() -> WorkDays {
    WorkDays::of(&ShopTerms::default())
}

const BAYS: [FreeBay; 2] = [FreeBay { id: 1, has_lift: false }, FreeBay { id: 2, has_lift: true }];

fn wanted(hours: f64) -> Wanted {
    Wanted { hours, from: at(7, 6, 0), lift: false, two_people: false, person: None }
}

fn taken(bay: i64, begins: NaiveDateTime, ends: NaiveDateTime, people: [Option<i64>; 2]) -> Taken {
    Taken { bay, begins, ends, people }
}

#[test]
fn work_goes_on_only_while_the_shop_works() {
    let days = days();
    assert_eq!(days.ends(at(7, 8, 0), 8.0), at(7, 16, 0), "a day");
    assert_eq!(days.ends(at(7, 14, 0), 5.0), at(8, 11, 0), "over a night");
    assert_eq!(days.ends(at(11, 15, 0), 2.0), at(14, 9, 0), "over a weekend");
    assert_eq!(days.ends(at(12, 10, 0), 1.0), at(14, 9, 0), "a Saturday is no day");
    assert_eq!(days.ends(at(7, 20, 0), 1.0), at(8, 9, 0), "nor an evening");
    let open = WorkDays::of(&ShopTerms { saturdays: true, opens_at: 7.0, hours_a_day: 10.0, ..ShopTerms::default() });
    assert_eq!(open.ends(at(11, 16, 0), 2.0), at(12, 8, 0));
}

#[test]
fn a_time_is_moved_by_half_hours_that_are_worked() {
    let days = days();
    assert_eq!(days.moved(at(7, 15, 30), 1), at(8, 8, 0));
    assert_eq!(days.moved(at(8, 8, 0), -1), at(7, 15, 30));
    assert_eq!(days.moved(at(14, 8, 0), -1), at(11, 15, 30), "back over a weekend");
    assert_eq!(days.moved(at(7, 9, 0), 16), at(8, 9, 0), "a day on");
}

#[test]
fn a_time_is_moved_by_days_that_are_worked() {
    let days = days();
    assert_eq!(days.moved_by_days(at(7, 9, 30), 1), at(8, 9, 30));
    assert_eq!(days.moved_by_days(at(11, 9, 30), 1), at(14, 9, 30), "over a weekend");
    assert_eq!(days.moved_by_days(at(14, 9, 30), -1), at(11, 9, 30), "and back");
    assert_eq!(days.moved_by_days(at(7, 9, 30), 5), at(14, 9, 30), "a week on");
    assert_eq!(days.moved_by_days(at(7, 9, 30), 0), at(7, 9, 30));
}

proptest! {
    /// What the hours between two times are is what brings work from one to the other.
    #[test]
    fn the_hours_between_two_times_are_those_that_work_takes(quarters in 0_u32..400, start in 0_i64..200) {
        let days = days();
        let begins = days.moved(at(7, 8, 0), start);
        let hours = f64::from(quarters) / 4.0;
        let ends = days.ends(begins, hours);
        prop_assert!((days.hours_between(begins, ends) - hours).abs() < 1e-9);
        prop_assert!(days.hours_between(ends, begins).abs() < 1e-9, "nothing backwards");
    }
}

#[test]
fn the_earliest_slot_is_the_first_that_bay_and_people_are_free_for() {
    let people = [7, 8];
    let free = earliest(&wanted(3.0), &days(), &BAYS, &people, &[]);
    assert_eq!(free[0], Slot { bay: 1, begins: at(7, 8, 0), ends: at(7, 11, 0), person: Some(7), second: None });
    // The first bay is taken until noon, and so is the first person.
    let morning = [taken(1, at(7, 8, 0), at(7, 12, 0), [Some(7), None])];
    let free = earliest(&wanted(3.0), &days(), &BAYS, &people, &morning);
    assert_eq!(free[0], Slot { bay: 2, begins: at(7, 8, 0), ends: at(7, 11, 0), person: Some(8), second: None });
    assert_eq!((free[1].bay, free[1].begins, free[1].person), (1, at(7, 12, 0), Some(7)));
    // Both are needed, so both are waited for.
    let two = Wanted { two_people: true, ..wanted(3.0) };
    let free = earliest(&two, &days(), &BAYS, &people, &morning);
    assert_eq!((free[0].begins, free[0].person, free[0].second), (at(7, 12, 0), Some(7), Some(8)));
    let alone = earliest(&two, &days(), &BAYS, &[7], &[]);
    assert!(alone.is_empty(), "one person is not two");
    let lift = earliest(&Wanted { lift: true, ..wanted(1.0) }, &days(), &BAYS, &people, &[]);
    assert_eq!(lift.iter().map(|slot| slot.bay).collect::<Vec<_>>(), [2]);
    let asked = earliest(&Wanted { person: Some(7), ..wanted(1.0) }, &days(), &BAYS, &people, &morning);
    assert_eq!(asked[0].begins, at(7, 12, 0), "whoever is asked for is waited for");
}

#[test]
fn a_vehicle_on_stands_keeps_its_bay_overnight() {
    let overnight = [taken(1, at(7, 13, 0), at(8, 10, 0), [None, None])];
    let one = [BAYS[0]];
    let evening = Wanted { from: at(7, 17, 0), ..wanted(1.0) };
    assert_eq!(earliest(&evening, &days(), &one, &[7], &overnight)[0].begins, at(8, 10, 0));
    // What does not fit before it waits until it is gone.
    assert_eq!(earliest(&wanted(6.0), &days(), &one, &[7], &overnight)[0].begins, at(8, 10, 0));
    assert_eq!(earliest(&wanted(5.0), &days(), &one, &[7], &overnight)[0].begins, at(7, 8, 0));
}

#[test]
fn people_who_are_elsewhere_are_named() {
    let others = [taken(1, at(7, 8, 0), at(7, 12, 0), [Some(7), Some(9)])];
    assert_eq!(people_taken([Some(7), Some(8)], at(7, 11, 0), at(7, 13, 0), &others), [7]);
    assert!(people_taken([Some(7), None], at(7, 12, 0), at(7, 13, 0), &others).is_empty(), "one after another is no clash");
}

proptest! {
    #[test]
    fn no_slot_found_clashes_and_each_holds_its_hours(
        booked in prop::collection::vec((1_i64..4, 0_i64..300, 1_i64..30, 1_i64..4), 0..25),
        hours in 0.5_f64..20.0, two in any::<bool>(), lift in any::<bool>(), ahead in 0_u64..9,
    ) {
        let days = days();
        let bays = [1, 2, 3].map(|id| FreeBay { id, has_lift: id > 1 });
        let people = [1, 2, 3];
        let taken: Vec<Taken> = booked.iter().map(|(bay, begins, steps, person)| {
            let begins = days.moved(at(7, 8, 0), *begins);
            #[expect(clippy::cast_precision_loss, reason = "a few half hours")]
            let ends = days.ends(begins, *steps as f64 / 2.0);
            Taken { bay: *bay, begins, ends, people: [Some(*person), None] }
        }).collect();
        let from = at(7, 6, 0) + Days::new(ahead);
        let wanted = Wanted { hours, from, lift, two_people: two, person: None };
        let slots = earliest(&wanted, &days, &bays, &people, &taken);
        prop_assert!(!slots.is_empty(), "within four months there is room");
        for slot in &slots {
            prop_assert!(slot.begins >= from && days.at_work(slot.begins) == slot.begins);
            prop_assert_eq!(slot.ends, days.ends(slot.begins, hours));
            let clash = taken.iter().any(|one| one.bay == slot.bay && one.begins < slot.ends && slot.begins < one.ends);
            prop_assert!(!clash);
            prop_assert!(people_taken([slot.person, slot.second], slot.begins, slot.ends, &taken).is_empty());
            prop_assert_eq!(slot.second.is_some(), two);
            prop_assert!(slot.person.is_some() && slot.person != slot.second);
            prop_assert!(!lift || slot.bay > 1);
        }
        // In no bay is there an earlier one that begins at a half hour.
        for slot in &slots {
            let mut earlier = days.at_work(from);
            while earlier < slot.begins {
                let ends = days.ends(earlier, hours);
                let then: Vec<&Taken> = taken.iter().filter(|one| one.begins < ends && earlier < one.ends).collect();
                let free = people.iter().filter(|person| then.iter().all(|one| !one.people.contains(&Some(**person)))).count();
                let fits = then.iter().all(|one| one.bay != slot.bay) && free > usize::from(two);
                prop_assert!(!fits, "{earlier} would do before {}", slot.begins);
                earlier = days.at_work(earlier + TimeDelta::minutes(30));
            }
        }
    }
}
