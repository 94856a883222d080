//! Browser sessions, found by the hash of the key the browser holds.

use chrono::{DateTime, Utc};
use diesel::prelude::*;
use diesel::upsert::excluded;

use crate::schema::sessions;
use crate::{PersonId, ShopId, StoreError};

/// A session as it is kept.
#[derive(Debug, Clone, PartialEq, Queryable, Selectable, Insertable)]
pub struct Session {
    /// Hash of the key.
    pub key_hash: String,
    /// The shop, once somebody is working.
    pub shop_id: Option<ShopId>,
    /// Who is working.
    pub person_id: Option<PersonId>,
    /// What the web layer keeps in it.
    pub state: serde_json::Value,
    /// When it ends.
    pub expires_at: DateTime<Utc>,
}

/// The session of a key, unless it has ended.
pub fn find(connection: &mut PgConnection, key_hash: &str, now: DateTime<Utc>) -> Result<Option<Session>, StoreError> {
    let found = sessions::table.find(key_hash).filter(sessions::expires_at.gt(now)).select(Session::as_select());
    Ok(found.first(connection).optional()?)
}

/// Keeps a session, new or changed, and drops those that have ended.
pub fn keep(connection: &mut PgConnection, session: &Session, now: DateTime<Utc>) -> Result<(), StoreError> {
    diesel::delete(sessions::table.filter(sessions::expires_at.le(now))).execute(connection)?;
    diesel::insert_into(sessions::table)
        .values(session)
        .on_conflict(sessions::key_hash)
        .do_update()
        .set((
            sessions::shop_id.eq(excluded(sessions::shop_id)),
            sessions::person_id.eq(excluded(sessions::person_id)),
            sessions::state.eq(excluded(sessions::state)),
            sessions::expires_at.eq(excluded(sessions::expires_at)),
        ))
        .execute(connection)?;
    Ok(())
}

/// Puts off the end of a session.
pub fn prolong(connection: &mut PgConnection, key_hash: &str, expires_at: DateTime<Utc>) -> Result<(), StoreError> {
    diesel::update(sessions::table.find(key_hash)).set(sessions::expires_at.eq(expires_at)).execute(connection)?;
    Ok(())
}

/// Ends a session.
pub fn end(connection: &mut PgConnection, key_hash: &str) -> Result<(), StoreError> {
    diesel::delete(sessions::table.find(key_hash)).execute(connection)?;
    Ok(())
}
