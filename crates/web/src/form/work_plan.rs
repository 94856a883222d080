//! The form of the plan of the work.

use wise_badger_casework::bounds::{STANDS, U_BOLT_WIDTH};
use wise_badger_casework::entry::{
    BendWord, ExtraEntry, MOST_EXTRAS, MOST_HOURS, RaisedWord, RustWord, StandsEntry, SupplyEntry, SupplyWord, WorkPlanEntry,
};
use wise_badger_casework::wrench::{Needed, Proposal};

use super::Sheet;
use super::intake_sheet::day;
pub(crate) use super::intake_sheet::money;
use super::look_over::word;
use crate::view::Units;

/// Longest name of something on top, and of who agreed to it.
const LONGEST_NAME: usize = 120;
/// Longest remark.
const LONGEST_WORDS: usize = 300;

/// Name of a needed thing's field.
pub(crate) fn supply_field(key: &str, what: &str) -> String {
    format!("supply.{key}.{what}")
}

/// Name of a field of something on top.
pub(crate) fn extra_field(row: usize, what: &str) -> String {
    format!("extra{row}_{what}")
}

/// The form as it stands for a plan on file.
pub(crate) fn on_file(units: Units, plan: &WorkPlanEntry) -> Sheet {
    let mut sheet = Sheet::blank(units);
    sheet.set("rust", plan.rust.map(word).unwrap_or_default());
    sheet.set("raised", plan.raised.map(word).unwrap_or_default());
    sheet.set("u_bolt_thread", plan.u_bolt_thread.clone());
    sheet.set("u_bolt_bend", plan.u_bolt_bend.map(word).unwrap_or_default());
    let ticks = [
        ("two_people", plan.two_people),
        ("hand_tools", plan.hand_tools),
        ("first_time", plan.first_time),
        ("soaked", plan.soaked),
        ("of_the_pair", plan.stands.as_ref().is_some_and(|stands| stands.of_the_pair)),
    ];
    ticks.iter().filter(|(_, ticked)| *ticked).for_each(|(name, _)| sheet.set(name, "yes"));
    if let Some(stands) = &plan.stands {
        sheet.set_typed("stand_rating", &stands.rating);
    }
    if let Some(width) = &plan.u_bolt_width {
        sheet.set_typed("u_bolt_width", width);
    }
    for supply in &plan.supplies {
        let mut set = |what: &str, text: String| sheet.set(&supply_field(&supply.key, what), text);
        set("stands", supply.stands.map(word).unwrap_or_default());
        set("due", supply.due.as_ref().map(|due| due.text.clone()).unwrap_or_default());
        set("price", supply.price.as_ref().map(|price| price.text.clone()).unwrap_or_default());
    }
    for (row, extra) in plan.extras.iter().enumerate() {
        fill_row(&mut sheet, row, extra);
    }
    sheet.set("quoted_hours", plan.quoted_hours.map(|hours| hours.to_string()).unwrap_or_default());
    sheet.set("took_hours", plan.took_hours.map(|hours| hours.to_string()).unwrap_or_default());
    sheet.set("took_words", plan.took_words.clone());
    sheet
}

fn fill_row(sheet: &mut Sheet, row: usize, extra: &ExtraEntry) {
    let mut set = |what: &str, text: String| sheet.set(&extra_field(row, what), text);
    set("what", extra.what.clone());
    set("proposal", extra.proposal.clone());
    set("price", extra.price.as_ref().map(|price| price.text.clone()).unwrap_or_default());
    set("hours", extra.hours.map(|hours| hours.to_string()).unwrap_or_default());
    set("agreed", extra.agreed.map(|agreed| if agreed { "yes" } else { "no" }.to_owned()).unwrap_or_default());
    set("by", extra.said_by.clone());
}

/// Whether anything is typed in a row.
pub(crate) fn is_used(sheet: &Sheet, row: usize) -> bool {
    ["what", "price", "hours", "agreed", "by"].iter().any(|what| sheet.is_filled(&extra_field(row, what)))
}

/// How many rows a page shows: those used, and one more.
pub(crate) fn rows_shown(sheet: &Sheet) -> usize {
    let used = (0..MOST_EXTRAS).rev().find(|row| is_used(sheet, *row)).map_or(0, |row| row + 1);
    (used + 1).min(MOST_EXTRAS)
}

/// Puts a proposal into the first free row, to be asked about.
pub(crate) fn propose(sheet: &mut Sheet, proposal: &Proposal, name: &str) {
    let Some(row) = (0..MOST_EXTRAS).find(|row| !is_used(sheet, *row)) else {
        sheet.refuse("propose", format!("A plan holds {MOST_EXTRAS} things on top."));
        return;
    };
    let hours = (proposal.repair().is_none()).then_some(proposal.hours);
    let extra = ExtraEntry {
        what: name.to_owned(),
        proposal: proposal.word.to_owned(),
        price: None,
        hours,
        agreed: None,
        said_by: String::new(),
    };
    fill_row(sheet, row, &extra);
}

fn text(sheet: &mut Sheet, name: &str, longest: usize) -> String {
    let text = sheet.text(name).to_owned();
    if text.chars().count() > longest {
        sheet.refuse(name, format!("Keep it under {longest} characters."));
    }
    text
}

fn hours(sheet: &mut Sheet, name: &str) -> Option<f64> {
    if !sheet.is_filled(name) {
        return None;
    }
    let hours = sheet.number(name)?;
    if !(0.0..=MOST_HOURS).contains(&hours) {
        sheet.refuse(name, format!("Hours are from 0 to {MOST_HOURS}."));
        return None;
    }
    Some(hours)
}

/// One of a few words; `None` where none is picked.
fn picked<W: Copy + serde::Serialize>(sheet: &Sheet, name: &str, all: &[W]) -> Option<W> {
    all.iter().copied().find(|one| word(*one) == sheet.text(name))
}

/// Reads the form; `None` with complaints on the sheet when anything is wrong. What stood of needed things that the job does not need
/// now (`plan` is the one on file) stays.
pub(crate) fn check(sheet: &mut Sheet, needed: &[Needed], plan: &WorkPlanEntry) -> Option<WorkPlanEntry> {
    let rating = sheet.optional_weight("stand_rating");
    let rating = rating.and_then(|rating| sheet.within("stand_rating", "The rating of stands", rating, &STANDS));
    let width = sheet.optional_length("u_bolt_width");
    let width = width.and_then(|width| sheet.within("u_bolt_width", "The width between the legs", width, &U_BOLT_WIDTH));
    let mut supplies: Vec<SupplyEntry> =
        plan.supplies.iter().filter(|of| !needed.iter().any(|needed| needed.key == of.key)).cloned().collect();
    for key in needed.iter().map(|needed| &needed.key) {
        supplies.extend(supply(sheet, key));
    }
    let extras = (0..MOST_EXTRAS).filter(|row| is_used(sheet, *row)).collect::<Vec<_>>();
    let entry = WorkPlanEntry {
        rust: picked(sheet, "rust", &RustWord::ALL),
        two_people: sheet.is_filled("two_people"),
        hand_tools: sheet.is_filled("hand_tools"),
        first_time: sheet.is_filled("first_time"),
        raised: picked(sheet, "raised", &RaisedWord::ALL),
        soaked: sheet.is_filled("soaked"),
        stands: rating.map(|rating| StandsEntry { rating, of_the_pair: sheet.is_filled("of_the_pair") }),
        u_bolt_thread: text(sheet, "u_bolt_thread", LONGEST_NAME),
        u_bolt_width: width,
        u_bolt_bend: picked(sheet, "u_bolt_bend", &BendWord::ALL),
        supplies,
        extras: extras.into_iter().filter_map(|row| extra(sheet, row)).collect(),
        quoted_hours: hours(sheet, "quoted_hours"),
        took_hours: hours(sheet, "took_hours"),
        took_words: text(sheet, "took_words", LONGEST_WORDS),
    };
    sheet.is_sound().then_some(entry)
}

fn supply(sheet: &mut Sheet, key: &str) -> Option<SupplyEntry> {
    let field = |what: &str| supply_field(key, what);
    let stands = picked(sheet, &field("stands"), &SupplyWord::ALL);
    let (due, price) = (day(sheet, &field("due")), money(sheet, &field("price")));
    if stands.is_none() && due.is_none() && price.is_none() {
        return None;
    }
    // Who gives a day for it has it on order or about to be.
    let stands = stands.or(due.is_some().then_some(SupplyWord::Ordered));
    Some(SupplyEntry { key: key.to_owned(), stands, due, price })
}

fn extra(sheet: &mut Sheet, row: usize) -> Option<ExtraEntry> {
    let field = |what: &str| extra_field(row, what);
    let what = text(sheet, &field("what"), LONGEST_NAME);
    if what.is_empty() {
        sheet.refuse(&field("what"), "Say what it is.");
    }
    let (price, hours) = (money(sheet, &field("price")), hours(sheet, &field("hours")));
    let agreed = match sheet.text(&field("agreed")) {
        "yes" => Some(true),
        "no" => Some(false),
        _ => None,
    };
    let said_by = text(sheet, &field("by"), LONGEST_NAME);
    if agreed == Some(true) && price.is_none() {
        sheet.refuse(&field("price"), "The customer agrees to a price: give it, 0 where it costs no parts.");
    }
    if agreed.is_some() && said_by.is_empty() {
        sheet.refuse(&field("by"), "Who said so, and how: in person, by telephone?");
    }
    let proposal = sheet.text(&field("proposal")).to_owned();
    let proposal = if Proposal::of(&proposal).is_some() { proposal } else { String::new() };
    Some(ExtraEntry { what, proposal, price, hours, agreed, said_by })
}
