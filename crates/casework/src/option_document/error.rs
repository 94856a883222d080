//! Why something is no document of an option.

use super::{FORMAT, VERSION};

/// Why a text is no option that can be predicted.
#[derive(Debug, Clone, PartialEq, Eq, thiserror::Error)]
#[non_exhaustive]
pub enum OptionDocumentError {
    /// It is larger than any option.
    #[error("this is larger than 256 kB, which no option is")]
    TooLarge,
    /// It is no JSON at all.
    #[error("this is not JSON text: from line {0} on it cannot be read")]
    NotJson(usize),
    /// It is none of ours, or of another version.
    #[error("this is not a {FORMAT} document of version {VERSION}: it says “{0}”, version {1}")]
    Other(String, u32),
    /// Something in it is not understood.
    #[error("{at}: {what}")]
    NotUnderstood {
        /// The path of the field.
        at: String,
        /// What is wrong with it.
        what: String,
    },
}
