//! A truck with a trailer coupled by the ball.

use super::outcome::{Outcome, Stance};
use super::solver::Solver;
use super::state::{Load, State};
use super::vehicle::{StanceError, Vehicle};
use crate::units::{Force, InShopUnits, Length, metres, newtons};

/// Where a truck's ball sits.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Ball {
    /// Rearward from the truck's front axle.
    pub position: Length,
    /// To the right of the middle.
    pub lateral: Length,
    /// How much higher the ball stands, truck at kerb and uncoupled, than the trailer's coupler at the trailer's kerb.
    pub above_coupler: Length,
}

/// How a coupled truck and trailer stand.
#[derive(Debug, Clone, PartialEq)]
pub struct Train {
    /// The truck, tongue weight and all.
    pub truck: Stance,
    /// The trailer at the height the ball holds it.
    pub trailer: Stance,
    /// What the trailer presses on the ball; negative when it lifts the truck's rear.
    pub tongue_weight: Force,
    /// How far the ball went from where it stood uncoupled.
    pub ball_rise: Length,
}

/// Ball and coupler meet to within this height, m.
const MEET: f64 = 1e-9;
const MOST_ROUNDS: usize = 60;

/// Finds where a truck and its trailer come to rest together: the height at which the ball, under the tongue
/// weight that the trailer has at that height, stands at that height. `None` when either tips.
///
/// The tongue weight hardly depends on the height, so the search (regula falsi on bracketed heights, the Illinois
/// way of it) ends in a few rounds.
///
/// # Sign       as the module's page; the trailer's `coupler_rise` is decided here, whatever its state says
/// # Errors     as [`super::settle`]; [`StanceError::NotConverged`] when ball and coupler do not meet
/// # Source     Dowell and Jarratt, "A modified regula falsi method", BIT 11 (1971), for the search
pub fn settle_train(truck: (&Vehicle, &State), ball: &Ball, trailer: (&Vehicle, &State)) -> Result<Option<Train>, StanceError> {
    let mut search = Search {
        truck: Solver::new(truck.0, &truck.1.changes)?,
        truck_state: truck.1.clone(),
        trailer: Solver::new(trailer.0, &trailer.1.changes)?,
        trailer_state: trailer.1.clone(),
        ball: *ball,
    };
    search.truck_state.loads.push(Load::at(newtons(0.0), ball.position));
    let Some((mut low, mut at_low)) = search.mismatch(-0.5)? else { return Ok(None) };
    let Some((mut high, mut at_high)) = search.mismatch(0.5)? else { return Ok(None) };
    for _ in 0..MOST_ROUNDS {
        // Nought of the line through both ends.
        let rise = low - at_low.gap * (high - low) / (at_high.gap - at_low.gap);
        let Some((rise, meeting)) = search.mismatch(rise)? else { return Ok(None) };
        if meeting.gap.abs() < MEET {
            return Ok(Some(meeting.into_train(metres(rise))));
        }
        if (meeting.gap > 0.0) == (at_high.gap > 0.0) {
            (high, at_high) = (rise, meeting);
            at_low.gap *= 0.5;
        } else {
            (low, at_low) = (rise, meeting);
            at_high.gap *= 0.5;
        }
    }
    Err(StanceError::NotConverged { residual_n: at_low.gap.abs().min(at_high.gap.abs()) })
}

struct Search<'a> {
    truck: Solver<'a>,
    truck_state: State,
    trailer: Solver<'a>,
    trailer_state: State,
    ball: Ball,
}

/// Both at one height of the ball, and by how much they miss each other.
struct Meeting {
    truck: Stance,
    trailer: Stance,
    tongue_weight: f64,
    gap: f64,
}

impl Meeting {
    fn into_train(self, ball_rise: Length) -> Train {
        Train { truck: self.truck, trailer: self.trailer, tongue_weight: newtons(self.tongue_weight), ball_rise }
    }
}

impl Search<'_> {
    /// How far the ball would go past a rise, under the tongue weight that this rise makes.
    fn mismatch(&mut self, rise: f64) -> Result<Option<(f64, Meeting)>, StanceError> {
        self.trailer_state.coupler_rise = metres(rise) + self.ball.above_coupler;
        let Outcome::Settled(trailer) = self.trailer.settle(&self.trailer_state)? else { return Ok(None) };
        let tongue_weight = trailer.tongue_weight.map_or(0.0, |weight| weight.si());
        let Some(truck) = self.truck_under(tongue_weight)? else { return Ok(None) };
        let ball = truck.heave.si() + self.ball.position.si() * truck.pitch.value + self.ball.lateral.si() * truck.roll.value;
        Ok(Some((rise, Meeting { truck, trailer, tongue_weight, gap: rise - ball })))
    }

    fn truck_under(&mut self, tongue_weight: f64) -> Result<Option<Stance>, StanceError> {
        if let Some(load) = self.truck_state.loads.last_mut() {
            *load =
                Load { weight: newtons(tongue_weight), lateral: self.ball.lateral, ..Load::at(newtons(0.0), self.ball.position) };
        }
        match self.truck.settle_with_lift(&self.truck_state)? {
            Outcome::Settled(stance) => Ok(Some(stance)),
            Outcome::NoEquilibrium => Ok(None),
        }
    }
}
