//! Open documents: JSON in SI units, read and written by the command line.

mod element_input;
mod pack_input;
mod pack_result;
mod reading;
mod readings_input;
mod readings_result;
mod stance_input;
mod stance_result;
mod state_input;
mod vehicle_input;

use crate::identification::IdentificationError;
use crate::stance::StanceError;

pub use pack_input::PackDocument;
pub use pack_result::PackResult;
pub use readings_input::{AskedPrediction, ReadingsDocument};
pub use readings_result::ReadingsResult;
pub use stance_input::StanceDocument;
pub use stance_result::StanceResult;

/// Largest document read, in bytes.
pub const LARGEST_DOCUMENT: usize = 1_000_000;

/// Why a document cannot be read or answered. Each reads as one plain sentence that names the field.
#[derive(Debug, thiserror::Error)]
#[non_exhaustive]
pub enum DocumentError {
    /// More bytes than [`LARGEST_DOCUMENT`].
    #[error("the document is larger than 1 MB; split it")]
    TooLarge,
    /// Not JSON of the expected shape.
    #[error("{path}: {problem}")]
    Shape {
        /// Where in the document.
        path: String,
        /// What is wrong there.
        problem: String,
    },
    /// `format` names another kind of document.
    #[error("format: this is “{0}”, and “{1}” was expected")]
    Format(String, &'static str),
    /// `version` is not one this program reads.
    #[error("version: this is version {0}, and this program reads version 1")]
    Version(u64),
    /// More of something than a document may hold.
    #[error("{path}: {count} is more than the {most} a document may hold")]
    TooMany {
        /// Where in the document.
        path: String,
        /// How many there are.
        count: usize,
        /// How many there may be.
        most: usize,
    },
    /// A field whose value has no meaning here.
    #[error("{path}: {problem}")]
    Field {
        /// Where in the document.
        path: String,
        /// What is wrong with it.
        problem: String,
    },
    /// Nothing can be identified from the readings, or a prediction does not stand.
    #[error("{0}")]
    Identification(#[from] IdentificationError),
    /// The vehicle or a state cannot be solved.
    #[error("state “{state}”: {source}")]
    Stance {
        /// The state that could not be solved.
        state: String,
        /// Why.
        source: StanceError,
    },
}

impl DocumentError {
    fn field(path: impl Into<String>, problem: impl Into<String>) -> Self {
        DocumentError::Field { path: path.into(), problem: problem.into() }
    }
}
