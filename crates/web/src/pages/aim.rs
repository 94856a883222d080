//! The aim: what height is right for this job, and what that does in the other load case.

use actix_web::HttpResponse;
use actix_web::http::StatusCode;
use actix_web::web::{Data, Path};
use askama::Template;
use wise_badger_store::job_file::JobFile;
use wise_badger_store::{Database, aim as aims};

use super::job_frame::{JobFrame, as_chosen, found};
use super::{Hidden, Kept, Posted, Refusal, job_file, keep, page, see_other};
use crate::error::WebError;
use crate::form::{Choice, Field, Sheet, aim};
use crate::job_route::Stage;
use crate::view::Figure;
use crate::view::aim::aim_figures;
use crate::worker::Worker;

#[derive(Template)]
#[template(path = "aim.html")]
struct AimPage {
    frame: JobFrame,
    hidden: Hidden,
    kinds: Vec<Choice>,
    kind_problem: String,
    rake: Field,
    rear: Field,
    tolerance: Field,
    /// What the aim on file asks for and does.
    figures: Vec<Figure>,
    refusal: String,
}

pub(crate) async fn show(database: Data<Database>, worker: Worker, number: Path<i32>) -> Result<HttpResponse, WebError> {
    let file = job_file(&database, &worker, *number).await?;
    let sheet = aim::on_file(worker.units(), file.aim.as_ref());
    aim_page(&worker, &file, &sheet, None)
}

pub(crate) async fn save(
    database: Data<Database>,
    worker: Worker,
    number: Path<i32>,
    posted: Posted,
) -> Result<HttpResponse, WebError> {
    let file = job_file(&database, &worker, *number).await?;
    let mut sheet = Sheet::posted(posted.into_inner(), worker.units());
    sheet.keep_words_of(&aim::on_file(sheet.units(), file.aim.as_ref()));
    let (_, survey) = found(&worker, &file);
    let Some(entry) = aim::check(&mut sheet, &survey) else {
        let refusal = Refusal::Fields(sheet.problem_count());
        return aim_page(&worker, &file, &sheet, Some(&refusal));
    };
    let job = file.job.id;
    match keep(&database, &worker, &sheet, job, move |connection, person| aims::replace(connection, person, job, Some(&entry)))
        .await?
    {
        Kept::Saved => Ok(see_other(Stage::Aim.path(file.job.number))),
        Kept::Stale(refusal) => {
            let file = job_file(&database, &worker, *number).await?;
            sheet.compare_with(&aim::on_file(sheet.units(), file.aim.as_ref()));
            aim_page(&worker, &file, &sheet, Some(&refusal))
        }
    }
}

fn aim_page(worker: &Worker, file: &JobFile, sheet: &Sheet, refusal: Option<&Refusal>) -> Result<HttpResponse, WebError> {
    let (units, survey) = found(worker, file);
    let tolerance_hint =
        if units.length_name() == "in" { "how far off still counts, like 1/4" } else { "how far off still counts, like 6" };
    let template = AimPage {
        frame: JobFrame::new(worker, file, Some(Stage::Aim), &as_chosen(file, &survey)),
        hidden: Hidden::new(sheet, file.job.revision),
        kinds: sheet.choices("kind", &aim::AIMS),
        kind_problem: sheet.problem("kind").to_owned(),
        rake: sheet.length_field("rake", "Rake: rear above front").hint("0 is level; a minus is nose-up"),
        rear: sheet.length_field("rear", "Rear height, empty").hint("from the job's datum"),
        tolerance: sheet.length_field("tolerance", "Tolerance").hint(tolerance_hint),
        figures: file.aim.as_ref().map(|entry| aim_figures(&entry.aim(), &survey, units)).unwrap_or_default(),
        refusal: refusal.map(Refusal::words).unwrap_or_default(),
    };
    page(refusal.map_or(StatusCode::OK, Refusal::status), &template)
}
