//! How far a combination leans, to first order: nothing is solved for it, so that every combination is held to it.

use wise_badger_mechanics::correction::{Axles, Correction};
use wise_badger_mechanics::side::Side;
use wise_badger_mechanics::units::{InShopUnits, Length, inches, metres};

use crate::aim::TargetBand;
use crate::survey::{End, Ends, LoadState, Survey};

/// What is on one side lifts the middle by half of what it lifts its side, and on bare springs leans the body by all of that; a stiff bar
/// leaves half of it.
const OF_TWICE_THE_RISE: f64 = 0.75;
/// How far off that is, and what is left open of a lean that a new pair takes out, as shares.
const SHARE_OFF: f64 = 0.25;
/// What the tape leaves open of a lean.
const TAPE_IN: f64 = 0.125;

/// A lean that a goal speaks of.
pub(super) struct Leaning {
    end: End,
    /// Right above left as it stands, m.
    stands: f64,
    /// The same empty, m.
    empty: f64,
    pub(super) band: TargetBand,
    pub(super) moment: usize,
}

impl Leaning {
    /// The lean of an end in a state; `None` where it was not read.
    pub(super) fn of(survey: &Survey, end: End, state: LoadState, band: TargetBand, moment: usize) -> Option<Self> {
        let (stands, empty) = (survey.lean(end, state)?, survey.lean(end, LoadState::Empty).unwrap_or_default());
        Some(Leaning { end, stands: stands.si(), empty: empty.si(), band, moment })
    }

    /// What it comes to with some parts, each with how far it lifts both ends by itself; and how sure that is.
    pub(super) fn with(&self, parts: &[(&Correction, Ends<f64>)]) -> (Length, f64) {
        let here = |part: &Correction| (part.site().axles == Axles::Front) == (self.end == End::Front);
        let taken_out = if parts.iter().any(|(part, _)| here(part) && part.renews_the_pair()) { self.empty } else { 0.0 };
        let one_sided = parts.iter().filter(|(part, _)| here(part)).filter_map(|(part, rises)| {
            Some(2.0 * rises.get(self.end) * if part.site().side? == Side::Left { -1.0 } else { 1.0 })
        });
        let moved = OF_TWICE_THE_RISE * one_sided.sum::<f64>();
        let off = [inches(TAPE_IN).si(), SHARE_OFF * moved, SHARE_OFF * taken_out];
        (metres(self.stands - taken_out + moved), off.into_iter().fold(0.0, f64::hypot))
    }
}
