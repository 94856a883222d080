//! The load plan's form: rows of things aboard, each with its place and the cases it is aboard in.

use wise_badger_casework::case::{Case, SpeaksOf};
use wise_badger_casework::entry::{CaseEntry, ItemEntry, LiquidWord, LoadPlanEntry, Typed};
use wise_badger_casework::survey::{End, Ends, LoadProblem, LoadPut, Thing, VehicleFacts};
use wise_badger_casework::words::Word as _;
use wise_badger_mechanics::tape::{LengthUnit, WeightUnit};
use wise_badger_mechanics::units::{Force, InShopUnits, Length, STANDARD_GRAVITY, metres};

use super::Sheet;
use crate::view::Units;

/// Most things on one plan.
pub(crate) const MOST_ITEMS: usize = 16;
/// The cases of a plan, by key, with the name each is first offered under.
pub(crate) const CASES: [(u8, &str); 4] = [(1, "Usual"), (2, "Full"), (3, "Towing"), (4, "")];
/// What a thing is given by.
pub(crate) const GIVEN_BY: [(&str, &str); 4] =
    [("weight", "weight"), ("water", "water, by volume"), ("petrol", "gas, by volume"), ("diesel", "diesel, by volume")];

/// Longest name of a case or a thing.
const LONGEST_NAME: usize = 40;

/// What each thing that is commonly carried is called.
pub(crate) const SHELF: [(Thing, &str); 11] = [
    (Thing::Occupant, "Occupant"),
    (Thing::OccupantWithLuggage, "Occupant with luggage"),
    (Thing::WaterTank, "Water tank"),
    (Thing::FuelTank, "Fuel tank"),
    (Thing::Toolbox, "Toolbox"),
    (Thing::Drawers, "Drawers"),
    (Thing::SlideInCamper, "Slide-in camper"),
    (Thing::SnowPlough, "Snow plow"),
    (Thing::TongueWeight, "Trailer tongue"),
    (Thing::BicycleRack, "Bicycle rack"),
    (Thing::Goods, "Cargo"),
];

/// The amount that a thing was taken from the shelf with: while it stands untouched, nobody has weighed it.
pub(crate) const USUAL: &str = "usual";
/// Whether somebody says that it weighs just that.
pub(crate) const WEIGHED: &str = "weighed";

/// The other case that a case takes in.
pub(crate) const WITH: &str = "with";
/// Whether a case is not aboard yet, on the form.
pub(crate) const LATER: &str = "later";

/// Whether a row's amount is still the one it was taken from the shelf with.
pub(crate) fn is_usual(sheet: &Sheet, row: usize) -> bool {
    let usual = sheet.text(&field_name(row, USUAL));
    !usual.is_empty() && usual == sheet.text(&field_name(row, "amount"))
}

/// Name of a row's field.
pub(crate) fn field_name(row: usize, what: &str) -> String {
    format!("i{row}_{what}")
}

/// Name of a case's field.
pub(crate) fn case_field(key: u8, what: &str) -> String {
    format!("case{key}_{what}")
}

/// The form as it stands for a plan on file, or as first offered.
pub(crate) fn on_file(units: Units, plan: Option<&LoadPlanEntry>) -> Sheet {
    let mut sheet = Sheet::blank(units);
    let Some(plan) = plan else {
        CASES.iter().for_each(|(key, name)| sheet.set(&case_field(*key, "name"), *name));
        return sheet;
    };
    for case in &plan.cases {
        sheet.set(&case_field(case.key, "name"), case.name.clone());
        for (what, typed) in [("front", &case.front_scale), ("rear", &case.rear_scale)] {
            if let Some(typed) = typed {
                sheet.set_typed(&case_field(case.key, what), typed);
            }
        }
        if let Some(with) = case.with {
            sheet.set(&case_field(case.key, WITH), with.to_string());
        }
        if case.later {
            sheet.set(&case_field(case.key, LATER), "yes");
        }
    }
    for (row, item) in plan.items.iter().enumerate() {
        fill_row(&mut sheet, row, item);
    }
    sheet
}

fn fill_row(sheet: &mut Sheet, row: usize, item: &ItemEntry) {
    let name = |what: &str| field_name(row, what);
    sheet.set(&name("name"), item.name.clone());
    sheet.set(&name("of"), given_by(item.liquid));
    sheet.set_typed(&name("amount"), &item.amount);
    sheet.set_typed(&name("distance"), &item.distance);
    sheet.set(&name("side"), if item.ahead { "ahead" } else { "behind" });
    if let Some(lateral) = &item.lateral {
        sheet.set_typed(&name("lateral"), lateral);
    }
    sheet.set(&name("hand"), if item.left { "left" } else { "right" });
    if let Some(height) = &item.height {
        sheet.set_typed(&name("height"), height);
    }
    if item.usual {
        sheet.set(&name(USUAL), sheet.text(&name("amount")).to_owned());
    }
    let mut tick = |what: &str, ticked: bool| sheet.set(&name(what), if ticked { "yes" } else { "" });
    tick("hitch", item.on_hitch);
    tick("always", item.always);
    for (key, _) in CASES {
        tick(&format!("case{key}"), item.cases.contains(&key));
    }
}

fn given_by(liquid: Option<LiquidWord>) -> &'static str {
    match liquid {
        None => "weight",
        Some(LiquidWord::Water) => "water",
        Some(LiquidWord::Petrol) => "petrol",
        Some(LiquidWord::Diesel) => "diesel",
    }
}

fn liquid(word: &str) -> Option<LiquidWord> {
    match word {
        "water" => Some(LiquidWord::Water),
        "petrol" => Some(LiquidWord::Petrol),
        "diesel" => Some(LiquidWord::Diesel),
        _ => None,
    }
}

/// Whether anything is typed in a row.
pub(crate) fn is_used(sheet: &Sheet, row: usize) -> bool {
    ["name", "amount", "distance"].iter().any(|what| sheet.is_filled(&field_name(row, what)))
}

/// How many rows a page shows: those used, and one more.
pub(crate) fn rows_shown(sheet: &Sheet) -> usize {
    let used = (0..MOST_ITEMS).rev().find(|row| is_used(sheet, *row)).map_or(0, |row| row + 1);
    (used + 1).min(MOST_ITEMS)
}

/// Puts a thing from the shelf into the first free row, at its usual weight and place.
pub(crate) fn add(sheet: &mut Sheet, word: &str, vehicle: &VehicleFacts) {
    let Some((thing, label)) = SHELF.iter().find(|(of, _)| of.word() == word) else { return };
    let Some(row) = (0..MOST_ITEMS).find(|row| !is_used(sheet, *row)) else {
        sheet.refuse("add", format!("A plan holds {MOST_ITEMS} things; put some of them together as one."));
        return;
    };
    let (item, units) = (thing.usual(vehicle), sheet.units());
    let name = |what: &str| field_name(row, what);
    sheet.set(&name("name"), *label);
    let (of, amount) = match thing {
        Thing::WaterTank => ("water", plain_volume(units).to_owned()),
        Thing::FuelTank => ("petrol", plain_volume(units).to_owned()),
        _ => ("weight", plain_weight(item.weight, units)),
    };
    sheet.set(&name("of"), of);
    sheet.set(&name("amount"), amount.clone());
    sheet.set(&name(USUAL), amount);
    set_along(sheet, row, item.behind_rear_axle);
    sheet.set(&name("hand"), "right");
    if let Some(height) = item.height {
        sheet.set(&name("height"), plain_length(height, units));
    }
    sheet.set(&name("hitch"), if item.on_hitch { "yes" } else { "" });
    // A thing is taken from the shelf for the case that is looked at; a tongue presses only while something is towed.
    if thing == &Thing::TongueWeight
        && let Some(towing) = towing_case(sheet)
    {
        sheet.set("shown", towing.to_string());
    }
    let shown = sheet.text("shown").to_owned();
    let into = if CASES.iter().any(|(key, _)| key.to_string() == shown) { format!("case{shown}") } else { "always".to_owned() };
    sheet.set(&name(&into), "yes");
}

/// The case in which something is towed: the one that is looked at, where its name says so, or else the first whose name does.
fn towing_case(sheet: &Sheet) -> Option<u8> {
    let tows = |key: &u8| {
        let name = sheet.text(&case_field(*key, "name")).to_lowercase();
        name.contains("tow") || name.contains("trailer")
    };
    let shown = sheet.text("shown").parse().ok().filter(tows);
    shown.or_else(|| CASES.iter().map(|(key, _)| *key).find(tows))
}

/// Takes a row off the plan; those below move up.
pub(crate) fn take_off(sheet: &mut Sheet, row: usize) {
    const PARTS: [&str; 12] =
        ["name", "of", "amount", USUAL, WEIGHED, "distance", "side", "lateral", "hand", "height", "hitch", "always"];
    let parts: Vec<String> =
        PARTS.iter().map(|part| (*part).to_owned()).chain(CASES.iter().map(|(key, _)| format!("case{key}"))).collect();
    for row in row..MOST_ITEMS {
        for part in &parts {
            let below = sheet.text(&field_name(row + 1, part)).to_owned();
            sheet.set(&field_name(row, part), below);
        }
    }
}

/// Moves a thing by so much along (rearward), across (to the right) and up, as it was dragged or nudged.
pub(crate) fn shift(sheet: &mut Sheet, row: usize, along: Length, across: Length, up: Length) -> Vec<String> {
    let mut scratch = sheet.clone();
    let Some(item) = read_row(&mut scratch, row) else { return Vec::new() };
    let item = item.item();
    let name = |what: &str| field_name(row, what);
    let units = sheet.units();
    let mut moved = Vec::new();
    if along.si().abs() > 0.0 {
        set_along(sheet, row, item.behind_rear_axle + along);
        moved.extend([name("distance"), name("side")]);
    }
    if across.si().abs() > 0.0 {
        let lateral = item.lateral + across;
        sheet.set(&name("lateral"), plain_length(lateral.abs(), units));
        sheet.set(&name("hand"), if lateral.si() < 0.0 { "left" } else { "right" });
        moved.extend([name("lateral"), name("hand")]);
    }
    if let Some(height) = item.height.filter(|_| up.si().abs() > 0.0) {
        sheet.set(&name("height"), plain_length((height + up).max(metres(0.0)), units));
        moved.push(name("height"));
    }
    moved
}

fn set_along(sheet: &mut Sheet, row: usize, behind: Length) {
    let units = sheet.units();
    sheet.set(&field_name(row, "distance"), plain_length(behind.abs(), units));
    sheet.set(&field_name(row, "side"), if behind.si() < 0.0 { "ahead" } else { "behind" });
}

/// A place as a person would write it: to half an inch, or to the centimetre.
fn plain_length(length: Length, units: Units) -> String {
    match units.length {
        LengthUnit::Inches => format!("{}", (length.customary() * 2.0).round() / 2.0),
        LengthUnit::Millimetres => format!("{:.0}", (length.si() * 100.0).round() * 10.0),
    }
}

fn plain_weight(weight: Force, units: Units) -> String {
    match units.weight {
        WeightUnit::Pounds => format!("{:.0}", weight.customary()),
        WeightUnit::Kilograms => format!("{:.0}", weight.si() / STANDARD_GRAVITY),
    }
}

/// A tank to begin with.
fn plain_volume(units: Units) -> &'static str {
    if units.weight == WeightUnit::Pounds { "25" } else { "100" }
}

/// A plan as far as it can be read.
pub(crate) struct Readable {
    pub(crate) plan: LoadPlanEntry,
    /// The row of each of its items.
    pub(crate) rows: Vec<usize>,
}

/// Reads what can be read: sound rows and cases, with complaints about the rest on the sheet.
pub(crate) fn read(sheet: &mut Sheet, vehicle: &VehicleFacts) -> Readable {
    let cases: Vec<CaseEntry> = CASES.iter().filter_map(|(key, _)| read_case(sheet, *key)).collect();
    let cases = refuse_rings(sheet, cases);
    let (mut items, mut rows) = (Vec::new(), Vec::new());
    for row in 0..MOST_ITEMS {
        if !is_used(sheet, row) {
            continue;
        }
        let Some(mut item) = read_row(sheet, row) else { continue };
        // A case that was struck off takes nothing along.
        item.cases.retain(|key| cases.iter().any(|case| case.key == *key));
        match item.item().problem(vehicle) {
            Some(problem) => complain(sheet, row, &problem),
            None => {
                items.push(item);
                rows.push(row);
            }
        }
    }
    Readable { plan: LoadPlanEntry { cases, items }, rows }
}

/// Reads the form; `None` with complaints on the sheet when anything is wrong.
pub(crate) fn check(sheet: &mut Sheet, on_file: &Case) -> Option<LoadPlanEntry> {
    let vehicle = &on_file.vehicle();
    let Readable { plan, .. } = read(sheet, vehicle);
    refuse_what_is_spoken_of(sheet, on_file, &plan);
    let vehicle = VehicleFacts { always: plan.always(), ..vehicle.clone() };
    for case in &plan.cases {
        let put = LoadPut::Planned { items: plan.items_of(case.key), scale: case.scale() };
        if put.problems(&vehicle).contains(&LoadProblem::LiftsTheFront) {
            let text = "As planned, this case lifts an axle off the ground; check weights and places.";
            sheet.refuse(&case_field(case.key, "name"), text);
        }
        for (end, what, typed) in [(End::Front, "front", &case.front_scale), (End::Rear, "rear", &case.rear_scale)] {
            ask_about_unit(sheet, &vehicle, &plan, case, end, &case_field(case.key, what), typed.as_ref());
        }
    }
    sheet.is_sound().then_some(plan)
}

/// A case is not taken off while something else on the job speaks of it.
fn refuse_what_is_spoken_of(sheet: &mut Sheet, on_file: &Case, plan: &LoadPlanEntry) {
    let gone = on_file.plan.iter().flat_map(|plan| &plan.cases).filter(|case| plan.case(case.key).is_none());
    for case in gone {
        let Some(what) = on_file.speaks_of(case.key) else { continue };
        let (who, there) = match what {
            SpeaksOf::Aim => ("The aim speaks", "change it on Aim"),
            SpeaksOf::Tape => ("The tape speaks", "say on Tape what else was aboard"),
            SpeaksOf::Options => ("An option speaks", "take that option off"),
            SpeaksOf::Intake => ("The shares of the time speak", "clear its share on Intake"),
        };
        let text = format!("{who} of “{}”; {there} first, or give the case its name again.", case.name);
        sheet.refuse(&case_field(case.key, "name"), text);
    }
}

/// A scale that says some 2.2 times what empty weight and plan make, or that much less, was read in the other unit. What
/// was typed with its unit was meant.
fn ask_about_unit(
    sheet: &mut Sheet,
    vehicle: &VehicleFacts,
    plan: &LoadPlanEntry,
    case: &CaseEntry,
    end: End,
    field: &str,
    typed: Option<&Typed>,
) {
    let Some(typed) = typed.filter(|typed| typed.text.chars().all(|sign| sign.is_ascii_digit() || " .,".contains(sign))) else {
        return;
    };
    let planned = LoadPut::Planned { items: plan.items_of(case.key), scale: Ends::default() };
    let Some(expected) = planned.axle_loads(vehicle).loaded(end) else { return };
    let (text, times) = (&typed.text, (typed.force() / expected).value);
    let likely = match (sheet.units().weight, times) {
        (WeightUnit::Kilograms, times) if (1.9..2.6).contains(&times) => Some("lb"),
        (WeightUnit::Pounds, times) if (0.38..0.53).contains(&times) => Some("kg"),
        _ => None,
    };
    if let Some(unit) = likely {
        let expected = sheet.units().weight(expected);
        sheet.refuse(field, format!("Empty weight and plan make {expected}. Did you mean {text} {unit}? Type the unit with it."));
    }
}

fn read_case(sheet: &mut Sheet, key: u8) -> Option<CaseEntry> {
    let field = case_field(key, "name");
    let name = sheet.text(&field).to_owned();
    let (front, rear) = (case_field(key, "front"), case_field(key, "rear"));
    if name.is_empty() {
        if [&front, &rear].into_iter().any(|scale| sheet.is_filled(scale)) {
            sheet.refuse(&field, "Name the case that was weighed.");
        }
        return None;
    }
    if name.chars().count() > LONGEST_NAME {
        sheet.refuse(&field, format!("Keep the name under {LONGEST_NAME} characters."));
    }
    let with = sheet.text(&case_field(key, WITH)).parse().ok();
    let later = sheet.is_filled(&case_field(key, LATER));
    let (front_scale, rear_scale) = (sheet.optional_weight(&front), sheet.optional_weight(&rear));
    Some(CaseEntry { key, name, front_scale, rear_scale, with, later })
}

/// A case takes in one that has a name, and never itself.
fn refuse_rings(sheet: &mut Sheet, mut cases: Vec<CaseEntry>) -> Vec<CaseEntry> {
    let plan = LoadPlanEntry { cases: cases.clone(), items: Vec::new() };
    for case in &mut cases {
        let field = case_field(case.key, WITH);
        match case.with {
            Some(other) if plan.case(other).is_none() => {
                sheet.refuse(&field, "That case has no name any more; name it, or pick nothing here.");
                case.with = None;
            }
            Some(_) if plan.goes_in_a_ring(case.key) => {
                sheet.refuse(&field, format!("“{}” cannot take in itself, by way of another case or not.", case.name));
                case.with = None;
            }
            _ => {}
        }
    }
    cases
}

fn read_row(sheet: &mut Sheet, row: usize) -> Option<ItemEntry> {
    let name = |what: &str| field_name(row, what);
    let called = sheet.text(&name("name")).to_owned();
    let named = !called.is_empty();
    if !named {
        sheet.refuse(&name("name"), "Say what it is.");
    } else if called.chars().count() > LONGEST_NAME {
        sheet.refuse(&name("name"), format!("Keep the name under {LONGEST_NAME} characters."));
    }
    let liquid = liquid(sheet.text(&name("of")));
    let amount = if liquid.is_some() { sheet.volume(&name("amount")) } else { sheet.weight(&name("amount")) };
    let distance = sheet.length(&name("distance"));
    let (lateral, height) = (sheet.optional_length(&name("lateral")), sheet.optional_length(&name("height")));
    let ahead = match sheet.text(&name("side")) {
        "ahead" => true,
        "behind" => false,
        _ if distance.as_ref().is_none_or(|distance| distance.si.abs() <= 0.0) => false,
        _ => {
            sheet.refuse(&name("distance"), "Pick whether that is ahead of or behind the rear axle.");
            false
        }
    };
    let cases: Vec<u8> = CASES.iter().map(|(key, _)| *key).filter(|key| sheet.is_filled(&name(&format!("case{key}")))).collect();
    named.then_some(ItemEntry {
        name: called,
        liquid,
        amount: amount?,
        distance: distance?,
        ahead,
        lateral,
        left: sheet.text(&name("hand")) == "left",
        height,
        on_hitch: sheet.is_filled(&name("hitch")),
        always: sheet.is_filled(&name("always")),
        cases,
        usual: is_usual(sheet, row) && !sheet.is_filled(&name(WEIGHED)),
    })
}

fn complain(sheet: &mut Sheet, row: usize, problem: &LoadProblem) {
    let units = sheet.units();
    match problem {
        LoadProblem::OffTheVehicle { most_ahead, most_behind } => {
            let (ahead, behind) = (units.height(*most_ahead), units.height(*most_behind));
            let text = format!("That is off the vehicle: at most {ahead} ahead of the rear axle, or {behind} behind it.");
            sheet.refuse(&field_name(row, "distance"), text);
        }
        LoadProblem::PastTheSide { most } => {
            sheet.refuse(
                &field_name(row, "lateral"),
                format!("That is past the side: at most {} from the middle.", units.height(*most)),
            );
        }
        _ => sheet.refuse(&field_name(row, "amount"), "It weighs nothing; type how much it is."),
    }
}
