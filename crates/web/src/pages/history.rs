//! Who did what on a job, and when.

use actix_web::HttpResponse;
use actix_web::http::StatusCode;
use actix_web::web::{Data, Path};
use askama::Template;
use wise_badger_store::history::{self, Deed, Event};
use wise_badger_store::{Database, StoreError};

use super::job_frame::{JobFrame, as_chosen, found};
use super::{Record, job_record, page};
use crate::error::WebError;
use crate::view::moment;
use crate::worker::Worker;

#[derive(Template)]
#[template(path = "history.html")]
struct HistoryPage {
    frame: JobFrame,
    events: Vec<EventLine>,
}

struct EventLine {
    at: String,
    by: String,
    what: String,
}

fn deed_words(event: &Event) -> String {
    let many = |one: &str, more: &str| if event.count == 1 { one.to_owned() } else { format!("{} {more}", event.count) };
    match event.deed {
        Deed::Opened => "opened the job".to_owned(),
        Deed::Asked => "wrote the intake sheet".to_owned(),
        Deed::Planned => "wrote the load plan".to_owned(),
        Deed::Read => format!("took {}", many("a reading", "readings")),
        Deed::Corrected => format!("corrected {}", many("a reading", "readings")),
        Deed::Loaded => "told what was put on".to_owned(),
        Deed::LookedOver => "wrote the look-over".to_owned(),
        Deed::Benched => "worked on the pack".to_owned(),
        Deed::Drove => "scored a control drive".to_owned(),
        Deed::Photographed => format!("sent {}", many("a photograph", "photographs")),
        Deed::Aimed => "set the aim".to_owned(),
        Deed::Considered => "considered a correction".to_owned(),
        Deed::Chose => "chose a correction".to_owned(),
    }
}

pub(crate) async fn show(database: Data<Database>, worker: Worker, number: Path<i32>) -> Result<HttpResponse, WebError> {
    let Record { file, names, .. } = job_record(&database, &worker, *number).await?;
    let (shop, job) = (worker.shop_id(), file.job.id);
    let events = database.read(move |connection| -> Result<_, StoreError> { history::of_job(connection, shop, job) }).await?;
    let (_, survey) = found(&worker, &file);
    let line = |event: &Event| EventLine { at: moment(event.at), by: names.of(event.by).to_owned(), what: deed_words(event) };
    let template = HistoryPage {
        frame: JobFrame::new(&worker, &file, None, &as_chosen(&file, &survey)),
        events: events.iter().map(line).collect(),
    };
    page(StatusCode::OK, &template)
}
