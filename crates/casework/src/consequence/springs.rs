//! What becomes of the springs themselves: what bears, what leans, what binds.

use wise_badger_mechanics::correction::{Caution, Correction, MakesGood, TakesUp, on_the_coil_seat, solid_after};
use wise_badger_mechanics::units::{InShopUnits, Length, inches};

use super::Consequence;
use super::option::{OptionFitted, is_something, together};
use crate::look_over::Measure;
use crate::prediction::{Bounce, PredictedState, Prediction, Unpredicted};
use crate::survey::{End, LoadState};

/// Between the springs of a rear axle (common practice).
const SPRING_BASE_IN: f64 = 42.0;
/// A smaller share of its roll stiffness nobody feels.
const NO_STIFFER: f64 = 0.03;

/// A helper or a rubber by itself that changes nothing anywhere hangs there for nothing.
pub(super) fn never_bears(option: &OptionFitted<'_>) -> Vec<Consequence> {
    let [part] = option.parts else { return Vec::new() };
    let Some(prediction) = option.prediction.filter(|_| part.set_to_a_clearance().is_some()) else { return Vec::new() };
    let rises: Vec<Length> = prediction.each().filter_map(|(_, state)| Some(state.as_ref().ok()?.rise.value)).collect();
    let never = !rises.is_empty() && !rises.into_iter().any(is_something);
    never.then_some(Consequence::NeverBears).into_iter().collect()
}

/// What carries beside the pack takes the overload leaf off its pad by as much as it raises; a block takes the whole pack along. What
/// changes the pack itself says nothing of where its overload leaf then is.
pub(super) fn overload_leaf(option: &OptionFitted<'_>) -> Vec<Consequence> {
    let mut of_the_pack = option.at(End::Rear).map(Correction::takes_up);
    if of_the_pack.any(|takes| matches!(takes, TakesUp::MainSpring | TakesUp::OverloadLeaf)) {
        return Vec::new();
    }
    let along = option.together_at(End::Rear, Correction::off_the_seat);
    let of_state = |(state, stands): (LoadState, &Result<PredictedState, Unpredicted>)| {
        let stands = stands.as_ref().ok().filter(|_| !option.survey.manner(state).is_held_by_friction())?;
        let before = stands.overload_clear_before?;
        let rear = stands.off_the_axle.rear;
        let after = before + (rear.left + rear.right) / 2.0 - along;
        let changes = is_something(after - before) && (before.si() < 0.0 || after.si() < 0.0);
        changes.then_some(Consequence::OverloadLeaf { state, before, after })
    };
    option.prediction.into_iter().flat_map(Prediction::each).filter_map(of_state).collect()
}

/// By the axle's rate, which stands at the same base before and after; a bar by its own stiffness against that of springs 42 in apart
/// (common practice).
pub(super) fn against_leaning(option: &OptionFitted<'_>) -> Vec<Consequence> {
    let share = || {
        let prediction = option.prediction?;
        let stands = prediction.loaded.as_ref().or(prediction.empty.as_ref()).ok()?;
        let (before, after) = (stands.bounce_before?.rate.si(), stands.bounce_after?.rate.si());
        let bars: f64 = option.at(End::Rear).map(|part| part.adds_roll_stiffness().value).sum();
        let per_rate = inches(SPRING_BASE_IN).si().powi(2) / 4.0;
        let share = after / before - 1.0 + bars / (before * per_rate);
        let with_air = option.at(End::Rear).any(|part| part.cautions().contains(&Caution::SharedLine));
        (share.abs() > NO_STIFFER).then_some(Consequence::AgainstLeaning { share, with_air })
    };
    share().into_iter().collect()
}

/// From where it stands with the most on it that was read, by the rates there: a softer spring comes nearer its stop, however high it
/// stands empty.
pub(super) fn at_its_rating(option: &OptionFitted<'_>) -> Vec<Consequence> {
    // What takes the stop's place is made to bear.
    if option.at(End::Rear).any(Correction::replaces_stops) {
        return Vec::new();
    }
    let left = || {
        let (prediction, vehicle) = (option.prediction?, &option.survey.vehicle);
        let stands = prediction.loaded.as_ref().or(prediction.empty.as_ref()).ok()?;
        let rated = 2.0 * vehicle.on_one_spring(vehicle.axle_ratings.rear);
        let left = |travel: Length, bounce: Bounce| travel - Length::from((rated - bounce.sprung) / bounce.rate);
        let before = left(stands.travel_before?, stands.bounce_before?);
        let after = left(stands.travel_left?, stands.bounce_after?);
        (rated.value > 0.0 && is_something(after - before)).then_some(Consequence::AtItsRating { before, after })
    };
    left().into_iter().collect()
}

/// Counted from where the corner stood empty before: the stop's gap there, and what the coil then still has to its solid height.
pub(super) fn coil_binds(option: &OptionFitted<'_>) -> Vec<Consequence> {
    let of_end = |end| {
        let longer = option.at(end).filter(|part| part.takes_up() == TakesUp::Stop);
        let gap = option.survey.stop_gap.empty.least(end)? + together(longer, Correction::opens_the_stop);
        let solid = option.at(end).filter_map(|part| solid_after(option.parts, part)).reduce(Length::min)?;
        (gap > solid).then(|| Consequence::CoilBindsFirst { end, by: gap - solid })
    };
    End::BOTH.into_iter().filter_map(of_end).collect()
}

/// Full droop is what the shock draws out to, be it another.
pub(super) fn coil_loose(option: &OptionFitted<'_>) -> Vec<Consequence> {
    let of_end = |(end, rod)| {
        let droop = option.measured(rod)? + option.made_good_at(end, MakesGood::ShockOpens);
        let loose = option.at(end).filter_map(|part| Some(part.loose_after()? + on_the_coil_seat(option.parts, part)));
        let loose = loose.reduce(Length::min)?;
        (droop > loose).then(|| Consequence::CoilLoose { end, by: droop - loose })
    };
    [(End::Rear, Measure::ShockRod), (End::Front, Measure::FrontShockRod)].into_iter().filter_map(of_end).collect()
}
