//! The shop's sums: one textbook relation each, with what goes in, what comes out, and where it is from.
//!
//! A sum is a row in a table: its inputs, and a function from what was typed to figures. The page draws any of them.

mod attitude;
mod driveline;
mod fastening;
mod from_job;
mod inputs;
mod leaf;
mod ride;
mod wheels;

pub(crate) use from_job::fill;
pub(crate) use inputs::{Input, InputKind, InputValues, SumError};

use std::collections::BTreeSet;

use crate::form::{Sheet, asked_by_address};
use crate::view::{Figure, Units};

/// One sum.
pub(crate) struct ShopSum {
    /// Its word in the address.
    pub(crate) word: &'static str,
    /// What it is called.
    pub(crate) name: &'static str,
    /// What it answers, in a sentence.
    pub(crate) about: &'static str,
    /// What it is given.
    pub(crate) inputs: &'static [Input],
    /// Works it out.
    pub(crate) work: fn(&InputValues) -> Result<Vec<Figure>, SumError>,
}

/// Every sum, by what it is about, in the order they are listed.
pub(crate) const GROUPS: [(&str, &[ShopSum]); 6] = [
    ("Wheels and datums", &wheels::SUMS),
    ("Frame and weights", &attitude::SUMS),
    ("Driveline and joints", &driveline::SUMS),
    ("Leaf ends", &leaf::SUMS),
    ("Bolts and stands", &fastening::SUMS),
    ("Springs and travel", &ride::SUMS),
];

/// The sum of a word.
pub(crate) fn find(word: &str) -> Option<&'static ShopSum> {
    GROUPS.iter().flat_map(|(_, sums)| sums.iter()).find(|sum| sum.word == word)
}

/// A sum as it was asked: the form as it stands, and what it comes to or why it comes to nothing.
pub(crate) struct Answer {
    pub(crate) sheet: Sheet,
    pub(crate) figures: Vec<Figure>,
    pub(crate) problem: String,
}

impl Answer {
    /// Whether it has one.
    pub(crate) fn is_there(&self) -> bool {
        !self.figures.is_empty()
    }
}

/// The field that says which job a sum is asked for.
pub(crate) const JOB: &str = "job";

/// Whether anything is asked, and not the sum only opened.
pub(crate) fn is_asked(typed: &[(String, String)]) -> bool {
    typed.iter().any(|(name, _)| name != JOB)
}

/// Works out a sum from what was typed, for a reader's units; asked nothing, it has no answer and stands with what is usual.
pub(crate) fn answer(sum: &ShopSum, typed: Vec<(String, String)>, reader: Units) -> Answer {
    let named: BTreeSet<String> = typed.iter().map(|(name, _)| name.clone()).collect();
    let asked = is_asked(&typed);
    let mut sheet = Sheet::posted(asked_by_address(typed), reader);
    // An address of before an input came in asks with what is usual.
    for input in sum.inputs.iter().filter(|input| !input.usual.is_empty() && !named.contains(input.name)) {
        sheet.set(input.name, input.usual);
    }
    let given = if asked { InputValues::read(sum.inputs, &mut sheet, reader) } else { None };
    let (figures, problem) = match given.map(|given| (sum.work)(&given)) {
        None => (Vec::new(), String::new()),
        Some(Ok(figures)) => (figures, String::new()),
        Some(Err(error)) => (Vec::new(), error.words(reader)),
    };
    Answer { sheet, figures, problem }
}
