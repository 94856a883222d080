//! What it costs.

use super::hours::Hours;
use super::supply::Supplied;
use super::terms::ShopTerms;
use crate::entry::{Currency, ExtraEntry, MoneyEntry, WorkPlanEntry};

/// What a line of the estimate is for.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Told<'a> {
    /// A needed thing, by its place among them.
    Needed(usize),
    /// Something that the customer agreed to on top.
    Extra(&'a ExtraEntry),
}

/// A line of the estimate.
#[derive(Debug, Clone, PartialEq)]
pub struct Line<'a> {
    /// What it is for.
    pub of: Told<'a>,
    /// Its parts' price; `None` where nobody knows.
    pub hundredths: Option<i64>,
}

/// An estimate, in hundredths of the shop's currency: its figures from least to most.
#[derive(Debug, Clone, PartialEq)]
pub struct Estimate<'a> {
    /// What it is reckoned in.
    pub currency: Currency,
    /// Line by line.
    pub lines: Vec<Line<'a>>,
    /// Parts together, as far as their prices are known.
    pub parts: i64,
    /// How many have no price.
    pub not_priced: usize,
    /// The work; `None` while nobody said what an hour costs.
    pub work: Option<[i64; 2]>,
    /// Tax on both.
    pub tax: [i64; 2],
    /// All together, as far as it is known.
    pub total: [i64; 2],
}

#[expect(
    clippy::cast_possible_truncation,
    reason = "sums of money are far below what a whole number holds, and the cast saturates"
)]
fn whole(hundredths: f64) -> i64 {
    hundredths.round() as i64
}

fn in_currency(money: Option<&MoneyEntry>, currency: Currency) -> Option<i64> {
    money.filter(|money| money.currency == currency).map(|money| money.hundredths)
}

/// What it costs: what is needed, what the customer agreed to, and the hours. A price in another currency is none.
pub fn estimate<'a>(
    supplies: &[Supplied<'a>],
    plan: &'a WorkPlanEntry,
    hours: Hours,
    terms: &ShopTerms,
    currency: Currency,
) -> Estimate<'a> {
    let of_needed = supplies.iter().enumerate().map(|(place, supplied)| {
        let typed = supplied.entry.and_then(|entry| entry.price.as_ref());
        let price = in_currency(typed.or_else(|| supplied.shelf.and_then(|shelf| shelf.price.as_ref())), currency);
        Line { of: Told::Needed(place), hundredths: price }
    });
    let agreed = plan.extras.iter().filter(|extra| extra.agreed == Some(true));
    let of_extras = agreed.map(|extra| Line { of: Told::Extra(extra), hundredths: in_currency(extra.price.as_ref(), currency) });
    let lines: Vec<Line<'a>> = of_needed.chain(of_extras).collect();
    let parts: i64 = lines.iter().filter_map(|line| line.hundredths).sum();
    let hourly = in_currency(terms.hourly.as_ref(), currency);
    let cost = |hours: f64| hourly.map(|hourly| whole(hours * hourly as f64));
    let work = cost(hours.least).zip(cost(hours.most)).map(|(least, most)| [least, most]);
    let taxed = |work: i64| {
        let each = [(parts, terms.tax_on_parts), (work, terms.tax_on_work)];
        each.iter().map(|(sum, percent)| whole(*sum as f64 * percent / 100.0)).sum::<i64>()
    };
    let tax = work.unwrap_or_default().map(taxed);
    let [least, most] = work.unwrap_or_default();
    Estimate {
        currency,
        not_priced: lines.iter().filter(|line| line.hundredths.is_none()).count(),
        parts,
        work,
        total: [parts + least + tax[0], parts + most + tax[1]],
        tax,
        lines,
    }
}
