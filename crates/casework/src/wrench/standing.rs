//! How far a card has come, by what was ticked.

use super::card::{Card, Place, Step};
use super::needed::Needed;
use super::operation::{Asks, Catch, Effect, Fastener, Phase};
use super::operations::{NOTHING_LOOSE, PARTS_CHECKED};
use crate::entry::{Answer, TickEntry};

/// A torque further from its figure than this share is outside it (our own working rule: a wrench is good to 4 %, and nobody reads it finer).
const TORQUE_WITHIN: f64 = 0.05;

/// How a step stands.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum StepStands {
    /// Nobody answered yet.
    Open,
    /// It is done, or answered with a yes.
    Done,
    /// It was answered with a no, or its torque is outside its figure.
    Stopped,
    /// A hold before it at the same end is open, or the customer has not answered.
    Waits,
}

/// Something that is not as it must be before the drive.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Loose {
    /// A fastener that is loose, or on and not tight yet.
    Fastener(Fastener, Place),
    /// Something that is open.
    Catch(Catch, Place),
}

/// How far a card has come.
#[derive(Debug, Clone)]
pub struct Standing {
    /// Every step, in the order of the card.
    pub steps: Vec<StepStands>,
    /// What is loose or open.
    pub loose: Vec<Loose>,
    /// What is not ticked as here, by its key.
    pub missing: Vec<String>,
    /// The step from which all waits for what the customer says.
    pub customer: Option<usize>,
}

impl Standing {
    /// How a card stands by the ticks in the order in which they were taken in: of a step, and of a part that is needed, the last one
    /// counts.
    pub fn of(card: &Card, needed: &[Needed], ticks: &[TickEntry]) -> Self {
        let answers: Vec<Option<&TickEntry>> = card.steps.iter().map(|step| last(ticks, &step.key())).collect();
        let loose = loose(card, &answers);
        let is_here = |of: &&Needed| last(ticks, &of.key).is_some_and(|tick| tick.answer == Answer::Done);
        let missing: Vec<String> = needed.iter().filter(|of| !is_here(of)).map(|of| of.key.clone()).collect();
        let mut steps = Vec::with_capacity(card.steps.len());
        let mut held: Vec<Place> = Vec::new();
        for (step, answer) in card.steps.iter().zip(&answers) {
            let waits = held.iter().any(|hold| hold.is_met_by(&step.place));
            let stands = match answer {
                _ if waits => StepStands::Waits,
                Some(tick) if step.operation.word == PARTS_CHECKED && !missing.is_empty() && tick.note.trim().is_empty() => {
                    StepStands::Stopped
                }
                Some(tick) => by_answer(step, &tick.answer, &loose),
                None => StepStands::Open,
            };
            if step.operation.asks == Asks::Hold && stands != StepStands::Done {
                held.push(step.place);
            }
            steps.push(stands);
        }
        Standing { steps, loose, missing, customer: None }
    }

    /// The same while something on top wants the customer's yes or no: from where the work is, nothing more comes apart and nothing goes
    /// together. What is before that is still done, as is what follows once all of it is together.
    #[must_use]
    pub fn until_the_customer_answers(mut self, card: &Card) -> Self {
        let is_work = |step: &Step| (Phase::Apart..=Phase::Together).contains(&step.operation.phase);
        self.customer =
            card.steps.iter().zip(&self.steps).position(|(step, stands)| is_work(step) && *stands != StepStands::Done);
        let kept = self.customer.map(|from| self.steps.iter_mut().skip(from)).into_iter().flatten();
        kept.filter(|stands| **stands == StepStands::Open).for_each(|stands| *stands = StepStands::Waits);
        self
    }

    /// The first step that can be done now.
    pub fn next(&self) -> Option<usize> {
        self.steps.iter().position(|stands| matches!(stands, StepStands::Open | StepStands::Stopped))
    }

    /// Steps that are done.
    pub fn done(&self) -> usize {
        self.steps.iter().filter(|stands| **stands == StepStands::Done).count()
    }

    /// Whether all of it is done.
    pub fn is_done(&self) -> bool {
        self.done() == self.steps.len()
    }
}

fn last<'t>(ticks: &'t [TickEntry], key: &str) -> Option<&'t TickEntry> {
    let last = ticks.iter().rev().find(|tick| tick.step == key)?;
    (last.answer != Answer::TakenBack).then_some(last)
}

fn by_answer(step: &Step, answer: &Answer, loose: &[Loose]) -> StepStands {
    match (step.operation.asks, answer) {
        (_, Answer::No) => StepStands::Stopped,
        (Asks::Torque(_), Answer::Torque { target, read, .. }) => {
            let off = (read.si - target.si).abs();
            if off <= TORQUE_WITHIN * target.si { StepStands::Done } else { StepStands::Stopped }
        }
        // No figure, no release.
        (Asks::Torque(_), _) => StepStands::Open,
        (Asks::Hold, Answer::Yes) if step.operation.word == NOTHING_LOOSE && !loose.is_empty() => StepStands::Stopped,
        (Asks::Hold, Answer::Yes) => StepStands::Done,
        (Asks::Hold, _) => StepStands::Open,
        (Asks::Done | Asks::Picture, _) => StepStands::Done,
    }
}

/// What is loose or open by what was done, up to now.
fn loose(card: &Card, answers: &[Option<&TickEntry>]) -> Vec<Loose> {
    let mut loose: Vec<Loose> = Vec::new();
    for (step, answer) in card.steps.iter().zip(answers) {
        let done = answer.is_some_and(|tick| by_answer(step, &tick.answer, &[]) == StepStands::Done);
        if !done {
            continue;
        }
        for effect in step.operation.effects {
            let (of, is_loose) = match effect {
                Effect::Loosens(fastener) | Effect::Snug(fastener) => (Loose::Fastener(*fastener, step.place), true),
                Effect::Final(fastener) => (Loose::Fastener(*fastener, step.place), false),
                Effect::Opens(catch) => (Loose::Catch(*catch, step.place), true),
                // What one corner opened, its end closes.
                Effect::Closes(catch) => (Loose::Catch(*catch, step.place), false),
            };
            loose.retain(|there| !is_within(there, &of));
            if is_loose {
                loose.push(of);
            }
        }
    }
    loose
}

/// Whether something loose is of the same kind as another, at its place or inside it.
fn is_within(one: &Loose, other: &Loose) -> bool {
    let inside = |one: &Place, other: &Place| {
        (other.end.is_none() || one.end == other.end)
            && (other.axle.is_none() || one.axle == other.axle)
            && (other.side.is_none() || one.side == other.side)
    };
    match (one, other) {
        (Loose::Fastener(one, at), Loose::Fastener(other, place)) => one == other && inside(at, place),
        (Loose::Catch(one, at), Loose::Catch(other, place)) => one == other && inside(at, place),
        _ => false,
    }
}
