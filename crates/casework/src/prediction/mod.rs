//! Where the vehicle will sit with a correction fitted, with a band.

mod account;
mod answer;
mod at_best;
mod case_rise;
mod experiment;
mod fitting;
mod joint;
mod load_curve;
mod model;
mod parts_off;
mod predictor;
mod rate;
mod readouts;
mod roll;
mod settle;
mod sides;
mod telling;
mod weighed;

pub use answer::{Bounce, CaseHeights, PredictedState, Prediction, Unpredicted};
pub(crate) use joint::Normals;
pub use joint::{Drawn, Joint, Moment};
pub use predictor::Predictor;
pub use settle::{NextReading, Settling};
pub(crate) use sides::lean_taken_out;
pub use telling::Misread;
pub use weighed::Story;
