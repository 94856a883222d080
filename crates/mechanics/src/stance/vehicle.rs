//! The vehicle as the stance solver sees it.

use super::element::Element;
use crate::side::{Side, Sides};
use crate::units::{Force, InShopUnits, Length, RollStiffness, SpringRate, newtons};

/// Why a vehicle or a state cannot be solved at all.
#[derive(Debug, Clone, PartialEq, thiserror::Error)]
#[non_exhaustive]
pub enum StanceError {
    /// Fewer than two axles.
    #[error("a vehicle needs two axles or more, this one has {0}")]
    TooFewAxles(usize),
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
    /// Front to rear.
    pub axles: Vec<Axle>,
    /// Places on the body whose height is wanted.
    pub points: Vec<BodyPoint>,
    /// Height of the sprung mass's centre of gravity above the ground.
    pub sprung_cg_height: Length,
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
}

/// A rate that joins the main spring past a travel from kerb.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct SpringStage {
    /// Spring travel from kerb at which it begins to bear; negative when it bears at kerb already.
    pub at_travel: Length,
    /// The rate it adds.
    pub added_rate: SpringRate,
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

    fn check(&self) -> Result<(), StanceError> {
        let named = |what: &str| format!("{what} of axle “{}”", self.name);
        positive(named("track"), self.track.si())?;
        positive(named("spring base"), self.spring_base.si())?;
        positive(named("tyre rate"), self.tyre_rate.si())?;
        nought_or_more(named("unsprung weight"), self.unsprung_weight.si())?;
        nought_or_more(named("anti-roll stiffness"), self.anti_roll.value)?;
        finite(named("position"), self.position.si())?;
        finite(named("roll centre height"), self.roll_centre_height.si())?;
        positive(named("hub height"), self.hub_height.si())?;
        if let Some(lateral) = self.arch_lateral {
            positive(named("arch place"), lateral.si())?;
        }
        for side in Side::BOTH {
            nought_or_more(named("kerb wheel load"), self.kerb_wheel_loads.get(side).si())?;
            let corner = self.corners.get(side);
            positive(named("motion ratio"), corner.spring.motion_ratio)?;
            nought_or_more(named("spring rate"), corner.spring.rate.si())?;
            for stage in &corner.spring.stages {
                finite(named("stage travel"), stage.at_travel.si())?;
                nought_or_more(named("stage rate"), stage.added_rate.si())?;
            }
            for element in &corner.elements {
                element.check(&self.name)?;
            }
            no_name_twice(corner.elements.iter().map(|element| element.name.as_str()))?;
        }
        if self.kerb_load() < self.unsprung_weight {
            return Err(StanceError::OutOfRange {
                what: named("unsprung weight"),
                value: self.unsprung_weight.si(),
                range: "no more than the axle's kerb load",
            });
        }
        Ok(())
    }
}

impl Vehicle {
    /// The kerb weight of the whole vehicle.
    pub fn kerb_weight(&self) -> Force {
        self.axles.iter().fold(newtons(0.0), |sum, axle| sum + axle.kerb_load())
    }

    /// Refuses a vehicle the model has no meaning for, naming the quantity.
    pub(super) fn check(&self) -> Result<(), StanceError> {
        if self.axles.len() < 2 {
            return Err(StanceError::TooFewAxles(self.axles.len()));
        }
        finite("sprung centre of gravity height".to_owned(), self.sprung_cg_height.si())?;
        for (axle, next) in self.axles.iter().zip(self.axles.iter().skip(1)) {
            let gap = next.position.si() - axle.position.si();
            positive(format!("distance from axle “{}” to “{}”", axle.name, next.name), gap)?;
        }
        for axle in &self.axles {
            axle.check()?;
        }
        for point in &self.points {
            finite(format!("position of point “{}”", point.name), point.position.si())?;
            finite(format!("lateral place of point “{}”", point.name), point.lateral.si())?;
        }
        no_name_twice(self.axles.iter().map(|axle| axle.name.as_str()))?;
        no_name_twice(self.points.iter().map(|point| point.name.as_str()))
    }
}

pub(super) fn no_name_twice<'a>(names: impl Iterator<Item = &'a str> + Clone) -> Result<(), StanceError> {
    for (index, name) in names.clone().enumerate() {
        if names.clone().skip(index + 1).any(|other| other == name) {
            return Err(StanceError::NameUsedTwice(name.to_owned()));
        }
    }
    Ok(())
}

pub(super) fn finite(what: String, value: f64) -> Result<(), StanceError> {
    require(value.is_finite(), what, value, "a finite number")
}

pub(super) fn positive(what: String, value: f64) -> Result<(), StanceError> {
    require(value.is_finite() && value > 0.0, what, value, "more than nought")
}

pub(super) fn nought_or_more(what: String, value: f64) -> Result<(), StanceError> {
    require(value.is_finite() && value >= 0.0, what, value, "nought or more")
}

pub(super) fn require_ratio(what: String, value: f64) -> Result<(), StanceError> {
    require(value.is_finite() && value.abs() > 0.0, what, value, "a finite number other than nought")
}

fn require(holds: bool, what: String, value: f64, range: &'static str) -> Result<(), StanceError> {
    if holds { Ok(()) } else { Err(StanceError::OutOfRange { what, value, range }) }
}
