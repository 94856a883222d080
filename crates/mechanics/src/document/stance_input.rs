//! Reading a `wise-badger/stance` document, version 1, into a vehicle and its states.

use serde::Deserialize;

use super::reading::{at_most, document};
use super::state_input::StateText;
use super::vehicle_input::VehicleText;
use super::{DocumentError, StanceResult};
use crate::stance::{State, Vehicle, settle};

const FORMAT: &str = "wise-badger/stance";
pub(super) const MOST_STATES: usize = 1_000;

/// A vehicle and the states asked about, as read from a document.
#[derive(Debug, Clone, PartialEq)]
pub struct StanceDocument {
    /// The vehicle at kerb weight.
    pub vehicle: Vehicle,
    /// The states, in the document's order.
    pub states: Vec<State>,
}

impl StanceDocument {
    /// Reads a document.
    ///
    /// # Errors     [`DocumentError`] names the field
    pub fn read(json: &str) -> Result<Self, DocumentError> {
        let text: DocumentText = document(json, FORMAT)?;
        at_most("states", text.states.len(), MOST_STATES)?;
        let vehicle = text.vehicle.into_vehicle()?;
        let states = text.states.into_iter().enumerate();
        let states =
            states.map(|(index, state)| state.into_state(&format!("states[{index}]"), &vehicle)).collect::<Result<_, _>>()?;
        Ok(StanceDocument { vehicle, states })
    }

    /// Solves every state.
    ///
    /// # Errors     [`DocumentError::Stance`] names the state that could not be solved
    pub fn solve(&self) -> Result<StanceResult, DocumentError> {
        let answers = self.states.iter().map(|state| {
            settle(&self.vehicle, state)
                .map(|outcome| (state.name.clone(), outcome))
                .map_err(|source| DocumentError::Stance { state: state.name.clone(), source })
        });
        Ok(StanceResult::new(answers.collect::<Result<Vec<_>, _>>()?))
    }
}

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct DocumentText {
    #[serde(rename = "format")]
    _format: String,
    #[serde(rename = "version")]
    _version: u64,
    vehicle: VehicleText,
    states: Vec<StateText>,
}
