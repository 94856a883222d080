//! How far a combination leans, to first order: nothing is solved for it, so that every combination is held to it.

use wise_badger_mechanics::correction::{Axles, Correction};
use wise_badger_mechanics::side::Side;
use wise_badger_mechanics::uncertain::Uncertain;
use wise_badger_mechanics::units::{InShopUnits, Length, metres};

use crate::aim::TargetBand;
use crate::prediction::lean_taken_out;
use crate::survey::{End, Ends, LoadState, Survey};

/// What is on one side lifts the middle by half of what it lifts its side, and on bare springs leans the body by all of that; a stiff bar
/// leaves half of it.
const OF_TWICE_THE_RISE: f64 = 0.75;
/// How far off that is, as a share.
const SHARE_OFF: f64 = 0.25;

/// A lean that a goal speaks of.
pub(super) struct Leaning<'s> {
    survey: &'s Survey,
    end: End,
    /// Right above left as it stands.
    stands: Uncertain<Length>,
    pub(super) band: TargetBand,
    pub(super) moment: usize,
}

impl<'s> Leaning<'s> {
    /// The lean of an end in a state; `None` where it was not read.
    pub(super) fn of(survey: &'s Survey, end: End, state: LoadState, band: TargetBand, moment: usize) -> Option<Self> {
        let stands = Uncertain::new(survey.lean(end, state)?, 2.0 * survey.half_lean_sd(end, state)?);
        Some(Leaning { survey, end, stands, band, moment })
    }

    /// What it comes to with some parts, each with how far it lifts both ends by itself; and how sure that is.
    pub(super) fn with(&self, parts: &[(&Correction, Ends<f64>)]) -> (Length, f64) {
        let here = |part: &Correction| (part.site().axles == Axles::Front) == (self.end == End::Front);
        let taken_out = lean_taken_out(self.survey, self.end, parts.iter().map(|(part, _)| *part));
        let one_sided = parts.iter().filter(|(part, _)| here(part)).filter_map(|(part, rises)| {
            Some(2.0 * rises.get(self.end) * if part.site().side? == Side::Left { -1.0 } else { 1.0 })
        });
        let moved = OF_TWICE_THE_RISE * one_sided.sum::<f64>();
        let off = [self.stands.sd.si(), SHARE_OFF * moved, taken_out.sd.si()];
        (self.stands.value - taken_out.value + metres(moved), off.into_iter().fold(0.0, f64::hypot))
    }
}
