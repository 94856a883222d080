//! What parts did against what was promised: a row a part, a dot a job, the mean and two standard deviations about it.

use wise_badger_mechanics::units::metres;

use super::svg::{Anchor, Canvas, Drawing};
use crate::view::Units;

const WIDTH: f64 = 860.0;
const LEFT: f64 = 300.0;
const EDGE: f64 = 20.0;
const HEAD: f64 = 26.0;
const ROW: f64 = 34.0;

/// A part's misses, m: above nought where it stood higher than promised.
pub(crate) struct Spread {
    pub(crate) name: String,
    pub(crate) misses_m: Vec<f64>,
    pub(crate) mean_m: f64,
    pub(crate) sd_m: f64,
}

/// The picture.
pub(crate) fn ledger_drawing(parts: &[Spread], units: Units) -> Drawing {
    let reach = |part: &Spread| {
        let furthest = part.misses_m.iter().map(|miss| miss.abs()).fold(0.0, f64::max);
        furthest.max(part.mean_m.abs() + 2.0 * part.sd_m)
    };
    let most = parts.iter().map(reach).fold(0.0064, f64::max);
    let x = |miss: f64| LEFT + (WIDTH - LEFT - EDGE) * (0.5 + 0.5 * miss / most);
    let bottom = HEAD + ROW * parts.len() as f64;
    let mut canvas = Canvas::new();
    canvas.line("ledger-zero", (x(0.0), HEAD - 6.0), (x(0.0), bottom));
    canvas.text("ledger-text", (x(0.0), HEAD - 10.0), Anchor::Middle, "as promised");
    canvas.text("ledger-text", (x(-most), HEAD - 10.0), Anchor::Start, &format!("{} lower", units.height(metres(most))));
    canvas.text("ledger-text", (x(most), HEAD - 10.0), Anchor::End, &format!("{} higher", units.height(metres(most))));
    let mut said = Vec::new();
    for (place, part) in parts.iter().enumerate() {
        let y = HEAD + ROW * (place as f64 + 0.5);
        let name: String = part.name.chars().take(42).collect();
        canvas.text("ledger-text", (0.0, y + 5.0), Anchor::Start, &name);
        canvas.line("ledger-band", (x(part.mean_m - 2.0 * part.sd_m), y), (x(part.mean_m + 2.0 * part.sd_m), y));
        canvas.line("ledger-band", (x(part.mean_m), y - 9.0), (x(part.mean_m), y + 9.0));
        part.misses_m.iter().for_each(|miss| canvas.circle("ledger-dot", (x(*miss), y), 3.5));
        said.push(format!("{}: {} on the mean of {}", part.name, units.change(metres(part.mean_m)), part.misses_m.len()));
    }
    canvas.line("ledger-axis", (LEFT, bottom), (WIDTH - EDGE, bottom));
    canvas.finish("ledger-picture", "ledger-picture", WIDTH, "What parts did against what was promised", &said.join("; "))
}
