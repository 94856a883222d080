//! A figure that can be opened to show its sum.

use askama::Template;

/// What a figure asks of the reader; told by shape and words first, by colour second.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) enum Tone {
    Plain,
    /// Within the aim, or with room to spare.
    Good,
    /// Within the aim by more than half, and not all of it.
    Part,
    /// Act here.
    Act,
}

impl Tone {
    /// What styles know it by.
    pub(crate) fn class(self) -> &'static str {
        match self {
            Tone::Plain => "",
            Tone::Good => "is-good",
            Tone::Part => "is-part",
            Tone::Act => "is-act",
        }
    }
}

/// One figure, with the sum it came from.
#[derive(Debug, Clone, Template)]
#[template(path = "parts/figure.html")]
pub(crate) struct Figure {
    pub(crate) label: String,
    pub(crate) value: String,
    pub(crate) note: String,
    pub(crate) tone: Tone,
    pub(crate) sum: Sum,
}

impl askama::filters::HtmlSafe for Figure {}

/// A figure in a table's cell, which opens there where there is a sum behind it.
#[derive(Debug, Clone, Template)]
#[template(path = "parts/opened.html")]
pub(crate) struct Opened {
    pub(crate) value: String,
    sum: Option<Sum>,
}

impl askama::filters::HtmlSafe for Opened {}

impl Opened {
    /// A figure with the sum it came from.
    pub(crate) fn new(value: impl Into<String>, sum: Sum) -> Self {
        Opened { value: value.into(), sum: Some(sum) }
    }

    /// What was read, or cannot be said: there is no sum to it.
    pub(crate) fn plain(value: impl Into<String>) -> Self {
        Opened { value: value.into(), sum: None }
    }
}

/// How a figure was worked out.
#[derive(Debug, Clone)]
pub(crate) struct Sum {
    /// The formula, in words.
    pub(crate) formula: &'static str,
    /// What was put in, a line each, and what came out.
    pub(crate) numbers: Vec<String>,
    /// How sure it is.
    pub(crate) doubt: String,
    pub(crate) source: &'static str,
}

impl Figure {
    pub(crate) fn new(label: impl Into<String>, value: impl Into<String>, sum: Sum) -> Self {
        Figure { label: label.into(), value: value.into(), note: String::new(), tone: Tone::Plain, sum }
    }

    pub(crate) fn note(mut self, note: impl Into<String>) -> Self {
        self.note = note.into();
        self
    }

    pub(crate) fn tone(mut self, tone: Tone) -> Self {
        self.tone = tone;
        self
    }

    fn tone_class(&self) -> &'static str {
        self.tone.class()
    }
}

impl Sum {
    pub(crate) fn new(formula: &'static str, numbers: Vec<String>, source: &'static str) -> Self {
        Sum { formula, numbers, doubt: String::new(), source }
    }

    pub(crate) fn doubt(mut self, doubt: impl Into<String>) -> Self {
        self.doubt = doubt.into();
        self
    }
}
