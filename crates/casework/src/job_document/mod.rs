//! The open document of a job, `wise-badger/job`: all that a job knows, as typed and as read.

mod check;
mod content;
mod error;
mod readings;

pub use content::{FORMAT, JobDocument, PaperContent, ReadingContent, TickContent, VERSION, VehicleContent, WordOf};
pub use error::JobDocumentError;
pub use readings::readings_csv;

use serde::Deserialize;
use serde_json::error::Category;

use check::check;
pub(crate) use check::quantities;
use error::wrong;

/// What each later version brought, by its place: a document of an earlier one has none of it. A `*` is every row of a list.
const BROUGHT: [(u32, &str); 9] = [
    (2, "proof"),
    (2, "sums"),
    (2, "bench.right"),
    (2, "bench.found.overload"),
    (2, "bench.planned.overload"),
    (3, "promise.marks.*.height.tape_band_m"),
    (4, "work_plan"),
    (4, "ticks"),
    (4, "papers"),
];
/// The largest document that is read, in bytes.
pub const LARGEST: usize = 1_048_576;

/// The document's own head, read before anything else of it.
#[derive(Deserialize)]
struct Head {
    format: Option<String>,
    version: Option<u32>,
}

/// A field of a later version is not known to the one that the document says it is of.
fn refuse_what_came_later(text: &str, version: u32) -> Result<(), JobDocumentError> {
    let document: serde_json::Value = serde_json::from_str(text).map_err(|error| wrong("the document", error.to_string()))?;
    match BROUGHT.iter().find(|(since, at)| *since > version && holds(&document, at)) {
        Some((since, at)) => Err(wrong(*at, format!("version {version} has no such field; it came with version {since}"))),
        None => Ok(()),
    }
}

/// Whether a document has something at a place.
fn holds(document: &serde_json::Value, at: &str) -> bool {
    let (first, rest) = at.split_once('.').map_or((at, None), |(first, rest)| (first, Some(rest)));
    let further = |value: &serde_json::Value| rest.is_none_or(|rest| holds(value, rest));
    match (first, document.as_array()) {
        ("*", Some(rows)) => rows.iter().any(further),
        _ => document.get(first).is_some_and(further),
    }
}

impl JobDocument {
    /// Reads a document.
    ///
    /// # Errors     [`JobDocumentError`], naming the field that is not understood
    pub fn read(text: &str) -> Result<Self, JobDocumentError> {
        if text.len() > LARGEST {
            return Err(JobDocumentError::TooLarge);
        }
        // Some editors put a mark of the encoding before a text.
        let text = text.trim_start_matches('\u{feff}');
        if text.trim().is_empty() {
            return Err(JobDocumentError::Empty);
        }
        let head: Head = serde_json::from_str(text).map_err(|error| match error.classify() {
            Category::Data => wrong("the document", plain(&error)),
            _ => JobDocumentError::NotJson(error.line()),
        })?;
        match (head.format.as_deref(), head.version) {
            (Some(FORMAT), Some(version)) if version > VERSION => return Err(JobDocumentError::NewerVersion(version)),
            (Some(FORMAT), Some(version)) if version > 0 => refuse_what_came_later(text, version)?,
            (Some(FORMAT), _) => return Err(wrong("version", format!("it must be from 1 to {VERSION}"))),
            (format, _) => return Err(JobDocumentError::OtherFormat(format.unwrap_or_default().to_owned())),
        }
        let mut deserializer = serde_json::Deserializer::from_str(text);
        let document: JobDocument = serde_path_to_error::deserialize(&mut deserializer)
            .map_err(|error| wrong(error.path().to_string(), plain(error.inner())))?;
        deserializer.end().map_err(|error| wrong("the document", error.to_string()))?;
        check(&document, text)?;
        Ok(document)
    }
}

/// An error of the reader without where in the text it was: the field's path says that better.
pub(crate) fn plain(error: &serde_json::Error) -> String {
    let text = error.to_string();
    text.rsplit_once(" at line ").map_or_else(|| text.clone(), |(what, _)| what.to_owned())
}
