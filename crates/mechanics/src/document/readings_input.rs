//! Reading a `wise-badger/readings` document, version 1: a vehicle, what about it is in doubt, and what was read of it.

use serde::Deserialize;

use super::reading::{at_most, document};
use super::readings_result::AxleRate;
use super::stance_input::MOST_STATES;
use super::state_input::{ChangeText, SideText, StateText, into_changes, side};
use super::vehicle_input::VehicleText;
use super::{DocumentError, ReadingsResult};
use crate::axle_rate::{ContactSuspicion, RatePrior, TyresInHeight, fit_rate};
use crate::identification::{Doubt, Doubtful, Experiment, LeafFriction, LoadDoubt, MeasuredState, Measurement, Rest, TapeMark};
use crate::stance::{Change, Corner, Vehicle};
use crate::tape::Datum;
use crate::uncertain::Uncertain;
use crate::units::{metres, newtons};

const FORMAT: &str = "wise-badger/readings";
const MOST_DOUBTS: usize = 20;
const MOST_READINGS: usize = 100;

/// An experiment and what is to be predicted from it, as read from a document.
#[derive(Debug, Clone, PartialEq)]
pub struct ReadingsDocument {
    /// Vehicle, doubts and measured states.
    pub experiment: Experiment,
    /// What is asked.
    pub predictions: Vec<AskedPrediction>,
}

/// Where the vehicle would stand in one of the states with something changed.
#[derive(Debug, Clone, PartialEq)]
pub struct AskedPrediction {
    /// What it is called.
    pub name: String,
    /// Which state, by its place.
    pub state: usize,
    /// What is changed.
    pub changes: Vec<Change>,
}

impl ReadingsDocument {
    /// Reads a document.
    ///
    /// # Errors     [`DocumentError`] names the field
    pub fn read(json: &str) -> Result<Self, DocumentError> {
        let text: DocumentText = document(json, FORMAT)?;
        at_most("doubts", text.doubts.len(), MOST_DOUBTS)?;
        at_most("states", text.states.len(), MOST_STATES)?;
        at_most("predictions", text.predictions.len(), MOST_STATES)?;
        let vehicle = text.vehicle.into_vehicle()?;
        let states = text.states.into_iter().enumerate();
        let states = states
            .map(|(index, state)| state.into_measured(&format!("states[{index}]"), &vehicle))
            .collect::<Result<Vec<_>, _>>()?;
        let predictions = text.predictions.into_iter().enumerate();
        let predictions = predictions
            .map(|(index, asked)| asked.into_asked(&format!("predictions[{index}]"), &states))
            .collect::<Result<_, _>>()?;
        let doubts = text.doubts.into_iter().map(DoubtText::into_doubt).collect();
        at_most("friction", text.friction.len(), MOST_DOUBTS)?;
        let friction = text.friction.into_iter().map(FrictionText::into_friction).collect();
        Ok(ReadingsDocument { experiment: Experiment { vehicle, doubts, friction, states }, predictions })
    }

    /// Identifies the vehicle and makes every prediction.
    ///
    /// # Errors     [`DocumentError::Identification`]
    pub fn solve(self) -> Result<ReadingsResult, DocumentError> {
        let (doubts, states) = (self.experiment.doubts.clone(), self.experiment.states.clone());
        let axle_rates = axle_rates(&self.experiment)?;
        let identified = self.experiment.identify()?;
        let mut marks: Vec<&TapeMark> = Vec::new();
        for reading in states.iter().flat_map(|state| &state.readings) {
            if let Measurement::Height { mark, .. } = reading
                && !marks.contains(&mark)
            {
                marks.push(mark);
            }
        }
        let mut result = ReadingsResult::new(&doubts, &states, &identified, axle_rates);
        for asked in self.predictions {
            let plain = identified.forecast(asked.state, |_| Vec::new())?;
            let changed = identified.forecast(asked.state, |_| asked.changes.clone())?;
            result.predict(asked.name, &marks, &identified, &plain, &changed);
        }
        Ok(result)
    }
}

/// The rate of every axle that was read in two states or more and whose spring rate alone is in doubt, taken by itself: a
/// second stage and a hidden contact are looked for there.
fn axle_rates(experiment: &Experiment) -> Result<Vec<AxleRate>, DocumentError> {
    let mut rates = Vec::new();
    for doubt in experiment.doubts.iter().filter(|doubt| doubt.what == Doubtful::SpringRate) {
        let [name] = doubt.axles.as_slice() else { continue };
        let Some(axle) = experiment.vehicle.axles.iter().find(|axle| axle.name == *name) else { continue };
        let Some((datum, states)) = experiment.axle_states(name)?.filter(|(_, states)| states.len() >= 2) else { continue };
        // At the wheel, where the states are measured.
        let wheel_rate = |corner: &Corner| corner.spring.rate * corner.spring.motion_ratio.powi(2);
        let rate = wheel_rate(&axle.corners.left) + wheel_rate(&axle.corners.right);
        let prior = RatePrior { rate, relative_sd: doubt.relative_sd };
        let tyres = TyresInHeight { rate: 2.0 * axle.tyre_rate, relative_sd: tyre_doubt(experiment, name) };
        // A reading too exact for its own good, or a load that is none, is no reason to refuse the rest.
        if let Ok(fit) = fit_rate(&states, &prior, Some(&tyres).filter(|_| datum.includes_tyre())) {
            rates.push(AxleRate { axle: name.clone(), suspicion: ContactSuspicion::in_states(&fit, &states), fit });
        }
    }
    Ok(rates)
}

/// How far an axle's tyre rate is in doubt; one that is not is taken as it was given.
fn tyre_doubt(experiment: &Experiment, axle: &String) -> f64 {
    let of = |doubt: &&Doubt| doubt.what == Doubtful::TyreRate && doubt.axles.contains(axle);
    experiment.doubts.iter().find(of).map_or(0.0, |doubt| doubt.relative_sd)
}

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct DocumentText {
    #[serde(rename = "format")]
    _format: String,
    #[serde(rename = "version")]
    _version: u64,
    vehicle: VehicleText,
    doubts: Vec<DoubtText>,
    #[serde(default)]
    friction: Vec<FrictionText>,
    states: Vec<MeasuredText>,
    #[serde(default)]
    predictions: Vec<PredictionText>,
}

#[derive(Deserialize)]
#[serde(rename_all = "snake_case")]
enum DoubtfulText {
    SpringRate,
    RightOverLeft,
    StageTravel,
    StageRate,
    StopGap,
    StopRate,
    TyreRate,
    AntiRoll,
}

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct DoubtText {
    what: DoubtfulText,
    axles: Vec<String>,
    relative_sd: f64,
}

impl DoubtText {
    fn into_doubt(self) -> Doubt {
        let what = match self.what {
            DoubtfulText::SpringRate => Doubtful::SpringRate,
            DoubtfulText::RightOverLeft => Doubtful::RightOverLeft,
            DoubtfulText::StageTravel => Doubtful::StageTravel,
            DoubtfulText::StageRate => Doubtful::StageRate,
            DoubtfulText::StopGap => Doubtful::StopGap,
            DoubtfulText::StopRate => Doubtful::StopRate,
            DoubtfulText::TyreRate => Doubtful::TyreRate,
            DoubtfulText::AntiRoll => Doubtful::AntiRoll,
        };
        Doubt { what, axles: self.axles, relative_sd: self.relative_sd }
    }
}

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct FrictionText {
    axle: String,
    share: f64,
    relative_sd: f64,
}

impl FrictionText {
    fn into_friction(self) -> LeafFriction {
        LeafFriction { axle: self.axle, share: self.share, relative_sd: self.relative_sd }
    }
}

#[derive(Deserialize, Default)]
#[serde(rename_all = "snake_case")]
enum RestText {
    #[default]
    AsItStood,
    Rolled,
    PressedDown,
    Lifted,
}

impl RestText {
    fn into_rest(self) -> Rest {
        match self {
            RestText::AsItStood => Rest::AsItStood,
            RestText::Rolled => Rest::RolledAndBounced,
            RestText::PressedDown => Rest::PressedDown,
            RestText::Lifted => Rest::Lifted,
        }
    }
}

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct MeasuredText {
    state: StateText,
    #[serde(default)]
    load_doubts: Vec<LoadDoubtText>,
    #[serde(default)]
    settling_m: f64,
    #[serde(default)]
    rest: RestText,
    #[serde(default)]
    readings: Vec<ReadingText>,
}

impl MeasuredText {
    fn into_measured(self, path: &str, vehicle: &Vehicle) -> Result<MeasuredState, DocumentError> {
        at_most(&format!("{path}.readings"), self.readings.len(), MOST_READINGS)?;
        let load_doubt = |text: LoadDoubtText| LoadDoubt { weight: newtons(text.weight_n), position: metres(text.position_m) };
        Ok(MeasuredState {
            state: self.state.into_state(&format!("{path}.state"), vehicle)?,
            load_doubts: self.load_doubts.into_iter().map(load_doubt).collect(),
            settling: metres(self.settling_m),
            rest: self.rest.into_rest(),
            readings: self.readings.into_iter().map(ReadingText::into_reading).collect(),
        })
    }
}

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct LoadDoubtText {
    #[serde(default)]
    weight_n: f64,
    #[serde(default)]
    position_m: f64,
}

#[derive(Deserialize)]
enum ArchDatumText {
    #[serde(rename = "ground_to_arch")]
    Ground,
    #[serde(rename = "hub_to_arch")]
    Hub,
    #[serde(rename = "rim_to_arch")]
    Rim,
    #[serde(rename = "tyre_top_to_arch")]
    TyreTop,
}

#[derive(Deserialize)]
#[serde(tag = "reading", rename_all = "snake_case", deny_unknown_fields)]
enum ReadingText {
    Height { axle: String, side: Option<SideText>, datum: ArchDatumText, value_m: f64, sd_m: f64 },
    Point { point: String, value_m: f64, sd_m: f64 },
    Gap { axle: String, element: String, value_m: f64, sd_m: f64 },
    WheelLoad { axle: String, side: SideText, value_n: f64, sd_n: f64 },
    AxleLoad { axle: String, value_n: f64, sd_n: f64 },
    TongueWeight { value_n: f64, sd_n: f64 },
}

impl ReadingText {
    fn into_reading(self) -> Measurement {
        let height = |mark, value, sd| Measurement::Height { mark, height: Uncertain::new(metres(value), metres(sd)) };
        let load = |value, sd| Uncertain::new(newtons(value), newtons(sd));
        match self {
            ReadingText::Height { axle, side: on, datum, value_m, sd_m } => {
                let datum = match datum {
                    ArchDatumText::Ground => Datum::GroundToArch,
                    ArchDatumText::Hub => Datum::HubToArch,
                    ArchDatumText::Rim => Datum::RimToArch,
                    ArchDatumText::TyreTop => Datum::TyreTopToArch,
                };
                height(TapeMark::Arch { axle, side: side(on), datum }, value_m, sd_m)
            }
            ReadingText::Point { point, value_m, sd_m } => height(TapeMark::Point(point), value_m, sd_m),
            ReadingText::Gap { axle, element, value_m, sd_m } => height(TapeMark::Gap { axle, element }, value_m, sd_m),
            ReadingText::WheelLoad { axle, side, value_n, sd_n } => {
                Measurement::WheelLoad { axle, side: side.into(), load: load(value_n, sd_n) }
            }
            ReadingText::AxleLoad { axle, value_n, sd_n } => Measurement::AxleLoad { axle, load: load(value_n, sd_n) },
            ReadingText::TongueWeight { value_n, sd_n } => Measurement::TongueWeight(load(value_n, sd_n)),
        }
    }
}

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct PredictionText {
    name: String,
    state: String,
    #[serde(default)]
    changes: Vec<ChangeText>,
}

impl PredictionText {
    fn into_asked(self, path: &str, states: &[MeasuredState]) -> Result<AskedPrediction, DocumentError> {
        let state = states.iter().position(|measured| measured.state.name == self.state);
        let state = state.ok_or_else(|| {
            DocumentError::field(format!("{path}.state"), format!("there is no state “{}” in this document", self.state))
        })?;
        Ok(AskedPrediction { name: self.name, state, changes: into_changes(self.changes, path)? })
    }
}
