//! What an option is worth to this customer: what it costs, what it asks for afterwards, how it rides; and the order that follows.

use super::{Ranked, School, Search};
use crate::entry::{Currency, FirstWord, IntakeSheetEntry, PartEntry, ShareOf};

/// What counts, and by how much; a weight of nought is nought.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Weights {
    /// That the aim is met.
    pub aim: f64,
    /// That it puts right what was found to be behind it.
    pub cause: f64,
    /// How it rides.
    pub ride: f64,
    /// That it wants no upkeep.
    pub upkeep: f64,
    /// That it comes off again.
    pub removable: f64,
    /// What it costs.
    pub price: f64,
    /// How long it takes, and how soon it can be done.
    pub time: f64,
}

impl Default for Weights {
    /// As a shop begins (our own working rule).
    fn default() -> Self {
        Weights { aim: 50.0, cause: 20.0, ride: 12.0, upkeep: 6.0, removable: 3.0, price: 10.0, time: 6.0 }
    }
}

impl Weights {
    /// Every weight by the word it goes by.
    pub fn each(&self) -> [(&'static str, f64); 7] {
        [
            ("aim", self.aim),
            ("cause", self.cause),
            ("ride", self.ride),
            ("upkeep", self.upkeep),
            ("removable", self.removable),
            ("price", self.price),
            ("time", self.time),
        ]
    }
}

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
    /// Whether it puts right what was found to be behind it; `None` where nothing was found.
    pub cures: Option<bool>,
    /// How much quicker the rear bounces empty, and loaded: 0.1 is a tenth quicker, and firmer.
    pub firmer: [Option<f64>; 2],
    /// Whether it passes over something that the customer asked for.
    pub against_a_wish: Vec<Wish>,
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
        let price = shelf().map(|part| part?.price.as_ref()).try_fold(None, |sum: Option<(i64, Currency)>, price| {
            let price = price?;
            let (sum, currency) = sum.unwrap_or((0, price.currency));
            (currency == price.currency).then_some(Some((sum + price.hundredths, currency)))
        });
        let mut days = shelf().map(|part| {
            let part = part?;
            if part.in_stock.is_some_and(|count| count > 0) { Some(0) } else { part.lead_days }
        });
        Worth {
            price: price.flatten(),
            hours: shelf().map(|part| part?.hours).sum(),
            days: days.try_fold(0, |most: u32, days| Some(most.max(days?))),
            upkeep: shelf().flatten().filter(|part| !part.upkeep.is_empty()).map(|part| part.upkeep.clone()).collect(),
            removable: shelf().all(|part| part.is_some_and(|part| part.removable == Some(true))),
            parts: parts.clone().count(),
            cures: None,
            firmer: [None, None],
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

/// Each wish passed over leaves so much of what an option comes to.
const LEFT_AGAINST_A_WISH: f64 = 0.6;
/// What each part more than one costs beside money and time: it is one more thing that can go wrong (our own working rule).
const A_PART_MORE: f64 = 0.06;
/// A price that is neither low nor high where no budget is told, and hours that are neither few nor many (our own working rules).
const MIDDLING_PRICE: f64 = 60_000.0;
const MIDDLING_HOURS: f64 = 5.0;
/// So much quicker, empty, rides twice as hard as a customer who asked for a soft ride bears; and of one who asked for nothing.
const HARD: f64 = 0.25;
const HARD_FOR_ANYONE: f64 = 0.5;

/// Chances closer than this are the same.
const SAME_CHANCE: f64 = 0.015;
/// Options that come to less beside the best are not shown before other ways of doing what is better (our own working rule).
const NEAR_THE_BEST: f64 = 0.85;

/// What an option comes to: from 0 to 1.
pub(super) fn score(search: &Search<'_>, chance: Option<f64>, worth: &Worth) -> f64 {
    let sheet = &search.work.case().sheet;
    let weights = search.weights;
    let values = [
        (weights.aim, chance.unwrap_or(0.5)),
        (weights.cause, worth.cures.map_or(0.5, |cures| if cures { 1.0 } else { 0.0 })),
        (weights.ride, ride(sheet, worth)),
        (weights.upkeep, if worth.upkeep.is_empty() { 1.0 } else { 0.3 }),
        (weights.removable, if worth.removable { 1.0 } else { 0.5 }),
        (weights.price, price(sheet, worth)),
        (weights.time, time(worth)),
    ];
    let all: f64 = values.iter().map(|(weight, _)| weight.max(0.0)).sum();
    let sum: f64 = values.iter().map(|(weight, value)| weight.max(0.0) * value).sum();
    #[expect(clippy::cast_precision_loss, reason = "a dozen parts at most")]
    let more = worth.parts.saturating_sub(1) as f64;
    let passed_over = i32::try_from(worth.wishes_passed_over(search).len()).unwrap_or(i32::MAX);
    let value = if all > 0.0 { sum / all } else { 0.0 };
    (value - A_PART_MORE * more).max(0.0) * LEFT_AGAINST_A_WISH.powi(passed_over)
}

/// Softer or firmer as it was asked for: firmer is not worse for who wants a steady load.
fn ride(sheet: &IntakeSheetEntry, worth: &Worth) -> f64 {
    let [empty, loaded] = worth.firmer;
    let empty_share =
        sheet.shares.iter().find(|share| share.of == ShareOf::Empty).map_or(0.5, |share| f64::from(share.percent) / 100.0);
    let firmer = match (empty, loaded) {
        (Some(empty), Some(loaded)) => Some(empty_share * empty + (1.0 - empty_share) * loaded),
        (one, other) => one.or(other),
    };
    let value = firmer.map(|firmer| match sheet.first {
        Some(FirstWord::Stability) => 0.5 + loaded.unwrap_or(firmer) / HARD_FOR_ANYONE,
        Some(FirstWord::Ride) => 1.0 - firmer.max(0.0) / (2.0 * HARD),
        None => 1.0 - firmer.max(0.0) / (2.0 * HARD_FOR_ANYONE),
    });
    value.unwrap_or(0.5).clamp(0.0, 1.0)
}

fn price(sheet: &IntakeSheetEntry, worth: &Worth) -> f64 {
    let Some((price, currency)) = worth.price else { return 0.5 };
    let budget = sheet.budget.as_ref().filter(|budget| budget.currency == currency && budget.hundredths > 0);
    #[expect(clippy::cast_precision_loss, reason = "no price has so many figures")]
    let (price, middling) = (price as f64, budget.map_or(MIDDLING_PRICE, |budget| budget.hundredths as f64));
    1.0 / (1.0 + price / middling)
}

fn time(worth: &Worth) -> f64 {
    let hours = worth.hours.map_or(0.5, |hours| 1.0 / (1.0 + hours / MIDDLING_HOURS));
    let days = worth.days.map_or(0.5, |days| 1.0 / (1.0 + f64::from(days) / 7.0));
    (hours + days) / 2.0
}

/// Brings the allowed options into order, and marks those that another is better than in everything.
pub(super) fn rank(search: &Search<'_>, ranked: &mut [Ranked]) {
    for option in ranked.iter_mut() {
        option.worth.against_a_wish = option.worth.wishes_passed_over(search);
        option.score = score(search, option.chance.as_ref().map(|chance| chance.all), &option.worth);
    }
    ranked.sort_by(|one, other| other.score.total_cmp(&one.score).then_with(|| one.places.cmp(&other.places)));
    let dominated: Vec<bool> =
        ranked.iter().map(|option| ranked.iter().any(|other| other.is_better_in_everything_than(option))).collect();
    ranked.iter_mut().zip(dominated).for_each(|(option, dominated)| option.dominated = dominated);
    let mut heads: Vec<Vec<School>> = Vec::new();
    for option in ranked.iter_mut() {
        option.another_way = heads.contains(&option.schools);
        if !option.another_way && !option.dominated {
            heads.push(option.schools.clone());
        }
    }
    // The first of every school that comes near the best stand before other ways of doing the same: they are what there is to choose from.
    let best = ranked.first().map_or(0.0, |best| best.score);
    let stands_back = |option: &Ranked| option.another_way || option.dominated || option.score < NEAR_THE_BEST * best;
    ranked.sort_by(|one, other| stands_back(one).cmp(&stands_back(other)).then(other.score.total_cmp(&one.score)));
}

impl Ranked {
    /// Whether it is at least as good in everything that is known of both, and better in something. What is not known of one of them
    /// leaves the question open.
    pub fn is_better_in_everything_than(&self, other: &Ranked) -> bool {
        // Closer than they are drawn to, chances are the same.
        let chance = |of: &Ranked| of.chance.as_ref().map(|chance| -chance.all);
        let (own, others) = (chance(self), chance(other));
        let same = own.zip(others).is_some_and(|(own, others)| (own - others).abs() < SAME_CHANCE);
        #[expect(clippy::cast_precision_loss, reason = "no price has so many figures")]
        let price = |of: &Ranked| of.worth.price.map(|(price, _)| price as f64);
        let each = [
            if same { (None, None) } else { (own, others) },
            (price(self), price(other)),
            (self.worth.hours, other.worth.hours),
            (self.worth.days.map(f64::from), other.worth.days.map(f64::from)),
            (upkeep(self), upkeep(other)),
            (comes_off(self), comes_off(other)),
            (cures(self), cures(other)),
            (self.worth.firmer[0], other.worth.firmer[0]),
            (self.worth.firmer[1], other.worth.firmer[1]),
            (parts(self), parts(other)),
        ];
        let mut better = false;
        for (own, others) in each {
            match (own, others) {
                (Some(own), Some(others)) if own > others + 1e-9 => return false,
                (Some(own), Some(others)) => better |= own < others - 1e-9,
                (None, None) => {}
                _ => return false,
            }
        }
        better
    }
}

fn upkeep(of: &Ranked) -> Option<f64> {
    Some(if of.worth.upkeep.is_empty() { 0.0 } else { 1.0 })
}

fn parts(of: &Ranked) -> Option<f64> {
    #[expect(clippy::cast_precision_loss, reason = "a dozen at most")]
    let count = of.worth.parts as f64;
    Some(count)
}

fn comes_off(of: &Ranked) -> Option<f64> {
    Some(if of.worth.removable { 0.0 } else { 1.0 })
}

fn cures(of: &Ranked) -> Option<f64> {
    of.worth.cures.map(|cures| if cures { 0.0 } else { 1.0 })
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
