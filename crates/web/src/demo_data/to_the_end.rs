//! A pickup whose leaf was fitted, that came back once it had settled, and one whose work is planned and agreed to.

use chrono::{Local, TimeDelta, Utc};
use wise_badger_casework::casework::Casework;
use wise_badger_casework::entry::{
    AimSheet, Answer, CheckWord, CheckedWord, CorrectionEntry, Currency, DayEntry, DriveEntry, ExtraEntry, Felt, FindingEntry,
    GoalEntry, IntakeSheetEntry, LookOverEntry, MoneyEntry, PaperEntry, PaperSection, PaperWord, ProofSheetEntry, RaisedWord,
    Run, RustWord, Score, StandsEntry, SupplyEntry, SupplyWord, TickEntry, Typed, UnitWord, WorkPlanEntry,
};
use wise_badger_casework::look_over::{Area, Grade};
use wise_badger_casework::reading::Phase;
use wise_badger_casework::survey::{Complaint, SpringKind, VehicleClass};
use wise_badger_casework::wrench::{Asks, Card, Fastener, Needed};
use wise_badger_mechanics::correction::{helper_by_capacity, leaf_by_lift};
use wise_badger_mechanics::tape::{Datum, WeightUnit, parse_torque};
use wise_badger_store::job::Job;
use wise_badger_store::job_file::JobFile;
use wise_badger_store::person::Person;
use wise_badger_store::{PgConnection, correction, job, job_sheet, paper, reading, wrench_tick};

use super::{DemoError, Walk, choose, length, open, put_on, tape, walks, weight};

/// Tired rear, a leaf more: fitted, driven, and measured again when it came back for its U-bolts.
pub(super) fn came_back(connection: &mut PgConnection, technician: &Person, lead: &Person) -> Result<(), DemoError> {
    let job = open(
        connection,
        technician,
        "Well driller's pickup, drags its hitch with the rods on",
        VehicleClass::ThreeQuarterTonPickup,
        "149",
        ["4,650", "6,350"],
        Some(["3,540", "2,780"]),
    )?;
    sprung(connection, technician, &job, "Hitch on the road at every driveway with the rods on the rack.")?;
    let heights = Walk { front: ["38 1/16", "38"], rear: ["39 9/16", "39 1/2"] };
    let loaded = Walk { front: ["37 15/16", "37 7/8"], rear: ["36 13/16", "36 11/16"] };
    tape(connection, technician, &job, Datum::GroundToArch, [&heights, &loaded], [Some("3 3/16"), Some("1 1/16")])?;
    put_on(connection, technician, &job, "1,390", "3", true)?;
    job_sheet::replace(connection, technician, job.id, &looked_over())?;
    let aim = GoalEntry::LevelLoaded { rake: length("1/2")?, tolerance: length("3/4")? };
    job_sheet::replace(connection, technician, job.id, &AimSheet::from(aim))?;
    let leaf = [("lift", length("1 1/2")?.into()), ("capacity", weight("900")?.into()), ("working_travel", length("6")?.into())];
    let leaf = CorrectionEntry::of(&leaf_by_lift::ROW, leaf)?;
    let chosen = correction::consider(connection, lead, job.id, &leaf.into())?;
    choose(connection, lead, &job, chosen)?;
    job_sheet::replace(connection, lead, job.id, &planned(true)?)?;
    sign(connection, lead, &job, "M. Driller")?;
    done_to_the_end(connection, technician, &job)?;
    for (phase, walks_of) in [
        (Phase::Fitted, [["38 1/16", "38", "41 1/8", "41 1/16"], ["37 15/16", "37 15/16", "38 5/8", "38 9/16"]]),
        (Phase::Driven, [["38 1/16", "38", "41 1/16", "41"], ["37 15/16", "37 7/8", "38 9/16", "38 1/2"]]),
        (Phase::Settled, [["38", "38", "40 7/8", "40 13/16"], ["37 15/16", "37 7/8", "38 5/16", "38 1/4"]]),
    ] {
        let [empty, loaded] = walks_of.map(|[front_left, front_right, rear_left, rear_right]| Walk {
            front: [front_left, front_right],
            rear: [rear_left, rear_right],
        });
        let readings = walks(phase, Datum::GroundToArch, [&empty, &loaded], [None, None])?;
        reading::replace(connection, technician, job.id, phase, &readings, "")?;
    }
    let drive = DriveEntry {
        route: "Mill road, over the culvert and back by the quarry bend".to_owned(),
        scores: vec![
            (Run::FoundLoaded, Felt::Bottoming, Score::Much),
            (Run::FittedLoaded, Felt::Bottoming, Score::None),
            (Run::FoundLoaded, Felt::Sway, Score::Little),
            (Run::FittedLoaded, Felt::Sway, Score::Little),
        ],
        words: String::new(),
    };
    job_sheet::replace(connection, technician, job.id, &drive)?;
    let checked = |check| match check {
        CheckWord::Alignment => (check, CheckedWord::NotDone),
        CheckWord::BrakeValve => (check, CheckedWord::HasNone),
        _ => (check, CheckedWord::Done),
    };
    let proof = ProofSheetEntry { checks: CheckWord::ALL.map(checked).into(), ..ProofSheetEntry::default() };
    job_sheet::replace(connection, technician, job.id, &proof)?;
    Ok(job::set_finished(connection, lead, job.id, true)?)
}

/// The tongue of a chipper lifts its nose: helpers chosen, parts on their way, the estimate signed.
pub(super) fn nose_up(connection: &mut PgConnection, technician: &Person, lead: &Person) -> Result<(), DemoError> {
    let job = open(
        connection,
        technician,
        "Arborist's half-ton, nose in the air with the chipper on the hitch",
        VehicleClass::HalfTonPickup,
        "141",
        ["3,750", "3,950"],
        Some(["2,910", "2,140"]),
    )?;
    sprung(connection, technician, &job, "Lights in the trees and light steering with the chipper behind.")?;
    let heights = Walk { front: ["35 7/16", "35 7/16"], rear: ["37 7/16", "37 5/16"] };
    let loaded = Walk { front: ["35 15/16", "35 7/8"], rear: ["35 1/16", "34 15/16"] };
    tape(connection, technician, &job, Datum::GroundToArch, [&heights, &loaded], [Some("3 5/16"), Some("1 7/16")])?;
    put_on(connection, technician, &job, "640", "53", false)?;
    job_sheet::replace(connection, technician, job.id, &looked_over())?;
    let aim = GoalEntry::LevelLoaded { rake: length("1/4")?, tolerance: length("3/4")? };
    job_sheet::replace(connection, technician, job.id, &AimSheet::from(aim))?;
    let helpers = [
        ("capacity", weight("1,500")?.into()),
        ("working_travel", length("6")?.into()),
        ("engagement_gap", length("1/4")?.into()),
    ];
    let helpers = CorrectionEntry::of(&helper_by_capacity::ROW, helpers)?;
    let chosen = correction::consider(connection, lead, job.id, &helpers.into())?;
    choose(connection, lead, &job, chosen)?;
    job_sheet::replace(connection, lead, job.id, &planned(false)?)?;
    sign(connection, lead, &job, "T. Arborist")
}

fn sprung(connection: &mut PgConnection, person: &Person, job: &Job, complaint: &str) -> Result<(), DemoError> {
    let asked = IntakeSheetEntry {
        front_spring: Some(SpringKind::Coil),
        rear_spring: Some(SpringKind::Leaf),
        rear_spring_over: Some(true),
        complaint_words: complaint.to_owned(),
        complaints: vec![Complaint::LowLoaded],
        no_earlier_work: true,
        ..IntakeSheetEntry::default()
    };
    Ok(job_sheet::replace(connection, person, job.id, &asked)?)
}

/// Sound all over, but for shocks that are watched.
fn looked_over() -> LookOverEntry {
    let finding = |area: Area| FindingEntry {
        area,
        grade: if area == Area::Shocks { Grade::Watch } else { Grade::Fine },
        defects: Vec::new(),
        measured: Vec::new(),
        words: if area == Area::Shocks { "Damp at the left seal.".to_owned() } else { String::new() },
    };
    LookOverEntry { findings: Area::ALL.into_iter().map(finding).collect(), repairs: Vec::new() }
}

fn dollars(text: &str, hundredths: i64) -> MoneyEntry {
    MoneyEntry { text: text.to_owned(), hundredths, currency: Currency::Usd }
}

fn planned(done: bool) -> Result<WorkPlanEntry, DemoError> {
    let supply = |key: &str, stands, due: Option<DayEntry>, price| SupplyEntry {
        key: key.to_owned(),
        stands: Some(stands),
        due,
        price: Some(price),
    };
    let day = (Local::now() + TimeDelta::days(6)).date_naive();
    let coming = DayEntry { text: day.format("%-m/%-d/%Y").to_string(), day: day.format("%Y-%m-%d").to_string() };
    let coming = (!done).then_some(coming);
    let stands = if done { SupplyWord::OnTheShelf } else { SupplyWord::Ordered };
    Ok(WorkPlanEntry {
        rust: Some(RustWord::Some),
        raised: Some(RaisedWord::Floor),
        soaked: done,
        stands: Some(StandsEntry { rating: weight("6,000")?, of_the_pair: false }),
        supplies: vec![
            supply("part.option.0", stands, coming, dollars("236", 23_600)),
            supply("part.used.u_bolts", SupplyWord::OnTheShelf, None, dollars("58", 5_800)),
            supply("part.used.center_bolts", SupplyWord::OnTheShelf, None, dollars("14", 1_400)),
        ],
        extras: vec![ExtraEntry {
            what: "Rear shocks".to_owned(),
            proposal: String::new(),
            price: Some(dollars("178", 17_800)),
            hours: Some(0.5),
            agreed: Some(false),
            said_by: "owner, by telephone".to_owned(),
        }],
        took_hours: done.then_some(4.25),
        took_words: if done { "Left front U-bolt had to be worked both ways.".to_owned() } else { String::new() },
        ..WorkPlanEntry::default()
    })
}

fn sign(connection: &mut PgConnection, lead: &Person, job: &Job, name: &str) -> Result<(), DemoError> {
    let lines = ["Parts and work as told at the counter: US$ 640 to US$ 790", "Rear shocks: declined"];
    let section = PaperSection { title: "Cost".to_owned(), lines: lines.map(str::to_owned).into() };
    let strokes = "M 60 105 L 82 40 L 98 104 L 121 52 L 140 103 M 168 92 L 190 74 L 204 98 L 236 70 L 262 96 L 330 84 L 402 92";
    let drawn = strokes.parse().map_err(DemoError::Signature)?;
    let entry =
        PaperEntry { paper: PaperWord::Estimate, sections: vec![section], signed_by: name.to_owned(), drawn: Some(drawn) };
    Ok(paper::keep(connection, lead, job.id, &entry)?)
}

/// Ticks a job's whole card, part by part and step by step.
fn done_to_the_end(connection: &mut PgConnection, technician: &Person, job: &Job) -> Result<(), DemoError> {
    let file = JobFile::find(connection, technician.shop_id, job.number)?;
    let work: &Casework = &file.work;
    let card = Card::of_job(work, &[]);
    let needed = work.case().chosen.map(|place| Needed::of(work, place, &card)).unwrap_or_default();
    let parts = needed.into_iter().map(|needed| Ok((needed.key, Answer::Done)));
    let steps = card.steps.iter().map(|step| Ok::<_, DemoError>((step.key(), answer(step.operation.asks)?)));
    let all: Vec<(String, Answer)> = parts.chain(steps).collect::<Result<_, _>>()?;
    let count = i64::try_from(all.len()).unwrap_or(i64::MAX);
    for (minutes, (step, answer)) in (0_i64..).zip(all) {
        let at = Utc::now() - TimeDelta::minutes(2 * (count - minutes));
        let tick = TickEntry { step, answer, note: String::new() };
        wrench_tick::take(connection, technician, job.id, &format!("demo-driller-{minutes}"), at, &tick)?;
    }
    Ok(())
}

fn answer(asks: Asks) -> Result<Answer, DemoError> {
    let pound_feet = |text: &str| -> Result<Typed, DemoError> {
        let si = parse_torque(text, WeightUnit::Pounds)?.value;
        Ok(Typed { text: text.to_owned(), unit: UnitWord::LbFt, si })
    };
    Ok(match asks {
        Asks::Done | Asks::Picture => Answer::Done,
        Asks::Hold => Answer::Yes,
        Asks::Torque(fastener) => {
            let figure = match fastener {
                Fastener::LugNuts => "140",
                Fastener::UBolts => "118",
                Fastener::CenterBolt => "30",
                Fastener::ShockBolts => "64",
                _ => "55",
            };
            Answer::Torque {
                target: pound_feet(figure)?,
                read: pound_feet(figure)?,
                wrench: "half-inch click, checked May".to_owned(),
            }
        }
    })
}
