//! Who did what on a job, when, and what differed: gathered from the record itself, which never forgets.

use std::cmp::Reverse;
use std::collections::{BTreeMap, HashMap};

use chrono::{DateTime, Utc};
use diesel::prelude::*;
use serde_json::Value;

use crate::change::{self, What};
pub use crate::deed::Deed;
use crate::difference::{self, Difference};
use crate::job_sheet::DEEDS;
use crate::json::Json;
use crate::schema::{corrections, fittings, job_sheets, jobs, photographs, readings};
use crate::{JobId, PersonId, ShopId, StoreError};

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
    /// What differed from before.
    pub differences: Vec<Difference>,
}

/// A stretch of a job's history, the latest first.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Stretch {
    /// What was done.
    pub events: Vec<Event>,
    /// Where what was done before begins, when there is more.
    pub earlier: Option<DateTime<Utc>>,
}

/// Most rows read of each table for one stretch.
const MOST_ROWS: i64 = 300;
/// Most events of one stretch.
const MOST_EVENTS: usize = 60;

/// When, by whom and what: the latest first.
type Together = (Reverse<DateTime<Utc>>, i64, Deed);

/// What was gathered so far of a job, before a moment.
struct Gathered {
    shop: ShopId,
    job: JobId,
    before: DateTime<Utc>,
    /// What was saved together has one time, that of its transaction.
    together: BTreeMap<Together, (usize, Vec<Difference>)>,
    /// The oldest row of a table of which not all rows were read: what is older is not complete here.
    horizon: Option<DateTime<Utc>>,
}

impl Gathered {
    fn put(&mut self, at: DateTime<Utc>, by: PersonId, deed: Deed, differences: Vec<Difference>) {
        let (count, all) = self.together.entry((Reverse(at), by.0, deed)).or_default();
        *count += 1;
        all.extend(differences);
    }

    /// Notes how far back the rows of a table reach.
    fn reaches(&mut self, rows: usize, oldest: Option<DateTime<Utc>>) {
        if i64::try_from(rows).is_ok_and(|rows| rows >= MOST_ROWS) {
            self.horizon = self.horizon.max(oldest);
        }
    }

    fn stretch(self) -> Stretch {
        let horizon = self.horizon;
        // What was done at the horizon itself may be read in part only.
        let complete = |at: DateTime<Utc>| horizon.is_none_or(|horizon| at > horizon);
        let event = |((Reverse(at), by, deed), (count, differences))| Event { at, by: PersonId(by), deed, count, differences };
        let events: Vec<Event> = self.together.into_iter().map(event).filter(|event| complete(event.at)).collect();
        let last = events.get(MOST_EVENTS.saturating_sub(1)).map(|event| event.at);
        // What was done at one time is never torn apart.
        let shown: Vec<Event> = events.iter().filter(|event| last.is_none_or(|last| event.at >= last)).cloned().collect();
        let more = shown.len() < events.len() || horizon.is_some();
        Stretch { earlier: shown.last().map(|event| event.at).filter(|_| more), events: shown }
    }
}

/// What was done on a job before a moment.
pub fn of_job(connection: &mut PgConnection, shop: ShopId, job: JobId, before: DateTime<Utc>) -> Result<Stretch, StoreError> {
    let mut gathered = Gathered { shop, job, before, together: BTreeMap::new(), horizon: None };
    macro_rules! gather {
        ($table:ident, $at:ident, $by:ident, $deed:expr) => {
            let of_job = $table::table.filter($table::shop_id.eq(shop)).filter($table::job_id.eq(job));
            let done: Vec<(DateTime<Utc>, PersonId)> = of_job
                .filter($table::$at.lt(before))
                .order($table::$at.desc())
                .limit(MOST_ROWS)
                .select(($table::$at, $table::$by))
                .load(connection)?;
            gathered.reaches(done.len(), done.last().map(|(at, _)| *at));
            done.into_iter().for_each(|(at, by)| gathered.put(at, by, $deed, Vec::new()));
        };
    }
    let opened = jobs::table.filter(jobs::shop_id.eq(shop)).filter(jobs::id.eq(job)).filter(jobs::opened_at.lt(before));
    for (at, by) in opened.select((jobs::opened_at, jobs::opened_by)).load(connection)? {
        gathered.put(at, by, Deed::Opened, Vec::new());
    }
    gather!(corrections, recorded_at, recorded_by, Deed::Considered);
    gather!(fittings, recorded_at, recorded_by, Deed::Chose);
    gather!(photographs, taken_at, taken_by, Deed::Photographed);
    gather_readings(connection, &mut gathered)?;
    gather_sheets(connection, &mut gathered)?;
    gather_changes(connection, &mut gathered)?;
    Ok(gathered.stretch())
}

type ReadColumns = (DateTime<Utc>, PersonId, String, String, String, String, String, Option<String>);

fn gather_readings(connection: &mut PgConnection, gathered: &mut Gathered) -> Result<(), StoreError> {
    let Gathered { shop, job, before, .. } = *gathered;
    let of_job = readings::table.filter(readings::shop_id.eq(shop)).filter(readings::job_id.eq(job));
    let what = (readings::phase, readings::load_state, readings::place, readings::value_text, readings::value_unit);
    let taken: Vec<ReadColumns> = of_job
        .filter(readings::taken_at.lt(before))
        .order((readings::taken_at.desc(), readings::id.desc()))
        .limit(MOST_ROWS)
        .select((readings::taken_at, readings::taken_by, what.0, what.1, what.2, what.3, what.4, readings::withdrawn_why))
        .load(connection)?;
    let corrected: Vec<ReadColumns> = of_job
        .filter(readings::withdrawn_at.lt(before))
        .order((readings::withdrawn_at.desc(), readings::id.desc()))
        .limit(MOST_ROWS)
        .select((
            readings::withdrawn_at.assume_not_null(),
            readings::withdrawn_by.assume_not_null(),
            what.0,
            what.1,
            what.2,
            what.3,
            what.4,
            readings::withdrawn_why,
        ))
        .load(connection)?;
    for (rows, deed) in [(taken, Deed::Read), (corrected, Deed::Corrected)] {
        gathered.reaches(rows.len(), rows.last().map(|(at, ..)| *at));
        for (at, by, phase, state, place, text, unit, why) in rows.into_iter().rev() {
            let typed = serde_json::json!({ "text": text, "unit": unit, "si": 0 });
            let place = format!("{phase}, {state}, {}", place.replace('_', " "));
            let read =
                difference::between(&Value::Null, &serde_json::json!({ "value": typed })).pop().and_then(|read| read.after);
            let difference = match deed {
                Deed::Read => Difference { place, before: None, after: read },
                _ => Difference {
                    place: why.map_or_else(|| place.clone(), |why| format!("{place} ({why})")),
                    before: read,
                    after: None,
                },
            };
            gathered.put(at, by, deed, vec![difference]);
        }
    }
    Ok(())
}

#[derive(Queryable, Selectable)]
#[diesel(table_name = job_sheets)]
struct SheetRow {
    follows: Option<i64>,
    kind: String,
    entry: Json<Value>,
    recorded_at: DateTime<Utc>,
    recorded_by: PersonId,
}

fn gather_sheets(connection: &mut PgConnection, gathered: &mut Gathered) -> Result<(), StoreError> {
    let Gathered { shop, job, before, .. } = *gathered;
    let of_job = job_sheets::table.filter(job_sheets::shop_id.eq(shop)).filter(job_sheets::job_id.eq(job));
    let rows: Vec<SheetRow> = of_job
        .filter(job_sheets::recorded_at.lt(before))
        .order(job_sheets::id.desc())
        .limit(MOST_ROWS)
        .select(SheetRow::as_select())
        .load(connection)?;
    gathered.reaches(rows.len(), rows.last().map(|row| row.recorded_at));
    let followed: Vec<i64> = rows.iter().filter_map(|row| row.follows).collect();
    let followed: Vec<(i64, Json<Value>)> =
        of_job.filter(job_sheets::id.eq_any(followed)).select((job_sheets::id, job_sheets::entry)).load(connection)?;
    let followed: HashMap<i64, Json<Value>> = followed.into_iter().collect();
    for row in &rows {
        let Some(deed) = of_sheet(&row.kind) else { continue };
        let stood = row.follows.and_then(|id| followed.get(&id));
        let differences = stood.map(|stood| difference::between(&stood.0, &row.entry.0)).unwrap_or_default();
        gathered.put(row.recorded_at, row.recorded_by, deed, differences);
    }
    Ok(())
}

fn gather_changes(connection: &mut PgConnection, gathered: &mut Gathered) -> Result<(), StoreError> {
    let Gathered { shop, job, before, .. } = *gathered;
    let rows = change::of_job(connection, shop, job, before, MOST_ROWS)?;
    gathered.reaches(rows.len(), rows.last().map(|row| row.changed_at));
    for row in rows {
        let Some(what) = What::of(&row.what) else { continue };
        let side = |side: Option<Json<Value>>| side.map_or(Value::Null, |side| side.0);
        let differences = difference::between(&side(row.before), &side(row.after));
        gathered.put(row.changed_at, row.changed_by, of_change(what), differences);
    }
    Ok(())
}

/// `None` for a kind of another version of the program, which a history passes over.
fn of_sheet(kind: &str) -> Option<Deed> {
    DEEDS.iter().find(|(word, _)| *word == kind).map(|(_, deed)| *deed)
}

fn of_change(what: What) -> Deed {
    match what {
        What::Intake => Deed::VehicleChanged,
        What::TapeManner => Deed::MannerChanged,
        What::Finished => Deed::Finished,
        What::Reopened => Deed::Reopened,
        What::CorrectionOff => Deed::CorrectionOff,
        What::CorrectionBack => Deed::CorrectionBack,
        What::ChoiceOff => Deed::ChoiceOff,
        What::PhotographOff => Deed::PhotographOff,
        What::StepBack => Deed::SteppedBack,
        What::StepForward => Deed::SteppedForward,
        What::Hands => Deed::Handed,
    }
}
