//! The shop's shelf as files: the open document `wise-badger/shelf`, the table that a spreadsheet opens, what a file would change, and what each part does.

mod change;
mod document;
mod effect;
mod error;
mod table;

pub use change::{ShelfChange, changes};
pub use document::ShelfDocument;
pub use effect::{Effect, effect};
pub use error::{ReadShelf, RowError, ShelfFileError};
pub use table::{read_table, write_table};

/// What the document calls itself.
pub const FORMAT: &str = "wise-badger/shelf";
/// Its version.
pub const VERSION: u32 = 1;
/// The largest file that is read, in bytes.
pub const LARGEST: usize = 16 * 1024 * 1024;
/// Most parts of a shelf.
pub const MOST_PARTS: usize = 20_000;
