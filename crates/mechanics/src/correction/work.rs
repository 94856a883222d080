//! What a correction does to a vehicle, as far as something found on it may speak against that.

/// A kind of work.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Work {
    /// A leaf is added.
    AddedLeaf,
    /// The leaves there are are re-arched.
    Rearching,
    /// Another pack goes in whole, with its bushings.
    WholePack,
    /// A block goes between spring and axle.
    Block,
    /// Something goes between a coil and its seat.
    CoilSeat,
    /// The pack is hung on other shackles.
    Shackle,
    /// What hangs beside the springs is changed: a shock, a hose, a link, a clamp.
    Beside,
    /// Wheels come off and go on, and no more.
    Wheels,
    /// Something presses on the frame where nothing pressed before: a load rubber, a helper, a bar's brackets.
    BearsOnTheFrame,
}
