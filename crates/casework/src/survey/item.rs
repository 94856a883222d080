//! One thing aboard.

use super::basis::Basis;
use super::end::End;
use wise_badger_mechanics::uncertain::Uncertain;
use wise_badger_mechanics::units::{Force, InShopUnits, Length, inches, newtons, pounds};

/// A weight at a place.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Item {
    /// Its weight; for a tongue, what it presses on the ball.
    pub weight: Force,
    /// Rearward from the rear axle; negative is ahead of it.
    pub behind_rear_axle: Length,
    /// Right of the middle; negative is left of it.
    pub lateral: Length,
    /// Height of its own middle above the ground, where known.
    pub height: Option<Length>,
    /// Whether it presses on the hitch, and so counts against the hitch's rating.
    pub on_hitch: bool,
    /// Whether somebody knows its weight, or it is the usual one of such a thing.
    pub basis: Basis,
}

impl Item {
    /// A weight in the middle of the vehicle.
    pub fn at(weight: Force, behind_rear_axle: Length) -> Self {
        Item { weight, behind_rear_axle, lateral: Length::default(), height: None, on_hitch: false, basis: Basis::Stated }
    }

    /// The share of it that the rear axle carries: `x/L`, `x` from the front axle. Above 1 behind the rear axle, where it
    /// lightens the front; below 0 ahead of the front axle.
    ///
    /// # Source     lever arms; any statics text
    pub fn rear_share(&self, wheelbase: Length) -> f64 {
        (wheelbase.si() + self.behind_rear_axle.si()) / wheelbase.si()
    }

    /// The share of it that an end carries: front and rear make one.
    pub fn share_on(&self, end: End, wheelbase: Length) -> f64 {
        match end {
            End::Front => 1.0 - self.rear_share(wheelbase),
            End::Rear => self.rear_share(wheelbase),
        }
    }

    /// Standard deviation of its weight.
    pub fn weight_sd(&self) -> Force {
        match self.basis {
            Basis::Stated => scale_sd(),
            Basis::Assumed => scale_sd().max(USUAL_WEIGHT_SD * self.weight),
        }
    }

    /// What it adds to an axle that carries a share of it: `σ² = (share·σ_W)² + (W·σ_x/L)²`.
    pub(super) fn adds(&self, share: f64, wheelbase: Length) -> Uncertain<Force> {
        let place_part = self.weight.si() * place_sd().si() / wheelbase.si();
        Uncertain::new(self.weight * share, newtons((share * self.weight_sd().si()).hypot(place_part)))
    }
}

/// Where several things have their common centre.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Centre {
    /// All of them together.
    pub weight: Force,
    /// Rearward from the rear axle.
    pub behind_rear_axle: Length,
    /// Right of the middle.
    pub lateral: Length,
    /// Above the ground; absent where one of them has no height.
    pub height: Option<Length>,
}

impl Centre {
    /// The common centre of gravity; `None` of nothing.
    ///
    /// `x̄ = Σ(W·x)/ΣW`, and so on for the other two ways.
    pub fn of(items: &[Item]) -> Option<Centre> {
        let weight: Force = items.iter().map(|item| item.weight).sum();
        if weight <= newtons(0.0) {
            return None;
        }
        let mean = |of: &dyn Fn(&Item) -> Length| items.iter().map(|item| of(item) * (item.weight / weight)).sum::<Length>();
        let height = items.iter().all(|item| item.height.is_some()).then(|| mean(&|item| item.height.unwrap_or_default()));
        Some(Centre {
            weight,
            behind_rear_axle: mean(&|item| item.behind_rear_axle),
            lateral: mean(&|item| item.lateral),
            height,
        })
    }
}

/// Standard deviation of the usual weight of a thing that nobody weighed, as a share of it (our own working rule).
const USUAL_WEIGHT_SD: f64 = 0.20;

/// Standard deviation of a weight known by scale, or of a load stated by weight (common practice).
pub fn scale_sd() -> Force {
    pounds(26.0)
}

/// Standard deviation of where a load is said to sit (common practice).
pub fn place_sd() -> Length {
    inches(2.0)
}
