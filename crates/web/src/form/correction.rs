//! The form of one correction.

use wise_badger_casework::entry::{CorrectionEntry, TypedTable};
use wise_badger_mechanics::correction::{Correction, CorrectionProblem};
use wise_badger_mechanics::stance::{ForceTable, ForceTableError};
use wise_badger_mechanics::tape::{parse_length, parse_weight};
use wise_badger_mechanics::units::{Force, InShopUnits, Length};

use super::{Sheet, outside};

/// Longest force table taken, in signs.
const LONGEST_TABLE: usize = 8_000;

/// The form with the figures of a correction, to try another like it.
pub(crate) fn fill(sheet: &mut Sheet, entry: &CorrectionEntry) {
    sheet.set("kind", crate::view::kind_word(entry));
    match entry {
        CorrectionEntry::LiftBlock { thickness } => sheet.set_typed("thickness", thickness),
        CorrectionEntry::HelperSpring { pair_rate, engagement_gap } => {
            sheet.set_typed("helper_rate", pair_rate);
            sheet.set_typed("engagement_gap", engagement_gap);
        }
        CorrectionEntry::AddedLeaf { pair_rate, lift } => {
            sheet.set_typed("leaf_rate", pair_rate);
            sheet.set_typed("lift", lift);
        }
        CorrectionEntry::LoadRubber { clearance, force } => {
            sheet.set_typed("clearance", clearance);
            sheet.set("force_table", force.text.clone());
        }
        // The bench is where a pack is worked on; nothing of it stands on this form.
        CorrectionEntry::ReworkedPack { .. } => sheet.set("kind", "lift_block"),
        CorrectionEntry::RearchedPack { free_height_gained } => sheet.set_typed("free_height_gained", free_height_gained),
    }
}

/// Reads the form; `None` with complaints on the sheet when anything is wrong.
pub(crate) fn check(sheet: &mut Sheet) -> Option<CorrectionEntry> {
    let entry = match sheet.text("kind") {
        "lift_block" => CorrectionEntry::LiftBlock { thickness: sheet.length("thickness")? },
        "helper_spring" => {
            let (pair_rate, engagement_gap) = (sheet.rate("helper_rate"), sheet.signed_length("engagement_gap"));
            CorrectionEntry::HelperSpring { pair_rate: pair_rate?, engagement_gap: engagement_gap? }
        }
        "added_leaf" => {
            let (pair_rate, lift) = (sheet.rate("leaf_rate"), sheet.signed_length("lift"));
            CorrectionEntry::AddedLeaf { pair_rate: pair_rate?, lift: lift? }
        }
        "load_rubber" => {
            let (clearance, force) = (sheet.length("clearance"), force_table(sheet));
            CorrectionEntry::LoadRubber { clearance: clearance?, force: force? }
        }
        "rearched_pack" => CorrectionEntry::RearchedPack { free_height_gained: sheet.length("free_height_gained")? },
        _ => {
            sheet.refuse("kind", "Pick a correction.");
            return None;
        }
    };
    let correction = entry.correction()?;
    for problem in correction.problems() {
        say(sheet, &correction, &problem);
    }
    sheet.is_sound().then_some(entry)
}

fn say(sheet: &mut Sheet, correction: &Correction, problem: &CorrectionProblem) {
    let (length_name, rate_name, what) = match correction {
        Correction::LiftBlock { .. } => ("thickness", "kind", "A block"),
        Correction::HelperSpring { .. } => ("engagement_gap", "helper_rate", "A helper's gap"),
        Correction::AddedLeaf { .. } => ("lift", "leaf_rate", "An added leaf's lift"),
        Correction::LoadRubber { .. } => ("clearance", "kind", "A rubber's clearance"),
        Correction::ReworkedPack(_) => ("kind", "kind", "A pack"),
        Correction::RearchedPack { .. } => ("free_height_gained", "kind", "Free height gained by re-arching"),
    };
    let units = sheet.units();
    match problem {
        CorrectionProblem::Length { least, most, .. } => sheet.refuse(length_name, outside(what, *least, *most, units)),
        CorrectionProblem::NoRate => sheet.refuse(rate_name, "A spring has a rate above nought; type what the pair adds."),
        _ => sheet.refuse("kind", "These figures make no correction; check them."),
    }
}

/// Reads a table of one point a line: compression, then force, set apart by a comma, a semicolon, a tab or `=`.
fn force_table(sheet: &mut Sheet) -> Option<TypedTable> {
    let text = sheet.text("force_table").to_owned();
    match points(&text, sheet) {
        Ok(points) => {
            let points_si = points.iter().map(|(travel, force)| (travel.si(), force.si())).collect();
            let (length_unit, weight_unit) = (sheet.units().length_word(), sheet.units().weight_word());
            Some(TypedTable { text, length_unit, weight_unit, points_si })
        }
        Err(problem) => {
            sheet.refuse("force_table", problem);
            None
        }
    }
}

fn points(text: &str, sheet: &Sheet) -> Result<Vec<(Length, Force)>, String> {
    if text.is_empty() {
        return Err("Type the rubber's force, one point a line, like: 1/2 in ; 180 lb".to_owned());
    }
    if text.len() > LONGEST_TABLE {
        return Err("That is too long for a force table; 200 points at most.".to_owned());
    }
    let units = sheet.units();
    let mut points = Vec::new();
    for (number, line) in (1..).zip(text.lines().map(str::trim)).filter(|(_, line)| !line.is_empty()) {
        let apart = line.split_once([';', '\t', '=']).or_else(|| line.split_once(','));
        let (travel, force) =
            apart.ok_or_else(|| format!("Line {number} has no force; write compression ; force, like 1/2 in ; 180 lb."))?;
        let travel = parse_length(travel, units.length).map_err(|error| format!("Line {number}: {error}"))?;
        let force = parse_weight(force, units.weight).map_err(|error| format!("Line {number}: {error}"))?;
        points.push((travel, force));
    }
    ForceTable::new(&points).map(|_| points).map_err(|error| match error {
        ForceTableError::Count(_) => "A force table needs 2 points or more, starting with 0 ; 0.".to_owned(),
        other => format!("{}.", crate::view::sentence(&other.to_string())),
    })
}
