//! A slider beside a field: the steps that it goes through, each as it would be typed.

use askama::Template;
use wise_badger_mechanics::bound::{Bound, Dimension};
use wise_badger_mechanics::tape::{LengthUnit, WeightUnit};
use wise_badger_mechanics::units::{METRES_PER_INCH, NEWTONS_PER_POUND, PASCALS_PER_PSI, STANDARD_GRAVITY, metres};

use super::Field;
use crate::view::Units;

/// Most steps from one end to the other: each is to be felt.
const MOST_STEPS: f64 = 64.0;
/// A figure without a natural end goes from so much of itself to so many times itself.
const LEAST_TIMES: f64 = 0.4;
const MOST_TIMES: f64 = 2.0;
/// A length goes so far to either side of where it stands, m, where its bounds lie further apart than twice that.
const EITHER_SIDE_M: f64 = 6.0 * METRES_PER_INCH;

/// A slider that writes into a field.
#[derive(Debug, Clone, Template)]
#[template(path = "parts/slider.html")]
pub(crate) struct Slider {
    field: String,
    label: String,
    unit: &'static str,
    /// What it writes at each step, as JSON.
    texts: String,
    last: usize,
    at: usize,
    now: String,
}

impl askama::filters::HtmlSafe for Slider {}

/// The sizes of step that a figure goes in, in its unit, the finest first.
fn steps_of(dimension: Dimension, units: Units) -> Option<(f64, Vec<f64>)> {
    let tens = |first: f64| (0..6).flat_map(|power| [1.0, 2.0, 5.0].map(|step| first * step * 10_f64.powi(power))).collect();
    Some(match (dimension, units.length, units.weight) {
        (Dimension::Length, LengthUnit::Inches, _) => (METRES_PER_INCH, vec![0.0625, 0.125, 0.25, 0.5, 1.0, 2.0, 4.0, 8.0]),
        (Dimension::Length, LengthUnit::Millimetres, _) => (0.001, tens(1.0)),
        (Dimension::Weight, _, WeightUnit::Pounds) => (NEWTONS_PER_POUND, tens(10.0)),
        (Dimension::Weight, _, WeightUnit::Kilograms) => (STANDARD_GRAVITY, tens(5.0)),
        (Dimension::Rate, _, WeightUnit::Pounds) => (NEWTONS_PER_POUND / METRES_PER_INCH, tens(5.0)),
        (Dimension::Rate, _, WeightUnit::Kilograms) => (1_000.0, tens(1.0)),
        (Dimension::Pressure, LengthUnit::Inches, _) => (PASCALS_PER_PSI, tens(1.0)),
        (Dimension::Pressure, LengthUnit::Millimetres, _) => (1_000.0, tens(5.0)),
        // The turns of a coil are counted, not tried.
        (Dimension::Count, ..) => return None,
    })
}

/// How far a slider reaches.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) enum Reach {
    /// About where its figure stands: what is tried is seldom twice as much.
    Near,
    /// From its least to its most.
    Whole,
}

/// From where to where it goes, in SI units.
fn window(bound: &Bound, reach: Reach, now: Option<f64>) -> (f64, f64) {
    if reach == Reach::Whole {
        return (bound.least, bound.most);
    }
    let within = |least: f64, most: f64| (least.max(bound.least), most.min(bound.most));
    match (bound.dimension, now) {
        (Dimension::Length, now) if bound.most - bound.least > 2.0 * EITHER_SIDE_M => {
            let middle = now.unwrap_or(bound.least + EITHER_SIDE_M);
            within(middle - EITHER_SIDE_M, middle + EITHER_SIDE_M)
        }
        (Dimension::Weight | Dimension::Rate, Some(now)) if now.abs() > 0.0 => {
            let ends = [LEAST_TIMES * now, MOST_TIMES * now];
            // What may be less than nothing goes through nought.
            let least = if bound.least < 0.0 { -MOST_TIMES * now.abs() } else { ends[0] };
            within(least, ends[1].max(MOST_TIMES * now.abs()))
        }
        _ => (bound.least, bound.most),
    }
}

fn text(value: f64, step: f64, dimension: Dimension, units: Units) -> String {
    match (dimension, units.length) {
        (Dimension::Length, LengthUnit::Inches) => units.bare_height(metres(value * METRES_PER_INCH)).replace('\u{a0}', " "),
        _ if step >= 1.0 => format!("{value:.0}"),
        _ => format!("{value:.1}"),
    }
}

impl Slider {
    /// A slider for a field whose figure lies within a bound; `now` is what it stands at, where that can be read. `None` for what goes in
    /// no steps.
    pub(crate) fn new(
        field: &Field,
        label: &str,
        (bound, reach): (&Bound, Reach),
        now: Option<f64>,
        units: Units,
    ) -> Option<Self> {
        let (unit, steps) = steps_of(bound.dimension, units)?;
        let (least, most) = window(bound, reach, now);
        let (least, most) = (least / unit, most / unit);
        let step = steps.iter().copied().find(|step| (most - least) / step <= MOST_STEPS)?;
        // Whole steps, inside the bounds; what is typed at a bound is not rounded past it.
        let (first, last) = ((least / step - 1e-9).ceil(), (most / step + 1e-9).floor());
        #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "at most 64 steps, and none below nought")]
        let count = (last - first).max(0.0) as usize;
        #[expect(clippy::cast_precision_loss, reason = "at most 64 steps")]
        let value = |place: usize| (first + place as f64) * step;
        let texts: Vec<String> = (0..=count).map(|place| text(value(place), step, bound.dimension, units)).collect();
        let nearest = |now: f64| {
            let away = |place: &usize| (value(*place) - now / unit).abs();
            (0..=count).min_by(|one, other| away(one).total_cmp(&away(other))).unwrap_or_default()
        };
        Some(Slider {
            field: field.name.clone(),
            label: label.to_owned(),
            unit: unit_name(bound.dimension, units),
            last: count,
            at: now.map_or(0, nearest),
            now: now.and(field.text_said()).unwrap_or_else(|| "not set".to_owned()),
            texts: serde_json::to_string(&texts).unwrap_or_default(),
        })
    }
}

fn unit_name(dimension: Dimension, units: Units) -> &'static str {
    match dimension {
        Dimension::Length => units.length_name(),
        Dimension::Weight => units.weight_name(),
        Dimension::Rate => units.rate_name(),
        Dimension::Pressure => units.pressure_name(),
        Dimension::Count => "turns",
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;
    use wise_badger_casework::entry::Currency;
    use wise_badger_mechanics::tape::parse_length;
    use wise_badger_mechanics::units::InShopUnits;

    use crate::form::Sheet;

    const SHOP: Units = Units { length: LengthUnit::Inches, weight: WeightUnit::Pounds, currency: Currency::Usd };
    const METRIC: Units = Units { length: LengthUnit::Millimetres, weight: WeightUnit::Kilograms, currency: Currency::Usd };

    fn slider(bound: &Bound, now: Option<f64>, units: Units) -> (Vec<String>, usize) {
        let field = Sheet::blank(units).text_field("figure", "Figure");
        let slider = Slider::new(&field, "Figure", (bound, Reach::Near), now, units).expect("it goes in steps");
        (serde_json::from_str(&slider.texts).expect("our own"), slider.at)
    }

    #[test]
    fn a_block_goes_by_the_eighth_and_by_millimeters() {
        let block = Bound::inches(0.25, 6.0);
        let (texts, at) = slider(&block, Some(1.875 * METRES_PER_INCH), SHOP);
        assert_eq!((texts[0].as_str(), texts[at].as_str(), texts[at + 1].as_str()), ("1/4", "1 7/8", "2"));
        let (texts, at) = slider(&block, Some(0.050), METRIC);
        assert_eq!((texts[at].as_str(), texts[at + 1].as_str()), ("50", "55"));
    }

    #[test]
    fn a_pressure_stays_within_what_a_bag_takes_and_a_count_has_no_slider() {
        let (texts, _) = slider(&Bound::psi(5.0, 35.0), None, SHOP);
        assert_eq!((texts.first().map(String::as_str), texts.last().map(String::as_str)), (Some("5"), Some("35")));
        let field = Sheet::blank(SHOP).text_field("turns", "Turns");
        assert!(Slider::new(&field, "Turns", (&Bound::count(2.0, 20.0), Reach::Near), Some(6.0), SHOP).is_none());
    }

    proptest! {
        /// Whatever a slider writes is read back as what its bound allows, and it never goes in more steps than can be felt.
        #[test]
        fn what_a_slider_writes_lies_within_its_bound(least in 0.0..30.0_f64, wide in 0.5..60.0_f64, at in 0.0..1.0_f64) {
            let bound = Bound::inches(least, least + wide);
            let now = (least + at * wide) * METRES_PER_INCH;
            let (texts, place) = slider(&bound, Some(now), SHOP);
            prop_assert!(!texts.is_empty() && texts.len() <= 65);
            let read: Vec<f64> = texts.iter().map(|text| parse_length(text, LengthUnit::Inches).expect("as typed").si()).collect();
            prop_assert!(read.iter().all(|si| *si >= bound.least - 1e-9 && *si <= bound.most + 1e-9), "{texts:?} {bound:?}");
            prop_assert!(read.windows(2).all(|pair| pair[0] < pair[1]));
            let step = if read.len() > 1 { read[1] - read[0] } else { wide * METRES_PER_INCH };
            prop_assert!((read[place] - now).abs() <= step + 1e-9);
        }
    }
}
