//! The shop's sums: one textbook relation each, with what goes in, what comes out, and where it is from.
//!
//! A sum is a row in a table: its inputs, and a function from what was typed to figures. The page draws any of them.

mod attitude;
mod driveline;
mod fastening;
mod inputs;
mod leaf;
mod ride;
mod wheels;

pub(crate) use inputs::{Input, InputKind, InputValues, SumError};

use crate::view::Figure;

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
