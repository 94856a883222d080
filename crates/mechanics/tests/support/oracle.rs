//! The same physics written a second time, and left to a general-purpose optimiser: argmin's L-BFGS with the
//! More-Thuente line search, given analytic gradients. Two solid axles, springs with a stage, helpers, stops, tyres.

#![allow(clippy::indexing_slicing, clippy::cast_precision_loss, reason = "seven unknowns, counted by hand")]

use std::cell::Cell;

use argmin::core::{CostFunction, Error, Executor, Gradient, State as _};
use argmin::solver::linesearch::MoreThuenteLineSearch;
use argmin::solver::quasinewton::LBFGS;
use wise_badger_mechanics::side::Sides;
use wise_badger_mechanics::stance::{
    Axle, AxleKind, Corner, Element, ElementKind, Load, MainSpring, Mount, SpringStage, State, StopCurve, Vehicle,
};
use wise_badger_mechanics::units::{metres, newton_metres_per_radian, newtons, newtons_per_metre};

/// A two-axle vehicle by its numbers, SI.
#[derive(Debug, Clone, Copy)]
pub(crate) struct Numbers {
    pub(crate) wheelbase: f64,
    pub(crate) axles: [AxleNumbers; 2],
    /// Weight, place, sideways place.
    pub(crate) load: [f64; 3],
}

/// One axle, left and right alike.
#[derive(Debug, Clone, Copy)]
pub(crate) struct AxleNumbers {
    pub(crate) per_wheel: f64,
    pub(crate) rate: f64,
    pub(crate) stage: [f64; 2],
    pub(crate) helper: [f64; 2],
    pub(crate) stop: [f64; 2],
    pub(crate) tyre: f64,
    pub(crate) bar: f64,
}

const TRACK: f64 = 1.7;
const BASE: f64 = 1.1;
const UNSPRUNG: f64 = 1_500.0;

impl Numbers {
    /// As the solver takes it.
    pub(crate) fn vehicle(&self) -> Vehicle {
        let element =
            |name: &str, kind| Element { name: name.to_owned(), lateral: None, motion_ratio: 1.0, mount: Mount::Frame, kind };
        let axle = |name: &str, position: f64, n: &AxleNumbers| {
            let helper =
                ElementKind::Helper { gap: metres(n.helper[0]), rate: newtons_per_metre(n.helper[1]), already_fitted: false };
            let curve = StopCurve::Linear(newtons_per_metre(n.stop[1]));
            let stop = ElementKind::Bump { gap: metres(n.stop[0]), extension: metres(0.0), curve };
            // A helper without a rate is none.
            let mut elements = vec![element("stop", stop)];
            elements.extend((n.helper[1] > 0.0).then(|| element("helper", helper)));
            let stage = SpringStage { at_travel: metres(n.stage[0]), added_rate: newtons_per_metre(n.stage[1]) };
            let spring = MainSpring { stages: vec![stage], ..MainSpring::linear(newtons_per_metre(n.rate)) };
            Axle {
                name: name.to_owned(),
                position: metres(position),
                kind: AxleKind::Solid,
                track: metres(TRACK),
                spring_base: metres(BASE),
                unsprung_weight: newtons(UNSPRUNG),
                kerb_wheel_loads: Sides::both(newtons(n.per_wheel)),
                tyre_rate: newtons_per_metre(n.tyre),
                anti_roll: newton_metres_per_radian(n.bar),
                roll_centre_height: metres(0.5),
                hub_height: metres(0.36),
                arch_lateral: None,
                corners: Sides::both(Corner { spring, elements }),
            }
        };
        let [front, rear] = &self.axles;
        Vehicle {
            axles: vec![axle("F", 0.0, front), axle("R", self.wheelbase, rear)],
            points: vec![],
            sprung_cg_height: metres(0.5),
            coupler: None,
            equalisers: vec![],
        }
    }

    pub(crate) fn state(&self) -> State {
        let [weight, place, lateral] = self.load;
        let load = Load { lateral: metres(lateral), ..Load::at(newtons(weight), metres(place)) };
        State::with_loads("loaded", vec![load])
    }

    /// Each term of the energy as (force, energy) of a stroke, with its gradient's row over z, θ, φ and four wheels.
    fn each(&self, q: &[f64], mut term: impl FnMut(f64, f64, [f64; 7])) {
        for (index, n) in self.axles.iter().enumerate() {
            let x = self.wheelbase * index as f64;
            for (side, sign) in [(0, -1.0), (1, 1.0)] {
                let y = sign * BASE / 2.0;
                let mut row = [-1.0, -x, -y, 0.0, 0.0, 0.0, 0.0];
                row[3 + 2 * index] = 0.5 - y / TRACK;
                row[4 + 2 * index] = 0.5 + y / TRACK;
                let u: f64 = row.iter().zip(q).map(|(a, b)| a * b).sum();
                let past = |gap: f64, rate: f64| (rate * (u - gap).max(0.0), rate * (u - gap).max(0.0).powi(2) / 2.0);
                for (force, energy) in [
                    (n.rate * u, n.rate * u * u / 2.0),
                    past(n.stage[0], n.stage[1]),
                    past(n.helper[0], n.helper[1]),
                    past(n.stop[0], n.stop[1]),
                ] {
                    term(force, energy, row);
                }
                // The tyre, from its kerb compression; what it carries at kerb is balanced by the kerb weight.
                let mut row = [0.0; 7];
                row[3 + 2 * index + side] = -1.0;
                let squash = n.per_wheel / n.tyre - q[3 + 2 * index + side];
                let force = n.tyre * squash.max(0.0);
                let energy = n.tyre * squash.max(0.0).powi(2) / 2.0;
                term(force - n.per_wheel, energy + n.per_wheel * q[3 + 2 * index + side], row);
            }
            let mut row = [0.0, 0.0, 1.0, 0.0, 0.0, 0.0, 0.0];
            row[3 + 2 * index] = 1.0 / TRACK;
            row[4 + 2 * index] = -1.0 / TRACK;
            let twist: f64 = row.iter().zip(q).map(|(a, b)| a * b).sum();
            term(n.bar * twist, n.bar * twist * twist / 2.0, row);
        }
        let [weight, place, lateral] = self.load;
        let row = [1.0, place, lateral, 0.0, 0.0, 0.0, 0.0];
        let rise: f64 = row.iter().zip(q).map(|(a, b)| a * b).sum();
        term(weight, weight * rise, row);
    }

    /// The optimiser's answer from the kerb state: z, θ, φ and the four wheels' heights. Empty where it gets stuck: now
    /// and then its line search, whose bracket has shrunk to nothing, would go on for ever.
    pub(crate) fn minimise(&self, tolerance: f64) -> Vec<f64> {
        let solver = LBFGS::new(MoreThuenteLineSearch::new(), 7).with_tolerance_grad(tolerance).expect("a tolerance");
        let problem = Limited { numbers: *self, evaluations_left: Cell::new(MOST_EVALUATIONS) };
        let run = Executor::new(problem, solver).configure(|state| state.param(vec![0.0; 7])).run();
        run.ok().and_then(|done| done.state().get_best_param().cloned()).unwrap_or_default()
    }

    /// The largest force or moment left over at an answer, N or N·m.
    pub(crate) fn left_over(&self, q: &[f64]) -> f64 {
        self.slope(q).iter().fold(0.0, |most: f64, value| most.max(value.abs()))
    }

    fn slope(&self, q: &[f64]) -> Vec<f64> {
        let mut slope = vec![0.0; 7];
        self.each(q, |force, _, row| slope.iter_mut().zip(row).for_each(|(total, share)| *total += force * share));
        slope
    }
}

/// The problem, refused once it was asked too often.
struct Limited {
    numbers: Numbers,
    evaluations_left: Cell<u32>,
}

const MOST_EVALUATIONS: u32 = 40_000;

impl Limited {
    fn count(&self) -> Result<(), Error> {
        let left = self.evaluations_left.get().checked_sub(1).ok_or_else(|| Error::msg("asked too often"))?;
        self.evaluations_left.set(left);
        Ok(())
    }
}

impl CostFunction for Limited {
    type Param = Vec<f64>;
    type Output = f64;

    fn cost(&self, q: &Vec<f64>) -> Result<f64, Error> {
        self.count()?;
        let mut total = 0.0;
        self.numbers.each(q, |_, energy, _| total += energy);
        Ok(total)
    }
}

impl Gradient for Limited {
    type Param = Vec<f64>;
    type Gradient = Vec<f64>;

    fn gradient(&self, q: &Vec<f64>) -> Result<Vec<f64>, Error> {
        self.count()?;
        Ok(self.numbers.slope(q))
    }
}
