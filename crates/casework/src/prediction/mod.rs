//! Where the vehicle will sit with a correction fitted, with a band.

mod account;
mod answer;
mod at_best;
mod experiment;
mod fitting;
mod model;
mod parts_off;
mod predictor;
mod rate;
mod readouts;
mod settle;
mod telling;
mod weighed;

pub use answer::{Bounce, CaseHeights, PredictedState, Prediction, Unpredicted};
pub use predictor::Predictor;
pub use settle::{NextReading, Settling};
pub use telling::Misread;
pub use weighed::Story;
