//! What somebody is in a shop, which decides what they may do.

use diesel::backend::Backend;
use diesel::deserialize::{self, FromSql};
use diesel::pg::Pg;
use diesel::serialize::{self, Output, ToSql};
use diesel::sql_types::Text;
use serde::{Deserialize, Serialize};

use crate::StoreError;

/// A role.
#[derive(
    Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize, diesel::AsExpression, diesel::FromSqlRow,
)]
#[diesel(sql_type = Text)]
#[serde(rename_all = "snake_case")]
pub enum Role {
    /// Says who works in the shop, and answers for its records.
    Owner,
    /// Runs the floor: says yes to cuts and overrides, sets what the shop charges.
    Lead,
    /// Takes jobs from the counter to the road.
    Technician,
    /// Works at the counter: calls, intake, estimates, the shelf.
    Desk,
    /// Measures and wrenches; others judge and release.
    Apprentice,
}

impl Role {
    /// Every role with the word that it goes by on record.
    pub const WORDS: [(Role, &'static str); 5] = [
        (Role::Owner, "owner"),
        (Role::Lead, "lead"),
        (Role::Technician, "technician"),
        (Role::Desk, "desk"),
        (Role::Apprentice, "apprentice"),
    ];

    /// Its word.
    pub fn word(self) -> &'static str {
        Self::WORDS.iter().find(|(role, _)| *role == self).map_or("", |(_, word)| word)
    }

    /// The role of a word.
    pub fn of(word: &str) -> Option<Self> {
        Self::WORDS.iter().find(|(_, of)| *of == word).map(|(role, _)| *role)
    }
}

impl FromSql<Text, Pg> for Role {
    fn from_sql(bytes: <Pg as Backend>::RawValue<'_>) -> deserialize::Result<Self> {
        let word = <String as FromSql<Text, Pg>>::from_sql(bytes)?;
        // Nobody is given rights by a word that is not known here.
        Role::of(&word).ok_or_else(|| StoreError::Unreadable { what: "role", text: word }.into())
    }
}

impl ToSql<Text, Pg> for Role {
    fn to_sql<'b>(&'b self, out: &mut Output<'b, '_, Pg>) -> serialize::Result {
        <str as ToSql<Text, Pg>>::to_sql(self.word(), out)
    }
}
