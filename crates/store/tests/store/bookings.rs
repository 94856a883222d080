//! Bays and what is booked in them: the database itself keeps two vehicles out of one bay.

use chrono::{DateTime, TimeZone, Utc};
use wise_badger_store::bay::{self, Bay};
use wise_badger_store::booking::{self, Became, Slot};
use wise_badger_store::test_support::TestDatabase;
use wise_badger_store::{BayId, PgConnection, ShopId, StoreError, calendar_link, job};

use crate::{TestShop, intake, somebody};

fn at(day: u32, hour: u32) -> DateTime<Utc> {
    Utc.with_ymd_and_hms(2030, 12, day, hour, 0, 0).unwrap()
}

fn slot(bay: BayId, begins_at: DateTime<Utc>, ends_at: DateTime<Utc>) -> Slot {
    Slot { bay, begins_at, ends_at, person: None, second: None }
}

/// Tries something that the database refuses, without spoiling the transaction that it is tried in.
fn tried<T>(
    connection: &mut PgConnection,
    work: impl FnOnce(&mut PgConnection) -> Result<T, StoreError>,
) -> Result<T, StoreError> {
    use diesel::connection::Connection as _;
    enum Ended {
        Done(StoreError),
        Database(diesel::result::Error),
    }
    impl From<diesel::result::Error> for Ended {
        fn from(error: diesel::result::Error) -> Self {
            Ended::Database(error)
        }
    }
    connection.transaction(|connection| work(connection).map_err(Ended::Done)).map_err(|ended| match ended {
        Ended::Done(error) => error,
        Ended::Database(error) => error.into(),
    })
}

#[test]
fn no_bay_holds_two_at_once_and_no_vehicle_is_in_two() {
    let mut bench = TestShop::new();
    let TestShop { connection, person, job, .. } = &mut bench;
    let (one, two) =
        (bay::put(connection, person, "Bay 1", false).unwrap(), bay::put(connection, person, "Bay 2", true).unwrap());
    let other = job::open(connection, person, &intake("second")).unwrap();
    let first = booking::put(connection, person, job.id, &slot(one, at(2, 8), at(3, 10))).unwrap();
    let overlaps = |done: Result<_, StoreError>, of: &str| matches!(done, Err(StoreError::Overlaps { what }) if what == of);
    let night = tried(connection, |c| booking::put(c, person, other.id, &slot(one, at(2, 20), at(2, 22))));
    assert!(overlaps(night.map(|_| ()), "the bay"), "it stands there through the night");
    let twice = tried(connection, |c| booking::put(c, person, job.id, &slot(two, at(3, 9), at(3, 12))));
    assert!(overlaps(twice.map(|_| ()), "the vehicle"));
    booking::put(connection, person, other.id, &slot(one, at(3, 10), at(3, 12))).unwrap();
    let moved = booking::change(connection, person, first, &slot(two, at(2, 8), at(3, 10))).unwrap();
    assert!(matches!(
        booking::change(connection, person, first, &slot(one, at(9, 8), at(9, 9))),
        Err(StoreError::StaleRow { .. })
    ));
    assert!(matches!(booking::find(connection, person.shop_id, first), Err(StoreError::NotFound(_))), "that one is another now");
    assert!(
        matches!(booking::became(connection, person.shop_id, first).unwrap(), Became::Moved { by, .. } if by == person.id),
        "and what became of it is known"
    );
    booking::withdraw(connection, person, moved).unwrap();
    for id in [first, moved] {
        let became = booking::became(connection, person.shop_id, id).unwrap();
        assert!(matches!(became, Became::StruckOff { number, .. } if number == job.number), "{became:?}");
    }
    let elsewhere = booking::became(connection, ShopId(999_999), first);
    assert!(matches!(elsewhere, Err(StoreError::NotFound(_))), "another shop never had it");
    let left = booking::between(connection, person.shop_id, at(1, 0), at(30, 0)).unwrap();
    assert_eq!(left.iter().map(|booking| booking.job).collect::<Vec<_>>(), [other.id]);
}

#[test]
fn of_two_who_book_one_bay_at_once_one_does() {
    let database = TestDatabase::create();
    let store = database.open();
    let person = somebody(&mut store.connection().unwrap(), "Quick shop", "Ada");
    let bay = bay::put(&mut store.connection().unwrap(), &person, "Bay 1", false).unwrap();
    let jobs: Vec<_> = (0..4).map(|_| job::open(&mut store.connection().unwrap(), &person, &intake("one")).unwrap().id).collect();
    let booked: Vec<_> = jobs
        .into_iter()
        .map(|job| {
            let (store, person) = (store.clone(), person.clone());
            std::thread::spawn(move || {
                booking::put(&mut store.connection().unwrap(), &person, job, &slot(bay, at(2, 8), at(2, 12))).is_ok()
            })
        })
        .collect();
    let done = booked.into_iter().map(|one| one.join().unwrap()).filter(|done| *done).count();
    assert_eq!(done, 1);
}

#[test]
fn a_bay_is_taken_off_once_nothing_is_booked_in_it_and_strangers_touch_none() {
    let mut bench = TestShop::new();
    let stranger = bench.stranger();
    let TestShop { connection, person, job, .. } = &mut bench;
    let one = bay::put(connection, person, "Bay 1", false).unwrap();
    assert!(matches!(bay::put(connection, person, "BAY 1", true), Err(StoreError::Taken { .. })));
    let booked = booking::put(connection, person, job.id, &slot(one, at(2, 8), at(2, 10))).unwrap();
    assert!(matches!(bay::withdraw(connection, person, one), Err(StoreError::Overlaps { .. })));
    assert!(matches!(bay::withdraw(connection, &stranger, one), Err(StoreError::NotFound(_))));
    assert!(matches!(booking::withdraw(connection, &stranger, booked), Err(StoreError::StaleRow { .. })));
    assert!(booking::between(connection, stranger.shop_id, at(1, 0), at(30, 0)).unwrap().is_empty());
    let theirs = job::open(connection, &stranger, &intake("theirs")).unwrap();
    assert!(matches!(
        booking::put(connection, &stranger, theirs.id, &slot(one, at(9, 8), at(9, 10))),
        Err(StoreError::NotFound("bay"))
    ));
    booking::withdraw(connection, person, booked).unwrap();
    bay::withdraw(connection, person, one).unwrap();
    assert_eq!(bay::of_shop(connection, person.shop_id).unwrap(), Vec::<Bay>::new());
}

#[test]
fn a_calendar_link_shows_its_own_shop_until_it_is_taken_back() {
    let mut bench = TestShop::new();
    let stranger = bench.stranger();
    let TestShop { connection, person, .. } = &mut bench;
    calendar_link::make(connection, person, "hash").unwrap();
    assert_eq!(calendar_link::shop_of(connection, "hash").unwrap(), person.shop_id);
    let link = calendar_link::of_shop(connection, person.shop_id).unwrap()[0].id;
    assert!(calendar_link::revoke(connection, &stranger, link).is_err());
    calendar_link::revoke(connection, person, link).unwrap();
    assert!(matches!(calendar_link::shop_of(connection, "hash"), Err(StoreError::NotFound(_))));
}
