//! The load plan, as typed: things aboard, each with its place, and the cases they are aboard in.

use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use wise_badger_mechanics::units::{Force, Length, cubic_metres, metres};

use super::{Typed, TypedIn, UnitWord};
use crate::survey::{Basis, Ends, Item, Liquid};

/// Everything aboard, and in which cases.
#[derive(Debug, Clone, PartialEq, Default, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct LoadPlanEntry {
    /// The cases that have a name.
    pub cases: Vec<CaseEntry>,
    /// What is aboard in any of them, or always.
    pub items: Vec<ItemEntry>,
}

/// A named load case.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct CaseEntry {
    /// Which case of the job it is, whatever its name.
    pub key: u8,
    /// What the shop calls it.
    pub name: String,
    /// What a scale said of the front axle.
    pub front_scale: Option<Typed>,
    /// What a scale said of the rear axle.
    pub rear_scale: Option<Typed>,
    /// Another case, by its key: whatever is aboard in that one is aboard in this one too.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub with: Option<u8>,
    /// Whether it is not aboard yet and comes later: a rack next spring, what a build-out will weigh.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub later: bool,
}

/// A thing aboard.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct ItemEntry {
    /// What it is called.
    pub name: String,
    /// A liquid given by its volume; everything else is given by its weight.
    pub liquid: Option<LiquidWord>,
    /// Its weight, or the liquid's volume.
    pub amount: Typed,
    /// How far from the rear axle.
    pub distance: Typed,
    /// Whether that is ahead of the axle.
    pub ahead: bool,
    /// How far from the middle.
    pub lateral: Option<Typed>,
    /// Whether that is to the left.
    pub left: bool,
    /// Height of its middle above the ground.
    pub height: Option<Typed>,
    /// Whether it presses on the hitch.
    pub on_hitch: bool,
    /// Whether it is always aboard, the empty state included.
    pub always: bool,
    /// The cases it is aboard in.
    pub cases: Vec<u8>,
    /// Whether it weighs what such a thing usually does, as far as anybody knows.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub usual: bool,
}

/// Which liquid a tank holds.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, JsonSchema)]
#[serde(rename_all = "snake_case")]
pub enum LiquidWord {
    /// Water.
    Water,
    /// Petrol.
    Petrol,
    /// Diesel.
    Diesel,
}

impl LiquidWord {
    /// As the mechanics take it.
    pub fn liquid(self) -> Liquid {
        match self {
            LiquidWord::Water => Liquid::Water,
            LiquidWord::Petrol => Liquid::Petrol,
            LiquidWord::Diesel => Liquid::Diesel,
        }
    }
}

impl ItemEntry {
    /// A weight at a place, in no case yet: rearward of the rear axle, or ahead of it where `behind` is below nought, and to the right of
    /// the middle, or left of it.
    pub fn weight_at(name: &str, amount: Typed, behind: Length, right: Length, units: TypedIn) -> Self {
        let aside = right.abs() > metres(0.0);
        ItemEntry {
            name: name.to_owned(),
            liquid: None,
            amount,
            distance: units.length(behind.abs()),
            ahead: behind < metres(0.0),
            lateral: aside.then(|| units.length(right.abs())),
            left: right < metres(0.0),
            height: None,
            on_hitch: false,
            always: false,
            cases: Vec::new(),
            usual: false,
        }
    }

    /// What it weighs.
    pub fn weight(&self) -> Force {
        match self.liquid {
            Some(word) if matches!(self.amount.unit, UnitWord::Gal | UnitWord::L) => {
                word.liquid().weight_of(cubic_metres(self.amount.si))
            }
            _ => self.amount.force(),
        }
    }

    /// As the mechanics take it.
    pub fn item(&self) -> Item {
        let distance = self.distance.length();
        let lateral = self.lateral.as_ref().map_or(metres(0.0), Typed::length);
        Item {
            weight: self.weight(),
            behind_rear_axle: if self.ahead { -distance } else { distance },
            lateral: if self.left { -lateral } else { lateral },
            height: self.height.as_ref().map(Typed::length),
            on_hitch: self.on_hitch,
            basis: if self.usual { Basis::Assumed } else { Basis::Stated },
        }
    }
}

impl LoadPlanEntry {
    /// The case of a key.
    pub fn case(&self, key: u8) -> Option<&CaseEntry> {
        self.cases.iter().find(|case| case.key == key)
    }

    /// What came aboard for a case, beside what is always there: its own, and that of the cases it takes in.
    pub fn put_for(&self, key: u8) -> impl Iterator<Item = &ItemEntry> {
        let taken_in = self.taken_in(key);
        self.items.iter().filter(move |item| !item.always && item.cases.iter().any(|case| taken_in.contains(case)))
    }

    /// A case and those it takes in, each once, so that two which take in each other end nowhere.
    fn taken_in(&self, key: u8) -> Vec<u8> {
        let mut keys = vec![key];
        while let Some(next) = keys.last().and_then(|key| self.case(*key)?.with) {
            if keys.contains(&next) {
                break;
            }
            keys.push(next);
        }
        keys
    }

    /// Whether two cases take in each other, by way of others or not.
    pub fn goes_in_a_ring(&self, key: u8) -> bool {
        let last = self.taken_in(key).last().and_then(|key| self.case(*key)?.with);
        last.is_some()
    }

    /// What is always aboard.
    pub fn always(&self) -> Vec<Item> {
        self.items.iter().filter(|item| item.always).map(ItemEntry::item).collect()
    }

    /// The items of a case as the mechanics take them.
    pub fn items_of(&self, key: u8) -> Vec<Item> {
        self.put_for(key).map(ItemEntry::item).collect()
    }
}

impl CaseEntry {
    /// What the scale said.
    pub fn scale(&self) -> Ends<Option<Force>> {
        Ends { front: self.front_scale.as_ref().map(Typed::force), rear: self.rear_scale.as_ref().map(Typed::force) }
    }
}
