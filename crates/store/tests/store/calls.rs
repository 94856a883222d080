//! Calls: what is kept of what was changed, the job that a call becomes, and no other shop's calls.

use wise_badger_casework::entry::{CallEntry, LoadPlanEntry, LowWord};
use wise_badger_casework::survey::{RearWheels, VehicleClass};
use wise_badger_store::call::{self, Found};
use wise_badger_store::job_file::JobFile;
use wise_badger_store::{CallId, JobNumber, StoreError};

use crate::TestShop;

fn told(words: &str) -> CallEntry {
    CallEntry {
        label: "orchard".to_owned(),
        class: VehicleClass::Van,
        rear_wheels: RearWheels::Dual,
        rear_spring: None,
        rear_rating: None,
        things: Vec::new(),
        aboard: None,
        low: Some(LowWord::AHand),
        when: None,
        leans: true,
        words: words.to_owned(),
        upkeep: Some(false),
        removable: None,
        budget: None,
    }
}

#[test]
fn a_call_that_is_changed_or_struck_off_stays_on_record() {
    let mut shop = TestShop::new();
    let (connection, person) = (&mut shop.connection, &shop.person);
    let first = call::put(connection, person, &told("first")).unwrap();
    let second = call::change(connection, person, first, &told("second")).unwrap();
    let stands = |found: Found| (found.entry.words, found.stands);
    assert_eq!(stands(call::find(connection, person.shop_id, first).unwrap()), ("first".to_owned(), false));
    assert_eq!(stands(call::find(connection, person.shop_id, second).unwrap()), ("second".to_owned(), true));
    assert!(matches!(call::change(connection, person, first, &told("late")), Err(StoreError::NotFound("call"))));
    assert!(
        matches!(call::restore(connection, person, first), Err(StoreError::NotFound("call"))),
        "it was changed, not struck off"
    );
    call::withdraw(connection, person, second).unwrap();
    assert!(call::expected(connection, person.shop_id, 9).unwrap().is_empty());
    call::restore(connection, person, second).unwrap();
    let expected = call::expected(connection, person.shop_id, 9).unwrap();
    assert_eq!(expected.iter().map(|call| call.entry.0.clone()).collect::<Vec<_>>(), [told("second")]);
}

#[test]
fn a_call_becomes_the_first_job_that_is_opened_for_it_as_it_was_changed_last() {
    let mut shop = TestShop::new();
    let (connection, person, number) = (&mut shop.connection, &shop.person, shop.job.number);
    let first = call::put(connection, person, &told("first")).unwrap();
    let second = call::change(connection, person, first, &told("second")).unwrap();
    let plan = LoadPlanEntry::default();
    // Whoever opened the page before it was changed has the older key.
    call::came_in(connection, person, first, number, Some(&plan)).unwrap();
    assert_eq!(call::find(connection, person.shop_id, second).unwrap().job, Some(number));
    assert!(call::expected(connection, person.shop_id, 9).unwrap().is_empty());
    assert_eq!(JobFile::find(connection, person.shop_id, number).unwrap().case().plan, Some(plan));
    call::came_in(connection, person, second, number, None).unwrap();
    assert!(matches!(call::withdraw(connection, person, second), Err(StoreError::NotFound("call"))), "it is a job by now");
    let nowhere = call::came_in(connection, person, second, JobNumber(999), None);
    assert!(matches!(nowhere, Err(StoreError::NotFound("job"))));
    let nothing = call::came_in(connection, person, CallId(second.0 + 1_000), number, None);
    assert!(matches!(nothing, Err(StoreError::NotFound("call"))));
}

#[test]
fn a_shop_sees_its_own_calls_alone() {
    let mut shop = TestShop::new();
    let stranger = shop.stranger();
    let ours = call::put(&mut shop.connection, &shop.person, &told("ours")).unwrap();
    assert!(matches!(call::find(&mut shop.connection, stranger.shop_id, ours), Err(StoreError::NotFound(_))));
    assert!(matches!(call::withdraw(&mut shop.connection, &stranger, ours), Err(StoreError::NotFound(_))));
    assert!(matches!(call::restore(&mut shop.connection, &stranger, ours), Err(StoreError::NotFound(_))));
    let theirs = call::came_in(&mut shop.connection, &stranger, ours, shop.job.number, None);
    assert!(matches!(theirs, Err(StoreError::NotFound(_))));
    assert!(call::expected(&mut shop.connection, stranger.shop_id, 9).unwrap().is_empty());
}
