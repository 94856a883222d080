//! The record itself: nothing without a figure is kept, one unreadable row harms nobody else, and every change has its history.

use chrono::{TimeDelta, Utc};
use diesel::prelude::*;
use wise_badger_casework::entry::{
    AimSheet, BenchEntry, CorrectionEntry, GoalEntry, LeafEntry, OptionEntry, PackEntry, Typed, UnitWord,
};
use wise_badger_casework::intake::Intake;
use wise_badger_mechanics::correction::lift_block;
use wise_badger_store::history::{self, Deed, Event};
use wise_badger_store::job::{self};
use wise_badger_store::job_file::JobFile;
use wise_badger_store::job_list::Which;
use wise_badger_store::{PgConnection, StoreError, correction, fitting, job_list, job_record, job_sheet, photograph};

use crate::entries::rows;
use crate::{TestShop, inches, intake, pounds};

/// By whatever rules jobs are reckoned.
const RULES: &str = "these";

fn pack(thickness: f64) -> PackEntry {
    let typed = |si| Some(Typed { text: "1".to_owned(), unit: UnitWord::In, si });
    let main = LeafEntry {
        name: "Main leaf".to_owned(),
        width: typed(0.06),
        thickness: typed(thickness),
        front: typed(0.7),
        rear: typed(0.7),
        ..LeafEntry::default()
    };
    let clamp = inches("3", 3.0);
    PackEntry {
        leaves: vec![main],
        clamp_front: clamp.clone(),
        clamp_rear: clamp,
        pack_arch: None,
        helper: None,
        young_modulus_pa: None,
        overload: None,
    }
}

#[test]
fn a_figure_that_is_none_is_never_stored() {
    let TestShop { mut connection, person, job, database: _database } = TestShop::new();
    let connection = &mut connection;
    for none in [f64::NAN, f64::INFINITY, f64::NEG_INFINITY] {
        let bench = job_sheet::replace(connection, &person, job.id, &BenchEntry::found(pack(none)));
        assert!(matches!(bench, Err(StoreError::Unfit(_))), "{bench:?}");
        let optional = PackEntry { young_modulus_pa: Some(none), ..pack(0.008) };
        let bench = job_sheet::replace(connection, &person, job.id, &BenchEntry::found(optional));
        assert!(matches!(bench, Err(StoreError::Unfit(_))), "also where nothing might stand instead");
        let aimed = AimSheet::from(GoalEntry::RecoverSag { percent: none, tolerance: inches("1/4", 0.25) });
        assert!(job_sheet::replace(connection, &person, job.id, &aimed).is_err());
        assert!(correction::consider(connection, &person, job.id, &block(none)).is_err());
    }
    assert_eq!((rows(connection, "job_sheets"), rows(connection, "corrections")), (0, 0));
    job_sheet::replace(connection, &person, job.id, &BenchEntry::found(pack(0.008))).unwrap();
}

fn block(thickness: f64) -> OptionEntry {
    CorrectionEntry::of(
        &lift_block::ROW,
        [("thickness", Typed { text: "2".to_owned(), unit: UnitWord::In, si: thickness }.into())],
    )
    .unwrap()
    .into()
}

/// Spoils a job's bench as an older program could have left it.
fn spoil(connection: &mut PgConnection) {
    diesel::sql_query(
        "UPDATE job_sheets SET entry = jsonb_set(entry, '{found,leaves,0,thickness,si}', 'null') WHERE kind = 'bench'",
    )
    .execute(connection)
    .unwrap();
}

#[test]
fn one_unreadable_job_is_told_by_its_number_and_harms_no_other() {
    let TestShop { mut connection, person, job, database: _database } = TestShop::new();
    let connection = &mut connection;
    let sound = job::open(connection, &person, &intake("sound")).unwrap();
    job_sheet::replace(connection, &person, job.id, &BenchEntry::found(pack(0.008))).unwrap();
    spoil(connection);
    let read = JobFile::find(connection, person.shop_id, job.number);
    assert!(matches!(read, Err(StoreError::Unreadable { .. })), "{read:?}");
    assert!(JobFile::find(connection, person.shop_id, sound.number).is_ok());
    let listed = job_list::newest(connection, person.shop_id, &Which::Open, RULES, 10, None).unwrap();
    assert_eq!(listed.iter().map(|of| of.job.number.0).collect::<Vec<_>>(), [2, 1]);
    let begun = job_sheet::newest_of_shop::<BenchEntry>(connection, person.shop_id).unwrap();
    assert_eq!(begun, None, "a new pack begins without it");
    diesel::sql_query("UPDATE jobs SET wheelbase = '{}' WHERE number = 2").execute(connection).unwrap();
    assert!(matches!(job::find(connection, person.shop_id, sound.number), Err(StoreError::Unreadable { .. })));
    assert_eq!(
        job_list::newest(connection, person.shop_id, &Which::Open, RULES, 10, None).unwrap().len(),
        2,
        "the list still comes"
    );
}

#[test]
fn a_record_can_be_taken_along_as_it_stands_and_only_by_its_own_shop() {
    let mut bench = TestShop::new();
    let stranger = bench.stranger();
    let TestShop { connection, person, job, .. } = &mut bench;
    job_sheet::replace(connection, person, job.id, &BenchEntry::found(pack(0.008))).unwrap();
    crate::readings::put(connection, person, job.id, &[("21 1/2", 21.5)]);
    let new = photograph::NewPhotograph { subject: "leaves".to_owned(), jpeg: vec![1; 9], width: 3, height: 3 };
    photograph::keep(connection, person, job.id, &new).unwrap();
    spoil(connection);
    let record = job_record::as_it_stands(connection, person.shop_id, job.number).unwrap();
    assert_eq!(record["jobs"][0]["label"], "first");
    assert_eq!(record["readings"][0]["value_text"], "21 1/2");
    assert_eq!(record["job_sheets"][0]["entry"]["found"]["leaves"][0]["thickness"]["si"], serde_json::Value::Null);
    assert_eq!(record["photographs"][0]["subject"], "leaves");
    assert!(record["photographs"][0].get("jpeg").is_none());
    let theirs = job_record::as_it_stands(connection, stranger.shop_id, job.number);
    assert!(matches!(theirs, Err(StoreError::NotFound("job"))));
}

#[test]
fn every_change_says_who_and_from_what_to_what() {
    let TestShop { mut connection, person, job, database: _database } = TestShop::new();
    let connection = &mut connection;
    let heavier = Intake { rear_rating: pounds("4,500", 4500.0), ..intake("first") };
    job::set_intake(connection, &person, job.id, &heavier).unwrap();
    job::set_intake(connection, &person, job.id, &heavier).unwrap();
    let id = correction::consider(connection, &person, job.id, &block(0.05)).unwrap();
    fitting::choose(connection, &person, job.id, id, &Default::default(), None).unwrap();
    fitting::withdraw(connection, &person, job.id).unwrap();
    fitting::withdraw(connection, &person, job.id).unwrap();
    correction::withdraw(connection, &person, job.id, id).unwrap();
    correction::restore(connection, &person, job.id, id).unwrap();
    for tolerance in ["1/4", "1/2"] {
        let aimed = AimSheet::from(GoalEntry::LevelEmpty { tolerance: inches(tolerance, 0.25) });
        job_sheet::replace(connection, &person, job.id, &aimed).unwrap();
    }
    job::set_finished(connection, &person, job.id, true).unwrap();
    let events = events(connection, (&person, &job));
    let of = |deed: Deed| events.iter().filter(|event| event.deed == deed).collect::<Vec<_>>();
    let [changed] = of(Deed::VehicleChanged)[..] else { panic!("{events:#?}") };
    let [rating] = &changed.differences[..] else { panic!("{changed:?}") };
    assert_eq!(rating.place, "rear rating");
    assert_eq!((rating.before.as_deref(), rating.after.as_deref()), (Some("4,100 lb"), Some("4,500 lb")));
    assert_eq!(changed.by, person.id);
    for deed in [Deed::CorrectionOff, Deed::CorrectionBack, Deed::ChoiceOff, Deed::Finished] {
        assert_eq!(of(deed).len(), 1, "{deed:?}");
    }
    let tolerances: Vec<_> = of(Deed::Aimed).iter().flat_map(|event| &event.differences).collect();
    assert!(
        tolerances.iter().any(|d| d.before.as_deref() == Some("1/4 in") && d.after.as_deref() == Some("1/2 in")),
        "{tolerances:?}"
    );
}

#[test]
fn a_long_history_comes_in_stretches_that_miss_nothing() {
    let TestShop { mut connection, person, job, database: _database } = TestShop::new();
    let connection = &mut connection;
    for tolerance in 0..150 {
        let aimed = AimSheet::from(GoalEntry::LevelEmpty { tolerance: inches(&tolerance.to_string(), 0.25) });
        job_sheet::replace(connection, &person, job.id, &aimed).unwrap();
    }
    // All of them were put down in one transaction; a minute between each makes them a history.
    diesel::sql_query("UPDATE job_sheets SET recorded_at = now() - interval '1 minute' * (1000 - id)")
        .execute(connection)
        .unwrap();
    let (mut before, mut told, mut stretches) = (Utc::now() + TimeDelta::days(1), 0, 0);
    loop {
        let stretch = history::of_job(connection, person.shop_id, job.id, before).unwrap();
        assert!(stretch.events.len() <= 60);
        told += stretch.events.iter().filter(|event| event.deed == Deed::Aimed).count();
        stretches += 1;
        match stretch.earlier {
            Some(earlier) => before = earlier,
            None => break,
        }
    }
    assert_eq!((told, stretches), (150, 3));
}

#[test]
fn a_list_of_corrections_has_an_end() {
    let TestShop { mut connection, person, job, database: _database } = TestShop::new();
    let connection = &mut connection;
    let mut last = None;
    for _ in 0..correction::MOST {
        last = Some(correction::consider(connection, &person, job.id, &block(0.05)).unwrap());
    }
    let more = correction::consider(connection, &person, job.id, &block(0.05));
    assert!(matches!(more, Err(StoreError::Full { .. })));
    correction::withdraw(connection, &person, job.id, last.unwrap()).unwrap();
    correction::consider(connection, &person, job.id, &block(0.05)).unwrap();
    assert!(matches!(correction::restore(connection, &person, job.id, last.unwrap()), Err(StoreError::Full { .. })));
}

fn events(connection: &mut PgConnection, bench: (&wise_badger_store::person::Person, &job::Job)) -> Vec<Event> {
    history::of_job(connection, bench.0.shop_id, bench.1.id, Utc::now() + TimeDelta::days(1)).unwrap().events
}
