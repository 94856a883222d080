//! What was changed in place, or taken off without anything in its stead: before and after, who and when.

use chrono::{DateTime, Utc};
use diesel::prelude::*;
use serde::Serialize;
use serde_json::Value;

use crate::json::Json;
use crate::person::Person;
use crate::schema::job_changes;
use crate::{JobId, PersonId, ShopId, StoreError};

/// What kind of change it is.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum What {
    /// What intake wrote down of the vehicle.
    Intake,
    /// How the heights are read.
    TapeManner,
    /// The job was finished.
    Finished,
    /// The job was taken up again.
    Reopened,
    /// A correction was taken off the list.
    CorrectionOff,
    /// A correction was put back on the list.
    CorrectionBack,
    /// The choice was taken back.
    ChoiceOff,
    /// A photograph was taken off.
    PhotographOff,
    /// The bench went a step back.
    StepBack,
    /// The bench went a step forward again.
    StepForward,
    /// Who has it, and when it was promised.
    Hands,
}

impl What {
    const WORDS: [(What, &'static str); 11] = [
        (What::Intake, "intake"),
        (What::TapeManner, "tape_manner"),
        (What::Finished, "finished"),
        (What::Reopened, "reopened"),
        (What::CorrectionOff, "correction_off"),
        (What::CorrectionBack, "correction_back"),
        (What::ChoiceOff, "choice_off"),
        (What::PhotographOff, "photograph_off"),
        (What::StepBack, "step_back"),
        (What::StepForward, "step_forward"),
        (What::Hands, "hands"),
    ];

    fn word(self) -> &'static str {
        Self::WORDS.iter().find(|(what, _)| *what == self).map_or("", |(_, word)| word)
    }

    /// `None` for a word of another version of the program, which a history passes over.
    pub(crate) fn of(word: &str) -> Option<Self> {
        Self::WORDS.iter().find(|(_, of)| *of == word).map(|(what, _)| *what)
    }
}

/// A change on record.
#[derive(Debug, Clone, Queryable, Selectable)]
#[diesel(table_name = job_changes)]
pub(crate) struct Change {
    pub(crate) what: String,
    pub(crate) before: Option<Json<Value>>,
    pub(crate) after: Option<Json<Value>>,
    pub(crate) changed_by: PersonId,
    pub(crate) changed_at: DateTime<Utc>,
}

/// One side of a change, as it is noted.
pub(crate) fn state(of: &impl Serialize) -> Result<Value, StoreError> {
    serde_json::to_value(of).map_err(|error| StoreError::Other(Box::new(error)))
}

/// Notes a change; one from something to the same is none.
pub(crate) fn note(
    connection: &mut PgConnection,
    person: &Person,
    job: JobId,
    what: What,
    before: Option<Value>,
    after: Option<Value>,
) -> Result<(), StoreError> {
    if before.is_some() && before == after {
        return Ok(());
    }
    diesel::insert_into(job_changes::table)
        .values((
            job_changes::shop_id.eq(person.shop_id),
            job_changes::job_id.eq(job),
            job_changes::what.eq(what.word()),
            job_changes::before.eq(before.map(Json)),
            job_changes::after.eq(after.map(Json)),
            job_changes::changed_by.eq(person.id),
        ))
        .execute(connection)?;
    Ok(())
}

/// The newest changes of a job before a moment.
pub(crate) fn of_job(
    connection: &mut PgConnection,
    shop: ShopId,
    job: JobId,
    before: DateTime<Utc>,
    most: i64,
) -> Result<Vec<Change>, StoreError> {
    Ok(job_changes::table
        .filter(job_changes::shop_id.eq(shop))
        .filter(job_changes::job_id.eq(job))
        .filter(job_changes::changed_at.lt(before))
        .order(job_changes::changed_at.desc())
        .limit(most)
        .select(Change::as_select())
        .load(connection)?)
}
