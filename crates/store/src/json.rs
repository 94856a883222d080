//! Documents in their columns: what is written reads back as just that.

use diesel::deserialize::{self, FromSql, FromSqlRow};
use diesel::expression::AsExpression;
use diesel::pg::{Pg, PgValue};
use diesel::serialize::{self, Output, ToSql};
use diesel::sql_types::Jsonb;
use serde::Serialize;
use serde::de::DeserializeOwned;
use serde_json::Value;

use crate::StoreError;

/// A value kept as a JSON document.
#[derive(Debug, Clone, PartialEq, AsExpression, FromSqlRow)]
#[diesel(sql_type = Jsonb)]
pub struct Json<T: std::fmt::Debug>(pub T);

impl<T: DeserializeOwned + std::fmt::Debug> FromSql<Jsonb, Pg> for Json<T> {
    fn from_sql(value: PgValue<'_>) -> deserialize::Result<Self> {
        // PostgreSQL sends a jsonb as one byte for its version, 1, and the document's text.
        match value.as_bytes().split_first() {
            Some((1, text)) => Ok(Json(serde_json::from_slice(text)?)),
            _ => Err("a jsonb of a version other than 1".into()),
        }
    }
}

impl<T: Serialize + DeserializeOwned + PartialEq + std::fmt::Debug> ToSql<Jsonb, Pg> for Json<T> {
    fn to_sql<'b>(&'b self, out: &mut Output<'b, '_, Pg>) -> serialize::Result {
        let document = document(&self.0)?;
        <Value as ToSql<Jsonb, Pg>>::to_sql(&document, &mut out.reborrow())
    }
}

impl<T: Serialize + std::fmt::Debug> Serialize for Json<T> {
    fn serialize<S: serde::Serializer>(&self, serializer: S) -> Result<S::Ok, S::Error> {
        self.0.serialize(serializer)
    }
}

/// What is to be stored, as a document that reads back as just that.
///
/// JSON has no word for a figure that is none: written, it turns into nothing, and the row could never be read again.
///
/// # Errors     [`StoreError::Unfit`]
pub(crate) fn document<T: Serialize + DeserializeOwned + PartialEq>(kept: &T) -> Result<Value, StoreError> {
    let what = std::any::type_name::<T>();
    let document = serde_json::to_value(kept).map_err(|error| StoreError::Other(Box::new(error)))?;
    match T::deserialize(&document) {
        Ok(read) if read == *kept => Ok(document),
        _ => Err(StoreError::Unfit(what)),
    }
}
