//! What every page of a job carries: its name, its route and the stance drawing.

use std::sync::Arc;

use wise_badger_casework::casework::Casework;
use wise_badger_casework::prediction::Prediction;
use wise_badger_casework::route::{Progress, Stage};
use wise_badger_store::job_file::JobFile;

use crate::drawing::{Shown, StanceDrawing};
use crate::job_route::{StageWords as _, place_of, stages, to_do_words};
use crate::shell::Shell;
use crate::view::glance::key_figures;
use crate::view::overload::weigh_first_words;
use crate::view::{class_name, wheels_name};
use crate::worked_out;
use crate::worker::Worker;

/// Head and drawing of a job's page.
pub(super) struct JobFrame {
    pub(super) shell: Shell,
    pub(super) number: i32,
    pub(super) label: String,
    pub(super) vehicle: String,
    pub(super) steps: Vec<Step>,
    /// Which stage this is, of how many; on a narrow page it stands for all of them.
    pub(super) place: String,
    /// The stage before this one, and the one after it.
    pub(super) before: Option<Next>,
    pub(super) after: Option<Next>,
    /// What comes next and the way there, unless this page is it.
    pub(super) next: Option<Next>,
    pub(super) drawing: Arc<StanceDrawing>,
    /// Whether there are states beside empty and loaded.
    pub(super) has_further: bool,
    /// Whether heights of an earlier visit are drawn.
    pub(super) has_earlier: bool,
    /// What stands under the picture.
    pub(super) key_figures: Vec<(String, String)>,
    pub(super) finished: bool,
    /// What is over a rating by assumed weights alone: everything on the page hangs on that.
    pub(super) weigh_first: Option<String>,
}

/// One stage on the route.
pub(super) struct Step {
    pub(super) name: &'static str,
    pub(super) href: String,
    pub(super) here: bool,
    /// `done`, `next`, `skipped` (open, with a later stage done) or `open`.
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
        let (number, intake, progress) =
            (file.job.number, &file.case().intake, Progress::of(&file.work, file.job.finished_at.is_some()));
        let next = progress.to_do.stage();
        let units = worker.units();
        let step = |stage: Stage| Step {
            name: stage.name(),
            href: stage.path(number),
            here: here == Some(stage),
            mark: if next == Some(stage) {
                "next"
            } else if progress.is_done(stage) {
                "done"
            } else if progress.is_skipped(stage) {
                "skipped"
            } else {
                "open"
            },
        };
        let along = |by: isize| {
            let all: Vec<Stage> = stages().collect();
            let place = all.iter().position(|stage| here == Some(*stage))?.checked_add_signed(by)?;
            let stage = all.get(place)?;
            Some(Next { words: stage.name().to_owned(), href: stage.path(number) })
        };
        let place = here.map_or_else(|| format!("All {} stages", stages().count()), place_of);
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
            steps: stages().map(step).collect(),
            place,
            before: along(-1),
            after: along(1),
            next: next
                .filter(|next| here != Some(*next))
                .map(|next| Next { words: to_do_words(&progress, Some(intake.class)), href: next.path(number) }),
            drawing: worked_out::stance(file, shown, units),
            has_further: !file.work.found().further.is_empty(),
            has_earlier: !shown.earlier.is_empty(),
            key_figures: key_figures(&file.work, units),
            finished: progress.is_finished(),
            weigh_first: weigh_first_words(&file.work, units),
        }
    }
}

/// What is drawn beside the heights as found: the aim, and the correction chosen. Over a rating nothing is predicted.
pub(super) fn as_chosen(work: &Casework) -> Shown {
    with_prediction(work, work.chosen_predicted())
}

/// The same with another prediction.
pub(super) fn with_prediction(work: &Casework, prediction: Option<&Prediction>) -> Shown {
    let aim = prediction.map_or_else(|| work.target(), |prediction| work.target_with(prediction));
    Shown { aim, prediction: prediction.cloned(), ..Shown::default() }
}
