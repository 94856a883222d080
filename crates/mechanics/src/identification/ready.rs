//! A vehicle made ready for the states it was read in: what was changed on it is laid out once, however many states have it so.

use super::experiment::{IdentificationError, in_state};
use crate::stance::{Change, Solver, Stance, StanceError, State, Vehicle};
use crate::units::Force;

/// What leaf friction does in a state: how much an axle's springs push too much at each wheel.
pub(super) type Held<'n> = Vec<(&'n str, Force)>;

/// A vehicle, laid out with every set of changes that was asked for.
pub(super) struct Ready<'v> {
    vehicle: &'v Vehicle,
    /// First those of this vehicle, and then what was laid out of another before: of use as room alone.
    laid_out: Vec<LaidOut<'v>>,
    of_this: usize,
}

/// With one set of changes: ready to be solved, and where it stood last.
struct LaidOut<'v> {
    changes: &'v [Change],
    solver: Solver<'v>,
    stance: Stance,
}

impl<'v> Ready<'v> {
    pub(super) fn new(vehicle: &'v Vehicle) -> Self {
        Ready { vehicle, laid_out: Vec::with_capacity(1), of_this: 0 }
    }

    /// Goes on to another vehicle, of the same axles and with the same sets of changes: one whose figures alone are others.
    pub(super) fn turn_to(&mut self, vehicle: &'v Vehicle) {
        (self.vehicle, self.of_this) = (vehicle, 0);
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
        let has_them = |there: &LaidOut<'_>| std::ptr::eq(there.changes, changes) || there.changes == changes;
        let place = match self.laid_out.iter().take(self.of_this).position(has_them) {
            Some(place) => place,
            None => {
                match self.laid_out.get_mut(self.of_this) {
                    Some(room) => {
                        room.solver.turn_to(self.vehicle, changes)?;
                        room.changes = changes;
                        if !room.solver.reads_into(&room.stance) {
                            room.stance = room.solver.unread();
                        }
                    }
                    None => {
                        let solver = Solver::new(self.vehicle, changes)?;
                        self.laid_out.push(LaidOut { changes, stance: solver.unread(), solver });
                    }
                }
                self.of_this += 1;
                self.of_this - 1
            }
        };
        Ok(self.laid_out.get_mut(place).expect("found, or laid out just now"))
    }
}
