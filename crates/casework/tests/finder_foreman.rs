//! Jobs as they come through the door, with the first choices that an experienced foreman would accept and those he would call wrong: each
//! with the reason, as data in `foreman/cases.json`. The reasons are common practice; the figures are made up.

#![allow(clippy::unwrap_used, clippy::indexing_slicing, reason = "a test fails where it stands")]

#[path = "support/in_short.rs"]
mod in_short;

use in_short::{InShort, demo_shelf};
use serde::Deserialize;
use wise_badger_casework::entry::{ShelfPart, TypedIn};
use wise_badger_casework::finder::{Found, Ranked, Search, ToTheEnd, Weights, find};
use wise_badger_casework::option_document::OptionsResult;
use wise_badger_mechanics::correction::Axles;

const CASES: &str = include_str!("foreman/cases.json");
const TODAY: &str = "2026-11-29";

/// A job, and what a foreman would say of it.
#[derive(Deserialize)]
struct Row {
    #[serde(flatten)]
    job: InShort,
    /// Rules that must lead.
    #[serde(default)]
    lead: Vec<String>,
    /// Whether nothing may be proposed.
    #[serde(default)]
    none: bool,
    /// Schools of which the first three are made.
    accept: Option<Vec<String>>,
    /// Schools one of which the first has.
    first: Option<Vec<String>>,
    /// Sets of schools that are not among the first three.
    #[serde(default)]
    wrong: Vec<Vec<String>>,
    /// Rules by which something is refused.
    #[serde(default)]
    refused: Vec<String>,
    first_costs_at_most: Option<i64>,
    #[serde(default)]
    first_comes_off: bool,
    #[serde(default)]
    first_is_there: bool,
    #[serde(default)]
    first_in_front: bool,
    /// Whether none of the first lifts the front.
    #[serde(default)]
    none_in_front: bool,
}

fn schools(ranked: &Ranked) -> Vec<&'static str> {
    ranked.schools.iter().map(|school| school.word()).collect()
}

/// The first of each school, three at most: what stands side by side on the screen.
fn firsts(found: &Found) -> Vec<&Ranked> {
    found.ranked.iter().filter(|ranked| !ranked.another_way && !ranked.dominated).take(3).collect()
}

fn hold(row: &Row, shelf: &[ShelfPart]) -> Vec<String> {
    let work = row.job.work();
    let shelf = if row.job.shelf == "empty" { &[] } else { shelf };
    let weights = Weights::default();
    let search = Search { work: &work, shelf, weights, today: Some(TODAY), units: TypedIn::default() };
    let found = find(&search, &ToTheEnd);
    let mut wrong = Vec::new();
    let mut held = |holds: bool, what: String| {
        if !holds {
            wrong.push(format!("{} ({}): {what}", row.job.name, row.job.why));
        }
    };
    let leads: Vec<&str> = found.leads.iter().map(|lead| lead.word()).collect();
    for lead in &row.lead {
        held(leads.contains(&lead.as_str()), format!("{lead} does not lead: {leads:?}"));
    }
    held(row.none == found.ranked.is_empty(), format!("{} options ranked; leads {leads:?}", found.ranked.len()));
    let firsts = firsts(&found);
    let names: Vec<_> = firsts.iter().map(|ranked| schools(ranked)).collect();
    for ranked in &firsts {
        let of = schools(ranked);
        if let Some(accept) = &row.accept {
            let accepted = of.iter().any(|school| accept.iter().any(|accepted| accepted == school));
            held(accepted, format!("{of:?} is not among what he would accept: {names:?}"));
        }
        let is_wrong = row.wrong.iter().any(|wrong| wrong.iter().map(String::as_str).eq(of.iter().copied()));
        held(!is_wrong, format!("{of:?} is wrong among the first: {names:?}"));
    }
    if let (Some(first), Some(ranked)) = (&row.first, firsts.first()) {
        held(schools(ranked).iter().any(|school| first.iter().any(|of| of == school)), format!("{names:?} begins otherwise"));
    }
    if let Some(first) = firsts.first() {
        if let Some(most) = row.first_costs_at_most {
            held(first.worth.price.is_some_and(|(price, _)| price <= most), format!("{:?}", first.worth.price));
        }
        held(!row.first_comes_off || first.worth.removable, "the first does not come off again".to_owned());
        held(!row.first_is_there || first.worth.days == Some(0), format!("{:?} days", first.worth.days));
        let in_front = first.option.parts.iter().any(|part| part.correction.site.axles == Axles::Front);
        let lifts_the_front =
            |ranked: &&Ranked| ranked.option.parts.iter().any(|part| part.correction.site.axles == Axles::Front);
        held(!row.none_in_front || !firsts.iter().any(lifts_the_front), format!("{names:?} lifts the front"));
        held(!row.first_in_front || in_front, format!("{names:?} does not lift the front"));
    }
    let result = OptionsResult::of(&work, &found, &weights, &[]).to_json();
    for rule in &row.refused {
        held(result.contains(&format!("\"{rule}\"")), format!("nothing is refused by {rule}"));
    }
    wrong
}

#[test]
fn a_foreman_would_accept_the_first_choices_and_would_call_none_of_them_wrong() {
    let rows: Vec<Row> = serde_json::from_str(CASES).unwrap();
    assert!(rows.len() >= 24, "{}", rows.len());
    let shelf = demo_shelf();
    let wrong: Vec<String> = rows.iter().flat_map(|row| hold(row, &shelf)).collect();
    assert!(wrong.is_empty(), "{}", wrong.join("\n"));
}
