//! Where the vehicle will sit with a correction fitted, with a band.

mod model;
mod predictor;
mod rate;

pub use predictor::{CaseHeights, PredictedState, Prediction, Predictor, Unpredicted};
