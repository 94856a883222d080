//! What stands under the frame carry.

use wise_badger_mechanics::side_effect::fastening::worst_stand;
use wise_badger_mechanics::units::{Force, Length, inches};

use crate::survey::{Basis, End, LoadState, Survey};

/// How far from the axle that is worked on, toward the middle, stands find room under a frame (common practice).
pub const STANDS_FROM_THE_AXLE_IN: f64 = 24.0;
/// What the worse of a pair carries of both (common practice: floors and frames are not even).
pub const SHARE_OF_THE_WORSE: f64 = 0.6;
/// A stand's rating is to be so many times what it carries (our own working rule).
pub const RATED_FOR: f64 = 1.5;

/// What the worse of two stands carries in a state.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct OnTheWorseStand {
    /// In which state.
    pub state: LoadState,
    /// So much.
    pub load: Force,
    /// Whether an axle's weight behind it was only assumed.
    pub assumed: bool,
}

/// All that lies on both axles in a state, and how far from the axle that stays down it acts; `None` where an axle's is not known.
fn weight_at(survey: &Survey, end: End, state: LoadState) -> Option<(Force, Length)> {
    let loads = survey.axle_loads();
    let on = |of: End| if state == LoadState::Empty { Some(*loads.empty.get(of)) } else { loads.loaded(of) };
    let (front, rear) = (on(End::Front)?, on(End::Rear)?);
    let lifted = if end == End::Front { front } else { rear };
    Some((front + rear, survey.vehicle.wheelbase * (lifted / (front + rear))))
}

fn arm(survey: &Survey) -> Length {
    survey.vehicle.wheelbase - inches(STANDS_FROM_THE_AXLE_IN)
}

/// What the worse of two stands carries with an end in the air: empty, and with the load on where both axles are known.
///
/// # Source     lever arms: what lies on both axles, held at the axle that stays down and at the stands
pub fn on_the_worse_stand(survey: &Survey, end: End) -> Vec<OnTheWorseStand> {
    let basis = survey.axle_loads().empty_basis;
    let assumed = End::BOTH.into_iter().any(|end| *basis.get(end) == Basis::Assumed);
    let of_state = |state: LoadState| {
        let (weight, centre) = weight_at(survey, end, state)?;
        // With the weight past the stands the other end comes up: no stand is chosen for that.
        let load = worst_stand(weight, centre, arm(survey), SHARE_OF_THE_WORSE).ok()?;
        Some(OnTheWorseStand { state, load, assumed })
    };
    LoadState::BOTH.into_iter().filter_map(of_state).collect()
}

/// Whether the weight lies past stands put there, empty or with the load on, so that the vehicle tips back.
pub fn tips_back(survey: &Survey, end: End) -> bool {
    LoadState::BOTH.into_iter().filter_map(|state| weight_at(survey, end, state)).any(|(_, centre)| centre > arm(survey))
}
