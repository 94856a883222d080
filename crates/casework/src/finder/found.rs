//! What was found: options that are allowed, options that are not, and what leads.

use wise_badger_mechanics::correction::KindRow;

use super::asked::Asked;
use super::chance::Chance;
use super::lead::Lead;
use super::school::School;
use super::search::Counted;
use super::worth::Worth;
use crate::entry::OptionEntry;
use crate::look_over::Gate;
use crate::prediction::Unpredicted;

/// What was found.
#[derive(Debug, Clone, Default)]
pub struct Found {
    /// What comes before any spring, the weightiest first.
    pub leads: Vec<Lead>,
    /// The options that are allowed, the best first.
    pub ranked: Vec<Ranked>,
    /// What was refused, with why.
    pub refused: Vec<Refused>,
    /// The parts that ask for figures of the vehicle that nobody took.
    pub wanting: Vec<Wanting>,
    /// How much was looked at.
    pub counted: Counted,
    /// Whether whoever waited for it called it off before its end.
    pub called_off: bool,
}

impl Found {
    /// The best of each school by itself, in the order of the schools: what there is to choose between before anything is combined.
    pub fn by_school(&self) -> Vec<(School, &Ranked)> {
        let best =
            |school: School| Some((school, self.ranked.iter().filter(|option| option.schools == [school]).max_by(better)?));
        School::ALL.into_iter().filter_map(best).collect()
    }
}

fn better(one: &&Ranked, other: &&Ranked) -> std::cmp::Ordering {
    one.score.total_cmp(&other.score)
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
    /// What of it survives once what comes later is aboard; `None` where no goal speaks of such a case.
    pub survives: Option<Survives>,
}

/// What becomes of an option once what comes later is aboard.
#[derive(Debug, Clone, PartialEq)]
pub enum Survives {
    /// It does for that too.
    AsItIs,
    /// It stays on, and these parts of another option are added, by the numbers of the shelf.
    With(Vec<String>),
    /// It stays on and is set otherwise.
    SetOtherwise,
    /// Another option does for that; of this one these come off again.
    ComesOff(Vec<String>),
    /// Nothing that was found does for that: it is decided again once it is weighed.
    NotKnown,
}

/// A part of the shelf that would go onto the vehicle, and asks for figures of it that nobody took.
#[derive(Debug, Clone)]
pub struct Wanting {
    /// Its number on the shelf.
    pub number: String,
    /// What the shop calls it.
    pub name: String,
    /// Its kind.
    pub kind: &'static KindRow,
    /// The figures, by their names.
    pub figures: Vec<&'static str>,
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
    /// What comes short for it.
    pub asks: Vec<Asked>,
}

/// Chances closer than this are the same.
const SAME_CHANCE: f64 = 0.015;

impl Ranked {
    /// Whether it is at least as good in everything that is known of both, and better in something. What is not known of one of them
    /// leaves the question open.
    pub fn is_better_in_everything_than(&self, other: &Ranked) -> bool {
        // Closer than they are drawn to, chances are the same.
        let chance = |of: &Ranked| of.chance.as_ref().map(|chance| -chance.all);
        let (own, others) = (chance(self), chance(other));
        let same = own.zip(others).is_some_and(|(own, others)| (own - others).abs() < SAME_CHANCE);
        #[expect(clippy::cast_precision_loss, reason = "no price has so many figures")]
        let price = |of: &Ranked| of.worth.price.map(|(price, _)| price as f64);
        let each = [
            if same { (None, None) } else { (own, others) },
            (price(self), price(other)),
            (self.worth.hours, other.worth.hours),
            (self.worth.days.map(f64::from), other.worth.days.map(f64::from)),
            (upkeep(self), upkeep(other)),
            (comes_off(self), comes_off(other)),
            (cures(self), cures(other)),
            (self.worth.firmer[0], other.worth.firmer[0]),
            (self.worth.firmer[1], other.worth.firmer[1]),
            (parts(self), parts(other)),
        ];
        let mut better = false;
        for (own, others) in each {
            match (own, others) {
                (Some(own), Some(others)) if own > others + 1e-9 => return false,
                (Some(own), Some(others)) => better |= own < others - 1e-9,
                (None, None) => {}
                _ => return false,
            }
        }
        better
    }
}

fn upkeep(of: &Ranked) -> Option<f64> {
    Some(if of.worth.upkeep.is_empty() { 0.0 } else { 1.0 })
}

fn parts(of: &Ranked) -> Option<f64> {
    #[expect(clippy::cast_precision_loss, reason = "a dozen at most")]
    let count = of.worth.parts as f64;
    Some(count)
}

fn comes_off(of: &Ranked) -> Option<f64> {
    Some(if of.worth.removable { 0.0 } else { 1.0 })
}

fn cures(of: &Ranked) -> Option<f64> {
    of.worth.cures.as_ref().map(|cures| -cures.share)
}
