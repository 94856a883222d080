//! What the shop keeps, in PostgreSQL. All of the program's SQL lives here.
//!
//! Every query is a function that takes a `&mut PgConnection`, so that several make one transaction and
//! tests can roll them back. [`Database`] runs them off the async threads. Every row belongs to a shop,
//! and every function that reads or writes one is told which.
//!
//! A quantity a person typed is kept as [`Typed`](wise_badger_casework::entry::Typed): the text, the unit it was typed in, and its SI
//! value.

pub mod backup;
pub mod bay;
pub mod booking;
pub mod calendar_link;
pub mod call;
pub mod change;
mod connection;
pub mod correction;
pub mod customer;
mod deed;
pub mod difference;
pub mod due;
mod error;
pub mod fitting;
pub mod happening;
pub mod history;
mod ids;
pub mod invitation;
pub mod job;
pub mod job_document;
pub mod job_file;
pub mod job_list;
pub mod job_record;
pub mod job_sheet;
mod json;
pub mod ledger;
mod opening;
pub mod paper;
pub mod person;
pub mod photograph;
pub mod reading;
mod role;
pub mod saving;
mod schema;
pub mod session;
pub mod shelf;
pub mod shop;
pub mod shop_change;
pub mod sign_in;
pub mod submission;
pub mod tablet;
#[cfg(feature = "test-support")]
pub mod test_support;
pub mod vehicle;
mod words;
pub mod wrench_tick;

pub use connection::{Database, answers, in_transaction};
pub use diesel::PgConnection;
pub use diesel::result::Error as DieselError;
pub use error::{Source, StoreError};
pub use ids::{
    BayId, BookingId, CalendarLinkId, CallId, CorrectionId, CustomerId, InvitationId, JobId, JobNumber, PersonId, PhotographId,
    ReadingId, ShelfPartId, ShopId, TabletId, VehicleId,
};
pub use opening::{OpeningError, connection_alone};
pub use role::Role;
