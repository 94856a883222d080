//! Papers that were signed, the shop's terms, and what of the work goes along in a job's document.

use chrono::Utc;
use wise_badger_casework::entry::{
    Answer, Currency, ExtraEntry, MoneyEntry, PaperEntry, PaperSection, PaperWord, TickEntry, WorkPlanEntry,
};
use wise_badger_casework::job_document::JobDocument;
use wise_badger_casework::reading::{Phase, Place, Reading, Spot};
use wise_badger_casework::survey::LoadState;
use wise_badger_casework::work_plan::ShopTerms;
use wise_badger_mechanics::tape::Datum;
use wise_badger_store::job_file::JobFile;
use wise_badger_store::{StoreError, job_document, job_sheet, paper, reading, shop, wrench_tick};

use crate::{TestShop, inches};

pub(crate) fn estimate(line: &str) -> PaperEntry {
    let section = PaperSection { title: "Cost".to_owned(), lines: vec![line.to_owned()] };
    PaperEntry {
        paper: PaperWord::Estimate,
        sections: vec![section],
        signed_by: "A. Owner".to_owned(),
        drawn: Some("M 10 80 L 60 40".parse().unwrap()),
    }
}

#[test]
fn a_later_paper_stands_beside_the_one_before_and_a_stranger_sees_neither() {
    let mut shop = TestShop::new();
    let stranger = shop.stranger();
    let (connection, person, job) = (&mut shop.connection, &shop.person, &shop.job);
    for line in ["US$ 640", "US$ 700"] {
        paper::keep(connection, person, job.id, &estimate(line)).unwrap();
    }
    let kept = paper::of_job(connection, person.shop_id, job.id).unwrap();
    let lines: Vec<&str> = kept.iter().map(|paper| paper.entry.0.sections[0].lines[0].as_str()).collect();
    assert_eq!(lines, ["US$ 640", "US$ 700"]);
    assert!(paper::of_job(connection, stranger.shop_id, job.id).unwrap().is_empty());
    for _ in 2..paper::MOST {
        paper::keep(connection, person, job.id, &estimate("again")).unwrap();
    }
    let full = paper::keep(connection, person, job.id, &estimate("one too many"));
    assert!(matches!(full, Err(StoreError::Full { .. })), "{full:?}");
}

#[test]
fn terms_are_those_of_a_shop_and_of_no_other() {
    let mut shop = TestShop::new();
    let stranger = shop.stranger();
    let (connection, person) = (&mut shop.connection, &shop.person);
    assert_eq!(shop::terms(connection, person.shop_id).unwrap(), ShopTerms::default());
    let hourly = Some(MoneyEntry::of(11_800, Currency::Usd));
    let terms = ShopTerms { hourly, tax_on_parts: 6.25, saturdays: true, ..ShopTerms::default() };
    shop::set_terms(connection, person, &terms).unwrap();
    assert_eq!(shop::terms(connection, person.shop_id).unwrap(), terms);
    assert_eq!(shop::terms(connection, stranger.shop_id).unwrap(), ShopTerms::default());
}

/// Plan, ticks, papers and all three proofs go out with a job and come in again as the same.
#[test]
fn the_work_goes_along_with_a_job() {
    let mut shop = TestShop::new();
    let (connection, person, job) = (&mut shop.connection, &shop.person, &shop.job);
    let extra = ExtraEntry {
        what: "Shocks".to_owned(),
        proposal: String::new(),
        price: Some(MoneyEntry::of(18_000, Currency::Usd)),
        hours: Some(0.5),
        agreed: Some(false),
        said_by: "owner".to_owned(),
    };
    let plan = WorkPlanEntry { extras: vec![extra], took_hours: Some(4.5), ..WorkPlanEntry::default() };
    job_sheet::replace(connection, person, job.id, &plan).unwrap();
    for (phase, height) in [(Phase::Fitted, 38.5), (Phase::Driven, 38.375), (Phase::Settled, 38.25)] {
        let spot = Spot { phase, state: LoadState::Loaded, place: Place::RearLeft };
        let read = Reading { spot, datum: Datum::GroundToArch, value: inches(&height.to_string(), height) };
        reading::replace(connection, person, job.id, phase, &[read], "").unwrap();
    }
    for (key, step) in [("device-a-1", "rear.chocked"), ("device-a-2", "rear.raised")] {
        let tick = TickEntry { step: step.to_owned(), answer: Answer::Yes, note: "both ways".to_owned() };
        wrench_tick::take(connection, person, job.id, key, Utc::now(), &tick).unwrap();
    }
    paper::keep(connection, person, job.id, &estimate("US$ 640")).unwrap();
    let document = job_document::export(connection, person.shop_id, job.number).unwrap();
    let read = JobDocument::read(&serde_json::to_string(&document).unwrap()).unwrap();
    let taken_in = job_document::take_in(connection, person, &read).unwrap();
    assert_eq!(JobFile::find(connection, person.shop_id, taken_in.number).unwrap().case().work_plan, plan);
    let again = job_document::export(connection, person.shop_id, taken_in.number).unwrap();
    assert_eq!(again, document);
    assert_eq!((again.ticks.len(), again.papers.len(), again.readings.len()), (2, 1, 3));
    // A tick that names nobody of the shop is that of whoever took it in.
    let mut of_another = read;
    of_another.ticks[0].by = "Nobody Here".to_owned();
    let taken_in = job_document::take_in(connection, person, &of_another).unwrap();
    let ticks = wrench_tick::of_job(connection, person.shop_id, taken_in.id).unwrap();
    assert_eq!(ticks[0].recorded_by, person.id);
}
