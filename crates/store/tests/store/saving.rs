//! Saving a form once, and never over what somebody else saved.

use std::time::Duration;

use diesel::prelude::*;
use wise_badger_casework::entry::IntakeSheetEntry;
use wise_badger_store::job::{self, Closed};
use wise_badger_store::person::Person;
use wise_badger_store::saving;
use wise_badger_store::submission::{self, Sending};
use wise_badger_store::test_support::TestDatabase;
use wise_badger_store::{Database, DieselError, JobId, PgConnection, StoreError};

use crate::{TestShop, intake, somebody};

fn sending(form: &str, token: &str, content: &str) -> Sending {
    Sending { form: form.to_owned(), token: token.to_owned(), content_hash: content.to_owned() }
}

/// Saves a label; what stands afterwards, or why not.
fn save(
    connection: &mut PgConnection,
    person: &Person,
    sending: &Sending,
    job: JobId,
    seen: i32,
    label: &str,
) -> Result<(), StoreError> {
    saving::save(connection, person, sending, job, seen, Closed::Refuses, |connection, person| {
        job::set_intake(connection, person, job, &intake(label))
    })
}

fn label(connection: &mut PgConnection, bench: &(Person, job::Job)) -> String {
    job::find(connection, bench.0.shop_id, bench.1.number).unwrap().intake.label
}

#[test]
fn the_same_content_is_saved_once_and_another_is_a_saving_of_its_own() {
    let TestShop { mut connection, person, job, database: _database } = TestShop::new();
    let (connection, here) = (&mut connection, (person.clone(), job.clone()));
    let mut send = |content: &str| save(connection, &person, &sending("/jobs/1/tape", "token", content), job.id, 1, content);
    send("21 5/8").unwrap();
    send("21 5/8").unwrap();
    // The answer was lost, 22 was typed, and the form was sent again as the page drew it.
    send("22").unwrap();
    assert_eq!(label(connection, &here), "22");
    assert_eq!(job::find(connection, person.shop_id, job.number).unwrap().job.revision, 3, "two savings");
}

#[test]
fn another_content_over_what_was_saved_since_is_a_conflict() {
    let mut bench = TestShop::new();
    let colleague = bench.colleague();
    let TestShop { connection, person, job, .. } = &mut bench;
    save(connection, person, &sending("/jobs/1/tape", "token", "mine"), job.id, 1, "mine").unwrap();
    save(connection, &colleague, &sending("/jobs/1/tape", "other", "theirs"), job.id, 2, "theirs").unwrap();
    let again = connection.transaction(|connection| {
        save(connection, person, &sending("/jobs/1/tape", "token", "mine, changed"), job.id, 1, "mine, changed")
    });
    assert!(matches!(again, Err(StoreError::Stale { by, .. }) if by == "Bo"));
    assert_eq!(label(connection, &(person.clone(), job.clone())), "theirs");
    // What was acknowledged is still answered as before.
    save(connection, person, &sending("/jobs/1/tape", "token", "mine"), job.id, 1, "mine").unwrap();
    assert_eq!(label(connection, &(person.clone(), job.clone())), "theirs");
}

#[test]
fn a_content_that_was_overtaken_by_another_is_not_guessed_about() {
    let TestShop { mut connection, person, job, database: _database } = TestShop::new();
    let mut send = |content: &str| save(&mut connection, &person, &sending("/jobs/1/tape", "token", content), job.id, 1, content);
    send("a").unwrap();
    send("b").unwrap();
    assert!(matches!(send("a"), Err(StoreError::Stale { .. })), "late, or meant: whoever sent it decides");
    assert_eq!(label(&mut connection, &(person.clone(), job.clone())), "b");
}

#[test]
fn a_token_is_good_for_one_form_of_one_job_and_one_person() {
    let mut bench = TestShop::new();
    let colleague = bench.colleague();
    let TestShop { connection, person, job, .. } = &mut bench;
    let second = job::open(connection, person, &intake("second")).unwrap();
    save(connection, person, &sending("/jobs/1/intake", "token", "x"), job.id, 1, "first form").unwrap();
    save(connection, person, &sending("/jobs/2/intake", "token", "x"), second.id, 1, "other job").unwrap();
    save(connection, person, &sending("/jobs/1/aim", "token", "x"), job.id, 2, "other form").unwrap();
    save(connection, &colleague, &sending("/jobs/1/intake", "token", "x"), job.id, 3, "other person").unwrap();
    assert_eq!(label(connection, &(person.clone(), second)), "other job");
    assert_eq!(label(connection, &(person.clone(), job.clone())), "other person");
}

#[test]
fn a_finished_job_is_closed_until_it_is_taken_up_again() {
    let TestShop { mut connection, person, job, database: _database } = TestShop::new();
    let connection = &mut connection;
    let close = |connection: &mut PgConnection, token: &str, seen, finished, closed| {
        saving::save(connection, &person, &sending("/jobs/1/finish", token, "x"), job.id, seen, closed, |connection, person| {
            job::set_finished(connection, person, job.id, finished)
        })
    };
    close(connection, "a", 1, true, Closed::Refuses).unwrap();
    let refused = connection
        .transaction(|connection| save(connection, &person, &sending("/jobs/1/intake", "b", "x"), job.id, 2, "after the end"));
    assert!(matches!(refused, Err(StoreError::Finished)), "{refused:?}");
    let added = connection.transaction(|connection| {
        saving::add(connection, &person, &sending("/jobs/1/photographs", "c", "x"), job.id, |_, _| Ok(()))
    });
    assert!(matches!(added, Err(StoreError::Finished)));
    close(connection, "d", 2, false, Closed::Opens).unwrap();
    save(connection, &person, &sending("/jobs/1/intake", "e", "x"), job.id, 3, "again").unwrap();
    assert_eq!(label(connection, &(person.clone(), job.clone())), "again");
}

#[test]
fn a_job_is_opened_once_and_what_was_changed_before_the_answer_came_is_written_over_it() {
    let TestShop { mut connection, person, database: _database, .. } = TestShop::new();
    let mut open = |content: &str| {
        saving::open(
            &mut connection,
            &person,
            &sending("/jobs/new", "token", content),
            &intake(content),
            &IntakeSheetEntry::default(),
        )
        .map(|number| number.0)
    };
    assert_eq!(open("van").unwrap(), 2);
    assert_eq!(open("van").unwrap(), 2);
    assert_eq!(open("white van").unwrap(), 2);
    assert!(matches!(open("van"), Err(StoreError::Stale { .. })));
    let found = job::find(&mut connection, person.shop_id, wise_badger_store::JobNumber(2)).unwrap();
    assert_eq!((found.intake.label.as_str(), found.job.revision), ("white van", 2));
}

#[test]
fn tokens_are_forgotten_after_weeks_and_by_the_records_own_clock() {
    let TestShop { mut connection, person, job, database: _database } = TestShop::new();
    let connection = &mut connection;
    save(connection, &person, &sending("/jobs/1/aim", "old", "x"), job.id, 1, "one").unwrap();
    save(connection, &person, &sending("/jobs/1/aim", "young", "x"), job.id, 2, "two").unwrap();
    diesel::sql_query("UPDATE submissions SET sent_at = now() - interval '50 days' WHERE token = 'old'")
        .execute(connection)
        .unwrap();
    diesel::sql_query("UPDATE submissions SET sent_at = now() - interval '40 days' WHERE token = 'young'")
        .execute(connection)
        .unwrap();
    save(connection, &person, &sending("/jobs/1/aim", "new", "x"), job.id, 3, "three").unwrap();
    save(connection, &person, &sending("/jobs/1/aim", "young", "x"), job.id, 2, "two").unwrap();
    assert_eq!(label(connection, &(person.clone(), job.clone())), "three", "the young one is still known");
    let forgotten = save(connection, &person, &sending("/jobs/1/aim", "old", "x"), job.id, 1, "one");
    assert!(matches!(forgotten, Err(StoreError::Stale { .. })), "the old one is a new form on an old page: {forgotten:?}");
}

/// A connection that is cut by the server the moment its transaction is to be kept.
fn cut_while_keeping(
    store: &Database,
    killer: &Database,
    person: &Person,
    sending: &Sending,
    job: JobId,
    first: bool,
) -> StoreError {
    let mut connection = store.connection().unwrap();
    let cut = wise_badger_store::in_transaction(&mut connection, |connection| -> Result<(), StoreError> {
        save(connection, person, sending, job, 1, "cut")?;
        if !first {
            // Kept by the server, and the answer lost: as if the connection were cut behind the COMMIT.
            connection.batch_execute_commit()?;
        }
        let backend: i32 = diesel::select(pg_backend_pid()).get_result(connection).unwrap();
        diesel::select(pg_terminate_backend(backend)).execute(&mut *killer.connection().unwrap()).unwrap();
        Ok(())
    });
    cut.unwrap_err()
}

diesel::define_sql_function! { fn pg_backend_pid() -> diesel::sql_types::Integer; }
diesel::define_sql_function! { fn pg_terminate_backend(pid: diesel::sql_types::Integer) -> diesel::sql_types::Bool; }

trait Keeps {
    fn batch_execute_commit(&mut self) -> Result<(), DieselError>;
}

impl Keeps for PgConnection {
    fn batch_execute_commit(&mut self) -> Result<(), DieselError> {
        diesel::connection::SimpleConnection::batch_execute(self, "COMMIT")
    }
}

#[test]
fn after_a_connection_lost_while_keeping_what_is_true_can_be_found_out() {
    let database = TestDatabase::create();
    let (store, other) = (database.open(), database.open());
    let connection = &mut other.connection().unwrap();
    let person = somebody(connection, "Cut off", "Ada");
    let job = job::open(connection, &person, &intake("before")).unwrap();
    let lost = sending("/jobs/1/intake", "lost", "x");
    let error = cut_while_keeping(&store, &other, &person, &lost, job.id, true);
    assert!(matches!(error, StoreError::OutcomeUnknown(_)), "{error:?}");
    assert!(!submission::was_kept(connection, &person, &lost).unwrap());
    assert_eq!(label(connection, &(person.clone(), job.clone())), "before");
    let kept = sending("/jobs/1/intake", "kept", "x");
    let error = cut_while_keeping(&store, &other, &person, &kept, job.id, false);
    assert!(matches!(error, StoreError::OutcomeUnknown(_)), "{error:?}");
    assert!(submission::was_kept(connection, &person, &kept).unwrap());
    assert!(
        !submission::was_kept(connection, &person, &sending("/jobs/1/intake", "kept", "y")).unwrap(),
        "another content was not"
    );
    assert_eq!(label(connection, &(person, job)), "cut");
}

#[tokio::test]
async fn a_connection_that_died_fails_once_at_most() {
    let database = TestDatabase::create();
    let (store, killer) = (Database::open(&database.url(), 1, Duration::from_secs(5)).unwrap(), database.open());
    let backend =
        || store.read(|connection| Ok::<_, StoreError>(diesel::select(pg_backend_pid()).get_result::<i32>(connection)?));
    let died = backend().await.unwrap();
    diesel::select(pg_terminate_backend(died)).execute(&mut *killer.connection().unwrap()).unwrap();
    // Nobody was asked yet: the first may meet the dead one, and no other.
    let _ = backend().await;
    let lives = backend().await.unwrap();
    assert_ne!(lives, died);
    assert_eq!(backend().await.unwrap(), lives, "and one that answered is lent again");
}
