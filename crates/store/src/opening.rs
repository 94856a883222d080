//! Opening a database: waiting for its server, refusing what this program cannot serve from, and bringing the schema up to date.

use std::time::{Duration, Instant};

use diesel::migration::{Migration, MigrationSource, MigrationVersion};
use diesel::pg::{Pg, PgConnection};
use diesel::prelude::*;
use diesel::sql_types::Bool;
use diesel_migrations::{EmbeddedMigrations, MigrationHarness, embed_migrations};

use crate::connection::connect;
use crate::schema;

const MIGRATIONS: EmbeddedMigrations = embed_migrations!("migrations");

/// Between two attempts to reach the server.
const PAUSE: Duration = Duration::from_millis(250);

/// Held while the schema is brought up to date, so that two servers that start at once do it one after the other.
const OPENING_LOCK: i64 = 0x77_62_6f_70_65_6e;

/// Why a database cannot be served from. Each is a sentence that says what to do next.
#[derive(Debug, thiserror::Error)]
#[non_exhaustive]
pub enum OpeningError {
    /// The server does not answer.
    #[error("the database did not answer within {} s ({said}); start it, or check the address in DATABASE_URL", wait.as_secs())]
    Away {
        /// How long was waited.
        wait: Duration,
        /// What it said last.
        said: String,
    },
    /// The server answers and does not let this program in.
    #[error("the database does not let this program in ({0}); check user, password and database name in DATABASE_URL")]
    Refused(String),
    /// A later program has been at work here.
    #[error("the records were written by a newer version of this program (step {0} is unknown here); start that version")]
    Newer(String),
    /// No changes are taken.
    #[error("the database takes no changes: it is read-only, or a standby; point DATABASE_URL at the one that takes them")]
    ReadOnly,
    /// A step of the schema failed. Nothing of that step was kept.
    #[error(
        "the records could not be brought up to this version, and stand as they were ({0}); make room or mend that, or restore a backup"
    )]
    NotMigrated(String),
    /// The schema is not what its own list of steps says.
    #[error(
        "the records are not whole: {0}; restore a backup, or let whoever looks after the database compare it with a new one"
    )]
    NotWhole(String),
}

/// Where a database is. Never shown: it may hold a password.
#[derive(Clone)]
pub(crate) struct Address(String);

impl Address {
    /// A PostgreSQL connection string, as an URL or as `key=value` words.
    pub(crate) fn new(url: &str) -> Self {
        Address(url.to_owned())
    }

    /// The same with limits to waiting for the network, where it does not state its own.
    pub(crate) fn with_timeouts(&self) -> String {
        const LIMITS: [(&str, &str); 6] = [
            ("connect_timeout", "3"),
            ("keepalives_idle", "10"),
            ("keepalives_interval", "5"),
            ("keepalives_count", "3"),
            ("tcp_user_timeout", "15000"),
            ("application_name", "wise-badger"),
        ];
        let mut url = self.0.clone();
        let is_url = url.contains("://");
        for (name, value) in LIMITS.iter().filter(|(name, _)| !self.0.contains(&format!("{name}="))) {
            url.push(match (is_url, url.contains('?')) {
                (true, false) => '?',
                (true, true) => '&',
                (false, _) => ' ',
            });
            url.push_str(&format!("{name}={value}"));
        }
        url
    }
}

fn not_migrated(error: impl std::fmt::Display) -> OpeningError {
    OpeningError::NotMigrated(error.to_string())
}

/// The last step of the schema that was taken.
pub(crate) fn last_step(connection: &mut PgConnection) -> Result<String, OpeningError> {
    let applied = connection.applied_migrations().map_err(not_migrated)?;
    Ok(applied.iter().max().map(ToString::to_string).unwrap_or_default())
}

#[derive(QueryableByName)]
struct Step {
    #[diesel(sql_type = diesel::sql_types::Text)]
    step: String,
}

/// The last step as its own list says it, where nothing may be written.
pub(crate) fn recorded_step(connection: &mut PgConnection) -> Result<String, OpeningError> {
    let asked = "SELECT coalesce(max(version), '')::TEXT AS step FROM __diesel_schema_migrations";
    Ok(diesel::sql_query(asked).get_result::<Step>(connection).map_err(not_migrated)?.step)
}

/// Whether this program knows a step.
pub(crate) fn knows_step(step: &str) -> Result<bool, OpeningError> {
    let ours: Vec<Box<dyn Migration<Pg>>> = MIGRATIONS.migrations().map_err(not_migrated)?;
    Ok(ours.iter().any(|migration| migration.name().version().to_string() == step))
}

/// Whether any step was taken here yet.
pub(crate) fn has_tables(connection: &mut PgConnection) -> Result<bool, OpeningError> {
    let asked = "SELECT to_regclass('public.shops') IS NOT NULL AS yes";
    Ok(diesel::sql_query(asked).get_result::<Answer>(connection).map_err(not_migrated)?.yes)
}

/// Brings an empty database to a step, forward or back.
pub(crate) fn bring_to(connection: &mut PgConnection, step: &str) -> Result<(), OpeningError> {
    while last_step(connection)?.as_str() > step {
        connection.revert_last_migration(MIGRATIONS).map_err(not_migrated)?;
    }
    while last_step(connection)?.as_str() < step {
        connection.run_next_migration(MIGRATIONS).map_err(not_migrated)?;
    }
    Ok(())
}

/// Takes every step that is left.
pub(crate) fn bring_up_to_date(connection: &mut PgConnection) -> Result<(), OpeningError> {
    connection.run_pending_migrations(MIGRATIONS).map(|_| ()).map_err(not_migrated)
}

/// A connection of one's own to a database that nothing was made in yet, or that is to be read whole.
///
/// # Errors     [`OpeningError::Away`], [`OpeningError::Refused`]
pub fn connection_alone(url: &str, wait: Duration) -> Result<PgConnection, OpeningError> {
    reach(&Address::new(url), wait)
}

/// Waits for the server and makes its database ready to be served from.
pub(crate) fn make_ready(address: &Address, wait: Duration) -> Result<(), OpeningError> {
    let mut connection = reach(address, wait)?;
    let other = |error: diesel::result::Error| OpeningError::NotMigrated(error.to_string());
    if takes_no_changes(&mut connection).map_err(other)? {
        return Err(OpeningError::ReadOnly);
    }
    // Given back with the connection.
    diesel::sql_query(format!("SELECT pg_advisory_lock({OPENING_LOCK})")).execute(&mut connection).map_err(other)?;
    refuse_newer(&mut connection)?;
    connection.run_pending_migrations(MIGRATIONS).map_err(|error| OpeningError::NotMigrated(error.to_string()))?;
    schema_is_whole(&mut connection)
}

fn reach(address: &Address, wait: Duration) -> Result<PgConnection, OpeningError> {
    let (url, begun) = (address.with_timeouts(), Instant::now());
    let mut waiting = false;
    loop {
        let said = match connect(&url) {
            Ok(connection) => return Ok(connection),
            Err(error) => error.to_string(),
        };
        let said = said.lines().next().unwrap_or_default().to_owned();
        if ["authentication failed", "does not exist", "no pg_hba.conf entry"].iter().any(|words| said.contains(words)) {
            return Err(OpeningError::Refused(said));
        }
        if begun.elapsed() >= wait {
            return Err(OpeningError::Away { wait, said });
        }
        if !waiting {
            tracing::warn!(seconds = wait.as_secs(), "waiting for the database");
            waiting = true;
        }
        std::thread::sleep(PAUSE);
    }
}

#[derive(QueryableByName)]
struct Answer {
    #[diesel(sql_type = Bool)]
    yes: bool,
}

fn takes_no_changes(connection: &mut PgConnection) -> QueryResult<bool> {
    let asked = "SELECT pg_is_in_recovery() OR current_setting('transaction_read_only')::BOOLEAN AS yes";
    Ok(diesel::sql_query(asked).get_result::<Answer>(connection)?.yes)
}

fn refuse_newer(connection: &mut PgConnection) -> Result<(), OpeningError> {
    let not_whole = |error: Box<dyn std::error::Error + Send + Sync>| OpeningError::NotWhole(error.to_string());
    let ours: Vec<Box<dyn Migration<Pg>>> = MIGRATIONS.migrations().map_err(not_whole)?;
    let ours: Vec<MigrationVersion<'_>> = ours.iter().map(|migration| migration.name().version()).collect();
    let applied = connection.applied_migrations().map_err(not_whole)?;
    // In their order: one that is missing between others was never run, or its list was tampered with.
    let unknown = applied.iter().find(|version| !ours.contains(version));
    if let Some(version) = unknown {
        return Err(OpeningError::Newer(version.to_string()));
    }
    let last = applied.iter().max();
    let skipped = ours.iter().find(|version| last.is_some_and(|last| *version < last) && !applied.contains(version));
    skipped.map_or(Ok(()), |version| Err(OpeningError::NotWhole(format!("step {version} is missing among those taken"))))
}

/// Asks every table for every column that this program knows.
fn schema_is_whole(connection: &mut PgConnection) -> Result<(), OpeningError> {
    macro_rules! ask {
        ($($table:ident),*) => {
            $(schema::$table::table
                .select(schema::$table::all_columns)
                .limit(0)
                .execute(connection)
                .map_err(|error| OpeningError::NotWhole(error.to_string()))?;)*
        };
    }
    ask!(
        bays,
        bookings,
        calendar_links,
        calls,
        corrections,
        customers,
        due_marks,
        failed_sign_ins,
        fittings,
        invitations,
        job_changes,
        job_dues,
        job_sheets,
        job_standings,
        jobs,
        known_devices,
        ledger_lines,
        papers,
        people,
        photographs,
        readings,
        record_switches,
        sessions,
        shelf_parts,
        shop_changes,
        shops,
        submissions,
        tablets,
        vehicles,
        wrench_ticks
    );
    Ok(())
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn limits_to_waiting_are_added_and_those_stated_stay() {
        let url = Address::new("postgres://me@127.0.0.1:5/shop").with_timeouts();
        assert!(url.starts_with("postgres://me@127.0.0.1:5/shop?connect_timeout=3&"), "{url}");
        let stated = Address::new("postgres://me@h/shop?connect_timeout=9").with_timeouts();
        assert!(stated.contains("?connect_timeout=9&keepalives_idle=10"), "{stated}");
        let words = Address::new("host=h dbname=shop").with_timeouts();
        assert!(words.starts_with("host=h dbname=shop connect_timeout=3 "), "{words}");
    }
}
