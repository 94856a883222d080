//! Names under a picture, each at its place along it; those that would run into each other go a row lower.

use super::svg::{Anchor, Canvas};

/// What a sign of a name takes, and what lies between two names and two rows.
const SIGN: f64 = 7.0;
const BETWEEN: f64 = 8.0;
const FIRST_ROW: f64 = 16.0;
const ROW: f64 = 15.0;

/// The rows of names, and where each of them ends so far.
pub(super) struct NamesUnder {
    top: f64,
    width: f64,
    rows: Vec<f64>,
}

impl NamesUnder {
    /// Under a picture that ends at `top`.
    pub(super) fn new(top: f64, width: f64) -> Self {
        NamesUnder { top, width, rows: Vec::new() }
    }

    /// Puts a name under a place.
    pub(super) fn put(&mut self, canvas: &mut Canvas, at: f64, name: &str) {
        let wide = SIGN * f64::from(u32::try_from(name.chars().count()).unwrap_or(40));
        let start = (at - wide / 2.0).clamp(2.0, (self.width - wide - 2.0).max(2.0));
        let row = self.rows.iter().position(|end| end + BETWEEN < start).unwrap_or(self.rows.len());
        #[expect(clippy::cast_precision_loss, reason = "a few rows")]
        let under = self.top + FIRST_ROW + ROW * row as f64;
        if let Some(end) = self.rows.get_mut(row) {
            *end = start + wide;
        } else {
            self.rows.push(start + wide);
        }
        canvas.text("curve-name", (start, under), Anchor::Start, name);
    }
}
