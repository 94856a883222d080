//! Everything that stands on a job, read together.

use std::sync::Arc;

use chrono::{DateTime, Utc};
use diesel::PgConnection;
use wise_badger_casework::case::Case;
use wise_badger_casework::casework::Casework;
use wise_badger_casework::reading::Spot;

use crate::fitting::Fitting;
use crate::job::{Job, JobRow};
use crate::{CorrectionId, JobNumber, PersonId, ShopId, StoreError, correction, fitting, job, job_sheet, reading};

/// A job with all that stands on it.
#[derive(Debug)]
pub struct JobFile {
    /// The job.
    pub job: Job,
    /// What it knows, and what follows.
    pub work: Arc<Casework>,
    /// Who took each of the case's readings, and when.
    pub taken: Vec<(PersonId, DateTime<Utc>)>,
    /// The keys of the case's options, in their order.
    pub considered: Vec<CorrectionId>,
    /// The choice of one of them.
    pub fitting: Option<Fitting>,
}

impl JobFile {
    /// The job with a number, with all that stands on it.
    pub fn find(connection: &mut PgConnection, shop: ShopId, number: JobNumber) -> Result<Self, StoreError> {
        let JobRow { job, intake, measured } = job::find(connection, shop, number)?;
        let id = job.id;
        let sheets = job_sheet::standing(connection, shop, id)?;
        let readings = reading::standing(connection, shop, id)?;
        let (readings, taken) = readings.into_iter().map(|taken| (taken.reading, (taken.by, taken.at))).unzip();
        let mut case = Case::opened(intake);
        (case.measured, case.readings) = (measured, readings);
        case.sheet = job_sheet::among(&sheets)?.unwrap_or_default();
        case.plan = job_sheet::among(&sheets)?;
        case.look_over = job_sheet::among(&sheets)?;
        case.bench = job_sheet::among(&sheets)?;
        case.drive = job_sheet::among(&sheets)?.unwrap_or_default();
        case.work_plan = job_sheet::among(&sheets)?.unwrap_or_default();
        case.proof = job_sheet::among(&sheets)?.unwrap_or_default();
        case.sums = job_sheet::among(&sheets)?.unwrap_or_default();
        case.tape = job_sheet::among(&sheets)?.unwrap_or_default();
        case.aim = job_sheet::among(&sheets)?;
        let corrections = correction::standing(connection, shop, id)?;
        let (considered, entries): (Vec<_>, Vec<_>) = corrections.into_iter().map(|one| (one.id, one.entry.0)).unzip();
        let fitting = fitting::standing(connection, shop, id)?.pop();
        case.options = entries;
        case.chosen = fitting.as_ref().and_then(|fitting| considered.iter().position(|id| *id == fitting.correction_id));
        Ok(JobFile { job, work: Arc::new(Casework::new(case)), taken, considered, fitting })
    }

    /// What stands on the job, as typed.
    pub fn case(&self) -> &Case {
        self.work.case()
    }

    /// Who took the last reading of a spot, and when.
    pub fn last_taken(&self, spot: Spot) -> Option<(PersonId, DateTime<Utc>)> {
        let of_spot = self.case().readings.iter().zip(&self.taken).rev().find(|(reading, _)| reading.spot == spot);
        of_spot.map(|(_, taken)| *taken)
    }
}
