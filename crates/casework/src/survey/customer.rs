//! What the customer says, and what was done to the vehicle before.

use schemars::JsonSchema;
use serde::{Deserialize, Serialize};

/// What the customer complains of.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, Deserialize, JsonSchema)]
#[serde(rename_all = "snake_case")]
pub enum Complaint {
    /// Sits low with nothing aboard.
    LowEmpty,
    /// Sits low with the load on.
    LowLoaded,
    /// Leans to one side.
    Leans,
    /// Bottoms out.
    Bottoms,
    /// Nose up.
    NoseUp,
    /// Stands too high behind.
    TooMuchRake,
    /// Lights too high.
    LightsHigh,
    /// Floats or sways.
    FloatsOrSways,
    /// Too harsh.
    TooHarsh,
    /// Drags a hitch, step or drain.
    Drags,
}

impl Complaint {
    /// Every complaint, in the order it is offered.
    pub const ALL: [Complaint; 10] = [
        Complaint::LowEmpty,
        Complaint::LowLoaded,
        Complaint::Leans,
        Complaint::Bottoms,
        Complaint::NoseUp,
        Complaint::TooMuchRake,
        Complaint::LightsHigh,
        Complaint::FloatsOrSways,
        Complaint::TooHarsh,
        Complaint::Drags,
    ];

    /// Whether it is of how the vehicle stands with a load on.
    pub fn is_of_the_load(self) -> bool {
        use Complaint::{Bottoms, Drags, FloatsOrSways, LightsHigh, LowLoaded, NoseUp};
        matches!(self, LowLoaded | Bottoms | NoseUp | LightsHigh | FloatsOrSways | Drags)
    }

    /// Whether it asks for the rear to be held up better: a nose that points up does.
    pub fn is_of_the_rear(self) -> bool {
        self.is_of_the_load() || self == Complaint::LowEmpty
    }
}

/// Something done to the vehicle before it came.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, Deserialize, JsonSchema)]
#[serde(rename_all = "snake_case")]
pub enum Modification {
    /// Blocks at the rear.
    RearBlock,
    /// Spacers at the front springs or struts.
    FrontSpacer,
    /// Spacers at the rear springs.
    RearSpacer,
    /// Spacers, of which nobody said at which end: what was noted before the ends were asked for.
    Spacer,
    /// Longer shackles.
    LongerShackle,
    /// Leaves added.
    AddedLeaf,
    /// Air helpers.
    AirHelper,
    /// Steel helpers or load rubbers.
    Helper,
    /// Other springs than it was made with.
    OtherSprings,
}

impl Modification {
    /// Every one, in the order it is offered.
    pub const ALL: [Modification; 9] = [
        Modification::RearBlock,
        Modification::FrontSpacer,
        Modification::RearSpacer,
        Modification::Spacer,
        Modification::LongerShackle,
        Modification::AddedLeaf,
        Modification::AirHelper,
        Modification::Helper,
        Modification::OtherSprings,
    ];
}
