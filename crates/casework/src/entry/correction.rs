//! A correction, as typed: the word of its kind, its figures by name, and where it goes.

use std::collections::BTreeMap;

use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use wise_badger_mechanics::correction::{Axles, Correction, Given, KindRow, Quantity, Site, Takes, reworked_pack};
use wise_badger_mechanics::side::Side;
use wise_badger_mechanics::stance::ForceTable;
use wise_badger_mechanics::units::{Force, InShopUnits, metres, newtons};

use super::{BenchEntry, PackEntry, Typed, UnitWord};
use crate::words::Word;

/// The name of the words that may stand with the figures of any kind.
const WORDS: &str = "words";

/// A rubber's force table, as typed: one point a line.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct TypedTable {
    /// What was typed.
    pub text: String,
    /// The unit bare lengths were read in.
    pub length_unit: UnitWord,
    /// The unit bare weights were read in.
    pub weight_unit: UnitWord,
    /// Compression (m) and force (N) of each point.
    pub points_si: Vec<(f64, f64)>,
}

impl TypedTable {
    /// Whether its points make a curve.
    pub fn is_a_table(&self) -> bool {
        self.table().is_some()
    }

    fn table(&self) -> Option<ForceTable> {
        let points: Vec<_> = self.points_si.iter().map(|(travel, force)| (metres(*travel), newtons(*force))).collect();
        ForceTable::new(&points).ok()
    }
}

/// A figure of a correction, as typed.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(untagged)]
pub enum FigureEntry {
    /// A quantity.
    Typed(Typed),
    /// A force table.
    Table(TypedTable),
    /// A pack from the bench.
    Pack(Box<PackEntry>),
    /// A number in SI units that the program put in.
    Number(f64),
    /// A few words: no figure, and kept with them.
    Words(String),
}

impl From<Typed> for FigureEntry {
    fn from(typed: Typed) -> Self {
        FigureEntry::Typed(typed)
    }
}

impl From<TypedTable> for FigureEntry {
    fn from(table: TypedTable) -> Self {
        FigureEntry::Table(table)
    }
}

impl From<PackEntry> for FigureEntry {
    fn from(pack: PackEntry) -> Self {
        FigureEntry::Pack(Box::new(pack))
    }
}

/// A correction, as typed.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(try_from = "Written", into = "Written")]
#[schemars(with = "Written")]
pub struct CorrectionEntry {
    /// Its kind.
    pub row: &'static KindRow,
    /// Where it goes.
    pub site: Site,
    figures: BTreeMap<String, FigureEntry>,
}

/// As it stands in the record.
#[derive(Serialize, Deserialize, JsonSchema)]
struct Written {
    kind: String,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    axles: Option<String>,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    side: Option<String>,
    #[serde(flatten)]
    figures: BTreeMap<String, FigureEntry>,
}

/// Why something is not a correction as typed.
#[derive(Debug, Clone, PartialEq, Eq, thiserror::Error)]
#[non_exhaustive]
pub enum NoCorrection {
    /// No kind goes by this word.
    #[error("there is no correction “{0}”")]
    Kind(String),
    /// There is no such place on a vehicle.
    #[error("a correction does not go on “{0}”")]
    Site(String),
    /// Its kind has no figure of that name.
    #[error("“{kind}” has no figure “{figure}”")]
    NotAFigure {
        /// The kind's word.
        kind: &'static str,
        /// The name.
        figure: String,
    },
    /// A figure of its kind is missing, or measures something else.
    #[error("“{kind}” has no “{figure}” that it could be made of")]
    Figure {
        /// The kind's word.
        kind: &'static str,
        /// The figure's name.
        figure: &'static str,
    },
}

impl TryFrom<Written> for CorrectionEntry {
    type Error = NoCorrection;

    fn try_from(written: Written) -> Result<Self, NoCorrection> {
        let row = KindRow::of(&written.kind).ok_or(NoCorrection::Kind(written.kind))?;
        let axles = written.axles.map_or(Ok(Axles::Rear), |word| Axles::from_word(&word).ok_or(NoCorrection::Site(word)))?;
        let side = written.side.map(|word| Side::from_word(&word).ok_or(NoCorrection::Site(word))).transpose()?;
        CorrectionEntry::new(row, Site { axles, side }, written.figures)
    }
}

impl From<CorrectionEntry> for Written {
    fn from(entry: CorrectionEntry) -> Self {
        let CorrectionEntry { row, site, figures } = entry;
        let axles = (site.axles != Axles::Rear).then(|| site.axles.word().to_owned());
        Written { kind: row.word.to_owned(), axles, side: site.side.map(|side| side.word().to_owned()), figures }
    }
}

impl CorrectionEntry {
    /// A correction of a kind with its figures.
    ///
    /// # Errors     [`NoCorrection::Figure`] names the first figure of its kind that is not there
    pub fn new(row: &'static KindRow, site: Site, figures: BTreeMap<String, FigureEntry>) -> Result<Self, NoCorrection> {
        let known = |name: &String| *name == WORDS || row.figures.iter().any(|figure| figure.name == *name);
        if let Some(figure) = figures.keys().find(|name| !known(name)) {
            return Err(NoCorrection::NotAFigure { kind: row.word, figure: figure.clone() });
        }
        let missing = row.figures.iter().find(|figure| {
            let given = figures.get(figure.name);
            !given.is_some_and(|given| given.can_be(figure.takes))
        });
        match missing {
            Some(figure) => Err(NoCorrection::Figure { kind: row.word, figure: figure.name }),
            None => Ok(CorrectionEntry { row, site, figures }),
        }
    }

    /// The same with what was typed of a list of figures.
    ///
    /// # Errors     as [`CorrectionEntry::new`]
    pub fn of<const N: usize>(row: &'static KindRow, figures: [(&str, FigureEntry); N]) -> Result<Self, NoCorrection> {
        let figures = figures.into_iter().map(|(name, figure)| (name.to_owned(), figure)).collect();
        CorrectionEntry::new(row, Site::default(), figures)
    }

    /// The pack planned on a bench, on one side or on both alike, as found and as planned worked out up to a load.
    ///
    /// # Errors     as [`CorrectionEntry::new`]
    pub fn of_bench(bench: BenchEntry, side: Option<Side>, words: String, most: Force) -> Result<Self, NoCorrection> {
        let figures = [
            (WORDS, FigureEntry::Words(words)),
            ("most_n", FigureEntry::Number(most.si())),
            ("found", bench.found.into()),
            ("planned", bench.planned.into()),
        ];
        let entry = CorrectionEntry::of(&reworked_pack::ROW, figures)?;
        Ok(CorrectionEntry { site: Site { side, ..entry.site }, ..entry })
    }

    /// The same with another figure of a name that it has.
    #[must_use]
    pub fn with_figure(&self, name: &str, figure: FigureEntry) -> Self {
        let mut other = self.clone();
        if let Some(of_name) = other.figures.get_mut(name) {
            *of_name = figure;
        }
        other
    }

    /// A figure by its name.
    pub fn figure(&self, name: &str) -> Option<&FigureEntry> {
        self.figures.get(name)
    }

    /// A pack by its name.
    fn pack(&self, name: &str) -> Option<&PackEntry> {
        match self.figures.get(name)? {
            FigureEntry::Pack(pack) => Some(pack),
            _ => None,
        }
    }

    /// The pack as found and as planned, where it comes from a bench.
    pub fn packs(&self) -> Option<(&PackEntry, &PackEntry)> {
        self.pack("found").zip(self.pack("planned"))
    }

    /// As the mechanics take it; `None` when a stored force table or pack is none any more.
    pub fn correction(&self) -> Option<Correction> {
        let mut given = Given::default();
        for figure in self.row.figures {
            let entry = self.figures.get(figure.name)?;
            let quantity = match (figure.takes, entry) {
                (Takes::PackAfter(before), FigureEntry::Pack(pack)) => {
                    Quantity::Pack(Box::new(pack.pack_after(self.pack(before)?).ok()?.pack))
                }
                (takes, entry) => entry.quantity(takes)?,
            };
            given = given.with(figure.name, quantity);
        }
        self.row.correction(&given, self.site)
    }
}

impl FigureEntry {
    fn can_be(&self, takes: Takes) -> bool {
        matches!(
            (takes, self),
            (Takes::Within(_), FigureEntry::Typed(_))
                | (Takes::Any(_), FigureEntry::Typed(_) | FigureEntry::Number(_))
                | (Takes::Table, FigureEntry::Table(_))
                | (Takes::Pack | Takes::PackAfter(_), FigureEntry::Pack(_))
        )
    }

    fn quantity(&self, takes: Takes) -> Option<Quantity> {
        Some(match (takes, self) {
            (Takes::Within(bound), FigureEntry::Typed(typed)) => Quantity::of(bound.dimension, typed.si),
            (Takes::Any(dimension), FigureEntry::Typed(typed)) => Quantity::of(dimension, typed.si),
            (Takes::Any(dimension), FigureEntry::Number(si)) => Quantity::of(dimension, *si),
            (Takes::Table, FigureEntry::Table(table)) => Quantity::Table(table.table()?),
            (Takes::Pack, FigureEntry::Pack(pack)) => Quantity::Pack(Box::new(pack.pack().ok()?.pack)),
            _ => return None,
        })
    }
}
