//! A paper that was signed: what it said then, word for word, and the signature.

use std::str::FromStr;

use schemars::JsonSchema;
use serde::{Deserialize, Serialize};

/// Most lines of a paper, all its sections together.
pub const MOST_LINES: usize = 400;
/// The field that a signature is drawn in: width and height.
pub const DRAWN: [u32; 2] = [600, 160];
/// Longest signature, as text.
const LONGEST_DRAWN: usize = 24_000;

/// What is signed.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, JsonSchema)]
#[serde(rename_all = "snake_case")]
pub enum PaperWord {
    /// What it will cost, by the customer.
    Estimate,
    /// What was done, by the customer.
    Handover,
}

impl PaperWord {
    /// Its word.
    pub fn word(self) -> &'static str {
        match self {
            PaperWord::Estimate => "estimate",
            PaperWord::Handover => "handover",
        }
    }
}

/// A paper as it was signed.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct PaperEntry {
    /// What it is.
    pub paper: PaperWord,
    /// What it said.
    pub sections: Vec<PaperSection>,
    /// Who signed, in letters.
    pub signed_by: String,
    /// The signature, where it was drawn.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub drawn: Option<Drawn>,
}

/// Lines of a paper under one heading.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct PaperSection {
    /// The heading.
    pub title: String,
    /// The lines.
    pub lines: Vec<String>,
}

/// A drawn signature: strokes as a path of moves and lines between whole points of the field, `M 10 20 L 12 22 …`, and nothing else.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, JsonSchema)]
#[serde(try_from = "String", into = "String")]
pub struct Drawn(String);

impl Drawn {
    /// The path.
    pub fn path(&self) -> &str {
        &self.0
    }
}

/// What cannot be a signature.
#[derive(Debug, Clone, Copy, PartialEq, Eq, thiserror::Error)]
#[error("it is no drawn signature")]
pub struct NotDrawn;

impl FromStr for Drawn {
    type Err = NotDrawn;

    fn from_str(text: &str) -> Result<Self, NotDrawn> {
        let words: Vec<&str> = text.split_whitespace().collect();
        let point = |x: &str, y: &str| {
            let within = |text: &str, most: u32| text.parse::<u32>().is_ok_and(|at| at <= most);
            within(x, DRAWN[0]) && within(y, DRAWN[1])
        };
        let sound = words.chunks(3).all(|chunk| matches!(chunk, ["M" | "L", x, y] if point(x, y)));
        let lines = words.iter().filter(|word| **word == "L").count();
        let begins = words.first() == Some(&"M");
        if sound && begins && lines > 0 && text.len() <= LONGEST_DRAWN { Ok(Drawn(words.join(" "))) } else { Err(NotDrawn) }
    }
}

impl TryFrom<String> for Drawn {
    type Error = NotDrawn;

    fn try_from(text: String) -> Result<Self, NotDrawn> {
        text.parse()
    }
}

impl From<Drawn> for String {
    fn from(drawn: Drawn) -> Self {
        drawn.0
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_signature_is_strokes_inside_its_field_and_nothing_else() {
        assert_eq!("M 10 20 L 12  22".parse::<Drawn>().map(String::from), Ok("M 10 20 L 12 22".to_owned()));
        for none in
            ["", "M 1 1", "L 1 1 L 2 2", "M 1 1 L 601 2", "M 1 1 L 2", "M 1 1 L 2 2 Z 1 1", "M 1 1 L 2 \"/>", "M 1 1 L -2 2"]
        {
            assert_eq!(none.parse::<Drawn>(), Err(NotDrawn), "{none}");
        }
    }
}
