//! Shops.

use diesel::prelude::*;
use serde::{Deserialize, Serialize};
use wise_badger_casework::entry::Currency;
use wise_badger_casework::finder::Weights;
use wise_badger_casework::work_plan::ShopTerms;

use crate::json::Json;
use crate::person::Person;
use crate::schema::shops;
use crate::{ShopId, StoreError};

/// A shop.
#[derive(Debug, Clone, PartialEq, Queryable, Selectable, Serialize, Deserialize)]
pub struct Shop {
    /// Its key.
    pub id: ShopId,
    /// What it is called.
    pub name: String,
    currency: String,
}

impl Shop {
    /// The currency it reckons in.
    pub fn currency(&self) -> Currency {
        serde_json::from_value(self.currency.clone().into()).unwrap_or_default()
    }
}

/// Waits until nobody else opens a shop, and lets nobody until the transaction ends: two programs that start at once must not both
/// find the database without one.
pub fn one_at_a_time(connection: &mut PgConnection) -> Result<(), StoreError> {
    const OPENING_A_SHOP: i64 = 0x77_62_73_68_6f_70;
    diesel::sql_query(format!("SELECT pg_advisory_xact_lock({OPENING_A_SHOP})")).execute(connection)?;
    Ok(())
}

/// Opens a shop.
pub fn open(connection: &mut PgConnection, name: &str) -> Result<Shop, StoreError> {
    let shop = diesel::insert_into(shops::table).values(shops::name.eq(name)).returning(Shop::as_returning());
    Ok(shop.get_result(connection)?)
}

/// What counts for a shop when options are ranked; as the program begins, where it never said.
pub fn weights(connection: &mut PgConnection, shop: ShopId) -> Result<Weights, StoreError> {
    let kept: Option<Json<Weights>> = shops::table.find(shop).select(shops::weights).first(connection)?;
    Ok(kept.map(|Json(weights)| weights).unwrap_or_default())
}

/// Keeps what counts for a person's shop.
pub fn weigh(connection: &mut PgConnection, person: &Person, weights: Weights) -> Result<(), StoreError> {
    diesel::update(shops::table.find(person.shop_id)).set(shops::weights.eq(Json(weights))).execute(connection)?;
    Ok(())
}

/// What a shop charges, and when it works; as the program begins, where it never said.
pub fn terms(connection: &mut PgConnection, shop: ShopId) -> Result<ShopTerms, StoreError> {
    let kept: Option<Json<ShopTerms>> = shops::table.find(shop).select(shops::terms).first(connection)?;
    Ok(kept.map(|Json(terms)| terms).unwrap_or_default())
}

/// Keeps the terms of a person's shop.
pub fn set_terms(connection: &mut PgConnection, person: &Person, terms: &ShopTerms) -> Result<(), StoreError> {
    diesel::update(shops::table.find(person.shop_id)).set(shops::terms.eq(Json(terms.clone()))).execute(connection)?;
    Ok(())
}

/// The shop this installation serves: the first one opened.
pub fn first(connection: &mut PgConnection) -> Result<Option<Shop>, StoreError> {
    Ok(shops::table.order(shops::id).select(Shop::as_select()).first(connection).optional()?)
}
