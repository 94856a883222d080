//! What comes before any spring.

use wise_badger_mechanics::units::{Force, Length, inches};

use crate::aim::{Aim, AimVerdict, GoalCase, GoalMark, contradiction};
use crate::case::PlannedCase;
use crate::casework::{Casework, NothingFits};
use crate::prediction::Story;
use crate::survey::{End, LoadState, SpringKind};
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
    /// An end that the aim speaks of rests on air springs, whose height is their valve's.
    OnAir(End),
    /// A goal speaks of a state in which nobody said what was put on.
    LoadNotTold(LoadState),
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
    /// A trailer's springs hang under its axle, and it is wanted higher by so much, as far as setting them over it may do.
    SpringsUnder(Length),
    /// A case that a goal speaks of comes later: it is decided again once that is aboard and weighed.
    Later(u8),
    /// It stands higher than a goal wants it, by its place, and by so much: what lifts only makes that worse.
    StandsTooHigh(usize, Length),
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
            Lead::OnAir(_) => "on_air_springs",
            Lead::LoadNotTold(_) => "load_not_told",
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
            Lead::SpringsUnder(_) => "springs_could_go_over",
            Lead::Later(_) => "comes_later",
            Lead::StandsTooHigh(..) => "stands_too_high",
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
                | Lead::OnAir(_)
                | Lead::LoadNotTold(_)
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
    leads.extend(on_air(work));
    leads.extend(of_the_aim(work));
    leads.extend(load_not_told(work));
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
    leads.extend(springs_under(work));
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

/// The end on air springs that a goal speaks of: the rear, of all but what is wanted of the front alone.
fn on_air(work: &Casework) -> Option<Lead> {
    let springs = &work.found().vehicle.springs;
    let speaks_of = |end: End| {
        work.goals().any(|goal| match goal.wanted(work.found()).map(|(mark, ..)| mark) {
            Some(GoalMark::Front) => end == End::Front,
            Some(GoalMark::Lean(of)) => end == of,
            _ => end == End::Rear,
        })
    };
    [End::Rear, End::Front]
        .into_iter()
        .find(|end| *springs.get(*end) == Some(SpringKind::Air) && speaks_of(*end))
        .map(Lead::OnAir)
}

/// A state that was read, and that a goal speaks of, with nothing said of what was put on.
fn load_not_told(work: &Casework) -> Option<Lead> {
    let survey = work.found();
    let untold = |state| survey.height(End::Rear, state).is_some() && survey.axle_loads_in(state).is_none();
    work.goals().find_map(|goal| match goal.when() {
        GoalCase::State(state) => untold(state).then_some(Lead::LoadNotTold(state)),
        GoalCase::Planned(_) => None,
    })
}

/// A lift that leaves and blocks do leaves the springs where they are (our own working rule).
const A_LIFT_OF_ITS_OWN_IN: f64 = 2.0;

/// Springs that go over the axle of a trailer lift it by tube and pack together, which no part on the shelf says and the tape does.
fn springs_under(work: &Casework) -> Option<Lead> {
    let vehicle = &work.found().vehicle;
    let hang = vehicle.class.is_trailer()
        && matches!(vehicle.springs.rear, None | Some(SpringKind::Leaf))
        && vehicle.rear_spring_over == Some(false);
    let short = |(place, goal): (usize, Aim)| {
        let of_the_rear = goal.wanted(work.found()).is_some_and(|(mark, _)| mark == GoalMark::Rear);
        work.above_goal(place).filter(|_| of_the_rear).map(|above| -above)
    };
    let wanted = work.goals().enumerate().filter_map(short).find(|wanted| *wanted >= inches(A_LIFT_OF_ITS_OWN_IN))?;
    hang.then_some(Lead::SpringsUnder(wanted))
}

/// What leads where nothing is allowed, besides that: parts hang on a rate that nothing read tells, or nothing has to be lifted.
pub(super) fn why_nothing(work: &Casework, wants_the_rate: bool, told: &[Lead]) -> Vec<Lead> {
    let too_weak = wants_the_rate && !told.iter().any(|lead| matches!(lead, Lead::TooWeak(_)));
    let too_high = too_high(work).map(|(place, off)| Lead::StandsTooHigh(place, off));
    too_weak.then_some(Lead::TooWeak(None)).into_iter().chain(too_high).chain([Lead::NothingAllowed]).collect()
}

/// The goal that asks it to come down, and by how much.
fn too_high(work: &Casework) -> Option<(usize, Length)> {
    work.goals().enumerate().find_map(|(place, goal)| {
        let of_a_height = matches!(goal.wanted(work.found())?.0, GoalMark::Front | GoalMark::Rear | GoalMark::Rake);
        let above = work.above_goal(place).filter(|above| of_a_height && *above > Length::default())?;
        Some((place, above))
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
