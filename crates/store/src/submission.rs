//! Forms already taken in, so that a double tap is taken once.

use chrono::{TimeDelta, Utc};
use diesel::prelude::*;

use crate::StoreError;
use crate::person::Person;
use crate::schema::submissions;

/// How long a form is remembered: no page is left open and sent again after that.
const REMEMBERED: TimeDelta = TimeDelta::days(30);

/// Notes a form's token; false when the same form was taken in before. Forms sent long ago are forgotten.
///
/// A second sending that arrives while the first is under way waits for its transaction to end.
pub fn claim(connection: &mut PgConnection, token: &str, person: &Person) -> Result<bool, StoreError> {
    let long_ago = Utc::now() - REMEMBERED;
    diesel::delete(submissions::table.filter(submissions::sent_at.lt(long_ago))).execute(connection)?;
    let values = (submissions::token.eq(token), submissions::shop_id.eq(person.shop_id), submissions::person_id.eq(person.id));
    let taken = diesel::insert_into(submissions::table).values(values).on_conflict_do_nothing().execute(connection)?;
    Ok(taken == 1)
}

/// Notes which job a form opened, for a second sending to find.
pub fn note_opened(connection: &mut PgConnection, token: &str, job: crate::JobId) -> Result<(), StoreError> {
    diesel::update(submissions::table.find(token)).set(submissions::opened_job.eq(Some(job))).execute(connection)?;
    Ok(())
}

/// The job that a form opened.
pub fn opened(connection: &mut PgConnection, person: &Person, token: &str) -> Result<Option<crate::JobId>, StoreError> {
    let mine = submissions::table.filter(submissions::shop_id.eq(person.shop_id)).filter(submissions::person_id.eq(person.id));
    let found = mine.filter(submissions::token.eq(token)).select(submissions::opened_job);
    Ok(found.first::<Option<crate::JobId>>(connection).optional()?.flatten())
}
