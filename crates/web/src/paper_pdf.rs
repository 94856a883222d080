//! A paper as a PDF: its headings and lines set in the reader's own Helvetica, heights before and after drawn as lines, on pages that
//! fit A4 and Letter both.

use actix_web::HttpResponse;
use actix_web::http::header::{CACHE_CONTROL, CONTENT_DISPOSITION, CONTENT_TYPE};
use pdf_writer::{Content, Finish, Name, Pdf, Rect, Ref, Str};
use wise_badger_casework::entry::{DRAWN, PaperEntry, PaperSection};

/// The narrower and the lower of A4 and Letter, in points, so that both print it whole.
const WIDTH: f32 = 595.0;
const HEIGHT: f32 = 792.0;
const MARGIN: f32 = 45.0;
const TEXT: f32 = 10.0;
const LINE: f32 = 13.5;
const HEADING: f32 = 12.5;
const TITLE: f32 = 17.0;

/// Heights of one end.
pub(crate) struct Ruler {
    /// Which end.
    pub(crate) name: String,
    /// A height in metres, its words, and whether it is after the work.
    pub(crate) marks: Vec<(f64, String, bool)>,
}

/// Those of both ends, on one scale.
pub(crate) struct Rulers(pub(crate) Vec<Ruler>);

/// Advance widths of Helvetica from the space to the tilde, in thousandths of its size.
///
/// # Source     metrics of the fourteen standard PDF fonts (from memory)
const ADVANCES: [u16; 95] = [
    278, 278, 355, 556, 556, 889, 667, 191, 333, 333, 389, 584, 278, 333, 278, 278, 556, 556, 556, 556, 556, 556, 556, 556, 556,
    556, 278, 278, 584, 584, 584, 556, 1015, 667, 667, 722, 722, 667, 611, 778, 722, 278, 500, 667, 556, 833, 722, 778, 667, 778,
    722, 667, 611, 722, 667, 944, 667, 667, 611, 278, 278, 278, 469, 556, 333, 556, 556, 500, 556, 556, 278, 556, 556, 222, 222,
    500, 222, 833, 556, 556, 556, 556, 333, 500, 278, 556, 500, 722, 500, 500, 500, 334, 260, 334, 584,
];
/// Of a letter that is not among them.
const USUAL_ADVANCE: u16 = 600;

fn advance(sign: char, size: f32) -> f32 {
    let place = (sign as usize).checked_sub(32);
    let thousandths = place.and_then(|place| ADVANCES.get(place)).copied().unwrap_or(USUAL_ADVANCE);
    f32::from(thousandths) * size / 1_000.0
}

/// The file as an answer, kept by nobody on the way.
pub(crate) fn sent(body: Vec<u8>, name: &str) -> HttpResponse {
    let mut answer = HttpResponse::Ok();
    answer.insert_header((CONTENT_TYPE, "application/pdf"));
    answer.insert_header((CONTENT_DISPOSITION, format!("attachment; filename=\"{name}\"")));
    answer.insert_header((CACHE_CONTROL, "no-store")).body(body)
}

/// A letter as the encoding that every reader has knows it; one that it does not know is a question mark.
fn encoded(text: &str) -> Vec<u8> {
    let of = |sign: char| match sign {
        '\u{2212}' => b'-',
        '’' => 0x92,
        '‘' => 0x91,
        '“' => 0x93,
        '”' => 0x94,
        '–' => 0x96,
        '—' => 0x97,
        '•' => 0x95,
        '…' => 0x85,
        '€' => 0x80,
        ' '..='~' | '\u{a0}'..='\u{ff}' => u8::try_from(u32::from(sign)).unwrap_or(b'?'),
        _ => b'?',
    };
    text.chars().map(of).collect()
}

/// A text in lines no wider than they may be; a word that is wider by itself is cut.
fn wrapped(text: &str, size: f32, width: f32) -> Vec<String> {
    let mut lines: Vec<String> = Vec::new();
    let (mut line, mut long) = (String::new(), 0.0);
    for word in text.split(' ') {
        let word_long: f32 = word.chars().map(|sign| advance(sign, size)).sum();
        let space = if line.is_empty() { 0.0 } else { advance(' ', size) };
        if long + space + word_long <= width {
            if !line.is_empty() {
                line.push(' ');
            }
            line.push_str(word);
            long += space + word_long;
            continue;
        }
        if !line.is_empty() {
            lines.push(std::mem::take(&mut line));
        }
        long = 0.0;
        for sign in word.chars() {
            let more = advance(sign, size);
            if long + more > width {
                lines.push(std::mem::take(&mut line));
                long = 0.0;
            }
            line.push(sign);
            long += more;
        }
    }
    lines.push(line);
    lines
}

/// The pages as they fill.
struct Pages {
    done: Vec<Vec<u8>>,
    content: Content,
    /// How far down the page it has come.
    y: f32,
}

impl Pages {
    fn new() -> Self {
        Pages { done: Vec::new(), content: Content::new(), y: HEIGHT - MARGIN }
    }

    /// Begins another page where there is no room for so much.
    fn room(&mut self, height: f32) {
        if self.y - height < MARGIN {
            let full = std::mem::replace(&mut self.content, Content::new());
            self.done.push(full.finish().to_vec());
            self.y = HEIGHT - MARGIN;
        }
    }

    fn text(&mut self, text: &str, font: &[u8], size: f32, indent: f32) {
        let lead = size * LINE / TEXT;
        // Bold letters are wider by up to a twelfth.
        let wide = if font == b"B" { 1.09 } else { 1.0 };
        for line in wrapped(text, size * wide, WIDTH - 2.0 * MARGIN - indent) {
            self.room(lead);
            self.y -= lead;
            write(&mut self.content, font, size, (MARGIN + indent, self.y), &line);
        }
    }

    fn finish(mut self) -> Vec<Vec<u8>> {
        self.done.push(self.content.finish().to_vec());
        self.done
    }
}

fn write(content: &mut Content, font: &[u8], size: f32, (x, y): (f32, f32), text: &str) {
    content.begin_text().set_font(Name(font), size).next_line(x, y).show(Str(&encoded(text))).end_text();
}

/// The file. `signed` is the paper as it was signed last.
pub(crate) fn pdf(
    title: &str,
    heading: &str,
    rulers: &Rulers,
    sections: &[PaperSection],
    signed: Option<&PaperEntry>,
) -> Vec<u8> {
    let mut pages = Pages::new();
    pages.text(title, b"B", TITLE, 0.0);
    pages.text(heading, b"F", TEXT, 0.0);
    draw(&mut pages, rulers);
    for section in sections {
        pages.room(4.0 * LINE);
        pages.y -= 6.0;
        pages.text(&section.title, b"B", HEADING, 0.0);
        for line in &section.lines {
            pages.text(line, b"F", TEXT, 10.0);
        }
    }
    sign(&mut pages, signed);
    assembled(title, &pages.finish())
}

fn assembled(title: &str, contents: &[Vec<u8>]) -> Vec<u8> {
    let mut pdf = Pdf::new();
    let (catalog, tree, plain, bold, info) = (Ref::new(1), Ref::new(2), Ref::new(3), Ref::new(4), Ref::new(5));
    let page = |index: usize| Ref::new(6 + 2 * i32::try_from(index).unwrap_or(i32::MAX / 4));
    pdf.catalog(catalog).pages(tree);
    pdf.pages(tree).kids((0..contents.len()).map(page)).count(i32::try_from(contents.len()).unwrap_or(i32::MAX));
    for (font, name) in [(plain, Name(b"Helvetica")), (bold, Name(b"Helvetica-Bold"))] {
        pdf.type1_font(font).base_font(name).encoding_predefined(Name(b"WinAnsiEncoding"));
    }
    pdf.document_info(info).title(pdf_writer::TextStr(title));
    for (index, content) in contents.iter().enumerate() {
        let id = page(index);
        let mut written = pdf.page(id);
        written.media_box(Rect::new(0.0, 0.0, WIDTH, HEIGHT)).parent(tree).contents(id.next());
        let mut resources = written.resources();
        resources.fonts().pair(Name(b"F"), plain).pair(Name(b"B"), bold);
        resources.finish();
        written.finish();
        pdf.stream(id.next(), content);
    }
    pdf.finish()
}

/// Heights before (open) and after (filled), each end on a line of its own, both on one scale.
fn draw(pages: &mut Pages, rulers: &Rulers) {
    const TALL: f32 = 120.0;
    const STEP: f32 = 12.0;
    let all = || rulers.0.iter().flat_map(|ruler| &ruler.marks).map(|(height, ..)| *height);
    let (least, most) = (all().fold(f64::INFINITY, f64::min), all().fold(f64::NEG_INFINITY, f64::max));
    if !least.is_finite() {
        return;
    }
    pages.room(TALL + 40.0);
    let bottom = pages.y - TALL - 24.0;
    // Never finer than an inch or so to the whole line.
    let span = (most - least).max(0.03);
    #[expect(clippy::cast_possible_truncation, reason = "a drawing is as coarse")]
    let at = |height: f64| bottom + ((height - least) / span) as f32 * TALL;
    for (place, ruler) in (0_u16..).zip(&rulers.0) {
        let x = MARGIN + 12.0 + f32::from(place) * 250.0;
        write(&mut pages.content, b"B", TEXT, (x - 8.0, bottom + TALL + 10.0), &ruler.name);
        pages.content.set_line_width(1.0).move_to(x, bottom - 4.0).line_to(x, bottom + TALL + 4.0).stroke();
        let mut marks: Vec<_> = ruler.marks.iter().collect();
        marks.sort_by(|(one, ..), (other, ..)| one.total_cmp(other));
        let mut lowest = f32::NEG_INFINITY;
        for (height, words, after) in marks {
            let y = at(*height);
            let half = 3.5;
            pages.content.rect(x - half, y - half, 2.0 * half, 2.0 * half);
            if *after {
                pages.content.fill_nonzero()
            } else {
                pages.content.stroke()
            };
            // Words that would lie over each other stand one above the other.
            let words_y = (y - 3.5).max(lowest + STEP);
            lowest = words_y;
            write(&mut pages.content, b"F", TEXT, (x + 12.0, words_y), words);
        }
    }
    pages.y = bottom - 10.0;
}

/// The signature, or two lines for one on paper.
fn sign(pages: &mut Pages, signed: Option<&PaperEntry>) {
    const WIDE: f32 = 180.0;
    pages.room(90.0);
    match signed {
        Some(paper) => {
            pages.y -= 70.0;
            let scale = WIDE / f32::from(u16::try_from(DRAWN[0]).unwrap_or(u16::MAX));
            let y = pages.y;
            if let Some(drawn) = &paper.drawn {
                let tall = f32::from(u16::try_from(DRAWN[1]).unwrap_or(u16::MAX));
                let words: Vec<&str> = drawn.path().split(' ').collect();
                for point in words.chunks(3) {
                    let [mark, x, down] = point else { continue };
                    let place = |text: &str| text.parse::<f32>().unwrap_or(0.0);
                    let (x, y) = (MARGIN + place(x) * scale, y + (tall - place(down)) * scale);
                    if *mark == "M" {
                        pages.content.move_to(x, y)
                    } else {
                        pages.content.line_to(x, y)
                    };
                }
                pages.content.set_line_width(1.2).stroke();
            }
            pages.text(&format!("Signed by {}", paper.signed_by), b"F", TEXT, 0.0);
        }
        None => {
            pages.y -= 50.0;
            for (x, words) in [(MARGIN, "Handed over"), (MARGIN + 250.0, "Received")] {
                pages.content.set_line_width(0.7).move_to(x, pages.y).line_to(x + WIDE, pages.y).stroke();
                write(&mut pages.content, b"F", TEXT, (x, pages.y - 12.0), words);
            }
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn lines_are_no_wider_than_they_may_be_and_lose_no_letter() {
        let text = "Rear, loaded: 34 1/2 in before, 36 in after, and a word_that_is_longer_than_any_line_could_ever_be_on_paper_like_this";
        let lines = wrapped(text, 10.0, 120.0);
        for line in &lines {
            assert!(line.chars().map(|sign| advance(sign, 10.0)).sum::<f32>() <= 120.0, "{line}");
        }
        let letters = |text: &str| text.chars().filter(|sign| *sign != ' ').collect::<String>();
        assert_eq!(letters(&lines.concat()), letters(text));
    }

    #[test]
    fn what_the_font_does_not_know_is_a_question_mark_and_no_other_letter() {
        assert_eq!(encoded("3\u{a0}°±ß−Ж"), [b'3', 0xa0, 0xb0, 0xb1, 0xdf, b'-', b'?']);
    }
}
