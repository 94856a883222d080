//! Where the inches went: one row a part, from where the way begins on the left to the height measured on the right.

use wise_badger_casework::verdict::Breakdown;
use wise_badger_mechanics::units::{InShopUnits, Length, inches};

use super::svg::{Anchor, Canvas, Drawing};

/// The picture for wide pages, and the same for narrow ones.
pub(crate) struct BreakdownDrawing {
    pub(crate) wide: Drawing,
    pub(crate) narrow: Drawing,
}

/// What stands beside a row, ready to print.
pub(crate) struct RowWords {
    pub(crate) name: String,
    pub(crate) value: String,
}

struct Format {
    id: &'static str,
    class: &'static str,
    width: f64,
}

const WIDE: Format = Format { id: "way-wide", class: "stance way stance-wide", width: 720.0 };
const NARROW: Format = Format { id: "way-narrow", class: "stance way stance-narrow", width: 370.0 };
const MARGIN: f64 = 16.0;
/// From row to row, a bar's height, and its place under its row's words.
const ROW: f64 = 46.0;
const BAR: f64 = 16.0;
const WORDS_TO_BAR: f64 = 8.0;

impl BreakdownDrawing {
    /// `rows` are the words of the start, of each part, and of measured.
    pub(crate) fn new(breakdown: &Breakdown, rows: &[RowWords], description: &str) -> Self {
        let draw = |format| draw(breakdown, rows, description, format);
        BreakdownDrawing { wide: draw(&WIDE), narrow: draw(&NARROW) }
    }
}

fn draw(breakdown: &Breakdown, rows: &[RowWords], description: &str, format: &Format) -> Drawing {
    let mut canvas = Canvas::new();
    let hatching = format!("{}-hatch", format.id);
    canvas.hatching(&hatching);
    // How far below the start each part begins and ends.
    let mut at = Length::default();
    let steps: Vec<(Length, Length, Length)> = breakdown
        .parts
        .iter()
        .map(|part| {
            let from = at;
            at += part.down.value;
            (from, at, part.down.band())
        })
        .collect();
    let ends = || steps.iter().flat_map(|(from, to, band)| [*from, *to + *band, *to - *band]);
    let least = ends().fold(Length::default(), |a: Length, b| a.min(b));
    let most = ends().fold(inches(0.5), |a: Length, b| a.max(b));
    let x = |down: Length| MARGIN + (down - least).si() / (most - least).si() * (format.width - 2.0 * MARGIN);
    let mut y = 18.0;
    let mut words = rows.iter();
    let mut row = |canvas: &mut Canvas, y: f64| {
        if let Some(words) = words.next() {
            canvas.text("way-name", (MARGIN, y), Anchor::Start, &words.name);
            canvas.text("way-value", (format.width - MARGIN, y), Anchor::End, &words.value);
        }
    };
    let mark = |canvas: &mut Canvas, down: Length, y: f64| {
        canvas.polygon(
            "mark-solid",
            &[(x(down), y), (x(down) + 8.0, y + BAR / 2.0), (x(down), y + BAR), (x(down) - 8.0, y + BAR / 2.0)],
        );
    };
    row(&mut canvas, y);
    mark(&mut canvas, Length::default(), y + WORDS_TO_BAR);
    for (from, to, band) in &steps {
        let top = y + WORDS_TO_BAR + BAR / 2.0;
        y += ROW;
        let bar = y + WORDS_TO_BAR;
        // The thread from one row to the next.
        canvas.line("way-thread", (x(*from), top), (x(*from), bar + BAR));
        row(&mut canvas, y);
        let (left, right) = (x(*from).min(x(*to)), x(*from).max(x(*to)));
        match to < from {
            true => canvas.hatched("way-up", &hatching, (left, bar), (right - left, BAR)),
            false => canvas.rect("way-down", (left, bar), (right - left, BAR)),
        }
        let middle = bar + BAR / 2.0;
        canvas.line("way-band", (x(*to - *band), middle), (x(*to + *band), middle));
        for end in [*to - *band, *to + *band] {
            canvas.line("way-band", (x(end), middle - 5.0), (x(end), middle + 5.0));
        }
    }
    let top = y + WORDS_TO_BAR + BAR / 2.0;
    y += ROW;
    canvas.line("way-thread", (x(at), top), (x(at), y + WORDS_TO_BAR));
    row(&mut canvas, y);
    mark(&mut canvas, at, y + WORDS_TO_BAR);
    canvas.line("way-foot", (MARGIN, y + WORDS_TO_BAR + BAR + 6.0), (format.width - MARGIN, y + WORDS_TO_BAR + BAR + 6.0));
    canvas.finish(format.id, format.class, format.width, "Where the inches went", description)
}
