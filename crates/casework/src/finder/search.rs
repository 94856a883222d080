//! What is looked for, and how much was looked at.

use super::weights::Weights;
use crate::casework::Casework;
use crate::entry::{ShelfPart, TypedIn};

/// Most combinations that are solved.
pub const MOST_SCREENED: usize = 2_000;
/// Most that are looked into with all that is in doubt.
pub const MOST_JUDGED: usize = 30;

/// What is looked for, and among what.
#[derive(Debug, Clone, Copy)]
pub struct Search<'a> {
    /// The job.
    pub work: &'a Casework,
    /// The shop's shelf.
    pub shelf: &'a [ShelfPart],
    /// What counts, and by how much.
    pub weights: Weights,
    /// The day that it is, for what is wanted by a day; `None` leaves that out.
    pub today: Option<&'a str>,
    /// The units that settings are written in.
    pub units: TypedIn,
}

/// How much was looked at.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub struct Counted {
    /// Parts on the shelf.
    pub parts: usize,
    /// Those of them that go onto this vehicle.
    pub fit: usize,
    /// Those that ask for a figure of the vehicle that nobody took.
    pub want_a_figure: usize,
    /// Those left out of the combinations, since others of their kind do the same or nearly.
    pub left_out: usize,
    /// Parts looked into by themselves that move nothing here in any state or case that the customer came for.
    pub move_nothing: usize,
    /// Combinations solved.
    pub screened: usize,
    /// Combinations that were not.
    pub not_screened: usize,
    /// Those looked into with all that is in doubt.
    pub judged: usize,
    /// Those that would have been looked into, had nobody called the search off.
    pub not_judged: usize,
}
