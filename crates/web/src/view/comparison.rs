//! Up to three options beside one another and beside how it stands now: the same rows for all.

use wise_badger_casework::aim::GoalMark;
use wise_badger_casework::case::PlannedCase;
use wise_badger_casework::casework::Casework;
use wise_badger_casework::prediction::PredictedState;
use wise_badger_casework::survey::{End, LoadState};
use wise_badger_mechanics::correction::Axles;
use wise_badger_mechanics::units::Length;

use super::load_plan::{NOTHING_FITTED, unpredicted_words};
use super::look_over::put_right_words;
use super::prediction::sides_in_short;
use super::{Units, frequency, sentence, state_of};

/// Most options beside one another.
pub(crate) const MOST_BESIDE: usize = 3;

/// A row: what it is about, how it stands now, and what each option makes of it.
pub(crate) struct CompareRow {
    pub(crate) label: String,
    pub(crate) now: String,
    pub(crate) cells: Vec<String>,
}

/// What is not known, or has no meaning here.
const NOTHING: &str = "–";

/// Every row that says something of any of them; the options go by their places on the list.
pub(crate) fn compare_rows(work: &Casework, places: &[usize], units: Units) -> Vec<CompareRow> {
    let mut rows = heights(work, places, units);
    rows.extend(fronts(work, places, units));
    rows.extend(rakes(work, places, units));
    rows.extend(points(work, places, units));
    rows.extend(clearances(work, places, units));
    rows.extend(rides(work, places));
    rows.extend(cases(work, places, units));
    rows.push(along_with(work, places));
    rows.retain(|row| row.cells.iter().chain([&row.now]).any(|cell| cell != NOTHING));
    rows
}

fn at(work: &Casework, place: usize, state: LoadState) -> Option<&PredictedState> {
    work.predicted(place)?.at(state).ok()
}

/// A row of a state, by what is said of it now and of each option's prediction.
fn row(
    label: String,
    now: Option<String>,
    work: &Casework,
    places: &[usize],
    state: LoadState,
    say: impl Fn(&PredictedState) -> Option<String>,
) -> CompareRow {
    let cell = |place: &usize| at(work, *place, state).and_then(&say).unwrap_or_else(|| NOTHING.to_owned());
    CompareRow { label, now: now.unwrap_or_else(|| NOTHING.to_owned()), cells: places.iter().map(cell).collect() }
}

fn heights(work: &Casework, places: &[usize], units: Units) -> Vec<CompareRow> {
    let survey = work.found();
    let of_state = |state| {
        let cell = |place: &usize| match work.predicted(*place).map(|prediction| prediction.at(state)) {
            Some(Ok(predicted)) => format!("{}{}", units.predicted(predicted.rear), sides_in_short(predicted, units)),
            Some(Err(why)) => unpredicted_words(why).to_owned(),
            None => NOTHING.to_owned(),
        };
        let now = survey.height(End::Rear, state).map_or_else(|| NOTHING.to_owned(), |height| units.height(height.value));
        CompareRow { label: format!("Rear, {}", state_of(survey, state)), now, cells: places.iter().map(cell).collect() }
    };
    survey.states().map(of_state).collect()
}

/// The front, where any of them moves it.
fn fronts(work: &Casework, places: &[usize], units: Units) -> Vec<CompareRow> {
    let survey = work.found();
    let moves =
        |place: &usize| work.option(*place).is_some_and(|(_, parts)| parts.iter().any(|part| part.site().axles == Axles::Front));
    let of_state = |state| {
        let label = format!("Front, {}", state_of(survey, state));
        let now = survey.height(End::Front, state).map(|height| units.height(height.value));
        row(label, now, work, places, state, |predicted| Some(units.predicted(predicted.front?)))
    };
    survey.states().filter(|_| places.iter().any(moves)).map(of_state).collect()
}

fn rakes(work: &Casework, places: &[usize], units: Units) -> Vec<CompareRow> {
    let survey = work.found();
    let of_state = |state| {
        let label = format!("Rake, {}", state_of(survey, state));
        let now = survey.rake(state).map(|rake| units.change(rake));
        row(label, now, work, places, state, |predicted| Some(units.change(predicted.rear.value - predicted.front?.value)))
    };
    let trailer = survey.vehicle.class.is_trailer();
    survey.states().filter(|_| !trailer).map(of_state).collect()
}

/// Hitch, step and whatever else of the body was read: a row for each state that it was read in.
fn points(work: &Casework, places: &[usize], units: Units) -> Vec<CompareRow> {
    let survey = work.found();
    let of_point = |(name, mark): (Option<&str>, GoalMark)| {
        let GoalMark::Point { place, .. } = mark else { return Vec::new() };
        let of_state = |state| {
            let read = work.case().point_height(place, state)?;
            let said = |option: &usize| {
                let stands = work.point_with(*option, &mark, state);
                stands.map_or_else(|| NOTHING.to_owned(), |height| units.predicted(height))
            };
            let label = format!("{}, {}", named(name), state_of(survey, state));
            Some(CompareRow { label, now: units.height(read), cells: places.iter().map(said).collect() })
        };
        let of_case = |case: &PlannedCase| {
            let said = |option: &usize| {
                let stands = work.point_in_case(*option, &mark, case);
                stands.map_or_else(|| NOTHING.to_owned(), |height| units.predicted(height))
            };
            let label = format!("{}, {}", named(name), case.name);
            CompareRow { label, now: NOTHING.to_owned(), cells: places.iter().map(said).collect() }
        };
        survey.states().filter_map(of_state).chain(work.cases().iter().map(of_case)).collect()
    };
    work.points().into_iter().flat_map(of_point).collect()
}

fn named(point: Option<&str>) -> String {
    point.map_or_else(|| "Hitch".to_owned(), sentence)
}

fn clearances(work: &Casework, places: &[usize], units: Units) -> Vec<CompareRow> {
    let survey = work.found();
    let of_state = |state| {
        let (state_name, differ) = (state_of(survey, state), survey.gaps_that_differ(state));
        // What is predicted is of the side that bears first.
        let first = if survey.states().any(|state| survey.gaps_that_differ(state).is_some()) { ", nearer side" } else { "" };
        let label = format!("To the stop{first}, {state_name}");
        let read = |gap| match differ {
            Some(sides) => format!("L {}, R {}", units.height(sides.left), units.height(sides.right)),
            None => units.height(gap),
        };
        let left = |predicted: &PredictedState| Some(left_words(predicted.travel_left?, |length| units.height(length)));
        row(label, survey.gap(state).map(read), work, places, state, left)
    };
    survey.states().map(of_state).collect()
}

/// What is left to a stop, or by how much it bears.
pub(crate) fn left_words(left: Length, say: impl Fn(Length) -> String) -> String {
    if left.value < 0.0 { format!("bears by {}", say(-left)) } else { say(left) }
}

fn rides(work: &Casework, places: &[usize]) -> Vec<CompareRow> {
    let survey = work.found();
    let of_state = |state| {
        let label = format!("Ride, {}", state_of(survey, state));
        let before = places.iter().find_map(|place| at(work, *place, state)?.bounce_before);
        let now = before.map(|bounce| frequency(bounce.frequency));
        row(label, now, work, places, state, |predicted| Some(frequency(predicted.bounce_after?.frequency)))
    };
    survey.states().map(of_state).collect()
}

/// The cases of the load plan that were not measured.
fn cases(work: &Casework, places: &[usize], units: Units) -> Vec<CompareRow> {
    let of_case = |case: &PlannedCase| {
        let cell = |place: &usize| match work.in_case(*place, case) {
            Ok(heights) => units.predicted(heights.rear),
            Err(why) => unpredicted_words(why).to_owned(),
        };
        let now = work.predictor().in_case(&case.survey, NOTHING_FITTED);
        let now = now.map_or_else(|why| unpredicted_words(why).to_owned(), |heights| units.predicted(heights.rear));
        CompareRow { label: format!("Rear, {}", case.name), now, cells: places.iter().map(cell).collect() }
    };
    work.cases().iter().map(of_case).collect()
}

fn along_with(work: &Casework, places: &[usize]) -> CompareRow {
    let said = |place: Option<usize>| {
        let words: Vec<String> = put_right_words(work, place).iter().map(|words| sentence(words)).collect();
        if words.is_empty() { NOTHING.to_owned() } else { words.join(". ") }
    };
    CompareRow {
        label: "Fix now with it".to_owned(),
        now: said(None),
        cells: places.iter().map(|place| said(Some(*place))).collect(),
    }
}
