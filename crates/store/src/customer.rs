//! Customers: whose vehicle it is. What is written of them can be erased; what was measured of the vehicle stays.

use chrono::{DateTime, Utc};
use diesel::prelude::*;
use serde_json::json;

use crate::person::Person;
use crate::schema::{customers, jobs, vehicles};
use crate::shop_change::{self, ShopWhat};
use crate::{CustomerId, JobId, ShopId, StoreError, job_list};

/// A customer.
#[derive(Debug, Clone, PartialEq, Queryable, Selectable)]
pub struct Customer {
    /// Its key.
    pub id: CustomerId,
    /// Name, or what the shop calls them.
    pub name: String,
    /// Where they are called.
    pub phone: String,
    /// What else the shop wants to know.
    pub note: String,
    /// Counts savings.
    pub revision: i32,
    /// When what was written of them was erased.
    pub erased_at: Option<DateTime<Utc>>,
}

/// What is written of a customer.
#[derive(Debug, Clone, PartialEq, Eq, Default, AsChangeset)]
#[diesel(table_name = customers)]
pub struct CustomerWords {
    /// Name.
    pub name: String,
    /// Telephone.
    pub phone: String,
    /// Anything else.
    pub note: String,
}

/// A customer who was not here for long.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct LongGone {
    /// Its key.
    pub id: CustomerId,
    /// Name.
    pub name: String,
    /// When anything was last written of a job of theirs; of who has none, when they were put down.
    pub last: DateTime<Utc>,
}

/// What stands in the place of an erased name.
const ERASED: &str = "(erased)";

/// A customer by key.
///
/// # Errors     [`StoreError::NotFound`]
pub fn find(connection: &mut PgConnection, shop: ShopId, id: CustomerId) -> Result<Customer, StoreError> {
    let one = customers::table.filter(customers::shop_id.eq(shop)).filter(customers::id.eq(id));
    one.select(Customer::as_select()).first(connection).optional()?.ok_or(StoreError::NotFound("customer"))
}

/// Customers of whom something is written, and of whose vehicles no job was touched since a day: the longest gone first, so many at the
/// most.
pub fn not_here_since(
    connection: &mut PgConnection,
    shop: ShopId,
    since: DateTime<Utc>,
    most: i64,
) -> Result<Vec<LongGone>, StoreError> {
    let visits = || vehicles::table.inner_join(jobs::table.on(jobs::vehicle_id.eq(vehicles::id.nullable())));
    let here_since = visits().filter(vehicles::customer_id.eq(customers::id.nullable())).filter(jobs::revised_at.ge(since));
    let gone = customers::table.filter(customers::shop_id.eq(shop)).filter(customers::erased_at.is_null());
    let gone = gone.filter(customers::recorded_at.lt(since)).filter(diesel::dsl::not(diesel::dsl::exists(here_since)));
    let columns = (customers::id, customers::name, customers::recorded_at);
    let gone: Vec<(CustomerId, String, DateTime<Utc>)> =
        gone.order((customers::recorded_at, customers::id)).limit(most).select(columns).load(connection)?;
    let ids: Vec<CustomerId> = gone.iter().map(|(id, ..)| *id).collect();
    let last: Vec<(Option<CustomerId>, Option<DateTime<Utc>>)> = visits()
        .filter(vehicles::shop_id.eq(shop))
        .filter(vehicles::customer_id.eq_any(ids))
        .group_by(vehicles::customer_id)
        .select((vehicles::customer_id, diesel::dsl::max(jobs::revised_at)))
        .load(connection)?;
    let last_of = |id: CustomerId| last.iter().find(|(of, _)| *of == Some(id)).and_then(|(_, last)| *last);
    let mut gone: Vec<LongGone> =
        gone.into_iter().map(|(id, name, recorded)| LongGone { id, name, last: last_of(id).unwrap_or(recorded) }).collect();
    gone.sort_by_key(|of| (of.last, of.id.0));
    Ok(gone)
}

/// Whoever is called so and can be called there, in a shop: the same name and the same telephone.
pub fn find_same(connection: &mut PgConnection, shop: ShopId, words: &CustomerWords) -> Result<Option<Customer>, StoreError> {
    diesel::define_sql_function!(fn lower(text: diesel::sql_types::Text) -> Text);
    let same = customers::table.filter(customers::shop_id.eq(shop)).filter(lower(customers::name).eq(words.name.to_lowercase()));
    let same = same.filter(customers::erased_at.is_null()).order(customers::id);
    let found: Vec<Customer> = same.select(Customer::as_select()).load(connection)?;
    let digits = |text: &str| text.chars().filter(char::is_ascii_digit).collect::<String>();
    Ok(found.into_iter().find(|customer| digits(&customer.phone) == digits(&words.phone)))
}

/// Writes a customer down.
pub fn put(connection: &mut PgConnection, person: &Person, words: &CustomerWords) -> Result<CustomerId, StoreError> {
    let row = (
        customers::shop_id.eq(person.shop_id),
        customers::name.eq(&words.name),
        customers::phone.eq(&words.phone),
        customers::note.eq(&words.note),
        customers::recorded_by.eq(person.id),
    );
    Ok(diesel::insert_into(customers::table).values(row).returning(customers::id).get_result(connection)?)
}

/// Writes anew what is written of a customer, unless somebody did since.
///
/// # Errors     [`StoreError::StaleRow`], [`StoreError::NotFound`]
pub fn change(
    connection: &mut PgConnection,
    person: &Person,
    id: CustomerId,
    seen: i32,
    words: &CustomerWords,
) -> Result<(), StoreError> {
    let stood = find(connection, person.shop_id, id)?;
    let one = customers::table.filter(customers::shop_id.eq(person.shop_id)).filter(customers::id.eq(id));
    let of_revision = one.filter(customers::revision.eq(seen)).filter(customers::erased_at.is_null());
    let changed = diesel::update(of_revision)
        .set((words, customers::revision.eq(customers::revision + 1), customers::recorded_by.eq(person.id)))
        .execute(connection)?;
    if changed == 0 {
        return Err(StoreError::StaleRow { what: "customer" });
    }
    let state = |name: &str, phone: &str, note: &str| json!({"name": name, "phone": phone, "note": note});
    let (before, after) = (state(&stood.name, &stood.phone, &stood.note), state(&words.name, &words.phone, &words.note));
    shop_change::note(connection, person, ShopWhat::Customer, &id.0.to_string(), Some(before), Some(after))?;
    forget_what_jobs_are_found_by(connection, person.shop_id, id)
}

/// Erases what is written of a customer, in its history too. Vehicles, jobs and everything measured stay.
///
/// # Errors     [`StoreError::NotFound`]
pub fn erase(connection: &mut PgConnection, person: &Person, id: CustomerId) -> Result<(), StoreError> {
    find(connection, person.shop_id, id)?;
    forget_what_jobs_are_found_by(connection, person.shop_id, id)?;
    let one = customers::table.filter(customers::shop_id.eq(person.shop_id)).filter(customers::id.eq(id));
    let nothing = CustomerWords { name: ERASED.to_owned(), ..CustomerWords::default() };
    diesel::update(one)
        .set((nothing, customers::erased_at.eq(Utc::now()), customers::revision.eq(customers::revision + 1)))
        .execute(connection)?;
    shop_change::erase(connection, person.shop_id, ShopWhat::Customer, &id.0.to_string())?;
    let theirs = vehicles::table.filter(vehicles::shop_id.eq(person.shop_id)).filter(vehicles::customer_id.eq(id));
    diesel::update(theirs).set((vehicles::plate.eq(""), vehicles::plate_key.eq(""))).execute(connection)?;
    shop_change::note(connection, person, ShopWhat::Erased, &id.0.to_string(), None, None)
}

/// What jobs of a customer are found by is gathered anew.
fn forget_what_jobs_are_found_by(connection: &mut PgConnection, shop: ShopId, id: CustomerId) -> Result<(), StoreError> {
    let of_theirs: Vec<JobId> = jobs::table
        .inner_join(vehicles::table.on(vehicles::shop_id.eq(jobs::shop_id).and(vehicles::id.nullable().eq(jobs::vehicle_id))))
        .filter(vehicles::shop_id.eq(shop))
        .filter(vehicles::customer_id.eq(id))
        .select(jobs::id)
        .load(connection)?;
    job_list::forget(connection, &of_theirs)?;
    diesel::update(jobs::table.filter(jobs::id.eq_any(&of_theirs))).set(jobs::searched.eq("")).execute(connection)?;
    Ok(())
}
