//! A part of the shelf in words and on a form, as its kind asks for it.

use std::collections::BTreeMap;

use wise_badger_casework::entry::{CorrectionEntry, FigureEntry, ShelfPart};
use wise_badger_casework::survey::VehicleFacts;
use wise_badger_mechanics::correction::{FigureRole, KindFigure, KindRow};

use super::form::{field_called, field_of, read_figure};
use super::words::typed_with_unit;
use super::{FieldWords, GROUPS, KindWords, kinds};
use crate::form::{Field, Picks, Sheet};
use crate::view::{Units, sentence};

/// Before the name of the field of a figure that the shop found.
const FOUND: &str = "found_";

/// Words and names of the kinds that are bought.
pub(crate) fn bought_kinds() -> impl Iterator<Item = (&'static str, &'static str)> {
    bought().map(|words| (words.row.word, words.name))
}

/// What a kind is called.
pub(crate) fn kind_name(row: &KindRow) -> &'static str {
    KindWords::of(row).name
}

fn bought() -> impl Iterator<Item = &'static KindWords> {
    kinds().filter(|words| words.is_typed() && ShelfPart::is_bought(words.row))
}

/// The fields of a kind that a box could say, each with its figure.
fn fields_of(words: &'static KindWords) -> impl Iterator<Item = (&'static FieldWords, &'static KindFigure)> {
    let figure = |field: &'static FieldWords| ShelfPart::figures_of(words.row).find(|figure| figure.name == field.figure);
    words.fields.iter().filter_map(move |field| Some((field, figure(field)?)))
}

/// Every kind that is bought, with its fields: as sold, and as the shop found them.
pub(crate) fn bought_kinds_form(sheet: &Sheet) -> Picks {
    let picks = sheet.picks("kind", "What it is", bought_kinds());
    let firsts = GROUPS.iter().filter_map(|(heading, kinds)| {
        Some((kinds.iter().copied().find(|words| words.is_typed() && ShelfPart::is_bought(words.row))?, *heading))
    });
    let picks = firsts.fold(picks, |picks, (first, heading)| picks.under(first.row.word, heading));
    bought().fold(picks, |picks, words| {
        // What the box says and what was found, side by side.
        let fields = fields_of(words).flat_map(|(field, figure)| {
            let as_set = figure.role == FigureRole::AsSet;
            let hint = if as_set { "as its box says to set it; may stay empty" } else { field.hint };
            let found = (!as_set).then(|| field_of_found(sheet, words.row, field).into());
            std::iter::once(field_of(sheet, words.row, field).hint(hint).into()).chain(found)
        });
        picks.asks(words.row.word, fields)
    })
}

fn field_of_found(sheet: &Sheet, row: &KindRow, field: &FieldWords) -> Field {
    let (name, label) = (format!("{FOUND}{}", field.field), format!("{}: as we found it", field.label));
    field_called(sheet, row, field, &name, &label).hint("on the bench or on a vehicle; it stands in the place of the box's")
}

/// The form with a part's figures.
pub(crate) fn fill_figures(sheet: &mut Sheet, part: &ShelfPart) {
    sheet.set("kind", part.kind.word);
    for (field, figure) in fields_of(KindWords::of(part.kind)) {
        for (name, list) in [(field.field.to_owned(), &part.sold), (format!("{FOUND}{}", field.field), &part.found)] {
            match list.get(figure.name) {
                Some(FigureEntry::Typed(typed)) => sheet.set_typed(&name, typed),
                Some(FigureEntry::Table(table)) => sheet.set(&name, table.text.clone()),
                _ => {}
            }
        }
    }
}

/// A part's kind and figures off the form.
pub(crate) struct ReadFigures {
    pub(crate) kind: &'static KindRow,
    pub(crate) sold: BTreeMap<String, FigureEntry>,
    pub(crate) found: BTreeMap<String, FigureEntry>,
}

/// Reads them; `None` with complaints on the sheet when anything is wrong.
pub(crate) fn read_figures(sheet: &mut Sheet) -> Option<ReadFigures> {
    let picked = sheet.text("kind").to_owned();
    let Some(words) = bought().find(|words| words.row.word == picked) else {
        sheet.refuse("kind", "Pick what it is.");
        return None;
    };
    let mut read = ReadFigures { kind: words.row, sold: BTreeMap::new(), found: BTreeMap::new() };
    let mut sound = true;
    for (field, figure) in fields_of(words) {
        let asked = figure.role == FigureRole::OfThePart || sheet.is_filled(field.field);
        if asked {
            match read_figure(sheet, words.row, field, field.field) {
                Some(entry) => drop(read.sold.insert(figure.name.to_owned(), entry)),
                None => sound = false,
            }
        }
        let name = format!("{FOUND}{}", field.field);
        if figure.role == FigureRole::OfThePart && sheet.is_filled(&name) {
            match read_figure(sheet, words.row, field, &name) {
                Some(entry) => drop(read.found.insert(figure.name.to_owned(), entry)),
                None => sound = false,
            }
        }
    }
    sound.then_some(read)
}

/// The form of a correction with a part of the shelf: its own figures as they are known best.
pub(crate) fn fill_from_the_shelf(sheet: &mut Sheet, part: &ShelfPart) {
    sheet.set("kind", part.kind.word);
    if let Some(end) = part.end {
        sheet.set("axles", end.word());
    }
    for (field, figure) in fields_of(KindWords::of(part.kind)) {
        fill_figure(sheet, field, part, figure);
    }
}

/// The form with nothing but a part's own figures: how it is set, and where it goes, stay as they are.
pub(crate) fn fill_own_figures(sheet: &mut Sheet, part: &ShelfPart) {
    for (field, figure) in fields_of(KindWords::of(part.kind)).filter(|(_, figure)| figure.role == FigureRole::OfThePart) {
        fill_figure(sheet, field, part, figure);
    }
}

fn fill_figure(sheet: &mut Sheet, field: &FieldWords, part: &ShelfPart, figure: &KindFigure) {
    match part.best(figure.name) {
        Some(FigureEntry::Typed(typed)) => sheet.set_typed(field.field, typed),
        Some(FigureEntry::Table(table)) => sheet.set(field.field, table.text.clone()),
        _ => {}
    }
}

/// The form with a part set otherwise than its box says.
pub(crate) fn fill_setting(sheet: &mut Sheet, part: &ShelfPart, text: &str) {
    let set = fields_of(KindWords::of(part.kind)).find(|(_, figure)| part.kind.set_by_case == Some(figure.name));
    if let Some((field, _)) = set {
        sheet.set(field.field, text);
    }
}

/// Complains where the figures of a part from the shelf are not the shelf's.
pub(crate) fn hold_against_the_shelf(sheet: &mut Sheet, correction: &CorrectionEntry, part: &ShelfPart) {
    if correction.row != part.kind {
        let what = format!("{} is another kind of part; put it down without the shelf, or pick it again.", part.number);
        return sheet.refuse("kind", what);
    }
    let si = |entry: &FigureEntry| match entry {
        FigureEntry::Typed(typed) => vec![typed.si],
        FigureEntry::Table(table) => table.points_si.iter().flat_map(|(travel, force)| [*travel, *force]).collect(),
        _ => Vec::new(),
    };
    for (field, figure) in fields_of(KindWords::of(part.kind)).filter(|(_, figure)| figure.role == FigureRole::OfThePart) {
        let (typed, on_the_shelf) = (correction.figure(figure.name).map(si), part.best(figure.name).map(si));
        if typed != on_the_shelf {
            let text =
                format!("The shelf says otherwise of {}: put it right there, or put this down without the shelf.", part.number);
            sheet.refuse(field.field, text);
        }
    }
}

/// What a part does, by its figures as they are known best: name and figure of each.
pub(crate) fn part_words(part: &ShelfPart, units: Units) -> String {
    let said = |(field, figure): (&FieldWords, &KindFigure)| {
        let label = field.label.split([',', ':']).next().unwrap_or_default().to_lowercase();
        let found = if part.found.contains_key(figure.name) { " as found" } else { "" };
        match part.best(figure.name)? {
            FigureEntry::Typed(typed) => Some(format!("{label} {}{found}", typed_with_unit(typed, units))),
            FigureEntry::Table(table) => Some(format!("{label} in {} points{found}", table.points_si.len())),
            _ => None,
        }
    };
    let each: Vec<String> = fields_of(KindWords::of(part.kind)).filter_map(said).collect();
    sentence(&each.join(", "))
}

/// Words of the kinds that go onto a vehicle.
pub(crate) fn kinds_that_fit(vehicle: &VehicleFacts) -> Vec<String> {
    bought().filter(|words| vehicle.fits_nowhere(words.row).is_none()).map(|words| words.row.word.to_owned()).collect()
}
