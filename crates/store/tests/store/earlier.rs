//! Records of an earlier version: every row is carried over, up and down again.

use diesel::connection::SimpleConnection;
use diesel::prelude::*;
use diesel_migrations::{FileBasedMigrations, MigrationHarness};
use wise_badger_casework::entry::{GoalEntry, LoadEntry};
use wise_badger_casework::survey::{End, LoadState, Manner};
use wise_badger_store::history::{self, Deed};
use wise_badger_store::job_file::JobFile;
use wise_badger_store::test_support::TestDatabase;
use wise_badger_store::{Database, JobNumber, PgConnection, ShopId};

use crate::entries::rows;

const DEMO: &str = include_str!("before/demo_2026_11_27.sql");
/// The schema that those rows are of.
const OF_THAT_DAY: &str = "20261127000001";
/// A load and an aim that had others take their place, and what was said of the floor.
const MORE: &str = r#"
    UPDATE loads SET withdrawn_at = recorded_at + interval '1 hour' WHERE job_id = (SELECT id FROM jobs WHERE number = 1);
    INSERT INTO loads (shop_id, job_id, entry, recorded_by)
        SELECT shop_id, job_id, jsonb_set(entry, '{weight,text}', '"1,060"'), recorded_by FROM loads
        WHERE job_id = (SELECT id FROM jobs WHERE number = 1);
    UPDATE loads SET withdrawn_at = now() WHERE job_id = (SELECT id FROM jobs WHERE number = 2);
    UPDATE jobs SET rolled_and_bounced = FALSE,
        conditions = '{"floor": "apron", "fuel_empty": "half", "fuel_loaded": "full"}' WHERE number = 3;
"#;

fn migrations() -> FileBasedMigrations {
    FileBasedMigrations::find_migrations_directory().unwrap()
}

/// The records as they were, in the schema of their day.
fn of_that_day(database: &TestDatabase) -> PgConnection {
    let mut connection = PgConnection::establish(&database.url()).unwrap();
    while connection.run_next_migration(migrations()).unwrap().to_string() != OF_THAT_DAY {}
    connection.batch_execute(DEMO).unwrap();
    connection.batch_execute(MORE).unwrap();
    connection
}

fn job(store: &Database, number: i32) -> JobFile {
    JobFile::find(&mut store.connection().unwrap(), ShopId(1), JobNumber(number)).unwrap()
}

#[test]
fn every_job_of_the_version_before_is_there_with_its_states_and_its_goals() {
    let database = TestDatabase::create();
    drop(of_that_day(&database));
    let store = database.open();
    for number in 1..=7 {
        let file = job(&store, number);
        let survey = file.work.found();
        assert!(survey.height(End::Rear, LoadState::Empty).is_some(), "job {number}");
        assert_eq!(survey.states().count(), 2, "job {number}");
        let first = file.case().aim.as_ref().map(|aim| aim.goals.len());
        assert!(first.is_none_or(|goals| goals == 1), "job {number}");
    }
    let sixth = job(&store, 6);
    assert_eq!(
        (sixth.case().sheet.budget_words.as_str(), sixth.case().sheet.wanted_words.as_str()),
        ("under two days' work", "first week of May")
    );
    assert_eq!(sixth.case().sheet.shares.iter().map(|share| share.percent).collect::<Vec<_>>(), [55, 30, 15]);
    assert!(sixth.case().options.iter().all(|option| option.parts.len() == 1 && option.corrections(None).is_some()));
    let first = job(&store, 1);
    let Some(LoadEntry::Placed { weight, .. }) = first.case().tape.load() else { panic!("{:?}", first.case().tape) };
    assert_eq!(weight.text, "1,060");
    assert_eq!(first.work.found().manner(LoadState::Loaded), Manner::Rolled);
    assert!(matches!(first.case().aim.as_ref().unwrap().goals[0], GoalEntry::LevelLoaded { .. }));
    assert!(first.fitting.is_some() && first.work.chosen_predicted().is_some());
    let told = history::of_job(&mut store.connection().unwrap(), ShopId(1), first.job.id, chrono::Utc::now()).unwrap();
    assert!(told.events.iter().filter(|event| event.deed == Deed::Loaded).any(|event| !event.differences.is_empty()));
    assert_eq!(job(&store, 2).case().tape.load(), None, "what was taken off stays off");
    let third = job(&store, 3);
    let state = |state| third.case().tape.state(state).unwrap().clone();
    assert_eq!((state(LoadState::Empty).floor.as_str(), state(LoadState::Empty).fuel.as_str()), ("apron", "half"));
    assert_eq!((state(LoadState::Loaded).fuel.as_str(), state(LoadState::Loaded).manner), ("full", Manner::AsItStood));
}

#[test]
fn down_again_the_version_before_finds_what_it_left() {
    let database = TestDatabase::create();
    let mut connection = of_that_day(&database);
    let tell = |connection: &mut PgConnection, query: &str| -> Vec<String> {
        #[derive(QueryableByName)]
        struct Line {
            #[diesel(sql_type = diesel::sql_types::Text)]
            line: String,
        }
        diesel::sql_query(query).load::<Line>(connection).unwrap().into_iter().map(|row| row.line).collect()
    };
    let all = "SELECT job_id || ' ' || entry::text || ' ' || recorded_by || ' ' || recorded_at || coalesce(withdrawn_at::text, '') AS line
               FROM (SELECT job_id, entry, recorded_by, recorded_at, withdrawn_at FROM loads
                     UNION ALL SELECT job_id, entry, recorded_by, recorded_at, withdrawn_at FROM aims
                     UNION ALL SELECT job_id, entry, recorded_by, recorded_at, withdrawn_at FROM corrections
                     UNION ALL SELECT job_id, entry, recorded_by, recorded_at, withdrawn_at FROM job_sheets) all_of_them ORDER BY 1";
    let manners =
        "SELECT number || ' ' || rolled_and_bounced || coalesce(conditions ->> 'floor', '') AS line FROM jobs ORDER BY 1";
    let (before, manners_before) = (tell(&mut connection, all), tell(&mut connection, manners));
    let sheets = rows(&mut connection, "job_sheets");
    connection.run_pending_migrations(migrations()).unwrap();
    while connection.revert_last_migration(migrations()).unwrap().to_string() != "20261128000000" {}
    let without_side_to_side = |lines: Vec<String>| -> Vec<String> {
        lines
            .into_iter()
            .map(|line| line.replace(", \"side_to_side\": null", "").replace("\"side_to_side\": null, ", ""))
            .collect()
    };
    assert_eq!(without_side_to_side(tell(&mut connection, all)), without_side_to_side(before));
    assert_eq!(tell(&mut connection, manners), manners_before);
    assert_eq!(rows(&mut connection, "job_sheets"), sheets);
}
