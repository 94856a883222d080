//! Heights, gaps, weights, angles and pressures as read at the vehicle.

use wise_badger_mechanics::bound::Bound;
use wise_badger_mechanics::tape::Datum;

use crate::bounds::{ARCH_UNDER_THE_VEHICLE, COIL_LENGTH, PAD_GAP, RIDE_HEIGHT, STOP_GAP};
use crate::entry::{OtherwiseEntry, OtherwiseWord, Typed, UnitWord};
use crate::survey::LoadState;
use crate::words::Word;

/// When in a job a reading was taken.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub enum Phase {
    /// As the vehicle came in.
    Found,
    /// After the correction was fitted.
    Fitted,
    /// After the drive that follows, with everything tightened again.
    Driven,
    /// After it has settled: some hundred miles later.
    Settled,
}

impl Phase {
    /// Those after fitting, in their order.
    pub const AFTER: [Phase; 3] = [Phase::Fitted, Phase::Driven, Phase::Settled];

    /// What was not as before at that time; as the vehicle came in nothing is otherwise.
    pub fn otherwise(self, entry: &OtherwiseEntry) -> &[OtherwiseWord] {
        match self {
            Phase::Found => &[],
            Phase::Fitted => &entry.fitted,
            Phase::Driven => &entry.driven,
            Phase::Settled => &entry.settled,
        }
    }

    /// The same with that time said anew.
    pub fn said_otherwise(self, mut entry: OtherwiseEntry, words: Vec<OtherwiseWord>) -> OtherwiseEntry {
        match self {
            Phase::Found => {}
            Phase::Fitted => entry.fitted = words,
            Phase::Driven => entry.driven = words,
            Phase::Settled => entry.settled = words,
        }
        entry
    }

    /// Whether it is after fitting.
    pub fn is_after(self) -> bool {
        self != Phase::Found
    }
}

/// Where on the vehicle a reading was taken.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub enum Place {
    /// Front left arch.
    FrontLeft,
    /// Front right arch.
    FrontRight,
    /// Rear left arch.
    RearLeft,
    /// Rear right arch.
    RearRight,
    /// Rear bump stop.
    StopGap,
    /// Ground to the hub centre, front: what turns one datum into another.
    HubFront,
    /// The same at the rear.
    HubRear,
    /// Ground to the step.
    Step,
    /// Ground to the hitch.
    Hitch,
    /// Ground to the frame rail behind the rear axle.
    FrameRail,
    /// Ground to the middle of the headlamp.
    Headlamp,
    /// Arch of the left pack, from its eyes.
    ArchLeft,
    /// Arch of the right pack.
    ArchRight,
    /// A corner on a scale.
    WeightFrontLeft,
    /// A corner on a scale.
    WeightFrontRight,
    /// A corner on a scale.
    WeightRearLeft,
    /// A corner on a scale.
    WeightRearRight,
    /// An axle on a scale.
    WeightFront,
    /// An axle on a scale.
    WeightRear,
    /// Shackle from upright, rearward positive.
    ShackleLeft,
    /// Shackle from upright, rearward positive.
    ShackleRight,
    /// Pinion from level, nose up positive.
    Pinion,
    /// Frame from level, rear up positive.
    FrameAngle,
    /// Tyre pressure.
    TyreFrontLeft,
    /// Tyre pressure.
    TyreFrontRight,
    /// Tyre pressure.
    TyreRearLeft,
    /// Tyre pressure.
    TyreRearRight,
    /// Clearance at one bump stop, where it was read corner by corner.
    GapFrontLeft,
    /// Clearance at one bump stop.
    GapFrontRight,
    /// Clearance at one bump stop.
    GapRearLeft,
    /// Clearance at one bump stop.
    GapRearRight,
    /// Left overload leaf to its pad, the half ahead of the axle.
    PadFrontLeft,
    /// Left overload leaf to its pad, the half behind it.
    PadRearLeft,
    /// Right overload leaf to its pad, the half ahead of the axle.
    PadFrontRight,
    /// Right overload leaf to its pad, the half behind it.
    PadRearRight,
    /// A coil's length as it stands in the vehicle.
    CoilFrontLeft,
    /// A coil's length as it stands in the vehicle.
    CoilFrontRight,
    /// A coil's length as it stands in the vehicle.
    CoilRearLeft,
    /// A coil's length as it stands in the vehicle.
    CoilRearRight,
    /// Pressure in an air bag.
    BagFrontLeft,
    /// Pressure in an air bag.
    BagFrontRight,
    /// Pressure in an air bag.
    BagRearLeft,
    /// Pressure in an air bag.
    BagRearRight,
}

/// What kind of figure is read at a place.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub enum ReadingKind {
    /// A length from the job's datum.
    Height,
    /// A length.
    Length,
    /// A weight.
    Weight,
    /// An angle.
    Angle,
    /// A pressure.
    Pressure,
}

impl Place {
    /// What kind of figure is read there.
    pub fn kind(self) -> ReadingKind {
        match self {
            Place::FrontLeft | Place::FrontRight | Place::RearLeft | Place::RearRight => ReadingKind::Height,
            Place::StopGap
            | Place::HubFront
            | Place::HubRear
            | Place::Step
            | Place::Hitch
            | Place::FrameRail
            | Place::Headlamp
            | Place::ArchLeft
            | Place::ArchRight
            | Place::GapFrontLeft
            | Place::GapFrontRight
            | Place::GapRearLeft
            | Place::GapRearRight
            | Place::PadFrontLeft
            | Place::PadRearLeft
            | Place::PadFrontRight
            | Place::PadRearRight
            | Place::CoilFrontLeft
            | Place::CoilFrontRight
            | Place::CoilRearLeft
            | Place::CoilRearRight => ReadingKind::Length,
            Place::WeightFrontLeft
            | Place::WeightFrontRight
            | Place::WeightRearLeft
            | Place::WeightRearRight
            | Place::WeightFront
            | Place::WeightRear => ReadingKind::Weight,
            Place::ShackleLeft | Place::ShackleRight | Place::Pinion | Place::FrameAngle => ReadingKind::Angle,
            Place::TyreFrontLeft
            | Place::TyreFrontRight
            | Place::TyreRearLeft
            | Place::TyreRearRight
            | Place::BagFrontLeft
            | Place::BagFrontRight
            | Place::BagRearLeft
            | Place::BagRearRight => ReadingKind::Pressure,
        }
    }

    /// What a length read there may be; `None` where no length is read.
    pub fn bound(self) -> Option<&'static Bound> {
        use Place::*;
        match (self, self.kind()) {
            (StopGap | GapFrontLeft | GapFrontRight | GapRearLeft | GapRearRight, _) => Some(&STOP_GAP),
            (PadFrontLeft | PadRearLeft | PadFrontRight | PadRearRight, _) => Some(&PAD_GAP),
            (CoilFrontLeft | CoilFrontRight | CoilRearLeft | CoilRearRight, _) => Some(&COIL_LENGTH),
            (ArchLeft | ArchRight, _) => Some(&ARCH_UNDER_THE_VEHICLE),
            (_, ReadingKind::Height | ReadingKind::Length) => Some(&RIDE_HEIGHT),
            (_, ReadingKind::Weight | ReadingKind::Angle | ReadingKind::Pressure) => None,
        }
    }

    /// Every place beside the walk round the vehicle.
    pub fn further() -> impl Iterator<Item = Place> {
        Self::WORDS
            .iter()
            .map(|(place, _)| *place)
            .filter(|place| place.kind() != ReadingKind::Height && *place != Place::StopGap)
    }
}

impl Word for Phase {
    const WHAT: &'static str = "phase";
    const WORDS: &'static [(Self, &'static str)] =
        &[(Phase::Found, "found"), (Phase::Fitted, "fitted"), (Phase::Driven, "driven"), (Phase::Settled, "settled")];
}

/// Only the units a reading is typed in: the column holds no others.
impl Word for UnitWord {
    const WHAT: &'static str = "unit";
    const WORDS: &'static [(Self, &'static str)] = &[
        (UnitWord::In, "in"),
        (UnitWord::Mm, "mm"),
        (UnitWord::Lb, "lb"),
        (UnitWord::Kg, "kg"),
        (UnitWord::Deg, "deg"),
        (UnitWord::Psi, "psi"),
        (UnitWord::Kpa, "kpa"),
    ];
}

impl Word for Place {
    const WHAT: &'static str = "place";
    const WORDS: &'static [(Self, &'static str)] = &[
        (Place::FrontLeft, "front_left"),
        (Place::FrontRight, "front_right"),
        (Place::RearLeft, "rear_left"),
        (Place::RearRight, "rear_right"),
        (Place::StopGap, "stop_gap"),
        (Place::HubFront, "hub_front"),
        (Place::HubRear, "hub_rear"),
        (Place::Step, "step"),
        (Place::Hitch, "hitch"),
        (Place::FrameRail, "frame_rail"),
        (Place::Headlamp, "headlamp"),
        (Place::ArchLeft, "arch_left"),
        (Place::ArchRight, "arch_right"),
        (Place::WeightFrontLeft, "weight_front_left"),
        (Place::WeightFrontRight, "weight_front_right"),
        (Place::WeightRearLeft, "weight_rear_left"),
        (Place::WeightRearRight, "weight_rear_right"),
        (Place::WeightFront, "weight_front"),
        (Place::WeightRear, "weight_rear"),
        (Place::ShackleLeft, "shackle_left"),
        (Place::ShackleRight, "shackle_right"),
        (Place::Pinion, "pinion"),
        (Place::FrameAngle, "frame_angle"),
        (Place::TyreFrontLeft, "tyre_front_left"),
        (Place::TyreFrontRight, "tyre_front_right"),
        (Place::TyreRearLeft, "tyre_rear_left"),
        (Place::TyreRearRight, "tyre_rear_right"),
        (Place::GapFrontLeft, "gap_front_left"),
        (Place::GapFrontRight, "gap_front_right"),
        (Place::GapRearLeft, "gap_rear_left"),
        (Place::GapRearRight, "gap_rear_right"),
        (Place::PadFrontLeft, "pad_front_left"),
        (Place::PadRearLeft, "pad_rear_left"),
        (Place::PadFrontRight, "pad_front_right"),
        (Place::PadRearRight, "pad_rear_right"),
        (Place::CoilFrontLeft, "coil_front_left"),
        (Place::CoilFrontRight, "coil_front_right"),
        (Place::CoilRearLeft, "coil_rear_left"),
        (Place::CoilRearRight, "coil_rear_right"),
        (Place::BagFrontLeft, "bag_front_left"),
        (Place::BagFrontRight, "bag_front_right"),
        (Place::BagRearLeft, "bag_rear_left"),
        (Place::BagRearRight, "bag_rear_right"),
    ];
}

/// Which reading: phase, state and place.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub struct Spot {
    /// Before or after fitting.
    pub phase: Phase,
    /// Empty or loaded.
    pub state: LoadState,
    /// Where on the vehicle.
    pub place: Place,
}

/// A figure as it was read.
#[derive(Debug, Clone, PartialEq)]
pub struct Reading {
    /// What was read.
    pub spot: Spot,
    /// What it was measured from; for a figure that is no height, the job's datum.
    pub datum: Datum,
    /// What it came to.
    pub value: Typed,
}
