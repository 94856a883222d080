//! Damped Newton iteration to the minimum of the potential energy. Raw SI `f64` inside.

use super::assembly::Assembly;
use super::unknowns::{HEAVE, ROLL};
use super::vehicle::StanceError;
use super::weights::Weights;

/// Where the iteration ended.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) enum Rest {
    /// Forces balance at the workspace's unknowns, and the balance is stable.
    Balanced,
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
pub(super) struct Workspace {
    pub(super) q: Vec<f64>,
    constant: Vec<f64>,
    gradient: Vec<f64>,
    stiffness: Vec<f64>,
    factor: Vec<f64>,
    step: Vec<f64>,
    from: Vec<f64>,
}

impl Workspace {
    /// At the kerb state.
    pub(super) fn new(unknowns: usize) -> Self {
        let zeros = || vec![0.0; unknowns];
        let square = || vec![0.0; unknowns * unknowns];
        Workspace {
            q: zeros(),
            constant: zeros(),
            gradient: zeros(),
            stiffness: square(),
            factor: square(),
            step: zeros(),
            from: zeros(),
        }
    }
}

/// Looks for the balance from wherever the workspace stands.
pub(super) fn minimise(assembly: &Assembly<'_>, weights: &Weights, room: &mut Workspace) -> Result<Rest, StanceError> {
    if !weights.stands {
        return Ok(Rest::Tips);
    }
    let mut scale = 1.0_f64;
    for ((constant, kerb), load) in room.constant.iter_mut().zip(&assembly.kerb).zip(&weights.gradient) {
        *constant = kerb + load;
        scale = scale.max(kerb.abs()).max(load.abs());
    }
    assembly.gradient_and_stiffness(weights, room);
    for _ in 0..MOST_STEPS {
        if largest(&room.gradient) <= BALANCE * scale {
            let stable = factorise(&room.stiffness, &mut room.factor, assembly.unknowns, 0.0);
            return Ok(if stable { Rest::Balanced } else { Rest::Tips });
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

/// One Newton step downhill, shortened until the slope along it has flattened; gradient and stiffness are then
/// those of where it ends. False when no direction is found.
fn descend(assembly: &Assembly<'_>, weights: &Weights, room: &mut Workspace) -> bool {
    let n = assembly.unknowns;
    // A wheel in the air or an indefinite roll has no stiffness of its own: lend it some until the matrix can be factorised.
    let mut lent = 0.0;
    while !factorise(&room.stiffness, &mut room.factor, n, lent) {
        lent = if lent > 0.0 { lent * 10.0 } else { 1.0 };
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
        assembly.gradient_and_stiffness(weights, room);
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

impl Assembly<'_> {
    /// Gradient and lower half of the stiffness at the unknowns.
    #[expect(clippy::indexing_slicing, reason = "the matrix is n by n, and heave and roll are below n")]
    fn gradient_and_stiffness(&self, weights: &Weights, room: &mut Workspace) {
        let n = self.unknowns;
        let Workspace { q, constant, gradient, stiffness, .. } = room;
        gradient.copy_from_slice(constant);
        gradient[ROLL] -= weights.roll_gravity * q[ROLL];
        stiffness.fill(0.0);
        stiffness[ROLL * n + ROLL] = -weights.roll_gravity;
        for member in &self.members {
            let (force, rate) = member.force(member.row.stroke(q, weights.coupler_rise));
            if force.abs() > 0.0 {
                member.row.add_to(gradient, force);
            }
            if rate.abs() > 0.0 {
                member.row.add_own_stiffness(stiffness, n, rate);
            }
        }
        for chamber in &self.chambers {
            let pressure = chamber.pressure(q, weights.coupler_rise);
            for (place, mount) in chamber.mounts.iter().enumerate() {
                let stroke = mount.row.stroke(q, weights.coupler_rise);
                mount.row.add_to(gradient, pressure.value * mount.bag.area(stroke));
                for (other_place, other) in chamber.mounts.iter().enumerate() {
                    let across = chamber.rate(pressure, place, stroke, other_place, other.row.stroke(q, weights.coupler_rise));
                    mount.row.add_stiffness(&other.row, stiffness, n, across);
                }
            }
        }
        if self.heave_is_given {
            gradient[HEAVE] = 0.0;
            stiffness[HEAVE * n + HEAVE] = 1.0;
        }
    }
}

/// The largest of them without sign; not a number where one of them is none, so that it passes for no balance.
fn largest(values: &[f64]) -> f64 {
    values.iter().fold(0.0, |most, value| if value.abs() > most || value.is_nan() { value.abs() } else { most })
}

fn dot(a: &[f64], b: &[f64]) -> f64 {
    a.iter().zip(b).map(|(x, y)| x * y).sum()
}

/// Cholesky factor of `matrix + lent·I`, from and to lower halves; false when it is not positive definite.
#[expect(clippy::indexing_slicing, reason = "row and column are below n, and both matrices are n by n")]
fn factorise(matrix: &[f64], factor: &mut [f64], n: usize, lent: f64) -> bool {
    for row in 0..n {
        let (above, this) = factor.split_at_mut(row * n);
        let (this, given) = (&mut this[..n], &matrix[row * n..row * n + n]);
        let mut left = given[row] + lent;
        for column in 0..row {
            let other = &above[column * n..column * n + n];
            let value = (given[column] - dot(&this[..column], &other[..column])) / other[column];
            this[column] = value;
            left -= value * value;
        }
        // Below this share of its own stiffness a pivot is rounding error.
        if left <= 1e-12 * (given[row].abs() + lent) {
            return false;
        }
        this[row] = left.sqrt();
    }
    true
}

#[expect(clippy::indexing_slicing, reason = "row and column are below n, and the matrix is n by n")]
fn solve_factorised(factor: &[f64], x: &mut [f64], n: usize) {
    for row in 0..n {
        let this = &factor[row * n..row * n + n];
        x[row] = (x[row] - dot(&this[..row], &x[..row])) / this[row];
    }
    for row in (0..n).rev() {
        let this = &factor[row * n..row * n + n];
        x[row] /= this[row];
        let solved = x[row];
        for (below, coefficient) in x[..row].iter_mut().zip(&this[..row]) {
            *below -= coefficient * solved;
        }
    }
}
