//! Sessions in PostgreSQL for the session middleware. The browser's key is kept only as its SHA-256.

use std::collections::HashMap;

use actix_session::storage::{LoadError, SaveError, SessionKey, SessionStore, UpdateError};
use actix_web::cookie::time::Duration;
use chrono::{DateTime, TimeDelta, Utc};
use sha2::{Digest, Sha256};
use wise_badger_store::session::{self, Session};
use wise_badger_store::{Database, PersonId, PgConnection, ShopId, StoreError, TabletId, person};

use crate::worker::{Again, PERSON, SHOP, TABLET, WORKER, Worker};

/// Keeps sessions in the shop's database.
pub(crate) struct PgSessionStore {
    database: Database,
}

/// What the middleware keeps: each value as its JSON text.
type State = HashMap<String, String>;

impl PgSessionStore {
    pub(crate) fn new(database: Database) -> Self {
        PgSessionStore { database }
    }

    async fn keep(&self, key: &SessionKey, mut state: State, ttl: &Duration) -> Result<(), StoreError> {
        state.remove(WORKER);
        let id = |name: &str| state.get(name).and_then(|value| value.parse().ok());
        let session = Session {
            key_hash: hash(key),
            shop_id: id(SHOP).map(ShopId),
            person_id: id(PERSON).map(PersonId),
            tablet_id: id(TABLET).map(TabletId),
            expires_at: expiry(ttl),
            state: serde_json::json!(state),
        };
        self.database.write(move |connection| session::keep(connection, &session)).await
    }
}

/// Whose session it is: it comes with it, from the same connection, and is looked up anew for every request.
fn working(connection: &mut PgConnection, session: Session) -> Result<Option<Worker>, StoreError> {
    let Some((shop, person)) = session.shop_id.zip(session.person_id) else { return Ok(None) };
    match person::working(connection, shop, person) {
        Ok((person, shop, has)) => {
            let again = match session.tablet_id {
                Some(_) if has.pin => Some(Again::Pin),
                _ => has.password.then_some(Again::Password),
            };
            Ok(Some(Worker { person, shop, tablet: session.tablet_id, again, session: session.key_hash, device_units: None }))
        }
        // They left, or the shop's data was started afresh under an old session.
        Err(StoreError::NotFound(_)) => Ok(None),
        Err(error) => Err(error),
    }
}

fn hash(key: &SessionKey) -> String {
    Sha256::digest(key.as_ref().as_bytes()).iter().map(|byte| format!("{byte:02x}")).collect()
}

fn expiry(ttl: &Duration) -> DateTime<Utc> {
    Utc::now() + TimeDelta::seconds(ttl.whole_seconds())
}

fn new_key() -> Result<SessionKey, std::io::Error> {
    // 64 letters and digits drawn by the thread's cryptographic generator: some 380 bits.
    let text: String = rand::distr::SampleString::sample_string(&rand::distr::Alphanumeric, &mut rand::rng(), 64);
    SessionKey::try_from(text).map_err(std::io::Error::other)
}

impl SessionStore for PgSessionStore {
    async fn load(&self, key: &SessionKey) -> Result<Option<State>, LoadError> {
        let key_hash = hash(key);
        let found = self.database.read(move |connection| {
            let Some(session) = session::find(connection, &key_hash, Utc::now())? else { return Ok(None) };
            let mut state: State = serde_json::from_value(session.state.clone()).unwrap_or_default();
            if let Some(worker) = working(connection, session)? {
                state.insert(WORKER.to_owned(), serde_json::json!(worker).to_string());
            }
            Ok(Some(state))
        });
        found.await.map_err(|error: StoreError| LoadError::Other(error.into()))
    }

    async fn save(&self, state: State, ttl: &Duration) -> Result<SessionKey, SaveError> {
        let key = new_key().map_err(|error| SaveError::Other(error.into()))?;
        self.keep(&key, state, ttl).await.map_err(|error| SaveError::Other(error.into()))?;
        Ok(key)
    }

    async fn update(&self, key: SessionKey, state: State, ttl: &Duration) -> Result<SessionKey, UpdateError> {
        self.keep(&key, state, ttl).await.map_err(|error| UpdateError::Other(error.into()))?;
        Ok(key)
    }

    async fn update_ttl(&self, key: &SessionKey, ttl: &Duration) -> Result<(), anyhow::Error> {
        let (key_hash, expires_at) = (hash(key), expiry(ttl));
        let done: Result<(), StoreError> =
            self.database.write(move |connection| session::prolong(connection, &key_hash, expires_at)).await;
        Ok(done?)
    }

    async fn delete(&self, key: &SessionKey) -> Result<(), anyhow::Error> {
        let key_hash = hash(key);
        let done: Result<(), StoreError> = self.database.write(move |connection| session::end(connection, &key_hash)).await;
        Ok(done?)
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use wise_badger_store::test_support::TestDatabase;

    fn state(of: &[(&str, &str)]) -> State {
        of.iter().map(|(name, value)| ((*name).to_owned(), (*value).to_owned())).collect()
    }

    const HOUR: Duration = Duration::hours(1);

    #[tokio::test]
    async fn what_is_kept_under_a_key_comes_back_until_it_is_changed_ended_or_too_old() {
        let database = TestDatabase::create();
        let store = PgSessionStore::new(database.open());
        let key = store.save(state(&[("units", "\"mm\"")]), &HOUR).await.expect("kept");
        assert_eq!(store.load(&key).await.expect("read"), Some(state(&[("units", "\"mm\"")])));
        let key = store.update(key, state(&[("units", "\"in\"")]), &HOUR).await.expect("changed");
        assert_eq!(store.load(&key).await.expect("read"), Some(state(&[("units", "\"in\"")])));
        let other = store.save(State::new(), &HOUR).await.expect("kept");
        assert_ne!(other.as_ref(), key.as_ref());
        store.update_ttl(&key, &Duration::seconds(-1)).await.expect("aged");
        assert_eq!(store.load(&key).await.expect("read"), None, "too old");
        store.update_ttl(&other, &HOUR).await.expect("prolonged");
        assert_eq!(store.load(&other).await.expect("read"), Some(State::new()));
        store.delete(&other).await.expect("ended");
        assert_eq!(store.load(&other).await.expect("read"), None, "ended");
        store.delete(&other).await.expect("ending what is ended is no error");
    }

    #[tokio::test]
    async fn a_key_that_nobody_was_given_opens_nothing_and_the_record_holds_no_key() {
        let database = TestDatabase::create();
        let store = PgSessionStore::new(database.open());
        let key = store.save(State::new(), &HOUR).await.expect("kept");
        let guessed = SessionKey::try_from("x".repeat(64)).expect("as long as one");
        assert_eq!(store.load(&guessed).await.expect("read"), None);
        assert_ne!(hash(&key), key.as_ref(), "only its hash is on record");
        assert_eq!(hash(&key).len(), 64);
    }
}
