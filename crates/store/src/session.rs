//! Browser sessions, found by the hash of the key the browser holds.

use chrono::{DateTime, TimeDelta, Utc};
use diesel::dsl::{self, IntervalDsl};
use diesel::prelude::*;
use diesel::sql_types::Timestamptz;
use diesel::upsert::excluded;

use crate::schema::sessions;
use crate::{PersonId, ShopId, StoreError, TabletId};

/// A session as it is kept.
#[derive(Debug, Clone, PartialEq, Queryable, Selectable, Insertable)]
pub struct Session {
    /// Hash of the key.
    pub key_hash: String,
    /// The shop, once somebody is working.
    pub shop_id: Option<ShopId>,
    /// Who is working.
    pub person_id: Option<PersonId>,
    /// The shared tablet that they signed in on, where it was one.
    pub tablet_id: Option<TabletId>,
    /// What the web layer keeps in it.
    pub state: serde_json::Value,
    /// When the browser forgets it.
    pub expires_at: DateTime<Utc>,
}

/// How long a session lasts.
#[derive(Debug, Clone, Copy)]
struct Lifetime {
    /// After it was last used.
    idle: TimeDelta,
    /// After it began, however much it is used.
    whole: TimeDelta,
}

/// On somebody's own device: over a long weekend.
const OWN_DEVICE: Lifetime = Lifetime { idle: TimeDelta::days(4), whole: TimeDelta::days(30) };
/// On a tablet in a bay, where others come by.
const SHARED_TABLET: Lifetime = Lifetime { idle: TimeDelta::minutes(30), whole: TimeDelta::hours(12) };
/// When it was last used is noted so many times within its idle life, and not at every page.
const NOTED_WITHIN_IDLE: i32 = 30;

/// Ended sessions are forgotten a few at a time, and not before this many days have passed: a clock that jumps ahead for an hour
/// must not sign everybody off for good.
const KEPT_PAST_END_DAYS: i32 = 60;
const FORGOTTEN_AT_ONCE: i64 = 20;

fn lifetime(tablet: Option<TabletId>) -> Lifetime {
    if tablet.is_some() { SHARED_TABLET } else { OWN_DEVICE }
}

/// The session of a key, unless it has ended: left alone too long, too old, or forgotten by its browser. That it is used is noted.
pub fn find(connection: &mut PgConnection, key_hash: &str, now: DateTime<Utc>) -> Result<Option<Session>, StoreError> {
    let found = sessions::table.find(key_hash).filter(sessions::expires_at.gt(now));
    let row: Option<(Session, DateTime<Utc>, DateTime<Utc>)> =
        found.select((Session::as_select(), sessions::began_at, sessions::seen_at)).first(connection).optional()?;
    let Some((session, began_at, seen_at)) = row else { return Ok(None) };
    let Lifetime { idle, whole } = lifetime(session.tablet_id);
    if now - seen_at > idle || now - began_at > whole {
        return Ok(None);
    }
    if now - seen_at > idle / NOTED_WITHIN_IDLE {
        // A database that takes no changes still lets its readers read.
        let noted = diesel::update(sessions::table.find(key_hash)).set(sessions::seen_at.eq(now)).execute(connection);
        if let Err(error) = noted {
            tracing::warn!(cause = %error, "that a session is used was not noted");
        }
    }
    Ok(Some(session))
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
            sessions::tablet_id.eq(excluded(sessions::tablet_id)),
            sessions::state.eq(excluded(sessions::state)),
            sessions::expires_at.eq(excluded(sessions::expires_at)),
        ))
        .execute(connection)?;
    Ok(())
}

/// Puts off when the browser forgets a session.
pub fn prolong(connection: &mut PgConnection, key_hash: &str, expires_at: DateTime<Utc>) -> Result<(), StoreError> {
    diesel::update(sessions::table.find(key_hash)).set(sessions::expires_at.eq(expires_at)).execute(connection)?;
    Ok(())
}

/// Ends a session.
pub fn end(connection: &mut PgConnection, key_hash: &str) -> Result<(), StoreError> {
    diesel::delete(sessions::table.find(key_hash)).execute(connection)?;
    Ok(())
}

/// How many sessions somebody has that may still be used.
pub fn count_of(connection: &mut PgConnection, shop: ShopId, person: PersonId) -> Result<i64, StoreError> {
    let theirs = sessions::table.filter(sessions::shop_id.eq(shop)).filter(sessions::person_id.eq(person));
    Ok(theirs.filter(sessions::seen_at.gt(Utc::now() - OWN_DEVICE.idle)).count().get_result(connection)?)
}
