//! The intake sheet's form: springs, wheels, what the customer wants, what was done before.

use wise_badger_casework::bounds::{OVERHANG, RIDE_HEIGHT, WHEEL_TRACK};
use wise_badger_casework::entry::{
    DayEntry, DrivenWord, FirstWord, IntakeSheetEntry, LoadPlanEntry, ModificationEntry, MoneyEntry, ShareEntry, ShareOf, Typed,
};
use wise_badger_casework::survey::{Complaint, Modification, SpringKind};
use wise_badger_mechanics::bound::Bound;
use wise_badger_mechanics::tape::TyreSize;

use super::Sheet;
use super::look_over::word;
use crate::view::Units;

/// Longest answer in words.
const LONGEST_WORDS: usize = 300;
/// Name of the field of a share of the time.
pub(crate) fn share_field(of: ShareOf) -> String {
    match of {
        ShareOf::Empty => "share_empty".to_owned(),
        ShareOf::Usual => "share_usual".to_owned(),
        ShareOf::Full => "share_full".to_owned(),
        ShareOf::Case(key) => format!("share_case_{key}"),
    }
}

/// What the time is shared between: the cases of the plan, or the usual and the full load while there is none.
pub(crate) fn shared_between(plan: Option<&LoadPlanEntry>) -> Vec<(ShareOf, String)> {
    let planned = plan.into_iter().flat_map(|plan| &plan.cases).map(|case| (ShareOf::Case(case.key), case.name.clone()));
    let planned: Vec<_> = planned.collect();
    let unplanned = || vec![(ShareOf::Usual, "Usual load".to_owned()), (ShareOf::Full, "Full".to_owned())];
    let loaded = if planned.is_empty() { unplanned() } else { planned };
    std::iter::once((ShareOf::Empty, "Empty".to_owned())).chain(loaded).collect()
}

/// The form as it stands for a sheet on file.
pub(crate) fn on_file(units: Units, entry: &IntakeSheetEntry) -> Sheet {
    let mut sheet = Sheet::blank(units);
    for (name, spring) in [("front_spring", entry.front_spring), ("rear_spring", entry.rear_spring)] {
        sheet.set(name, spring.map(word).unwrap_or_default());
    }
    sheet.set("driven", entry.driven.map(word).unwrap_or_default());
    let yes_or_no = |answer: Option<bool>| answer.map_or("", |yes| if yes { "yes" } else { "no" });
    sheet.set("rear_over", entry.rear_spring_over.map_or("", |over| if over { "over" } else { "under" }));
    sheet.set("upkeep", yes_or_no(entry.upkeep));
    sheet.set("removable", yes_or_no(entry.removable));
    sheet.set("first", entry.first.map(word).unwrap_or_default());
    for (name, text) in [
        ("front_tyre", &entry.front_tyre),
        ("rear_tyre", &entry.rear_tyre),
        ("complaint_words", &entry.complaint_words),
        ("budget_words", &entry.budget_words),
        ("wanted_words", &entry.wanted_words),
    ] {
        sheet.set(name, text.clone());
    }
    for (name, typed) in quantities(entry) {
        if let Some(typed) = typed {
            sheet.set_typed(name, typed);
        }
    }
    sheet.set("budget", entry.budget.as_ref().map(|money| money.text.clone()).unwrap_or_default());
    sheet.set("wanted_by", entry.wanted_by.as_ref().map(|day| day.text.clone()).unwrap_or_default());
    for share in &entry.shares {
        sheet.set(&share_field(share.of), share.percent.to_string());
    }
    entry.complaints.iter().for_each(|complaint| sheet.set(&complaint_field(*complaint), "yes"));
    for done in &entry.modifications {
        sheet.set(&modification_field(done.what), "yes");
        if let Some(size) = &done.size {
            sheet.set_typed(&size_field(done.what), size);
        }
    }
    if entry.no_earlier_work {
        sheet.set("no_earlier_work", "yes");
    }
    sheet
}

fn quantities(entry: &IntakeSheetEntry) -> [(&'static str, &Option<Typed>); 9] {
    [
        ("front_tyre_rating", &entry.front_tyre_rating),
        ("rear_tyre_rating", &entry.rear_tyre_rating),
        ("front_wheel_rating", &entry.front_wheel_rating),
        ("rear_wheel_rating", &entry.rear_wheel_rating),
        ("hitch_rating", &entry.hitch_rating),
        ("rear_track", &entry.rear_track),
        ("rear_overhang", &entry.rear_overhang),
        ("sound_rear", &entry.sound_rear),
        ("sound_rate", &entry.sound_rate),
    ]
}

pub(crate) fn complaint_field(complaint: Complaint) -> String {
    format!("complaint_{}", word(complaint))
}

pub(crate) fn modification_field(what: Modification) -> String {
    format!("done_{}", word(what))
}

pub(crate) fn size_field(what: Modification) -> String {
    format!("done_{}_size", word(what))
}

/// Reads the form; `None` with complaints on the sheet when anything is wrong.
pub(crate) fn check(sheet: &mut Sheet, plan: Option<&LoadPlanEntry>) -> Option<IntakeSheetEntry> {
    let complaints = Complaint::ALL.into_iter().filter(|complaint| sheet.is_filled(&complaint_field(*complaint))).collect();
    let done = Modification::ALL.into_iter().filter(|what| sheet.is_filled(&modification_field(*what)));
    let done: Vec<Modification> = done.collect();
    let modifications: Vec<ModificationEntry> =
        done.into_iter().map(|what| ModificationEntry { what, size: sheet.optional_length(&size_field(what)) }).collect();
    let no_earlier_work = sheet.is_filled("no_earlier_work");
    if no_earlier_work && !modifications.is_empty() {
        sheet.refuse("no_earlier_work", "Earlier work is ticked as well; clear one of the two.");
    }
    let spring = |text: &str| SpringKind::ALL.into_iter().find(|spring| word(*spring) == text);
    let answer = |text: &str| match text {
        "yes" => Some(true),
        "no" => Some(false),
        _ => None,
    };
    let entry = IntakeSheetEntry {
        driven: DrivenWord::ALL.into_iter().find(|driven| word(*driven) == sheet.text("driven")),
        front_spring: spring(sheet.text("front_spring")),
        rear_spring: spring(sheet.text("rear_spring")),
        rear_spring_over: match sheet.text("rear_over") {
            "over" => Some(true),
            "under" => Some(false),
            _ => None,
        },
        front_tyre: tyre(sheet, "front_tyre"),
        rear_tyre: tyre(sheet, "rear_tyre"),
        front_tyre_rating: sheet.optional_weight("front_tyre_rating"),
        rear_tyre_rating: sheet.optional_weight("rear_tyre_rating"),
        front_wheel_rating: sheet.optional_weight("front_wheel_rating"),
        rear_wheel_rating: sheet.optional_weight("rear_wheel_rating"),
        hitch_rating: sheet.optional_weight("hitch_rating"),
        rear_track: bounded(sheet, "rear_track", "A wheel track", &WHEEL_TRACK),
        rear_overhang: bounded(sheet, "rear_overhang", "An overhang", &OVERHANG),
        sound_rear: bounded(sheet, "sound_rear", "A ride height", &RIDE_HEIGHT),
        sound_rate: if sheet.is_filled("sound_rate") { sheet.rate("sound_rate") } else { None },
        complaint_words: words(sheet, "complaint_words"),
        complaints,
        budget: money(sheet, "budget"),
        budget_words: words(sheet, "budget_words"),
        wanted_by: day(sheet, "wanted_by"),
        wanted_words: words(sheet, "wanted_words"),
        upkeep: answer(sheet.text("upkeep")),
        removable: answer(sheet.text("removable")),
        first: [FirstWord::Ride, FirstWord::Stability].into_iter().find(|first| word(*first) == sheet.text("first")),
        shares: shares(sheet, plan),
        modifications,
        no_earlier_work,
    };
    sheet.is_sound().then_some(entry)
}

fn bounded(sheet: &mut Sheet, name: &str, what: &str, bound: &Bound) -> Option<Typed> {
    let typed = sheet.optional_length(name)?;
    sheet.within(name, what, typed, bound)
}

fn words(sheet: &mut Sheet, name: &str) -> String {
    let text = sheet.text(name).to_owned();
    if text.chars().count() > LONGEST_WORDS {
        sheet.refuse(name, format!("Keep it under {LONGEST_WORDS} characters."));
    }
    text
}

fn tyre(sheet: &mut Sheet, name: &str) -> String {
    let text = sheet.text(name).to_owned();
    if !text.is_empty()
        && let Err(error) = text.parse::<TyreSize>()
    {
        sheet.refuse(name, super::complete_sentence(&error.to_string()));
    }
    text
}

/// Money in the shop's currency: a sum with or without its sign, thousands set apart by commas.
pub(crate) fn money(sheet: &mut Sheet, name: &str) -> Option<MoneyEntry> {
    let text = sheet.text(name).to_owned();
    if text.is_empty() {
        return None;
    }
    match MoneyEntry::read(&text, sheet.units().currency) {
        Some(money) => Some(money),
        None => {
            sheet.refuse(name, format!("“{text}” is no sum of money; type one like 1,200, and words beside it."));
            None
        }
    }
}

/// A day, written month/day/year or year-month-day.
pub(super) fn day(sheet: &mut Sheet, name: &str) -> Option<DayEntry> {
    let text = sheet.text(name).to_owned();
    if text.is_empty() {
        return None;
    }
    match DayEntry::read(&text) {
        Some(day) => Some(DayEntry { text, day: day.format("%Y-%m-%d").to_string() }),
        None => {
            sheet.refuse(name, format!("“{text}” is no day; type one like 5/14/2027 or 2027-05-14, and words beside it."));
            None
        }
    }
}

fn shares(sheet: &mut Sheet, plan: Option<&LoadPlanEntry>) -> Vec<ShareEntry> {
    let (mut shares, mut total) = (Vec::new(), 0.0);
    let between = shared_between(plan);
    for (of, _) in &between {
        let name = share_field(*of);
        let Some(share) = (if sheet.is_filled(&name) { sheet.number(&name) } else { None }) else { continue };
        if !(0.0..=100.0).contains(&share) {
            sheet.refuse(&name, "A share of the time is between 0 and 100 percent.");
        }
        total += share;
        #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "between 0 and 100, or refused above")]
        shares.push(ShareEntry { of: *of, percent: share.round().clamp(0.0, 100.0) as u8 });
    }
    let all = shares.len() == between.len();
    if let Some((last, _)) = between.last().filter(|_| total > 101.0 || all && total < 99.0) {
        let text = format!("The shares make {total:.0}, not 100.");
        sheet.refuse(&share_field(*last), text);
    }
    shares
}
