//! Full-size templates of a leaf's arc, to cut from paper or board and hold against the leaf.

mod dxf;
mod pdf;
mod svg;

pub(crate) use dxf::dxf;
pub(crate) use pdf::{Paper, pdf};
pub(crate) use svg::svg;

use wise_badger_mechanics::pack::ArchSheet;
use wise_badger_mechanics::units::{InShopUnits, Length, metres};

/// Points along an arc: a tenth of a millimetre of the true one on any leaf.
const PIECES: u32 = 120;

/// A leaf's template: its under side is the arc to match.
pub(crate) struct Template {
    /// What is written on it, a line each: leaf, radius, sagitta, what it is for.
    pub(crate) words: Vec<String>,
    /// The arc, in millimetres: along the chord from the front end, up from the chord's lowest point of the arc.
    pub(crate) arc: Vec<(f64, f64)>,
    /// The same a leaf's thickness higher.
    pub(crate) top: Vec<(f64, f64)>,
    /// Where the centre hole is: on the arc and across the leaf.
    pub(crate) bolt: [(f64, f64); 2],
    /// Marks across the leaf at every step from the centre hole.
    pub(crate) steps: Vec<[(f64, f64); 2]>,
    /// From end to end.
    pub(crate) chord: [(f64, f64); 2],
    /// Whether the check bar is 4 in, and not 100 mm.
    pub(crate) inches: bool,
}

impl Template {
    /// The template of a leaf of a thickness, with marks at every step.
    pub(crate) fn new(sheet: &ArchSheet, thickness: Length, step: Length, inches: bool, words: Vec<String>) -> Self {
        let arc: Vec<(Length, Length)> = sheet.arc(PIECES);
        let lowest = arc.iter().map(|(_, up)| up.si()).fold(0.0, f64::min);
        let millimetres = |(along, up): (Length, Length)| (along.si() * 1e3, (up.si() - lowest) * 1e3);
        // Square to the arc: the leaf's own thickness.
        let turned = |from_front: Length| {
            let middle = (sheet.front + sheet.rear) / 2.0;
            (from_front - middle).si() * sheet.curvature.value
        };
        let across = |from_front: Length, up: Length| {
            let (x, y) = sheet.on_arc(from_front);
            let angle = turned(from_front);
            millimetres((x - metres(up.si() * angle.sin()), y + metres(up.si() * angle.cos())))
        };
        let length = sheet.front + sheet.rear;
        let along = |piece: u32| length * (f64::from(piece) / f64::from(PIECES));
        let mark = |from_front: Length| [across(from_front, metres(0.0)), across(from_front, thickness)];
        let steps = sheet.offsets(step).into_iter().map(|offset| mark(sheet.front + offset.along)).collect();
        Template {
            words,
            arc: (0..=PIECES).map(|piece| across(along(piece), metres(0.0))).collect(),
            top: (0..=PIECES).map(|piece| across(along(piece), thickness)).collect(),
            bolt: mark(sheet.front),
            steps,
            chord: [across(metres(0.0), metres(0.0)), across(length, metres(0.0))],
            inches,
        }
    }

    /// Least and most of it, along and up.
    pub(crate) fn bounds(&self) -> [(f64, f64); 2] {
        let points = self.arc.iter().chain(&self.top);
        points.fold([(f64::INFINITY, f64::INFINITY), (f64::NEG_INFINITY, f64::NEG_INFINITY)], |[low, high], (x, y)| {
            [(low.0.min(*x), low.1.min(*y)), (high.0.max(*x), high.1.max(*y))]
        })
    }

    /// The outline, once round.
    pub(crate) fn outline(&self) -> Vec<(f64, f64)> {
        self.arc.iter().chain(self.top.iter().rev()).copied().collect()
    }

    /// Length of the check bar in millimetres, and what it is called.
    pub(crate) fn check_bar(&self) -> (f64, &'static str) {
        if self.inches { (101.6, "4 in") } else { (100.0, "100 mm") }
    }
}
