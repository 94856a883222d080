//! Where on a vehicle a correction goes.

use crate::side::Side;

/// The axles that it goes on.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Default)]
pub enum Axles {
    /// The rear axle; of a trailer, all its axles alike.
    #[default]
    Rear,
    /// One axle of a trailer, counted from the front, from 1.
    OneOfRear(u8),
    /// The front axle.
    Front,
}

/// The axles and the side.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Default)]
pub struct Site {
    /// On which axles.
    pub axles: Axles,
    /// On one side alone; `None` is both.
    pub side: Option<Side>,
}
