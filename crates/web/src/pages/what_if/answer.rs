//! What comes of what is tried: drawn anew with every step of a slider.

use std::sync::Arc;

use askama::Template;
use wise_badger_casework::casework::Casework;
use wise_badger_casework::survey::{End, LoadState};
use wise_badger_mechanics::units::{Force, pounds};
use wise_badger_store::job_file::JobFile;

use super::super::job_frame::with_prediction;
use super::trial::Trial;
use crate::drawing::{Drawing, Marks, OnTheCurve, Shown, StanceDrawing, load_curve_drawing};
use crate::view::consequence::consequence_figures;
use crate::view::load_plan::NOTHING_FITTED;
use crate::view::look_over::{put_right_words, ruled_out};
use crate::view::prediction::{goal_sentence, log_failure};
use crate::view::what_if::{TriedRow, leans_figure, tried_rows};
use crate::view::{Cautions, Figure, Units, end_name, sentence, state_of};

/// The least weight that the curve goes to, and how far past the heaviest case.
const LEAST_MOST_LB: f64 = 500.0;
const PAST_THE_LAST: f64 = 1.15;

/// Heights in every state and case.
#[derive(Template)]
#[template(path = "parts/what_if_heights.html")]
pub(super) struct Heights {
    aim: Option<(String, &'static str)>,
    ruled_out: String,
    number: i32,
    /// What its front end is called.
    front: String,
    /// What its lengths are in.
    unit: &'static str,
    rows: Vec<TriedRow>,
    /// Whether nothing is fitted yet.
    is_bare: bool,
}

/// What else changes, and the curve.
#[derive(Template)]
#[template(path = "parts/what_if_more.html")]
pub(super) struct More {
    leans: Option<Figure>,
    consequences: Vec<Figure>,
    /// What goes with it.
    additions: Vec<String>,
    cautions: Cautions,
}

/// The rear against what is on its axle.
#[derive(Template)]
#[template(path = "parts/what_if_curve.html")]
pub(super) struct Curve {
    curve: Option<Drawing>,
    /// Whether the rate that it hangs on was not measured.
    is_assumed: bool,
}

impl askama::filters::HtmlSafe for Heights {}
impl askama::filters::HtmlSafe for More {}
impl askama::filters::HtmlSafe for Curve {}

/// Everything that is shown of what is tried.
pub(super) struct Answer {
    pub(super) heights: Heights,
    pub(super) more: More,
    pub(super) curve: Curve,
    pub(super) shown: Shown,
}

impl Answer {
    /// Works out what is tried; `None` while it cannot be read.
    pub(super) fn new(file: &JobFile, trial: &Trial, units: Units) -> Option<Self> {
        let entry = trial.entry.clone()?;
        let plan = trial.load.as_ref().map(|(plan, _)| plan.clone()).or_else(|| file.case().plan.clone());
        Some(Answer::of(&file.work.trying(entry, plan), file, trial, units))
    }

    fn of(work: &Casework, file: &JobFile, trial: &Trial, units: Units) -> Self {
        let parts = work.option(0).map_or(NOTHING_FITTED, |(_, parts)| parts);
        let is_bare = parts.is_empty();
        let prediction = work.predicted(0);
        if prediction.is_some_and(|prediction| prediction.each().any(|(_, state)| state.is_err())) {
            log_failure(work.predictor());
        }
        let most = file.case().aim.as_ref().map_or(0, |aim| aim.most);
        let aim = goal_sentence(work, most, 0, units).filter(|_| !is_bare);
        let out = if is_bare { String::new() } else { ruled_out(&work.gate_of(0)) };
        let pull = trial.pull.and_then(|pull| leans_figure(work, parts, pull, units));
        let pictured = with_prediction(work, prediction.filter(|_| !is_bare));
        Answer {
            heights: Heights {
                aim: aim.filter(|_| out.is_empty()).map(|(tone, text)| (text, tone.class())),
                ruled_out: out,
                number: file.job.number.0,
                front: sentence(end_name(work.found().vehicle.class, End::Front)),
                unit: units.length_name(),
                rows: tried_rows(work, units),
                is_bare,
            },
            more: More {
                leans: pull,
                consequences: if is_bare { Vec::new() } else { consequence_figures(work, 0, units) },
                additions: put_right_words(work, (!is_bare).then_some(0)).iter().map(|words| sentence(words)).collect(),
                cautions: Cautions::of(&work.cautions(parts)),
            },
            curve: Curve {
                curve: curve(work, units),
                is_assumed: work.rate().measured().is_none() && work.found().vehicle.rear_pack.is_none(),
            },
            shown: pictured,
        }
    }

    /// The vehicle with what is tried.
    pub(super) fn picture(&self, file: &JobFile, units: Units) -> Arc<StanceDrawing> {
        let found = file.work.found();
        Arc::new(StanceDrawing::new(found, &Marks::new(found, &self.shown, units), units))
    }
}

/// The rear against what is on its axle; none while nothing can be said of it.
fn curve(work: &Casework, units: Units) -> Option<Drawing> {
    let (survey, predictor) = (work.found(), work.predictor());
    let of_state = |state: LoadState| {
        let load = match state {
            LoadState::Empty => Force::default(),
            _ => survey.axle_loads_in(state)?.change.rear?.value,
        };
        let rear = work.predicted(0)?.at(state).ok()?.rear;
        Some(OnTheCurve { name: sentence(state_of(survey, state)), load, rear })
    };
    let in_case = |case| {
        let rear = work.in_case(0, case).ok()?.rear;
        Some(OnTheCurve { name: case.name.clone(), load: case.survey.axle_loads().change.rear?.value, rear })
    };
    let cases: Vec<OnTheCurve> = survey.states().filter_map(of_state).chain(work.cases().iter().filter_map(in_case)).collect();
    let heaviest = cases.iter().map(|case| case.load).fold(Force::default(), Force::max);
    let most = (heaviest * PAST_THE_LAST).max(pounds(LEAST_MOST_LB));
    let parts = work.option(0).map_or(NOTHING_FITTED, |(_, parts)| parts);
    let now = predictor.load_curve(NOTHING_FITTED, most).ok()?;
    let with = predictor.load_curve(parts, most).ok()?;
    Some(load_curve_drawing(&now, &with, &cases, units))
}
