//! The aim form.

use wise_badger_casework::aim::AimProblem;
use wise_badger_casework::bounds::{RAKE, TOLERANCE};
use wise_badger_casework::entry::{AimSheet, GoalEntry, MarkEntry, Typed, WayWord, WhenEntry};
use wise_badger_casework::survey::{End, LoadState, Survey};
use wise_badger_store::job_file::JobFile;

use super::{Part, Picks, Sheet, goals};
use crate::view::{Units, support_name};

/// Word and name of each aim, in the order offered.
pub(crate) const AIMS: [(&str, &str); 5] = [
    ("level_loaded", "Level when loaded, or with a stated rake"),
    ("level_empty", "Level when empty, or with a stated rake"),
    ("stock_height", "Back to a stated height, empty"),
    ("recover_sag", "At least part of the sag back"),
    ("clearance", "At least a clearance under a point"),
];

/// The same for a trailer, whose front stands at the ball's height.
pub(crate) const TRAILER_AIMS: [(&str, &str); 5] = [
    ("level_loaded", "Frame level at the ball's height, loaded, or with a stated rake"),
    ("level_empty", "Frame level at the ball's height, empty, or with a stated rake"),
    ("stock_height", "Back to a stated height, empty"),
    ("recover_sag", "At least part of the sag back"),
    ("clearance", "At least a clearance under a point"),
];

/// Every aim to pick, with what it asks beside its tolerance.
pub(crate) fn picks(sheet: &Sheet, survey: &Survey) -> Picks {
    let class = survey.vehicle.class;
    let rear = support_name(class, End::Rear);
    let sides = [("behind", format!("behind the {rear}")), ("ahead", format!("ahead of the {rear}"))];
    let point: [Part; 5] = [
        sheet.text_field("point", "The point").hint("step, hitch, drain").into(),
        sheet.length_field("point_distance", &format!("From the {rear}")).into(),
        sheet.picks("point_side", "Which is", sides).into(),
        sheet.length_field("measured", "Clearance now, loaded").into(),
        sheet.length_field("wanted", "Clearance wanted, loaded").into(),
    ];
    let rake = sheet.length_field("rake", "Rake: rear above front").hint("0 is level; a minus is nose-up");
    let rake_empty = sheet.length_field("rake_empty", "Rake empty: rear above front").hint("nothing or 0 is level");
    let percent = sheet.number_field("percent", "Of the sag, at least", "%").hint("60 gives back a little over half");
    let rear = sheet.length_field("rear", "Rear height, empty").hint("measured as this job's heights are");
    sheet
        .picks("kind", "What height is right for this job?", if class.is_trailer() { TRAILER_AIMS } else { AIMS })
        .tall()
        .asks("level_loaded", [rake.into()])
        .asks("level_empty", [rake_empty.into()])
        .asks("stock_height", [rear.into()])
        .asks("recover_sag", [percent.into()])
        .asks("clearance", point)
}

/// Longest name of a point.
const LONGEST_POINT: usize = 40;

/// The form as it stands for an aim on file, or as first offered.
pub(crate) fn on_file(units: Units, aim: Option<&AimSheet>) -> Sheet {
    let mut sheet = Sheet::blank(units);
    if let Some(side_to_side) = aim.and_then(|aim| aim.side_to_side.as_ref()) {
        sheet.set_typed("side_to_side", side_to_side);
    }
    sheet.set("most", aim.map_or(0, |aim| aim.most).to_string());
    for (index, goal) in aim.iter().flat_map(|aim| aim.goals.iter().skip(1)).enumerate() {
        goals::put(&mut sheet, index, goal);
    }
    match aim.and_then(|aim| aim.goals.first()) {
        Some(GoalEntry::Mark {
            mark: MarkEntry::Rake,
            when: WhenEntry::State(LoadState::Empty),
            way: WayWord::Within,
            height,
            tolerance,
        }) => {
            sheet.set("kind", "level_empty");
            sheet.set_typed("rake_empty", height);
            sheet.set_typed("tolerance", tolerance);
        }
        // Another mark as the only goal stands among the goals beside the height policy, which then asks for nothing.
        Some(GoalEntry::Mark { .. }) | None => sheet.set("kind", "level_loaded"),
        Some(GoalEntry::RecoverSag { percent, tolerance }) => {
            sheet.set("kind", "recover_sag");
            sheet.set("percent", percent.to_string());
            sheet.set_typed("tolerance", tolerance);
        }
        Some(GoalEntry::Clearance { point, distance, ahead, measured, wanted, tolerance }) => {
            sheet.set("kind", "clearance");
            sheet.set("point", point.clone());
            sheet.set("point_side", if *ahead { "ahead" } else { "behind" });
            for (name, typed) in
                [("point_distance", distance), ("measured", measured), ("wanted", wanted), ("tolerance", tolerance)]
            {
                sheet.set_typed(name, typed);
            }
        }
        Some(GoalEntry::LevelLoaded { rake, tolerance }) => {
            sheet.set("kind", "level_loaded");
            sheet.set_typed("rake", rake);
            sheet.set_typed("tolerance", tolerance);
        }
        Some(GoalEntry::LevelEmpty { tolerance }) => {
            sheet.set("kind", "level_empty");
            sheet.set_typed("tolerance", tolerance);
        }
        Some(GoalEntry::StockHeight { rear, tolerance }) => {
            sheet.set("kind", "stock_height");
            sheet.set_typed("rear", rear);
            sheet.set_typed("tolerance", tolerance);
        }
    }
    sheet
}

/// Reads the form; `None` with complaints on the sheet when anything is wrong.
pub(crate) fn check(sheet: &mut Sheet, file: &JobFile) -> Option<AimSheet> {
    let survey = file.work.found();
    let side_to_side = sheet.optional_length("side_to_side");
    let beside = goals::read(sheet, file);
    let first = policy(sheet)?;
    if let Some(aim) = file.case().goal(&first) {
        for problem in aim.problems(survey) {
            say(sheet, &problem);
        }
    }
    let goals: Vec<GoalEntry> = std::iter::once(first).chain(beside.into_iter().map(|(_, goal)| goal)).collect();
    let most = sheet.text("most").parse::<usize>().unwrap_or(0);
    if most >= goals.len() {
        sheet.refuse("most", "Pick a goal that there is.");
    }
    if sheet.is_sound() {
        goals::refuse_contradiction(sheet, file, &goals);
    }
    sheet.is_sound().then_some(AimSheet { goals, most, side_to_side })
}

/// The height policy.
fn policy(sheet: &mut Sheet) -> Option<GoalEntry> {
    let tolerance = sheet.length("tolerance");
    Some(match sheet.text("kind") {
        "level_loaded" => GoalEntry::LevelLoaded { rake: sheet.signed_length("rake")?, tolerance: tolerance? },
        "level_empty" => level_empty(sheet, tolerance)?,
        "stock_height" => GoalEntry::StockHeight { rear: sheet.length("rear")?, tolerance: tolerance? },
        "recover_sag" => GoalEntry::RecoverSag { percent: sheet.number("percent")?, tolerance: tolerance? },
        "clearance" => clearance(sheet, tolerance)?,
        _ => {
            sheet.refuse("kind", "Pick what height is right for this job.");
            return None;
        }
    })
}

fn level_empty(sheet: &mut Sheet, tolerance: Option<Typed>) -> Option<GoalEntry> {
    let rake = if sheet.is_filled("rake_empty") { Some(sheet.signed_length("rake_empty")?) } else { None };
    let tolerance = tolerance?;
    Some(match rake.filter(|rake| rake.si.abs() > 0.0) {
        Some(height) => GoalEntry::Mark {
            mark: MarkEntry::Rake,
            when: WhenEntry::State(LoadState::Empty),
            way: WayWord::Within,
            height,
            tolerance,
        },
        None => GoalEntry::LevelEmpty { tolerance },
    })
}

fn clearance(sheet: &mut Sheet, tolerance: Option<Typed>) -> Option<GoalEntry> {
    let point = sheet.text("point").to_owned();
    if point.is_empty() || point.chars().count() > LONGEST_POINT {
        sheet.refuse("point", format!("Name the point, in up to {LONGEST_POINT} characters: step, hitch, drain."));
    }
    let (distance, measured, wanted) = (sheet.length("point_distance"), sheet.length("measured"), sheet.length("wanted"));
    let ahead = sheet.text("point_side") == "ahead";
    Some(GoalEntry::Clearance { point, distance: distance?, ahead, measured: measured?, wanted: wanted?, tolerance: tolerance? })
}

fn say(sheet: &mut Sheet, problem: &AimProblem) {
    let units = sheet.units();
    match problem {
        AimProblem::Tolerance => sheet.ask_about("tolerance", "A tolerance", &TOLERANCE),
        AimProblem::Rake => {
            let field = if sheet.text("kind") == "level_empty" { "rake_empty" } else { "rake" };
            sheet.ask_about(field, "A rake", &RAKE);
        }
        AimProblem::Share => sheet.refuse("percent", "Type how much of the sag to recover, from 1 to 150 percent."),
        AimProblem::Clearance { furthest, most } => {
            let (furthest, most) = (units.height(*furthest), units.height(*most));
            let text = format!("A point is within {furthest} of the rear axle, its clearance under {most}; check both.");
            sheet.refuse("point_distance", text);
        }
        AimProblem::FarFromMeasured { measured } => {
            let text = format!(
                "That is far from the {} measured there empty; check the figure, its unit and what it is measured from.",
                units.height(*measured)
            );
            sheet.refuse("rear", text);
        }
        _ => sheet.refuse("kind", "That cannot be aimed at; check its figures."),
    }
}
