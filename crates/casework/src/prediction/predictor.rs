//! Where the vehicle will sit with a correction fitted, and how sure that is.

use std::cell::OnceCell;

use super::model::{aboard, experiment, front_mark, rear_axles, rear_mark};
use crate::survey::{AxleLoads, End, LoadState, States, Survey};
use crate::verdict::RateVerdict;
use wise_badger_mechanics::correction::{BUMP_STOP, Correction, kerb_spring_force};
use wise_badger_mechanics::identification::{Forecast, Identified, Mark};
use wise_badger_mechanics::pack::LEAF_FRICTION;
use wise_badger_mechanics::side::Side;
use wise_badger_mechanics::stance::{AxleStance, Change, Load, Vehicle};
use wise_badger_mechanics::uncertain::Uncertain;
use wise_badger_mechanics::units::{Force, Frequency, InShopUnits, Length, metres, newtons};

/// Of leaf friction, what is left once the vehicle was rolled and bounced (common practice).
const ROLLED: f64 = 0.5;
/// Two answers closer than this are the same answer.
const SAME_M: f64 = 1e-4;

/// What a correction does to one state.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct PredictedState {
    /// Rear height, with tape, rate, load, tyre and friction in its standard deviation.
    pub rear: Uncertain<Length>,
    /// Front height; a correction at the rear of a two-axle vehicle does not move it.
    pub front: Option<Uncertain<Length>>,
    /// Rear height as measured, before the correction.
    pub rear_before: Length,
    /// How much the rear rises.
    pub rise: Length,
    /// Half-width of the height that leaf friction leaves open; part of the band.
    pub friction: Length,
    /// Clearance left at the bump stop, or at the load rubber (negative: it bears by so much); absent when no gap was read.
    pub travel_left: Option<Length>,
    /// Ride frequency over the rear axle before, where the rate is known.
    pub frequency_before: Option<Frequency>,
    /// And after.
    pub frequency_after: Option<Frequency>,
}

/// Why a state is not predicted.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
#[non_exhaustive]
pub enum Unpredicted {
    /// The heights of that state, or what was put on, were not measured.
    NotMeasured,
    /// The answer depends on the rear rate, and the readings are too weak to give one.
    NeedsRate,
    /// The bump stops carry part of the load as measured.
    OnTheStops,
    /// With the correction the model has no standing answer.
    OutsideTheModel,
}

/// What a correction does to both states.
pub type Prediction = States<Result<PredictedState, Unpredicted>>;

/// Where a vehicle stands in a load case that was not measured.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct CaseHeights {
    /// Rear height, with readings, rate, tyre, load and friction in its standard deviation.
    pub rear: Uncertain<Length>,
    /// Front height; of a trailer, where its coupler was held empty. Absent where it was not read.
    pub front: Option<Uncertain<Length>>,
    /// Clearance left at the bump stop, or at the load rubber (negative: it bears by so much); absent when no gap was read.
    pub travel_left: Option<Length>,
    /// Whether the rear rate behind it was measured, and not only assumed for the class.
    pub rate_measured: bool,
}

/// Predicts corrections on one survey.
pub struct Predictor<'a> {
    survey: &'a Survey,
    loads: AxleLoads,
    rate: RateVerdict,
    rear: Mark,
    /// The vehicle as the readings make it; `None` where they and the model do not come together.
    identified: Option<Identified>,
    /// Where it stands without any correction: the same for all of them.
    plain: States<OnceCell<Option<Forecast>>>,
}

impl<'a> Predictor<'a> {
    /// A predictor for a survey.
    pub fn new(survey: &'a Survey) -> Self {
        let (loads, rate) = (survey.axle_loads(), RateVerdict::of(survey));
        let identified = experiment(survey, &loads, &rate).identify().ok();
        Predictor { survey, loads, rate, rear: rear_mark(survey), identified, plain: States::default() }
    }

    /// The survey that it predicts from.
    pub fn survey(&self) -> &Survey {
        self.survey
    }

    /// Where the rear sits in both states with a correction fitted.
    ///
    /// The height is the measured one plus the rise that the stance model gives between the vehicle
    /// without and with the correction. Rate, load, tyre and readings are one [`Identified`] vehicle, so that their
    /// errors are carried through together: a block's rise comes out exact even where the rate is poorly known.
    ///
    /// Friction adds `±f·W_s/k`, `f` 5 % of the spring load, half of that when rolled and bounced; a
    /// band is twice the standard deviation, friction included.
    ///
    /// # Source     first-order propagation with correlated inputs, JCGM 100:2008 (GUM), 5.2
    pub fn predict(&self, correction: &Correction) -> Prediction {
        States::from_fn(|state| self.predict_state(correction, state))
    }

    /// Where the rear would sit loaded with less weight on it, nothing fitted.
    ///
    /// `None` without a measured rate, or where nothing would be left of the load.
    pub fn rear_with_less(&self, rear_relief: Force) -> Option<Length> {
        self.rate.measured()?;
        let left = self.loads.change.rear?.value - rear_relief;
        if left <= newtons(0.0) {
            return None;
        }
        let height = self.survey.height(End::Rear, LoadState::Loaded)?.value;
        let less = vec![Load::at(left, self.survey.vehicle.wheelbase)];
        let identified = self.identified.as_ref()?;
        let lighter = identified.forecast_with_loads(index(LoadState::Loaded), &less, |_| Vec::new()).ok()?;
        Some(height + identified.rise(self.plain(LoadState::Loaded)?, &lighter, &self.rear)?.value)
    }

    /// Where it stands in another load case, as it is or with a correction fitted.
    ///
    /// The height read empty, plus the change that the stance model gives from empty to that case. A rate that was not
    /// measured is the class's, and its 35 % are in the band.
    ///
    /// # Errors     [`Unpredicted`] where empty heights are missing, the stops would bear, or the model has no standing answer
    pub fn in_case(&self, case: &Survey, correction: Option<&Correction>) -> Result<CaseHeights, Unpredicted> {
        let outside = Unpredicted::OutsideTheModel;
        let empty = self.survey.height(End::Rear, LoadState::Empty).ok_or(Unpredicted::NotMeasured)?;
        let identified = self.identified.as_ref().ok_or(outside)?;
        let plain = self.plain(LoadState::Empty).ok_or(outside)?;
        let case_loads = case.axle_loads();
        let loads = aboard(case, &case_loads).0.loads;
        let changes = |vehicle: &Vehicle| correction.map_or_else(Vec::new, |correction| self.changes(correction, vehicle));
        let there = identified.forecast_with_loads(index(LoadState::Empty), &loads, changes).ok().ok_or(outside)?;
        let axle = self.axle(&there).filter(|axle| self.holds_at(correction, identified, axle)).ok_or(outside)?;
        let rise = identified.rise(plain, &there, &self.rear).ok_or(outside)?;
        // The loads of a case are as doubtful as they are; on one axle the springs turn that into height.
        let load_sd = |end| case_loads.change.get(end).map_or(0.0, |change| change.sd.si());
        let rear_axles = rear_axles(self.survey).len().max(1);
        #[expect(clippy::cast_precision_loss, reason = "a vehicle has few axles")]
        let rear_rate = axle.spring_rate.si() * rear_axles as f64;
        let friction = self.friction(axle);
        let from_load = metres(load_sd(End::Rear) / rear_rate);
        let spread = Length::hypot(Length::hypot(empty.sd, rise.sd), Length::hypot(from_load, friction / 2.0));
        let front = self.survey.height(End::Front, LoadState::Empty);
        let front = match front_mark(self.survey) {
            None => front,
            Some(mark) => front.zip(identified.rise(plain, &there, &mark)).map(|(empty, rise)| {
                let assumed = self.survey.vehicle.assumptions().front_rate.si();
                let from_load = metres(load_sd(End::Front) / assumed);
                Uncertain::new(empty.value + rise.value, Length::hypot(Length::hypot(empty.sd, rise.sd), from_load))
            }),
        };
        let travel_left = axle.gap(Side::Left, correction.map_or(BUMP_STOP, Correction::travel_element));
        // The stop of the model has no force of its own: where it would bear, the height is not known.
        let closed = travel_left.is_some_and(|left| left.si() < 0.0) && !correction.is_some_and(Correction::replaces_stops);
        if closed {
            return Err(Unpredicted::OnTheStops);
        }
        Ok(CaseHeights {
            rear: Uncertain::new(empty.value + rise.value, spread),
            front,
            travel_left,
            rate_measured: self.rate.measured().is_some(),
        })
    }

    fn predict_state(&self, correction: &Correction, state: LoadState) -> Result<PredictedState, Unpredicted> {
        let before = self.survey.height(End::Rear, state).ok_or(Unpredicted::NotMeasured)?;
        if state == LoadState::Loaded {
            if self.loads.change.rear.is_none() {
                return Err(Unpredicted::NotMeasured);
            }
            if matches!(self.rate, RateVerdict::OnTheStops { .. }) {
                return Err(Unpredicted::OnTheStops);
            }
        }
        let outside = Unpredicted::OutsideTheModel;
        let identified = self.identified.as_ref().ok_or(outside)?;
        let plain = self.plain(state).ok_or(outside)?;
        let fitted = identified.forecast(index(state), |vehicle| self.changes(correction, vehicle)).ok().ok_or(outside)?;
        let rise = identified.rise(plain, &fitted, &self.rear).ok_or(outside)?;
        let hangs_on_the_rate = rise.sd.si() > SAME_M;
        let known_rate = self.rate.measured().is_some() || self.survey.vehicle.rear_pack.is_some();
        if hangs_on_the_rate && !known_rate {
            return Err(Unpredicted::NeedsRate);
        }
        let axle_before = self.axle(plain).ok_or(outside)?;
        let axle = self.axle(&fitted).filter(|axle| self.holds_at(Some(correction), identified, axle)).ok_or(outside)?;
        // What rises by as much whatever the rate is as sure as the reading it starts from.
        let reading_sd = match identified.height(&fitted, &self.rear) {
            Some(height) if hangs_on_the_rate => height.sd,
            _ => before.sd,
        };
        let friction = self.friction(axle);
        Ok(PredictedState {
            rear: Uncertain::new(before.value + rise.value, Length::hypot(reading_sd, friction / 2.0)),
            front: self.survey.height(End::Front, state),
            rear_before: before.value,
            rise: rise.value,
            friction,
            travel_left: self.travel_left(correction, state, axle_before, axle),
            frequency_before: axle_before.ride_frequency.filter(|_| known_rate),
            frequency_after: axle.ride_frequency.filter(|_| known_rate),
        })
    }

    fn plain(&self, state: LoadState) -> Option<&Forecast> {
        let solve = || self.identified.as_ref()?.forecast(index(state), |_| Vec::new()).ok();
        self.plain.get(state).get_or_init(solve).as_ref()
    }

    /// What the correction changes; one that takes the stops' place takes them off.
    fn changes(&self, correction: &Correction, vehicle: &Vehicle) -> Vec<Change> {
        let axles = rear_axles(self.survey);
        let mut changes = correction.changes(vehicle, axles);
        if correction.replaces_stops() && self.survey.stop_gap.empty.is_some() {
            let off = |axle: &&str| Change::Remove { axle: (*axle).to_owned(), side: None, element: BUMP_STOP.to_owned() };
            changes.extend(axles.iter().map(off));
        }
        changes
    }

    /// The rear axle, or the first of a trailer's.
    fn axle<'f>(&self, forecast: &'f Forecast) -> Option<&'f AxleStance> {
        rear_axles(self.survey).first().and_then(|name| forecast.stance.axle(name))
    }

    /// Whether the correction, and a pack read on the bench, still have a meaning as far down as the axle stands.
    fn holds_at(&self, correction: Option<&Correction>, identified: &Identified, stance: &AxleStance) -> bool {
        let vehicle = identified.vehicle();
        let Some(axle) = rear_axles(self.survey).first().and_then(|name| vehicle.axles.iter().find(|axle| axle.name == *name))
        else {
            return true;
        };
        let (down, carried) = (-stance.hub_to_arch_change.left, kerb_spring_force(axle));
        let pack = self.survey.vehicle.rear_pack.as_ref();
        pack.is_none_or(|pack| down <= pack.height(carried) - pack.lowest())
            && correction.is_none_or(|correction| correction.holds_at(carried, down))
    }

    fn friction(&self, fitted: &AxleStance) -> Length {
        let share = LEAF_FRICTION * if self.survey.rolled_and_bounced { ROLLED } else { 1.0 };
        let assumed = self.survey.vehicle.assumptions();
        let spring_load = fitted.load() - assumed.rear_unsprung / f64::from(assumed.rear_axles);
        metres(share * spring_load.si().max(0.0) / fitted.spring_rate.si())
    }

    fn travel_left(&self, correction: &Correction, state: LoadState, plain: &AxleStance, fitted: &AxleStance) -> Option<Length> {
        let after = fitted.gap(Side::Left, correction.travel_element())?;
        if correction.replaces_stops() {
            return Some(after);
        }
        // A gap read in this state counts for more than one carried over from the empty state.
        let modelled_before = plain.gap(Side::Left, correction.travel_element())?;
        let measured = *self.survey.stop_gap.get(state);
        Some(measured.unwrap_or(modelled_before) + after - modelled_before)
    }
}

/// The place of a state among the experiment's.
fn index(state: LoadState) -> usize {
    match state {
        LoadState::Empty => 0,
        LoadState::Loaded => 1,
    }
}
