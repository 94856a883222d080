//! A control drive: a short route, scored before and after fitting.

use schemars::JsonSchema;
use serde::{Deserialize, Serialize};

/// What is scored.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, JsonSchema)]
#[serde(rename_all = "snake_case")]
pub enum Felt {
    /// Floats over crests.
    Float,
    /// Sways in bends.
    Sway,
    /// Bottoms over dips.
    Bottoming,
    /// Makes a noise.
    Noise,
    /// Something rubs.
    Rub,
}

/// When it was driven.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, JsonSchema)]
#[serde(rename_all = "snake_case")]
pub enum Run {
    /// As it came, empty.
    FoundEmpty,
    /// As it came, loaded.
    FoundLoaded,
    /// After fitting, empty.
    FittedEmpty,
    /// After fitting, loaded.
    FittedLoaded,
}

/// How much of it there was.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize, JsonSchema)]
#[serde(rename_all = "snake_case")]
pub enum Score {
    /// None.
    None,
    /// A little.
    Little,
    /// Much.
    Much,
}

impl Felt {
    /// Everything that is scored.
    pub const ALL: [Felt; 5] = [Felt::Float, Felt::Sway, Felt::Bottoming, Felt::Noise, Felt::Rub];
}

impl Run {
    /// Every run.
    pub const ALL: [Run; 4] = [Run::FoundEmpty, Run::FoundLoaded, Run::FittedEmpty, Run::FittedLoaded];

    /// The run before fitting that one after it is compared with.
    pub fn before(self) -> Option<Run> {
        match self {
            Run::FittedEmpty => Some(Run::FoundEmpty),
            Run::FittedLoaded => Some(Run::FoundLoaded),
            Run::FoundEmpty | Run::FoundLoaded => None,
        }
    }
}

impl Score {
    /// From the least.
    pub const ALL: [Score; 3] = [Score::None, Score::Little, Score::Much];
}

/// The drives of a job.
#[derive(Debug, Clone, PartialEq, Default, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct DriveEntry {
    /// The route, in words.
    pub route: String,
    /// What was felt.
    pub scores: Vec<(Run, Felt, Score)>,
    /// What else there is to say.
    pub words: String,
}

impl DriveEntry {
    /// A score, where one was given.
    pub fn score(&self, run: Run, felt: Felt) -> Option<Score> {
        self.scores.iter().find(|(of, what, _)| *of == run && *what == felt).map(|(_, _, score)| *score)
    }
}
