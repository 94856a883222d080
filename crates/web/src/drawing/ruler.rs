//! A ruler with its marks. Labels are moved apart until none overlaps.

use wise_badger_casework::survey::LoadState;
use wise_badger_mechanics::tape::LengthUnit;
use wise_badger_mechanics::units::{InShopUnits, Length, inches, metres};

use super::marks::{Mark, MarkKind};
use super::svg::{Anchor, Canvas};
use crate::view::Units;

/// Room a two-line label needs.
const LABEL_ROOM: f64 = 31.0;
/// Room the figure at a tick needs.
const TICK_TEXT_ROOM: f64 = 12.0;
/// Half the width of a band.
const BAND_HALF: f64 = 7.0;

/// Where a ruler's labels stand.
pub(super) enum Labels {
    /// Beside their marks, within a lowest and a highest y.
    Beside { room: (f64, f64) },
    /// In a column under the drawing, each with its mark drawn again.
    Below { x: f64, y: f64 },
}

/// Where a ruler stands and how it is scaled.
pub(super) struct Ruler<'a> {
    pub(super) x: f64,
    /// Which way labels go: −1 left, +1 right.
    pub(super) outward: f64,
    /// Height that lies at `zero_y`.
    pub(super) zero: Length,
    pub(super) zero_y: f64,
    /// Drawing units per inch of height change.
    pub(super) per_inch: f64,
    pub(super) labels: Labels,
    /// Which axle it stands at, and from where to where it measures.
    pub(super) end: String,
    pub(super) datum: String,
    pub(super) hatching: &'a str,
    pub(super) units: Units,
}

impl Ruler<'_> {
    pub(super) fn y(&self, height: Length) -> f64 {
        self.zero_y - (height - self.zero).customary() * self.per_inch
    }

    pub(super) fn draw(&self, canvas: &mut Canvas, marks: &[Mark]) {
        let (low, high) = self.span(marks);
        canvas.line("ruler", (self.x, self.y(low)), (self.x, self.y(high)));
        self.ticks(canvas, low, high);
        for mark in marks {
            self.mark(canvas, mark);
        }
        match self.labels {
            Labels::Beside { room } => self.label_beside(canvas, marks, room, self.y(high)),
            Labels::Below { x, y } => self.label_below(canvas, marks, (x, y)),
        }
    }

    fn label_beside(&self, canvas: &mut Canvas, marks: &[Mark], room: (f64, f64), ruler_top: f64) {
        let anchor = if self.outward < 0.0 { Anchor::End } else { Anchor::Start };
        let wanted: Vec<f64> = marks.iter().map(|mark| self.y(mark.height)).collect();
        let mut top = ruler_top;
        for (mark, y) in marks.iter().zip(spread(&wanted, LABEL_ROOM, room)) {
            let (from, x) = (self.x + self.outward * (BAND_HALF + 2.0), self.x + self.outward * 22.0);
            canvas.line("leader", (from, self.y(mark.height)), (x - self.outward * 2.0, y));
            canvas.text("mark-value", (x, y + 1.0), anchor, &mark.text);
            canvas.text("mark-name", (x, y + 14.0), anchor, &mark.name);
            top = top.min(y - 12.0);
        }
        let x = self.x - self.outward * 9.0;
        canvas.text("ruler-heading", (x, top - 26.0), anchor, &self.end);
        canvas.text("mark-name", (x, top - 11.0), anchor, &self.datum);
    }

    fn label_below(&self, canvas: &mut Canvas, marks: &[Mark], (x, y): (f64, f64)) {
        canvas.text("ruler-heading", (x, y), Anchor::Start, &self.end);
        canvas.text("mark-name", (x, y + 14.0), Anchor::Start, &self.datum);
        let mut from_above: Vec<&Mark> = marks.iter().collect();
        from_above.sort_by(|a, b| b.height.si().total_cmp(&a.height.si()));
        let mut row = y + 38.0;
        for mark in from_above {
            self.sign(canvas, mark, (x + BAND_HALF, row - 3.0), 9.0);
            canvas.text("mark-value", (x + 22.0, row), Anchor::Start, &mark.text);
            canvas.text("mark-name", (x + 22.0, row + 13.0), Anchor::Start, &mark.name);
            row += LABEL_ROOM;
        }
    }

    /// From a step below the lowest mark to a step above the highest.
    fn span(&self, marks: &[Mark]) -> (Length, Length) {
        let mut span = (self.zero, self.zero);
        for mark in marks {
            span = (span.0.min(mark.height - mark.band), span.1.max(mark.height + mark.band));
        }
        let step = self.step();
        let down = (span.0 / step).value.floor() - 1.0;
        let up = (span.1 / step).value.ceil() + 1.0;
        (step * down, step * up)
    }

    fn step(&self) -> Length {
        let fine = self.per_inch > 7.0;
        match self.units.length {
            LengthUnit::Inches => inches(if fine { 0.5 } else { 1.0 }),
            LengthUnit::Millimetres => metres(if fine { 0.010 } else { 0.020 }),
        }
    }

    fn ticks(&self, canvas: &mut Canvas, low: Length, high: Length) {
        let step = self.step();
        let whole = match self.units.length {
            LengthUnit::Inches => inches(1.0),
            LengthUnit::Millimetres => metres(0.020),
        };
        // As many of the whole ones are named as stay apart.
        let apart = (TICK_TEXT_ROOM / (whole.customary() * self.per_inch)).ceil();
        let anchor = if self.outward < 0.0 { Anchor::Start } else { Anchor::End };
        let mut height = low;
        while height <= high + step * 0.1 {
            let is_whole = |of: Length| ((height / of).value - (height / of).value.round()).abs() < 1e-6;
            let y = self.y(height);
            canvas.line("tick", (self.x, y), (self.x - self.outward * if is_whole(whole) { 9.0 } else { 5.0 }, y));
            if is_whole(whole * apart) {
                let text = match self.units.length {
                    LengthUnit::Inches => format!("{:.0}", height.customary()),
                    LengthUnit::Millimetres => format!("{:.0}", height.si() * 1000.0),
                };
                canvas.text("tick-text", (self.x - self.outward * 11.0, y + 3.5), anchor, &text);
            }
            height += step;
        }
    }

    fn mark(&self, canvas: &mut Canvas, mark: &Mark) {
        self.sign(canvas, mark, (self.x, self.y(mark.height)), mark.band.customary() * self.per_inch);
    }

    /// The shape that stands for a mark, its band `half` to either side.
    fn sign(&self, canvas: &mut Canvas, mark: &Mark, (x, y): (f64, f64), half: f64) {
        let size = 5.5;
        match (mark.kind, mark.state) {
            (MarkKind::Aim, _) => {
                canvas.hatched("aim-band", self.hatching, (x - BAND_HALF, y - half), (2.0 * BAND_HALF, 2.0 * half));
            }
            (MarkKind::Measured, LoadState::Empty) => canvas.circle("mark-solid", (x, y), size),
            (MarkKind::Measured, LoadState::Loaded) => canvas.polygon("mark-solid", &diamond(x, y, size + 1.5)),
            (MarkKind::Measured, LoadState::Further(_)) => canvas.polygon("mark-solid", &triangle(x, y, size + 1.0)),
            (MarkKind::Predicted, state) => {
                canvas.rect("band-open", (x - BAND_HALF, y - half), (2.0 * BAND_HALF, 2.0 * half));
                match state {
                    LoadState::Empty => canvas.circle("mark-open", (x, y), size),
                    LoadState::Loaded => canvas.polygon("mark-open", &diamond(x, y, size + 1.5)),
                    LoadState::Further(_) => canvas.polygon("mark-open", &triangle(x, y, size + 1.0)),
                }
            }
        }
    }
}

fn triangle(x: f64, y: f64, size: f64) -> [(f64, f64); 3] {
    [(x, y - size), (x + size, y + size), (x - size, y + size)]
}

fn diamond(x: f64, y: f64, size: f64) -> [(f64, f64); 4] {
    [(x, y - size), (x + size, y), (x, y + size), (x - size, y)]
}

/// Moves places apart to at least `room`, keeping their order, inside `limits` where they fit at all.
fn spread(wanted: &[f64], room: f64, limits: (f64, f64)) -> Vec<f64> {
    let mut order: Vec<usize> = (0..wanted.len()).collect();
    let at = |index: usize| wanted.get(index).copied().unwrap_or_default();
    order.sort_by(|a, b| at(*a).total_cmp(&at(*b)));
    // Groups of labels that touch, each centred on the mean of what its members want.
    let mut groups: Vec<(f64, usize)> = Vec::new();
    for index in &order {
        groups.push((at(*index), 1));
        while let [.., (above, above_count), (below, below_count)] = groups.as_slice() {
            #[expect(clippy::cast_precision_loss, reason = "a handful of labels")]
            let (n, m) = (*above_count as f64, *below_count as f64);
            if below - above >= room * (n + m) / 2.0 {
                break;
            }
            let merged = ((above * n + below * m) / (n + m), above_count + below_count);
            groups.truncate(groups.len() - 2);
            groups.push(merged);
        }
    }
    let mut places = Vec::with_capacity(wanted.len());
    for (middle, count) in groups {
        #[expect(clippy::cast_precision_loss, reason = "a handful of labels")]
        let first = middle - room * (count as f64 - 1.0) / 2.0;
        let mut y = first;
        for _ in 0..count {
            places.push(y);
            y += room;
        }
    }
    keep_inside(&mut places, room, limits);
    let mut in_order = vec![0.0; wanted.len()];
    for (index, place) in order.into_iter().zip(places) {
        if let Some(slot) = in_order.get_mut(index) {
            *slot = place;
        }
    }
    in_order
}

fn keep_inside(places: &mut [f64], room: f64, (least, most): (f64, f64)) {
    let mut floor = most;
    for place in places.iter_mut().rev() {
        *place = place.min(floor);
        floor = *place - room;
    }
    let mut ceiling = least;
    for place in places {
        *place = place.max(ceiling);
        ceiling = *place + room;
    }
}

#[cfg(test)]
mod tests {
    use super::spread;
    use proptest::prelude::*;

    proptest! {
        #[test]
        fn labels_never_overlap_and_keep_their_order(wanted in prop::collection::vec(0.0_f64..300.0, 1..7)) {
            let places = spread(&wanted, 29.0, (0.0, 300.0));
            let mut pairs: Vec<(f64, f64)> = wanted.iter().copied().zip(places.iter().copied()).collect();
            pairs.sort_by(|a, b| a.0.total_cmp(&b.0).then(a.1.total_cmp(&b.1)));
            for pair in pairs.windows(2) {
                prop_assert!(pair[1].1 - pair[0].1 >= 29.0 - 1e-9, "{places:?}");
            }
            prop_assert!(places.iter().all(|y| (-1e-9..=300.0 + 1e-9).contains(y)), "{places:?}");
        }
    }

    #[test]
    fn labels_with_room_stay_at_their_marks() {
        assert_eq!(spread(&[100.0, 20.0], 29.0, (0.0, 300.0)), vec![100.0, 20.0]);
        assert_eq!(spread(&[100.0, 110.0], 30.0, (0.0, 300.0)), vec![90.0, 120.0]);
    }
}
