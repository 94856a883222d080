//! From a vehicle and a state to where it sits.

use std::sync::Arc;

use super::assembly::{Assembly, Clearance};
use super::changes::changed_axles;
use super::frequency::bounce_frequency;
use super::newton::{Rest, Workspace, minimise};
use super::outcome::{AxleStance, Effort, ElementGap, Outcome, Stance};
use super::state::{Change, State};
use super::unknowns::{HEAVE, PITCH, ROLL, wheel};
use super::vehicle::{Axle, StanceError, Vehicle};
use super::weights::Weights;
use crate::side::{Side, Sides};
use crate::units::{Force, InShopUnits, Length, metres, newtons, newtons_per_metre, radians};

/// Finds where a vehicle sits in a state.
///
/// Minimises the potential energy of springs, stops, air, tyres and weights over heave, pitch, roll, wheel
/// heights and rockers. A vehicle that goes over is an answer ([`Outcome::NoEquilibrium`]), and so is a
/// wheel off the ground (its load is nought).
///
/// # Sign       see the module's page
/// # Valid      small angles; level ground; any load and change the checks let through
/// # Errors     [`StanceError`] names the quantity that has no meaning, or says that no balance was found
/// # Source     virtual work; any statics text. Lever arms and series springs check it in `tests/`
pub fn settle(vehicle: &Vehicle, state: &State) -> Result<Outcome, StanceError> {
    Solver::new(vehicle, &state.changes)?.settle(state)
}

/// A vehicle with its changes made ready once, to be solved under one load after another.
///
/// Each solve starts where the last one ended.
pub struct Solver<'a> {
    vehicle: &'a Vehicle,
    /// Names of axles and points, as every answer carries them.
    axle_names: Vec<Arc<str>>,
    point_names: Vec<Arc<str>>,
    assembly: Assembly<'a>,
    weights: Weights,
    room: Workspace,
}

impl<'a> Solver<'a> {
    /// Makes a vehicle with changes ready.
    ///
    /// # Errors     [`StanceError`] names the quantity that has no meaning
    pub fn new(vehicle: &'a Vehicle, changes: &'a [Change]) -> Result<Self, StanceError> {
        vehicle.check()?;
        let assembly = Assembly::new(vehicle, &changed_axles(vehicle, changes)?)?;
        let (weights, room) = (Weights::new(assembly.unknowns), Workspace::new(&assembly));
        let axle_names = vehicle.axles.iter().map(|axle| axle.name.as_str().into()).collect();
        let point_names = vehicle.points.iter().map(|point| point.name.as_str().into()).collect();
        Ok(Solver { vehicle, axle_names, point_names, assembly, weights, room })
    }

    /// Makes another vehicle ready in the room of this one: one with the same axles and points, whose figures alone are others.
    ///
    /// # Errors     [`StanceError`] names the quantity that has no meaning; until it was made ready again nothing can be solved
    pub(crate) fn turn_to(&mut self, vehicle: &'a Vehicle, changes: &'a [Change]) -> Result<(), StanceError> {
        vehicle.check()?;
        self.assembly.lay_out(vehicle, &changed_axles(vehicle, changes)?)?;
        self.room.make_ready(&self.assembly);
        self.vehicle = vehicle;
        Ok(())
    }

    /// Begins the next solve at the kerb state, so that its answer owes nothing to what was solved before.
    pub fn begin_at_kerb(&mut self) {
        let empty = || {
            let mut empty = Weights::new(self.assembly.unknowns);
            empty.weigh(self.vehicle, &State::with_loads("", Vec::new()));
            empty
        };
        self.room.begin_at_kerb(&self.assembly, empty);
    }

    /// Finds where it sits under a state's loads. The state's own changes are not looked at: they were given before.
    ///
    /// # Errors     as [`settle`]
    pub fn settle(&mut self, state: &State) -> Result<Outcome, StanceError> {
        state.check()?;
        self.settle_with_lift(state)
    }

    /// The same where a load may be negative: a trailer heavy behind lifts the ball.
    pub(crate) fn settle_with_lift(&mut self, state: &State) -> Result<Outcome, StanceError> {
        Ok(self.balance(state, &[])?.map_or(Outcome::NoEquilibrium, |effort| {
            let mut stance = self.unread();
            self.read(effort, &mut stance);
            Outcome::Settled(stance)
        }))
    }

    /// The same where some axles' springs push more at each wheel than their length says, as leaves do that rub on each other. The
    /// answer is read into `stance`, one of [`Self::unread`]; false where nothing was read since the vehicle does not stand.
    pub(crate) fn settle_held(
        &mut self,
        state: &State,
        held: &[(&str, Force)],
        stance: &mut Stance,
    ) -> Result<bool, StanceError> {
        let effort = self.balance(state, held)?;
        Ok(effort.map(|effort| self.read(effort, stance)).is_some())
    }

    fn balance(&mut self, state: &State, held: &[(&str, Force)]) -> Result<Option<Effort>, StanceError> {
        self.weigh(state, held);
        match minimise(&self.assembly, &self.weights, &mut self.room) {
            Ok(Rest::Balanced(effort)) => Ok(Some(effort)),
            ended => {
                // What the iteration left behind may be no number, and the next solve would build on it.
                self.room.make_ready(&self.assembly);
                ended.map(|_| None)
            }
        }
    }

    fn weigh(&mut self, state: &State, held: &[(&str, Force)]) {
        self.weights.weigh(self.vehicle, state);
        for (axle, force) in held {
            let place = self.vehicle.axles.iter().position(|there| there.name == *axle);
            if let Some(springs) = place.and_then(|place| self.assembly.springs.get(place)) {
                for side in Side::BOTH {
                    springs.get(side).add_to(&mut self.weights.gradient, force.si());
                }
            }
        }
    }

    /// A stance of the vehicle with room for every answer, and nothing in it yet.
    pub(crate) fn unread(&self) -> Stance {
        let axle = |(index, name): (usize, &Arc<str>)| {
            let of_axle = self.assembly.clearances.iter().filter(move |clearance| clearance.axle == index);
            let gap = |place: &Clearance| ElementGap { side: place.side, element: Arc::clone(&place.element), gap: metres(0.0) };
            AxleStance {
                name: Arc::clone(name),
                ground_to_arch_change: Sides::both(metres(0.0)),
                hub_to_arch_change: Sides::both(metres(0.0)),
                wheel_loads: Sides::both(newtons(0.0)),
                gaps: of_axle.map(gap).collect(),
                spring_rate: newtons_per_metre(0.0),
                shut_in_rate: newtons_per_metre(0.0),
                ride_frequency: None,
            }
        };
        Stance {
            heave: metres(0.0),
            pitch: radians(0.0),
            roll: radians(0.0),
            axles: self.axle_names.iter().enumerate().map(axle).collect(),
            points: self.point_names.iter().map(|name| (Arc::clone(name), metres(0.0))).collect(),
            tongue_weight: None,
            effort: Effort { steps: 0, left_over: 0.0 },
        }
    }

    /// Whether a stance has room for every answer of the vehicle as it is laid out now.
    pub(crate) fn reads_into(&self, stance: &Stance) -> bool {
        let of_axle = |index: usize| self.assembly.clearances.iter().filter(move |clearance| clearance.axle == index);
        let same = |(index, axle): (usize, &AxleStance)| {
            of_axle(index).map(|place| (place.side, &place.element)).eq(axle.gaps.iter().map(|gap| (gap.side, &gap.element)))
        };
        stance.axles.iter().enumerate().all(same)
    }

    fn read(&self, effort: Effort, stance: &mut Stance) {
        let weights = &self.weights;
        let at = |unknown: usize| self.room.q.get(unknown).copied().unwrap_or(0.0);
        let (pitch, roll) = (at(PITCH), at(ROLL));
        let heave = match &self.vehicle.coupler {
            None => at(HEAVE),
            // z + xθ + yφ = the coupler's rise.
            Some(coupler) => weights.coupler_rise - coupler.position.si() * pitch - coupler.lateral.si() * roll,
        };
        let rise = |x: f64, y: f64| heave + x * pitch + y * roll;
        for (index, (axle, read)) in self.vehicle.axles.iter().zip(&mut stance.axles).enumerate() {
            self.read_axle(index, axle, read, &rise);
        }
        for (point, (_, read)) in self.vehicle.points.iter().zip(&mut stance.points) {
            *read = metres(rise(point.position.si(), point.lateral.si()));
        }
        stance.tongue_weight = self.vehicle.coupler.map(|coupler| {
            // What the axles do not carry of kerb weight and loads.
            let carried: f64 = stance.axles.iter().map(|axle| axle.load().si()).sum();
            let at_kerb: f64 = self.vehicle.axles.iter().map(|axle| axle.kerb_load().si()).sum();
            newtons(coupler.kerb_load.si() + weights.added + at_kerb - carried)
        });
        (stance.heave, stance.pitch, stance.roll) = (metres(heave), radians(pitch), radians(roll));
        stance.effort = effort;
    }

    fn read_axle(&self, index: usize, axle: &Axle, read: &mut AxleStance, rise: &dyn Fn(f64, f64) -> f64) {
        let (q, coupler_rise) = (&self.room.q, self.weights.coupler_rise);
        let wheel_rise = |side| q.get(wheel(index, side)).copied().unwrap_or(0.0);
        let ground: Sides<Length> = Sides::from_fn(|side| metres(rise(axle.position.si(), axle.arch_lateral(side))));
        read.ground_to_arch_change = ground;
        read.hub_to_arch_change = Sides::from_fn(|side| *ground.get(side) - metres(wheel_rise(side)));
        read.wheel_loads = Sides::from_fn(|side| {
            let tyre = self.assembly.tyres.get(index).and_then(|tyres| self.assembly.lines.get(*tyres.get(side)));
            newtons(tyre.map_or(0.0, |tyre| self.assembly.force(tyre, q, coupler_rise).0))
        });
        let of_axle = self.assembly.clearances.iter().filter(|clearance| clearance.axle == index);
        for (place, read) in of_axle.zip(&mut read.gaps) {
            read.gap = metres(place.clearance - place.row.stroke(q, coupler_rise));
        }
        let wheel_rate = self.assembly.wheel_rate(index, &self.room);
        read.spring_rate = newtons_per_metre(wheel_rate);
        read.shut_in_rate = newtons_per_metre(wheel_rate + self.assembly.held_air_rate(index, q, coupler_rise));
        let sprung = (read.wheel_loads.left + read.wheel_loads.right).si() - axle.unsprung_weight.si();
        read.ride_frequency = bounce_frequency(read.spring_rate.max(newtons_per_metre(0.0)), newtons(sprung)).ok();
    }
}
