//! Whether what was typed reads as what was understood of it.

use wise_badger_mechanics::tape::{
    LengthUnit, TypedError, WeightUnit, parse_angle, parse_length, parse_pressure, parse_rate, parse_stress, parse_torque,
    parse_turns, parse_volume, parse_weight,
};
use wise_badger_mechanics::units::InShopUnits;

use super::{Typed, UnitWord};

/// What a program rounds where it writes a quantity as somebody would type it, as a share of it.
const ROUNDED: f64 = 0.02;
/// The same of a quantity near nought: an eighth of an inch, half a kilogram, and less of the others.
const SMALL: [(UnitWord, f64); 4] = [(UnitWord::In, 3.2e-3), (UnitWord::Mm, 3.2e-3), (UnitWord::Lb, 5.0), (UnitWord::Kg, 5.0)];

impl Typed {
    /// Whether its text, read again in its unit, comes to what was understood, but for rounding.
    pub fn reads_as_understood(&self) -> bool {
        let small = SMALL.iter().find(|(unit, _)| *unit == self.unit).map_or(1e-9, |(_, small)| *small);
        self.read_again().is_ok_and(|si| (si - self.si).abs() <= ROUNDED * self.si.abs() + small)
    }

    fn read_again(&self) -> Result<f64, TypedError> {
        let (text, shop, metric) = (self.text.as_str(), WeightUnit::Pounds, WeightUnit::Kilograms);
        let (inch, millimetre) = (LengthUnit::Inches, LengthUnit::Millimetres);
        Ok(match self.unit {
            UnitWord::In => parse_length(text, inch)?.si(),
            UnitWord::Mm => parse_length(text, millimetre)?.si(),
            UnitWord::Lb => parse_weight(text, shop)?.si(),
            UnitWord::Kg => parse_weight(text, metric)?.si(),
            UnitWord::LbPerIn => parse_rate(text, shop)?.si(),
            UnitWord::NPerMm => parse_rate(text, metric)?.si(),
            UnitWord::Gal => parse_volume(text, shop)?.si(),
            UnitWord::L => parse_volume(text, metric)?.si(),
            UnitWord::Deg => parse_angle(text)?.value,
            UnitWord::Psi => parse_pressure(text, inch)?.value,
            UnitWord::Kpa => parse_pressure(text, millimetre)?.value,
            UnitWord::Ksi => parse_stress(text, inch)?.value,
            UnitWord::Mpa => parse_stress(text, millimetre)?.value,
            UnitWord::Turns => parse_turns(text)?,
            UnitWord::LbFt => parse_torque(text, shop)?.value,
            UnitWord::Nm => parse_torque(text, metric)?.value,
        })
    }
}
