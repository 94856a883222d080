//! A job or the shelf as a document, out of the database and into it.

use clap::{Args, Subcommand};
use wise_badger_casework::entry::ShelfPart;
use wise_badger_casework::job_document::JobDocument;
use wise_badger_casework::shelf::{ShelfDocument, changes};
use wise_badger_store::person::Person;
use wise_badger_store::{JobNumber, PgConnection, StoreError, in_transaction, job_document, shelf};

use super::solving::{of_file, print_schema, read_document};
use super::{DatabaseOptions, Failure, ShopOption, by, print};
use crate::pages::job_document::read_cleaned;

#[derive(Subcommand)]
pub(super) enum JobCommand {
    /// Print a job as a document.
    Export {
        #[command(flatten)]
        database: DatabaseOptions,
        #[command(flatten)]
        shop: ShopOption,
        /// Its number in the shop.
        number: i32,
    },
    /// Take a document in as a new job, and print its number.
    Import(ImportOptions),
    /// Print the JSON Schema of the document.
    Schema,
}

#[derive(Subcommand)]
pub(super) enum ShelfCommand {
    /// Print the shelf as a document.
    Export {
        #[command(flatten)]
        database: DatabaseOptions,
        #[command(flatten)]
        shop: ShopOption,
    },
    /// Take a document's parts in: what it does not name stays as it is. Nothing is taken in while any part of it is not understood.
    Import(ImportOptions),
    /// Print the JSON Schema of the document.
    Schema,
}

/// What is taken in, and by whom.
#[derive(Args)]
pub(super) struct ImportOptions {
    #[command(flatten)]
    database: DatabaseOptions,
    #[command(flatten)]
    shop: ShopOption,
    /// The document; `-` reads standard input.
    file: String,
    /// Who takes it in; whoever has worked in the shop longest where that is not said.
    #[arg(long)]
    person: Option<String>,
}

impl ImportOptions {
    /// Takes it in, all of it or nothing.
    fn take_in<T>(&self, work: impl FnOnce(&mut PgConnection, &Person) -> Result<T, StoreError>) -> Result<T, Failure> {
        let database = self.database.open(1)?;
        let mut connection = database.connection()?;
        let shop = self.shop.find(&mut connection)?;
        let by = by(&mut connection, &shop, self.person.as_deref())?;
        Ok(in_transaction(&mut connection, |connection| work(connection, &by))?)
    }
}

pub(super) fn job(command: JobCommand) -> Result<(), Failure> {
    match command {
        JobCommand::Schema => print_schema(&JobDocument::schema()),
        JobCommand::Export { database, shop, number } => {
            let database = database.open(1)?;
            let mut connection = database.connection()?;
            let shop = shop.find(&mut connection)?;
            let document = job_document::export(&mut connection, shop.id, JobNumber(number))?;
            print(&serde_json::to_string_pretty(&document)?)
        }
        JobCommand::Import(import) => {
            let document = read_cleaned(&read_document(&import.file)?)?;
            let taken = import.take_in(|connection, by| job_document::take_in(connection, by, &document))?;
            print(&taken.number.0.to_string())
        }
    }
}

pub(super) fn shelf(command: ShelfCommand) -> Result<(), Failure> {
    match command {
        ShelfCommand::Schema => print_schema(&ShelfDocument::schema()),
        ShelfCommand::Export { database, shop } => {
            let database = database.open(1)?;
            let mut connection = database.connection()?;
            let shop = shop.find(&mut connection)?;
            let document = ShelfDocument::new(shelf::all(&mut connection, shop.id)?);
            print(&serde_json::to_string_pretty(&document)?)
        }
        ShelfCommand::Import(import) => {
            let file = &import.file;
            let read = ShelfDocument::read(&read_document(file)?).map_err(|error| of_file(file, &error))?;
            if !read.wrong.is_empty() {
                let lines = read.wrong.iter().map(|part| format!("part {}, {}: {}", part.row, part.at, part.what));
                return Err(format!("{file}: nothing was taken in.\n{}", lines.collect::<Vec<_>>().join("\n")).into());
            }
            let parts: Vec<ShelfPart> = read.parts.into_iter().map(|(_, part)| part).collect();
            let taken = import.take_in(|connection, by| {
                let (changes, _) = changes(&shelf::all(connection, by.shop_id)?, parts);
                shelf::take_in(connection, by, &changes, |_| {})?;
                Ok(changes.len())
            })?;
            print(&taken.to_string())
        }
    }
}
