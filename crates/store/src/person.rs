//! The people of a shop.

use chrono::{DateTime, Utc};
use diesel::prelude::*;
use serde::{Deserialize, Serialize};
use serde_json::json;
use wise_badger_mechanics::tape::{LengthUnit, WeightUnit};

use crate::schema::{people, sessions, shops};
use crate::shop::Shop;
use crate::shop_change::{self, ShopWhat};
use crate::{PersonId, Role, ShopId, StoreError};

/// Somebody who works in a shop.
#[derive(Debug, Clone, PartialEq, Queryable, Selectable, Serialize, Deserialize)]
#[diesel(table_name = people)]
pub struct Person {
    /// Their key.
    pub id: PersonId,
    /// Their shop.
    pub shop_id: ShopId,
    /// What they are called; nobody else in the shop is.
    pub name: String,
    /// What they do there.
    pub trade: String,
    /// What they are there, which decides what they may do.
    pub role: Role,
    /// When they left, if they have.
    pub left_at: Option<DateTime<Utc>>,
    length_unit: String,
    weight_unit: String,
}

/// What proves that somebody is who they say, as hashes.
#[derive(Debug, Clone, Default, PartialEq, Queryable, Selectable)]
#[diesel(table_name = people)]
pub struct Secrets {
    /// Of the password; nobody signs in with none.
    pub password_hash: Option<String>,
    /// Of the PIN, for tablets of the shop.
    pub pin_hash: Option<String>,
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

    /// Whether they work in the shop now.
    pub fn is_here(&self) -> bool {
        self.left_at.is_none()
    }
}

/// Takes somebody on, who has no password yet.
///
/// # Errors     [`StoreError::Taken`] when somebody in the shop is called so already
pub fn take_on(connection: &mut PgConnection, shop: ShopId, name: &str, trade: &str, role: Role) -> Result<Person, StoreError> {
    if find_by_name(connection, shop, name)?.is_some() {
        return Err(StoreError::Taken { what: "person called", number: name.to_owned() });
    }
    let values = (people::shop_id.eq(shop), people::name.eq(name), people::trade.eq(trade), people::role.eq(role));
    Ok(diesel::insert_into(people::table).values(values).returning(Person::as_returning()).get_result(connection)?)
}

/// Everybody who is or was in a shop, by name: the record names those who left, too.
pub fn of_shop(connection: &mut PgConnection, shop: ShopId) -> Result<Vec<Person>, StoreError> {
    Ok(people::table.filter(people::shop_id.eq(shop)).order(people::name).select(Person::as_select()).load(connection)?)
}

/// One of a shop's people.
///
/// # Errors     [`StoreError::NotFound`]
pub fn find(connection: &mut PgConnection, shop: ShopId, person: PersonId) -> Result<Person, StoreError> {
    let found = people::table.filter(people::shop_id.eq(shop)).filter(people::id.eq(person)).select(Person::as_select());
    found.first(connection).optional()?.ok_or(StoreError::NotFound("person"))
}

/// Whoever is called so in a shop, in capitals or not.
pub fn find_by_name(connection: &mut PgConnection, shop: ShopId, name: &str) -> Result<Option<Person>, StoreError> {
    let wanted = name.trim().to_lowercase();
    Ok(of_shop(connection, shop)?.into_iter().find(|person| person.name.trim().to_lowercase() == wanted))
}

/// What somebody has to show who they are by.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Has {
    /// A password.
    pub password: bool,
    /// A PIN.
    pub pin: bool,
}

/// Somebody who works in the shop, with the shop and with what they have to show who they are by.
///
/// # Errors     [`StoreError::NotFound`], also of somebody who left
pub fn working(connection: &mut PgConnection, shop: ShopId, person: PersonId) -> Result<(Person, Shop, Has), StoreError> {
    let has = (people::password_hash.is_not_null(), people::pin_hash.is_not_null());
    let found = people::table
        .inner_join(shops::table.on(shops::id.eq(people::shop_id)))
        .filter(people::shop_id.eq(shop))
        .filter(people::id.eq(person))
        .filter(people::left_at.is_null())
        .select((Person::as_select(), Shop::as_select(), has));
    let (person, shop, (password, pin)) = found.first(connection).optional()?.ok_or(StoreError::NotFound("person"))?;
    Ok((person, shop, Has { password, pin }))
}

/// What proves that somebody is who they say.
///
/// # Errors     [`StoreError::NotFound`]
pub fn secrets(connection: &mut PgConnection, shop: ShopId, person: PersonId) -> Result<Secrets, StoreError> {
    let found = people::table.filter(people::shop_id.eq(shop)).filter(people::id.eq(person)).select(Secrets::as_select());
    found.first(connection).optional()?.ok_or(StoreError::NotFound("person"))
}

/// Those who work in a shop and have a PIN, by name.
pub fn with_pin(connection: &mut PgConnection, shop: ShopId) -> Result<Vec<Person>, StoreError> {
    let here = people::table.filter(people::shop_id.eq(shop)).filter(people::left_at.is_null());
    Ok(here.filter(people::pin_hash.is_not_null()).order(people::name).select(Person::as_select()).load(connection)?)
}

/// Gives somebody another password, and signs them out wherever else they are signed in.
///
/// # Errors     [`StoreError::NotFound`]
pub fn set_password(
    connection: &mut PgConnection,
    by: &Person,
    person: PersonId,
    password_hash: &str,
    session_that_stays: Option<&str>,
) -> Result<(), StoreError> {
    let of = find(connection, by.shop_id, person)?;
    let one = people::table.filter(people::shop_id.eq(by.shop_id)).filter(people::id.eq(person));
    diesel::update(one).set(people::password_hash.eq(password_hash)).execute(connection)?;
    end_sessions(connection, &of, session_that_stays)?;
    shop_change::note(connection, by, ShopWhat::Password, &of.name, None, None)
}

/// Gives somebody a PIN, or takes it from them.
///
/// # Errors     [`StoreError::NotFound`]
pub fn set_pin(connection: &mut PgConnection, person: &Person, pin_hash: Option<&str>) -> Result<(), StoreError> {
    let one = people::table.filter(people::shop_id.eq(person.shop_id)).filter(people::id.eq(person.id));
    diesel::update(one).set(people::pin_hash.eq(pin_hash)).execute(connection)?;
    let what = if pin_hash.is_some() { ShopWhat::Pin } else { ShopWhat::PinOff };
    shop_change::note(connection, person, what, &person.name, None, None)
}

/// Makes somebody something else in the shop.
///
/// # Errors     [`StoreError::LastOwner`], [`StoreError::NotFound`]
pub fn set_role(connection: &mut PgConnection, by: &Person, person: PersonId, role: Role, trade: &str) -> Result<(), StoreError> {
    hold_shop(connection, by.shop_id)?;
    let of = find(connection, by.shop_id, person)?;
    if of.role == Role::Owner && role != Role::Owner {
        another_owner_than(connection, &of)?;
    }
    let one = people::table.filter(people::shop_id.eq(by.shop_id)).filter(people::id.eq(person));
    diesel::update(one).set((people::role.eq(role), people::trade.eq(trade))).execute(connection)?;
    let (before, after) = (json!({"role": of.role, "trade": of.trade}), json!({"role": role, "trade": trade}));
    shop_change::note(connection, by, ShopWhat::Role, &of.name, Some(before), Some(after))
}

/// Somebody leaves the shop: nothing of theirs on record changes, and nobody signs in as them any more.
///
/// # Errors     [`StoreError::LastOwner`], [`StoreError::NotFound`]
pub fn leave(connection: &mut PgConnection, by: &Person, person: PersonId) -> Result<(), StoreError> {
    hold_shop(connection, by.shop_id)?;
    let of = find(connection, by.shop_id, person)?;
    if of.role == Role::Owner {
        another_owner_than(connection, &of)?;
    }
    let one = people::table.filter(people::shop_id.eq(by.shop_id)).filter(people::id.eq(person));
    diesel::update(one.filter(people::left_at.is_null())).set(people::left_at.eq(Utc::now())).execute(connection)?;
    end_sessions(connection, &of, None)?;
    shop_change::note(connection, by, ShopWhat::Left, &of.name, None, None)
}

/// Somebody who left comes back.
///
/// # Errors     [`StoreError::NotFound`]
pub fn come_back(connection: &mut PgConnection, by: &Person, person: PersonId) -> Result<(), StoreError> {
    let of = find(connection, by.shop_id, person)?;
    let one = people::table.filter(people::shop_id.eq(by.shop_id)).filter(people::id.eq(person));
    diesel::update(one).set(people::left_at.eq(None::<DateTime<Utc>>)).execute(connection)?;
    shop_change::note(connection, by, ShopWhat::CameBack, &of.name, None, None)
}

/// Signs somebody out everywhere, but for one session.
pub fn end_sessions(connection: &mut PgConnection, person: &Person, but: Option<&str>) -> Result<usize, StoreError> {
    let theirs = sessions::table.filter(sessions::shop_id.eq(person.shop_id)).filter(sessions::person_id.eq(person.id));
    let others = theirs.filter(sessions::key_hash.ne(but.unwrap_or_default().to_owned()));
    Ok(diesel::delete(others).execute(connection)?)
}

/// Two owners who make each other something else at once must not both succeed: the shop is held until the transaction ends.
fn hold_shop(connection: &mut PgConnection, shop: ShopId) -> Result<(), StoreError> {
    shops::table.find(shop).select(shops::id).for_update().first::<ShopId>(connection)?;
    Ok(())
}

fn another_owner_than(connection: &mut PgConnection, owner: &Person) -> Result<(), StoreError> {
    let others = people::table.filter(people::shop_id.eq(owner.shop_id)).filter(people::id.ne(owner.id));
    let owners: i64 =
        others.filter(people::left_at.is_null()).filter(people::role.eq(Role::Owner)).count().get_result(connection)?;
    if owners > 0 { Ok(()) } else { Err(StoreError::LastOwner) }
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
