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

impl RowWords {
    /// Whether name and value find room beside each other.
    fn share_a_line(&self, format: &Format) -> bool {
        let taken = |words: &str, letter: f64| words.chars().count() as f64 * letter;
        taken(&self.name, NAME_LETTER) + taken(&self.value, VALUE_LETTER) < format.width - 2.0 * MARGIN
    }
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
/// A line of words, and what a letter of a name and of a value takes at most, on the average.
const LINE: f64 = 18.0;
const NAME_LETTER: f64 = 6.5;
const VALUE_LETTER: f64 = 8.0;

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
    let mut last = 18.0 - ROW;
    let base_lines: Vec<f64> = rows
        .iter()
        .map(|words| {
            last += ROW + if words.share_a_line(format) { 0.0 } else { LINE };
            last
        })
        .collect();
    let bar_of = |row: usize| base_lines.get(row).unwrap_or(&last) + WORDS_TO_BAR;
    let write = |canvas: &mut Canvas, row: usize| {
        let Some((words, y)) = rows.get(row).zip(base_lines.get(row)) else { return };
        let name = if words.share_a_line(format) { *y } else { y - LINE };
        canvas.text("way-name", (MARGIN, name), Anchor::Start, &words.name);
        canvas.text("way-value", (format.width - MARGIN, *y), Anchor::End, &words.value);
    };
    // The thread to a row from the one above runs behind the words.
    let thread = |canvas: &mut Canvas, at: Length, row: usize, end: f64| {
        canvas.line("way-thread", (x(at), bar_of(row - 1) + BAR / 2.0), (x(at), end));
    };
    let mark = |canvas: &mut Canvas, down: Length, y: f64| {
        canvas.polygon(
            "mark-solid",
            &[(x(down), y), (x(down) + 8.0, y + BAR / 2.0), (x(down), y + BAR), (x(down) - 8.0, y + BAR / 2.0)],
        );
    };
    write(&mut canvas, 0);
    mark(&mut canvas, Length::default(), bar_of(0));
    for (row, (from, to, band)) in (1..).zip(&steps) {
        let bar = bar_of(row);
        thread(&mut canvas, *from, row, bar + BAR);
        write(&mut canvas, row);
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
    let row = steps.len() + 1;
    thread(&mut canvas, at, row, bar_of(row));
    write(&mut canvas, row);
    mark(&mut canvas, at, bar_of(row));
    let foot = bar_of(row) + BAR + 6.0;
    canvas.line("way-foot", (MARGIN, foot), (format.width - MARGIN, foot));
    canvas.finish(format.id, format.class, format.width, "Where the inches went", description)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn on_a_narrow_page_a_long_name_stands_above_its_value_and_on_a_wide_one_beside_it() {
        let row = |name: &str, value: &str| RowWords { name: name.to_owned(), value: value.to_owned() };
        let long = row("The load, on springs and overload leaf together", "−2 13/16 in ± 1/4 in");
        assert!(long.share_a_line(&WIDE) && !long.share_a_line(&NARROW));
        assert!(row("The load, on the tires", "−1 1/16 in ± 1/4 in").share_a_line(&NARROW));
    }
}
