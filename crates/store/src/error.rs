//! What can go wrong in the store.

use chrono::{DateTime, Utc};
use diesel::result::{DatabaseErrorKind, Error as DieselError};

/// What the database, or the way to it, said.
pub type Source = Box<dyn std::error::Error + Send + Sync>;

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
    /// The job is finished, and closed until it is taken up again.
    #[error("the job is finished")]
    Finished,
    /// A list has all that it may hold.
    #[error("{most} {what} are all that one job holds")]
    Full {
        /// What it is a list of.
        what: &'static str,
        /// How many it holds.
        most: i64,
    },
    /// A number that a shop gives once is another's already.
    #[error("there is already a {what} “{number}”")]
    Taken {
        /// What has the number.
        what: &'static str,
        /// The number.
        number: String,
    },
    /// Somebody changed it since the page was opened.
    #[error("the {what} was changed after the page was opened")]
    StaleRow {
        /// What was.
        what: &'static str,
    },
    /// Something else is there at that time.
    #[error("at that time {what} is taken")]
    Overlaps {
        /// What is taken.
        what: &'static str,
    },
    /// A shop keeps somebody who may say who works in it.
    #[error("a shop keeps at least one owner")]
    LastOwner,
    /// A stored word or document this program does not know.
    #[error("a stored {what} reads “{text}”, which this program does not know")]
    Unreadable {
        /// What it should be.
        what: &'static str,
        /// What is there.
        text: String,
    },
    /// What was to be stored could not be read back as what it is: a figure in it is none.
    #[error("{0} holds a figure that is none, and was not stored")]
    Unfit(&'static str),
    /// The database could not be reached, or does not answer.
    #[error("the database cannot be reached")]
    Unreachable(#[source] Source),
    /// The database answers, and others hold what was asked for.
    #[error("the database is busy")]
    Busy(#[source] Source),
    /// The connection was lost while a transaction was being kept: it may have been, or not.
    #[error("the connection was lost while saving")]
    OutcomeUnknown(#[source] Source),
    /// The database takes no changes.
    #[error("the database takes no changes: it is read-only")]
    ReadOnly(#[source] Source),
    /// The database's disk is full.
    #[error("the database's disk is full")]
    DiskFull(#[source] Source),
    /// Anything else the database said.
    #[error("the database refused")]
    Other(#[source] Source),
}

impl From<DieselError> for StoreError {
    fn from(error: DieselError) -> Self {
        match error {
            DieselError::NotFound => StoreError::NotFound("row"),
            DieselError::DeserializationError(unreadable) => StoreError::Unreadable { what: "row", text: unreadable.to_string() },
            DieselError::DatabaseError(_, ref information) if information.constraint_name() == Some("bookings_bay_taken") => {
                StoreError::Overlaps { what: "the bay" }
            }
            DieselError::DatabaseError(_, ref information) if information.constraint_name() == Some("bookings_job_taken") => {
                StoreError::Overlaps { what: "the vehicle" }
            }
            DieselError::DatabaseError(_, ref information) if information.constraint_name() == Some("vehicles_plate") => {
                StoreError::Taken { what: "vehicle with that plate", number: "put down just now; look it up".to_owned() }
            }
            DieselError::DatabaseError(_, ref information)
                if information.constraint_name() == Some("people_shop_id_name_key") =>
            {
                StoreError::Taken { what: "person called so", number: "put down just now".to_owned() }
            }
            DieselError::DatabaseError(kind, ref information) => {
                let said = information.message().to_owned();
                of_the_database(kind, &said, Box::new(error))
            }
            DieselError::BrokenTransactionManager => StoreError::Unreachable(Box::new(error)),
            other => StoreError::Other(Box::new(other)),
        }
    }
}

/// Diesel hands over no SQLSTATE beside its few kinds, so that some are told by PostgreSQL's own (English) words.
fn of_the_database(kind: DatabaseErrorKind, said: &str, source: Source) -> StoreError {
    let says = |words: &[&str]| words.iter().any(|word| said.contains(word));
    match kind {
        DatabaseErrorKind::ClosedConnection | DatabaseErrorKind::UnableToSendCommand => StoreError::Unreachable(source),
        DatabaseErrorKind::ReadOnlyTransaction => StoreError::ReadOnly(source),
        DatabaseErrorKind::SerializationFailure => StoreError::Busy(source),
        _ if says(&["due to lock timeout", "due to statement timeout", "deadlock detected"]) => StoreError::Busy(source),
        _ if says(&["No space left on device", "could not extend file"]) => StoreError::DiskFull(source),
        _ if says(&["terminating connection", "is shutting down", "is starting up", "in recovery mode"]) => {
            StoreError::Unreachable(source)
        }
        _ => StoreError::Other(source),
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn told(kind: DatabaseErrorKind, said: &str) -> StoreError {
        DieselError::DatabaseError(kind, Box::new(said.to_owned())).into()
    }

    #[test]
    fn what_the_database_says_becomes_a_case_of_its_own() {
        let unknown = |said: &str| told(DatabaseErrorKind::Unknown, said);
        assert!(matches!(unknown("canceling statement due to lock timeout"), StoreError::Busy(_)));
        assert!(matches!(unknown("canceling statement due to statement timeout"), StoreError::Busy(_)));
        let full = "could not extend file \"base/1/2\": No space left on device";
        assert!(matches!(unknown(full), StoreError::DiskFull(_)));
        let stopped = "terminating connection due to administrator command";
        assert!(matches!(unknown(stopped), StoreError::Unreachable(_)));
        assert!(matches!(told(DatabaseErrorKind::ClosedConnection, ""), StoreError::Unreachable(_)));
        assert!(matches!(told(DatabaseErrorKind::ReadOnlyTransaction, ""), StoreError::ReadOnly(_)));
        assert!(matches!(unknown("relation \"jobs\" does not exist"), StoreError::Other(_)));
    }
}
