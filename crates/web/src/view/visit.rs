//! A visit of a vehicle, as its history tells it.

use chrono::Local;
use serde::{Deserialize, Serialize};
use wise_badger_mechanics::units::{metres, newtons_per_metre};
use wise_badger_store::job_list::JobListed;

use super::Units;
use super::work_plan::day_words;

/// Figures of a visit: lengths in metres, the rate in N/m with its standard deviation as a share. Kept with where its job stands.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize)]
#[serde(default)]
pub(crate) struct VisitFigures {
    /// Word of the datum.
    pub(crate) datum: String,
    /// Rear heights as found, empty and loaded, and the same after fitting.
    pub(crate) found: [Option<f64>; 2],
    pub(crate) fitted: [Option<f64>; 2],
    /// What the readings say of all rear springs together, where they say it well enough.
    pub(crate) rate: Option<(f64, f64)>,
    /// What was chosen, in words.
    pub(crate) chosen: String,
    /// The complaint, in the customer's words.
    pub(crate) complaint: String,
}

/// A line of the history.
pub(crate) struct VisitLine {
    pub(crate) number: i32,
    pub(crate) label: String,
    pub(crate) day: String,
    pub(crate) complaint: String,
    pub(crate) found: String,
    pub(crate) rate: String,
    pub(crate) chosen: String,
    pub(crate) fitted: String,
    pub(crate) finished: bool,
}

impl VisitLine {
    pub(crate) fn new(job: &JobListed, visit: Option<&VisitFigures>, units: Units) -> Self {
        let none = VisitFigures::default();
        let visit = visit.unwrap_or(&none);
        let heights = |heights: [Option<f64>; 2]| {
            let named = [("empty", heights[0]), ("loaded", heights[1])];
            let told = named.into_iter().filter_map(|(name, height)| Some(format!("{} {name}", units.height(metres(height?)))));
            told.collect::<Vec<_>>().join(", ")
        };
        let rate = visit.rate.map(|(rate, sd)| format!("{} ± {:.0} %", units.rate(newtons_per_metre(rate)), 200.0 * sd));
        VisitLine {
            number: job.number.0,
            label: job.label.clone(),
            day: day_words(job.opened_at.with_timezone(&Local).date_naive()),
            complaint: visit.complaint.clone(),
            found: heights(visit.found),
            rate: rate.unwrap_or_default(),
            chosen: visit.chosen.clone(),
            fitted: heights(visit.fitted),
            finished: job.finished_at.is_some(),
        }
    }
}
