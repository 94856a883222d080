//! All that a shelf has for a job, as a document: ranked, with why not the others.

use serde::Serialize;
use serde_json::{Map, Value};

use super::result::{Outcome, Refusal, unpredicted_rule};
use crate::casework::Casework;
use crate::entry::{PartEntry, ShelfPart};
use crate::finder::{Asked, Found, Lead, Ranked, Refused, Survives, Weights, Wish, Worth};
use crate::look_over::Addition;
use crate::shelf::RowError;

/// Ranked options, what leads when no spring is the answer, and what was refused.
#[derive(Debug, Serialize)]
pub struct OptionsResult {
    format: &'static str,
    version: u32,
    /// What comes before any spring, the weightiest first.
    leads: Vec<Leads>,
    options: Vec<Option_>,
    refused: Vec<RefusedOption>,
    /// Parts that ask for figures of the vehicle that nobody took.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    wanting: Vec<WantingOf>,
    counted: Counts,
    weights: Map<String, Value>,
    /// Parts of the shelf's document that are none, and were not looked at.
    not_read: Vec<NotRead>,
}

#[derive(Debug, Serialize)]
struct NotRead {
    part: usize,
    at: String,
    what: String,
}

#[derive(Debug, Serialize)]
struct Leads {
    rule: &'static str,
    /// Whether nothing is proposed before it is settled.
    first: bool,
    /// Of goals that contradict each other, their places from 0.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    goals: Vec<usize>,
    /// What has to be aboard for the readings to tell the springs.
    #[serde(skip_serializing_if = "Option::is_none")]
    load_needed_n: Option<f64>,
}

#[derive(Debug, Serialize)]
struct Option_ {
    rank: usize,
    parts: Vec<PartOf>,
    #[serde(skip_serializing_if = "Option::is_none")]
    chance: Option<ChanceOf>,
    score: f64,
    /// Whether another is as good in everything, and better in something.
    dominated: bool,
    schools: Vec<&'static str>,
    /// Whether it is another way of doing what an option before it does.
    another_way: bool,
    worth: WorthOf,
    /// What is not predicted with it, by rule.
    unpredicted: Vec<&'static str>,
    #[serde(skip_serializing_if = "Option::is_none")]
    survives: Option<SurvivesOf>,
    #[serde(flatten)]
    outcome: Outcome,
}

#[derive(Debug, Serialize)]
struct PartOf {
    #[serde(skip_serializing_if = "Option::is_none")]
    number: Option<String>,
    #[serde(flatten)]
    part: Value,
}

#[derive(Debug, Serialize)]
struct ChanceOf {
    all: f64,
    each: Vec<f64>,
    #[serde(skip_serializing_if = "Option::is_none")]
    limited_by: Option<usize>,
    /// Without the goals that speak of what comes later.
    #[serde(skip_serializing_if = "Option::is_none")]
    now: Option<f64>,
}

#[derive(Debug, Serialize)]
struct WorthOf {
    #[serde(skip_serializing_if = "Option::is_none")]
    price_hundredths: Option<i64>,
    #[serde(skip_serializing_if = "Option::is_none")]
    hours: Option<f64>,
    #[serde(skip_serializing_if = "Option::is_none")]
    days: Option<u32>,
    upkeep: Vec<String>,
    removable: bool,
    #[serde(skip_serializing_if = "Option::is_none")]
    cures: Option<bool>,
    #[serde(skip_serializing_if = "Option::is_none")]
    cures_share: Option<f64>,
    #[serde(skip_serializing_if = "Option::is_none")]
    firmer_empty: Option<f64>,
    #[serde(skip_serializing_if = "Option::is_none")]
    firmer_loaded: Option<f64>,
    #[serde(skip_serializing_if = "Option::is_none")]
    headroom: Option<f64>,
    against_a_wish: Vec<&'static str>,
}

/// What of an option stays once what comes later is aboard.
#[derive(Debug, Serialize)]
struct SurvivesOf {
    how: &'static str,
    /// The parts that are added, or that come off.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    parts: Vec<String>,
}

/// A part that asks for figures of the vehicle.
#[derive(Debug, Serialize)]
struct WantingOf {
    number: String,
    figures: Vec<&'static str>,
}

/// What comes short for a refused option.
#[derive(Debug, Serialize)]
struct AskedOf {
    what: Addition,
    short_m: f64,
    #[serde(skip_serializing_if = "Option::is_none")]
    may_do: Option<String>,
}

#[derive(Debug, Serialize)]
struct RefusedOption {
    parts: Vec<PartOf>,
    rules: Vec<Refusal>,
    #[serde(skip_serializing_if = "Option::is_none")]
    chance: Option<f64>,
    #[serde(skip_serializing_if = "Vec::is_empty")]
    asks: Vec<AskedOf>,
}

#[derive(Debug, Serialize)]
struct Counts {
    parts: usize,
    fit: usize,
    want_a_figure: usize,
    left_out: usize,
    move_nothing: usize,
    screened: usize,
    not_screened: usize,
    judged: usize,
}

impl OptionsResult {
    /// What was found for a job; `wrong` is what of the shelf could not be read.
    pub fn of(work: &Casework, found: &Found, weights: &Weights, wrong: &[RowError]) -> Self {
        let counted = found.counted;
        OptionsResult {
            format: "wise-badger/options-result",
            version: 1,
            leads: found.leads.iter().map(Leads::of).collect(),
            options: found.ranked.iter().enumerate().map(|(place, ranked)| Option_::of(work, place, ranked)).collect(),
            refused: found.refused.iter().map(RefusedOption::of).collect(),
            wanting: found
                .wanting
                .iter()
                .map(|wanting| WantingOf { number: wanting.number.clone(), figures: wanting.figures.clone() })
                .collect(),
            counted: Counts {
                parts: counted.parts,
                fit: counted.fit,
                want_a_figure: counted.want_a_figure,
                left_out: counted.left_out,
                move_nothing: counted.move_nothing,
                screened: counted.screened,
                not_screened: counted.not_screened,
                judged: counted.judged,
            },
            weights: weights.each().into_iter().map(|(word, weight)| (word.to_owned(), weight.into())).collect(),
            not_read: wrong.iter().map(|row| NotRead { part: row.row, at: row.at.clone(), what: row.what.clone() }).collect(),
        }
    }

    /// As text.
    ///
    /// # Panics
    /// never: it is made of numbers and words alone.
    pub fn to_json(&self) -> String {
        serde_json::to_string_pretty(self).expect("numbers and words")
    }
}

impl Leads {
    fn of(lead: &Lead) -> Self {
        let goals = match lead {
            Lead::AimContradicts(one, other) => vec![*one, *other],
            _ => Vec::new(),
        };
        let load_needed_n = match lead {
            Lead::TooWeak(load) => load.map(|load| load.value),
            _ => None,
        };
        Leads { rule: lead.word(), first: lead.bars_everything(), goals, load_needed_n }
    }
}

impl Option_ {
    fn of(work: &Casework, place: usize, ranked: &Ranked) -> Self {
        let trial = work.trying(ranked.option.clone(), work.case().plan.clone());
        Option_ {
            rank: place + 1,
            parts: ranked.option.parts.iter().map(PartOf::of).collect(),
            chance: ranked.chance.as_ref().map(|chance| ChanceOf {
                all: chance.all,
                each: chance.each.clone(),
                limited_by: chance.limited_by(),
                now: chance.now,
            }),
            score: ranked.score,
            dominated: ranked.dominated,
            schools: ranked.schools.iter().map(|school| school.word()).collect(),
            another_way: ranked.another_way,
            worth: WorthOf::of(&ranked.worth),
            unpredicted: ranked.unpredicted.iter().map(|why| unpredicted_rule(*why)).collect(),
            survives: ranked.survives.as_ref().map(SurvivesOf::of),
            outcome: Outcome::of(&trial, 0),
        }
    }
}

impl PartOf {
    fn of(part: &PartEntry) -> Self {
        let number = part.shelf.as_deref().map(|part: &ShelfPart| part.number.clone());
        // What stands on the shelf is told there; here by its number.
        let bare = PartEntry { shelf: None, ..part.clone() };
        PartOf { number, part: serde_json::to_value(&bare).unwrap_or(Value::Null) }
    }
}

impl WorthOf {
    fn of(worth: &Worth) -> Self {
        let [firmer_empty, firmer_loaded] = worth.firmer;
        WorthOf {
            price_hundredths: worth.price.map(|(price, _)| price),
            hours: worth.hours,
            days: worth.days,
            upkeep: worth.upkeep.clone(),
            removable: worth.removable,
            cures: worth.cures.as_ref().map(|cures| cures.the_likeliest()),
            cures_share: worth.cures.as_ref().map(|cures| cures.share),
            firmer_empty,
            firmer_loaded,
            headroom: worth.headroom,
            against_a_wish: worth.against_a_wish.iter().map(Wish::word).collect(),
        }
    }
}

impl SurvivesOf {
    fn of(survives: &Survives) -> Self {
        let (how, parts) = match survives {
            Survives::AsItIs => ("as_it_is", &[][..]),
            Survives::With(more) => ("with", &more[..]),
            Survives::SetOtherwise => ("set_otherwise", &[][..]),
            Survives::ComesOff(parts) => ("comes_off", &parts[..]),
            Survives::NotKnown => ("not_known", &[][..]),
        };
        SurvivesOf { how, parts: parts.to_vec() }
    }
}

impl AskedOf {
    fn of(asked: &Asked) -> Self {
        AskedOf { what: asked.what, short_m: asked.by.value, may_do: asked.may_do.clone() }
    }
}

impl RefusedOption {
    fn of(refused: &Refused) -> Self {
        let misses = refused.misses_the_aim.as_ref().map(|_| Refusal::misses_the_aim());
        let of_rules = refused.gates.iter().map(Refusal::of).chain(refused.unpredicted.map(Refusal::untold));
        RefusedOption {
            parts: refused.option.parts.iter().map(PartOf::of).collect(),
            rules: of_rules.chain(misses).collect(),
            chance: refused.misses_the_aim.as_ref().map(|chance| chance.all),
            asks: refused.asks.iter().map(AskedOf::of).collect(),
        }
    }
}
