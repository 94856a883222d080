//! Control drive: a short route, empty and loaded, scored before and after fitting.

use actix_web::http::StatusCode;
use askama::Template;
use wise_badger_casework::entry::{DriveEntry, Felt, Run, Score};
use wise_badger_store::job_file::JobFile;
use wise_badger_store::person::Person;
use wise_badger_store::{JobId, JobNumber, PgConnection, StoreError, job_sheet};

use super::job_form::JobForm;
use super::job_frame::{JobFrame, as_chosen};
use super::{Hidden, Page, Refusal, page};
use crate::error::WebError;
use crate::form::drive::{self, score_field};
use crate::form::look_over::word;
use crate::form::{Field, Sheet};
use crate::view::Units;
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

/// The form of the control drives.
pub(crate) struct DriveForm;

impl JobForm for DriveForm {
    type Read = JobFile;
    type Entry = DriveEntry;

    fn on_file(units: Units, file: &JobFile) -> Sheet {
        drive::on_file(units, &file.case().drive)
    }

    fn check(sheet: &mut Sheet, _file: &JobFile) -> Option<DriveEntry> {
        drive::check(sheet)
    }

    fn keep(connection: &mut PgConnection, person: &Person, job: JobId, entry: &DriveEntry) -> Result<(), StoreError> {
        job_sheet::replace(connection, person, job, entry)
    }

    fn page(worker: &Worker, file: &JobFile, sheet: &Sheet, refusal: Option<&Refusal>) -> Result<Page, WebError> {
        drive_page(worker, file, sheet, refusal)
    }

    fn leads_to(number: JobNumber) -> String {
        format!("/jobs/{}/drive", number.0)
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
pub(super) fn changes(drive: &DriveEntry) -> Vec<String> {
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
