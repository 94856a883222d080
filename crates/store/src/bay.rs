//! Bays of a shop.

use chrono::Utc;
use diesel::prelude::*;

use crate::person::Person;
use crate::schema::{bays, bookings};
use crate::shop_change::{self, ShopWhat};
use crate::{BayId, ShopId, StoreError};

/// Most bays of one shop.
pub const MOST: i64 = 40;

/// A bay.
#[derive(Debug, Clone, PartialEq, Queryable, Selectable)]
pub struct Bay {
    /// Its key.
    pub id: BayId,
    /// What it is called.
    pub name: String,
    /// Whether there is a lift in it.
    pub has_lift: bool,
}

/// The bays of a shop, in the order in which they were put down.
pub fn of_shop(connection: &mut PgConnection, shop: ShopId) -> Result<Vec<Bay>, StoreError> {
    let here = bays::table.filter(bays::shop_id.eq(shop)).filter(bays::withdrawn_at.is_null());
    Ok(here.order(bays::id).select(Bay::as_select()).load(connection)?)
}

/// Puts a bay down.
///
/// # Errors     [`StoreError::Full`], [`StoreError::Taken`]
pub fn put(connection: &mut PgConnection, person: &Person, name: &str, has_lift: bool) -> Result<BayId, StoreError> {
    let there = of_shop(connection, person.shop_id)?;
    if i64::try_from(there.len()).is_ok_and(|count| count >= MOST) {
        return Err(StoreError::Full { what: "bays", most: MOST });
    }
    if there.iter().any(|bay| bay.name.to_lowercase() == name.to_lowercase()) {
        return Err(StoreError::Taken { what: "bay called", number: name.to_owned() });
    }
    let row =
        (bays::shop_id.eq(person.shop_id), bays::name.eq(name), bays::has_lift.eq(has_lift), bays::recorded_by.eq(person.id));
    let id = diesel::insert_into(bays::table).values(row).returning(bays::id).get_result(connection)?;
    shop_change::note(connection, person, ShopWhat::BayOn, name, None, None)?;
    Ok(id)
}

/// Takes a bay off that nothing is booked in any more.
///
/// # Errors     [`StoreError::NotFound`], [`StoreError::Overlaps`] while something is booked in it
pub fn withdraw(connection: &mut PgConnection, person: &Person, id: BayId) -> Result<(), StoreError> {
    let to_come = bookings::table
        .filter(bookings::shop_id.eq(person.shop_id))
        .filter(bookings::bay_id.eq(id))
        .filter(bookings::withdrawn_at.is_null())
        .filter(bookings::ends_at.gt(Utc::now()));
    if to_come.count().get_result::<i64>(connection)? > 0 {
        return Err(StoreError::Overlaps { what: "the bay" });
    }
    let one = bays::table.filter(bays::shop_id.eq(person.shop_id)).filter(bays::id.eq(id));
    let name: Option<String> = diesel::update(one.filter(bays::withdrawn_at.is_null()))
        .set((bays::withdrawn_at.eq(Utc::now()), bays::withdrawn_by.eq(person.id)))
        .returning(bays::name)
        .get_result(connection)
        .optional()?;
    shop_change::note(connection, person, ShopWhat::BayOff, &name.ok_or(StoreError::NotFound("bay"))?, None, None)
}
