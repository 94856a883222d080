//! A tall ruler that magnifies: its ticks, and a lane for each kind of mark, so that no kind ever covers another.

use wise_badger_casework::survey::LoadState;
use wise_badger_mechanics::side::{Side, Sides};
use wise_badger_mechanics::tape::LengthUnit;
use wise_badger_mechanics::units::{InShopUnits, Length, inches, metres};

use super::marks::{Mark, MarkKind};
use super::spread::spread;
use super::svg::{Anchor, Canvas};
use crate::view::Units;

/// Widths of the lanes.
const TICKS: f64 = 34.0;
const AIM: f64 = 16.0;
const MEASURED: f64 = 20.0;
const EARLIER: f64 = 18.0;
const PREDICTED: f64 = 8.0;
/// What each further state takes of the lane of predictions: their whiskers may be long, and stand beside one another.
const PREDICTED_STATE: f64 = 14.0;
/// From the last lane to the labels.
const BEFORE_LABELS: f64 = 6.0;
/// Half the width of the aim's band.
const AIM_HALF: f64 = 6.0;
/// Half the length of an earlier height's dash.
const EARLIER_HALF: f64 = 7.0;
/// Size of the marks: an empty disc's radius, a loaded diamond's reach, a further state's triangle.
const DISC: f64 = 7.0;
const DIAMOND: f64 = 8.5;
const TRIANGLE: f64 = 7.5;
/// Room of a label in one line; of each line of a longer one, and between those.
const ONE_LINE: f64 = 20.0;
const LINE: f64 = 15.0;
const BETWEEN_LABELS: f64 = 4.0;
/// Room that ticks, and the figures beside them, are kept apart by.
const TICK_ROOM: f64 = 11.0;
const FIGURE_ROOM: f64 = 26.0;
/// Width of a letter of a label's figure and of its name.
const FIGURE_LETTER: f64 = 7.9;
const LETTER: f64 = 6.4;

/// Where a ruler stands and how it is scaled.
pub(super) struct Ruler<'a> {
    /// Its left edge, and how wide it may be.
    pub(super) x: f64,
    pub(super) width: f64,
    /// Between where it reaches.
    pub(super) top: f64,
    pub(super) bottom: f64,
    /// The height half-way between.
    pub(super) middle: Length,
    pub(super) per_inch: f64,
    pub(super) hatching: &'a str,
    pub(super) units: Units,
}

/// The lanes of a ruler: kind, width, and what each mark in it adds to that.
const LANES: [(MarkKind, f64, f64); 4] = [
    (MarkKind::Aim, AIM, 0.0),
    (MarkKind::Earlier, EARLIER, 0.0),
    (MarkKind::Measured, MEASURED, 0.0),
    (MarkKind::Predicted, PREDICTED, PREDICTED_STATE),
];

/// Width of the lanes that are used.
fn lanes(marks: &[Mark]) -> f64 {
    #[expect(clippy::cast_precision_loss, reason = "a dozen marks")]
    let wide = |(kind, width, each): &(MarkKind, f64, f64)| match marks.iter().filter(|mark| mark.kind == *kind).count() {
        0 => 0.0,
        count => width + each * count as f64,
    };
    TICKS + LANES.iter().map(wide).sum::<f64>() + BEFORE_LABELS
}

#[expect(clippy::cast_precision_loss, reason = "some forty letters")]
fn wide(text: &str, letter: f64) -> f64 {
    text.chars().count() as f64 * letter
}

/// What a ruler needs from its left edge so that its longest label fits in, in two lines or in one.
pub(super) fn needed_width(marks: &[Mark]) -> f64 {
    let label = |mark: &Mark| wide(&mark.label, FIGURE_LETTER).max(wide(&mark.name, LETTER));
    lanes(marks) + marks.iter().map(label).fold(0.0, f64::max)
}

impl Ruler<'_> {
    /// Where a height lies on it.
    pub(super) fn y(&self, height: Length) -> f64 {
        (self.top + self.bottom) / 2.0 - (height - self.middle).customary() * self.per_inch
    }

    pub(super) fn draw(&self, canvas: &mut Canvas, marks: &[Mark]) {
        canvas.line("ruler", (self.x, self.top), (self.x, self.bottom));
        self.ticks(canvas);
        let has = |kind| marks.iter().any(|mark| mark.kind == kind);
        let mut x = self.x + TICKS;
        for (kind, width, each) in LANES {
            if !has(kind) {
                continue;
            }
            let mut at = x + width.max(each) / 2.0;
            for mark in marks.iter().filter(|mark| mark.kind == kind) {
                self.sign(canvas, mark, at);
                at += each;
                x += each;
            }
            x += width;
        }
        self.labels(canvas, marks, x + BEFORE_LABELS);
    }

    /// Every label stands at its mark, or as near to it as the others leave room; in the order of their heights.
    fn labels(&self, canvas: &mut Canvas, marks: &[Mark], x: f64) {
        let room = self.x + self.width - x;
        let in_one_line = |mark: &Mark| wide(&mark.label, FIGURE_LETTER) + wide(&mark.name, LETTER) + 6.0 <= room;
        let in_two = |mark: &Mark| wide(&mark.label, FIGURE_LETTER).max(wide(&mark.name, LETTER)) <= room;
        let (one, two) = (marks.iter().all(in_one_line), marks.iter().all(in_two));
        // In the least room both sides stand under one another, and a hollow mark says by itself that it is predicted.
        let lines = |mark: &Mark| -> Vec<(&'static str, String)> {
            let name = |name: &str| ("mark-name", name.to_owned());
            let figures = |text: &str| ("mark-value", text.trim().to_owned());
            match two {
                true => vec![figures(&mark.label), name(&mark.name)],
                false => {
                    let each = mark.label.split("  ").map(figures);
                    each.chain([name(&mark.name.replace("predicted ", ""))]).collect()
                }
            }
        };
        let most = marks.iter().map(|mark| lines(mark).len()).max().unwrap_or_default();
        #[expect(clippy::cast_precision_loss, reason = "three lines")]
        let step = if one { ONE_LINE } else { LINE * most as f64 + BETWEEN_LABELS };
        let wanted: Vec<f64> = marks.iter().map(|mark| self.y(mark.height).clamp(self.top, self.bottom)).collect();
        for (mark, y) in marks.iter().zip(spread(&wanted, step, (self.top - 6.0, self.bottom + 6.0))) {
            if one {
                canvas.text("mark-value", (x, y + 5.0), Anchor::Start, &mark.label);
                canvas.text("mark-name", (x + wide(&mark.label, FIGURE_LETTER) + 6.0, y + 5.0), Anchor::Start, &mark.name);
                continue;
            }
            let lines = lines(mark);
            #[expect(clippy::cast_precision_loss, reason = "three lines")]
            let mut line = y + 12.0 - LINE * lines.len() as f64 / 2.0;
            for (class, text) in lines {
                canvas.text(class, (x, line), Anchor::Start, &text);
                line += LINE;
            }
        }
    }

    fn ticks(&self, canvas: &mut Canvas) {
        let steps: &[f64] = match self.units.length {
            LengthUnit::Inches => &[0.125, 0.25, 0.5, 1.0, 2.0, 5.0, 10.0],
            LengthUnit::Millimetres => &[2.0, 5.0, 10.0, 20.0, 50.0, 100.0],
        };
        let of = |value: f64| if self.units.length == LengthUnit::Inches { inches(value) } else { metres(value / 1e3) };
        let apart = |room: f64| steps.iter().copied().find(|step| of(*step).customary() * self.per_inch >= room);
        let Some((step, named)) = apart(TICK_ROOM).zip(steps.iter().copied().find(|step| {
            // Whole inches, or tens of millimetres, are named; and no more of them than stay apart.
            let whole = if self.units.length == LengthUnit::Inches { 1.0 } else { 10.0 };
            *step >= whole && of(*step).customary() * self.per_inch >= FIGURE_ROOM
        })) else {
            return;
        };
        let half = (self.bottom - self.top) / 2.0 / self.per_inch;
        let (low, high) = (self.middle - inches(half), self.middle + inches(half));
        #[expect(clippy::cast_possible_truncation, reason = "some dozens of ticks")]
        let (first, last) = ((low / of(step)).value.ceil() as i64, (high / of(step)).value.floor() as i64);
        for tick in first..=last {
            #[expect(clippy::cast_precision_loss, reason = "some dozens of ticks")]
            let value = tick as f64 * step;
            let is_named = ((value / named) - (value / named).round()).abs() < 1e-9;
            let y = self.y(of(value));
            canvas.line("tick", (self.x, y), (self.x + if is_named { 10.0 } else { 5.0 }, y));
            if is_named {
                canvas.text("tick-text", (self.x + 12.0, y + 4.5), Anchor::Start, &format!("{value:.0}"));
            }
        }
    }

    /// The shape that stands for a mark. Of one that differs left and right each half stands at its own height.
    fn sign(&self, canvas: &mut Canvas, mark: &Mark, x: f64) {
        if mark.kind == MarkKind::Aim {
            let (top, bottom) = (self.y(mark.height + mark.band), self.y(mark.height - mark.band));
            canvas.hatched("aim-band", self.hatching, (x - AIM_HALF, top), (2.0 * AIM_HALF, bottom - top));
            let middle = self.y(mark.height);
            canvas.line("aim-middle", (x - AIM_HALF, middle), (x + AIM_HALF, middle));
            return;
        }
        let y = self.y(mark.height);
        if y < self.top - 1.0 || y > self.bottom + 1.0 {
            return self.off_the_end(canvas, x, y);
        }
        if mark.kind == MarkKind::Earlier {
            canvas.line("mark-earlier", (x - EARLIER_HALF, y), (x + EARLIER_HALF, y));
            return;
        }
        let open = mark.kind == MarkKind::Predicted;
        if open {
            let ends = [self.y(mark.height + mark.band), self.y(mark.height - mark.band)];
            let [top, bottom] = ends.map(|end| end.clamp(self.top, self.bottom));
            canvas.line("whisker", (x, top), (x, bottom));
            // A band that goes on beyond the ruler has no cap there.
            for end in ends.into_iter().filter(|end| (self.top..=self.bottom).contains(end)) {
                canvas.line("whisker-cap", (x - 5.0, end), (x + 5.0, end));
            }
        }
        let class = if open { "mark-open" } else { "mark-solid" };
        match mark.sides {
            None => canvas.polygon(class, &shape(mark.state, (x, y), None)),
            Some(Sides { left, right }) => {
                canvas.polygon(class, &shape(mark.state, (x - 1.0, self.y(left)), Some(Side::Left)));
                canvas.polygon(class, &shape(mark.state, (x + 1.0, self.y(right)), Some(Side::Right)));
            }
        }
    }

    /// A hollow arrow at the end that it is beyond.
    fn off_the_end(&self, canvas: &mut Canvas, x: f64, y: f64) {
        let (tip, base) = if y < self.top { (self.top, self.top + 11.0) } else { (self.bottom, self.bottom - 11.0) };
        canvas.polygon("mark-open", &[(x - 7.0, base), (x, tip), (x + 7.0, base)]);
    }
}

/// The outline of a state's mark, whole or the half of one side: empty a disc, loaded a diamond, a further state a triangle.
pub(super) fn shape(state: LoadState, (x, y): (f64, f64), half: Option<Side>) -> Vec<(f64, f64)> {
    let whole: Vec<(f64, f64)> = match state {
        LoadState::Empty => (0..24)
            .map(|step| f64::from(step) * std::f64::consts::TAU / 24.0)
            .map(|angle| (DISC * angle.sin(), -DISC * angle.cos()))
            .collect(),
        LoadState::Loaded => vec![(0.0, -DIAMOND), (DIAMOND, 0.0), (0.0, DIAMOND), (-DIAMOND, 0.0)],
        LoadState::Further(_) => vec![(0.0, -TRIANGLE), (TRIANGLE, TRIANGLE), (0.0, TRIANGLE), (-TRIANGLE, TRIANGLE)],
    };
    let kept = |(across, _): &(f64, f64)| half.is_none_or(|side| across * side.sign() >= -1e-9);
    whole.into_iter().filter(kept).map(|(across, down)| (x + across, y + down)).collect()
}
