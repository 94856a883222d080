//! When everything that is needed is here.

use chrono::NaiveDate;

use crate::entry::{DayEntry, OptionEntry, ShelfPart, SupplyEntry, SupplyWord, WorkPlanEntry};
use crate::wrench::{Needed, What};

/// A needed thing, and when it is here.
#[derive(Debug, Clone, PartialEq)]
pub struct Supplied<'a> {
    /// What it is.
    pub needed: &'a Needed,
    /// What was said of it.
    pub entry: Option<&'a SupplyEntry>,
    /// The part of the shelf that it is.
    pub shelf: Option<&'a ShelfPart>,
    /// Where it stands.
    pub stands: Supply,
}

/// Where a needed thing stands.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Supply {
    /// It is here, and was held against the vehicle.
    Checked,
    /// It is on the shelf, by whoever said so or by the shelf's count.
    OnTheShelf,
    /// It takes so many days from now, where that is known, and nobody ordered it yet.
    ToOrder(Option<i64>),
    /// It was ordered, and is here in so many days, where that is known; a day gone by is below nought.
    Ordered(Option<i64>),
    /// Nobody said.
    NotSaid,
}

impl Supply {
    /// The days until it is here; `None` where nobody knows.
    pub fn days(self) -> Option<i64> {
        match self {
            Supply::Checked | Supply::OnTheShelf => Some(0),
            Supply::ToOrder(days) => days,
            // What is late already may come any day.
            Supply::Ordered(days) => days.filter(|days| *days >= 0),
            Supply::NotSaid => None,
        }
    }
}

/// Everything that is needed, with when it is here; `checked` are the keys ticked as here.
pub fn supplies<'a>(
    needed: &'a [Needed],
    option: &'a OptionEntry,
    plan: &'a WorkPlanEntry,
    missing: &[String],
    today: NaiveDate,
) -> Vec<Supplied<'a>> {
    let each = needed.iter().map(|needed| {
        let shelf = match needed.what {
            What::Part(place) => option.parts.get(place).and_then(|part| part.shelf.as_deref()),
            _ => None,
        };
        let entry = plan.supplies.iter().find(|entry| entry.key == needed.key);
        let due = entry.and_then(|entry| entry.due.as_ref()).and_then(DayEntry::date);
        let by_lead = || shelf.and_then(|shelf| shelf.lead_days).map(i64::from);
        let days = due.map(|due| (due - today).num_days()).or_else(by_lead);
        let stands = match (missing.contains(&needed.key), entry.and_then(|entry| entry.stands), shelf.and_then(|of| of.in_stock))
        {
            (false, ..) => Supply::Checked,
            (_, Some(SupplyWord::OnTheShelf), _) | (_, None, Some(1..)) => Supply::OnTheShelf,
            (_, Some(SupplyWord::Ordered), _) => Supply::Ordered(days),
            (_, Some(SupplyWord::ToOrder), _) | (_, None, Some(0)) => Supply::ToOrder(days),
            (_, None, None) if days.is_some() => Supply::ToOrder(days),
            (_, None, None) => Supply::NotSaid,
        };
        Supplied { needed, entry, shelf, stands }
    });
    each.collect()
}
