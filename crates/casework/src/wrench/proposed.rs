//! What is proposed on a job.

use super::apart::{PROPOSALS, Proposal};
use super::card::Card;
use super::needed::{Needed, What};
use crate::entry::WorkPlanEntry;

/// What is proposed with a card: what it opens the way to, and neither needs already nor has been asked about.
pub fn proposals<'c>(
    card: &'c Card,
    needed: &'c [Needed],
    kinds: &'c [&'static str],
    plan: &'c WorkPlanEntry,
) -> impl Iterator<Item = &'static Proposal> + 'c {
    let opens = |word: &str| card.steps.iter().any(|step| step.operation.word == word);
    let is_needed = |proposal: &Proposal| {
        let of_repairs = needed.iter().any(|needed| matches!(needed.what, What::Addition(of) if proposal.repairs.contains(&of)));
        of_repairs || proposal.kinds.iter().any(|kind| kinds.contains(kind))
    };
    let asked = |proposal: &Proposal| plan.extras.iter().any(|extra| extra.proposal == proposal.word);
    PROPOSALS.iter().filter(move |of| opens(of.opened_by) && !is_needed(of) && !asked(of))
}
