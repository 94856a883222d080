//! What is due, as a calendar that any calendar program takes.

use chrono::{Days, NaiveDate};
use icalendar::{Calendar, Component, Event, EventLike};
use wise_badger_casework::wrench::Due;

use super::{after_miles, due_name};
use crate::view::sentence;

/// One whole-day entry for each thing, on the day by which it is due at the latest; what it is known by does not change, so that a calendar
/// that takes it twice has it once.
pub(super) fn of(job: i32, label: &str, shop: &str, due: &[Due], begins: NaiveDate) -> String {
    let mut calendar = Calendar::new();
    calendar.name(&format!("{shop}, job {job}"));
    for each in due {
        let event = Event::new()
            .uid(&format!("job-{job}-{:?}@wise-badger", each.what).to_lowercase())
            .summary(&format!("{}: {label}", sentence(due_name(each.what))))
            .description(&format!("{}, or on this day at the latest. {shop}, job {job}.", after_miles(*each)))
            .all_day(begins + Days::new(each.days))
            .done();
        calendar.push(event);
    }
    calendar.done().to_string()
}
