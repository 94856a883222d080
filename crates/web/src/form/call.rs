//! The form of a quick answer: what a customer says before anything is measured.

use wise_badger_casework::bounds::{RATING, TOLD_WEIGHT};
use wise_badger_casework::entry::{AboardEntry, CallEntry, LowWord, MoneyEntry, PlaceWord, ThingWord, WhenLow};
use wise_badger_casework::survey::{RearWheels, SpringKind, Thing, VehicleClass};
use wise_badger_casework::words::Word as _;

use super::Sheet;
use super::load_plan::SHELF;
use crate::view::Units;

/// Longest label, and longest words.
const LONGEST_LABEL: usize = 80;
const LONGEST_WORDS: usize = 500;
/// Longest sum of money.
const LONGEST_SUM: usize = 20;

pub(crate) const PLACES: [(PlaceWord, &str, &str); 4] = [
    (PlaceWord::OnTheFloor, "floor", "along the load floor"),
    (PlaceWord::OverTheAxle, "axle", "over the rear axle"),
    (PlaceWord::AtTheTail, "tail", "at the tail"),
    (PlaceWord::OnTheHitch, "hitch", "on the hitch"),
];
pub(crate) const LOWS: [(LowWord, &str, &str); 5] = [
    (LowWord::AnInch, "inch", "an inch or so"),
    (LowWord::TwoInches, "two", "two fingers, some 2 in"),
    (LowWord::ThreeInches, "three", "some 3 in"),
    (LowWord::AHand, "hand", "a hand, 4 in or more"),
    (LowWord::OnItsStops, "stops", "on its stops, it bangs"),
];
pub(crate) const WHENS: [(WhenLow, &str, &str); 2] =
    [(WhenLow::Loaded, "loaded", "only with the load on"), (WhenLow::EmptyToo, "empty", "empty too")];
pub(crate) const SPRINGS: [(SpringKind, &str, &str); 2] =
    [(SpringKind::Leaf, "leaf", "leaves"), (SpringKind::Coil, "coil", "coils")];

/// The field of a thing aboard.
pub(crate) fn thing_field(thing: Thing) -> String {
    format!("thing_{}", thing.word())
}

fn of_word<T: Copy>(rows: &[(T, &str, &str)], word: &str) -> Option<T> {
    rows.iter().find(|(_, of, _)| *of == word).map(|(value, ..)| *value)
}

fn word_of<T: Copy + PartialEq>(rows: &[(T, &'static str, &str)], value: Option<T>) -> &'static str {
    rows.iter().find(|(of, ..)| Some(*of) == value).map_or("", |(_, word, _)| word)
}

/// The form as it stands for a call that was taken down.
pub(crate) fn on_file(units: Units, call: &CallEntry) -> Sheet {
    let mut sheet = Sheet::blank(units);
    sheet.set("label", call.label.clone());
    sheet.set("class", call.class.word());
    sheet.set("rear_wheels", call.rear_wheels.word());
    sheet.set("rear_spring", word_of(&SPRINGS, call.rear_spring));
    call.rear_rating.iter().for_each(|rating| sheet.set_typed("rear_rating", rating));
    call.things.iter().for_each(|thing| sheet.set(&thing_field(thing.0), "yes"));
    if let Some(aboard) = &call.aboard {
        sheet.set_typed("aboard", &aboard.weight);
        sheet.set("place", word_of(&PLACES, Some(aboard.place)));
    }
    sheet.set("low", word_of(&LOWS, call.low));
    sheet.set("when", word_of(&WHENS, call.when));
    sheet.set("leans", if call.leans { "yes" } else { "" });
    sheet.set("words", call.words.clone());
    for (name, said) in [("upkeep", call.upkeep), ("removable", call.removable)] {
        sheet.set(name, said.map_or("", |said| if said { "yes" } else { "no" }));
    }
    if let Some(budget) = &call.budget {
        sheet.set("budget", budget.text.clone());
    }
    sheet
}

/// Reads the form; `None` with complaints on the sheet when anything is wrong. It need not be called anything to be answered.
pub(crate) fn check(sheet: &mut Sheet) -> Option<CallEntry> {
    let class = VehicleClass::from_word(sheet.text("class"));
    if class.is_none() {
        sheet.refuse("class", "Pick what kind of vehicle it is.");
    }
    let text = |sheet: &mut Sheet, name: &str, longest: usize| {
        let text = sheet.text(name).to_owned();
        if text.chars().count() > longest {
            sheet.refuse(name, format!("Keep it to {longest} characters."));
        }
        text
    };
    let (label, words) = (text(sheet, "label", LONGEST_LABEL), text(sheet, "words", LONGEST_WORDS));
    let rating = sheet.optional_weight("rear_rating").and_then(|typed| sheet.within("rear_rating", "A rating", typed, &RATING));
    let weight = sheet.optional_weight("aboard").and_then(|typed| sheet.within("aboard", "What is aboard", typed, &TOLD_WEIGHT));
    let place = of_word(&PLACES, sheet.text("place")).unwrap_or(PlaceWord::OnTheFloor);
    text(sheet, "budget", LONGEST_SUM);
    let budget = sheet.is_filled("budget").then(|| MoneyEntry::read(sheet.text("budget"), sheet.units().currency));
    if budget == Some(None) {
        sheet.refuse("budget", "That is no sum of money; type one like 450.");
    }
    let said = |sheet: &Sheet, name: &str| match sheet.text(name) {
        "yes" => Some(true),
        "no" => Some(false),
        _ => None,
    };
    let things = SHELF.iter().map(|(thing, _)| *thing).filter(|thing| sheet.is_filled(&thing_field(*thing)));
    let call = CallEntry {
        label,
        class: class?,
        rear_wheels: RearWheels::from_word(sheet.text("rear_wheels")).unwrap_or(RearWheels::Single),
        rear_spring: of_word(&SPRINGS, sheet.text("rear_spring")),
        rear_rating: rating,
        things: things.map(ThingWord).collect(),
        aboard: weight.map(|weight| AboardEntry { weight, place }),
        low: of_word(&LOWS, sheet.text("low")),
        when: of_word(&WHENS, sheet.text("when")),
        leans: sheet.is_filled("leans"),
        words,
        upkeep: said(sheet, "upkeep"),
        removable: said(sheet, "removable"),
        budget: budget.flatten(),
    };
    sheet.is_sound().then_some(call)
}
