//! Air at work: bags that share one gas. Raw SI `f64` inside.

use super::element::AirBag;
use crate::units::InShopUnits;

/// Pressure of the atmosphere, Pa: the standard atmosphere, exact.
const ATMOSPHERE: f64 = 101_325.0;
/// Of its volume, a gas is never squeezed below this share: from there on the curve goes straight up.
const LEAST_SHARE: f64 = 1e-3;

/// One bag's place in a gas.
#[derive(Debug, Clone, Copy)]
pub(super) struct Bag {
    area: f64,
    slope: f64,
    fill_travel: f64,
}

/// A body of air, with the bags that hold it.
#[derive(Debug, Clone, Copy)]
pub(super) struct Gas {
    /// Absolute pressure when filled.
    fill: f64,
    /// Of the bags, and of the line between them, which is counted once however many bags name it.
    bags: f64,
    line: f64,
    exponent: f64,
    held: bool,
}

/// Absolute pressure over the atmosphere's, and how it rises with the volume taken up.
#[derive(Debug, Clone, Copy)]
pub(super) struct GaugePressure {
    pub(super) value: f64,
    pub(super) slope: f64,
}

impl Bag {
    pub(super) fn new(bag: &AirBag) -> Self {
        Bag { area: bag.area.value, slope: bag.area_slope.si(), fill_travel: bag.fill_travel.si() }
    }

    /// Area at a stroke; a bag that has slimmed to nothing stays at nothing.
    pub(super) fn area(&self, stroke: f64) -> f64 {
        (self.area + self.slope * (stroke - self.fill_travel)).max(0.0)
    }

    /// How the area changes with the stroke.
    pub(super) fn area_slope(&self, stroke: f64) -> f64 {
        if self.area(stroke) > 0.0 { self.slope } else { 0.0 }
    }

    /// Volume taken up since it was filled: `∫A du`, with the area never below nothing.
    pub(super) fn taken_up(&self, stroke: f64) -> f64 {
        let travel = stroke - self.fill_travel;
        // Where the area comes to nothing, the volume goes no further.
        let end = if self.slope.abs() > 0.0 { -self.area / self.slope } else { f64::INFINITY };
        let reached = if (self.slope < 0.0 && travel > end) || (self.slope > 0.0 && travel < end) { end } else { travel };
        self.area * reached + 0.5 * self.slope * reached * reached
    }
}

impl Gas {
    /// The gas of one bag alone, or the first of several on a line.
    pub(super) fn new(bag: &AirBag) -> Self {
        Gas {
            fill: bag.fill_pressure.value + ATMOSPHERE,
            bags: bag.volume.value,
            line: if bag.shares_line { bag.line_volume.value } else { 0.0 },
            exponent: bag.polytropic_exponent,
            held: bag.held_pressure,
        }
    }

    /// Another bag on the same line brings its volume.
    pub(super) fn join(&mut self, bag: &AirBag) {
        self.bags += bag.volume.value;
        self.line = self.line.max(bag.line_volume.value);
    }

    /// Whether a regulator holds its pressure.
    pub(super) fn is_held(&self) -> bool {
        self.held
    }

    /// What it comes to once the regulator is shut off with so much volume taken up: its pressure as it was, `n·p/(V₀ − v)` steep.
    pub(super) fn shut_in(&self, taken_up: f64) -> GaugePressure {
        let volume = self.bags + self.line;
        let left = (volume - taken_up).max(LEAST_SHARE * volume);
        GaugePressure { value: self.fill - ATMOSPHERE, slope: self.exponent * self.fill / left }
    }

    /// `p = p_fill·(V₀/(V₀ − v))ⁿ`, less the atmosphere; never below it, since a bag folds rather than pulls.
    pub(super) fn pressure(&self, taken_up: f64) -> GaugePressure {
        if self.held {
            return GaugePressure { value: self.fill - ATMOSPHERE, slope: 0.0 };
        }
        let volume = self.bags + self.line;
        let least = LEAST_SHARE * volume;
        let left = (volume - taken_up).max(least);
        let absolute = self.fill * (volume / left).powf(self.exponent);
        let slope = self.exponent * absolute / left;
        let beyond = (least - (volume - taken_up)).max(0.0);
        let value = absolute + slope * beyond - ATMOSPHERE;
        if value > 0.0 { GaugePressure { value, slope } } else { GaugePressure { value: 0.0, slope: 0.0 } }
    }
}
