//! Where is looked, and how grave a finding is.

use schemars::JsonSchema;
use serde::{Deserialize, Serialize};

use crate::survey::{End, SpringKind, VehicleFacts};

/// A part of the vehicle that is looked over.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, Deserialize, JsonSchema)]
#[serde(rename_all = "snake_case")]
pub enum Area {
    /// The leaves, or whatever spring there is.
    Leaves,
    /// Spring eyes and their bushes.
    EyesAndBushes,
    /// The centre bolt.
    CentreBolt,
    /// The clips that hold the leaves together.
    Clips,
    /// U-bolts, spring seats and blocks.
    UBoltsAndSeats,
    /// Shackles and hangers.
    ShacklesAndHangers,
    /// The frame around them.
    Frame,
    /// Bump stops.
    BumpStops,
    /// Shocks and their mounts.
    Shocks,
    /// Anti-roll bar and links.
    AntiRollBar,
    /// Brake hoses and lines, sensor and lamp wires.
    HosesAndWires,
    /// Tyres and wheels.
    TyresAndWheels,
    /// Shaft and joints.
    Driveline,
    /// Air helper, where there is one.
    AirHelper,
    /// Coils or torsion bars with their seats, isolators and arms, where the vehicle rests on them.
    CoilSeats,
    /// Ball joints and the rest of the steering's joints.
    SteeringJoints,
}

impl Area {
    /// Whether what fails there may let the vehicle sit low.
    pub fn holds_the_vehicle_up(self) -> bool {
        match self {
            Area::Leaves
            | Area::EyesAndBushes
            | Area::CentreBolt
            | Area::Clips
            | Area::UBoltsAndSeats
            | Area::ShacklesAndHangers
            | Area::Frame
            | Area::BumpStops
            | Area::AirHelper
            | Area::CoilSeats => true,
            Area::SteeringJoints
            | Area::Shocks
            | Area::AntiRollBar
            | Area::HosesAndWires
            | Area::TyresAndWheels
            | Area::Driveline => false,
        }
    }

    /// Every area, in the order of the walk: pack first, then outwards.
    pub const ALL: [Area; 16] = [
        Area::Leaves,
        Area::EyesAndBushes,
        Area::CentreBolt,
        Area::Clips,
        Area::CoilSeats,
        Area::UBoltsAndSeats,
        Area::ShacklesAndHangers,
        Area::Frame,
        Area::BumpStops,
        Area::Shocks,
        Area::AntiRollBar,
        Area::HosesAndWires,
        Area::SteeringJoints,
        Area::TyresAndWheels,
        Area::Driveline,
        Area::AirHelper,
    ];

    /// Whether a vehicle has it, as far as is known: leaves and what holds them where an axle rests on leaves or nobody said on what.
    pub fn is_on(self, vehicle: &VehicleFacts, air_helper: bool) -> bool {
        let trailer = vehicle.class.is_trailer();
        let on = |spring| End::BOTH.into_iter().any(|end| *vehicle.springs.get(end) == Some(spring));
        match self {
            Area::Leaves
            | Area::EyesAndBushes
            | Area::CentreBolt
            | Area::Clips
            | Area::UBoltsAndSeats
            | Area::ShacklesAndHangers => vehicle.rests_on_leaves() || on(SpringKind::Leaf),
            Area::CoilSeats => on(SpringKind::Coil) || on(SpringKind::Torsion),
            Area::AirHelper => air_helper || on(SpringKind::Air),
            Area::SteeringJoints | Area::AntiRollBar | Area::Driveline => !trailer,
            Area::Frame | Area::BumpStops | Area::Shocks | Area::HosesAndWires | Area::TyresAndWheels => true,
        }
    }

    /// Whether it is looked at by itself: what fails there hurts people, so it is never passed with the rest.
    pub fn needs_its_own_look(self) -> bool {
        matches!(
            self,
            Area::Leaves
                | Area::CoilSeats
                | Area::UBoltsAndSeats
                | Area::ShacklesAndHangers
                | Area::Frame
                | Area::HosesAndWires
                | Area::SteeringJoints
        )
    }
}

/// How grave a finding is.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize, JsonSchema)]
#[serde(rename_all = "snake_case")]
pub enum Grade {
    /// Nothing to say.
    Fine,
    /// To be looked at again.
    Watch,
    /// To be put right with this job.
    PutRight,
    /// Nothing but repair until it is put right.
    Stop,
}

impl Grade {
    /// From the mildest.
    pub const ALL: [Grade; 4] = [Grade::Fine, Grade::Watch, Grade::PutRight, Grade::Stop];
}
