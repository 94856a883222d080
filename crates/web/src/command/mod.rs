//! The command line.

mod safe_keeping;

use std::io::{IsTerminal, Read, Write as _};
use std::net::TcpListener;
use std::path::PathBuf;
use std::process::ExitCode;
use std::time::Duration;

use clap::{Args, Parser, Subcommand};
use tracing_subscriber::EnvFilter;
use wise_badger_casework::casework::Casework;
use wise_badger_casework::entry::{ShelfPart, TypedIn};
use wise_badger_casework::finder::{Search, ToTheEnd, Weights, find};
use wise_badger_casework::job_document::JobDocument;
use wise_badger_casework::option_document::{OptionDocument, OptionsResult, PredictionDocument};
use wise_badger_casework::shelf::{ShelfDocument, changes};
use wise_badger_mechanics::document::{LARGEST_DOCUMENT, PackDocument, ReadingsDocument, StanceDocument};
use wise_badger_store::invitation::{self, Invitation};
use wise_badger_store::person::{self, Person};
use wise_badger_store::shop::{self, Shop, Shops};
use wise_badger_store::{Database, JobNumber, OpeningError, PgConnection, StoreError, in_transaction, job_document, shelf};

use crate::form::clean;
use crate::keys;
use crate::one_line::one_line;
use crate::pages::job_document::read_cleaned;
use crate::{Settings, load_demo_data, serve};

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

#[derive(Subcommand)]
enum JobCommand {
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
    Import {
        #[command(flatten)]
        database: DatabaseOptions,
        #[command(flatten)]
        shop: ShopOption,
        /// The document; `-` reads standard input.
        file: String,
        /// Who takes it in; whoever has worked in the shop longest where that is not said.
        #[arg(long)]
        person: Option<String>,
    },
    /// Print the JSON Schema of the document.
    Schema,
}

#[derive(Subcommand)]
enum ShelfCommand {
    /// Print the shelf as a document.
    Export {
        #[command(flatten)]
        database: DatabaseOptions,
        #[command(flatten)]
        shop: ShopOption,
    },
    /// Take a document's parts in: what it does not name stays as it is. Nothing is taken in while any part of it is not understood.
    Import {
        #[command(flatten)]
        database: DatabaseOptions,
        #[command(flatten)]
        shop: ShopOption,
        /// The document; `-` reads standard input.
        file: String,
        /// Who takes it in; whoever has worked in the shop longest where that is not said.
        #[arg(long)]
        person: Option<String>,
    },
    /// Print the JSON Schema of the document.
    Schema,
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
    fn open(&self, connections: u32) -> Result<Database, OpeningError> {
        Database::open(&self.database_url, connections, Duration::from_secs(self.wait_for_database))
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

#[derive(Args)]
struct ServeOptions {
    #[command(flatten)]
    database: DatabaseOptions,
    /// Where to listen; port 0 picks a free one.
    #[arg(long, default_value = "127.0.0.1:8460")]
    listen: String,
    /// A name this server answers to, beside localhost; may be given several times.
    #[arg(long = "host", value_name = "NAME")]
    hosts: Vec<String>,
    /// Load the demo shop when the database has no shop yet.
    #[arg(long)]
    demo_data: bool,
    /// File of the key that seals cookies; made when absent.
    #[arg(long)]
    cookie_key: Option<PathBuf>,
    /// Say that TLS stands in front: cookies travel over HTTPS only, and browsers are told to come that way.
    #[arg(long, alias = "secure-cookies")]
    behind_tls: bool,
    /// Write the log as a line of JSON each.
    #[arg(long)]
    json_log: bool,
    /// Largest number of database connections.
    #[arg(long, default_value_t = 8, value_parser = clap::value_parser!(u32).range(1..=200))]
    connections: u32,
}

type Failure = Box<dyn std::error::Error>;

/// Runs the program with the process's arguments.
pub fn run() -> ExitCode {
    let (outcome, failure_code) = match CommandLine::parse().command {
        Command::Stance { file } => (solve_stance(&file), 2),
        Command::Pack { file } => (load_pack(&file), 2),
        Command::Fit { file } => (fit_readings(&file), 2),
        Command::Predict { job: Some(job), option: Some(option), .. } => (predict(&job, &option), 2),
        Command::Predict { job: Some(job), shelf: Some(shelf), with, .. } => (predict_of_shelf(&job, &shelf, &with), 2),
        Command::Predict { .. } => (print_schema(&OptionDocument::schema()), 2),
        Command::Options { job, shelf, today } => (options(&job, &shelf, today.as_deref()), 2),
        Command::Backup { database, file } => (safe_keeping::back_up(&database, &file), 1),
        Command::Restore { database, file } => (safe_keeping::restore(&database, &file), 1),
        Command::ExportShop { database, shop, folder } => (safe_keeping::export(&database, &shop, &folder), 1),
        Command::InviteShop { database, at } => (invite_shop(&database, &at), 1),
        Command::ResetLink { database, shop, person, at } => (reset_link(&database, &shop, &person, &at), 1),
        Command::Job(command) => (job_command(command), 2),
        Command::Shelf(command) => (shelf_command(command), 2),
        Command::Serve(options) => (serve_here(options), 1),
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

fn solve_stance(file: &str) -> Result<(), Failure> {
    let document = StanceDocument::read(&read_document(file)?)?;
    print(&document.solve()?.to_json())
}

fn load_pack(file: &str) -> Result<(), Failure> {
    let document = PackDocument::read(&read_document(file)?)?;
    print(&document.solve()?.to_json())
}

fn fit_readings(file: &str) -> Result<(), Failure> {
    let document = ReadingsDocument::read(&read_document(file)?)?;
    print(&document.solve()?.to_json())
}

/// What a document holds.
fn print_schema(schema: &impl serde::Serialize) -> Result<(), Failure> {
    print(&serde_json::to_string_pretty(schema)?)
}

fn of_file(file: &str, why: &dyn std::error::Error) -> String {
    format!("{file}: {why}")
}

/// Predicts an option on a job.
fn predict(job: &str, option: &str) -> Result<(), Failure> {
    let job_document = JobDocument::read(&read_document(job)?).map_err(|error| of_file(job, &error))?;
    let option_document = OptionDocument::read(&read_document(option)?).map_err(|error| of_file(option, &error))?;
    let predicted = PredictionDocument::of(&job_document, &option_document).map_err(|error| of_file(option, &error))?;
    print(&predicted.to_json())
}

/// The same of parts of a shelf.
fn predict_of_shelf(job: &str, shelf: &str, with: &[String]) -> Result<(), Failure> {
    let job_document = JobDocument::read(&read_document(job)?).map_err(|error| of_file(job, &error))?;
    let read = ShelfDocument::read(&read_document(shelf)?).map_err(|error| of_file(shelf, &error))?;
    let parts: Vec<ShelfPart> = read.parts.into_iter().map(|(_, part)| part).collect();
    let option = OptionDocument::of_shelf(&job_document, &parts, with).map_err(|error| of_file(shelf, &error))?;
    let predicted = PredictionDocument::of(&job_document, &option).map_err(|error| of_file(shelf, &error))?;
    print(&predicted.to_json())
}

/// Looks through a shelf for what a job needs.
fn options(job: &str, shelf: &str, today: Option<&str>) -> Result<(), Failure> {
    let job_document = JobDocument::read(&read_document(job)?).map_err(|error| of_file(job, &error))?;
    let read = ShelfDocument::read(&read_document(shelf)?).map_err(|error| of_file(shelf, &error))?;
    let parts: Vec<ShelfPart> = read.parts.into_iter().map(|(_, part)| part).collect();
    let work = Casework::new(job_document.case());
    let weights = Weights::default();
    let found = find(&Search { work: &work, shelf: &parts, weights, today, units: TypedIn::default() }, &ToTheEnd);
    print(&OptionsResult::of(&work, &found, &weights, &read.wrong).to_json())
}

/// Reads no more than a document may hold, so that an endless input is refused rather than swallowed.
fn read_document(file: &str) -> Result<String, Failure> {
    let input: Box<dyn Read> = match file {
        "-" => Box::new(std::io::stdin()),
        path => Box::new(std::fs::File::open(path).map_err(|error| format!("{path} cannot be opened: {error}"))?),
    };
    let mut bytes = Vec::new();
    let most = u64::try_from(LARGEST_DOCUMENT)?.saturating_add(1);
    input.take(most).read_to_end(&mut bytes).map_err(|error| format!("{file} cannot be read: {error}"))?;
    Ok(String::from_utf8(bytes).map_err(|error| format!("the document is not UTF-8 text ({})", error.utf8_error()))?)
}

fn job_command(command: JobCommand) -> Result<(), Failure> {
    match command {
        JobCommand::Schema => print_schema(&JobDocument::schema()),
        JobCommand::Export { database, shop, number } => {
            let database = database.open(1)?;
            let mut connection = database.connection()?;
            let shop = shop.find(&mut connection)?;
            let document = job_document::export(&mut connection, shop.id, JobNumber(number))?;
            print(&serde_json::to_string_pretty(&document)?)
        }
        JobCommand::Import { database, shop, file, person } => {
            let document = read_cleaned(&read_document(&file)?)?;
            let database = database.open(1)?;
            let mut connection = database.connection()?;
            let shop = shop.find(&mut connection)?;
            let by = by(&mut connection, &shop, person.as_deref())?;
            let taken = in_transaction(&mut connection, |connection| -> Result<_, StoreError> {
                job_document::take_in(connection, &by, &document)
            });
            print(&taken?.number.0.to_string())
        }
    }
}

fn shelf_command(command: ShelfCommand) -> Result<(), Failure> {
    match command {
        ShelfCommand::Schema => print_schema(&ShelfDocument::schema()),
        ShelfCommand::Export { database, shop } => {
            let database = database.open(1)?;
            let mut connection = database.connection()?;
            let shop = shop.find(&mut connection)?;
            let document = ShelfDocument::new(shelf::all(&mut connection, shop.id)?);
            print(&serde_json::to_string_pretty(&document)?)
        }
        ShelfCommand::Import { database, shop, file, person } => {
            let read = ShelfDocument::read(&read_document(&file)?).map_err(|error| format!("{file}: {error}"))?;
            if !read.wrong.is_empty() {
                let lines = read.wrong.iter().map(|part| format!("part {}, {}: {}", part.row, part.at, part.what));
                return Err(format!("{file}: nothing was taken in.\n{}", lines.collect::<Vec<_>>().join("\n")).into());
            }
            let parts: Vec<ShelfPart> = read.parts.into_iter().map(|(_, part)| part).collect();
            let database = database.open(1)?;
            let mut connection = database.connection()?;
            let shop = shop.find(&mut connection)?;
            let by = by(&mut connection, &shop, person.as_deref())?;
            let taken = in_transaction(&mut connection, |connection| -> Result<_, StoreError> {
                let (changes, _) = changes(&shelf::all(connection, shop.id)?, parts);
                shelf::take_in(connection, &by, &changes, |_| {})?;
                Ok(changes.len())
            });
            print(&taken?.to_string())
        }
    }
}

/// Keeps an invitation, and gives the link to it.
fn link(connection: &mut PgConnection, invitation: &Invitation, at: &str) -> Result<String, StoreError> {
    let key = keys::new_key();
    invitation::make(connection, None, invitation, &keys::hash(&key))?;
    Ok(format!("{}/join?key={key}", at.trim_end_matches('/')))
}

fn invite_shop(database: &DatabaseOptions, at: &str) -> Result<(), Failure> {
    let database = database.open(1)?;
    let link = link(&mut *database.connection()?, &Invitation::OpenShop, at)?;
    print(&format!("Whoever opens this within a week opens a shop, and owns it:\n{link}"))
}

fn reset_link(database: &DatabaseOptions, shop: &ShopOption, name: &str, at: &str) -> Result<(), Failure> {
    let database = database.open(1)?;
    let mut connection = database.connection()?;
    let shop = shop.find(&mut connection)?;
    let person = by(&mut connection, &shop, Some(name))?;
    let link = link(&mut connection, &Invitation::Reset { shop: shop.id, person: person.id }, at)?;
    print(&format!("Whoever opens this within a day sets the password of {name} anew:\n{link}"))
}

fn serve_here(options: ServeOptions) -> Result<(), Failure> {
    let filter = EnvFilter::try_from_default_env().unwrap_or_else(|_| "warn,wise_badger_web=info,wise_badger_store=info".into());
    // A file has no colors.
    let colors = std::io::stderr().is_terminal();
    let log =
        tracing_subscriber::fmt().with_env_filter(filter).with_writer(std::io::stderr).with_ansi(colors && !options.json_log);
    if options.json_log {
        log.json().init()
    } else {
        log.init()
    }
    let listener = TcpListener::bind(&options.listen)
        .map_err(|error| format!("{} cannot be listened on ({error}); choose another port", options.listen))?;
    let here = listener.local_addr()?;
    if !here.ip().is_loopback() && !options.behind_tls {
        tracing::warn!(
            "{here} can be reached from other machines, and nothing hides what is sent: put TLS in front, and say --behind-tls"
        );
    }
    if !here.ip().is_loopback() && options.hosts.is_empty() {
        tracing::warn!("requests by any name but localhost are turned away: say --host NAME for each that this server has");
    }
    let database = options.database.open(options.connections)?;
    if options.demo_data {
        load_demo_data(&mut *database.connection()?)?;
    }
    let settings = Settings {
        cookie_key: options.cookie_key,
        behind_tls: options.behind_tls,
        hosts: options.hosts,
        one_press_demo: options.demo_data,
    };
    let first = first_run(&database, &here.to_string())?;
    actix_web::rt::System::new().block_on(async move {
        let ready = || {
            println!("Wise Badger is at http://{here}/");
            if let Some(link) = first {
                println!("No shop is open yet. Whoever opens this within a week opens the first one, and owns it:\n{link}");
            }
        };
        Ok(serve(listener, database, &settings, ready, told_to_stop()).await?)
    })
}

/// The way to the first shop, where there is none.
fn first_run(database: &Database, here: &str) -> Result<Option<String>, Failure> {
    let mut connection = database.connection()?;
    match shop::shops(&mut connection)? {
        Shops::None => Ok(Some(link(&mut connection, &Invitation::OpenShop, &format!("http://{here}"))?)),
        Shops::One(_) | Shops::Several => Ok(None),
    }
}

/// Ctrl-C, or a polite kill.
async fn told_to_stop() {
    use tokio::signal::unix::{SignalKind, signal};
    let polite = async {
        match signal(SignalKind::terminate()) {
            Ok(mut signal) => drop(signal.recv().await),
            Err(_) => std::future::pending().await,
        }
    };
    tokio::select! {
        _ = tokio::signal::ctrl_c() => {}
        () = polite => {}
    }
}
