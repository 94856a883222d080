//! Forms already taken in, so that a double tap is taken once.

use diesel::prelude::*;

use crate::person::Person;
use crate::schema::submissions;
use crate::StoreError;

/// Notes a form's token; false when the same form was taken in before.
pub fn claim(connection: &mut PgConnection, token: &str, person: &Person, target: &str) -> Result<bool, StoreError> {
    let values = (
        submissions::token.eq(token),
        submissions::shop_id.eq(person.shop_id),
        submissions::person_id.eq(person.id),
        submissions::target.eq(target),
    );
    let taken = diesel::insert_into(submissions::table).values(values).on_conflict_do_nothing().execute(connection)?;
    Ok(taken == 1)
}
