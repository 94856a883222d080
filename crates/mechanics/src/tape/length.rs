//! Lengths as typed at the tape, and as shown back.

use super::typed::{Number, TypedError, leading_number, split_sign};
use crate::units::{InShopUnits, Length, inches, metres, nearest_step};

/// The unit a person works in for lengths: also how a bare number is understood.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum LengthUnit {
    /// Inches, with fractions.
    Inches,
    /// Millimetres.
    Millimetres,
}

const EXAMPLE: &str = "38 3/4, 38.75 in, 3' 2 3/4\" or 985 mm";

/// No vehicle measurement is longer; catches a slipped decimal point before it spoils a sum.
const LONGEST_M: f64 = 30.0;

/// Reads a length as a person types it; a bare number is in `unit`.
///
/// Understands `38 3/4`, `38-3/4"`, `38.75`, `3' 2 3/4"`, `3 ft 2 in`, `985 mm`, `98.5 cm`, `0.985 m`.
/// A leading minus is read (rake and lean are signed); whoever needs a height refuses it.
///
/// # Valid      −30 m to 30 m
/// # Errors     [`TypedError`] says what was typed and how to write it
/// # Example
/// ```
/// use wise_badger_mechanics::tape::{LengthUnit, parse_length};
/// use wise_badger_mechanics::units::{InShopUnits, inches};
/// assert_eq!(parse_length("38-3/4\"", LengthUnit::Inches), Ok(inches(38.75)));
/// assert_eq!(parse_length("3' 2 3/4\"", LengthUnit::Millimetres), Ok(inches(38.75)));
/// assert!((parse_length("985", LengthUnit::Millimetres).expect("as given").si() - 0.985).abs() < 1e-12);
/// ```
pub fn parse_length(text: &str, unit: LengthUnit) -> Result<Length, TypedError> {
    let typed = text.trim();
    if typed.is_empty() {
        return Err(TypedError::Empty);
    }
    let not_understood = || TypedError::NotUnderstood { text: typed.to_owned(), what: "length", example: EXAMPLE };
    let (negative, body) = split_sign(typed);
    let Number { value, rest } = leading_number(body, typed)?.ok_or_else(not_understood)?;
    let magnitude = match rest.trim() {
        "" => in_unit(value, unit),
        tail => match feet_tail(tail) {
            Some(tail) => feet_and_inches(value, tail, typed)?.ok_or_else(not_understood)?,
            None => in_named_unit(value, tail).ok_or_else(not_understood)?,
        },
    };
    if magnitude.si() > LONGEST_M {
        return Err(TypedError::OutOfRange { text: typed.to_owned(), what: "length", size: "too large" });
    }
    Ok(if negative { -magnitude } else { magnitude })
}

fn in_unit(value: f64, unit: LengthUnit) -> Length {
    match unit {
        LengthUnit::Inches => inches(value),
        LengthUnit::Millimetres => metres(value / 1000.0),
    }
}

fn in_named_unit(value: f64, name: &str) -> Option<Length> {
    match name.to_ascii_lowercase().trim_end_matches('.') {
        "\"" | "”" | "″" | "''" | "in" | "inch" | "inches" => Some(inches(value)),
        "mm" => Some(metres(value / 1000.0)),
        "cm" => Some(metres(value / 100.0)),
        "m" => Some(metres(value)),
        _ => None,
    }
}

/// What follows a feet mark, or `None` when the text does not start with one.
fn feet_tail(text: &str) -> Option<&str> {
    if text.starts_with("''") {
        return None;
    }
    ["feet", "foot", "ft.", "ft", "'", "’", "′"].into_iter().find_map(|mark| text.strip_prefix(mark)).map(str::trim)
}

fn feet_and_inches(feet: f64, tail: &str, typed: &str) -> Result<Option<Length>, TypedError> {
    let whole_feet = inches(feet * 12.0);
    if tail.is_empty() {
        return Ok(Some(whole_feet));
    }
    let tail = tail.strip_prefix('-').map_or(tail, str::trim_start);
    let Some(Number { value, rest }) = leading_number(tail, typed)? else {
        return Ok(None);
    };
    let part = match rest.trim() {
        "" => Some(inches(value)),
        "mm" | "cm" | "m" => None,
        name => in_named_unit(value, name),
    };
    Ok(part.map(|part| whole_feet + part))
}

/// Writes a length for a person: inches as a fraction of `denominator` in lowest terms, or whole millimetres.
///
/// # Sign       a negative length starts with the true minus sign
/// # Example
/// ```
/// use wise_badger_mechanics::tape::{LengthUnit, format_length};
/// use wise_badger_mechanics::units::inches;
/// assert_eq!(format_length(inches(38.75), LengthUnit::Inches, 16), "38 3/4 in");
/// assert_eq!(format_length(inches(-0.5), LengthUnit::Inches, 16), "−1/2 in");
/// assert_eq!(format_length(inches(38.75), LengthUnit::Millimetres, 16), "984 mm");
/// ```
pub fn format_length(length: Length, unit: LengthUnit, denominator: u32) -> String {
    let (steps, suffix) = match unit {
        LengthUnit::Inches => (nearest_step(length.customary() * f64::from(denominator)), "in"),
        LengthUnit::Millimetres => (nearest_step(length.si() * 1000.0), "mm"),
    };
    let sign = if steps < 0.0 { "−" } else { "" };
    let number = match unit {
        LengthUnit::Inches => mixed_fraction(steps.abs(), denominator),
        LengthUnit::Millimetres => format!("{:.0}", steps.abs()),
    };
    format!("{sign}{number} {suffix}")
}

fn mixed_fraction(steps: f64, denominator: u32) -> String {
    let per_whole = f64::from(denominator);
    let whole = (steps / per_whole).floor();
    let mut numerator = steps - whole * per_whole;
    let mut denominator = denominator;
    while numerator > 0.0 && denominator.is_multiple_of(2) && (numerator / 2.0).fract() <= 0.0 {
        numerator /= 2.0;
        denominator /= 2;
    }
    match (whole > 0.0, numerator > 0.0) {
        (_, false) => format!("{whole:.0}"),
        (false, true) => format!("{numerator:.0}/{denominator}"),
        (true, true) => format!("{whole:.0} {numerator:.0}/{denominator}"),
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    fn inches_of(text: &str) -> f64 {
        parse_length(text, LengthUnit::Inches).unwrap_or_else(|e| panic!("{text}: {e}")).customary()
    }

    #[test]
    fn a_height_is_understood_however_it_is_written() {
        for text in ["38 3/4", "38-3/4\"", "38.75", "38.75 in", "3' 2 3/4\"", "3 ft 2-3/4 in", "3' 2.75", "38 3/4 ”", "38 6/8"]
        {
            assert!((inches_of(text) - 38.75).abs() < 1e-12, "{text} read as {}", inches_of(text));
        }
        for text in ["985 mm", "98.5 cm", "0.985 m", "98,5cm"] {
            assert!((inches_of(text) * 25.4 - 985.0).abs() < 1e-9, "{text}");
        }
        assert!((inches_of("3/4") - 0.75).abs() < 1e-12);
        assert!((inches_of("-1/2") + 0.5).abs() < 1e-12);
        assert!((inches_of("11'") - 132.0).abs() < 1e-12);
    }

    #[test]
    fn what_is_not_a_length_is_named_with_what_was_typed() {
        assert_eq!(parse_length("  ", LengthUnit::Inches), Err(TypedError::Empty));
        for text in ["38 3/", "38 3/0", "38 /", "38.5 3/4"] {
            assert_eq!(parse_length(text, LengthUnit::Inches), Err(TypedError::Fraction(text.to_owned())), "{text}");
        }
        for text in ["NaN", "inf", "9e99", "abc", "38 3", "38 lb", "3' 2 mm", "1.2.3", "--2", "38 3/4 x", "'"] {
            let error = parse_length(text, LengthUnit::Inches);
            assert!(matches!(error, Err(TypedError::NotUnderstood { .. })), "{text}: {error:?}");
        }
        assert!(matches!(parse_length("99999", LengthUnit::Inches), Err(TypedError::OutOfRange { .. })));
    }

    proptest! {
        #[test]
        fn every_sixteenth_survives_writing_and_reading(sixteenths in -1920_i32..1920) {
            let length = inches(f64::from(sixteenths) / 16.0);
            let written = format_length(length, LengthUnit::Inches, 16);
            let read = parse_length(&written, LengthUnit::Millimetres);
            prop_assert!((read.expect("own writing is understood") - length).si().abs() < 1e-12);
        }

        #[test]
        fn no_text_makes_the_reader_fall_over(text in "\\PC{0,24}") {
            if let Ok(length) = parse_length(&text, LengthUnit::Inches) {
                prop_assert!(length.si().abs() <= LONGEST_M);
            }
        }
    }
}
