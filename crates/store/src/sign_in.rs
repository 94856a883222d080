//! What stands in the way of guessing: sign-ins that failed, and the devices that are known.
//!
//! All of it is in the database, by its own clock, so that any number of servers count together.

use std::collections::HashMap;

use diesel::dsl::{self, IntervalDsl};
use diesel::prelude::*;
use diesel::sql_types::Timestamptz;

use crate::person::Person;
use crate::schema::{failed_sign_ins, known_devices};
use crate::{PersonId, ShopId, StoreError};

/// For so many minutes a failure counts.
pub const COUNTED_MINUTES: i32 = 15;
/// Failures are forgotten a few at a time, after a day.
const FORGOTTEN_AT_ONCE: i64 = 50;

/// A thing that failures are counted under, and how many of them within [`COUNTED_MINUTES`] are too many.
#[derive(Debug, Clone, PartialEq, Eq, PartialOrd, Ord)]
pub struct Counted {
    /// What it is, hashed.
    pub subject: String,
    /// So many tries that failed are let through.
    pub most: i64,
}

/// A try that counts as failed until it is found good.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Try(Vec<i64>);

/// Counts a try before it is looked into, so that many at once count, too. `None` when under any of these too many failed lately; such
/// a one is not counted, so that nobody who goes on guessing keeps others waiting for ever.
pub fn begin_try(connection: &mut PgConnection, counted: &[Counted]) -> Result<Option<Try>, StoreError> {
    let mut counted = counted.to_vec();
    // In one order for all, so that two who count at once do not wait for each other.
    counted.sort();
    for Counted { subject, .. } in &counted {
        diesel::sql_query("SELECT pg_advisory_xact_lock(hashtextextended($1, 7))")
            .bind::<diesel::sql_types::Text, _>(subject)
            .execute(connection)?;
    }
    let failed = failures(connection, &counted)?;
    if counted.iter().any(|one| failed.get(&one.subject).is_some_and(|failed| *failed >= one.most)) {
        return Ok(None);
    }
    forget_old(connection)?;
    let rows: Vec<_> = counted.iter().map(|one| failed_sign_ins::subject.eq(&one.subject)).collect();
    Ok(Some(Try(diesel::insert_into(failed_sign_ins::table)
        .values(rows)
        .returning(failed_sign_ins::id)
        .get_results(connection)?)))
}

/// A try was good: it does not count, nor do the ones before it under `cleared`.
pub fn was_good(connection: &mut PgConnection, tried: &Try, cleared: &[String]) -> Result<(), StoreError> {
    diesel::delete(failed_sign_ins::table.filter(failed_sign_ins::id.eq_any(&tried.0))).execute(connection)?;
    diesel::delete(failed_sign_ins::table.filter(failed_sign_ins::subject.eq_any(cleared))).execute(connection)?;
    Ok(())
}

fn failures(connection: &mut PgConnection, counted: &[Counted]) -> Result<HashMap<String, i64>, StoreError> {
    let subjects: Vec<&String> = counted.iter().map(|one| &one.subject).collect();
    let lately = failed_sign_ins::failed_at.gt(dsl::now.into_sql::<Timestamptz>() - COUNTED_MINUTES.minutes());
    let of_these = failed_sign_ins::table.filter(failed_sign_ins::subject.eq_any(subjects)).filter(lately);
    let rows: Vec<(String, i64)> =
        of_these.group_by(failed_sign_ins::subject).select((failed_sign_ins::subject, dsl::count_star())).load(connection)?;
    Ok(rows.into_iter().collect())
}

fn forget_old(connection: &mut PgConnection) -> Result<(), StoreError> {
    let old: Vec<i64> = failed_sign_ins::table
        .filter(failed_sign_ins::failed_at.lt(dsl::now.into_sql::<Timestamptz>() - 1.day()))
        .order(failed_sign_ins::failed_at)
        .limit(FORGOTTEN_AT_ONCE)
        .select(failed_sign_ins::id)
        .load(connection)?;
    diesel::delete(failed_sign_ins::table.filter(failed_sign_ins::id.eq_any(old))).execute(connection)?;
    Ok(())
}

/// Whether somebody has signed in on a device before.
pub fn knows_device(connection: &mut PgConnection, shop: ShopId, person: PersonId, key_hash: &str) -> Result<bool, StoreError> {
    let known = known_devices::table.find((key_hash, shop, person));
    Ok(diesel::select(dsl::exists(known)).get_result(connection)?)
}

/// Notes that somebody signed in on a device.
pub fn know_device(connection: &mut PgConnection, person: &Person, key_hash: &str) -> Result<(), StoreError> {
    diesel::insert_into(known_devices::table)
        .values((
            known_devices::key_hash.eq(key_hash),
            known_devices::shop_id.eq(person.shop_id),
            known_devices::person_id.eq(person.id),
        ))
        .on_conflict((known_devices::key_hash, known_devices::shop_id, known_devices::person_id))
        .do_update()
        .set(known_devices::last_at.eq(dsl::now))
        .execute(connection)?;
    Ok(())
}
