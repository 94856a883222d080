//! When it is honestly done.

use chrono::{Datelike, Days, NaiveDate, Weekday};

use super::hours::Hours;
use super::supply::{Supplied, Supply};
use super::terms::ShopTerms;

/// Days of the work, each at its earliest and at its latest. A bay is taken to be free.
#[derive(Debug, Clone, PartialEq)]
pub struct Schedule {
    /// Everything is here.
    pub here: [NaiveDate; 2],
    /// Threads are soaked the night before this day; nothing where that is not asked for, or done.
    pub soak: bool,
    /// It is begun.
    pub begun: [NaiveDate; 2],
    /// It is done, driven and measured.
    pub done: [NaiveDate; 2],
    /// How many things nobody knows a day of: then there is no latest day to be trusted.
    pub not_known: usize,
}

/// What is ordered takes half as long again at the latest (our own working rule).
fn at_the_latest(days: u64) -> u64 {
    days + days.div_ceil(2)
}

/// Nobody waits longer for a part.
const LONGEST_WAIT: u64 = 2_000;

/// A day that the shop works, from a day on.
fn working(terms: &ShopTerms, mut day: NaiveDate) -> NaiveDate {
    let is_closed = |day: NaiveDate| match day.weekday() {
        Weekday::Sun => true,
        Weekday::Sat => !terms.saturdays,
        _ => false,
    };
    while is_closed(day) {
        day = day + Days::new(1);
    }
    day
}

fn later(day: NaiveDate, days: u64) -> NaiveDate {
    day.checked_add_days(Days::new(days)).unwrap_or(NaiveDate::MAX)
}

/// The day on which the last of some hours are worked that are begun in the morning of a day.
fn worked_off(terms: &ShopTerms, begun: NaiveDate, hours: f64) -> NaiveDate {
    // A day or a part of one; what is over by less than a quarter of an hour is done that evening.
    let days = ((hours - 0.25) / terms.hours_a_day).ceil().clamp(1.0, 400.0);
    let mut day = begun;
    let mut left = days;
    while left > 1.0 {
        day = working(terms, later(day, 1));
        left -= 1.0;
    }
    day
}

/// When it is here, begun and done, counted from a day. `soak` says that its threads are to be soaked first. What is here today is begun
/// on the next day that the shop works: nobody knows how much of today is left.
pub fn schedule(supplies: &[Supplied<'_>], hours: Hours, soak: bool, terms: &ShopTerms, today: NaiveDate) -> Schedule {
    let days = |supplied: &Supplied<'_>, late: bool| -> u64 {
        let days = u64::try_from(supplied.stands.days().unwrap_or(0)).unwrap_or(0).min(LONGEST_WAIT);
        let is_on_its_way = matches!(supplied.stands, Supply::ToOrder(_) | Supply::Ordered(_));
        if late && is_on_its_way { at_the_latest(days) } else { days }
    };
    let of = |late: bool| {
        let wait = supplies.iter().map(|supplied| days(supplied, late)).max().unwrap_or(0);
        let here = if wait == 0 { today } else { working(terms, later(today, wait)) };
        // Soaked in the evening, it is begun in the morning of the next day.
        let begun = match (soak, wait) {
            (true, _) => later(working(terms, here), 1),
            (false, 0) => later(today, 1),
            (false, _) => here,
        };
        let begun = working(terms, begun);
        let done = worked_off(terms, begun, if late { hours.most } else { hours.least });
        (here, begun, done)
    };
    let (early, late) = (of(false), of(true));
    Schedule {
        here: [early.0, late.0],
        soak,
        begun: [early.1, late.1],
        done: [early.2, late.2],
        not_known: supplies.iter().filter(|supplied| supplied.stands.days().is_none()).count(),
    }
}
