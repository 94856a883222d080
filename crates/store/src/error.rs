//! What can go wrong in the store.

use chrono::{DateTime, Utc};

/// Why the store could not do what was asked.
#[derive(Debug, thiserror::Error)]
#[non_exhaustive]
pub enum StoreError {
    /// There is no such row in this shop.
    #[error("there is no such {0} in this shop")]
    NotFound(&'static str),
    /// Somebody saved the job since the page was opened.
    #[error("the job was saved by {by} after the page was opened")]
    Stale {
        /// Who saved it.
        by: String,
        /// When.
        at: DateTime<Utc>,
    },
    /// A stored word or document this program does not know.
    #[error("a stored {what} reads “{text}”, which this program does not know")]
    Unreadable {
        /// What it should be.
        what: &'static str,
        /// What is there.
        text: String,
    },
    /// The database could not be reached.
    #[error("the database cannot be reached")]
    Unreachable(#[source] Box<dyn std::error::Error + Send + Sync>),
    /// Anything else the database said.
    #[error("the database refused")]
    Other(#[source] Box<dyn std::error::Error + Send + Sync>),
}

impl From<diesel::result::Error> for StoreError {
    fn from(error: diesel::result::Error) -> Self {
        match error {
            diesel::result::Error::NotFound => StoreError::NotFound("row"),
            other => StoreError::Other(Box::new(other)),
        }
    }
}
