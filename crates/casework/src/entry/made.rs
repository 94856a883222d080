//! Figures that the program puts in, as a person would have typed them.

use wise_badger_mechanics::bound::Dimension;
use wise_badger_mechanics::pack::OverHelper;
use wise_badger_mechanics::tape::{LengthUnit, WeightUnit};
use wise_badger_mechanics::units::{
    Force, InShopUnits, Length, Pressure, STANDARD_GRAVITY, SpringRate, inches, kilograms, metres, newtons, newtons_per_metre,
    pascals, pounds, pounds_per_inch, psi,
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

impl Default for TypedIn {
    /// As US trade reads them.
    fn default() -> Self {
        TypedIn { length: LengthUnit::Inches, weight: WeightUnit::Pounds }
    }
}

impl TypedIn {
    /// A length: to a thousandth of an inch, or to a fiftieth of a millimetre.
    pub fn length(self, length: Length) -> Typed {
        let (value, made, unit) = match self.length {
            LengthUnit::Inches => {
                let value = (length.customary() * 1_000.0).round() / 1_000.0;
                if let Some(text) = in_sixteenths(value) {
                    return Typed { text, unit: UnitWord::In, si: inches(value).si() };
                }
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

    /// A gauge pressure, to a tenth.
    pub fn pressure(self, pressure: Pressure) -> Typed {
        let (value, made, unit) = match self.length {
            LengthUnit::Inches => {
                let value = tenth(pressure.customary());
                (value, psi(value).si(), UnitWord::Psi)
            }
            LengthUnit::Millimetres => {
                let value = tenth(pressure.si() / 1_000.0);
                (value, value * 1_000.0, UnitWord::Kpa)
            }
        };
        Typed { text: value.to_string(), unit, si: made }
    }

    /// A figure in SI units as it would be typed; `None` of a count, which has no unit.
    pub fn of(self, dimension: Dimension, si: f64) -> Option<Typed> {
        Some(match dimension {
            Dimension::Length => self.length(metres(si)),
            Dimension::Weight => self.weight(newtons(si)),
            Dimension::Rate => self.rate(newtons_per_metre(si)),
            Dimension::Pressure => self.pressure(pascals(si)),
            Dimension::Count => return None,
        })
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

/// Inches as a tape is read, where they fall on one of its marks; a whole number is written by itself.
fn in_sixteenths(value: f64) -> Option<String> {
    let marks = value * 16.0;
    let on_a_mark = (marks - marks.round()).abs() < 1e-9 && value > 0.0 && value < 1_000.0;
    #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "a positive whole number of sixteenths")]
    let marks = on_a_mark.then(|| marks.round() as u64)?;
    let (whole, mut part, mut of) = (marks / 16, marks % 16, 16);
    while part > 0 && part % 2 == 0 {
        (part, of) = (part / 2, of / 2);
    }
    Some(match (whole, part) {
        (whole, 0) => whole.to_string(),
        (0, part) => format!("{part}/{of}"),
        (whole, part) => format!("{whole} {part}/{of}"),
    })
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
