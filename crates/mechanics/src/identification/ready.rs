//! A vehicle made ready for the states it was read in: what was changed on it is laid out once, however many states have it so.

use super::experiment::{IdentificationError, in_state};
use crate::stance::{Change, Outcome, Solver, Stance, StanceError, State, Vehicle};
use crate::units::Force;

/// What leaf friction does in a state: how much an axle's springs push too much at each wheel.
pub(super) type Held<'n> = Vec<(&'n str, Force)>;

/// A vehicle, laid out with every set of changes that was asked for.
pub(super) struct Ready<'v> {
    vehicle: &'v Vehicle,
    laid_out: Vec<(&'v [Change], Solver<'v>)>,
}

impl<'v> Ready<'v> {
    pub(super) fn new(vehicle: &'v Vehicle) -> Self {
        Ready { vehicle, laid_out: Vec::with_capacity(1) }
    }

    /// Where it comes to rest in a state.
    ///
    /// # Errors     [`IdentificationError`] when it does not stand
    pub(super) fn settle(
        &mut self,
        state: &State,
        changes: &'v [Change],
        held: &Held<'_>,
    ) -> Result<Stance, IdentificationError> {
        let solver = self.with(changes).map_err(|source| in_state(state, source))?;
        solver.begin_at_kerb();
        match solver.settle_held(state, held).map_err(|source| in_state(state, source))? {
            Outcome::Settled(stance) => Ok(stance),
            Outcome::NoEquilibrium => Err(IdentificationError::Tips(state.name.clone())),
        }
    }

    fn with(&mut self, changes: &'v [Change]) -> Result<&mut Solver<'v>, StanceError> {
        let place = match self.laid_out.iter().position(|(with, _)| *with == changes) {
            Some(place) => place,
            None => {
                self.laid_out.push((changes, Solver::new(self.vehicle, changes)?));
                self.laid_out.len() - 1
            }
        };
        let (_, solver) = self.laid_out.get_mut(place).expect("found, or pushed just now");
        Ok(solver)
    }
}
