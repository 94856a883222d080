//! Who gets in: roles, links, tablets, sessions, and what stands in the way of guessing.

use chrono::{TimeDelta, Utc};
use diesel::connection::SimpleConnection;
use wise_badger_store::invitation::{self, Invitation};
use wise_badger_store::session::{self, Session};
use wise_badger_store::sign_in::{self, Counted};
use wise_badger_store::{PgConnection, Role, StoreError, TabletId, person, shop_change, tablet};

use crate::TestShop;

fn session_of(bench: &mut TestShop, key_hash: &str, tablet_id: Option<TabletId>) {
    let kept = Session {
        key_hash: key_hash.to_owned(),
        shop_id: Some(bench.person.shop_id),
        person_id: Some(bench.person.id),
        tablet_id,
        state: serde_json::json!({}),
        expires_at: Utc::now() + TimeDelta::days(60),
    };
    session::keep(&mut bench.connection, &kept).unwrap();
}

fn lives(connection: &mut PgConnection, key_hash: &str) -> bool {
    session::find(connection, key_hash, Utc::now()).unwrap().is_some()
}

#[test]
fn a_shop_keeps_an_owner() {
    let mut bench = TestShop::new();
    let colleague = bench.colleague();
    let TestShop { connection, person: ada, .. } = &mut bench;
    assert!(matches!(person::set_role(connection, ada, ada.id, Role::Lead, "Lead"), Err(StoreError::LastOwner)));
    assert!(matches!(person::leave(connection, ada, ada.id), Err(StoreError::LastOwner)));
    person::set_role(connection, ada, colleague.id, Role::Owner, "Partner").unwrap();
    person::set_role(connection, ada, ada.id, Role::Lead, "Lead").unwrap();
    assert!(matches!(person::leave(connection, ada, colleague.id), Err(StoreError::LastOwner)));
    let told = shop_change::latest(connection, ada.shop_id, 9).unwrap();
    let first: Vec<String> = told.iter().flat_map(|change| &change.differences).map(|one| one.place.clone()).collect();
    assert_eq!((told.len(), told[0].subject.as_str()), (2, "Ada"));
    assert!(first.iter().any(|place| place == "role"), "{first:?}");
}

#[test]
fn whoever_left_is_named_on_record_and_gets_in_no_more() {
    let mut bench = TestShop::new();
    session_of(&mut bench, "open", None);
    let partner = bench.colleague();
    let TestShop { connection, person: ada, .. } = &mut bench;
    person::set_role(connection, ada, partner.id, Role::Owner, "Partner").unwrap();
    person::leave(connection, &partner, ada.id).unwrap();
    assert!(!lives(connection, "open"), "signed out at once");
    assert!(person::working(connection, ada.shop_id, ada.id).is_err());
    assert_eq!(person::find(connection, ada.shop_id, ada.id).unwrap().name, "Ada");
    assert!(matches!(person::take_on(connection, ada.shop_id, " ADA ", "Namesake", Role::Desk), Err(StoreError::Taken { .. })));
    person::come_back(connection, &partner, ada.id).unwrap();
    assert!(person::working(connection, ada.shop_id, ada.id).is_ok());
}

#[test]
fn nobody_does_anything_to_another_shops_people() {
    let mut bench = TestShop::new();
    let stranger = bench.stranger();
    let TestShop { connection, person: ada, .. } = &mut bench;
    let not_found = |done: Result<(), StoreError>| matches!(done, Err(StoreError::NotFound(_)));
    assert!(not_found(person::set_role(connection, ada, stranger.id, Role::Desk, "x")));
    assert!(not_found(person::leave(connection, ada, stranger.id)));
    assert!(not_found(person::set_password(connection, ada, stranger.id, "x", None)));
    assert!(not_found(person::secrets(connection, ada.shop_id, stranger.id).map(|_| ())));
    let theirs = tablet::enroll(connection, &stranger, "Bay 1", "theirs").unwrap();
    assert!(not_found(tablet::revoke(connection, ada, theirs.id)));
    assert_eq!(person::find(connection, stranger.shop_id, stranger.id).unwrap(), stranger);
}

#[test]
fn a_new_password_ends_every_other_session() {
    let mut bench = TestShop::new();
    session_of(&mut bench, "here", None);
    session_of(&mut bench, "elsewhere", None);
    let TestShop { connection, person: ada, .. } = &mut bench;
    person::set_password(connection, ada, ada.id, "$argon2id$x", Some("here")).unwrap();
    assert!(lives(connection, "here") && !lives(connection, "elsewhere"));
    assert_eq!(person::secrets(connection, ada.shop_id, ada.id).unwrap().password_hash.as_deref(), Some("$argon2id$x"));
    assert_eq!(person::end_sessions(connection, ada, None).unwrap(), 1);
    assert!(!lives(connection, "here"));
}

#[test]
fn a_session_ends_when_it_is_left_alone_and_when_it_is_old() {
    let mut bench = TestShop::new();
    let bay = tablet::enroll(&mut bench.connection, &bench.person, "Bay 1", "key").unwrap();
    for (key, tablet) in [("own", None), ("shared", Some(bay.id))] {
        session_of(&mut bench, key, tablet);
    }
    let connection = &mut bench.connection;
    let age = |connection: &mut PgConnection, seen: &str, began: &str| {
        let told = format!("UPDATE sessions SET seen_at = now() - interval '{seen}', began_at = now() - interval '{began}'");
        connection.batch_execute(&told).unwrap();
    };
    let both = |connection: &mut PgConnection| (lives(connection, "own"), lives(connection, "shared"));
    age(connection, "20 minutes", "1 hour");
    assert_eq!(both(connection), (true, true));
    age(connection, "31 minutes", "1 hour");
    assert_eq!(both(connection), (true, false), "a shared tablet signs out by itself");
    age(connection, "1 minute", "13 hours");
    assert_eq!(both(connection), (true, false), "and at the end of the day");
    age(connection, "97 hours", "5 days");
    assert_eq!(both(connection), (false, false));
    age(connection, "1 minute", "31 days");
    assert_eq!(both(connection), (false, false), "however much it is used");
    age(connection, "90 hours", "29 days");
    assert!(lives(connection, "own"));
    age(connection, "90 hours", "29 days");
    assert!(lives(connection, "own"), "that it was used counts from then");
}

#[test]
fn a_link_is_good_once_and_the_last_one_made_is_the_good_one() {
    let mut bench = TestShop::new();
    let TestShop { connection, person: ada, .. } = &mut bench;
    let join = Invitation::Join { shop: ada.shop_id, name: "Dee".to_owned(), role: Role::Desk };
    let found = |connection: &mut PgConnection, key: &str| invitation::find(connection, key);
    invitation::make(connection, Some(ada), &join, "first").unwrap();
    assert_eq!(found(connection, "first").unwrap(), join);
    invitation::make(connection, Some(ada), &join, "second").unwrap();
    assert!(matches!(found(connection, "first"), Err(StoreError::NotFound(_))), "an earlier link is good for nothing");
    assert_eq!(invitation::use_up(connection, "second").unwrap(), join);
    assert!(matches!(invitation::use_up(connection, "second"), Err(StoreError::NotFound(_))));
    let reset = Invitation::Reset { shop: ada.shop_id, person: ada.id };
    invitation::make(connection, Some(ada), &reset, "reset").unwrap();
    connection.batch_execute("UPDATE invitations SET expires_at = now() - interval '1 second' WHERE key_hash = 'reset'").unwrap();
    assert!(found(connection, "reset").is_err(), "and none for ever");
    invitation::make(connection, None, &Invitation::OpenShop, "shop").unwrap();
    assert_eq!(found(connection, "shop").unwrap(), Invitation::OpenShop);
    assert!(invitation::open_of_shop(connection, ada.shop_id).unwrap().is_empty());
    invitation::make(connection, Some(ada), &join, "third").unwrap();
    let open = invitation::open_of_shop(connection, ada.shop_id).unwrap();
    invitation::revoke(connection, ada, open[0].id).unwrap();
    assert!(found(connection, "third").is_err());
}

#[test]
fn tries_are_counted_until_one_is_good_and_no_further_than_too_many() {
    let mut bench = TestShop::new();
    let connection = &mut bench.connection;
    let by = |subject: &str, most: i64| Counted { subject: subject.to_owned(), most };
    let both = [by("account", 3), by("address", 100)];
    for _ in 0..3 {
        assert!(sign_in::begin_try(connection, &both).unwrap().is_some());
    }
    assert_eq!(sign_in::begin_try(connection, &both).unwrap(), None, "three failed");
    assert!(sign_in::begin_try(connection, &[by("address", 4)]).unwrap().is_some(), "what is refused is not counted");
    assert!(sign_in::begin_try(connection, &[by("device", 3)]).unwrap().is_some(), "whoever is known elsewhere is not kept out");
    connection.batch_execute("UPDATE failed_sign_ins SET failed_at = failed_at - interval '16 minutes'").unwrap();
    let tried = sign_in::begin_try(connection, &both).unwrap().unwrap();
    sign_in::was_good(connection, &tried, &["account".to_owned()]).unwrap();
    for _ in 0..3 {
        assert!(sign_in::begin_try(connection, &both).unwrap().is_some(), "counted from nought again");
    }
}

#[test]
fn a_device_is_known_for_whoever_signed_in_on_it() {
    let mut bench = TestShop::new();
    let colleague = bench.colleague();
    let TestShop { connection, person: ada, .. } = &mut bench;
    sign_in::know_device(connection, ada, "phone").unwrap();
    sign_in::know_device(connection, ada, "phone").unwrap();
    assert!(sign_in::knows_device(connection, ada.shop_id, ada.id, "phone").unwrap());
    assert!(!sign_in::knows_device(connection, ada.shop_id, colleague.id, "phone").unwrap());
    assert!(!sign_in::knows_device(connection, ada.shop_id, ada.id, "another").unwrap());
}

#[test]
fn a_tablet_that_is_shut_out_signs_out_whoever_is_on_it() {
    let mut bench = TestShop::new();
    let bay = tablet::enroll(&mut bench.connection, &bench.person, "Bay 1", "key").unwrap();
    session_of(&mut bench, "on it", Some(bay.id));
    let TestShop { connection, person: ada, .. } = &mut bench;
    assert_eq!(tablet::find(connection, "key").unwrap().map(|found| found.name), Some("Bay 1".to_owned()));
    tablet::revoke(connection, ada, bay.id).unwrap();
    assert_eq!(tablet::find(connection, "key").unwrap(), None);
    assert!(!lives(connection, "on it"));
    assert!(matches!(tablet::revoke(connection, ada, bay.id), Err(StoreError::NotFound(_))));
}

#[test]
fn whoever_has_a_pin_is_offered_on_a_tablet() {
    let mut bench = TestShop::new();
    let colleague = bench.colleague();
    let TestShop { connection, person: ada, .. } = &mut bench;
    let names = |connection: &mut PgConnection, shop| -> Vec<String> {
        person::with_pin(connection, shop).unwrap().into_iter().map(|one| one.name).collect()
    };
    assert!(names(connection, ada.shop_id).is_empty());
    person::set_pin(connection, ada, Some("$argon2id$p")).unwrap();
    person::set_pin(connection, &colleague, Some("$argon2id$q")).unwrap();
    assert_eq!(names(connection, ada.shop_id), ["Ada", "Bo"]);
    person::leave(connection, ada, colleague.id).unwrap();
    assert_eq!(names(connection, ada.shop_id), ["Ada"]);
    person::set_pin(connection, ada, None).unwrap();
    assert!(names(connection, ada.shop_id).is_empty());
}
