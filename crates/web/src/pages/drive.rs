//! Control drive: a short route, empty and loaded, scored before and after fitting.

use actix_web::HttpResponse;
use actix_web::http::StatusCode;
use actix_web::web::{Data, Path};
use askama::Template;
use wise_badger_casework::entry::{DriveEntry, Felt, Run, Score};
use wise_badger_store::Database;
use wise_badger_store::job_file::JobFile;

use super::job_frame::{JobFrame, as_chosen};
use super::{Hidden, Kept, Page, Refusal, job_file, keep_sheet, page, see_other};
use crate::error::WebError;
use crate::form::drive::{self, score_field};
use crate::form::look_over::word;
use crate::form::{Field, Posted, Sheet};
use crate::reckoning::drawn;
use crate::worker::Worker;

#[derive(Template)]
#[template(path = "drive.html")]
struct DrivePage {
    frame: JobFrame,
    hidden: Hidden,
    route: Field,
    words: Field,
    runs: Vec<RunForm>,
    /// What changed from before fitting to after, a line each.
    changes: Vec<String>,
    refusal: String,
}

struct RunForm {
    title: &'static str,
    rows: Vec<ScoreForm>,
}

struct ScoreForm {
    name: String,
    label: &'static str,
    scores: Vec<(String, &'static str, bool)>,
}

fn run_name(run: Run) -> &'static str {
    match run {
        Run::FoundEmpty => "As it came, empty",
        Run::FoundLoaded => "As it came, loaded",
        Run::FittedEmpty => "After fitting, empty",
        Run::FittedLoaded => "After fitting, loaded",
    }
}

fn felt_name(felt: Felt) -> &'static str {
    match felt {
        Felt::Float => "Float",
        Felt::Sway => "Sway",
        Felt::Bottoming => "Bottoming",
        Felt::Noise => "Noise",
        Felt::Rub => "Rub",
    }
}

fn score_name(score: Score) -> &'static str {
    match score {
        Score::None => "none",
        Score::Little => "a little",
        Score::Much => "much",
    }
}

/// Where the drive of a job is.
fn path(number: i32) -> String {
    format!("/jobs/{number}/drive")
}

pub(crate) async fn show(database: Data<Database>, worker: Worker, number: Path<i32>) -> Result<HttpResponse, WebError> {
    let file = job_file(&database, &worker, *number).await?;
    let sheet = drive::on_file(worker.units(), &file.case().drive);
    drawn(move |_| drive_page(&worker, &file, &sheet, None)).await
}

pub(crate) async fn save(
    database: Data<Database>,
    worker: Worker,
    number: Path<i32>,
    posted: Posted,
) -> Result<HttpResponse, WebError> {
    let file = job_file(&database, &worker, *number).await?;
    let mut sheet = Sheet::posted(posted, worker.units());
    let Some(entry) = drive::check(&mut sheet) else {
        let refusal = Refusal::Fields(sheet.problem_count());
        return drawn(move |_| drive_page(&worker, &file, &sheet, Some(&refusal))).await;
    };
    let job = file.job.id;
    match keep_sheet(&database, &worker, &sheet, job, entry).await? {
        Kept::Saved => Ok(see_other(path(file.job.number.0))),
        Kept::Refused(refusal) => {
            let file = job_file(&database, &worker, *number).await?;
            sheet.compare_with(&drive::on_file(sheet.units(), &file.case().drive));
            drawn(move |_| drive_page(&worker, &file, &sheet, Some(&refusal))).await
        }
    }
}

fn drive_page(worker: &Worker, file: &JobFile, sheet: &Sheet, refusal: Option<&Refusal>) -> Result<Page, WebError> {
    let score_form = |run, felt| {
        let name = score_field(run, felt);
        let scores = Score::ALL.map(|score| (word(score), score_name(score), sheet.text(&name) == word(score)));
        ScoreForm { label: felt_name(felt), scores: scores.to_vec(), name }
    };
    let run_form =
        |run| RunForm { title: run_name(run), rows: Felt::ALL.into_iter().map(|felt| score_form(run, felt)).collect() };
    let template = DrivePage {
        frame: JobFrame::new(worker, file, None, &as_chosen(&file.work)),
        hidden: Hidden::new(sheet, file.job.revision),
        route: sheet.text_field("route", "The route").hint("the same each time: a crest, a bend, a dip"),
        words: sheet.text_field("words", "What else was felt"),
        runs: Run::ALL.into_iter().map(run_form).collect(),
        changes: changes(&file.case().drive),
        refusal: refusal.map(Refusal::words).unwrap_or_default(),
    };
    page(refusal.map_or(StatusCode::OK, Refusal::status), &template)
}

/// What was felt before and after, where both were scored.
fn changes(drive: &DriveEntry) -> Vec<String> {
    let pairs = Run::ALL.into_iter().filter_map(|run| run.before().map(|before| (before, run)));
    let lines = pairs.flat_map(|(before, after)| {
        Felt::ALL.into_iter().filter_map(move |felt| {
            let (was, is) = (drive.score(before, felt)?, drive.score(after, felt)?);
            let state = if after == Run::FittedEmpty { "empty" } else { "loaded" };
            let told = match is.cmp(&was) {
                std::cmp::Ordering::Less => "better",
                std::cmp::Ordering::Equal => "as before",
                std::cmp::Ordering::Greater => "worse",
            };
            Some(format!("{}, {state}: {} before, {} after: {told}", felt_name(felt), score_name(was), score_name(is)))
        })
    });
    lines.collect()
}
