//! The best options beside one another.

use chrono::Local;
use wise_badger_casework::casework::Casework;
use wise_badger_casework::entry::ShelfPart;
use wise_badger_casework::finder::Ranked;
use wise_badger_casework::survey::LoadState;

use super::list::Narrowed;
use crate::drawing::{Drawing, Marks, StanceDrawing};
use crate::pages::job_frame::with_prediction;
use crate::view::consequence::consequence_figures;
use crate::view::finder::{
    chance_words, cures_words, earliest_words, hours_words, limited_by, now_words, price_words, ride_words, state_head,
    survives_words, wish_words,
};
use crate::view::load_plan::unpredicted_words;
use crate::view::shelf::stock_words;
use crate::view::{Units, sentence};

/// Options that stand beside one another.
const MOST_COLUMNS: usize = 3;
/// What else changes that a column has room for.
const MOST_CHANGES: usize = 5;

/// The head and the foot of an option's column.
pub(super) struct Column {
    pub(super) rank: usize,
    pub(super) name: String,
    pub(super) school: String,
    pub(super) customer: String,
    pub(super) key: String,
}

/// A row over all columns.
pub(super) struct Row {
    pub(super) label: String,
    pub(super) cells: Vec<Vec<String>>,
}

/// The places of those that stand beside one another: the best of each school, and failing that the best.
pub(super) fn first_of(ranked: &[Ranked], narrowed: &Narrowed) -> Vec<usize> {
    let shown = || ranked.iter().enumerate().filter(|(_, option)| narrowed.shows(option));
    let heads = shown().filter(|(_, option)| !option.another_way && !option.dominated);
    let heads: Vec<usize> = heads.map(|(place, _)| place).take(MOST_COLUMNS).collect();
    // Of what is left once the list is narrowed, the best may be what others do better that are not shown.
    if heads.is_empty() { shown().map(|(place, _)| place).take(MOST_COLUMNS).collect() } else { heads }
}

/// The vehicle as each would leave it, empty and loaded, beside how it stands.
pub(super) fn column_pictures(work: &Casework, trials: &[(usize, &Ranked, Casework)], units: Units) -> Vec<Drawing> {
    let found = work.found();
    let picture = |(place, (_, _, trial)): (usize, &(usize, &Ranked, Casework))| {
        let shown = with_prediction(trial, trial.predicted(0));
        let marks = Marks::new(found, &shown, units).in_short(&LoadState::BOTH, units);
        StanceDrawing::column(found, &marks, units, place)
    };
    trials.iter().enumerate().map(picture).collect()
}

/// What every column says, row by row.
pub(super) fn rows(work: &Casework, trials: &[(usize, &Ranked, Casework)], units: Units) -> Vec<Row> {
    if trials.is_empty() {
        return Vec::new();
    }
    let one = |label: &str, cell: &dyn Fn(&Ranked, &Casework) -> Vec<String>| Row {
        label: label.to_owned(),
        cells: trials.iter().map(|(_, ranked, trial)| cell(ranked, trial)).collect(),
    };
    let mut rows = vec![one("Chance", &|ranked, _| {
        let (words, figure) = chance_words(ranked.chance.as_ref());
        let now = now_words(ranked.chance.as_ref());
        [words, figure, now, limited_by(ranked.chance.as_ref(), work, units)]
            .into_iter()
            .filter(|line| !line.is_empty())
            .collect()
    })];
    rows.push(one("What is behind it", &|ranked, _| ranked.worth.cures.as_ref().map(cures_words).unwrap_or_default()));
    for state in work.found().states() {
        rows.push(one(&format!("Rear, {}", state_head(work, state).to_lowercase()), &|_, trial| {
            let at = trial.predicted(0).map(|predicted| predicted.at(state));
            vec![at.map_or_else(String::new, |at| {
                at.map_or_else(|why| unpredicted_words(why).to_owned(), |at| units.predicted(at.rear))
            })]
        }));
    }
    for case in work.cases() {
        rows.push(one(&format!("Rear, {}", case.name), &|_, trial| {
            let of_trial = trial.cases().iter().find(|of| of.key == case.key).map(|of| trial.in_case(0, of));
            let words = |at: Result<_, _>| {
                at.map_or_else(
                    |why| unpredicted_words(why).to_owned(),
                    |at: wise_badger_casework::prediction::CaseHeights| units.predicted(at.rear),
                )
            };
            vec![of_trial.map_or_else(String::new, words)]
        }));
    }
    rows.push(one("Ride, empty", &|ranked, _| vec![ride_words(&ranked.worth)[0].clone()]));
    rows.push(one("Ride, loaded", &|ranked, _| vec![ride_words(&ranked.worth)[1].clone()]));
    rows.push(one("What else changes", &|_, trial| {
        let figures = consequence_figures(trial, 0, units);
        figures.iter().take(MOST_CHANGES).map(|figure| format!("{}: {}", figure.label, figure.value)).collect()
    }));
    rows.push(one("What comes later", &|ranked, _| ranked.survives.as_ref().map(survives_words).into_iter().collect()));
    rows.push(one("Against a wish", &|ranked, _| {
        ranked.worth.against_a_wish.iter().map(|wish| sentence(wish_words(*wish))).collect()
    }));
    rows.push(one("Upkeep", &|ranked, _| {
        if ranked.worth.upkeep.is_empty() { vec!["none".to_owned()] } else { ranked.worth.upkeep.clone() }
    }));
    rows.push(one("Parts", &|ranked, _| vec![price_words(&ranked.worth)]));
    rows.push(one("Work", &|ranked, _| vec![hours_words(&ranked.worth)]));
    rows.push(one("To have it", &|ranked, _| {
        let part = |part: &ShelfPart| format!("{}: {}", part.number, stock_words(part));
        let each = ranked.option.parts.iter().filter_map(|entry| entry.shelf.as_deref()).map(part);
        std::iter::once(earliest_words(&ranked.worth, Local::now().date_naive())).chain(each).collect()
    }));
    rows.retain(|row| row.cells.iter().any(|cell| cell.iter().any(|line| !line.is_empty())));
    rows
}
