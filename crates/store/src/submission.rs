//! Forms already taken in, so that a double tap is taken once and a changed form is not taken for the one before it.

use chrono::{DateTime, Utc};
use diesel::dsl::{Find, IntervalDsl, now};
use diesel::prelude::*;
use diesel::result::Error as DieselError;
use diesel::sql_types::Timestamptz;

use crate::person::Person;
use crate::schema::submissions;
use crate::{JobId, PersonId, ShopId, StoreError};

/// Which sending of which form it is, and what it holds.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Sending {
    /// Which form of which job: the path it was sent to.
    pub form: String,
    /// Tells this drawing of the form from the next.
    pub token: String,
    /// Hash of everything in it but the token.
    pub content_hash: String,
}

/// What a first sending of a form made.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Made {
    /// The job that was saved, or opened.
    pub job: JobId,
    /// Its revision after that.
    pub revision: i32,
}

/// What is known of a sending.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum Claim {
    /// Nothing: it is to be saved.
    New,
    /// The very same was taken in before; what it made is known unless it makes nothing that has a revision.
    Again(Option<Made>),
    /// Another content came from the same drawing of the form before, and made this.
    Changed(Option<Made>),
    /// The very same was taken in, and then another content after it. Whichever was meant, it is not for the program to guess.
    Overtaken(DateTime<Utc>),
}

/// A few of those remembered longest are forgotten with each new one, and none within this many days: no page is left open and
/// sent again after that. The database's own clock counts, and a clock that jumps forgets little.
const REMEMBERED_DAYS: i32 = 45;
const FORGOTTEN_AT_ONCE: i64 = 20;

#[derive(Queryable, Selectable)]
#[diesel(table_name = submissions)]
struct Row {
    content_hash: String,
    earlier_hashes: Vec<String>,
    job_id: Option<JobId>,
    revision: Option<i32>,
    sent_at: DateTime<Utc>,
}

impl Row {
    fn made(&self) -> Option<Made> {
        self.job_id.zip(self.revision).map(|(job, revision)| Made { job, revision })
    }
}

/// Takes a sending in, or says what is known of it. To be called first in the transaction that saves.
///
/// A second sending that arrives while the first is under way waits for its transaction to end.
pub fn claim(connection: &mut PgConnection, person: &Person, sending: &Sending) -> Result<Claim, StoreError> {
    forget_a_few(connection)?;
    if insert(connection, person, sending)? {
        return Ok(Claim::New);
    }
    let known: Row = one(person, sending).for_update().select(Row::as_select()).first(connection)?;
    if known.content_hash == sending.content_hash {
        return Ok(Claim::Again(known.made()));
    }
    if known.earlier_hashes.contains(&sending.content_hash) {
        return Ok(Claim::Overtaken(known.sent_at));
    }
    let made = known.made();
    let earlier: Vec<String> = known.earlier_hashes.into_iter().chain([known.content_hash]).collect();
    diesel::update(one(person, sending))
        .set((
            submissions::content_hash.eq(&sending.content_hash),
            submissions::earlier_hashes.eq(earlier),
            submissions::sent_at.eq(now),
        ))
        .execute(connection)?;
    Ok(Claim::Changed(made))
}

/// Notes what a sending made, for the next one to find.
pub fn settle(connection: &mut PgConnection, person: &Person, sending: &Sending, made: Made) -> Result<(), StoreError> {
    let values = (submissions::job_id.eq(Some(made.job)), submissions::revision.eq(Some(made.revision)));
    diesel::update(one(person, sending)).set(values).execute(connection)?;
    Ok(())
}

/// Whether this very content was kept: asked after a connection was lost while it was being kept.
///
/// What is still under way at the server is waited for, since its row is held until it ends. Nothing is left behind.
pub fn was_kept(connection: &mut PgConnection, person: &Person, sending: &Sending) -> Result<bool, StoreError> {
    let mut kept = false;
    let undone = connection.transaction(|connection| {
        if !insert(connection, person, sending)? {
            let hash: String = one(person, sending).select(submissions::content_hash).first(connection)?;
            kept = hash == sending.content_hash;
        }
        Err::<(), DieselError>(DieselError::RollbackTransaction)
    });
    match undone {
        Ok(()) | Err(DieselError::RollbackTransaction) => Ok(kept),
        Err(error) => Err(error.into()),
    }
}

type Key<'a> = Find<submissions::table, (ShopId, PersonId, &'a str, &'a str)>;

fn one<'a>(person: &Person, sending: &'a Sending) -> Key<'a> {
    submissions::table.find((person.shop_id, person.id, sending.form.as_str(), sending.token.as_str()))
}

/// Puts a sending down, unless one under its key is there.
fn insert(connection: &mut PgConnection, person: &Person, sending: &Sending) -> Result<bool, DieselError> {
    let values = (
        submissions::shop_id.eq(person.shop_id),
        submissions::person_id.eq(person.id),
        submissions::form.eq(&sending.form),
        submissions::token.eq(&sending.token),
        submissions::content_hash.eq(&sending.content_hash),
    );
    let taken = diesel::insert_into(submissions::table).values(values).on_conflict_do_nothing().execute(connection)?;
    Ok(taken == 1)
}

fn forget_a_few(connection: &mut PgConnection) -> Result<(), DieselError> {
    type Keyed = (ShopId, PersonId, String, String);
    let key = (submissions::shop_id, submissions::person_id, submissions::form, submissions::token);
    let old: Vec<Keyed> = submissions::table
        .filter(submissions::sent_at.lt(now.into_sql::<Timestamptz>() - REMEMBERED_DAYS.days()))
        .order(submissions::sent_at)
        .limit(FORGOTTEN_AT_ONCE)
        .select(key)
        .for_update()
        .skip_locked()
        .load(connection)?;
    for (shop, person, form, token) in old {
        diesel::delete(submissions::table.find((shop, person, form, token))).execute(connection)?;
    }
    Ok(())
}
