//! Angles, pressures, torques and turns as typed.

use super::length::LengthUnit;
use super::typed::{Number, TypedError, leading_number, split_sign};
use super::weight::WeightUnit;
use crate::units::{
    Angle, METRES_PER_INCH, Moment, NEWTON_METRES_PER_POUND_FOOT, NEWTONS_PER_POUND, Pressure, newton_metres, pascals, radians,
};

/// No gauge on a vehicle stands steeper.
const STEEPEST_DEG: f64 = 180.0;
/// No tyre or bag holds more.
const MOST_PA: f64 = 2.0e6;
/// No steel holds more.
const MOST_STRESS_PA: f64 = 5.0e9;
/// No nut under a vehicle is tightened to less, and none to more, N·m.
const LEAST_TORQUE: f64 = 1.0;
const MOST_TORQUE: f64 = 2_000.0;
/// No coil under a vehicle has more.
const MOST_TURNS: f64 = 100.0;

/// Reads an angle in degrees (`12`, `12.5°`, `-3 deg`).
///
/// # Valid      −180 to 180°
/// # Errors     [`TypedError`] says what was typed and how to write it
/// # Example
/// ```
/// use wise_badger_mechanics::tape::parse_angle;
/// assert!((parse_angle("-2.5°").expect("an angle").value + 2.5_f64.to_radians()).abs() < 1e-12);
/// ```
pub fn parse_angle(text: &str) -> Result<Angle, TypedError> {
    let (sign, number, name) = signed(text, "figure in degrees", "12.5")?;
    if !matches!(name.as_str(), "" | "°" | "deg" | "degree" | "degrees") {
        return Err(not_understood(text, "figure in degrees", "12.5"));
    }
    if number > STEEPEST_DEG {
        return Err(TypedError::OutOfRange { text: text.trim().to_owned(), what: "angle", size: "too large" });
    }
    Ok(radians((sign * number).to_radians()))
}

/// Reads a gauge pressure (`65`, `65 psi`, `450 kPa`, `4.5 bar`); a bare number is psi for the inch and kPa for the millimetre.
///
/// # Valid      0 to 2 MPa
/// # Errors     [`TypedError`] says what was typed and how to write it
/// # Source     NIST SP 811, B.8 and B.9: psi from pound-force and inch, bar 100 kPa
/// # Example
/// ```
/// use wise_badger_mechanics::tape::{LengthUnit, parse_pressure};
/// let tyre = parse_pressure("65", LengthUnit::Inches).expect("a pressure");
/// assert!((tyre.value - 448_159.2).abs() < 0.1);
/// ```
pub fn parse_pressure(text: &str, unit: LengthUnit) -> Result<Pressure, TypedError> {
    let (sign, number, name) = signed(text, "pressure", "65 psi or 450 kPa")?;
    if sign < 0.0 && number > 0.0 {
        return Err(TypedError::Negative(text.trim().to_owned(), "pressure"));
    }
    let psi = NEWTONS_PER_POUND / (METRES_PER_INCH * METRES_PER_INCH);
    let each = match (name.as_str(), unit) {
        ("", LengthUnit::Inches) | ("psi", _) => psi,
        ("", LengthUnit::Millimetres) | ("kpa", _) => 1000.0,
        ("bar", _) => 100_000.0,
        _ => return Err(not_understood(text, "pressure", "65 psi or 450 kPa")),
    };
    if number * each > MOST_PA {
        return Err(TypedError::OutOfRange { text: text.trim().to_owned(), what: "pressure", size: "too large" });
    }
    Ok(pascals(number * each))
}

/// Reads a stress (`90`, `90 ksi`, `620 MPa`); a bare number is ksi for the inch and MPa for the millimetre.
///
/// # Valid      0 to 5 GPa
/// # Errors     [`TypedError`] says what was typed and how to write it
/// # Source     NIST SP 811, B.8: ksi from pound-force and inch
/// # Example
/// ```
/// use wise_badger_mechanics::tape::{LengthUnit, parse_stress};
/// assert!((parse_stress("100", LengthUnit::Inches).expect("a stress").value - 689.4757e6).abs() < 1e3);
/// ```
pub fn parse_stress(text: &str, unit: LengthUnit) -> Result<Pressure, TypedError> {
    let (sign, number, name) = signed(text, "stress", "90 ksi or 620 MPa")?;
    let ksi = 1000.0 * NEWTONS_PER_POUND / (METRES_PER_INCH * METRES_PER_INCH);
    let each = match (name.as_str(), unit) {
        ("", LengthUnit::Inches) | ("ksi", _) => ksi,
        ("", LengthUnit::Millimetres) | ("mpa", _) => 1e6,
        _ => return Err(not_understood(text, "stress", "90 ksi or 620 MPa")),
    };
    match sign * number * each {
        stress if stress < 0.0 => Err(TypedError::Negative(text.trim().to_owned(), "stress")),
        stress if stress > MOST_STRESS_PA => {
            Err(TypedError::OutOfRange { text: text.trim().to_owned(), what: "stress", size: "too large" })
        }
        stress => Ok(pascals(stress)),
    }
}

/// Reads a torque (`120`, `120 ft-lb`, `160 N·m`); a bare number is ft-lb for the pound and N·m for the kilogram.
///
/// # Valid      above 0, to 2,000 N·m
/// # Errors     [`TypedError`] says what was typed and how to write it
/// # Source     NIST SP 811, B.8: foot pound-force
/// # Example
/// ```
/// use wise_badger_mechanics::tape::{WeightUnit, parse_torque};
/// assert!((parse_torque("100 ft-lb", WeightUnit::Kilograms).expect("a torque").value - 135.5818).abs() < 1e-4);
/// ```
pub fn parse_torque(text: &str, unit: WeightUnit) -> Result<Moment, TypedError> {
    const EXAMPLE: &str = "120 ft-lb or 160 N·m";
    let (sign, number, name) = signed(text, "torque", EXAMPLE)?;
    let each = match (name.as_str(), unit) {
        ("", WeightUnit::Pounds)
        | ("ft-lb" | "ft lb" | "ftlb" | "lb-ft" | "lb ft" | "lbft" | "ft-lbs" | "lb·ft" | "ft·lb", _) => {
            NEWTON_METRES_PER_POUND_FOOT
        }
        ("", WeightUnit::Kilograms) | ("nm" | "n·m" | "n m" | "n-m", _) => 1.0,
        _ => return Err(not_understood(text, "torque", EXAMPLE)),
    };
    match sign * number * each {
        torque if torque < 0.0 => Err(TypedError::Negative(text.trim().to_owned(), "torque")),
        torque if torque < LEAST_TORQUE => {
            Err(TypedError::OutOfRange { text: text.trim().to_owned(), what: "torque", size: "too small" })
        }
        torque if torque > MOST_TORQUE => {
            Err(TypedError::OutOfRange { text: text.trim().to_owned(), what: "torque", size: "too large" })
        }
        torque => Ok(newton_metres(torque)),
    }
}

/// Reads the turns of a coil (`7`, `6 1/2`, `6.5 turns`).
///
/// # Valid      0 to 100
/// # Errors     [`TypedError`] says what was typed and how to write it
/// # Example
/// ```
/// use wise_badger_mechanics::tape::parse_turns;
/// assert!((parse_turns("6 1/2").expect("turns") - 6.5).abs() < 1e-12);
/// ```
pub fn parse_turns(text: &str) -> Result<f64, TypedError> {
    let (sign, number, name) = signed(text, "count of turns", "6 1/2")?;
    if !matches!(name.as_str(), "" | "turn" | "turns" | "coils") {
        return Err(not_understood(text, "count of turns", "6 1/2"));
    }
    if sign < 0.0 && number > 0.0 {
        return Err(TypedError::Negative(text.trim().to_owned(), "count of turns"));
    }
    if number > MOST_TURNS {
        return Err(TypedError::OutOfRange { text: text.trim().to_owned(), what: "count of turns", size: "too large" });
    }
    Ok(number)
}

/// Sign, number, and the unit's name in small letters.
fn signed(text: &str, what: &'static str, example: &'static str) -> Result<(f64, f64, String), TypedError> {
    let typed = text.trim();
    if typed.is_empty() {
        return Err(TypedError::Empty);
    }
    let (negative, body) = split_sign(typed);
    let Number { value, rest } = leading_number(body, typed)?.ok_or_else(|| not_understood(text, what, example))?;
    Ok((if negative { -1.0 } else { 1.0 }, value, rest.trim().trim_end_matches('.').to_lowercase()))
}

fn not_understood(text: &str, what: &'static str, example: &'static str) -> TypedError {
    TypedError::NotUnderstood { text: text.trim().to_owned(), what, example }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn one_pressure_is_understood_in_every_unit() {
        let pascals = |text: &str, unit| parse_pressure(text, unit).unwrap().value;
        // 65 psi = 448.159 kPa (NIST SP 811).
        for (text, unit) in
            [("65", LengthUnit::Inches), ("65 psi", LengthUnit::Millimetres), ("448.1592", LengthUnit::Millimetres)]
        {
            assert!((pascals(text, unit) - 448_159.2).abs() < 1.0, "{text}");
        }
        assert!((pascals("4.5 bar", LengthUnit::Inches) - 450_000.0).abs() < 1e-6);
    }

    #[test]
    fn what_is_no_angle_or_pressure_says_which_kind_of_wrong_it_is() {
        assert!(matches!(parse_angle("200"), Err(TypedError::OutOfRange { .. })));
        assert!(matches!(parse_angle("12 in"), Err(TypedError::NotUnderstood { .. })));
        assert!(matches!(parse_angle(" "), Err(TypedError::Empty)));
        assert!(matches!(parse_turns("-7"), Err(TypedError::Negative(..))));
        assert!(matches!(parse_turns("700"), Err(TypedError::OutOfRange { .. })));
        assert!(matches!(parse_turns("7 in"), Err(TypedError::NotUnderstood { .. })));
        assert!(matches!(parse_pressure("-3", LengthUnit::Inches), Err(TypedError::Negative(..))));
        assert!(matches!(parse_pressure("900 bar", LengthUnit::Inches), Err(TypedError::OutOfRange { .. })));
        assert!(matches!(parse_pressure("65 lb", LengthUnit::Inches), Err(TypedError::NotUnderstood { .. })));
    }
}
