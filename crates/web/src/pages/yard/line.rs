//! A job's line in a list.

use chrono::{Local, NaiveDate};
use wise_badger_casework::survey::{RearWheels, VehicleClass};
use wise_badger_casework::words::Word;
use wise_badger_store::JobNumber;
use wise_badger_store::job_list::JobListed;

use super::gather::Stands;
use super::{Known, Names};
use crate::job_route::{StageWords as _, place_of, to_do_words};
use crate::view::work_plan::day_words;
use crate::view::{class_name, sentence, wheels_name};

/// The line.
pub(super) struct JobLine {
    pub(super) number: i32,
    pub(super) label: String,
    /// What it is, its plate, whose it is.
    pub(super) vehicle: String,
    pub(super) stands: String,
    /// What it waits for beside that.
    pub(super) waits: String,
    /// The stage that is next, and which of how many it is.
    pub(super) place: String,
    /// Who has it.
    pub(super) who: String,
    /// When it is promised or wanted.
    pub(super) by: String,
    /// Whether that day is gone by.
    pub(super) late: bool,
    pub(super) over: bool,
    pub(super) finished: bool,
    pub(super) href: String,
}

impl JobLine {
    pub(super) fn new(known: &Known, names: &Names, today: NaiveDate) -> Self {
        let (job, stands) = (&known.job, known.stands.as_ref());
        let JobNumber(number) = job.number;
        let path = format!("/jobs/{number}");
        let finished = job.finished_at.is_some();
        let progress = stands.map(|stands| &stands.progress);
        let stage = progress.and_then(|progress| progress.to_do.stage());
        let (by, late) = by_words(job, stands, today);
        JobLine {
            number,
            label: job.label.clone(),
            vehicle: vehicle_words(known),
            stands: match (finished, progress) {
                (true, _) => "Finished".to_owned(),
                (false, Some(progress)) => sentence(&to_do_words(progress, VehicleClass::from_word(&job.vehicle_class))),
                (false, None) => "This job's record cannot be read".to_owned(),
            },
            waits: stands.filter(|_| !finished).map(waits_words).unwrap_or_default(),
            place: stage.filter(|_| !finished).map_or_else(String::new, place_of),
            who: job.assigned_to.map(|id| names.of(id).to_owned()).unwrap_or_default(),
            by,
            late,
            over: progress.is_none_or(|progress| progress.over) && !finished,
            finished,
            href: stage.filter(|_| !finished).map_or(path, |stage| stage.path(job.number)),
        }
    }
}

/// Class and wheels by the words of their columns, as far as this program knows them; plate and customer.
fn vehicle_words(known: &Known) -> String {
    let job = &known.job;
    let words = VehicleClass::from_word(&job.vehicle_class).zip(RearWheels::from_word(&job.rear_wheels));
    let class = words.map(|(class, wheels)| format!("{}, {}", class_name(class), wheels_name(wheels)));
    let plate = known.plate.clone().filter(|plate| !plate.is_empty());
    class.into_iter().chain(plate).chain(known.customer.clone()).collect::<Vec<_>>().join(" · ")
}

fn waits_words(stands: &Stands) -> String {
    let parts = match (stands.parts, stands.parts_on) {
        (0, _) => None,
        (1, None) => Some("1 part not here".to_owned()),
        (count, None) => Some(format!("{count} parts not here")),
        (_, Some(day)) => Some(format!("parts by {}", day_words(day))),
    };
    let customer = stands.asks_customer.then(|| "customer's yes or no".to_owned());
    let waits: Vec<String> = parts.into_iter().chain(customer).collect();
    if waits.is_empty() { String::new() } else { format!("waits for: {}", waits.join(", ")) }
}

/// When it is promised, or else wanted; of a finished one, when that was.
fn by_words(job: &JobListed, stands: Option<&Stands>, today: NaiveDate) -> (String, bool) {
    if let Some(finished) = job.finished_at {
        return (day_words(finished.with_timezone(&Local).date_naive()), false);
    }
    // Parts that come later than that keep no promise.
    let parts = stands.and_then(|stands| stands.parts_on);
    match (job.promised_on, stands.and_then(|stands| stands.wanted_on)) {
        (Some(day), _) if parts.is_some_and(|parts| parts > day) && day >= today => {
            (format!("promised {}, before its parts are here", day_words(day)), true)
        }
        (Some(day), _) => late_words(format!("promised {}", day_words(day)), day < today),
        (None, Some(day)) => late_words(format!("wanted {}", day_words(day)), day < today),
        (None, None) => (String::new(), false),
    }
}

fn late_words(words: String, late: bool) -> (String, bool) {
    if late { (format!("{words}, late"), true) } else { (words, false) }
}
