//! Sheets of a job that are written as a whole. One of each kind stands on a job; the ones before it stay on record.

use std::collections::HashMap;

use chrono::Utc;
use diesel::prelude::*;
use serde::Serialize;
use serde::de::DeserializeOwned;
use serde_json::Value;

use crate::entry::{DriveEntry, IntakeSheetEntry, Json, LoadPlanEntry, LookOverEntry};
use crate::person::Person;
use crate::schema::job_sheets;
use crate::{JobId, ShopId, StoreError};

/// What is kept as a sheet.
pub trait Sheet: Serialize + DeserializeOwned + PartialEq {
    /// The word its kind goes by in the store.
    const KIND: &'static str;
}

impl Sheet for LoadPlanEntry {
    const KIND: &'static str = "load_plan";
}

impl Sheet for IntakeSheetEntry {
    const KIND: &'static str = "intake";
}

impl Sheet for DriveEntry {
    const KIND: &'static str = "drive";
}

impl Sheet for LookOverEntry {
    const KIND: &'static str = "look_over";
}

/// A sheet that stands on a job, not read yet.
#[derive(Debug, Clone, Queryable, Selectable)]
#[diesel(table_name = job_sheets)]
pub struct Standing {
    /// The job.
    pub job_id: JobId,
    kind: String,
    entry: Json<Value>,
}

impl Standing {
    /// The sheet, when it is of the kind asked for.
    ///
    /// # Errors     [`StoreError::Unreadable`] when it does not read as one
    pub fn read<S: Sheet>(&self) -> Result<Option<S>, StoreError> {
        if self.kind != S::KIND {
            return Ok(None);
        }
        let unreadable = |error: serde_json::Error| StoreError::Unreadable { what: S::KIND, text: error.to_string() };
        serde_json::from_value(self.entry.0.clone()).map(Some).map_err(unreadable)
    }
}

/// The sheets that stand on some jobs.
pub fn standing(connection: &mut PgConnection, shop: ShopId, jobs: &[JobId]) -> Result<Vec<Standing>, StoreError> {
    Ok(job_sheets::table
        .filter(job_sheets::shop_id.eq(shop))
        .filter(job_sheets::job_id.eq_any(jobs))
        .filter(job_sheets::withdrawn_at.is_null())
        .select(Standing::as_select())
        .load(connection)?)
}

/// Those of one kind, by job.
pub(crate) fn by_job<S: Sheet>(sheets: &[Standing]) -> Result<HashMap<JobId, S>, StoreError> {
    sheets.iter().filter_map(|sheet| Some(sheet.read().transpose()?.map(|read| (sheet.job_id, read)))).collect()
}

/// Puts a sheet in place of the one of its kind that stands, which stays on record; an unchanged one is left alone.
pub fn replace<S: Sheet>(connection: &mut PgConnection, person: &Person, job: JobId, sheet: &S) -> Result<(), StoreError> {
    let standing = standing(connection, person.shop_id, &[job])?;
    let sheets = standing.iter().map(Standing::read::<S>).collect::<Result<Vec<_>, _>>()?;
    if sheets.iter().flatten().any(|before| before == sheet) {
        return Ok(());
    }
    let of_kind = job_sheets::table
        .filter(job_sheets::shop_id.eq(person.shop_id))
        .filter(job_sheets::job_id.eq(job))
        .filter(job_sheets::kind.eq(S::KIND));
    diesel::update(of_kind.filter(job_sheets::withdrawn_at.is_null()))
        .set(job_sheets::withdrawn_at.eq(Some(Utc::now())))
        .execute(connection)?;
    let entry = serde_json::to_value(sheet).map_err(|error| StoreError::Other(Box::new(error)))?;
    diesel::insert_into(job_sheets::table)
        .values((
            job_sheets::shop_id.eq(person.shop_id),
            job_sheets::job_id.eq(job),
            job_sheets::kind.eq(S::KIND),
            job_sheets::entry.eq(Json(entry)),
            job_sheets::recorded_by.eq(person.id),
        ))
        .execute(connection)?;
    Ok(())
}
