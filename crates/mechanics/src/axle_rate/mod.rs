//! The rate of one axle from any number of states, how far it can be leant on, and what may have borne unseen beside its springs.

mod contact;
mod fit;
mod grade;

pub use contact::ContactSuspicion;
pub use fit::{AxleState, RateFit, RateFitError, RatePrior, SecondStage, TyresInHeight, fit_rate};
pub use grade::{GOOD, RateGrade};
