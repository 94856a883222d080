//! What was begun for other parts than those that are fitted now: it does not stay loose because its card is another.

use wise_badger_mechanics::side::Side;

use super::card::{Card, Place, Step};
use super::operation::{Each, Effect, Operation, Phase};
use super::operations::{NOTHING_LOOSE, OPERATIONS};
use super::standing::Standing;
use crate::entry::TickEntry;
use crate::survey::End;

impl Step {
    /// The step of a key; `None` where there is no such step.
    pub fn of_key(key: &str) -> Option<Self> {
        let (place, word) = key.rsplit_once('.').unwrap_or(("", key));
        let operation = Operation::of(word)?;
        let mut at = Place::default();
        for part in place.split('.').filter(|part| !part.is_empty()) {
            match part {
                "front" => at.end = Some(End::Front),
                "rear" => at.end = Some(End::Rear),
                "left" => at.side = Some(Side::Left),
                "right" => at.side = Some(Side::Right),
                axle => at.axle = Some(axle.parse().ok()?),
            }
        }
        Some(Step { operation, place: at })
    }
}

/// Adds to a card what was loosened or opened on the one before it and is not tight or closed again, each with the steps that make it so.
pub fn carry_over(card: &mut Card, ticks: &[TickEntry]) {
    let is_there = |steps: &[Step], key: &str| steps.iter().any(|step| step.key() == key);
    let mut before: Vec<Step> = Vec::new();
    for step in ticks.iter().filter_map(|tick| Step::of_key(&tick.step)) {
        let key = step.key();
        if step.operation.effects.iter().any(opens) && !is_there(&card.steps, &key) && !is_there(&before, &key) {
            before.push(step);
        }
    }
    let closing = |step: &Step| -> Vec<Step> {
        let closes =
            |operation: &&Operation| operation.phase < Phase::Drive && operation.effects.iter().any(|of| is_closed_by(step, of));
        let at = |operation: &'static Operation| {
            let side = step.place.side.filter(|_| operation.each == Each::Corner);
            let axle = step.place.axle.filter(|_| operation.each == Each::Corner);
            Step { operation, place: Place { side, axle, ..step.place } }
        };
        OPERATIONS.iter().filter(closes).map(at).collect()
    };
    let mut left: Vec<Step> = Vec::new();
    for step in before {
        let with: Vec<Step> = std::iter::once(step).chain(closing(&step)).collect();
        let alone = Card { steps: with.clone(), unknown: Vec::new() };
        if Standing::of(&alone, &[], ticks).loose.is_empty() {
            continue;
        }
        left.extend(with.into_iter().filter(|step| !is_there(&card.steps, &step.key())));
    }
    let mut keys: Vec<String> = Vec::new();
    left.retain(|step| {
        let key = step.key();
        let new = !keys.contains(&key);
        keys.push(key);
        new
    });
    left.sort_by_key(|step| OPERATIONS.iter().position(|operation| operation.word == step.operation.word));
    let place = card.steps.iter().position(|step| step.operation.word == NOTHING_LOOSE).unwrap_or(card.steps.len());
    card.steps.splice(place..place, left);
}

fn opens(effect: &Effect) -> bool {
    matches!(effect, Effect::Loosens(_) | Effect::Snug(_) | Effect::Opens(_))
}

fn is_closed_by(step: &Step, closing: &Effect) -> bool {
    step.operation.effects.iter().any(|effect| match (effect, closing) {
        (Effect::Loosens(one) | Effect::Snug(one), Effect::Final(other)) => one == other,
        (Effect::Opens(one), Effect::Closes(other)) => one == other,
        _ => false,
    })
}
