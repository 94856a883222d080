//! Writing a `wise-badger/pack-result` document, version 1.

use serde::Serialize;

use crate::pack::{Contact, Pack, PackState};
use crate::units::{Force, InShopUnits};

/// The answers to a pack document, ready to be written as JSON.
#[derive(Debug, Serialize)]
pub struct PackResult {
    format: &'static str,
    version: u64,
    states: Vec<StateResult>,
    #[serde(skip_serializing_if = "Option::is_none")]
    second_stage_load_n: Option<f64>,
}

#[derive(Debug, Serialize)]
struct StateResult {
    load_n: f64,
    arch_linear_m: f64,
    #[serde(skip_serializing_if = "Option::is_none")]
    arch_m: Option<f64>,
    #[serde(skip_serializing_if = "std::ops::Not::not")]
    outside_model: bool,
    rate_n_per_m: f64,
    seat_tilt_rad: f64,
    leaves: Vec<LeafResult>,
    contacts: Vec<ContactResult>,
}

#[derive(Debug, Serialize)]
struct LeafResult {
    name: String,
    front_peak_stress_pa: f64,
    rear_peak_stress_pa: f64,
}

#[derive(Debug, Serialize)]
struct ContactResult {
    upper: String,
    lower: String,
    half: &'static str,
    from_m: f64,
    to_m: f64,
    force_n: f64,
}

impl PackResult {
    pub(super) fn new(pack: &Pack, states: &[PackState], second_stage: Option<Force>) -> Self {
        PackResult {
            format: "wise-badger/pack-result",
            version: 1,
            states: states.iter().map(|state| StateResult::new(pack, state)).collect(),
            second_stage_load_n: second_stage.map(|load| load.si()),
        }
    }

    /// The document's text.
    pub fn to_json(&self) -> String {
        serde_json::to_string_pretty(self).expect("lists of text and finite numbers are always JSON")
    }
}

impl StateResult {
    fn new(pack: &Pack, state: &PackState) -> Self {
        let name = |leaf: usize| pack.leaves.get(leaf).map(|leaf| leaf.name.clone()).unwrap_or_default();
        let leaves = state.leaves.iter().enumerate().map(|(leaf, stress)| LeafResult {
            name: name(leaf),
            front_peak_stress_pa: stress.front.value,
            rear_peak_stress_pa: stress.rear.value,
        });
        let contact = |contact: &Contact| ContactResult {
            upper: name(contact.upper),
            lower: name(contact.lower),
            half: contact.half.name(),
            from_m: contact.from.si(),
            to_m: contact.to.si(),
            force_n: contact.force.si(),
        };
        StateResult {
            load_n: state.load.si(),
            arch_linear_m: state.arch_linear.si(),
            arch_m: state.arch.map(|arch| arch.si()),
            outside_model: state.arch.is_none(),
            rate_n_per_m: state.rate.si(),
            seat_tilt_rad: state.seat_tilt.value,
            leaves: leaves.collect(),
            contacts: state.contacts.iter().map(contact).collect(),
        }
    }
}
