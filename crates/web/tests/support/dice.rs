//! Chance that can be run again: the same seed throws the same.

use rand::rngs::StdRng;
use rand::{RngExt, SeedableRng};

/// Seeded dice.
pub(crate) struct Dice(StdRng);

impl Dice {
    pub(crate) fn new(seed: u64) -> Self {
        Dice(StdRng::seed_from_u64(seed))
    }

    /// A number below another.
    pub(crate) fn below(&mut self, most: usize) -> usize {
        self.0.random_range(0..most.max(1))
    }

    /// Once in so many throws.
    #[allow(dead_code, reason = "not every test throws so")]
    pub(crate) fn once_in(&mut self, throws: usize) -> bool {
        self.below(throws) == 0
    }

    /// One of several.
    pub(crate) fn pick<'a, T>(&mut self, among: &'a [T]) -> &'a T {
        let index = self.below(among.len());
        &among[index]
    }
}

/// A number told by the environment, or a usual one.
pub(crate) fn told(name: &str, usual: u64) -> u64 {
    std::env::var(name).ok().and_then(|text| text.parse().ok()).unwrap_or(usual)
}
