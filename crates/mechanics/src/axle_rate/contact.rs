//! Whether a stop or an overload leaf may have borne unseen while a rate was measured.

use super::fit::{AxleState, RateFit};
use crate::units::{InShopUnits, Length};

/// Why something besides the main springs is suspected to have borne. Heights alone do not tell a stop from an overload
/// leaf: a gap read with the load on does.
#[derive(Debug, Clone, Copy, PartialEq)]
#[non_exhaustive]
pub enum ContactSuspicion {
    /// The rate is so many times what the class usually has.
    StifferThanItsClass {
        /// Measured over assumed.
        times: f64,
    },
    /// The readings stiffen with load, from so much travel past the lightest state.
    StiffensWithLoad {
        /// Travel at which it begins.
        from: Length,
    },
}

/// Standard deviations by which a later rate must pass an earlier one.
const TELLING_SDS: f64 = 2.0;

impl ContactSuspicion {
    /// What any number of states give reason to suspect: a second stage that was fitted to them, or with three states a
    /// rate that rises from the lighter pair to the heavier by more than two standard deviations.
    pub fn in_states(fit: &RateFit, states: &[AxleState]) -> Option<Self> {
        if let Some(stage) = &fit.second_stage {
            return Some(ContactSuspicion::StiffensWithLoad { from: stage.at_travel.value });
        }
        let mut by_load: Vec<&AxleState> = states.iter().collect();
        by_load.sort_by(|a, b| a.load.value.si().total_cmp(&b.load.value.si()));
        let [lightest, .., middle, heaviest] = by_load.as_slice() else { return None };
        let (lighter, heavier) = (Secant::of(lightest, middle)?, Secant::of(middle, heaviest)?);
        let telling = heavier.log_rate - lighter.log_rate > TELLING_SDS * lighter.relative_sd.hypot(heavier.relative_sd);
        telling.then(|| ContactSuspicion::StiffensWithLoad { from: lightest.height.value - middle.height.value })
    }
}

/// The rate between two states.
struct Secant {
    log_rate: f64,
    relative_sd: f64,
}

impl Secant {
    /// `None` where the heavier state does not stand lower.
    fn of(light: &AxleState, heavy: &AxleState) -> Option<Self> {
        let load = heavy.load.value.si() - light.load.value.si();
        let drop = light.height.value.si() - heavy.height.value.si();
        if load <= 0.0 || drop <= 0.0 {
            return None;
        }
        let load_sd = light.load.sd.si().hypot(heavy.load.sd.si()) / load;
        let drop_sd = light.height.sd.si().hypot(heavy.height.sd.si()) / drop;
        Some(Secant { log_rate: (load / drop).ln(), relative_sd: load_sd.hypot(drop_sd) })
    }
}
