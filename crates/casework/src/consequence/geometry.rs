//! How shafts, bars, arms and seats come to lie.

use wise_badger_mechanics::correction::{Correction, MakesGood};
use wise_badger_mechanics::pack::shim_for;
use wise_badger_mechanics::side_effect::attitude::{joint_angle, track_bar_span};
use wise_badger_mechanics::side_effect::driveline::shaft_angles;
use wise_badger_mechanics::units::{Angle, InShopUnits, Length, metres, radians};

use super::Consequence;
use super::option::{OptionFitted, is_something};
use crate::look_over::Measure;
use crate::survey::End;

/// A change of caster smaller than this nobody feels at the wheel (our own working rule).
const NOTHING_RAD: f64 = 0.25 / 180.0 * std::f64::consts::PI;

pub(super) fn shaft(option: &OptionFitted<'_>) -> Vec<Consequence> {
    let slopes = || {
        let (length, drop) = (option.measured(Measure::ShaftLength)?, option.measured(Measure::ShaftDrop)?);
        let rise = option.rise(End::Rear).filter(|rise| is_something(*rise))?;
        // Measured along the shaft, the span is a little shorter; the rear joint comes down from the frame as the frame comes up.
        let slope = |drop: Length| {
            let span = metres((length.si().powi(2) - drop.si().powi(2)).max(0.0).sqrt());
            shaft_angles(drop, span, radians(0.0), radians(0.0)).ok().map(|angles| angles.shaft)
        };
        Some(Consequence::Shaft { before: slope(drop)?, after: slope(drop + rise)? })
    };
    slopes().into_iter().collect()
}

/// The outer joint goes down from the frame as the front comes up; a differential that is lowered goes with it.
pub(super) fn half_shaft(option: &OptionFitted<'_>) -> Vec<Consequence> {
    let slopes = || {
        let (length, drop) = (option.measured(Measure::HalfShaftLength)?, option.measured(Measure::HalfShaftDrop)?);
        let lower = option.rise(End::Front)? - option.made_good_at(End::Front, MakesGood::DifferentialDrop);
        let (before, after) = (joint_angle(length, drop).ok()?, joint_angle(length, drop + lower).ok()?);
        is_something(lower).then_some(Consequence::HalfShaft { before, after })
    };
    slopes().into_iter().collect()
}

pub(super) fn front_droop(option: &OptionFitted<'_>) -> Vec<Consequence> {
    let along = option.together_at(End::Front, Correction::takes_the_shock_along);
    let lower = along + option.made_good_at(End::Front, MakesGood::ShockOpens);
    is_something(lower).then_some(Consequence::FrontHangsLower(lower)).into_iter().collect()
}

pub(super) fn track_bar(option: &OptionFitted<'_>) -> Vec<Consequence> {
    let of_end = |(end, length, drop)| {
        let (length, drop) = (option.measured(length)?, option.measured(drop)?);
        let (rise, fixed) = (option.rise(end)?, |what| option.made_good_at(end, what));
        let (down, longer) = (fixed(MakesGood::TrackBarDrop), fixed(MakesGood::TrackBarLength));
        let stands = track_bar_span(length, drop).ok()?;
        let by_the_lift = track_bar_span(length, drop + rise).ok()? - stands;
        let shift = track_bar_span(length + longer, drop + rise - down).ok()? - stands;
        let moved = is_something(by_the_lift) || is_something(shift);
        moved.then_some(Consequence::TrackBar { end, by_the_lift, shift })
    };
    let ends = [
        (End::Rear, Measure::RearTrackBarLength, Measure::RearTrackBarDrop),
        (End::Front, Measure::FrontTrackBarLength, Measure::FrontTrackBarDrop),
    ];
    ends.into_iter().filter_map(of_end).collect()
}

/// The frame that comes up behind leans the steering axis forward; so does an axle that hangs on arms, as their ends on the frame come up.
pub(super) fn caster(option: &OptionFitted<'_>) -> Vec<Consequence> {
    let changes = || {
        let by_rake = -option.empty().filter(|_| !option.survey.vehicle.class.is_trailer())?.tilt;
        let up = option.rise(End::Front)? - option.made_good_at(End::Front, MakesGood::RadiusArmDrop);
        let by_arms = option.measured(Measure::RadiusArmLength).and_then(|arm| joint_angle(arm, up).ok());
        let by_arms = by_arms.map_or(radians(0.0), |turned| -turned);
        let told = by_rake.value.abs() > NOTHING_RAD || by_arms.value.abs() > NOTHING_RAD;
        told.then_some(Consequence::Caster { by_rake, by_arms })
    };
    changes().into_iter().collect()
}

/// Told where links are in the option: whether there is a bar at all nobody says otherwise.
pub(super) fn bar_links(option: &OptionFitted<'_>) -> Vec<Consequence> {
    let of_end = |end| {
        let longer = option.made_good_at(end, MakesGood::BarLinks);
        let short = option.rise(end)? - longer;
        is_something(longer).then_some(Consequence::BarLinks { end, short })
    };
    End::BOTH.into_iter().filter_map(of_end).collect()
}

pub(super) fn seat(option: &OptionFitted<'_>) -> Vec<Consequence> {
    let of_packs = option.benches.iter().filter_map(|bench| bench.work.seat_turned());
    let of_packs = furthest(of_packs);
    // One shackle a corner: those of both sides turn their own seats.
    let by_itself = of_packs + furthest(option.at(End::Rear).map(Correction::turns_the_seat));
    // What a taper turns on purpose is told by itself, and takes from what a shim would have to.
    let turned = by_itself + furthest(option.at(End::Rear).map(Correction::tapers));
    let told = shim_for(by_itself).and(shim_for(turned));
    told.map(|_| Consequence::SeatTurns(turned)).into_iter().collect()
}

pub(super) fn taper(option: &OptionFitted<'_>) -> Vec<Consequence> {
    let turned = furthest(option.at(End::Rear).map(Correction::tapers));
    shim_for(turned).map(|_| Consequence::PinionTurned(turned)).into_iter().collect()
}

/// The widest of some angles, with its sign.
fn furthest(angles: impl Iterator<Item = Angle>) -> Angle {
    angles.reduce(|one, other| if other.abs() > one.abs() { other } else { one }).unwrap_or(radians(0.0))
}
