//! What of an option survives once what comes later is aboard.

use super::found::{Ranked, Survives};
use crate::aim::GoalCase;
use crate::casework::Casework;
use crate::entry::{OptionEntry, PartEntry};

/// Differences in chance smaller than this are none.
const SAME_CHANCE: f64 = 0.05;
/// What meets the whole aim as likely as this is an answer for later too (our own working rule).
const ENOUGH: f64 = 0.5;

/// Whether the load plan has a case that comes later and that a goal speaks of.
pub(super) fn is_spoken_of(work: &Casework) -> bool {
    let later = |when| matches!(when, GoalCase::Planned(key) if work.is_later(key));
    work.goals().any(|goal| later(goal.when()))
}

/// Says of every option what of it survives.
pub(super) fn look_ahead(work: &Casework, ranked: &mut [Ranked]) {
    if !is_spoken_of(work) {
        return;
    }
    let survives: Vec<Survives> = ranked.iter().map(|option| survives(option, ranked)).collect();
    ranked.iter_mut().zip(survives).for_each(|(option, survives)| option.survives = Some(survives));
}

fn all(option: &Ranked) -> f64 {
    option.chance.as_ref().map_or(0.0, |chance| chance.all)
}

fn survives(option: &Ranked, ranked: &[Ranked]) -> Survives {
    let now = option.chance.as_ref().and_then(|chance| chance.now).unwrap_or_else(|| all(option));
    if all(option) >= ENOUGH || now - all(option) <= SAME_CHANCE {
        return Survives::AsItIs;
    }
    let own = numbers(&option.option);
    let better = || ranked.iter().filter(|other| all(other) >= ENOUGH.max(all(option) + SAME_CHANCE));
    // The fewest parts more, and of those the likeliest.
    let grown = better().filter(|other| own.iter().all(|number| numbers(&other.option).contains(number)));
    let grown = grown.min_by(|one, other| one.worth.parts.cmp(&other.worth.parts).then(all(other).total_cmp(&all(one))));
    if let Some(grown) = grown {
        let more: Vec<String> = numbers(&grown.option).into_iter().filter(|number| !own.contains(number)).collect();
        return if more.is_empty() { Survives::SetOtherwise } else { Survives::With(more) };
    }
    let Some(best) = better().max_by(|one, other| all(one).total_cmp(&all(other))) else { return Survives::NotKnown };
    Survives::ComesOff(own.into_iter().filter(|number| !numbers(&best.option).contains(number)).collect())
}

/// The parts by their numbers; work on what is there has its kind's word.
fn numbers(option: &OptionEntry) -> Vec<String> {
    let number = |part: &PartEntry| {
        part.shelf.as_deref().map_or_else(|| part.correction.row.word.to_owned(), |shelf| shelf.number.clone())
    };
    option.parts.iter().map(number).collect()
}
