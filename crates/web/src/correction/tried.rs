//! A part that is only tried: its fields with a slider each, under names that tell it from the others on the same form.

use wise_badger_casework::back_solve::{Needed, what_it_takes};
use wise_badger_casework::entry::{FigureEntry, PartEntry};
use wise_badger_casework::survey::VehicleFacts;
use wise_badger_mechanics::bound::Bound;
use wise_badger_mechanics::correction::{FigureRole, KindFigure, Quantity, Takes};
use wise_badger_store::job_file::JobFile;

use super::form::{SIDES, axles_offered, field_called, read_figure};
use super::parts::whens;
use super::{FieldWords, GROUPS, KindWords, begin, figure_words, kinds};
use crate::form::{Choice, Field, Reach, Sheet, Slider};
use crate::view::Units;

/// A figure of a part, with a slider where it goes in steps.
pub(crate) struct TriedFigure {
    pub(crate) field: Field,
    pub(crate) slider: Option<Slider>,
}

/// The fields of a part that is tried.
pub(crate) struct TriedPart {
    pub(crate) name: &'static str,
    pub(crate) axles: Vec<Choice>,
    pub(crate) sides: Vec<Choice>,
    /// What is tried of it.
    pub(crate) figures: Vec<TriedFigure>,
    /// What is measured once on the vehicle.
    pub(crate) of_the_vehicle: Vec<Field>,
    /// How it is set otherwise in a state or a case; none where nothing of it is set.
    pub(crate) settings: Vec<TriedFigure>,
    /// What of it is set by case.
    pub(crate) set_by_case: &'static str,
}

/// Kinds that may be tried on a vehicle, under the heading of each group.
pub(crate) fn kinds_to_try(vehicle: &VehicleFacts) -> Vec<(&'static str, Vec<(&'static str, &'static str)>)> {
    let goes = |words: &&&KindWords| words.is_typed() && vehicle.fits_nowhere(words.row).is_none();
    let groups = GROUPS.iter().map(|(heading, kinds)| {
        let kinds = kinds.iter().filter(goes).map(|words| (words.row.word, words.name)).collect::<Vec<_>>();
        (*heading, kinds)
    });
    groups.filter(|(_, kinds)| !kinds.is_empty()).collect()
}

fn of_word(word: &str) -> Option<&'static KindWords> {
    kinds().find(|words| words.is_typed() && words.row.word == word)
}

fn figure_of(words: &KindWords, field: &FieldWords) -> Option<&'static KindFigure> {
    words.row.figures.iter().find(|figure| figure.name == field.figure)
}

/// Begins a part of a kind on a form of its own: what is usual, and, for what has none, what the aim asks of the kind by itself.
/// `false` where there is no such kind.
pub(crate) fn begin_to_try(sheet: &mut Sheet, word: &str, file: &JobFile) -> bool {
    let Some(words) = of_word(word) else { return false };
    sheet.set("kind", words.row.word);
    begin(sheet, &file.work.found().vehicle, &file.case().sheet);
    keep_the_kind(sheet);
    let blank = |sheet: &Sheet| words.fields.iter().any(|field| !sheet.is_filled(field.field));
    if blank(sheet) {
        let units = sheet.units();
        let asked = what_it_takes(&file.work).into_iter().flat_map(|takes| takes.kinds);
        for needed in asked.filter(|needed| needed.row == words.row) {
            let field = words.fields.iter().find(|field| field.figure == needed.figure);
            if let Some((field, Needed::Of { value, .. })) =
                field.zip(Some(needed.answer)).filter(|(field, _)| !sheet.is_filled(field.field))
            {
                sheet.set(field.field, said(&value, units).replace('\u{a0}', " "));
            }
        }
    }
    true
}

/// A figure as somebody would set it: a length by the tape.
fn said(value: &Quantity, units: Units) -> String {
    match value {
        Quantity::Length(length) => units.bare_height(*length),
        other => figure_words(other, units).trim_end_matches(units.weight_name()).trim_end().to_owned(),
    }
}

/// What a field of a part is called, by what its name ends with.
pub(crate) fn label_of(field: &str) -> Option<&'static str> {
    kinds().flat_map(|words| words.fields).find(|words| words.field == field).map(|words| words.label)
}

/// Takes off a form of a part what other kinds than its own ask.
pub(crate) fn keep_the_kind(sheet: &mut Sheet) {
    let words = of_word(sheet.text("kind"));
    let others = |name: &str| kinds().any(|other| other.fields.iter().any(|field| field.field == name));
    sheet.keep_only(|name| !others(name) || words.is_some_and(|words| words.fields.iter().any(|field| field.field == name)));
}

/// A form of its own with a part as it stands on an option; `false` for what no form has, as a pack planned on the bench.
pub(crate) fn fill_to_try(sheet: &mut Sheet, part: &PartEntry, file: &JobFile) -> bool {
    if !KindWords::of(part.correction.row).is_typed() {
        return false;
    }
    super::fill(sheet, &part.correction);
    for (when, name, _) in whens(file) {
        if let Some(setting) = part.settings.iter().find(|setting| setting.when == when) {
            sheet.set_typed(&name, &setting.value);
        }
    }
    true
}

/// The fields of a part under names that begin so; `None` where no kind is picked. Of a part from the shelf its own figures are not
/// asked: they are the shelf's.
pub(crate) fn tried_part(sheet: &Sheet, beginning: &str, from_the_shelf: bool, file: &JobFile) -> Option<TriedPart> {
    let words = of_word(sheet.text(&format!("{beginning}kind")))?;
    let mut inner = sheet.under(beginning);
    let class = file.case().intake.class;
    let or_first = |mut choices: Vec<Choice>| {
        if !choices.iter().any(|choice| choice.chosen)
            && let Some(first) = choices.first_mut()
        {
            first.chosen = true;
        }
        choices
    };
    let mut part = TriedPart {
        name: words.name,
        axles: or_first(sheet.choices(&format!("{beginning}axles"), axles_offered(class))),
        sides: or_first(sheet.choices(&format!("{beginning}side"), SIDES)),
        figures: Vec::new(),
        of_the_vehicle: Vec::new(),
        settings: Vec::new(),
        set_by_case: "",
    };
    for field in words.fields {
        let Some(figure) = figure_of(words, field) else { continue };
        let shown = field_called(sheet, words.row, field, &format!("{beginning}{}", field.field), field.label).hint(field.hint);
        match figure.role {
            FigureRole::OfTheVehicle => part.of_the_vehicle.push(shown),
            FigureRole::OfThePart if from_the_shelf => {}
            FigureRole::OfThePart | FigureRole::AsSet => {
                let slider =
                    slider(&mut inner, words, &Tried { words: field, figure, name: field.field, shown: &shown }, field.label);
                part.figures.push(TriedFigure { field: shown, slider });
            }
        }
    }
    let set = words.fields.iter().find(|field| words.row.set_by_case == Some(field.figure));
    if let Some((field, figure)) = set.and_then(|field| Some((field, figure_of(words, field)?))) {
        part.set_by_case = field.label;
        for (_, name, called) in whens(file) {
            let shown = field_called(sheet, words.row, field, &format!("{beginning}{name}"), &called);
            let tried = Tried { words: field, figure, name: &name, shown: &shown };
            let slider = slider(&mut inner, words, &tried, &format!("{}, {called}", field.label));
            part.settings.push(TriedFigure { field: shown, slider });
        }
    }
    Some(part)
}

/// A slider for a figure of a part, beside a field that may be named otherwise than the figure's own: a setting in one case.
fn slider(inner: &mut Sheet, words: &KindWords, of: &Tried<'_>, label: &str) -> Option<Slider> {
    let Takes::Within(bound) = of.figure.takes else { return None };
    let bound = of_the_bag(inner, words, of.figure, bound);
    // A case that says nothing goes by how it is set otherwise.
    let standing = [of.name, of.words.field].into_iter().find(|name| inner.is_filled(name));
    let now = standing.and_then(|name| match read_figure(inner, words.row, of.words, name)? {
        FigureEntry::Typed(typed) => Some(typed.si),
        _ => None,
    });
    Slider::new(of.shown, label, (&bound, Reach::Near), now, inner.units())
}

/// A figure that is tried, and the field it stands in.
struct Tried<'a> {
    words: &'static FieldWords,
    figure: &'static KindFigure,
    name: &'a str,
    shown: &'a Field,
}

/// A bag's pressure goes from its own least to its own most.
fn of_the_bag(inner: &mut Sheet, words: &KindWords, figure: &KindFigure, bound: Bound) -> Bound {
    if figure.name != "pressure" {
        return bound;
    }
    let mut end = |name: &str| {
        let field = words.fields.iter().find(|field| field.figure == name)?;
        if !inner.is_filled(field.field) {
            return None;
        }
        match read_figure(inner, words.row, field, field.field)? {
            FigureEntry::Typed(typed) => Some(typed.si),
            _ => None,
        }
    };
    let (least, most) = (end("least_pressure"), end("most_pressure"));
    match least.zip(most) {
        Some((least, most)) if least < most => Bound { least: least.max(bound.least), most: most.min(bound.most), ..bound },
        _ => bound,
    }
}
