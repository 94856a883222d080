//! The plan of the work in words.

use chrono::{Datelike as _, Local, NaiveDate};
use wise_badger_casework::entry::{BendWord, Currency, MoneyEntry, RaisedWord, RustWord, SupplyWord};
use wise_badger_casework::work_plan::{Hours, Schedule, StandsHold, Supplied, Supply};
use wise_badger_casework::wrench::{Needed, Proposal, RATED_FOR, What};
use wise_badger_store::job_file::JobFile;

use super::look_over::addition_name;
use super::shelf::{money_words, stock_words};
use super::wrench::consumable_words;
use super::{Units, sentence, typed_text};
use crate::correction::correction_name;

/// What rust is called.
pub(crate) fn rust_name(rust: RustWord) -> &'static str {
    match rust {
        RustWord::None => "clean",
        RustWord::Some => "surface rust",
        RustWord::Heavy => "seized or wasted",
    }
}

/// What raising is called.
pub(crate) fn raised_name(raised: RaisedWord) -> &'static str {
    match raised {
        RaisedWord::Floor => "from the floor, on stands",
        RaisedWord::Lift => "on a lift",
    }
}

/// What a bend is called.
pub(crate) fn bend_name(bend: BendWord) -> &'static str {
    match bend {
        BendWord::Round => "round",
        BendWord::Square => "square",
        BendWord::SemiRound => "semi-round",
    }
}

/// Where a needed thing is, where it is picked.
pub(crate) fn supply_name(supply: SupplyWord) -> &'static str {
    match supply {
        SupplyWord::OnTheShelf => "on the shelf",
        SupplyWord::ToOrder => "to order",
        SupplyWord::Ordered => "ordered",
    }
}

/// What is proposed while it is apart, by word.
const PROPOSED: &[(&str, &str)] = &[
    ("shocks", "New shocks, while they are off"),
    ("links", "New sway-bar links and bushings, while they are off"),
    ("shackles", "New shackles, while they are off"),
    ("hoses", "New brake hoses, while their brackets are off"),
    ("stops", "New bump stops, while the wheels are off"),
    ("strut_mounts", "New strut mounts, while the struts are out"),
    ("isolators", "New coil isolators, while the coils are out"),
];

/// What a proposal is called.
pub(crate) fn proposal_words(proposal: &Proposal) -> &'static str {
    PROPOSED.iter().find(|(word, _)| *word == proposal.word).map_or(proposal.word, |(_, words)| words)
}

/// A needed thing, and what the shelf says of it.
pub(crate) fn needed_words(needed: &Needed, file: &JobFile, units: Units) -> (String, String) {
    let class = file.work.found().vehicle.class;
    let of_option = |place: usize| file.work.chosen().and_then(|(option, _)| option.parts.get(place));
    match needed.what {
        What::Part(place) => of_option(place).map_or_else(Default::default, |part| {
            let name = correction_name(&part.correction, class, units);
            match part.shelf.as_deref() {
                Some(shelf) => (format!("{name} ({})", shelf.number), stock_words(shelf)),
                None => (name, String::new()),
            }
        }),
        What::Addition(addition) => (sentence(addition_name(addition)), String::new()),
        What::Consumable(consumable) => {
            (format!("{}{}", consumable_words(consumable, units), u_bolt_words(needed, file, units)), String::new())
        }
    }
}

/// What the plan says of the U-bolts, beside their legs.
fn u_bolt_words(needed: &Needed, file: &JobFile, units: Units) -> String {
    if needed.key != "part.used.u_bolts" {
        return String::new();
    }
    let plan = &file.case().work_plan;
    let each = [
        plan.u_bolt_width.as_ref().map(|width| format!("{} between the legs", typed_text(width, units))),
        (!plan.u_bolt_thread.is_empty()).then(|| format!("thread {}", plan.u_bolt_thread)),
        plan.u_bolt_bend.map(|bend| format!("{} bend", bend_name(bend))),
    ];
    let said = each.into_iter().flatten().collect::<Vec<_>>().join(", ");
    if said.is_empty() { String::new() } else { format!(". {}", sentence(&said)) }
}

/// Where a needed thing stands.
pub(crate) fn supplied_words(supplied: &Supplied<'_>) -> String {
    let days = |days: Option<i64>, before: &str| match days {
        None => format!("{before}, day not known"),
        Some(days) if days < 0 => format!("{before}, late by {}", count(-days, "day")),
        Some(0) => format!("{before}, due today"),
        Some(days) => format!("{before}, here in {}", count(days, "day")),
    };
    match supplied.stands {
        Supply::Checked => "here, held against the vehicle".to_owned(),
        Supply::OnTheShelf => "on the shelf".to_owned(),
        Supply::ToOrder(when) => days(when, "to order"),
        Supply::Ordered(when) => days(when, "ordered"),
        Supply::NotSaid => "not said where it is".to_owned(),
    }
}

fn count(of: i64, what: &str) -> String {
    if of == 1 { format!("1 {what}") } else { format!("{of} {what}s") }
}

/// Hours to a quarter.
pub(crate) fn quarter_hours(hours: f64) -> String {
    let quarters = (hours * 4.0).round().max(1.0) / 4.0;
    quarters.to_string()
}

/// Hours from to.
pub(crate) fn hours_words(hours: Hours) -> String {
    let (least, most) = (quarter_hours(hours.least), quarter_hours(hours.most));
    if least == most { format!("{least} h") } else { format!("{least} to {most} h") }
}

/// A day: “Tue Dec 8”, with its year where that is another than today's.
pub(crate) fn day_words(day: NaiveDate) -> String {
    let this_year = day.year() == Local::now().year();
    day.format(if this_year { "%a %b %-d" } else { "%a %b %-d, %Y" }).to_string()
}

/// Days from to.
pub(crate) fn days_words(days: [NaiveDate; 2]) -> String {
    let [first, last] = days;
    if first == last { day_words(first) } else { format!("{} to {}", day_words(first), day_words(last)) }
}

/// When it is done: from to, or not before a day while something has none.
pub(crate) fn done_words(schedule: &Schedule) -> String {
    if schedule.not_known == 0 { days_words(schedule.done) } else { format!("not before {}", day_words(schedule.done[0])) }
}

/// Money in hundredths.
pub(crate) fn sum_words(hundredths: i64, currency: Currency) -> String {
    money_words(&MoneyEntry::of(hundredths, currency))
}

/// Money from to.
pub(crate) fn sums_words(hundredths: [i64; 2], currency: Currency) -> String {
    let [least, most] = hundredths;
    if least == most {
        sum_words(least, currency)
    } else {
        format!("{} to {}", sum_words(least, currency), sum_words(most, currency))
    }
}

/// Whether the stands at hand carry an end: the sentence, and whether they do.
pub(crate) fn stands_hold_words(hold: &StandsHold, end: &str, units: Units) -> (String, bool) {
    let assumed = if hold.assumed { ", by assumed weights" } else { "" };
    let margin = format!("{:.1}", hold.margin());
    let words = format!(
        "{end} up: the worse stand carries about {}, one alone up to {} should a jack let go at the other side{assumed}. Each is rated for {}: {margin} times the worse one's load; asked {RATED_FOR:.1}, and all of it alone.",
        units.about(hold.carries),
        units.about(hold.alone),
        units.about(hold.each),
    );
    (words, hold.is_enough())
}

#[cfg(test)]
mod tests {
    use wise_badger_casework::wrench::PROPOSALS;

    use super::*;

    #[test]
    fn every_proposal_has_its_words() {
        for proposal in PROPOSALS {
            assert!(proposal_words(proposal).starts_with("New "), "no words for {}", proposal.word);
        }
    }

    #[test]
    fn hours_are_said_to_the_quarter_and_never_as_none() {
        assert_eq!(quarter_hours(3.1), "3");
        assert_eq!(quarter_hours(3.13), "3.25");
        assert_eq!(quarter_hours(0.05), "0.25");
        assert_eq!(hours_words(Hours { least: 1.0, likely: 1.2, most: 1.6 }), "1 to 1.5 h");
        assert_eq!(hours_words(Hours::exactly(2.0)), "2 h");
    }
}
