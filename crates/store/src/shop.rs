//! Shops.

use diesel::prelude::*;
use serde::{Deserialize, Serialize};
use wise_badger_casework::entry::Currency;
use wise_badger_casework::finder::Weights;
use wise_badger_casework::work_plan::ShopTerms;

use crate::change;
use crate::json::Json;
use crate::person::Person;
use crate::schema::shops;
use crate::shop_change::{self, ShopWhat};
use crate::{ShopId, StoreError};

/// A shop.
#[derive(Debug, Clone, PartialEq, Queryable, Selectable, Serialize, Deserialize)]
pub struct Shop {
    /// Its key.
    pub id: ShopId,
    /// What it is called.
    pub name: String,
    /// The word by which its people name it when they sign in; no other shop of the database has it.
    pub handle: String,
    /// Whether it is the demo shop, whose people sign in without a password where the server lets them.
    pub demo: bool,
    currency: String,
}

/// Longest word that a shop is named by at sign-in.
pub const LONGEST_HANDLE: usize = 40;

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

/// Opens a shop, under a word made of its name.
pub fn open(connection: &mut PgConnection, name: &str) -> Result<Shop, StoreError> {
    insert(connection, name, false)
}

/// Opens the demo shop.
pub fn open_demo(connection: &mut PgConnection, name: &str) -> Result<Shop, StoreError> {
    insert(connection, name, true)
}

fn insert(connection: &mut PgConnection, name: &str, demo: bool) -> Result<Shop, StoreError> {
    one_at_a_time(connection)?;
    let handle = free_handle(connection, name)?;
    let values = (shops::name.eq(name), shops::handle.eq(handle), shops::demo.eq(demo));
    Ok(diesel::insert_into(shops::table).values(values).returning(Shop::as_returning()).get_result(connection)?)
}

/// The first word of a name's own that no shop has yet: the name in small letters, and counted on where it is taken.
fn free_handle(connection: &mut PgConnection, name: &str) -> Result<String, StoreError> {
    let letters = name.chars().flat_map(char::to_lowercase).map(|sign| if sign.is_ascii_alphanumeric() { sign } else { ' ' });
    let word = letters.collect::<String>().split_whitespace().collect::<Vec<_>>().join("-");
    let word: String = if word.len() < 2 { format!("shop-{word}") } else { word }.chars().take(LONGEST_HANDLE - 6).collect();
    let word = word.trim_matches('-').to_owned();
    let mut number = 1_u32;
    loop {
        let handle = if number == 1 { word.clone() } else { format!("{word}-{number}") };
        if find_by_handle(connection, &handle)?.is_none() {
            return Ok(handle);
        }
        number += 1;
    }
}

/// The shop that signs in by a word.
pub fn find_by_handle(connection: &mut PgConnection, handle: &str) -> Result<Option<Shop>, StoreError> {
    let handle = handle.trim().to_lowercase();
    Ok(shops::table.filter(shops::handle.eq(handle)).select(Shop::as_select()).first(connection).optional()?)
}

/// The shop of a key.
///
/// # Errors     [`StoreError::NotFound`]
pub fn find(connection: &mut PgConnection, shop: ShopId) -> Result<Shop, StoreError> {
    shops::table.find(shop).select(Shop::as_select()).first(connection).optional()?.ok_or(StoreError::NotFound("shop"))
}

/// How the shops of a database stand to whoever names none.
#[derive(Debug, Clone, PartialEq)]
pub enum Shops {
    /// None is open yet.
    None,
    /// There is one, and it need not be named.
    One(Shop),
    /// There are several.
    Several,
}

/// Whether a shop need be named at all.
pub fn shops(connection: &mut PgConnection) -> Result<Shops, StoreError> {
    let mut first: Vec<Shop> = shops::table.order(shops::id).limit(2).select(Shop::as_select()).load(connection)?;
    Ok(match (first.pop(), first.pop()) {
        (None, _) => Shops::None,
        (Some(only), None) => Shops::One(only),
        (Some(_), Some(_)) => Shops::Several,
    })
}

/// The demo shop, where the database has one.
pub fn demo(connection: &mut PgConnection) -> Result<Option<Shop>, StoreError> {
    let demo = shops::table.filter(shops::demo).order(shops::id).select(Shop::as_select());
    Ok(demo.first(connection).optional()?)
}

/// What counts for a shop when options are ranked; as the program begins, where it never said.
pub fn weights(connection: &mut PgConnection, shop: ShopId) -> Result<Weights, StoreError> {
    let kept: Option<Json<Weights>> = shops::table.find(shop).select(shops::weights).first(connection)?;
    Ok(kept.map(|Json(weights)| weights).unwrap_or_default())
}

/// Keeps what counts for a person's shop.
pub fn weigh(connection: &mut PgConnection, person: &Person, weights: Weights) -> Result<(), StoreError> {
    let before = change::state(&self::weights(connection, person.shop_id)?)?;
    diesel::update(shops::table.find(person.shop_id)).set(shops::weights.eq(Json(weights))).execute(connection)?;
    shop_change::note(connection, person, ShopWhat::Weights, "", Some(before), Some(change::state(&weights)?))
}

/// What a shop charges, and when it works; as the program begins, where it never said.
pub fn terms(connection: &mut PgConnection, shop: ShopId) -> Result<ShopTerms, StoreError> {
    let kept: Option<Json<ShopTerms>> = shops::table.find(shop).select(shops::terms).first(connection)?;
    Ok(kept.map(|Json(terms)| terms).unwrap_or_default())
}

/// Keeps the terms of a person's shop.
pub fn set_terms(connection: &mut PgConnection, person: &Person, terms: &ShopTerms) -> Result<(), StoreError> {
    let before = change::state(&self::terms(connection, person.shop_id)?)?;
    diesel::update(shops::table.find(person.shop_id)).set(shops::terms.eq(Json(terms.clone()))).execute(connection)?;
    shop_change::note(connection, person, ShopWhat::Terms, "", Some(before), Some(change::state(terms)?))
}
