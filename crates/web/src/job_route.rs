//! The stages of a job as the program shows them: what each is called and where it is found.

use wise_badger_casework::casework::Casework;
use wise_badger_casework::route::{Missing, Progress, Stage, ToDo};
use wise_badger_casework::survey::VehicleClass;
use wise_badger_casework::words::Word;
use wise_badger_store::JobNumber;

use crate::view::{end_name, state_name};

/// What a stage is called, and its place under the job's path; in the order of the route.
const STAGES: [(Stage, &str, &str); 11] = [
    (Stage::Intake, "Intake", "intake"),
    (Stage::Load, "Load", "load"),
    (Stage::Tape, "Tape", "tape"),
    (Stage::LookOver, "Look-over", "look-over"),
    (Stage::Verdict, "Verdict", "verdict"),
    (Stage::Aim, "Aim", "aim"),
    (Stage::Options, "Options", "options"),
    (Stage::Bench, "Bench", "bench"),
    (Stage::Plan, "Plan", "plan"),
    (Stage::Wrench, "Wrench", "wrench"),
    (Stage::Proof, "Proof", "proof"),
];

/// A stage as it is shown.
pub(crate) trait StageWords {
    /// What it is called.
    fn name(self) -> &'static str;

    /// The path in the job of a number.
    fn path_of(self, number: i32) -> String;

    /// The path in a job.
    fn path(self, number: JobNumber) -> String;
}

fn row(stage: Stage) -> (&'static str, &'static str) {
    STAGES.iter().find(|(of, ..)| *of == stage).map_or((stage.word(), stage.word()), |(_, name, path)| (name, path))
}

impl StageWords for Stage {
    fn name(self) -> &'static str {
        row(self).0
    }

    fn path_of(self, number: i32) -> String {
        format!("/jobs/{number}/{}", row(self).1)
    }

    fn path(self, number: JobNumber) -> String {
        self.path_of(number.0)
    }
}

/// Every stage, in the order of the route.
pub(crate) fn stages() -> impl Iterator<Item = Stage> {
    Stage::WORDS.iter().map(|(stage, _)| *stage)
}

/// A stage with its place on the route, like “Tape, 3 of 10”.
pub(crate) fn place_of(stage: Stage) -> String {
    let place = stages().position(|of| of == stage).map_or(0, |place| place + 1);
    format!("{}, {place} of {}", stage.name(), stages().count())
}

/// What must happen next, in words.
pub(crate) fn to_do_words(progress: &Progress, class: Option<VehicleClass>) -> String {
    match &progress.to_do {
        ToDo::Measure(missing) => format!("to measure: {}", missing_words(missing, class).join(", ")),
        ToDo::TakeWeightOff => "over a rating: weight must come off".to_owned(),
        ToDo::LookOver => "to look over".to_owned(),
        ToDo::SetTheAim => "to set the aim".to_owned(),
        ToDo::Choose => "to choose a correction".to_owned(),
        ToDo::PlanTheWork => "to plan the work".to_owned(),
        ToDo::FitAndMeasure => "to fit and measure again".to_owned(),
        ToDo::Finish => "measured after fitting; to finish".to_owned(),
        ToDo::Nothing => "finished".to_owned(),
    }
}

/// What the tape and the load still lack, by name; nothing once the job has gone on without.
pub(crate) fn missing(work: &Casework) -> Vec<String> {
    match Progress::of(work, false).to_do {
        ToDo::Measure(missing) => missing_words(&missing, Some(work.found().vehicle.class)),
        _ => Vec::new(),
    }
}

fn missing_words(missing: &[Missing], class: Option<VehicleClass>) -> Vec<String> {
    let class = class.unwrap_or(VehicleClass::HalfTonPickup);
    let words = |missing: &Missing| match missing {
        Missing::Heights(state) => format!("{} heights", state_name(*state)),
        Missing::Height(end, state) => format!("{} height {}", end_name(class, *end), state_name(*state)),
        Missing::Load => "what was put on".to_owned(),
    };
    missing.iter().map(words).collect()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_stage_has_a_name_and_a_path_of_its_own() {
        let shown: Vec<Stage> = STAGES.iter().map(|(stage, ..)| *stage).collect();
        assert_eq!(shown, stages().collect::<Vec<_>>());
    }
}
