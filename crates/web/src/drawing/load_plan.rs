//! The load plan: the vehicle from the side and from above, to scale, with what is aboard where it sits.

use wise_badger_casework::survey::{Centre, Item, RearWheels, VehicleFacts};
use wise_badger_mechanics::units::{InShopUnits, METRES_PER_INCH};

use super::outline::{Outline, outline};
use super::svg::{Anchor, Canvas, Drawing};

/// A thing to be drawn.
pub(crate) struct Aboard {
    /// Its row on the form, counted from nought.
    pub(crate) row: usize,
    /// Name, weight and place, for those who cannot see it.
    pub(crate) name: String,
    pub(crate) item: Item,
    /// Whether it is always aboard.
    pub(crate) always: bool,
}

/// The plan for wide pages, and the same for narrow ones.
pub(crate) struct LoadPlanDrawing {
    pub(crate) wide: Drawing,
    pub(crate) narrow: Drawing,
}

/// What each axle carries, ready to print, and where.
type AxleWords<'a> = [(&'a str, &'a str); 2];

struct Format {
    id: &'static str,
    class: &'static str,
    width: f64,
    margin: f64,
    /// Least half-side of a thing as drawn, so that it can be taken hold of.
    least: f64,
}

const WIDE: Format = Format { id: "plan-wide", class: "stance plan stance-wide", width: 720.0, margin: 40.0, least: 13.0 };
const NARROW: Format = Format { id: "plan-narrow", class: "stance plan stance-narrow", width: 370.0, margin: 14.0, least: 16.0 };
/// Half the width of a body, and of the track its wheels are drawn on, inches.
const HALF_BODY: f64 = 38.0;
const HALF_TRACK: f64 = 33.0;
/// A tyre's radius and half its width as drawn, inches.
const TYRE: f64 = 15.4;
const HALF_TYRE: f64 = 5.0;
/// Height at which a thing is drawn that has none, inches.
const FLOOR: f64 = 36.0;
/// Between the ground line and the view from above.
const BETWEEN_VIEWS: f64 = 34.0;

impl LoadPlanDrawing {
    pub(crate) fn new(vehicle: &VehicleFacts, aboard: &[Aboard], axles: AxleWords<'_>) -> Self {
        let draw = |format| Picture::new(vehicle, aboard, format).draw(axles);
        LoadPlanDrawing { wide: draw(&WIDE), narrow: draw(&NARROW) }
    }
}

struct Picture<'a> {
    vehicle: &'a VehicleFacts,
    aboard: &'a [Aboard],
    format: &'a Format,
    outline: Outline,
    /// Drawing units per inch.
    scale: f64,
    /// Furthest forward of anything drawn, inches.
    left: f64,
    ground: f64,
    /// The middle line of the view from above.
    middle: f64,
}

impl<'a> Picture<'a> {
    fn new(vehicle: &'a VehicleFacts, aboard: &'a [Aboard], format: &'a Format) -> Self {
        let outline = outline(vehicle);
        let wheelbase = vehicle.wheelbase.customary();
        let places = || aboard.iter().map(|thing| wheelbase + thing.item.behind_rear_axle.customary());
        let left = places().fold(outline.nose, f64::min);
        let right = places().fold(outline.tail, f64::max);
        let scale = (format.width - 2.0 * format.margin) / (right - left);
        let tallest = outline.body.iter().map(|point| point.1).fold(0.0, f64::max);
        let ground = 40.0 + tallest * scale;
        let middle = ground + BETWEEN_VIEWS + (HALF_BODY + 8.0) * scale;
        Picture { vehicle, aboard, format, outline, scale, left, ground, middle }
    }

    fn x(&self, along: f64) -> f64 {
        self.format.margin + (along - self.left) * self.scale
    }

    fn above_ground(&self, height: f64) -> f64 {
        self.ground - height * self.scale
    }

    fn draw(&self, axles: AxleWords<'_>) -> Drawing {
        let mut canvas = Canvas::new();
        self.side_view(&mut canvas);
        self.top_view(&mut canvas);
        self.axle_lines(&mut canvas, axles);
        self.things(&mut canvas);
        self.centre(&mut canvas);
        let per_metre = self.scale / METRES_PER_INCH;
        let title = "Load plan, from the side and from above: arrow keys move the thing that has the focus";
        canvas.finish_with_handles(self.format.id, self.format.class, self.format.width, per_metre, title)
    }

    fn side_view(&self, canvas: &mut Canvas) {
        let place = |points: &[(f64, f64)]| -> Vec<(f64, f64)> {
            points.iter().map(|(along, height)| (self.x(*along), self.above_ground(*height))).collect()
        };
        canvas.line("ground", (4.0, self.ground), (self.format.width - 4.0, self.ground));
        canvas.polygon("body-solid", &place(&self.outline.body));
        for window in &self.outline.windows {
            canvas.polygon("window", &place(window));
        }
        for [from, to] in &self.outline.seams {
            let at = |(along, height): (f64, f64)| (self.x(along), self.above_ground(height));
            canvas.line("seam", at(*from), at(*to));
        }
        for wheel in self.wheels() {
            let centre = (self.x(wheel), self.above_ground(TYRE));
            canvas.circle("tyre", centre, TYRE * self.scale);
            canvas.circle("rim", centre, 8.6 * self.scale);
        }
    }

    fn wheels(&self) -> impl Iterator<Item = f64> {
        self.outline.front_wheel.into_iter().chain(self.outline.rear_wheels.iter().copied())
    }

    fn top_view(&self, canvas: &mut Canvas) {
        let (nose, tail, half) = (self.x(self.outline.nose), self.x(self.outline.tail), HALF_BODY * self.scale);
        canvas.rect("body-solid", (nose, self.middle - half), (tail - nose, 2.0 * half));
        canvas.line("plan-middle", (nose, self.middle), (tail, self.middle));
        let (long, wide) = (2.0 * TYRE * self.scale, 2.0 * HALF_TYRE * self.scale);
        for wheel in self.wheels() {
            let rear = self.outline.front_wheel != Some(wheel);
            let dual = rear && self.vehicle.rear_wheels == RearWheels::Dual;
            for side in [-1.0, 1.0] {
                let inner = if dual { vec![0.0, 2.0 * HALF_TYRE + 2.0] } else { vec![0.0] };
                for inboard in inner {
                    let across = side * (HALF_TRACK - inboard) * self.scale;
                    canvas.rect("plan-tyre", (self.x(wheel) - long / 2.0, self.middle + across - wide / 2.0), (long, wide));
                }
            }
        }
        let below = self.middle + half + 14.0;
        canvas.text("plan-side", (nose, self.middle - half - 5.0), Anchor::Start, "left");
        canvas.text("plan-side", (nose, below), Anchor::Start, "right");
    }

    fn axle_lines(&self, canvas: &mut Canvas, axles: AxleWords<'_>) {
        let wheelbase = self.vehicle.wheelbase.customary();
        for ((along, anchor), (what, load)) in [(0.0, Anchor::Start), (wheelbase, Anchor::Middle)].into_iter().zip(axles) {
            let x = self.x(along);
            canvas.line("plan-axle", (x, 31.0), (x, self.middle + (HALF_BODY + 4.0) * self.scale));
            let at = if matches!(anchor, Anchor::Start) { x - 6.0 } else { x };
            canvas.text("plan-load", (at, 24.0), anchor, load);
            canvas.text("plan-what", (at, 4.0), anchor, what);
        }
    }

    /// A thing's half side: as its weight grows eightfold, it is drawn twice as large.
    fn half_side(&self, item: &Item) -> f64 {
        (2.2 * item.weight.customary().max(1.0).cbrt() * self.scale / 2.0).max(self.format.least)
    }

    fn things(&self, canvas: &mut Canvas) {
        let wheelbase = self.vehicle.wheelbase.customary();
        // The large first, so that none is hidden behind another.
        let mut by_size: Vec<&Aboard> = self.aboard.iter().collect();
        by_size.sort_by(|a, b| b.item.weight.si().total_cmp(&a.item.weight.si()));
        for thing in by_size {
            let (item, class) = (&thing.item, if thing.always { "plan-item is-always" } else { "plan-item" });
            let x = self.x(wheelbase + item.behind_rear_axle.customary());
            let height = item.height.map_or(FLOOR, |height| height.customary());
            let half = self.half_side(item);
            for (view, y) in [("side", self.above_ground(height)), ("top", self.middle + item.lateral.customary() * self.scale)] {
                let name = format!("{}: {}", thing.row + 1, thing.name);
                canvas.begin_handle(&format!("{class} plan-{view}"), thing.row, &name);
                canvas.rect("plan-box", (x - half, y - half), (2.0 * half, 2.0 * half));
                canvas.text("plan-number", (x - half + 9.0, y - half + 17.0), Anchor::Middle, &(thing.row + 1).to_string());
                canvas.end_handle();
            }
        }
    }

    /// Where everything drawn has its common centre.
    fn centre(&self, canvas: &mut Canvas) {
        let items: Vec<Item> = self.aboard.iter().map(|thing| thing.item).collect();
        let Some(centre) = Centre::of(&items).filter(|_| items.len() > 1) else { return };
        let x = self.x(self.vehicle.wheelbase.customary() + centre.behind_rear_axle.customary());
        let mut cross = |y: f64| {
            canvas.circle("plan-centre", (x, y), 7.0);
            canvas.line("plan-cross", (x - 11.0, y), (x + 11.0, y));
            canvas.line("plan-cross", (x, y - 11.0), (x, y + 11.0));
        };
        cross(self.middle + centre.lateral.customary() * self.scale);
        if let Some(height) = centre.height {
            cross(self.above_ground(height.customary()));
        }
    }
}
