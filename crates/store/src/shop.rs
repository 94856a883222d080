//! Shops.

use diesel::prelude::*;

use crate::schema::shops;
use crate::{ShopId, StoreError};

/// A shop.
#[derive(Debug, Clone, PartialEq, Queryable, Selectable)]
pub struct Shop {
    /// Its key.
    pub id: ShopId,
    /// What it is called.
    pub name: String,
}

/// Opens a shop.
pub fn open(connection: &mut PgConnection, name: &str) -> Result<Shop, StoreError> {
    let shop = diesel::insert_into(shops::table).values(shops::name.eq(name)).returning(Shop::as_returning());
    Ok(shop.get_result(connection)?)
}

/// The shop this installation serves: the first one opened.
pub fn first(connection: &mut PgConnection) -> Result<Option<Shop>, StoreError> {
    Ok(shops::table.order(shops::id).select(Shop::as_select()).first(connection).optional()?)
}
