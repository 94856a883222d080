//! Whether a stop or an overload leaf may have borne unseen while a rate was measured from two states.

use wise_badger_mechanics::axle_rate::ContactSuspicion;
use wise_badger_mechanics::units::{Length, inches};

use super::rate::RateVerdict;
use crate::survey::{LoadState, Survey};

/// A stop that bears unseen makes a rate from two states about 30 % high (common practice).
const TELLING_TIMES: f64 = 1.25;
/// A stop that is clear by as much had no part in what was read (our own working rule).
const CLEAR_IN: f64 = 1.0;

/// What two states alone give reason to suspect; `None` where stop and overload leaf are both accounted for, or no rate was measured.
pub fn contact_suspicion(survey: &Survey, rate: &RateVerdict) -> Option<ContactSuspicion> {
    let figure = rate.measured().filter(|figure| figure.stages.is_none())?;
    // A gap read in both states has been weighed by the verdict on the rate already.
    let gaps_read = survey.gap(LoadState::Empty).is_some() && survey.gap(LoadState::Loaded).is_some();
    let leaf_seen = survey.overload_leaves.bears.get(LoadState::Loaded).is_some_and(Option::is_some);
    if gaps_read || (is_clear_of_the_stop(survey, rate) && leaf_seen) {
        return None;
    }
    let times = (figure.rate / survey.vehicle.assumptions().rear_rate).value;
    (times >= TELLING_TIMES).then_some(ContactSuspicion::StifferThanItsClass { times })
}

/// The gap left at the stops with the load on: as read, or what the springs leave of the one read empty.
pub fn gap_left(survey: &Survey, rate: &RateVerdict) -> Option<Length> {
    let by_travel = || Some(survey.gap(LoadState::Empty)? - rate.measured()?.springs_down());
    survey.gap(LoadState::Loaded).or_else(by_travel)
}

/// Whether so much is left that the stop had no part in what was read.
pub fn is_clear_of_the_stop(survey: &Survey, rate: &RateVerdict) -> bool {
    gap_left(survey, rate).is_some_and(|left| left > inches(CLEAR_IN))
}
