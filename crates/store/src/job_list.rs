//! A shop's jobs as lists show them: a line each, read without reading the jobs.

use chrono::{DateTime, NaiveDate, Utc};
use diesel::prelude::*;
use diesel::sql_types::Bool;
use diesel::upsert::excluded;
use serde_json::Value;
use serde_json::value::RawValue;

use crate::json::Json;
use crate::ledger::{self, LedgerRow};
use crate::schema::{customers, job_dues, job_standings, jobs, vehicles};
use crate::{JobId, JobNumber, PersonId, ShopId, StoreError, VehicleId};

/// A job in a list. Its words are those of the columns: one that cannot be read must not take the list down.
#[derive(Debug, Clone, Queryable, Selectable)]
#[diesel(table_name = jobs)]
pub struct JobListed {
    /// Its key.
    pub id: JobId,
    /// Its shop.
    pub shop_id: ShopId,
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
    /// Counts what changes beside them.
    pub beside: i32,
    /// When it was last saved.
    pub revised_at: DateTime<Utc>,
    /// When it was opened.
    pub opened_at: DateTime<Utc>,
    /// When it was finished.
    pub finished_at: Option<DateTime<Utc>>,
    /// Who has it.
    pub assigned_to: Option<PersonId>,
    /// When it was promised.
    pub promised_on: Option<NaiveDate>,
}

/// How far a job had come, as it was reckoned.
#[derive(Debug, Clone, Queryable, Selectable)]
#[diesel(table_name = job_standings)]
struct Reckoned {
    revision: i32,
    beside: i32,
    rules: String,
    standing: Json<Box<RawValue>>,
}

/// Which jobs a list is of.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum Which {
    /// Those that are not finished.
    Open,
    /// Those that are.
    Finished,
    /// Those of a vehicle.
    OfVehicle(VehicleId),
    /// Those found by every one of some words, in small letters.
    Found(Vec<String>),
}

/// A job with what stands beside it in a list.
#[derive(Debug, Clone)]
pub struct Listed {
    /// The job.
    pub job: JobListed,
    /// How far it has come, where that was reckoned at its present revision by the present rules.
    pub standing: Option<Box<RawValue>>,
    /// The plate of its vehicle; empty where it has none, nothing where it is not known which vehicle it is.
    pub plate: Option<String>,
    /// Whose the vehicle is.
    pub customer: Option<String>,
}

/// A shop's jobs, newest first.
pub fn newest(
    connection: &mut PgConnection,
    shop: ShopId,
    which: &Which,
    rules: &str,
    most: i64,
    before: Option<JobNumber>,
) -> Result<Vec<Listed>, StoreError> {
    let of_job = job_standings::shop_id.eq(jobs::shop_id).and(job_standings::job_id.eq(jobs::id));
    let its_vehicle = vehicles::shop_id.eq(jobs::shop_id).and(vehicles::id.nullable().eq(jobs::vehicle_id));
    let whose = customers::shop_id.eq(jobs::shop_id).and(customers::id.nullable().eq(vehicles::customer_id));
    let mut listed = jobs::table
        .left_join(job_standings::table.on(of_job))
        .left_join(vehicles::table.on(its_vehicle))
        .left_join(customers::table.on(whose))
        .filter(jobs::shop_id.eq(shop))
        .select((JobListed::as_select(), Option::<Reckoned>::as_select(), vehicles::plate.nullable(), customers::name.nullable()))
        .into_boxed();
    match which {
        Which::Open => listed = listed.filter(jobs::finished_at.is_null()),
        Which::Finished => listed = listed.filter(jobs::finished_at.is_not_null()),
        Which::OfVehicle(id) => listed = listed.filter(jobs::vehicle_id.eq(*id)),
        Which::Found(words) => {
            for word in words {
                listed = listed.filter(jobs::searched.like(format!("%{}%", as_it_is(word))));
            }
            // Planned anew for its words: a word that most jobs have is found among the newest, a rare one by its letters. One plan for
            // all words would go through the letters of every shop's jobs each time. What is written by hand is never kept prepared.
            listed = listed.filter(diesel::dsl::sql::<Bool>("TRUE"));
        }
    }
    if let Some(before) = before {
        listed = listed.filter(jobs::number.lt(before));
    }
    type Row = (JobListed, Option<Reckoned>, Option<String>, Option<String>);
    let rows: Vec<Row> = listed.order(jobs::number.desc()).limit(most).load(connection)?;
    let present = |(job, reckoned, plate, customer): Row| {
        let is_present = |reckoned: &Reckoned| {
            (reckoned.revision, reckoned.beside, reckoned.rules.as_str()) == (job.revision, job.beside, rules)
        };
        let standing = reckoned.filter(is_present).map(|reckoned| reckoned.standing.0);
        Listed { job, standing, plate, customer }
    };
    Ok(rows.into_iter().map(present).collect())
}

/// Numbers of a shop's jobs, the latest first.
pub fn numbers(
    connection: &mut PgConnection,
    shop: ShopId,
    most: i64,
    before: Option<JobNumber>,
) -> Result<Vec<JobNumber>, StoreError> {
    let mut all = jobs::table.filter(jobs::shop_id.eq(shop)).select(jobs::number).into_boxed();
    if let Some(before) = before {
        all = all.filter(jobs::number.lt(before));
    }
    Ok(all.order(jobs::number.desc()).limit(most).load(connection)?)
}

/// A word for a pattern, with every sign standing for itself.
fn as_it_is(word: &str) -> String {
    word.replace('\\', "\\\\").replace('%', "\\%").replace('_', "\\_")
}

/// Jobs of any shop of which it is not known how far they have come by the present rules; those that are still open first.
pub fn not_reckoned(connection: &mut PgConnection, rules: &str, most: i64) -> Result<Vec<JobListed>, StoreError> {
    let of_job = job_standings::shop_id.eq(jobs::shop_id).and(job_standings::job_id.eq(jobs::id));
    let as_it_stands = job_standings::revision.eq(jobs::revision).and(job_standings::beside.eq(jobs::beside));
    let lacking = jobs::table
        .left_join(job_standings::table.on(of_job.and(as_it_stands).and(job_standings::rules.eq(rules.to_owned()))))
        .filter(job_standings::job_id.nullable().is_null())
        .order((jobs::finished_at.is_not_null(), jobs::id.desc()));
    Ok(lacking.limit(most).select(JobListed::as_select()).load(connection)?)
}

/// Of some jobs those of which it is not known how far they have come by the present rules.
pub fn not_reckoned_among(
    connection: &mut PgConnection,
    rules: &str,
    shop: ShopId,
    numbers: &[JobNumber],
) -> Result<Vec<JobListed>, StoreError> {
    let of_job = job_standings::shop_id.eq(jobs::shop_id).and(job_standings::job_id.eq(jobs::id));
    let as_it_stands = job_standings::revision.eq(jobs::revision).and(job_standings::beside.eq(jobs::beside));
    let lacking = jobs::table
        .left_join(job_standings::table.on(of_job.and(as_it_stands).and(job_standings::rules.eq(rules.to_owned()))))
        .filter(jobs::shop_id.eq(shop))
        .filter(jobs::number.eq_any(numbers))
        .filter(job_standings::job_id.nullable().is_null());
    Ok(lacking.select(JobListed::as_select()).load(connection)?)
}

/// How far a job has come, with what is due on it and what it is found by: gathered from its record.
#[derive(Debug, Clone, PartialEq)]
pub struct Gathered {
    /// Its shop.
    pub shop: ShopId,
    /// The job.
    pub job: JobId,
    /// At which revision.
    pub revision: i32,
    /// And after how many changes beside them.
    pub beside: i32,
    /// How far it has come.
    pub standing: Value,
    /// What is due, and by which day.
    pub dues: Vec<(&'static str, NaiveDate)>,
    /// What it is found by, in small letters.
    pub searched: String,
    /// What its parts did.
    pub ledger: Vec<LedgerRow>,
}

/// Keeps what was gathered of jobs, for the lists to come; to be run in a transaction. What changed since it was gathered is left out,
/// and so is what somebody is saving just now: that is gathered anew, and nobody waits for this. Like everybody, it holds the job
/// before it touches anything of the job's.
pub fn keep_gathered(connection: &mut PgConnection, rules: &str, gathered: &[Gathered]) -> Result<(), StoreError> {
    let of: Vec<JobId> = gathered.iter().map(|one| one.job).collect();
    let held: Vec<(JobId, i32, i32)> = jobs::table
        .filter(jobs::id.eq_any(of))
        .order(jobs::id)
        .select((jobs::id, jobs::revision, jobs::beside))
        .for_no_key_update()
        .skip_locked()
        .load(connection)?;
    let gathered: Vec<&Gathered> = gathered.iter().filter(|one| held.contains(&(one.job, one.revision, one.beside))).collect();
    if gathered.is_empty() {
        return Ok(());
    }
    let rows: Vec<_> = gathered
        .iter()
        .map(|one| {
            (
                job_standings::shop_id.eq(one.shop),
                job_standings::job_id.eq(one.job),
                job_standings::revision.eq(one.revision),
                job_standings::beside.eq(one.beside),
                job_standings::rules.eq(rules),
                job_standings::standing.eq(Json(one.standing.clone())),
            )
        })
        .collect();
    diesel::insert_into(job_standings::table)
        .values(rows)
        .on_conflict(job_standings::job_id)
        .do_update()
        .set((
            job_standings::revision.eq(excluded(job_standings::revision)),
            job_standings::beside.eq(excluded(job_standings::beside)),
            job_standings::rules.eq(excluded(job_standings::rules)),
            job_standings::standing.eq(excluded(job_standings::standing)),
        ))
        .execute(connection)?;
    let of: Vec<JobId> = gathered.iter().map(|one| one.job).collect();
    diesel::delete(job_dues::table.filter(job_dues::job_id.eq_any(of))).execute(connection)?;
    let dues: Vec<_> = gathered
        .iter()
        .flat_map(|one| {
            one.dues.iter().map(|(what, day)| {
                (job_dues::shop_id.eq(one.shop), job_dues::job_id.eq(one.job), job_dues::what.eq(*what), job_dues::day.eq(*day))
            })
        })
        .collect();
    diesel::insert_into(job_dues::table).values(dues).on_conflict_do_nothing().execute(connection)?;
    ledger::replace(connection, &gathered)?;
    for one in gathered {
        let same = jobs::table.filter(jobs::id.eq(one.job)).filter(jobs::searched.ne(&one.searched));
        diesel::update(same).set(jobs::searched.eq(&one.searched)).execute(connection)?;
    }
    Ok(())
}

/// Says that what was gathered of some jobs is out of date by something that their revisions do not count.
pub(crate) fn forget(connection: &mut PgConnection, of: &[JobId]) -> Result<(), StoreError> {
    // In one order, so that two who hold several do not wait for each other.
    let held: Vec<JobId> =
        jobs::table.filter(jobs::id.eq_any(of)).order(jobs::id).select(jobs::id).for_no_key_update().load(connection)?;
    diesel::update(jobs::table.filter(jobs::id.eq_any(held))).set(jobs::beside.eq(jobs::beside + 1)).execute(connection)?;
    Ok(())
}
