//! What is due on jobs: a line each, and what is said to it.

use actix_web::HttpResponse;
use actix_web::web::{Data, Path};
use chrono::NaiveDate;
use wise_badger_store::due::{self as due_list, DueListed};
use wise_badger_store::{Database, JobNumber, StoreError};

use super::super::{Hidden, Names, once, see_other};
use crate::error::WebError;
use crate::form::{Posted, Sheet};
use crate::rights::Right;
use crate::view::clock;
use crate::view::work_plan::day_words;
use crate::worker::Worker;

/// Longest note on something due.
const LONGEST_NOTE: usize = 200;

/// Told when something is said to what is not due.
const NOT_DUE: &str = "That is not due on this job any more. Look at the yard as it stands now.";

/// What can be due on a job: its word, what it is called, whether the customer is called for it.
const DUES: [(&str, &str, bool); 6] = [
    ("promised", "promised to the customer", false),
    ("wanted", "wanted by the customer", false),
    ("parts", "parts are to come", false),
    ("lug_nuts", "lug nuts tightened again", true),
    ("u_bolts", "U-bolts tightened again", true),
    ("heights", "heights read again, settled", true),
];

/// Something that is due.
pub(super) struct DueLine {
    pub(super) number: i32,
    pub(super) label: String,
    pub(super) word: String,
    pub(super) what: &'static str,
    pub(super) day: String,
    pub(super) late: bool,
    /// What was said to it last.
    pub(super) said: String,
    /// Whether it is called for, done or declined here: it is the customer's to come back for, and whoever looks may say so.
    pub(super) is_answered: bool,
    pub(super) hidden: Hidden,
}

impl DueLine {
    pub(super) fn new(due: &DueListed, names: &Names, today: NaiveDate, worker: &Worker) -> Self {
        let (_, what, is_customers) = DUES.iter().find(|(word, ..)| *word == due.what).copied().unwrap_or(("", "due", false));
        let said = due.mark.as_ref().map_or_else(String::new, |mark| {
            let note = if mark.note.is_empty() { String::new() } else { format!(": {}", mark.note) };
            format!("{} by {}, {}{note}", mark.mark, names.of(mark.recorded_by), clock(mark.recorded_at))
        });
        DueLine {
            number: due.number.0,
            label: due.label.clone(),
            word: due.what.clone(),
            what,
            day: day_words(due.day),
            late: due.day < today,
            said,
            is_answered: is_customers && worker.may(Right::Receive),
            hidden: Hidden::new(&Sheet::blank(worker.units()), 0),
        }
    }
}

/// Says something to what is due: done, called, or the customer does not want it.
pub(crate) async fn mark(
    database: Data<Database>,
    worker: Worker,
    path: Path<(i32, String)>,
    posted: Posted,
) -> Result<HttpResponse, WebError> {
    let (number, what) = path.into_inner();
    if !DUES.iter().any(|(word, ..)| *word == what) {
        return Err(WebError::NotNow(NOT_DUE));
    }
    let sheet = Sheet::posted(posted, worker.units());
    let (said, note) = (sheet.text("mark").to_owned(), sheet.text("note").chars().take(LONGEST_NOTE).collect::<String>());
    let marked = once(&database, &worker, &sheet, move |connection, person| {
        due_list::mark(connection, person, JobNumber(number), &what, &said, &note)
    });
    match marked.await {
        Err(WebError::Store(StoreError::NotFound("thing due"))) => Err(WebError::NotNow(NOT_DUE)),
        done => done.map(|()| see_other("/#due")),
    }
}
