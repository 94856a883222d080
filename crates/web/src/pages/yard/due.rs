//! What is due on jobs: a line each, and what is said to it.

use actix_web::HttpResponse;
use actix_web::web::{Data, Path};
use chrono::{Days, NaiveDate};
use wise_badger_casework::wrench::DueWhat;
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

/// After so long what a customer did not come back for stands apart, so that it does not hide today.
const MISSED_AFTER: Days = Days::new(14);

/// Told when something is said to what is not due.
const NOT_DUE: &str = "That is not due on this job any more. Look at the yard as it stands now.";

/// What can be due on a job.
#[derive(Clone, Copy, PartialEq, Eq)]
pub(crate) enum DueKind {
    /// The vehicle, as it was promised.
    Promised,
    /// The vehicle, as it is wanted, where nothing was promised.
    Wanted,
    /// What is ordered.
    Parts,
    /// What the customer comes back for after the work.
    AfterWork(DueWhat),
}

impl DueKind {
    /// Every kind.
    pub(super) const ALL: [DueKind; 6] = [
        DueKind::Promised,
        DueKind::Wanted,
        DueKind::Parts,
        DueKind::AfterWork(DueWhat::LugNuts),
        DueKind::AfterWork(DueWhat::UBolts),
        DueKind::AfterWork(DueWhat::Heights),
    ];

    /// As it is kept.
    pub(crate) fn word(self) -> &'static str {
        match self {
            DueKind::Promised => "promised",
            DueKind::Wanted => "wanted",
            DueKind::Parts => "parts",
            DueKind::AfterWork(DueWhat::LugNuts) => "lug_nuts",
            DueKind::AfterWork(DueWhat::UBolts) => "u_bolts",
            DueKind::AfterWork(DueWhat::Heights) => "heights",
        }
    }

    fn of_word(word: &str) -> Option<Self> {
        DueKind::ALL.into_iter().find(|kind| kind.word() == word)
    }

    /// As it is called.
    fn name(self) -> &'static str {
        match self {
            DueKind::Promised => "promised to the customer",
            DueKind::Wanted => "wanted by the customer",
            DueKind::Parts => "parts are to come",
            DueKind::AfterWork(DueWhat::LugNuts) => "lug nuts tightened again",
            DueKind::AfterWork(DueWhat::UBolts) => "U-bolts tightened again",
            DueKind::AfterWork(DueWhat::Heights) => "heights read again, settled",
        }
    }

    /// Whether the customer is called for it.
    fn is_customers(self) -> bool {
        matches!(self, DueKind::AfterWork(_))
    }
}

/// What is due, by how soon.
pub(super) struct Due {
    /// Within the week.
    pub(super) soon: Vec<DueLine>,
    /// Today or before.
    pub(super) now: Vec<DueLine>,
    /// What a customer did not come back for, for so long that it is looked at apart.
    pub(super) missed: Vec<DueLine>,
    /// Whether there is more, due longer ago than all of these.
    pub(super) more: bool,
}

impl Due {
    /// Nothing.
    pub(super) const NOTHING: Due = Due { soon: Vec::new(), now: Vec::new(), missed: Vec::new(), more: false };

    /// What is due of a shop, as today is: so much of it at most.
    pub(super) fn new(due: &[DueListed], most: usize, names: &Names, today: NaiveDate, worker: &Worker) -> Self {
        let mut by = Due { more: due.len() > most, ..Due::NOTHING };
        // The earliest come first, and are those left out.
        let due = due.iter().skip(due.len().saturating_sub(most));
        for one in due {
            let is_customers = DueKind::of_word(&one.what).is_some_and(DueKind::is_customers);
            let list = match one.day {
                day if day > today => &mut by.soon,
                day if is_customers && day + MISSED_AFTER < today => &mut by.missed,
                _ => &mut by.now,
            };
            list.push(DueLine::new(one, names, today, worker));
        }
        by
    }

    pub(super) fn is_empty(&self) -> bool {
        self.soon.is_empty() && self.now.is_empty() && self.missed.is_empty()
    }
}

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
    fn new(due: &DueListed, names: &Names, today: NaiveDate, worker: &Worker) -> Self {
        let kind = DueKind::of_word(&due.what);
        let said = due.mark.as_ref().map_or_else(String::new, |mark| {
            let note = if mark.note.is_empty() { String::new() } else { format!(": {}", mark.note) };
            format!("{} by {}, {}{note}", mark.mark, names.of(mark.recorded_by), clock(mark.recorded_at))
        });
        DueLine {
            number: due.number.0,
            label: due.label.clone(),
            word: due.what.clone(),
            what: kind.map_or("due", DueKind::name),
            day: day_words(due.day),
            late: due.day < today,
            said,
            is_answered: kind.is_some_and(DueKind::is_customers) && worker.may(Right::Receive),
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
    if DueKind::of_word(&what).is_none() {
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
