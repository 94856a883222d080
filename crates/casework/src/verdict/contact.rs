//! Whether a stop or an overload leaf may have borne unseen while a rate was measured from two states.

use wise_badger_mechanics::axle_rate::ContactSuspicion;

use super::rate::RateVerdict;
use crate::survey::Survey;

/// A stop that bears unseen makes a rate from two states about 30 % high (common practice).
const TELLING_TIMES: f64 = 1.25;
/// What two states alone give reason to suspect; `None` where a stop gap clears it, or no rate was measured.
pub fn contact_suspicion(survey: &Survey, rate: &RateVerdict) -> Option<ContactSuspicion> {
    // A gap read in either state has been weighed by the verdict on the rate already.
    let gap_read = survey.states().any(|state| survey.gap(state).is_some());
    let figure = rate.measured().filter(|figure| !gap_read && figure.stages.is_none())?;
    let times = (figure.rate / survey.vehicle.assumptions().rear_rate).value;
    (times >= TELLING_TIMES).then_some(ContactSuspicion::StifferThanItsClass { times })
}
