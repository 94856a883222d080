//! The template over as many sheets as it needs: each with register marks where it meets its neighbours, and a check bar.

use pdf_writer::{Content, Finish, Name, Pdf, Rect, Ref, Str};

use super::Template;

/// What it is printed on.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) enum Paper {
    A4,
    Letter,
}

impl Paper {
    /// Width and height lying, in millimetres (ISO 216; 11 by 8 1/2 in).
    fn lying(self) -> (f64, f64) {
        match self {
            Paper::A4 => (297.0, 210.0),
            Paper::Letter => (279.4, 215.9),
        }
    }
}

/// Left blank round every sheet: no printer reaches the edge.
const MARGIN_MM: f64 = 12.0;
/// What neighbouring sheets show twice, so that they can be laid over each other.
const OVERLAP_MM: f64 = 10.0;
/// Room at the foot of a sheet for its words and the check bar.
const FOOT_MM: f64 = 24.0;
const POINTS_PER_MM: f64 = 72.0 / 25.4;

/// The file.
pub(crate) fn pdf(template: &Template, paper: Paper) -> Vec<u8> {
    let tiles = Tiles::new(template, paper);
    let mut pdf = Pdf::new();
    let (catalog, tree, font) = (Ref::new(1), Ref::new(2), Ref::new(3));
    let sheets: Vec<(u32, u32)> = (0..tiles.rows).flat_map(|row| (0..tiles.columns).map(move |column| (row, column))).collect();
    let page = |index: usize| Ref::new(4 + 2 * i32::try_from(index).unwrap_or(i32::MAX / 4));
    pdf.catalog(catalog).pages(tree);
    let count = i32::try_from(sheets.len()).unwrap_or(i32::MAX);
    pdf.pages(tree).kids((0..sheets.len()).map(page)).count(count);
    pdf.type1_font(font).base_font(Name(b"Helvetica")).encoding_predefined(Name(b"WinAnsiEncoding"));
    for (index, (row, column)) in sheets.iter().enumerate() {
        let (page, content) = (page(index), page(index).next());
        let (width, height) = paper.lying();
        let mut written = pdf.page(page);
        written.media_box(Rect::new(0.0, 0.0, points(width), points(height))).parent(tree).contents(content);
        written.resources().fonts().pair(Name(b"F"), font);
        written.finish();
        pdf.stream(content, &tiles.sheet(template, *row, *column, index + 1, sheets.len()));
    }
    pdf.finish()
}

#[expect(clippy::cast_possible_truncation, reason = "the file's own numbers are as coarse")]
fn points(millimetres: f64) -> f32 {
    (millimetres * POINTS_PER_MM) as f32
}

/// How the template is laid over sheets.
struct Tiles {
    /// Of a sheet, what shows the template.
    shows: (f64, f64),
    /// From one sheet to the next.
    step: (f64, f64),
    /// Least of the template.
    low: (f64, f64),
    columns: u32,
    rows: u32,
}

impl Tiles {
    fn new(template: &Template, paper: Paper) -> Self {
        let (width, height) = paper.lying();
        let shows = (width - 2.0 * MARGIN_MM, height - 2.0 * MARGIN_MM - FOOT_MM);
        let step = (shows.0 - OVERLAP_MM, shows.1 - OVERLAP_MM);
        let [low, high] = template.bounds();
        let low = (low.0 - 5.0, low.1 - 8.0);
        #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "a leaf is some sheets long")]
        let count = |long: f64, step: f64, shows: f64| 1 + ((long - shows) / step).ceil().clamp(0.0, 99.0) as u32;
        let columns = count(high.0 + 5.0 - low.0, step.0, shows.0);
        let rows = count(high.1 + 5.0 - low.1, step.1, shows.1);
        Tiles { shows, step, low, columns, rows }
    }

    fn sheet(&self, template: &Template, row: u32, column: u32, number: usize, of: usize) -> Vec<u8> {
        let mut content = Content::new();
        let corner = (self.low.0 + self.step.0 * f64::from(column), self.low.1 + self.step.1 * f64::from(row));
        let (left, bottom) = (MARGIN_MM, MARGIN_MM + FOOT_MM);
        let place = |(x, y): (f64, f64)| (points(x - corner.0 + left), points(y - corner.1 + bottom));
        content.save_state();
        content.rect(points(left), points(bottom), points(self.shows.0), points(self.shows.1)).clip_nonzero().end_path();
        content.set_line_width(0.6);
        path(&mut content, &template.outline(), place);
        content.close_and_stroke();
        for [from, to] in &template.steps {
            path(&mut content, &[*from, *to], place);
            content.stroke();
        }
        content.set_line_width(2.0);
        path(&mut content, &template.bolt, place);
        content.stroke();
        content.set_line_width(0.5).set_dash_pattern([6.0, 4.0], 0.0);
        path(&mut content, &template.chord, place);
        content.stroke();
        for (end, word) in [(template.chord[0], "F"), (template.chord[1], "R")] {
            let (x, y) = place((end.0, end.1 - 7.0));
            write(&mut content, 12.0, (x, y), word);
        }
        content.restore_state();
        self.register_marks(&mut content, (left, bottom), row, column);
        self.foot(&mut content, template, (row, column), number, of);
        content.finish().to_vec()
    }

    /// Crosses in the middle of what two sheets both show: laid over each other, the sheets lie true.
    fn register_marks(&self, content: &mut Content, (left, bottom): (f64, f64), row: u32, column: u32) {
        content.set_line_width(0.5).set_dash_pattern(Vec::<f32>::new(), 0.0);
        let half = OVERLAP_MM / 2.0;
        let (right, top) = (left + self.shows.0, bottom + self.shows.1);
        let xs = [(column > 0).then_some(left + half), (column + 1 < self.columns).then_some(right - half)];
        let ys = [(row > 0).then_some(bottom + half), (row + 1 < self.rows).then_some(top - half)];
        let cross = |content: &mut Content, x: f64, y: f64| {
            for (dx, dy) in [(5.0, 0.0), (0.0, 5.0)] {
                content.move_to(points(x - dx), points(y - dy)).line_to(points(x + dx), points(y + dy)).stroke();
            }
            content.rect(points(x - 1.5), points(y - 1.5), points(3.0), points(3.0)).stroke();
        };
        for x in xs.into_iter().flatten() {
            cross(content, x, bottom + self.shows.1 * 0.25);
            cross(content, x, bottom + self.shows.1 * 0.75);
        }
        for y in ys.into_iter().flatten() {
            cross(content, left + self.shows.0 * 0.25, y);
            cross(content, left + self.shows.0 * 0.75, y);
        }
    }

    fn foot(&self, content: &mut Content, template: &Template, (row, column): (u32, u32), number: usize, of: usize) {
        let (bar, name) = template.check_bar();
        let right = MARGIN_MM + self.shows.0;
        let y = MARGIN_MM + 6.0;
        content.set_line_width(1.0);
        content.move_to(points(right - bar), points(y)).line_to(points(right), points(y)).stroke();
        for x in [right - bar, right] {
            content.move_to(points(x), points(y - 2.5)).line_to(points(x), points(y + 2.5)).stroke();
        }
        write(content, 9.0, (points(right - bar), points(y + 4.0)), &format!("{name}: print at 100%, check with a rule"));
        let place = format!(
            "Sheet {number} of {of}: column {} of {}, row {} of {} from below",
            column + 1,
            self.columns,
            row + 1,
            self.rows
        );
        let first = template.words.iter().map(String::as_str).chain([place.as_str()]);
        for (line, words) in (0_u32..).zip(first) {
            write(content, 9.0, (points(MARGIN_MM), points(MARGIN_MM + FOOT_MM - 7.0 - 4.6 * f64::from(line))), words);
        }
    }
}

fn path(content: &mut Content, line: &[(f64, f64)], place: impl Fn((f64, f64)) -> (f32, f32)) {
    for (index, point) in line.iter().enumerate() {
        let (x, y) = place(*point);
        if index == 0 {
            content.move_to(x, y)
        } else {
            content.line_to(x, y)
        };
    }
}

/// Words in the font that every reader has; it knows western letters only.
fn write(content: &mut Content, size: f32, (x, y): (f32, f32), words: &str) {
    let words = words.replace('−', "-");
    let bytes: Vec<u8> = words.chars().map(|sign| u8::try_from(u32::from(sign)).unwrap_or(b' ')).collect();
    content.begin_text().set_font(Name(b"F"), size).next_line(x, y).show(Str(&bytes)).end_text();
}
