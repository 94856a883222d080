//! Links that let somebody in once, for a while: to open a shop, to join one, to set a password anew. Of a link only its hash is kept.

use chrono::{DateTime, TimeDelta, Utc};
use diesel::prelude::*;

use crate::person::Person;
use crate::schema::invitations;
use crate::shop_change::{self, ShopWhat};
use crate::{InvitationId, PersonId, Role, ShopId, StoreError};

/// What a link lets somebody do.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum Invitation {
    /// Open a shop.
    OpenShop,
    /// Join a shop under a name.
    Join {
        /// The shop.
        shop: ShopId,
        /// Who is expected.
        name: String,
        /// What they will be.
        role: Role,
    },
    /// Set one's password anew.
    Reset {
        /// The shop.
        shop: ShopId,
        /// Whose.
        person: PersonId,
    },
}

/// An invitation to join that is still open.
#[derive(Debug, Clone, PartialEq, Queryable, Selectable)]
#[diesel(table_name = invitations)]
pub struct Open {
    /// Its key.
    pub id: InvitationId,
    /// Who is expected.
    pub name: Option<String>,
    /// As what.
    pub role: Option<Role>,
    /// Until when.
    pub expires_at: DateTime<Utc>,
}

impl Invitation {
    fn word(&self) -> &'static str {
        match self {
            Invitation::OpenShop => "open_shop",
            Invitation::Join { .. } => "join",
            Invitation::Reset { .. } => "reset",
        }
    }

    /// How long its link is good.
    pub fn lasts(&self) -> TimeDelta {
        match self {
            Invitation::OpenShop => TimeDelta::days(7),
            Invitation::Join { .. } => TimeDelta::days(3),
            Invitation::Reset { .. } => TimeDelta::days(1),
        }
    }
}

/// Keeps an invitation under the hash of its link's key. An earlier one to the same end is good for nothing any more.
pub fn make(
    connection: &mut PgConnection,
    by: Option<&Person>,
    invitation: &Invitation,
    key_hash: &str,
) -> Result<(), StoreError> {
    let (shop, name, role, person) = match invitation {
        Invitation::OpenShop => (None, None, None, None),
        Invitation::Join { shop, name, role } => (Some(*shop), Some(name.as_str()), Some(*role), None),
        Invitation::Reset { shop, person } => (Some(*shop), None, None, Some(*person)),
    };
    if let Some(shop) = shop {
        let open = invitations::table.filter(invitations::shop_id.eq(shop)).filter(invitations::kind.eq(invitation.word()));
        let same = open.filter(invitations::name.is_not_distinct_from(name));
        let same = same.filter(invitations::person_id.is_not_distinct_from(person)).filter(invitations::used_at.is_null());
        diesel::update(same).set(invitations::revoked_at.eq(Utc::now())).execute(connection)?;
    }
    diesel::insert_into(invitations::table)
        .values((
            invitations::key_hash.eq(key_hash),
            invitations::kind.eq(invitation.word()),
            invitations::shop_id.eq(shop),
            invitations::name.eq(name),
            invitations::role.eq(role),
            invitations::person_id.eq(person),
            invitations::made_by.eq(by.map(|by| by.id)),
            invitations::expires_at.eq(Utc::now() + invitation.lasts()),
        ))
        .execute(connection)?;
    let Some(by) = by else { return Ok(()) };
    match invitation {
        Invitation::OpenShop => Ok(()),
        Invitation::Join { name, .. } => shop_change::note(connection, by, ShopWhat::Invited, name, None, None),
        Invitation::Reset { person, .. } => {
            let of = crate::person::find(connection, by.shop_id, *person)?;
            shop_change::note(connection, by, ShopWhat::Reset, &of.name, None, None)
        }
    }
}

type Row = (String, Option<ShopId>, Option<String>, Option<Role>, Option<PersonId>);

fn read(row: Row) -> Result<Invitation, StoreError> {
    let (kind, shop, name, role, person) = row;
    match (kind.as_str(), shop, name, role, person) {
        ("open_shop", ..) => Ok(Invitation::OpenShop),
        ("join", Some(shop), Some(name), Some(role), _) => Ok(Invitation::Join { shop, name, role }),
        ("reset", Some(shop), _, _, Some(person)) => Ok(Invitation::Reset { shop, person }),
        _ => Err(StoreError::Unreadable { what: "invitation", text: kind }),
    }
}

const COLUMNS: (invitations::kind, invitations::shop_id, invitations::name, invitations::role, invitations::person_id) =
    (invitations::kind, invitations::shop_id, invitations::name, invitations::role, invitations::person_id);

macro_rules! good {
    ($key_hash:expr, $now:expr) => {
        invitations::table
            .filter(invitations::key_hash.eq($key_hash))
            .filter(invitations::used_at.is_null())
            .filter(invitations::revoked_at.is_null())
            .filter(invitations::expires_at.gt($now))
    };
}

/// What a link lets its holder do, while it is good.
///
/// # Errors     [`StoreError::NotFound`]
pub fn find(connection: &mut PgConnection, key_hash: &str) -> Result<Invitation, StoreError> {
    let row: Option<Row> = good!(key_hash, Utc::now()).select(COLUMNS).first(connection).optional()?;
    read(row.ok_or(StoreError::NotFound("invitation"))?)
}

/// Uses a link up: nobody else does anything with it any more.
///
/// # Errors     [`StoreError::NotFound`] when it is good for nothing, or somebody was quicker
pub fn use_up(connection: &mut PgConnection, key_hash: &str) -> Result<Invitation, StoreError> {
    let now = Utc::now();
    let used: Option<Row> = diesel::update(good!(key_hash, now))
        .set(invitations::used_at.eq(now))
        .returning(COLUMNS)
        .get_result(connection)
        .optional()?;
    read(used.ok_or(StoreError::NotFound("invitation"))?)
}

/// Who was invited into a shop and has not come yet.
pub fn open_of_shop(connection: &mut PgConnection, shop: ShopId) -> Result<Vec<Open>, StoreError> {
    let open = invitations::table
        .filter(invitations::shop_id.eq(shop))
        .filter(invitations::kind.eq("join"))
        .filter(invitations::used_at.is_null())
        .filter(invitations::revoked_at.is_null())
        .filter(invitations::expires_at.gt(Utc::now()));
    Ok(open.order(invitations::id).select(Open::as_select()).load(connection)?)
}

/// Takes an invitation back.
///
/// # Errors     [`StoreError::NotFound`]
pub fn revoke(connection: &mut PgConnection, by: &Person, id: InvitationId) -> Result<(), StoreError> {
    let one = invitations::table.filter(invitations::shop_id.eq(by.shop_id)).filter(invitations::id.eq(id));
    let open = one.filter(invitations::used_at.is_null()).filter(invitations::revoked_at.is_null());
    let name: Option<Option<String>> = diesel::update(open)
        .set(invitations::revoked_at.eq(Utc::now()))
        .returning(invitations::name)
        .get_result(connection)
        .optional()?;
    let name = name.ok_or(StoreError::NotFound("invitation"))?.unwrap_or_default();
    shop_change::note(connection, by, ShopWhat::InvitationOff, &name, None, None)
}
