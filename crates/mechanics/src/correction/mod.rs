//! Corrections: what can be fitted at the rear, and what it changes on a vehicle.

mod caution;
mod kind;
mod work;

pub use caution::Caution;
pub use kind::{BUMP_STOP, Correction, CorrectionProblem, kerb_spring_force};
pub use work::Work;
