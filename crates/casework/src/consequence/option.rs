//! What the rows go by: an option, where it would leave the vehicle, and what was measured before.

use wise_badger_mechanics::correction::{Axles, Correction, MakesGood};
use wise_badger_mechanics::side::{Side, Sides};
use wise_badger_mechanics::units::{InShopUnits, Length};

use crate::bench::SideBench;
use crate::look_over::{LookOver, Measure};
use crate::prediction::{PredictedState, Prediction};
use crate::survey::{End, Survey};

/// Changes smaller than this nobody sees.
const NOTHING_M: f64 = 2e-4;

/// What the rows go by.
#[derive(Clone, Copy)]
pub struct OptionFitted<'a> {
    /// What was measured before it.
    pub survey: &'a Survey,
    /// Its parts.
    pub parts: &'a [Correction],
    /// Where it would leave the vehicle, where that is predicted.
    pub prediction: Option<&'a Prediction>,
    /// The benches that its packs were planned on.
    pub benches: &'a [SideBench],
    /// What was found and measured.
    pub look_over: &'a LookOver,
}

impl<'a> OptionFitted<'a> {
    pub(super) fn at(&self, end: End) -> impl Iterator<Item = &'a Correction> {
        self.parts.iter().filter(move |part| (part.site().axles == Axles::Front) == (end == End::Front))
    }

    /// What the parts at an end come to together.
    pub(super) fn together_at(&self, end: End, of: impl Fn(&Correction) -> Length) -> Length {
        together(self.at(end), of)
    }

    /// What the parts at an end make good.
    pub(super) fn made_good_at(&self, end: End, what: MakesGood) -> Length {
        self.together_at(end, |part| part.makes_good(what))
    }

    pub(super) fn empty(&self) -> Option<&'a PredictedState> {
        self.prediction?.empty.as_ref().ok()
    }

    /// How far the frame comes up off its axle at an end, empty: larger tires raise both.
    pub(super) fn rise(&self, end: End) -> Option<Length> {
        let sides = self.empty()?.off_the_axle.get(end);
        Some((sides.left + sides.right) / 2.0)
    }

    /// How far the mounts of an end's shocks come apart empty, on the side where that is most: what goes up with the shock takes it along.
    pub(super) fn apart(&self, end: End) -> Option<Length> {
        let sides = self.empty()?.off_the_axle.get(end);
        Some(sides.left.max(sides.right) - self.together_at(end, Correction::takes_the_shock_along))
    }

    pub(super) fn measured(&self, what: Measure) -> Option<Length> {
        self.look_over.measured(what)
    }
}

/// What parts of one end come to together, on the side where that is most: parts on either side do not add up.
pub(super) fn together<'a>(parts: impl Iterator<Item = &'a Correction>, of: impl Fn(&Correction) -> Length) -> Length {
    let mut sides = Sides::both(Length::default());
    for part in parts {
        for side in Side::BOTH.into_iter().filter(|side| part.site().side.is_none_or(|only| only == *side)) {
            *sides.get_mut(side) += of(part);
        }
    }
    if sides.right.abs() > sides.left.abs() { sides.right } else { sides.left }
}

pub(super) fn is_something(length: Length) -> bool {
    length.si().abs() > NOTHING_M
}
