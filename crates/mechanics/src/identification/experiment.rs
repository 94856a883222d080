//! Vehicle, doubts and measured states brought together. Raw SI `f64` inside.

use super::doubt::Doubt;
use super::measured::{MeasuredState, Measurement, TapeMark};
use crate::stance::{Change, Load, Outcome, Solver, Stance, StanceError, State, Vehicle};
use crate::units::InShopUnits;

/// A vehicle, what about it is in doubt, and what was read of it.
#[derive(Debug, Clone, PartialEq)]
pub struct Experiment {
    /// The vehicle at kerb as it is believed to be.
    pub vehicle: Vehicle,
    /// What about it may be off.
    pub doubts: Vec<Doubt>,
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
    LoadWeight { state: usize, load: usize },
    LoadPlace { state: usize, load: usize },
    Settling { state: usize, place: String },
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

    pub(super) fn figures(&self) -> Vec<Unknown> {
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
        figures
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
    fn state_at(&self, index: usize, figures: &[Unknown], at: &[f64]) -> Result<State, IdentificationError> {
        let measured = self.states.get(index).ok_or(IdentificationError::NoSuchState(index))?;
        let mut state = measured.state.clone();
        for (figure, value) in figures.iter().zip(at) {
            let (Unknown::LoadWeight { state: of, load } | Unknown::LoadPlace { state: of, load }) = figure else { continue };
            let (Some(load), Some(doubt)) = (state.loads.get_mut(*load), measured.load_doubts.get(*load)) else { continue };
            match figure {
                _ if *of != index => {}
                Unknown::LoadWeight { .. } => load.weight += *value * doubt.weight,
                _ => load.position += *value * doubt.position,
            }
        }
        Ok(state)
    }

    /// Where the vehicle stands in a state with the figures laid over it, and with changes made for such a vehicle.
    pub(super) fn stance_at(
        &self,
        index: usize,
        figures: &[Unknown],
        at: &[f64],
        changes: impl Fn(&Vehicle) -> Vec<Change>,
    ) -> Result<Stance, IdentificationError> {
        let vehicle = self.vehicle_at(figures, at);
        let mut state = self.state_at(index, figures, at)?;
        state.changes.extend(changes(&vehicle));
        stand(&vehicle, &state)
    }

    /// Where it stands in a state with other loads aboard, and with changes made for such a vehicle.
    pub(super) fn stance_with_loads(
        &self,
        index: usize,
        figures: &[Unknown],
        at: &[f64],
        loads: &[Load],
        changes: impl Fn(&Vehicle) -> Vec<Change>,
    ) -> Result<Stance, IdentificationError> {
        let vehicle = self.vehicle_at(figures, at);
        let mut state = State { loads: loads.to_vec(), ..self.state_at(index, figures, at)? };
        state.changes.extend(changes(&vehicle));
        stand(&vehicle, &state)
    }

    /// What the model says of every reading of a state; heights counted from kerb, their kerb height and settling left out.
    pub(super) fn modelled(&self, index: usize, figures: &[Unknown], at: &[f64]) -> Result<Vec<f64>, IdentificationError> {
        let measured = self.states.get(index).ok_or(IdentificationError::NoSuchState(index))?;
        if measured.readings.is_empty() {
            return Ok(Vec::new());
        }
        let stance = self.stance_at(index, figures, at, |_| Vec::new())?;
        let nothing = || IdentificationError::NothingThere(measured.state.name.clone());
        measured.readings.iter().map(|reading| reading.modelled(&stance).ok_or_else(nothing)).collect()
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
            Unknown::LoadWeight { state, .. } | Unknown::LoadPlace { state, .. } | Unknown::Settling { state, .. } => {
                Some(*state)
            }
            Unknown::Doubt(_) | Unknown::KerbHeight(_) => None,
        }
    }

    /// Whether the model must be solved again when it moves: in a state, or in all.
    pub(super) fn is_modelled_in(&self, state: usize) -> bool {
        match self {
            Unknown::Doubt(_) => true,
            Unknown::LoadWeight { state: of, .. } | Unknown::LoadPlace { state: of, .. } => *of == state,
            Unknown::Settling { .. } | Unknown::KerbHeight(_) => false,
        }
    }
}
