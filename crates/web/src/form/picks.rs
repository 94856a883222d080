//! One of a few things to pick, with what each of them asks further.

use std::fmt;

use askama::Template;

use super::Sheet;
use super::field::{Choice, Field};

/// A row of things of which one is picked, and what is wrong with the pick.
#[derive(Debug, Clone, Template)]
#[template(path = "parts/picks.html")]
pub(crate) struct Picks {
    name: String,
    legend: String,
    /// Whether the legend is for those alone who hear the page.
    quiet: bool,
    /// One under the other instead of side by side.
    tall: bool,
    pub(crate) choices: Vec<Pick>,
    problem: String,
}

impl askama::filters::HtmlSafe for Picks {}

/// One of the things, and what is asked while it is picked.
#[derive(Debug, Clone)]
pub(crate) struct Pick {
    pub(crate) choice: Choice,
    parts: Vec<Part>,
    /// What stands over the row that begins with it; nothing where it goes on with the one before.
    heading: &'static str,
    /// What styles know it by, where something else on the page shows only while it is picked.
    mark: &'static str,
}

/// Some of them in a row of their own.
struct PickRow<'a> {
    /// What the row is folded away under; nothing where it stands open.
    heading: &'static str,
    /// Whether it is unfolded: one of them is picked.
    open: bool,
    picks: Vec<&'a Pick>,
}

/// A part of a form.
#[derive(Debug, Clone)]
pub(crate) enum Part {
    Field(Field),
    Picks(Picks),
    /// Where the way leads on, while there is nothing to pick or to fill in here.
    Lead {
        words: &'static str,
        href: String,
        link: &'static str,
    },
}

impl fmt::Display for Part {
    fn fmt(&self, formatter: &mut fmt::Formatter<'_>) -> fmt::Result {
        match self {
            Part::Field(field) => field.fmt(formatter),
            Part::Picks(picks) => picks.fmt(formatter),
            Part::Lead { words, href, link } => write!(formatter, "<p class=\"hint\">{words} <a href=\"{href}\">{link}</a></p>"),
        }
    }
}

impl askama::filters::HtmlSafe for Part {}

impl From<Field> for Part {
    fn from(field: Field) -> Self {
        Part::Field(field)
    }
}

impl From<Picks> for Part {
    fn from(picks: Picks) -> Self {
        Part::Picks(picks)
    }
}

impl Pick {
    /// What its input is known by on the page: no space may stand in that.
    fn id(&self, name: &str) -> String {
        format!("{name}-{}", self.choice.word.replace(' ', "_"))
    }
}

impl Picks {
    /// The legend is for those alone who hear the page.
    pub(crate) fn quiet(self) -> Self {
        Picks { quiet: true, ..self }
    }

    /// One under the other.
    pub(crate) fn tall(self) -> Self {
        Picks { tall: true, ..self }
    }

    /// What is asked while one of them is picked.
    pub(crate) fn asks(mut self, word: &str, parts: impl IntoIterator<Item = Part>) -> Self {
        if let Some(pick) = self.choices.iter_mut().find(|pick| pick.choice.word == word) {
            pick.parts.extend(parts);
        }
        self
    }

    /// Row by row; all in one where none has a heading.
    fn rows(&self) -> Vec<PickRow<'_>> {
        let mut rows: Vec<PickRow<'_>> = Vec::new();
        for pick in &self.choices {
            match rows.last_mut().filter(|_| pick.heading.is_empty()) {
                Some(row) => {
                    row.open |= pick.choice.chosen;
                    row.picks.push(pick);
                }
                None => rows.push(PickRow { heading: pick.heading, open: pick.choice.chosen, picks: vec![pick] }),
            }
        }
        rows
    }

    /// Begins a row of their own under a heading with one of them.
    pub(crate) fn under(mut self, word: &str, heading: &'static str) -> Self {
        if let Some(pick) = self.choices.iter_mut().find(|pick| pick.choice.word == word) {
            pick.heading = heading;
        }
        self
    }

    /// Marks those that something else on the page waits for.
    pub(crate) fn marked(mut self, mark: &'static str, which: impl Fn(&str) -> bool) -> Self {
        self.choices.iter_mut().filter(|pick| which(&pick.choice.word)).for_each(|pick| pick.mark = mark);
        self
    }

    /// Whether nothing but one of them is picked, and nothing is said about it.
    pub(crate) fn is_only(&self, word: &str) -> bool {
        let others = self.choices.iter().any(|pick| pick.choice.chosen && pick.choice.word != word);
        self.problem.is_empty() && !others
    }

    /// Whether it was refused.
    pub(crate) fn has_problem(&self) -> bool {
        !self.problem.is_empty()
    }

    /// Picks the first where none is picked.
    pub(crate) fn or_first(mut self) -> Self {
        if !self.choices.iter().any(|pick| pick.choice.chosen)
            && let Some(first) = self.choices.first_mut()
        {
            first.choice.chosen = true;
        }
        self
    }
}

impl Sheet {
    /// A row of picks under a name.
    pub(crate) fn picks<W: Into<String>, L: Into<String>>(
        &self,
        name: &str,
        legend: &str,
        offered: impl IntoIterator<Item = (W, L)>,
    ) -> Picks {
        let choices =
            self.choices(name, offered).into_iter().map(|choice| Pick { choice, parts: Vec::new(), heading: "", mark: "" });
        let (name, legend) = (name.to_owned(), legend.to_owned());
        Picks { problem: self.problem(&name).to_owned(), name, legend, quiet: false, tall: false, choices: choices.collect() }
    }
}
