//! What an option comes to for this customer, all weighed, and the order that follows.

use super::found::Ranked;
use super::school::School;
use super::search::Search;
use super::worth::Worth;
use crate::entry::{FirstWord, IntakeSheetEntry, ShareOf};

/// Each wish passed over leaves so much of what an option comes to.
const LEFT_AGAINST_A_WISH: f64 = 0.6;
/// What each part more than one costs beside money and time: it is one more thing that can go wrong (our own working rule).
const A_PART_MORE: f64 = 0.06;
/// A price that is neither low nor high where no budget is told, and hours that are neither few nor many (our own working rules).
const MIDDLING_PRICE: f64 = 60_000.0;
const MIDDLING_HOURS: f64 = 5.0;
/// So much quicker, empty, rides twice as hard as a customer who asked for a soft ride bears; and of one who asked for nothing.
const HARD: f64 = 0.25;
const HARD_FOR_ANYONE: f64 = 0.5;

/// Options that come to less beside the best are not shown before other ways of doing what is better (our own working rule).
const NEAR_THE_BEST: f64 = 0.85;

/// What an option comes to: from 0 to 1.
pub(super) fn score(search: &Search<'_>, chance: Option<f64>, worth: &Worth) -> f64 {
    let sheet = &search.work.case().sheet;
    let weights = search.weights;
    let values = [
        (weights.aim, chance.unwrap_or(0.5)),
        (weights.cause, worth.cures.as_ref().map_or(0.5, |cures| cures.share)),
        (weights.ride, ride(sheet, worth)),
        (weights.upkeep, if worth.upkeep.is_empty() { 1.0 } else { 0.3 }),
        (weights.removable, if worth.removable { 1.0 } else { 0.5 }),
        (weights.price, price(sheet, worth)),
        (weights.time, time(worth)),
        (weights.headroom, worth.headroom.unwrap_or(0.5)),
    ];
    let all: f64 = values.iter().map(|(weight, _)| weight.max(0.0)).sum();
    let sum: f64 = values.iter().map(|(weight, value)| weight.max(0.0) * value).sum();
    #[expect(clippy::cast_precision_loss, reason = "a dozen parts at most")]
    let more = worth.parts.saturating_sub(1) as f64;
    let passed_over = i32::try_from(worth.wishes_passed_over(search).len()).unwrap_or(i32::MAX);
    let value = if all > 0.0 { sum / all } else { 0.0 };
    (value - A_PART_MORE * more).max(0.0) * LEFT_AGAINST_A_WISH.powi(passed_over)
}

/// Softer or firmer as it was asked for: firmer is not worse for who wants a steady load. Twice as hard for half of the time is worse than
/// half as hard again all of it, so that what is firmer counts by its square (our own working rule).
fn ride(sheet: &IntakeSheetEntry, worth: &Worth) -> f64 {
    let [empty, loaded] = worth.firmer;
    let empty_share =
        sheet.shares.iter().find(|share| share.of == ShareOf::Empty).map_or(0.5, |share| f64::from(share.percent) / 100.0);
    let firmer = match (empty, loaded) {
        (Some(empty), Some(loaded)) => {
            let square = |firmer: f64| firmer.max(0.0).powi(2);
            Some((empty_share * square(empty) + (1.0 - empty_share) * square(loaded)).sqrt())
        }
        (one, other) => one.or(other),
    };
    let value = firmer.map(|firmer| match sheet.first {
        Some(FirstWord::Stability) => 0.5 + loaded.unwrap_or(firmer) / HARD_FOR_ANYONE,
        Some(FirstWord::Ride) => 1.0 - firmer.max(0.0) / (2.0 * HARD),
        None => 1.0 - firmer.max(0.0) / (2.0 * HARD_FOR_ANYONE),
    });
    value.unwrap_or(0.5).clamp(0.0, 1.0)
}

fn price(sheet: &IntakeSheetEntry, worth: &Worth) -> f64 {
    let Some((price, currency)) = worth.price else { return 0.5 };
    let budget = sheet.budget.as_ref().filter(|budget| budget.currency == currency && budget.hundredths > 0);
    #[expect(clippy::cast_precision_loss, reason = "no price has so many figures")]
    let (price, middling) = (price as f64, budget.map_or(MIDDLING_PRICE, |budget| budget.hundredths as f64));
    1.0 / (1.0 + price / middling)
}

fn time(worth: &Worth) -> f64 {
    let hours = worth.hours.map_or(0.5, |hours| 1.0 / (1.0 + hours / MIDDLING_HOURS));
    let days = worth.days.map_or(0.5, |days| 1.0 / (1.0 + f64::from(days) / 7.0));
    (hours + days) / 2.0
}

/// Brings the allowed options into order, and marks those that another is better than in everything.
pub(super) fn rank(search: &Search<'_>, ranked: &mut [Ranked]) {
    for option in ranked.iter_mut() {
        option.worth.against_a_wish = option.worth.wishes_passed_over(search);
        option.score = score(search, option.chance.as_ref().map(|chance| chance.all), &option.worth);
    }
    ranked.sort_by(|one, other| other.score.total_cmp(&one.score).then_with(|| one.places.cmp(&other.places)));
    let dominated: Vec<bool> =
        ranked.iter().map(|option| ranked.iter().any(|other| other.is_better_in_everything_than(option))).collect();
    ranked.iter_mut().zip(dominated).for_each(|(option, dominated)| option.dominated = dominated);
    let mut heads: Vec<Vec<School>> = Vec::new();
    for option in ranked.iter_mut() {
        option.another_way = heads.contains(&option.schools);
        if !option.another_way && !option.dominated {
            heads.push(option.schools.clone());
        }
    }
    // The first of every school that comes near the best stand before other ways of doing the same: they are what there is to choose from.
    let best = ranked.first().map_or(0.0, |best| best.score);
    let stands_back = |option: &Ranked| option.another_way || option.dominated || option.score < NEAR_THE_BEST * best;
    ranked.sort_by(|one, other| stands_back(one).cmp(&stands_back(other)).then(other.score.total_cmp(&one.score)));
    show_a_cure(ranked, best);
}

/// So many options are looked at beside each other first.
const LOOKED_AT_FIRST: usize = 3;
/// What puts all of it right is worth a look where it comes to so much beside the best (our own working rule).
const WORTH_A_LOOK: f64 = 0.75;

/// What puts right all that was found stands among the first, the last of them if by nothing else: whoever chooses against it has seen it.
fn show_a_cure(ranked: &mut [Ranked], best: f64) {
    let cures_all = |option: &Ranked| option.worth.cures.as_ref().is_some_and(|cures| cures.share >= 1.0);
    let of_worth = |option: &Ranked| cures_all(option) && !option.dominated && option.score >= WORTH_A_LOOK * best;
    let first = ranked.iter().enumerate().filter(|(_, option)| of_worth(option));
    let Some((place, _)) = first.max_by(|(_, one), (_, other)| one.score.total_cmp(&other.score)) else { return };
    if !ranked.iter().take(LOOKED_AT_FIRST).any(cures_all)
        && let Some(between) = ranked.get_mut(LOOKED_AT_FIRST - 1..=place)
    {
        between.rotate_right(1);
    }
}
