//! What every page of a job carries: its name, its route and the stance drawing.

use wise_badger_casework::entry::LoadPlanEntry;
use wise_badger_casework::prediction::{Prediction, Predictor};
use wise_badger_casework::reading::Phase;
use wise_badger_casework::survey::Survey;
use wise_badger_casework::verdict::Overload;
use wise_badger_store::job_file::JobFile;

use crate::drawing::{Marks, Shown, StanceDrawing};
use crate::job_route::{Stage, Standing};
use crate::shell::Shell;
use crate::view::{Units, class_name, wheels_name};
use crate::worker::Worker;

/// Head and drawing of a job's page.
pub(super) struct JobFrame {
    pub(super) shell: Shell,
    pub(super) number: i32,
    pub(super) label: String,
    pub(super) vehicle: String,
    pub(super) steps: Vec<Step>,
    /// What comes next and the way there, unless this page is it.
    pub(super) next: Option<Next>,
    pub(super) drawing: StanceDrawing,
    pub(super) finished: bool,
}

/// One stage on the route.
pub(super) struct Step {
    pub(super) name: &'static str,
    pub(super) href: String,
    pub(super) here: bool,
    /// `done`, `next` or `open`.
    pub(super) mark: &'static str,
}

/// The way to the next stage.
pub(super) struct Next {
    pub(super) words: String,
    pub(super) href: String,
}

impl JobFrame {
    /// The frame of the page of a stage, or of the job's own page.
    pub(super) fn new(worker: &Worker, file: &JobFile, here: Option<Stage>, shown: &Shown) -> Self {
        let (number, intake, standing) = (file.job.number, &file.case.intake, Standing::of(file));
        let survey = file.case.survey(Phase::Found);
        let units = worker.units();
        let marks = Marks::new(&survey, shown, units);
        let step = |stage: Stage| Step {
            name: stage.name(),
            href: stage.path(number),
            here: here == Some(stage),
            mark: if standing.next == Some(stage) {
                "next"
            } else if standing.is_done(stage) {
                "done"
            } else {
                "open"
            },
        };
        let path = here.map_or_else(|| format!("/jobs/{}", number.0), |stage| stage.path(number));
        let title = here.map_or_else(|| intake.label.clone(), |stage| format!("{}: {}", stage.name(), intake.label));
        JobFrame {
            shell: Shell::new(worker, title, path),
            number: number.0,
            label: intake.label.clone(),
            vehicle: format!(
                "{}, {}, {} {}",
                class_name(intake.class),
                wheels_name(intake.rear_wheels),
                if intake.class.is_trailer() { "coupler to axles" } else { "wheelbase" },
                units.height(intake.wheelbase.length())
            ),
            steps: Stage::ALL.into_iter().map(step).collect(),
            next: standing
                .next
                .filter(|next| here != Some(*next))
                .map(|next| Next { words: standing.words.clone(), href: next.path(number) }),
            drawing: StanceDrawing::new(&survey, &marks, units),
            finished: standing.finished,
        }
    }
}

/// What is drawn beside the heights as found: the aim, and the correction chosen. Over a rating nothing is predicted.
pub(super) fn as_chosen(file: &JobFile, survey: &Survey) -> Shown {
    let chosen = file.fitting.as_ref().and_then(|fitting| file.corrections.iter().find(|c| c.id == fitting.correction_id));
    let correction = chosen.and_then(|considered| considered.entry.0.correction());
    let prediction = correction.filter(|_| Overload::of(survey).is_none()).map(|c| Predictor::new(survey).predict(&c));
    with_prediction(file, survey, prediction)
}

/// The same with another prediction.
pub(super) fn with_prediction(file: &JobFile, survey: &Survey, prediction: Option<Prediction>) -> Shown {
    let aim = file.case.aim.as_ref().map(|entry| entry.aim());
    let target = aim.and_then(|aim| aim.target(survey).map(|target| (aim.state(), target)));
    Shown { aim: target, prediction, fitted: None }
}

/// Units of the person and the survey as found, which most pages start from.
pub(super) fn found(worker: &Worker, file: &JobFile) -> (Units, Survey) {
    (worker.units(), file.case.survey(Phase::Found))
}

/// Every case of the load plan but the measured one, with what is aboard in it.
pub(super) fn planned_cases(file: &JobFile, found: &Survey) -> Vec<(String, Survey)> {
    let of_plan = |plan: &LoadPlanEntry| -> Vec<(String, Survey)> {
        let aboard = plan.cases.iter().map(|case| (case, plan.items_of(case.key)));
        let aboard = aboard.filter(|(case, items)| {
            !items.is_empty() && Some(case.key) != file.case.measured_case().map(|measured| measured.key)
        });
        aboard.map(|(case, items)| (case.name.clone(), found.in_case(items, case.scale()))).collect()
    };
    file.case.plan.as_ref().map(of_plan).unwrap_or_default()
}
