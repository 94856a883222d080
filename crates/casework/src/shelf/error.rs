//! Why a file is no shelf, and which of its rows are no parts.

use super::{FORMAT, VERSION};
use crate::entry::ShelfPart;

/// Why a whole file is not read.
#[derive(Debug, Clone, PartialEq, Eq, thiserror::Error)]
#[non_exhaustive]
pub enum ShelfFileError {
    /// It is larger than any shelf.
    #[error("this is larger than 16 MB, or has more than 20,000 parts, which no shelf has")]
    TooLarge,
    /// It is no JSON at all.
    #[error("this is not JSON text: from line {0} on it cannot be read")]
    NotJson(usize),
    /// It is none of ours, or of another version.
    #[error("this is not a {FORMAT} document of version {VERSION}: it says “{0}”, version {1}")]
    Other(String, u32),
    /// A table without the columns that every part has.
    #[error("the first line names the columns, and “{0}” is none of them")]
    NoColumn(&'static str),
    /// A column that no shelf has.
    #[error("there is no column “{0}”; leave it out, or see the file that the shelf gives out")]
    Column(String),
    /// A column is there twice.
    #[error("the column “{0}” is there twice")]
    Twice(String),
    /// The bytes make no table.
    #[error("from line {0} on this is no table of values set apart by commas")]
    NotATable(u64),
    /// A table that cannot be written.
    #[error("the shelf cannot be written as a table: {0}")]
    NotWritten(String),
}

/// What is in a file: the parts that can be taken in, each with its row, and what is wrong with the others.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct ReadShelf {
    /// The parts, each with the row it stands in: the line of a table, the place in a document from 1.
    pub parts: Vec<(usize, ShelfPart)>,
    /// What cannot be taken in.
    pub wrong: Vec<RowError>,
}

/// What is wrong with a part of a file: which one it is, its number, the field or column, and what is wrong there.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct RowError {
    /// The line of the table, its heading counted; the place in the document, from 1.
    pub row: usize,
    /// The part's number, where it has one.
    pub number: String,
    /// The field or the column.
    pub at: String,
    /// What is wrong, in a sentence.
    pub what: String,
}
