//! Where the rear sits by the account that is told alone: one solve, for who looks for a part among many.

use wise_badger_mechanics::correction::Correction;

use super::answer::Unpredicted;
use super::experiment::aboard;
use super::joint::Moment;
use super::model::end_mark;
use super::predictor::{Predictor, SAME_M, reaches_the_front};
use crate::survey::{End, Ends, LoadState};
use wise_badger_mechanics::correction::BUMP_STOP;
use wise_badger_mechanics::stance::Load;
use wise_badger_mechanics::units::{InShopUnits, Length};

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

    /// Where both ends stand in some moments with parts fitted, by the account that is told, with no band: laid out once for all of them.
    pub fn ends_at_best(&self, parts: &[Correction], moments: &[Moment<'_>]) -> Vec<Result<Ends<Option<Length>>, Unpredicted>> {
        let leading = match self.weighed() {
            Ok(weighed) => &weighed.leading().identified,
            Err(why) => return moments.iter().map(|_| Err(why)).collect(),
        };
        let loads: Vec<Option<Vec<Load>>> = moments
            .iter()
            .map(|moment| match moment {
                Moment::State(_) => None,
                Moment::Case(case) => Some(aboard(case, &case.axle_loads()).0.loads),
            })
            .collect();
        let base = |moment: &Moment<'_>| match moment {
            Moment::State(state) => *state,
            Moment::Case(_) => LoadState::Empty,
        };
        let asked: Vec<(usize, Option<&[Load]>)> =
            moments.iter().zip(&loads).map(|(moment, loads)| (self.index(base(moment)), loads.as_deref())).collect();
        let stances = leading.stands_with(&asked, |vehicle| self.changes(parts, vehicle));
        let each = moments.iter().zip(stances).map(|(moment, there)| {
            let state = base(moment);
            match moment {
                Moment::State(state) => self.may_be_predicted(parts, *state)?,
                Moment::Case(_) => self.goes_on(parts)?,
            }
            let there = there.map_err(|error| self.note(error))?;
            self.holds_where_it_stands(parts, leading, &there)?;
            let from = self.plain(state)?.leading();
            // A gap read in the state counts for more than one carried over from the empty one.
            let read = match moment {
                Moment::State(state) => self.survey.gap(*state).zip(self.least_gap(&from.stance, BUMP_STOP)),
                Moment::Case(_) => None,
            };
            let left = self.least_gap(&there, BUMP_STOP).map(|left| read.map_or(left, |(read, modelled)| read + left - modelled));
            if left.is_some_and(|left| left.si() < -SAME_M) {
                return Err(Unpredicted::OnTheStops);
            }
            let stands = |end: End| {
                let before = self.survey.height(end, state)?.value;
                let moves = end == End::Rear || matches!(moment, Moment::Case(_)) || reaches_the_front(parts);
                let mark = end_mark(&self.survey, end).filter(|_| moves);
                mark.map_or(Some(before), |mark| Some(before + from.higher_in(&there, &mark)?))
            };
            Ok(Ends { front: stands(End::Front), rear: stands(End::Rear) })
        });
        each.collect()
    }
}
