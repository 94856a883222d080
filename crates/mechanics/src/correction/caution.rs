//! The cautions that belong to a correction.

use serde::Serialize;

/// A caution, by what it is about. The words are the interface's.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[serde(rename_all = "snake_case")]
pub enum Caution {
    /// Height without capacity: ratings, rate and roll stiffness stay as they were.
    AddsNoCapacity,
    /// Only on the rear axle, only one a side, never on a steered axle.
    OneBlockOnly,
    /// New U-bolts, torqued again after the first miles.
    NewUBolts,
    /// Brake hose and wire slack at full droop.
    HoseSlack,
    /// Shaft angle changes with the height.
    DrivelineAngle,
    /// Shocks long enough at full droop, and short enough at full bump.
    ShockLength,
    /// Bonded pivots and eyes tightened at ride height, not hanging.
    PivotsAtRideHeight,
    /// The head of the center bolt seated in its hole.
    PinSeated,
    /// Clamps draw a pack together, never the center bolt.
    ClampsDraw,
    /// The links of the sway bar at the new height.
    BarLinks,
    /// Wheel nuts by torque, and again after the first miles.
    WheelNuts,
    /// Headlamps, alignment, load-sensing brake valve.
    AimAndAlignment,
    /// Of a trailer: alignment, hitch height.
    AlignmentAndHitch,
    /// Firmer when empty.
    FirmerEmpty,
    /// Set with the weight on, both sides equal, and locked.
    SetEqualSides,
    /// Travel left before something solid.
    TravelUsed,
    /// A pack under clamps stores energy.
    StoredEnergy,
    /// A coil under a compressor stores energy.
    CoilStoresEnergy,
    /// Tires of another size: room at full lock and full bump, load index, spare and speed reading.
    TireClearance,
    /// New spring seats are welded on, square and at the right angle, by a licensed welder.
    SeatsWelded,
    /// A charged bag stores energy: the air is let out before anything comes apart.
    ChargedBag,
    /// A bag is never without its least pressure, never past its most, and clear of all that is sharp or hot.
    BagKept,
    /// On one shared line air goes across: bags there hold up no lean.
    SharedLine,
    /// A pair is seldom alike: measure both, the taller on the driver's side unless the readings say otherwise.
    UnequalPair,
    /// Both ends of the coil in their pockets, hanging too.
    CoilSeated,
    /// At the stop the coil is shorter by what is between: it may bind first.
    CoilBind,
    /// A shackle neither lies flat nor turns over, empty and loaded.
    ShackleSlope,
    /// Not on a cracked, broken or shifted leaf, nor on worn eyes.
    SoundPackOnly,
    /// A new arch takes a set in the first weeks.
    TakesASet,
    /// On one side only: first find out why it leans, and weigh the corners after.
    OneSideOnly,
    /// On a steered axle: alignment before it drives.
    SteeredAxle,
    /// On one axle of several: that axle carries more than its share.
    OneAxleOfSeveral,
    /// A brake circuit that was opened is bled, and the pedal firm, before it moves.
    BrakesBled,
    /// A gas shock drives its rod out by itself.
    GasShock,
    /// What holds an axle is loose: it may roll or drop.
    AxleHeld,
    /// A differential is lowered on a jack made for it.
    HeavyOnAJack,
    /// Track bar and drag link lie parallel, or the wheel turns by itself over bumps.
    SteeringParallel,
}

impl Caution {
    /// What it comes to on a trailer, which has no drive shaft and no headlamps; `None` where it is about nothing else.
    pub fn on_a_trailer(self) -> Option<Caution> {
        match self {
            Caution::DrivelineAngle => None,
            Caution::AimAndAlignment => Some(Caution::AlignmentAndHitch),
            other => Some(other),
        }
    }
}
