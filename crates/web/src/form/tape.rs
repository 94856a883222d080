//! The tape forms: heights round the vehicle, and what was put on between the two states.

use wise_badger_casework::entry::{LoadEntry, LoadPlanEntry, StateEntry, TapeSheetEntry, Typed};
use wise_badger_casework::intake::TapeManner;
use wise_badger_casework::reading::{Phase, Place, Reading, ReadingKind, Spot};
use wise_badger_casework::route::Stage;
use wise_badger_casework::survey::{End, LoadProblem, LoadState, Manner, Modification, SpringKind, Survey, VehicleClass};
use wise_badger_casework::words::Word;
use wise_badger_mechanics::side::Side;
use wise_badger_mechanics::tape::{AxleReadings, Datum};
use wise_badger_store::job_file::JobFile;

use super::{Part, Picks, Sheet, tape_states};
use crate::job_route::StageWords as _;
use crate::view::{Units, place_name, sentence, state_name, support_name};

/// Most readings of one corner.
pub(crate) const MOST_READINGS: usize = 6;

/// The walk round the vehicle, from the driver's door backwards, with each place's word in the form.
pub(crate) const WALK: [(Place, &str); 4] = [
    (Place::FrontLeft, "front_left"),
    (Place::RearLeft, "rear_left"),
    (Place::RearRight, "rear_right"),
    (Place::FrontRight, "front_right"),
];

/// The bump-stop gap, read at the end of each walk.
pub(crate) const GAP: (Place, &str) = (Place::StopGap, "stop_gap");

/// Name of the field of a reading beside the walk.
pub(crate) fn further_name(state: LoadState, place: Place) -> String {
    format!("{}.{}", state_word(state), place.word())
}

fn is_further(place: Place) -> bool {
    Place::further().any(|further| further == place)
}

fn is_front(place: Place) -> bool {
    matches!(place, Place::FrontLeft | Place::FrontRight)
}

/// What may be read beside the walk on a vehicle: a trailer has no headlamp, no pinion, and rests on its coupler in front; a coil is
/// read where there is one, a bag where there is one, a pad where leaves may have an overload leaf.
pub(crate) fn further_places(file: &JobFile) -> impl Iterator<Item = Place> {
    use Place::*;
    let (class, sheet) = (file.case().intake.class, &file.case().sheet);
    let bags = sheet.modified().contains(&Modification::AirHelper);
    let [front, rear] = [sheet.front_spring, sheet.rear_spring];
    let (coil, air) = (Some(SpringKind::Coil), Some(SpringKind::Air));
    let there = move |place: &Place| match place {
        CoilFrontLeft | CoilFrontRight => front == coil,
        CoilRearLeft | CoilRearRight => rear == coil,
        BagFrontLeft | BagFrontRight => front == air,
        BagRearLeft | BagRearRight => bags || rear == air,
        PadFrontLeft | PadRearLeft | PadFrontRight | PadRearRight | ArchLeft | ArchRight => {
            rear.is_none_or(|rear| rear == SpringKind::Leaf)
        }
        _ => true,
    };
    let not_on_a_trailer = [
        Place::GapFrontLeft,
        Place::GapFrontRight,
        Place::HubFront,
        Place::Hitch,
        Place::Headlamp,
        Place::Pinion,
        Place::TyreFrontLeft,
        Place::TyreFrontRight,
        Place::WeightFrontLeft,
        Place::WeightFrontRight,
    ];
    Place::further().filter(move |place| there(place) && !(class.is_trailer() && not_on_a_trailer.contains(place)))
}

/// Why readings on file are corrected, in the order offered.
pub(crate) const WHY: [(&str, &str); 4] =
    [("misread", "misread"), ("slip", "slip in typing"), ("not settled", "was not settled"), ("fixed since", "fixed since")];

/// Longest answer in words.
const LONGEST_WORDS: usize = 60;

/// Everything the Tape page puts down.
#[derive(Debug, Clone)]
pub(crate) struct TapeEntry {
    pub(crate) manner: TapeManner,
    pub(crate) readings: Vec<Reading>,
    pub(crate) tape: TapeSheetEntry,
    /// Why readings on file are corrected, where it was said.
    pub(crate) why: String,
}

/// What heights of a class may be measured from: a trailer has a frame, and no arches that its front could be read at.
pub(crate) fn datums(class: VehicleClass) -> Vec<(&'static str, Datum)> {
    let offered = Datum::WORDS.iter().filter(|(datum, _)| *datum != Datum::StopGap);
    offered.take(if class.is_trailer() { 1 } else { usize::MAX }).map(|(datum, word)| (*word, *datum)).collect()
}

pub(crate) fn state_word(state: LoadState) -> &'static str {
    state.word()
}

/// Name of the field of one reading.
pub(crate) fn field_name(state: LoadState, place: &str, index: usize) -> String {
    format!("{}.{place}.{index}", state_word(state))
}

/// The walks of a phase as they stand for a job on file.
pub(crate) fn heights_on_file(units: Units, file: &JobFile, phase: Phase) -> Sheet {
    let mut sheet = Sheet::blank(units);
    for state in file.work.found().states() {
        for (place, word) in WALK.into_iter().chain([GAP]) {
            for (index, reading) in file.case().at(Spot { phase, state, place }).enumerate() {
                sheet.set_typed(&field_name(state, word, index), &reading.value);
            }
        }
    }
    sheet
}

/// The Tape form as it stands for a job on file.
pub(crate) fn on_file(units: Units, file: &JobFile) -> Sheet {
    let mut sheet = heights_on_file(units, file, Phase::Found);
    let offered = datums(file.case().intake.class);
    // Where there is but one way, it is the way.
    let only = if let [(_, only)] = offered.as_slice() { Some(*only) } else { None };
    if let Some((word, _)) = offered.iter().find(|(_, datum)| file.case().measured.datum.or(only) == Some(*datum)) {
        sheet.set("datum", *word);
    }
    for reading in file.case().readings.iter().filter(|reading| reading.spot.phase == Phase::Found) {
        if is_further(reading.spot.place) {
            sheet.set_typed(&further_name(reading.spot.state, reading.spot.place), &reading.value);
        }
    }
    let front = file.case().readings.iter().find(|reading| reading.spot.phase == Phase::Found && is_front(reading.spot.place));
    let front = front.map(|reading| reading.datum).filter(|datum| Some(*datum) != file.case().measured.datum);
    let word = offered.iter().find(|(_, datum)| Some(*datum) == front).map_or("same", |(word, _)| word);
    sheet.set("front_datum", word);
    let tape = &file.case().tape;
    for entry in LoadState::BOTH.into_iter().filter_map(|state| tape.state(state)) {
        sheet.set("floor", entry.floor.clone());
        sheet.set(&format!("fuel_{}", entry.state.word()), entry.fuel.clone());
    }
    let first = |told: &dyn Fn(&StateEntry) -> bool| LoadState::BOTH.into_iter().filter_map(|state| tape.state(state)).any(told);
    for (name, on) in [
        ("rolled", first(&|entry| entry.manner == Manner::Rolled)),
        ("load_test", first(&|entry| entry.test_weight)),
        ("rise_confirmed", file.case().measured.rear_rise_confirmed),
    ] {
        if on {
            sheet.set(name, "yes");
        }
    }
    tape_states::on_file(&mut sheet, file);
    crate::view::slips::ask(&mut sheet, &file.work, Stage::Tape);
    match tape.load() {
        None | Some(LoadEntry::Over { .. }) => sheet.set("load_kind", "none"),
        Some(LoadEntry::Planned { case }) => {
            sheet.set("load_kind", "planned");
            sheet.set("load_case", case.to_string());
        }
        Some(LoadEntry::Placed { weight, distance, ahead }) => {
            sheet.set("load_kind", "placed");
            sheet.set_typed("load_weight", weight);
            sheet.set_typed("load_distance", distance);
            sheet.set("load_side", if *ahead { "ahead" } else { "behind" });
        }
        Some(LoadEntry::Weighed { rear_empty, rear_loaded, front_empty, front_loaded }) => {
            sheet.set("load_kind", "weighed");
            sheet.set_typed("rear_empty", rear_empty);
            sheet.set_typed("rear_loaded", rear_loaded);
            for (name, typed) in [("front_empty", front_empty), ("front_loaded", front_loaded)] {
                if let Some(typed) = typed {
                    sheet.set_typed(name, typed);
                }
            }
        }
    }
    sheet
}

/// Reads the Tape form; `None` with complaints on the sheet when anything is wrong.
pub(crate) fn check(sheet: &mut Sheet, file: &JobFile) -> Option<TapeEntry> {
    let datum = datum(sheet, file);
    let front = front_datum(sheet, file);
    let states: Vec<LoadState> = kept_states(sheet, file);
    let mut readings = heights(sheet, &states, Phase::Found, datum.unwrap_or(Datum::GroundToArch));
    for reading in readings.iter_mut().filter(|reading| is_front(reading.spot.place)) {
        reading.datum = front.unwrap_or(reading.datum);
    }
    readings.extend(further(sheet, file, &states, datum.unwrap_or(Datum::GroundToArch)));
    let tape = tape(sheet, file);
    let confirmed = sheet.is_filled("rise_confirmed");
    let manner = TapeManner { datum: datum?, rear_rise_confirmed: confirmed };
    if sheet.is_sound() && !confirmed {
        ask_about_a_rise(sheet, file, &tape, &readings);
    }
    let why = WHY.iter().find(|(word, _)| *word == sheet.text("why")).map_or(String::new(), |(_, why)| (*why).to_owned());
    sheet.is_sound().then_some(TapeEntry { manner, readings, tape, why })
}

/// The states of the form but those that are taken off.
fn kept_states(sheet: &Sheet, file: &JobFile) -> Vec<LoadState> {
    let off = |state: &LoadState| sheet.is_filled(&format!("{}.off", state.word()));
    tape_states::states(sheet, file).into_iter().filter(|state| !off(state)).collect()
}

/// The states and the points, as typed.
fn tape(sheet: &mut Sheet, file: &JobFile) -> TapeSheetEntry {
    let rolled = sheet.is_filled("rolled");
    let floor = words(sheet, "floor");
    let put = load(sheet, file);
    let test = sheet.is_filled("load_test") && matches!(put, Some(LoadEntry::Placed { .. }));
    let mut first = |state: LoadState| StateEntry {
        manner: if rolled { Manner::Rolled } else { Manner::AsItStood },
        floor: floor.clone(),
        fuel: words(sheet, &format!("fuel_{}", state.word())),
        contact: tape_states::contact(sheet, state),
        ..StateEntry::of(state)
    };
    let empty = first(LoadState::Empty);
    let loaded = StateEntry { load: put, test_weight: test, ..first(LoadState::Loaded) };
    let further = tape_states::read(sheet, file, rolled);
    TapeSheetEntry { states: [empty, loaded].into_iter().chain(further).collect(), points: tape_states::points(sheet, file) }
}

pub(crate) fn words(sheet: &mut Sheet, name: &str) -> String {
    let text = sheet.text(name).to_owned();
    if text.chars().count() > LONGEST_WORDS {
        sheet.refuse(name, format!("Keep it under {LONGEST_WORDS} characters."));
    }
    text
}

/// The front's own datum, where it is another than the rear's.
fn front_datum(sheet: &Sheet, file: &JobFile) -> Option<Datum> {
    let offered = datums(file.case().intake.class).into_iter().find(|(word, _)| *word == sheet.text("front_datum"));
    offered.map(|(_, datum)| datum)
}

/// The readings beside the walk.
fn further(sheet: &mut Sheet, file: &JobFile, states: &[LoadState], datum: Datum) -> Vec<Reading> {
    let mut readings = Vec::new();
    for state in states.iter().copied() {
        for place in Place::further() {
            let name = further_name(state, place);
            if !sheet.is_filled(&name) {
                continue;
            }
            let value = match place.kind() {
                ReadingKind::Height | ReadingKind::Length => {
                    length_at(sheet, &name, place_name(file.case().intake.class, place), place)
                }
                ReadingKind::Weight => sheet.weight(&name),
                ReadingKind::Angle => sheet.angle(&name),
                ReadingKind::Pressure => sheet.pressure(&name),
            };
            let spot = Spot { phase: Phase::Found, state, place };
            readings.extend(value.map(|value| Reading { spot, datum, value }));
        }
    }
    readings
}

fn datum(sheet: &mut Sheet, file: &JobFile) -> Option<Datum> {
    let offered = datums(file.case().intake.class).into_iter().find(|(word, _)| *word == sheet.text("datum"));
    let Some((_, datum)) = offered else {
        sheet.refuse("datum", "Pick what the heights are measured from.");
        return None;
    };
    // A prediction and its proof are heights from one datum; relabelling one half would compare unlike things.
    if file.fitting.is_some() && file.case().measured.datum.is_some_and(|old| old != datum) {
        sheet.refuse(
            "datum",
            "A correction was chosen with heights measured the other way; take the choice back on Options first.",
        );
        return None;
    }
    Some(datum)
}

/// The readings of a phase as typed.
pub(crate) fn heights(sheet: &mut Sheet, states: &[LoadState], phase: Phase, datum: Datum) -> Vec<Reading> {
    let mut readings = Vec::new();
    for state in states.iter().copied() {
        for (place, word) in WALK.into_iter().chain([GAP]) {
            let spot = Spot { phase, state, place };
            for index in 0..MOST_READINGS {
                let name = field_name(state, word, index);
                if !sheet.is_filled(&name) {
                    continue;
                }
                if let Some(value) = height(sheet, &name, place) {
                    readings.push(Reading { spot, datum, value });
                }
            }
        }
    }
    readings
}

/// A height is above nought; a gap may be nought, with the stop touching.
fn height(sheet: &mut Sheet, name: &str, place: Place) -> Option<Typed> {
    length_at(sheet, name, if place == Place::StopGap { "A bump-stop gap" } else { "A ride height" }, place)
}

/// A length read at a place, within what it may be there.
fn length_at(sheet: &mut Sheet, name: &str, what: &str, place: Place) -> Option<Typed> {
    let typed = sheet.length(name)?;
    match place.bound() {
        Some(bound) => sheet.within(name, what, typed, bound),
        None => Some(typed),
    }
}

fn axle(readings: &[Reading], phase: Phase, state: LoadState, end: End) -> AxleReadings {
    let mut axle = AxleReadings::default();
    for side in Side::BOTH {
        let place = match (end, side) {
            (End::Front, Side::Left) => Place::FrontLeft,
            (End::Front, Side::Right) => Place::FrontRight,
            (End::Rear, Side::Left) => Place::RearLeft,
            (End::Rear, Side::Right) => Place::RearRight,
        };
        let spot = Spot { phase, state, place };
        *axle.corners.get_mut(side) = readings.iter().filter(|r| r.spot == spot).map(|r| r.value.length()).collect();
    }
    axle
}

/// A rear that stands higher loaded is asked about, once; the answer is kept.
fn ask_about_a_rise(sheet: &mut Sheet, file: &JobFile, tape: &TapeSheetEntry, readings: &[Reading]) {
    let mut survey: Survey = file.work.found().clone();
    survey.load = tape.load().and_then(|put| put.load_put(file.case().plan.as_ref()));
    survey.heights.empty.rear = axle(readings, Phase::Found, LoadState::Empty, End::Rear);
    survey.heights.loaded.rear = axle(readings, Phase::Found, LoadState::Loaded, End::Rear);
    let risen = survey.rear_corners_that_rose();
    let sides: Vec<&str> = risen.iter().map(|side| side.name()).collect();
    if !sides.is_empty() {
        let text = format!(
            "The rear {} stands higher loaded than empty. Read it again; if it is right, say so here and save.",
            sides.join(" and ")
        );
        sheet.refuse("rise_confirmed", text);
    }
}

/// What was put on, with what each way of telling it asks.
pub(crate) fn load_picks(sheet: &Sheet, file: &JobFile) -> Picks {
    let class = file.case().intake.class;
    let [front, rear] = [End::Front, End::Rear].map(|end| support_name(class, end));
    let scale =
        |name: &str, what: &str, state| sheet.weight_field(name, &format!("{}, {}", sentence(what), state_name(state))).into();
    let sides = [("ahead", format!("ahead of the {rear}")), ("behind", format!("behind the {rear}"))];
    let uses = [("", "what the vehicle carries"), ("yes", "a test weight, for the reading alone")];
    let placed: [Part; 4] = [
        sheet.weight_field("load_weight", "Weight put on").into(),
        sheet.length_field("load_distance", &format!("Its middle from the {rear}")).hint("0 is right over it").into(),
        sheet.picks("load_side", "It sits", sides).into(),
        sheet.picks("load_test", "It is", uses).into(),
    ];
    let cases: Vec<_> = file.case().plan.iter().flat_map(|plan| &plan.cases).collect();
    let planned = if cases.is_empty() {
        let (words, link) = ("There is no load plan yet.", "Put what is aboard on Load");
        Part::Lead { words, href: Stage::Load.path(file.job.number), link }
    } else {
        sheet.picks("load_case", "The case", cases.into_iter().map(|case| (case.key.to_string(), case.name.clone()))).into()
    };
    let weighed = [
        scale("rear_empty", rear, LoadState::Empty),
        scale("rear_loaded", rear, LoadState::Loaded),
        scale("front_empty", front, LoadState::Empty),
        scale("front_loaded", front, LoadState::Loaded),
    ];
    let ways = [
        ("placed", "A weight at a place"),
        ("planned", "A case of the load plan"),
        ("weighed", "Axles on a scale"),
        ("none", "Not known yet"),
    ];
    let picks = sheet.picks("load_kind", "What was put on between the two", ways);
    picks.asks("placed", placed).asks("planned", [planned]).asks("weighed", weighed)
}

fn load(sheet: &mut Sheet, file: &JobFile) -> Option<LoadEntry> {
    let vehicle = &file.case().vehicle();
    let entry = match sheet.text("load_kind") {
        "planned" => planned(sheet, file.case().plan.as_ref())?,
        "placed" => placed(sheet)?,
        "weighed" => weighed(sheet)?,
        _ => return None,
    };
    let units = sheet.units();
    let put = entry.load_put(file.case().plan.as_ref());
    for problem in put.map(|put| put.problems(vehicle)).unwrap_or_default() {
        let (name, text) = load_problem(&problem, &entry, vehicle.class, units);
        sheet.refuse(name, text);
    }
    Some(entry)
}

fn planned(sheet: &mut Sheet, plan: Option<&LoadPlanEntry>) -> Option<LoadEntry> {
    let key = sheet.text("load_case").parse::<u8>().ok();
    let case = key.and_then(|key| plan?.case(key)).map(|case| LoadEntry::Planned { case: case.key });
    match case.as_ref() {
        None => sheet.refuse("load_case", "Pick which case of the load plan was aboard."),
        Some(entry) if entry.load_put(plan).is_none() => {
            sheet.refuse("load_case", "Nothing is aboard in that case yet; put it on the load plan first.");
        }
        Some(_) => {}
    }
    case
}

fn placed(sheet: &mut Sheet) -> Option<LoadEntry> {
    let (weight, distance) = (sheet.weight("load_weight"), sheet.length("load_distance"));
    let distance = distance?;
    let ahead = match sheet.text("load_side") {
        "ahead" => true,
        "behind" => false,
        _ if distance.si.abs() <= 0.0 => false,
        _ => {
            sheet.refuse("load_side", "Pick on which side of the rear axles it sits.");
            return None;
        }
    };
    Some(LoadEntry::Placed { weight: weight?, distance, ahead })
}

fn weighed(sheet: &mut Sheet) -> Option<LoadEntry> {
    let (rear_empty, rear_loaded) = (sheet.weight("rear_empty"), sheet.weight("rear_loaded"));
    let (front_empty, front_loaded) = (sheet.optional_weight("front_empty"), sheet.optional_weight("front_loaded"));
    for (name, other) in [("front_empty", "front_loaded"), ("front_loaded", "front_empty")] {
        if !sheet.is_filled(name) && sheet.is_filled(other) {
            sheet.refuse(name, "The front was weighed in one state only; give both, or clear the other.");
        }
    }
    Some(LoadEntry::Weighed { rear_empty: rear_empty?, rear_loaded: rear_loaded?, front_empty, front_loaded })
}

fn load_problem(problem: &LoadProblem, entry: &LoadEntry, class: VehicleClass, units: Units) -> (&'static str, String) {
    let placed = matches!(entry, LoadEntry::Placed { .. });
    match problem {
        LoadProblem::OffTheVehicle { most_ahead, most_behind } => {
            let (ahead, behind, rear) = (units.height(*most_ahead), units.height(*most_behind), support_name(class, End::Rear));
            let text = format!("That place is off the vehicle: at most {ahead} ahead of the {rear}, or {behind} behind it.");
            ("load_distance", text)
        }
        LoadProblem::Nothing => ("load_weight", "Type the weight that was put on.".to_owned()),
        LoadProblem::LiftsTheFront => {
            let text = "There it would lift an axle off the ground; check the weight and the place.".to_owned();
            (if placed { "load_weight" } else { "rear_loaded" }, text)
        }
        LoadProblem::ScaleOrder(end) => {
            let text =
                "Loaded must be more than empty, and empty more than wheels and axle alone; check both figures.".to_owned();
            (if *end == End::Front { "front_loaded" } else { "rear_loaded" }, text)
        }
        _ => ("load_weight", "This load cannot be; check it.".to_owned()),
    }
}

/// How many fields a corner shows: those filled, and one more to read again.
pub(crate) fn fields_shown(sheet: &Sheet, state: LoadState, place: &str) -> usize {
    let filled = (0..MOST_READINGS).rev().find(|index| sheet.is_filled(&field_name(state, place, *index)));
    (filled.unwrap_or(0) + 2).min(MOST_READINGS)
}
