//! The two ends of a vehicle.

use schemars::JsonSchema;
use serde::{Deserialize, Serialize};

/// What a vehicle stands on at its front and at its rear.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, Deserialize, JsonSchema)]
#[serde(rename_all = "snake_case")]
pub enum End {
    /// The steered axle; of a trailer, the coupler.
    Front,
    /// The axle that sags; of a trailer, its axles together.
    Rear,
}

/// A thing for each end of a vehicle.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct Ends<T> {
    /// The front's.
    pub front: T,
    /// The rear's.
    pub rear: T,
}

impl<T> Ends<T> {
    /// The one at `end`.
    pub fn get(&self, end: End) -> &T {
        match end {
            End::Front => &self.front,
            End::Rear => &self.rear,
        }
    }

    /// A pair made end by end.
    pub fn from_fn(mut make: impl FnMut(End) -> T) -> Self {
        Ends { front: make(End::Front), rear: make(End::Rear) }
    }
}

impl End {
    /// Front, then rear.
    pub const BOTH: [End; 2] = [End::Front, End::Rear];
}
