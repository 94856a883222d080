//! What the finder found, in words.

use chrono::{Days, NaiveDate};
use wise_badger_casework::casework::Casework;
use wise_badger_casework::entry::MoneyEntry;
use wise_badger_casework::finder::{
    Asked, At, Came, Chance, Counted, Cures, Lead, Ranked, Refused, School, Survives, Wanting, Wish, Worth,
};
use wise_badger_casework::look_over::Addition;
use wise_badger_casework::prediction::{NextReading, Story};
use wise_badger_casework::survey::{Complaint, End, LoadState};
use wise_badger_casework::verdict::Cause;
use wise_badger_mechanics::units::Length;

use super::aim::goal_names;
use super::look_over::{addition_name, ruled_out};
use super::overload::{OverloadWords, overload_of_case, overload_words};
use super::prediction::unpredicted_words;
use super::shelf::money_words;
use super::why::cause_name;
use super::{Units, end_name, lower, percent, sentence, state_of};
use crate::correction::figure_label;

/// What comes before any spring, in a sentence, and the page where it is put right.
pub(crate) fn lead_words(lead: &Lead, work: &Casework, units: Units) -> (String, &'static str, &'static str) {
    let names = goal_names(work, units);
    let name = |place: usize| names.get(place).cloned().unwrap_or_default();
    let (text, page, link) = match lead {
        Lead::OverARating => (format!("The vehicle is over a rating. {}", what_comes_off(overload_words(work, units))), "tape", "Change the load on Tape"),
        Lead::RepairFirst => ("The look-over says stop. Repair comes first; nothing is fitted on a failed part.".to_owned(), "look-over", "Go to Look-over"),
        Lead::Measure => ("Nothing is read of the rear yet. Measure it empty and loaded first.".to_owned(), "tape", "Go to Tape"),
        Lead::OnAir(end) => (
            format!(
                "The {} rests on air springs: their valve sets its height, and leaks lose it. Bags, lines, compressor and valve come first, by the maker’s sheet; nothing that lifts is told of there.",
                end_name(work.found().vehicle.class, *end)
            ),
            "look-over",
            "Go to Look-over",
        ),
        Lead::LoadNotTold(state) => (
            format!(
                "Nobody has said what was on when “{}” was read. Weigh it, or say what is aboard: no part is told of without that.",
                state_of(work.found(), *state)
            ),
            "tape",
            "Say it on Tape",
        ),
        Lead::NoAim => ("No aim is set: say what height is right first.".to_owned(), "aim", "Set the aim"),
        Lead::AimContradicts(one, other) => (
            format!("Two aims cannot both be met: “{}” and “{}”. Change one of them.", name(*one), name(*other)),
            "aim",
            "Change the aim",
        ),
        Lead::MeetsTheAim => (
            format!(
                "It stands where the aim wants it already. Nothing has to be fitted for that.{}",
                if work.case().sheet.complaints.contains(&Complaint::FloatsOrSways) {
                    " What floats or sways is looked for at shocks, sway bar and links first, and tried out on What if."
                } else {
                    ""
                }
            ),
            "verdict",
            "See the verdict",
        ),
        Lead::CaseOverARating(key, _) => {
            let case = work.cases().iter().find(|case| case.key == *key);
            let plan = work.case().plan.as_ref();
            let aboard: Vec<String> = plan.iter().flat_map(|plan| plan.put_for(*key)).map(|item| item.name.clone()).collect();
            let told = case.and_then(|case| overload_of_case(&case.survey, &aboard, units));
            (
                format!(
                    "“{}” is over a rating, so nothing is proposed for it. {}",
                    case.map_or("", |case| case.name.as_str()),
                    what_comes_off(told)
                ),
                "load",
                "Change the load plan",
            )
        }
        Lead::WeighFirst => ("By assumed weights it is over a rating. Weigh it before anything is fitted.".to_owned(), "tape", "Put the weights on Tape"),
        Lead::OnItsStops => (
            "It rests on its stops with the load on, so the readings say nothing of its springs. Read it again with less on.".to_owned(),
            "tape",
            "Go to Tape",
        ),
        Lead::TooWeak(load) => (
            load.map_or_else(
                || "Nothing read so far tells the springs. Read it with a known load on, inside the ratings.".to_owned(),
                |load| format!("The readings are too weak to tell the springs. About {} on the rear axle would tell them; keep inside the ratings.", units.weight(load)),
            ),
            "tape",
            "Go to Tape",
        ),
        Lead::ReadingDoesNotFit => ("One reading does not go with the others. Read it once more before anything is ordered.".to_owned(), "verdict", "See which"),
        Lead::Suspected(story) => (suspected(*story, work, units), "verdict", "See the odds"),
        Lead::WeightBehind => (
            "Weight behind the rear axle lifts the front. Less of it, or further forward, does what no spring does; a hitch that spreads load is set first.".to_owned(),
            "load",
            "Move the load",
        ),
        Lead::LoadToOneSide => ("The load sits to one side. Move it to the middle first; a spring for it leans the vehicle when it is off.".to_owned(), "load", "Move the load"),
        Lead::OnTheOverloadLeaf => ("It lives on its overload leaf. What helps earlier lets go of it.".to_owned(), "verdict", "See the verdict"),
        Lead::SpringsUnder(wanted) => (
            format!(
                "Its springs hang under the axle, and it is wanted {} higher. Set over the axle they would lift it by tube and pack together: measure both and try that on Options. The seats are welded by whoever may.",
                units.height(*wanted)
            ),
            "options",
            "Try it on Options",
        ),
        Lead::Later(key) => {
            let case = work.cases().iter().find(|case| case.key == *key).map(|case| case.name.clone()).unwrap_or_default();
            (
                format!("“{case}” comes later. Fit what is right for now, weigh it once that is aboard, and decide again; below stands what of each option stays."),
                "load",
                "See the load plan",
            )
        }
        Lead::StandsTooHigh(place, off) => (
            format!("It stands {} above what “{}” wants: what lifts it makes that worse.", units.height(*off), name(*place)),
            "aim",
            "See the aim",
        ),
        _ => ("Nothing on the shelf meets the aim and is allowed. Below is what binds, and what it would take.".to_owned(), "takes", "What it would take"),
    };
    (text, page, link)
}

/// Which rating is passed, and what comes off.
fn what_comes_off(overload: Option<OverloadWords>) -> String {
    let told = overload.map_or_else(String::new, |told| [told.over.join(" "), told.lead, told.or].join(" "));
    format!("{} No spring changes that.", told.trim_end())
}

fn suspected(story: Story, work: &Casework, units: Units) -> String {
    let what = match story {
        Story::StopContact => "A stop may carry part of the load unseen.",
        Story::SecondStage => "A second stage may join in.",
        _ => "Something else than the springs may carry part of the load.",
    };
    let read = match work.predictor().settles_most().map(|settling| settling.reading) {
        Some(NextReading::StopGap) => "Read the gap at the stops with the load on.".to_owned(),
        Some(NextReading::LeafContact) => "Look whether the overload leaf bears with the load on.".to_owned(),
        Some(NextReading::MoreLoad(more)) => format!("Read it once more with {} more on.", units.weight(more)),
        Some(NextReading::HalfTheLoad) => "Read it once more with half of the load.".to_owned(),
        _ => "Read it once more.".to_owned(),
    };
    format!("{what} {read}")
}

/// A chance in words and as a figure.
pub(crate) fn chance_words(chance: Option<&Chance>) -> (String, String) {
    let Some(chance) = chance else { return ("not told".to_owned(), String::new()) };
    let words = match chance.all {
        all if all >= 0.95 => "Meets the aim, as good as surely",
        all if all >= 0.8 => "Very likely meets the aim",
        all if all >= 0.6 => "Likely meets the aim",
        all if all >= 0.4 => "May or may not meet the aim",
        _ => "Rather misses the aim",
    };
    (words.to_owned(), in_a_hundred(chance.all))
}

/// A chance out of a hundred; never quite nothing, nor quite all.
pub(crate) fn in_a_hundred(share: f64) -> String {
    match share {
        share if share >= 0.995 => "over 99 in 100".to_owned(),
        share if share < 0.005 => "under 1 in 100".to_owned(),
        share => format!("{:.0} in 100", share * 100.0),
    }
}

/// The goal that limits it, where there are several.
pub(crate) fn limited_by(chance: Option<&Chance>, work: &Casework, units: Units) -> String {
    let names = goal_names(work, units);
    let limit = chance.filter(|_| names.len() > 1).and_then(|chance| {
        let place = chance.limited_by()?;
        Some(format!("{}: {}", sentence(names.get(place)?), in_a_hundred(*chance.each.get(place)?)))
    });
    limit.unwrap_or_default()
}

/// The chance for what is aboard now, where some of the aim speaks of what comes later.
pub(crate) fn now_words(chance: Option<&Chance>) -> String {
    let now = chance.and_then(|chance| chance.now);
    now.map_or_else(String::new, |now| format!("For what is aboard now: {}", in_a_hundred(now)))
}

/// What of an option stays once what comes later is aboard.
pub(crate) fn survives_words(survives: &Survives) -> String {
    match survives {
        Survives::AsItIs => "It does for that too. Weigh it then all the same.".to_owned(),
        Survives::With(more) => format!("All of it stays; then {} is added. Weigh it first.", more.join(" and ")),
        Survives::SetOtherwise => "All of it stays and is set otherwise, once it is weighed.".to_owned(),
        Survives::ComesOff(parts) if parts.is_empty() => {
            "All of it stays; what is added is decided once it is weighed.".to_owned()
        }
        Survives::ComesOff(parts) => format!("Not enough then: {} comes off again for what does.", parts.join(" and ")),
        Survives::NotKnown => "Nothing found does for that. Decide again once it is aboard and weighed.".to_owned(),
    }
}

/// What a search is at.
pub(crate) fn came_words(came: Option<Came>) -> String {
    let Some(came) = came else { return "Reading the shelf…".to_owned() };
    let what = match came.at {
        At::Parts => "Parts tried by themselves",
        At::Combinations => "Combinations worked out",
        At::TheBest => "The best looked into",
    };
    format!("{what}: {} of {}", came.done, came.of)
}

/// The first day on which the parts can be there; bay time comes on top.
pub(crate) fn earliest_words(worth: &Worth, today: NaiveDate) -> String {
    match worth.days {
        None => "When its parts are there is not known".to_owned(),
        Some(0) => "Parts are there today".to_owned(),
        Some(days) => {
            let day = today.checked_add_days(Days::new(u64::from(days)));
            day.map_or_else(String::new, |day| format!("Parts there by {}", day.format("%a %b %-d")))
        }
    }
}

/// How it rides beside now: empty, and loaded.
pub(crate) fn ride_words(worth: &Worth) -> [String; 2] {
    worth.firmer.map(|firmer| match firmer {
        None => "not told".to_owned(),
        Some(firmer) if firmer < -0.03 => "softer".to_owned(),
        Some(firmer) if firmer <= 0.03 => "as now".to_owned(),
        Some(firmer) if firmer <= 0.1 => "a little firmer".to_owned(),
        Some(firmer) if firmer <= 0.25 => "firmer".to_owned(),
        Some(_) => "much firmer".to_owned(),
    })
}

/// How much it leans beside now, by the share that the rear stiffens against it.
pub(crate) fn leaning_words(stiffer: Option<f64>) -> String {
    match stiffer {
        Some(share) if share > 0.03 => format!("less: {} stiffer", percent(share)),
        Some(share) if share < -0.03 => format!("more: {} softer", percent(-share)),
        _ => "as now".to_owned(),
    }
}

pub(crate) fn price_words(worth: &Worth) -> String {
    worth.price.map_or_else(
        || "price not known".to_owned(),
        |(hundredths, currency)| money_words(&MoneyEntry { text: String::new(), hundredths, currency }),
    )
}

pub(crate) fn hours_words(worth: &Worth) -> String {
    worth.hours.map_or_else(|| "hours not known".to_owned(), |hours| format!("{} h", (hours * 4.0).round() / 4.0))
}

pub(crate) fn days_words(worth: &Worth) -> String {
    match worth.days {
        None => "not known".to_owned(),
        Some(0) => "all there".to_owned(),
        Some(1) => "1 day".to_owned(),
        Some(days) => format!("{days} days"),
    }
}

pub(crate) fn wish_words(wish: Wish) -> &'static str {
    match wish {
        Wish::NoUpkeep => "it wants looking after, and the customer asked for none of that",
        Wish::Removable => "it does not come off again, and the customer asked for that",
        Wish::Budget => "it costs more than the customer wants to spend",
        Wish::ByTheDay => "its parts come after the day it is wanted",
    }
}

pub(crate) fn school_words(schools: &[School]) -> String {
    sentence(&schools.iter().map(|school| school_name(*school)).collect::<Vec<_>>().join(" and "))
}

pub(crate) fn school_name(school: School) -> &'static str {
    match school {
        School::Leaf => "leaf",
        School::Pack => "pack",
        School::OverloadLeaf => "overload leaf",
        School::Coils => "coils",
        School::Struts => "struts",
        School::Hanging => "shackle or hanging",
        School::Steel => "steel helper",
        School::Rubber => "load rubber",
        School::Air => "air",
        School::Block => "block or spacer",
    }
}

/// What a technician could say of it to the customer.
pub(crate) fn to_the_customer(ranked: &Ranked, state: LoadState, heights: Option<(Length, Length)>, units: Units) -> String {
    let what = said_to_the_customer(&ranked.schools);
    let rise = heights.map(|(then, now)| then - now);
    let on = if state == LoadState::Empty { "as it stands" } else { "with your load on" };
    let height = rise.map_or_else(String::new, |rise| {
        let (by, way) = if rise < Length::default() { (-rise, "lower") } else { (rise, "higher") };
        format!(" It will sit about {} {way} {on}.", units.height(by))
    });
    let [empty, loaded] = ride_words(&ranked.worth);
    let ride = match (empty.as_str(), loaded.as_str()) {
        ("not told", _) | (_, "not told") => String::new(),
        ("as now", "as now") => " It rides as it does now.".to_owned(),
        ("as now", loaded) => format!(" Empty it rides as it does now, with the load on {loaded}."),
        (empty, "as now") => format!(" Empty it rides {empty}, with the load on as it does now."),
        (empty, loaded) => format!(" Empty it rides {empty}, with the load on {loaded}."),
    };
    let upkeep = ranked.worth.upkeep.first().map(|upkeep| format!(" It wants looking after: {upkeep}.")).unwrap_or_default();
    let costs = ranked.worth.price.map(|_| format!(" Parts come to {}.", price_words(&ranked.worth))).unwrap_or_default();
    let tired = |cause: &Cause| matches!(cause, Cause::SpringSet | Cause::WeakSprings);
    let stays_tired = ranked.worth.cures.as_ref().is_some_and(|cures| cures.left.iter().any(tired));
    let springs = if stays_tired { " Your springs stay as tired as they are." } else { "" };
    format!("{what}.{height}{ride}{springs}{upkeep}{costs} It raises no rating.")
}

/// What of that which was found behind it an option puts right, and what it leaves.
pub(crate) fn cures_words(cures: &Cures) -> Vec<String> {
    let words = |what: &'static str, causes: &[Cause]| {
        let name = |cause: &Cause| lower(cause_name(*cause).split(',').next().unwrap_or_default());
        causes.iter().map(|cause| format!("{what}: {}", name(cause))).collect::<Vec<_>>()
    };
    [words("Put right", &cures.right), words("Left", &cures.left)].concat()
}

fn said_to_the_customer(schools: &[School]) -> String {
    let name = |school: &School| match school {
        School::Leaf => "a leaf in each spring",
        School::Pack => "the springs made right, or new ones",
        School::OverloadLeaf => "work on the overload leaf",
        School::Coils => "other coils",
        School::Struts => "taller struts",
        School::Hanging => "other shackles",
        School::Steel => "helper springs",
        School::Rubber => "load rubbers",
        School::Air => "air bags",
        School::Block => "blocks or spacers",
    };
    sentence(&schools.iter().map(name).collect::<Vec<_>>().join(" and "))
}

/// Why it is not among the allowed, in a sentence.
pub(crate) fn refused_words(refused: &Refused, units: Units, work: &Casework) -> String {
    let misses = refused.misses_the_aim.as_ref().map(|chance| {
        let where_it_misses = limited_by(Some(chance), work, units);
        let at = if where_it_misses.is_empty() { String::new() } else { format!(" {where_it_misses}.") };
        format!("Misses the aim: {}.{at}", in_a_hundred(chance.all))
    });
    let untold = refused.unpredicted.map(|why| unpredicted_words(why, true));
    let asks = (!refused.asks.is_empty()).then(|| asks_words(&refused.asks, units));
    [Some(ruled_out(&refused.gates)).filter(|words| !words.is_empty()), asks, untold, misses]
        .into_iter()
        .flatten()
        .collect::<Vec<_>>()
        .join(" ")
}

/// What comes short, by how much, and what of the shelf may make it good.
fn asks_words(asks: &[Asked], units: Units) -> String {
    let each = asks.iter().map(|asked| {
        let on_the_shelf = match (&asked.may_do, asked.what) {
            (Some(number), _) => format!("“{number}” on the shelf may do: lay it beside the old one first"),
            (None, Addition::NewUBolts | Addition::LongerHose) => "none on the shelf is long enough".to_owned(),
            (None, _) => "none on the shelf is known to do".to_owned(),
        };
        format!("{} {} short: {on_the_shelf}.", sentence(addition_name(asked.what)), units.height(asked.by))
    });
    each.collect::<Vec<_>>().join(" ")
}

/// A part that asks for figures of the vehicle, and which.
pub(crate) fn wanting_words(wanting: &Wanting) -> String {
    let figures: Vec<String> = wanting.figures.iter().map(|figure| lower(figure_label(wanting.kind, figure))).collect();
    format!("{} {}: {}", wanting.number, wanting.name, figures.join("; "))
}

/// How much was looked at.
pub(crate) fn counted_words(counted: &Counted) -> String {
    let more = |count: usize, words: &str| if count == 0 { String::new() } else { format!(" {words}: {count}.") };
    format!(
        "{} parts on the shelf; {} go onto this vehicle.{}{} {} combinations were worked out, the best {} with all that is in doubt.{}{}",
        counted.parts,
        counted.fit,
        more(counted.left_out, "Left out, since another of the kind does the same and costs less"),
        more(counted.move_nothing, "Moving nothing here that the customer came for, as near as that was looked into"),
        counted.screened,
        counted.judged,
        more(counted.not_screened, "Further combinations not worked out"),
        more(counted.not_judged, "Of the best not looked into"),
    )
}

/// The rear as it stands loaded, or empty where it was read so alone.
pub(crate) fn rear_now(work: &Casework) -> (LoadState, Option<Length>) {
    let read = |state| work.found().height(End::Rear, state).map(|height| height.value);
    match read(LoadState::Loaded) {
        Some(height) => (LoadState::Loaded, Some(height)),
        None => (LoadState::Empty, read(LoadState::Empty)),
    }
}

/// What a state is called at the head of a row.
pub(crate) fn state_head(work: &Casework, state: LoadState) -> String {
    sentence(state_of(work.found(), state))
}
