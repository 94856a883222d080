//! What a part of the shelf does: height against load, without it and with it.

use wise_badger_casework::shelf::Effect;
use wise_badger_mechanics::units::{Force, InShopUnits, Length};

use super::svg::{Canvas, Drawing};

const WIDTH: f64 = 150.0;
const HEIGHT: f64 = 40.0;
const EDGE: f64 = 3.0;

/// A small picture for a list: load along, height up; dashed without the part, drawn out with it. `said` is what it says in words.
pub(crate) fn effect_drawing(id: i64, effect: &Effect, said: &str) -> Drawing {
    let each = |of: fn(&(Force, Length, Length)) -> Length| -> Vec<(f64, f64)> {
        effect.points.iter().map(|point| (point.0.si(), of(point).si())).collect()
    };
    let (without, with) = (each(|point| point.1), each(|point| point.2));
    let heights = without.iter().chain(&with).map(|(_, height)| *height);
    let (low, high) = heights.fold((0.0_f64, 0.0_f64), |(low, high), height| (low.min(height), high.max(height)));
    let most = with.last().map_or(1.0, |(load, _)| *load);
    let x = |load: f64| EDGE + load / most * (WIDTH - 2.0 * EDGE);
    let y = |height: f64| EDGE + (high - height) / (high - low).max(1e-6) * (HEIGHT - 2.0 * EDGE);
    let mut canvas = Canvas::new();
    canvas.line("curve-axis", (EDGE, y(high)), (EDGE, y(low)));
    canvas.line("curve-zero", (EDGE, y(0.0)), (WIDTH - EDGE, y(0.0)));
    for (class, points) in [("curve-line curve-found", &without), ("curve-line curve-planned", &with)] {
        for (from, to) in points.iter().zip(points.iter().skip(1)) {
            canvas.line(class, (x(from.0), y(from.1)), (x(to.0), y(to.1)));
        }
    }
    canvas.finish(&format!("effect-{id}"), "effect", WIDTH, "Height against load, without it and with it", said)
}
