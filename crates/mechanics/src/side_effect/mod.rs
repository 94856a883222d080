//! What else changes when a height, a spring or a tyre changes.
//!
//! Each function is one textbook relation; none knows of jobs or readings.
//!
//! - [`ride`]: bounce frequency, roll under a sideways push
//! - [`attitude`]: frame pitch, headlamp aim, what a point or the front axle does when the rear moves
//! - [`driveline`]: shaft and joint angles, the shim for them
//! - [`leaf_end`]: chord of an arc, shackle angle, longer shackles
//! - [`fastening`]: U-bolt legs, clamp load, proof load, stand loads
//! - [`coil`]: rate and bind of a coil, one that is wound in two parts, and either as a main spring
//! - [`travel`]: bump and droop travel left against stops and shock lengths

pub mod attitude;
pub mod coil;
pub mod driveline;
pub mod fastening;
pub mod leaf_end;
pub mod ride;
pub mod travel;

pub use crate::range::{Offending, OutOfRange};
use crate::range::{positive, within};
