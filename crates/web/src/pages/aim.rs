//! The aim: what height is right for this job, and what that does in the other load case.

use actix_web::HttpResponse;
use actix_web::http::StatusCode;
use actix_web::web::{Data, Path};
use askama::Template;
use wise_badger_casework::route::Stage;
use wise_badger_casework::survey::Survey;
use wise_badger_store::job_file::JobFile;
use wise_badger_store::{Database, aim as aims};

use super::job_frame::{JobFrame, as_chosen};
use super::{Hidden, Kept, Page, Refusal, job_file, keep, page, see_other};
use crate::error::WebError;
use crate::form::{Field, Picks, Posted, Sheet, aim};
use crate::job_route::Shown as _;
use crate::reckoning::drawn;
use crate::view::aim::{AimCase, aim_cases, aim_figures, side_to_side};
use crate::view::{Figure, Units};
use crate::worker::Worker;

#[derive(Template)]
#[template(path = "aim.html")]
struct AimPage {
    frame: JobFrame,
    hidden: Hidden,
    aims: Picks,
    tolerance: Field,
    side_to_side: Field,
    /// What it makes of every load case.
    cases: Vec<AimCase>,
    /// What the aim on file asks for and does.
    figures: Vec<Figure>,
    refusal: String,
}

pub(crate) async fn show(database: Data<Database>, worker: Worker, number: Path<i32>) -> Result<HttpResponse, WebError> {
    let file = job_file(&database, &worker, *number).await?;
    let sheet = aim::on_file(worker.units(), file.case().aim.as_ref());
    drawn(move |_| aim_page(&worker, &file, &sheet, None)).await
}

pub(crate) async fn save(
    database: Data<Database>,
    worker: Worker,
    number: Path<i32>,
    posted: Posted,
) -> Result<HttpResponse, WebError> {
    let file = job_file(&database, &worker, *number).await?;
    let mut sheet = Sheet::posted(posted, worker.units());
    sheet.keep_words_of(&aim::on_file(sheet.units(), file.case().aim.as_ref()));
    let survey = file.work.found();
    let Some(entry) = aim::check(&mut sheet, survey) else {
        let refusal = Refusal::Fields(sheet.problem_count());
        return drawn(move |_| aim_page(&worker, &file, &sheet, Some(&refusal))).await;
    };
    let job = file.job.id;
    match keep(&database, &worker, &sheet, job, move |connection, person| aims::replace(connection, person, job, Some(&entry)))
        .await?
    {
        Kept::Saved => Ok(see_other(Stage::Aim.path(file.job.number))),
        Kept::Refused(refusal) => {
            let file = job_file(&database, &worker, *number).await?;
            sheet.compare_with(&aim::on_file(sheet.units(), file.case().aim.as_ref()));
            drawn(move |_| aim_page(&worker, &file, &sheet, Some(&refusal))).await
        }
    }
}

fn figures(file: &JobFile, survey: &Survey, units: Units) -> Vec<Figure> {
    let Some(aim) = &file.case().aim else { return Vec::new() };
    let mut figures = aim_figures(&aim.aim(), survey, units);
    figures.extend(aim.side_to_side.iter().flat_map(|most| side_to_side(survey, most.length(), units)));
    figures
}

fn aim_page(worker: &Worker, file: &JobFile, sheet: &Sheet, refusal: Option<&Refusal>) -> Result<Page, WebError> {
    let (units, survey) = (worker.units(), file.work.found());
    let tolerance_hint =
        if units.length_name() == "in" { "how far off still counts, like 1/4" } else { "how far off still counts, like 6" };
    let template = AimPage {
        frame: JobFrame::new(worker, file, Some(Stage::Aim), &as_chosen(&file.work)),
        hidden: Hidden::new(sheet, file.job.revision),
        aims: aim::picks(sheet, survey),
        tolerance: sheet.length_field("tolerance", "Tolerance, front to rear").hint(tolerance_hint),
        side_to_side: sheet.length_field("side_to_side", "Tolerance, side to side").hint("may stay empty"),
        cases: file.case().aim.as_ref().map(|aim| aim_cases(&aim.aim(), &file.work, units)).unwrap_or_default(),
        figures: figures(file, survey, units),
        refusal: refusal.map(Refusal::words).unwrap_or_default(),
    };
    page(refusal.map_or(StatusCode::OK, Refusal::status), &template)
}
