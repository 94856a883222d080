//! Slips of the hand: figures that may be right and seldom are. They are asked about where they stand, and never refused.
//!
//! The limits are common practice, wide enough for what comes through the door of a shop.

use wise_badger_mechanics::side::Side;
use wise_badger_mechanics::tape::{Datum, Repeats};
use wise_badger_mechanics::units::{Force, Length, inches, metres, newtons};

use crate::case::Case;
use crate::reading::{Phase, Place, Spot};
use crate::survey::{Basis, End, LoadState, Manner, Survey};

/// A figure that is worth a second look.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Slip {
    /// Left and right of an end stand so far apart in a state.
    SidesApart {
        /// Which end.
        end: End,
        /// In which state.
        state: LoadState,
        /// How far.
        apart: Length,
    },
    /// Several readings of one corner lie so far apart.
    RepeatsApart {
        /// Which corner.
        spot: Spot,
        /// How far.
        apart: Length,
    },
    /// A height that the job's datum seldom shows.
    HeightSeldom {
        /// Which corner.
        spot: Spot,
        /// What was read.
        height: Length,
        /// The datum that it would fit.
        fits: Option<Datum>,
    },
    /// The stop gap is wider in a state than empty, though the rear stands lower.
    GapGrows {
        /// In which state.
        state: LoadState,
        /// By how much.
        by: Length,
    },
    /// With the same aboard the rear stands lower lifted than pressed down, which friction between leaves never does.
    LiftedStandsLower {
        /// The state read pressed down.
        pressed: LoadState,
        /// The state read lifted.
        lifted: LoadState,
        /// By how much.
        by: Length,
    },
    /// A rating under what the axle, or the whole vehicle (no end), weighs empty.
    RatingBelowEmpty {
        /// Which axle.
        end: Option<End>,
        /// The empty weight.
        empty: Force,
        /// Whether that is known.
        basis: Basis,
    },
    /// A rating many times what the axle weighs empty.
    RatingFarAboveEmpty {
        /// Which axle.
        end: End,
        /// What may have been meant.
        likely: Force,
    },
}

/// Sides further apart than this seldom are.
const SIDES_APART_IN: f64 = 2.0;
/// Readings of one corner further apart than this are two different things.
const REPEATS_APART_IN: f64 = 0.5;
/// A gap wider by more than the tape explains.
const GAP_GROWS_IN: f64 = 0.25;
/// No axle is rated for so many times what it weighs empty.
const FAR_ABOVE_EMPTY: f64 = 6.0;

/// Between what a height usually lies, in inches: of a vehicle on arches, and of a trailer's frame.
fn usual_heights(datum: Datum, trailer: bool) -> Option<(f64, f64)> {
    match (datum, trailer) {
        (Datum::GroundToArch, false) => Some((22.0, 60.0)),
        (Datum::HubToArch, false) => Some((8.0, 36.0)),
        (Datum::RimToArch, false) => Some((14.0, 46.0)),
        (Datum::TyreTopToArch, false) => Some((0.5, 20.0)),
        (Datum::GroundToArch, true) => Some((8.0, 60.0)),
        _ => None,
    }
}

const ARCH_DATUMS: [Datum; 4] = [Datum::GroundToArch, Datum::HubToArch, Datum::RimToArch, Datum::TyreTopToArch];
const CORNERS: [(Place, End, Side); 4] = [
    (Place::FrontLeft, End::Front, Side::Left),
    (Place::FrontRight, End::Front, Side::Right),
    (Place::RearLeft, End::Rear, Side::Left),
    (Place::RearRight, End::Rear, Side::Right),
];

/// Every slip that a job's figures show as the vehicle came in.
pub fn slips(case: &Case, survey: &Survey) -> Vec<Slip> {
    let mut slips = Vec::new();
    for state in survey.states() {
        for end in End::BOTH {
            let apart = survey.lean(end, state).map(Length::abs).filter(|apart| *apart > inches(SIDES_APART_IN));
            slips.extend(apart.map(|apart| Slip::SidesApart { end, state, apart }));
        }
        for (place, ..) in CORNERS {
            slips.extend(of_corner(case, survey, Spot { phase: Phase::Found, state, place }));
        }
        slips.extend(gap_grows(survey, state));
        slips.extend(lifted_stands_lower(survey, state));
    }
    slips.extend(ratings(survey));
    slips
}

fn of_corner(case: &Case, survey: &Survey, spot: Spot) -> Vec<Slip> {
    let read: Vec<_> = case.at(spot).collect();
    let lengths: Vec<Length> = read.iter().map(|reading| metres(reading.value.si)).collect();
    let apart = Repeats::of(&lengths).map(|repeats| repeats.apart).filter(|apart| *apart > inches(REPEATS_APART_IN));
    let mut slips: Vec<Slip> = apart.map(|apart| Slip::RepeatsApart { spot, apart }).into_iter().collect();
    let trailer = survey.vehicle.class.is_trailer();
    let fits = |datum: Datum, height: Length| {
        usual_heights(datum, trailer).is_none_or(|(least, most)| (inches(least)..=inches(most)).contains(&height))
    };
    let seldom = read.iter().zip(&lengths).find(|(reading, height)| !fits(reading.datum, **height));
    slips.extend(seldom.map(|(reading, height)| {
        let other = ARCH_DATUMS.into_iter().find(|datum| *datum != reading.datum && !trailer && fits(*datum, *height));
        Slip::HeightSeldom { spot, height: *height, fits: other }
    }));
    slips
}

fn gap_grows(survey: &Survey, state: LoadState) -> Option<Slip> {
    let by = survey.middle_gap(state)?.value - survey.middle_gap(LoadState::Empty)?.value;
    let falls = survey.height(End::Rear, LoadState::Empty)?.value - survey.height(End::Rear, state)?.value;
    let grows = by > inches(GAP_GROWS_IN) && falls > inches(GAP_GROWS_IN);
    grows.then_some(Slip::GapGrows { state, by })
}

/// Looks at a state that was read lifted, beside each read pressed down with the same aboard.
fn lifted_stands_lower(survey: &Survey, lifted: LoadState) -> Option<Slip> {
    let aboard = |state| survey.axle_loads_in(state).map(|loads| loads.change);
    let rear = |state| survey.height(End::Rear, state).map(|height| height.value);
    let is_pressed = |state: &LoadState| survey.manner(*state) == Manner::PressedDown && aboard(*state) == aboard(lifted);
    let stands = rear(lifted).filter(|_| survey.manner(lifted) == Manner::Lifted && aboard(lifted).is_some())?;
    let lower = |pressed| rear(pressed).map(|height| height - stands).filter(|by| *by > Length::default());
    let slip = |pressed| Some(Slip::LiftedStandsLower { pressed, lifted, by: lower(pressed)? });
    survey.states().filter(is_pressed).find_map(slip)
}

fn ratings(survey: &Survey) -> Vec<Slip> {
    let vehicle = &survey.vehicle;
    let [front, rear] = End::BOTH.map(|end| vehicle.kerb_weight(end));
    let mut slips = Vec::new();
    for (end, (empty, basis)) in [(End::Front, front), (End::Rear, rear)] {
        let rating = *vehicle.axle_ratings.get(end);
        if rating < empty {
            slips.push(Slip::RatingBelowEmpty { end: Some(end), empty, basis });
        } else if rating > FAR_ABOVE_EMPTY * empty && !vehicle.class.is_trailer() {
            slips.push(Slip::RatingFarAboveEmpty { end, likely: rating / 10.0 });
        }
    }
    let empty = front.0 + rear.0;
    let basis = if front.1 == Basis::Stated && rear.1 == Basis::Stated { Basis::Stated } else { Basis::Assumed };
    let below = vehicle.gross_rating.is_some_and(|gross| gross < empty && gross > newtons(0.0));
    slips.extend(below.then_some(Slip::RatingBelowEmpty { end: None, empty, basis }));
    slips
}
