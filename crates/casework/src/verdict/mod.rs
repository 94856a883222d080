//! The verdict: what the readings say about springs and ratings, and what they are too weak to say.

mod breakdown;
mod cause;
mod contact;
mod judged;
mod rate;
mod ratings;

pub use breakdown::{Breakdown, Part, PartKind, SoundHeight, first_rate, rear_set};
pub use cause::{Grounds, rank_causes};
pub use contact::{contact_suspicion, gap_left, is_clear_of_the_stop};
pub use judged::{Cause, Evidence, Judged, Settling};
pub use rate::{Agreed, GapDrop, MeasuredStages, RateFigure, RateVerdict};
pub use ratings::{Overload, Rated, RatingCheck, Relief, carried};
