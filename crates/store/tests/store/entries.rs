//! Loads, aims, corrections and choices: one stands, the rest stay on record.

use diesel::prelude::*;
use diesel::sql_types::BigInt;
use wise_badger_casework::entry::{
    AimSheet, CorrectionEntry, GoalEntry, LoadEntry, OptionEntry, PredictedHeights, TypedTable, UnitWord,
};
use wise_badger_casework::prediction::Predictor;
use wise_badger_casework::survey::LoadPut;
use wise_badger_mechanics::correction::{Correction, LiftBlock};
use wise_badger_mechanics::correction::{added_leaf, helper_spring, lift_block, load_rubber, rearched_pack};
use wise_badger_mechanics::units::{InShopUnits, inches as to_inches};
use wise_badger_store::job_file::JobFile;
use wise_badger_store::{PgConnection, StoreError, correction, fitting, job_sheet};

use crate::{INCH, POUND, TestShop, inches, pounds, with_load};

pub(crate) fn rows(connection: &mut PgConnection, table: &str) -> i64 {
    #[derive(QueryableByName)]
    struct Count {
        #[diesel(sql_type = BigInt)]
        count: i64,
    }
    let query = format!("SELECT count(*) AS count FROM {table}");
    diesel::sql_query(query).get_result::<Count>(connection).unwrap().count
}

fn placed(ahead: bool) -> LoadEntry {
    LoadEntry::Placed { weight: pounds("1,000", 1000.0), distance: inches("12", 12.0), ahead }
}

#[test]
fn a_new_load_takes_the_old_ones_place_and_the_old_one_stays() {
    let TestShop { mut connection, person, job, database: _database, .. } = TestShop::new();
    let weighed = LoadEntry::Weighed {
        rear_empty: pounds("2,300", 2300.0),
        rear_loaded: pounds("3,310", 3310.0),
        front_empty: None,
        front_loaded: None,
    };
    for entry in [placed(true), placed(true), weighed.clone()] {
        job_sheet::replace(&mut connection, &person, job.id, &with_load(Some(entry))).unwrap();
    }
    let standing = |connection: &mut PgConnection| {
        let file = JobFile::find(connection, person.shop_id, job.number).unwrap();
        file.case().tape.load().cloned()
    };
    assert_eq!(standing(&mut connection), Some(weighed));
    assert_eq!(rows(&mut connection, "job_sheets"), 2, "an unchanged load is not put down twice");
    job_sheet::replace(&mut connection, &person, job.id, &with_load(None)).unwrap();
    assert_eq!(standing(&mut connection), None);
    assert_eq!(rows(&mut connection, "job_sheets"), 3, "what was said before stays");
}

#[test]
fn a_weight_ahead_of_the_axle_is_a_negative_distance_behind_it() {
    let Some(LoadPut::Placed { weight, behind_rear_axle }) = placed(true).load_put(None) else { panic!("placed") };
    assert!((weight.value - 1000.0 * POUND).abs() < 1e-9);
    assert!((behind_rear_axle.value + 12.0 * INCH).abs() < 1e-12);
    let Some(LoadPut::Placed { behind_rear_axle, .. }) = placed(false).load_put(None) else { panic!("placed") };
    assert!((behind_rear_axle.value - 12.0 * INCH).abs() < 1e-12);
}

#[test]
fn each_aim_comes_back_as_it_was_set() {
    let TestShop { mut connection, person, job, database: _database, .. } = TestShop::new();
    let aims = [
        GoalEntry::LevelLoaded { rake: inches("1/2", 0.5), tolerance: inches("1/4", 0.25) },
        GoalEntry::LevelEmpty { tolerance: inches("1/4", 0.25) },
        GoalEntry::StockHeight { rear: inches("37 1/2", 37.5), tolerance: inches("1/4", 0.25) },
        GoalEntry::RecoverSag { percent: 60.0, tolerance: inches("1/4", 0.25) },
        GoalEntry::Clearance {
            point: "step".to_owned(),
            distance: inches("48", 48.0),
            ahead: false,
            measured: inches("9", 9.0),
            wanted: inches("11", 11.0),
            tolerance: inches("1/4", 0.25),
        },
    ]
    .map(|entry| AimSheet { side_to_side: Some(inches("3/8", 0.375)), ..entry.into() });
    for entry in &aims {
        job_sheet::replace(&mut connection, &person, job.id, entry).unwrap();
        let file = JobFile::find(&mut connection, person.shop_id, job.number).unwrap();
        assert_eq!(file.case().aim.as_ref(), Some(entry));
    }
    assert_eq!(rows(&mut connection, "job_sheets"), 5);
}

/// Rows written before a field was thought of must still be read.
#[test]
fn documents_of_earlier_versions_are_still_read() {
    let TestShop { mut connection, person, job, database: _database, .. } = TestShop::new();
    let quantity = r#"{"text": "1/4", "unit": "in", "si": 0.00635}"#;
    let put = |connection: &mut PgConnection, table: &str, columns: &str, values: String| {
        let (shop, job, by) = (person.shop_id.0, job.id.0, person.id.0);
        let row = format!("INSERT INTO {table} (shop_id, job_id, recorded_by, {columns}) VALUES ({shop}, {job}, {by}, {values})");
        diesel::sql_query(row).execute(connection).unwrap();
    };
    let aim = format!(r#"'aim', '{{"goals": [{{"kind": "level_empty", "tolerance": {quantity}}}]}}'"#);
    put(&mut connection, "job_sheets", "kind, entry", aim);
    put(&mut connection, "job_sheets", "kind, entry", r#"'intake', '{"complaint_words": "sits low"}'"#.to_owned());
    let file = JobFile::find(&mut connection, person.shop_id, job.number).unwrap();
    assert_eq!(file.case().aim, Some(GoalEntry::LevelEmpty { tolerance: inches("1/4", 0.25) }.into()));
    assert_eq!(file.case().sheet.complaint_words, "sits low");
    put(&mut connection, "job_sheets", "kind, entry", r#"'look_over', '{"findings": [{"area": "attic"}]}'"#.to_owned());
    let unreadable = JobFile::find(&mut connection, person.shop_id, job.number);
    assert!(matches!(unreadable, Err(wise_badger_store::StoreError::Unreadable { what: "look_over", .. })));
}

#[test]
fn each_correction_comes_back_as_what_the_sums_take() {
    let TestShop { mut connection, person, job, database: _database, .. } = TestShop::new();
    let table = TypedTable {
        text: "0;0\n1;500".to_owned(),
        length_unit: UnitWord::In,
        weight_unit: UnitWord::Lb,
        points_si: vec![(0.0, 0.0), (INCH, 500.0 * POUND)],
    };
    let entries = [
        CorrectionEntry::of(&lift_block::ROW, [("thickness", inches("2", 2.0).into())]).unwrap(),
        CorrectionEntry::of(
            &helper_spring::ROW,
            [("pair_rate", inches("200", 200.0).into()), ("engagement_gap", inches("1", 1.0).into())],
        )
        .unwrap(),
        CorrectionEntry::of(&added_leaf::ROW, [("pair_rate", inches("90", 90.0).into()), ("lift", inches("-1/4", -0.25).into())])
            .unwrap(),
        CorrectionEntry::of(&load_rubber::ROW, [("clearance", inches("1/2", 0.5).into()), ("force", table.clone().into())])
            .unwrap(),
        CorrectionEntry::of(&rearched_pack::ROW, [("free_height_gained", inches("1 1/2", 1.5).into())]).unwrap(),
    ];
    let entries = entries.map(OptionEntry::from);
    for entry in &entries {
        correction::consider(&mut connection, &person, job.id, entry).unwrap();
    }
    let standing = correction::standing(&mut connection, person.shop_id, job.id).unwrap();
    assert_eq!(standing.iter().map(|considered| considered.entry.0.clone()).collect::<Vec<_>>(), entries);
    assert!(standing.iter().all(|considered| considered.entry.0.corrections(None).is_some()));
    let first = entries[0].corrections(None).unwrap();
    let thickness = first[0].account().length("thickness").unwrap();
    assert!((thickness.customary() - 2.0).abs() < 1e-12);
    let broken = TypedTable { points_si: vec![(0.0, 0.0)], ..table };
    let figures = [("clearance", inches("1/2", 0.5).into()), ("force", broken.into())];
    assert!(CorrectionEntry::of(&load_rubber::ROW, figures).unwrap().correction().is_none());
}

#[test]
fn a_correction_is_taken_off_the_list_and_put_back() {
    let mut bench = TestShop::new();
    let stranger = bench.stranger();
    let TestShop { connection, person, job, .. } = &mut bench;
    let block = CorrectionEntry::of(&lift_block::ROW, [("thickness", inches("2", 2.0).into())]).unwrap().into();
    let id = correction::consider(connection, person, job.id, &block).unwrap();
    let foreign = correction::withdraw(connection, &stranger, job.id, id);
    assert!(matches!(foreign, Err(StoreError::NotFound("correction"))));
    correction::withdraw(connection, person, job.id, id).unwrap();
    assert_eq!(correction::standing(connection, person.shop_id, job.id).unwrap(), []);
    correction::restore(connection, person, job.id, id).unwrap();
    assert_eq!(correction::standing(connection, person.shop_id, job.id).unwrap().len(), 1);
}

#[test]
fn the_prediction_is_kept_as_it_stood_when_chosen() {
    let TestShop { mut connection, person, job, database: _database, .. } = TestShop::new();
    crate::readings::put(&mut connection, &person, job.id, &[("21 1/2", 21.5)]);
    let block = CorrectionEntry::of(&lift_block::ROW, [("thickness", inches("2", 2.0).into())]).unwrap().into();
    let first = correction::consider(&mut connection, &person, job.id, &block).unwrap();
    let second = correction::consider(&mut connection, &person, job.id, &block).unwrap();
    let survey = JobFile::find(&mut connection, person.shop_id, job.number).unwrap().work.found().clone();
    let prediction = Predictor::new(&survey).predict(&Correction::at_the_rear(LiftBlock { thickness: to_inches(2.0) }));
    let predicted = PredictedHeights::of(&prediction);
    let rear = predicted.rear_empty.unwrap();
    assert!((rear.height_m - 23.5 * INCH).abs() < 1e-9 && rear.band_m > 0.0, "{rear:?}");
    assert!(predicted.rear_loaded.is_none() && !predicted.is_empty());
    for chosen in [first, second] {
        fitting::choose(&mut connection, &person, job.id, chosen, &predicted, None).unwrap();
    }
    let file = JobFile::find(&mut connection, person.shop_id, job.number).unwrap();
    let fitting = file.fitting.unwrap();
    assert_eq!((fitting.correction_id, fitting.predicted.0), (second, predicted));
    fitting::withdraw(&mut connection, &person, job.id).unwrap();
    assert_eq!(JobFile::find(&mut connection, person.shop_id, job.number).unwrap().fitting, None);
    assert_eq!(rows(&mut connection, "fittings"), 2);
}
