//! The open document of a shelf, `wise-badger/shelf`.

use std::collections::HashMap;

use schemars::{JsonSchema, Schema, schema_for};
use serde::{Deserialize, Serialize};
use serde_json::Value;
use serde_json::error::Category;

use super::error::{ReadShelf, RowError, ShelfFileError};
use super::{FORMAT, LARGEST, MOST_PARTS, VERSION};
use crate::entry::ShelfPart;
use crate::job_document::{JobDocumentError, plain, quantities};

/// The parts of a shop.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct ShelfDocument {
    /// `wise-badger/shelf`.
    pub format: String,
    /// 1.
    pub version: u32,
    /// Its parts, each with a number of its own.
    pub parts: Vec<ShelfPart>,
}

/// The same with every part still to be read by itself, so that one that is none does not spoil the others.
#[derive(Deserialize)]
struct Loose {
    #[serde(default)]
    format: String,
    #[serde(default)]
    version: u32,
    #[serde(default)]
    parts: Vec<Value>,
}

impl ShelfDocument {
    /// Of some parts.
    pub fn new(parts: Vec<ShelfPart>) -> Self {
        ShelfDocument { format: FORMAT.to_owned(), version: VERSION, parts }
    }

    /// Reads a document: the parts that can be taken in, each with its place from 1, and what is wrong with the others.
    ///
    /// # Errors     [`ShelfFileError`] where it is no shelf at all
    pub fn read(text: &str) -> Result<ReadShelf, ShelfFileError> {
        if text.len() > LARGEST {
            return Err(ShelfFileError::TooLarge);
        }
        // Some editors put a mark of the encoding before a text.
        let text = text.trim_start_matches('\u{feff}');
        let loose: Loose = serde_json::from_str(text).map_err(|error| match error.classify() {
            Category::Data => ShelfFileError::Other(String::new(), 0),
            _ => ShelfFileError::NotJson(error.line()),
        })?;
        if loose.format != FORMAT || loose.version != VERSION {
            return Err(ShelfFileError::Other(loose.format, loose.version));
        }
        if loose.parts.len() > MOST_PARTS {
            return Err(ShelfFileError::TooLarge);
        }
        let mut wrong = Vec::new();
        let mut parts = Vec::with_capacity(loose.parts.len());
        for (row, value) in (1..).zip(loose.parts) {
            match read_part(&value) {
                Ok(part) => parts.push((row, part)),
                Err((at, what)) => {
                    let number = value.get("number").and_then(Value::as_str).unwrap_or_default().to_owned();
                    wrong.push(RowError { row, number, at, what });
                }
            }
        }
        Ok(refuse_twins(ReadShelf { parts, wrong }))
    }

    /// Its JSON Schema.
    pub fn schema() -> Schema {
        schema_for!(ShelfDocument)
    }
}

fn read_part(value: &Value) -> Result<ShelfPart, (String, String)> {
    let part: ShelfPart =
        serde_path_to_error::deserialize(value).map_err(|error| (error.path().to_string(), plain(error.inner())))?;
    quantities(value, "").map_err(|error| match error {
        JobDocumentError::NotUnderstood { at, what } => (at, what),
        other => ("the part".to_owned(), other.to_string()),
    })?;
    match part.problem() {
        Some((at, problem)) => Err((at, problem.to_string())),
        None => Ok(part),
    }
}

/// Leaves out every part whose number another one of the file has.
pub(super) fn refuse_twins(read: ReadShelf) -> ReadShelf {
    let ReadShelf { parts, mut wrong } = read;
    let mut rows: HashMap<String, Vec<usize>> = HashMap::new();
    for (row, part) in &parts {
        rows.entry(same_number(&part.number)).or_default().push(*row);
    }
    let others = |row: usize, part: &ShelfPart| -> Vec<String> {
        let of_number = rows.get(&same_number(&part.number)).map(Vec::as_slice).unwrap_or_default();
        of_number.iter().filter(|other| **other != row).map(ToString::to_string).collect()
    };
    let (single, twins): (Vec<_>, Vec<_>) = parts.into_iter().partition(|(row, part)| others(*row, part).is_empty());
    wrong.extend(twins.into_iter().map(|(row, part)| {
        let others = others(row, &part).join(", ");
        let what = format!("the number “{}” is also in row {others}: a number is one part's", part.number);
        RowError { row, number: part.number, at: "number".to_owned(), what }
    }));
    wrong.sort_by_key(|wrong| wrong.row);
    ReadShelf { parts: single, wrong }
}

/// What two numbers have alike that are one: capitals and blanks at the ends do not tell parts apart.
pub(super) fn same_number(number: &str) -> String {
    number.trim().to_lowercase()
}
