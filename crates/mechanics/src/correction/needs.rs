//! What a correction goes onto.

/// What must be at an axle for a correction to go onto it.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Needs {
    /// A leaf pack: it is work on the leaves.
    Leaves,
    /// A spring that is clamped to its axle, and over it, with no block between the two yet: what goes there then raises the vehicle.
    BareSeat,
    /// The same, with a block there that comes out.
    BlockThere,
    /// A spring that is clamped under its axle.
    SpringUnder,
    /// Coils.
    Coils,
    /// A leaf pack that hangs on a shackle at its rear end, and on no rocker.
    Shackle,
    /// None of these: an axle and a frame.
    Nothing,
}
