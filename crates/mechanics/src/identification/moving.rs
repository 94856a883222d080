//! Which figures a forecast moves.

use super::doubt::Doubt;
use super::experiment::{Experiment, Unknown};

/// Which figures a forecast moves. The slopes of the others are not known by it.
#[derive(Clone, Copy)]
pub enum Moving<'m> {
    /// Every one.
    Everything,
    /// These doubts about the vehicle, and every load.
    These(&'m dyn Fn(&Doubt) -> bool),
    /// None: only where the vehicle stands at the best figures.
    Nothing,
}

impl Moving<'_> {
    /// Whether a forecast moves a figure of an experiment.
    pub(super) fn moves(self, experiment: &Experiment, figure: &Unknown) -> bool {
        match (self, figure) {
            (Moving::Nothing, _) => false,
            (Moving::These(which), Unknown::Doubt(index)) => experiment.doubts.get(*index).is_some_and(which),
            (Moving::Everything | Moving::These(_), _) => true,
        }
    }
}
