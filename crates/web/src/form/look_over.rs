//! The look-over form.

use serde::Serialize;
use wise_badger_casework::entry::{FindingEntry, LookOverEntry, MeasuredEntry};
use wise_badger_casework::look_over::{Addition, Area, Defect, Grade, Measure};

use super::Sheet;
use crate::view::Units;

/// Longest remark on one area.
const LONGEST_WORDS: usize = 400;

/// The word that an area, a grade, a defect or a measure goes by in fields, as in the store.
pub(crate) fn word(value: impl Serialize) -> String {
    serde_json::to_value(value).ok().and_then(|value| value.as_str().map(str::to_owned)).unwrap_or_default()
}

/// Name of an area's field.
pub(crate) fn field_name(area: Area, what: &str) -> String {
    format!("{}_{what}", word(area))
}

/// Name of a defect's box.
pub(crate) fn defect_field(defect: Defect) -> String {
    field_name(defect.rule().area, &word(defect))
}

/// Name of a measure's field.
pub(crate) fn measure_field(measure: Measure) -> String {
    field_name(measure.area(), &word(measure))
}

/// Name of a repair's box.
pub(crate) fn repair_field(repair: Addition) -> String {
    format!("repair_{}", word(repair))
}

/// The form as it stands for a look-over on file.
pub(crate) fn on_file(units: Units, entry: Option<&LookOverEntry>) -> Sheet {
    let mut sheet = Sheet::blank(units);
    for finding in entry.iter().flat_map(|entry| &entry.findings) {
        sheet.set(&field_name(finding.area, "grade"), word(finding.grade));
        sheet.set(&field_name(finding.area, "words"), finding.words.clone());
        finding.defects.iter().for_each(|defect| sheet.set(&defect_field(*defect), "yes"));
        finding.measured.iter().for_each(|measured| sheet.set_typed(&measure_field(measured.what), &measured.value));
    }
    for repair in entry.iter().flat_map(|entry| &entry.repairs) {
        sheet.set(&repair_field(*repair), "yes");
    }
    sheet
}

/// Grades as fine what was not graded, where that was asked for; what needs a look of its own stays open.
pub(crate) fn pass_the_rest(sheet: &mut Sheet, areas: &[Area]) {
    if !sheet.is_filled("rest") {
        return;
    }
    for area in areas.iter().filter(|area| !area.needs_its_own_look()) {
        let field = field_name(*area, "grade");
        if !sheet.is_filled(&field) {
            sheet.set(&field, word(Grade::Fine));
        }
    }
}

/// Reads the form; `None` with complaints on the sheet when anything is wrong.
pub(crate) fn check(sheet: &mut Sheet) -> Option<LookOverEntry> {
    let findings = Area::ALL.into_iter().filter_map(|area| finding(sheet, area)).collect();
    let repairs = Addition::ALL.into_iter().filter(|repair| sheet.is_filled(&repair_field(*repair))).collect();
    sheet.is_sound().then_some(LookOverEntry { findings, repairs })
}

fn finding(sheet: &mut Sheet, area: Area) -> Option<FindingEntry> {
    let (grade_field, words_field) = (field_name(area, "grade"), field_name(area, "words"));
    let grade = Grade::ALL.into_iter().find(|grade| word(*grade) == sheet.text(&grade_field));
    let defects: Vec<Defect> = Defect::of_area(area).filter(|defect| sheet.is_filled(&defect_field(*defect))).collect();
    let measures = Measure::ALL.into_iter().filter(|measure| measure.area() == area);
    let measured: Vec<MeasuredEntry> =
        measures.filter_map(|what| Some(MeasuredEntry { what, value: sheet.optional_length(&measure_field(what))? })).collect();
    let words = sheet.text(&words_field).to_owned();
    if words.chars().count() > LONGEST_WORDS {
        sheet.refuse(&words_field, format!("Keep it under {LONGEST_WORDS} characters."));
    }
    let said = !defects.is_empty() || !measured.is_empty() || !words.is_empty();
    match grade {
        None if said => {
            sheet.refuse(&grade_field, "Give it a grade too.");
            None
        }
        None => None,
        Some(Grade::Fine) if !defects.is_empty() => {
            sheet.refuse(&grade_field, "Something is wrong there, so it is not fine; pick another grade.");
            None
        }
        Some(grade) => Some(FindingEntry { area, grade, defects, measured, words }),
    }
}
