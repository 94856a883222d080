//! What it takes to have a part of the shelf, in words.

use wise_badger_casework::entry::{EndWord, FigureEntry, MoneyEntry, ShelfPart};
use wise_badger_casework::shelf::Effect;
use wise_badger_mechanics::bound::Dimension;
use wise_badger_mechanics::correction::Takes;
use wise_badger_mechanics::units::{metres, newtons_per_metre};

use super::Units;
use super::intake::currency_name;
use crate::correction::figure_label;

/// What the shop's own proofs say of a part beside its box; nothing while they say nothing.
pub(crate) fn record_words(part: &ShelfPart, units: Units) -> Option<String> {
    let record = part.record?;
    let figure = part.kind.learned_from_heights()?;
    let said = part.found.get(figure.name).or_else(|| part.sold.get(figure.name));
    let Some(FigureEntry::Typed(said)) = said else { return None };
    let known = figure.doubt.off(said.si, record.deviations);
    let left = 2.0 * (figure.doubt.off(said.si, record.deviations + record.left) - known).abs();
    let of_length = matches!(figure.takes, Takes::Within(bound) if bound.dimension == Dimension::Length);
    let (value, band, was) = if of_length {
        (units.height(metres(known)), units.height(metres(left)), units.height(metres(said.si)))
    } else {
        let rate = |si: f64| units.rate(newtons_per_metre(si));
        (rate(known), rate(left), rate(said.si))
    };
    let what = figure_label(part.kind, figure.name).to_lowercase();
    Some(format!("{what} {value} ± {band} by {} of our own jobs, where {was} is said", record.jobs))
}

/// By how much it lifts a sound half-ton, empty and with a load over that axle.
pub(crate) fn effect_words(effect: &Effect, units: Units) -> String {
    let Some((empty, (load, loaded))) = effect.lifts() else { return String::new() };
    let end = if effect.end == EndWord::Front { "front" } else { "rear" };
    format!("half-ton, {end}: {} empty, {} with {}", units.change(empty), units.change(loaded), units.weight(load))
}

/// A sum with its currency.
pub(crate) fn money_words(money: &MoneyEntry) -> String {
    let (whole, cents) = (money.hundredths / 100, money.hundredths % 100);
    let digits = whole.to_string();
    let groups: Vec<&str> = digits.as_bytes().rchunks(3).rev().filter_map(|group| std::str::from_utf8(group).ok()).collect();
    let cents = if cents == 0 { String::new() } else { format!(".{cents:02}") };
    format!("{}\u{a0}{}{cents}", currency_name(money.currency), groups.join(","))
}

/// Whether it is there, and how long it takes where it is not.
pub(crate) fn stock_words(part: &ShelfPart) -> String {
    let days = part.lead_days.map(|days| match days {
        0 => "the same day".to_owned(),
        1 => "1 day".to_owned(),
        days => format!("{days} days"),
    });
    match (part.in_stock, days) {
        (Some(0), Some(days)) => format!("to order, {days}"),
        (Some(0), None) => "to order".to_owned(),
        (Some(count), _) => format!("{count} in stock"),
        (None, Some(days)) => format!("in {days}"),
        (None, None) => String::new(),
    }
}

/// A part with what it takes to have it.
pub(crate) fn shelf_words(part: &ShelfPart) -> String {
    let terms = terms_words(part);
    let apart = if terms.is_empty() { "" } else { ": " };
    format!("{} {}{apart}{terms}", part.number, part.name)
}

/// What it costs, takes and wants, for whoever chooses it: one line.
fn terms_words(part: &ShelfPart) -> String {
    let hours = part.hours.map(|hours| format!("{hours} h to fit"));
    let removable =
        part.removable.map(|removable| if removable { "comes off again" } else { "does not come off again" }.to_owned());
    let upkeep = (!part.upkeep.is_empty()).then(|| format!("upkeep: {}", part.upkeep));
    let missing = (!part.not_in_the_box.is_empty()).then(|| format!("not in the box: {}", part.not_in_the_box));
    let tire = (!part.largest_tire.is_empty()).then(|| format!("largest tire {}", part.largest_tire));
    let stock = Some(stock_words(part)).filter(|words| !words.is_empty());
    let known = part.record.map(|record| format!("goes by {} of our own jobs", record.jobs));
    let each = [part.price.as_ref().map(money_words), hours, stock, upkeep, removable, missing, tire, known];
    each.into_iter().flatten().collect::<Vec<_>>().join(" · ")
}

#[cfg(test)]
mod tests {
    use super::*;
    use wise_badger_casework::entry::Currency;

    #[test]
    fn a_sum_is_written_with_its_thousands_apart() {
        let sum = |hundredths| money_words(&MoneyEntry { text: String::new(), hundredths, currency: Currency::Usd });
        assert_eq!(sum(125_050), "US$\u{a0}1,250.50");
        assert_eq!(sum(18_900), "US$\u{a0}189");
        assert_eq!(sum(123_456_700), "US$\u{a0}1,234,567");
    }
}
