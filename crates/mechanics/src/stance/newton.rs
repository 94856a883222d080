//! Damped Newton iteration to the minimum of the potential energy. Raw SI `f64` inside.

use super::assembly::{Assembly, BagMount, Chamber};
use super::outcome::Effort;
use super::unknowns::{HEAVE, ROLL};
use super::vehicle::StanceError;
use super::weights::Weights;
use crate::cholesky::{dot, factorise, solve_factorised};

/// Where the iteration ended.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(super) enum Rest {
    /// Forces balance at the workspace's unknowns, and the balance is stable.
    Balanced(Effort),
    /// There is nothing to come to rest at: the vehicle goes over.
    Tips,
}

/// Largest force or moment left over that counts as balance (N, N·m), per newton or newton metre at work.
const BALANCE: f64 = 1e-10;
const MOST_STEPS: usize = 200;
/// Longest step of one iteration, in metres or radians, so that a stiff stop is not jumped through.
const LONGEST_STEP: f64 = 0.25;
/// A body rolled further than this is going over: small-angle geometry has no meaning there.
const GOING_OVER_RAD: f64 = 1.0;
/// A body moved further than this has nothing under it.
const GONE_M: f64 = 5.0;

/// The unknowns, and room for the iteration: made once, so that no step of it allocates.
#[derive(Default)]
pub(super) struct Workspace {
    pub(super) q: Vec<f64>,
    constant: Vec<f64>,
    gradient: Vec<f64>,
    /// Tangent rate of each line and each pair of bags where the gradient was last taken.
    rates: Vec<f64>,
    /// The rates that the stiffness was built with: only what differs is added to it.
    built_with: Vec<f64>,
    /// The gravity in roll that it was built with.
    roll_gravity: f64,
    stiffness: Vec<f64>,
    factor: Vec<f64>,
    /// Whether the factor is that of the stiffness as it is, nothing lent.
    factor_holds: bool,
    step: Vec<f64>,
    from: Vec<f64>,
    kerb: AtKerb,
    kerb_is_known: bool,
    /// Whether everything above is as `kerb` has it, and no gradient need be taken before the first step.
    stands_at_kerb: bool,
}

/// What the iteration finds at the kerb state, whatever the loads: kept once it was asked to begin there.
#[derive(Default)]
struct AtKerb {
    /// What springs, stops, tyres and air add to the gradient.
    gradient: Vec<f64>,
    rates: Vec<f64>,
    roll_gravity: f64,
    stiffness: Vec<f64>,
    factor: Vec<f64>,
    factor_holds: bool,
}

impl Workspace {
    /// At the kerb state.
    pub(super) fn new(assembly: &Assembly<'_>) -> Self {
        let mut room = Workspace::default();
        room.make_ready(assembly);
        room
    }

    /// At the kerb state of what is solved now, in the room of what was solved before.
    pub(super) fn make_ready(&mut self, assembly: &Assembly<'_>) {
        let (unknowns, rates) = (assembly.unknowns, assembly.rates());
        let make_room = |values: &mut Vec<f64>, count: usize| {
            values.clear();
            values.resize(count, 0.0);
        };
        for of_unknowns in [&mut self.q, &mut self.constant, &mut self.gradient, &mut self.step, &mut self.from] {
            make_room(of_unknowns, unknowns);
        }
        for of_rates in [&mut self.rates, &mut self.built_with] {
            make_room(of_rates, rates);
        }
        for square in [&mut self.stiffness, &mut self.factor] {
            make_room(square, unknowns * unknowns);
        }
        self.roll_gravity = 0.0;
        (self.factor_holds, self.kerb_is_known, self.stands_at_kerb) = (false, false, false);
        // What the coupler decides is held in place.
        if assembly.heave_is_given
            && let Some(heave) = self.stiffness.get_mut(HEAVE * unknowns + HEAVE)
        {
            *heave = 1.0;
        }
    }

    /// Back to the kerb state, `empty` being the weights of the vehicle with nothing aboard.
    pub(super) fn begin_at_kerb(&mut self, assembly: &Assembly<'_>, empty: impl FnOnce() -> Weights) {
        self.q.fill(0.0);
        if !self.kerb_is_known {
            let empty = empty();
            self.constant.fill(0.0);
            self.bring_gravity_to(empty.roll_gravity, assembly.unknowns);
            assembly.take_gradient(&empty, self);
            assembly.update_stiffness(self);
            let factor_holds = factorise_as_it_is(self, assembly.unknowns);
            let kerb = &mut self.kerb;
            kerb.gradient.clone_from(&self.gradient);
            kerb.rates.clone_from(&self.rates);
            kerb.stiffness.clone_from(&self.stiffness);
            kerb.factor.clone_from(&self.factor);
            (kerb.roll_gravity, kerb.factor_holds) = (self.roll_gravity, factor_holds);
            (self.kerb_is_known, self.stands_at_kerb) = (true, true);
            return;
        }
        let kerb = &self.kerb;
        self.rates.copy_from_slice(&kerb.rates);
        self.built_with.copy_from_slice(&kerb.rates);
        self.stiffness.copy_from_slice(&kerb.stiffness);
        self.factor.copy_from_slice(&kerb.factor);
        (self.roll_gravity, self.factor_holds) = (kerb.roll_gravity, kerb.factor_holds);
        self.stands_at_kerb = true;
    }

    /// The part of the gradient that does not move with the unknowns; the largest force or moment in it.
    fn take_constant(&mut self, assembly: &Assembly<'_>, weights: &Weights) -> f64 {
        let mut scale = 1.0_f64;
        for ((constant, kerb), load) in self.constant.iter_mut().zip(&assembly.kerb).zip(&weights.gradient) {
            *constant = kerb + load;
            scale = scale.max(kerb.abs()).max(load.abs());
        }
        scale
    }

    /// The gradient where the iteration begins, and the rates that go with it.
    fn take_first_gradient(&mut self, assembly: &Assembly<'_>, weights: &Weights) {
        // A coupler that rose moves the strokes at `q = 0` too.
        if self.stands_at_kerb && weights.coupler_rise.abs() <= 0.0 {
            for ((gradient, constant), kerb) in self.gradient.iter_mut().zip(&self.constant).zip(&self.kerb.gradient) {
                *gradient = constant + kerb;
            }
            assembly.hold_heave(&mut self.gradient);
        } else {
            assembly.take_gradient(weights, self);
        }
        self.stands_at_kerb = false;
    }

    /// The stiffness with another gravity in roll.
    fn bring_gravity_to(&mut self, roll_gravity: f64, unknowns: usize) {
        let by = self.roll_gravity - roll_gravity;
        if by.abs() > 0.0
            && let Some(roll) = self.stiffness.get_mut(ROLL * unknowns + ROLL)
        {
            *roll += by;
            (self.roll_gravity, self.factor_holds) = (roll_gravity, false);
        }
    }
}

/// Looks for the balance from wherever the workspace stands.
pub(super) fn minimise(assembly: &Assembly<'_>, weights: &Weights, room: &mut Workspace) -> Result<Rest, StanceError> {
    if !weights.stands {
        return Ok(Rest::Tips);
    }
    let scale = room.take_constant(assembly, weights);
    room.bring_gravity_to(weights.roll_gravity, assembly.unknowns);
    room.take_first_gradient(assembly, weights);
    for steps in 0..MOST_STEPS {
        assembly.update_stiffness(room);
        let left_over = largest(&room.gradient);
        if left_over <= BALANCE * scale {
            let effort = Effort { steps, left_over };
            return Ok(if factorise_as_it_is(room, assembly.unknowns) { Rest::Balanced(effort) } else { Rest::Tips });
        }
        if !descend(assembly, weights, room) {
            break;
        }
        let rolled = room.q.get(ROLL).copied().unwrap_or(0.0).abs();
        let moved = largest(&room.q);
        if rolled > GOING_OVER_RAD || moved > GONE_M {
            return Ok(Rest::Tips);
        }
        if !moved.is_finite() {
            break;
        }
    }
    Err(StanceError::NotConverged { residual_n: largest(&room.gradient) })
}

/// One Newton step downhill, shortened until the slope along it has flattened; the gradient is then
/// that of where it ends. False when no direction is found.
fn descend(assembly: &Assembly<'_>, weights: &Weights, room: &mut Workspace) -> bool {
    let n = assembly.unknowns;
    // A wheel in the air or an indefinite roll has no stiffness of its own: lend it some until the matrix can be factorised.
    let mut lent = 1.0;
    let mut ready = factorise_as_it_is(room, n);
    while !ready {
        ready = factorise(&room.stiffness, &mut room.factor, n, lent);
        lent *= 10.0;
        if lent > 1e30 {
            return false;
        }
    }
    for (step, gradient) in room.step.iter_mut().zip(&room.gradient) {
        *step = -gradient;
    }
    solve_factorised(&room.factor, &mut room.step, n);
    let longest = largest(&room.step);
    if longest > LONGEST_STEP {
        for step in &mut room.step {
            *step *= LONGEST_STEP / longest;
        }
    }
    let slope_at_start = dot(&room.gradient, &room.step);
    room.from.copy_from_slice(&room.q);
    // The slope along the step rises from negative; past its zero the energy climbs again.
    let (mut low, mut high, mut length) = (0.0, 1.0, 1.0);
    for _ in 0..40 {
        for ((q, from), step) in room.q.iter_mut().zip(&room.from).zip(&room.step) {
            *q = from + length * step;
        }
        assembly.take_gradient(weights, room);
        let slope = dot(&room.gradient, &room.step);
        if slope <= 0.0 && length >= 1.0 || slope.abs() <= 0.5 * slope_at_start.abs() {
            break;
        }
        if slope > 0.0 {
            high = length;
        } else {
            low = length;
        }
        length = 0.5 * (low + high);
    }
    true
}

/// Factorises the stiffness with nothing lent, unless that was done already; false when it is not positive definite.
fn factorise_as_it_is(room: &mut Workspace, n: usize) -> bool {
    if !room.factor_holds {
        room.factor_holds = factorise(&room.stiffness, &mut room.factor, n, 0.0);
    }
    room.factor_holds
}

impl Assembly<'_> {
    /// How many tangent rates there are: one a line, and one for each pair of bags that share a gas.
    fn rates(&self) -> usize {
        self.lines.len() + self.chambers.iter().map(|chamber| chamber.mounts.len().pow(2)).sum::<usize>()
    }

    /// Gradient and tangent rates at the unknowns.
    #[expect(clippy::indexing_slicing, reason = "roll is below n")]
    fn take_gradient(&self, weights: &Weights, room: &mut Workspace) {
        let Workspace { q, constant, gradient, rates, .. } = room;
        gradient.copy_from_slice(constant);
        gradient[ROLL] -= weights.roll_gravity * q[ROLL];
        let (of_lines, of_bags) = rates.split_at_mut(self.lines.len());
        for (line, rate) in self.lines.iter().zip(of_lines) {
            let (force, tangent) = self.force(line, q, weights.coupler_rise);
            *rate = tangent;
            if force.abs() > 0.0 {
                line.row.add_to(gradient, force);
            }
        }
        let mut of_bags = of_bags.iter_mut();
        for chamber in &self.chambers {
            let pressure = chamber.pressure(q, weights.coupler_rise);
            for (place, mount) in chamber.mounts.iter().enumerate() {
                let stroke = mount.row.stroke(q, weights.coupler_rise);
                mount.row.add_to(gradient, pressure.value * mount.bag.area(stroke));
                for ((other_place, other), rate) in chamber.mounts.iter().enumerate().zip(of_bags.by_ref()) {
                    *rate = chamber.rate(pressure, place, stroke, other_place, other.row.stroke(q, weights.coupler_rise));
                }
            }
        }
        self.hold_heave(gradient);
    }

    /// Leaves nothing to balance in the body's rise where the coupler gives it.
    fn hold_heave(&self, gradient: &mut [f64]) {
        if self.heave_is_given
            && let Some(heave) = gradient.get_mut(HEAVE)
        {
            *heave = 0.0;
        }
    }

    /// Rate of everything between an axle and the body when the whole axle moves up, at the wheel, N/m, where the
    /// gradient was last taken.
    pub(super) fn wheel_rate(&self, axle: usize, room: &Workspace) -> f64 {
        let mut rates = room.rates.iter();
        let mut total = 0.0;
        for (line, rate) in self.lines.iter().zip(rates.by_ref()) {
            if let Some((of, ratio)) = line.ride
                && of == axle
            {
                // The motion ratio counts twice: once for the stroke, once for the force.
                total += rate * ratio * ratio;
            }
        }
        for chamber in &self.chambers {
            for mount in &chamber.mounts {
                for (other, rate) in chamber.mounts.iter().zip(rates.by_ref()) {
                    if mount.ride.0 == axle && other.ride.0 == axle {
                        total += rate * mount.ride.1 * other.ride.1;
                    }
                }
            }
        }
        total
    }

    /// What air behind a regulator adds to an axle's rate on the road, where the regulator does not follow, N/m at the wheel.
    pub(super) fn held_air_rate(&self, axle: usize, q: &[f64], coupler_rise: f64) -> f64 {
        let each = self.chambers.iter().filter(|chamber| chamber.gas.is_held());
        let of_chamber = |chamber: &Chamber| {
            let slope = chamber.shut_in(q, coupler_rise).slope;
            let mounts = || chamber.mounts.iter().filter(|mount| mount.ride.0 == axle);
            let area = |mount: &BagMount| mount.bag.area(mount.row.stroke(q, coupler_rise)) * mount.ride.1;
            mounts().map(area).sum::<f64>().powi(2) * slope
        };
        each.map(of_chamber).sum()
    }

    /// Brings the lower half of the stiffness to the tangent rates that were taken with the gradient.
    fn update_stiffness(&self, room: &mut Workspace) {
        let n = self.unknowns;
        let Workspace { rates, built_with, stiffness, factor_holds, .. } = room;
        let mut change = |rate: f64, built: &mut f64| {
            let by = rate - *built;
            *built = rate;
            let changed = by.abs() > 0.0;
            *factor_holds &= !changed;
            changed.then_some(by)
        };
        let mut each = rates.iter().zip(built_with);
        for (line, (rate, built)) in self.lines.iter().zip(each.by_ref()) {
            if let Some(by) = change(*rate, built) {
                line.row.add_own_stiffness(stiffness, n, by);
            }
        }
        for chamber in &self.chambers {
            for mount in &chamber.mounts {
                for (other, (rate, built)) in chamber.mounts.iter().zip(each.by_ref()) {
                    if let Some(by) = change(*rate, built) {
                        mount.row.add_stiffness(&other.row, stiffness, n, by);
                    }
                }
            }
        }
    }
}

/// The largest of them without sign; not a number where one of them is none, so that it passes for no balance.
fn largest(values: &[f64]) -> f64 {
    values.iter().fold(0.0, |most, value| if value.abs() > most || value.is_nan() { value.abs() } else { most })
}
