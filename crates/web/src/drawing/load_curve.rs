//! Where the rear stands under any weight on its axle: as it is and with what is tried, and every case on the curve.

use wise_badger_mechanics::tape::LengthUnit;
use wise_badger_mechanics::uncertain::Uncertain;
use wise_badger_mechanics::units::{Force, InShopUnits, Length, METRES_PER_INCH, metres, newtons};

use super::names_under::NamesUnder;
use super::svg::{Anchor, Canvas, Drawing};
use crate::view::Units;

const WIDTH: f64 = 480.0;
const LEFT: f64 = 72.0;
const RIGHT: f64 = 18.0;
const TOP: f64 = 30.0;
const HEIGHT: f64 = 190.0;
/// Most marks of the scale.
const MOST_TICKS: f64 = 6.0;

/// A state or a case on the curve.
pub(crate) struct OnTheCurve {
    pub(crate) name: String,
    /// What is on the rear axle beyond empty.
    pub(crate) load: Force,
    /// Where it stands with what is tried.
    pub(crate) rear: Uncertain<Length>,
}

/// The picture: weight along, height up; dashed as it is now, drawn out with what is tried.
pub(crate) fn load_curve_drawing(
    now: &[(Force, Length)],
    with: &[(Force, Length)],
    cases: &[OnTheCurve],
    units: Units,
) -> Drawing {
    let ends = cases.iter().flat_map(|case| [case.rear.value - case.rear.band(), case.rear.value + case.rear.band()]);
    let heights = now.iter().chain(with).map(|(_, height)| *height).chain(ends).map(|height| height.si());
    let (low, high) = heights.fold((f64::MAX, f64::MIN), |(low, high), height| (low.min(height), high.max(height)));
    let loads = now.iter().chain(with).map(|(load, _)| load.si()).chain(cases.iter().map(|case| case.load.si()));
    let (least, most) = loads.fold((0.0_f64, 1.0_f64), |(least, most), load| (least.min(load), most.max(load)));
    let x = |load: f64| LEFT + (load - least) / (most - least) * (WIDTH - LEFT - RIGHT);
    let y = |height: f64| TOP + (high - height) / (high - low).max(1e-6) * HEIGHT;
    let mut canvas = Canvas::new();
    canvas.line("curve-axis", (LEFT, TOP - 8.0), (LEFT, TOP + HEIGHT));
    canvas.line("curve-axis", (LEFT, TOP + HEIGHT), (WIDTH - RIGHT, TOP + HEIGHT));
    for height in ticks(low, high, units) {
        canvas.text("curve-tick", (LEFT - 6.0, y(height) + 4.0), Anchor::End, &units.height(metres(height)));
    }
    for (class, points) in [("curve-line curve-found", now), ("curve-line curve-planned", with)] {
        for (from, to) in points.iter().zip(points.iter().skip(1)) {
            canvas.line(class, (x(from.0.si()), y(from.1.si())), (x(to.0.si()), y(to.1.si())));
        }
    }
    let mut names = NamesUnder::new(TOP + HEIGHT, WIDTH);
    for case in cases {
        let (at, band) = (x(case.load.si()), case.rear.band().si());
        canvas.line("curve-case", (at, TOP - 2.0), (at, TOP + HEIGHT));
        canvas.line("whisker", (at, y(case.rear.value.si() - band)), (at, y(case.rear.value.si() + band)));
        canvas.circle("mark-open", (at, y(case.rear.value.si())), 5.0);
        names.put(&mut canvas, at, &case.name);
    }
    for (at, class, name) in [(LEFT + 40.0, "found", "now"), (LEFT + 160.0, "planned", "with what is tried")] {
        canvas.line(&format!("curve-line curve-{class}"), (at, 8.0), (at + 30.0, 8.0));
        canvas.text("curve-key", (at + 36.0, 12.0), Anchor::Start, name);
    }
    let told = cases.iter().map(|case| {
        format!("{}: {} more on the rear, {}", case.name, units.weight(newtons(case.load.si())), units.predicted(case.rear))
    });
    let told = told.collect::<Vec<_>>().join("; ");
    canvas.finish("load-curve", "stance load-curve", WIDTH, "Rear height against what is on the rear axle beyond empty", &told)
}

/// Round heights between two, in metres.
fn ticks(low: f64, high: f64, units: Units) -> Vec<f64> {
    let (unit, steps) = match units.length {
        LengthUnit::Inches => (METRES_PER_INCH, [0.25, 0.5, 1.0, 2.0, 4.0]),
        LengthUnit::Millimetres => (0.001, [5.0, 10.0, 20.0, 50.0, 100.0]),
    };
    let apart = steps.map(|step| step * unit).into_iter().find(|step| (high - low) / step <= MOST_TICKS).unwrap_or(high - low);
    let first = (low / apart).ceil();
    std::iter::successors(Some(first), |place| Some(place + 1.0))
        .map(|place| place * apart)
        .take_while(|at| *at <= high)
        .take(16)
        .collect()
}

#[cfg(test)]
mod tests {
    use super::*;
    use wise_badger_casework::entry::Currency;
    use wise_badger_mechanics::tape::WeightUnit;

    const SHOP: Units = Units { length: LengthUnit::Inches, weight: WeightUnit::Pounds, currency: Currency::Usd };
    const METRIC: Units = Units { length: LengthUnit::Millimetres, weight: WeightUnit::Kilograms, currency: Currency::Usd };

    #[test]
    fn a_scale_has_a_few_round_heights_within_it() {
        let inches = |at: Vec<f64>| -> Vec<f64> { at.iter().map(|at| (at / METRES_PER_INCH * 100.0).round() / 100.0).collect() };
        assert_eq!(inches(ticks(35.6 * METRES_PER_INCH, 43.2 * METRES_PER_INCH, SHOP)), [36.0, 38.0, 40.0, 42.0]);
        assert_eq!(inches(ticks(20.0 * METRES_PER_INCH, 21.0 * METRES_PER_INCH, SHOP)), [20.0, 20.25, 20.5, 20.75, 21.0]);
        let millimeters: Vec<f64> = ticks(0.68, 0.79, METRIC).iter().map(|at| (at * 1_000.0).round()).collect();
        assert_eq!(millimeters, [680.0, 700.0, 720.0, 740.0, 760.0, 780.0]);
    }
}
