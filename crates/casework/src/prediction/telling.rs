//! What an account of the readings says beside the springs' one rate.

use crate::survey::LoadState;
use wise_badger_mechanics::units::Length;

/// What an account says beside the springs' one rate.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub(super) struct Telling {
    /// A second stage of the rear springs.
    pub(super) stage: Option<StageTold>,
    /// Rear stops that push back.
    pub(super) stop: Option<StopTold>,
    /// A reading that was misread.
    pub(super) misread: Option<Misread>,
}

/// A second stage as an account has it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(super) struct StageTold {
    /// Travel from empty at which it joins in.
    pub(super) from: Length,
    /// Standard deviation of it, as a share.
    pub(super) from_sd: f64,
    /// What it adds, as a multiple of the first rate.
    pub(super) adds: f64,
}

/// Stops as an account has them.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(super) struct StopTold {
    /// Clearance empty.
    pub(super) gap: Length,
    /// Standard deviation of it, as a share.
    pub(super) gap_sd: f64,
}

/// What of the rear was misread.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Misread {
    /// In which state.
    pub state: LoadState,
    /// Whether it is the clearance at the stops; otherwise the height.
    pub gap: bool,
}
