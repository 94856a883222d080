//! Browser sessions, found by the hash of the key the browser holds.

use chrono::{DateTime, Utc};
use diesel::dsl::{self, IntervalDsl};
use diesel::prelude::*;
use diesel::sql_types::Timestamptz;
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

/// Ended sessions are forgotten a few at a time, and not before this many days have passed: a clock that jumps ahead for an hour
/// must not sign everybody off for good.
const KEPT_PAST_END_DAYS: i32 = 60;
const FORGOTTEN_AT_ONCE: i64 = 20;

/// The session of a key, unless it has ended.
pub fn find(connection: &mut PgConnection, key_hash: &str, now: DateTime<Utc>) -> Result<Option<Session>, StoreError> {
    let found = sessions::table.find(key_hash).filter(sessions::expires_at.gt(now)).select(Session::as_select());
    Ok(found.first(connection).optional()?)
}

/// Keeps a session, new or changed, and forgets a few that ended long ago by the database's own clock.
pub fn keep(connection: &mut PgConnection, session: &Session) -> Result<(), StoreError> {
    let old: Vec<String> = sessions::table
        .filter(sessions::expires_at.lt(dsl::now.into_sql::<Timestamptz>() - KEPT_PAST_END_DAYS.days()))
        .order(sessions::expires_at)
        .limit(FORGOTTEN_AT_ONCE)
        .select(sessions::key_hash)
        .load(connection)?;
    diesel::delete(sessions::table.filter(sessions::key_hash.eq_any(old))).execute(connection)?;
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
