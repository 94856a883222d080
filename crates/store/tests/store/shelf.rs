//! The shelf: numbers that are one part's, what is kept of what was changed, and no other shop's parts.

use wise_badger_casework::entry::{BareUnits, ShelfPart};
use wise_badger_casework::shelf::{ShelfChange, changes};
use wise_badger_mechanics::correction::KindRow;
use wise_badger_mechanics::tape::{LengthUnit, WeightUnit};
use wise_badger_store::shelf::{self, Search};
use wise_badger_store::{ShelfPartId, StoreError};

use crate::TestShop;

fn block(number: &str, name: &str) -> ShelfPart {
    let kind = KindRow::of("lift_block").unwrap();
    let units = BareUnits { length: LengthUnit::Inches, weight: WeightUnit::Pounds };
    let mut part = ShelfPart::new(number, name, kind);
    part.sold.insert("thickness".to_owned(), units.figure(kind.figures[0].takes, "2").unwrap());
    part
}

fn searched(words: &str) -> Search {
    Search { words: words.to_owned(), ..Search::default() }
}

#[test]
fn a_number_is_one_parts_until_it_is_taken_off() {
    let mut shop = TestShop::new();
    let (connection, person) = (&mut shop.connection, &shop.person);
    let first = shelf::put(connection, person, &block("BL-1", "first")).unwrap();
    let twin = shelf::put(connection, person, &block(" bl-1", "twin"));
    assert!(matches!(twin, Err(StoreError::Taken { number, .. }) if number == " bl-1"));
    shelf::withdraw(connection, person, first).unwrap();
    assert!(matches!(shelf::withdraw(connection, person, first), Err(StoreError::NotFound(_))));
    shelf::put(connection, person, &block("bl-1", "second")).unwrap();
    assert!(matches!(shelf::restore(connection, person, first), Err(StoreError::Taken { .. })));
    let (as_it_was, stands) = shelf::find(connection, person.shop_id, first).unwrap();
    assert_eq!((as_it_was.name.as_str(), stands), ("first", false), "what was taken off stays on record");
}

#[test]
fn what_is_changed_stays_as_it_was_for_those_who_have_it() {
    let mut shop = TestShop::new();
    let (connection, person) = (&mut shop.connection, &shop.person);
    let before = shelf::put(connection, person, &block("BL-1", "before")).unwrap();
    let after = shelf::change(connection, person, before, &block("BL-1", "after")).unwrap();
    assert_ne!(before, after);
    assert_eq!(shelf::find(connection, person.shop_id, before).unwrap(), (block("BL-1", "before"), false));
    assert_eq!(shelf::find(connection, person.shop_id, after).unwrap(), (block("BL-1", "after"), true));
    // Whoever changes what was changed meanwhile is told.
    assert!(matches!(shelf::change(connection, person, before, &block("BL-1", "late")), Err(StoreError::NotFound(_))));
    let nowhere = shelf::find(connection, person.shop_id, ShelfPartId(after.0 + 1_000));
    assert!(matches!(nowhere, Err(StoreError::NotFound("part"))));
}

#[test]
fn a_shop_sees_its_own_parts_alone() {
    let mut shop = TestShop::new();
    let stranger = shop.stranger();
    let id = shelf::put(&mut shop.connection, &shop.person, &block("BL-1", "ours")).unwrap();
    shelf::put(&mut shop.connection, &stranger, &block("BL-1", "theirs")).unwrap();
    assert!(matches!(shelf::find(&mut shop.connection, stranger.shop_id, id), Err(StoreError::NotFound(_))));
    assert!(matches!(shelf::withdraw(&mut shop.connection, &stranger, id), Err(StoreError::NotFound(_))));
    assert_eq!(shelf::all(&mut shop.connection, shop.person.shop_id).unwrap(), [block("BL-1", "ours")]);
}

#[test]
fn parts_are_found_by_all_the_words_and_page_by_page() {
    let mut shop = TestShop::new();
    let (connection, person) = (&mut shop.connection, &shop.person);
    let shop_id = person.shop_id;
    for (number, name) in [("b2", "Block, cast 100%"), ("A1", "Block, steel"), ("C3", "block_under")] {
        shelf::put(connection, person, &block(number, name)).unwrap();
    }
    let mut numbers = |search: &Search, most: i64| -> Vec<String> {
        shelf::page(connection, shop_id, search, most).unwrap().into_iter().map(|found| found.part.0.number).collect()
    };
    assert_eq!(numbers(&Search::default(), 2), ["A1", "b2"], "by their numbers, whatever the capitals");
    assert_eq!(numbers(&Search { after: Some("B2".to_owned()), ..Search::default() }, 2), ["C3"]);
    assert_eq!(numbers(&searched("CAST block"), 9), ["b2"]);
    assert_eq!(numbers(&searched("100%"), 9), ["b2"], "a sign that means anything to the database is only a sign");
    assert_eq!(numbers(&searched("k_u"), 9), ["C3"]);
    assert_eq!(numbers(&Search { kinds: vec!["tires".to_owned()], ..Search::default() }, 9), Vec::<String>::new());
    assert_eq!(shelf::count(connection, shop_id, &searched("block")).unwrap(), 3);
}

#[test]
fn a_file_is_taken_in_whole_or_not_at_all() {
    let mut shop = TestShop::new();
    let (connection, person) = (&mut shop.connection, &shop.person);
    let before = shelf::put(connection, person, &block("BL-1", "before")).unwrap();
    let on_the_shelf = shelf::all(connection, person.shop_id).unwrap();
    let (of_file, _) = changes(&on_the_shelf, vec![block("bl-1", "after"), block("BL-2", "new")]);
    let heard = std::cell::RefCell::new(Vec::new());
    shelf::take_in(connection, person, &of_file, |done| heard.borrow_mut().push(done)).unwrap();
    assert_eq!(heard.into_inner(), [of_file.len()], "who waits hears how far it is");
    assert_eq!(shelf::all(connection, person.shop_id).unwrap(), [block("bl-1", "after"), block("BL-2", "new")]);
    assert!(!shelf::find(connection, person.shop_id, before).unwrap().1);
    // What was new when the file was looked at has been put there since.
    let late = [ShelfChange::New(Box::new(block("BL-3", "late"))), ShelfChange::New(Box::new(block("BL-2", "late")))];
    assert!(
        matches!(shelf::take_in(connection, person, &late, |_| {}), Err(StoreError::Taken { number, .. }) if number == "BL-2")
    );
    assert_eq!(shelf::all(connection, person.shop_id).unwrap().len(), 2);
}
