//! Writing a `wise-badger/readings-result` document, version 1.

use serde::Serialize;

use crate::axle_rate::{ContactSuspicion, RateFit, RateGrade, SecondStage};
use crate::identification::{Doubt, Doubtful, Forecast, Identified, LeafFriction, MeasuredState, Misfit, TapeMark};
use crate::tape::Datum;
use crate::units::InShopUnits;

/// A reading further off than so many of its standard deviations is named.
const MISFIT_DEVIATIONS: f64 = 3.0;

/// What the readings say, ready to be written as JSON.
#[derive(Debug, Serialize)]
pub struct ReadingsResult {
    format: &'static str,
    version: u64,
    doubts: Vec<DoubtResult>,
    axle_rates: Vec<AxleRateResult>,
    #[serde(skip_serializing_if = "Vec::is_empty")]
    friction: Vec<FrictionResult>,
    #[serde(skip_serializing_if = "Option::is_none")]
    misfit: Option<MisfitResult>,
    predictions: Vec<PredictionResult>,
}

#[derive(Debug, Serialize)]
struct DoubtResult {
    what: &'static str,
    axles: Vec<String>,
    factor: f64,
    relative_sd: f64,
    told_by_readings: f64,
    grade: &'static str,
}

/// An axle's leaf friction, where pressing down or lifting measured it.
#[derive(Debug, Serialize)]
struct FrictionResult {
    axle: String,
    share: f64,
    relative_sd: f64,
}

impl From<LeafFriction> for FrictionResult {
    fn from(found: LeafFriction) -> Self {
        FrictionResult { axle: found.axle, share: found.share, relative_sd: found.relative_sd }
    }
}

/// One axle's rate, taken by itself.
pub(super) struct AxleRate {
    pub(super) axle: String,
    pub(super) fit: RateFit,
    pub(super) suspicion: Option<ContactSuspicion>,
}

#[derive(Debug, Serialize)]
struct AxleRateResult {
    axle: String,
    rate_n_per_m: f64,
    relative_sd: f64,
    grade: &'static str,
    load_needed_n: f64,
    seen_to_m: f64,
    #[serde(skip_serializing_if = "Option::is_none")]
    second_stage: Option<SecondStageResult>,
    #[serde(skip_serializing_if = "Option::is_none")]
    contact_suspected_from_m: Option<f64>,
}

#[derive(Debug, Serialize)]
struct SecondStageResult {
    at_travel_m: f64,
    at_travel_sd_m: f64,
    added_rate_n_per_m: f64,
    odds: f64,
}

impl From<AxleRate> for AxleRateResult {
    fn from(rate: AxleRate) -> Self {
        let stage = |stage: SecondStage| SecondStageResult {
            at_travel_m: stage.at_travel.value.si(),
            at_travel_sd_m: stage.at_travel.sd.si(),
            added_rate_n_per_m: stage.added_rate.si(),
            odds: stage.odds,
        };
        AxleRateResult {
            axle: rate.axle,
            rate_n_per_m: rate.fit.rate.si(),
            relative_sd: rate.fit.relative_sd,
            grade: grade_word(rate.fit.grade),
            load_needed_n: rate.fit.load_needed.si(),
            seen_to_m: rate.fit.seen_to.si(),
            second_stage: rate.fit.second_stage.map(stage),
            contact_suspected_from_m: match rate.suspicion {
                Some(ContactSuspicion::StiffensWithLoad { from }) => Some(from.si()),
                _ => None,
            },
        }
    }
}

fn grade_word(grade: Option<RateGrade>) -> &'static str {
    match grade {
        Some(RateGrade::Good) => "good",
        Some(RateGrade::Rough) => "rough",
        None => "too_weak",
    }
}

#[derive(Debug, Serialize)]
struct MisfitResult {
    state: String,
    reading: usize,
    deviations: f64,
}

#[derive(Debug, Serialize)]
struct PredictionResult {
    name: String,
    heights: Vec<HeightResult>,
}

#[derive(Debug, Serialize)]
struct HeightResult {
    mark: String,
    value_m: f64,
    sd_m: f64,
    rise_m: f64,
    rise_sd_m: f64,
}

impl ReadingsResult {
    pub(super) fn new(doubts: &[Doubt], states: &[MeasuredState], identified: &Identified, axle_rates: Vec<AxleRate>) -> Self {
        let doubt = |(doubt, share): (&Doubt, crate::identification::Share)| DoubtResult {
            what: doubtful_word(doubt.what),
            axles: doubt.axles.clone(),
            factor: share.factor(),
            relative_sd: share.relative_sd,
            told_by_readings: share.told_by_readings,
            grade: grade_word(share.grade()),
        };
        let misfit = |misfit: Misfit| MisfitResult {
            state: states.get(misfit.state).map(|measured| measured.state.name.clone()).unwrap_or_default(),
            reading: misfit.reading,
            deviations: misfit.deviations,
        };
        ReadingsResult {
            format: "wise-badger/readings-result",
            version: 1,
            doubts: doubts.iter().zip(identified.shares()).map(doubt).collect(),
            axle_rates: axle_rates.into_iter().map(AxleRateResult::from).collect(),
            friction: identified.friction_measured().map(FrictionResult::from).collect(),
            misfit: identified.misfit(MISFIT_DEVIATIONS).map(misfit),
            predictions: Vec::new(),
        }
    }

    /// Adds a prediction: every mark that was read, and how much it rises by the changes.
    pub(super) fn predict(
        &mut self,
        name: String,
        marks: &[&TapeMark],
        found: &Identified,
        plain: &Forecast,
        changed: &Forecast,
    ) {
        let height = |mark: &&TapeMark| {
            let (height, rise) = (found.height(changed, mark)?, found.rise(plain, changed, mark)?);
            Some(HeightResult {
                mark: mark_word(mark),
                value_m: height.value.si(),
                sd_m: height.sd.si(),
                rise_m: rise.value.si(),
                rise_sd_m: rise.sd.si(),
            })
        };
        self.predictions.push(PredictionResult { name, heights: marks.iter().filter_map(height).collect() });
    }

    /// The document's text.
    pub fn to_json(&self) -> String {
        serde_json::to_string_pretty(self).expect("lists of text and finite numbers are always JSON")
    }
}

fn doubtful_word(what: Doubtful) -> &'static str {
    match what {
        Doubtful::SpringRate => "spring_rate",
        Doubtful::RightOverLeft => "right_over_left",
        Doubtful::StageTravel => "stage_travel",
        Doubtful::StageRate => "stage_rate",
        Doubtful::StopGap => "stop_gap",
        Doubtful::StopRate => "stop_rate",
        Doubtful::TyreRate => "tyre_rate",
        Doubtful::AntiRoll => "anti_roll",
    }
}

/// `axle.side.datum`, as the stance result joins names.
fn mark_word(mark: &TapeMark) -> String {
    match mark {
        TapeMark::Arch { axle, side, datum } => {
            let datum = match datum {
                Datum::GroundToArch => "ground_to_arch",
                Datum::HubToArch => "hub_to_arch",
                Datum::RimToArch => "rim_to_arch",
                Datum::TyreTopToArch => "tyre_top_to_arch",
                Datum::StopGap => "stop_gap",
            };
            match side {
                Some(side) => format!("{axle}.{}.{datum}", side.name()),
                None => format!("{axle}.{datum}"),
            }
        }
        TapeMark::Point(point) => point.clone(),
        TapeMark::Gap { axle, element } => format!("{axle}.{element}"),
    }
}
