//! What could be going on with the rear, how likely each of it is, and the one reading that would settle most, in words.

use wise_badger_casework::prediction::{Misread, NextReading, Predictor, Settling, Story};
use wise_badger_casework::survey::{End, LoadState, Survey};

use super::{Figure, Sum, Tone, Units, end_name, percent, sentence, state_of};

const BAYES: &str = "Every story is weighed by how well it explains all readings, beside how likely it is before anything is read (our own working rules).";
/// A story less likely is not told.
const TOLD: f64 = 0.02;

/// The stories that fit what was read, and what to read next; nothing where one story alone fits.
pub(crate) fn story_figures(predictor: &Predictor, units: Units) -> Vec<Figure> {
    let (survey, odds) = (predictor.survey(), predictor.odds());
    let told: Vec<(Story, f64)> = odds.into_iter().filter(|(_, odds)| *odds >= TOLD).collect();
    let Some((first, likely)) = told.first().copied().filter(|_| told.len() > 1 && predictor.weighs_stories()) else {
        return Vec::new();
    };
    let line = |(story, odds): &(Story, f64)| format!("{}: {}", story_name(survey, *story), percent(*odds));
    let rivals: Vec<String> = told.iter().skip(1).map(line).collect();
    let sum = Sum::new(
        "how likely each was before anything was read, weighed by how well it explains all readings; together 100%",
        told.iter().map(line).collect(),
        BAYES,
    )
    .doubt("Heights alone do not tell a bump stop from an overload leaf, nor either from a height that was misread.");
    let mut figure = Figure::new("What fits the readings", format!("{}, {}", story_name(survey, first), likelihood(likely)), sum)
        .note(format!("it could also be: {}", rivals.join("; ")));
    if predictor.suspects().is_some() {
        figure = figure.tone(Tone::Act);
    }
    std::iter::once(figure).chain(predictor.settles_most().map(|most| next_figure(survey, &most, units))).collect()
}

/// The reading that would settle most.
fn next_figure(survey: &Survey, most: &Settling, units: Units) -> Figure {
    let (now, then) = (percent(most.now), percent(most.then));
    let sum = Sum::new(
        "the band to be expected, over everything that the reading may turn out to be",
        vec![format!("rear rate ± {now} as it is"), format!("± {then} to be expected once it is read")],
        "Preposterior analysis: Raiffa and Schlaifer, Applied Statistical Decision Theory (1961), from memory.",
    );
    Figure::new("To settle most, next", reading_name(survey, most.reading, units), sum)
        .note(format!("should narrow the band of the rear rate from ± {now} to about ± {then}"))
}

/// The next reading in a few words, where there is one.
pub(crate) fn next_words(predictor: &Predictor, units: Units) -> Option<String> {
    predictor.settles_most().map(|most| reading_name(predictor.survey(), most.reading, units))
}

fn likelihood(odds: f64) -> String {
    let words = match odds {
        odds if odds >= 0.9 => "very likely",
        odds if odds >= 0.6 => "likely",
        odds if odds >= 0.4 => "as likely as not",
        _ => "possible",
    };
    format!("{words} ({})", percent(odds))
}

fn story_name(survey: &Survey, story: Story) -> String {
    match story {
        Story::OneRate => "the springs alone, at one rate".to_owned(),
        Story::SecondStage => "an overload leaf that joins in on the way".to_owned(),
        Story::StopContact => "a bump stop that bears unseen".to_owned(),
        Story::Misread(Misread { state, gap: true }) => format!("the stop gap {} misread", state_of(survey, state)),
        Story::Misread(Misread { state, gap: false }) => {
            format!("the {} {} misread", end_name(survey.vehicle.class, End::Rear), state_of(survey, state))
        }
        _ => "something else".to_owned(),
    }
}

fn reading_name(survey: &Survey, reading: NextReading, units: Units) -> String {
    let rear = end_name(survey.vehicle.class, End::Rear);
    match reading {
        NextReading::StopGap => "the stop gap with the load on".to_owned(),
        NextReading::LeafContact => "whether the overload leaf bears with the load on".to_owned(),
        NextReading::MoreLoad(more) => format!("the {rear} with {} more over the axle", units.weight(more)),
        NextReading::HalfTheLoad => format!("the {rear} with half of the load"),
        NextReading::Again(LoadState::Empty) => format!("the {rear} empty once more, rolled and bounced"),
        NextReading::Again(_) => format!("the {rear} loaded once more, rolled and bounced"),
        NextReading::PressedAndLifted => format!("the {rear} loaded, pressed down and lifted"),
        _ => sentence("another state"),
    }
}
