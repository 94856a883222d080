//! What happens in a shop, told to every server that listens: PostgreSQL's own LISTEN and NOTIFY, so that any number of servers hear of
//! what any of them did, and nobody hears of what was not kept.

use std::sync::{Arc, Weak};
use std::time::{Duration, Instant};

use diesel::connection::SimpleConnection;
use diesel::prelude::*;
use diesel::sql_types::Text;
use tokio::sync::broadcast;

use crate::connection::connect;
use crate::opening::Address;
use crate::person::Person;
use crate::{JobNumber, PersonId, ShopId, StoreError};

const CHANNEL: &str = "wise_badger";
/// Between two looks for what came; nobody notices so short a wait.
const PAUSE: Duration = Duration::from_millis(100);
/// A connection that says nothing is asked whether it is there so often.
const ASKED_EVERY: Duration = Duration::from_secs(10);
/// After a connection was lost.
const RETRY: Duration = Duration::from_secs(1);
/// Happenings that a slow listener may be behind; then it is told to look anew.
const MOST_BEHIND: usize = 256;

/// Something happened.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Happening {
    /// In a shop, to one of its jobs or to something else of it.
    In {
        /// Where.
        shop: ShopId,
        /// To which job; to none, where it was something else.
        job: Option<JobNumber>,
        /// Who did it.
        by: PersonId,
    },
    /// For a while nobody listened: anything may have happened.
    Unheard,
}

/// Tells everybody who listens, once the transaction is kept.
pub fn tell(connection: &mut PgConnection, by: &Person, job: Option<JobNumber>) -> Result<(), StoreError> {
    let told = format!("{} {} {}", by.shop_id.0, job.map_or(0, |job| job.0), by.id.0);
    diesel::sql_query(format!("SELECT pg_notify('{CHANNEL}', $1)")).bind::<Text, _>(told).execute(connection)?;
    Ok(())
}

fn read(told: &str) -> Option<Happening> {
    let mut numbers = told.split(' ').map(|number| number.parse::<i64>().ok());
    let (shop, job, by) = (numbers.next()??, numbers.next()??, numbers.next()??);
    let job = i32::try_from(job).ok().filter(|job| *job > 0).map(JobNumber);
    Some(Happening::In { shop: ShopId(shop), job, by: PersonId(by) })
}

/// Who listens in this process: one connection for all of them.
#[derive(Debug)]
pub(crate) struct Ear {
    heard: broadcast::Sender<Happening>,
}

impl Ear {
    /// Begins to listen, and goes on until the last holder lets go.
    pub(crate) fn open(address: &Address) -> Arc<Ear> {
        let ear = Arc::new(Ear { heard: broadcast::channel(MOST_BEHIND).0 });
        let (url, held) = (address.with_timeouts(), Arc::downgrade(&ear));
        std::thread::spawn(move || listen(&url, &held));
        ear
    }

    pub(crate) fn subscribe(&self) -> broadcast::Receiver<Happening> {
        self.heard.subscribe()
    }
}

fn listen(url: &str, held: &Weak<Ear>) {
    let mut lost = false;
    while held.strong_count() > 0 {
        match hear(url, held, lost) {
            Ok(()) => return,
            Err(error) => {
                if !lost {
                    tracing::warn!(cause = %error, "what happens is not heard of; pages do not follow by themselves for now");
                }
                lost = true;
                std::thread::sleep(RETRY);
            }
        }
    }
}

/// Listens on a connection until nobody holds the ear any more.
///
/// # Errors     when the connection is lost
fn hear(url: &str, held: &Weak<Ear>, lost: bool) -> Result<(), StoreError> {
    let mut connection = connect(url).map_err(|error| StoreError::Unreachable(Box::new(error)))?;
    connection.batch_execute(&format!("LISTEN {CHANNEL}"))?;
    if let Some(ear) = held.upgrade().filter(|_| lost) {
        tracing::info!("what happens is heard of again");
        let _ = ear.heard.send(Happening::Unheard);
    }
    let mut asked = Instant::now();
    loop {
        let Some(ear) = held.upgrade() else { return Ok(()) };
        for notification in connection.notifications_iter() {
            if let Some(happening) = read(&notification?.payload) {
                // Nobody may be listening just now.
                let _ = ear.heard.send(happening);
            }
        }
        drop(ear);
        if asked.elapsed() > ASKED_EVERY {
            connection.batch_execute("SELECT 1")?;
            asked = Instant::now();
        }
        std::thread::sleep(PAUSE);
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_is_told_reads_back_and_anything_else_is_passed_over() {
        let told = Happening::In { shop: ShopId(3), job: Some(JobNumber(12)), by: PersonId(9) };
        assert_eq!(read("3 12 9"), Some(told));
        assert_eq!(read("3 0 9"), Some(Happening::In { shop: ShopId(3), job: None, by: PersonId(9) }));
        for other in ["", "3", "3 x 9", "3 12"] {
            assert_eq!(read(other), None, "{other}");
        }
    }
}
