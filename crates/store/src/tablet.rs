//! Tablets of a shop, let in by an owner: whoever has a PIN signs in on one by name.

use chrono::{DateTime, Utc};
use diesel::prelude::*;

use crate::person::Person;
use crate::schema::{sessions, tablets};
use crate::shop_change::{self, ShopWhat};
use crate::{ShopId, StoreError, TabletId};

/// Most tablets of one shop.
pub const MOST: i64 = 50;

/// A tablet that is let in.
#[derive(Debug, Clone, PartialEq, Queryable, Selectable)]
#[diesel(table_name = tablets)]
pub struct Tablet {
    /// Its key.
    pub id: TabletId,
    /// Its shop.
    pub shop_id: ShopId,
    /// What it is called, as in “Bay 2”.
    pub name: String,
    /// Since when it is let in.
    pub enrolled_at: DateTime<Utc>,
}

/// Lets a tablet in, which holds the key of a hash.
///
/// # Errors     [`StoreError::Full`]
pub fn enroll(connection: &mut PgConnection, owner: &Person, name: &str, key_hash: &str) -> Result<Tablet, StoreError> {
    let here = tablets::table.filter(tablets::shop_id.eq(owner.shop_id)).filter(tablets::revoked_at.is_null());
    if here.count().get_result::<i64>(connection)? >= MOST {
        return Err(StoreError::Full { what: "tablets", most: MOST });
    }
    let values = (
        tablets::shop_id.eq(owner.shop_id),
        tablets::name.eq(name),
        tablets::key_hash.eq(key_hash),
        tablets::enrolled_by.eq(owner.id),
    );
    let tablet = diesel::insert_into(tablets::table).values(values).returning(Tablet::as_returning()).get_result(connection)?;
    shop_change::note(connection, owner, ShopWhat::TabletOn, name, None, None)?;
    Ok(tablet)
}

/// The tablet that holds the key of a hash, while it is let in.
pub fn find(connection: &mut PgConnection, key_hash: &str) -> Result<Option<Tablet>, StoreError> {
    let one = tablets::table.filter(tablets::key_hash.eq(key_hash)).filter(tablets::revoked_at.is_null());
    Ok(one.select(Tablet::as_select()).first(connection).optional()?)
}

/// The tablets that are let into a shop.
pub fn of_shop(connection: &mut PgConnection, shop: ShopId) -> Result<Vec<Tablet>, StoreError> {
    let here = tablets::table.filter(tablets::shop_id.eq(shop)).filter(tablets::revoked_at.is_null());
    Ok(here.order(tablets::id).select(Tablet::as_select()).load(connection)?)
}

/// Shuts a tablet out, and signs out whoever is signed in on it.
///
/// # Errors     [`StoreError::NotFound`]
pub fn revoke(connection: &mut PgConnection, owner: &Person, id: TabletId) -> Result<(), StoreError> {
    let one = tablets::table.filter(tablets::shop_id.eq(owner.shop_id)).filter(tablets::id.eq(id));
    let off = (tablets::revoked_at.eq(Utc::now()), tablets::revoked_by.eq(owner.id));
    let name: Option<String> = diesel::update(one.filter(tablets::revoked_at.is_null()))
        .set(off)
        .returning(tablets::name)
        .get_result(connection)
        .optional()?;
    let name = name.ok_or(StoreError::NotFound("tablet"))?;
    diesel::delete(sessions::table.filter(sessions::shop_id.eq(owner.shop_id)).filter(sessions::tablet_id.eq(id)))
        .execute(connection)?;
    shop_change::note(connection, owner, ShopWhat::TabletOff, &name, None, None)
}
