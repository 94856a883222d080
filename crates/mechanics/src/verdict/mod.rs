//! The verdict: what the readings say about springs and ratings, and what they are too weak to say.

mod rate;
mod ratings;

pub use rate::{RateFigure, RateGrade, RateVerdict};
pub use ratings::{Overload, Rated, RatingCheck, Relief};
