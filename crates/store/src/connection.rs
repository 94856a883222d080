//! The pool of connections, and the one place where blocking work leaves the async threads.

use diesel::PgConnection;
use diesel::connection::Connection;
use diesel::r2d2::{ConnectionManager, Pool, PooledConnection};
use diesel_migrations::{EmbeddedMigrations, MigrationHarness, embed_migrations};

use crate::StoreError;

const MIGRATIONS: EmbeddedMigrations = embed_migrations!("migrations");

/// Connections to one database.
#[derive(Clone)]
pub struct Database {
    pool: Pool<ConnectionManager<PgConnection>>,
}

impl Database {
    /// Opens a pool of up to `connections` and brings the schema up to date.
    ///
    /// # Errors     [`StoreError::Unreachable`] when the server does not answer, [`StoreError::Other`] when a migration fails
    pub fn open(url: &str, connections: u32) -> Result<Self, StoreError> {
        let manager = ConnectionManager::<PgConnection>::new(url);
        let pool = Pool::builder()
            .max_size(connections)
            .connection_timeout(std::time::Duration::from_secs(5))
            .build(manager)
            .map_err(|error| StoreError::Unreachable(Box::new(error)))?;
        let database = Database { pool };
        database.connection()?.run_pending_migrations(MIGRATIONS).map_err(StoreError::Other)?;
        Ok(database)
    }

    /// Reads: runs `work` on a connection, off the async threads.
    pub async fn read<T, E>(&self, work: impl FnOnce(&mut PgConnection) -> Result<T, E> + Send + 'static) -> Result<T, E>
    where
        T: Send + 'static,
        E: From<StoreError> + Send + 'static,
    {
        let database = self.clone();
        let task = tokio::task::spawn_blocking(move || work(&mut *database.connection()?));
        task.await.unwrap_or_else(|error| Err(StoreError::Other(Box::new(error)).into()))
    }

    /// Writes: the same in one transaction, which ends undone when `work` fails.
    pub async fn write<T, E>(&self, work: impl FnOnce(&mut PgConnection) -> Result<T, E> + Send + 'static) -> Result<T, E>
    where
        T: Send + 'static,
        E: From<StoreError> + From<diesel::result::Error> + Send + 'static,
    {
        self.read(move |connection| connection.transaction(work)).await
    }

    /// A connection on this thread, for the command line and tests.
    pub fn connection(&self) -> Result<PooledConnection<ConnectionManager<PgConnection>>, StoreError> {
        self.pool.get().map_err(|error| StoreError::Unreachable(Box::new(error)))
    }
}

/// Runs several queries as one transaction on a connection of one's own, which ends undone when `work` fails.
pub fn in_transaction<T, E>(connection: &mut PgConnection, work: impl FnOnce(&mut PgConnection) -> Result<T, E>) -> Result<T, E>
where
    E: From<diesel::result::Error>,
{
    connection.transaction(work)
}
