//! What is due, as a calendar that any calendar program takes.

use chrono::{Days, NaiveDate};
use icalendar::{Calendar, Component, Event, EventLike, Property};
use wise_badger_casework::wrench::Due;
use wise_badger_store::shop::Shop;

use super::{after_miles, due_name};
use crate::view::sentence;

/// One whole-day entry for each thing, on the day by which it is due at the latest; what it is known by does not change, so that a calendar
/// that takes it twice has it once.
pub(super) fn of(shop: &Shop, job: i32, label: &str, due: &[Due], begins: NaiveDate) -> String {
    let (id, name) = (shop.id.0, &shop.name);
    let mut calendar = Calendar::empty();
    for (property, value) in [("VERSION", "2.0"), ("PRODID", "-//Wise Badger//Due//EN"), ("CALSCALE", "GREGORIAN")] {
        calendar.append_property(Property::new(property, value));
    }
    calendar.name(&format!("{name}, job {job}"));
    for each in due {
        let event = Event::new()
            .uid(&format!("shop-{id}-job-{job}-{:?}@wise-badger", each.what).to_lowercase())
            .summary(&format!("{}: {label}", sentence(due_name(each.what))))
            .description(&format!("{}, or on this day at the latest. {name}, job {job}.", after_miles(*each)))
            // A day without an end is that whole day.
            .starts(begins + Days::new(each.days))
            .done();
        calendar.push(event);
    }
    calendar.done().to_string()
}
