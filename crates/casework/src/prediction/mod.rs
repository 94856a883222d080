//! Where the vehicle will sit with a correction fitted, with a band.

mod account;
mod answer;
mod fitting;
mod model;
mod parts_off;
mod predictor;
mod rate;
mod settle;
mod weighed;

pub use answer::{Bounce, CaseHeights, PredictedState, Prediction, Unpredicted};
pub use model::Misread;
pub use predictor::Predictor;
pub use settle::{NextReading, Settling};
pub use weighed::Story;
