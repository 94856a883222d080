//! Fields as a template prints them.

use askama::Template;

use super::Sheet;

/// A field for one quantity or short text.
#[derive(Debug, Clone, Template)]
#[template(path = "parts/field.html")]
pub(crate) struct Field {
    pub(crate) name: String,
    label: String,
    text: String,
    hint: String,
    /// The unit a bare number is read in; empty for plain text.
    unit: &'static str,
    /// `length`, `weight` or `rate`: what the server reads the text as.
    reads: &'static str,
    problem: String,
    /// What is asked about it: it is not refused.
    question: String,
    on_file: String,
    /// Place in the walk round the vehicle; 0 for fields outside it.
    pub(crate) walk: usize,
    small: bool,
    /// Lines of a longer text; 0 is one that fits a box.
    lines: u8,
    /// What stands for it while it is empty.
    stand_in: String,
    /// Fields this one is held against while it is typed: `repeat`, `side` or `empty`, a colon, and the field's name.
    against: String,
}

impl askama::filters::HtmlSafe for Field {}

/// One of a few things to pick.
#[derive(Debug, Clone)]
pub(crate) struct Choice {
    pub(crate) word: String,
    pub(crate) label: String,
    pub(crate) chosen: bool,
}

/// A box to tick.
#[derive(Debug, Clone)]
pub(crate) struct Tick {
    pub(crate) name: String,
    pub(crate) label: String,
    pub(crate) ticked: bool,
}

impl Field {
    /// Whether nothing stands in it and nothing is said about it.
    pub(crate) fn is_blank(&self) -> bool {
        self.text.is_empty() && self.problem.is_empty() && self.on_file.is_empty()
    }

    /// Whether it was refused.
    pub(crate) fn has_problem(&self) -> bool {
        !self.problem.is_empty()
    }

    /// Whether something is asked about it, or it stands otherwise on file.
    pub(crate) fn is_asked_about(&self) -> bool {
        !self.question.is_empty() || !self.on_file.is_empty()
    }

    /// What it asks, with what stands in it; nothing while that is empty.
    pub(crate) fn said(&self) -> Option<String> {
        Some(format!("{} {} {}", self.label, self.text_said()?, self.unit))
    }

    /// What stands in it, if anything does.
    pub(crate) fn text_said(&self) -> Option<String> {
        (!self.text.is_empty()).then(|| self.text.clone())
    }

    pub(crate) fn hint(mut self, hint: impl Into<String>) -> Self {
        self.hint = hint.into();
        self
    }

    pub(crate) fn walk(mut self, place: usize) -> Self {
        self.walk = place;
        self
    }

    /// Held against another reading while it is typed: one of the same corner, of the other side, or of the empty state.
    pub(crate) fn against(mut self, how: &str, name: &str) -> Self {
        if !self.against.is_empty() {
            self.against.push(' ');
        }
        self.against.push_str(&format!("{how}:{name}"));
        self
    }

    /// Says in its empty box what is taken for it until it is filled.
    pub(crate) fn stand_in(mut self, words: impl Into<String>) -> Self {
        self.stand_in = words.into();
        self
    }

    /// A longer text, of several lines.
    pub(crate) fn lines(mut self, lines: u8) -> Self {
        self.lines = lines;
        self
    }

    pub(crate) fn small(mut self) -> Self {
        self.small = true;
        self
    }
}

impl Sheet {
    fn field(&self, name: &str, label: &str, unit: &'static str, reads: &'static str) -> Field {
        Field {
            name: name.to_owned(),
            label: label.to_owned(),
            text: self.text(name).to_owned(),
            hint: String::new(),
            unit,
            reads,
            problem: self.problem(name).to_owned(),
            question: self.questions.get(name).cloned().unwrap_or_default(),
            on_file: self.on_file.get(name).cloned().unwrap_or_default(),
            walk: 0,
            small: false,
            lines: 0,
            stand_in: String::new(),
            against: String::new(),
        }
    }

    pub(crate) fn text_field(&self, name: &str, label: &str) -> Field {
        self.field(name, label, "", "")
    }

    pub(crate) fn length_field(&self, name: &str, label: &str) -> Field {
        self.field(name, label, self.units.length_name(), "length")
    }

    pub(crate) fn weight_field(&self, name: &str, label: &str) -> Field {
        self.field(name, label, self.units.weight_name(), "weight")
    }

    pub(crate) fn rate_field(&self, name: &str, label: &str) -> Field {
        self.field(name, label, self.units.rate_name(), "rate")
    }

    /// A field for a plain number, in a unit that is not asked about.
    pub(crate) fn number_field(&self, name: &str, label: &str, unit: &'static str) -> Field {
        self.field(name, label, unit, "")
    }

    /// A box for a name, ticked when something stands in it.
    pub(crate) fn tick(&self, name: String, label: impl Into<String>) -> Tick {
        Tick { ticked: self.is_filled(&name), name, label: label.into() }
    }

    /// What may be picked for a name, with what is picked marked.
    pub(crate) fn choices<W: Into<String>, L: Into<String>>(
        &self,
        name: &str,
        offered: impl IntoIterator<Item = (W, L)>,
    ) -> Vec<Choice> {
        let picked = self.text(name);
        let choice = |(word, label): (W, L)| {
            let word = word.into();
            Choice { chosen: picked == word, word, label: label.into() }
        };
        offered.into_iter().map(choice).collect()
    }
}
