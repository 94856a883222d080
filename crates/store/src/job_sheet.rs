//! Sheets of a job that are written as a whole. One of each kind stands on a job; the ones before it stay on record.

use chrono::Utc;
use diesel::prelude::*;
use serde::Serialize;
use serde::de::DeserializeOwned;
use serde_json::Value;
use wise_badger_casework::entry::{
    AimSheet, BenchEntry, DriveEntry, IntakeSheetEntry, KeptSumsEntry, LoadPlanEntry, LookOverEntry, ProofSheetEntry,
    TapeSheetEntry, WorkPlanEntry,
};

use crate::change::{What, note};
use crate::deed::Deed;
use crate::json::{Json, document};
use crate::person::Person;
use crate::schema::job_sheets;
use crate::{JobId, ShopId, StoreError};

/// What is kept as a sheet.
pub trait JobSheet: Serialize + DeserializeOwned + PartialEq {
    /// The word its kind goes by in the store.
    const KIND: &'static str;
    /// What writing one is called in a history.
    const DEED: Deed;
}

/// What writing a sheet of each kind is.
pub(crate) const DEEDS: &[(&str, Deed)] = &[
    (LoadPlanEntry::KIND, LoadPlanEntry::DEED),
    (IntakeSheetEntry::KIND, IntakeSheetEntry::DEED),
    (DriveEntry::KIND, DriveEntry::DEED),
    (LookOverEntry::KIND, LookOverEntry::DEED),
    (BenchEntry::KIND, BenchEntry::DEED),
    (TapeSheetEntry::KIND, TapeSheetEntry::DEED),
    (AimSheet::KIND, AimSheet::DEED),
    (ProofSheetEntry::KIND, ProofSheetEntry::DEED),
    (KeptSumsEntry::KIND, KeptSumsEntry::DEED),
    (WorkPlanEntry::KIND, WorkPlanEntry::DEED),
];

impl JobSheet for LoadPlanEntry {
    const KIND: &'static str = "load_plan";
    const DEED: Deed = Deed::Planned;
}

impl JobSheet for IntakeSheetEntry {
    const KIND: &'static str = "intake";
    const DEED: Deed = Deed::Asked;
}

impl JobSheet for DriveEntry {
    const KIND: &'static str = "drive";
    const DEED: Deed = Deed::Drove;
}

impl JobSheet for LookOverEntry {
    const KIND: &'static str = "look_over";
    const DEED: Deed = Deed::LookedOver;
}

impl JobSheet for TapeSheetEntry {
    const KIND: &'static str = "tape";
    const DEED: Deed = Deed::Loaded;
}

impl JobSheet for AimSheet {
    const KIND: &'static str = "aim";
    const DEED: Deed = Deed::Aimed;
}

impl JobSheet for ProofSheetEntry {
    const KIND: &'static str = "proof";
    const DEED: Deed = Deed::Proved;
}

impl JobSheet for KeptSumsEntry {
    const KIND: &'static str = "sums";
    const DEED: Deed = Deed::Reckoned;
}

impl JobSheet for WorkPlanEntry {
    const KIND: &'static str = "work_plan";
    const DEED: Deed = Deed::WorkPlanned;
}

impl JobSheet for BenchEntry {
    const KIND: &'static str = "bench";
    const DEED: Deed = Deed::Benched;
}

/// A sheet that stands on a job, not read yet.
#[derive(Debug, Clone, Queryable, Selectable)]
#[diesel(table_name = job_sheets)]
pub struct StandingSheet {
    id: i64,
    /// The one it took the place of.
    follows: Option<i64>,
    /// The job.
    pub job_id: JobId,
    kind: String,
    entry: Json<Value>,
}

impl StandingSheet {
    /// The sheet, when it is of the kind asked for.
    ///
    /// # Errors     [`StoreError::Unreadable`] when it does not read as one
    pub fn read<S: JobSheet>(&self) -> Result<Option<S>, StoreError> {
        if self.kind != S::KIND {
            return Ok(None);
        }
        let unreadable = |error: serde_json::Error| StoreError::Unreadable { what: S::KIND, text: error.to_string() };
        serde_json::from_value(self.entry.0.clone()).map(Some).map_err(unreadable)
    }
}

/// The sheets that stand on a job.
pub fn standing(connection: &mut PgConnection, shop: ShopId, job: JobId) -> Result<Vec<StandingSheet>, StoreError> {
    Ok(job_sheets::table
        .filter(job_sheets::shop_id.eq(shop))
        .filter(job_sheets::job_id.eq(job))
        .filter(job_sheets::withdrawn_at.is_null())
        .select(StandingSheet::as_select())
        .load(connection)?)
}

/// The one of a kind.
pub(crate) fn among<S: JobSheet>(sheets: &[StandingSheet]) -> Result<Option<S>, StoreError> {
    sheets.iter().find_map(|sheet| sheet.read().transpose()).transpose()
}

/// Puts a sheet in place of the one of its kind that stands, which stays on record; an unchanged one is left alone.
pub fn replace<S: JobSheet>(connection: &mut PgConnection, person: &Person, job: JobId, sheet: &S) -> Result<(), StoreError> {
    let standing = standing_of::<S>(connection, person.shop_id, job)?;
    let before = standing.as_ref().map(StandingSheet::read::<S>).transpose()?.flatten();
    if before.as_ref() == Some(sheet) {
        return Ok(());
    }
    let before = standing.map(|sheet| sheet.id);
    withdraw(connection, person, before)?;
    let entry = document(sheet)?;
    diesel::insert_into(job_sheets::table)
        .values((
            job_sheets::shop_id.eq(person.shop_id),
            job_sheets::job_id.eq(job),
            job_sheets::kind.eq(S::KIND),
            job_sheets::entry.eq(Json(entry)),
            job_sheets::recorded_by.eq(person.id),
            job_sheets::follows.eq(before),
        ))
        .execute(connection)?;
    Ok(())
}

/// Which way a step is taken along the sheets of a kind.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Step {
    /// To the sheet that the standing one took the place of.
    Back,
    /// To the newest sheet that took the place of the standing one, before a step back.
    Forward,
}

/// The sheet that a step leads to, where there is one.
fn led_to(connection: &mut PgConnection, shop: ShopId, sheet: &StandingSheet, step: Step) -> Result<Option<i64>, StoreError> {
    match step {
        Step::Back => Ok(sheet.follows),
        Step::Forward => {
            let later = job_sheets::table.filter(job_sheets::shop_id.eq(shop)).filter(job_sheets::follows.eq(sheet.id));
            Ok(later.order(job_sheets::id.desc()).select(job_sheets::id).first(connection).optional()?)
        }
    }
}

/// The sheet of a kind that stands on a job.
pub fn of_job<S: JobSheet>(connection: &mut PgConnection, shop: ShopId, job: JobId) -> Result<Option<S>, StoreError> {
    standing_of::<S>(connection, shop, job)?.map_or(Ok(None), |sheet| sheet.read())
}

/// The sheet of a kind that was written last in a shop, of those that stand.
pub fn newest_of_shop<S: JobSheet>(connection: &mut PgConnection, shop: ShopId) -> Result<Option<S>, StoreError> {
    let newest = job_sheets::table
        .filter(job_sheets::shop_id.eq(shop))
        .filter(job_sheets::kind.eq(S::KIND))
        .filter(job_sheets::withdrawn_at.is_null())
        .order(job_sheets::id.desc())
        .select(StandingSheet::as_select())
        .first::<StandingSheet>(connection)
        .optional()?;
    // One that cannot be read is its own job's trouble, not that of the job that asks.
    Ok(newest.and_then(|sheet| sheet.read().ok().flatten()))
}

fn standing_of<S: JobSheet>(
    connection: &mut PgConnection,
    shop: ShopId,
    job: JobId,
) -> Result<Option<StandingSheet>, StoreError> {
    Ok(job_sheets::table
        .filter(job_sheets::shop_id.eq(shop))
        .filter(job_sheets::job_id.eq(job))
        .filter(job_sheets::kind.eq(S::KIND))
        .filter(job_sheets::withdrawn_at.is_null())
        .select(StandingSheet::as_select())
        .first(connection)
        .optional()?)
}

/// Whether a step can be taken back, and forward again.
pub fn steps<S: JobSheet>(connection: &mut PgConnection, shop: ShopId, job: JobId) -> Result<[bool; 2], StoreError> {
    let Some(sheet) = standing_of::<S>(connection, shop, job)? else { return Ok([false, false]) };
    let forward = led_to(connection, shop, &sheet, Step::Forward)?.is_some();
    Ok([sheet.follows.is_some(), forward])
}

/// Takes a step back or forward; the sheet that stood stays on record. Nothing happens where there is no step to take.
pub fn step<S: JobSheet>(connection: &mut PgConnection, person: &Person, job: JobId, step: Step) -> Result<(), StoreError> {
    let Some(sheet) = standing_of::<S>(connection, person.shop_id, job)? else { return Ok(()) };
    let Some(there) = led_to(connection, person.shop_id, &sheet, step)? else { return Ok(()) };
    withdraw(connection, person, Some(sheet.id))?;
    diesel::update(job_sheets::table.filter(job_sheets::shop_id.eq(person.shop_id)).filter(job_sheets::id.eq(there)))
        .set(job_sheets::withdrawn_at.eq(None::<chrono::DateTime<Utc>>))
        .execute(connection)?;
    let what = if step == Step::Back { What::StepBack } else { What::StepForward };
    note(connection, person, job, what, None, None)
}

fn withdraw(connection: &mut PgConnection, person: &Person, sheet: Option<i64>) -> Result<(), StoreError> {
    let Some(id) = sheet else { return Ok(()) };
    diesel::update(job_sheets::table.filter(job_sheets::shop_id.eq(person.shop_id)).filter(job_sheets::id.eq(id)))
        .set(job_sheets::withdrawn_at.eq(Some(Utc::now())))
        .execute(connection)?;
    Ok(())
}
