//! The goals beside the height policy: a mark, when, how high, and whether more or less is as good.

use wise_badger_casework::aim::{AimProblem, contradiction};
use wise_badger_casework::bounds::{RAKE, RIDE_HEIGHT, TOLERANCE};
use wise_badger_casework::entry::{GoalEntry, MOST_GOALS, MarkEntry, WayWord, WhenEntry};
use wise_badger_casework::survey::{End, LoadState};
use wise_badger_casework::words::Word as _;
use wise_badger_store::job_file::JobFile;

use super::{Choice, Field, Sheet};
use crate::view::aim::goal_name;
use crate::view::{end_name, sentence, state_of};

/// Goals beside the first.
const MOST_BESIDE: usize = MOST_GOALS - 1;

fn name_of(index: usize, what: &str) -> String {
    format!("goal.{index}.{what}")
}

/// Puts a goal on file on the sheet.
pub(crate) fn put(sheet: &mut Sheet, index: usize, goal: &GoalEntry) {
    let GoalEntry::Mark { mark, when, way, height, tolerance } = goal else { return };
    sheet.set(&name_of(index, "mark"), mark_word(mark));
    let when = match when {
        WhenEntry::State(state) => state.word().to_owned(),
        WhenEntry::Case(key) => format!("case_{key}"),
    };
    sheet.set(&name_of(index, "when"), when);
    sheet.set(&name_of(index, "way"), way_word(*way));
    sheet.set_typed(&name_of(index, "height"), height);
    sheet.set_typed(&name_of(index, "tolerance"), tolerance);
}

fn mark_word(mark: &MarkEntry) -> String {
    match mark {
        MarkEntry::Front => "front".to_owned(),
        MarkEntry::Rear => "rear".to_owned(),
        MarkEntry::Rake => "rake".to_owned(),
        MarkEntry::LeanFront => "lean_front".to_owned(),
        MarkEntry::LeanRear => "lean_rear".to_owned(),
        MarkEntry::Hitch => "hitch".to_owned(),
        MarkEntry::Point(name) => format!("point {name}"),
    }
}

fn mark_of(word: &str) -> Option<MarkEntry> {
    Some(match word {
        "front" => MarkEntry::Front,
        "rear" => MarkEntry::Rear,
        "rake" => MarkEntry::Rake,
        "lean_front" => MarkEntry::LeanFront,
        "lean_rear" => MarkEntry::LeanRear,
        "hitch" => MarkEntry::Hitch,
        point => MarkEntry::Point(point.strip_prefix("point ")?.to_owned()),
    })
}

fn way_word(way: WayWord) -> &'static str {
    match way {
        WayWord::Within => "within",
        WayWord::AtLeast => "at_least",
        WayWord::AtMost => "at_most",
    }
}

/// What may be aimed at on this job.
fn marks(file: &JobFile) -> Vec<(String, String)> {
    let class = file.case().intake.class;
    let [front, rear] = [End::Front, End::Rear].map(|end| end_name(class, end));
    let mut marks = vec![
        ("rear".to_owned(), sentence(rear)),
        ("front".to_owned(), sentence(front)),
        ("rake".to_owned(), "Rake, rear above front".to_owned()),
        ("lean_rear".to_owned(), format!("Lean, {rear}, right above left")),
    ];
    if !class.is_trailer() {
        marks.push(("lean_front".to_owned(), format!("Lean, {front}, right above left")));
        marks.push(("hitch".to_owned(), "The hitch, from the ground".to_owned()));
    }
    let points = file.case().tape.points.iter();
    marks.extend(points.map(|point| (format!("point {}", point.name), format!("{}, from the ground", sentence(&point.name)))));
    marks
}

fn whens(file: &JobFile) -> Vec<(String, String)> {
    let found = file.work.found();
    let states = found.states().map(|state| (state.word().to_owned(), state_of(found, state).to_owned()));
    let cases = file.work.cases().iter().map(|case| (format!("case_{}", case.key), format!("in the case “{}”", case.name)));
    states.chain(cases).collect()
}

/// What is asked of a goal.
pub(crate) struct GoalForm {
    pub(crate) mark: (String, Vec<Choice>),
    pub(crate) when: (String, Vec<Choice>),
    pub(crate) way: (String, Vec<Choice>),
    pub(crate) fields: [Field; 2],
    pub(crate) problem: String,
}

/// The goals on file, and room for one more.
pub(crate) fn forms(sheet: &Sheet, file: &JobFile) -> Vec<GoalForm> {
    let told = (0..MOST_BESIDE).rev().find(|index| is_told(sheet, *index)).map_or(0, |last| last + 1);
    let form = |index| {
        let choices = |what, offered: Vec<(String, String)>| {
            let name = name_of(index, what);
            let choices = sheet.choices(&name, offered);
            (name, choices)
        };
        let none = (String::new(), "nothing more".to_owned());
        let ways = [("within", "within"), ("at_least", "at least"), ("at_most", "at most")];
        GoalForm {
            mark: choices("mark", std::iter::once(none).chain(marks(file)).collect()),
            when: choices("when", whens(file)),
            way: choices("way", ways.map(|(word, words)| (word.to_owned(), words.to_owned())).into()),
            fields: [
                sheet.length_field(&name_of(index, "height"), "Height wanted").hint("of a rake or lean, by how much"),
                sheet.length_field(&name_of(index, "tolerance"), "How far off still counts"),
            ],
            problem: [sheet.problem(&name_of(index, "mark")), sheet.problem(&name_of(index, "when"))].concat(),
        }
    };
    (0..(told + 1).min(MOST_BESIDE)).map(form).collect()
}

fn is_told(sheet: &Sheet, index: usize) -> bool {
    ["mark", "height", "tolerance"].iter().any(|what| sheet.is_filled(&name_of(index, what)))
}

/// Reads the goals, each with its place in the form; what is wrong stands on the sheet.
pub(crate) fn read(sheet: &mut Sheet, file: &JobFile) -> Vec<(usize, GoalEntry)> {
    let told: Vec<usize> = (0..MOST_BESIDE).filter(|index| is_told(sheet, *index)).collect();
    told.into_iter().filter_map(|index| Some((index, goal(sheet, file, index)?))).collect()
}

fn goal(sheet: &mut Sheet, file: &JobFile, index: usize) -> Option<GoalEntry> {
    let [mark_name, when_name, height_name, tolerance_name] =
        ["mark", "when", "height", "tolerance"].map(|what| name_of(index, what));
    let offered = marks(file).into_iter().any(|(word, _)| word == sheet.text(&mark_name));
    let mark = mark_of(sheet.text(&mark_name)).filter(|_| offered);
    if mark.is_none() {
        sheet.refuse(&mark_name, "Pick what this goal is about, or clear its figures.");
    }
    if mark == Some(MarkEntry::Hitch) && file.case().sheet.rear_overhang.is_none() {
        sheet.refuse(&mark_name, "Where the hitch is, is not known: give the overhang behind the rear axle at Intake first.");
    }
    let when = when(sheet, &when_name).filter(|_| whens(file).iter().any(|(word, _)| word == sheet.text(&when_name)));
    if when.is_none() {
        sheet.refuse(&when_name, "Pick in which state or case it is to hold.");
    }
    let way =
        WayWord::ALL.into_iter().find(|way| way_word(*way) == sheet.text(&name_of(index, "way"))).unwrap_or(WayWord::Within);
    let (height, tolerance) = (sheet.signed_length(&height_name), sheet.length(&tolerance_name));
    let entry = GoalEntry::Mark { mark: mark?, when: when?, way, height: height?, tolerance: tolerance? };
    for problem in file.case().goal(&entry).map(|goal| goal.problems(file.work.found())).unwrap_or_default() {
        match problem {
            AimProblem::Tolerance => sheet.ask_about(&tolerance_name, "A tolerance", &TOLERANCE),
            AimProblem::Rake => sheet.ask_about(&height_name, "A rake or a lean", &RAKE),
            AimProblem::Height => sheet.ask_about(&height_name, "A height", &RIDE_HEIGHT),
            _ => sheet.refuse(&height_name, "That cannot be aimed at; check the figure and its unit."),
        }
    }
    Some(entry)
}

fn when(sheet: &Sheet, name: &str) -> Option<WhenEntry> {
    let word = sheet.text(name);
    let case = || word.strip_prefix("case_").and_then(|key| key.parse().ok()).map(WhenEntry::Case);
    LoadState::from_word(word).map(WhenEntry::State).or_else(case)
}

/// Two goals that cannot both hold are told apart by their names.
pub(crate) fn refuse_contradiction(sheet: &mut Sheet, file: &JobFile, goals: &[GoalEntry]) {
    let aims: Vec<_> = goals.iter().filter_map(|goal| file.case().goal(goal)).collect();
    if aims.len() < goals.len() {
        return;
    }
    let Some((one, other)) = contradiction(&aims, file.work.found()) else { return };
    let units = sheet.units();
    let name = |place: usize| goals.get(place).map(|goal| goal_name(file, goal, units)).unwrap_or_default();
    let text = format!("“{}” and “{}” cannot both hold; change one of them.", name(one), name(other));
    let at = if other == 0 { "kind".to_owned() } else { name_of(other - 1, "height") };
    sheet.refuse(&at, text);
}
