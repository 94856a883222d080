//! The yard: every job, newest first, with where it stands.

use actix_web::HttpResponse;
use actix_web::http::StatusCode;
use actix_web::web::{Data, Query};
use askama::Template;
use serde::Deserialize;
use wise_badger_store::job_file::JobFile;
use wise_badger_store::{Database, JobNumber};

use super::page;
use crate::error::WebError;
use crate::job_route::{Stage, Standing};
use crate::shell::Shell;
use crate::view::{ago, class_name, sentence, wheels_name};
use crate::worker::Worker;

/// Jobs on one page.
const MOST: usize = 50;

#[derive(Template)]
#[template(path = "yard.html")]
struct YardPage {
    shell: Shell,
    jobs: Vec<JobLine>,
    older: Option<i32>,
    /// What the places of a job's track stand for.
    stages: Vec<&'static str>,
}

struct JobLine {
    number: i32,
    label: String,
    vehicle: String,
    stands: String,
    /// One place for each stage: whether it is done, and whether it is next.
    track: Vec<(&'static str, &'static str)>,
    over: bool,
    finished: bool,
    touched: String,
    href: String,
}

#[derive(Deserialize)]
pub(crate) struct Before {
    before: Option<i32>,
}

pub(crate) async fn show(database: Data<Database>, worker: Worker, query: Query<Before>) -> Result<HttpResponse, WebError> {
    let (shop, before) = (worker.shop_id(), query.before.map(JobNumber));
    let most = i64::try_from(MOST + 1).unwrap_or(i64::MAX);
    let mut files = database.read(move |connection| JobFile::newest(connection, shop, most, before)).await?;
    let more = files.len() > MOST;
    files.truncate(MOST);
    let older = files.last().filter(|_| more).map(|file| file.job.number.0);
    let jobs = files.iter().map(JobLine::new).collect();
    page(
        StatusCode::OK,
        &YardPage { shell: Shell::new(&worker, "Yard", "/"), jobs, older, stages: Stage::ALL.map(Stage::name).into() },
    )
}

impl JobLine {
    fn new(file: &JobFile) -> Self {
        let (standing, intake) = (Standing::of(file), &file.job.intake);
        let mark = |stage| match (standing.is_done(stage), standing.next == Some(stage)) {
            (_, true) => "next",
            (true, false) => "done",
            (false, false) => "open",
        };
        let number = file.job.number;
        JobLine {
            number: number.0,
            label: intake.label.clone(),
            vehicle: format!("{}, {}", class_name(intake.class), wheels_name(intake.rear_wheels)),
            stands: sentence(&standing.words),
            track: Stage::ALL.iter().map(|stage| (stage.name(), mark(*stage))).collect(),
            over: standing.over,
            finished: standing.finished,
            touched: ago(file.job.revised_at),
            href: standing.next.map_or_else(|| format!("/jobs/{}", number.0), |stage| stage.path(number)),
        }
    }
}
