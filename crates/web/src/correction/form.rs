//! The form of a correction, as its kind asks for it.

use std::collections::BTreeMap;

use wise_badger_casework::entry::{CorrectionEntry, FigureEntry, IntakeSheetEntry, ModificationEntry, TypedTable};
use wise_badger_casework::survey::{End, Modification, NoFit, SpringKind, VehicleClass, VehicleFacts};
use wise_badger_casework::words::Word;
use wise_badger_mechanics::bound::{Bound, Dimension};
use wise_badger_mechanics::correction::{Axles, CorrectionProblem, KindRow, Needs, Site, Takes};
use wise_badger_mechanics::side::Side;
use wise_badger_mechanics::units::{Length, pascals};

use super::words::axles_name;
use super::{FieldWords, GROUPS, KindWords, coil_spacer, exchanged_block, exchanged_taper, kinds};
use crate::form::{Field, Picks, Sheet};
use crate::view::look_over::no_fit_words;
use crate::view::{Units, sentence};

/// The word of both sides, on the form.
const BOTH: &str = "both";

/// Where it is to go.
pub(crate) struct SiteForm {
    pub(crate) axles: Picks,
    pub(crate) side: Picks,
    /// Whether anything but both sides of the rear is asked for, or said of it.
    pub(crate) open: bool,
}

/// Every kind that is typed on a form and goes onto the vehicle, with its fields.
pub(crate) fn kinds_form(sheet: &Sheet, vehicle: &VehicleFacts) -> Picks {
    let goes = |words: &&KindWords| words.is_typed() && vehicle.fits_nowhere(words.row).is_none();
    let typed = || kinds().filter(goes);
    let picks = sheet.picks("kind", "Correction", typed().map(|words| (words.row.word, words.name))).quiet();
    let firsts = GROUPS.iter().filter_map(|(heading, kinds)| Some((kinds.iter().copied().find(goes)?, *heading)));
    let picks = firsts.fold(picks, |picks, (first, heading)| picks.under(first.row.word, heading));
    typed().fold(picks, |picks, words| {
        let fields = words.fields.iter().map(|field| field_of(sheet, words.row, field).into());
        picks.asks(words.row.word, fields)
    })
}

/// What the form begins with: the first kind that goes onto the vehicle, what is usual, and what Intake notes of the part that comes
/// out.
pub(crate) fn begin(sheet: &mut Sheet, vehicle: &VehicleFacts, done_before: &IntakeSheetEntry) {
    let first = kinds().find(|words| words.is_typed() && vehicle.fits_nowhere(words.row).is_none());
    if let Some(first) = first.filter(|_| sheet.text("kind").is_empty()) {
        sheet.set("kind", first.row.word);
    }
    let units = sheet.units().typed_in();
    let set = vehicle.rear_set.filter(|_| sheet.text("axles") != Axles::Front.word());
    let set = set.map(|set| units.length(set.value.max(Length::default())));
    for words in kinds() {
        for field in words.fields.iter().filter(|field| !field.usual.is_empty()) {
            if sheet.text(field.field).is_empty() {
                let known = set.clone().filter(|_| field.figure == "set");
                match known.or_else(|| words.usual(field)) {
                    Some(typed) => sheet.set_typed(field.field, &typed),
                    // Nothing is nothing in every unit.
                    None => sheet.set(field.field, field.usual),
                }
            }
        }
    }
    let noted = |whats: &[Modification]| {
        let noted = |what: &Modification| done_before.modifications.iter().find(|done| done.what == *what);
        whats.iter().find_map(noted).map(|noted: &ModificationEntry| noted.size.as_ref())
    };
    if let Some(height) = noted(&[Modification::RearBlock]).flatten() {
        for comes_out in [exchanged_block::COMES_OUT, exchanged_taper::COMES_OUT] {
            if sheet.text(comes_out).is_empty() {
                sheet.set_typed(comes_out, height);
            }
        }
    }
    let fits_behind = vehicle.no_fit(End::Rear, Needs::Coils).is_none();
    let here = if fits_behind { Modification::RearSpacer } else { Modification::FrontSpacer };
    match noted(&[here, Modification::Spacer]) {
        Some(Some(height)) => sheet.set_typed(coil_spacer::COMES_OUT, height),
        Some(None) => {}
        None => sheet.set(coil_spacer::COMES_OUT, "0"),
    }
}

/// Complains where what comes out is not what Intake says is there.
pub(super) fn hold_against_what_is_there(sheet: &mut Sheet, entry: &CorrectionEntry, vehicle: &VehicleFacts) {
    let Some(part) = entry.correction() else { return };
    let field = KindWords::of(entry.row).fields.iter().find(|field| field.figure == "replaces");
    let Some((field, no_fit)) = field.zip(vehicle.no_fit_of(&part)) else { return };
    if matches!(no_fit, NoFit::NoneComesOut(_) | NoFit::OneComesOut(_) | NoFit::OtherComesOut(_)) {
        sheet.refuse(field.field, format!("{}.", sentence(&no_fit_words(&no_fit))));
    }
}

/// The kinds that are typed on a form and do not go onto the vehicle, with why.
pub(crate) fn kinds_that_do_not_fit(vehicle: &VehicleFacts) -> Vec<(&'static str, NoFit)> {
    let typed = kinds().filter(|words| words.is_typed());
    let no_fits = typed.filter_map(|words| Some((words.name, vehicle.fits_nowhere(words.row)?)));
    // That nothing can be exchanged where nothing is there, that leaves are no coils, and of anything but a trailer that its springs are
    // over the axle, goes without saying.
    let said = |no_fit: &NoFit| {
        !matches!(no_fit, NoFit::NoBlockThere(_) | NoFit::NoCoils(_, SpringKind::Leaf))
            && (vehicle.class.is_trailer() || !matches!(no_fit, NoFit::NotUnder(_)))
            && (*no_fit != NoFit::CoilsNotSaid(End::Rear) || vehicle.no_fit(End::Rear, Needs::Leaves).is_some())
    };
    no_fits.filter(|(_, no_fit)| said(no_fit)).collect()
}

/// The axles that a class of vehicle has a choice of.
fn axles_of(class: VehicleClass) -> Vec<Axles> {
    let one_of_several = class.is_trailer() && class.rear_axles() > 1;
    let others = if one_of_several { (1..=class.rear_axles()).map(Axles::OneOfRear).collect() } else { Vec::new() };
    let front = if class.is_trailer() { Vec::new() } else { vec![Axles::Front] };
    [vec![Axles::Rear], others, front].concat()
}

/// The sides that a part may go on, by their words.
pub(crate) const SIDES: [(&str, &str); 3] = [(BOTH, "Both sides"), ("left", "Left only"), ("right", "Right only")];

/// The axles that a part may go on, by their words.
pub(crate) fn axles_offered(class: VehicleClass) -> Vec<(&'static str, String)> {
    axles_of(class).into_iter().map(|axles| (axles.word(), sentence(axles_name(axles, class)))).collect()
}

/// Where it is to go, both sides of the rear unless somebody says otherwise.
pub(crate) fn site_form(sheet: &Sheet, class: VehicleClass) -> SiteForm {
    let axles = sheet.picks("axles", "On", axles_offered(class)).or_first();
    let side = sheet.picks("side", "Side", SIDES).or_first();
    SiteForm { open: !(axles.is_only(Axles::Rear.word()) && side.is_only(BOTH)), axles, side }
}

pub(super) fn field_of(sheet: &Sheet, row: &KindRow, words: &FieldWords) -> Field {
    field_called(sheet, row, words, words.field, words.label).hint(words.hint)
}

/// The field of a figure under another name and label.
pub(super) fn field_called(sheet: &Sheet, row: &KindRow, words: &FieldWords, name: &str, label: &str) -> Field {
    match takes(row, words) {
        Some(Takes::Within(bound)) => match bound.dimension {
            Dimension::Length => sheet.length_field(name, label),
            Dimension::Weight => sheet.weight_field(name, label),
            Dimension::Rate => sheet.rate_field(name, label),
            Dimension::Pressure => sheet.number_field(name, label, sheet.units().pressure_name()),
            Dimension::Count => sheet.number_field(name, label, "turns"),
        },
        _ => {
            let inches = sheet.units().length_name() == "in";
            let example = if inches { "0 ; 0\n1/2 ; 180 lb\n1 ; 520 lb" } else { "0 ; 0\n12 ; 80 kg\n25 ; 235 kg" };
            sheet.text_field(name, label).lines(4).stand_in(example)
        }
    }
}

fn takes(row: &KindRow, words: &FieldWords) -> Option<Takes> {
    row.figures.iter().find(|figure| figure.name == words.figure).map(|figure| figure.takes)
}

/// The form with the figures of a correction, to try another like it.
pub(crate) fn fill(sheet: &mut Sheet, entry: &CorrectionEntry) {
    let words = KindWords::of(entry.row);
    // What does not come from this form leaves nothing on it.
    if !words.is_typed() {
        return;
    }
    sheet.set("kind", words.row.word);
    sheet.set("axles", entry.site.axles.word());
    sheet.set("side", entry.site.side.map_or(BOTH, Side::word));
    for field in words.fields {
        match entry.figure(field.figure) {
            Some(FigureEntry::Typed(typed)) => sheet.set_typed(field.field, typed),
            Some(FigureEntry::Table(table)) => sheet.set(field.field, table.text.clone()),
            _ => {}
        }
    }
}

/// Reads the form; `None` with complaints on the sheet when anything is wrong.
pub(crate) fn check(sheet: &mut Sheet, class: VehicleClass) -> Option<CorrectionEntry> {
    let picked = sheet.text("kind");
    let Some(words) = kinds().find(|words| words.is_typed() && words.row.word == picked) else {
        sheet.refuse("kind", "Pick a correction.");
        return None;
    };
    let site = read_site(sheet, class);
    let read =
        words.fields.iter().map(|field| Some((field.figure.to_owned(), read_figure(sheet, words.row, field, field.field)?)));
    let figures: Vec<Option<(String, FigureEntry)>> = read.collect();
    let figures: BTreeMap<String, FigureEntry> = figures.into_iter().collect::<Option<_>>()?;
    let entry = CorrectionEntry::new(words.row, site?, figures).ok()?;
    for problem in entry.correction()?.problems() {
        say(sheet, words, &problem);
    }
    sheet.is_sound().then_some(entry)
}

fn read_site(sheet: &mut Sheet, class: VehicleClass) -> Option<Site> {
    let asked = sheet.text("axles");
    let axles = if asked.is_empty() { Some(Axles::Rear) } else { Axles::from_word(asked) };
    let axles = axles.filter(|axles| axles_of(class).contains(axles));
    if axles.is_none() {
        sheet.refuse("axles", "This vehicle has no such axle; pick another.");
    }
    let side = match sheet.text("side") {
        "" | BOTH => Some(None),
        word => Side::from_word(word).map(Some),
    };
    if side.is_none() {
        sheet.refuse("side", "Pick both sides, left or right.");
    }
    Some(Site { axles: axles?, side: side? })
}

/// A figure off the field of a name.
pub(super) fn read_figure(sheet: &mut Sheet, row: &KindRow, words: &FieldWords, name: &str) -> Option<FigureEntry> {
    let Some(Takes::Within(bound)) = takes(row, words) else { return force_table(sheet, name).map(FigureEntry::from) };
    let typed = sheet.of_dimension(name, &bound)?;
    sheet.within(name, words.what, typed, &bound).map(FigureEntry::from)
}

fn say(sheet: &mut Sheet, words: &KindWords, problem: &CorrectionProblem) {
    // What it is, without how it is bought.
    let what = words.name.split(',').next().unwrap_or_default().to_lowercase();
    match problem {
        CorrectionProblem::NotOnTheFront => {
            sheet.refuse("axles", format!("Not on a steered axle: {what} goes at the rear only."));
        }
        CorrectionProblem::NotAtTheRear => {
            sheet.refuse("axles", format!("Front only: {what} goes on the front axle; pick it under “Where it goes”."));
        }
        CorrectionProblem::NotLonger { figure, than } => {
            let label = |figure: &str| field_words(words, figure).map(|field| field.label.to_lowercase()).unwrap_or_default();
            let text = format!("{} must be more than {}: check both.", sentence(&label(figure)), label(than));
            sheet.refuse(field_words(words, figure).map_or("kind", |field| field.field), text);
        }
        CorrectionProblem::PressureOutside { figure, bound } => {
            let field = field_words(words, figure).map_or("kind", |field| field.field);
            sheet.refuse(field, pressure_outside(bound, sheet.units()));
        }
        CorrectionProblem::SolidAlready { figure } => {
            let text = "Free it is no taller than with all its turns on each other: check its height, its wire and its turns.";
            sheet.refuse(field_words(words, figure).map_or("kind", |field| field.field), text);
        }
        CorrectionProblem::NotOnOneSide => sheet.refuse("side", format!("Not on one side: {what} goes on both alike.")),
        // Each figure was held against its bounds where it was read.
        _ => sheet.refuse("kind", "These figures make no correction; check them."),
    }
}

fn field_words(words: &KindWords, figure: &str) -> Option<&'static FieldWords> {
    words.fields.iter().find(|field| field.figure == figure)
}

/// Says what a bag takes that was filled past it.
pub(super) fn pressure_outside(bound: &Bound, units: Units) -> String {
    let [least, most] = [bound.least, bound.most].map(|si| units.pressure(pascals(si)));
    if bound.least > bound.most {
        return format!("Its least pressure, {least}, is above its most, {most}: check both.");
    }
    format!("These bags take {least} to {most}: never less with the vehicle on its wheels, never more.")
}

/// Reads a table of one point a line.
fn force_table(sheet: &mut Sheet, field: &str) -> Option<TypedTable> {
    let units = sheet.units().of_bare_numbers();
    match units.table(sheet.text(field)) {
        Ok(table) => Some(table),
        Err(problem) => {
            sheet.refuse(field, sentence(&problem.to_string()));
            None
        }
    }
}
