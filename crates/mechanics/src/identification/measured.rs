//! What was read, in which state.

use super::friction::Rest;
use crate::side::{Side, Sides};
use crate::stance::{Stance, State};
use crate::tape::Datum;
use crate::uncertain::Uncertain;
use crate::units::{Force, InShopUnits, Length, metres};

/// A place whose height was read, and from where. Heights from one mark are compared with each other; the height at
/// kerb that lies behind them all is found with the rest.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum TapeMark {
    /// The arch over a wheel.
    Arch {
        /// Which axle.
        axle: String,
        /// Which side; absent, the mean of both.
        side: Option<Side>,
        /// From where to where.
        datum: Datum,
    },
    /// A named point of the body, from the ground.
    Point(String),
    /// The clearance at an element, both sides' mean.
    Gap {
        /// Which axle.
        axle: String,
        /// Which element.
        element: String,
    },
}

/// One thing that was read, with its standard deviation.
#[derive(Debug, Clone, PartialEq)]
pub enum Measurement {
    /// A height or a clearance.
    Height {
        /// Of what, from where.
        mark: TapeMark,
        /// The tape's reading.
        height: Uncertain<Length>,
    },
    /// What one wheel end presses on the ground.
    WheelLoad {
        /// Which axle.
        axle: String,
        /// Which side.
        side: Side,
        /// The scale's reading.
        load: Uncertain<Force>,
    },
    /// What an axle presses on the ground.
    AxleLoad {
        /// Which axle.
        axle: String,
        /// The scale's reading.
        load: Uncertain<Force>,
    },
    /// What a trailer's coupler presses on what holds it.
    TongueWeight(Uncertain<Force>),
}

/// How well a load aboard is known, as standard deviations.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct LoadDoubt {
    /// Of its weight.
    pub weight: Force,
    /// Of its place along the vehicle.
    pub position: Length,
}

/// A state of the vehicle and everything read in it. With no readings it is a state to predict.
#[derive(Debug, Clone, PartialEq)]
pub struct MeasuredState {
    /// What was aboard, as far as it is known.
    pub state: State,
    /// How well each load is known, in the order of the state's loads; those missing are exact.
    pub load_doubts: Vec<LoadDoubt>,
    /// How far an axle (or a point) may stand from where it would come to rest: common to both sides, new in every state.
    pub settling: Length,
    /// How it was brought to rest: what that leaves of the axles' leaf friction.
    pub rest: Rest,
    /// What was read.
    pub readings: Vec<Measurement>,
}

impl TapeMark {
    /// The mean of both arches over an axle.
    pub fn axle(axle: impl Into<String>, datum: Datum) -> Self {
        TapeMark::Arch { axle: axle.into(), side: None, datum }
    }

    /// The arch over one wheel.
    pub fn corner(axle: impl Into<String>, side: Side, datum: Datum) -> Self {
        TapeMark::Arch { axle: axle.into(), side: Some(side), datum }
    }

    /// The axle, or the point, whose settling it takes part in.
    pub(super) fn settles_with(&self) -> &str {
        match self {
            TapeMark::Arch { axle: place, .. } | TapeMark::Gap { axle: place, .. } | TapeMark::Point(place) => place,
        }
    }

    /// How much higher it stands in one stance than in another; `None` of a mark that the vehicle does not have.
    pub fn rise(&self, from: &Stance, to: &Stance) -> Option<Length> {
        Some(metres(self.change(to)? - self.change(from)?))
    }

    /// How far it went from the kerb state, m (a clearance: what it is). `None` for what the vehicle does not have.
    pub(super) fn change(&self, stance: &Stance) -> Option<f64> {
        match self {
            TapeMark::Arch { axle, side, datum } => {
                let axle = stance.axle(axle)?;
                let changes = match datum.includes_tyre() {
                    true => &axle.ground_to_arch_change,
                    false => &axle.hub_to_arch_change,
                };
                Some(of_sides(changes.left.si(), changes.right.si(), *side))
            }
            TapeMark::Point(name) => stance.point(name).map(|rise| rise.si()),
            TapeMark::Gap { axle, element } => {
                let axle = stance.axle(axle)?;
                let gaps = Sides::from_fn(|side| axle.gap(side, element));
                match (gaps.left, gaps.right) {
                    (Some(left), Some(right)) => Some(of_sides(left.si(), right.si(), None)),
                    (gap, None) | (None, gap) => gap.map(|gap| gap.si()),
                }
            }
        }
    }
}

fn of_sides(left: f64, right: f64, side: Option<Side>) -> f64 {
    match side {
        Some(Side::Left) => left,
        Some(Side::Right) => right,
        None => 0.5 * (left + right),
    }
}

impl Measurement {
    /// What was read, and its standard deviation, in SI units.
    pub(super) fn si(&self) -> (f64, f64) {
        match self {
            Measurement::Height { height, .. } => (height.value.si(), height.sd.si()),
            Measurement::WheelLoad { load, .. } | Measurement::AxleLoad { load, .. } | Measurement::TongueWeight(load) => {
                (load.value.si(), load.sd.si())
            }
        }
    }

    /// The mark whose kerb height lies behind the reading, if it is a height.
    pub(super) fn mark(&self) -> Option<&TapeMark> {
        match self {
            Measurement::Height { mark, .. } => Some(mark),
            _ => None,
        }
    }

    /// What the model says of it: a change from kerb for heights, the load itself for loads.
    pub(super) fn modelled(&self, stance: &Stance) -> Option<f64> {
        match self {
            Measurement::Height { mark, .. } => mark.change(stance),
            Measurement::WheelLoad { axle: name, side, .. } => stance.axle(name).map(|axle| axle.wheel_loads.get(*side).si()),
            Measurement::AxleLoad { axle: name, .. } => stance.axle(name).map(|axle| axle.load().si()),
            Measurement::TongueWeight(_) => stance.tongue_weight.map(|weight| weight.si()),
        }
    }
}
