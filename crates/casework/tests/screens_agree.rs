//! What one screen says of a part another says too: what is found, what is tried on the list, what is promised, and what is worked backward
//! from the aim, over every job of the foreman's.

#![allow(clippy::unwrap_used, clippy::indexing_slicing, reason = "a test fails where it stands")]

#[path = "support/in_short.rs"]
mod in_short;

use in_short::{InShort, demo_shelf};
use serde::Deserialize;
use wise_badger_casework::aim::AimVerdict;
use wise_badger_casework::back_solve::{Needed, nearest, what_it_takes};
use wise_badger_casework::casework::Casework;
use wise_badger_casework::entry::{CorrectionEntry, FigureEntry, OptionEntry, TypedIn, WhenEntry};
use wise_badger_casework::finder::{Found, Ranked, Search, ToTheEnd, Weights, find};
use wise_badger_casework::prediction::Moment;
use wise_badger_casework::survey::{End, LoadState};
use wise_badger_casework::wrench::{Card, Step};
use wise_badger_mechanics::correction::{Correction, KindFigure, Takes};
use wise_badger_mechanics::uncertain::Uncertain;
use wise_badger_mechanics::units::{InShopUnits, Length, inches};

const CASES: &str = include_str!("foreman/cases.json");
/// How many of what is found are held against the other screens in each job.
const LOOKED_AT: usize = 4;

#[derive(Deserialize)]
struct Row {
    #[serde(flatten)]
    job: InShort,
}

/// Every job of the foreman's, by its name.
fn jobs() -> Vec<(String, Casework)> {
    let rows: Vec<Row> = serde_json::from_str(CASES).unwrap();
    assert!(rows.len() >= 24, "{}", rows.len());
    rows.into_iter().map(|row| (row.job.name.clone(), row.job.work())).collect()
}

fn found(work: &Casework) -> Found {
    let shelf = demo_shelf();
    let search =
        Search { work, shelf: &shelf, weights: Weights::default(), today: Some("2026-11-29"), units: TypedIn::default() };
    find(&search, &ToTheEnd)
}

/// The job with one option on its list, as Options and What if have it.
fn with(work: &Casework, option: &OptionEntry) -> Casework {
    work.trying(option.clone(), work.case().plan.clone())
}

/// A part put on the list by hand, its figures as a person would type them; `None` of one that is no row of figures.
fn listed(part: &Correction) -> Option<OptionEntry> {
    let (row, account) = (part.row(), part.account());
    let figure = |figure: &KindFigure| {
        let dimension = match figure.takes {
            Takes::Within(bound) => bound.dimension,
            Takes::Any(dimension) => dimension,
            _ => return None,
        };
        let typed = TypedIn::default().of(dimension, account.get(figure.name)?.si()?)?;
        Some((figure.name.to_owned(), FigureEntry::from(typed)))
    };
    let figures = row.figures.iter().map(figure).collect::<Option<_>>()?;
    CorrectionEntry::new(row, part.site(), figures).ok().map(OptionEntry::from)
}

fn near(one: Uncertain<Length>, other: Uncertain<Length>, by: f64) -> bool {
    let close = |one: Length, other: Length| (one - other).customary().abs() <= by;
    close(one.value, other.value) && close(one.sd, other.sd)
}

/// The best figures at a glance, which the finder screens by, are those that the prediction says in full; what is promised when it is chosen is what stood
/// on the screen.
#[test]
fn what_is_found_is_predicted_and_promised_alike() {
    let mut held = 0;
    for (name, work) in jobs() {
        for ranked in found(&work).ranked.iter().take(LOOKED_AT) {
            let tried = with(&work, &ranked.option);
            let prediction = tried.predicted(0).unwrap();
            let (promised, _) = tried.promise(0, "test").unwrap();
            let states: Vec<LoadState> = tried.found().states().collect();
            for state in states {
                let Ok(predicted) = prediction.at(state) else { continue };
                let parts = tried.option_at(0, WhenEntry::State(state)).unwrap();
                let at_best = tried.predictor().ends_at_best(parts, &[Moment::State(state)]).pop().unwrap().unwrap();
                let off = (at_best.rear.unwrap() - predicted.rear.value).customary().abs();
                assert!(off < 1e-4, "{name}, {state:?}: at a glance {off} off what is said");
                let promise = promised.get(End::Rear, state).unwrap();
                assert!((promise.height_m - predicted.rear.value.si()).abs() < 1e-9, "{name}, {state:?}");
                assert!((promise.band_m - predicted.rear.band().si()).abs() < 1e-9, "{name}, {state:?}");
                let tape = promise.tape_band_m.unwrap();
                assert!(tape >= promise.band_m, "{name}, {state:?}: a fresh reading lies no closer than the height itself");
                assert_eq!(promised.get(End::Front, state).is_some(), predicted.front.is_some(), "{name}, {state:?}");
                held += 1;
            }
        }
    }
    assert!(held > 100, "{held} heights were held against each other");
}

/// The chance that the finder states and the words of the list for the same goal do not speak against each other.
#[test]
fn a_chance_and_the_words_of_the_list_say_the_same_of_a_goal() {
    let mut held = 0;
    for (name, work) in jobs() {
        for ranked in found(&work).ranked.iter().take(LOOKED_AT) {
            let Some(chance) = &ranked.chance else { continue };
            let tried = with(&work, &ranked.option);
            for (place, each) in chance.each.iter().enumerate() {
                let Some(verdict) = tried.judged(place, 0, inches(1.0 / 16.0)) else { continue };
                let (least, most) = match verdict {
                    AimVerdict::Meets => (0.85, 1.0),
                    AimVerdict::LikelyMeets => (0.35, 1.0),
                    // The figure lies outside; more than half of what is likely may lie inside all the same.
                    AimVerdict::MayMiss { .. } => (0.0, 0.85),
                    AimVerdict::Misses { .. } => (0.0, 0.15),
                };
                assert!(
                    (least..=most).contains(each),
                    "{name}, goal {place}: {each} beside {verdict:?} of {:?}",
                    numbers(ranked)
                );
                held += 1;
            }
        }
    }
    assert!(held > 40, "{held} chances were held against words");
}

fn numbers(ranked: &Ranked) -> Vec<&str> {
    let parts = ranked.option.parts.iter();
    parts.map(|part| part.shelf.as_deref().map_or("work", |shelf| shelf.number.as_str())).collect()
}

/// What a kind would have to be, put on the list by hand, stands where it was said to stand; so does the nearest part of the shelf.
#[test]
fn what_it_takes_stands_where_it_was_said_to() {
    let shelf = demo_shelf();
    let (mut sized, mut from_shelf) = (0, 0);
    for (name, work) in jobs() {
        let Some(takes) = what_it_takes(&work) else { continue };
        let rear = |option: &OptionEntry| {
            let tried = with(&work, option);
            tried.predicted(0).unwrap().at(takes.state).map(|predicted| predicted.rear)
        };
        for kind in &takes.kinds {
            let Needed::Of { part, rear: said, .. } = &kind.answer else { continue };
            let Some(option) = listed(part) else { continue };
            let stands = rear(&option).unwrap_or_else(|why| panic!("{name}, {}: {why:?} though {said:?}", kind.row.word));
            // What is put on the list is put there in figures as a person would type them.
            assert!(near(stands, *said, 0.05), "{name}, {}: {stands:?} for {said:?}", kind.row.word);
            assert!((said.value - takes.wanted).customary().abs() < 0.05, "{name}, {}", kind.row.word);
            sized += 1;
        }
        for near_by in nearest(&work, &takes, &shelf).iter().take(LOOKED_AT) {
            let Some(option) = listed(&near_by.part) else { continue };
            let stands = rear(&option).unwrap();
            assert!(near(stands, near_by.rear, 0.05), "{name}: {stands:?} for {:?}", near_by.rear);
            from_shelf += 1;
        }
    }
    assert!(sized > 30 && from_shelf > 30, "{sized} sizes, {from_shelf} parts");
}

/// Whatever is found can be fitted: every part of it has a card, and each step of that is ticked by a key of its own.
#[test]
fn whatever_is_found_has_a_card_to_fit_it_by() {
    let mut held = 0;
    for (name, work) in jobs() {
        for ranked in found(&work).ranked.iter().take(LOOKED_AT) {
            let mut case = with(&work, &ranked.option).case().clone();
            case.chosen = Some(0);
            let card = Card::of_job(&Casework::new(case), &[]);
            assert!(card.steps.len() >= 5, "{name}, {:?}: {} steps", numbers(ranked), card.steps.len());
            assert!(card.unknown.is_empty(), "{name}: no card for {:?}", card.unknown);
            let mut keys: Vec<String> = card.steps.iter().map(Step::key).collect();
            let all = keys.len();
            keys.sort_unstable();
            keys.dedup();
            assert_eq!(keys.len(), all, "{name}: two steps by one key would be ticked at once");
            held += 1;
        }
    }
    assert!(held > 50, "{held} cards");
}
