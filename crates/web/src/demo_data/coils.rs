//! A wagon on rear coils that carries its kit every day, and a pickup that is to be raised at both ends.

use std::collections::BTreeMap;

use chrono::Utc;
use wise_badger_casework::entry::{
    AimSheet, CorrectionEntry, FigureEntry, GoalEntry, IntakeSheetEntry, LoadEntry, OptionEntry, PartEntry, SettingEntry, Typed,
    UnitWord, WhenEntry,
};
use wise_badger_casework::entry::{Answer, TickEntry};
use wise_badger_casework::survey::{Complaint, LoadState, SpringKind, VehicleClass};
use wise_badger_mechanics::correction::{Axles, KindRow, Site, bags_in_coils, leaf_by_lift, new_coils, strut_spacer};
use wise_badger_mechanics::tape::{Datum, LengthUnit, parse_pressure};
use wise_badger_mechanics::units::InShopUnits;
use wise_badger_store::person::Person;
use wise_badger_store::{PgConnection, correction, job_sheet, wrench_tick};

use super::{DemoError, Walk, choose, length, open, put_on, rate, tape, weight};

/// Bags, set softer empty than with the kit in, against new coils.
pub(super) fn kit_wagon(connection: &mut PgConnection, technician: &Person) -> Result<(), DemoError> {
    let job = open(
        connection,
        technician,
        "Survey crew's wagon, tail down once the kit is in",
        VehicleClass::Wagon,
        "113",
        ["3,080", "3,860"],
        Some(["2,510", "2,270"]),
    )?;
    let asked = IntakeSheetEntry {
        front_spring: Some(SpringKind::Coil),
        rear_spring: Some(SpringKind::Coil),
        complaint_words: "Nose in the air with the tripods and batteries in; thumps at the gate.".to_owned(),
        complaints: vec![Complaint::LowLoaded, Complaint::Bottoms],
        upkeep: Some(true),
        no_earlier_work: true,
        ..IntakeSheetEntry::default()
    };
    job_sheet::replace(connection, technician, job.id, &asked)?;
    let heights = Walk { front: ["34 1/16", "34 1/8"], rear: ["35 3/4", "35 11/16"] };
    let loaded = Walk { front: ["34 1/4", "34 5/16"], rear: ["33 5/8", "33 9/16"] };
    tape(connection, technician, &job, Datum::GroundToArch, [&heights, &loaded], [Some("3 1/16"), Some("1 1/4")])?;
    put_on(connection, technician, &job, "640", "7", false)?;
    let rake = GoalEntry::LevelLoaded { rake: length("3/4")?, tolerance: length("1/2")? };
    job_sheet::replace(connection, technician, job.id, &AimSheet::from(rake))?;
    let bags = CorrectionEntry::of(
        &bags_in_coils::ROW,
        [
            ("diameter", length("3 3/8")?.into()),
            ("height", length("8")?.into()),
            ("pressure", pressure("6")?.into()),
            ("least_pressure", pressure("5")?.into()),
            ("most_pressure", pressure("35")?.into()),
        ],
    )?;
    let more_air = SettingEntry { when: WhenEntry::State(LoadState::Loaded), value: pressure("24")? };
    let bags =
        OptionEntry { name: String::new(), parts: vec![PartEntry { settings: vec![more_air], ..PartEntry::by_itself(bags) }] };
    correction::consider(connection, technician, job.id, &bags)?;
    let coils = CorrectionEntry::of(
        &new_coils::ROW,
        [
            ("lift", length("1 1/4")?.into()),
            ("old_lift", length("0")?.into()),
            ("set", length("1/2")?.into()),
            ("added_rate", rate("70")?.into()),
        ],
    )?;
    correction::consider(connection, technician, job.id, &coils.into())?;
    Ok(())
}

/// Spacers on the front struts and a leaf more behind, as one option.
pub(super) fn both_ends(connection: &mut PgConnection, technician: &Person) -> Result<(), DemoError> {
    let job = open(
        connection,
        technician,
        "Orchard's pickup, higher at both ends",
        VehicleClass::MidSizePickup,
        "127",
        ["3,120", "3,430"],
        Some(["2,480", "1,860"]),
    )?;
    let asked = IntakeSheetEntry {
        front_spring: Some(SpringKind::Coil),
        rear_spring: Some(SpringKind::Leaf),
        rear_spring_over: Some(true),
        complaint_words: "Belly catches between the rows, worst with crates in the bed.".to_owned(),
        complaints: vec![Complaint::LowEmpty, Complaint::LowLoaded],
        no_earlier_work: true,
        ..IntakeSheetEntry::default()
    };
    job_sheet::replace(connection, technician, job.id, &asked)?;
    let heights = Walk { front: ["33 1/4", "33 3/16"], rear: ["34 7/8", "34 13/16"] };
    let loaded = Walk { front: ["33 3/8", "33 5/16"], rear: ["32 15/16", "32 7/8"] };
    tape(connection, technician, &job, Datum::GroundToArch, [&heights, &loaded], [Some("3 1/2"), Some("1 13/16")])?;
    job_sheet::replace(connection, technician, job.id, &super::rolled(Some(crates()?)))?;
    let rake = GoalEntry::LevelLoaded { rake: length("1/4")?, tolerance: length("3/4")? };
    job_sheet::replace(connection, technician, job.id, &AimSheet::from(rake))?;
    let struts = [
        ("thickness", length("3/4")?.into()),
        ("pivot_to_strut", length("8 1/4")?.into()),
        ("pivot_to_wheel", length("15 1/2")?.into()),
    ];
    let leaf = [("lift", length("1 1/4")?.into()), ("capacity", weight("500")?.into()), ("working_travel", length("6")?.into())];
    let parts = [part(&strut_spacer::ROW, Axles::Front, struts)?, part(&leaf_by_lift::ROW, Axles::Rear, leaf)?];
    let option = OptionEntry { name: "Up at both ends".to_owned(), parts: parts.into() };
    let chosen = correction::consider(connection, technician, job.id, &option)?;
    choose(connection, technician, &job, chosen)?;
    // Its parts came this morning, and it is on its stands.
    let begun = [
        ("card.lifting", Answer::Chosen("floor".to_owned())),
        ("part.option.0", Answer::Done),
        ("part.option.1", Answer::Done),
        ("parts_checked", Answer::Yes),
        ("leveling_off", Answer::Yes),
        ("threads_soaked", Answer::Done),
        ("tip_back", Answer::Yes),
        ("rear.chocked", Answer::Yes),
        ("rear.lug_nuts_cracked", Answer::Done),
        ("rear.raised", Answer::Done),
    ];
    for (place, (step, answer)) in begun.into_iter().enumerate() {
        let note = if step == "parts_checked" { "lead: the rest comes at noon" } else { "" };
        let tick = TickEntry { step: step.to_owned(), answer, note: note.to_owned() };
        wrench_tick::take(connection, technician, job.id, &format!("demo-tick-{place}"), Utc::now(), &tick)?;
    }
    Ok(())
}

fn crates() -> Result<LoadEntry, DemoError> {
    Ok(LoadEntry::Placed { weight: weight("560")?, distance: length("5")?, ahead: false })
}

fn part<const N: usize>(row: &'static KindRow, axles: Axles, figures: [(&str, FigureEntry); N]) -> Result<PartEntry, DemoError> {
    let figures: BTreeMap<String, FigureEntry> = figures.into_iter().map(|(name, figure)| (name.to_owned(), figure)).collect();
    let correction = CorrectionEntry::new(row, Site { axles, side: None }, figures)?;
    Ok(PartEntry::by_itself(correction))
}

fn pressure(text: &str) -> Result<Typed, DemoError> {
    let si = parse_pressure(text, LengthUnit::Inches)?.si();
    Ok(Typed { text: text.to_owned(), unit: UnitWord::Psi, si })
}
