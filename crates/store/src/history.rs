//! Who did what on a job, and when: gathered from the record itself, which never forgets.

use std::collections::BTreeMap;

use chrono::{DateTime, Utc};
use diesel::prelude::*;

use crate::schema::{aims, corrections, fittings, job_sheets, jobs, loads, photographs, readings};
use crate::{JobId, PersonId, ShopId, StoreError};

/// What was done.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
pub enum Deed {
    /// The job was opened.
    Opened,
    /// The intake sheet was written.
    Asked,
    /// The load plan was written.
    Planned,
    /// Readings were taken.
    Read,
    /// Readings were corrected, or taken off.
    Corrected,
    /// What was put on was told.
    Loaded,
    /// The vehicle was looked over.
    LookedOver,
    /// A pack was worked on at the bench.
    Benched,
    /// A control drive was scored.
    Drove,
    /// A photograph was sent.
    Photographed,
    /// The aim was set.
    Aimed,
    /// A correction was considered.
    Considered,
    /// A correction was chosen.
    Chose,
}

/// Something done by somebody at one time.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Event {
    /// When.
    pub at: DateTime<Utc>,
    /// Who.
    pub by: PersonId,
    /// What.
    pub deed: Deed,
    /// How many at once: readings, photographs.
    pub count: usize,
}

/// Everything done on a job, the latest first.
pub fn of_job(connection: &mut PgConnection, shop: ShopId, job: JobId) -> Result<Vec<Event>, StoreError> {
    type Done = (DateTime<Utc>, PersonId);
    let mut deeds: Vec<(Done, Deed)> = Vec::new();
    macro_rules! gather {
        ($table:ident, $at:ident, $by:ident, $deed:expr) => {
            let of_job = $table::table.filter($table::shop_id.eq(shop)).filter($table::job_id.eq(job));
            let done: Vec<Done> = of_job.select(($table::$at, $table::$by)).load(connection)?;
            deeds.extend(done.into_iter().map(|done| (done, $deed)));
        };
    }
    let opened = jobs::table.filter(jobs::shop_id.eq(shop)).filter(jobs::id.eq(job)).select((jobs::opened_at, jobs::opened_by));
    deeds.extend(opened.load::<Done>(connection)?.into_iter().map(|done| (done, Deed::Opened)));
    gather!(readings, taken_at, taken_by, Deed::Read);
    gather!(loads, recorded_at, recorded_by, Deed::Loaded);
    gather!(aims, recorded_at, recorded_by, Deed::Aimed);
    gather!(corrections, recorded_at, recorded_by, Deed::Considered);
    gather!(fittings, recorded_at, recorded_by, Deed::Chose);
    gather!(photographs, taken_at, taken_by, Deed::Photographed);
    let corrected = readings::table
        .filter(readings::shop_id.eq(shop))
        .filter(readings::job_id.eq(job))
        .filter(readings::withdrawn_at.is_not_null())
        .select((readings::withdrawn_at.assume_not_null(), readings::withdrawn_by.assume_not_null()));
    deeds.extend(corrected.load::<Done>(connection)?.into_iter().map(|done| (done, Deed::Corrected)));
    let sheets = job_sheets::table.filter(job_sheets::shop_id.eq(shop)).filter(job_sheets::job_id.eq(job));
    let sheets: Vec<(DateTime<Utc>, PersonId, String)> =
        sheets.select((job_sheets::recorded_at, job_sheets::recorded_by, job_sheets::kind)).load(connection)?;
    deeds.extend(sheets.into_iter().filter_map(|(at, by, kind)| Some(((at, by), of_sheet(&kind)?))));
    // What was saved together has one time, that of its transaction.
    let mut together: BTreeMap<(DateTime<Utc>, i64, Deed), usize> = BTreeMap::new();
    for ((at, by), deed) in deeds {
        *together.entry((at, by.0, deed)).or_default() += 1;
    }
    let event = |((at, by, deed), count)| Event { at, by: PersonId(by), deed, count };
    Ok(together.into_iter().rev().map(event).collect())
}

fn of_sheet(kind: &str) -> Option<Deed> {
    match kind {
        "intake" => Some(Deed::Asked),
        "load_plan" => Some(Deed::Planned),
        "look_over" => Some(Deed::LookedOver),
        "bench" => Some(Deed::Benched),
        "drive" => Some(Deed::Drove),
        _ => None,
    }
}
