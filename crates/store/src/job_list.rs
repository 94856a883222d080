//! A shop's jobs as a list shows them: a line each, read without reading the jobs.

use chrono::{DateTime, Utc};
use diesel::prelude::*;
use diesel::upsert::excluded;
use serde_json::Value;

use crate::json::Json;
use crate::schema::{job_standings, jobs};
use crate::{JobId, JobNumber, ShopId, StoreError};

/// A job in a list. Its words are those of the columns: one that cannot be read must not take the list down.
#[derive(Debug, Clone, Queryable, Selectable)]
#[diesel(table_name = jobs)]
pub struct JobListed {
    /// Its key.
    pub id: JobId,
    /// Its number in the shop.
    pub number: JobNumber,
    /// What the shop calls it.
    pub label: String,
    /// Word of its class.
    pub vehicle_class: String,
    /// Word of its rear wheels.
    pub rear_wheels: String,
    /// Counts savings.
    pub revision: i32,
    /// When it was last saved.
    pub revised_at: DateTime<Utc>,
}

/// How far a job had come, as it was reckoned.
#[derive(Debug, Clone, Queryable, Selectable)]
#[diesel(table_name = job_standings)]
struct Reckoned {
    revision: i32,
    standing: Json<Value>,
}

/// A shop's jobs, newest first, each with how far it has come where that was reckoned for its present revision.
pub fn newest(
    connection: &mut PgConnection,
    shop: ShopId,
    most: i64,
    before: Option<JobNumber>,
) -> Result<Vec<(JobListed, Option<Value>)>, StoreError> {
    let of_job = job_standings::shop_id.eq(jobs::shop_id).and(job_standings::job_id.eq(jobs::id));
    let mut listed = jobs::table
        .left_join(job_standings::table.on(of_job))
        .filter(jobs::shop_id.eq(shop))
        .select((JobListed::as_select(), Option::<Reckoned>::as_select()))
        .into_boxed();
    if let Some(before) = before {
        listed = listed.filter(jobs::number.lt(before));
    }
    let rows: Vec<(JobListed, Option<Reckoned>)> = listed.order(jobs::number.desc()).limit(most).load(connection)?;
    let present = |(job, reckoned): (JobListed, Option<Reckoned>)| {
        let standing = reckoned.filter(|reckoned| reckoned.revision == job.revision).map(|reckoned| reckoned.standing.0);
        (job, standing)
    };
    Ok(rows.into_iter().map(present).collect())
}

/// Keeps how far jobs had come, for the lists to come.
pub fn keep_standings(connection: &mut PgConnection, shop: ShopId, reckoned: &[(JobId, i32, Value)]) -> Result<(), StoreError> {
    let rows: Vec<_> = reckoned
        .iter()
        .map(|(job, revision, standing)| {
            (
                job_standings::shop_id.eq(shop),
                job_standings::job_id.eq(*job),
                job_standings::revision.eq(*revision),
                job_standings::standing.eq(Json(standing.clone())),
            )
        })
        .collect();
    diesel::insert_into(job_standings::table)
        .values(rows)
        .on_conflict(job_standings::job_id)
        .do_update()
        .set((
            job_standings::revision.eq(excluded(job_standings::revision)),
            job_standings::standing.eq(excluded(job_standings::standing)),
        ))
        .execute(connection)?;
    Ok(())
}

/// Forgets what another version of the program may have reckoned by other rules. For the program's start.
pub fn forget_standings(connection: &mut PgConnection) -> Result<(), StoreError> {
    diesel::delete(job_standings::table).execute(connection)?;
    Ok(())
}
