//! The stance drawing: the vehicle from the side, true to scale, and under it a tall ruler for each end that magnifies.

use wise_badger_casework::survey::{End, Ends, LoadState, RearWheels, Survey};
use wise_badger_mechanics::tape::{Datum, LengthUnit};
use wise_badger_mechanics::units::{InShopUnits, Length, inches, metres};

use super::marks::{Mark, MarkKind, Marks};
use super::outline::{Outline, outline};
use super::ruler::{Ruler, needed_width};
use super::svg::{Anchor, Canvas, Drawing};
use crate::view::{Units, datum_name, end_name, sentence};

/// Height of the wheel centres as drawn, inches.
const HUB: f64 = 15.0;
/// Radius of tyre and rim as drawn, inches.
const TYRE: f64 = 15.4;
const RIM: f64 = 8.6;
/// How much less than a ruler's length the span of its marks takes.
const PAST_THE_MARKS: f64 = 24.0;
/// The least that a ruler shows, inches.
const LEAST_SPAN: f64 = 3.0;
/// Both ends on one scale of heights, where that takes no more than so many times the room of the one that needs more.
const ONE_SCALE: f64 = 1.6;

/// The drawing for wide pages, and for narrow ones.
pub(crate) struct StanceDrawing {
    pub(crate) wide: Drawing,
    pub(crate) narrow: Drawing,
}

#[derive(Clone, Copy)]
struct Format {
    id: &'static str,
    class: &'static str,
    width: f64,
    /// Room for the vehicle.
    vehicle: f64,
    /// A ruler's length.
    ruler: f64,
}

const WIDE: Format = Format { id: "stance-wide", class: "stance stance-wide", width: 446.0, vehicle: 140.0, ruler: 248.0 };
const NARROW: Format = Format { id: "stance-narrow", class: "stance stance-narrow", width: 348.0, vehicle: 112.0, ruler: 248.0 };
/// One of a few that stand beside one another, each with a name of its own.
const COLUMNS: [&str; 3] = ["stance-first", "stance-second", "stance-third"];
const COLUMN: Format = Format { id: "", class: "stance stance-column", width: 350.0, vehicle: 84.0, ruler: 172.0 };
/// Kept free at either side of the vehicle.
const MARGIN: f64 = 6.0;
/// From the picture's edge to the front ruler, between the rulers, and the least width of one.
const RULER_INSET: f64 = 8.0;
const BETWEEN_RULERS: f64 = 16.0;
const LEAST_RULER: f64 = 110.0;
/// From the ground to where the line to a ruler turns, to the ruler's heading, and to its top.
const TURN: f64 = 12.0;
const HEADING: f64 = 32.0;
const RULER_TOP: f64 = 46.0;

impl StanceDrawing {
    pub(crate) fn new(found: &Survey, marks: &Marks, units: Units) -> Self {
        let draw = |format| Picture::new(found, marks, units, format).draw();
        StanceDrawing { wide: draw(WIDE), narrow: draw(NARROW) }
    }

    /// A small one, for the column at a place.
    pub(crate) fn column(found: &Survey, marks: &Marks, units: Units, place: usize) -> Drawing {
        let id = COLUMNS.get(place).copied().unwrap_or_default();
        Picture::new(found, marks, units, Format { id, ..COLUMN }).draw()
    }
}

/// The width that a ruler and its labels need.
fn needed(marks: &Marks, end: End) -> f64 {
    needed_width(marks.of(end)).max(LEAST_RULER)
}

/// How the rulers are scaled: alike at both ends.
struct Magnified {
    per_inch: f64,
    /// The height half-way up each.
    middle: Ends<Length>,
    /// Whether both show the same heights at the same place.
    together: bool,
}

impl Magnified {
    fn of(marks: &Marks, ruler: f64) -> Self {
        let span = |marks: &[Mark]| {
            let reach = |mark: &Mark| if mark.kind == MarkKind::Predicted { [mark.height; 2] } else { mark.reach() };
            let all = marks.iter().map(reach);
            all.reduce(|[low, high], [other_low, other_high]| [low.min(other_low), high.max(other_high)])
        };
        let ends = Ends::from_fn(|end| span(marks.of(end)));
        let length = |[low, high]: [Length; 2]| (high - low).customary().max(LEAST_SPAN);
        let both =
            ends.front.zip(ends.rear).map(|([low, high], [other_low, other_high])| [low.min(other_low), high.max(other_high)]);
        let longest = [ends.front, ends.rear].into_iter().flatten().map(length).fold(LEAST_SPAN, f64::max);
        let together = both.filter(|both| length(*both) <= ONE_SCALE * longest);
        let shown = |end| together.or(*ends.get(end)).map_or(Length::default(), |[low, high]| (low + high) / 2.0);
        let longest = together.map_or(longest, length);
        Magnified {
            per_inch: (ruler - PAST_THE_MARKS) / longest,
            middle: Ends::from_fn(shown),
            together: together.is_some() || both.is_none(),
        }
    }
}

struct Picture<'a> {
    found: &'a Survey,
    marks: &'a Marks,
    units: Units,
    format: Format,
    outline: Outline,
    /// Drawing units per inch of the vehicle.
    scale: f64,
    /// Where the front axle is drawn.
    front_x: f64,
    wheelbase: f64,
}

/// How far a body stands from where the outline is drawn, inches, at either axle.
#[derive(Clone, Copy)]
struct Lift {
    front: f64,
    rear: f64,
}

impl<'a> Picture<'a> {
    fn new(found: &'a Survey, marks: &'a Marks, units: Units, format: Format) -> Self {
        // Where the labels of both rulers need more, the whole of it is drawn smaller rather than cut off.
        let least = RULER_INSET + BETWEEN_RULERS + needed(marks, End::Front) + needed(marks, End::Rear);
        let format = Format { width: format.width.max(least), ..format };
        let wheelbase = found.vehicle.wheelbase.customary();
        let outline = outline(&found.vehicle);
        let length = outline.tail - outline.nose;
        // Everything that stands over the ground fits in, at the height that was read.
        let top = outline.body.iter().map(|point| point.1).fold(0.0, f64::max);
        let mut picture = Picture { found, marks, units, format, outline, scale: 1.0, front_x: 0.0, wheelbase };
        let lifted = picture.measured().map_or(0.0, |lift| lift.front.max(lift.rear).max(0.0));
        picture.scale = ((format.width - 2.0 * MARGIN) / length).min(format.vehicle / (top + lifted));
        picture.front_x = (format.width - length * picture.scale) / 2.0 - picture.outline.nose * picture.scale;
        picture
    }

    fn x(&self, along: f64) -> f64 {
        self.front_x + along * self.scale
    }

    fn ground(&self) -> f64 {
        self.format.vehicle
    }

    fn draw(&self) -> Drawing {
        let mut canvas = Canvas::new();
        let hatching = format!("{}-hatch", self.format.id);
        canvas.hatching(&hatching);
        canvas.line("ground", (2.0, self.ground()), (self.format.width - 2.0, self.ground()));
        self.bodies(&mut canvas);
        self.wheels(&mut canvas);
        self.rulers(&mut canvas, &hatching);
        let title = "Stance from the side, with a ruler at each end";
        canvas.finish(self.format.id, self.format.class, self.format.width, title, &self.marks.in_words())
    }

    /// What heights are measured from, above the ground, inches, as drawn.
    fn datum_height(&self) -> f64 {
        match self.found.datum {
            Datum::GroundToArch => 0.0,
            Datum::HubToArch => HUB,
            Datum::RimToArch => HUB - RIM,
            Datum::TyreTopToArch => HUB + TYRE,
            // The stop's clearance is measured from the axle's top, near enough its hub.
            Datum::StopGap => HUB,
        }
    }

    /// Where a body with these heights stands; what was not read stands level with what was.
    fn lift(&self, front: Option<Length>, rear: Option<Length>) -> Option<Lift> {
        let at = |height: Length| height.customary() + self.datum_height() - self.outline.drawn_mark;
        let (front, rear) = (front.map(at), rear.map(at));
        Some(Lift { front: front.or(rear)?, rear: rear.or(front)? })
    }

    fn height(&self, end: End, kind: MarkKind, state: LoadState) -> Option<Length> {
        self.marks.height(end, kind, state)
    }

    fn stands(&self, kind: MarkKind, state: LoadState) -> Option<Lift> {
        let read = |end| self.height(end, kind, state);
        let front = read(End::Front).or_else(|| self.height(End::Front, MarkKind::Measured, state));
        match kind {
            MarkKind::Predicted => self.lift(front, Some(read(End::Rear)?)),
            _ => self.lift(front, read(End::Rear)),
        }
    }

    /// As it was read: loaded, or else empty.
    fn measured(&self) -> Option<Lift> {
        let state = |state| self.stands(MarkKind::Measured, state);
        state(LoadState::Loaded).or_else(|| state(LoadState::Empty))
    }

    fn place(&self, lift: Lift, (along, up): (f64, f64)) -> (f64, f64) {
        let risen = up + lift.front + (lift.rear - lift.front) * along / self.wheelbase;
        (self.x(along), self.ground() - risen * self.scale)
    }

    /// The body as measured, solid; as it was empty, a thin line; as predicted, dashed.
    fn bodies(&self, canvas: &mut Canvas) {
        let (empty, loaded) =
            (self.stands(MarkKind::Measured, LoadState::Empty), self.stands(MarkKind::Measured, LoadState::Loaded));
        self.body(canvas, "body-solid", self.measured().unwrap_or(Lift { front: 0.0, rear: 0.0 }), true);
        if let (Some(empty), Some(_)) = (empty, loaded) {
            self.body(canvas, "body-thin", empty, false);
        }
        let predicted =
            [LoadState::Loaded, LoadState::Empty].into_iter().find_map(|state| self.stands(MarkKind::Predicted, state));
        if let Some(predicted) = predicted {
            self.body(canvas, "body-dashed", predicted, false);
        }
    }

    fn body(&self, canvas: &mut Canvas, class: &str, lift: Lift, with_detail: bool) {
        let points = |shape: &[(f64, f64)]| -> Vec<(f64, f64)> { shape.iter().map(|point| self.place(lift, *point)).collect() };
        canvas.polygon(class, &points(&self.outline.body));
        if with_detail {
            for window in &self.outline.windows {
                canvas.polygon("window", &points(window));
            }
            for [from, to] in &self.outline.seams {
                canvas.line("seam", self.place(lift, *from), self.place(lift, *to));
            }
        }
    }

    fn wheels(&self, canvas: &mut Canvas) {
        let dual = self.found.vehicle.rear_wheels == RearWheels::Dual;
        let front = self.outline.front_wheel.map(|along| (along, false));
        for (along, dual) in front.into_iter().chain(self.outline.rear_wheels.iter().map(|along| (*along, dual))) {
            let centre = (self.x(along), self.ground() - HUB * self.scale);
            canvas.circle("tyre", centre, TYRE * self.scale);
            canvas.circle("rim", centre, RIM * self.scale);
            if dual {
                canvas.circle("dual", centre, 6.0 * self.scale);
            }
            canvas.circle("hub", centre, 2.2 * self.scale);
        }
    }

    /// A ruler for each end that has a mark, joined to its axle.
    fn rulers(&self, canvas: &mut Canvas, hatching: &str) {
        let width = self.format.width;
        let top = self.ground() + RULER_TOP;
        let bottom = top + self.format.ruler;
        if End::BOTH.into_iter().all(|end| self.marks.of(end).is_empty()) {
            canvas.text("mark-name", (width / 2.0, self.ground() + HEADING), Anchor::Middle, "No reading yet: start front left");
            return;
        }
        let magnified = Magnified::of(self.marks, self.format.ruler);
        // Each ruler has the room that its labels need, as far as there is any; what is over is shared.
        let needed = Ends::from_fn(|end| needed(self.marks, end));
        let over = width - RULER_INSET - BETWEEN_RULERS - needed.front - needed.rear;
        let front_width = needed.front + over / 2.0;
        let rear_x = RULER_INSET + front_width + BETWEEN_RULERS;
        for end in End::BOTH {
            let front = end == End::Front;
            let x = if front { RULER_INSET } else { rear_x };
            let axle = self.x(if front { 0.0 } else { self.wheelbase });
            let name = sentence(end_name(self.found.vehicle.class, end));
            let marks = self.marks.of(end);
            if marks.is_empty() {
                canvas.text("mark-name", (x + 8.0, self.ground() + HEADING), Anchor::Start, &format!("{name}: no reading"));
                continue;
            }
            let turn = self.ground() + TURN;
            canvas.line("stem", (axle, self.ground()), (axle, turn));
            canvas.line("stem", (axle, turn), (x, turn));
            canvas.line("stem", (x, turn), (x, top));
            canvas.text("ruler-heading", (x + 8.0, self.ground() + HEADING), Anchor::Start, &name);
            let ruler = Ruler {
                x,
                width: if front { front_width } else { width - rear_x },
                top,
                bottom,
                middle: *magnified.middle.get(end),
                per_inch: magnified.per_inch,
                hatching,
                units: self.units,
            };
            ruler.draw(canvas, marks);
        }
        if !magnified.together {
            for aside in [7.0, 11.0] {
                canvas.line("apart", (rear_x - aside, top), (rear_x - aside, bottom));
            }
        }
        self.notes(canvas, bottom, &magnified);
    }

    /// What one unit comes to on the rulers, what they read from, and the clearance at the stops.
    fn notes(&self, canvas: &mut Canvas, bottom: f64, magnified: &Magnified) {
        let (one, name) = match self.units.length {
            LengthUnit::Inches => (inches(1.0), "1 in"),
            LengthUnit::Millimetres => (metres(0.020), "20 mm"),
        };
        let (x, y, long) = (8.0, bottom + 24.0, one.customary() * magnified.per_inch);
        canvas.line("ruler", (x, y), (x + long, y));
        for end in [x, x + long] {
            canvas.line("ruler", (end, y - 5.0), (end, y + 5.0));
        }
        let times = magnified.per_inch / self.scale;
        let from = datum_name(self.found.vehicle.class, self.found.datum);
        let text = format!("{name}, ×{times:.0}; {from}, {}", self.units.length_name());
        canvas.text("mark-name", (x + long + 8.0, y + 5.0), Anchor::Start, &text);
        if !self.marks.stop_gap.is_empty() {
            let each: Vec<&str> = self.marks.stop_gap.iter().map(|(_, _, text)| text.as_str()).collect();
            canvas.text("mark-name stop-text", (x, y + 25.0), Anchor::Start, &format!("Stop gap {}", each.join(", ")));
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn mark(kind: MarkKind, height: f64, band: f64) -> Mark {
        let (height, band) = (inches(height), inches(band));
        Mark {
            kind,
            state: LoadState::Loaded,
            height,
            sides: None,
            band,
            text: String::new(),
            label: String::new(),
            name: String::new(),
        }
    }

    const SPAN: f64 = WIDE.ruler - PAST_THE_MARKS;

    fn magnified(front: &[f64], rear: &[f64]) -> Magnified {
        let of = |heights: &[f64]| heights.iter().map(|height| mark(MarkKind::Measured, *height, 0.0)).collect();
        Magnified::of(&Marks { front: of(front), rear: of(rear), ..Marks::default() }, WIDE.ruler)
    }

    #[test]
    fn the_marks_of_the_longer_ruler_take_two_hundred_units_or_more_and_both_are_scaled_alike() {
        let apart = magnified(&[20.0, 20.5], &[40.0, 34.0]);
        assert!(!apart.together, "20 and 37 in have nothing to do with each other");
        assert!((6.0 * apart.per_inch - SPAN).abs() < 1e-9 && SPAN >= 200.0);
        let near = magnified(&[37.0, 37.25], &[40.0, 37.0]);
        assert!(near.together, "rake is read across");
        assert_eq!(near.middle.front, near.middle.rear);
    }

    #[test]
    fn what_hardly_moved_is_not_blown_up_beyond_three_inches() {
        assert!((magnified(&[37.0], &[37.0, 37.1]).per_inch - SPAN / 3.0).abs() < 1e-9);
    }

    #[test]
    fn a_wide_band_of_a_prediction_does_not_shrink_the_rulers() {
        let rear = vec![mark(MarkKind::Measured, 38.0, 0.0), mark(MarkKind::Predicted, 40.0, 9.0)];
        let of = Magnified::of(&Marks { rear, ..Marks::default() }, WIDE.ruler);
        assert!((of.per_inch - SPAN / LEAST_SPAN).abs() < 1e-9, "two inches apart: {}", of.per_inch);
    }
}
