//! What in a document of a job cannot be, whoever wrote it.

use serde_json::Value;

use super::content::{JobDocument, PaperContent};
use super::error::{JobDocumentError, wrong};
use crate::case::Case;
use crate::entry::{LoadEntry, MOST_LINES, Typed};
use crate::survey::LoadState;
use crate::words::Word as _;

/// Most readings of one job.
const MOST_READINGS: usize = 2_000;
/// Most ticks of one job.
const MOST_TICKS: usize = 4_000;
/// Longest text of a quantity.
const LONGEST_TEXT: usize = 60;

/// Everything that is looked at once a document was read; `text` is what it was read from.
pub(super) fn check(document: &JobDocument, text: &str) -> Result<(), JobDocumentError> {
    if document.label.trim().is_empty() || document.label.chars().count() > 200 {
        return Err(wrong("label", "a job is called something, in up to 200 characters"));
    }
    states(document)?;
    readings(document)?;
    let case = document.case();
    if let Some(problem) = case.vehicle().problems().first() {
        return Err(wrong("vehicle", format!("no such vehicle stands on its wheels ({problem:?})")));
    }
    bench(document)?;
    goals(document, &case)?;
    options(document)?;
    work(document)?;
    let whole: Value = serde_json::from_str(text).map_err(|error| wrong("the document", error.to_string()))?;
    quantities(&whole, "")
}

/// What was typed says what was understood, wherever a quantity stands.
pub(crate) fn quantities(value: &Value, at: &str) -> Result<(), JobDocumentError> {
    match value {
        Value::Array(items) => items.iter().enumerate().try_for_each(|(index, item)| quantities(item, &format!("{at}[{index}]"))),
        Value::Object(_) if is_a_quantity(value) => {
            let typed: Typed = serde_json::from_value(value.clone()).map_err(|error| wrong(at, error.to_string()))?;
            let short = typed.text.chars().count() <= LONGEST_TEXT;
            match short && typed.si.is_finite() && typed.reads_as_understood() {
                true => Ok(()),
                false => Err(wrong(at, format!("“{}” does not read as {} in SI units", typed.text, typed.si))),
            }
        }
        // What a promise was said from is a document of its own time.
        Value::Object(fields) => fields.iter().filter(|(name, _)| *name != "inputs").try_for_each(|(name, field)| {
            let at = if at.is_empty() { name.clone() } else { format!("{at}.{name}") };
            quantities(field, &at)
        }),
        _ => Ok(()),
    }
}

fn is_a_quantity(value: &Value) -> bool {
    ["text", "unit", "si"].iter().all(|name| value.get(name).is_some())
}

fn work(document: &JobDocument) -> Result<(), JobDocumentError> {
    if let Some((at, what)) = document.work_plan.problem() {
        return Err(wrong(format!("work_plan.{at}"), what));
    }
    if document.ticks.len() > MOST_TICKS {
        return Err(wrong("ticks", format!("a job has up to {MOST_TICKS} of them")));
    }
    let step = document.ticks.iter().position(|content| !content.tick.is_sound());
    if let Some(place) = step {
        return Err(wrong(format!("ticks[{place}].tick.step"), "no step goes by that"));
    }
    let lines = |content: &PaperContent| content.paper.sections.iter().map(|section| 1 + section.lines.len()).sum::<usize>();
    let long = document.papers.iter().position(|content| lines(content) > MOST_LINES);
    long.map_or(Ok(()), |place| Err(wrong(format!("papers[{place}]"), format!("a paper has up to {MOST_LINES} lines"))))
}

fn states(document: &JobDocument) -> Result<(), JobDocumentError> {
    let states = &document.tape.states;
    for state in LoadState::BOTH {
        if document.tape.state(state).is_none() {
            return Err(wrong("tape.states", format!("the state “{}” is missing", state.word())));
        }
    }
    for (index, one) in states.iter().enumerate() {
        let before = states.get(..index).unwrap_or_default();
        let at = || format!("tape.states[{index}]");
        if before.iter().any(|other| other.state == one.state) {
            return Err(wrong(at(), format!("the state “{}” stands there twice", one.state.word())));
        }
        if let Some(LoadEntry::Over { state, .. }) = &one.load
            && !before.iter().any(|other| other.state == *state)
        {
            return Err(wrong(at(), format!("it goes by the state “{}”, which does not come before it", state.word())));
        }
    }
    Ok(())
}

fn readings(document: &JobDocument) -> Result<(), JobDocumentError> {
    if document.readings.len() > MOST_READINGS {
        return Err(wrong("readings", format!("there are more than {MOST_READINGS}")));
    }
    for (index, reading) in document.readings.iter().enumerate() {
        let at = || format!("readings[{index}]");
        if document.tape.state(reading.state).is_none() {
            return Err(wrong(at(), format!("the state “{}” is not among tape.states", reading.state.word())));
        }
        if reading.place.0.bound().is_some_and(|bound| !bound.holds(reading.value.si)) {
            return Err(wrong(at(), format!("{} in SI units is not what is read there", reading.value.si)));
        }
    }
    Ok(())
}

fn bench(document: &JobDocument) -> Result<(), JobDocumentError> {
    let Some(bench) = &document.bench else { return Ok(()) };
    let packs = bench.sides().iter().try_for_each(|side| bench.of_side(*side).packs().map(|_| ()));
    packs.map_err(|error| wrong("bench", format!("that makes no pack: {error}")))
}

fn goals(document: &JobDocument, case: &Case) -> Result<(), JobDocumentError> {
    let Some(aim) = &document.aim else { return Ok(()) };
    for (index, goal) in aim.goals.iter().enumerate() {
        if case.goal(goal).is_none() {
            let what = "what it is about is not on tape.points, nor is the overhang stated";
            return Err(wrong(format!("aim.goals[{index}]"), what));
        }
    }
    match aim.goals.is_empty() || aim.most >= aim.goals.len() {
        true => Err(wrong("aim.most", "it is the place of one of the goals, from 0")),
        false => Ok(()),
    }
}

fn options(document: &JobDocument) -> Result<(), JobDocumentError> {
    for (index, option) in document.options.iter().enumerate() {
        if let Some((at, what)) = option.problem() {
            return Err(wrong(format!("options[{index}].{at}"), what));
        }
    }
    match document.chosen {
        Some(chosen) if chosen >= document.options.len() => Err(wrong("chosen", "it is the place of one of the options, from 0")),
        _ => Ok(()),
    }
}
