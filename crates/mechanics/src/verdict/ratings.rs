//! Axle and gross ratings against what the axles carry, and what must come off.

use crate::survey::{Basis, End, LoadPut, LoadState, Survey};
use crate::units::{Force, InShopUnits, Length, metres, newtons};

/// What a rating is for.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Rated {
    /// One axle.
    Axle(End),
    /// The whole vehicle.
    Gross,
}

/// One rating in one state.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct RatingCheck {
    /// What is rated.
    pub rated: Rated,
    /// In which state.
    pub state: LoadState,
    /// What it carries.
    pub load: Force,
    /// What it may carry.
    pub rating: Force,
    /// Whether the empty weight under that load was stated or assumed.
    pub basis: Basis,
}

impl RatingCheck {
    /// What may still be added; negative, it is over by so much.
    pub fn margin(&self) -> Force {
        self.rating - self.load
    }

    /// Every rating that can be checked, empty and loaded.
    pub fn all(survey: &Survey) -> Vec<RatingCheck> {
        let (loads, vehicle) = (survey.axle_loads(), &survey.vehicle);
        let mut checks = Vec::new();
        for state in LoadState::BOTH {
            let carried = |end: End| match state {
                LoadState::Empty => Some(*loads.empty.get(end)),
                LoadState::Loaded => loads.loaded(end),
            };
            for end in [End::Front, End::Rear] {
                if let Some(load) = carried(end) {
                    let (rating, basis) = (*vehicle.axle_ratings.get(end), *loads.empty_basis.get(end));
                    checks.push(RatingCheck { rated: Rated::Axle(end), state, load, rating, basis });
                }
            }
            if let (Some(front), Some(rear), Some(rating)) = (carried(End::Front), carried(End::Rear), vehicle.gross_rating) {
                let assumed = loads.empty_basis.front == Basis::Assumed || loads.empty_basis.rear == Basis::Assumed;
                let basis = if assumed { Basis::Assumed } else { Basis::Stated };
                checks.push(RatingCheck { rated: Rated::Gross, state, load: front + rear, rating, basis });
            }
        }
        checks
    }
}

/// How an overload is put right. No spring does it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Relief {
    /// Weight comes off where the load sits.
    TakeOff {
        /// How much.
        weight: Force,
        /// Where, rearward from the rear axle; absent when the axles were weighed and the place is not known.
        behind_rear_axle: Option<Length>,
        /// Moving the whole load this far forward would do instead, where the front axle can take it.
        or_move_forward: Option<Length>,
    },
    /// Empty weight alone is over: taking the load off does not help.
    EmptyIsOver,
}

/// One rating or more is passed.
#[derive(Debug, Clone, PartialEq)]
pub struct Overload {
    /// The ratings passed.
    pub over: Vec<RatingCheck>,
    /// How to put it right.
    pub relief: Relief,
    /// What the rear axle carries less once that is done.
    pub rear_relief: Force,
}

impl Overload {
    /// Finds the ratings passed and what must come off, or `None` when all hold.
    ///
    /// For an axle that carries a share `s` of the load at its place (`x/L` rear, `1 − x/L` front, 1 for
    /// the gross rating), an excess `e` goes when `e/s` comes off there. Moving the load forward by `d`
    /// takes `W·d/L` off the rear axle and puts it on the front.
    ///
    /// # Source     lever arms; any statics text
    pub fn of(survey: &Survey) -> Option<Overload> {
        let over: Vec<RatingCheck> = RatingCheck::all(survey).into_iter().filter(|check| check.margin().si() < 0.0).collect();
        if over.is_empty() {
            return None;
        }
        let (relief, rear_relief) = relief(survey, &over);
        Some(Overload { over, relief, rear_relief })
    }
}

fn relief(survey: &Survey, over: &[RatingCheck]) -> (Relief, Force) {
    let nothing = newtons(0.0);
    if over.iter().any(|check| check.state == LoadState::Empty) {
        return (Relief::EmptyIsOver, nothing);
    }
    match &survey.load {
        Some(LoadPut::Placed { weight, behind_rear_axle }) => {
            let wheelbase = survey.vehicle.wheelbase.si();
            let rear_share = (wheelbase + behind_rear_axle.si()) / wheelbase;
            let share = |rated| match rated {
                Rated::Axle(End::Rear) => rear_share,
                Rated::Axle(End::Front) => 1.0 - rear_share,
                Rated::Gross => 1.0,
            };
            let off = over.iter().map(|check| -check.margin().si() / share(check.rated)).fold(0.0, f64::max);
            let or_move_forward = move_forward(survey, over, *weight);
            let relief = Relief::TakeOff { weight: newtons(off), behind_rear_axle: Some(*behind_rear_axle), or_move_forward };
            (relief, newtons(off * rear_share))
        }
        _ => {
            let excess = |end| {
                let checks = over.iter().filter(move |check| check.rated == Rated::Axle(end));
                checks.map(|check| -check.margin().si()).fold(0.0, f64::max)
            };
            let gross =
                over.iter().filter(|check| check.rated == Rated::Gross).map(|check| -check.margin().si()).fold(0.0, f64::max);
            let off = (excess(End::Front) + excess(End::Rear)).max(gross);
            let relief = Relief::TakeOff { weight: newtons(off), behind_rear_axle: None, or_move_forward: None };
            (relief, newtons(excess(End::Rear)))
        }
    }
}

/// How far forward the whole load would have to go, where only the rear axle is over and the front has room.
fn move_forward(survey: &Survey, over: &[RatingCheck], weight: Force) -> Option<Length> {
    let [RatingCheck { rated: Rated::Axle(End::Rear), .. }] = over else { return None };
    let excess = -over.first()?.margin();
    let front = survey.axle_loads().loaded(End::Front)?;
    let front_has_room = front + excess <= *survey.vehicle.axle_ratings.get(End::Front);
    let shift = metres(excess.si() * survey.vehicle.wheelbase.si() / weight.si());
    (front_has_room && shift < survey.vehicle.wheelbase).then_some(shift)
}
