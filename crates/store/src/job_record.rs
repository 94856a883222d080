//! A job's record as it stands in its rows, read or not: what is left to take along when this program cannot read it.

use diesel::prelude::*;
use diesel::sql_types::{BigInt, Integer, Jsonb, Nullable};
use serde_json::{Map, Value};

use crate::json::Json;
use crate::{JobNumber, ShopId, StoreError};

#[derive(QueryableByName)]
struct Rows {
    #[diesel(sql_type = Nullable<Jsonb>)]
    rows: Option<Json<Value>>,
}

/// Every table that holds a job's record.
const TABLES: [&str; 9] =
    ["readings", "corrections", "fittings", "job_sheets", "photographs", "wrench_ticks", "papers", "job_changes", "submissions"];

/// Every row of a job, by table; of photographs everything but the picture itself.
///
/// # Errors     [`StoreError::NotFound`] when the shop has no job of that number
pub fn as_it_stands(connection: &mut PgConnection, shop: ShopId, number: JobNumber) -> Result<Value, StoreError> {
    let mut tables = Map::new();
    let mut ask = |name: &str, query: String| -> Result<bool, StoreError> {
        let found: Rows = diesel::sql_query(query).bind::<BigInt, _>(shop).bind::<Integer, _>(number).get_result(connection)?;
        let rows = found.rows.map(|rows| rows.0);
        let any = rows.is_some();
        tables.insert(name.to_owned(), rows.unwrap_or_else(|| Value::Array(Vec::new())));
        Ok(any)
    };
    let of_job = "SELECT jsonb_agg(to_jsonb(j) ORDER BY j.id) AS rows FROM jobs j WHERE j.shop_id = $1 AND j.number = $2";
    if !ask("jobs", of_job.to_owned())? {
        return Err(StoreError::NotFound("job"));
    }
    for table in TABLES {
        let query = format!(
            "SELECT jsonb_agg(to_jsonb(t) - 'jpeg') AS rows FROM {table} t
               JOIN jobs j ON j.shop_id = t.shop_id AND j.id = t.job_id WHERE j.shop_id = $1 AND j.number = $2"
        );
        ask(table, query)?;
    }
    Ok(Value::Object(tables))
}
