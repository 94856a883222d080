//! Serving the application, and the links by which people come to it.

use std::io::IsTerminal;
use std::net::TcpListener;
use std::path::PathBuf;

use clap::Args;
use tracing_subscriber::EnvFilter;
use wise_badger_store::invitation::{self, Invitation};
use wise_badger_store::shop::{self, Shops};
use wise_badger_store::{PgConnection, StoreError};

use super::{DatabaseOptions, Failure, ShopOption, by, print};
use crate::{Settings, keys, load_demo_data, serve};

#[derive(Args)]
pub(super) struct ServeOptions {
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
    /// A pooler in transaction mode (pgbouncer) that pages go through; DATABASE_URL then names the database itself, for what needs a
    /// connection of its own.
    #[arg(long, value_name = "URL", env = "POOLER_URL", hide_env_values = true)]
    pooler_url: Option<String>,
    /// Largest number of database connections.
    #[arg(long, default_value_t = 8, value_parser = clap::value_parser!(u32).range(1..=200))]
    connections: u32,
}

/// Keeps an invitation, and gives the link to it.
fn link(connection: &mut PgConnection, invitation: &Invitation, at: &str) -> Result<String, StoreError> {
    let key = keys::new_key();
    invitation::make(connection, None, invitation, &keys::hash(&key))?;
    Ok(format!("{}/join?key={key}", at.trim_end_matches('/')))
}

pub(super) fn invite_shop(database: &DatabaseOptions, at: &str) -> Result<(), Failure> {
    let database = database.open(1)?;
    let link = link(&mut *database.connection()?, &Invitation::OpenShop, at)?;
    print(&format!("Whoever opens this within a week opens a shop, and owns it:\n{link}"))
}

pub(super) fn reset_link(database: &DatabaseOptions, shop: &ShopOption, name: &str, at: &str) -> Result<(), Failure> {
    let database = database.open(1)?;
    let mut connection = database.connection()?;
    let shop = shop.find(&mut connection)?;
    let person = by(&mut connection, &shop, Some(name))?;
    let link = link(&mut connection, &Invitation::Reset { shop: shop.id, person: person.id }, at)?;
    print(&format!("Whoever opens this within a day sets the password of {name} anew:\n{link}"))
}

pub(super) fn serve_here(options: ServeOptions) -> Result<(), Failure> {
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
    let database = match &options.pooler_url {
        Some(pooler) => options.database.open_behind(pooler, options.connections)?,
        None => options.database.open(options.connections)?,
    };
    let mut alone = options.database.alone()?;
    if options.demo_data {
        load_demo_data(&mut alone)?;
    }
    let settings = Settings {
        cookie_key: options.cookie_key,
        behind_tls: options.behind_tls,
        hosts: options.hosts,
        one_press_demo: options.demo_data,
    };
    let first = first_run(&mut alone, &here.to_string())?;
    drop(alone);
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
fn first_run(connection: &mut PgConnection, here: &str) -> Result<Option<String>, Failure> {
    match shop::shops(connection)? {
        Shops::None => Ok(Some(link(connection, &Invitation::OpenShop, &format!("http://{here}"))?)),
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
