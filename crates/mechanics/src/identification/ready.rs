//! A vehicle made ready for the states it was read in: what was changed on it is laid out once, however many states have it so.

use super::experiment::{IdentificationError, in_state};
use crate::stance::{Change, Solver, Stance, StanceError, State, Vehicle};
use crate::units::Force;

/// What leaf friction does in a state: how much an axle's springs push too much at each wheel.
pub(super) type Held<'n> = Vec<(&'n str, Force)>;

/// A vehicle, laid out with every set of changes that was asked for.
pub(super) struct Ready<'v> {
    vehicle: &'v Vehicle,
    laid_out: Vec<LaidOut<'v>>,
}

/// With one set of changes: ready to be solved, and where it stood last.
struct LaidOut<'v> {
    changes: &'v [Change],
    solver: Solver<'v>,
    stance: Stance,
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
    ) -> Result<&Stance, IdentificationError> {
        let LaidOut { solver, stance, .. } = self.with(changes).map_err(|source| in_state(state, source))?;
        solver.begin_at_kerb();
        match solver.settle_held(state, held, stance).map_err(|source| in_state(state, source))? {
            true => Ok(stance),
            false => Err(IdentificationError::Tips(state.name.clone())),
        }
    }

    fn with(&mut self, changes: &'v [Change]) -> Result<&mut LaidOut<'v>, StanceError> {
        let place = match self.laid_out.iter().position(|there| std::ptr::eq(there.changes, changes) || there.changes == changes)
        {
            Some(place) => place,
            None => {
                let solver = Solver::new(self.vehicle, changes)?;
                self.laid_out.push(LaidOut { changes, stance: solver.unread(), solver });
                self.laid_out.len() - 1
            }
        };
        Ok(self.laid_out.get_mut(place).expect("found, or pushed just now"))
    }
}
