//! Force against height: a pack as found and as planned, with the loads that matter.

use wise_badger_mechanics::pack::PackCurve;
use wise_badger_mechanics::units::{Force, InShopUnits, Length};

use super::names_under::NamesUnder;
use super::svg::{Anchor, Canvas, Drawing};
use crate::view::Units;

/// A curve to be drawn.
pub(crate) struct DrawnCurve<'a> {
    pub(crate) curve: &'a PackCurve,
    /// `found` or `planned`: dashed, or drawn out.
    pub(crate) class: &'static str,
    pub(crate) name: &'static str,
    /// Where its second stage begins.
    pub(crate) second_stage: Option<Force>,
}

const WIDTH: f64 = 480.0;
const LEFT: f64 = 58.0;
const RIGHT: f64 = 18.0;
const TOP: f64 = 26.0;
const HEIGHT: f64 = 230.0;

/// The picture: load along, height up; each named load is a line with its name.
pub(crate) fn curve_drawing(curves: &[DrawnCurve<'_>], loads: &[(String, Force)], units: Units) -> Drawing {
    let most = curves.iter().map(|curve| curve.curve.reaches().si());
    let named = loads.iter().map(|(_, load)| load.si()).fold(0.0, f64::max);
    let most = most.fold(0.0, f64::max).min(named * 1.15).max(1.0);
    let ends = |curve: &DrawnCurve<'_>| {
        let height = |load: f64| curve.curve.height(wise_badger_mechanics::units::newtons(load)).si();
        [height(0.0), height(most)]
    };
    let heights: Vec<f64> = curves.iter().flat_map(ends).collect();
    let (low, high) = heights.iter().fold((0.0_f64, 0.0_f64), |(low, high), height| (low.min(*height), high.max(*height)));
    let x = |load: f64| LEFT + load / most * (WIDTH - LEFT - RIGHT);
    let y = |height: f64| TOP + (high - height) / (high - low).max(1e-6) * HEIGHT;
    let mut canvas = Canvas::new();
    canvas.line("curve-axis", (LEFT, TOP - 8.0), (LEFT, TOP + HEIGHT));
    canvas.line("curve-zero", (LEFT, y(0.0)), (WIDTH - RIGHT, y(0.0)));
    canvas.text("curve-tick", (LEFT - 6.0, y(0.0) + 4.0), Anchor::End, "flat");
    canvas.text("curve-tick", (LEFT - 6.0, y(high) + 4.0), Anchor::End, &units.height(Length::default() + metres(high)));
    canvas.text(
        "curve-tick",
        (LEFT - 6.0, y(low) + 4.0),
        Anchor::End,
        &if low < 0.0 { units.height(metres(low)) } else { String::new() },
    );
    let mut names = NamesUnder::new(TOP + HEIGHT, WIDTH);
    for (name, load) in loads.iter().filter(|(_, load)| load.si() <= most) {
        let at = x(load.si());
        canvas.line("curve-case", (at, TOP - 2.0), (at, TOP + HEIGHT));
        names.put(&mut canvas, at, name);
    }
    for curve in curves {
        let class = format!("curve-line curve-{}", curve.class);
        let mut before: Option<(f64, f64)> = None;
        let inside = curve.curve.corners().filter(|(load, _)| load.si() < most);
        for (load, height) in inside.chain([end_of(curve.curve, most)]) {
            let at = (x(load.si()), y(height.si()));
            if let Some(before) = before {
                canvas.line(&class, before, at);
            }
            before = Some(at);
        }
        for (_, load) in loads.iter().filter(|(_, load)| load.si() <= most && *load <= curve.curve.reaches()) {
            let at = (x(load.si()), y(curve.curve.height(*load).si()));
            canvas.circle(if curve.class == "found" { "mark-solid" } else { "mark-open" }, at, 4.5);
        }
        if let Some(load) = curve.second_stage.filter(|load| load.si() <= most) {
            let (at, up) = (x(load.si()), y(curve.curve.height(load).si()));
            canvas.polygon("curve-stage", &[(at - 6.0, up - 16.0), (at + 6.0, up - 16.0), (at, up - 7.0)]);
        }
    }
    let key = |canvas: &mut Canvas, at: f64, class: &str, name: &str| {
        canvas.line(&format!("curve-line curve-{class}"), (at, 6.0), (at + 30.0, 6.0));
        canvas.text("curve-key", (at + 36.0, 10.0), Anchor::Start, name);
    };
    let mut at = LEFT + 40.0;
    for curve in curves {
        key(&mut canvas, at, curve.class, curve.name);
        at += 130.0;
    }
    if curves.iter().any(|curve| curve.second_stage.is_some()) {
        canvas.polygon("curve-stage", &[(at, 0.0), (at + 12.0, 0.0), (at + 6.0, 9.0)]);
        canvas.text("curve-key", (at + 18.0, 10.0), Anchor::Start, "second stage");
    }
    let told =
        curves.iter().map(|curve| format!("{}: {} with no load", curve.name, units.height(curve.curve.height(Force::default()))));
    let told = told.collect::<Vec<_>>().join("; ");
    canvas.finish("pack-curve", "stance pack-curve", WIDTH, "Arch against load on one pack", &told)
}

fn metres(value: f64) -> Length {
    wise_badger_mechanics::units::metres(value)
}

/// The last point of a curve that is drawn: where it ends, or at the edge of the picture.
fn end_of(curve: &PackCurve, most: f64) -> (Force, Length) {
    let load = wise_badger_mechanics::units::newtons(most.min(curve.reaches().si()));
    (load, curve.height(load))
}
