//! People, their sessions, and the forms they send.

use chrono::{TimeDelta, Utc};
use diesel::prelude::*;
use wise_badger_mechanics::tape::{LengthUnit, WeightUnit};
use wise_badger_store::session::{self, Session};
use wise_badger_store::{StoreError, person};

use crate::TestShop;

diesel::table! {
    sessions (key_hash) {
        key_hash -> Text,
    }
}

#[test]
fn people_are_listed_by_name_and_known_only_in_their_shop() {
    let mut bench = TestShop::new();
    let (colleague, stranger) = (bench.colleague(), bench.stranger());
    let TestShop { connection, person, .. } = &mut bench;
    let names: Vec<String> = person::of_shop(connection, person.shop_id).unwrap().into_iter().map(|p| p.name).collect();
    assert_eq!(names, ["Ada", "Bo"]);
    assert_eq!(person::find(connection, person.shop_id, colleague.id).unwrap().trade, "Apprentice");
    assert!(matches!(person::find(connection, person.shop_id, stranger.id), Err(StoreError::NotFound("person"))));
    assert!(matches!(person::working(connection, person.shop_id, stranger.id), Err(StoreError::NotFound("person"))));
    assert_eq!(person::working(connection, person.shop_id, person.id).unwrap().1.name, "Shop under test");
}

#[test]
fn everybody_reads_their_own_units() {
    let mut bench = TestShop::new();
    let colleague = bench.colleague();
    let TestShop { connection, person, .. } = &mut bench;
    person::set_units(connection, person, LengthUnit::Millimetres, WeightUnit::Kilograms).unwrap();
    let mine = person::find(connection, person.shop_id, person.id).unwrap();
    assert_eq!((mine.length_unit(), mine.weight_unit()), (LengthUnit::Millimetres, WeightUnit::Kilograms));
    let theirs = person::find(connection, person.shop_id, colleague.id).unwrap();
    assert_eq!((theirs.length_unit(), theirs.weight_unit()), (LengthUnit::Inches, WeightUnit::Pounds));
}

#[test]
fn a_session_is_found_until_it_ends() {
    let TestShop { mut connection, person, database: _database, .. } = TestShop::new();
    let now = Utc::now();
    let kept = Session {
        key_hash: "a hash".to_owned(),
        shop_id: Some(person.shop_id),
        person_id: Some(person.id),
        tablet_id: None,
        state: serde_json::json!({"person": "1"}),
        expires_at: now + TimeDelta::days(1),
    };
    session::keep(&mut connection, &kept).unwrap();
    let mut found = |at| session::find(&mut connection, "a hash", at).unwrap().is_some();
    assert!(found(now) && !found(now + TimeDelta::days(2)));
    session::prolong(&mut connection, "a hash", now + TimeDelta::days(3)).unwrap();
    assert!(session::find(&mut connection, "a hash", now + TimeDelta::days(2)).unwrap().is_some());
    session::end(&mut connection, "a hash").unwrap();
    assert_eq!(session::find(&mut connection, "a hash", now).unwrap(), None);
}

#[test]
fn a_clock_that_jumps_ahead_signs_nobody_off_for_good() {
    let TestShop { mut connection, database: _database, .. } = TestShop::new();
    let keep = |connection: &mut PgConnection, hash: &str, days: i64| {
        let expires_at = Utc::now() + TimeDelta::days(days);
        let state = serde_json::json!({});
        let kept = Session { key_hash: hash.to_owned(), shop_id: None, person_id: None, tablet_id: None, state, expires_at };
        session::keep(connection, &kept).unwrap();
    };
    // Seen by a clock a month ahead all of these have ended; the records' own clock forgets only what ended long ago.
    (0..30).for_each(|number| keep(&mut connection, &format!("present {number}"), -1 - number));
    (0..30).for_each(|number| keep(&mut connection, &format!("long ago {number}"), -100));
    keep(&mut connection, "another", 30);
    let left = |connection: &mut PgConnection, like: &str| -> i64 {
        sessions::table.filter(sessions::key_hash.like(like.to_owned())).count().get_result(connection).unwrap()
    };
    assert_eq!(left(&mut connection, "present%"), 30);
    assert!(left(&mut connection, "long ago%") < 30, "a few at a time");
}
