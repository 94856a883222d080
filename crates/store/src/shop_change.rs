//! What was changed of the shop itself, its people and its devices: before and after, who and when.

use chrono::{DateTime, Utc};
use diesel::prelude::*;
use serde_json::Value;

use crate::difference::{self, Difference};
use crate::json::Json;
use crate::person::Person;
use crate::schema::shop_changes;
use crate::{PersonId, ShopId, StoreError};

/// What kind of change it is.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum ShopWhat {
    /// The shop was opened.
    Opened,
    /// Somebody was invited.
    Invited,
    /// An invitation was taken back.
    InvitationOff,
    /// Somebody joined.
    Joined,
    /// Somebody was made something else.
    Role,
    /// Somebody left.
    Left,
    /// Somebody who had left came back.
    CameBack,
    /// A password was set.
    Password,
    /// A way to a new password was given.
    Reset,
    /// A PIN was set.
    Pin,
    /// A PIN was taken away.
    PinOff,
    /// A tablet was let in.
    TabletOn,
    /// A tablet was shut out.
    TabletOff,
    /// What the shop charges and when it works.
    Terms,
    /// What counts when options are ranked.
    Weights,
    /// What is written of a customer.
    Customer,
    /// What was written of a customer was erased.
    Erased,
    /// A bay was put down.
    BayOn,
    /// A bay was taken off.
    BayOff,
    /// A calendar link was made.
    CalendarOn,
    /// A calendar link was taken back.
    CalendarOff,
}

impl ShopWhat {
    const WORDS: [(ShopWhat, &'static str); 21] = [
        (ShopWhat::Opened, "opened"),
        (ShopWhat::Invited, "invited"),
        (ShopWhat::InvitationOff, "invitation_off"),
        (ShopWhat::Joined, "joined"),
        (ShopWhat::Role, "role"),
        (ShopWhat::Left, "left"),
        (ShopWhat::CameBack, "came_back"),
        (ShopWhat::Password, "password"),
        (ShopWhat::Reset, "reset"),
        (ShopWhat::Pin, "pin"),
        (ShopWhat::PinOff, "pin_off"),
        (ShopWhat::TabletOn, "tablet_on"),
        (ShopWhat::TabletOff, "tablet_off"),
        (ShopWhat::Terms, "terms"),
        (ShopWhat::Weights, "weights"),
        (ShopWhat::Customer, "customer"),
        (ShopWhat::Erased, "erased"),
        (ShopWhat::BayOn, "bay_on"),
        (ShopWhat::BayOff, "bay_off"),
        (ShopWhat::CalendarOn, "calendar_on"),
        (ShopWhat::CalendarOff, "calendar_off"),
    ];

    fn word(self) -> &'static str {
        Self::WORDS.iter().find(|(what, _)| *what == self).map_or("", |(_, word)| word)
    }

    fn of(word: &str) -> Option<Self> {
        Self::WORDS.iter().find(|(_, of)| *of == word).map(|(what, _)| *what)
    }
}

/// A change on record.
#[derive(Debug, Clone, PartialEq)]
pub struct ShopChange {
    /// What kind.
    pub what: ShopWhat,
    /// Of whom, or of what.
    pub subject: String,
    /// What differed.
    pub differences: Vec<Difference>,
    /// Who.
    pub by: PersonId,
    /// When.
    pub at: DateTime<Utc>,
}

#[derive(Queryable, Selectable)]
#[diesel(table_name = shop_changes)]
struct Row {
    what: String,
    subject: String,
    before: Option<Json<Value>>,
    after: Option<Json<Value>>,
    changed_by: PersonId,
    changed_at: DateTime<Utc>,
}

/// Notes a change; one from something to the same is none.
pub fn note(
    connection: &mut PgConnection,
    person: &Person,
    what: ShopWhat,
    subject: &str,
    before: Option<Value>,
    after: Option<Value>,
) -> Result<(), StoreError> {
    if before.is_some() && before == after {
        return Ok(());
    }
    diesel::insert_into(shop_changes::table)
        .values((
            shop_changes::shop_id.eq(person.shop_id),
            shop_changes::what.eq(what.word()),
            shop_changes::subject.eq(subject),
            shop_changes::before.eq(before.map(Json)),
            shop_changes::after.eq(after.map(Json)),
            shop_changes::changed_by.eq(person.id),
        ))
        .execute(connection)?;
    Ok(())
}

/// Erases what a kind of change says of something: that it was changed, when and by whom, stays.
pub(crate) fn erase(connection: &mut PgConnection, shop: ShopId, what: ShopWhat, subject: &str) -> Result<(), StoreError> {
    let of = shop_changes::table.filter(shop_changes::shop_id.eq(shop)).filter(shop_changes::what.eq(what.word()));
    diesel::update(of.filter(shop_changes::subject.eq(subject)))
        .set((shop_changes::before.eq(None::<Json<Value>>), shop_changes::after.eq(None::<Json<Value>>)))
        .execute(connection)?;
    Ok(())
}

/// The latest changes of a shop; those of another version of the program are passed over.
pub fn latest(connection: &mut PgConnection, shop: ShopId, most: i64) -> Result<Vec<ShopChange>, StoreError> {
    let of_shop = shop_changes::table.filter(shop_changes::shop_id.eq(shop));
    let rows: Vec<Row> = of_shop
        .order((shop_changes::changed_at.desc(), shop_changes::id.desc()))
        .limit(most)
        .select(Row::as_select())
        .load(connection)?;
    let side = |side: Option<Json<Value>>| side.map_or(Value::Null, |side| side.0);
    let change = |row: Row| {
        let differences = difference::between(&side(row.before), &side(row.after));
        let what = ShopWhat::of(&row.what)?;
        Some(ShopChange { what, subject: row.subject, differences, by: row.changed_by, at: row.changed_at })
    };
    Ok(rows.into_iter().filter_map(change).collect())
}
