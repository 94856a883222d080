//! Readings: nothing measured is overwritten, and everybody's own stays theirs.

use diesel::prelude::*;
use diesel::sql_types::BigInt;
use wise_badger_casework::intake::TapeManner;
use wise_badger_casework::reading::{Phase, Place, Reading, Spot};
use wise_badger_casework::survey::{End, LoadState, Manner};
use wise_badger_mechanics::side::Side;
use wise_badger_mechanics::tape::Datum;
use wise_badger_store::job::{self};
use wise_badger_store::job_file::JobFile;
use wise_badger_store::person::Person;
use wise_badger_store::reading::{self};
use wise_badger_store::{JobId, PgConnection, job_sheet};

use crate::{INCH, TestShop, inches, with_load};

const LEFT: Spot = Spot { phase: Phase::Found, state: LoadState::Empty, place: Place::RearLeft };

fn at(spot: Spot, heights: &[(&str, f64)]) -> Vec<Reading> {
    heights.iter().map(|(text, value)| Reading { spot, datum: Datum::HubToArch, value: inches(text, *value) }).collect()
}

/// Puts heights down at the rear left, empty.
pub(crate) fn put(connection: &mut PgConnection, person: &Person, job: JobId, heights: &[(&str, f64)]) {
    reading::replace(connection, person, job, Phase::Found, &at(LEFT, heights), "misread").unwrap();
}

fn standing(connection: &mut PgConnection, person: &Person, job: JobId) -> Vec<(String, i64)> {
    let readings = reading::standing(connection, person.shop_id, job).unwrap();
    readings.into_iter().map(|taken| (taken.reading.value.text, taken.by.0)).collect()
}

#[test]
fn an_unchanged_reading_stays_with_whoever_took_it() {
    let mut bench = TestShop::new();
    let colleague = bench.colleague();
    let TestShop { connection, person, job, .. } = &mut bench;
    put(connection, person, job.id, &[("21 1/2", 21.5), ("21.5", 21.5)]);
    put(connection, &colleague, job.id, &[("21 1/2", 21.5), ("21 3/8", 21.375)]);
    let expected = [("21 1/2".to_owned(), person.id.0), ("21 3/8".to_owned(), colleague.id.0)];
    assert_eq!(standing(connection, person, job.id), expected);
    let corrected = reading::withdrawn(connection, person.shop_id, job.id).unwrap();
    let [corrected] = corrected.as_slice() else { panic!("{corrected:?}") };
    assert_eq!((corrected.value.text.as_str(), corrected.why.as_deref()), ("21.5", Some("misread")));
    assert_eq!((corrected.taken_by, corrected.withdrawn_by), (person.id, Some(colleague.id)));
}

#[test]
fn a_corrected_or_dropped_reading_stays_on_record() {
    let TestShop { mut connection, person, job, database: _database, .. } = TestShop::new();
    put(&mut connection, &person, job.id, &[("21 1/2", 21.5)]);
    put(&mut connection, &person, job.id, &[("20 1/2", 20.5)]);
    put(&mut connection, &person, job.id, &[]);
    assert_eq!(standing(&mut connection, &person, job.id), []);
    assert_eq!(reading::withdrawn(&mut connection, person.shop_id, job.id).unwrap().len(), 2);
}

#[test]
fn another_datum_makes_another_reading() {
    let TestShop { mut connection, person, job, database: _database, .. } = TestShop::new();
    put(&mut connection, &person, job.id, &[("36", 36.0)]);
    let mut same = at(LEFT, &[("36", 36.0)]);
    same.iter_mut().for_each(|reading| reading.datum = Datum::GroundToArch);
    reading::replace(&mut connection, &person, job.id, Phase::Found, &same, "").unwrap();
    let readings = reading::standing(&mut connection, person.shop_id, job.id).unwrap();
    assert_eq!(readings.iter().map(|taken| taken.reading.datum).collect::<Vec<_>>(), [Datum::GroundToArch]);
    assert_eq!(reading::withdrawn(&mut connection, person.shop_id, job.id).unwrap().len(), 1);
}

#[test]
fn readings_after_fitting_leave_those_before_alone() {
    let TestShop { mut connection, person, job, database: _database, .. } = TestShop::new();
    put(&mut connection, &person, job.id, &[("21 1/2", 21.5)]);
    let fitted = at(Spot { phase: Phase::Fitted, ..LEFT }, &[("23 1/2", 23.5)]);
    reading::replace(&mut connection, &person, job.id, Phase::Fitted, &fitted, "").unwrap();
    assert_eq!(standing(&mut connection, &person, job.id).len(), 2);
    put(&mut connection, &person, job.id, &[]);
    assert_eq!(standing(&mut connection, &person, job.id), [("23 1/2".to_owned(), person.id.0)]);
}

#[test]
fn readings_make_the_survey_the_sums_run_on() {
    let TestShop { mut connection, person, job, database: _database, .. } = TestShop::new();
    let manner = TapeManner { datum: Datum::HubToArch, rear_rise_confirmed: false };
    job::set_tape_manner(&mut connection, &person, job.id, manner).unwrap();
    job_sheet::replace(&mut connection, &person, job.id, &with_load(None)).unwrap();
    let spot = |state, place| Spot { phase: Phase::Found, state, place };
    let mut all = at(LEFT, &[("21 1/2", 21.5), ("21 5/8", 21.625)]);
    all.extend(at(spot(LoadState::Empty, Place::RearRight), &[("21 1/4", 21.25)]));
    all.extend(at(spot(LoadState::Loaded, Place::StopGap), &[("3/4", 0.75), ("1", 1.0)]));
    reading::replace(&mut connection, &person, job.id, Phase::Found, &all, "").unwrap();
    let survey = JobFile::find(&mut connection, person.shop_id, job.number).unwrap().work.found().clone();
    let left = survey.heights.empty.rear.corners.get(Side::Left);
    assert_eq!(left.iter().map(|height| height.value).collect::<Vec<_>>(), [21.5 * INCH, 21.625 * INCH]);
    // Sides count alike, however often each was read: (21.5625 + 21.25) / 2.
    let rear = survey.height(End::Rear, LoadState::Empty).unwrap().value.value;
    assert!((rear - 21.406_25 * INCH).abs() < 1e-12, "{rear}");
    let gap = survey.gap(LoadState::Loaded).unwrap().value;
    assert!((gap - 0.875 * INCH).abs() < 1e-12, "{gap}");
    assert!(survey.manner(LoadState::Loaded) == Manner::Rolled && survey.height(End::Front, LoadState::Empty).is_none());
}

#[test]
fn a_front_read_from_another_datum_is_turned_into_the_jobs_own_once_the_hub_was_read() {
    let TestShop { mut connection, person, job, database: _database, .. } = TestShop::new();
    let manner = TapeManner { datum: Datum::HubToArch, rear_rise_confirmed: false };
    job::set_tape_manner(&mut connection, &person, job.id, manner).unwrap();
    let mut all = at(Spot { place: Place::FrontLeft, ..LEFT }, &[("35", 35.0)]);
    all.iter_mut().for_each(|reading| reading.datum = Datum::GroundToArch);
    reading::replace(&mut connection, &person, job.id, Phase::Found, &all, "").unwrap();
    let found = |connection: &mut PgConnection| JobFile::find(connection, person.shop_id, job.number).unwrap();
    let file = found(&mut connection);
    assert_eq!(file.case().not_converted(Phase::Found).len(), 1);
    assert_eq!(file.work.found().clone().height(End::Front, LoadState::Empty), None);
    all.extend(at(Spot { place: Place::HubFront, ..LEFT }, &[("14 1/2", 14.5)]));
    reading::replace(&mut connection, &person, job.id, Phase::Found, &all, "").unwrap();
    let front = found(&mut connection).work.found().clone().height(End::Front, LoadState::Empty).unwrap();
    assert!((front.value.value - 20.5 * INCH).abs() < 1e-12, "{front:?}");
}

#[test]
fn no_reading_can_point_into_another_shop() {
    let mut bench = TestShop::new();
    let stranger = bench.stranger();
    let connection = &mut bench.connection;
    let refused = connection.transaction(|connection| {
        reading::replace(connection, &stranger, bench.job.id, Phase::Found, &at(LEFT, &[("21", 21.0)]), "")
    });
    assert!(refused.is_err());
    let count = diesel::sql_query("SELECT count(*) AS count FROM readings").get_result::<Count>(connection).unwrap();
    assert_eq!(count.count, 0);
}

#[derive(QueryableByName)]
struct Count {
    #[diesel(sql_type = BigInt)]
    count: i64,
}
