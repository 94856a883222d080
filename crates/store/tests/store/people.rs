//! People, their sessions, and the forms they send.

use chrono::{TimeDelta, Utc};
use diesel::RunQueryDsl;
use wise_badger_mechanics::tape::{LengthUnit, WeightUnit};
use wise_badger_store::session::{self, Session};
use wise_badger_store::{StoreError, person, submission};

use crate::Bench;

const TOKEN: &str = "aaaaaaaaaaaaaaaaaaaaaaaa";

#[test]
fn people_are_listed_by_name_and_known_only_in_their_shop() {
    let mut bench = Bench::new();
    let (colleague, stranger) = (bench.colleague(), bench.stranger());
    let Bench { connection, person, .. } = &mut bench;
    let names: Vec<String> = person::of_shop(connection, person.shop_id).unwrap().into_iter().map(|p| p.name).collect();
    assert_eq!(names, ["Ada", "Bo"]);
    assert_eq!(person::find(connection, person.shop_id, colleague.id).unwrap().trade, "Apprentice");
    assert!(matches!(person::find(connection, person.shop_id, stranger.id), Err(StoreError::NotFound("person"))));
    assert!(matches!(person::working(connection, person.shop_id, stranger.id), Err(StoreError::NotFound("person"))));
    assert_eq!(person::working(connection, person.shop_id, person.id).unwrap().1, "Shop under test");
}

#[test]
fn everybody_reads_their_own_units() {
    let mut bench = Bench::new();
    let colleague = bench.colleague();
    let Bench { connection, person, .. } = &mut bench;
    person::set_units(connection, person, LengthUnit::Millimetres, WeightUnit::Kilograms).unwrap();
    let mine = person::find(connection, person.shop_id, person.id).unwrap();
    assert_eq!((mine.length_unit(), mine.weight_unit()), (LengthUnit::Millimetres, WeightUnit::Kilograms));
    let theirs = person::find(connection, person.shop_id, colleague.id).unwrap();
    assert_eq!((theirs.length_unit(), theirs.weight_unit()), (LengthUnit::Inches, WeightUnit::Pounds));
}

#[test]
fn a_session_is_found_until_it_ends() {
    let Bench { mut connection, person, database: _database, .. } = Bench::new();
    let now = Utc::now();
    let kept = Session {
        key_hash: "a hash".to_owned(),
        shop_id: Some(person.shop_id),
        person_id: Some(person.id),
        state: serde_json::json!({"person": "1"}),
        expires_at: now + TimeDelta::days(1),
    };
    session::keep(&mut connection, &kept, now).unwrap();
    let mut found = |at| session::find(&mut connection, "a hash", at).unwrap().is_some();
    assert!(found(now) && !found(now + TimeDelta::days(2)));
    session::prolong(&mut connection, "a hash", now + TimeDelta::days(3)).unwrap();
    assert!(session::find(&mut connection, "a hash", now + TimeDelta::days(2)).unwrap().is_some());
    // Keeping another drops those that ended.
    let other = Session { key_hash: "another".to_owned(), shop_id: None, person_id: None, ..kept };
    session::keep(&mut connection, &other, now + TimeDelta::days(4)).unwrap();
    assert_eq!(session::find(&mut connection, "a hash", now).unwrap(), None);
    session::end(&mut connection, "another").unwrap();
    assert_eq!(session::find(&mut connection, "another", now).unwrap(), None);
}

#[test]
fn a_form_is_taken_once_and_a_second_sending_finds_the_job_it_opened() {
    let mut bench = Bench::new();
    let colleague = bench.colleague();
    let Bench { connection, person, job, .. } = &mut bench;
    assert!(submission::claim(connection, TOKEN, person).unwrap());
    submission::note_opened(connection, TOKEN, job.id).unwrap();
    assert!(!submission::claim(connection, TOKEN, person).unwrap());
    assert_eq!(submission::opened(connection, person, TOKEN).unwrap(), Some(job.id));
    assert_eq!(submission::opened(connection, &colleague, TOKEN).unwrap(), None, "nobody else's form");
}

#[test]
fn forms_sent_long_ago_are_forgotten() {
    let Bench { mut connection, person, database: _database, .. } = Bench::new();
    assert!(submission::claim(&mut connection, TOKEN, &person).unwrap());
    diesel::sql_query("UPDATE submissions SET sent_at = now() - interval '31 days'").execute(&mut connection).unwrap();
    assert!(submission::claim(&mut connection, "another token of a form", &person).unwrap());
    assert!(submission::claim(&mut connection, TOKEN, &person).unwrap(), "the old one is gone");
}
