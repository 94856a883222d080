//! Secret links by which a calendar program reads the bays. Of a link only its hash is kept.

use chrono::{DateTime, Utc};
use diesel::prelude::*;

use crate::person::Person;
use crate::schema::calendar_links;
use crate::shop_change::{self, ShopWhat};
use crate::{CalendarLinkId, ShopId, StoreError};

/// Most links of one shop.
const MOST: i64 = 20;

/// A link that is good.
#[derive(Debug, Clone, PartialEq, Queryable, Selectable)]
pub struct CalendarLink {
    /// Its key.
    pub id: CalendarLinkId,
    /// When it was made.
    pub made_at: DateTime<Utc>,
}

/// Makes a link.
///
/// # Errors     [`StoreError::Full`]
pub fn make(connection: &mut PgConnection, person: &Person, key_hash: &str) -> Result<(), StoreError> {
    if i64::try_from(of_shop(connection, person.shop_id)?.len()).is_ok_and(|count| count >= MOST) {
        return Err(StoreError::Full { what: "calendar links", most: MOST });
    }
    let row = (
        calendar_links::shop_id.eq(person.shop_id),
        calendar_links::key_hash.eq(key_hash),
        calendar_links::made_by.eq(person.id),
    );
    diesel::insert_into(calendar_links::table).values(row).execute(connection)?;
    shop_change::note(connection, person, ShopWhat::CalendarOn, "", None, None)
}

/// The links of a shop that are good.
pub fn of_shop(connection: &mut PgConnection, shop: ShopId) -> Result<Vec<CalendarLink>, StoreError> {
    let good = calendar_links::table.filter(calendar_links::shop_id.eq(shop)).filter(calendar_links::revoked_at.is_null());
    Ok(good.order(calendar_links::id).select(CalendarLink::as_select()).load(connection)?)
}

/// Whose bays a link shows.
///
/// # Errors     [`StoreError::NotFound`]
pub fn shop_of(connection: &mut PgConnection, key_hash: &str) -> Result<ShopId, StoreError> {
    let good = calendar_links::table.filter(calendar_links::key_hash.eq(key_hash));
    let shop = good.filter(calendar_links::revoked_at.is_null()).select(calendar_links::shop_id).first(connection).optional()?;
    shop.ok_or(StoreError::NotFound("calendar"))
}

/// Takes a link back.
///
/// # Errors     [`StoreError::NotFound`]
pub fn revoke(connection: &mut PgConnection, person: &Person, id: CalendarLinkId) -> Result<(), StoreError> {
    let one = calendar_links::table.filter(calendar_links::shop_id.eq(person.shop_id)).filter(calendar_links::id.eq(id));
    let off = diesel::update(one.filter(calendar_links::revoked_at.is_null()));
    if off.set(calendar_links::revoked_at.eq(Utc::now())).execute(connection)? == 0 {
        return Err(StoreError::NotFound("calendar link"));
    }
    shop_change::note(connection, person, ShopWhat::CalendarOff, "", None, None)
}
