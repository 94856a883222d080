//! Writing a `wise-badger/stance-result` document, version 1.

use std::collections::BTreeMap;

use serde::Serialize;

use crate::side::Side;
use crate::stance::{AxleStance, Outcome, Stance};
use crate::units::InShopUnits;

/// The answers to a stance document, ready to be written as JSON.
#[derive(Debug, Serialize)]
pub struct StanceResult {
    format: &'static str,
    version: u64,
    states: Vec<StateResult>,
}

#[derive(Debug, Serialize)]
struct StateResult {
    name: String,
    status: &'static str,
    #[serde(flatten)]
    stance: Option<StanceFigures>,
}

#[derive(Debug, Serialize)]
struct StanceFigures {
    heave_m: f64,
    pitch_rad: f64,
    roll_rad: f64,
    ground_to_arch_change_m: BTreeMap<String, f64>,
    hub_to_arch_change_m: BTreeMap<String, f64>,
    wheel_loads_n: BTreeMap<String, f64>,
    axle_loads_n: BTreeMap<String, f64>,
    gaps_m: BTreeMap<String, f64>,
    point_rise_m: BTreeMap<String, f64>,
    ride_frequency_hz: BTreeMap<String, f64>,
    #[serde(skip_serializing_if = "Option::is_none")]
    tongue_weight_n: Option<f64>,
}

impl StanceResult {
    pub(super) fn new(answers: Vec<(String, Outcome)>) -> Self {
        let states = answers.into_iter().map(|(name, outcome)| match outcome {
            Outcome::Settled(stance) => StateResult { name, status: "settled", stance: Some(StanceFigures::new(&stance)) },
            Outcome::NoEquilibrium => StateResult { name, status: "no_equilibrium", stance: None },
        });
        StanceResult { format: "wise-badger/stance-result", version: 1, states: states.collect() }
    }

    /// The document's text.
    pub fn to_json(&self) -> String {
        serde_json::to_string_pretty(self).expect("maps keyed by text and finite numbers are always JSON")
    }
}

impl StanceFigures {
    fn new(stance: &Stance) -> Self {
        let by_wheel = |figure: &dyn Fn(&AxleStance, Side) -> f64| {
            let wheels = stance.axles.iter().flat_map(|axle| Side::BOTH.map(|side| (axle, side)));
            wheels.map(|(axle, side)| (format!("{}.{}", axle.name, side.name()), figure(axle, side))).collect()
        };
        let gaps = stance.axles.iter().flat_map(|axle| {
            axle.gaps.iter().map(|gap| (format!("{}.{}.{}", axle.name, gap.side.name(), gap.element), gap.gap.si()))
        });
        StanceFigures {
            heave_m: stance.heave.si(),
            pitch_rad: stance.pitch.value,
            roll_rad: stance.roll.value,
            ground_to_arch_change_m: by_wheel(&|axle, side| axle.ground_to_arch_change.get(side).si()),
            hub_to_arch_change_m: by_wheel(&|axle, side| axle.hub_to_arch_change.get(side).si()),
            wheel_loads_n: by_wheel(&|axle, side| axle.wheel_loads.get(side).si()),
            axle_loads_n: stance.axles.iter().map(|axle| (axle.name.to_string(), axle.load().si())).collect(),
            gaps_m: gaps.collect(),
            point_rise_m: stance.points.iter().map(|(name, rise)| (name.to_string(), rise.si())).collect(),
            ride_frequency_hz: stance
                .axles
                .iter()
                .filter_map(|axle| axle.ride_frequency.map(|frequency| (axle.name.to_string(), frequency.value)))
                .collect(),
            tongue_weight_n: stance.tongue_weight.map(|weight| weight.si()),
        }
    }
}
