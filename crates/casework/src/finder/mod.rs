//! The finder: every sensible combination of what is on the shelf, predicted in every load case, ranked, and why not the others.
//!
//! Parts that go onto the vehicle ([`pool`]) are combined, one of a role at most ([`combine`]); every combination is solved once by the
//! account that is told ([`screen`]); the best of them go the way of any option of the job, gates and all, and their chance of meeting the
//! aim is drawn from all that is in doubt together ([`judge`]). What the customer asked for and what it costs then ranks them ([`rank`]).
//! When no spring is the answer, that comes first ([`lead`]).

mod chance;
mod combine;
mod judge;
mod lead;
mod pool;
mod rank;
mod school;
mod screen;

use crate::casework::Casework;
use crate::entry::{OptionEntry, ShelfPart, TypedIn};
use crate::look_over::Gate;
use crate::prediction::Unpredicted;

pub use chance::Chance;
pub use lead::Lead;
pub use rank::{Weights, Wish, Worth};
pub use school::School;

/// Most combinations that are solved.
pub const MOST_SCREENED: usize = 2_000;
/// Most that are looked into with all that is in doubt.
pub const MOST_JUDGED: usize = 30;

/// What is looked for, and among what.
#[derive(Debug, Clone, Copy)]
pub struct Search<'a> {
    /// The job.
    pub work: &'a Casework,
    /// The shop's shelf.
    pub shelf: &'a [ShelfPart],
    /// What counts, and by how much.
    pub weights: Weights,
    /// The day that it is, for what is wanted by a day; `None` leaves that out.
    pub today: Option<&'a str>,
    /// The units that settings are written in.
    pub units: TypedIn,
}

/// What was found.
#[derive(Debug, Clone)]
pub struct Found {
    /// What comes before any spring, the weightiest first.
    pub leads: Vec<Lead>,
    /// The options that are allowed, the best first.
    pub ranked: Vec<Ranked>,
    /// What was refused, with why.
    pub refused: Vec<Refused>,
    /// How much was looked at.
    pub counted: Counted,
}

/// An option that is allowed.
#[derive(Debug, Clone)]
pub struct Ranked {
    /// Its parts, as it would be kept on the job.
    pub option: OptionEntry,
    /// The places of its parts on the shelf; none for work on what is there.
    pub places: Vec<Option<usize>>,
    /// The chance that every goal of the aim is met; `None` without an aim, or where what it speaks of is not predicted.
    pub chance: Option<Chance>,
    /// What it costs and asks for.
    pub worth: Worth,
    /// What it comes to, all weighed: from 0 to 1.
    pub score: f64,
    /// Whether another option is as good in everything, and better in something.
    pub dominated: bool,
    /// The schools of its parts.
    pub schools: Vec<School>,
    /// Whether an option of the same schools comes to more: then this is another way of doing that.
    pub another_way: bool,
    /// What is not predicted with it, and why.
    pub unpredicted: Vec<Unpredicted>,
}

/// What is not allowed.
#[derive(Debug, Clone)]
pub struct Refused {
    /// As it would be kept.
    pub option: OptionEntry,
    /// The places of its parts on the shelf.
    pub places: Vec<Option<usize>>,
    /// By which rules.
    pub gates: Vec<Gate>,
    /// Why it is not predicted, where that is why.
    pub unpredicted: Option<Unpredicted>,
    /// The chance that it meets the aim, where that is too small for it to be proposed.
    pub misses_the_aim: Option<Chance>,
}

/// How much was looked at.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub struct Counted {
    /// Parts on the shelf.
    pub parts: usize,
    /// Those of them that go onto this vehicle and move it.
    pub fit: usize,
    /// Those that ask for a figure of the vehicle that nobody took.
    pub want_a_figure: usize,
    /// Those left out of the combinations, since others of their kind do the same or nearly.
    pub left_out: usize,
    /// Combinations solved.
    pub screened: usize,
    /// Combinations that were not.
    pub not_screened: usize,
    /// Those looked into with all that is in doubt.
    pub judged: usize,
}

/// Looks for the options of a job, for as long as somebody waits for them: `goes_on` is asked between one and the next, and what was
/// found until then is given.
pub fn find(search: &Search<'_>, goes_on: &dyn Fn() -> bool) -> Found {
    let work = search.work;
    let mut leads = lead::leads(work);
    let mut counted = Counted { parts: search.shelf.len(), ..Counted::default() };
    if leads.iter().any(Lead::bars_everything) {
        return Found { leads, ranked: Vec::new(), refused: Vec::new(), counted };
    }
    let pool = pool::pool(search, &mut counted);
    let ground = screen::Ground::of(work);
    let pieces = combine::apart(&ground, pool.pieces, &mut counted);
    let combined = combine::combinations(&ground, &pieces, &mut counted);
    let screened = screen::screen(search, &ground, &pieces, combined, &mut counted, goes_on);
    let mut judged = judge::judge(search, &ground, &pieces, &screened, &mut counted, goes_on);
    judged.refused.splice(0..0, pool.refused);
    rank::rank(search, &mut judged.ranked);
    if judged.ranked.is_empty() {
        leads.push(Lead::NothingAllowed);
    }
    Found { leads, ranked: judged.ranked, refused: judged.refused, counted }
}
