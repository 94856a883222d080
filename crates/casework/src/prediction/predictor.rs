//! Where the vehicle will sit with a correction fitted, and how sure that is.

use std::sync::OnceLock;

use wise_badger_mechanics::correction::{Axles, BUMP_STOP, Correction, kerb_spring_force};
use wise_badger_mechanics::identification::{Forecast, IdentificationError, Identified, TapeMark};
use wise_badger_mechanics::pack::{LEAF_FRICTION, PackCurve};
use wise_badger_mechanics::side::{Side, Sides};
use wise_badger_mechanics::stance::{Axle, AxleStance, Change, Load, Vehicle};
use wise_badger_mechanics::uncertain::Uncertain;
use wise_badger_mechanics::units::{Force, InShopUnits, Length, metres, newtons};

use super::answer::{Bounce, CaseHeights, PredictedState, Prediction, Unpredicted};
use super::model::{FRONT, aboard, end_mark, experiment, on_its_stops, rear_axles, side_mark, site_axles, stiffer_in_roll};
use super::parts_off::PartsOff;
use super::rate::agreed;
use crate::survey::{AxleLoads, End, LoadState, Manner, States, Survey};
use crate::verdict::{RateFigure, RateVerdict};

/// Of leaf friction, what is left once the vehicle was rolled and bounced (common practice).
const ROLLED: f64 = 0.5;
/// Two answers closer than this are the same answer.
const SAME_M: f64 = 1e-4;

/// Predicts corrections on one survey. The vehicle behind the readings is looked for once, when it is first asked for.
#[derive(Debug)]
pub struct Predictor {
    survey: Survey,
    loads: AxleLoads,
    /// What two states of the rear alone say: where the search begins.
    two_states: RateVerdict,
    /// The vehicle as the readings make it.
    identified: OnceLock<Result<Box<Identified>, Unpredicted>>,
    /// The first thing that could not be worked out.
    failure: OnceLock<IdentificationError>,
    rate: OnceLock<RateVerdict>,
    /// Where it stands without any correction: the same for all of them.
    plain: States<OnceLock<Result<Forecast, Unpredicted>>>,
}

/// From one forecast to another, with what the roll of the body leaves open.
struct Passage<'a> {
    from: &'a Forecast,
    to: &'a Forecast,
    /// Where it would lead were the parts not quite what was said of them.
    off: &'a PartsOff,
}

impl Passage<'_> {
    /// What the parts themselves leave open of a mark.
    fn part_sd(&self, mark: &TapeMark) -> Length {
        self.off.sd(self.to, mark)
    }
}

/// The front with parts fitted, and how sure it would be were the parts exact.
#[derive(Clone, Copy)]
struct FrontHeight {
    height: Uncertain<Length>,
    own_sd: Length,
}

/// Whether any of the parts goes on the front axle.
fn reaches_the_front(parts: &[Correction]) -> bool {
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
        Predictor {
            survey,
            loads,
            two_states,
            identified: OnceLock::new(),
            failure: OnceLock::new(),
            rate: OnceLock::new(),
            plain,
        }
    }

    /// The survey that it predicts from.
    pub fn survey(&self) -> &Survey {
        &self.survey
    }

    /// The rear rate: that of the vehicle which agrees best with all readings, or why there is none.
    ///
    /// Whatever says a rate says this one, so that no figure worked out from it can be at odds with another.
    pub fn rate(&self) -> &RateVerdict {
        let agreed = |figure: &RateFigure| {
            let (identified, empty) = (self.identified().ok()?, self.plain(LoadState::Empty).ok()?);
            agreed(&self.survey, figure, &identified.vehicle(), empty, self.plain(LoadState::Loaded).ok()?)
        };
        let rate = || self.two_states.measured().and_then(agreed).map_or(self.two_states, RateVerdict::Measured);
        self.rate.get_or_init(rate)
    }

    /// What was met on the way that could not be worked out, where anything was: the cause of a [`Unpredicted`].
    pub fn failure(&self) -> Option<&IdentificationError> {
        self.failure.get()
    }

    fn identified(&self) -> Result<&Identified, Unpredicted> {
        let look = || {
            let found = experiment(&self.survey, &self.loads, &self.two_states).identify();
            found.map(Box::new).map_err(|error| {
                self.note(error);
                Unpredicted::NotIdentified
            })
        };
        self.identified.get_or_init(look).as_deref().map_err(|why| *why)
    }

    /// Keeps the first cause, and says in short what it comes to.
    fn note(&self, error: IdentificationError) -> Unpredicted {
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
    /// without and with the correction. Rate, load, tyre and readings are one [`Identified`] vehicle, so that their
    /// errors are carried through together: a block's rise comes out exact even where the rate is poorly known.
    ///
    /// Friction adds `±f·W_s/k`, `f` 5 % of the spring load, half of that when rolled and bounced; a
    /// band is twice the standard deviation, friction included.
    ///
    /// # Source     first-order propagation with correlated inputs, JCGM 100:2008 (GUM), 5.2
    pub fn predict(&self, fitted: &(impl AsRef<[Correction]> + ?Sized)) -> Prediction {
        self.predict_set(|_| fitted)
    }

    /// The same where what is fitted is set otherwise in some states.
    pub fn predict_set<'c, P: AsRef<[Correction]> + ?Sized + 'c>(&self, set: impl Fn(LoadState) -> &'c P) -> Prediction {
        let further = self.survey.further.iter().map(|further| further.key);
        States::from_fn(further, |state| self.predict_state(set(state).as_ref(), state))
    }

    /// Where the rear would sit loaded with less weight on it, nothing fitted.
    ///
    /// `None` without a measured rate, or where nothing would be left of the load.
    pub fn rear_with_less(&self, rear_relief: Force) -> Option<Length> {
        self.two_states.measured()?;
        let left = self.loads.change.rear?.value - rear_relief;
        if left <= newtons(0.0) {
            return None;
        }
        let height = self.survey.height(End::Rear, LoadState::Loaded)?.value;
        let less = vec![Load::at(left, self.survey.vehicle.wheelbase)];
        let identified = self.identified().ok()?;
        let lighter = identified.forecast_with_loads(self.index(LoadState::Loaded), &less, |_| Vec::new()).ok()?;
        let rear = end_mark(&self.survey, End::Rear)?;
        Some(height + identified.rise(self.plain(LoadState::Loaded).ok()?, &lighter, &rear)?.value)
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
        let identified = self.identified()?;
        let from = self.plain(LoadState::Empty)?;
        self.goes_on(fitted)?;
        let case_loads = case.axle_loads();
        let loads = aboard(case, &case_loads).0.loads;
        let solve = |more: &[Change]| {
            let changes = |vehicle: &Vehicle| [&self.changes(fitted, vehicle)[..], more].concat();
            identified.forecast_with_loads(self.index(LoadState::Empty), &loads, changes)
        };
        let there = solve(&[]).map_err(|error| self.note(error))?;
        if !self.holds_at(fitted, identified, &there) {
            return Err(Unpredicted::PastThePack);
        }
        let off = PartsOff::new(fitted, |parts| {
            identified.stand_with_loads(self.index(LoadState::Empty), &loads, |vehicle| self.changes(parts, vehicle))
        });
        let off = off.map_err(|error| self.note(error))?;
        let change = Passage { from, to: &there, off: &off };
        let rise = self.rise(identified, &change, End::Rear).ok_or(Unpredicted::NotSolved)?;
        // The loads of a case are as doubtful as they are; the springs of all the axles turn that into height.
        let load_sd = |end| case_loads.change.get(end).map_or(0.0, |change| change.sd.si());
        let rear_rate: f64 = self.rear(&there).map(|axle| axle.spring_rate.si()).sum();
        let friction = self.friction(&there, LoadState::Empty);
        let from_load = metres(load_sd(End::Rear) / rear_rate);
        let spread = Length::hypot(Length::hypot(empty.sd, rise.sd), Length::hypot(from_load, friction / 2.0));
        let part_sd = |end| end_mark(&self.survey, end).map_or(metres(0.0), |mark| change.part_sd(&mark));
        let front = self.survey.height(End::Front, LoadState::Empty);
        let front = match end_mark(&self.survey, End::Front) {
            None => front,
            Some(_) => front.zip(self.rise(identified, &change, End::Front)).map(|(empty, rise)| {
                let assumed = self.survey.vehicle.assumptions().front_rate.si();
                let from_load = Length::hypot(metres(load_sd(End::Front) / assumed), part_sd(End::Front));
                Uncertain::new(empty.value + rise.value, Length::hypot(Length::hypot(empty.sd, rise.sd), from_load))
            }),
        };
        let travel_left = self.least_gap(&there, travel_element(fitted));
        // The stop of the model has no force of its own: where it would bear, the height is not known.
        if self.least_gap(&there, BUMP_STOP).is_some_and(|left| left.si() < 0.0) {
            return Err(Unpredicted::OnTheStops);
        }
        let rolled = |stiffer: &[Change]| {
            let from = identified.forecast(self.index(LoadState::Empty), |_| stiffer.to_vec()).ok();
            from.zip(solve(stiffer).ok())
        };
        Ok(CaseHeights {
            rear: Uncertain::new(empty.value + rise.value, Length::hypot(spread, part_sd(End::Rear))),
            rear_sides: self.sides(identified, &change, End::Rear, LoadState::Empty, spread, rolled),
            front,
            travel_left,
            rate_measured: self.two_states.measured().is_some(),
        })
    }

    fn predict_state(&self, fitted: &[Correction], state: LoadState) -> Result<PredictedState, Unpredicted> {
        let parts = fitted;
        let before = self.survey.height(End::Rear, state).ok_or(Unpredicted::NotMeasured)?;
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
        self.goes_on(parts)?;
        let identified = self.identified()?;
        let from = self.plain(state)?;
        let solve = |more: &[Change]| {
            let changes = |vehicle: &Vehicle| [&self.changes(parts, vehicle)[..], more].concat();
            identified.forecast(self.index(state), changes)
        };
        let fitted = solve(&[]).map_err(|error| self.note(error))?;
        let off = PartsOff::new(parts, |parts| identified.stand(self.index(state), |vehicle| self.changes(parts, vehicle)));
        let off = off.map_err(|error| self.note(error))?;
        let change = Passage { from, to: &fitted, off: &off };
        let rise = self.rise(identified, &change, End::Rear).ok_or(Unpredicted::NotSolved)?;
        let hangs_on_the_rate = rise.sd.si() > SAME_M;
        let known_rate = self.two_states.measured().is_some() || self.survey.vehicle.rear_pack.is_some();
        if hangs_on_the_rate && !known_rate {
            return Err(Unpredicted::NeedsRate);
        }
        if !self.holds_at(parts, identified, &fitted) {
            return Err(Unpredicted::PastThePack);
        }
        // The stop of the model has no force of its own: where it still bears, what it carries is not known.
        if self.clearance(BUMP_STOP, state, from, &fitted).is_some_and(|left| left.si() < -SAME_M) {
            return Err(Unpredicted::OnTheStops);
        }
        let (axle_before, axle) = (self.axle(from, parts), self.axle(&fitted, parts));
        let bounce = |axle: Option<&AxleStance>| self.bounce(axle?).filter(|_| known_rate);
        let friction = self.friction(&fitted, state);
        let rear_sd = self.reading_sd(identified, &change, End::Rear, before, rise);
        let rear_sd = Length::hypot(rear_sd, friction / 2.0);
        let part_sd = end_mark(&self.survey, End::Rear).map_or(metres(0.0), |mark| change.part_sd(&mark));
        let front = self.front(identified, &change, parts, state);
        let rolled = |stiffer: &[Change]| {
            let from = identified.forecast(self.index(state), |_| stiffer.to_vec()).ok();
            from.zip(solve(stiffer).ok())
        };
        let front_sides = front
            .filter(|_| reaches_the_front(parts))
            .and_then(|front| self.sides(identified, &change, End::Front, state, front.own_sd, rolled));
        Ok(PredictedState {
            rear: Uncertain::new(before.value + rise.value, Length::hypot(rear_sd, part_sd)),
            rear_sides: self.sides(identified, &change, End::Rear, state, rear_sd, rolled),
            front: front.map(|front| front.height),
            front_sides,
            rear_before: before.value,
            rise: rise.value,
            friction,
            part: 2.0 * part_sd,
            travel_left: self.clearance(travel_element(parts), state, from, &fitted),
            travel_before: self.clearance(BUMP_STOP, state, from, from),
            bounce_before: bounce(axle_before),
            bounce_after: bounce(axle),
        })
    }

    /// The front: where it was read, unless the correction is there.
    fn front(
        &self,
        identified: &Identified,
        change: &Passage<'_>,
        parts: &[Correction],
        state: LoadState,
    ) -> Option<FrontHeight> {
        let before = self.survey.height(End::Front, state)?;
        if !reaches_the_front(parts) {
            return Some(FrontHeight { height: before, own_sd: before.sd });
        }
        // The stop of the model has no force of its own: where the front comes down on it, its height is not known.
        let gap = |side| change.to.stance.axle(FRONT)?.gap(side, BUMP_STOP);
        if Side::BOTH.into_iter().filter_map(gap).any(|left| left.si() < -SAME_M) {
            return None;
        }
        let rise = self.rise(identified, change, End::Front)?;
        let own_sd = self.reading_sd(identified, change, End::Front, before, rise);
        let part_sd = change.part_sd(&end_mark(&self.survey, End::Front)?);
        Some(FrontHeight { height: Uncertain::new(before.value + rise.value, Length::hypot(own_sd, part_sd)), own_sd })
    }

    /// How sure a height is once it has risen: what rises by as much whatever the rate is as sure as the reading it starts from.
    fn reading_sd(
        &self,
        identified: &Identified,
        change: &Passage<'_>,
        end: End,
        before: Uncertain<Length>,
        rise: Uncertain<Length>,
    ) -> Length {
        let height = end_mark(&self.survey, end).and_then(|mark| identified.height(change.to, &mark));
        match height {
            Some(height) if rise.sd.si() > SAME_M => height.sd,
            _ => before.sd,
        }
    }

    fn rise(&self, identified: &Identified, change: &Passage<'_>, end: End) -> Option<Uncertain<Length>> {
        identified.rise(change.from, change.to, &end_mark(&self.survey, end)?)
    }

    /// Either side of an end, where both were read: the reading of the side plus its own rise. That the springs of a pair are not quite
    /// alike is in doubt with everything else. How stiff the vehicle is in roll is not known: where the sides rise unlike, the answer lies half-way between bare springs and a stiff bar in front, and half
    /// of what lies between them is one standard deviation.
    fn sides(
        &self,
        identified: &Identified,
        change: &Passage<'_>,
        end: End,
        state: LoadState,
        axle_sd: Length,
        rolled: impl Fn(&[Change]) -> Option<(Forecast, Forecast)>,
    ) -> Option<Sides<Uncertain<Length>>> {
        let half_lean_sd = self.survey.half_lean_sd(end, state)?;
        let readings = self.survey.readings(end, state);
        let corner = Sides { left: readings.corner(Side::Left)?, right: readings.corner(Side::Right)? };
        let rise =
            |from: &Forecast, to: &Forecast, side| Some(identified.rise(from, to, &side_mark(&self.survey, end, side)?)?.value);
        let bare = Sides { left: rise(change.from, change.to, Side::Left)?, right: rise(change.from, change.to, Side::Right)? };
        let unlike = (bare.left - bare.right).abs() > metres(SAME_M);
        let stiffer = stiffer_in_roll(&self.survey).filter(|_| unlike);
        let stiff = match stiffer {
            None => bare,
            Some(bar) => {
                let (from, to) = rolled(&[bar])?;
                Sides { left: rise(&from, &to, Side::Left)?, right: rise(&from, &to, Side::Right)? }
            }
        };
        // One spring of a pair is a little stiffer than its fellow: what that leaves open of the roll, half of it on either side.
        let [left, right] = [side_mark(&self.survey, end, Side::Left)?, side_mark(&self.survey, end, Side::Right)?];
        let side_to_side = identified.rise_apart(change.from, change.to, &right, &left)?.sd / 2.0;
        let of_reading = Length::hypot(Length::hypot(axle_sd, half_lean_sd), side_to_side);
        Some(Sides::from_fn(|side| {
            let (bare, stiff) = (*bare.get(side), *stiff.get(side));
            let own_mark = if side == Side::Left { &left } else { &right };
            let sd = Length::hypot(Length::hypot(of_reading, (bare - stiff).abs() / 2.0), change.part_sd(own_mark));
            Uncertain::new(*corner.get(side) + (bare + stiff) / 2.0, sd)
        }))
    }

    fn plain(&self, state: LoadState) -> Result<&Forecast, Unpredicted> {
        let solve = || self.identified()?.forecast(self.index(state), |_| Vec::new()).map_err(|error| self.note(error));
        let plain = self.plain.get(state).ok_or(Unpredicted::NotMeasured)?;
        plain.get_or_init(solve).as_ref().map_err(|why| *why)
    }

    fn goes_on(&self, parts: &[Correction]) -> Result<(), Unpredicted> {
        let nowhere = |part: &Correction| site_axles(&self.survey, part.site()).is_empty();
        if parts.iter().any(nowhere) { Err(Unpredicted::NoSuchAxle) } else { Ok(()) }
    }

    /// What the parts change, in their order; one that takes the stops' place takes them off.
    ///
    /// A clearance is one that the shop sets with everything else fitted: by what the other parts raise the empty axle, its gap is less
    /// than counted from the vehicle as it came in.
    fn changes(&self, parts: &[Correction], vehicle: &Vehicle) -> Vec<Change> {
        let of_parts = parts.iter().flat_map(|part| self.changes_of(part, vehicle));
        let (set, others): (Vec<_>, Vec<_>) = parts.iter().partition(|part| part.set_to_a_clearance().is_some());
        let raised = if set.is_empty() || others.is_empty() { None } else { self.raised_empty(&others) };
        let closed = set.into_iter().flat_map(|part| raised.iter().flat_map(|raised| self.closed(part, raised)));
        of_parts.chain(closed).collect()
    }

    /// Where the axles stand empty with parts fitted, from where they stood.
    fn raised_empty(&self, parts: &[&Correction]) -> Option<(Forecast, &Forecast)> {
        let changes = |vehicle: &Vehicle| parts.iter().flat_map(|part| self.changes_of(part, vehicle)).collect();
        let fitted = self.identified().ok()?.forecast(self.index(LoadState::Empty), changes).ok()?;
        Some((fitted, self.plain(LoadState::Empty).ok()?))
    }

    /// Closes the clearance of a part by what others raise its corners.
    fn closed(&self, part: &Correction, (fitted, plain): &(Forecast, &Forecast)) -> Vec<Change> {
        let (site, element) = (part.site(), part.set_to_a_clearance().unwrap_or_default());
        let corner = |axle: &str, side: Side| {
            let stands = |forecast: &Forecast| Some(*forecast.stance.axle(axle)?.hub_to_arch_change.get(side));
            let by = stands(plain)? - stands(fitted)?;
            Some(Change::Gap { axle: axle.to_owned(), side: Some(side), element: element.to_owned(), by })
        };
        let sides = || Side::BOTH.into_iter().filter(|side| site.side.is_none_or(|of| of == *side));
        site_axles(&self.survey, site).iter().flat_map(|axle| sides().filter_map(|side| corner(axle, side))).collect()
    }

    fn changes_of(&self, part: &Correction, vehicle: &Vehicle) -> Vec<Change> {
        let site = part.site();
        let axles = site_axles(&self.survey, site);
        let mut changes = part.changes(vehicle, axles);
        if part.replaces_stops() {
            // Only a corner whose gap was read has a stop in the model.
            let there =
                |side: &Side| self.survey.stop_gap.empty.rear.get(*side).is_some() && site.side.is_none_or(|of| of == *side);
            for axle in axles {
                let off = |side| Change::Remove { axle: (*axle).to_owned(), side: Some(side), element: BUMP_STOP.to_owned() };
                changes.extend(Side::BOTH.into_iter().filter(there).map(off));
            }
        }
        changes
    }

    /// The rear axle, or every axle of a trailer, where it stands.
    fn rear<'f>(&self, forecast: &'f Forecast) -> impl Iterator<Item = &'f AxleStance> {
        rear_axles(&self.survey).iter().filter_map(|name| forecast.stance.axle(name))
    }

    /// The rear axle that the first part at the rear goes on; the first one, where it goes on all of them or on none.
    fn axle<'f>(&self, forecast: &'f Forecast, parts: &[Correction]) -> Option<&'f AxleStance> {
        let of_parts = parts.iter().flat_map(|part| site_axles(&self.survey, part.site()));
        let at_the_rear = of_parts.filter(|name| rear_axles(&self.survey).contains(name));
        let its_own = at_the_rear.filter_map(|name| forecast.stance.axle(name)).next();
        its_own.or_else(|| self.rear(forecast).next())
    }

    /// Whether the correction, and a pack read on the bench, still have a meaning as far down as each rear axle stands.
    fn holds_at(&self, parts: &[Correction], identified: &Identified, forecast: &Forecast) -> bool {
        let vehicle = identified.vehicle();
        let packs = self.survey.vehicle.rear_pack.as_ref();
        let holds = |(axle, stance): (&Axle, &AxleStance)| {
            let (fell, carried) = (Sides::from_fn(|side| -*stance.hub_to_arch_change.get(side)), kerb_spring_force(axle));
            let down = fell.left.max(fell.right);
            let in_its_range = |side, pack: &PackCurve| *fell.get(side) <= pack.height(carried) - pack.lowest();
            packs.is_none_or(|packs| Side::BOTH.into_iter().all(|side| in_its_range(side, packs.get(side))))
                && parts.iter().all(|part| part.holds_at(carried, down))
        };
        let at_the_rear = vehicle.axles.iter().filter(|axle| rear_axles(&self.survey).contains(&axle.name.as_str()));
        at_the_rear.filter_map(|axle| Some((axle, forecast.stance.axle(&axle.name)?))).all(holds)
    }

    /// Half-width of the height that leaf friction leaves open, on the rear axle where that is most; nothing but leaves has any.
    fn friction(&self, fitted: &Forecast, state: LoadState) -> Length {
        if !self.survey.vehicle.rests_on_leaves() {
            return Length::default();
        }
        let share = LEAF_FRICTION * if self.survey.manner(state) == Manner::Rolled { ROLLED } else { 1.0 };
        let assumed = self.survey.vehicle.assumptions();
        let unsprung = assumed.rear_unsprung / f64::from(assumed.rear_axles);
        let of_axle = |axle: &AxleStance| metres(share * (axle.load() - unsprung).si().max(0.0) / axle.spring_rate.si());
        self.rear(fitted).map(of_axle).fold(metres(0.0), |most, one| if one > most { one } else { most })
    }

    fn bounce(&self, axle: &AxleStance) -> Option<Bounce> {
        let assumed = self.survey.vehicle.assumptions();
        let sprung = axle.load() - assumed.rear_unsprung / f64::from(assumed.rear_axles);
        Some(Bounce { rate: axle.spring_rate, sprung, frequency: axle.ride_frequency? })
    }

    /// The clearance at an element of the rear once something is fitted. A gap read in this state counts for more than one carried
    /// over from the empty state; what was not there before is where the model has it.
    fn clearance(&self, element: &str, state: LoadState, plain: &Forecast, fitted: &Forecast) -> Option<Length> {
        let after = self.least_gap(fitted, element)?;
        let read = self.survey.gap(state).zip(self.least_gap(plain, element));
        Some(read.map_or(after, |(read, modelled)| read + after - modelled))
    }

    /// The clearance at an element, on the rear axle and the side where it is least.
    fn least_gap(&self, forecast: &Forecast, element: &str) -> Option<Length> {
        let gaps = self.rear(forecast).flat_map(|axle| Side::BOTH.into_iter().filter_map(|side| axle.gap(side, element)));
        gaps.reduce(|one, other| one.min(other))
    }

    /// The place of a state among the experiment's.
    fn index(&self, state: LoadState) -> usize {
        self.survey.states().position(|of| of == state).unwrap_or(usize::MAX)
    }
}
