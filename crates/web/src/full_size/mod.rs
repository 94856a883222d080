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

#[cfg(test)]
mod tests {
    use super::*;
    use wise_badger_mechanics::units::{inches, per_metre};

    fn template(radius: f64, front: f64, rear: f64) -> Template {
        let sheet = ArchSheet { front: inches(front), rear: inches(rear), curvature: per_metre(1.0 / inches(radius).si()) };
        Template::new(&sheet, inches(0.35), inches(2.0), true, vec!["Main & second <leaf>".to_owned(), "radius".to_owned()])
    }

    fn apart(one: (f64, f64), other: (f64, f64)) -> f64 {
        (one.0 - other.0).hypot(one.1 - other.1)
    }

    #[test]
    fn a_template_is_as_thick_as_its_leaf_everywhere_and_stands_on_its_lowest_point() {
        for (radius, front, rear) in [(60.0, 24.0, 30.0), (-200.0, 12.0, 12.0), (900.0, 28.0, 20.0)] {
            let template = template(radius, front, rear);
            for (under, over) in template.arc.iter().zip(&template.top) {
                assert!((apart(*under, *over) - 0.35 * 25.4).abs() < 1e-6);
            }
            let lowest = template.arc.iter().map(|point| point.1).fold(f64::INFINITY, f64::min);
            assert!(lowest.abs() < 0.02, "{lowest}");
            assert!(
                (apart(template.chord[0], template.chord[1])
                    - 2.0 * (radius.abs() * 25.4) * ((front + rear) / 2.0 / radius.abs()).sin())
                .abs()
                    < 1e-6
            );
            // A mark at the centre hole, and one every two inches from it inside the ends.
            #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "some tens")]
            let marks = 1 + ((front - 1e-9) / 2.0).floor() as usize + ((rear - 1e-9) / 2.0).floor() as usize;
            assert_eq!(template.steps.len(), marks);
        }
    }

    #[test]
    fn a_drawing_is_a_millimetre_a_unit_and_its_words_cannot_break_out_of_it() {
        let text = svg(&template(60.0, 24.0, 30.0));
        let size = |name: &str| {
            let at = text.find(&format!("{name}=\"")).expect("a size") + name.len() + 2;
            text[at..].split("mm").next().and_then(|size| size.parse::<f64>().ok()).expect("a figure in millimetres")
        };
        let [low, high] = template(60.0, 24.0, 30.0).bounds();
        assert!((size("width") - (high.0 - low.0) - 30.0).abs() < 0.01);
        assert!(text.contains(&format!("viewBox=\"0 0 {:.3} {:.3}\"", size("width"), size("height"))));
        assert!(text.contains("Main &amp; second &lt;leaf&gt;") && text.contains("4 in: check with a rule"));
    }

    #[test]
    fn a_deep_arch_takes_more_rows_of_paper_and_letters_it_has_no_sign_for_are_left_out() {
        let pages = |template: &Template, paper| {
            pdf(template, paper).windows(12).filter(|bytes| *bytes == b"/Type /Page\n".as_slice()).count()
        };
        let (flat, deep) = (template(900.0, 28.0, 28.0), template(30.0, 28.0, 28.0));
        for paper in [Paper::A4, Paper::Letter] {
            assert!(pages(&deep, paper) > pages(&flat, paper) / 2, "{paper:?}");
        }
        assert_eq!((pages(&flat, Paper::A4), pages(&flat, Paper::Letter)), (6, 6));
        let bent_down = Template { words: vec!["arch −1/2 in, 座".to_owned()], ..template(-200.0, 12.0, 12.0) };
        let file = dxf(&bent_down);
        assert!(file.contains("arch -1/2 in") && file.is_ascii());
    }
}
