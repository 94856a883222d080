//! The ends of a vehicle that a kind of correction may go on.

/// The ends of a vehicle.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Ends {
    /// The rear alone: never a steered axle.
    Rear,
    /// The front alone: what steers and drives there.
    Front,
    /// Either of them.
    Either,
}

impl Ends {
    /// Whether it may go on a front axle.
    pub fn have_a_front(self) -> bool {
        self != Ends::Rear
    }

    /// Whether it may go on a rear axle.
    pub fn have_a_rear(self) -> bool {
        self != Ends::Front
    }
}
