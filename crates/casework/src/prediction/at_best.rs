//! Where the rear sits by the account that is told alone: one solve, for who looks for a part among many.

use wise_badger_mechanics::correction::Correction;

use super::answer::Unpredicted;
use super::model::end_mark;
use super::predictor::Predictor;
use crate::survey::{End, LoadState};
use wise_badger_mechanics::units::Length;

impl Predictor {
    /// Where the rear sits in a state with parts fitted by the account that is told, with no band: what [`Self::predict`] says of it.
    ///
    /// # Errors     [`Unpredicted`] as of a prediction
    pub fn height_at_best(&self, parts: &[Correction], state: LoadState) -> Result<Length, Unpredicted> {
        self.may_be_predicted(parts, state)?;
        let before = self.survey.height(End::Rear, state).ok_or(Unpredicted::NotMeasured)?;
        let (from, leading) = (self.plain(state)?.leading(), &self.weighed()?.leading().identified);
        let there = leading.stand(self.index(state), |vehicle| self.changes(parts, vehicle)).map_err(|error| self.note(error))?;
        self.holds_where_it_stands(parts, leading, &there)?;
        let mark = end_mark(&self.survey, End::Rear).ok_or(Unpredicted::NotSolved)?;
        Ok(before.value + from.higher_in(&there, &mark).ok_or(Unpredicted::NotSolved)?)
    }
}
