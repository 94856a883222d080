//! What counts, and by how much.

use serde::{Deserialize, Serialize};

/// What counts, and by how much; a weight of nought is nought.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[serde(default)]
pub struct Weights {
    /// That the aim is met.
    pub aim: f64,
    /// That it puts right what was found to be behind it.
    pub cause: f64,
    /// How it rides.
    pub ride: f64,
    /// That it wants no upkeep.
    pub upkeep: f64,
    /// That it comes off again.
    pub removable: f64,
    /// What it costs.
    pub price: f64,
    /// How long it takes, and how soon it can be done.
    pub time: f64,
    /// What it leaves at the stops for what is planned.
    pub headroom: f64,
}

impl Default for Weights {
    /// As a shop begins (our own working rule).
    fn default() -> Self {
        Weights { aim: 50.0, cause: 20.0, ride: 12.0, upkeep: 6.0, removable: 3.0, price: 10.0, time: 6.0, headroom: 5.0 }
    }
}

impl Weights {
    /// Every weight by the word it goes by.
    pub fn each(&self) -> [(&'static str, f64); 8] {
        [
            ("aim", self.aim),
            ("cause", self.cause),
            ("ride", self.ride),
            ("upkeep", self.upkeep),
            ("removable", self.removable),
            ("price", self.price),
            ("time", self.time),
            ("headroom", self.headroom),
        ]
    }
}
