//! How far parts lift the rear in a load case, beside how it stands there without them.

use wise_badger_mechanics::correction::Correction;
use wise_badger_mechanics::stance::{Load, Vehicle};
use wise_badger_mechanics::uncertain::Uncertain;
use wise_badger_mechanics::units::Length;

use super::answer::Unpredicted;
use super::experiment::aboard;
use super::model::end_mark;
use super::parts_off::PartsOff;
use super::predictor::{Passage, Predictor};
use crate::survey::{End, LoadState, Survey};

impl Predictor {
    /// How far parts lift the rear in a case: rate, stages and stops by every account, the parts' own doubt, and that what is aboard is
    /// heavier or lighter than told. What the rear stands at in the case by itself is not in it.
    ///
    /// # Errors     [`Unpredicted`] as of a case
    pub fn rises_in_case(&self, case: &Survey, parts: &[Correction]) -> Result<Uncertain<Length>, Unpredicted> {
        let weighed = self.weighed()?;
        self.goes_on(parts)?;
        let loads = self.loads_of(case);
        let index = self.index(LoadState::Empty);
        let changes = |vehicle: &Vehicle| self.changes(parts, vehicle);
        let from = weighed.with_loads(index, &loads, |_| Vec::new()).map_err(|error| self.note(error))?;
        let to = weighed.with_loads(index, &loads, changes).map_err(|error| self.note(error))?;
        let leading = &weighed.leading().identified;
        self.holds_where_it_stands(parts, leading, &to.leading().stance)?;
        let solve = |parts: &[Correction]| vec![leading.stand_with_loads(index, &loads, |vehicle| self.changes(parts, vehicle))];
        let off = PartsOff::of_each(parts, 1, solve).pop().ok_or(Unpredicted::NotSolved)?.map_err(|error| self.note(error))?;
        let rise =
            self.rise(weighed, &Passage { from: &from, to: &to, off: &off, parts }, End::Rear).ok_or(Unpredicted::NotSolved)?;
        let part = end_mark(&self.survey, End::Rear).map_or(Length::default(), |mark| off.sd(to.leading(), &mark));
        // What carries past a gap alone lifts more where more is aboard.
        let told = case.axle_loads().change.rear.filter(|change| change.value.value > 0.0);
        let by_load = told.map_or(Ok(Length::default()), |change| {
            let share = (change.sd / change.value).value.min(1.0);
            let [more, less] = [1.0 + share, 1.0 - share].map(|times| self.case_rise_at_best(&scaled(&loads, times), parts));
            Ok((more? - less?).abs() / 2.0)
        })?;
        Ok(Uncertain::new(rise.value, Length::hypot(Length::hypot(rise.sd, part), by_load)))
    }

    /// The same by the account that is told alone, with no band.
    ///
    /// # Errors     [`Unpredicted`] as of a case
    pub fn rises_in_case_at_best(&self, case: &Survey, parts: &[Correction]) -> Result<Length, Unpredicted> {
        self.goes_on(parts)?;
        self.case_rise_at_best(&self.loads_of(case), parts)
    }

    fn loads_of(&self, case: &Survey) -> Vec<Load> {
        aboard(case, &case.axle_loads()).0.loads
    }

    fn case_rise_at_best(&self, loads: &[Load], parts: &[Correction]) -> Result<Length, Unpredicted> {
        let (index, leading) = (self.index(LoadState::Empty), &self.weighed()?.leading().identified);
        let stand = |parts: &[Correction]| {
            leading.stand_with_loads(index, loads, |vehicle| self.changes(parts, vehicle)).map_err(|error| self.note(error))
        };
        let (from, to) = (stand(&[])?, stand(parts)?);
        self.holds_where_it_stands(parts, leading, &to)?;
        let mark = end_mark(&self.survey, End::Rear).ok_or(Unpredicted::NotSolved)?;
        mark.rise(&from, &to).ok_or(Unpredicted::NotSolved)
    }
}

fn scaled(loads: &[Load], times: f64) -> Vec<Load> {
    loads.iter().map(|load| Load { weight: load.weight * times, ..*load }).collect()
}
