//! The stance drawing: the vehicle from the side, to scale, with a ruler at each axle.

use wise_badger_casework::survey::{End, LoadState, RearWheels, Survey};
use wise_badger_casework::words::Word as _;
use wise_badger_mechanics::tape::Datum;
use wise_badger_mechanics::units::{InShopUnits, Length, inches};

use super::marks::{MarkKind, Marks};
use super::outline::{Outline, outline};
use super::ruler::{Labels, Ruler};
use super::svg::{Anchor, Canvas, Drawing};
use crate::view::{Units, datum_name, end_name, sentence, state_of};

/// Height of the wheel centres as drawn, inches.
const HUB: f64 = 15.0;
/// Radius of tyre and rim as drawn, inches.
const TYRE: f64 = 15.4;
const RIM: f64 = 8.6;
/// Steps by which changes of height are drawn larger.
const STEPS: [u32; 3] = [5, 2, 1];
/// The tallest that measured changes may come out as drawn.
const TALLEST: f64 = 110.0;

/// The drawing for wide pages, and one state at a time for narrow ones.
pub(crate) struct StanceDrawing {
    pub(crate) wide: Drawing,
    pub(crate) narrow: Vec<OneState>,
}

/// A state by itself.
pub(crate) struct OneState {
    /// Its word in the page.
    pub(crate) word: &'static str,
    pub(crate) name: String,
    /// Whether it is the one shown first.
    pub(crate) first: bool,
    pub(crate) drawing: Drawing,
}

#[derive(Clone, Copy)]
struct Format<'a> {
    id: &'a str,
    class: &'a str,
    width: f64,
    /// Kept free at the left and right for the rulers and the labels beside them.
    margins: (f64, f64),
    /// Too narrow for labels beside the rulers: they stand below, at these places.
    labels_below: Option<(f64, f64)>,
}

const WIDE: Format<'static> =
    Format { id: "stance-wide", class: "stance stance-wide", width: 720.0, margins: (136.0, 172.0), labels_below: None };
const NARROW: Format<'static> =
    Format { id: "", class: "", width: 370.0, margins: (46.0, 46.0), labels_below: Some((6.0, 178.0)) };
/// The foot of the picture, and the ground's height above it.
const FOOT: f64 = 400.0;
const BELOW_GROUND: f64 = 46.0;
/// From a body to where the labels beside its ruler begin, the width of a letter of a height and of a name, and the most that they may take.
const BESIDE_RULER: f64 = 46.0;
const FIGURE_LETTER: f64 = 6.7;
const LETTER: f64 = 5.6;
const MOST_BESIDE: f64 = 250.0;
/// How far a ruler stands off the body.
const INSET: f64 = 27.0;

impl StanceDrawing {
    pub(crate) fn new(found: &Survey, marks: &Marks, units: Units) -> Self {
        let wide = Format { margins: (room_for(&marks.front, WIDE.margins.0), room_for(&marks.rear, WIDE.margins.1)), ..WIDE };
        let step = step(found, marks, &wide);
        let draw = |format: &Format<'_>, marks: &Marks| Picture::new(found, marks, units, format, step).draw();
        // The one loaded is looked at first, where there is anything to see of it.
        let read = |state| found.height(End::Rear, state).or(found.height(End::Front, state)).is_some();
        let shown = if read(LoadState::Loaded) { LoadState::Loaded } else { LoadState::Empty };
        let one = |state: LoadState| {
            let (id, class) = (format!("stance-{}", state.word()), format!("stance stance-narrow stance-{}", state.word()));
            let format = Format { id: &id, class: &class, ..NARROW };
            let (name, first) = (sentence(state_of(found, state)), state == shown);
            OneState { word: state.word(), name, first, drawing: draw(&format, &marks.of_state(state)) }
        };
        StanceDrawing { wide: draw(&wide, marks), narrow: found.states().map(one).collect() }
    }
}

/// What the labels of a ruler need beside it, where a height with its band or a state's name is a long one.
fn room_for(marks: &[super::marks::Mark], usual: f64) -> f64 {
    #[expect(clippy::cast_precision_loss, reason = "some forty letters")]
    let room = |text: &str, letter: f64| text.chars().count() as f64 * letter;
    let needed = |mark: &super::marks::Mark| room(&mark.text, FIGURE_LETTER).max(room(&mark.name, LETTER));
    let longest = marks.iter().map(needed).fold(0.0, f64::max);
    (BESIDE_RULER + longest).clamp(usual, MOST_BESIDE)
}

/// The largest step at which everything measured and aimed at still fits. Predictions have no say in
/// it, so that it holds while corrections are compared.
fn step(found: &Survey, marks: &Marks, format: &Format<'_>) -> u32 {
    let of = |list: &[super::marks::Mark]| -> f64 {
        let heights = list.iter().filter(|mark| mark.kind != MarkKind::Predicted).map(|mark| mark.height.customary());
        let (low, high) = heights.fold((f64::INFINITY, f64::NEG_INFINITY), |(low, high), h| (low.min(h), high.max(h)));
        if high > low { high - low } else { 0.0 }
    };
    let tallest = of(&marks.front).max(of(&marks.rear));
    let scale = scale(&outline(&found.vehicle), format);
    let fits = |step: &&u32| tallest * scale * f64::from(**step) <= TALLEST;
    STEPS.iter().find(fits).copied().unwrap_or(1)
}

fn scale(outline: &Outline, format: &Format<'_>) -> f64 {
    (format.width - format.margins.0 - format.margins.1) / (outline.tail - outline.nose)
}

struct Picture<'a> {
    found: &'a Survey,
    marks: &'a Marks,
    units: Units,
    format: &'a Format<'a>,
    outline: Outline,
    /// Drawing units per inch.
    scale: f64,
    step: f64,
    ground: f64,
    wheelbase: f64,
}

/// How far a body stands from where the outline is drawn, inches, at either axle.
#[derive(Clone, Copy)]
struct Lift {
    front: f64,
    rear: f64,
}

impl<'a> Picture<'a> {
    fn new(found: &'a Survey, marks: &'a Marks, units: Units, format: &'a Format<'a>, step: u32) -> Self {
        let wheelbase = found.vehicle.wheelbase.customary();
        let outline = outline(&found.vehicle);
        let scale = scale(&outline, format);
        Picture { found, marks, units, format, outline, scale, step: f64::from(step), ground: FOOT - BELOW_GROUND, wheelbase }
    }

    fn x(&self, along: f64) -> f64 {
        self.format.margins.0 + (along - self.outline.nose) * self.scale
    }

    fn draw(&self) -> Drawing {
        let mut canvas = Canvas::new();
        let hatching = format!("{}-hatch", self.format.id);
        canvas.hatching(&hatching);
        canvas.line("ground", (8.0, self.ground), (self.format.width - 8.0, self.ground));
        self.bodies(&mut canvas);
        self.wheels(&mut canvas);
        for end in [End::Front, End::Rear] {
            self.ruler(&mut canvas, end, &hatching);
        }
        self.stop_gap(&mut canvas);
        self.scale_note(&mut canvas);
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

    /// The arch lip above the ground at empty, inches, as measured or as drawn.
    fn empty_lip(&self, end: End) -> f64 {
        let lip = |height: Length| height.customary() + self.datum_height();
        let states = [LoadState::Empty, LoadState::Loaded];
        let read = states.iter().find_map(|state| self.found.height(end, *state));
        read.map_or(self.outline.drawn_mark, |height| lip(height.value))
    }

    /// The height on a ruler that lies where the body is drawn to scale.
    fn zero(&self, end: End) -> Length {
        let states = [LoadState::Empty, LoadState::Loaded];
        let read = states.iter().find_map(|state| self.found.height(end, *state));
        read.map_or(inches(self.outline.drawn_mark - self.datum_height()), |height| height.value)
    }

    /// Where a body with these arch heights stands; changes from empty are drawn larger by the step.
    fn lift(&self, front: Option<Length>, rear: Option<Length>) -> Lift {
        let at = |end, height: Option<Length>| {
            let change = height.map_or(0.0, |height| (height - self.zero(end)).customary());
            self.empty_lip(end) - self.outline.drawn_mark + change * self.step
        };
        Lift { front: at(End::Front, front), rear: at(End::Rear, rear) }
    }

    fn place(&self, lift: Lift, (along, up): (f64, f64)) -> (f64, f64) {
        let risen = up + lift.front + (lift.rear - lift.front) * along / self.wheelbase;
        (self.x(along), self.ground - risen * self.scale)
    }

    /// The body as measured, solid; as it was empty, a thin line; as predicted, dashed.
    fn bodies(&self, canvas: &mut Canvas) {
        let height = |end, kind, state| self.marks.height(end, kind, state);
        let measured = |state| {
            let (front, rear) = (height(End::Front, MarkKind::Measured, state), height(End::Rear, MarkKind::Measured, state));
            (front.is_some() || rear.is_some()).then(|| self.lift(front, rear))
        };
        let (empty, loaded) = (measured(LoadState::Empty), measured(LoadState::Loaded));
        self.body(canvas, "body-solid", loaded.or(empty).unwrap_or_else(|| self.lift(None, None)), true);
        if let (Some(empty), Some(_)) = (empty, loaded) {
            self.body(canvas, "body-thin", empty, false);
        }
        let predicted = [LoadState::Loaded, LoadState::Empty].into_iter().find_map(|state| {
            let rear = height(End::Rear, MarkKind::Predicted, state)?;
            let front = height(End::Front, MarkKind::Predicted, state);
            Some(self.lift(front.or_else(|| height(End::Front, MarkKind::Measured, state)), Some(rear)))
        });
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
            let centre = (self.x(along), self.ground - HUB * self.scale);
            canvas.circle("tyre", centre, TYRE * self.scale);
            canvas.circle("rim", centre, RIM * self.scale);
            if dual {
                canvas.circle("dual", centre, 6.0 * self.scale);
            }
            canvas.circle("hub", centre, 2.2 * self.scale);
        }
    }

    fn ruler(&self, canvas: &mut Canvas, end: End, hatching: &str) {
        let front = end == End::Front;
        let zero_y = self.ground - self.empty_lip(end) * self.scale;
        let inset = if front { self.format.margins.0 - INSET } else { self.format.width - self.format.margins.1 + INSET };
        let ruler = Ruler {
            x: inset,
            outward: if front { -1.0 } else { 1.0 },
            zero: self.zero(end),
            zero_y,
            per_inch: self.scale * self.step,
            labels: self.format.labels_below.map_or(Labels::Beside { room: (0.0, self.ground - 18.0) }, |(left, right)| {
                Labels::Below { x: if front { left } else { right }, y: FOOT + 18.0 }
            }),
            end: sentence(end_name(self.found.vehicle.class, end)),
            datum: datum_name(self.found.vehicle.class, self.found.datum).to_owned(),
            hatching,
            units: self.units,
        };
        let marks = if front { &self.marks.front } else { &self.marks.rear };
        let axle_x = self.x(if front { 0.0 } else { self.wheelbase });
        if let Some(mark) = marks.iter().rfind(|mark| mark.kind == MarkKind::Measured) {
            let y = ruler.y(mark.height);
            canvas.line("sight", (axle_x, y), (inset, y));
        }
        ruler.draw(canvas, marks);
    }

    /// The clearance at the rear stop, drawn over the axle by the same step as the rulers, named under the wheel.
    fn stop_gap(&self, canvas: &mut Canvas) {
        let Some((_, gap, _)) = self.marks.stop_gap.last() else { return };
        let (x, foot) = (self.x(self.wheelbase), self.ground - (HUB + 2.5) * self.scale);
        let top = foot - gap.customary() * self.scale * self.step;
        canvas.rect("stop-pad", (x - 9.0, foot - 1.5), (18.0, 3.0));
        canvas.polygon("stop", &[(x - 8.0, top - 9.0), (x + 8.0, top - 9.0), (x + 5.0, top), (x - 5.0, top)]);
        canvas.line("stop-line", (x, foot), (x, top));
        let each: Vec<&str> = self.marks.stop_gap.iter().map(|(_, _, text)| text.as_str()).collect();
        let text = format!("stop gap {}", each.join(", "));
        canvas.text("mark-name stop-text", (x, self.ground + 16.0), Anchor::Middle, &text);
    }

    fn scale_note(&self, canvas: &mut Canvas) {
        let text = format!("Body and wheels to scale; height changes drawn ×{:.0}", self.step);
        canvas.text("mark-name", (self.format.width / 2.0, FOOT - 8.0), Anchor::Middle, &text);
    }
}
