//! Damped Newton iteration to the minimum of the potential energy. Raw SI `f64` inside.

use super::assembly::{Assembly, ROLL};
use super::vehicle::StanceError;

/// Where the iteration ended.
pub(super) enum Rest {
    /// Forces balance at these unknowns, and the balance is stable.
    At(Vec<f64>),
    /// There is nothing to come to rest at: the vehicle goes over.
    None,
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

/// Room for one iteration, kept between steps so that the loop does not allocate.
struct Workspace {
    gradient: Vec<f64>,
    stiffness: Vec<f64>,
    factor: Vec<f64>,
    step: Vec<f64>,
    trial: Vec<f64>,
}

pub(super) fn minimise(assembly: &Assembly) -> Result<Rest, StanceError> {
    if !assembly.stands {
        return Ok(Rest::None);
    }
    let n = assembly.unknowns;
    let mut room = Workspace {
        gradient: vec![0.0; n],
        stiffness: vec![0.0; n * n],
        factor: vec![0.0; n * n],
        step: vec![0.0; n],
        trial: vec![0.0; n],
    };
    let mut q = vec![0.0; n];
    let scale = assembly.constant.iter().fold(1.0_f64, |most, c| most.max(c.abs()));
    for _ in 0..MOST_STEPS {
        assembly.gradient_and_stiffness(&q, &mut room.gradient, &mut room.stiffness);
        if largest(&room.gradient) <= BALANCE * scale {
            return Ok(if factorise(&room.stiffness, &mut room.factor, n, 0.0) { Rest::At(q) } else { Rest::None });
        }
        descend(assembly, &mut q, &mut room);
        let rolled = q.get(ROLL).copied().unwrap_or(0.0).abs();
        if rolled > GOING_OVER_RAD || largest(&q) > GONE_M {
            return Ok(Rest::None);
        }
    }
    Err(StanceError::NotConverged { residual_n: largest(&room.gradient) })
}

/// One Newton step along a direction that goes downhill, shortened until the slope along it has flattened.
fn descend(assembly: &Assembly, q: &mut [f64], room: &mut Workspace) {
    let n = assembly.unknowns;
    // A wheel in the air or an indefinite roll has no stiffness of its own: lend it some until the matrix can be factorised.
    let mut lent = 0.0;
    while !factorise(&room.stiffness, &mut room.factor, n, lent) {
        lent = if lent > 0.0 { lent * 10.0 } else { 1.0 };
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
    // The slope along the step rises from negative; past its zero the energy climbs again.
    let (mut low, mut high, mut length) = (0.0, 1.0, 1.0);
    for _ in 0..40 {
        for ((trial, from), step) in room.trial.iter_mut().zip(q.iter()).zip(&room.step) {
            *trial = from + length * step;
        }
        assembly.gradient(&room.trial, &mut room.gradient);
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
    q.copy_from_slice(&room.trial);
}

impl Assembly {
    fn gradient(&self, q: &[f64], gradient: &mut [f64]) {
        self.start_gradient(q, gradient);
        for member in &self.members {
            let (force, _) = member.force(member.stroke(q));
            for (unknown, coefficient) in &member.row {
                if let Some(total) = gradient.get_mut(*unknown) {
                    *total += coefficient * force;
                }
            }
        }
    }

    #[expect(clippy::indexing_slicing, reason = "member rows name unknowns below n, and the matrix is n by n")]
    fn gradient_and_stiffness(&self, q: &[f64], gradient: &mut [f64], stiffness: &mut [f64]) {
        let n = self.unknowns;
        self.start_gradient(q, gradient);
        stiffness.fill(0.0);
        stiffness[ROLL * n + ROLL] = -self.roll_gravity;
        for member in &self.members {
            let (force, rate) = member.force(member.stroke(q));
            for (unknown, coefficient) in &member.row {
                gradient[*unknown] += coefficient * force;
                for (other, other_coefficient) in &member.row {
                    stiffness[unknown * n + other] += rate * coefficient * other_coefficient;
                }
            }
        }
    }

    fn start_gradient(&self, q: &[f64], gradient: &mut [f64]) {
        gradient.copy_from_slice(&self.constant);
        if let (Some(roll), Some(total)) = (q.get(ROLL), gradient.get_mut(ROLL)) {
            *total -= self.roll_gravity * roll;
        }
    }
}

fn largest(values: &[f64]) -> f64 {
    values.iter().fold(0.0, |most, value| value.abs().max(most))
}

fn dot(a: &[f64], b: &[f64]) -> f64 {
    a.iter().zip(b).map(|(x, y)| x * y).sum()
}

/// Cholesky factor of `matrix + lent·I`; false when it is not positive definite.
#[expect(clippy::indexing_slicing, reason = "row and column are below n, and both matrices are n by n")]
fn factorise(matrix: &[f64], factor: &mut [f64], n: usize, lent: f64) -> bool {
    for row in 0..n {
        for column in 0..=row {
            let mut value = matrix[row * n + column];
            for k in 0..column {
                value -= factor[row * n + k] * factor[column * n + k];
            }
            if row != column {
                factor[row * n + column] = value / factor[column * n + column];
                continue;
            }
            let pivot = value + lent;
            // Below this share of its own stiffness a pivot is rounding error.
            if pivot <= 1e-12 * (matrix[row * n + row].abs() + lent) {
                return false;
            }
            factor[row * n + row] = pivot.sqrt();
        }
    }
    true
}

#[expect(clippy::indexing_slicing, reason = "row and column are below n, and the matrix is n by n")]
fn solve_factorised(factor: &[f64], x: &mut [f64], n: usize) {
    for row in 0..n {
        let known: f64 = (0..row).map(|k| factor[row * n + k] * x[k]).sum();
        x[row] = (x[row] - known) / factor[row * n + row];
    }
    for row in (0..n).rev() {
        let known: f64 = (row + 1..n).map(|k| factor[k * n + row] * x[k]).sum();
        x[row] = (x[row] - known) / factor[row * n + row];
    }
}
