//! The open documents of an option, `wise-badger/option`, of what it would do to a job, `wise-badger/prediction`, and of all that a shelf
//! has for one, `wise-badger/options-result`.

mod changes;
mod error;
mod from_shelf;
mod options_result;
mod result;

pub use error::OptionDocumentError;
pub use options_result::OptionsResult;
pub use result::PredictionDocument;

use schemars::{JsonSchema, Schema, schema_for};
use serde::{Deserialize, Serialize};
use serde_json::error::Category;

use crate::entry::{OptionEntry, PartEntry, WhenEntry};
use crate::job_document::{JobDocumentError, plain, quantities};
use crate::words::Word as _;

/// What the document calls itself.
pub const FORMAT: &str = "wise-badger/option";
/// Its version.
pub const VERSION: u32 = 1;
/// The largest document that is read, in bytes.
const LARGEST: usize = 262_144;

/// Parts that would be fitted together.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct OptionDocument {
    /// `wise-badger/option`.
    pub format: String,
    /// 1.
    pub version: u32,
    /// What the shop calls it; it goes by its parts where that is empty.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub name: String,
    /// Its parts, in the order put together.
    pub parts: Vec<PartEntry>,
}

/// The document's own head, read before anything else of it.
#[derive(Deserialize)]
struct Head {
    #[serde(default)]
    format: String,
    #[serde(default)]
    version: u32,
}

impl OptionDocument {
    /// Reads a document.
    ///
    /// # Errors     [`OptionDocumentError`], naming the field that is not understood
    pub fn read(text: &str) -> Result<Self, OptionDocumentError> {
        if text.len() > LARGEST {
            return Err(OptionDocumentError::TooLarge);
        }
        // Some editors put a mark of the encoding before a text.
        let text = text.trim_start_matches('\u{feff}');
        let head: Head = serde_json::from_str(text).map_err(|error| match error.classify() {
            Category::Data => wrong("the document", plain(&error)),
            _ => OptionDocumentError::NotJson(error.line()),
        })?;
        if head.format != FORMAT || head.version != VERSION {
            return Err(OptionDocumentError::Other(head.format, head.version));
        }
        let mut deserializer = serde_json::Deserializer::from_str(text);
        let document: OptionDocument = serde_path_to_error::deserialize(&mut deserializer)
            .map_err(|error| wrong(error.path().to_string(), plain(error.inner())))?;
        let whole = serde_json::from_str(text).map_err(|error| wrong("the document", plain(&error)))?;
        quantities(&whole, "").map_err(|error| match error {
            JobDocumentError::NotUnderstood { at, what } => wrong(at, what),
            other => wrong("the document", other.to_string()),
        })?;
        match document.option().problem() {
            Some((at, what)) => Err(wrong(at, what)),
            None => Ok(document),
        }
    }

    /// As an option of a job.
    fn option(&self) -> OptionEntry {
        OptionEntry { name: self.name.clone(), parts: self.parts.clone() }
    }

    /// The first setting for a state or a case that is none of some, with the path of its field.
    fn set_elsewhere(&self, whens: &[WhenEntry]) -> Option<OptionDocumentError> {
        let settings = self.parts.iter().enumerate().flat_map(|(part, of)| {
            of.settings
                .iter()
                .enumerate()
                .map(move |(index, setting)| (format!("parts[{part}].settings[{index}].when"), setting.when))
        });
        settings.into_iter().find(|(_, when)| !whens.contains(when)).map(|(at, when)| {
            let when = match when {
                WhenEntry::State(state) => format!("state “{}” to be read in", state.word()),
                WhenEntry::Case(case) => format!("case {case} to be predicted in"),
            };
            wrong(at, format!("the job has no {when}"))
        })
    }

    /// Its JSON Schema.
    pub fn schema() -> Schema {
        schema_for!(OptionDocument)
    }
}

fn wrong(at: impl Into<String>, what: impl Into<String>) -> OptionDocumentError {
    OptionDocumentError::NotUnderstood { at: at.into(), what: what.into() }
}
