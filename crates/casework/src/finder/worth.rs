//! What an option costs and asks for, and what of the customer's wishes it passes over.

use super::search::Search;
use crate::entry::{Currency, OptionEntry, PartEntry};
use crate::verdict::Cause;

/// What an option costs and asks for.
#[derive(Debug, Clone, PartialEq)]
pub struct Worth {
    /// Hundredths of the currency, all parts together; `None` where a price is not known, or they are in different ones.
    pub price: Option<(i64, Currency)>,
    /// Hours of one person; `None` where nobody knows those of a part.
    pub hours: Option<f64>,
    /// Days until the last part is there; `None` where nobody knows it of one.
    pub days: Option<u32>,
    /// What has to be looked after.
    pub upkeep: Vec<String>,
    /// Whether all of it comes off again.
    pub removable: bool,
    /// How many parts.
    pub parts: usize,
    /// What it puts right of what was found to be behind it; `None` where nothing was found that parts put right.
    pub cures: Option<Cures>,
    /// How much quicker the rear bounces empty, and loaded: 0.1 is a tenth quicker, and firmer.
    pub firmer: [Option<f64>; 2],
    /// How much of what is enough is left at the stops in what is planned: from 0 to 1; `None` where that is not known.
    pub headroom: Option<f64>,
    /// Whether it passes over something that the customer asked for.
    pub against_a_wish: Vec<Wish>,
}

/// What an option puts right of what was found to be behind it.
#[derive(Debug, Clone, PartialEq)]
pub struct Cures {
    /// The likely causes that it puts right, the likeliest first.
    pub right: Vec<Cause>,
    /// Those that parts put right and it does not.
    pub left: Vec<Cause>,
    /// How much of all the likely ones, each by what speaks for it, down to the first that it leaves: from 0 to 1. A helper under tired
    /// springs is no cure.
    pub share: f64,
}

impl Cures {
    /// Whether it puts right the likeliest of them.
    pub fn the_likeliest(&self) -> bool {
        self.share > 0.0
    }
}

/// Something that the customer asked for.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Wish {
    /// Nothing that wants looking after.
    NoUpkeep,
    /// That it comes off again.
    Removable,
    /// What it may cost.
    Budget,
    /// The day it is wanted.
    ByTheDay,
}

impl Wish {
    /// The word it goes by in documents.
    pub fn word(&self) -> &'static str {
        match self {
            Wish::NoUpkeep => "no_upkeep",
            Wish::Removable => "removable",
            Wish::Budget => "budget",
            Wish::ByTheDay => "by_the_day",
        }
    }
}

impl Worth {
    /// What can be said of parts by themselves.
    pub(super) fn of<'p>(parts: impl Iterator<Item = &'p PartEntry> + Clone) -> Self {
        let shelf = || parts.clone().map(|part| part.shelf.as_deref());
        let mut days = shelf().map(|part| {
            let part = part?;
            if part.in_stock.is_some_and(|count| count > 0) { Some(0) } else { part.lead_days }
        });
        Worth {
            price: OptionEntry::price_of(parts.clone()).map(|price| (price.hundredths, price.currency)),
            hours: shelf().map(|part| part?.hours).sum(),
            days: days.try_fold(0, |most: u32, days| Some(most.max(days?))),
            upkeep: shelf().flatten().filter(|part| !part.upkeep.is_empty()).map(|part| part.upkeep.clone()).collect(),
            removable: shelf().all(|part| part.is_some_and(|part| part.removable == Some(true))),
            parts: parts.clone().count(),
            cures: None,
            firmer: [None, None],
            headroom: None,
            against_a_wish: Vec::new(),
        }
    }

    /// What of the customer's wishes it passes over.
    pub(super) fn wishes_passed_over(&self, search: &Search<'_>) -> Vec<Wish> {
        let sheet = &search.work.case().sheet;
        let budget = sheet.budget.as_ref().zip(self.price);
        let over = budget.is_some_and(|(budget, (price, currency))| currency == budget.currency && price > budget.hundredths);
        let wished = [
            (Wish::NoUpkeep, sheet.upkeep == Some(false) && !self.upkeep.is_empty()),
            (Wish::Removable, sheet.removable == Some(true) && !self.removable),
            (Wish::Budget, over),
            (Wish::ByTheDay, self.is_late(search).unwrap_or(false)),
        ];
        wished.into_iter().filter_map(|(wish, passed_over)| passed_over.then_some(wish)).collect()
    }

    /// Whether its parts come after the day it is wanted; `None` where that is not known.
    fn is_late(&self, search: &Search<'_>) -> Option<bool> {
        let wanted = day_number(&search.work.case().sheet.wanted_by.as_ref()?.day)?;
        Some(day_number(search.today?)? + i64::from(self.days?) > wanted)
    }
}

/// A day as a number, of `YYYY-MM-DD`.
///
/// # Source     days from the civil calendar: Richards, Mapping Time, 24 (Oxford, 1998; from memory)
fn day_number(day: &str) -> Option<i64> {
    let mut parts = day.splitn(3, '-').map(|part| part.parse::<i64>().ok());
    let (year, month, day) = (parts.next()??, parts.next()??, parts.next()??);
    let years = year + 4_800 - (14 - month) / 12;
    let months = month + 12 * ((14 - month) / 12) - 3;
    Some(day + (153 * months + 2) / 5 + 365 * years + years / 4 - years / 100 + years / 400 - 32_045)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn days_are_counted_over_months_and_leap_years() {
        let between = |one, other| day_number(other).unwrap() - day_number(one).unwrap();
        assert_eq!(between("2026-11-29", "2026-12-01"), 2);
        assert_eq!(between("2028-02-28", "2028-03-01"), 2);
        assert_eq!(between("2027-02-28", "2027-03-01"), 1);
        assert_eq!(between("2026-12-31", "2027-01-01"), 1);
        assert!(day_number("soon").is_none());
    }
}
