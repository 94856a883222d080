//! What comes before any spring.

use wise_badger_mechanics::units::{Force, inches};

use crate::aim::{Aim, AimVerdict, GoalCase, contradiction};
use crate::case::PlannedCase;
use crate::casework::{Casework, NothingFits};
use crate::prediction::Story;
use crate::survey::{End, LoadState};
use crate::verdict::{Cause, RateVerdict, RatingCheck};

/// What leads, before any option.
#[derive(Debug, Clone, Copy, PartialEq)]
#[non_exhaustive]
pub enum Lead {
    /// A rating is passed: something comes off first, and no spring changes that.
    OverARating,
    /// Something found has to be put right first.
    RepairFirst,
    /// There are no heights to go by.
    Measure,
    /// No goal says what is wanted.
    NoAim,
    /// Two goals cannot both be met, by their places.
    AimContradicts(usize, usize),
    /// It stands as it should already.
    MeetsTheAim,
    /// A rating is passed in a case of the load plan, by its key; whether a goal speaks of that case.
    CaseOverARating(u8, bool),
    /// A rating is passed as far as assumed weights go.
    WeighFirst,
    /// Its stops bear: the readings say nothing of its springs.
    OnItsStops,
    /// The readings are too weak to tell the springs; with so much on they would be.
    TooWeak(Option<Force>),
    /// A reading does not go with the others.
    ReadingDoesNotFit,
    /// Something else than the springs is likely to bear: the reading that tells it.
    Suspected(Story),
    /// The weight behind the rear axle lifts the front: move it, or hitch it otherwise.
    WeightBehind,
    /// The load sits to one side: move it.
    LoadToOneSide,
    /// The pack lives on its overload leaf.
    OnTheOverloadLeaf,
    /// A case that a goal speaks of comes later: it is decided again once that is aboard and weighed.
    Later(u8),
    /// Nothing on the shelf is allowed.
    NothingAllowed,
}

impl Lead {
    /// The word it goes by in documents.
    pub fn word(&self) -> &'static str {
        match self {
            Lead::OverARating => "over_a_rating",
            Lead::RepairFirst => "repair_first",
            Lead::Measure => "measure_first",
            Lead::NoAim => "no_aim",
            Lead::AimContradicts(..) => "aim_contradicts_itself",
            Lead::MeetsTheAim => "meets_the_aim_already",
            Lead::CaseOverARating(..) => "a_case_over_a_rating",
            Lead::WeighFirst => "weigh_first",
            Lead::OnItsStops => "on_its_stops",
            Lead::TooWeak(_) => "readings_too_weak",
            Lead::ReadingDoesNotFit => "a_reading_does_not_fit",
            Lead::Suspected(_) => "something_else_may_bear",
            Lead::WeightBehind => "weight_behind_the_axle",
            Lead::LoadToOneSide => "load_to_one_side",
            Lead::OnTheOverloadLeaf => "on_the_overload_leaf",
            Lead::Later(_) => "comes_later",
            Lead::NothingAllowed => "nothing_allowed",
        }
    }

    /// Whether no option is proposed before it is settled.
    pub fn bars_everything(&self) -> bool {
        matches!(
            self,
            Lead::OverARating
                | Lead::CaseOverARating(_, true)
                | Lead::RepairFirst
                | Lead::Measure
                | Lead::NoAim
                | Lead::AimContradicts(..)
                | Lead::MeetsTheAim
        )
    }
}

/// Every one that holds, the weightiest first.
pub(super) fn leads(work: &Casework) -> Vec<Lead> {
    let mut leads = Vec::new();
    match work.nothing_fits() {
        Some(NothingFits::OverARating) => leads.push(Lead::OverARating),
        Some(NothingFits::Stopped) => leads.push(Lead::RepairFirst),
        None => {}
    }
    let survey = work.found();
    if survey.height(End::Rear, LoadState::Empty).is_none() && survey.height(End::Rear, LoadState::Loaded).is_none() {
        leads.push(Lead::Measure);
    }
    leads.extend(of_the_aim(work));
    leads.extend(cases_over_a_rating(work));
    if leads.iter().any(Lead::bars_everything) {
        return leads;
    }
    if work.weigh_first().is_some() {
        leads.push(Lead::WeighFirst);
    }
    match work.predictor().two_states() {
        RateVerdict::OnTheStops { .. } => leads.push(Lead::OnItsStops),
        RateVerdict::TooWeak { load_needed, .. } => leads.push(Lead::TooWeak(Some(*load_needed))),
        _ => {
            if let RateVerdict::TooWeak { load_needed, .. } = work.rate() {
                leads.push(Lead::TooWeak(Some(*load_needed)));
            }
        }
    }
    leads.extend(match work.predictor().suspects() {
        Some(Story::Misread(_)) => Some(Lead::ReadingDoesNotFit),
        Some(story) => Some(Lead::Suspected(story)),
        None => None,
    });
    let likely = |cause| work.causes().iter().any(|judged| judged.cause == cause && judged.is_likely());
    for (cause, lead) in [
        (Cause::WeightBehind, Lead::WeightBehind),
        (Cause::LeanByLoad, Lead::LoadToOneSide),
        (Cause::OnTheOverloadLeaf, Lead::OnTheOverloadLeaf),
    ] {
        if likely(cause) {
            leads.push(lead);
        }
    }
    let later = work.cases().iter().filter(|case| case.later);
    let spoken_of = later.filter(|case| work.goals().any(|goal| goal.when() == GoalCase::Planned(case.key)));
    leads.extend(spoken_of.map(|case| Lead::Later(case.key)));
    leads
}

/// The cases of the plan in which a rating is surely passed: what is promised of one of them would be promised of an overload.
fn cases_over_a_rating(work: &Casework) -> impl Iterator<Item = Lead> {
    let over =
        |case: &&PlannedCase| RatingCheck::of_state(&case.survey, LoadState::Loaded).iter().any(RatingCheck::is_surely_over);
    work.cases().iter().filter(over).map(|case| {
        let spoken_of = work.goals().any(|goal| goal.when() == GoalCase::Planned(case.key));
        Lead::CaseOverARating(case.key, spoken_of)
    })
}

fn of_the_aim(work: &Casework) -> Option<Lead> {
    let goals: Vec<Aim> = work.goals().collect();
    if goals.is_empty() {
        return Some(Lead::NoAim);
    }
    if let Some((one, other)) = contradiction(&goals, work.found()) {
        return Some(Lead::AimContradicts(one, other));
    }
    // As finely as heights are printed.
    let step = inches(1.0 / 16.0);
    let met = |place| matches!(work.as_found(place, step), Some(AimVerdict::Meets | AimVerdict::LikelyMeets));
    (0..goals.len()).all(met).then_some(Lead::MeetsTheAim)
}
