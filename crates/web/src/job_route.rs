//! Where a job stands on its route, what is missing, and what comes next.

use serde::{Deserialize, Serialize};
use wise_badger_casework::reading::Phase;
use wise_badger_casework::survey::{End, LoadState, Survey};
use wise_badger_casework::verdict::Overload;
use wise_badger_store::JobNumber;
use wise_badger_store::job_file::JobFile;

use crate::view::{end_name, state_name};

/// A stage of the route.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "snake_case")]
pub(crate) enum Stage {
    Intake,
    Load,
    Tape,
    LookOver,
    Verdict,
    Aim,
    Options,
    Bench,
    Proof,
}

impl Stage {
    pub(crate) const ALL: [Stage; 9] = [
        Stage::Intake,
        Stage::Load,
        Stage::Tape,
        Stage::LookOver,
        Stage::Verdict,
        Stage::Aim,
        Stage::Options,
        Stage::Bench,
        Stage::Proof,
    ];

    pub(crate) fn name(self) -> &'static str {
        match self {
            Stage::Intake => "Intake",
            Stage::Load => "Load",
            Stage::Tape => "Tape",
            Stage::LookOver => "Look-over",
            Stage::Verdict => "Verdict",
            Stage::Aim => "Aim",
            Stage::Options => "Options",
            Stage::Bench => "Bench",
            Stage::Proof => "Proof",
        }
    }

    pub(crate) fn path(self, number: JobNumber) -> String {
        self.path_of(number.0)
    }

    /// The path in the job of a number.
    pub(crate) fn path_of(self, number: i32) -> String {
        format!("/jobs/{number}/{}", self.name().to_lowercase())
    }
}

/// How far a job has come.
#[derive(Debug, Clone, Serialize, Deserialize)]
pub(crate) struct Standing {
    done: Vec<Stage>,
    /// What must happen next; `None` when the job is finished.
    pub(crate) next: Option<Stage>,
    /// That in words.
    pub(crate) words: String,
    /// Whether a rating is passed.
    pub(crate) over: bool,
    pub(crate) finished: bool,
}

impl Standing {
    pub(crate) fn of(file: &JobFile) -> Self {
        let survey = file.case.survey(Phase::Found);
        let missing = missing_on_tape(&survey);
        let over = Overload::of(&survey).is_some();
        let fitted = file.case.survey(Phase::Fitted);
        let proved = LoadState::BOTH.into_iter().any(|state| fitted.height(End::Rear, state).is_some());
        let finished = file.job.finished_at.is_some();
        let mut done = vec![Stage::Intake];
        // A job can do without a plan (a load may be told on Tape alone), and without the bench.
        done.extend(file.case.plan.as_ref().map(|_| Stage::Load));
        done.extend(file.case.bench.as_ref().map(|_| Stage::Bench));
        let stages = [
            (Stage::Tape, missing.is_empty()),
            // Before any part is chosen; what was chosen without is not asked for again.
            (Stage::LookOver, file.case.look_over.is_some() || file.fitting.is_some()),
            (Stage::Verdict, missing.is_empty()),
            (Stage::Aim, file.case.aim.is_some()),
            (Stage::Options, file.fitting.is_some() && !over),
            (Stage::Proof, proved),
        ];
        done.extend(stages.iter().filter(|(_, is_done)| *is_done).map(|(stage, _)| *stage));
        let open = stages.iter().find(|(_, is_done)| !is_done).map(|(stage, _)| *stage);
        let (next, words) = if finished {
            (None, "finished".to_owned())
        } else {
            match open {
                Some(Stage::Tape) => (open, format!("to measure: {}", missing.join(", "))),
                Some(Stage::LookOver) if over => (Some(Stage::Options), "over a rating: weight must come off".to_owned()),
                Some(Stage::LookOver) => (open, "to look over".to_owned()),
                Some(Stage::Aim) if over => (Some(Stage::Options), "over a rating: weight must come off".to_owned()),
                Some(Stage::Options) if over => (open, "over a rating: weight must come off".to_owned()),
                Some(Stage::Aim) => (open, "to set the aim".to_owned()),
                Some(Stage::Options) => (open, "to choose a correction".to_owned()),
                Some(Stage::Proof) => (open, "to fit and measure again".to_owned()),
                _ => (Some(Stage::Proof), "measured after fitting; to finish".to_owned()),
            }
        };
        Standing { done, next, words, over, finished }
    }

    pub(crate) fn is_done(&self, stage: Stage) -> bool {
        self.done.contains(&stage)
    }
}

/// What the tape and the load still lack, by name.
pub(crate) fn missing_on_tape(survey: &Survey) -> Vec<String> {
    let mut missing = Vec::new();
    for state in LoadState::BOTH {
        let lacks = |end| survey.height(end, state).is_none();
        match (lacks(End::Front), lacks(End::Rear)) {
            (true, true) => missing.push(format!("{} heights", state_name(state))),
            (true, false) => missing.push(format!("{} height {}", end_name(survey.vehicle.class, End::Front), state_name(state))),
            (false, true) => missing.push(format!("{} height {}", end_name(survey.vehicle.class, End::Rear), state_name(state))),
            (false, false) => {}
        }
    }
    if survey.load.is_none() {
        missing.push("what was put on".to_owned());
    }
    missing
}
