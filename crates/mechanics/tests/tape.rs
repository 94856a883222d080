//! What people type at the tape: fractions that a tape has are read, and what no tape has is refused instead of guessed at.

#![allow(clippy::unwrap_used, reason = "a test fails where it stands")]

use proptest::prelude::*;
use wise_badger_mechanics::tape::{LengthUnit, TypedError, WeightUnit, parse_length, parse_weight};
use wise_badger_mechanics::units::{InShopUnits, inches, pounds};

fn read(text: &str) -> Result<f64, TypedError> {
    parse_length(text, LengthUnit::Inches).map(|length| length.customary())
}

#[test]
fn a_digit_too_many_behind_a_fraction_is_no_height() {
    // The slips: 20 9/16 with a 2 more, and two figures run together.
    for text in ["20 9/162", "38 9/7", "38 8/8", "9/8", "38 3/1", "38 1/65", "38 0.5/2", "38 1/2.5"] {
        assert_eq!(read(text), Err(TypedError::NotOnATape(text.to_owned())), "{text}");
        assert!(read(text).unwrap_err().to_string().contains("like 38 3/4"), "it says how to write one");
    }
    assert_eq!(read("38 1/0"), Err(TypedError::Fraction("38 1/0".to_owned())));
}

#[test]
fn what_a_tape_and_a_scale_show_is_read() {
    for (text, value) in
        [("38 9/16", 38.5625), ("38-3/4", 38.75), ("63/64", 63.0 / 64.0), ("1' 6 13/16\"", 18.8125), ("38 0/8", 38.0)]
    {
        assert!((read(text).unwrap() - value).abs() < 1e-9, "{text}");
    }
    assert!((parse_weight("1 1/2 lb", WeightUnit::Kilograms).unwrap() - pounds(1.5)).value.abs() < 1e-9);
}

#[test]
fn thousands_may_be_set_apart_by_spaces_and_a_fraction_stays_one() {
    let metric = |text: &str| parse_length(text, LengthUnit::Millimetres).map(|length| length.si());
    for (text, value) in [("2 670", 2.67), ("2\u{a0}670 mm", 2.67), ("2\u{202f}670.5", 2.6705), ("985", 0.985)] {
        assert!((metric(text).unwrap() - value).abs() < 1e-12, "{text}");
    }
    assert!(
        (parse_weight("1 300", WeightUnit::Kilograms).unwrap() - parse_weight("1300", WeightUnit::Kilograms).unwrap()).value
            == 0.0
    );
    for text in ["2 67", "2 6700", "0 670", "2670 500", "2 670 5"] {
        assert!(metric(text).is_err(), "{text} is no figure");
    }
    assert_eq!(read("38 3/4"), Ok(38.75));
    assert!(read("1 234/5").is_err() && read("38 100/200").is_err(), "no tape has such a fraction");
}

proptest! {
    #[test]
    fn every_part_of_an_inch_is_read_to_what_it_is(whole in 0_u32..200, denominator in 2_u32..=64, part in 0_u32..64) {
        let numerator = part % denominator;
        let text = format!("{whole} {numerator}/{denominator}");
        let value = f64::from(whole) + f64::from(numerator) / f64::from(denominator);
        prop_assert!((parse_length(&text, LengthUnit::Inches).unwrap() - inches(value)).value.abs() < 1e-12, "{}", text);
    }

    #[test]
    fn a_whole_or_more_behind_a_whole_is_refused(whole in 0_u32..200, denominator in 1_u32..200, more in 0_u32..50) {
        let text = format!("{whole} {}/{denominator}", denominator + more);
        prop_assert!(read(&text).is_err(), "{}", text);
    }
}
