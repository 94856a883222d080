//! The vehicle as the stance solver sees it.

use super::element::Element;
use crate::side::{Side, Sides};
use crate::units::{Angle, Force, InShopUnits, Length, RollStiffness, SpringRate, newtons};

/// Why a vehicle or a state cannot be solved at all.
#[derive(Debug, Clone, PartialEq, thiserror::Error)]
#[non_exhaustive]
pub enum StanceError {
    /// Fewer axles than it can stand on: two, or one behind a coupler.
    #[error("this vehicle needs {least} or more axles and has {count}")]
    TooFewAxles {
        /// The least it needs.
        least: usize,
        /// How many it has.
        count: usize,
    },
    /// Bags on one line that were not filled alike.
    #[error("air bags that share a line must have one fill pressure, one exponent and one way of being held; “{0}” differs")]
    LineNotAlike(String),
    /// A name is used for two axles, two elements of a corner, or two points.
    #[error("the name “{0}” is used twice")]
    NameUsedTwice(String),
    /// A quantity is outside the range the model holds for.
    #[error("{what} is {value}, and must be {range}")]
    OutOfRange {
        /// Which quantity, with the axle it belongs to.
        what: String,
        /// Its value in SI units.
        value: f64,
        /// What it must be.
        range: &'static str,
    },
    /// A change names an axle the vehicle does not have.
    #[error("there is no axle “{0}”")]
    NoSuchAxle(String),
    /// A change names an element its corner does not have.
    #[error("there is no element “{element}” on axle “{axle}” ({side})")]
    NoSuchElement {
        /// The axle named.
        axle: String,
        /// The side looked at.
        side: &'static str,
        /// The element named.
        element: String,
    },
    /// A gap change names an air bag, which has none.
    #[error("“{element}” on axle “{axle}” ({side}) is an air bag and has no gap")]
    NoGap {
        /// The axle named.
        axle: String,
        /// The side looked at.
        side: &'static str,
        /// The element named.
        element: String,
    },
    /// The iteration ended without a state whose forces balance.
    #[error("the forces did not come to balance; the largest left over is {residual_n:.3} N")]
    NotConverged {
        /// The largest unbalanced force or moment, in N or N·m.
        residual_n: f64,
    },
}

/// How an axle joins its two wheels.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum AxleKind {
    /// Both wheels on one beam: springs act at the spring base, tyres at the track.
    Solid,
    /// Each wheel on its own links: springs act at the wheel through a motion ratio.
    Independent,
}

/// A vehicle at kerb weight, standing on level ground.
#[derive(Debug, Clone, PartialEq)]
pub struct Vehicle {
    /// Front to rear; one or more behind a coupler, otherwise two or more.
    pub axles: Vec<Axle>,
    /// Places on the body whose height is wanted.
    pub points: Vec<BodyPoint>,
    /// Height of the sprung mass's centre of gravity above the ground.
    pub sprung_cg_height: Length,
    /// A trailer's: what its front rests on.
    pub coupler: Option<Coupler>,
    /// Rockers between the springs of neighbouring axles.
    pub equalisers: Vec<Equaliser>,
}

/// Where a trailer's front is held at a height that others decide.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Coupler {
    /// Rearward from the origin; the trailer's positions are usually counted from here.
    pub position: Length,
    /// To the right of the middle.
    pub lateral: Length,
    /// Tongue weight at kerb.
    pub kerb_load: Force,
}

/// A rocker that joins the facing spring eyes of two axles on one side, so that both carry alike.
///
/// Only one eye of each spring rides on it (a middle axle's spring may ride on two, one at either eye): the front axle's spring stroke gains `−½·front_arm·ψ`, the
/// rear one's `+½·rear_arm·ψ`, so that `F₁·a₁ = F₂·a₂` until it comes to its stops.
#[derive(Debug, Clone, PartialEq)]
pub struct Equaliser {
    /// The side it is on.
    pub side: Side,
    /// The front and the rear axle's names.
    pub axles: [String; 2],
    /// From the pivot to the front axle's spring eye.
    pub front_arm: Length,
    /// From the pivot to the rear axle's.
    pub rear_arm: Length,
    /// How far it turns either way before it comes to a stiff stop.
    pub stop: Angle,
}

/// A named place on the body.
#[derive(Debug, Clone, PartialEq)]
pub struct BodyPoint {
    /// What the place is called.
    pub name: String,
    /// Rearward from the front axle.
    pub position: Length,
    /// To the right of the middle.
    pub lateral: Length,
}

/// One axle, its tyres and its springs, at kerb weight.
#[derive(Debug, Clone, PartialEq)]
pub struct Axle {
    /// A name no other axle has.
    pub name: String,
    /// Rearward from the front axle.
    pub position: Length,
    /// Beam or independent.
    pub kind: AxleKind,
    /// Between the tyres' middles (duals: between the pairs' middles).
    pub track: Length,
    /// Between the springs, on a beam axle.
    pub spring_base: Length,
    /// Weight of wheels, hubs and beam: carried by the tyres, not by the springs.
    pub unsprung_weight: Force,
    /// What each wheel end presses on the ground at kerb weight.
    pub kerb_wheel_loads: Sides<Force>,
    /// Rate of the tyre or dual pair at one wheel end.
    pub tyre_rate: SpringRate,
    /// Moment of the anti-roll bar per radian of body roll against the axle.
    pub anti_roll: RollStiffness,
    /// Height of the roll centre above the ground.
    pub roll_centre_height: Length,
    /// Height of the wheel's centre above the ground.
    pub hub_height: Length,
    /// How far from the middle the arch is measured; the track's half when absent.
    pub arch_lateral: Option<Length>,
    /// What stands between axle and body on either side.
    pub corners: Sides<Corner>,
}

/// What stands between axle and body at one corner.
#[derive(Debug, Clone, PartialEq)]
pub struct Corner {
    /// The spring that carries the kerb weight.
    pub spring: MainSpring,
    /// Stops, helpers and whatever else bears at some point of the travel.
    pub elements: Vec<Element>,
}

/// The main spring of a corner. Its kerb force follows from the wheel loads.
#[derive(Debug, Clone, PartialEq)]
pub struct MainSpring {
    /// Rate at the spring.
    pub rate: SpringRate,
    /// Spring travel over wheel travel; 1 on a beam axle.
    pub motion_ratio: f64,
    /// Whether the spring is held at both ends and so pulls when drawn out.
    pub captive: bool,
    /// Rates that join further up the travel (an overload leaf).
    pub stages: Vec<SpringStage>,
}

impl MainSpring {
    /// A spring of one rate, held at both ends, acting straight at the axle.
    pub fn linear(rate: SpringRate) -> Self {
        MainSpring { rate, motion_ratio: 1.0, captive: true, stages: Vec::new() }
    }

    /// What it carries more once the wheel has gone up by so much from kerb, at the wheel:
    /// `m·(k·mu + Σ k_i·(max(0, mu − at_i) − max(0, −at_i)))`, `m` its motion ratio.
    pub fn gained(&self, wheel_travel: Length) -> Force {
        let travel = self.motion_ratio * wheel_travel.si();
        let past = |stage: &SpringStage, at: f64| (at - stage.at_travel.si()).max(0.0) * stage.added_rate.si();
        let stages: f64 = self.stages.iter().map(|stage| past(stage, travel) - past(stage, 0.0)).sum();
        newtons(self.motion_ratio * (self.rate.si() * travel + stages))
    }
}

/// A rate that joins the main spring past a travel from kerb.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct SpringStage {
    /// Spring travel from kerb at which it begins to bear; negative when it bears at kerb already.
    pub at_travel: Length,
    /// The rate it adds. A leaf pack may soften on its way: then it is negative, and what is left is still a rate.
    pub added_rate: SpringRate,
}

/// What a spring carries more (or less) than the one it takes the place of, at the same length.
///
/// `F(u) = force + rate·u + Σ added·(max(0, u − at) − max(0, −at))`, `u` the spring travel from kerb: all of it may be negative, as
/// long as both together still have a rate above nought.
#[derive(Debug, Clone, PartialEq)]
pub struct SpringDifference {
    /// At kerb.
    pub force: Force,
    /// Rate before the first stage.
    pub rate: SpringRate,
    /// What joins further up the travel.
    pub stages: Vec<SpringStage>,
}

impl Axle {
    /// What the whole axle presses on the ground at kerb weight.
    pub fn kerb_load(&self) -> Force {
        self.kerb_wheel_loads.left + self.kerb_wheel_loads.right
    }

    /// Sideways place of the main spring: half the spring base on a beam, at the wheel otherwise.
    pub(super) fn spring_lateral(&self, side: Side) -> f64 {
        let base = match self.kind {
            AxleKind::Solid => self.spring_base,
            AxleKind::Independent => self.track,
        };
        side.sign() * base.si() / 2.0
    }

    /// Sideways place of the arch that is measured.
    pub(super) fn arch_lateral(&self, side: Side) -> f64 {
        side.sign() * self.arch_lateral.map_or(self.track.si() / 2.0, |lateral| lateral.si())
    }

    /// The force of all that carries one side at kerb weight, at the wheel (independent) or the spring (beam).
    ///
    /// `S = L + R − unsprung`, `D = (R − L)·(track / spring base)` (1 when independent), `F = (S ∓ D)/2`.
    pub(super) fn kerb_spring_force(&self, side: Side) -> f64 {
        let (left, right) = (self.kerb_wheel_loads.left.si(), self.kerb_wheel_loads.right.si());
        let sum = left + right - self.unsprung_weight.si();
        let leverage = match self.kind {
            AxleKind::Solid => self.track.si() / self.spring_base.si(),
            AxleKind::Independent => 1.0,
        };
        (sum + side.sign() * (right - left) * leverage) / 2.0
    }
}

impl Vehicle {
    /// The kerb weight of the whole vehicle.
    pub fn kerb_weight(&self) -> Force {
        self.axles.iter().fold(newtons(0.0), |sum, axle| sum + axle.kerb_load())
    }
}
