//! One axle of an experiment seen alone: what lies on it and how high it stands, state by state.

use super::experiment::{Experiment, IdentificationError, in_state};
use super::measured::{MeasuredState, Measurement, TapeMark};
use crate::axle_rate::AxleState;
use crate::stance::{Outcome, StanceError, State, settle};
use crate::tape::Datum;
use crate::uncertain::Uncertain;
use crate::units::{InShopUnits, Length, metres, newtons};

impl Experiment {
    /// The states of one axle for [`crate::axle_rate::fit_rate`], and the datum they were read from: every state in which
    /// both its sides were read (or their mean) from that datum, with nothing changed on the vehicle.
    ///
    /// Loads are shared by the model as the vehicle was given; on two axles that is lever arms alone.
    ///
    /// # Errors     [`IdentificationError`] when a state does not stand
    pub fn axle_states(&self, axle: &str) -> Result<Option<(Datum, Vec<AxleState>)>, IdentificationError> {
        let Some(datum) = self.states.iter().flat_map(|state| &state.readings).find_map(|reading| datum_of(reading, axle)) else {
            return Ok(None);
        };
        let mut states = Vec::new();
        for measured in self.states.iter().filter(|measured| measured.state.changes.is_empty()) {
            if let Some(height) = mean_height(measured, axle, datum) {
                states.push(AxleState { load: self.axle_load(measured, axle)?, height: self.at_rest(measured, axle, height)? });
            }
        }
        Ok(Some((datum, states)))
    }

    /// A height that was read, with what leaf friction leaves open of where the axle would come to rest: `F/k` by the vehicle as given.
    fn at_rest(
        &self,
        measured: &MeasuredState,
        axle: &str,
        read: Uncertain<Length>,
    ) -> Result<Uncertain<Length>, IdentificationError> {
        let Some(friction) = self.friction.iter().find(|friction| friction.axle == axle) else { return Ok(read) };
        let full = self.held_by_all_of_its_load(axle, &measured.state)?;
        let pull = measured.rest.pull() * friction.share;
        let share_sd = (measured.rest.spread() * friction.sd()).hypot(pull * friction.relative_sd);
        Ok(Uncertain::new(read.value - pull * full, Length::hypot(read.sd, share_sd * full)))
    }

    /// What lies on an axle in a state; each load's weight and place is moved by its standard deviation in turn.
    fn axle_load(&self, measured: &MeasuredState, axle: &str) -> Result<Uncertain<crate::units::Force>, IdentificationError> {
        let on_axle = |state: &State| match settle(&self.vehicle, state).map_err(|source| in_state(state, source))? {
            Outcome::Settled(stance) => {
                let found = stance.axle(axle).ok_or_else(|| StanceError::NoSuchAxle(axle.to_owned()))?;
                Ok(found.load().si())
            }
            Outcome::NoEquilibrium => Err(IdentificationError::Tips(state.name.clone())),
        };
        let stated = on_axle(&measured.state)?;
        let mut variance = 0.0;
        for (place, doubt) in measured.load_doubts.iter().enumerate() {
            for (weight, position) in [(doubt.weight, metres(0.0)), (newtons(0.0), doubt.position)] {
                let mut moved = measured.state.clone();
                if let Some(load) = moved.loads.get_mut(place) {
                    load.weight += weight;
                    load.position += position;
                }
                variance += (on_axle(&moved)? - stated).powi(2);
            }
        }
        Ok(Uncertain::new(newtons(stated), newtons(variance.sqrt())))
    }
}

fn datum_of(reading: &Measurement, of: &str) -> Option<Datum> {
    match reading {
        Measurement::Height { mark: TapeMark::Arch { axle, datum, .. }, .. } if axle == of => Some(*datum),
        _ => None,
    }
}

/// The axle's own height in a state: the mean of its sides, with tape and settling in its standard deviation.
fn mean_height(measured: &MeasuredState, of: &str, from: Datum) -> Option<Uncertain<Length>> {
    let read = |wanted| {
        measured.readings.iter().find_map(|reading| match reading {
            Measurement::Height { mark: TapeMark::Arch { axle, side, datum }, height }
                if axle == of && *datum == from && *side == wanted =>
            {
                Some(*height)
            }
            _ => None,
        })
    };
    let mean = read(None).or_else(|| {
        let (left, right) = (read(Some(crate::side::Side::Left))?, read(Some(crate::side::Side::Right))?);
        let sd = metres(left.sd.si().hypot(right.sd.si()) / 2.0);
        Some(Uncertain::new((left.value + right.value) / 2.0, sd))
    })?;
    Some(Uncertain::new(mean.value, Length::hypot(mean.sd, measured.settling)))
}
