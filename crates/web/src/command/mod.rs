//! The command line.

mod records;
mod safe_keeping;
mod serving;
mod solving;

use std::io::Write as _;
use std::path::PathBuf;
use std::process::ExitCode;
use std::time::Duration;

use clap::{Args, Parser, Subcommand};
use wise_badger_casework::option_document::OptionDocument;
use wise_badger_store::person::{self, Person};
use wise_badger_store::shop::{self, Shop, Shops};
use wise_badger_store::{Database, OpeningError, PgConnection, connection_alone};

use self::records::{JobCommand, ShelfCommand};
use self::serving::ServeOptions;
use crate::form::clean;
use crate::one_line::one_line;

/// Ride height, springs and corrections for a suspension shop.
#[derive(Parser)]
#[command(name = "wise-badger", version)]
struct CommandLine {
    #[command(subcommand)]
    command: Command,
}

#[derive(Subcommand)]
enum Command {
    /// Serve the application.
    Serve(ServeOptions),
    /// Solve a wise-badger/stance document and print the result.
    Stance {
        /// The document; `-` reads standard input.
        file: String,
    },
    /// Load a leaf pack as a wise-badger/pack document tells, and print the result.
    Pack {
        /// The document; `-` reads standard input.
        file: String,
    },
    /// Fit a vehicle to a wise-badger/readings document, make its predictions and print the result.
    Fit {
        /// The document; `-` reads standard input.
        file: String,
    },
    /// Predict an option on a wise-badger/job document, and print a wise-badger/prediction.
    Predict {
        /// The job's document; `-` reads standard input.
        #[arg(required_unless_present = "schema")]
        job: Option<String>,
        /// The option: a wise-badger/option document.
        #[arg(long, value_name = "FILE", required_unless_present_any = ["schema", "with"])]
        option: Option<String>,
        /// A shelf instead, a wise-badger/shelf document, of which `--with` names the parts.
        #[arg(long, value_name = "FILE", requires = "with", conflicts_with = "option")]
        shelf: Option<String>,
        /// A part of the shelf by its number, and where it goes and how it is set, as in `CS-531@front`, `AB-801=35 psi`; may be given
        /// several times.
        #[arg(long, value_name = "NUMBER[@PLACE][=SETTING]", requires = "shelf")]
        with: Vec<String>,
        /// Print the JSON Schema of the option's document instead.
        #[arg(long, exclusive = true)]
        schema: bool,
    },
    /// Look through a shelf for what a job needs, and print a wise-badger/options-result: options ranked, and why not the others.
    Options {
        /// The job's document; `-` reads standard input.
        job: String,
        /// The shelf: a wise-badger/shelf document.
        #[arg(long, value_name = "FILE")]
        shelf: String,
        /// The day that it is, as YYYY-MM-DD: then what comes too late for the job is known.
        #[arg(long, value_name = "DAY")]
        today: Option<String>,
    },
    /// Give a job out as a wise-badger/job document, or take one in.
    #[command(subcommand)]
    Job(JobCommand),
    /// Give the shop's shelf out as a wise-badger/shelf document, or take one in.
    #[command(subcommand)]
    Shelf(ShelfCommand),
    /// Write every record to a file, photographs too, as it stands at one moment; the program goes on serving meanwhile.
    Backup {
        #[command(flatten)]
        database: DatabaseOptions,
        /// The file; it must not be there yet.
        file: PathBuf,
    },
    /// Put a backup into an empty database: all of it or nothing.
    Restore {
        #[command(flatten)]
        database: DatabaseOptions,
        /// The file that `backup` wrote.
        file: PathBuf,
    },
    /// Write a whole shop as open documents into a folder: its jobs, its shelf, its photographs.
    ExportShop {
        #[command(flatten)]
        database: DatabaseOptions,
        #[command(flatten)]
        shop: ShopOption,
        /// The folder; made where it is not there.
        folder: PathBuf,
    },
    /// Print a link by which a shop is opened: a database holds any number of them.
    InviteShop {
        #[command(flatten)]
        database: DatabaseOptions,
        /// Where the program is reached, as `https://springs.example`.
        #[arg(long, default_value = "http://127.0.0.1:8460")]
        at: String,
    },
    /// Print a link by which somebody sets their password anew: for an owner whom nobody else can give one.
    ResetLink {
        #[command(flatten)]
        database: DatabaseOptions,
        #[command(flatten)]
        shop: ShopOption,
        /// Whose password.
        #[arg(long, value_parser = name)]
        person: String,
        /// Where the program is reached, as `https://springs.example`.
        #[arg(long, default_value = "http://127.0.0.1:8460")]
        at: String,
    },
}

#[derive(Args)]
struct ShopOption {
    /// The shop, by the word that it signs in by; may be left out where the database has but one.
    #[arg(long)]
    shop: Option<String>,
}

impl ShopOption {
    fn find(&self, connection: &mut PgConnection) -> Result<Shop, Failure> {
        match (&self.shop, shop::shops(connection)?) {
            (Some(handle), _) => {
                shop::find_by_handle(connection, handle)?.ok_or_else(|| format!("no shop signs in by “{handle}”").into())
            }
            (None, Shops::One(shop)) => Ok(shop),
            (None, Shops::None) => Err("the database has no shop yet".into()),
            (None, Shops::Several) => Err("the database has several shops; say which with --shop WORD".into()),
        }
    }
}

/// Who takes something in: as named, or whoever has worked in the shop longest.
fn by(connection: &mut PgConnection, shop: &Shop, name: Option<&str>) -> Result<Person, Failure> {
    let people = person::of_shop(connection, shop.id)?;
    let mut here: Vec<Person> = people.into_iter().filter(Person::is_here).collect();
    here.sort_by_key(|person| person.id.0);
    let found = here.into_iter().find(|person| name.is_none_or(|name| person.name == name));
    found.ok_or_else(|| format!("there is no such person in {}", shop.name).into())
}

#[derive(Args)]
struct DatabaseOptions {
    /// A PostgreSQL connection string. Others on this machine can read a command line: one with a password in it belongs into
    /// DATABASE_URL.
    #[arg(long, env = "DATABASE_URL", hide_env_values = true)]
    database_url: String,
    /// How long to wait for the database, in seconds.
    #[arg(long, default_value_t = 30, value_parser = clap::value_parser!(u64).range(0..=3600))]
    wait_for_database: u64,
}

impl DatabaseOptions {
    fn wait(&self) -> Duration {
        Duration::from_secs(self.wait_for_database)
    }

    fn open(&self, connections: u32) -> Result<Database, OpeningError> {
        Database::open(&self.database_url, connections, self.wait())
    }

    fn open_behind(&self, pooler: &str, connections: u32) -> Result<Database, OpeningError> {
        Database::open_behind(pooler, &self.database_url, connections, self.wait())
    }

    /// One connection, and nothing made ready.
    fn alone(&self) -> Result<PgConnection, OpeningError> {
        connection_alone(&self.database_url, self.wait())
    }
}

/// What somebody or something is called.
fn name(text: &str) -> Result<String, String> {
    let name = clean(text).trim().to_owned();
    match name.chars().count() {
        1..=60 if !name.contains(['\n', '\t']) => Ok(name),
        _ => Err("a name has from 1 to 60 characters, on one line".to_owned()),
    }
}

type Failure = Box<dyn std::error::Error>;

/// Runs the program with the process's arguments.
pub fn run() -> ExitCode {
    let (outcome, failure_code) = match CommandLine::parse().command {
        Command::Stance { file } => (solving::solve_stance(&file), 2),
        Command::Pack { file } => (solving::load_pack(&file), 2),
        Command::Fit { file } => (solving::fit_readings(&file), 2),
        Command::Predict { job: Some(job), option: Some(option), .. } => (solving::predict(&job, &option), 2),
        Command::Predict { job: Some(job), shelf: Some(shelf), with, .. } => (solving::predict_of_shelf(&job, &shelf, &with), 2),
        Command::Predict { .. } => (solving::print_schema(&OptionDocument::schema()), 2),
        Command::Options { job, shelf, today } => (solving::options(&job, &shelf, today.as_deref()), 2),
        Command::Backup { database, file } => (safe_keeping::back_up(&database, &file), 1),
        Command::Restore { database, file } => (safe_keeping::restore(&database, &file), 1),
        Command::ExportShop { database, shop, folder } => (safe_keeping::export(&database, &shop, &folder), 1),
        Command::InviteShop { database, at } => (serving::invite_shop(&database, &at), 1),
        Command::ResetLink { database, shop, person, at } => (serving::reset_link(&database, &shop, &person, &at), 1),
        Command::Job(command) => (records::job(command), 2),
        Command::Shelf(command) => (records::shelf(command), 2),
        Command::Serve(options) => (serving::serve_here(options), 1),
    };
    match outcome {
        Ok(()) => ExitCode::SUCCESS,
        Err(failure) => {
            eprintln!("wise-badger: {}", one_line(&failure.to_string()));
            ExitCode::from(failure_code)
        }
    }
}

/// Prints an answer. A reader that has seen enough and goes away is no failure.
fn print(text: &str) -> Result<(), Failure> {
    let mut out = std::io::stdout().lock();
    match writeln!(out, "{text}").and_then(|()| out.flush()) {
        Err(error) if error.kind() == std::io::ErrorKind::BrokenPipe => Ok(()),
        done => Ok(done?),
    }
}
