//! Tyre sizes as they stand on the sidewall.

use std::str::FromStr;

use crate::units::{Length, inches, metres};

/// A tyre's size by its designation.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct TyreSize {
    /// Outside diameter, new and unloaded.
    pub diameter: Length,
    /// Section width.
    pub width: Length,
    /// Diameter of the rim it goes on.
    pub rim: Length,
}

/// Why a text is no tyre size.
#[derive(Debug, Clone, PartialEq, Eq, thiserror::Error)]
#[non_exhaustive]
pub enum TyreSizeError {
    /// Neither form.
    #[error("“{0}” is no tire size; type it as on the sidewall, like 245/75R16 or 35x12.50R15")]
    Form(String),
    /// A form, with a figure no tyre has.
    #[error("“{text}” cannot be: {what} is out of range")]
    OutOfRange {
        /// What was typed.
        text: String,
        /// Which figure.
        what: &'static str,
    },
}

impl TyreSize {
    /// Free radius: half the diameter.
    pub fn free_radius(&self) -> Length {
        self.diameter / 2.0
    }

    /// From the hub centre down to the rim's lower lip: half the rim and its flange of 17.5 mm.
    ///
    /// # Source     flange height of a J contour, ETRTO Standards Manual, from memory
    pub fn rim_lip_radius(&self) -> Length {
        self.rim / 2.0 + metres(0.0175)
    }
}

/// Reads a size: metric (`LT245/75R16`, `P265/70 R 17`, `245/75R16C`) or flotation (`35x12.50R15LT`, `31X10.50-15`).
///
/// Metric: `diameter = rim·25.4 + 2·width·aspect/100` mm. Flotation: the first figure is the diameter in inches.
///
/// # Valid      width 100 to 455 mm, aspect 20 to 100, rims 8 to 30 in, flotation diameters 20 to 54 in
/// # Errors     [`TyreSizeError`] keeps what was typed
/// # Source     ISO 4000-1 and ETRTO designation (metric); light-truck flotation designation, common practice
/// # Example
/// ```
/// use wise_badger_mechanics::tape::TyreSize;
/// use wise_badger_mechanics::units::InShopUnits;
/// let size: TyreSize = "245/75R16".parse().expect("a size");
/// assert!((size.diameter.si() - 0.7739).abs() < 1e-9);
/// ```
impl FromStr for TyreSize {
    type Err = TyreSizeError;

    fn from_str(text: &str) -> Result<Self, TyreSizeError> {
        let form = || TyreSizeError::Form(text.trim().to_owned());
        let out = |what| TyreSizeError::OutOfRange { text: text.trim().to_owned(), what };
        let plain: String = text.chars().filter(|sign| !sign.is_whitespace()).collect::<String>().to_uppercase();
        let plain = plain.trim_start_matches(|sign: char| sign.is_ascii_alphabetic());
        let (size, rim) = plain.rsplit_once(['R', 'D', 'B', '-']).ok_or_else(form)?;
        let size = size.trim_end_matches(['Z', 'R']);
        let rim = rim.trim_end_matches(|sign: char| sign.is_ascii_alphabetic());
        let number = |part: &str| part.parse::<f64>().ok().filter(|value| value.is_finite()).ok_or_else(form);
        let rim_in = number(rim)?;
        let in_range =
            |what, value: f64, least: f64, most: f64| if (least..=most).contains(&value) { Ok(value) } else { Err(out(what)) };
        in_range("the rim", rim_in, 8.0, 30.0)?;
        if let Some((width, aspect)) = size.split_once('/') {
            let width_mm = in_range("the width", number(width)?, 100.0, 455.0)?;
            let aspect = in_range("the aspect ratio", number(aspect)?, 20.0, 100.0)?;
            let diameter = metres((rim_in * 25.4 + 2.0 * width_mm * aspect / 100.0) / 1000.0);
            return Ok(TyreSize { diameter, width: metres(width_mm / 1000.0), rim: inches(rim_in) });
        }
        let (diameter, width) = size.split_once(['X', '×']).ok_or_else(form)?;
        let diameter_in = in_range("the diameter", number(diameter)?, 20.0, 54.0)?;
        let width_in = in_range("the width", number(width)?, 4.0, 20.0)?;
        if rim_in + 2.0 > diameter_in {
            return Err(out("the rim"));
        }
        Ok(TyreSize { diameter: inches(diameter_in), width: inches(width_in), rim: inches(rim_in) })
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::units::InShopUnits;

    #[test]
    fn both_ways_of_naming_a_size_are_read() {
        for (text, millimetres) in [
            ("245/75R16", 773.9),
            ("LT245/75 R 16", 773.9),
            ("P265/70R17", 802.8),
            ("195/60r15c", 615.0),
            ("225/45ZR17", 634.3),
            ("35x12.50R15LT", 889.0),
            ("31X10.50-15", 787.4),
        ] {
            let size: TyreSize = text.parse().unwrap();
            assert!((size.diameter.si() * 1000.0 - millimetres).abs() < 0.05, "{text}: {:?}", size.diameter);
            assert!(size.rim < size.diameter && size.free_radius() < size.diameter);
        }
    }

    #[test]
    fn what_is_no_size_is_named_with_what_was_typed() {
        for text in ["", "245", "245/75", "245/R16", "big", "245/75R", "9e999/75R16"] {
            assert_eq!(text.parse::<TyreSize>(), Err(TyreSizeError::Form(text.to_owned())), "{text}");
        }
        for (text, what) in
            [("2450/75R16", "the width"), ("245/7R16", "the aspect ratio"), ("245/75R160", "the rim"), ("22x10R21", "the rim")]
        {
            let refused = text.parse::<TyreSize>();
            assert_eq!(refused, Err(TyreSizeError::OutOfRange { text: text.to_owned(), what }), "{text}");
        }
    }
}
