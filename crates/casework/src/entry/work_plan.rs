//! The plan of the work, as typed: under what it is done, what is there and what is on its way, what came on top, what it took.

use schemars::JsonSchema;
use serde::{Deserialize, Serialize};

use super::{DayEntry, MoneyEntry, Typed};

/// Most things that come on top of what was chosen.
pub const MOST_EXTRAS: usize = 20;

/// Most needed things that anything is said of.
const MOST_SUPPLIES: usize = 60;
/// Most hours that anything takes.
pub const MOST_HOURS: f64 = 999.0;

/// Everything that the plan of a job says.
#[derive(Debug, Clone, PartialEq, Default, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields, default)]
pub struct WorkPlanEntry {
    /// How rusty its threads are.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub rust: Option<RustWord>,
    /// Whether two people work on it.
    #[serde(skip_serializing_if = "std::ops::Not::not")]
    pub two_people: bool,
    /// Whether it is done with hand tools alone.
    #[serde(skip_serializing_if = "std::ops::Not::not")]
    pub hand_tools: bool,
    /// Whether whoever does it has not done such work before.
    #[serde(skip_serializing_if = "std::ops::Not::not")]
    pub first_time: bool,
    /// How it is raised; nothing, while nobody said.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub raised: Option<RaisedWord>,
    /// Whether its threads were soaked the night before.
    #[serde(skip_serializing_if = "std::ops::Not::not")]
    pub soaked: bool,
    /// What the stands are rated for.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub stands: Option<StandsEntry>,
    /// Thread of the U-bolts, as on the old ones.
    #[serde(skip_serializing_if = "String::is_empty")]
    pub u_bolt_thread: String,
    /// Width between the legs of a U-bolt, inside.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub u_bolt_width: Option<Typed>,
    /// Shape of the bend, as its seat asks.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub u_bolt_bend: Option<BendWord>,
    /// Where each needed thing stands.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub supplies: Vec<SupplyEntry>,
    /// What comes on top: proposed, or found on the way.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub extras: Vec<ExtraEntry>,
    /// The hours that the shop quotes, in the place of those by the steps.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub quoted_hours: Option<f64>,
    /// The hours that it took.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub took_hours: Option<f64>,
    /// What there is to say of that.
    #[serde(skip_serializing_if = "String::is_empty")]
    pub took_words: String,
}

impl WorkPlanEntry {
    /// The first thing about it that cannot be: the field, and what is wrong there.
    pub fn problem(&self) -> Option<(String, String)> {
        if self.extras.len() > MOST_EXTRAS || self.supplies.len() > MOST_SUPPLIES {
            return Some(("extras".to_owned(), format!("a plan has up to {MOST_EXTRAS} things on top")));
        }
        let hours =
            [("quoted_hours", self.quoted_hours), ("took_hours", self.took_hours)].map(|(at, hours)| (at.to_owned(), hours));
        let of_extras = self.extras.iter().enumerate().map(|(place, extra)| (format!("extras[{place}].hours"), extra.hours));
        let mut all = hours.into_iter().chain(of_extras);
        if let Some((at, _)) = all.find(|(_, hours)| hours.is_some_and(|hours| !(0.0..=MOST_HOURS).contains(&hours))) {
            return Some((at, format!("hours are from 0 to {MOST_HOURS}")));
        }
        let nameless = self.extras.iter().position(|extra| extra.what.trim().is_empty());
        if let Some(place) = nameless {
            return Some((format!("extras[{place}].what"), "it is called something".to_owned()));
        }
        let misread = |money: &&MoneyEntry| MoneyEntry::read(&money.text, money.currency).as_ref() != Some(*money);
        let prices =
            self.extras.iter().enumerate().map(|(place, extra)| (format!("extras[{place}].price"), extra.price.as_ref()));
        let of_supplies =
            self.supplies.iter().enumerate().map(|(place, supply)| (format!("supplies[{place}].price"), supply.price.as_ref()));
        let wrong = prices.chain(of_supplies).find(|(_, price)| price.as_ref().is_some_and(misread));
        wrong.map(|(at, _)| (at, "the text does not read as what stands beside it".to_owned()))
    }
}

/// How rusty threads are.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, JsonSchema)]
#[serde(rename_all = "snake_case")]
pub enum RustWord {
    /// Clean.
    None,
    /// Surface rust.
    Some,
    /// Seized or wasted.
    Heavy,
}

impl RustWord {
    /// Every one, from the least.
    pub const ALL: [RustWord; 3] = [RustWord::None, RustWord::Some, RustWord::Heavy];
}

/// How a vehicle is raised.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, JsonSchema)]
#[serde(rename_all = "snake_case")]
pub enum RaisedWord {
    /// From the floor, on stands.
    Floor,
    /// On a lift.
    Lift,
}

impl RaisedWord {
    /// Both.
    pub const ALL: [RaisedWord; 2] = [RaisedWord::Floor, RaisedWord::Lift];
}

/// What stands are rated for.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct StandsEntry {
    /// The figure on them.
    pub rating: Typed,
    /// Whether that is of the pair, and not of each.
    pub of_the_pair: bool,
}

/// The bend of a U-bolt.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, JsonSchema)]
#[serde(rename_all = "snake_case")]
pub enum BendWord {
    /// Round, over an axle tube.
    Round,
    /// Square, over a square axle or a pack.
    Square,
    /// Round at its corners and flat between them.
    SemiRound,
}

impl BendWord {
    /// Every one.
    pub const ALL: [BendWord; 3] = [BendWord::Round, BendWord::Square, BendWord::SemiRound];
}

/// Where a needed thing stands. That it is here and was held against the vehicle is ticked on the card.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct SupplyEntry {
    /// What it goes by on the card.
    pub key: String,
    /// Where it is; nothing, while nobody said.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub stands: Option<SupplyWord>,
    /// The day it is to come.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub due: Option<DayEntry>,
    /// What it costs, where the shelf does not say.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub price: Option<MoneyEntry>,
}

/// Where a needed thing is.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, JsonSchema)]
#[serde(rename_all = "snake_case")]
pub enum SupplyWord {
    /// On the shelf, as the shelf or nobody says otherwise.
    OnTheShelf,
    /// To be ordered.
    ToOrder,
    /// Ordered.
    Ordered,
}

impl SupplyWord {
    /// Every one.
    pub const ALL: [SupplyWord; 3] = [SupplyWord::OnTheShelf, SupplyWord::ToOrder, SupplyWord::Ordered];
}

/// Work on top of what was chosen.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct ExtraEntry {
    /// What it is.
    pub what: String,
    /// The word of the proposal that it began as; nothing of what was found on the way.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub proposal: String,
    /// What its parts cost.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub price: Option<MoneyEntry>,
    /// What it takes, in hours of one person.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub hours: Option<f64>,
    /// What the customer said; nothing, while nobody asked.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub agreed: Option<bool>,
    /// Who said so, and how: in person, by telephone.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub said_by: String,
}
