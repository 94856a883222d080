//! An option's form beside its part: what it goes together with, what it is called, how it is set in each case.

use wise_badger_casework::entry::{
    CorrectionEntry, FigureEntry, MOST_PARTS, OptionEntry, PartEntry, SettingEntry, ShelfPart, Typed, WhenEntry,
};
use wise_badger_casework::words::Word as _;
use wise_badger_mechanics::correction::{Axles, CorrectionProblem, Takes, TakesUp, not_together};
use wise_badger_store::CorrectionId;
use wise_badger_store::job_file::JobFile;

use super::form::{hold_against_what_is_there, pressure_outside};
use super::on_the_shelf::hold_against_the_shelf;
use super::words::typed_with_unit;
use super::{check as check_part, correction_name};
use crate::form::{Field, Sheet};
use crate::view::{Units, sentence, state_of};

/// Longest name of an option.
const LONGEST_NAME: usize = 60;

/// The field of how something is set in a state or a case.
pub(crate) fn setting_field(when: WhenEntry) -> String {
    match when {
        WhenEntry::State(state) => format!("set_{}", state.word()),
        WhenEntry::Case(key) => format!("set_case_{key}"),
    }
}

/// Every state and case that something may be set in, with its field and what it is called.
pub(super) fn whens(file: &JobFile) -> Vec<(WhenEntry, String, String)> {
    let found = file.work.found();
    let states = found.states().map(|state| (WhenEntry::State(state), sentence(state_of(found, state))));
    let cases = file.work.cases().iter().map(|case| (WhenEntry::Case(case.key), case.name.clone()));
    states.chain(cases).map(|(when, called)| (when, setting_field(when), called)).collect()
}

/// A field for each state and case.
pub(crate) fn settings_form(sheet: &Sheet, file: &JobFile) -> Vec<Field> {
    whens(file).into_iter().map(|(_, name, called)| sheet.number_field(&name, &called, "")).collect()
}

/// Reads the form, its part one that was picked from the shelf or none; `None` with complaints on the sheet when anything is wrong.
pub(crate) fn check(sheet: &mut Sheet, file: &JobFile, picked: Option<&ShelfPart>) -> Option<OptionEntry> {
    let part = read_part(sheet, file, picked);
    let name = read_name(sheet);
    let mut parts = together_with(sheet, file)?;
    parts.push(part?);
    if parts.len() > MOST_PARTS {
        sheet.refuse("with", format!("An option has at most {MOST_PARTS} parts; put this one by itself."));
    }
    let entry = OptionEntry { name, parts };
    if let Some(why) = why_not_together(file, &entry, sheet.units()) {
        sheet.refuse("with", why);
    }
    sheet.is_sound().then_some(entry)
}

/// What the option is to be called.
pub(crate) fn read_name(sheet: &mut Sheet) -> String {
    let name = sheet.text("option_name").to_owned();
    if name.chars().count() > LONGEST_NAME {
        sheet.refuse("option_name", format!("Keep it under {LONGEST_NAME} characters."));
    }
    name
}

/// Reads one part, picked from the shelf or not, and how it is set in each case; `None` with complaints on the sheet when anything is
/// wrong.
pub(crate) fn read_part(sheet: &mut Sheet, file: &JobFile, picked: Option<&ShelfPart>) -> Option<PartEntry> {
    let correction = check_part(sheet, file.case().intake.class);
    if let Some((correction, part)) = correction.as_ref().zip(picked) {
        hold_against_the_shelf(sheet, correction, part);
    }
    refuse_what_the_bench_does(sheet, file, correction.as_ref());
    if let Some(correction) = &correction {
        hold_against_what_is_there(sheet, correction, &file.work.found().vehicle);
    }
    let correction = correction?;
    let settings = settings(sheet, file, &correction);
    let shelf = picked.cloned().map(Box::new);
    sheet.is_sound().then(|| PartEntry { settings, shelf, ..PartEntry::by_itself(correction) })
}

/// Where the rear pack was read leaf by leaf, work on its leaves is done there: what all of them together do is worked out, not guessed.
fn refuse_what_the_bench_does(sheet: &mut Sheet, file: &JobFile, correction: Option<&CorrectionEntry>) {
    let part = correction.and_then(CorrectionEntry::correction);
    let of_the_leaves = [TakesUp::MainSpring, TakesUp::OverloadLeaf];
    let on_the_pack = part.is_some_and(|part| of_the_leaves.contains(&part.takes_up()) && part.site().axles != Axles::Front);
    if on_the_pack && file.case().bench.is_some() {
        let text = "The rear pack was read leaf by leaf: plan this on Bench, and put the plan on the list from there.";
        sheet.refuse("kind", text);
    }
}

/// The parts that it goes together with.
fn together_with(sheet: &mut Sheet, file: &JobFile) -> Option<Vec<PartEntry>> {
    let picked = sheet.text("with").to_owned();
    if picked.is_empty() {
        return Some(Vec::new());
    }
    let id = picked.parse::<i64>().ok().map(CorrectionId);
    let place = id.and_then(|id| file.considered.iter().position(|considered| *considered == id));
    let parts = place.and_then(|place| file.case().options.get(place)).map(|option| option.parts.clone());
    if parts.is_none() {
        sheet.refuse("with", "That option is no longer on the list; pick whether this goes by itself.");
    }
    parts
}

fn settings(sheet: &mut Sheet, file: &JobFile, correction: &CorrectionEntry) -> Vec<SettingEntry> {
    let told: Vec<_> = whens(file).into_iter().filter(|(_, name, _)| sheet.is_filled(name)).collect();
    let figure = correction.row.set_by_case.and_then(|name| correction.row.figures.iter().find(|figure| figure.name == name));
    let Some(Takes::Within(bound)) = figure.map(|figure| figure.takes) else {
        for (_, name, _) in told {
            sheet.refuse(&name, "This part has nothing that is set by case; clear it.");
        }
        return Vec::new();
    };
    let setting = |(when, name, _): (WhenEntry, String, String)| {
        let typed = sheet.of_dimension(&name, &bound)?;
        let value = sheet.within(&name, "It", typed, &bound)?;
        refuse_a_pressure_outside(sheet, &name, correction, &value);
        Some(SettingEntry { when, value })
    };
    told.into_iter().filter_map(setting).collect()
}

/// A part set otherwise takes no other pressures than it takes at all.
fn refuse_a_pressure_outside(sheet: &mut Sheet, name: &str, correction: &CorrectionEntry, value: &Typed) {
    let set = correction.row.set_by_case.map(|figure| correction.with_figure(figure, value.clone().into()));
    let problems = set.and_then(|set| set.correction()).map(|set| set.problems()).unwrap_or_default();
    for problem in problems {
        if let CorrectionProblem::PressureOutside { bound, .. } = problem {
            sheet.refuse(name, pressure_outside(&bound, sheet.units()));
        }
    }
}

/// Why the parts of an option do not go together: two that take up the same at a corner, told apart by their names.
pub(crate) fn why_not_together(file: &JobFile, entry: &OptionEntry, units: Units) -> Option<String> {
    let clash = not_together(&entry.corrections(None)?)?;
    let class = file.case().intake.class;
    let name =
        |place: usize| entry.parts.get(place).map(|part| correction_name(&part.correction, class, units)).unwrap_or_default();
    let why = match clash.of {
        TakesUp::MainSpring => "each corner has one main spring, and one change of it",
        TakesUp::OverloadLeaf => "each pack has one overload leaf, and one change of it",
        TakesUp::Seat => "blocks are never stacked: one block in place of the other",
        TakesUp::CoilSeat => "spacers are never stacked: one spacer in place of the other",
        TakesUp::Shackle => "each spring end hangs on one shackle",
        TakesUp::Stop => "each corner has one stop's place",
        TakesUp::Helper => "each corner takes one helper",
        TakesUp::InsideTheCoil => "each coil holds one bag",
        TakesUp::Tires => "each axle has one size of tire",
        TakesUp::Bar => "each axle takes one sway bar",
        TakesUp::BarLinks => "each axle takes one pair of links",
        TakesUp::Shocks => "each axle takes one pair of shocks",
        TakesUp::Hoses => "each axle takes one set of hoses",
        TakesUp::UBolts => "each axle takes one set of U-bolts",
        TakesUp::TrackBar => "each axle has one track bar",
        TakesUp::RadiusArms => "the arms have one pair of brackets",
        TakesUp::Differential => "it is lowered once",
    };
    Some(format!("{} and {} do not go together: {why}.", name(clash.one), name(clash.other)))
}

/// How the parts of an option are set otherwise, a line each.
pub(crate) fn setting_words(entry: &OptionEntry, file: &JobFile, units: Units) -> Vec<String> {
    let class = file.case().intake.class;
    let of_part = |part: &PartEntry| {
        let name = correction_name(&part.correction, class, units);
        let each = set_otherwise(part, file, units).into_iter();
        each.map(|(called, value)| format!("{name}, set for {called}: {value}")).collect::<Vec<_>>()
    };
    entry.parts.iter().flat_map(of_part).collect()
}

/// What is planned of a figure that is set on the vehicle, at one of its ends: as it is fitted, and in each state or case in which it is
/// set otherwise; nothing where no part has it.
pub(crate) fn planned_setting(entry: &OptionEntry, figure: &str, front: bool, file: &JobFile, units: Units) -> String {
    let at_this_end = |part: &&PartEntry| (part.correction.site.axles == Axles::Front) == front;
    let of_part = |part: &PartEntry| {
        let Some(FigureEntry::Typed(typed)) = part.correction.figure(figure) else { return None };
        let otherwise = set_otherwise(part, file, units).into_iter().map(|(called, value)| format!("; for {called}: {value}"));
        Some(format!("Planned: {}{}", typed_with_unit(typed, units), otherwise.collect::<String>()))
    };
    entry.parts.iter().filter(at_this_end).filter_map(of_part).collect::<Vec<_>>().join(". ")
}

/// In which state or case a part is set otherwise, and to what.
fn set_otherwise(part: &PartEntry, file: &JobFile, units: Units) -> Vec<(String, String)> {
    let whens = whens(file);
    let called = |when: WhenEntry| {
        let of = whens.iter().find(|(of, ..)| *of == when);
        of.map_or_else(|| "a case that is no longer there".to_owned(), |(_, _, called)| called.clone())
    };
    part.settings.iter().map(|setting| (called(setting.when), typed_with_unit(&setting.value, units))).collect()
}
