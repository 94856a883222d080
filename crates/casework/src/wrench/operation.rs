//! What is done at a vehicle, one thing at a time.

/// When in the work something is done. The order is that of the work.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
pub enum Phase {
    /// Before anything is raised.
    Before,
    /// An end comes off the ground.
    Raise,
    /// What is there comes apart.
    Apart,
    /// What is new goes in, and it comes together.
    Together,
    /// All is together and the axle still hangs.
    Hanging,
    /// The end comes down.
    Lower,
    /// The weight is on the wheels.
    OnWheels,
    /// The drive, and what comes after it.
    Drive,
}

/// How often something stands on a card.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Each {
    /// Once.
    Job,
    /// Once at each end that is worked on.
    End,
    /// Once at each corner that is worked on.
    Corner,
}

/// What a step asks of whoever does it.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Asks {
    /// That it is done.
    Done,
    /// An answer, yes or no: with a no nothing goes on.
    Hold,
    /// A torque: the maker's figure, and what the wrench read.
    Torque(Fastener),
    /// A photograph, or at least a look.
    Picture,
}

/// Something that holds something.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Fastener {
    /// Of the wheels.
    LugNuts,
    /// Round axle and pack.
    UBolts,
    /// Through the pack.
    CenterBolt,
    /// Of the spring's fixed eye.
    EyeBolt,
    /// Of the shackle.
    ShackleBolts,
    /// Of the shock.
    ShockBolts,
    /// Of the sway bar's links.
    BarLinks,
    /// Of the sway bar itself.
    BarBrackets,
    /// Of the track bar.
    TrackBar,
    /// Of the radius arms at the frame.
    RadiusArms,
    /// Of the strut at the body.
    StrutTop,
    /// Of the strut at the knuckle.
    StrutBottom,
    /// Of a half-shaft at the hub.
    AxleNut,
    /// Of the front differential.
    Differential,
    /// Of a bump stop or a load rubber.
    Stop,
    /// Of a helper spring.
    Helper,
    /// Of an air bag's brackets.
    BagBrackets,
    /// Of the brake hose's bracket.
    HoseBracket,
}

impl Fastener {
    /// Whether its last tightening waits for the weight on the wheels: what turns in rubber is not twisted before, and a pack is not
    /// clamped before it lies as it will.
    pub fn waits_for_the_weight(self) -> bool {
        matches!(
            self,
            Fastener::UBolts
                | Fastener::EyeBolt
                | Fastener::ShackleBolts
                | Fastener::ShockBolts
                | Fastener::BarLinks
                | Fastener::BarBrackets
                | Fastener::TrackBar
                | Fastener::RadiusArms
                | Fastener::LugNuts
        )
    }
}

/// Something that is opened and must be closed again.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Catch {
    /// The clips of a pack.
    Clips,
    /// The brake circuit.
    BrakeCircuit,
    /// The cotter pins of split joints.
    CotterPins,
}

/// What a step does to something that holds.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Effect {
    /// It is loose from here on.
    Loosens(Fastener),
    /// It is on, and not tight yet.
    Snug(Fastener),
    /// It is tight.
    Final(Fastener),
    /// It is open from here on.
    Opens(Catch),
    /// It is closed.
    Closes(Catch),
}

/// How a vehicle is raised.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub enum Lifting {
    /// From the floor, onto stands.
    #[default]
    Floor,
    /// On a lift.
    Lift,
}

/// What decides whether something has to be done on this vehicle.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Setting {
    /// How it is raised.
    pub lifting: Lifting,
    /// Whether it is a trailer.
    pub trailer: bool,
    /// Whether its front wheels are driven.
    pub front_driven: bool,
}

/// One kind of step.
#[derive(Debug)]
pub struct Operation {
    /// The word that it goes by in records.
    pub word: &'static str,
    /// When.
    pub phase: Phase,
    /// How often.
    pub each: Each,
    /// What it asks.
    pub asks: Asks,
    /// What it does to what holds.
    pub effects: &'static [Effect],
    /// Whether it is done on a vehicle like this.
    pub applies: fn(&Setting) -> bool,
}
