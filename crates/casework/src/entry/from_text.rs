//! Figures and tables from the text they are typed or written in.

use wise_badger_mechanics::bound::{Bound, Dimension};
use wise_badger_mechanics::correction::Takes;
use wise_badger_mechanics::stance::{ForceTable, ForceTableError};
use wise_badger_mechanics::tape::{
    LengthUnit, TypedError, WeightUnit, parse_length, parse_pressure, parse_rate, parse_turns, parse_weight,
};
use wise_badger_mechanics::units::InShopUnits;

use super::{FigureEntry, Typed, TypedTable, UnitWord};

/// Longest force table taken, in characters.
const LONGEST_TABLE: usize = 8_000;

/// The units that bare numbers are read in.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct BareUnits {
    /// Of lengths, and with them of pressures.
    pub length: LengthUnit,
    /// Of weights, and with them of rates.
    pub weight: WeightUnit,
}

/// Why a text is no figure.
#[derive(Debug, Clone, PartialEq, thiserror::Error)]
#[non_exhaustive]
pub enum NoFigure {
    /// It is not read as a quantity.
    #[error(transparent)]
    Typed(#[from] TypedError),
    /// It is outside what such a part has.
    #[error("“{text}” is outside what such a part has; check the figure and its unit.")]
    Outside {
        /// What was written.
        text: String,
        /// What it may be.
        bound: Bound,
    },
    /// It is no force table.
    #[error(transparent)]
    Table(#[from] NoTable),
    /// Nobody writes such a figure.
    #[error("this figure is worked out elsewhere, and not written")]
    NotWritten,
}

/// Why a text is no force table.
#[derive(Debug, Clone, PartialEq, thiserror::Error)]
#[non_exhaustive]
pub enum NoTable {
    /// Nothing is there.
    #[error("Type the rubber's force, one point a line, like: 1/2 in ; 180 lb")]
    Empty,
    /// It is longer than any.
    #[error("That is too long for a force table; {} points at most.", ForceTable::MOST_POINTS)]
    TooLong,
    /// A line has one figure and no other.
    #[error("Line {0} has no force; write compression ; force, like 1/2 in ; 180 lb.")]
    NoForce(usize),
    /// A figure of a line is not understood.
    #[error("Line {0}: {1}")]
    Line(usize, TypedError),
    /// There are too few points.
    #[error("A force table needs 2 points or more, starting with 0 ; 0.")]
    Count,
    /// The points make no curve.
    #[error("{0}.")]
    Points(ForceTableError),
}

impl TypedTable {
    /// Whether its text reads as its points, within what rounding makes of them.
    pub fn reads_as_understood(&self) -> bool {
        let length = if self.length_unit == UnitWord::Mm { LengthUnit::Millimetres } else { LengthUnit::Inches };
        let weight = if self.weight_unit == UnitWord::Kg { WeightUnit::Kilograms } else { WeightUnit::Pounds };
        let near = |one: f64, other: f64| (one - other).abs() <= 1e-6 * other.abs().max(1e-3);
        BareUnits { length, weight }.table(&self.text).is_ok_and(|again| {
            let pairs = again.points_si.iter().zip(&self.points_si);
            again.points_si.len() == self.points_si.len()
                && pairs.into_iter().all(|(again, told)| near(again.0, told.0) && near(again.1, told.1))
        })
    }
}

impl BareUnits {
    fn length_word(self) -> UnitWord {
        if self.length == LengthUnit::Inches { UnitWord::In } else { UnitWord::Mm }
    }

    fn weight_word(self) -> UnitWord {
        if self.weight == WeightUnit::Pounds { UnitWord::Lb } else { UnitWord::Kg }
    }

    /// A quantity of a dimension, as it is written.
    ///
    /// # Errors     [`TypedError`] says what was written and how to write it
    pub fn quantity(self, dimension: Dimension, text: &str) -> Result<Typed, TypedError> {
        let text = text.trim();
        let (unit, si) = match dimension {
            Dimension::Length => (self.length_word(), parse_length(text, self.length)?.si()),
            Dimension::Weight => (self.weight_word(), parse_weight(text, self.weight)?.si()),
            Dimension::Rate => {
                let pounds = self.weight == WeightUnit::Pounds;
                (if pounds { UnitWord::LbPerIn } else { UnitWord::NPerMm }, parse_rate(text, self.weight)?.si())
            }
            Dimension::Pressure => {
                let inches = self.length == LengthUnit::Inches;
                (if inches { UnitWord::Psi } else { UnitWord::Kpa }, parse_pressure(text, self.length)?.si())
            }
            Dimension::Count => (UnitWord::Turns, parse_turns(text)?),
        };
        Ok(Typed { text: text.to_owned(), unit, si })
    }

    /// A figure of a correction, as it is written.
    ///
    /// # Errors     [`NoFigure`]
    pub fn figure(self, takes: Takes, text: &str) -> Result<FigureEntry, NoFigure> {
        match takes {
            Takes::Within(bound) => {
                let typed = self.quantity(bound.dimension, text)?;
                if bound.holds(typed.si) { Ok(typed.into()) } else { Err(NoFigure::Outside { text: typed.text, bound }) }
            }
            Takes::Table => Ok(self.table(text)?.into()),
            Takes::Any(_) | Takes::Pack | Takes::PackAfter(_) => Err(NoFigure::NotWritten),
        }
    }

    /// A table of one point a line: compression, then force, set apart by a comma, a semicolon, a tab or `=`.
    ///
    /// # Errors     [`NoTable`]
    pub fn table(self, text: &str) -> Result<TypedTable, NoTable> {
        let text = text.trim();
        if text.is_empty() {
            return Err(NoTable::Empty);
        }
        if text.len() > LONGEST_TABLE {
            return Err(NoTable::TooLong);
        }
        let mut points = Vec::new();
        for (number, line) in (1..).zip(text.lines().map(str::trim)).filter(|(_, line)| !line.is_empty()) {
            let apart = line.split_once([';', '\t', '=']).or_else(|| line.split_once(','));
            let (travel, force) = apart.ok_or(NoTable::NoForce(number))?;
            let travel = parse_length(travel, self.length).map_err(|error| NoTable::Line(number, error))?;
            let force = parse_weight(force, self.weight).map_err(|error| NoTable::Line(number, error))?;
            points.push((travel, force));
        }
        ForceTable::new(&points).map_err(|error| match error {
            ForceTableError::Count(_) => NoTable::Count,
            other => NoTable::Points(other),
        })?;
        let points_si = points.iter().map(|(travel, force)| (travel.si(), force.si())).collect();
        Ok(TypedTable { text: text.to_owned(), length_unit: self.length_word(), weight_unit: self.weight_word(), points_si })
    }
}
