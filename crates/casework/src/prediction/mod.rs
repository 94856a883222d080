//! Where the vehicle will sit with a correction fitted, with a band.

mod account;
mod answer;
mod at_best;
mod case_rise;
mod experiment;
mod fitting;
mod load_curve;
mod model;
mod parts_off;
mod predictor;
mod rate;
mod readouts;
mod roll;
mod settle;
mod telling;
mod weighed;

pub use answer::{Bounce, CaseHeights, PredictedState, Prediction, Unpredicted};
pub use predictor::Predictor;
pub use settle::{NextReading, Settling};
pub use telling::Misread;
pub use weighed::Story;
