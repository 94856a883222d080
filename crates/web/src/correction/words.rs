//! A correction in words.

use wise_badger_casework::entry::{CorrectionEntry, FigureEntry, OptionEntry, Typed, UnitWord};
use wise_badger_casework::survey::VehicleClass;
use wise_badger_mechanics::correction::{Axles, Correction, KindFigure, KindRow, PartDoubt, Quantity, Site};
use wise_badger_mechanics::side::Side;
use wise_badger_mechanics::stance::ForceTable;
use wise_badger_mechanics::units::{metres, pascals};

use super::KindWords;
use crate::view::{Units, percent, turns, typed_text};

/// A correction with its figures, short enough for a list.
pub(crate) fn correction_name(entry: &CorrectionEntry, class: VehicleClass, units: Units) -> String {
    let said = |name: &str| match entry.figure(name) {
        Some(FigureEntry::Typed(typed)) => typed_with_unit(typed, units),
        Some(FigureEntry::Words(words)) => words.clone(),
        _ => String::new(),
    };
    let is_nought = |name: &str| matches!(entry.figure(name), Some(FigureEntry::Typed(typed)) if typed.si.abs() <= 0.0);
    let name = filled_in(&without_nought(KindWords::of(entry.row).in_a_list, is_nought), said);
    match site_words(entry.site, class) {
        None => name,
        Some(site) => format!("{name}; {site}"),
    }
}

/// An option by its name, or by its parts.
pub(crate) fn option_name(entry: &OptionEntry, class: VehicleClass, units: Units) -> String {
    let parts = entry.parts.iter().map(|part| correction_name(&part.correction, class, units));
    let parts: Vec<String> = parts.collect();
    match entry.name.as_str() {
        "" => parts.join(" + "),
        name => format!("{name}: {}", parts.join(" + ")),
    }
}

/// How the height of an option comes about.
pub(crate) fn formula(parts: &[Correction]) -> &'static str {
    match parts {
        [one] => KindWords::of(one.row()).formula,
        _ => "rear = rear measured + rise; the rise is what all parts together lift it by in the balance of all springs",
    }
}

/// What its opened sum was given, a line each.
pub(crate) fn account(parts: &[Correction], units: Units) -> Vec<String> {
    parts.iter().flat_map(|part| account_of(part, units)).collect()
}

fn account_of(correction: &Correction, units: Units) -> Vec<String> {
    let given = correction.account();
    let said = |name: &str| given.get(name).map(|figure| figure_words(figure, units)).unwrap_or_default();
    KindWords::of(correction.row()).account.iter().map(|line| filled_in(line, said)).collect()
}

/// A figure of a part with its unit.
pub(crate) fn figure_words(figure: &Quantity, units: Units) -> String {
    match figure {
        Quantity::Length(length) => units.exact(*length),
        Quantity::Weight(force) => units.weight(*force),
        Quantity::Rate(rate) => units.rate(*rate),
        Quantity::Pressure(pressure) => units.pressure(*pressure),
        Quantity::Count(count) => turns(*count),
        Quantity::Table(table) => last_point(table, units),
        Quantity::Pack(_) => String::new(),
    }
}

/// What a figure of a kind is called on its form.
pub(crate) fn figure_label(row: &KindRow, figure: &str) -> &'static str {
    KindWords::of(row).fields.iter().find(|field| field.figure == figure).map_or("", |field| field.label)
}

/// How far parts may be from what was said of them, in a sentence; nothing of parts that are exact.
pub(crate) fn parts_doubt(parts: &[Correction], units: Units) -> Option<String> {
    let figures = parts.iter().flat_map(|part| part.row().figures.iter().map(move |figure| (part, figure)));
    let off = |(part, figure): (&Correction, &KindFigure)| {
        let by = match part.doubt_of(figure) {
            PartDoubt::Exact => return None,
            PartDoubt::Share(share) => percent(share),
            PartDoubt::Length(si) => units.exact(metres(si)),
            PartDoubt::Pressure(si) => units.pressure(pascals(si)),
        };
        let field = KindWords::of(part.row()).fields.iter().find(|field| field.figure == figure.name);
        let what = field.map_or_else(
            || "what its leaves carry by their sizes".to_owned(),
            |field| field.label.split(':').next().unwrap_or_default().to_lowercase(),
        );
        Some(format!("{what} ± {by}"))
    };
    let each: Vec<String> = figures.filter_map(off).collect();
    (!each.is_empty())
        .then(|| format!("Parts are not exact. By our own working rules, as one standard deviation: {}.", each.join(", ")))
}

fn last_point(table: &ForceTable, units: Units) -> String {
    let last = table.points().last();
    last.map_or_else(String::new, |(travel, force)| format!("to {} at {}", units.weight(force), units.exact(travel)))
}

/// Where it goes, where that is not both sides of the rear.
pub(super) fn site_words(site: Site, class: VehicleClass) -> Option<String> {
    let side = match site.side {
        None => "",
        Some(Side::Left) => "left only",
        Some(Side::Right) => "right only",
    };
    let axles = axles_name(site.axles, class);
    match (site.axles, side) {
        (Axles::Rear, "") => None,
        (Axles::Rear, side) => Some(side.to_owned()),
        (_, "") => Some(axles.to_owned()),
        (_, side) => Some(format!("{axles}, {side}")),
    }
}

/// What the axles of a site are called.
pub(super) fn axles_name(axles: Axles, class: VehicleClass) -> &'static str {
    match axles {
        Axles::Rear if class.is_trailer() => "all axles",
        Axles::Rear => "rear axle",
        Axles::Front => "front axle",
        Axles::OneOfRear(1) => "first axle",
        Axles::OneOfRear(2) => "second axle",
        Axles::OneOfRear(_) => "third axle",
    }
}

/// What was typed, with the unit it was read in where it has none of its own.
pub(super) fn typed_with_unit(typed: &Typed, units: Units) -> String {
    let text = typed_text(typed, units);
    let unit = match typed.unit {
        UnitWord::LbPerIn | UnitWord::NPerMm => units.rate_name(),
        UnitWord::Lb | UnitWord::Kg => units.weight_name(),
        UnitWord::Psi | UnitWord::Kpa => units.pressure_name(),
        UnitWord::Turns => "turns",
        _ => units.length_name(),
    };
    if text.ends_with(|c: char| c.is_ascii_digit()) { format!("{text} {unit}") } else { text }
}

/// A pattern without what stands in brackets of a figure that is nought, and without the brackets.
fn without_nought(pattern: &str, is_nought: impl Fn(&str) -> bool) -> String {
    let Some((before, (inside, after))) =
        pattern.split_once('[').and_then(|(before, rest)| Some((before, rest.split_once(']')?)))
    else {
        return pattern.to_owned();
    };
    let name = inside.split_once('{').and_then(|(_, rest)| rest.split_once('}')).map_or("", |(name, _)| name);
    let inside = if is_nought(name) { "" } else { inside };
    format!("{before}{inside}{after}")
}

/// A pattern with what stands for each name in braces.
fn filled_in(pattern: &str, said: impl Fn(&str) -> String) -> String {
    let mut parts = pattern.split('{');
    let mut text = parts.next().unwrap_or_default().to_owned();
    for part in parts {
        let (name, rest) = part.split_once('}').unwrap_or((part, ""));
        text.push_str(&said(name));
        text.push_str(rest);
    }
    text
}
