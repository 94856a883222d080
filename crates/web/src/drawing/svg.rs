//! Writing SVG. Every text and attribute value is escaped here, so that a drawing may mark itself safe.

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

/// To a hundredth of a unit: finer than a screen shows.
fn figure(value: f64) -> String {
    let text = format!("{value:.2}");
    text.trim_end_matches('0').trim_end_matches('.').to_owned()
}

fn escaped(text: &str) -> String {
    text.replace('&', "&amp;").replace('<', "&lt;").replace('>', "&gt;").replace('"', "&quot;")
}

impl Canvas {
    pub(crate) fn new() -> Self {
        Canvas { body: String::new(), top: f64::INFINITY, bottom: f64::NEG_INFINITY }
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
        let (x1, y1, x2, y2) = (figure(from.0), figure(from.1), figure(to.0), figure(to.1));
        self.put(format_args!(r#"<line class="{class}" x1="{x1}" y1="{y1}" x2="{x2}" y2="{y2}"/>"#));
    }

    pub(crate) fn rect(&mut self, class: &str, (x, y): (f64, f64), (width, height): (f64, f64)) {
        self.reach(y);
        let (x, y, width, height) = (figure(x), figure(y), figure(width.max(0.0)), figure(height.max(0.0)));
        self.put(format_args!(r#"<rect class="{class}" x="{x}" y="{y}" width="{width}" height="{height}"/>"#));
    }

    pub(crate) fn circle(&mut self, class: &str, (x, y): (f64, f64), radius: f64) {
        self.reach(y - radius);
        let (x, y, radius) = (figure(x), figure(y), figure(radius));
        self.put(format_args!(r#"<circle class="{class}" cx="{x}" cy="{y}" r="{radius}"/>"#));
    }

    pub(crate) fn polygon(&mut self, class: &str, points: &[(f64, f64)]) {
        points.iter().for_each(|point| self.reach(point.1));
        let points: Vec<String> = points.iter().map(|(x, y)| format!("{},{}", figure(*x), figure(*y))).collect();
        self.put(format_args!(r#"<polygon class="{class}" points="{}"/>"#, points.join(" ")));
    }

    pub(crate) fn text(&mut self, class: &str, (x, y): (f64, f64), anchor: Anchor, text: &str) {
        self.reach(y);
        let anchor = match anchor {
            Anchor::Start => "start",
            Anchor::Middle => "middle",
            Anchor::End => "end",
        };
        let (x, y, text) = (figure(x), figure(y), escaped(text));
        self.put(format_args!(r#"<text class="{class}" x="{x}" y="{y}" text-anchor="{anchor}">{text}</text>"#));
    }

    /// A hatching to fill bands with, under a name of its own.
    pub(crate) fn hatching(&mut self, id: &str) {
        self.put(format_args!(
            r#"<defs><pattern id="{id}" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)"><line class="hatch" x1="0" y1="0" x2="0" y2="6"/></pattern></defs>"#
        ));
    }

    /// A rectangle filled with a hatching.
    pub(crate) fn hatched(&mut self, class: &str, hatching: &str, (x, y): (f64, f64), (width, height): (f64, f64)) {
        self.reach(y);
        let (x, y, width, height) = (figure(x), figure(y), figure(width), figure(height.max(0.0)));
        self.put(format_args!(
            r##"<rect class="{class}" fill="url(#{hatching})" x="{x}" y="{y}" width="{width}" height="{height}"/>"##
        ));
    }

    /// The finished SVG element, with its name and what it says for those who cannot see it.
    pub(crate) fn finish(self, id: &str, class: &str, width: f64, title: &str, description: &str) -> Drawing {
        let top = (self.top - HEADROOM).floor();
        let (width, height, top) = (figure(width), figure((self.bottom + FOOTROOM).ceil() - top), figure(top));
        let (title, description) = (escaped(title), escaped(description));
        Drawing(format!(
            r#"<svg id="{id}" class="{class}" viewBox="0 {top} {width} {height}" role="img" aria-labelledby="{id}-t {id}-d"><title id="{id}-t">{title}</title><desc id="{id}-d">{description}</desc>{}</svg>"#,
            self.body
        ))
    }
}
