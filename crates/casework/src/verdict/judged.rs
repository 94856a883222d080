//! A cause, and what is said for it, against it, and of what would settle it.

use super::breakdown::PartKind;
use crate::look_over::{Defect, Gate};
use crate::survey::{Complaint, Modification};
use wise_badger_mechanics::uncertain::Uncertain;
use wise_badger_mechanics::units::{Force, Length};

/// Why a vehicle sits low, leans or points its nose up.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub enum Cause {
    /// It carries more than it may.
    Overload,
    /// Something has failed.
    FailedPart,
    /// The springs have set.
    SpringSet,
    /// The springs are weaker than they should be.
    WeakSprings,
    /// What is always aboard.
    PermanentLoad,
    /// What is put on, within the ratings.
    CarriedLoad,
    /// It rests on its bump stops.
    OnTheStops,
    /// Weight behind the rear axle lifts the nose.
    WeightBehind,
    /// One spring stands lower than the other.
    LeanBySpring,
    /// The load sits to one side.
    LeanByLoad,
    /// The tyres.
    Tyres,
    /// What was done to it before.
    EarlierWork,
    /// Weight ahead of the front axle lifts the rear.
    WeightAhead,
    /// The pack lives on its overload leaf.
    OnTheOverloadLeaf,
    /// Its air springs do not hold it up.
    AirSprings,
    /// Shocks and sway bars, where it floats or sways with nothing aboard.
    ShocksAndBars,
}

/// One thing that speaks for a cause, or against it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Evidence {
    /// A rating is passed by so much.
    OverRating(Force),
    /// The same as far as assumed weights go.
    OverRatingAsAssumed(Force),
    /// Something on the look-over that stops the job.
    Stopped(Gate),
    /// A part of the way down, larger than its band.
    Part(PartKind, Uncertain<Length>),
    /// A part of the way down that is within its band.
    PartWithinItsBand(PartKind, Uncertain<Length>),
    /// The measured rate is such a share of what it should be.
    RateOverSound(f64),
    /// Found on the look-over.
    Found(Defect),
    /// What the customer complains of.
    Complaint(Complaint),
    /// The gap left at the stops with the load on.
    GapLoaded(Length),
    /// The stops close in the readings.
    StopsClose,
    /// The rate is so many times what the class usually has.
    StifferThanItsClass(f64),
    /// The front came up by so much with the load on.
    FrontRose(Length),
    /// So much is taken off the front axle.
    FrontLightened(Force),
    /// So much is put on the front axle: what lies behind the rear axle does not outweigh what lies ahead of it.
    FrontWeighedDown(Force),
    /// The load's centre is so far off the middle, to the low side or away from it.
    LoadToOneSide(Length),
    /// What was found done to it.
    Modified(Modification),
    /// So much is always on the rear axle.
    AlwaysAboard(Force),
    /// So much is taken off the rear axle.
    RearLightened(Force),
    /// The overload leaf bears with nothing put on.
    BearsEmpty,
    /// The rear rests on air springs.
    RestsOnAir,
    /// What was put on was a weight for the reading alone.
    TestWeight,
}

/// What would settle it.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Settling {
    /// The height it had when sound, from the maker or a sound twin.
    SoundHeight,
    /// The rate it should have, from the maker or the spring's sheet.
    SoundRate,
    /// Weigh both axles.
    WeighAxles,
    /// Read the stop gap with the load on.
    GapLoaded,
    /// Read from the hub, which leaves the tyres out.
    ReadFromTheHub,
    /// Read the hub itself from the ground, empty and loaded: a trailer's frame is not read from its hubs.
    HubFromTheGround,
    /// Read all four corners, empty.
    CornersEmpty,
    /// Read again with the load in the middle.
    LoadInTheMiddle,
    /// Read the front, empty and loaded.
    FrontHeights,
    /// Take it off, and read again.
    TakeOutAndRead,
    /// Put on more, and read again.
    MoreLoad,
}

/// A cause with what speaks for it and against it.
#[derive(Debug, Clone, PartialEq)]
pub struct Judged {
    /// The cause.
    pub cause: Cause,
    /// What speaks for it.
    pub evidence_for: Vec<Evidence>,
    /// What speaks against it.
    pub evidence_against: Vec<Evidence>,
    /// What would settle it, where anything would.
    pub settles: Option<Settling>,
    score: i32,
}

impl Judged {
    /// Whether more speaks for it than against it.
    pub fn is_likely(&self) -> bool {
        self.score > 0
    }

    /// How much more speaks for it than against it.
    pub(crate) fn score(&self) -> i32 {
        self.score
    }

    pub(super) fn new(cause: Cause) -> Self {
        Judged { cause, evidence_for: Vec::new(), evidence_against: Vec::new(), settles: None, score: 0 }
    }

    pub(super) fn with(mut self, points: i32, evidence: Evidence) -> Self {
        self.evidence_for.push(evidence);
        self.score += points;
        self
    }

    pub(super) fn against(mut self, points: i32, evidence: Evidence) -> Self {
        self.evidence_against.push(evidence);
        self.score -= points;
        self
    }

    pub(super) fn settled_by(mut self, settling: Option<Settling>) -> Self {
        self.settles = settling;
        self
    }
}
