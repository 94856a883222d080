//! The tape's further states, points of the body, and where the overload leaves bear.

use wise_badger_casework::bounds::RIDE_HEIGHT;
use wise_badger_casework::entry::{
    ContactEntry, GoalEntry, LoadEntry, MOST_POINTS, MarkEntry, MoreEntry, PointEntry, PointHeightEntry, StateEntry, Typed,
    WhenEntry,
};
use wise_badger_casework::survey::{End, LoadProblem, LoadPut, LoadState, MOST_FURTHER, Manner};
use wise_badger_casework::words::Word as _;
use wise_badger_store::job_file::JobFile;

use super::tape::{field_name, words};
use super::{Choice, Field, Part, Picks, Sheet};
use crate::view::{state_name, support_name};

/// Manners of a further state, in the order offered.
const MANNERS: [(&str, Manner, &str); 4] = [
    ("as_it_stood", Manner::AsItStood, "as it stood"),
    ("rolled", Manner::Rolled, "rolled and bounced"),
    ("pressed_down", Manner::PressedDown, "pressed down and let come up"),
    ("lifted", Manner::Lifted, "lifted and let come down"),
];

/// Halves of the overload leaves, each with its word and what it is called.
const HALVES: [(&str, &str); 4] = [
    ("left_front", "Left, front half"),
    ("left_rear", "Left, rear half"),
    ("right_front", "Right, front half"),
    ("right_rear", "Right, rear half"),
];

/// Longest name of a state or a point.
const LONGEST_NAME: usize = 40;

fn name_of(key: u8, what: &str) -> String {
    format!("{}.{what}", LoadState::Further(key).word())
}

/// Whether the form speaks of a state: one on file, or one that is being added.
pub(crate) fn is_told(sheet: &Sheet, key: u8) -> bool {
    sheet.is_filled(&name_of(key, "load"))
}

/// The states of the form, in the order read: those on file, then what is being added.
pub(crate) fn keys(sheet: &Sheet, file: &JobFile) -> Vec<u8> {
    let on_file: Vec<u8> = file.case().tape.further_keys().collect();
    let added = (1..=MOST_FURTHER).filter(|key| !on_file.contains(key) && is_told(sheet, *key));
    on_file.iter().copied().chain(added.collect::<Vec<_>>()).collect()
}

/// The key of the next state to add, where there is room for one.
pub(crate) fn next_key(sheet: &Sheet, file: &JobFile) -> Option<u8> {
    let taken = keys(sheet, file);
    (1..=MOST_FURTHER).find(|key| !taken.contains(key))
}

/// Name and word of the button that adds a state twice over: once pressed down, once lifted.
pub(crate) const ALSO: &str = "also";
pub(crate) const PRESSED_AND_LIFTED: &str = "pressed_and_lifted";

/// Keys of the two, where there is room for both and neither is on file yet.
pub(crate) fn room_for_both(sheet: &Sheet, file: &JobFile) -> Option<[u8; 2]> {
    let held = |key: &u8| ["pressed_down", "lifted"].contains(&sheet.text(&name_of(*key, "manner")));
    let taken = keys(sheet, file);
    let mut free = (1..=MOST_FURTHER).filter(|key| !taken.contains(key));
    let both = [free.next()?, free.next()?];
    (!taken.iter().any(held)).then_some(both)
}

/// Adds the state that was read last twice over, pressed down and lifted; whether the form asked for it.
pub(crate) fn press_and_lift(sheet: &mut Sheet, file: &JobFile) -> bool {
    if sheet.text(ALSO) != PRESSED_AND_LIFTED {
        return false;
    }
    sheet.set(ALSO, "");
    let loaded = ["rear_left", "rear_right"].iter().any(|word| sheet.is_filled(&field_name(LoadState::Loaded, word, 0)));
    let of = if loaded { LoadState::Loaded } else { LoadState::Empty };
    if let Some(both) = room_for_both(sheet, file) {
        for (key, manner) in both.into_iter().zip([Manner::PressedDown, Manner::Lifted]) {
            sheet.set(&name_of(key, "load"), format!("over_{}", of.word()));
            sheet.set(&name_of(key, "manner"), manner_word(manner));
            let brought = if manner == Manner::PressedDown { "pressed down" } else { "lifted" };
            sheet.set(&name_of(key, "name"), format!("{}, {brought}", state_name(of)));
        }
    }
    true
}

/// Every state of the form in the order read.
pub(crate) fn states(sheet: &Sheet, file: &JobFile) -> Vec<LoadState> {
    LoadState::BOTH.into_iter().chain(keys(sheet, file).into_iter().map(LoadState::Further)).collect()
}

/// Puts what is on file of further states, contacts and points on the sheet.
pub(crate) fn on_file(sheet: &mut Sheet, file: &JobFile) {
    for entry in &file.case().tape.states {
        for (word, half) in HALVES.map(|(word, _)| (word, half(&entry.contact, word))) {
            let said = half.map_or("", |bears| if bears { "bears" } else { "clear" });
            sheet.set(&contact_name(entry.state, word), said);
        }
        let LoadState::Further(key) = entry.state else { continue };
        sheet.set(&name_of(key, "name"), entry.name.clone());
        sheet.set(&format!("fuel_{}", entry.state.word()), entry.fuel.clone());
        sheet.set(&name_of(key, "manner"), manner_word(entry.manner));
        if entry.test_weight {
            sheet.set(&name_of(key, "test"), "yes");
        }
        match &entry.load {
            Some(LoadEntry::Over { state, more }) => {
                sheet.set(&name_of(key, "load"), format!("over_{}", state.word()));
                if let Some(more) = more {
                    set_more(sheet, key, more);
                }
            }
            Some(LoadEntry::Planned { case }) => sheet.set(&name_of(key, "load"), format!("case_{case}")),
            _ => {}
        }
    }
    for (index, point) in file.case().tape.points.iter().enumerate() {
        sheet.set(&point_name(index, "name"), point.name.clone());
        sheet.set_typed(&point_name(index, "distance"), &point.distance);
        sheet.set(&point_name(index, "ahead"), if point.ahead { "yes" } else { "" });
        if let Some(lateral) = &point.lateral {
            sheet.set_typed(&point_name(index, "lateral"), lateral);
            sheet.set(&point_name(index, "left"), if point.left { "yes" } else { "" });
        }
        for read in &point.heights {
            sheet.set_typed(&point_name(index, read.state.word()), &read.height);
        }
    }
}

fn set_more(sheet: &mut Sheet, key: u8, more: &MoreEntry) {
    sheet.set_typed(&name_of(key, "weight"), &more.weight);
    sheet.set_typed(&name_of(key, "distance"), &more.distance);
    sheet.set(&name_of(key, "ahead"), if more.ahead { "yes" } else { "" });
}

fn manner_word(manner: Manner) -> &'static str {
    MANNERS.iter().find(|(_, of, _)| *of == manner).map_or("", |(word, ..)| word)
}

/// What is asked of a further state.
pub(crate) struct FurtherForm {
    pub(crate) name: Field,
    pub(crate) load: Picks,
    /// A weight more than the state it is picked to be as.
    pub(crate) more: Vec<Part>,
    pub(crate) manner: Picks,
    /// Name and state of the box for a weight put on for the reading alone.
    pub(crate) test: (String, bool),
    /// Name of the box that takes it off, of one on file.
    pub(crate) off: Option<(String, bool)>,
    pub(crate) off_problem: String,
}

/// The form of a further state.
pub(crate) fn further_form(sheet: &Sheet, file: &JobFile, key: u8) -> FurtherForm {
    let rear = support_name(file.case().intake.class, End::Rear);
    let before = states(sheet, file).into_iter().take_while(|state| *state != LoadState::Further(key));
    let over = before.map(|state| (format!("over_{}", state.word()), format!("as {}", called(sheet, file, state))));
    let planned = file.case().plan.iter().flat_map(|plan| &plan.cases);
    let planned = planned.map(|case| (format!("case_{}", case.key), format!("the case “{}”", case.name)));
    let on_file = file.case().tape.state(LoadState::Further(key)).is_some();
    let none = (!on_file).then(|| (String::new(), "no further state".to_owned()));
    let load = sheet.picks(&name_of(key, "load"), "Aboard in it", none.into_iter().chain(over).chain(planned)).tall();
    let more: [Part; 3] = [
        sheet.weight_field(&name_of(key, "weight"), "And a weight more").hint("may stay empty").into(),
        sheet.length_field(&name_of(key, "distance"), &format!("Its middle from the {rear}")).hint("0 is right over it").into(),
        sheet.picks(&name_of(key, "ahead"), "It sits", [("", "over or behind"), ("yes", "ahead")]).into(),
    ];
    let manners = MANNERS.map(|(word, _, words)| (word, words));
    FurtherForm {
        name: sheet.text_field(&name_of(key, "name"), "What to call it").hint("like 200 lb more"),
        load,
        more: more.into(),
        manner: sheet.picks(&name_of(key, "manner"), "Brought to rest", manners).or_first(),
        test: (name_of(key, "test"), sheet.is_filled(&name_of(key, "test"))),
        off: on_file.then(|| (name_of(key, "off"), sheet.is_filled(&name_of(key, "off")))),
        off_problem: sheet.problem(&name_of(key, "off")).to_owned(),
    }
}

/// What a state of the form is called.
pub(crate) fn called(sheet: &Sheet, file: &JobFile, state: LoadState) -> String {
    let LoadState::Further(key) = state else { return state_name(state).to_owned() };
    let typed = sheet.text(&name_of(key, "name"));
    let on_file = || file.case().tape.state(state).map(|entry| entry.name.clone());
    if typed.is_empty() { on_file().unwrap_or_else(|| state_name(state).to_owned()) } else { typed.to_owned() }
}

/// Reads the further states; what is wrong stands on the sheet.
pub(crate) fn read(sheet: &mut Sheet, file: &JobFile, rolled: bool) -> Vec<StateEntry> {
    let mut entries = Vec::new();
    for key in keys(sheet, file) {
        let state = LoadState::Further(key);
        if sheet.is_filled(&name_of(key, "off")) {
            refuse_where_named(sheet, file, state);
            continue;
        }
        let load = load(sheet, file, key);
        let manner = MANNERS.iter().find(|(word, ..)| *word == sheet.text(&name_of(key, "manner")));
        let usual = if rolled { Manner::Rolled } else { Manner::AsItStood };
        let name = state_name_typed(sheet, key, load.as_ref(), manner.map_or(usual, |(_, manner, _)| *manner));
        entries.push(StateEntry {
            name,
            load,
            test_weight: sheet.is_filled(&name_of(key, "test")),
            manner: manner.map_or(usual, |(_, manner, _)| *manner),
            floor: sheet.text("floor").to_owned(),
            fuel: words(sheet, &format!("fuel_{}", state.word())),
            contact: contact(sheet, state),
            ..StateEntry::of(state)
        });
    }
    // What is typed of a state that nobody said anything of would be lost.
    for key in (1..=MOST_FURTHER).filter(|key| !entries.iter().any(|entry| entry.state == LoadState::Further(*key))) {
        let off = sheet.is_filled(&name_of(key, "off"));
        let walk = ["front_left", "front_right", "rear_left", "rear_right", "stop_gap"];
        let filled = walk.iter().any(|word| sheet.is_filled(&field_name(LoadState::Further(key), word, 0)));
        let filled = filled || ["name", "weight"].iter().any(|what| sheet.is_filled(&name_of(key, what)));
        if filled && !off && !is_told(sheet, key) {
            sheet.refuse(&name_of(key, "load"), "Say what is aboard in this state, or clear what is typed of it.");
        }
    }
    entries
}

/// What it is called: as typed, or by what makes it another state.
fn state_name_typed(sheet: &mut Sheet, key: u8, load: Option<&LoadEntry>, manner: Manner) -> String {
    let typed = sheet.text(&name_of(key, "name")).to_owned();
    if typed.chars().count() > LONGEST_NAME {
        sheet.refuse(&name_of(key, "name"), format!("Keep it under {LONGEST_NAME} characters."));
    }
    if !typed.is_empty() {
        return typed;
    }
    let unit = if sheet.units().weight_name() == "lb" { "lb" } else { "kg" };
    let more = match load {
        Some(LoadEntry::Over { more: Some(more), .. }) => {
            let bare = !more.weight.text.chars().any(char::is_alphabetic);
            Some(if bare { format!("{} {unit} more", more.weight.text) } else { format!("{} more", more.weight.text) })
        }
        _ => None,
    };
    let brought = match manner {
        Manner::PressedDown => Some("pressed down".to_owned()),
        Manner::Lifted => Some("lifted".to_owned()),
        Manner::AsItStood | Manner::Rolled => None,
    };
    let parts: Vec<String> = more.into_iter().chain(brought).collect();
    if parts.is_empty() { format!("state {}", key + 2) } else { parts.join(", ") }
}

fn load(sheet: &mut Sheet, file: &JobFile, key: u8) -> Option<LoadEntry> {
    let picked = sheet.text(&name_of(key, "load")).to_owned();
    let field = name_of(key, "load");
    if let Some(case) = picked.strip_prefix("case_").and_then(|case| case.parse::<u8>().ok()) {
        let entry = LoadEntry::Planned { case };
        if entry.load_put(file.case().plan.as_ref()).is_none() {
            sheet.refuse(&field, "Nothing is aboard in that case; put it on the load plan first.");
        }
        return Some(entry);
    }
    let under = picked.strip_prefix("over_").and_then(LoadState::from_word);
    let before = states(sheet, file).into_iter().take_while(|state| *state != LoadState::Further(key));
    let Some(under) = under.filter(|under| before.collect::<Vec<_>>().contains(under)) else {
        sheet.refuse(&field, "Say what is aboard in this state.");
        return None;
    };
    let more = if sheet.is_filled(&name_of(key, "weight")) { Some(more(sheet, file, key)?) } else { None };
    if more.is_none() && sheet.is_filled(&name_of(key, "distance")) {
        sheet.refuse(&name_of(key, "weight"), "Type the weight too, or clear its place.");
    }
    Some(LoadEntry::Over { state: under, more })
}

fn more(sheet: &mut Sheet, file: &JobFile, key: u8) -> Option<MoreEntry> {
    let [weight, distance] = ["weight", "distance"].map(|what| name_of(key, what));
    let ahead = sheet.text(&name_of(key, "ahead")) == "yes";
    let entry = MoreEntry { weight: sheet.weight(&weight)?, distance: sheet.length(&distance)?, ahead };
    let (vehicle, units) = (file.case().vehicle(), sheet.units());
    let put = LoadPut::Placed { weight: entry.weight.force(), behind_rear_axle: entry.behind_rear_axle() };
    for problem in put.problems(&vehicle) {
        match problem {
            LoadProblem::Nothing => sheet.refuse(&weight, "Type a weight above zero, or clear it."),
            LoadProblem::OffTheVehicle { most_ahead, most_behind } => {
                let (ahead, behind) = (units.height(most_ahead), units.height(most_behind));
                sheet.refuse(&distance, format!("That place is off the vehicle: at most {ahead} ahead, or {behind} behind."));
            }
            _ => sheet.refuse(&weight, "There it would lift an axle off the ground; check the weight and the place."),
        }
    }
    Some(entry)
}

/// A state is not taken off while something else on the job speaks of it.
fn refuse_where_named(sheet: &mut Sheet, file: &JobFile, state: LoadState) {
    let LoadState::Further(key) = state else { return };
    let named = |goal: &GoalEntry| matches!(goal, GoalEntry::Mark { when: WhenEntry::State(of), .. } if *of == state);
    let by_a_goal = file.case().aim.iter().flat_map(|aim| &aim.goals).any(named);
    if by_a_goal {
        sheet.refuse(&name_of(key, "off"), "The aim speaks of this state; take that goal off on Aim first.");
    }
    let kept = keys(sheet, file).into_iter().filter(|other| *other != key && !sheet.is_filled(&name_of(*other, "off")));
    let over = format!("over_{}", state.word());
    if let Some(other) = kept.collect::<Vec<_>>().into_iter().find(|other| sheet.text(&name_of(*other, "load")) == over) {
        let text = format!("“{}” stands on top of it; take that one off first.", called(sheet, file, LoadState::Further(other)));
        sheet.refuse(&name_of(key, "off"), text);
    }
}

fn contact_name(state: LoadState, half: &str) -> String {
    format!("{}.contact_{half}", state.word())
}

fn half(contact: &ContactEntry, word: &str) -> Option<bool> {
    match word {
        "left_front" => contact.left_front,
        "left_rear" => contact.left_rear,
        "right_front" => contact.right_front,
        "right_rear" => contact.right_rear,
        _ => None,
    }
}

/// Where the overload leaves bear in a state.
pub(crate) fn contact(sheet: &Sheet, state: LoadState) -> ContactEntry {
    let said = |half| match sheet.text(&contact_name(state, half)) {
        "bears" => Some(true),
        "clear" => Some(false),
        _ => None,
    };
    ContactEntry {
        left_front: said("left_front"),
        left_rear: said("left_rear"),
        right_front: said("right_front"),
        right_rear: said("right_rear"),
    }
}

/// A question with a few short answers.
pub(crate) struct Question {
    pub(crate) name: String,
    pub(crate) label: &'static str,
    pub(crate) choices: Vec<Choice>,
}

/// Whether each half of the overload leaves bears in a state.
pub(crate) fn contact_questions(sheet: &Sheet, state: LoadState) -> Vec<Question> {
    let question = |(word, label): (&'static str, &'static str)| {
        let name = contact_name(state, word);
        let choices = sheet.choices(&name, [("", "not looked"), ("bears", "bears"), ("clear", "clear")]);
        Question { name, label, choices }
    };
    HALVES.map(question).into()
}

fn point_name(index: usize, what: &str) -> String {
    format!("point.{index}.{what}")
}

/// A point of the body: its fields, and a height for each state.
pub(crate) struct PointForm {
    pub(crate) fields: Vec<Field>,
    pub(crate) ahead: (String, bool),
    pub(crate) left: (String, bool),
    pub(crate) heights: Vec<Field>,
}

/// The points on file, and room for one more.
pub(crate) fn point_forms(sheet: &Sheet, file: &JobFile) -> Vec<PointForm> {
    let told = (0..MOST_POINTS).rev().find(|index| is_point(sheet, *index)).map_or(0, |last| last + 1);
    let rear = support_name(file.case().intake.class, End::Rear);
    let form = |index| {
        let ticked = |what| (point_name(index, what), sheet.is_filled(&point_name(index, what)));
        let height = |state: LoadState| {
            sheet.length_field(&point_name(index, state.word()), &format!("Ground to it, {}", called(sheet, file, state)))
        };
        PointForm {
            fields: vec![
                sheet.text_field(&point_name(index, "name"), "Point").hint("step, drain, mud flap"),
                sheet.length_field(&point_name(index, "distance"), &format!("From the {rear}")),
                sheet.length_field(&point_name(index, "lateral"), "From the middle").hint("may stay empty"),
            ],
            ahead: ticked("ahead"),
            left: ticked("left"),
            heights: states(sheet, file).into_iter().map(height).collect(),
        }
    };
    (0..(told + 1).min(MOST_POINTS)).map(form).collect()
}

fn is_point(sheet: &Sheet, index: usize) -> bool {
    ["name", "distance", "lateral"].iter().any(|what| sheet.is_filled(&point_name(index, what)))
        || LoadState::WORDS.iter().any(|(_, word)| sheet.is_filled(&point_name(index, word)))
}

/// Reads the points; what is wrong stands on the sheet.
pub(crate) fn points(sheet: &mut Sheet, file: &JobFile) -> Vec<PointEntry> {
    let told: Vec<usize> = (0..MOST_POINTS).filter(|index| is_point(sheet, *index)).collect();
    let points: Vec<PointEntry> = told.into_iter().filter_map(|index| point(sheet, file, index)).collect();
    for (place, entry) in points.iter().enumerate() {
        if points.iter().take(place).any(|before| before.name == entry.name) {
            sheet.refuse(&point_name(place, "name"), "Another point has that name; give each its own.");
        }
    }
    let named = file.case().aim.iter().flat_map(|aim| &aim.goals).filter_map(|goal| match goal {
        GoalEntry::Mark { mark: MarkEntry::Point(name), .. } => Some(name),
        _ => None,
    });
    let gone: Vec<&String> = named.filter(|name| sheet.is_sound() && !points.iter().any(|point| point.name == **name)).collect();
    if let Some(name) = gone.first() {
        sheet.refuse(&point_name(0, "name"), format!("The aim speaks of “{name}”; take that goal off on Aim first."));
    }
    points
}

fn point(sheet: &mut Sheet, file: &JobFile, index: usize) -> Option<PointEntry> {
    let name = sheet.text(&point_name(index, "name")).to_owned();
    if name.is_empty() || name.chars().count() > LONGEST_NAME {
        sheet.refuse(&point_name(index, "name"), format!("Name the point, in up to {LONGEST_NAME} characters: step, drain."));
    }
    let (distance, lateral) =
        (sheet.length(&point_name(index, "distance")), sheet.optional_length(&point_name(index, "lateral")));
    let furthest = file.case().vehicle().wheelbase;
    if distance.as_ref().is_some_and(|distance| distance.length() > furthest) {
        let text =
            format!("A point is within {} of the rear axle; check the figure and its unit.", sheet.units().height(furthest));
        sheet.refuse(&point_name(index, "distance"), text);
    }
    let mut heights = Vec::new();
    for state in states(sheet, file) {
        let field = point_name(index, state.word());
        if !sheet.is_filled(&field) {
            continue;
        }
        let height: Option<Typed> =
            sheet.length(&field).and_then(|typed| sheet.within(&field, "A point's height", typed, &RIDE_HEIGHT));
        heights.extend(height.map(|height| PointHeightEntry { state, height }));
    }
    let (ahead, left) = (sheet.is_filled(&point_name(index, "ahead")), sheet.is_filled(&point_name(index, "left")));
    Some(PointEntry { name, distance: distance?, ahead, left: left && lateral.is_some(), lateral, heights })
}
