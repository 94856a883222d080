//! Where a job stands on its route, what is missing, and what comes next.

use serde::{Deserialize, Serialize};

use crate::aim::GoalCase;
use crate::casework::Casework;
use crate::entry::WorkPlanEntry;
use crate::survey::{End, LoadState, Survey};
use crate::words::Word;

/// A stage of the route.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "snake_case")]
pub enum Stage {
    /// What the vehicle is and what the customer wants.
    Intake,
    /// What is aboard, case by case.
    Load,
    /// Heights, empty and loaded.
    Tape,
    /// What is found on it.
    LookOver,
    /// What the readings say.
    Verdict,
    /// What height is right.
    Aim,
    /// The corrections considered.
    Options,
    /// The pack, leaf by leaf.
    Bench,
    /// What the work needs, takes and costs.
    Plan,
    /// The work itself.
    Wrench,
    /// Heights after fitting.
    Proof,
}

impl Word for Stage {
    const WHAT: &'static str = "stage";
    /// In the order of the route.
    const WORDS: &'static [(Self, &'static str)] = &[
        (Stage::Intake, "intake"),
        (Stage::Load, "load"),
        (Stage::Tape, "tape"),
        (Stage::LookOver, "look_over"),
        (Stage::Verdict, "verdict"),
        (Stage::Aim, "aim"),
        (Stage::Options, "options"),
        (Stage::Bench, "bench"),
        (Stage::Plan, "plan"),
        (Stage::Wrench, "wrench"),
        (Stage::Proof, "proof"),
    ];
}

/// Something that the tape, or the load, still lacks.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "snake_case")]
pub enum Missing {
    /// All heights of a state.
    Heights(LoadState),
    /// One end's in a state.
    Height(End, LoadState),
    /// What was put on.
    Load,
}

/// What must happen next.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "snake_case")]
pub enum ToDo {
    /// Read these.
    Measure(Vec<Missing>),
    /// A rating is passed: weight comes off before anything else.
    TakeWeightOff,
    /// Look it over.
    LookOver,
    /// Set the aim.
    SetTheAim,
    /// Choose a correction.
    Choose,
    /// Plan the work.
    PlanTheWork,
    /// Fit it and measure again.
    FitAndMeasure,
    /// Measured after fitting; finish the job.
    Finish,
    /// The job is finished.
    Nothing,
}

impl ToDo {
    /// Where that is done; `None` of a finished job.
    pub fn stage(&self) -> Option<Stage> {
        match self {
            ToDo::Measure(_) => Some(Stage::Tape),
            ToDo::TakeWeightOff | ToDo::Choose => Some(Stage::Options),
            ToDo::LookOver => Some(Stage::LookOver),
            ToDo::SetTheAim => Some(Stage::Aim),
            ToDo::PlanTheWork => Some(Stage::Plan),
            ToDo::FitAndMeasure => Some(Stage::Wrench),
            ToDo::Finish => Some(Stage::Proof),
            ToDo::Nothing => None,
        }
    }
}

/// How far a job has come.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
pub struct Progress {
    done: Vec<Stage>,
    /// What must happen next.
    pub to_do: ToDo,
    /// Whether a rating is passed.
    pub over: bool,
}

impl Progress {
    /// How far a job has come, which somebody may have finished.
    pub fn of(work: &Casework, finished: bool) -> Self {
        let case = work.case();
        let missing = missing_on_tape(work.found());
        let (over, chosen) = (work.overload().is_some(), case.chosen.is_some());
        let measured = missing.is_empty() || is_for_empty_alone(work);
        let proved = work.is_measured_again();
        let planned = chosen && case.work_plan != WorkPlanEntry::default();
        let mut done = vec![Stage::Intake];
        let stages = [
            // A job can do without a plan (a load may be told on Tape alone), and without the bench.
            (Stage::Load, case.plan.is_some()),
            (Stage::Bench, case.bench.is_some()),
            (Stage::Tape, measured),
            (Stage::LookOver, is_looked_over(work)),
            (Stage::Verdict, measured),
            (Stage::Aim, case.aim.is_some()),
            (Stage::Options, chosen && !over),
            (Stage::Plan, planned),
            (Stage::Proof, proved),
        ];
        done.extend(stages.into_iter().filter(|(_, is_done)| *is_done).map(|(stage, _)| stage));
        let in_turn = [
            (finished, ToDo::Nothing),
            // What was promised without a reading is not asked for afterwards.
            (!measured && !chosen, ToDo::Measure(missing)),
            (over, ToDo::TakeWeightOff),
            (!is_looked_over(work), ToDo::LookOver),
            // What was chosen without an aim is not asked for one afterwards.
            (case.aim.is_none() && !chosen, ToDo::SetTheAim),
            (!chosen, ToDo::Choose),
            (!proved && !planned, ToDo::PlanTheWork),
            (!proved, ToDo::FitAndMeasure),
        ];
        let to_do = in_turn.into_iter().find(|(applies, _)| *applies).map_or(ToDo::Finish, |(_, to_do)| to_do);
        Progress { done, to_do, over }
    }

    /// Whether a stage is done.
    pub fn is_done(&self, stage: Stage) -> bool {
        self.done.contains(&stage)
    }

    /// Whether a stage was passed over: not done, with one after it that is. The load plan, the bench,
    /// the plan of the work and the card are none that a job needs.
    pub fn is_skipped(&self, stage: Stage) -> bool {
        let place = |of: Stage| Stage::WORDS.iter().position(|(word, _)| *word == of);
        let later = self.done.iter().any(|done| place(*done) > place(stage) && *done != Stage::Bench);
        !self.is_done(stage) && later && !matches!(stage, Stage::Load | Stage::Bench | Stage::Plan | Stage::Wrench)
    }

    /// Whether the job is finished.
    pub fn is_finished(&self) -> bool {
        self.to_do == ToDo::Nothing
    }
}

/// Before any part is chosen; what was chosen without is not asked for again.
fn is_looked_over(work: &Casework) -> bool {
    work.case().look_over.is_some() || work.case().chosen.is_some()
}

/// Whether the job is about the vehicle empty: it is measured so, and every goal of the aim is for that state.
fn is_for_empty_alone(work: &Casework) -> bool {
    let asked = work.case().aim.as_ref().map_or(0, |aim| aim.goals.len());
    let of_empty = |place| work.goal(place).is_some_and(|goal| goal.when() == GoalCase::State(LoadState::Empty));
    work.found().height(End::Rear, LoadState::Empty).is_some() && asked > 0 && (0..asked).all(of_empty)
}

/// What the tape and the load still lack.
fn missing_on_tape(survey: &Survey) -> Vec<Missing> {
    let of_state = |state| {
        let lacks = |end| survey.height(end, state).is_none();
        match (lacks(End::Front), lacks(End::Rear)) {
            (true, true) => Some(Missing::Heights(state)),
            (true, false) => Some(Missing::Height(End::Front, state)),
            (false, true) => Some(Missing::Height(End::Rear, state)),
            (false, false) => None,
        }
    };
    let load = survey.load.is_none().then_some(Missing::Load);
    LoadState::BOTH.into_iter().filter_map(of_state).chain(load).collect()
}
