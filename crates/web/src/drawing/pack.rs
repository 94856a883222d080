//! Packs from the side, to scale: leaves in their order, where they press on each other, and how hard each is worked.

use wise_badger_mechanics::pack::{Contact, HalfName, LeafLine, Pack, Strained};
use wise_badger_mechanics::units::{InShopUnits, Length};

use super::svg::{Anchor, Canvas, Drawing};

/// A pack to be drawn.
pub(crate) struct DrawnPack<'a> {
    pub(crate) title: String,
    pub(crate) pack: &'a Pack,
    pub(crate) lines: Vec<LeafLine>,
    /// Where leaves press, as it is clamped; none while it lies loose.
    pub(crate) contacts: Vec<Contact>,
    /// What is written beside each leaf, and how hard it is worked.
    pub(crate) marks: Vec<LeafMark>,
    /// Eye chord above the seat, as it is written, where it is clamped.
    pub(crate) arch: Option<String>,
}

/// What is said of a leaf beside the picture.
pub(crate) struct LeafMark {
    pub(crate) name: String,
    pub(crate) words: String,
    /// `None` while it is not worked.
    pub(crate) strained: Option<Strained>,
}

/// The same for wide pages and for narrow ones.
pub(crate) struct PackDrawing {
    pub(crate) wide: Drawing,
    pub(crate) narrow: Drawing,
}

struct Format {
    id: &'static str,
    class: &'static str,
    width: f64,
    margin: f64,
    /// Room for what is said of the leaves, at the right; nought puts it underneath.
    aside: f64,
}

const WIDE: Format = Format { id: "pack-wide", class: "stance packs stance-wide", width: 720.0, margin: 22.0, aside: 210.0 };
const NARROW: Format = Format { id: "pack-narrow", class: "stance packs stance-narrow", width: 370.0, margin: 14.0, aside: 0.0 };
/// From one line of text to the next.
const LINE: f64 = 19.0;
/// Between one pack and the next.
const BETWEEN: f64 = 20.0;

impl PackDrawing {
    /// Draws packs under each other at one scale.
    pub(crate) fn new(packs: &[DrawnPack<'_>], description: &str) -> Self {
        let draw = |format: &Format| {
            let mut canvas = Canvas::new();
            for (class, spacing) in [("fairly", 11.0), ("fully", 5.0)] {
                canvas.stripes(&format!("{}-{class}", format.id), spacing);
            }
            let scale = scale(packs, format);
            let mut top = 12.0;
            for pack in packs {
                top = Picture { pack, format, scale }.draw(&mut canvas, top) + BETWEEN;
            }
            canvas.finish(format.id, format.class, format.width, "The pack from the side, to scale", description)
        };
        PackDrawing { wide: draw(&WIDE), narrow: draw(&NARROW) }
    }
}

/// Drawing units per metre: the longest main leaf fills the width.
fn scale(packs: &[DrawnPack<'_>], format: &Format) -> f64 {
    let span = |pack: &DrawnPack<'_>| pack.pack.leaves.first().map_or(1.0, |main| (main.front + main.rear).si());
    let longest = packs.iter().map(span).fold(0.1, f64::max);
    (format.width - 2.0 * format.margin - format.aside) / longest
}

struct Picture<'a> {
    pack: &'a DrawnPack<'a>,
    format: &'a Format,
    scale: f64,
}

impl Picture<'_> {
    /// Draws from a height down, and says how far down it came.
    fn draw(&self, canvas: &mut Canvas, top: f64) -> f64 {
        canvas.text("pack-title", (self.format.margin, top), Anchor::Start, &self.pack.title);
        let heights = || self.pack.lines.iter().flat_map(|line| &line.points).map(|point| point.1.si());
        let (highest, lowest) = (heights().fold(0.0, f64::max), heights().fold(0.0, f64::min));
        let seat = top + 34.0 + highest * self.scale;
        let bottom = seat - lowest * self.scale + 12.0;
        self.clamp(canvas, seat, bottom);
        self.arch(canvas, seat);
        self.leaves(canvas, seat);
        self.contacts(canvas, seat);
        self.ends(canvas, seat);
        let said = self.said(canvas, top + LINE, bottom + 22.0);
        said.max(bottom + 14.0)
    }

    /// Where the centre bolt stands.
    fn centre(&self) -> f64 {
        let front = self.pack.pack.leaves.first().map_or(0.0, |main| main.front.si());
        self.format.margin + front * self.scale
    }

    fn place(&self, (along, up): (Length, Length), seat: f64) -> (f64, f64) {
        (self.centre() + along.si() * self.scale, seat - up.si() * self.scale)
    }

    fn clamp(&self, canvas: &mut Canvas, seat: f64, bottom: f64) {
        let (clamp, x) = (&self.pack.pack.clamp, self.centre());
        if self.pack.arch.is_some() && (clamp.front + clamp.rear).si() > 0.0 {
            let (left, right) = (x - clamp.front.si() * self.scale, x + clamp.rear.si() * self.scale);
            canvas.rect("pack-clamp", (left, seat - 10.0), (right - left, bottom - seat + 10.0));
        }
        canvas.line("pack-bolt", (x, seat - 16.0), (x, bottom + 2.0));
    }

    /// The chord between the eyes, and how far it stands over the seat.
    fn arch(&self, canvas: &mut Canvas, seat: f64) {
        let Some((arch, main)) = self.pack.arch.as_ref().zip(self.pack.lines.first()) else { return };
        let (Some(front), Some(rear)) = (main.points.first(), main.points.last()) else { return };
        let (front, rear) = (self.place(*front, seat), self.place(*rear, seat));
        canvas.line("pack-chord", front, rear);
        let share = (self.centre() - front.0) / (rear.0 - front.0);
        let chord = front.1 + (rear.1 - front.1) * share;
        let x = self.centre() + 26.0;
        canvas.line("pack-measure", (x, chord), (x, seat));
        canvas.text("pack-arch", (x + 4.0, chord.min(seat) - 6.0), Anchor::Start, arch);
    }

    fn leaves(&self, canvas: &mut Canvas, seat: f64) {
        let leaves = self.pack.pack.leaves.iter().zip(&self.pack.lines).zip(&self.pack.marks);
        for ((leaf, line), mark) in leaves {
            let half = (leaf.thickness.si() * self.scale / 2.0).max(1.2);
            let middle: Vec<(f64, f64)> = line.points.iter().map(|point| self.place(*point, seat)).collect();
            let over = middle.iter().map(|(x, y)| (*x, y - half));
            let under = middle.iter().rev().map(|(x, y)| (*x, y + half));
            let outline: Vec<(f64, f64)> = over.chain(under).collect();
            match mark.strained {
                Some(Strained::Past) => canvas.polygon("leaf leaf-past", &outline),
                Some(strained @ (Strained::Fairly | Strained::Fully)) => {
                    let stripes = if strained == Strained::Fairly { "fairly" } else { "fully" };
                    canvas.striped("leaf-striped", &format!("{}-{stripes}", self.format.id), &outline);
                }
                _ => canvas.polygon("leaf", &outline),
            }
        }
    }

    fn contacts(&self, canvas: &mut Canvas, seat: f64) {
        for contact in &self.pack.contacts {
            let Some(line) = self.pack.lines.get(contact.upper) else { continue };
            let half = self.pack.pack.leaves.get(contact.upper).map_or(0.0, |leaf| leaf.thickness.si() * self.scale / 2.0);
            let sign = if contact.half == HalfName::Front { -1.0 } else { 1.0 };
            let under = |along: Length| {
                let (x, y) = self.place((along * sign, height_at(line, along * sign)), seat);
                (x, y + half)
            };
            let (from, to) = (under(contact.from), under(contact.to));
            if (from.0 - to.0).abs() > 1.0 {
                canvas.line("pack-contact", from, to);
            }
            for (x, y) in [from, to] {
                canvas.circle("pack-touch", (x, y), 2.6);
            }
        }
    }

    fn ends(&self, canvas: &mut Canvas, seat: f64) {
        let Some(main) = self.pack.lines.first() else { return };
        for (point, name, dx) in [(main.points.first(), "F", -3.0), (main.points.last(), "R", 3.0)] {
            let Some(point) = point else { continue };
            let (x, y) = self.place(*point, seat);
            canvas.circle("pack-eye", (x, y), 5.0);
            canvas.text("pack-end", (x + dx, y - 11.0), Anchor::Middle, name);
        }
    }

    /// The words beside the picture, or under it where there is no room beside.
    fn said(&self, canvas: &mut Canvas, beside: f64, under: f64) -> f64 {
        let aside = self.format.aside > 0.0;
        let x = if aside { self.format.width - self.format.aside + 8.0 } else { self.format.margin };
        let mut y = if aside { beside } else { under };
        for (number, mark) in (1..).zip(&self.pack.marks) {
            canvas.text("pack-leaf", (x, y), Anchor::Start, &format!("{number} {}", mark.name));
            let past = mark.strained == Some(Strained::Past);
            let class = if past { "pack-words pack-past" } else { "pack-words" };
            let words = if past { format!("▲ {}", mark.words) } else { mark.words.clone() };
            canvas.text(class, (self.format.width - self.format.margin / 3.0, y), Anchor::End, &words);
            y += LINE;
        }
        y - LINE + 8.0
    }
}

/// Height of a line at a place along it, between its points.
fn height_at(line: &LeafLine, along: Length) -> Length {
    let mut pairs = line.points.windows(2).filter_map(|pair| <&[(Length, Length); 2]>::try_from(pair).ok());
    let over = pairs.clone().find(|[from, to]| from.0 <= along && along <= to.0).or_else(|| pairs.next_back());
    over.map_or(Length::default(), |[from, to]| {
        let span = (to.0 - from.0).si();
        let share = if span.abs() < 1e-12 { 0.0 } else { ((along - from.0).si() / span).clamp(0.0, 1.0) };
        from.1 + (to.1 - from.1) * share
    })
}
