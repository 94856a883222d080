//! A one-ton pickup with a slide-in camper: load plan, heights with the usual load.

use wise_badger_casework::entry::{
    AimSheet, CaseEntry, CorrectionEntry, Currency, DayEntry, DrivenWord, FindingEntry, FirstWord, GoalEntry, IntakeSheetEntry,
    ItemEntry, LiquidWord, LoadEntry, LoadPlanEntry, LookOverEntry, MeasuredEntry, MoneyEntry, ShareEntry, ShareOf, Typed,
    UnitWord,
};
use wise_badger_casework::look_over::{Area, Defect, Grade, Measure};
use wise_badger_casework::survey::{Complaint, SpringKind, VehicleClass};
use wise_badger_mechanics::correction::added_leaf;
use wise_badger_mechanics::tape::{Datum, WeightUnit, parse_volume};
use wise_badger_mechanics::units::InShopUnits;
use wise_badger_store::person::Person;
use wise_badger_store::{PgConnection, correction, job_sheet};

use super::{DemoError, Walk, length, open, rolled, tape, weight};

const USUAL: u8 = 1;
const FULL: u8 = 2;
const TOWING: u8 = 3;

pub(super) fn camper(connection: &mut PgConnection, technician: &Person) -> Result<(), DemoError> {
    let job = open(
        connection,
        technician,
        "Orchard family's pickup, sits low and leans with the camper in",
        VehicleClass::OneTonPickup,
        "172",
        ["5,600", "7,050"],
        Some(["4,280", "3,120"]),
    )?;
    job_sheet::replace(connection, technician, job.id, &asked()?)?;
    job_sheet::replace(connection, technician, job.id, &plan()?)?;
    job_sheet::replace(connection, technician, job.id, &looked_over()?)?;
    let heights = Walk { front: ["39 5/8", "39 5/8"], rear: ["42 1/8", "41 15/16"] };
    let loaded = Walk { front: ["39 3/8", "39 7/16"], rear: ["38 1/4", "38 5/8"] };
    tape(connection, technician, &job, Datum::GroundToArch, [&heights, &loaded], [Some("4 3/4"), Some("2")])?;
    job_sheet::replace(connection, technician, job.id, &rolled(Some(LoadEntry::Planned { case: USUAL })))?;
    let rake = GoalEntry::LevelLoaded { rake: length("1/2")?, tolerance: length("1/2")? };
    job_sheet::replace(connection, technician, job.id, &AimSheet::from(rake))?;
    let leaf =
        CorrectionEntry::of(&added_leaf::ROW, [("pair_rate", super::rate("240")?.into()), ("lift", length("3/4")?.into())])?;
    correction::consider(connection, technician, job.id, &leaf.into())?;
    Ok(())
}

fn plan() -> Result<LoadPlanEntry, DemoError> {
    let case = |key, name: &str| CaseEntry { key, name: name.to_owned(), front_scale: None, rear_scale: None, with: None };
    let thing = |name: &str, pounds: &str, inches: &str, ahead| -> Result<ItemEntry, DemoError> {
        Ok(ItemEntry {
            name: name.to_owned(),
            liquid: None,
            amount: weight(pounds)?,
            distance: length(inches)?,
            ahead,
            lateral: None,
            left: false,
            height: None,
            on_hitch: false,
            always: false,
            cases: vec![USUAL, FULL, TOWING],
            usual: false,
        })
    };
    let camper = ItemEntry { height: Some(length("62")?), ..thing("Slide-in camper", "2,780", "2", true)? };
    let water = ItemEntry {
        liquid: Some(LiquidWord::Water),
        amount: gallons("32")?,
        lateral: Some(length("24")?),
        left: true,
        height: Some(length("48")?),
        cases: vec![FULL, TOWING],
        ..thing("Water tank", "1", "10", true)?
    };
    let stove = ItemEntry {
        lateral: Some(length("26")?),
        left: true,
        height: Some(length("54")?),
        ..thing("Stove and fridge", "240", "6", false)?
    };
    let two = ItemEntry { height: Some(length("40")?), ..thing("Two up front", "300", "98", true)? };
    let tongue = ItemEntry {
        on_hitch: true,
        height: Some(length("20")?),
        cases: vec![TOWING],
        ..thing("Boat trailer tongue", "380", "58", false)?
    };
    let toolbox =
        ItemEntry { always: true, cases: Vec::new(), height: Some(length("44")?), ..thing("Box of chains", "120", "40", true)? };
    Ok(LoadPlanEntry {
        cases: vec![case(USUAL, "Usual"), case(FULL, "Water full"), case(TOWING, "With the boat")],
        items: vec![camper, stove, two, water, tongue, toolbox],
    })
}

fn asked() -> Result<IntakeSheetEntry, DemoError> {
    Ok(IntakeSheetEntry {
        driven: Some(DrivenWord::All),
        front_spring: Some(SpringKind::Coil),
        rear_spring: Some(SpringKind::Leaf),
        rear_spring_over: Some(true),
        front_tyre: "LT275/70R18".to_owned(),
        rear_tyre: "LT275/70R18".to_owned(),
        rear_tyre_rating: Some(weight("3,640")?),
        rear_wheel_rating: Some(weight("3,650")?),
        hitch_rating: Some(weight("1,200")?),
        rear_track: Some(length("68")?),
        rear_overhang: Some(length("52")?),
        sound_rear: Some(length("43 1/4")?),
        complaint_words: "Squats and leans to the driver's side once the camper is in; people flash their lights at us."
            .to_owned(),
        complaints: vec![Complaint::LowLoaded, Complaint::Leans, Complaint::LightsHigh],
        budget: Some(MoneyEntry { text: "1,400".to_owned(), hundredths: 140_000, currency: Currency::Usd }),
        budget_words: "under two days' work".to_owned(),
        wanted_by: Some(DayEntry { text: "5/7/2027".to_owned(), day: "2027-05-07".to_owned() }),
        wanted_words: String::new(),
        upkeep: Some(false),
        removable: Some(false),
        first: Some(FirstWord::Stability),
        shares: vec![
            ShareEntry { of: ShareOf::Empty, percent: 55 },
            ShareEntry { of: ShareOf::Case(USUAL), percent: 30 },
            ShareEntry { of: ShareOf::Case(FULL), percent: 10 },
            ShareEntry { of: ShareOf::Case(TOWING), percent: 5 },
        ],
        no_earlier_work: true,
        ..IntakeSheetEntry::default()
    })
}

fn looked_over() -> Result<LookOverEntry, DemoError> {
    let found = |area, grade, defects: &[Defect], words: &str| FindingEntry {
        area,
        grade,
        defects: defects.to_vec(),
        measured: Vec::new(),
        words: words.to_owned(),
    };
    let fine = [
        Area::CentreBolt,
        Area::Clips,
        Area::ShacklesAndHangers,
        Area::Frame,
        Area::AntiRollBar,
        Area::TyresAndWheels,
        Area::Driveline,
    ];
    let mut findings: Vec<FindingEntry> = fine.into_iter().map(|area| found(area, Grade::Fine, &[], "")).collect();
    findings.extend([
        found(Area::Leaves, Grade::Watch, &[Defect::LeafPitted], "Rust step under the second leaf, left."),
        found(Area::EyesAndBushes, Grade::Fine, &[], ""),
        found(Area::UBoltsAndSeats, Grade::PutRight, &[Defect::UBoltStretched], "Necked below the nut, left front."),
        found(Area::BumpStops, Grade::Watch, &[Defect::StopHasBeenHitting], "Bright spot, left."),
        found(Area::Shocks, Grade::Fine, &[], ""),
    ]);
    findings.push(FindingEntry {
        measured: vec![MeasuredEntry { what: Measure::HoseSlack, value: length("3/4")? }],
        ..found(Area::HosesAndWires, Grade::PutRight, &[], "")
    });
    findings.sort_by_key(|finding| Area::ALL.iter().position(|area| *area == finding.area));
    Ok(LookOverEntry { findings, repairs: Vec::new() })
}

fn gallons(text: &str) -> Result<Typed, DemoError> {
    let si = parse_volume(text, WeightUnit::Pounds)?.si();
    Ok(Typed { text: text.to_owned(), unit: UnitWord::Gal, si })
}
