//! Where the vehicle will sit with a correction fitted, with a band.

mod answer;
mod model;
mod parts_off;
mod predictor;
mod rate;

pub use answer::{Bounce, CaseHeights, PredictedState, Prediction, Unpredicted};
pub use predictor::Predictor;
