//! A quick answer in words, as a service writer says it.

use wise_badger_casework::entry::{CallEntry, WhenLow};
use wise_badger_casework::quick_answer::{Behind, First, KindAnswer, MayChange, NoAnswer, QuickAnswer};

use super::shelf::money_words;
use super::{Units, sentence};
use crate::correction::on_the_shelf::kind_name;
use crate::correction::{figure_label, figure_words};
use wise_badger_mechanics::correction::Quantity;
use wise_badger_mechanics::uncertain::Uncertain;
use wise_badger_mechanics::units::Length;

/// A kind of part by the plain name that it has over the counter.
pub(crate) fn plain_kind(kind: &KindAnswer) -> String {
    kind_name(kind.row).split(',').next().unwrap_or_default().to_lowercase()
}

/// The answer in one sentence.
pub(crate) fn answer_words(answer: &QuickAnswer, units: Units) -> String {
    if let Some(over) = answer.over {
        return format!(
            "Probably over its rear axle rating by some {}: weight comes off before any spring is spoken of. Weigh it first.",
            units.about(over)
        );
    }
    let names: Vec<String> = answer.kinds.iter().map(plain_kind).collect();
    let kinds = match names.as_slice() {
        [] => return "No part by itself is likely to do it. Bring it in as it is, and it is measured first.".to_owned(),
        [one] => one.clone(),
        [others @ .., last] => format!("{} or {last}", others.join(", ")),
    };
    let cost = [prices_words(answer), hours_words(answer)].into_iter().flatten().collect::<Vec<_>>().join(", ");
    let cost = if cost.is_empty() { String::new() } else { format!(", {cost}") };
    format!(
        "Probably {kinds}{cost}: to come up by some {}, give or take {}.",
        units.height(answer.gain.value),
        units.band(answer.gain.band())
    )
}

/// What parts cost, from and to, over all the kinds that are told.
fn prices_words(answer: &QuickAnswer) -> Option<String> {
    let all = || answer.kinds.iter().filter_map(|kind| kind.price.as_ref());
    let least = all().map(|(least, _)| least).min_by_key(|money| money.hundredths)?;
    let most = all().map(|(_, most)| most).max_by_key(|money| money.hundredths)?;
    Some(format!("{} in parts", from_to(&money_words(least), &money_words(most))))
}

fn hours_words(answer: &QuickAnswer) -> Option<String> {
    let all = || answer.kinds.iter().filter_map(|kind| kind.hours);
    let least = all().map(|(least, _)| least).reduce(f64::min)?;
    let most = all().map(|(_, most)| most).reduce(f64::max)?;
    Some(format!("{} h", from_to(&least.to_string(), &most.to_string())))
}

/// What one kind costs and takes.
pub(crate) fn cost_words(kind: &KindAnswer) -> String {
    let price = kind.price.as_ref().map(|(least, most)| from_to(&money_words(least), &money_words(most)));
    let hours = kind.hours.map(|(least, most)| format!("{} h", from_to(&least.to_string(), &most.to_string())));
    [price, hours].into_iter().flatten().collect::<Vec<_>>().join(", ")
}

fn from_to(least: &str, most: &str) -> String {
    if least == most { least.to_owned() } else { format!("{least} to {most}") }
}

/// What is behind it, and what that is taken from.
pub(crate) fn behind_words(call: &CallEntry, answer: &QuickAnswer, units: Units) -> String {
    let down = answer.comes_down.map(|down| {
        let load = answer
            .on_the_rear
            .map(|load| format!(" ({} on the rear axle, give or take {})", units.weight(load.value), units.weight(load.band())));
        format!(
            "What was told to be aboard{} takes such a vehicle down by some {}, give or take {}.",
            load.unwrap_or_default(),
            units.height(down.value),
            units.band(down.band())
        )
    });
    let behind = match answer.behind {
        Behind::TiredSprings if call.when == Some(WhenLow::EmptyToo) => {
            "Low with nothing aboard: springs that have set, or something that is always aboard."
        }
        Behind::TiredSprings => "It sits lower than that explains: springs that have set, or more aboard than was told.",
        Behind::TheLoad => "The load is behind it, as far as that tells.",
        Behind::Either => "The load or tired springs: only measuring it empty and loaded tells which.",
    };
    [down.unwrap_or_default(), behind.to_owned()].join(" ").trim().to_owned()
}

/// What to measure or look at first.
pub(crate) fn first_words(first: First) -> &'static str {
    match first {
        First::BringItLoaded => "Bring it as it is when it sits low, with everything aboard",
        First::Ratings => "Read the ratings off the plate or the door",
        First::WeighTheAxles => "Weigh the axles, loaded and empty",
        First::Heights => "Heights at every corner, loaded, then empty, from one datum",
        First::StopGap => "The gap at the bump stops, loaded and empty",
        First::TongueWeight => "What presses on the ball, by the scale",
        First::Leaves => "Leaves, eyes, shackles, U-bolts, center bolt: cracked, broken, worn out",
        First::Coils => "Coils, seats, isolators, bushings: cracked, broken, worn out",
        First::WhichSprings => "Leaves or coils behind",
        First::BothSides => "Both sides; move the load to the middle and read again",
        First::BallHeight => "The height of the ball that tows it, and how level it runs",
    }
}

/// What could turn the answer.
pub(crate) fn may_change_words(what: MayChange) -> &'static str {
    match what {
        MayChange::Stiffness => "Springs of one class differ by a third: the same part lifts more on softer ones",
        MayChange::Weight => "The load was told, not weighed",
        MayChange::NoLoadTold => {
            "No load was told: it is taken as what presses it down so far, and only a scale says whether that is over its rating"
        }
        MayChange::NoRating => "No rating was told: no part raises one, and over it weight comes off first",
        MayChange::NearItsRating => "It may be over its rear axle rating by what was told: weigh it before anything is bought",
        MayChange::FailedPart => "A cracked leaf, a worn eye, a broken coil: then repair comes first, and nothing is put on it",
        MayChange::Stops => "On its stops it may be lower still than it looks",
        MayChange::NoseUp => {
            "Weight behind the axle takes it off the front: a rear spring lifts the tail and does not put weight back on the front"
        }
        MayChange::Lean => "Where the load sits to one side, it is moved before a spring is spoken of",
        MayChange::WhichSprings => {
            "Leaves or coils was not told: it is taken as what its class mostly has, and the other asks for other parts"
        }
    }
}

/// Why there is no answer yet.
pub(crate) fn no_answer_words(why: NoAnswer) -> &'static str {
    match why {
        NoAnswer::NothingSaid => "Say how low it sits, or what it carries: then there is an answer.",
        NoAnswer::NotSolved => "So much on such a vehicle cannot be worked out: check the weight and its place.",
    }
}

/// What a kind would have to be, what such a one does, and what goes with it.
pub(crate) fn does_words(kind: &KindAnswer, answer: &QuickAnswer, units: Units) -> String {
    let size = kind.size.as_ref().map(|(figure, value)| {
        let label = figure_label(kind.row, figure);
        let label = label.split([',', ':']).next().unwrap_or_default().to_lowercase();
        format!("{label} some {}", size_value(value, units))
    });
    let rise = kind.rise.map(|rise| rise_words(rise, units));
    let most = kind.shelf.iter().map(|near| near.rise.value).fold(Length::default(), Length::max);
    // By itself it does not do all of it: nobody is told so only once it is fitted.
    let part =
        (kind.size.is_none() && most < answer.gain.value * MOST_OF_IT).then(|| "by itself probably not all of it".to_owned());
    let note = match (kind.height_alone, kind.upkeep) {
        (true, _) => Some("adds height, carries nothing".to_owned()),
        (_, true) => Some("wants its pressure looked after".to_owned()),
        _ => None,
    };
    sentence(&[size, rise, part, note].into_iter().flatten().collect::<Vec<_>>().join("; "))
}

/// What lifts so much of what is wanted does it, as far as anybody can say over the counter.
const MOST_OF_IT: f64 = 0.75;

/// How far something lifts the rear.
pub(crate) fn rise_words(rise: Uncertain<Length>, units: Units) -> String {
    format!("up {} ± {}", units.height(rise.value), units.band(rise.band()))
}

/// A figure in round numbers.
pub(crate) fn size_value(value: &Quantity, units: Units) -> String {
    match value {
        Quantity::Weight(force) => units.about(*force),
        Quantity::Length(length) => units.height(*length),
        other => figure_words(other, units),
    }
}
