//! Why something is no document of a job.

use super::content::VERSION;

/// Why a text is no job that can be taken in.
#[derive(Debug, Clone, PartialEq, Eq, thiserror::Error)]
#[non_exhaustive]
pub enum JobDocumentError {
    /// It is larger than any job.
    #[error("this is larger than 1 MB, which no job is")]
    TooLarge,
    /// There is nothing in it.
    #[error("this is empty")]
    Empty,
    /// It is no JSON at all.
    #[error("this is not JSON text: from line {0} on it cannot be read")]
    NotJson(usize),
    /// It is none of ours.
    #[error("this is not a wise-badger/job document: its format is “{0}”")]
    OtherFormat(String),
    /// A newer program wrote it.
    #[error("this document is of version {0}; this program reads versions 1 to {VERSION}. Take it in with a newer program")]
    NewerVersion(u32),
    /// Something in it is not understood.
    #[error("{at}: {what}")]
    NotUnderstood {
        /// The path of the field.
        at: String,
        /// What is wrong with it.
        what: String,
    },
}

pub(super) fn wrong(at: impl Into<String>, what: impl Into<String>) -> JobDocumentError {
    JobDocumentError::NotUnderstood { at: at.into(), what: what.into() }
}
