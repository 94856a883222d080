//! Fit against cost: every allowed option as a point, the likelier to meet the aim the higher, the dearer the further right.

use super::svg::{Anchor, Canvas, Drawing};

const WIDTH: f64 = 520.0;
const HEIGHT: f64 = 190.0;
const LEFT: f64 = 62.0;
const BOTTOM: f64 = 26.0;
const EDGE: f64 = 14.0;

/// A point of the picture.
pub(crate) struct FitPoint {
    /// Its place in the list below.
    pub(crate) rank: usize,
    /// What it is, said to who cannot see it.
    pub(crate) name: String,
    /// From 0 to 1.
    pub(crate) chance: f64,
    /// In whole units of the currency.
    pub(crate) price: f64,
    /// Whether it is among the first.
    pub(crate) first: bool,
}

/// The picture; each point leads to its row in the list.
pub(crate) fn fit_cost_drawing(points: &[FitPoint], most_words: &str) -> Drawing {
    let most = points.iter().map(|point| point.price).fold(1.0, f64::max);
    let x = |price: f64| LEFT + price / most * (WIDTH - LEFT - 2.0 * EDGE);
    let y = |chance: f64| EDGE + (1.0 - chance) * (HEIGHT - BOTTOM - 2.0 * EDGE);
    let mut canvas = Canvas::new();
    canvas.line("fit-axis", (LEFT, y(1.0)), (LEFT, y(0.0)));
    canvas.line("fit-axis", (LEFT, y(0.0)), (WIDTH - EDGE, y(0.0)));
    for (share, text) in [(1.0, "surely"), (0.5, "even"), (0.0, "never")] {
        canvas.line("fit-tick", (LEFT - 4.0, y(share)), (LEFT, y(share)));
        canvas.text("fit-text", (LEFT - 7.0, y(share) + 4.0), Anchor::End, text);
    }
    canvas.text("fit-text", (LEFT, HEIGHT - 8.0), Anchor::Start, "0");
    canvas.text("fit-text", (x(most), HEIGHT - 8.0), Anchor::End, most_words);
    // The first stand on top of the others.
    let (first, others): (Vec<&FitPoint>, Vec<&FitPoint>) = points.iter().partition(|point| point.first);
    for point in others.into_iter().chain(first) {
        canvas.begin_link(&format!("#option-{}", point.rank), &point.name);
        let at = (x(point.price), y(point.chance));
        canvas.circle(if point.first { "fit-point is-first" } else { "fit-point" }, at, if point.first { 9.0 } else { 5.0 });
        if point.first {
            canvas.text("fit-rank", (at.0, at.1 + 4.0), Anchor::Middle, &point.rank.to_string());
        }
        canvas.end_link();
    }
    canvas.finish_with_links("fit-cost", "fit-cost", WIDTH, "Chance of meeting the aim against what the parts cost")
}
