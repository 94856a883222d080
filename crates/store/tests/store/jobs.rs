//! Jobs: numbers, shops apart, stale savings, a fixed number of queries.

use std::sync::atomic::{AtomicUsize, Ordering};
use std::sync::{Arc, Barrier};

use diesel::connection::{Connection, InstrumentationEvent};
use diesel::prelude::*;
use wise_badger_casework::intake::{Intake, TapeManner};
use wise_badger_casework::survey::VehicleClass;
use wise_badger_mechanics::tape::Datum;
use wise_badger_store::job::{self, Closed};
use wise_badger_store::job_file::JobFile;
use wise_badger_store::job_list::Which;
use wise_badger_store::shop::{self, Shops};
use wise_badger_store::test_support::TestDatabase;
use wise_badger_store::{JobNumber, Role, StoreError, job_list, person};

use crate::{INCH, TestShop, inches, intake, pounds, somebody};

/// By whatever rules jobs are reckoned.
const RULES: &str = "these";

#[test]
fn what_intake_wrote_down_comes_back_as_typed() {
    let TestShop { mut connection, person, job, database: _database, .. } = TestShop::new();
    let found = job::find(&mut connection, person.shop_id, job.number).unwrap();
    assert_eq!(found.intake, intake("first"));
    assert_eq!((found.job.revision, found.measured.datum, found.job.finished_at), (1, None, None));
    let mut changed = intake("second");
    changed.class = VehicleClass::BoxTruck;
    changed.kerb_rear = None;
    changed.gross_rating = Some(pounds("9,900", 9900.0));
    job::set_intake(&mut connection, &person, job.id, &changed).unwrap();
    assert_eq!(job::find(&mut connection, person.shop_id, job.number).unwrap().intake, changed);
}

#[test]
fn each_shop_counts_its_own_jobs_and_sees_no_others() {
    let mut bench = TestShop::new();
    let second = job::open(&mut bench.connection, &bench.person, &intake("again")).unwrap();
    let stranger = bench.stranger();
    let theirs = job::open(&mut bench.connection, &stranger, &intake("theirs")).unwrap();
    assert_eq!((bench.job.number, second.number, theirs.number), (JobNumber(1), JobNumber(2), JobNumber(1)));
    let connection = &mut bench.connection;
    assert!(matches!(job::find(connection, stranger.shop_id, JobNumber(2)), Err(StoreError::NotFound("job"))));
    assert!(matches!(job::number(connection, stranger.shop_id, second.id), Err(StoreError::NotFound("job"))));
    let revised = job::revise(connection, &stranger, second.id, 1, Closed::Refuses);
    assert!(matches!(revised, Err(StoreError::NotFound("job"))));
    let taken_over = job::set_intake(connection, &stranger, second.id, &intake("taken over"));
    assert!(matches!(taken_over, Err(StoreError::NotFound(_))));
    assert_eq!(job::find(connection, bench.person.shop_id, JobNumber(2)).unwrap().intake.label, "again");
}

#[test]
fn jobs_opened_at_once_get_numbers_of_their_own() {
    let database = TestDatabase::create();
    let store = database.open();
    let person = somebody(&mut store.connection().unwrap(), "Busy shop", "Ada");
    let together = Arc::new(Barrier::new(3));
    let opened: Vec<_> = (0..3)
        .map(|index| {
            let (store, person, together) = (store.clone(), person.clone(), together.clone());
            std::thread::spawn(move || {
                let mut connection = store.connection().unwrap();
                together.wait();
                connection
                    .transaction(|connection| job::open(connection, &person, &intake(&format!("job {index}"))))
                    .map(|job| job.number.0)
                    .unwrap()
            })
        })
        .collect();
    let mut numbers: Vec<i32> = opened.into_iter().map(|thread| thread.join().unwrap()).collect();
    numbers.sort_unstable();
    assert_eq!(numbers, [1, 2, 3]);
}

#[test]
fn a_saving_from_a_stale_page_is_refused_and_says_who_was_first() {
    let mut bench = TestShop::new();
    let colleague = bench.colleague();
    let connection = &mut bench.connection;
    assert_eq!(job::revise(connection, &colleague, bench.job.id, 1, Closed::Refuses).unwrap(), 2);
    match job::revise(connection, &bench.person, bench.job.id, 1, Closed::Refuses) {
        Err(StoreError::Stale { by, .. }) => assert_eq!(by, "Bo"),
        other => panic!("{other:?}"),
    }
    job::revise(connection, &bench.person, bench.job.id, 2, Closed::Refuses).unwrap();
    assert_eq!(job::find(connection, bench.person.shop_id, bench.job.number).unwrap().job.revision, 3);
}

#[test]
fn the_newest_jobs_come_first_and_in_pages() {
    let TestShop { mut connection, person, database: _database, .. } = TestShop::new();
    for index in 2..=5 {
        job::open(&mut connection, &person, &intake(&format!("job {index}"))).unwrap();
    }
    let mut numbers = |before: Option<i32>| -> Vec<i32> {
        let listed = job_list::newest(&mut connection, person.shop_id, &Which::Open, RULES, 2, before.map(JobNumber)).unwrap();
        listed.iter().map(|of| of.job.number.0).collect()
    };
    assert_eq!(numbers(None), [5, 4]);
    assert_eq!(numbers(Some(4)), [3, 2]);
    assert_eq!(numbers(Some(1)), Vec::<i32>::new());
}

#[test]
fn the_number_of_queries_does_not_grow_with_the_jobs() {
    let TestShop { mut connection, person, database: _database, .. } = TestShop::new();
    let count = Arc::new(AtomicUsize::new(0));
    let counter = count.clone();
    connection.set_instrumentation(move |event: InstrumentationEvent<'_>| {
        if matches!(event, InstrumentationEvent::StartQuery { .. }) {
            counter.fetch_add(1, Ordering::Relaxed);
        }
    });
    let queries = |connection: &mut PgConnection| {
        count.store(0, Ordering::Relaxed);
        job_list::newest(connection, person.shop_id, &Which::Open, RULES, 100, None).unwrap();
        count.load(Ordering::Relaxed)
    };
    let few = queries(&mut connection);
    for index in 0..30 {
        let job = job::open(&mut connection, &person, &intake(&format!("job {index}"))).unwrap();
        crate::readings::put(&mut connection, &person, job.id, &[("20 1/2", 20.5), ("20 1/4", 20.25)]);
    }
    assert_eq!(queries(&mut connection), few);
    assert_eq!(few, 1, "a list is read without reading the jobs");
    count.store(0, Ordering::Relaxed);
    JobFile::find(&mut connection, person.shop_id, JobNumber(2)).unwrap();
    let of_a_job = count.load(Ordering::Relaxed);
    assert_eq!(of_a_job, 5, "one query each for the job, readings, corrections, sheets and fittings");
}

#[test]
fn how_the_tape_was_used_and_whether_the_job_is_finished_are_kept() {
    let TestShop { mut connection, person, job, database: _database, .. } = TestShop::new();
    let manner = TapeManner { datum: Datum::HubToArch, rear_rise_confirmed: true };
    job::set_tape_manner(&mut connection, &person, job.id, manner).unwrap();
    job::set_finished(&mut connection, &person, job.id, true).unwrap();
    let found = job::find(&mut connection, person.shop_id, job.number).unwrap();
    assert_eq!((found.measured.datum, found.measured.rear_rise_confirmed), (Some(Datum::HubToArch), true));
    assert!(found.job.finished_at.is_some());
    job::set_finished(&mut connection, &person, job.id, false).unwrap();
    assert_eq!(job::find(&mut connection, person.shop_id, job.number).unwrap().job.finished_at, None);
}

#[tokio::test]
async fn a_write_that_fails_midway_leaves_nothing_behind() {
    let database = TestDatabase::create();
    let store = database.open();
    let person = somebody(&mut store.connection().unwrap(), "Careful shop", "Ada");
    let (shop, who) = (person.shop_id, person.clone());
    let failed: Result<(), StoreError> = store
        .write(move |connection| {
            job::open(connection, &who, &intake("half"))?;
            person::take_on(connection, shop, "Ada", "Namesake", Role::Lead)?;
            Ok(())
        })
        .await;
    assert!(matches!(failed, Err(StoreError::Taken { .. })), "{failed:?}");
    let jobs = store.read(move |connection| job_list::newest(connection, shop, &Which::Open, RULES, 10, None)).await.unwrap();
    assert!(jobs.is_empty());
}

#[test]
fn a_shop_need_not_be_named_while_it_is_the_only_one() {
    let TestShop { mut connection, person, database: _database, .. } = TestShop::new();
    assert!(matches!(shop::shops(&mut connection).unwrap(), Shops::One(shop) if shop.id == person.shop_id));
    let later = shop::open(&mut connection, "Shop under test").unwrap();
    assert_eq!(later.handle, "shop-under-test-2", "two shops of one name sign in by different words");
    assert_eq!(shop::shops(&mut connection).unwrap(), Shops::Several);
    assert_eq!(shop::find_by_handle(&mut connection, " Shop-Under-Test-2 ").unwrap().map(|shop| shop.id), Some(later.id));
    assert_eq!(shop::find_by_handle(&mut connection, "shop under test").unwrap(), None);
    for (name, handle) in [("Ä", "shop"), ("7", "shop-7"), ("--- O'Neal & Sons ---", "o-neal-sons")] {
        assert_eq!(shop::open(&mut connection, name).unwrap().handle, handle, "{name}");
    }
}

#[test]
fn a_trailers_axles_are_kept_and_belong_to_a_trailer_alone() {
    let mut bench = TestShop::new();
    let (connection, person) = (&mut bench.connection, &bench.person);
    let trailer = Intake {
        class: VehicleClass::TandemTrailer,
        axle_spread: Some(inches("2' 10", 34.0)),
        equalised: false,
        ..intake("tandem")
    };
    let opened = job::open(connection, person, &trailer).unwrap();
    let found = job::find(connection, person.shop_id, opened.number).unwrap();
    assert_eq!(found.intake, trailer);
    let tandem = found.intake.vehicle().tandem().unwrap();
    assert!((tandem.spread.value - 34.0 * INCH).abs() < 1e-12 && !tandem.equalised);
    let unknown = Intake { axle_spread: None, ..trailer.clone() };
    assert!((unknown.vehicle().tandem().unwrap().spread.value - 33.0 * INCH).abs() < 1e-12, "33 in is assumed");
    let van = Intake { class: VehicleClass::Van, ..trailer };
    assert!(van.vehicle().tandem().is_none());
    assert!(job::set_intake(connection, person, opened.id, &van).is_err(), "a van has no axles to set apart");
}
