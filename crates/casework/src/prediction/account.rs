//! What could be going on with a rear that was read: every account of it, with its odds before anything is read.
//!
//! One rate fits any two states; so do a second stage that joins in on the way, a stop that bears unseen, or one height misread. What
//! is in doubt of where a stage or a stop comes in is told by several accounts, each with a narrow doubt of its own: about a kink the
//! readings do not speak in one round hill.

use super::experiment::on_its_stops;
use super::telling::{Misread, StageTold, StopTold, Telling};
use crate::survey::{End, LoadState, SecondStage, Survey};
use wise_badger_mechanics::mixture::below;
use wise_badger_mechanics::units::{InShopUnits, Length, inches, metres};

/// One account, before it is held against the readings.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(super) struct Account {
    pub(super) telling: Telling,
    /// How likely it is before anything is read.
    pub(super) before: f64,
}

/// How likely a second stage is on leaves, and where somebody saw it bear, or read its gap (our own working rules). That a class is
/// known for one tells where it joins in, and not whether it is there.
const STAGE_THERE: f64 = 0.78;
const STAGE_SEEN: f64 = 0.98;
/// Where a second stage joins in on a class that is not known for one, the standard deviation of that on any as a share of it, and what
/// it adds beside the first rate where that is not known of the class (our own working rules).
const STAGE_FROM_IN: f64 = 2.0;
const STAGE_FROM_SD: f64 = 0.5;
const STAGE_ADDS: f64 = 1.2;
/// Standard deviation of the class's clearance at the stops, as a share of it, and how much less of it there is where the stops have
/// been hitting (our own working rules).
const STOP_GAP_SD: f64 = 0.55;
const HIT_TIMES: f64 = 0.7;
/// How well a gap is known that was read empty alone, as a share of it.
const READ_GAP_SD: f64 = 0.03;
/// How likely a height is misread, and a clearance at a stop (our own working rules).
const MISREAD_HEIGHT: f64 = 0.1;
const MISREAD_GAP: f64 = 0.02;
/// Into how many accounts, equally likely, it is cut where within reach something comes in.
const CUTS: u8 = 3;
/// Standard deviation of what is spread evenly, as a share of how wide.
const OF_AN_EVEN_SPREAD: f64 = 0.288_675_134_594_812_9;

/// The accounts of what bears: one rate, and then a second stage or a stop. What would not show in what was read is part of the first.
pub(super) fn structures(survey: &Survey) -> (Account, Vec<Account>) {
    let reach = reach(survey);
    let (stages, stops) = (stages(survey, reach), stops(survey, reach));
    let none_of = |accounts: &[Account]| 1.0 - accounts.iter().map(|account| account.before).sum::<f64>();
    let (no_stage, no_stop) = (none_of(&stages), none_of(&stops));
    let plain = Account { telling: Telling::default(), before: no_stage * no_stop };
    // Where both bear a stop is so much the harder that it tells for both.
    let stages = stages.into_iter().map(|stage| Account { before: stage.before * no_stop, ..stage });
    (plain, stages.chain(stops).collect())
}

/// One account with each of some readings misread in turn, about what it was before.
pub(super) fn misread(of: &Account, readings: impl IntoIterator<Item = Misread>) -> impl Iterator<Item = Account> {
    readings.into_iter().map(|misread| Account {
        telling: Telling { misread: Some(misread), ..of.telling },
        before: of.before * if misread.gap { MISREAD_GAP } else { MISREAD_HEIGHT },
    })
}

/// The furthest that the rear springs came down in any state, the tires of the class taken off.
fn reach(survey: &Survey) -> Length {
    let empty = survey.height(End::Rear, LoadState::Empty);
    let give = if survey.datum.includes_tyre() { 1.0 / survey.vehicle.assumptions().rear_tyres().si() } else { 0.0 };
    let on_tyres = |state| survey.axle_loads_in(state)?.change.rear.map(|change| metres(change.value.si() * give));
    let down = |state| Some(empty?.value - survey.height(End::Rear, state)?.value - on_tyres(state).unwrap_or_default());
    survey.states().filter_map(down).fold(Length::default(), Length::max)
}

/// Places within reach at which something comes in, each as likely as the others, with the standard deviation of each as a share of
/// it, and how likely it comes in within reach at all.
fn within(reach: Length, usual: Length, sd: f64) -> (Vec<(Length, f64)>, f64) {
    let chance = if reach > Length::default() { below((reach / usual).value.ln() / sd) } else { 0.0 };
    let at = |share: f64| deviations_below(chance * share);
    let cut = |number: u8| {
        let share = |cuts: f64| (f64::from(number) + cuts) / f64::from(CUTS);
        // Of the lowest, the last few in a hundred reach down without end.
        let wide = at(share(1.0)) - at(share(0.0).max(0.05));
        (usual * (sd * at(share(0.5))).exp(), (sd * wide * OF_AN_EVEN_SPREAD).max(f64::EPSILON))
    };
    ((0..CUTS).map(cut).collect(), chance)
}

/// How many standard deviations off a normal figure lies that so many are below; the inverse of [`below`], by halving.
fn deviations_below(chance: f64) -> f64 {
    let (mut low, mut high) = (-8.0, 8.0);
    for _ in 0..40 {
        let middle = 0.5 * (low + high);
        if below(middle) < chance { low = middle } else { high = middle }
    }
    0.5 * (low + high)
}

/// Second stages, each with its odds. None on a pack read leaf by leaf, which tells its own, nor on anything but leaves.
fn stages(survey: &Survey, reach: Length) -> Vec<Account> {
    let bears = |state| survey.overload_leaves.bears.get(state).copied().flatten();
    let looked_for = survey.vehicle.rear_pack.is_none() && survey.vehicle.rests_on_leaves();
    if !looked_for || bears(LoadState::Empty) == Some(true) {
        return Vec::new();
    }
    let assumed = survey.vehicle.assumptions();
    let adds = assumed.second_stage_times.map_or(STAGE_ADDS, |times| times - 1.0);
    let account = |from, from_sd, before| Account {
        telling: Telling { stage: Some(StageTold { from, from_sd, adds }), ..Telling::default() },
        before,
    };
    let known = survey.second_stage();
    if let Some(SecondStage { from, relative_sd, read: true }) = known {
        return vec![account(from, relative_sd, STAGE_SEEN)];
    }
    let seen = survey.states().any(|state| bears(state) == Some(true));
    let there = if seen { STAGE_SEEN } else { STAGE_THERE };
    let usual = known.map_or(inches(STAGE_FROM_IN), |stage| stage.from);
    let (places, chance) = within(reach, usual, STAGE_FROM_SD);
    // One that was seen to bear is within reach.
    let before = there * if seen { 1.0 } else { chance } / f64::from(CUTS);
    places.into_iter().map(|(from, sd)| account(from, sd, before)).collect()
}

/// Stops that push back, each with its odds. None where the clearance was read with the load on, or where the verdict says already
/// that they bear.
fn stops(survey: &Survey, reach: Length) -> Vec<Account> {
    // With a pack read leaf by leaf what else bears shows as leaves and tape that do not go together, and is told there.
    let told_by_leaves = survey.vehicle.rear_pack.is_some();
    if told_by_leaves || survey.gap(LoadState::Loaded).is_some() || survey.states().any(|state| on_its_stops(survey, state)) {
        return Vec::new();
    }
    let account =
        |gap, gap_sd, before| Account { telling: Telling { stop: Some(StopTold { gap, gap_sd }), ..Telling::default() }, before };
    if let Some(gap) = survey.gap(LoadState::Empty) {
        return vec![account(gap, READ_GAP_SD, 0.5)];
    }
    let usual = survey.vehicle.assumptions().stop_gap * if survey.seen.stops_hit { HIT_TIMES } else { 1.0 };
    let (places, chance) = within(reach, usual, STOP_GAP_SD);
    places.into_iter().map(|(gap, sd)| account(gap, sd, chance / f64::from(CUTS))).collect()
}

#[cfg(test)]
mod tests {
    use super::*;

    /// A table of the normal distribution: 15.87 % lie below one standard deviation under the mean, 69.15 % below half of one over it.
    #[test]
    fn what_lies_within_reach_is_cut_into_equally_likely_parts() {
        assert!((deviations_below(0.1587) + 1.0).abs() < 1e-3 && (deviations_below(0.6915) - 0.5).abs() < 1e-3);
        let (places, chance) = within(inches(4.0), inches(4.0), 0.5);
        assert!((chance - 0.5).abs() < 1e-9 && places.len() == 3);
        // The middle of the lower half lies 0.6745 standard deviations under the mean.
        assert!((places[1].0.customary() - 4.0 * (-0.5 * 0.6745_f64).exp()).abs() < 1e-3);
        assert!(places.iter().all(|(at, _)| *at < inches(4.0)) && within(inches(0.0), inches(4.0), 0.5).1 < 1e-9);
    }
}
