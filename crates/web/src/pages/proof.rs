//! Proof: heights after fitting, against what was predicted.

use actix_web::HttpResponse;
use actix_web::http::StatusCode;
use actix_web::web::{Data, Path};
use askama::Template;
use wise_badger_casework::reading::Phase;
use wise_badger_casework::route::Stage;
use wise_badger_mechanics::tape::Datum;
use wise_badger_store::job::Closed;
use wise_badger_store::job_file::JobFile;
use wise_badger_store::{Database, job, reading};

use super::job_frame::{JobFrame, as_chosen};
use super::tape::{StateForm, state_forms};
use super::{Hidden, Kept, Page, Record, Refusal, job_file, job_record, keep, keep_where, or_fail, page, see_other};
use crate::correction::correction_name;
use crate::error::WebError;
use crate::form::{Posted, Sheet, tape};
use crate::job_route::Shown as _;
use crate::reckoning::drawn;
use crate::view::proof::proof_figures;
use crate::view::{Figure, caution_text, datum_name};
use crate::worker::Worker;

#[derive(Template)]
#[template(path = "proof.html")]
struct ProofPage {
    frame: JobFrame,
    number: i32,
    hidden: Hidden,
    finish_hidden: Hidden,
    /// What was chosen; empty while nothing is.
    chosen: String,
    datum: &'static str,
    states: Vec<StateForm>,
    figures: Vec<Figure>,
    cautions: Vec<&'static str>,
    measured: bool,
    refusal: String,
}

pub(crate) async fn show(database: Data<Database>, worker: Worker, number: Path<i32>) -> Result<HttpResponse, WebError> {
    let record = job_record(&database, &worker, *number).await?;
    let sheet = tape::heights_on_file(worker.units(), &record.file, Phase::Fitted);
    drawn(move |_| proof_page(&worker, &record, &sheet, None)).await
}

pub(crate) async fn save(
    database: Data<Database>,
    worker: Worker,
    number: Path<i32>,
    posted: Posted,
) -> Result<HttpResponse, WebError> {
    let record = job_record(&database, &worker, *number).await?;
    let file = &record.file;
    if file.fitting.is_none() {
        return Err(WebError::NotNow("No correction is chosen, so there is nothing to prove yet."));
    }
    let mut sheet = Sheet::posted(posted, worker.units());
    sheet.keep_words_of(&tape::heights_on_file(sheet.units(), file, Phase::Fitted));
    let datum = file.case().measured.datum.unwrap_or(Datum::GroundToArch);
    let readings = tape::heights(&mut sheet, Phase::Fitted, datum);
    if !sheet.is_sound() {
        let refusal = Refusal::Fields(sheet.problem_count());
        return drawn(move |_| proof_page(&worker, &record, &sheet, Some(&refusal))).await;
    }
    let job = file.job.id;
    let kept = keep(&database, &worker, &sheet, job, move |connection, person| {
        reading::replace(connection, person, job, Phase::Fitted, &readings, "")
    });
    match kept.await? {
        Kept::Saved => Ok(see_other(Stage::Proof.path(file.job.number))),
        Kept::Refused(refusal) => {
            let record = job_record(&database, &worker, *number).await?;
            sheet.compare_with(&tape::heights_on_file(sheet.units(), &record.file, Phase::Fitted));
            drawn(move |_| proof_page(&worker, &record, &sheet, Some(&refusal))).await
        }
    }
}

pub(crate) async fn finish(
    database: Data<Database>,
    worker: Worker,
    number: Path<i32>,
    posted: Posted,
) -> Result<HttpResponse, WebError> {
    set_finished(&database, &worker, *number, posted, true).await
}

pub(crate) async fn reopen(
    database: Data<Database>,
    worker: Worker,
    number: Path<i32>,
    posted: Posted,
) -> Result<HttpResponse, WebError> {
    set_finished(&database, &worker, *number, posted, false).await
}

async fn set_finished(
    database: &Data<Database>,
    worker: &Worker,
    number: i32,
    posted: Posted,
    finished: bool,
) -> Result<HttpResponse, WebError> {
    let file = job_file(database, worker, number).await?;
    if finished && !measured_again(&file) {
        return Err(WebError::NotNow("Measure the rear again after fitting before the job is finished."));
    }
    let sheet = Sheet::posted(posted, worker.units());
    let job = file.job.id;
    let closed = if finished { Closed::Refuses } else { Closed::Opens };
    let kept = keep_where(database, worker, &sheet, job, closed, move |connection, person| {
        job::set_finished(connection, person, job, finished)
    });
    or_fail(kept.await?)?;
    Ok(see_other(format!("/jobs/{number}")))
}

fn measured_again(file: &JobFile) -> bool {
    file.fitting.is_some() && file.work.is_measured_again()
}

fn proof_page(worker: &Worker, record: &Record, sheet: &Sheet, refusal: Option<&Refusal>) -> Result<Page, WebError> {
    let file = &record.file;
    let units = worker.units();
    let measured = measured_again(file);
    let mut shown = as_chosen(&file.work);
    shown.fitted = measured.then(|| file.work.fitted().clone());
    let (chosen, fitted) = (file.work.chosen(), file.work.fitted());
    let template = ProofPage {
        frame: JobFrame::new(worker, file, Some(Stage::Proof), &shown),
        number: file.job.number.0,
        hidden: Hidden::new(sheet, file.job.revision),
        finish_hidden: Hidden::new(sheet, file.job.revision),
        chosen: chosen.map(|(entry, _)| correction_name(entry, file.case().intake.class, units)).unwrap_or_default(),
        datum: datum_name(file.case().intake.class, file.case().measured.datum.unwrap_or(Datum::GroundToArch)),
        states: state_forms(sheet, file, Phase::Fitted, &record.names),
        figures: file.fitting.as_ref().map(|fitting| proof_figures(&fitting.predicted.0, fitted, units)).unwrap_or_default(),
        cautions: chosen.map(|(_, correction)| correction.cautions().into_iter().map(caution_text).collect()).unwrap_or_default(),
        measured,
        refusal: refusal.map(Refusal::words).unwrap_or_default(),
    };
    page(refusal.map_or(StatusCode::OK, Refusal::status), &template)
}
