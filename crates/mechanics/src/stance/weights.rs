//! What weighs on the vehicle in a state: loads, gravity in roll, sideways pushes. Raw SI `f64` inside.

use super::state::State;
use super::unknowns::{HEAVE, PITCH, ROLL, wheel};
use super::vehicle::{Axle, Vehicle};
use crate::side::Side;
use crate::units::InShopUnits;

/// The part of the balance that the loads decide.
pub(super) struct Weights {
    /// Gradient of the potential of everything aboard.
    pub(super) gradient: Vec<f64>,
    /// Moment that gravity adds per radian of roll, N·m/rad.
    pub(super) roll_gravity: f64,
    /// Rise of the coupler, m.
    pub(super) coupler_rise: f64,
    /// Weight added to the kerb weight, N.
    pub(super) added: f64,
    /// Whether the weights can stand on the axles at all, by lever arms.
    pub(super) stands: bool,
}

/// Weights that are added up: how much, and their moment about the origin.
#[derive(Clone, Copy, Default)]
struct Sum {
    weight: f64,
    moment: f64,
}

impl Sum {
    fn add(&mut self, weight: f64, x: f64) {
        self.weight += weight;
        self.moment += weight * x;
    }

    /// Moment about another place.
    fn about(self, x: f64) -> f64 {
        self.moment - self.weight * x
    }
}

/// What of something comes onto an axle: of two, by lever arms; of others it stays with the body.
fn share_of(vehicle: &Vehicle, index: usize, of: Sum) -> f64 {
    match (vehicle.axles.as_slice(), vehicle.coupler) {
        ([front, rear], None) => {
            let (front, rear) = (front.position.si(), rear.position.si());
            let on_rear = of.about(front) / (rear - front);
            if index == 1 { on_rear } else { of.weight - on_rear }
        }
        _ => 0.0,
    }
}

impl Weights {
    /// Room for what weighs on a vehicle of so many unknowns.
    pub(super) fn new(unknowns: usize) -> Self {
        Weights { gradient: vec![0.0; unknowns], roll_gravity: 0.0, coupler_rise: 0.0, added: 0.0, stands: true }
    }

    /// Takes in what weighs on the vehicle in a state.
    pub(super) fn weigh(&mut self, vehicle: &Vehicle, state: &State) {
        self.gradient.fill(0.0);
        self.coupler_rise = vehicle.coupler.map_or(0.0, |_| state.coupler_rise.si());
        let (Some(first), Some(last)) = (vehicle.axles.first(), vehicle.axles.last()) else { return };
        let (front, rear) = (first.position.si(), last.position.si());
        // Roll centre height varies evenly from the first axle to the last.
        let rising = (last.roll_centre_height.si() - first.roll_centre_height.si()) / (rear - front).max(f64::MIN_POSITIVE);
        let roll_centre = |x: f64| first.roll_centre_height.si() + rising * (x - front);
        let held = vehicle.coupler.map(|coupler| (coupler.position.si(), coupler.lateral.si()));
        let (x0, y0) = held.unwrap_or((0.0, 0.0));

        let (mut sprung, mut whole, mut loads) = (Sum::default(), Sum::default(), Sum::default());
        for axle in &vehicle.axles {
            sprung.add(axle.kerb_load().si() - axle.unsprung_weight.si(), axle.position.si());
            whole.add(axle.kerb_load().si(), axle.position.si());
        }
        if let Some(coupler) = &vehicle.coupler {
            sprung.add(coupler.kerb_load.si(), x0);
            whole.add(coupler.kerb_load.si(), x0);
        }
        let sprung_place = if sprung.weight.abs() > 0.0 { sprung.moment / sprung.weight } else { front };
        let mut heeling = sprung.weight * (vehicle.sprung_cg_height.si() - roll_centre(sprung_place));
        for load in &state.loads {
            let (weight, x) = (load.weight.si(), load.position.si());
            if held.is_none() {
                self.add(HEAVE, weight);
            }
            self.add(PITCH, weight * (x - x0));
            self.add(ROLL, weight * (load.lateral.si() - y0));
            loads.add(weight, x);
            if let Some(height) = load.height {
                heeling += weight * (height.si() - roll_centre(x));
            }
        }
        // A couple that lifts the rear is the moment of so much weight taken off behind.
        let couple = state.pitch_couple.value;
        self.add(PITCH, -couple);
        loads.moment -= couple;
        self.roll_gravity = heeling;
        self.added = loads.weight;
        let total = Sum { weight: whole.weight + loads.weight, moment: whole.moment + loads.moment };
        self.stands = match held {
            // On a coupler that can pull, something must still press the axles down.
            Some((x, _)) => total.about(x) >= 0.0,
            None => total.about(front) >= 0.0 && total.about(rear) <= 0.0,
        };
        self.push_sideways(vehicle, state.lateral_acceleration_g, heeling, loads);
        if let Some(pull) = state.sideways_pull {
            let (force, x) = (pull.force.si(), pull.position.si());
            self.add(ROLL, force * (pull.height.si() - roll_centre(x)));
            for (index, axle) in vehicle.axles.iter().enumerate() {
                let arm = share_of(vehicle, index, Sum { weight: force, moment: force * x }) * axle.roll_centre_height.si();
                self.heel_axle(index, axle, arm);
            }
        }
    }

    /// `a·ΣW(h − h_rc)` on the body, and on each axle `a·(W_share·h_rc + W_unsprung·h_hub)`; in units of g, so that
    /// weights stand for masses. On two axles the loads are shared by lever arms, on others they stay with the body.
    fn push_sideways(&mut self, vehicle: &Vehicle, pushed: f64, heeling: f64, loads: Sum) {
        if pushed.abs() <= 0.0 {
            return;
        }
        self.add(ROLL, -pushed * heeling);
        for (index, axle) in vehicle.axles.iter().enumerate() {
            let share = share_of(vehicle, index, loads);
            let kerb_sprung = axle.kerb_load().si() - axle.unsprung_weight.si();
            let arm = (kerb_sprung + share) * axle.roll_centre_height.si() + axle.unsprung_weight.si() * axle.hub_height.si();
            self.heel_axle(index, axle, -pushed * arm);
        }
    }

    /// A moment that presses the right wheel of an axle down and lets the left one up.
    fn heel_axle(&mut self, index: usize, axle: &Axle, moment: f64) {
        for side in Side::BOTH {
            self.add(wheel(index, side), side.sign() * moment / axle.track.si());
        }
    }

    fn add(&mut self, unknown: usize, amount: f64) {
        if let Some(place) = self.gradient.get_mut(unknown) {
            *place += amount;
        }
    }
}
