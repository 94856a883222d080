//! What an answer says: in codes, with bands.

use wise_badger_mechanics::correction::{Correction, KindRow, Quantity};
use wise_badger_mechanics::uncertain::Uncertain;
use wise_badger_mechanics::units::{Force, Length};

use crate::entry::MoneyEntry;

/// What is behind it, as far as what was said tells.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Behind {
    /// The load takes it down by as much as sound springs of its class give.
    TheLoad,
    /// It sits lower than its load explains, or low with nothing aboard: springs that have set.
    TiredSprings,
    /// What was said goes with either.
    Either,
}

/// What to measure or look at first when it comes in.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum First {
    /// The plate or sticker with its ratings.
    Ratings,
    /// That it comes as it is when it sits low.
    BringItLoaded,
    /// The axles on a scale.
    WeighTheAxles,
    /// Heights at every corner, loaded and then empty.
    Heights,
    /// The gap at the stops.
    StopGap,
    /// What presses on the ball.
    TongueWeight,
    /// Leaves, eyes, shackles, U-bolts.
    Leaves,
    /// Coils, seats, bushings.
    Coils,
    /// What the rear rests on.
    WhichSprings,
    /// Both sides, with the load in the middle.
    BothSides,
    /// The height of the ball that tows it.
    BallHeight,
}

/// What could turn the answer.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum MayChange {
    /// Springs of one class differ by a third.
    Stiffness,
    /// The load was told, not weighed.
    Weight,
    /// No load was told: it is what would press it down so far.
    NoLoadTold,
    /// No rating was told, and no part raises one.
    NoRating,
    /// It is near its rating.
    NearItsRating,
    /// A leaf, a coil, an eye or a seat that has failed.
    FailedPart,
    /// Stops that bear hide how far down it would go.
    Stops,
    /// A tongue that takes weight off the front: no rear spring puts it back.
    NoseUp,
    /// A load to one side is moved before a spring is.
    Lean,
    /// Coil or leaf was not told.
    WhichSprings,
}

/// A part of the shelf that comes near.
#[derive(Debug, Clone)]
pub struct FromTheShelf {
    /// Its place among the parts looked through.
    pub place: usize,
    /// How it is set.
    pub setting: Option<(&'static str, Quantity)>,
    /// How far it lifts the rear with the load on.
    pub rise: Uncertain<Length>,
}

/// A kind that probably does it.
#[derive(Debug, Clone)]
pub struct KindAnswer {
    /// The kind.
    pub row: &'static KindRow,
    /// What it would have to be, by its one figure that sizes it.
    pub size: Option<(&'static str, Quantity)>,
    /// A part of it.
    pub part: Option<Correction>,
    /// How far such a one lifts the rear with the load on.
    pub rise: Option<Uncertain<Length>>,
    /// What of the shelf comes nearest.
    pub shelf: Vec<FromTheShelf>,
    /// Prices from and to, in hundredths, of what of the shelf comes nearest.
    pub price: Option<(MoneyEntry, MoneyEntry)>,
    /// Hours from and to.
    pub hours: Option<(f64, f64)>,
    /// It wants upkeep.
    pub upkeep: bool,
    /// It adds height and carries nothing.
    pub height_alone: bool,
}

/// The answer.
#[derive(Debug, Clone)]
pub struct QuickAnswer {
    /// How far its load should press the rear down by the springs of its class; none where no load was told.
    pub comes_down: Option<Uncertain<Length>>,
    /// What of the load comes onto the rear axle.
    pub on_the_rear: Option<Uncertain<Force>>,
    /// How far down it was said to sit.
    pub told_low: Option<Uncertain<Length>>,
    /// What is behind it.
    pub behind: Behind,
    /// How far it is to come up.
    pub gain: Uncertain<Length>,
    /// By how much the rear axle is probably over the rating that was told: then no kind is told.
    pub over: Option<Force>,
    /// Two or three kinds, the likeliest first.
    pub kinds: Vec<KindAnswer>,
    /// What to measure or look at first.
    pub first: Vec<First>,
    /// What could turn it.
    pub may_change: Vec<MayChange>,
}

/// Why nothing is answered.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum NoAnswer {
    /// Nothing was said of a load, nor of how low it sits.
    NothingSaid,
    /// Nothing can be worked out for such a load.
    NotSolved,
}
