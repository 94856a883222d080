//! Corrections: what can be fitted at the rear, what it changes, and where the vehicle will then sit.

mod caution;
mod kind;
mod model;
mod prediction;

pub use caution::Caution;
pub use kind::{Correction, CorrectionProblem};
pub use prediction::{CaseHeights, PredictedState, Prediction, Predictor, Unpredicted};
