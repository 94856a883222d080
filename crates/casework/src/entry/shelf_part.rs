//! A part on the shop's shelf, as typed: what its box says, what the shop found it to do, and what it takes to have it.

use std::collections::BTreeMap;

use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use wise_badger_mechanics::bound::Bound;
use wise_badger_mechanics::correction::{Ends, FigureRole, KindFigure, KindRow, Site, Takes};

use super::correction::NoCorrection;
use super::{CorrectionEntry, FigureEntry, MoneyEntry, Typed};

/// Longest number of a part.
pub const LONGEST_NUMBER: usize = 40;
/// Longest name of one.
pub const LONGEST_NAME: usize = 120;
/// Longest of what else is said of one.
pub const LONGEST_WORDS: usize = 400;
/// Most of anything that is counted: pieces, days, hours.
pub const MOST_COUNTED: u32 = 9_999;

/// A part on the shelf. Figures of the vehicle that it goes on are none of its own.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct ShelfPart {
    /// The number that it is ordered by; one part of the shelf has it.
    pub number: String,
    /// What it is called.
    pub name: String,
    /// The word of its kind.
    #[serde(with = "kind_word")]
    #[schemars(with = "String")]
    pub kind: &'static KindRow,
    /// The one end that it is made for; either, where its kind goes on both.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub end: Option<EndWord>,
    /// Its figures as its box or its maker's sheet says them.
    pub sold: BTreeMap<String, FigureEntry>,
    /// Those that the shop found otherwise, on the bench or on a vehicle: they stand in the place of the box's.
    #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
    pub found: BTreeMap<String, FigureEntry>,
    /// What it costs, all that is in the box together.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub price: Option<MoneyEntry>,
    /// What it takes to fit, in hours of one person.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub hours: Option<f64>,
    /// How many are there.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub in_stock: Option<u32>,
    /// Whom it is ordered from.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub supplier: String,
    /// How many days that takes.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub lead_days: Option<u32>,
    /// What it wants looked after; nothing, where it wants none.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub upkeep: String,
    /// Whether it comes off again without harm.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub removable: Option<bool>,
    /// What is in its box.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub in_the_box: String,
    /// What it takes and is not in its box.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub not_in_the_box: String,
    /// The largest tire that goes with it, by its size.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub largest_tire: String,
    /// The wheel's width with that tire.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub wheel_width: Option<Typed>,
    /// The wheel's offset with it, outward negative.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub wheel_offset: Option<Typed>,
    /// Of a bag that stands in a coil: the coil's least inside diameter.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub coil_inside: Option<Typed>,
    /// Of such a bag: the coil's least height.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub coil_height: Option<Typed>,
    /// Whatever else is to be known.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub note: String,
    /// What the shop's own proofs say of it, where they count; put in when the part is looked at, and never typed.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub record: Option<PartRecord>,
}

/// What earlier jobs say of a part, in standard deviations of what its kind may be off by.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct PartRecord {
    /// How far off it lies what was said of it.
    pub deviations: f64,
    /// What is left of the doubt of the next one, as a share.
    pub left: f64,
    /// From how many jobs.
    pub jobs: u32,
}

impl PartRecord {
    /// Whether it is one that proofs can have given.
    pub fn is_sound(&self) -> bool {
        self.deviations.abs() <= 4.0 && (0.0..=1.0).contains(&self.left) && self.jobs > 0
    }
}

/// An end of a vehicle, on the shelf.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, JsonSchema)]
#[serde(rename_all = "snake_case")]
pub enum EndWord {
    /// The front.
    Front,
    /// The rear.
    Rear,
}

impl EndWord {
    /// Its word.
    pub fn word(self) -> &'static str {
        match self {
            EndWord::Front => "front",
            EndWord::Rear => "rear",
        }
    }

    /// The end of a word.
    pub fn from_word(word: &str) -> Option<Self> {
        [EndWord::Front, EndWord::Rear].into_iter().find(|end| end.word() == word)
    }
}

/// What cannot be of a part on the shelf.
#[derive(Debug, Clone, PartialEq, thiserror::Error)]
#[non_exhaustive]
pub enum ShelfProblem {
    /// Something that every part has is missing.
    #[error("every part has a {0}")]
    Missing(&'static str),
    /// It is longer than anything on a shelf.
    #[error("keep it under {0} characters")]
    TooLong(usize),
    /// What is done to a vehicle's own parts is on no shelf.
    #[error("“{0}” is work on a vehicle's own parts, and is on no shelf")]
    NoPart(&'static str),
    /// A text holds a sign that nobody types.
    #[error("a sign in it is none that anybody types")]
    Sign,
    /// What was understood of a text is not what it reads as.
    #[error("“{0}” does not read as what stands beside it")]
    NotAsUnderstood(String),
    /// A kind has no such figure of its own.
    #[error("“{kind}” has no figure “{figure}” that a box could say")]
    NotItsFigure {
        /// The kind's word.
        kind: &'static str,
        /// The figure's name.
        figure: String,
    },
    /// A figure of the part is missing.
    #[error("“{kind}” wants its “{figure}”")]
    Figure {
        /// The kind's word.
        kind: &'static str,
        /// The figure's name.
        figure: &'static str,
    },
    /// A figure is outside what such a part has.
    #[error("{figure} is outside what such a part has")]
    Outside {
        /// The figure's name.
        figure: &'static str,
        /// What it may be.
        bound: Bound,
    },
    /// It is made for an end that its kind does not go on.
    #[error("such a part does not go on the {0}")]
    End(&'static str),
    /// More than anything on a shelf.
    #[error("it is from 0 to {0}")]
    Counted(u32),
}

impl ShelfPart {
    /// A part with its number, its name and its kind, and nothing else said of it.
    pub fn new(number: impl Into<String>, name: impl Into<String>, kind: &'static KindRow) -> Self {
        ShelfPart {
            number: number.into(),
            name: name.into(),
            kind,
            end: None,
            sold: BTreeMap::new(),
            found: BTreeMap::new(),
            price: None,
            hours: None,
            in_stock: None,
            supplier: String::new(),
            lead_days: None,
            upkeep: String::new(),
            removable: None,
            in_the_box: String::new(),
            not_in_the_box: String::new(),
            largest_tire: String::new(),
            wheel_width: None,
            wheel_offset: None,
            coil_inside: None,
            coil_height: None,
            note: String::new(),
            record: None,
        }
    }

    /// The figures that a part of a kind may have on the shelf.
    pub fn figures_of(kind: &'static KindRow) -> impl Iterator<Item = &'static KindFigure> {
        kind.figures.iter().filter(|figure| figure.role != FigureRole::OfTheVehicle)
    }

    /// Whether anything of a kind is bought.
    pub fn is_bought(kind: &'static KindRow) -> bool {
        Self::figures_of(kind).any(|figure| figure.role == FigureRole::OfThePart)
    }

    /// What is known best of a figure: what the shop found, or else what the box says.
    pub fn best(&self, figure: &str) -> Option<&FigureEntry> {
        self.found.get(figure).or_else(|| self.sold.get(figure))
    }

    /// The part in its place on a vehicle, its own figures as they are known best; the others are the vehicle's.
    ///
    /// # Errors     [`NoCorrection`] where a figure is missing that neither of them has
    pub fn on(&self, site: Site, of_the_vehicle: BTreeMap<String, FigureEntry>) -> Result<CorrectionEntry, NoCorrection> {
        let own =
            Self::figures_of(self.kind).filter_map(|figure| Some((figure.name.to_owned(), self.best(figure.name)?.clone())));
        let figures = of_the_vehicle.into_iter().chain(own).collect();
        CorrectionEntry::new(self.kind, site, figures)
    }

    /// The first thing about it that cannot be: the field, and what is wrong there.
    pub fn problem(&self) -> Option<(String, ShelfProblem)> {
        self.problem_of_words().or_else(|| self.problem_of_figures()).or_else(|| self.problem_of_the_rest())
    }

    fn problem_of_words(&self) -> Option<(String, ShelfProblem)> {
        let must = [("number", &self.number, LONGEST_NUMBER), ("name", &self.name, LONGEST_NAME)];
        let missing = must.iter().find(|(_, text, _)| text.trim().is_empty());
        if let Some((field, ..)) = missing {
            return Some(((*field).to_owned(), ShelfProblem::Missing(field)));
        }
        let may = [
            ("supplier", &self.supplier),
            ("upkeep", &self.upkeep),
            ("in_the_box", &self.in_the_box),
            ("not_in_the_box", &self.not_in_the_box),
            ("largest_tire", &self.largest_tire),
            ("note", &self.note),
        ];
        let mut all = must.into_iter().chain(may.into_iter().map(|(field, text)| (field, text, LONGEST_WORDS)));
        all.find_map(|(field, text, most)| {
            let problem = if text.chars().count() > most {
                ShelfProblem::TooLong(most)
            } else if text.chars().any(|sign| sign.is_control() && sign != '\n') {
                ShelfProblem::Sign
            } else {
                return None;
            };
            Some((field.to_owned(), problem))
        })
    }

    fn problem_of_figures(&self) -> Option<(String, ShelfProblem)> {
        let kind = self.kind;
        if !Self::is_bought(kind) {
            return Some(("kind".to_owned(), ShelfProblem::NoPart(kind.word)));
        }
        for (list, figures) in [("sold", &self.sold), ("found", &self.found)] {
            for (name, entry) in figures {
                let at = || format!("{list}.{name}");
                let Some(figure) = Self::figures_of(kind).find(|figure| figure.name == name) else {
                    return Some((at(), ShelfProblem::NotItsFigure { kind: kind.word, figure: name.clone() }));
                };
                match (figure.takes, entry) {
                    (Takes::Within(bound), FigureEntry::Typed(typed)) if !bound.holds(typed.si) => {
                        return Some((at(), ShelfProblem::Outside { figure: figure.name, bound }));
                    }
                    (Takes::Within(_), FigureEntry::Typed(_)) => {}
                    (Takes::Table, FigureEntry::Table(table)) if table.is_a_table() => {
                        if !table.reads_as_understood() {
                            return Some((at(), ShelfProblem::NotAsUnderstood(table.text.clone())));
                        }
                    }
                    _ => return Some((at(), ShelfProblem::Figure { kind: kind.word, figure: figure.name })),
                }
            }
        }
        let missing =
            Self::figures_of(kind).find(|figure| figure.role == FigureRole::OfThePart && !self.sold.contains_key(figure.name));
        missing.map(|figure| (format!("sold.{}", figure.name), ShelfProblem::Figure { kind: kind.word, figure: figure.name }))
    }

    fn problem_of_the_rest(&self) -> Option<(String, ShelfProblem)> {
        let goes = match (self.kind.ends, self.end) {
            (Ends::Rear, Some(EndWord::Front)) => Some(EndWord::Front),
            (Ends::Front, Some(EndWord::Rear)) => Some(EndWord::Rear),
            _ => None,
        };
        if let Some(end) = goes {
            return Some(("end".to_owned(), ShelfProblem::End(end.word())));
        }
        let misread = |price: &&MoneyEntry| MoneyEntry::read(&price.text, price.currency).as_ref() != Some(*price);
        if let Some(price) = self.price.as_ref().filter(misread) {
            return Some(("price".to_owned(), ShelfProblem::NotAsUnderstood(price.text.clone())));
        }
        let counted = [("in_stock", self.in_stock), ("lead_days", self.lead_days)];
        if let Some((field, _)) = counted.into_iter().find(|(_, count)| count.is_some_and(|count| count > MOST_COUNTED)) {
            return Some((field.to_owned(), ShelfProblem::Counted(MOST_COUNTED)));
        }
        let hours = self.hours.is_some_and(|hours| !(0.0..=999.0).contains(&hours));
        hours.then(|| ("hours".to_owned(), ShelfProblem::Counted(999)))
    }
}

mod kind_word {
    use serde::{Deserialize as _, Deserializer, Serializer};
    use wise_badger_mechanics::correction::KindRow;

    pub(super) fn serialize<S: Serializer>(kind: &&'static KindRow, serializer: S) -> Result<S::Ok, S::Error> {
        serializer.serialize_str(kind.word)
    }

    pub(super) fn deserialize<'de, D: Deserializer<'de>>(deserializer: D) -> Result<&'static KindRow, D::Error> {
        let word = String::deserialize(deserializer)?;
        KindRow::of(&word).ok_or_else(|| serde::de::Error::custom(format!("there is no kind of part “{word}”")))
    }
}
