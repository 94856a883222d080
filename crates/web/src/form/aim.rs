//! The aim form.

use wise_badger_casework::aim::{Aim, AimProblem};
use wise_badger_casework::bounds::{RAKE, TOLERANCE};
use wise_badger_casework::entry::{AimEntry, AimSheet, Typed};
use wise_badger_casework::survey::{End, Survey};

use super::{Part, Picks, Sheet};
use crate::view::{Units, support_name};

/// Word and name of each aim, in the order offered.
pub(crate) const AIMS: [(&str, &str); 5] = [
    ("level_loaded", "Level when loaded, or with a stated rake"),
    ("level_empty", "Level when empty"),
    ("stock_height", "Back to a stated height, empty"),
    ("recover_sag", "At least part of the sag back"),
    ("clearance", "At least a clearance under a point"),
];

/// The same for a trailer, whose front stands at the ball's height.
pub(crate) const TRAILER_AIMS: [(&str, &str); 5] = [
    ("level_loaded", "Frame level at the ball's height, loaded, or with a stated rake"),
    ("level_empty", "Frame level at the ball's height, empty"),
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
    let percent = sheet.number_field("percent", "Of the sag, at least", "%").hint("60 gives back a little over half");
    let rear = sheet.length_field("rear", "Rear height, empty").hint("measured as this job's heights are");
    sheet
        .picks("kind", "What height is right for this job?", if class.is_trailer() { TRAILER_AIMS } else { AIMS })
        .tall()
        .asks("level_loaded", [rake.into()])
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
    match aim.map(|aim| &aim.entry) {
        Some(AimEntry::RecoverSag { percent, tolerance }) => {
            sheet.set("kind", "recover_sag");
            sheet.set("percent", percent.to_string());
            sheet.set_typed("tolerance", tolerance);
        }
        Some(AimEntry::Clearance { point, distance, ahead, measured, wanted, tolerance }) => {
            sheet.set("kind", "clearance");
            sheet.set("point", point.clone());
            sheet.set("point_side", if *ahead { "ahead" } else { "behind" });
            for (name, typed) in
                [("point_distance", distance), ("measured", measured), ("wanted", wanted), ("tolerance", tolerance)]
            {
                sheet.set_typed(name, typed);
            }
        }
        None => sheet.set("kind", "level_loaded"),
        Some(AimEntry::LevelLoaded { rake, tolerance }) => {
            sheet.set("kind", "level_loaded");
            sheet.set_typed("rake", rake);
            sheet.set_typed("tolerance", tolerance);
        }
        Some(AimEntry::LevelEmpty { tolerance }) => {
            sheet.set("kind", "level_empty");
            sheet.set_typed("tolerance", tolerance);
        }
        Some(AimEntry::StockHeight { rear, tolerance }) => {
            sheet.set("kind", "stock_height");
            sheet.set_typed("rear", rear);
            sheet.set_typed("tolerance", tolerance);
        }
    }
    sheet
}

/// Reads the form; `None` with complaints on the sheet when anything is wrong.
pub(crate) fn check(sheet: &mut Sheet, survey: &Survey) -> Option<AimSheet> {
    let (tolerance, side_to_side) = (sheet.length("tolerance"), sheet.optional_length("side_to_side"));
    let entry = match sheet.text("kind") {
        "level_loaded" => AimEntry::LevelLoaded { rake: sheet.signed_length("rake")?, tolerance: tolerance? },
        "level_empty" => AimEntry::LevelEmpty { tolerance: tolerance? },
        "stock_height" => AimEntry::StockHeight { rear: sheet.length("rear")?, tolerance: tolerance? },
        "recover_sag" => AimEntry::RecoverSag { percent: sheet.number("percent")?, tolerance: tolerance? },
        "clearance" => clearance(sheet, tolerance)?,
        _ => {
            sheet.refuse("kind", "Pick what height is right for this job.");
            return None;
        }
    };
    for problem in entry.aim().problems(survey) {
        say(sheet, &problem, &entry.aim());
    }
    sheet.is_sound().then_some(AimSheet { entry, side_to_side })
}

fn clearance(sheet: &mut Sheet, tolerance: Option<Typed>) -> Option<AimEntry> {
    let point = sheet.text("point").to_owned();
    if point.is_empty() || point.chars().count() > LONGEST_POINT {
        sheet.refuse("point", format!("Name the point, in up to {LONGEST_POINT} characters: step, hitch, drain."));
    }
    let (distance, measured, wanted) = (sheet.length("point_distance"), sheet.length("measured"), sheet.length("wanted"));
    let ahead = sheet.text("point_side") == "ahead";
    Some(AimEntry::Clearance { point, distance: distance?, ahead, measured: measured?, wanted: wanted?, tolerance: tolerance? })
}

fn say(sheet: &mut Sheet, problem: &AimProblem, aim: &Aim) {
    let units = sheet.units();
    match problem {
        AimProblem::Tolerance => sheet.ask_about("tolerance", "A tolerance", &TOLERANCE),
        AimProblem::Rake => sheet.ask_about("rake", "A rake", &RAKE),
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
        _ => sheet.refuse("kind", format!("{aim:?} cannot be aimed at.")),
    }
}
