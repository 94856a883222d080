//! Friction between the leaves of an axle's springs, which holds a vehicle off where it would come to rest.
//!
//! It is an error of each state, common to both sides of an axle: the leaves push by a share of what they carry too much or too
//! little. Two readings of one state, one with the vehicle pressed down before and one with it lifted, measure the share.

/// Friction between the leaves of an axle's springs, as it is believed to be.
#[derive(Debug, Clone, PartialEq)]
pub struct LeafFriction {
    /// Which axle.
    pub axle: String,
    /// How far it may hold the springs either way as the vehicle happens to stand, as a share of what they carry: the half-width of
    /// the band, two standard deviations. From 0 to 1.
    pub share: f64,
    /// Standard deviation of the logarithm of the share: roughly, by what share of itself it may be off. Above nought, at most 1.
    pub relative_sd: f64,
}

/// How the vehicle was brought to rest before it was read.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub enum Rest {
    /// As it stood: held either way, nobody knows how far.
    #[default]
    AsItStood,
    /// Rolled and bounced: either way, by half as much.
    RolledAndBounced,
    /// Pressed down and let come up: held low by all that there is.
    PressedDown,
    /// Lifted and let come down: held high by all that there is.
    Lifted,
}

/// Of leaf friction, what is left once the vehicle was rolled and bounced (common practice).
const ROLLED: f64 = 0.5;
/// Spread of where a vehicle comes to rest that was pressed down or lifted, beside one that stands as it happens to (our own working
/// rule).
const HELD: f64 = 0.3;

impl Rest {
    /// Which way friction holds it by all that there is: up, down, or neither.
    pub(super) fn pull(self) -> f64 {
        match self {
            Rest::AsItStood | Rest::RolledAndBounced => 0.0,
            Rest::PressedDown => -1.0,
            Rest::Lifted => 1.0,
        }
    }

    /// How wide it spreads about that, as a share of how wide it does where the vehicle stands as it happens to.
    pub fn spread(self) -> f64 {
        match self {
            Rest::AsItStood => 1.0,
            Rest::RolledAndBounced => ROLLED,
            Rest::PressedDown | Rest::Lifted => HELD,
        }
    }
}

impl LeafFriction {
    /// Standard deviation of what the leaves push too much or too little as the vehicle happens to stand, as a share of what they carry:
    /// `½·share·√(1 + relative_sd²)`, since the share itself is in doubt.
    pub fn sd(&self) -> f64 {
        0.5 * self.share * 1.0_f64.hypot(self.relative_sd)
    }
}
