//! Sheets, photographs and the history of a job: replaced, kept, and nobody else's.

use chrono::{TimeDelta, Utc};
use wise_badger_casework::case::Case;
use wise_badger_casework::entry::{
    CaseEntry, DriveEntry, DrivenWord, Felt, FindingEntry, IntakeSheetEntry, ItemEntry, LiquidWord, LoadEntry, LoadPlanEntry,
    LookOverEntry, MeasuredEntry, ModificationEntry, Run, Score, ShareEntry, ShareOf, Typed, UnitWord,
};
use wise_badger_casework::intake::Intake;
use wise_badger_casework::look_over::{Addition, Area, Defect, Grade, Measure};
use wise_badger_casework::reading::{Phase, Place, Reading, Spot};
use wise_badger_casework::survey::{Complaint, End, LoadPut, LoadState, Modification};
use wise_badger_mechanics::tape::Datum;
use wise_badger_store::history::{self, Deed};
use wise_badger_store::job::{self};
use wise_badger_store::job_file::JobFile;
use wise_badger_store::job_sheet::Step;
use wise_badger_store::photograph::{self, NewPhotograph};
use wise_badger_store::reading::{self};
use wise_badger_store::{PgConnection, StoreError, job_sheet};

use crate::entries::rows;
use crate::{POUND, TestShop, inches, intake, pounds, with_load};

fn item(name: &str, amount: Typed, cases: &[u8]) -> ItemEntry {
    ItemEntry {
        name: name.to_owned(),
        liquid: None,
        amount,
        distance: inches("20", 20.0),
        ahead: true,
        lateral: Some(inches("10", 10.0)),
        left: true,
        height: None,
        on_hitch: false,
        always: false,
        cases: cases.to_vec(),
        usual: false,
    }
}

fn plan() -> LoadPlanEntry {
    let case = |key, name: &str, scale: Option<Typed>| CaseEntry {
        key,
        name: name.to_owned(),
        front_scale: None,
        rear_scale: scale,
        with: None,
        later: false,
    };
    let toolbox = ItemEntry { always: true, ..item("Toolbox", pounds("350", 350.0), &[]) };
    let water = ItemEntry {
        liquid: Some(LiquidWord::Water),
        amount: Typed { text: "100".to_owned(), unit: UnitWord::L, si: 0.1 },
        ..item("Water", pounds("", 0.0), &[2])
    };
    LoadPlanEntry {
        cases: vec![case(1, "Usual", None), case(2, "Full", Some(pounds("3,500", 3500.0)))],
        items: vec![item("Camper", pounds("2,780", 2780.0), &[1, 2]), water, toolbox],
    }
}

fn file(connection: &mut PgConnection, bench: &(wise_badger_store::ShopId, wise_badger_store::JobNumber)) -> Case {
    JobFile::find(connection, bench.0, bench.1).unwrap().case().clone()
}

#[test]
fn each_kind_of_sheet_comes_back_as_it_was_written_and_the_one_before_stays() {
    let TestShop { mut connection, person, job, database: _database, .. } = TestShop::new();
    let look_over = LookOverEntry {
        findings: vec![FindingEntry {
            area: Area::HosesAndWires,
            grade: Grade::PutRight,
            defects: vec![Defect::WireBrokenInSheath],
            measured: vec![MeasuredEntry { what: Measure::HoseSlack, value: inches("3/4", 0.75) }],
            words: "left".to_owned(),
        }],
        repairs: vec![Addition::NewUBolts],
    };
    let asked = IntakeSheetEntry {
        driven: Some(DrivenWord::All),
        complaints: vec![Complaint::Leans],
        sound_rear: Some(inches("22 1/2", 22.5)),
        modifications: vec![ModificationEntry { what: Modification::RearBlock, size: Some(inches("2", 2.0)) }],
        shares: vec![ShareEntry { of: ShareOf::Empty, percent: 50 }, ShareEntry { of: ShareOf::Full, percent: 10 }],
        ..IntakeSheetEntry::default()
    };
    let drive = DriveEntry {
        route: "mill lane".to_owned(),
        scores: vec![(Run::FoundLoaded, Felt::Sway, Score::Much)],
        ..DriveEntry::default()
    };
    for _ in 0..2 {
        job_sheet::replace(&mut connection, &person, job.id, &plan()).unwrap();
        job_sheet::replace(&mut connection, &person, job.id, &look_over).unwrap();
        job_sheet::replace(&mut connection, &person, job.id, &asked).unwrap();
        job_sheet::replace(&mut connection, &person, job.id, &drive).unwrap();
    }
    let here = (person.shop_id, job.number);
    let found = file(&mut connection, &here);
    assert_eq!((found.plan, found.look_over, found.sheet, found.drive), (Some(plan()), Some(look_over), asked, drive));
    assert_eq!(rows(&mut connection, "job_sheets"), 4, "an unchanged sheet is not put down twice");
    let fewer = LoadPlanEntry { items: Vec::new(), ..plan() };
    job_sheet::replace(&mut connection, &person, job.id, &fewer).unwrap();
    assert_eq!(file(&mut connection, &here).plan, Some(fewer));
    assert_eq!(rows(&mut connection, "job_sheets"), 5, "the one before stays on record");
}

#[test]
fn a_case_of_the_plan_makes_the_load_and_what_is_always_aboard_is_part_of_the_vehicle() {
    let TestShop { mut connection, person, job, database: _database, .. } = TestShop::new();
    let here = (person.shop_id, job.number);
    job_sheet::replace(&mut connection, &person, job.id, &plan()).unwrap();
    job_sheet::replace(&mut connection, &person, job.id, &with_load(Some(LoadEntry::Planned { case: 2 }))).unwrap();
    let found = file(&mut connection, &here);
    assert_eq!(found.names_aboard(), ["Camper", "Water"]);
    let Some(LoadPut::Planned { items, scale }) = found.load_put() else { panic!("planned") };
    // Ahead of the axle and left of the middle are negative; 100 L of water weigh 100 kg.
    assert!((items[0].behind_rear_axle.value + 20.0 * crate::INCH).abs() < 1e-12);
    assert!((items[0].lateral.value + 10.0 * crate::INCH).abs() < 1e-12);
    assert!((items[1].weight.value - 980.665).abs() < 1e-9);
    assert!(scale.rear.is_some_and(|rear| (rear.value - 3500.0 * POUND).abs() < 1e-9));
    assert_eq!(found.vehicle().always.len(), 1);
    // A case that was struck off is no load any more.
    let struck_off = LoadPlanEntry { cases: Vec::new(), ..plan() };
    job_sheet::replace(&mut connection, &person, job.id, &struck_off).unwrap();
    assert_eq!(file(&mut connection, &here).load_put(), None);
}

#[test]
fn corners_weighed_on_tape_make_the_empty_axle_and_the_scale_of_a_case() {
    let TestShop { mut connection, person, job, database: _database, .. } = TestShop::new();
    let here = (person.shop_id, job.number);
    // Nothing is stated at intake, so what was weighed on Tape counts.
    job::set_intake(&mut connection, &person, job.id, &Intake { kerb_rear: None, ..intake("first") }).unwrap();
    let weighed = |state, place, value: f64| Reading {
        spot: Spot { phase: Phase::Found, state, place },
        datum: Datum::HubToArch,
        value: pounds("scale", value),
    };
    let readings = [
        weighed(LoadState::Empty, Place::WeightRearLeft, 1150.0),
        weighed(LoadState::Empty, Place::WeightRearRight, 1100.0),
        weighed(LoadState::Loaded, Place::WeightRear, 3300.0),
    ];
    reading::replace(&mut connection, &person, job.id, Phase::Found, &readings, "").unwrap();
    job_sheet::replace(&mut connection, &person, job.id, &plan()).unwrap();
    job_sheet::replace(&mut connection, &person, job.id, &with_load(Some(LoadEntry::Planned { case: 1 }))).unwrap();
    let found = file(&mut connection, &here);
    let kerb = found.vehicle().kerb_weight(End::Rear).0;
    assert!((kerb.value - 2250.0 * POUND).abs() < 1e-9, "{kerb:?}");
    let survey = found.survey(Phase::Found);
    let change = survey.axle_loads().change.rear.unwrap().value;
    assert!((change.value - 1050.0 * POUND).abs() < 1e-9, "the scale counts for more than the plan: {change:?}");
}

#[test]
fn a_photograph_is_the_jobs_and_the_shops_own_and_taken_off_it_stays_on_record() {
    let mut bench = TestShop::new();
    let stranger = bench.stranger();
    let TestShop { connection, person, job, .. } = &mut bench;
    let new = NewPhotograph { subject: "leaves".to_owned(), jpeg: vec![0xFF, 0xD8], width: 40, height: 30 };
    let id = photograph::keep(connection, person, job.id, &new).unwrap();
    assert_eq!(photograph::jpeg(connection, person.shop_id, job.id, id).unwrap(), new.jpeg);
    assert!(matches!(photograph::jpeg(connection, stranger.shop_id, job.id, id), Err(StoreError::NotFound(_))));
    assert!(matches!(photograph::withdraw(connection, &stranger, job.id, id), Err(StoreError::NotFound(_))));
    photograph::withdraw(connection, person, job.id, id).unwrap();
    assert_eq!(photograph::of_job(connection, person.shop_id, job.id).unwrap(), []);
    assert!(matches!(photograph::jpeg(connection, person.shop_id, job.id, id), Err(StoreError::NotFound(_))), "not served");
    assert_eq!(rows(connection, "photographs"), 1);
    assert!(matches!(photograph::withdraw(connection, person, job.id, id), Err(StoreError::NotFound(_))));
}

#[test]
fn the_history_tells_who_did_what_and_counts_readings_taken_together() {
    let mut bench = TestShop::new();
    let colleague = bench.colleague();
    let TestShop { connection, person, job, .. } = &mut bench;
    crate::readings::put(connection, person, job.id, &[("21 1/2", 21.5), ("21 5/8", 21.625)]);
    crate::readings::put(connection, &colleague, job.id, &[("21 1/2", 21.5)]);
    job_sheet::replace(connection, &colleague, job.id, &plan()).unwrap();
    let events = history::of_job(connection, person.shop_id, job.id, Utc::now() + TimeDelta::days(1)).unwrap().events;
    let told: Vec<_> = events.iter().map(|event| (event.deed, event.by, event.count)).collect();
    for expected in [
        (Deed::Opened, person.id, 1),
        (Deed::Read, person.id, 2),
        (Deed::Corrected, colleague.id, 1),
        (Deed::Planned, colleague.id, 1),
    ] {
        assert!(told.contains(&expected), "{expected:?} in {told:?}");
    }
    assert!(events.is_sorted_by(|a, b| a.at >= b.at));
}

#[test]
fn a_step_back_leads_to_what_stood_before_and_a_new_sheet_from_there_has_its_own_way_back() {
    let TestShop { mut connection, person, job, database: _database, .. } = TestShop::new();
    let drive = |words: &str| DriveEntry { words: words.to_owned(), ..DriveEntry::default() };
    let stands = |connection: &mut PgConnection| file(connection, &(person.shop_id, job.number)).drive.words;
    let step = |connection: &mut PgConnection, way| job_sheet::step::<DriveEntry>(connection, &person, job.id, way).unwrap();
    let steps = |connection: &mut PgConnection| job_sheet::steps::<DriveEntry>(connection, person.shop_id, job.id).unwrap();
    assert_eq!(steps(&mut connection), [false, false]);
    step(&mut connection, Step::Back);
    for words in ["one", "two", "three"] {
        job_sheet::replace(&mut connection, &person, job.id, &drive(words)).unwrap();
    }
    assert_eq!(steps(&mut connection), [true, false]);
    step(&mut connection, Step::Back);
    step(&mut connection, Step::Back);
    assert_eq!((stands(&mut connection), steps(&mut connection)), ("one".to_owned(), [false, true]));
    step(&mut connection, Step::Back);
    assert_eq!(stands(&mut connection), "one", "there is nothing before the first");
    step(&mut connection, Step::Forward);
    assert_eq!(stands(&mut connection), "two");
    job_sheet::replace(&mut connection, &person, job.id, &drive("otherwise")).unwrap();
    step(&mut connection, Step::Back);
    assert_eq!(stands(&mut connection), "two", "and not three, which was gone back from");
    step(&mut connection, Step::Forward);
    assert_eq!(stands(&mut connection), "otherwise");
    assert_eq!(rows(&mut connection, "job_sheets"), 4, "every one stays on record");
}
