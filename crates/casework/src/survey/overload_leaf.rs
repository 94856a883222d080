//! Where the overload leaves bear, as somebody looked, and where they join in.

use wise_badger_mechanics::units::{Length, inches};

use super::{LoadState, States, Survey};

/// What was seen of the overload leaves.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct OverloadLeaves {
    /// Whether any half of them bears in a state; nothing where nobody looked.
    pub bears: States<Option<bool>>,
    /// Gap to the pad they bear on, empty, where it was read.
    pub pad_gap: Option<Length>,
}

/// Travel of the springs from empty at which an overload leaf joins in.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct SecondStage {
    /// The travel.
    pub from: Length,
    /// Standard deviation of it, as a share.
    pub relative_sd: f64,
    /// Whether its gap was read, and not only usual for the class.
    pub read: bool,
}

/// Standard deviation of a gap to a pad, read with a rule (our own working rule).
const PAD_GAP_SD_IN: f64 = 1.0 / 8.0;

impl Survey {
    /// Where the overload leaf joins in: by its gap where that was read, as usual for the class where nobody looked. `None` where there
    /// is none, or where it bears from empty on and is part of the rate.
    pub fn second_stage(&self) -> Option<SecondStage> {
        let bears = |state| self.overload_leaves.bears.get(state).copied().flatten();
        if bears(LoadState::Empty) == Some(true) {
            return None;
        }
        match self.overload_leaves.pad_gap {
            Some(gap) => {
                let relative_sd = (inches(PAD_GAP_SD_IN) / gap.max(inches(PAD_GAP_SD_IN))).value;
                Some(SecondStage { from: gap, relative_sd, read: true })
            }
            None => {
                let from = self.vehicle.assumptions().second_stage_from?;
                Some(SecondStage { from, relative_sd: super::ASSUMED_RATE_SD, read: false })
            }
        }
    }

    /// Whether somebody read its gap, or saw it bear with a load on and not without.
    pub fn has_seen_its_overload_leaf(&self) -> bool {
        let bears = &self.overload_leaves.bears;
        let empty = bears.get(LoadState::Empty).copied().flatten();
        let with_a_load_on = self.states().any(|state| bears.get(state).copied().flatten() == Some(true));
        empty != Some(true) && (self.overload_leaves.pad_gap.is_some() || with_a_load_on)
    }

    /// Whether the overload leaf was reached once the springs came down by so much: as seen, or else by where it joins in.
    pub fn is_past_second_stage(&self, down: Length) -> bool {
        let stage = self.second_stage();
        let seen = self.overload_leaves.bears.get(LoadState::Loaded).copied().flatten();
        stage.is_some_and(|stage| seen.unwrap_or(down > stage.from))
    }
}
