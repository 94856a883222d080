//! A one-ton pickup with a slide-in water tank and pump: load plan, heights with the tank as full as it mostly is.

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

pub(super) fn water_tank(connection: &mut PgConnection, technician: &Person) -> Result<(), DemoError> {
    let job = open(
        connection,
        technician,
        "Forestry crew's pickup, sits low and leans with the water tank in",
        VehicleClass::OneTonPickup,
        "160",
        ["5,350", "6,830"],
        Some(["4,150", "3,040"]),
    )?;
    job_sheet::replace(connection, technician, job.id, &asked()?)?;
    job_sheet::replace(connection, technician, job.id, &plan()?)?;
    job_sheet::replace(connection, technician, job.id, &looked_over()?)?;
    let heights = Walk { front: ["38 1/4", "38 3/16"], rear: ["40 7/16", "40 5/16"] };
    let loaded = Walk { front: ["38 1/16", "38"], rear: ["37 1/16", "37 9/16"] };
    tape(connection, technician, &job, Datum::GroundToArch, [&heights, &loaded], [Some("4 1/8"), Some("1 9/16")])?;
    job_sheet::replace(connection, technician, job.id, &rolled(Some(LoadEntry::Planned { case: USUAL })))?;
    let rake = GoalEntry::LevelLoaded { rake: length("1/2")?, tolerance: length("1/2")? };
    job_sheet::replace(connection, technician, job.id, &AimSheet::from(rake))?;
    let leaf =
        CorrectionEntry::of(&added_leaf::ROW, [("pair_rate", super::rate("240")?.into()), ("lift", length("3/4")?.into())])?;
    correction::consider(connection, technician, job.id, &leaf.into())?;
    Ok(())
}

fn plan() -> Result<LoadPlanEntry, DemoError> {
    let case =
        |key, name: &str, with| CaseEntry { key, name: name.to_owned(), front_scale: None, rear_scale: None, with, later: false };
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
            cases: vec![USUAL],
            usual: false,
        })
    };
    let water = |name: &str, amount: &str, height: &str, cases| -> Result<ItemEntry, DemoError> {
        Ok(ItemEntry {
            liquid: Some(LiquidWord::Water),
            amount: gallons(amount)?,
            height: Some(length(height)?),
            cases,
            ..thing(name, "1", "3", true)?
        })
    };
    let skid = ItemEntry { height: Some(length("46")?), ..thing("Tank on its skid", "390", "11", true)? };
    let pump = ItemEntry {
        lateral: Some(length("21")?),
        left: true,
        height: Some(length("43")?),
        ..thing("Pump and hose reel", "345", "27", false)?
    };
    let two = ItemEntry { height: Some(length("41")?), ..thing("Two up front", "370", "91", true)? };
    let half = water("Water, half the tank", "150", "42", vec![USUAL])?;
    let rest = water("Water, the rest", "130", "57", vec![FULL])?;
    let tongue = ItemEntry {
        on_hitch: true,
        height: Some(length("21")?),
        cases: vec![TOWING],
        ..thing("Chipper tongue", "310", "55", false)?
    };
    let saws =
        ItemEntry { always: true, cases: Vec::new(), height: Some(length("47")?), ..thing("Box of saws", "135", "38", true)? };
    Ok(LoadPlanEntry {
        cases: vec![
            case(USUAL, "Usual", None),
            case(FULL, "Tank full", Some(USUAL)),
            case(TOWING, "Towing the chipper", Some(USUAL)),
        ],
        items: vec![skid, pump, two, half, rest, tongue, saws],
    })
}

fn asked() -> Result<IntakeSheetEntry, DemoError> {
    Ok(IntakeSheetEntry {
        driven: Some(DrivenWord::All),
        front_spring: Some(SpringKind::Coil),
        rear_spring: Some(SpringKind::Leaf),
        rear_spring_over: Some(true),
        front_tyre: "LT265/70R17".to_owned(),
        rear_tyre: "LT265/70R17".to_owned(),
        rear_tyre_rating: Some(weight("3,410")?),
        rear_wheel_rating: Some(weight("3,500")?),
        hitch_rating: Some(weight("1,000")?),
        rear_track: Some(length("67")?),
        rear_overhang: Some(length("50")?),
        sound_rear: Some(length("41 5/8")?),
        complaint_words: "Tail down and left side low with water aboard; wallows on the landing road, lights in the treetops."
            .to_owned(),
        complaints: vec![Complaint::LowLoaded, Complaint::Leans, Complaint::LightsHigh],
        budget: Some(MoneyEntry { text: "1,650".to_owned(), hundredths: 165_000, currency: Currency::Usd }),
        budget_words: "tank rack not in it".to_owned(),
        wanted_by: Some(DayEntry { text: "5/7/2027".to_owned(), day: "2027-05-07".to_owned() }),
        wanted_words: "before the fire season".to_owned(),
        upkeep: Some(false),
        removable: Some(false),
        first: Some(FirstWord::Stability),
        shares: vec![
            ShareEntry { of: ShareOf::Empty, percent: 35 },
            ShareEntry { of: ShareOf::Case(USUAL), percent: 45 },
            ShareEntry { of: ShareOf::Case(FULL), percent: 12 },
            ShareEntry { of: ShareOf::Case(TOWING), percent: 8 },
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
