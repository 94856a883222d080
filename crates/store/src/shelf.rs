//! The shop's shelf: its parts, each with a number of its own. What is changed or taken off stays on record.

use std::collections::HashMap;

use chrono::{DateTime, Utc};
use diesel::define_sql_function;
use diesel::dsl::max;
use diesel::prelude::*;
use diesel::sql_types::Text;
use wise_badger_casework::entry::ShelfPart;
use wise_badger_casework::shelf::ShelfChange;

use crate::json::Json;
use crate::person::Person;
use crate::schema::shelf_parts;
use crate::{PersonId, ShelfPartId, ShopId, StoreError, ledger};

define_sql_function!(
    /// A text in small letters.
    fn lower(text: Text) -> Text
);
define_sql_function!(
    /// A text without blanks at its ends.
    fn btrim(text: Text) -> Text
);

/// Rows put down with one statement.
const AT_ONCE: usize = 500;

/// A part that stands on the shelf.
#[derive(Debug, Clone, PartialEq, Queryable, Selectable)]
#[diesel(table_name = shelf_parts)]
pub struct OnTheShelf {
    /// Its key: another one as soon as anything of it is changed.
    pub id: ShelfPartId,
    /// The part.
    #[diesel(column_name = entry)]
    pub part: Json<ShelfPart>,
}

/// What is looked for on the shelf.
#[derive(Debug, Clone, Default, PartialEq, Eq)]
pub struct Search {
    /// Words of the number, the name or the supplier, all of which must be there.
    pub words: String,
    /// Words of the kinds; any, where there are none.
    pub kinds: Vec<String>,
    /// After the part of this number.
    pub after: Option<String>,
}

#[derive(Insertable)]
#[diesel(table_name = shelf_parts)]
struct NewPart<'p> {
    shop_id: ShopId,
    number: &'p str,
    kind: &'static str,
    searched: String,
    entry: Json<ShelfPart>,
    follows: Option<ShelfPartId>,
    recorded_by: PersonId,
}

impl<'p> NewPart<'p> {
    fn of(person: &Person, part: &'p ShelfPart, follows: Option<ShelfPartId>) -> Self {
        NewPart {
            shop_id: person.shop_id,
            number: &part.number,
            kind: part.kind.word,
            searched: format!("{} {} {}", part.number, part.name, part.supplier).to_lowercase(),
            // What proofs say is put in when it is looked at, and never kept with the part.
            entry: Json(ShelfPart { record: None, ..part.clone() }),
            follows,
            recorded_by: person.id,
        }
    }
}

type Filtered = shelf_parts::BoxedQuery<'static, diesel::pg::Pg>;

fn found(shop: ShopId, search: &Search) -> Filtered {
    let mut parts =
        shelf_parts::table.filter(shelf_parts::shop_id.eq(shop)).filter(shelf_parts::withdrawn_at.is_null()).into_boxed();
    for word in search.words.split_whitespace() {
        let literal: String = word.to_lowercase().chars().flat_map(escaped).collect();
        parts = parts.filter(shelf_parts::searched.like(format!("%{literal}%")));
    }
    if !search.kinds.is_empty() {
        parts = parts.filter(shelf_parts::kind.eq_any(search.kinds.clone()));
    }
    parts
}

/// A sign as `LIKE` takes it for itself.
fn escaped(sign: char) -> impl Iterator<Item = char> {
    matches!(sign, '%' | '_' | '\\').then_some('\\').into_iter().chain([sign])
}

/// The parts that are looked for, by their numbers.
pub fn page(connection: &mut PgConnection, shop: ShopId, search: &Search, most: i64) -> Result<Vec<OnTheShelf>, StoreError> {
    let mut parts = found(shop, search);
    if let Some(after) = &search.after {
        parts = parts.filter(lower(btrim(shelf_parts::number)).gt(after.trim().to_lowercase()));
    }
    let mut found: Vec<OnTheShelf> =
        parts.order(lower(btrim(shelf_parts::number))).limit(most).select(OnTheShelf::as_select()).load(connection)?;
    let mut known: Vec<ShelfPart> = found.iter().map(|found| found.part.0.clone()).collect();
    ledger::as_known(connection, shop, &mut known)?;
    found.iter_mut().zip(known).for_each(|(found, known)| found.part.0 = known);
    Ok(found)
}

/// How many parts there are of what is looked for.
pub fn count(connection: &mut PgConnection, shop: ShopId, search: &Search) -> Result<i64, StoreError> {
    Ok(found(shop, search).count().get_result(connection)?)
}

/// All parts that stand on the shelf, by their numbers.
pub fn all(connection: &mut PgConnection, shop: ShopId) -> Result<Vec<ShelfPart>, StoreError> {
    let parts = found(shop, &Search::default()).order(lower(btrim(shelf_parts::number)));
    let parts: Vec<Json<ShelfPart>> = parts.select(shelf_parts::entry).load(connection)?;
    Ok(parts.into_iter().map(|part| part.0).collect())
}

/// Every part, as the shop's own proofs know it.
pub fn all_as_known(connection: &mut PgConnection, shop: ShopId) -> Result<Vec<ShelfPart>, StoreError> {
    let mut parts = all(connection, shop)?;
    ledger::as_known(connection, shop, &mut parts)?;
    Ok(parts)
}

/// What tells one state of a shelf from another: it is another as soon as anything is put there, changed, taken off or put back.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub struct Stamp {
    standing: i64,
    ledger: ledger::Stamp,
    newest: Option<ShelfPartId>,
    last_taken_off: Option<DateTime<Utc>>,
}

/// The stamp of a shelf as it stands.
pub fn stamp(connection: &mut PgConnection, shop: ShopId) -> Result<Stamp, StoreError> {
    let of_shop = || shelf_parts::table.filter(shelf_parts::shop_id.eq(shop));
    let standing = of_shop().filter(shelf_parts::withdrawn_at.is_null()).count().get_result(connection)?;
    let (newest, last_taken_off) = of_shop().select((max(shelf_parts::id), max(shelf_parts::withdrawn_at))).first(connection)?;
    Ok(Stamp { standing, newest, last_taken_off, ledger: ledger::stamp(connection, shop)? })
}

/// A part as it stands on the shelf, or as it was when it was changed or taken off; and whether it stands.
///
/// # Errors     [`StoreError::NotFound`]
pub fn find(connection: &mut PgConnection, shop: ShopId, id: ShelfPartId) -> Result<(ShelfPart, bool), StoreError> {
    let one = shelf_parts::table.filter(shelf_parts::shop_id.eq(shop)).filter(shelf_parts::id.eq(id));
    let row: Option<(Json<ShelfPart>, bool)> =
        one.select((shelf_parts::entry, shelf_parts::withdrawn_at.is_null())).first(connection).optional()?;
    let (mut part, stands) = row.map(|(part, stands)| (part.0, stands)).ok_or(StoreError::NotFound("part"))?;
    ledger::as_known(connection, shop, std::slice::from_mut(&mut part))?;
    Ok((part, stands))
}

/// Puts a part on the shelf.
///
/// # Errors     [`StoreError::Taken`] when another has its number
pub fn put(connection: &mut PgConnection, person: &Person, part: &ShelfPart) -> Result<ShelfPartId, StoreError> {
    must_be_free(connection, person.shop_id, &part.number)?;
    insert(connection, person, part, None)
}

/// Puts a part in the place of what it was.
///
/// # Errors     [`StoreError::NotFound`] when that was changed or taken off meanwhile; [`StoreError::Taken`] as for [`put`]
pub fn change(
    connection: &mut PgConnection,
    person: &Person,
    id: ShelfPartId,
    part: &ShelfPart,
) -> Result<ShelfPartId, StoreError> {
    withdraw(connection, person, id)?;
    must_be_free(connection, person.shop_id, &part.number)?;
    insert(connection, person, part, Some(id))
}

fn insert(
    connection: &mut PgConnection,
    person: &Person,
    part: &ShelfPart,
    follows: Option<ShelfPartId>,
) -> Result<ShelfPartId, StoreError> {
    let row = diesel::insert_into(shelf_parts::table).values(NewPart::of(person, part, follows));
    Ok(row.returning(shelf_parts::id).get_result(connection)?)
}

fn must_be_free(connection: &mut PgConnection, shop: ShopId, number: &str) -> Result<(), StoreError> {
    match by_number(connection, shop, number)? {
        Some(_) => Err(StoreError::Taken { what: "part", number: number.to_owned() }),
        None => Ok(()),
    }
}

fn by_number(connection: &mut PgConnection, shop: ShopId, number: &str) -> Result<Option<ShelfPartId>, StoreError> {
    let standing = found(shop, &Search::default()).filter(lower(btrim(shelf_parts::number)).eq(number.trim().to_lowercase()));
    Ok(standing.select(shelf_parts::id).first(connection).optional()?)
}

/// Takes a part off the shelf; it stays on record, and on the jobs that it was put down on.
///
/// # Errors     [`StoreError::NotFound`] when it does not stand there
pub fn withdraw(connection: &mut PgConnection, person: &Person, id: ShelfPartId) -> Result<(), StoreError> {
    let one = shelf_parts::table.filter(shelf_parts::shop_id.eq(person.shop_id)).filter(shelf_parts::id.eq(id));
    let off = (shelf_parts::withdrawn_at.eq(Utc::now()), shelf_parts::withdrawn_by.eq(person.id));
    let rows = diesel::update(one.filter(shelf_parts::withdrawn_at.is_null())).set(off).execute(connection)?;
    if rows == 1 { Ok(()) } else { Err(StoreError::NotFound("part")) }
}

/// Puts a part back that was taken off.
///
/// # Errors     [`StoreError::Taken`] when another has its number by now
pub fn restore(connection: &mut PgConnection, person: &Person, id: ShelfPartId) -> Result<(), StoreError> {
    let (part, stands) = find(connection, person.shop_id, id)?;
    if stands {
        return Ok(());
    }
    must_be_free(connection, person.shop_id, &part.number)?;
    let one = shelf_parts::table.filter(shelf_parts::shop_id.eq(person.shop_id)).filter(shelf_parts::id.eq(id));
    let back = (shelf_parts::withdrawn_at.eq(None::<chrono::DateTime<Utc>>), shelf_parts::withdrawn_by.eq(None::<PersonId>));
    diesel::update(one).set(back).execute(connection)?;
    Ok(())
}

/// Does to the shelf what a file would change of it, all of it or nothing. `told` hears how many of the parts are kept so far.
///
/// # Errors     [`StoreError::Taken`] when a number that was free has been taken meanwhile
pub fn take_in(
    connection: &mut PgConnection,
    person: &Person,
    changes: &[ShelfChange],
    told: impl Fn(usize),
) -> Result<(), StoreError> {
    let standing = found(person.shop_id, &Search::default());
    let standing: HashMap<String, ShelfPartId> =
        standing.select((lower(btrim(shelf_parts::number)), shelf_parts::id)).load(connection)?.into_iter().collect();
    let mut rows = Vec::with_capacity(changes.len());
    for change in changes {
        let part = change.after();
        let there = standing.get(&part.number.trim().to_lowercase()).copied();
        if matches!(change, ShelfChange::New(_)) && there.is_some() {
            return Err(StoreError::Taken { what: "part", number: part.number.clone() });
        }
        rows.push(NewPart::of(person, part, there));
    }
    let followed: Vec<ShelfPartId> = rows.iter().filter_map(|row| row.follows).collect();
    let those = shelf_parts::table.filter(shelf_parts::shop_id.eq(person.shop_id)).filter(shelf_parts::id.eq_any(followed));
    let off = (shelf_parts::withdrawn_at.eq(Utc::now()), shelf_parts::withdrawn_by.eq(person.id));
    diesel::update(those).set(off).execute(connection)?;
    let mut kept = 0;
    for some in rows.chunks(AT_ONCE) {
        diesel::insert_into(shelf_parts::table).values(some).execute(connection)?;
        kept += some.len();
        told(kept);
    }
    Ok(())
}
