//! The pool of connections, and the one place where blocking work leaves the async threads.
//!
//! Nobody waits for ever: for a turn, for a connection, for a lock, for a statement and for an answer there is a longest time
//! each, so that a database that is away, locked or frozen is told to the visitor within seconds.

use std::ops::{Deref, DerefMut};
use std::sync::{Arc, OnceLock};
use std::time::{Duration, Instant};

use diesel::PgConnection;
use diesel::connection::{AnsiTransactionManager, CacheSize, Connection, SimpleConnection, TransactionManager};
use diesel::r2d2::{ConnectionManager, ManageConnection, Pool, PooledConnection};
use tokio::sync::{Semaphore, broadcast};
use tokio::time::timeout;

use crate::StoreError;
use crate::happening::{Ear, Happening};
use crate::opening::{self, Address, OpeningError};

/// Longest times.
#[derive(Debug, Clone, Copy)]
struct Patience {
    /// For a turn among the connections.
    turn: Duration,
    /// For a connection to be made.
    connection: Duration,
    /// For everything that is done with it; what the database is told is less, so that it speaks first.
    answer: Duration,
}

const PATIENCE: Patience =
    Patience { turn: Duration::from_secs(3), connection: Duration::from_secs(3), answer: Duration::from_secs(8) };

/// What each connection is told of waiting.
const TOLD: &str = "SET lock_timeout = '4s'; SET statement_timeout = '7s'; SET idle_in_transaction_session_timeout = '15s'";

/// The same for one transaction: behind a pooler the next may be another server connection, and that one somebody else's.
const TOLD_FOR_NOW: &str =
    "SET LOCAL lock_timeout = '4s'; SET LOCAL statement_timeout = '7s'; SET LOCAL idle_in_transaction_session_timeout = '15s'";

/// Connections to one database.
#[derive(Clone)]
pub struct Database {
    pool: Pool<Manager>,
    /// Hears of what happens, once anybody asks.
    ear: Arc<OnceLock<Arc<Ear>>>,
    address: Address,
    /// Whether a pooler lends its server connections for a transaction at a time.
    pooled: bool,
    /// As many as there are connections: who has a turn has one at once, and who waits for a turn blocks no thread.
    turns: Arc<Semaphore>,
}

/// For so long a connection that answered is taken to be sound: asking before every page would double the shortest of them.
const SOUND_FOR: Duration = Duration::from_secs(1);

/// Makes connections, tells each of waiting, and asks those that did not answer lately whether they still do.
struct Manager {
    connections: ConnectionManager<PgConnection>,
    pooled: bool,
}

/// A connection of the pool.
struct Pooled {
    connection: PgConnection,
    /// When it last was made or answered the question whether it is there; not known of one on which something failed.
    sound_at: Option<Instant>,
}

/// A connection of the pool, lent.
struct Lent(PooledConnection<Manager>);

impl Deref for Lent {
    type Target = PgConnection;

    fn deref(&self) -> &PgConnection {
        &self.0.connection
    }
}

impl DerefMut for Lent {
    fn deref_mut(&mut self) -> &mut PgConnection {
        &mut self.0.connection
    }
}

impl ManageConnection for Manager {
    type Connection = Pooled;
    type Error = diesel::r2d2::Error;

    fn connect(&self) -> Result<Pooled, Self::Error> {
        let mut connection = self.connections.connect()?;
        if self.pooled {
            // A statement prepared on one server connection is none on the next.
            connection.set_prepared_statement_cache_size(CacheSize::Disabled);
        } else {
            connection.batch_execute(TOLD).map_err(diesel::r2d2::Error::QueryError)?;
        }
        Ok(Pooled { connection, sound_at: Some(Instant::now()) })
    }

    fn is_valid(&self, pooled: &mut Pooled) -> Result<(), Self::Error> {
        if pooled.sound_at.is_some_and(|at| at.elapsed() < SOUND_FOR) {
            return Ok(());
        }
        pooled.connection.batch_execute("SELECT 1").map_err(diesel::r2d2::Error::QueryError)?;
        pooled.sound_at = Some(Instant::now());
        Ok(())
    }

    fn has_broken(&self, pooled: &mut Pooled) -> bool {
        self.connections.has_broken(&mut pooled.connection)
    }
}

impl Database {
    /// Opens a pool of up to `connections`, after waiting up to `wait` for the server, and brings the schema up to date.
    ///
    /// # Errors     [`OpeningError`], each a sentence for whoever starts the program
    pub fn open(url: &str, connections: u32, wait: Duration) -> Result<Self, OpeningError> {
        Database::open_through(Address::new(url), None, connections, wait)
    }

    /// The same through a pooler that lends its server connections for a transaction at a time (pgbouncer's transaction mode). What needs a
    /// connection of its own goes to the database itself: bringing the schema up to date, and hearing what happens.
    ///
    /// # Errors     as of [`Self::open`]
    pub fn open_behind(pooler: &str, url: &str, connections: u32, wait: Duration) -> Result<Self, OpeningError> {
        Database::open_through(Address::new(url), Some(Address::new(pooler)), connections, wait)
    }

    fn open_through(address: Address, pooler: Option<Address>, connections: u32, wait: Duration) -> Result<Self, OpeningError> {
        opening::make_ready(&address, wait)?;
        let pooled = pooler.is_some();
        let through = pooler.as_ref().unwrap_or(&address).with_timeouts();
        let manager = Manager { connections: ConnectionManager::new(through), pooled };
        let pool = Pool::builder()
            .max_size(connections)
            .min_idle(Some(1))
            .connection_timeout(PATIENCE.connection)
            .build(manager)
            .map_err(|error| OpeningError::Away { wait, said: error.to_string() })?;
        let turns = Arc::new(Semaphore::new(usize::try_from(connections).unwrap_or(1)));
        Ok(Database { pool, ear: Arc::default(), address, pooled, turns })
    }

    /// What happens from now on, in any shop of this database, by any server.
    pub fn happenings(&self) -> broadcast::Receiver<Happening> {
        self.ear.get_or_init(|| Ear::open(&self.address)).subscribe()
    }

    /// Reads: runs `work` on a connection, off the async threads.
    pub async fn read<T, E>(&self, work: impl FnOnce(&mut PgConnection) -> Result<T, E> + Send + 'static) -> Result<T, E>
    where
        T: Send + 'static,
        E: From<StoreError> + Send + 'static,
    {
        let pooled = self.pooled;
        let done = self.run(move |connection| if pooled { read_at_once(connection, work) } else { work(connection) }).await;
        done.unwrap_or_else(|late| Err(StoreError::Unreachable(Box::new(late)).into()))
    }

    /// Writes: the same in one transaction, which ends undone when `work` fails.
    ///
    /// # Errors     what `work` says; [`StoreError::OutcomeUnknown`] when the connection was lost, or no answer came, while it was kept
    pub async fn write<T, E>(&self, work: impl FnOnce(&mut PgConnection) -> Result<T, E> + Send + 'static) -> Result<T, E>
    where
        T: Send + 'static,
        E: From<StoreError> + From<diesel::result::Error> + Send + 'static,
    {
        let stage = Arc::new(Stage::default());
        let (of_work, pooled) = (stage.clone(), self.pooled);
        let told = move |connection: &mut PgConnection| {
            if pooled {
                connection.batch_execute(TOLD_FOR_NOW).map_err(StoreError::from)?;
            }
            work(connection)
        };
        let done = self.run(move |connection| transact(connection, told, || of_work.begin_keeping())).await;
        done.unwrap_or_else(|late| {
            let late = Box::new(late);
            Err(if stage.give_up() { StoreError::Unreachable(late) } else { StoreError::OutcomeUnknown(late) }.into())
        })
    }

    /// Runs `work` when its turn comes; fails when its answer does not come in time, and then nobody waits for it any longer.
    async fn run<T, E>(
        &self,
        work: impl FnOnce(&mut PgConnection) -> Result<T, E> + Send + 'static,
    ) -> Result<Result<T, E>, NoAnswer>
    where
        T: Send + 'static,
        E: From<StoreError> + Send + 'static,
    {
        let turn = match timeout(PATIENCE.turn, self.turns.clone().acquire_owned()).await {
            Ok(Ok(turn)) => turn,
            _ => return Ok(Err(StoreError::Unreachable(Box::new(NoTurn)).into())),
        };
        let database = self.clone();
        let task = tokio::task::spawn_blocking(move || {
            // Given back when the work ends, also when nobody waits for it any longer.
            let _turn = turn;
            let mut lent = database.lend()?;
            let done = work(&mut lent);
            if done.is_err() {
                // It may be the connection that failed: whoever takes it next asks it first.
                lent.0.sound_at = None;
            }
            done
        });
        match timeout(PATIENCE.answer, task).await {
            Ok(Ok(outcome)) => Ok(outcome),
            Ok(Err(failed)) => Ok(Err(StoreError::Other(Box::new(failed)).into())),
            Err(_late) => Err(NoAnswer),
        }
    }

    /// A connection on this thread, for the command line and tests.
    ///
    /// # Errors     [`StoreError::Unreachable`]
    pub fn connection(&self) -> Result<impl DerefMut<Target = PgConnection>, StoreError> {
        self.lend()
    }

    fn lend(&self) -> Result<Lent, StoreError> {
        self.pool.get().map(Lent).map_err(|error| StoreError::Unreachable(Box::new(error)))
    }
}

/// How far a transaction has come, between the thread that does it and whoever waits for it: either it is kept or it is given up,
/// never both, so that what nobody waits for any more is not saved after it was said not to be.
#[derive(Default)]
struct Stage(OnceLock<bool>);

impl Stage {
    /// About to be kept; false when it was given up before.
    fn begin_keeping(&self) -> bool {
        *self.0.get_or_init(|| true)
    }

    /// Given up; false when it is being kept already.
    fn give_up(&self) -> bool {
        !*self.0.get_or_init(|| false)
    }
}

/// The database did not answer in time.
#[derive(Debug, thiserror::Error)]
#[error("no answer within {} s", PATIENCE.answer.as_secs())]
struct NoAnswer;

/// No connection came free in time.
#[derive(Debug, thiserror::Error)]
#[error("no connection came free within {} s", PATIENCE.turn.as_secs())]
struct NoTurn;

/// Runs several queries as one transaction on a connection of one's own, which ends undone when `work` fails.
///
/// # Errors     what `work` says; [`StoreError::OutcomeUnknown`] when everything was done and the end of it was not heard
pub fn in_transaction<T, E>(connection: &mut PgConnection, work: impl FnOnce(&mut PgConnection) -> Result<T, E>) -> Result<T, E>
where
    E: From<StoreError> + From<diesel::result::Error>,
{
    transact(connection, work, || true)
}

/// Reads in a transaction of its own, so that a pooler lends one server connection for all of it. It takes no changes: one that were made
/// here by mistake would be undone, and is refused instead.
fn read_at_once<T, E: From<StoreError>>(
    connection: &mut PgConnection,
    work: impl FnOnce(&mut PgConnection) -> Result<T, E>,
) -> Result<T, E> {
    type Manager = AnsiTransactionManager;
    Manager::begin_transaction(connection).map_err(StoreError::from)?;
    let told = connection.batch_execute("SET TRANSACTION READ ONLY").and_then(|()| connection.batch_execute(TOLD_FOR_NOW));
    let told = told.map_err(StoreError::from);
    let read = told.map_err(E::from).and_then(|()| work(connection));
    // Nothing was written; a connection on which this fails is broken, and the pool drops it.
    let _ = Manager::rollback_transaction(connection);
    read
}

/// The same, kept only when `may_keep` says so once everything is done.
fn transact<T, E>(
    connection: &mut PgConnection,
    work: impl FnOnce(&mut PgConnection) -> Result<T, E>,
    may_keep: impl FnOnce() -> bool,
) -> Result<T, E>
where
    E: From<StoreError> + From<diesel::result::Error>,
{
    type Manager = AnsiTransactionManager;
    Manager::begin_transaction(connection)?;
    let done = work(connection).and_then(|done| match may_keep() {
        true => Ok(done),
        false => Err(StoreError::Unreachable(Box::new(NoAnswer)).into()),
    });
    match done {
        Ok(done) => match Manager::commit_transaction(connection) {
            Ok(()) => Ok(done),
            // Whatever is said here, the server may have kept it before the answer was lost.
            Err(error) => Err(StoreError::OutcomeUnknown(Box::new(error)).into()),
        },
        Err(failed) => {
            // A connection on which this fails is broken, and the pool drops it; the server undoes what it was sent.
            let _ = Manager::rollback_transaction(connection);
            Err(failed)
        }
    }
}

/// Whether the records answer at all.
///
/// # Errors     [`StoreError::Unreachable`] and the like
pub fn answers(connection: &mut PgConnection) -> Result<(), StoreError> {
    diesel::connection::SimpleConnection::batch_execute(connection, "SELECT 1")?;
    Ok(())
}

/// A connection of one's own, made without a pool.
pub(crate) fn connect(url: &str) -> Result<PgConnection, diesel::ConnectionError> {
    PgConnection::establish(url)
}
