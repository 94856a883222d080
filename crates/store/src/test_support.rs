//! A database of its own for each test, made on the server that `./check` starts and dropped afterwards.

use std::sync::atomic::{AtomicU32, Ordering};
use std::time::Duration;

use diesel::connection::{Connection, SimpleConnection};
use diesel::pg::PgConnection;

use crate::Database;

/// Names the server, as a PostgreSQL connection string without a database.
const SERVER: &str = "WISE_BADGER_TEST_SERVER";
/// Names a pooler before it in the same way; `scripts/behind-a-pooler` does.
const POOLER: &str = "WISE_BADGER_TEST_POOLER";

/// An empty database that lasts as long as this value.
#[derive(Debug)]
pub struct TestDatabase {
    server: String,
    name: String,
}

impl TestDatabase {
    /// Makes one.
    ///
    /// # Panics     when no test server is named or it refuses
    pub fn create() -> Self {
        static COUNT: AtomicU32 = AtomicU32::new(0);
        let server = std::env::var(SERVER).unwrap_or_else(|_| panic!("run ./check, or name a PostgreSQL server in {SERVER}"));
        let name = format!("wise_badger_test_{}_{}", std::process::id(), COUNT.fetch_add(1, Ordering::Relaxed));
        let database = TestDatabase { server, name };
        database.tell_server(&format!("CREATE DATABASE {}", database.name));
        database
    }

    /// Its connection string.
    pub fn url(&self) -> String {
        format!("{}/{}", self.server, self.name)
    }

    /// Opens it, migrated.
    ///
    /// # Panics     when it cannot be migrated
    pub fn open(&self) -> Database {
        Database::open(&self.url(), 4, Duration::from_secs(5)).unwrap_or_else(|error| panic!("{}: {error:?}", self.name))
    }

    /// It as a server has it: through the pooler that `WISE_BADGER_TEST_POOLER` names, or as it was opened where none is named.
    ///
    /// # Panics     when it cannot be reached
    pub fn to_serve(&self, opened: Database) -> Database {
        let Ok(pooler) = std::env::var(POOLER) else { return opened };
        drop(opened);
        let through = format!("{pooler}/{}", self.name);
        let behind = Database::open_behind(&through, &self.url(), 4, Duration::from_secs(5));
        behind.unwrap_or_else(|error| panic!("{}: {error:?}", self.name))
    }

    /// A connection to it in a transaction that is never kept.
    ///
    /// # Panics     when it cannot be reached
    pub fn scratch_connection(&self) -> PgConnection {
        drop(self.open());
        let mut connection = PgConnection::establish(&self.url()).unwrap_or_else(|error| panic!("{}: {error}", self.name));
        connection.begin_test_transaction().unwrap_or_else(|error| panic!("{}: {error}", self.name));
        connection
    }

    /// Runs a command in it.
    ///
    /// # Panics     when it cannot be reached or refuses
    pub fn tell(&self, command: &str) {
        Self::run(&self.url(), command);
    }

    /// Asks it for lines: a query whose one column is called `line`.
    ///
    /// # Panics     when it cannot be reached or refuses
    pub fn ask(&self, query: &str) -> Vec<String> {
        #[derive(diesel::QueryableByName)]
        struct Line {
            #[diesel(sql_type = diesel::sql_types::Text)]
            line: String,
        }
        let mut connection = PgConnection::establish(&self.url()).unwrap_or_else(|error| panic!("{}: {error}", self.name));
        let lines = diesel::RunQueryDsl::load::<Line>(diesel::sql_query(query), &mut connection);
        lines.unwrap_or_else(|error| panic!("{query}: {error}")).into_iter().map(|row| row.line).collect()
    }

    /// Runs a command on its server, in no database of a test's.
    fn tell_server(&self, command: &str) {
        Self::run(&format!("{}/postgres", self.server), command);
    }

    /// Lets nobody in any more, and ends every connection there is, until it is let again.
    pub fn shut(&self, shut: bool) {
        self.tell_server(&format!("ALTER DATABASE {} ALLOW_CONNECTIONS {}", self.name, !shut));
        let end = format!("SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE datname = '{}'", self.name);
        self.tell_server(&end);
    }

    fn run(url: &str, command: &str) {
        let done = PgConnection::establish(url)
            .map_err(|error| error.to_string())
            .and_then(|mut connection| connection.batch_execute(command).map_err(|error| error.to_string()));
        if let Err(error) = done {
            panic!("{command}: {error}");
        }
    }
}

impl Drop for TestDatabase {
    fn drop(&mut self) {
        if !std::thread::panicking() {
            self.tell_server(&format!("DROP DATABASE {} WITH (FORCE)", self.name));
        }
    }
}
