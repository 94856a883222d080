//! The aim form.

use wise_badger_mechanics::aim::{Aim, AimProblem};
use wise_badger_mechanics::survey::Survey;
use wise_badger_store::entry::AimEntry;

use super::{Sheet, outside};
use crate::view::Units;

/// Word and name of each aim, in the order offered.
pub(crate) const AIMS: [(&str, &str); 3] = [
    ("level_loaded", "Level when loaded, with a stated rake"),
    ("level_empty", "Level when empty"),
    ("stock_height", "Back to a stated height, empty"),
];

/// The form as it stands for an aim on file, or as first offered.
pub(crate) fn on_file(units: Units, entry: Option<&AimEntry>) -> Sheet {
    let mut sheet = Sheet::blank(units);
    match entry {
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
pub(crate) fn check(sheet: &mut Sheet, survey: &Survey) -> Option<AimEntry> {
    let tolerance = sheet.length("tolerance");
    let entry = match sheet.text("kind") {
        "level_loaded" => AimEntry::LevelLoaded { rake: sheet.signed_length("rake")?, tolerance: tolerance? },
        "level_empty" => AimEntry::LevelEmpty { tolerance: tolerance? },
        "stock_height" => AimEntry::StockHeight { rear: sheet.length("rear")?, tolerance: tolerance? },
        _ => {
            sheet.refuse("kind", "Pick what height is right for this job.");
            return None;
        }
    };
    for problem in entry.aim().problems(survey) {
        say(sheet, &problem, &entry.aim());
    }
    sheet.is_sound().then_some(entry)
}

fn say(sheet: &mut Sheet, problem: &AimProblem, aim: &Aim) {
    let units = sheet.units();
    match problem {
        AimProblem::Tolerance { least, most } => sheet.refuse("tolerance", outside("A tolerance", *least, *most, units)),
        AimProblem::Rake { most } => {
            sheet.refuse("rake", format!("More than {} of rake; check the figure and its unit.", units.height(*most)));
        }
        AimProblem::FarFromMeasured { measured } => {
            let text = format!(
                "That is far from the {} measured there empty; check the figure, its unit and the datum.",
                units.height(*measured)
            );
            sheet.refuse("rear", text);
        }
        _ => sheet.refuse("kind", format!("{aim:?} cannot be aimed at.")),
    }
}
