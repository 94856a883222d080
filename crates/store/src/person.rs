//! The people of a shop.

use diesel::prelude::*;
use serde::{Deserialize, Serialize};
use wise_badger_mechanics::tape::{LengthUnit, WeightUnit};

use crate::schema::{people, shops};
use crate::shop::Shop;
use crate::{PersonId, ShopId, StoreError};

/// Somebody who works in a shop.
#[derive(Debug, Clone, PartialEq, Queryable, Selectable, Serialize, Deserialize)]
#[diesel(table_name = people)]
pub struct Person {
    /// Their key.
    pub id: PersonId,
    /// Their shop.
    pub shop_id: ShopId,
    /// What they are called.
    pub name: String,
    /// What they do there.
    pub trade: String,
    length_unit: String,
    weight_unit: String,
}

impl Person {
    /// The unit they read lengths in.
    pub fn length_unit(&self) -> LengthUnit {
        if self.length_unit == "mm" { LengthUnit::Millimetres } else { LengthUnit::Inches }
    }

    /// The unit they read weights in.
    pub fn weight_unit(&self) -> WeightUnit {
        if self.weight_unit == "kg" { WeightUnit::Kilograms } else { WeightUnit::Pounds }
    }
}

/// Takes somebody on.
pub fn take_on(connection: &mut PgConnection, shop: ShopId, name: &str, trade: &str) -> Result<Person, StoreError> {
    let values = (people::shop_id.eq(shop), people::name.eq(name), people::trade.eq(trade));
    Ok(diesel::insert_into(people::table).values(values).returning(Person::as_returning()).get_result(connection)?)
}

/// Everybody in a shop, by name.
pub fn of_shop(connection: &mut PgConnection, shop: ShopId) -> Result<Vec<Person>, StoreError> {
    Ok(people::table.filter(people::shop_id.eq(shop)).order(people::name).select(Person::as_select()).load(connection)?)
}

/// One of a shop's people.
pub fn find(connection: &mut PgConnection, shop: ShopId, person: PersonId) -> Result<Person, StoreError> {
    let found = people::table.filter(people::shop_id.eq(shop)).filter(people::id.eq(person)).select(Person::as_select());
    found.first(connection).optional()?.ok_or(StoreError::NotFound("person"))
}

/// One of a shop's people, with the shop's name.
pub fn working(connection: &mut PgConnection, shop: ShopId, person: PersonId) -> Result<(Person, Shop), StoreError> {
    let found = people::table
        .inner_join(shops::table.on(shops::id.eq(people::shop_id)))
        .filter(people::shop_id.eq(shop))
        .filter(people::id.eq(person))
        .select((Person::as_select(), Shop::as_select()));
    found.first(connection).optional()?.ok_or(StoreError::NotFound("person"))
}

/// Sets the units somebody reads.
pub fn set_units(
    connection: &mut PgConnection,
    person: &Person,
    length: LengthUnit,
    weight: WeightUnit,
) -> Result<(), StoreError> {
    let length = if length == LengthUnit::Millimetres { "mm" } else { "in" };
    let weight = if weight == WeightUnit::Kilograms { "kg" } else { "lb" };
    diesel::update(people::table.filter(people::shop_id.eq(person.shop_id)).filter(people::id.eq(person.id)))
        .set((people::length_unit.eq(length), people::weight_unit.eq(weight)))
        .execute(connection)?;
    Ok(())
}
