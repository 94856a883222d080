//! What an option uses up beside the springs: hose, shock, stop and U-bolts.

use wise_badger_mechanics::correction::{Correction, MakesGood};
use wise_badger_mechanics::units::Length;

use super::Consequence;
use super::option::{OptionFitted, is_something};
use crate::bench::SideBench;
use crate::look_over::Measure;
use crate::survey::End;

/// Of the shortest hose it is not known which axle's it is: the end that is left with less counts. A longer shock lets the axle hang lower
/// where the old one ended its droop.
pub(super) fn hose(option: &OptionFitted<'_>) -> Vec<Consequence> {
    let Some(measured) = option.measured(Measure::HoseSlack) else { return Vec::new() };
    let of_end = |end| {
        let by_the_shock = option.made_good_at(end, MakesGood::ShockOpens);
        let hangs_lower = option.together_at(end, Correction::hangs_lower).max(by_the_shock);
        let longer = option.made_good_at(end, MakesGood::HoseSlack);
        let touched = is_something(hangs_lower) || is_something(longer);
        touched.then_some(Consequence::HoseSlack { end, measured, hangs_lower, longer })
    };
    let ends = End::BOTH.into_iter().filter_map(of_end);
    ends.reduce(|one, other| if other.left() < one.left() { other } else { one }).into_iter().collect()
}

pub(super) fn shock(option: &OptionFitted<'_>) -> Vec<Consequence> {
    let of_end = |(end, what)| {
        let (measured, apart) = (option.measured(what)?, option.apart(end)?);
        let longer = option.made_good_at(end, MakesGood::ShockOpens);
        (is_something(apart) || is_something(longer)).then_some(Consequence::ShockRod { end, measured, apart, longer })
    };
    [(End::Rear, Measure::ShockRod), (End::Front, Measure::FrontShockRod)].into_iter().filter_map(of_end).collect()
}

pub(super) fn shock_closes(option: &OptionFitted<'_>) -> Vec<Consequence> {
    let closes = || {
        let (measured, apart) = (option.measured(Measure::ShockCloses)?, option.apart(End::Rear)?);
        let further = option.made_good_at(End::Rear, MakesGood::ShockCloses);
        let stands = option.empty()?;
        let (stop, stop_before) = (stands.travel_left, stands.travel_before);
        let changes = is_something(apart) || is_something(further);
        changes.then_some(Consequence::ShockCloses { measured, apart, further, stop, stop_before })
    };
    closes().into_iter().collect()
}

pub(super) fn stop(option: &OptionFitted<'_>) -> Vec<Consequence> {
    let opens = option.together_at(End::Rear, Correction::opens_the_stop);
    is_something(opens).then_some(Consequence::StopOpens(opens)).into_iter().collect()
}

pub(super) fn u_bolts(option: &OptionFitted<'_>) -> Vec<Consequence> {
    let higher = |bench: &SideBench| bench.work.packs.planned.stack() - bench.work.packs.found.stack();
    // The longest leg of either side, so that it reaches on both.
    let stack = option.benches.iter().map(higher).reduce(Length::max).unwrap_or_default();
    let longer = option.together_at(End::Rear, Correction::off_the_seat) + stack;
    let new = Some(option.made_good_at(End::Rear, MakesGood::UBoltLeg)).filter(|leg| is_something(*leg));
    let leg = Consequence::UBoltLeg { measured: option.measured(Measure::UBoltLeg), longer, new };
    (is_something(longer) || new.is_some()).then_some(leg).into_iter().collect()
}
