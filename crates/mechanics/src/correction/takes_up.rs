//! What a correction takes up, of which a corner has room for one.

/// What a correction takes up at a corner: two that take up the same there do not go together.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub enum TakesUp {
    /// The main spring: one change of it a corner.
    MainSpring,
    /// The overload leaf: where it joins in, and how hard.
    OverloadLeaf,
    /// The seat between spring and axle: one block, never two on top of each other.
    Seat,
    /// The seat of the coil: one spacer, never two on top of each other.
    CoilSeat,
    /// The shackle's place.
    Shackle,
    /// The bump stop's place.
    Stop,
    /// The place of a helper over or beside the axle.
    Helper,
    /// The inside of the coil.
    InsideTheCoil,
    /// The wheels: one size of tire.
    Tires,
    /// The sway bar's.
    Bar,
    /// The sway bar's links.
    BarLinks,
    /// The shocks.
    Shocks,
    /// The brake hoses.
    Hoses,
    /// The U-bolts.
    UBolts,
    /// The track bar.
    TrackBar,
    /// The radius arms' ends on the frame.
    RadiusArms,
    /// The mounts of the differential.
    Differential,
}

impl TakesUp {
    /// Whether what goes there holds the vehicle up, or stands between it and what does.
    pub fn holds_the_vehicle_up(self) -> bool {
        use TakesUp::*;
        match self {
            MainSpring | OverloadLeaf | Seat | CoilSeat | Shackle | Stop | Helper | InsideTheCoil => true,
            Tires | Bar | BarLinks | Shocks | Hoses | UBolts | TrackBar | RadiusArms | Differential => false,
        }
    }
}
