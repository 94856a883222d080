//! Weights and spring rates as typed and as shown back.

use super::typed::{Number, TypedError, leading_number, split_sign};
use crate::units::{
    Force, InShopUnits, STANDARD_GRAVITY, SpringRate, Volume, kilograms, litres, newtons, newtons_per_metre, pounds,
    pounds_per_inch, us_gallons,
};

/// The unit a person works in for weights: also how a bare number is understood.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum WeightUnit {
    /// Pounds, and pounds per inch for rates.
    Pounds,
    /// Kilograms, and newtons per millimetre for rates.
    Kilograms,
}

/// Heavier than any vehicle this trade lifts (about 220,000 lb); catches slipped digits.
const HEAVIEST_N: f64 = 1.0e6;
/// More than any tanker holds.
const MOST_LITRES: f64 = 1.0e5;
/// Stiffer than any vehicle spring.
const STIFFEST_N_PER_M: f64 = 1.0e8;

/// Reads a weight as a person types it (`3800`, `3,800 lb`, `1725 kg`, `17 kN`); a bare number is in `unit`.
///
/// # Valid      0 to 1,000,000 N
/// # Errors     [`TypedError`] says what was typed and how to write it
/// # Example
/// ```
/// use wise_badger_mechanics::tape::{WeightUnit, parse_weight};
/// use wise_badger_mechanics::units::pounds;
/// assert_eq!(parse_weight("3,800 lb", WeightUnit::Kilograms), Ok(pounds(3800.0)));
/// ```
pub fn parse_weight(text: &str, unit: WeightUnit) -> Result<Force, TypedError> {
    let value = |value: f64, name: &str| match (name, unit) {
        ("", WeightUnit::Pounds) | ("lb" | "lbs" | "pound" | "pounds" | "#", _) => Some(pounds(value)),
        ("", WeightUnit::Kilograms) | ("kg" | "kgs" | "kilo" | "kilos", _) => Some(kilograms(value)),
        ("t", _) => Some(kilograms(value * 1000.0)),
        ("n", _) => Some(newtons(value)),
        ("kn", _) => Some(newtons(value * 1000.0)),
        _ => None,
    };
    let force = positive(text, "weight", "1,000 lb or 450 kg", value)?;
    if force.si() > HEAVIEST_N {
        return Err(TypedError::OutOfRange { text: text.trim().to_owned(), what: "weight", size: "too large" });
    }
    Ok(force)
}

/// Reads a spring rate (`372`, `372 lb/in`, `65 N/mm`, `6.6 kg/mm`); a bare number is lb/in or N/mm by `unit`.
///
/// A leading minus is read: a change of a rate is signed. Whoever needs a rate refuses it.
///
/// # Valid      −100 to 100 MN/m
/// # Errors     [`TypedError`] says what was typed and how to write it
/// # Example
/// ```
/// use wise_badger_mechanics::tape::{WeightUnit, parse_rate};
/// use wise_badger_mechanics::units::pounds_per_inch;
/// assert_eq!(parse_rate("372 lb/in", WeightUnit::Kilograms), Ok(pounds_per_inch(372.0)));
/// assert_eq!(parse_rate("−40", WeightUnit::Pounds), Ok(pounds_per_inch(-40.0)));
/// ```
pub fn parse_rate(text: &str, unit: WeightUnit) -> Result<SpringRate, TypedError> {
    let value = |value: f64, name: &str| match (name, unit) {
        ("", WeightUnit::Pounds) | ("lb/in" | "lbs/in" | "lb/inch", _) => Some(pounds_per_inch(value)),
        ("", WeightUnit::Kilograms) | ("n/mm" | "kn/m", _) => Some(newtons_per_metre(value * 1000.0)),
        ("kg/mm", _) => Some(newtons_per_metre(value * STANDARD_GRAVITY * 1000.0)),
        ("n/m", _) => Some(newtons_per_metre(value)),
        _ => None,
    };
    let (negative, size) = split_sign(text.trim());
    let rate = positive(size, "spring rate", "372 lb/in or 65 N/mm", value)?;
    if rate.si() > STIFFEST_N_PER_M {
        return Err(TypedError::OutOfRange { text: text.trim().to_owned(), what: "spring rate", size: "too large" });
    }
    Ok(if negative { -rate } else { rate })
}

/// Reads a volume of liquid (`30`, `30 gal`, `120 L`); a bare number is gallons of the United States or litres, going by
/// `unit` as pounds or kilograms.
///
/// # Valid      0 to 100,000 L
/// # Errors     [`TypedError`] says what was typed and how to write it
/// # Example
/// ```
/// use wise_badger_mechanics::tape::{WeightUnit, parse_volume};
/// use wise_badger_mechanics::units::litres;
/// assert_eq!(parse_volume("120 L", WeightUnit::Pounds), Ok(litres(120.0)));
/// ```
pub fn parse_volume(text: &str, unit: WeightUnit) -> Result<Volume, TypedError> {
    let value = |value: f64, name: &str| match (name, unit) {
        ("", WeightUnit::Pounds) | ("gal" | "gallon" | "gallons", _) => Some(us_gallons(value)),
        ("", WeightUnit::Kilograms) | ("l" | "liter" | "liters" | "litre" | "litres", _) => Some(litres(value)),
        _ => None,
    };
    let volume = positive(text, "volume", "30 gal or 120 L", value)?;
    if volume > litres(MOST_LITRES) {
        return Err(TypedError::OutOfRange { text: text.trim().to_owned(), what: "volume", size: "too large" });
    }
    Ok(volume)
}

/// Writes a volume for a person: `30 gal`, `114 L`.
pub fn format_volume(volume: Volume, unit: WeightUnit) -> String {
    match unit {
        WeightUnit::Pounds => format!("{} gal", grouped(volume.customary())),
        WeightUnit::Kilograms => format!("{} L", grouped(volume.si() * 1000.0)),
    }
}

fn positive<Q>(
    text: &str,
    what: &'static str,
    example: &'static str,
    value: impl Fn(f64, &str) -> Option<Q>,
) -> Result<Q, TypedError> {
    let typed = text.trim();
    if typed.is_empty() {
        return Err(TypedError::Empty);
    }
    let not_understood = || TypedError::NotUnderstood { text: typed.to_owned(), what, example };
    let (negative, body) = split_sign(typed);
    let Number { value: number, rest } = leading_number(body, typed)?.ok_or_else(not_understood)?;
    if negative && number > 0.0 {
        return Err(TypedError::Negative(typed.to_owned(), what));
    }
    let name = rest.trim().trim_end_matches('.').to_ascii_lowercase();
    value(number, &name).ok_or_else(not_understood)
}

/// Writes a weight for a person, to the whole pound or kilogram: `3,800 lb`, `1,724 kg`.
pub fn format_weight(force: Force, unit: WeightUnit) -> String {
    match unit {
        WeightUnit::Pounds => format!("{} lb", grouped(force.customary())),
        WeightUnit::Kilograms => format!("{} kg", grouped(force.si() / STANDARD_GRAVITY)),
    }
}

/// Writes a spring rate for a person: `372 lb/in`, `65.2 N/mm`.
pub fn format_rate(rate: SpringRate, unit: WeightUnit) -> String {
    match unit {
        WeightUnit::Pounds => format!("{} lb/in", grouped(rate.customary())),
        WeightUnit::Kilograms => format!("{:.1} N/mm", rate.si() / 1000.0),
    }
}

/// A whole number with thousands set apart by commas and a true minus.
fn grouped(value: f64) -> String {
    let digits = format!("{:.0}", value.abs());
    let mut text = String::new();
    for (index, digit) in digits.chars().enumerate() {
        if index > 0 && (digits.len() - index) % 3 == 0 {
            text.push(',');
        }
        text.push(digit);
    }
    if value < 0.0 && digits != "0" { format!("−{text}") } else { text }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_weight_is_understood_however_it_is_written() {
        for text in ["3800", "3,800", "3800 lb", "3800lbs.", " 3,800 LB "] {
            assert_eq!(parse_weight(text, WeightUnit::Pounds), Ok(pounds(3800.0)), "{text}");
        }
        assert_eq!(parse_weight("1.5 t", WeightUnit::Pounds), Ok(kilograms(1500.0)));
        assert_eq!(parse_weight("0", WeightUnit::Pounds), Ok(newtons(0.0)));
    }

    #[test]
    fn a_bad_weight_says_which_kind_of_bad_it_is() {
        assert!(matches!(parse_weight("-5", WeightUnit::Pounds), Err(TypedError::Negative(..))));
        assert!(matches!(parse_weight("9999999", WeightUnit::Pounds), Err(TypedError::OutOfRange { .. })));
        assert!(matches!(parse_weight("heavy", WeightUnit::Pounds), Err(TypedError::NotUnderstood { .. })));
        assert!(matches!(parse_rate("372 lb", WeightUnit::Pounds), Err(TypedError::NotUnderstood { .. })));
    }

    #[test]
    fn weights_and_rates_are_written_with_their_unit() {
        assert_eq!(format_weight(pounds(12345.4), WeightUnit::Pounds), "12,345 lb");
        assert_eq!(format_weight(pounds(-410.0), WeightUnit::Pounds), "−410 lb");
        assert_eq!(format_rate(pounds_per_inch(372.0), WeightUnit::Kilograms), "65.1 N/mm");
    }
}
