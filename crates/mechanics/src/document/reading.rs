//! What reading any document has in common.

use serde::Deserialize;

use super::{DocumentError, LARGEST_DOCUMENT};

/// Reads a document of a format, version 1, after a look at how large it is and what it says it is.
pub(super) fn document<'de, T: Deserialize<'de>>(json: &'de str, format: &'static str) -> Result<T, DocumentError> {
    if json.len() > LARGEST_DOCUMENT {
        return Err(DocumentError::TooLarge);
    }
    // Some editors put a mark of the encoding before a text.
    let json = json.trim_start_matches('\u{feff}');
    let head: HeadText = from_json(json)?;
    if head.format != format {
        return Err(DocumentError::Format(head.format, format));
    }
    if head.version != 1 {
        return Err(DocumentError::Version(head.version));
    }
    from_json(json)
}

fn from_json<'de, T: Deserialize<'de>>(json: &'de str) -> Result<T, DocumentError> {
    let mut reader = serde_json::Deserializer::from_str(json);
    let value = serde_path_to_error::deserialize(&mut reader).map_err(|error| DocumentError::Shape {
        path: match error.path().to_string().as_str() {
            "." | "?" => "document".to_owned(),
            path => path.to_owned(),
        },
        problem: error.into_inner().to_string(),
    })?;
    reader.end().map_err(|error| DocumentError::Shape { path: "document".to_owned(), problem: error.to_string() })?;
    Ok(value)
}

pub(super) fn at_most(path: &str, count: usize, most: usize) -> Result<(), DocumentError> {
    if count > most {
        return Err(DocumentError::TooMany { path: path.to_owned(), count, most });
    }
    Ok(())
}

/// Format and version are looked at before anything else, so that a newer document is not blamed for a new field.
#[derive(Deserialize)]
struct HeadText {
    format: String,
    version: u64,
}
