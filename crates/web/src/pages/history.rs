//! Who did what on a job, and when.

use actix_web::HttpResponse;
use actix_web::http::StatusCode;
use actix_web::web::{Data, Path, Query};
use askama::Template;
use chrono::{DateTime, TimeDelta, Utc};
use serde::Deserialize;
use wise_badger_store::difference::Difference;
use wise_badger_store::history::{self, Deed, Event};
use wise_badger_store::{Database, StoreError};

use super::job_frame::{JobFrame, as_chosen};
use super::{Names, Record, job_record, page};
use crate::error::WebError;
use crate::reckoning::drawn;
use crate::view::moment;
use crate::worker::Worker;

/// Most differences told of one event; the record has them all.
const MOST_DIFFERENCES: usize = 40;

#[derive(Template)]
#[template(path = "history.html")]
struct HistoryPage {
    frame: JobFrame,
    events: Vec<EventLine>,
    /// Where what was done before is.
    earlier: String,
    number: i32,
}

struct EventLine {
    at: String,
    by: String,
    what: String,
    differences: Vec<DifferenceLine>,
    /// How many more there are.
    more: usize,
}

/// One thing that differed.
struct DifferenceLine {
    place: String,
    before: String,
    after: String,
}

#[derive(Deserialize)]
pub(crate) struct Stretch {
    /// The moment that what is shown was before, in microseconds since 1970.
    before: Option<i64>,
}

fn deed_words(event: &Event) -> String {
    let many = |one: &str, more: &str| if event.count == 1 { one.to_owned() } else { format!("{} {more}", event.count) };
    match event.deed {
        Deed::Opened => "opened the job".to_owned(),
        Deed::VehicleChanged => "changed the vehicle".to_owned(),
        Deed::MannerChanged => "changed how the heights are read".to_owned(),
        Deed::SteppedBack => "took a step back at the bench".to_owned(),
        Deed::SteppedForward => "took a step forward at the bench".to_owned(),
        Deed::PhotographOff => format!("took off {}", many("a photograph", "photographs")),
        Deed::CorrectionOff => "took a correction off the list".to_owned(),
        Deed::CorrectionBack => "put a correction back on the list".to_owned(),
        Deed::ChoiceOff => "took the choice back".to_owned(),
        Deed::Handed => "said who has it, or when it is promised".to_owned(),
        Deed::Finished => "finished the job".to_owned(),
        Deed::Reopened => "took the job up again".to_owned(),
        Deed::Asked => "wrote the intake sheet".to_owned(),
        Deed::Planned => "wrote the load plan".to_owned(),
        Deed::Read => format!("took {}", many("a reading", "readings")),
        Deed::Corrected => format!("corrected {}", many("a reading", "readings")),
        Deed::Loaded => "told what was put on".to_owned(),
        Deed::LookedOver => "wrote the look-over".to_owned(),
        Deed::Benched => "worked on the pack".to_owned(),
        Deed::Drove => "scored a control drive".to_owned(),
        Deed::Reckoned => "kept a sum, or took one off".to_owned(),
        Deed::WorkPlanned => "wrote the plan of the work".to_owned(),
        Deed::Proved => "wrote to the proof".to_owned(),
        Deed::Photographed => format!("sent {}", many("a photograph", "photographs")),
        Deed::Aimed => "set the aim".to_owned(),
        Deed::Considered => "considered a correction".to_owned(),
        Deed::Chose => "chose a correction".to_owned(),
    }
}

impl EventLine {
    fn new(event: &Event, names: &Names) -> Self {
        let told = |side: &Option<String>| side.clone().unwrap_or_else(|| "nothing".to_owned());
        let line = |difference: &Difference| DifferenceLine {
            place: difference.place.clone(),
            before: told(&difference.before),
            after: told(&difference.after),
        };
        EventLine {
            at: moment(event.at),
            by: names.of(event.by).to_owned(),
            what: deed_words(event),
            differences: event.differences.iter().take(MOST_DIFFERENCES).map(line).collect(),
            more: event.differences.len().saturating_sub(MOST_DIFFERENCES),
        }
    }
}

pub(crate) async fn show(
    database: Data<Database>,
    worker: Worker,
    number: Path<i32>,
    stretch: Query<Stretch>,
) -> Result<HttpResponse, WebError> {
    let record = job_record(&database, &worker, *number).await?;
    let (shop, job) = (worker.shop_id(), record.file.job.id);
    // Nothing on record is later than the end of this day, whatever a clock says.
    let before = stretch.before.and_then(DateTime::from_timestamp_micros).unwrap_or_else(|| Utc::now() + TimeDelta::days(1));
    let done: Result<_, StoreError> = database.read(move |connection| history::of_job(connection, shop, job, before)).await;
    let done = done?;
    drawn(move |_| {
        let Record { file, names, .. } = &record;
        let template = HistoryPage {
            frame: JobFrame::new(&worker, file, None, &as_chosen(&file.work)),
            events: done.events.iter().map(|event| EventLine::new(event, names)).collect(),
            earlier: done.earlier.map_or_else(String::new, |at| at.timestamp_micros().to_string()),
            number: file.job.number.0,
        };
        page(StatusCode::OK, &template)
    })
    .await
}
