//! Figures that the program puts in, as a person would have typed them.

use wise_badger_mechanics::pack::OverHelper;
use wise_badger_mechanics::tape::{LengthUnit, WeightUnit};
use wise_badger_mechanics::units::{
    Force, InShopUnits, Length, STANDARD_GRAVITY, SpringRate, inches, kilograms, metres, newtons_per_metre, pounds,
    pounds_per_inch,
};

use super::{HelperEntry, Typed, UnitWord};

/// The units that a person types bare figures in.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct TypedIn {
    /// Of lengths.
    pub length: LengthUnit,
    /// Of weights, rates and volumes.
    pub weight: WeightUnit,
}

impl TypedIn {
    /// A length: to a thousandth of an inch, or to a fiftieth of a millimetre.
    pub fn length(self, length: Length) -> Typed {
        let (value, made, unit) = match self.length {
            LengthUnit::Inches => {
                let value = (length.customary() * 1_000.0).round() / 1_000.0;
                (value, inches(value), UnitWord::In)
            }
            LengthUnit::Millimetres => {
                let value = (length.si() * 50_000.0).round() / 50.0;
                (value, metres(value / 1_000.0), UnitWord::Mm)
            }
        };
        Typed { text: value.to_string(), unit, si: made.si() }
    }

    /// A weight, to a tenth.
    pub fn weight(self, force: Force) -> Typed {
        let (value, made, unit) = match self.weight {
            WeightUnit::Pounds => {
                let value = tenth(force.customary());
                (value, pounds(value), UnitWord::Lb)
            }
            WeightUnit::Kilograms => {
                let value = tenth(force.si() / STANDARD_GRAVITY);
                (value, kilograms(value), UnitWord::Kg)
            }
        };
        Typed { text: value.to_string(), unit, si: made.si() }
    }

    /// A rate, to a tenth.
    fn rate(self, rate: SpringRate) -> Typed {
        let (value, made, unit) = match self.weight {
            WeightUnit::Pounds => {
                let value = tenth(rate.customary());
                (value, pounds_per_inch(value), UnitWord::LbPerIn)
            }
            WeightUnit::Kilograms => {
                let value = tenth(rate.si() / 1_000.0);
                (value, newtons_per_metre(value * 1_000.0), UnitWord::NPerMm)
            }
        };
        Typed { text: value.to_string(), unit, si: made.si() }
    }
}

fn tenth(value: f64) -> f64 {
    (value * 10.0).round() / 10.0
}

impl HelperEntry {
    /// A helper as it would be typed.
    pub fn made(helper: &OverHelper, units: TypedIn) -> Self {
        HelperEntry {
            reach: units.length(helper.reach),
            end_rate: units.rate(helper.end_rate),
            tension: units.weight(helper.tension),
            set_under: units.weight(helper.set_under),
        }
    }
}
