//! Vehicle, doubts and measured states brought together. Raw SI `f64` inside.

use super::doubt::Doubt;
use super::friction::LeafFriction;
use super::measured::{MeasuredState, Measurement, TapeMark};
use crate::stance::{Outcome, Solver, Stance, StanceError, State, Vehicle};
use crate::units::{Force, InShopUnits, Length, metres, newtons};

/// A vehicle, what about it is in doubt, and what was read of it.
#[derive(Debug, Clone, PartialEq)]
pub struct Experiment {
    /// The vehicle at kerb as it is believed to be.
    pub vehicle: Vehicle,
    /// What about it may be off.
    pub doubts: Vec<Doubt>,
    /// On which axles leaves rub on each other; an axle of another kind comes to rest where its springs say.
    pub friction: Vec<LeafFriction>,
    /// The states it was measured in, and those that are only to be predicted.
    pub states: Vec<MeasuredState>,
}

/// Why nothing can be identified or predicted.
#[derive(Debug, Clone, PartialEq, thiserror::Error)]
#[non_exhaustive]
pub enum IdentificationError {
    /// The vehicle or a state has no meaning.
    #[error(transparent)]
    Stance(#[from] StanceError),
    /// A state has no meaning, or its forces came to no balance.
    #[error("in the state “{state}”: {source}")]
    InState {
        /// Which.
        state: String,
        /// Why.
        source: StanceError,
    },
    /// With these figures the vehicle does not stand in a state.
    #[error("in the state “{0}” the vehicle does not stand")]
    Tips(String),
    /// A doubt, a reading or its precision that is no finite number above nought where it must be.
    #[error("{0} must be a finite number above zero")]
    NotPositive(String),
    /// Leaf friction past what leaves have.
    #[error("the leaf friction of axle “{0}” and its doubt must be shares above 0, at most 1, and given once")]
    Friction(String),
    /// A reading of something the vehicle does not have.
    #[error("in the state “{0}” something was read that this vehicle does not have")]
    NothingThere(String),
    /// A state that the experiment does not have.
    #[error("there is no state of number {0}")]
    NoSuchState(usize),
    /// No figures were found at which model and readings agree best.
    #[error("the figures did not settle on a best agreement with the readings")]
    NotSettled,
}

/// What one place in the list of figures stands for. Figures are counted in their own prior standard deviations, heights
/// at kerb in metres.
#[derive(Debug, Clone, PartialEq)]
pub(super) enum Unknown {
    Doubt(usize),
    LoadWeight {
        state: usize,
        load: usize,
    },
    LoadPlace {
        state: usize,
        load: usize,
    },
    Settling {
        state: usize,
        place: String,
    },
    /// What the leaves at a corner push too much in a state, in newtons for each standard deviation.
    Friction {
        state: usize,
        axle: String,
        newtons: f64,
    },
    /// Logarithm of how strong an axle's leaf friction is beside what was believed; what a corner pushes too much in each state by what
    /// was believed, in newtons.
    FrictionSize {
        axle: String,
        relative_sd: f64,
        newtons: Vec<f64>,
    },
    KerbHeight(TapeMark),
}

/// Standard deviation of a height at kerb before it is read, m: any vehicle's.
const ANY_HEIGHT: f64 = 10.0;

impl Experiment {
    pub(super) fn check(&self) -> Result<(), IdentificationError> {
        let positive = |what: &dyn Fn() -> String, value: f64| match value.is_finite() && value > 0.0 {
            true => Ok(()),
            false => Err(IdentificationError::NotPositive(what())),
        };
        for doubt in &self.doubts {
            let there = |name: &String| self.vehicle.axles.iter().any(|axle| axle.name == *name);
            if let Some(missing) = doubt.axles.iter().find(|name| !there(name)) {
                return Err(StanceError::NoSuchAxle(missing.clone()).into());
            }
            positive(&|| format!("the doubt about axle “{}”", doubt.axles.join("”, “")), doubt.relative_sd)?;
        }
        for (place, friction) in self.friction.iter().enumerate() {
            let axle = &friction.axle;
            if !self.vehicle.axles.iter().any(|there| there.name == *axle) {
                return Err(StanceError::NoSuchAxle(axle.clone()).into());
            }
            let twice = self.friction.iter().take(place).any(|other| other.axle == *axle);
            let sound = |share: f64| share > 0.0 && share <= 1.0;
            if twice || !sound(friction.share) || !sound(friction.relative_sd) {
                return Err(IdentificationError::Friction(axle.clone()));
            }
        }
        for state in &self.states {
            let name = &state.state.name;
            state.state.check().map_err(|source| in_state(&state.state, source))?;
            for reading in &state.readings {
                let (value, sd) = reading.si();
                positive(&|| format!("the precision of a reading in the state “{name}”"), sd)?;
                if !value.is_finite() {
                    return Err(IdentificationError::NotPositive(format!("a reading in the state “{name}”")));
                }
            }
            let precisions = state.load_doubts.iter().flat_map(|doubt| [doubt.weight.si(), doubt.position.si()]);
            if let Some(bad) = precisions.chain([state.settling.si()]).find(|sd| !sd.is_finite() || *sd < 0.0) {
                return Err(IdentificationError::NotPositive(format!("a precision of {bad} in the state “{name}”")));
            }
        }
        Ok(())
    }

    /// Every figure in doubt; `friction` as it is believed to be by now.
    pub(super) fn figures(&self, friction: &[LeafFriction]) -> Result<Vec<Unknown>, IdentificationError> {
        let mut figures: Vec<Unknown> = (0..self.doubts.len()).map(Unknown::Doubt).collect();
        for (index, measured) in self.states.iter().enumerate() {
            for (load, doubt) in measured.load_doubts.iter().enumerate().take(measured.state.loads.len()) {
                figures.extend((doubt.weight.si() > 0.0).then_some(Unknown::LoadWeight { state: index, load }));
                figures.extend((doubt.position.si() > 0.0).then_some(Unknown::LoadPlace { state: index, load }));
            }
            let marks = || measured.readings.iter().filter_map(Measurement::mark);
            for place in marks().map(TapeMark::settles_with).filter(|_| measured.settling.si() > 0.0) {
                let figure = Unknown::Settling { state: index, place: place.to_owned() };
                if !figures.contains(&figure) {
                    figures.push(figure);
                }
            }
            for mark in marks() {
                let figure = Unknown::KerbHeight(mark.clone());
                if !figures.contains(&figure) {
                    figures.push(figure);
                }
            }
        }
        for (believed, now) in self.friction.iter().zip(friction) {
            figures.extend(self.friction_of(believed, now)?);
        }
        Ok(figures)
    }

    /// The figures of an axle's leaf friction: its own in every state that was read and, where it was pressed down or lifted in one,
    /// how strong it is.
    fn friction_of(&self, believed: &LeafFriction, now: &LeafFriction) -> Result<Vec<Unknown>, IdentificationError> {
        let (mut figures, mut size) = (Vec::new(), vec![0.0; self.states.len()]);
        for (state, (measured, by_size)) in self.states.iter().zip(&mut size).enumerate() {
            if !measured.readings.iter().any(|reading| reading.mark().is_some()) {
                continue;
            }
            let carried = self.carried_by_a_corner(&believed.axle, &measured.state)?;
            let newtons = measured.rest.spread() * now.sd() * carried;
            figures.push(Unknown::Friction { state, axle: believed.axle.clone(), newtons });
            *by_size = measured.rest.pull() * believed.share * carried;
        }
        if size.iter().any(|newtons| *newtons != 0.0) {
            let (axle, relative_sd) = (believed.axle.clone(), believed.relative_sd);
            figures.push(Unknown::FrictionSize { axle, relative_sd, newtons: size });
        }
        Ok(figures)
    }

    /// What the springs at a corner of an axle carry in a state, by the vehicle as it is believed to be.
    fn carried_by_a_corner(&self, axle: &str, state: &State) -> Result<f64, IdentificationError> {
        self.on_the_springs(axle, state).map(|(carried, _)| carried / 2.0)
    }

    /// How far an axle would move were friction as much as all that its springs carry in a state.
    pub(super) fn held_by_all_of_its_load(&self, axle: &str, state: &State) -> Result<Length, IdentificationError> {
        self.on_the_springs(axle, state).map(|(carried, rate)| metres(carried / rate))
    }

    /// What an axle's springs carry in a state (N), and their rate there (N/m).
    fn on_the_springs(&self, axle: &str, state: &State) -> Result<(f64, f64), IdentificationError> {
        let stance = stand(&self.vehicle, state)?;
        let there = self.vehicle.axles.iter().find(|of| of.name == axle).zip(stance.axle(axle));
        let (axle, stands) = there.ok_or_else(|| StanceError::NoSuchAxle(axle.to_owned()))?;
        Ok(((stands.load() - axle.unsprung_weight).si().max(0.0), stands.spring_rate.si()))
    }

    /// Standard deviation of a figure before anything is read, in the units it is counted in.
    pub(super) fn prior_sd(figure: &Unknown) -> f64 {
        if matches!(figure, Unknown::KerbHeight(_)) { ANY_HEIGHT } else { 1.0 }
    }

    /// The vehicle with the figures laid over it.
    pub(super) fn vehicle_at(&self, figures: &[Unknown], at: &[f64]) -> Vehicle {
        let mut vehicle = self.vehicle.clone();
        for (figure, value) in figures.iter().zip(at) {
            if let Unknown::Doubt(index) = figure
                && let Some(doubt) = self.doubts.get(*index)
            {
                doubt.apply(&mut vehicle, value * doubt.relative_sd);
            }
        }
        vehicle
    }

    /// A state with its loads off by as much as the figures say.
    pub(super) fn state_at(&self, index: usize, figures: &[Unknown], at: &[f64]) -> Result<State, IdentificationError> {
        let mut state = self.states.get(index).ok_or(IdentificationError::NoSuchState(index))?.state.clone();
        for (figure, value) in figures.iter().zip(at) {
            self.load_off(&mut state, index, figure, *value);
        }
        Ok(state)
    }

    /// A state as it was read, its loads off by as much as the figures say; what is changed on the vehicle is left out.
    pub(super) fn loads_at(
        &self,
        index: usize,
        figures: &[Unknown],
        at: &[f64],
        moving: impl Iterator<Item = usize>,
    ) -> Option<State> {
        let measured = self.states.get(index)?;
        let mut state = State { changes: Vec::new(), ..measured.state.clone() };
        for place in moving {
            self.load_off(&mut state, index, figures.get(place)?, *at.get(place)?);
        }
        Some(state)
    }

    /// Lays a figure of the loads over a state.
    pub(super) fn load_off(&self, state: &mut State, index: usize, figure: &Unknown, value: f64) {
        let (Unknown::LoadWeight { state: of, load } | Unknown::LoadPlace { state: of, load }) = figure else { return };
        let doubt = self.states.get(index).and_then(|measured| measured.load_doubts.get(*load));
        let (Some(load), Some(doubt)) = (state.loads.get_mut(*load).filter(|_| *of == index), doubt) else { return };
        match figure {
            Unknown::LoadWeight { .. } => load.weight += value * doubt.weight,
            _ => load.position += value * doubt.position,
        }
    }

    /// What the readings of a state would say were the vehicle to stand so; heights counted from kerb, their kerb height and settling
    /// left out.
    pub(super) fn shown(&self, index: usize, stance: &Stance) -> Result<Vec<f64>, IdentificationError> {
        let measured = self.states.get(index).ok_or(IdentificationError::NoSuchState(index))?;
        let nothing = || IdentificationError::NothingThere(measured.state.name.clone());
        measured.readings.iter().map(|reading| reading.modelled(stance).ok_or_else(nothing)).collect()
    }

    /// What a figure adds to a height of a mark in a state, per unit of the figure, beside what the model says.
    pub(super) fn adds(&self, figure: &Unknown, state: usize, mark: &TapeMark) -> f64 {
        match figure {
            Unknown::KerbHeight(of) if of == mark => 1.0,
            Unknown::Settling { state: of, place } if *of == state && mark.settles_with() == place => {
                self.states.get(state).map_or(0.0, |measured| measured.settling.si())
            }
            _ => 0.0,
        }
    }

    /// Where to begin: what was believed, and the heights as first read.
    pub(super) fn start(&self, figures: &[Unknown]) -> Vec<f64> {
        let readings = || self.states.iter().flat_map(|state| &state.readings);
        let first =
            |mark: &TapeMark| readings().find(|reading| reading.mark() == Some(mark)).map_or(0.0, |reading| reading.si().0);
        figures.iter().map(|figure| if let Unknown::KerbHeight(mark) = figure { first(mark) } else { 0.0 }).collect()
    }
}

fn stand(vehicle: &Vehicle, state: &State) -> Result<Stance, IdentificationError> {
    // A load that is off by a little may come to less than nothing.
    let settled = Solver::new(vehicle, &state.changes).and_then(|mut solver| solver.settle_with_lift(state));
    match settled.map_err(|source| in_state(state, source))? {
        Outcome::Settled(stance) => Ok(stance),
        Outcome::NoEquilibrium => Err(IdentificationError::Tips(state.name.clone())),
    }
}

pub(super) fn in_state(state: &State, source: StanceError) -> IdentificationError {
    IdentificationError::InState { state: state.name.clone(), source }
}

impl Unknown {
    /// The state that it belongs to alone; `None` of what all states share.
    pub(super) fn owner(&self) -> Option<usize> {
        match self {
            Unknown::LoadWeight { state, .. }
            | Unknown::LoadPlace { state, .. }
            | Unknown::Settling { state, .. }
            | Unknown::Friction { state, .. } => Some(*state),
            Unknown::Doubt(_) | Unknown::FrictionSize { .. } | Unknown::KerbHeight(_) => None,
        }
    }

    /// How much an axle's springs push too much at each wheel in a state by a figure of leaf friction.
    pub(super) fn holds(&self, state: usize, value: f64) -> Option<(&str, Force)> {
        match self {
            Unknown::Friction { state: of, axle, newtons: each } if *of == state => Some((axle, newtons(each * value))),
            Unknown::FrictionSize { axle, relative_sd, newtons: by_state } => {
                Some((axle, newtons(by_state.get(state)? * (relative_sd * value).exp())))
            }
            _ => None,
        }
    }

    /// Whether the vehicle comes to rest elsewhere in a state when it moves: the model must be solved again.
    pub(super) fn moves_the_rest_in(&self, state: usize) -> bool {
        match self {
            Unknown::Doubt(_) => true,
            Unknown::LoadWeight { state: of, .. } | Unknown::LoadPlace { state: of, .. } => *of == state,
            _ => false,
        }
    }

    /// Whether the model must be solved again for what was read in a state: leaf friction moves that, and not where the vehicle would
    /// come to rest.
    pub(super) fn moves_the_readings_in(&self, state: usize) -> bool {
        match self {
            Unknown::Friction { state: of, .. } => *of == state,
            Unknown::FrictionSize { newtons, .. } => newtons.get(state).is_some_and(|newtons| *newtons != 0.0),
            _ => self.moves_the_rest_in(state),
        }
    }
}
