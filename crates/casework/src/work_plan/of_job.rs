//! The work of a job, reckoned together.

use super::hours::{Conditions, Hours, hours_of, minutes_of, shelf_scale};
use crate::casework::Casework;
use crate::entry::{ExtraEntry, TickEntry};
use crate::wrench::{Card, Lifting, Needed, Proposal, Standing, Step, lifting};

/// What is to be done on a job, and how long that takes.
#[derive(Debug, Clone)]
pub struct PlannedWork {
    /// The steps.
    pub card: Card,
    /// What it needs.
    pub needed: Vec<Needed>,
    /// What of it is not ticked as here.
    pub missing: Vec<String>,
    /// Under what it is done.
    pub conditions: Conditions,
    /// The shop's own hours for the parts, together, where it said them of each.
    pub by_the_shelf: Option<f64>,
    /// What is paid for: hours of one person.
    pub labor: Hours,
    /// How long the bay waits, the drive with it.
    pub in_the_bay: Hours,
    /// By how much the shop's own hours differ from those by the steps.
    scale: f64,
}

impl PlannedWork {
    /// The work of what is chosen on a job.
    pub fn of(work: &Casework, ticks: &[TickEntry]) -> Self {
        let plan = &work.case().work_plan;
        let card = Card::of_job(work, ticks);
        let needed = work.case().chosen.map(|place| Needed::of(work, place, &card)).unwrap_or_default();
        let missing = Standing::of(&card, &needed, ticks).missing;
        let on_a_lift = lifting(work, ticks) == Some(Lifting::Lift);
        let conditions = Conditions::of(plan, on_a_lift, work.found().vehicle.class.is_trailer());
        let shelf = work.chosen().map(|(option, _)| option.parts.as_slice()).unwrap_or_default();
        let hours = shelf.iter().map(|part| part.shelf.as_deref()?.hours);
        let by_the_shelf = hours.sum::<Option<f64>>().filter(|hours| *hours > 0.0);
        let scale = shelf_scale(&Card::of_parts(work), by_the_shelf);
        let people = if plan.two_people { 2.0 } else { 1.0 };
        // What has steps of its own on the card is in them.
        let has_steps = |extra: &&ExtraEntry| Proposal::of(&extra.proposal).and_then(Proposal::repair).is_some();
        let agreed = plan.extras.iter().filter(|extra| extra.agreed == Some(true) && !has_steps(extra));
        let on_top = Hours::exactly(agreed.filter_map(|extra| extra.hours).sum());
        let by_steps = hours_of(&card, conditions, false).times(scale);
        let labor = plan.quoted_hours.map_or_else(|| by_steps.times(people).and(on_top).to_the_quarter(), Hours::exactly);
        let drive = hours_of(&card, conditions, true).likely - hours_of(&card, conditions, false).likely;
        let in_the_bay = labor.times(1.0 / people).and(Hours::exactly(drive));
        PlannedWork { card, needed, missing, conditions, by_the_shelf, labor, in_the_bay, scale }
    }

    /// What a proposal takes on top, in hours of one person.
    pub fn on_top(&self, work: &Casework, ticks: &[TickEntry], proposal: &Proposal) -> f64 {
        let Some(repair) = proposal.repair() else { return proposal.hours };
        let of = |card: &Card| hours_of(card, self.conditions, false).likely * self.scale;
        let people = if self.conditions.two_people { 2.0 } else { 1.0 };
        (of(&Card::with(work, ticks, Some(repair))) - of(&self.card)) * people
    }

    /// What a step takes by the clock, in minutes.
    pub fn minutes(&self, step: &Step) -> f64 {
        let minutes = minutes_of(step.operation, self.conditions).unwrap_or(0.0);
        // The drive is as long whatever is fitted.
        if step.operation.word == DRIVE { minutes } else { minutes * self.scale }
    }
}

/// The step that is no work at the vehicle.
const DRIVE: &str = "driven";
