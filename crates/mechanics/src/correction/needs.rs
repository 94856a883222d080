//! What a correction goes onto.

/// What must be at an axle for a correction to go onto it.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Needs {
    /// A leaf pack: it is work on the leaves.
    Leaves,
    /// A spring that is clamped to its axle, and over it: what goes between the two then raises the vehicle.
    ClampedSpring,
    /// Neither: an axle and a frame.
    Nothing,
}
