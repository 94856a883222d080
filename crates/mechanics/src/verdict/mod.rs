//! The verdict: what the readings say about springs and ratings, and what they are too weak to say.

mod contact;
mod rate;
mod rate_fit;
mod ratings;

pub use contact::ContactSuspicion;
pub use rate::{MeasuredStages, RateFigure, RateGrade, RateVerdict};
pub use rate_fit::{AxleState, RateFit, RateFitError, RatePrior, SecondStage, TyresInHeight, fit_rate};
pub use ratings::{Overload, Rated, RatingCheck, Relief};
