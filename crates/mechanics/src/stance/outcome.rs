//! What a solved state says.

use std::sync::Arc;

use crate::side::{Side, Sides};
use crate::units::{Angle, Force, Frequency, Length, SpringRate};

/// The answer to a state.
#[derive(Debug, Clone, PartialEq)]
pub enum Outcome {
    /// The vehicle stands, like this.
    Settled(Stance),
    /// There is no standing: a lever arm lifts an axle away, or gravity beats the roll stiffness. It tips.
    NoEquilibrium,
}

/// What it took to find a balance.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Effort {
    /// Newton steps from where the search began; 0 when it began at the balance.
    pub steps: usize,
    /// The largest force (N) or moment (N·m) left over.
    pub left_over: f64,
}

/// Where everything sits, as changes from the kerb state.
#[derive(Debug, Clone, PartialEq)]
pub struct Stance {
    /// Rise of the body at the origin (over the front axle).
    pub heave: Length,
    /// Rear up is positive.
    pub pitch: Angle,
    /// Right side up is positive.
    pub roll: Angle,
    /// In the vehicle's order.
    pub axles: Vec<AxleStance>,
    /// Rise of each named body point, in the vehicle's order.
    pub points: Vec<(Arc<str>, Length)>,
    /// A trailer's weight on its coupler; negative when the coupler holds it down.
    pub tongue_weight: Option<Force>,
    /// What it took to find it.
    pub effort: Effort,
}

/// What one axle does.
#[derive(Debug, Clone, PartialEq)]
pub struct AxleStance {
    /// The axle's name.
    pub name: Arc<str>,
    /// Rise of the body at the arch: what a tape from the ground sees.
    pub ground_to_arch_change: Sides<Length>,
    /// That less the wheel's own rise: what a tape from the hub sees.
    pub hub_to_arch_change: Sides<Length>,
    /// What each wheel end presses on the ground; nought off the ground.
    pub wheel_loads: Sides<Force>,
    /// Clearance left at each element; negative, it bears by so much.
    pub gaps: Vec<ElementGap>,
    /// Rate of everything between axle and body at this travel, both sides together, at the wheel.
    pub spring_rate: SpringRate,
    /// The same of bags whose pressure somebody set by a gauge: on the road no regulator follows, and their air is shut in.
    pub shut_in_rate: SpringRate,
    /// Body bounce frequency over this axle, tyre left out and held pressures held; absent when nothing rests on its springs.
    pub ride_frequency: Option<Frequency>,
}

/// Clearance left at an element.
#[derive(Debug, Clone, PartialEq)]
pub struct ElementGap {
    /// The side it is on.
    pub side: Side,
    /// Its name.
    pub element: Arc<str>,
    /// Clearance; negative, it bears by so much.
    pub gap: Length,
}

impl Stance {
    /// The axle of a name.
    pub fn axle(&self, name: &str) -> Option<&AxleStance> {
        self.axles.iter().find(|axle| *axle.name == *name)
    }

    /// How far the body point of a name rose.
    pub fn point(&self, name: &str) -> Option<Length> {
        self.points.iter().find(|(point, _)| **point == *name).map(|(_, rise)| *rise)
    }
}

impl AxleStance {
    /// What the whole axle presses on the ground.
    pub fn load(&self) -> Force {
        self.wheel_loads.left + self.wheel_loads.right
    }

    /// The clearance at a named element.
    pub fn gap(&self, side: Side, element: &str) -> Option<Length> {
        self.gaps.iter().find(|each| each.side == side && *each.element == *element).map(|each| each.gap)
    }
}
