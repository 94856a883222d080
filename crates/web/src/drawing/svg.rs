//! Writing SVG. Every text and attribute value is escaped here, so that a drawing may mark itself safe.

use std::borrow::Cow;
use std::fmt::{self, Display, Write as _};

/// A finished drawing.
#[derive(Debug, Clone)]
pub(crate) struct Drawing(String);

impl Display for Drawing {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        f.write_str(&self.0)
    }
}

impl askama::filters::HtmlSafe for Drawing {}

/// A drawing being written. It is as tall as what is put on it.
pub(crate) struct Canvas {
    body: String,
    top: f64,
    bottom: f64,
}

/// Left free above the highest thing, where a line of text has its own height.
const HEADROOM: f64 = 14.0;
/// Left free below the lowest.
const FOOTROOM: f64 = 8.0;

/// Where a text is held.
#[derive(Clone, Copy)]
pub(crate) enum Anchor {
    Start,
    Middle,
    End,
}

/// What a drawing comes to, in bytes: asked for at once, it is not copied while it grows.
const USUAL_SIZE: usize = 16 * 1024;

/// Digits, point and sign of any coordinate.
const MOST_DIGITS: usize = 24;

/// A coordinate, to a hundredth of a unit: finer than a screen shows. A page draws some hundreds of them.
struct Coordinate(f64);

impl Display for Coordinate {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        #[expect(clippy::cast_possible_truncation, reason = "drawings are some hundreds of units wide; what is not saturates")]
        let hundredths = (self.0 * 100.0).round() as i64;
        let (mut written, mut from, mut left) = ([0_u8; MOST_DIGITS], MOST_DIGITS, hundredths.unsigned_abs());
        let mut put = |sign: u8| {
            from -= 1;
            if let Some(place) = written.get_mut(from) {
                *place = sign;
            }
        };
        // From its end, without the zeros that would stand last behind the point.
        let mut behind_the_point = false;
        for place in 0..MOST_DIGITS {
            if place == 2 && behind_the_point {
                put(b'.');
            }
            if place > 2 && left == 0 {
                break;
            }
            let digit = (left % 10) as u8;
            left /= 10;
            behind_the_point |= digit > 0;
            if place >= 2 || behind_the_point {
                put(b'0' + digit);
            }
        }
        if hundredths < 0 {
            put(b'-');
        }
        f.write_str(str::from_utf8(written.get(from..).unwrap_or_default()).unwrap_or_default())
    }
}

fn escaped(text: &str) -> Cow<'_, str> {
    if !text.contains(['&', '<', '>', '"']) {
        return Cow::Borrowed(text);
    }
    let text = text.replace('&', "&amp;").replace('<', "&lt;").replace('>', "&gt;").replace('"', "&quot;");
    Cow::Owned(text)
}

impl Canvas {
    pub(crate) fn new() -> Self {
        Canvas { body: String::with_capacity(USUAL_SIZE), top: f64::INFINITY, bottom: f64::NEG_INFINITY }
    }

    fn reach(&mut self, y: f64) {
        self.top = self.top.min(y);
        self.bottom = self.bottom.max(y);
    }

    fn put(&mut self, arguments: fmt::Arguments<'_>) {
        // Writing to a string cannot fail.
        let _ = self.body.write_fmt(arguments);
    }

    pub(crate) fn line(&mut self, class: &str, from: (f64, f64), to: (f64, f64)) {
        self.reach(from.1.min(to.1));
        let (x1, y1, x2, y2) = (Coordinate(from.0), Coordinate(from.1), Coordinate(to.0), Coordinate(to.1));
        self.put(format_args!(r#"<line class="{class}" x1="{x1}" y1="{y1}" x2="{x2}" y2="{y2}"/>"#));
    }

    pub(crate) fn rect(&mut self, class: &str, (x, y): (f64, f64), (width, height): (f64, f64)) {
        self.reach(y);
        let (x, y, width, height) = (Coordinate(x), Coordinate(y), Coordinate(width.max(0.0)), Coordinate(height.max(0.0)));
        self.put(format_args!(r#"<rect class="{class}" x="{x}" y="{y}" width="{width}" height="{height}"/>"#));
    }

    pub(crate) fn circle(&mut self, class: &str, (x, y): (f64, f64), radius: f64) {
        self.reach(y - radius);
        let (x, y, radius) = (Coordinate(x), Coordinate(y), Coordinate(radius));
        self.put(format_args!(r#"<circle class="{class}" cx="{x}" cy="{y}" r="{radius}"/>"#));
    }

    pub(crate) fn polygon(&mut self, class: &str, points: &[(f64, f64)]) {
        points.iter().for_each(|point| self.reach(point.1));
        self.put(format_args!(r#"<polygon class="{class}" points=""#));
        for (x, y) in points {
            self.put(format_args!("{},{} ", Coordinate(*x), Coordinate(*y)));
        }
        self.put(format_args!(r#""/>"#));
    }

    pub(crate) fn text(&mut self, class: &str, (x, y): (f64, f64), anchor: Anchor, text: &str) {
        self.reach(y);
        let anchor = match anchor {
            Anchor::Start => "start",
            Anchor::Middle => "middle",
            Anchor::End => "end",
        };
        let (x, y, text) = (Coordinate(x), Coordinate(y), escaped(text));
        self.put(format_args!(r#"<text class="{class}" x="{x}" y="{y}" text-anchor="{anchor}">{text}</text>"#));
    }

    /// Begins a part that can be taken hold of: by the pointer, or by the keyboard once it has the focus.
    pub(crate) fn begin_handle(&mut self, class: &str, key: usize, name: &str) {
        let name = escaped(name);
        self.put(format_args!(r#"<g class="{class}" data-handle="{key}" tabindex="0" role="button" aria-label="{name}">"#));
    }

    /// Ends it.
    pub(crate) fn end_handle(&mut self) {
        self.body.push_str("</g>");
    }

    /// Begins a part that leads somewhere.
    pub(crate) fn begin_link(&mut self, href: &str, name: &str) {
        let (href, name) = (escaped(href), escaped(name));
        self.put(format_args!(r#"<a href="{href}" aria-label="{name}"><title>{name}</title>"#));
    }

    /// Ends it.
    pub(crate) fn end_link(&mut self) {
        self.body.push_str("</a>");
    }

    /// A hatching to fill bands with, under a name of its own.
    pub(crate) fn hatching(&mut self, id: &str) {
        self.put(format_args!(
            r#"<defs><pattern id="{id}" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)"><line class="hatch" x1="0" y1="0" x2="0" y2="6"/></pattern></defs>"#
        ));
    }

    /// Upright stripes so far apart to fill leaves with, under a name of their own.
    pub(crate) fn stripes(&mut self, id: &str, apart: f64) {
        let (apart, end) = (Coordinate(apart), Coordinate(apart / 2.0));
        self.put(format_args!(
            r#"<defs><pattern id="{id}" width="{apart}" height="4" patternUnits="userSpaceOnUse"><rect class="stripe-ground" width="{apart}" height="4"/><rect class="stripe" width="{end}" height="4"/></pattern></defs>"#
        ));
    }

    /// A polygon filled with stripes.
    pub(crate) fn striped(&mut self, class: &str, stripes: &str, points: &[(f64, f64)]) {
        points.iter().for_each(|point| self.reach(point.1));
        self.put(format_args!(r##"<polygon class="{class}" fill="url(#{stripes})" points=""##));
        for (x, y) in points {
            self.put(format_args!("{},{} ", Coordinate(*x), Coordinate(*y)));
        }
        self.put(format_args!(r#""/>"#));
    }

    /// A rectangle filled with a hatching.
    pub(crate) fn hatched(&mut self, class: &str, hatching: &str, (x, y): (f64, f64), (width, height): (f64, f64)) {
        self.reach(y);
        let (x, y, width, height) = (Coordinate(x), Coordinate(y), Coordinate(width), Coordinate(height.max(0.0)));
        self.put(format_args!(
            r##"<rect class="{class}" fill="url(#{hatching})" x="{x}" y="{y}" width="{width}" height="{height}"/>"##
        ));
    }

    /// The finished SVG element with handles in it, which so many units make a metre of.
    pub(crate) fn finish_with_handles(self, id: &str, class: &str, width: f64, per_metre: f64, title: &str) -> Drawing {
        let top = (self.top - HEADROOM).floor();
        let (width, height, top) = (Coordinate(width), Coordinate((self.bottom + FOOTROOM).ceil() - top), Coordinate(top));
        let (title, per_metre) = (escaped(title), Coordinate(per_metre));
        Drawing(format!(
            r#"<svg id="{id}" class="{class}" viewBox="0 {top} {width} {height}" role="group" aria-label="{title}" data-per-metre="{per_metre}">{}</svg>"#,
            self.body
        ))
    }

    /// The finished SVG element with links in it.
    pub(crate) fn finish_with_links(self, id: &str, class: &str, width: f64, title: &str) -> Drawing {
        let top = (self.top - HEADROOM).floor();
        let (width, height, top) = (Coordinate(width), Coordinate((self.bottom + FOOTROOM).ceil() - top), Coordinate(top));
        let title = escaped(title);
        Drawing(format!(
            r#"<svg id="{id}" class="{class}" viewBox="0 {top} {width} {height}" role="group" aria-label="{title}">{}</svg>"#,
            self.body
        ))
    }

    /// The finished SVG element, with its name and what it says for those who cannot see it.
    pub(crate) fn finish(self, id: &str, class: &str, width: f64, title: &str, description: &str) -> Drawing {
        let top = (self.top - HEADROOM).floor();
        let (width, height, top) = (Coordinate(width), Coordinate((self.bottom + FOOTROOM).ceil() - top), Coordinate(top));
        let (title, description) = (escaped(title), escaped(description));
        Drawing(format!(
            r#"<svg id="{id}" class="{class}" viewBox="0 {top} {width} {height}" role="img" aria-labelledby="{id}-t {id}-d"><title id="{id}-t">{title}</title><desc id="{id}-d">{description}</desc>{}</svg>"#,
            self.body
        ))
    }
}

#[cfg(test)]
mod tests {
    use proptest::prelude::*;

    use super::{Anchor, Canvas, Coordinate};

    #[test]
    fn coordinates_are_written_to_a_hundredth_without_idle_noughts() {
        for (value, text) in
            [(3.0, "3"), (-0.004, "0"), (-0.5, "-0.5"), (12.345, "12.35"), (-7.25, "-7.25"), (0.1, "0.1"), (99.999, "100")]
        {
            assert_eq!(Coordinate(value).to_string(), text);
        }
    }

    proptest! {
        #[test]
        fn a_coordinate_reads_back_to_within_half_a_hundredth(value in -1e6..1e6) {
            let text = Coordinate(value).to_string();
            let back: f64 = text.parse().expect("a number");
            prop_assert!((back - value).abs() <= 0.005 + 1e-9, "{value} as {text}");
            prop_assert!(!(text.contains('.') && text.ends_with('0')), "{text}");
        }
    }

    #[test]
    fn a_text_cannot_break_out_of_the_drawing() {
        let mut canvas = Canvas::new();
        canvas.text("a", (1.0, 2.0), Anchor::Start, "<script> & \"more\"");
        let drawing = canvas.finish("id", "class", 10.0, "t", "d").to_string();
        assert!(drawing.contains("&lt;script&gt; &amp; &quot;more&quot;"), "{drawing}");
        assert!(drawing.contains(r#"viewBox="0 -12 10 22""#), "{drawing}");
    }
}
