//! The yard: every job, newest first, with where it stands.

use std::collections::HashMap;
use std::panic::AssertUnwindSafe;
use std::sync::Arc;

use actix_web::HttpResponse;
use actix_web::http::StatusCode;
use actix_web::web::{Data, Query};
use askama::Template;
use serde::Deserialize;
use serde_json::Value;
use wise_badger_casework::casework::Casework;
use wise_badger_casework::route::Progress;
use wise_badger_casework::survey::{RearWheels, VehicleClass};
use wise_badger_casework::words::Word;
use wise_badger_store::call::{self, Expected};
use wise_badger_store::job_file::JobFile;
use wise_badger_store::job_list::{self, JobListed};
use wise_badger_store::{Database, JobId, JobNumber, ShopId, StoreError};

use super::Hidden;
use crate::error::WebError;
use crate::form::Sheet;
use crate::form::call::LOWS;
use crate::job_route::{StageWords as _, place_of, to_do_words};
use crate::reckoning::run;
use crate::shell::Shell;
use crate::view::{ago, class_name, sentence, wheels_name};
use crate::worker::Worker;

/// Calls on the first page.
const MOST_CALLS: i64 = 30;
/// Jobs on one page.
const MOST: usize = 50;

#[derive(Template)]
#[template(path = "yard.html")]
struct YardPage {
    shell: Shell,
    jobs: Vec<JobLine>,
    older: Option<i32>,
    /// Who called, and is still to come.
    calls: Vec<CallLine>,
    /// A call just struck off, to be put back.
    struck: Option<Struck>,
}

/// Somebody who called.
struct CallLine {
    id: i64,
    label: String,
    vehicle: String,
    said: String,
    when: String,
}

struct Struck {
    id: i64,
    hidden: Hidden,
}

struct JobLine {
    number: i32,
    label: String,
    vehicle: String,
    stands: String,
    /// The stage that is next, and which of how many it is.
    place: String,
    over: bool,
    finished: bool,
    touched: String,
    href: String,
}

#[derive(Deserialize)]
pub(crate) struct Before {
    before: Option<i32>,
    struck: Option<i64>,
}

pub(crate) async fn show(database: Data<Database>, worker: Worker, query: Query<Before>) -> Result<HttpResponse, WebError> {
    let (shop, before) = (worker.shop_id(), query.before.map(JobNumber));
    let most = i64::try_from(MOST + 1).unwrap_or(i64::MAX);
    let read = database.read(move |connection| {
        let listed = job_list::newest(connection, shop, most, before)?;
        let calls = if before.is_none() { call::expected(connection, shop, MOST_CALLS)? } else { Vec::new() };
        Ok::<_, StoreError>((listed, calls))
    });
    let (mut listed, calls) = read.await?;
    let more = listed.len() > MOST;
    listed.truncate(MOST);
    let unknown: Vec<JobListed> = listed.iter().filter(|(_, known)| known.is_none()).map(|(job, _)| job.clone()).collect();
    let reckoned = reckon(&database, shop, unknown).await?;
    let older = listed.last().filter(|_| more).map(|(job, _)| job.number.0);
    let line = |(job, known): &(JobListed, Option<Value>)| {
        let known = known.as_ref().and_then(|known| Progress::deserialize(known).ok());
        JobLine::new(job, known.as_ref().or_else(|| reckoned.get(&job.id)))
    };
    let page = YardPage {
        shell: Shell::new(&worker, "Yard", "/"),
        jobs: listed.iter().map(line).collect(),
        older,
        calls: calls.iter().map(CallLine::new).collect(),
        struck: query.struck.map(|id| Struck { id, hidden: Hidden::new(&Sheet::blank(worker.units()), 0) }),
    };
    Ok(super::page(StatusCode::OK, &page)?.answer())
}

/// Reckons how far jobs have come of which it is not known at their present revision, and keeps it for the lists to come. A job
/// whose record cannot be read has no part in the answer, and takes nobody else's.
async fn reckon(database: &Data<Database>, shop: ShopId, unknown: Vec<JobListed>) -> Result<HashMap<JobId, Progress>, WebError> {
    if unknown.is_empty() {
        return Ok(HashMap::new());
    }
    let files = database.read(move |connection| -> Result<Vec<JobFile>, StoreError> {
        let mut files = Vec::with_capacity(unknown.len());
        for job in unknown {
            match JobFile::find(connection, shop, job.number) {
                Ok(file) => files.push(on_usual_springs(file)),
                Err(error @ StoreError::Unreadable { .. }) => {
                    tracing::error!(job = job.number.0, cause = %error, "a job's record cannot be read");
                }
                Err(StoreError::NotFound(_)) => {}
                Err(error) => return Err(error),
            }
        }
        Ok(files)
    });
    let files = files.await?;
    let standings = run(move |gone| {
        let mut standings = Vec::with_capacity(files.len());
        for file in &files {
            gone.check()?;
            // What a record that reads still cannot be worked out from is its own job's trouble, too.
            match std::panic::catch_unwind(AssertUnwindSafe(|| Progress::of(&file.work, file.job.finished_at.is_some()))) {
                Ok(standing) => standings.push((file.job.id, file.job.revision, standing)),
                Err(_) => tracing::error!(job = file.job.number.0, "how far a job has come cannot be worked out"),
            }
        }
        Ok(standings)
    });
    let standings = standings.await?;
    let kept: Vec<(JobId, i32, Value)> =
        standings.iter().map(|(job, revision, standing)| (*job, *revision, serde_json::json!(standing))).collect();
    // The list is right without: a database that takes no changes still shows it.
    let kept: Result<(), StoreError> = database.write(move |connection| job_list::keep_standings(connection, shop, &kept)).await;
    if let Err(error) = kept {
        tracing::warn!(cause = %error, "how far jobs have come was not kept");
    }
    Ok(standings.into_iter().map(|(job, _, standing)| (job, standing)).collect())
}

/// The same job standing on the springs of its class: enough to say how far it has come.
fn on_usual_springs(file: JobFile) -> JobFile {
    JobFile { work: Arc::new(Casework::new(file.case().clone().on_usual_springs())), ..file }
}

impl CallLine {
    fn new(expected: &Expected) -> Self {
        let call = &expected.entry.0;
        let low = LOWS.iter().find(|(of, ..)| Some(*of) == call.low).map(|(.., label)| format!("low by {label}"));
        let words = Some(call.words.clone()).filter(|words| !words.is_empty());
        CallLine {
            id: expected.id.0,
            label: call.label.clone(),
            vehicle: format!("{}, {}", class_name(call.class), wheels_name(call.rear_wheels)),
            said: words.or(low).unwrap_or_default(),
            when: ago(expected.recorded_at),
        }
    }
}

impl JobLine {
    fn new(job: &JobListed, standing: Option<&Progress>) -> Self {
        let number = job.number;
        let path = format!("/jobs/{}", number.0);
        JobLine {
            number: number.0,
            label: job.label.clone(),
            vehicle: vehicle_words(&job.vehicle_class, &job.rear_wheels),
            stands: standing.map_or_else(
                || "This job's record cannot be read".to_owned(),
                |standing| sentence(&to_do_words(standing, VehicleClass::from_word(&job.vehicle_class))),
            ),
            place: standing.and_then(|standing| standing.to_do.stage()).map_or_else(String::new, place_of),
            over: standing.is_none_or(|standing| standing.over),
            finished: standing.is_some_and(Progress::is_finished),
            touched: ago(job.revised_at),
            href: standing.and_then(|standing| standing.to_do.stage()).map_or(path, |stage| stage.path(number)),
        }
    }
}

/// Class and wheels by the words of their columns, as far as this program knows them.
fn vehicle_words(class: &str, wheels: &str) -> String {
    let known = VehicleClass::from_word(class).zip(RearWheels::from_word(wheels));
    known.map_or_else(String::new, |(class, wheels)| format!("{}, {}", class_name(class), wheels_name(wheels)))
}
