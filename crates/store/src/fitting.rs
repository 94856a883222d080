//! The correction chosen to be fitted on a job.

use chrono::{DateTime, Utc};
use diesel::prelude::*;
use wise_badger_casework::entry::{PredictedHeights, PromiseEntry};

use crate::change::{What, note};
use crate::json::Json;
use crate::person::Person;
use crate::schema::fittings;
use crate::{CorrectionId, JobId, PersonId, ShopId, StoreError};

/// A choice that stands.
#[derive(Debug, Clone, PartialEq, Queryable, Selectable)]
#[diesel(table_name = fittings)]
pub struct Fitting {
    /// The job.
    pub job_id: JobId,
    /// What was chosen.
    pub correction_id: CorrectionId,
    /// The prediction as it stood.
    pub predicted: Json<PredictedHeights>,
    /// What was promised, with all that it was said from; nothing of a choice made before that was recorded.
    pub promise: Option<Json<PromiseEntry>>,
    /// Who chose.
    pub recorded_by: PersonId,
    /// When.
    pub recorded_at: DateTime<Utc>,
}

/// Those that stand on a job.
pub fn standing(connection: &mut PgConnection, shop: ShopId, job: JobId) -> Result<Vec<Fitting>, StoreError> {
    Ok(fittings::table
        .filter(fittings::shop_id.eq(shop))
        .filter(fittings::job_id.eq(job))
        .filter(fittings::withdrawn_at.is_null())
        .select(Fitting::as_select())
        .load(connection)?)
}

/// Chooses a correction in place of any chosen before.
pub fn choose(
    connection: &mut PgConnection,
    person: &Person,
    job: JobId,
    correction: CorrectionId,
    predicted: &PredictedHeights,
    promise: Option<&PromiseEntry>,
) -> Result<(), StoreError> {
    set_withdrawn(connection, person.shop_id, job)?;
    diesel::insert_into(fittings::table)
        .values((
            fittings::shop_id.eq(person.shop_id),
            fittings::job_id.eq(job),
            fittings::correction_id.eq(correction),
            fittings::predicted.eq(Json(predicted.clone())),
            fittings::promise.eq(promise.cloned().map(Json)),
            fittings::recorded_by.eq(person.id),
        ))
        .execute(connection)?;
    Ok(())
}

/// Chooses nothing after all; the choice stays on record.
pub fn withdraw(connection: &mut PgConnection, person: &Person, job: JobId) -> Result<(), StoreError> {
    match set_withdrawn(connection, person.shop_id, job)? {
        0 => Ok(()),
        _ => note(connection, person, job, What::ChoiceOff, None, None),
    }
}

fn set_withdrawn(connection: &mut PgConnection, shop: ShopId, job: JobId) -> Result<usize, StoreError> {
    let standing = fittings::table.filter(fittings::shop_id.eq(shop)).filter(fittings::job_id.eq(job));
    Ok(diesel::update(standing.filter(fittings::withdrawn_at.is_null()))
        .set(fittings::withdrawn_at.eq(Some(Utc::now())))
        .execute(connection)?)
}
