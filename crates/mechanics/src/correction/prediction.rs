//! Where the vehicle will sit with a correction fitted, and how sure that is.

use std::cell::OnceCell;

use super::kind::Correction;
use super::model::{Figures, REAR, loaded_state, vehicle};
use crate::side::Side;
use crate::stance::{AxleStance, Outcome, State, settle};
use crate::survey::{ASSUMED_RATE_SD, ASSUMED_TYRE_SD, AxleEnd, AxleLoads, LoadState, States, Survey};
use crate::uncertain::Uncertain;
use crate::units::{Force, Frequency, InShopUnits, Length, metres, newtons, newtons_per_metre};
use crate::verdict::{MeasuredStages, RateVerdict};

/// Leaf friction holds a pack within this share of its load, either way, once rolled and bounced (common practice).
const FRICTION_ROLLED: f64 = 0.025;
/// The same when it was not.
const FRICTION: f64 = 0.05;
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

/// Predicts corrections on one survey.
pub struct Predictor<'a> {
    survey: &'a Survey,
    loads: AxleLoads,
    rate: RateVerdict,
    /// Where the loaded rear stands without any correction, for each set of [`OFFSETS`]: it is the same for all of them.
    loaded_plain: OnceCell<Vec<Result<Length, Unpredicted>>>,
}

/// Everything a prediction rests on, each off its best figure by so many standard deviations.
#[derive(Clone, Copy)]
struct Offsets {
    empty_height: f64,
    loaded_height: f64,
    load_change: f64,
    tyre: f64,
    stage: f64,
}

/// Nothing is off.
const BEST: Offsets = Offsets { empty_height: 0.0, loaded_height: 0.0, load_change: 0.0, tyre: 0.0, stage: 0.0 };

/// Each source in turn, up and down by a standard deviation.
const OFFSETS: [[Offsets; 2]; 5] = [
    [Offsets { empty_height: 1.0, ..BEST }, Offsets { empty_height: -1.0, ..BEST }],
    [Offsets { loaded_height: 1.0, ..BEST }, Offsets { loaded_height: -1.0, ..BEST }],
    [Offsets { load_change: 1.0, ..BEST }, Offsets { load_change: -1.0, ..BEST }],
    [Offsets { tyre: 1.0, ..BEST }, Offsets { tyre: -1.0, ..BEST }],
    [Offsets { stage: 1.0, ..BEST }, Offsets { stage: -1.0, ..BEST }],
];

impl<'a> Predictor<'a> {
    /// A predictor for a survey.
    pub fn new(survey: &'a Survey) -> Self {
        Predictor { survey, loads: survey.axle_loads(), rate: RateVerdict::of(survey), loaded_plain: OnceCell::new() }
    }

    /// Where the rear sits in both states with a correction fitted.
    ///
    /// The height is the measured one plus the rise that the stance model gives between the vehicle
    /// without and with the correction. The model's rate comes from the same readings, so their
    /// errors are carried through together: each reading, the load and the tyre rate is moved by one
    /// standard deviation and the whole prediction made again. A block's rise comes out exact that way
    /// even where the rate is poorly known.
    ///
    /// Friction adds `±f·W_s/k`, `f` 5 % of the spring load, half of that when rolled and bounced; a
    /// band is twice the standard deviation, friction included.
    ///
    /// # Source     first-order propagation with correlated inputs, JCGM 100:2008 (GUM), 5.2
    pub fn predict(&self, correction: &Correction) -> Prediction {
        States::from_fn(|state| self.predict_state(correction, state))
    }

    /// Where the rear axle would sit loaded with less weight on it, nothing fitted.
    ///
    /// `None` without a measured rate, or where nothing would be left of the load.
    pub fn rear_with_less(&self, rear_relief: Force) -> Option<Length> {
        self.rate.measured()?;
        let height = self.survey.height(AxleEnd::Rear, LoadState::Loaded)?.value;
        let figures = self.figures(BEST);
        let less = Figures { rear_change: figures.rear_change - rear_relief, ..figures };
        if less.rear_change <= newtons(0.0) {
            return None;
        }
        let at = |aboard: &Figures| self.rear(&self.aboard(LoadState::Loaded, aboard), &figures, true).ok();
        Some(height + self.at_datum(&at(&less)?) - self.at_datum(&at(&figures)?))
    }

    fn predict_state(&self, correction: &Correction, state: LoadState) -> Result<PredictedState, Unpredicted> {
        let before = self.survey.height(AxleEnd::Rear, state).ok_or(Unpredicted::NotMeasured)?;
        if state == LoadState::Loaded {
            if self.loads.change.rear.is_none() {
                return Err(Unpredicted::NotMeasured);
            }
            if matches!(self.rate, RateVerdict::OnTheStops { .. }) {
                return Err(Unpredicted::OnTheStops);
            }
        }
        let figures = self.figures(BEST);
        let (plain, fitted) = (self.plain(state, &figures)?, self.fitted(correction, state, &figures)?);
        let rise = self.at_datum(&fitted) - self.at_datum(&plain);
        let known_rate = self.rate.measured().is_some();
        if !known_rate && self.depends_on_rate(correction, state, rise)? {
            return Err(Unpredicted::NeedsRate);
        }
        let friction = self.friction(&fitted);
        let sd = self.reading_sd(correction, state)?.hypot(friction.si() / 2.0);
        Ok(PredictedState {
            rear: Uncertain::new(before.value + rise, metres(sd)),
            front: self.survey.height(AxleEnd::Front, state),
            rear_before: before.value,
            rise,
            friction,
            travel_left: self.travel_left(correction, state, &plain, &fitted),
            frequency_before: plain.ride_frequency.filter(|_| known_rate),
            frequency_after: fitted.ride_frequency.filter(|_| known_rate),
        })
    }

    /// Standard deviation of the predicted height from everything but friction, in metres.
    fn reading_sd(&self, correction: &Correction, state: LoadState) -> Result<f64, Unpredicted> {
        let measured = self.survey.height(AxleEnd::Rear, state).ok_or(Unpredicted::NotMeasured)?;
        if correction.needs_no_rate(state) {
            return Ok(measured.sd.si());
        }
        let mut total = 0.0_f64;
        let staged = self.rate.measured().is_some_and(|figure| figure.stages.is_some());
        for (index, source) in OFFSETS.iter().enumerate() {
            if source.iter().all(|offsets| offsets.stage.abs() > 0.0) && !staged {
                continue;
            }
            let mut heights = [0.0; 2];
            for ((which, offsets), height) in source.iter().enumerate().zip(&mut heights) {
                let off = match state {
                    LoadState::Empty => offsets.empty_height,
                    LoadState::Loaded => offsets.loaded_height,
                };
                let fitted = self.fitted(correction, state, &self.figures(*offsets))?;
                let plain = self.plain_change(state, 2 * index + which)?;
                *height = (off * measured.sd + self.at_datum(&fitted) - plain).si();
            }
            let [up, down] = heights;
            total = total.hypot((up - down) / 2.0);
        }
        Ok(total)
    }

    /// What the tape would see of the vehicle as it is, with the readings off by a set of [`OFFSETS`].
    fn plain_change(&self, state: LoadState, set: usize) -> Result<Length, Unpredicted> {
        match state {
            // The empty vehicle is the one that changes are counted from.
            LoadState::Empty => Ok(metres(0.0)),
            LoadState::Loaded => {
                let sets = self.loaded_plain.get_or_init(|| {
                    let change = |offsets: &Offsets| Ok(self.at_datum(&self.plain(LoadState::Loaded, &self.figures(*offsets))?));
                    OFFSETS.iter().flatten().map(change).collect()
                });
                sets.get(set).copied().unwrap_or(Err(Unpredicted::OutsideTheModel))
            }
        }
    }

    /// The figures the model is made with when the readings are off by so much.
    fn figures(&self, offsets: Offsets) -> Figures {
        let assumed = self.survey.vehicle.assumptions();
        let rear_tyre_rate = assumed.rear_tyre_rate * (1.0 + ASSUMED_TYRE_SD * offsets.tyre);
        let change = |change: Option<Uncertain<Force>>, off: f64| change.map_or(newtons(0.0), |c| c.value + off * c.sd);
        let rear_change = change(self.loads.change.rear, offsets.load_change);
        let rear_rate = match self.rate.measured() {
            None => assumed.rear_rate,
            Some(figure) => {
                let sd = |state| self.survey.height(AxleEnd::Rear, state).map_or(0.0, |height| height.sd.si());
                let drop = figure.drop.value.si() + offsets.empty_height * sd(LoadState::Empty)
                    - offsets.loaded_height * sd(LoadState::Loaded);
                let tyres = if self.survey.datum.includes_tyre() { 1.0 / (2.0 * rear_tyre_rate.si()) } else { 0.0 };
                let compliance = drop / rear_change.si() - tyres;
                // A reading off by a standard deviation can at worst make a rough rate very stiff, never negative.
                newtons_per_metre(1.0 / compliance.max(0.02 / figure.rate.si()))
            }
        };
        // Where the drop went past the second stage, the measured rate is a mean of two, and is taken apart.
        let shift = (1.0 + ASSUMED_RATE_SD * offsets.stage).max(0.0);
        let measured = self.rate.measured().filter(|figure| figure.stages.is_some());
        let stages = measured.and_then(|_| MeasuredStages::of(self.survey, rear_rate, rear_change, shift));
        let front_change = change(self.loads.change.front, 0.0);
        match stages {
            None => Figures { rear_rate, rear_stage: None, rear_tyre_rate, rear_change, front_change },
            Some(stages) => {
                let rear_stage = Some((stages.from, stages.added));
                Figures { rear_rate: stages.first, rear_stage, rear_tyre_rate, rear_change, front_change }
            }
        }
    }

    /// The rear axle as it is.
    fn plain(&self, state: LoadState, figures: &Figures) -> Result<AxleStance, Unpredicted> {
        self.rear(&self.aboard(state, figures), figures, true)
    }

    /// The rear axle with the correction.
    fn fitted(&self, correction: &Correction, state: LoadState, figures: &Figures) -> Result<AxleStance, Unpredicted> {
        let changed = self.aboard(state, figures).changed(correction.changes(figures.rear_rate));
        self.rear(&changed, figures, !correction.replaces_stops())
    }

    fn aboard(&self, state: LoadState, figures: &Figures) -> State {
        match state {
            LoadState::Empty => State::with_loads("empty", Vec::new()),
            LoadState::Loaded => loaded_state(self.survey.vehicle.wheelbase, figures),
        }
    }

    fn rear(&self, state: &State, figures: &Figures, keep_stops: bool) -> Result<AxleStance, Unpredicted> {
        match settle(&vehicle(self.survey, &self.loads, figures, keep_stops), state) {
            Ok(Outcome::Settled(stance)) => {
                stance.axles.into_iter().find(|axle| *axle.name == *REAR).ok_or(Unpredicted::OutsideTheModel)
            }
            Ok(Outcome::NoEquilibrium) | Err(_) => Err(Unpredicted::OutsideTheModel),
        }
    }

    fn depends_on_rate(&self, correction: &Correction, state: LoadState, rise: Length) -> Result<bool, Unpredicted> {
        for share in [1.0 - ASSUMED_RATE_SD, 1.0 + ASSUMED_RATE_SD] {
            let mut figures = self.figures(BEST);
            figures.rear_rate *= share;
            let (plain, fitted) = (self.plain(state, &figures)?, self.fitted(correction, state, &figures)?);
            if (self.at_datum(&fitted) - self.at_datum(&plain) - rise).si().abs() > SAME_M {
                return Ok(true);
            }
        }
        Ok(false)
    }

    /// The change a tape sees from this survey's datum; left and right are alike.
    fn at_datum(&self, axle: &AxleStance) -> Length {
        if self.survey.datum.includes_tyre() { axle.ground_to_arch_change.left } else { axle.hub_to_arch_change.left }
    }

    fn friction(&self, fitted: &AxleStance) -> Length {
        let share = if self.survey.rolled_and_bounced { FRICTION_ROLLED } else { FRICTION };
        let spring_load = fitted.load() - self.survey.vehicle.assumptions().rear_unsprung;
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
