//! The yard: open jobs by what must happen next, what is due, who called; finished ones, and those that somebody looks for.

mod due;
mod gather;
mod line;

pub(crate) use due::{DueKind, mark};
pub(crate) use gather::{RULES, Stands};

use std::collections::BTreeMap;

use actix_web::HttpResponse;
use actix_web::http::StatusCode;
use actix_web::web::{Data, Query};
use askama::Template;
use chrono::{Days, Local, NaiveDate, Utc};
use serde::Deserialize;
use tokio::sync::broadcast::error::RecvError;
use wise_badger_casework::route::Stage;
use wise_badger_store::booking::{self, Booking};
use wise_badger_store::call::{self, Expected};
use wise_badger_store::due as due_list;
use wise_badger_store::happening::Happening;
use wise_badger_store::job_list::{self, JobListed, Listed, Which};
use wise_badger_store::person;
use wise_badger_store::{Database, JobId, JobNumber, ShopId, StoreError};

use self::due::Due;
use self::gather::gather;
use self::line::JobLine;
use super::{Hidden, Names};
use crate::error::WebError;
use crate::form::Sheet;
use crate::form::call::LOWS;
use crate::job_route::{place_of, stages};
use crate::shell::Shell;
use crate::view::{ago, class_name, wheels_name};
use crate::worker::Worker;

/// Calls on the page.
const MOST_CALLS: i64 = 30;
/// Jobs on one page.
const MOST: usize = 100;
/// Things due on the page, and how many days ahead of them.
const MOST_DUE: usize = 200;
const DUE_AHEAD: u64 = 7;
/// Words that a search goes by, and the longest of them.
const MOST_WORDS: usize = 6;
const LONGEST_SEARCH: usize = 80;

#[derive(Template)]
#[template(path = "yard.html")]
struct YardPage {
    shell: Shell,
    /// `open`, `finished` or `found`.
    shows: &'static str,
    groups: Vec<Group>,
    older: Option<String>,
    due: Due,
    /// Who called, and is still to come.
    calls: Vec<CallLine>,
    /// A call just struck off, to be put back.
    struck: Option<Struck>,
    /// What is looked for.
    wanted: String,
    is_empty: bool,
}

/// Jobs for which the same comes next.
struct Group {
    title: String,
    id: String,
    jobs: Vec<JobLine>,
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

#[derive(Deserialize)]
pub(crate) struct Asked {
    before: Option<i32>,
    struck: Option<i64>,
    #[serde(default)]
    q: String,
    #[serde(default)]
    finished: bool,
}

impl Asked {
    fn which(&self) -> Which {
        let words = self.q.chars().take(LONGEST_SEARCH).collect::<String>().to_lowercase();
        let words: Vec<String> = words.split_whitespace().take(MOST_WORDS).map(str::to_owned).collect();
        match (words.is_empty(), self.finished) {
            (false, _) => Which::Found(words),
            (true, true) => Which::Finished,
            (true, false) => Which::Open,
        }
    }
}

/// What the page is drawn from: as many queries for ten jobs as for a hundred.
struct Read {
    listed: Vec<Listed>,
    names: Names,
    calls: Vec<Expected>,
}

pub(crate) async fn show(database: Data<Database>, worker: Worker, asked: Query<Asked>) -> Result<HttpResponse, WebError> {
    let (shop, before, which) = (worker.shop_id(), asked.before.map(JobNumber), asked.which());
    let today = Local::now().date_naive();
    let (of, first) = (which.clone(), which == Which::Open && before.is_none());
    let read = database.read(move |connection| {
        let most = i64::try_from(MOST + 1).unwrap_or(i64::MAX);
        let listed = job_list::newest(connection, shop, &of, &RULES, most, before)?;
        let names = Names::of_people(&person::of_shop(connection, shop)?);
        let calls = if first { call::expected(connection, shop, MOST_CALLS)? } else { Vec::new() };
        Ok::<_, StoreError>(Read { listed, names, calls })
    });
    let Read { mut listed, names, calls } = read.await?;
    let more = listed.len() > MOST;
    listed.truncate(MOST);
    let older = listed.last().filter(|_| more).map(|last| older_path(&asked, last.job.number.0));
    let lines = lines(with_stands(&database, listed).await?, &names, today);
    // What is due is known once it is known where jobs stand.
    let due = match first {
        true => {
            let until = today + Days::new(DUE_AHEAD);
            let most = i64::try_from(MOST_DUE + 1).unwrap_or(i64::MAX);
            let due =
                database.read(move |connection| due_list::until(connection, shop, &DueKind::ALL.map(DueKind::word), until, most));
            Due::new(&due.await?, MOST_DUE, &names, today, &worker)
        }
        false => Due::NOTHING,
    };
    let page = YardPage {
        shell: Shell::new(&worker, "Yard", "/"),
        shows: match which {
            Which::Open => "open",
            Which::Finished => "finished",
            Which::Found(_) | Which::OfVehicle(_) => "found",
        },
        is_empty: lines.is_empty(),
        groups: if which == Which::Open { groups(lines) } else { one_group(lines) },
        older,
        due,
        calls: calls.iter().map(CallLine::new).collect(),
        struck: asked.struck.map(|id| Struck { id, hidden: Hidden::new(&Sheet::blank(worker.units()), 0) }),
        wanted: asked.q.trim().to_owned(),
    };
    Ok(super::page(StatusCode::OK, &page)?.answer())
}

fn older_path(asked: &Asked, before: i32) -> String {
    let mut query = form_urlencoded::Serializer::new(String::new());
    if !asked.q.trim().is_empty() {
        query.append_pair("q", asked.q.trim());
    }
    if asked.finished {
        query.append_pair("finished", "true");
    }
    format!("/?{}", query.append_pair("before", &before.to_string()).finish())
}

/// A job of a list, with where it stands.
pub(super) struct Known {
    pub(super) job: JobListed,
    /// Nothing where its record cannot be read.
    pub(super) stands: Option<Stands>,
    pub(super) plate: Option<String>,
    pub(super) customer: Option<String>,
}

/// Jobs with where they stand; of those of which it is not known, that is gathered first.
pub(super) async fn with_stands(database: &Data<Database>, listed: Vec<Listed>) -> Result<Vec<Known>, WebError> {
    let read = |Listed { job, standing, plate, customer }: Listed| {
        let stands = standing.and_then(|standing| serde_json::from_str(standing.get()).ok());
        Known { job, stands, plate, customer }
    };
    let mut known: Vec<Known> = listed.into_iter().map(read).collect();
    let unknown: Vec<JobListed> = known.iter().filter(|known| known.stands.is_none()).map(|known| known.job.clone()).collect();
    let mut gathered = gather(database, unknown).await?;
    for known in &mut known {
        known.stands = known.stands.take().or_else(|| gathered.remove(&known.job.id));
    }
    Ok(known)
}

fn lines(known: Vec<Known>, names: &Names, today: NaiveDate) -> Vec<(Option<Stands>, JobLine)> {
    let line = |known: Known| {
        let line = JobLine::new(&known, names, today);
        (known.stands, line)
    };
    known.into_iter().map(line).collect()
}

/// Over a rating first, then along the route by what comes next; what cannot be read at the end.
fn groups(lines: Vec<(Option<Stands>, JobLine)>) -> Vec<Group> {
    let mut over = Group { title: "Over a rating".to_owned(), id: "over".to_owned(), jobs: Vec::new() };
    let mut by_stage: Vec<(Stage, Group)> = stages()
        .map(|stage| {
            let id = format!("at-{}", crate::job_route::StageWords::name(stage).to_lowercase());
            (stage, Group { title: place_of(stage), id, jobs: Vec::new() })
        })
        .collect();
    let mut other = Group { title: "Otherwise".to_owned(), id: "otherwise".to_owned(), jobs: Vec::new() };
    for (stands, line) in lines {
        let stage = stands.as_ref().and_then(|stands| stands.progress.to_do.stage());
        let place = by_stage.iter_mut().find(|(of, _)| Some(*of) == stage).map(|(_, group)| group);
        match (stands.as_ref().is_some_and(|stands| stands.progress.over), place) {
            (true, _) => over.jobs.push(line),
            (false, Some(group)) => group.jobs.push(line),
            (false, None) => other.jobs.push(line),
        }
    }
    let all = std::iter::once(over).chain(by_stage.into_iter().map(|(_, group)| group)).chain([other]);
    all.filter(|group| !group.jobs.is_empty()).collect()
}

fn one_group(lines: Vec<(Option<Stands>, JobLine)>) -> Vec<Group> {
    let jobs: Vec<JobLine> = lines.into_iter().map(|(_, line)| line).collect();
    if jobs.is_empty() {
        return Vec::new();
    }
    vec![Group { title: String::new(), id: "all".to_owned(), jobs }]
}

/// Jobs whose work is planned or done next, and that are in no bay from now on: number and label, the oldest first.
pub(super) async fn waiting_for_work(
    database: &Data<Database>,
    worker: &Worker,
    booked: &[Booking],
) -> Result<Vec<(i32, String)>, WebError> {
    let shop = worker.shop_id();
    let read = database.read(move |connection| {
        let most = i64::try_from(MOST).unwrap_or(i64::MAX);
        let listed = job_list::newest(connection, shop, &Which::Open, &RULES, most, None)?;
        let now = Utc::now();
        Ok::<_, StoreError>((listed, booking::between(connection, shop, now, now + Days::new(365))?))
    });
    let (listed, to_come) = read.await?;
    let is_booked = |job: JobId| booked.iter().chain(&to_come).any(|booking| booking.job == job);
    let known = with_stands(database, listed).await?;
    let is_next = |known: &&Known| {
        let stands = known.stands.as_ref().filter(|stands| !stands.progress.over);
        let stage = stands.and_then(|stands| stands.progress.to_do.stage());
        matches!(stage, Some(Stage::Plan | Stage::Wrench)) && !is_booked(known.job.id)
    };
    Ok(known.iter().rev().filter(is_next).map(|known| (known.job.number.0, known.job.label.clone())).collect())
}

/// Gathers where jobs stand of which it is not known, a few at a time, until there is none; for after a start.
async fn gather_all(database: Data<Database>) {
    // Read and hashed once, not while somebody waits for a page.
    let _ = tokio::task::spawn_blocking(|| RULES.len()).await;
    const AT_ONCE: i64 = 25;
    loop {
        let unknown = database.read(|connection| job_list::not_reckoned(connection, &RULES, AT_ONCE)).await;
        let count = match unknown {
            Ok(unknown) if unknown.is_empty() => return,
            Ok(unknown) => {
                let count = unknown.len();
                match gather(&database, unknown).await {
                    // What cannot be read stays unknown: it is not asked for again and again.
                    Ok(gathered) if gathered.len() < count => return,
                    Ok(_) => count,
                    Err(_) => return,
                }
            }
            Err(error) => {
                let error: StoreError = error;
                tracing::warn!(cause = %error, "where jobs stand is not gathered ahead");
                return;
            }
        };
        tracing::debug!(count, "gathered where jobs stand");
        // Pages come first.
        tokio::time::sleep(std::time::Duration::from_millis(50)).await;
    }
}

/// Gathers where a job stands soon after something happened to it, here or at another server, so that lists are right also of jobs that
/// nobody looks at. Goes on until the database is let go of.
pub(crate) async fn keep_gathered(database: Data<Database>) {
    // What comes together is gathered once.
    const TOGETHER: std::time::Duration = std::time::Duration::from_millis(400);
    let mut heard = database.happenings();
    gather_all(database.clone()).await;
    loop {
        let mut of_shops: BTreeMap<i64, Vec<JobNumber>> = BTreeMap::new();
        match heard.recv().await {
            Ok(Happening::In { shop, job: Some(job), .. }) => of_shops.entry(shop.0).or_default().push(job),
            Ok(Happening::In { job: None, .. }) => continue,
            Ok(Happening::Unheard) | Err(RecvError::Lagged(_)) => {
                gather_all(database.clone()).await;
                continue;
            }
            Err(RecvError::Closed) => return,
        }
        tokio::time::sleep(TOGETHER).await;
        while let Ok(happening) = heard.try_recv() {
            if let Happening::In { shop, job: Some(job), .. } = happening {
                of_shops.entry(shop.0).or_default().push(job);
            }
        }
        for (shop, numbers) in of_shops {
            let unknown =
                database.read(move |connection| job_list::not_reckoned_among(connection, &RULES, ShopId(shop), &numbers));
            let unknown: Result<Vec<JobListed>, StoreError> = unknown.await;
            if let Ok(unknown) = unknown {
                // Whoever looks gathers it in any case.
                let _ = gather(&database, unknown).await;
            }
        }
    }
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
