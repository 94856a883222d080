//! Refusing vehicles and states the model has no meaning for, naming the quantity.

use super::element::{AirBag, Element, ElementKind, StopCurve};
use super::state::{Load, State};
use super::vehicle::{Axle, Coupler, Equaliser, SpringDifference, SpringStage, StanceError, Vehicle};
use crate::side::Side;
use crate::units::InShopUnits;

impl Vehicle {
    /// Refuses a vehicle the model has no meaning for.
    pub(crate) fn check(&self) -> Result<(), StanceError> {
        let least = if self.coupler.is_some() { 1 } else { 2 };
        if self.axles.len() < least {
            return Err(StanceError::TooFewAxles { least, count: self.axles.len() });
        }
        finite(|| "sprung center of gravity height".to_owned(), self.sprung_cg_height.si())?;
        for (axle, next) in self.axles.iter().zip(self.axles.iter().skip(1)) {
            let apart = || format!("distance from axle “{}” to “{}”", axle.name, next.name);
            positive(apart, next.position.si() - axle.position.si())?;
        }
        for axle in &self.axles {
            axle.check()?;
        }
        for point in &self.points {
            finite(|| format!("position of point “{}”", point.name), point.position.si())?;
            finite(|| format!("lateral place of point “{}”", point.name), point.lateral.si())?;
        }
        if let (Some(coupler), Some(first)) = (&self.coupler, self.axles.first()) {
            coupler.check(first)?;
        }
        for equaliser in &self.equalisers {
            self.check_equaliser(equaliser)?;
        }
        no_name_twice(self.axles.iter().map(|axle| axle.name.as_str()))?;
        no_name_twice(self.points.iter().map(|point| point.name.as_str()))
    }

    fn check_equaliser(&self, equaliser: &Equaliser) -> Result<(), StanceError> {
        let named = |what: &str| format!("{what} of the {} equalizer", equaliser.side.name());
        positive(|| named("front arm"), equaliser.front_arm.si())?;
        positive(|| named("rear arm"), equaliser.rear_arm.si())?;
        positive(|| named("stop"), equaliser.stop.value)?;
        let place = |name: &str| {
            let found = self.axles.iter().position(|axle| axle.name == name);
            found.ok_or_else(|| StanceError::NoSuchAxle(name.to_owned()))
        };
        let [front, rear] = &equaliser.axles;
        let (front, rear) = (place(front)?, place(rear)?);
        let behind = if rear > front { 1.0 } else { -1.0 };
        require(behind > 0.0, || named("order of the axles"), behind, "front before rear")?;
        // Each spring has one front and one rear eye: an axle is the front of one rocker a side at most, and the rear of one.
        let others = || self.equalisers.iter().filter(|other| other.side == equaliser.side);
        let twice = equaliser
            .axles
            .iter()
            .enumerate()
            .find(|(eye, axle)| others().filter(|other| other.axles.get(*eye) == Some(axle)).count() > 1);
        twice.map_or(Ok(()), |(_, axle)| Err(StanceError::NameUsedTwice(axle.clone())))
    }
}

impl Coupler {
    fn check(&self, first: &Axle) -> Result<(), StanceError> {
        finite(|| "coupler position".to_owned(), self.position.si())?;
        finite(|| "coupler lateral place".to_owned(), self.lateral.si())?;
        finite(|| "coupler curb load".to_owned(), self.kerb_load.si())?;
        positive(|| "distance from the coupler to the first axle".to_owned(), first.position.si() - self.position.si())
    }
}

impl Axle {
    fn check(&self) -> Result<(), StanceError> {
        let named = |what: &'static str| move || format!("{what} of axle “{}”", self.name);
        positive(named("track"), self.track.si())?;
        positive(named("spring base"), self.spring_base.si())?;
        positive(named("tire rate"), self.tyre_rate.si())?;
        nought_or_more(named("unsprung weight"), self.unsprung_weight.si())?;
        nought_or_more(named("sway-bar stiffness"), self.anti_roll.value)?;
        finite(named("position"), self.position.si())?;
        finite(named("roll center height"), self.roll_centre_height.si())?;
        positive(named("hub height"), self.hub_height.si())?;
        if let Some(lateral) = self.arch_lateral {
            positive(named("arch place"), lateral.si())?;
        }
        for side in Side::BOTH {
            nought_or_more(named("curb wheel load"), self.kerb_wheel_loads.get(side).si())?;
            let corner = self.corners.get(side);
            positive(named("motion ratio"), corner.spring.motion_ratio)?;
            nought_or_more(named("spring rate"), corner.spring.rate.si())?;
            rates_stay_above_nought(&self.name, corner.spring.rate.si(), &corner.spring.stages)?;
            for element in &corner.elements {
                element.check(&self.name)?;
            }
            no_name_twice(corner.elements.iter().map(|element| element.name.as_str()))?;
        }
        let holds = self.kerb_load() >= self.unsprung_weight;
        require(holds, named("unsprung weight"), self.unsprung_weight.si(), "no more than the axle's curb load")
    }
}

/// No stage, wherever it joins, leaves a spring without a rate.
fn rates_stay_above_nought(axle: &str, rate: f64, stages: &[SpringStage]) -> Result<(), StanceError> {
    let named = |what: &'static str| move || format!("{what} on axle “{axle}”");
    for stage in stages {
        finite(named("stage travel"), stage.at_travel.si())?;
        finite(named("stage rate"), stage.added_rate.si())?;
        let joined = stages.iter().filter(|other| other.at_travel <= stage.at_travel);
        let left = rate + joined.map(|other| other.added_rate.si()).sum::<f64>();
        require(left >= 0.0, named("what is left of the spring rate past a stage"), left, "zero or more")?;
    }
    Ok(())
}

impl SpringDifference {
    /// Sound on a corner of an axle: with the spring that is there, it leaves a rate.
    pub(super) fn check(&self, axle: &Axle) -> Result<(), StanceError> {
        let named = |what: &'static str| move || format!("{what} on axle “{}”", axle.name);
        finite(named("added spring force"), self.force.si())?;
        finite(named("added spring rate"), self.rate.si())?;
        for side in Side::BOTH {
            let spring = &axle.corners.get(side).spring;
            let together = spring.rate.si() + self.rate.si();
            require(together >= 0.0, named("the rate of the other spring"), together, "zero or more")?;
            let stages: Vec<SpringStage> = spring.stages.iter().chain(&self.stages).copied().collect();
            rates_stay_above_nought(&axle.name, together, &stages)?;
        }
        Ok(())
    }
}

impl Element {
    pub(super) fn check(&self, axle: &str) -> Result<(), StanceError> {
        let named = |what: &'static str| move || format!("{what} of “{}” on axle “{axle}”", self.name);
        let ratio = self.motion_ratio;
        require(ratio.is_finite() && ratio.abs() > 0.0, named("motion ratio"), ratio, "a finite number other than zero")?;
        if let Some(lateral) = self.lateral {
            finite(named("lateral place"), lateral.si())?;
        }
        finite(named("gap"), self.clearance_m())?;
        match &self.kind {
            ElementKind::Bump { curve: StopCurve::Linear(rate), .. } | ElementKind::Helper { rate, .. } => {
                nought_or_more(named("rate"), rate.si())
            }
            ElementKind::Bump { curve: StopCurve::Table(_), .. } => Ok(()),
            ElementKind::Air(bag) => bag.check(axle, &self.name),
        }
    }
}

impl AirBag {
    fn check(&self, axle: &str, name: &str) -> Result<(), StanceError> {
        let named = |what: &'static str| move || format!("{what} of “{name}” on axle “{axle}”");
        positive(named("area"), self.area.value)?;
        positive(named("volume"), self.volume.value)?;
        nought_or_more(named("fill pressure"), self.fill_pressure.value)?;
        finite(named("fill travel"), self.fill_travel.si())?;
        positive(named("polytropic exponent"), self.polytropic_exponent)?;
        finite(named("area slope"), self.area_slope.si())?;
        nought_or_more(named("line volume"), self.line_volume.value)
    }
}

impl State {
    pub(crate) fn check(&self) -> Result<(), StanceError> {
        self.loads.iter().try_for_each(|load| load.check(&self.name))?;
        let named = |what: &'static str| move || format!("{what} in state “{}”", self.name);
        finite(named("coupler rise"), self.coupler_rise.si())?;
        finite(named("lateral acceleration"), self.lateral_acceleration_g)?;
        finite(named("pitch couple"), self.pitch_couple.value)?;
        self.sideways_pull.map_or(Ok(()), |pull| {
            finite(named("sideways pull"), pull.force.si())?;
            finite(named("height of the sideways pull"), pull.height.si())?;
            finite(named("place of the sideways pull"), pull.position.si())
        })
    }
}

impl Load {
    fn check(&self, state: &str) -> Result<(), StanceError> {
        let named = |what: &'static str| move || format!("{what} in state “{state}”");
        nought_or_more(named("weight"), self.weight.si())?;
        finite(named("load position"), self.position.si())?;
        finite(named("load lateral place"), self.lateral.si())?;
        finite(named("load height"), self.height.map_or(0.0, |height| height.si()))
    }
}

fn no_name_twice<'a>(names: impl Iterator<Item = &'a str> + Clone) -> Result<(), StanceError> {
    for (index, name) in names.clone().enumerate() {
        if names.clone().skip(index + 1).any(|other| other == name) {
            return Err(StanceError::NameUsedTwice(name.to_owned()));
        }
    }
    Ok(())
}

pub(super) fn finite(what: impl FnOnce() -> String, value: f64) -> Result<(), StanceError> {
    require(value.is_finite(), what, value, "a finite number")
}

pub(super) fn positive(what: impl FnOnce() -> String, value: f64) -> Result<(), StanceError> {
    require(value.is_finite() && value > 0.0, what, value, "more than zero")
}

pub(super) fn nought_or_more(what: impl FnOnce() -> String, value: f64) -> Result<(), StanceError> {
    require(value.is_finite() && value >= 0.0, what, value, "zero or more")
}

/// The name of the quantity is only made when it is needed: a check that holds costs a comparison.
fn require(holds: bool, what: impl FnOnce() -> String, value: f64, range: &'static str) -> Result<(), StanceError> {
    if holds { Ok(()) } else { Err(StanceError::OutOfRange { what: what(), value, range }) }
}
