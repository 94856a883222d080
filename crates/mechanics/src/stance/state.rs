//! A state to solve for: what is aboard, and what was changed on the vehicle.

use super::element::Element;
use super::vehicle::SpringDifference;
use crate::side::Side;
use crate::units::{Force, Length, Moment, RollStiffness, SpringRate, metres, newton_metres_per_radian};

/// A load aboard.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Load {
    /// Its weight.
    pub weight: Force,
    /// Rearward from the front axle.
    pub position: Length,
    /// To the right of the middle.
    pub lateral: Length,
    /// Height of its centre above the ground; absent, it has no part in roll.
    pub height: Option<Length>,
}

impl Load {
    /// A load on the middle line whose height does not matter.
    pub fn at(weight: Force, position: Length) -> Self {
        Load { weight, position, lateral: metres(0.0), height: None }
    }
}

/// A pull on the body straight to one side, as by a strap.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct SidewaysPull {
    /// How hard; + = to the right.
    pub force: Force,
    /// At what height above the ground.
    pub height: Length,
    /// Rearward from the front axle.
    pub position: Length,
}

/// What to solve for, measured from the kerb state.
#[derive(Debug, Clone, PartialEq)]
pub struct State {
    /// What the state is called.
    pub name: String,
    /// Everything aboard beyond the kerb weight.
    pub loads: Vec<Load>,
    /// What is different on the vehicle in this state.
    pub changes: Vec<Change>,
    /// Rise of a trailer's coupler from its kerb height.
    pub coupler_rise: Length,
    /// Sideways acceleration in units of standard gravity; + = the vehicle is pushed to the right.
    pub lateral_acceleration_g: f64,
    /// A couple on the body; + lifts the rear.
    pub pitch_couple: Moment,
    /// What pulls the body to one side, if anything.
    pub sideways_pull: Option<SidewaysPull>,
}

impl State {
    /// A state with these loads and nothing changed on the vehicle.
    pub fn with_loads(name: impl Into<String>, loads: Vec<Load>) -> Self {
        State {
            name: name.into(),
            loads,
            changes: Vec::new(),
            coupler_rise: metres(0.0),
            lateral_acceleration_g: 0.0,
            pitch_couple: newton_metres_per_radian(0.0),
            sideways_pull: None,
        }
    }

    /// The same state with a list of changes on the vehicle.
    #[must_use]
    pub fn changed(mut self, changes: Vec<Change>) -> Self {
        self.changes = changes;
        self
    }
}

/// One thing changed on the vehicle. `side` absent means both sides.
#[derive(Debug, Clone, PartialEq)]
pub enum Change {
    /// An element is fitted; it comes on top of the kerb forces.
    Add {
        /// On which axle.
        axle: String,
        /// On which side.
        side: Option<Side>,
        /// The element.
        element: Element,
    },
    /// An element is taken off.
    Remove {
        /// On which axle.
        axle: String,
        /// On which side.
        side: Option<Side>,
        /// The element's name.
        element: String,
    },
    /// A block, or a coil or strut spacer, between spring and axle or body; negative takes one out.
    Spacer {
        /// On which axle.
        axle: String,
        /// On which side.
        side: Option<Side>,
        /// Its thickness along the spring.
        thickness: Length,
    },
    /// An element's clearance is opened (+) or closed (−).
    Gap {
        /// On which axle.
        axle: String,
        /// On which side.
        side: Option<Side>,
        /// The element's name.
        element: String,
        /// By how much.
        by: Length,
    },
    /// The main spring pushes harder at the same length (re-arched, replaced).
    Spring {
        /// On which axle.
        axle: String,
        /// On which side.
        side: Option<Side>,
        /// Force added, at the wheel.
        added_force: Force,
    },
    /// Another main spring stands in the place of the one measured; several of them add up.
    OtherSpring {
        /// On which axle.
        axle: String,
        /// On which side.
        side: Option<Side>,
        /// What it carries more at the same length, at the spring.
        difference: SpringDifference,
    },
    /// Another tyre or another pressure.
    Tyre {
        /// On which axle.
        axle: String,
        /// The new rate per wheel end, where it changes.
        rate: Option<SpringRate>,
        /// The free radius gained.
        radius_change: Length,
    },
    /// Another anti-roll bar.
    AntiRoll {
        /// On which axle.
        axle: String,
        /// Its stiffness.
        stiffness: RollStiffness,
    },
}
