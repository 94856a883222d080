//! Where the vehicle will sit with a correction fitted, and how sure that is.

use std::sync::OnceLock;

use wise_badger_mechanics::correction::{Axles, BUMP_STOP, Correction};
use wise_badger_mechanics::identification::{IdentificationError, Identified, Moving};
use wise_badger_mechanics::side::Side;
use wise_badger_mechanics::stance::{AxleStance, Change, Load, Vehicle};
use wise_badger_mechanics::uncertain::Uncertain;
use wise_badger_mechanics::units::{Force, InShopUnits, Length, metres, newtons};

use super::answer::{CaseHeights, PredictedState, Prediction, Unpredicted};
use super::experiment::{aboard, is_weighed, on_its_stops};
use super::model::{FRONT, end_mark, rear_axles};
use super::parts_off::PartsOff;
use super::rate::agreed;
use super::weighed::{CLEARLY, Standing, Story, Weighed};
use crate::survey::{AxleLoads, End, Ends, LoadState, States, Survey};
use crate::verdict::RateVerdict;

/// Two answers closer than this are the same answer.
pub(super) const SAME_M: f64 = 1e-4;

/// Predicts corrections on one survey. The vehicle behind the readings is looked for once, when it is first asked for.
#[derive(Debug)]
pub struct Predictor {
    pub(super) survey: Survey,
    loads: AxleLoads,
    /// What two states of the rear alone say: what of the readings can be set against the springs.
    two_states: RateVerdict,
    /// The vehicle as the readings make it, by every account of them.
    weighed: OnceLock<Result<Box<Weighed>, Unpredicted>>,
    /// The first thing that could not be worked out.
    failure: OnceLock<IdentificationError>,
    rate: OnceLock<RateVerdict>,
    /// Where it stands without any correction: the same for all of them.
    plain: States<OnceLock<Result<Standing, Unpredicted>>>,
}

/// Where it stands in a state with parts fitted, with what the parts leave open of that.
type Fitted = Result<(Standing, PartsOff), Unpredicted>;

/// From one forecast to another, with what the roll of the body leaves open.
pub(super) struct Passage<'a> {
    pub(super) from: &'a Standing,
    pub(super) to: &'a Standing,
    /// Where it would lead were the parts not quite what was said of them.
    pub(super) off: &'a PartsOff,
    /// The parts.
    pub(super) parts: &'a [Correction],
}

impl Passage<'_> {
    /// What the parts themselves leave open of a mark.
    fn part_sd(&self, survey: &Survey, end: End) -> Length {
        end_mark(survey, end).map_or(metres(0.0), |mark| self.off.sd(self.to.leading(), &mark))
    }
}

/// The front with parts fitted, and how sure it would be were the parts exact.
#[derive(Clone, Copy)]
struct FrontHeight {
    height: Uncertain<Length>,
    own_sd: Length,
}

/// Whether any of the parts goes on the front axle.
pub(super) fn reaches_the_front(parts: &[Correction]) -> bool {
    parts.iter().any(|part| part.site().axles == Axles::Front)
}

/// The element whose clearance tells how much travel is left at the rear.
fn travel_element(parts: &[Correction]) -> &'static str {
    parts.iter().find(|part| part.replaces_stops()).map_or(BUMP_STOP, Correction::travel_element)
}

impl Predictor {
    /// A predictor for a survey.
    pub fn new(survey: &Survey) -> Self {
        let (survey, loads, two_states) = (survey.clone(), survey.axle_loads(), RateVerdict::of_two_states(survey));
        let plain = States::from_fn(survey.further.iter().map(|further| further.key), |_| OnceLock::new());
        Predictor { survey, loads, two_states, weighed: OnceLock::new(), failure: OnceLock::new(), rate: OnceLock::new(), plain }
    }

    /// What empty and loaded alone say of the rear rate, whatever leaves or class would make it.
    pub fn two_states(&self) -> &RateVerdict {
        &self.two_states
    }

    /// The survey that it predicts from.
    pub fn survey(&self) -> &Survey {
        &self.survey
    }

    /// The rear rate: that of the vehicle which agrees best with all readings, or why there is none.
    ///
    /// Whatever says a rate says this one, so that no figure worked out from it can be at odds with another.
    pub fn rate(&self) -> &RateVerdict {
        let agreed = || {
            let figure = self.two_states.measured()?;
            let (weighed, empty) = (self.weighed().ok()?, self.plain(LoadState::Empty).ok()?);
            agreed(&self.survey, figure, weighed, empty, self.plain(LoadState::Loaded).ok()?)
        };
        self.rate.get_or_init(|| agreed().unwrap_or(self.two_states))
    }

    /// What could be going on with the rear, and how likely each of it is once the readings are weighed; the likeliest first. Empty
    /// where nothing could be worked out.
    pub fn odds(&self) -> Vec<(Story, f64)> {
        self.weighed().map(Weighed::odds).unwrap_or_default()
    }

    /// What else than the springs alone is likely enough to be suspected: the point of the table of truth.
    pub fn suspects(&self) -> Option<Story> {
        self.odds().first().filter(|(story, odds)| *story != Story::OneRate && *odds > CLEARLY).map(|(story, _)| *story)
    }

    /// Whether by the account that is told stops push back, though nobody read that they do: what lifts the vehicle may come off one
    /// first, and then lifts by less.
    pub fn tells_of_a_stop(&self) -> bool {
        self.weighed().is_ok_and(|weighed| weighed.leading().has_a_stop)
    }

    /// Whether two states tell a rate at all, so that the stories behind it are worth telling apart.
    pub fn weighs_stories(&self) -> bool {
        self.two_states.measured().is_some()
    }

    /// What was met on the way that could not be worked out, where anything was: the cause of a [`Unpredicted`].
    pub fn failure(&self) -> Option<&IdentificationError> {
        self.failure.get()
    }

    pub(super) fn weighed(&self) -> Result<&Weighed, Unpredicted> {
        let look = || {
            let found = Weighed::of(&self.survey, &self.loads, &self.two_states);
            found.map(Box::new).map_err(|error| {
                self.note(error);
                Unpredicted::NotIdentified
            })
        };
        self.weighed.get_or_init(look).as_deref().map_err(|why| *why)
    }

    /// Keeps the first cause, and says in short what it comes to.
    pub(super) fn note(&self, error: IdentificationError) -> Unpredicted {
        let short = match error {
            IdentificationError::Tips(_) => Unpredicted::DoesNotStand,
            _ => Unpredicted::NotSolved,
        };
        self.failure.get_or_init(|| error);
        short
    }

    /// Where the rear sits in every state with a correction fitted.
    ///
    /// The height is the measured one plus the rise that the stance model gives between the vehicle
    /// without and with the correction, by the leading account of the readings. Rate, load, tyre, friction and readings are one vehicle
    /// by each account, so that their errors are carried through together: a block's rise comes out exact even where the rate is
    /// poorly known. The band is as wide as all accounts together make it.
    ///
    /// # Source     first-order propagation with correlated inputs, JCGM 100:2008 (GUM), 5.2
    pub fn predict(&self, fitted: &(impl AsRef<[Correction]> + ?Sized)) -> Prediction {
        self.predict_set(|_| fitted)
    }

    /// The same where what is fitted is set otherwise in some states.
    pub fn predict_set<'c, P: AsRef<[Correction]> + ?Sized + 'c>(&self, set: impl Fn(LoadState) -> &'c P) -> Prediction {
        let parts_in = |state| set(state).as_ref();
        let may_be: Vec<(LoadState, Result<(), Unpredicted>)> =
            self.survey.states().map(|state| (state, self.may_be_predicted(parts_in(state), state))).collect();
        let mut fitted = self.fitted(may_be.iter().filter(|(_, may)| may.is_ok()).map(|(state, _)| (*state, parts_in(*state))));
        let further = self.survey.further.iter().map(|further| further.key);
        States::from_fn(further, |state| {
            let (_, may) = may_be.iter().find(|(of, _)| *of == state).ok_or(Unpredicted::NotMeasured)?;
            (*may)?;
            let place = fitted.iter().position(|(of, _)| *of == state).ok_or(Unpredicted::NotMeasured)?;
            let (standing, off) = fitted.swap_remove(place).1?;
            self.predict_state(parts_in(state), state, &standing, &off)
        })
    }

    /// Where the vehicle stands with parts fitted in each of some states, and what the parts leave open of that: solved together where
    /// what is fitted is the same.
    fn fitted<'c>(&self, states: impl Iterator<Item = (LoadState, &'c [Correction])>) -> Vec<(LoadState, Fitted)> {
        let mut alike: Vec<(&[Correction], Vec<LoadState>)> = Vec::new();
        for (state, parts) in states {
            match alike.iter_mut().find(|(of, _)| std::ptr::eq(*of, parts)) {
                Some((_, states)) => states.push(state),
                None => alike.push((parts, vec![state])),
            }
        }
        let of_group = |(parts, states): (&[Correction], Vec<LoadState>)| -> Vec<(LoadState, Fitted)> {
            let weighed = match self.weighed() {
                Ok(weighed) => weighed,
                Err(why) => return states.into_iter().map(|state| (state, Err(why))).collect(),
            };
            let places: Vec<usize> = states.iter().map(|state| self.index(*state)).collect();
            let standing = weighed.fitted(&places, |vehicle| self.changes(parts, vehicle));
            let leading = &weighed.leading().identified;
            let solve = |parts: &[Correction]| leading.stands(&places, |vehicle| self.changes(parts, vehicle));
            let off = PartsOff::of_each(parts, places.len(), solve);
            let both = standing.into_iter().zip(off).map(|(standing, off)| {
                let standing = standing.map_err(|error| self.note(error))?;
                Ok((standing, off.map_err(|error| self.note(error))?))
            });
            states.into_iter().zip(both).collect()
        };
        alike.into_iter().flat_map(of_group).collect()
    }

    /// Where the rear would sit loaded with less weight on it, nothing fitted.
    ///
    /// `None` without a measured rate, or where nothing would be left of the load.
    pub fn rear_with_less(&self, rear_relief: Force) -> Option<Length> {
        self.rate().measured()?;
        let left = self.loads.change.rear?.value - rear_relief;
        if left <= newtons(0.0) {
            return None;
        }
        let height = self.survey.height(End::Rear, LoadState::Loaded)?.value;
        let less = vec![Load::at(left, self.survey.vehicle.wheelbase)];
        let weighed = self.weighed().ok()?;
        let lighter = weighed.with_loads(self.index(LoadState::Loaded), &less, |_| Vec::new()).ok()?;
        let rear = end_mark(&self.survey, End::Rear)?;
        Some(height + weighed.rise(self.plain(LoadState::Loaded).ok()?, &lighter, &rear)?.value)
    }

    /// Where it stands in another load case, as it is or with a correction fitted.
    ///
    /// The height read empty, plus the change that the stance model gives from empty to that case. A rate that was not
    /// measured is the class's, and its 35 % are in the band.
    ///
    /// # Errors     [`Unpredicted`] where empty heights are missing, the stops would bear, or the model has no standing answer
    pub fn in_case(&self, case: &Survey, fitted: &(impl AsRef<[Correction]> + ?Sized)) -> Result<CaseHeights, Unpredicted> {
        let fitted = fitted.as_ref();
        let empty = self.survey.height(End::Rear, LoadState::Empty).ok_or(Unpredicted::NotMeasured)?;
        let weighed = self.weighed()?;
        let from = self.plain(LoadState::Empty)?;
        self.goes_on(fitted)?;
        let case_loads = case.axle_loads();
        let loads = aboard(case, &case_loads).0.loads;
        let index = self.index(LoadState::Empty);
        let changes = |vehicle: &Vehicle| self.changes(fitted, vehicle);
        let there = weighed.with_loads(index, &loads, changes).map_err(|error| self.note(error))?;
        let leading = &weighed.leading().identified;
        self.holds_where_it_stands(fitted, leading, &there.leading().stance)?;
        let solve = |parts: &[Correction]| vec![leading.stand_with_loads(index, &loads, |vehicle| self.changes(parts, vehicle))];
        let off = PartsOff::of_each(fitted, 1, solve).pop().ok_or(Unpredicted::NotSolved)?;
        let off = off.map_err(|error| self.note(error))?;
        let change = Passage { from, to: &there, off: &off, parts: fitted };
        let rise = self.rise(weighed, &change, End::Rear).ok_or(Unpredicted::NotSolved)?;
        let value = empty.value + rise.value;
        // The loads of a case are as doubtful as they are; the springs turn that into height.
        let from_load = |end| {
            let load_sd = case_loads.change.get(end).map_or(0.0, |change| change.sd.si());
            metres(load_sd / self.rate_under_a_load(&there, end))
        };
        let at_rest = self.at_rest_sd(weighed, &there, End::Rear, LoadState::Empty, empty, value);
        let spread = Length::hypot(at_rest, from_load(End::Rear));
        let front = self.survey.height(End::Front, LoadState::Empty);
        let front = match end_mark(&self.survey, End::Front) {
            None => front,
            Some(_) => front.zip(self.rise(weighed, &change, End::Front)).map(|(empty, rise)| {
                let from_load = Length::hypot(from_load(End::Front), change.part_sd(&self.survey, End::Front));
                let friction = self.friction_sd(weighed, there.leading(), End::Front, self.survey.manner(LoadState::Empty));
                let read = Length::hypot(empty.sd, friction);
                Uncertain::new(empty.value + rise.value, Length::hypot(Length::hypot(read, rise.sd), from_load))
            }),
        };
        let travel_left = self.least_gap(&there.leading().stance, travel_element(fitted));
        // The stop of the model has no force of its own: where it would bear, the height is not known.
        if self.least_gap(&there.leading().stance, BUMP_STOP).is_some_and(|left| left.si() < 0.0) {
            return Err(Unpredicted::OnTheStops);
        }
        let rolled = |stiffer: &[Change]| {
            let from = leading.forecast(index, |_| stiffer.to_vec()).ok();
            let changes = |vehicle: &Vehicle| [&self.changes(fitted, vehicle)[..], stiffer].concat();
            from.zip(leading.forecast_with_loads(index, &loads, Moving::Everything, changes).ok())
        };
        let rear = self.sides(weighed, &change, End::Rear, LoadState::Empty, spread, rolled);
        Ok(CaseHeights {
            rear: Uncertain::new(value, Length::hypot(spread, change.part_sd(&self.survey, End::Rear))),
            rear_sides: rear.map(|rear| rear.sides),
            rear_lean: rear.map(|rear| rear.lean),
            front,
            travel_left,
            rate_measured: self.rate().measured().is_some(),
        })
    }

    /// Whether a state was read well enough to say where it would stand with parts fitted, as far as that is seen before anything is
    /// solved.
    pub(super) fn may_be_predicted(&self, parts: &[Correction], state: LoadState) -> Result<(), Unpredicted> {
        self.survey.height(End::Rear, state).ok_or(Unpredicted::NotMeasured)?;
        if state == LoadState::Loaded {
            if self.loads.change.rear.is_none() {
                return Err(Unpredicted::NotMeasured);
            }
            if matches!(self.two_states, RateVerdict::OnTheStops { .. }) {
                return Err(Unpredicted::OnTheStops);
            }
        }
        if let LoadState::Further(_) = state {
            self.survey.axle_loads_in(state).ok_or(Unpredicted::NotMeasured)?;
            // Where the stops bear loaded, another state is clear of them only where its own gap says so.
            let clear = self.survey.gap(state).is_some();
            if on_its_stops(&self.survey, state) || matches!(self.two_states, RateVerdict::OnTheStops { .. }) && !clear {
                return Err(Unpredicted::OnTheStops);
            }
        }
        self.goes_on(parts)
    }

    fn predict_state(
        &self,
        parts: &[Correction],
        state: LoadState,
        fitted: &Standing,
        off: &PartsOff,
    ) -> Result<PredictedState, Unpredicted> {
        let before = self.survey.height(End::Rear, state).ok_or(Unpredicted::NotMeasured)?;
        let weighed = self.weighed()?;
        let from = self.plain(state)?;
        let index = self.index(state);
        let leading = &weighed.leading().identified;
        let change = Passage { from, to: fitted, off, parts };
        let rise = self.rise(weighed, &change, End::Rear).ok_or(Unpredicted::NotSolved)?;
        // What two states are too weak to tell is not told at all; where other stories fit them too, the band says so.
        let told = self.two_states.measured().is_some() || self.survey.vehicle.rear_pack.is_some();
        if !told && self.hangs_on_the_rate(leading, from, fitted) {
            return Err(Unpredicted::NeedsRate);
        }
        let known_rate = self.rate().measured().is_some() || self.survey.vehicle.rear_pack.is_some();
        self.holds_where_it_stands(parts, leading, &fitted.leading().stance)?;
        // The stop of the model has no force of its own: where it still bears, what it carries is not known.
        if self.clearance(BUMP_STOP, state, from, fitted).is_some_and(|left| left.si() < -SAME_M) {
            return Err(Unpredicted::OnTheStops);
        }
        let (axle_before, axle) = (self.axle(from.leading(), parts), self.axle(fitted.leading(), parts));
        let bounce = |axle: Option<&AxleStance>| self.bounce(axle?).filter(|_| known_rate);
        let value = before.value + rise.value;
        let at_rest = self.at_rest_sd(weighed, fitted, End::Rear, state, before, value);
        let part_sd = change.part_sd(&self.survey, End::Rear);
        let rear = Uncertain::new(value, Length::hypot(at_rest, part_sd));
        let friction = self.friction_sd(weighed, fitted.leading(), End::Rear, self.survey.manner(state));
        let front = self.front(weighed, &change, parts, state);
        let rolled = |stiffer: &[Change]| {
            let from = leading.forecast(index, |_| stiffer.to_vec()).ok();
            let changes = |vehicle: &Vehicle| [&self.changes(parts, vehicle)[..], stiffer].concat();
            from.zip(leading.forecast(index, changes).ok())
        };
        let both_front = front
            .filter(|_| reaches_the_front(parts))
            .and_then(|front| self.sides(weighed, &change, End::Front, state, front.own_sd, rolled));
        let both_rear = self.sides(weighed, &change, End::Rear, state, at_rest, rolled);
        let first_of_rear = rear_axles(&self.survey).first().copied().unwrap_or(FRONT);
        Ok(PredictedState {
            rear,
            fresh: Length::hypot(before.sd, friction),
            rear_sides: both_rear.map(|rear| rear.sides),
            front: front.map(|front| front.height),
            front_sides: both_front.map(|front| front.sides),
            lean: Ends { front: both_front.map(|front| front.lean), rear: both_rear.map(|rear| rear.lean) },
            rear_before: before.value,
            rise: Uncertain::new(rise.value, Length::hypot(rise.sd, part_sd)),
            off_the_axle: Ends {
                front: self.off_the_axle(from, fitted, FRONT),
                rear: self.off_the_axle(from, fitted, first_of_rear),
            },
            tilt: fitted.leading().stance.pitch - from.leading().stance.pitch,
            friction: 2.0 * friction,
            part: 2.0 * part_sd,
            travel_left: self.clearance(travel_element(parts), state, from, fitted),
            travel_before: self.clearance(BUMP_STOP, state, from, from),
            overload_clear_before: self.overload_clear(leading, from),
            bounce_before: bounce(axle_before),
            bounce_after: bounce(axle),
        })
    }

    /// The rate against which the load of a case brings an end down, N/m: at the rear that of all its axles where they stand.
    pub(super) fn rate_under_a_load(&self, there: &Standing, end: End) -> f64 {
        match end {
            End::Front => self.survey.vehicle.assumptions().front_rate.si(),
            End::Rear => self.rear(&there.leading().stance).map(|axle| axle.spring_rate.si()).sum(),
        }
    }

    /// Whether a rise is another where the rate is another.
    fn hangs_on_the_rate(&self, leading: &Identified, from: &Standing, to: &Standing) -> bool {
        let mark = end_mark(&self.survey, End::Rear);
        let rise = mark.and_then(|mark| leading.rise(from.leading(), to.leading(), &mark));
        rise.is_none_or(|rise| rise.sd.si() > SAME_M)
    }

    /// The front: where it was read, unless the correction is there.
    fn front(&self, weighed: &Weighed, change: &Passage<'_>, parts: &[Correction], state: LoadState) -> Option<FrontHeight> {
        let before = self.survey.height(End::Front, state)?;
        if !reaches_the_front(parts) {
            let friction = self.friction_sd(weighed, change.to.leading(), End::Front, self.survey.manner(state));
            let own_sd = Length::hypot(before.sd, friction);
            return Some(FrontHeight { height: Uncertain::new(before.value, own_sd), own_sd });
        }
        // The stop of the model has no force of its own: where the front comes down on it, its height is not known.
        let gap = |side| change.to.leading().stance.axle(FRONT)?.gap(side, BUMP_STOP);
        if Side::BOTH.into_iter().filter_map(gap).any(|left| left.si() < -SAME_M) {
            return None;
        }
        let value = before.value + self.rise(weighed, change, End::Front)?.value;
        let own_sd = self.at_rest_sd(weighed, change.to, End::Front, state, before, value);
        let part_sd = change.part_sd(&self.survey, End::Front);
        Some(FrontHeight { height: Uncertain::new(value, Length::hypot(own_sd, part_sd)), own_sd })
    }

    /// How sure the height is at which an end comes to rest: what was read in this state and all others, by every account. Where the
    /// reading says nothing of the springs, it is as sure as the reading.
    fn at_rest_sd(
        &self,
        weighed: &Weighed,
        to: &Standing,
        end: End,
        state: LoadState,
        before: Uncertain<Length>,
        said: Length,
    ) -> Length {
        let weighs = is_weighed(&self.survey, &self.two_states, state);
        let by_all = end_mark(&self.survey, end).filter(|_| weighs).and_then(|mark| weighed.height_sd(to, &mark, said));
        by_all
            .unwrap_or_else(|| Length::hypot(before.sd, self.friction_sd(weighed, to.leading(), end, self.survey.manner(state))))
    }

    pub(super) fn rise(&self, weighed: &Weighed, change: &Passage<'_>, end: End) -> Option<Uncertain<Length>> {
        weighed.rise(change.from, change.to, &end_mark(&self.survey, end)?)
    }

    pub(super) fn plain(&self, state: LoadState) -> Result<&Standing, Unpredicted> {
        let solve = || self.weighed()?.plain(self.index(state), None).map_err(|error| self.note(error));
        let plain = self.plain.get(state).ok_or(Unpredicted::NotMeasured)?;
        plain.get_or_init(solve).as_ref().map_err(|why| *why)
    }

    /// The place of a state among the experiment's.
    pub(super) fn index(&self, state: LoadState) -> usize {
        self.survey.states().position(|of| of == state).unwrap_or(usize::MAX)
    }
}
