//! A prediction in figures and words.

use wise_badger_casework::aim::{AimVerdict, GoalCase};
use wise_badger_casework::casework::Casework;
use wise_badger_casework::prediction::{Bounce, PredictedState, Prediction, Predictor, Unpredicted};
use wise_badger_casework::survey::{End, LoadState, Survey, is_a_lean};
use wise_badger_mechanics::correction::Correction;
use wise_badger_mechanics::side::{Side, Sides};
use wise_badger_mechanics::uncertain::Uncertain;
use wise_badger_mechanics::units::{InShopUnits, Length};

use super::verdict::rake_words;
use super::{Figure, Sum, Tone, Units, end_name, frequency, frequency_sum, percent, sentence, state_of};
use crate::correction::{account, formula, parts_doubt};

const SOURCE: &str = "Static balance of springs, stops and tires over all axles; uncertainty by JCGM 100:2008 (GUM), 5.2.";

/// How much is told of heights.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) enum Detail {
    /// Each axle as a whole: enough for a page that is printed.
    Axles,
    /// Either side too, where it leans.
    Sides,
}

/// Heights, travel and frequency in both states; with what either side does where it leans, unless only the axles are asked for.
pub(crate) fn prediction_figures(
    predictor: &Predictor,
    fitted: &(impl AsRef<[Correction]> + ?Sized),
    prediction: &Prediction,
    detail: Detail,
    units: Units,
) -> Vec<Figure> {
    let parts = fitted.as_ref();
    let mut figures = Vec::new();
    let survey = predictor.survey();
    for (state, predicted) in prediction.each() {
        match predicted {
            Ok(predicted) => figures.push(height(predictor, parts, predicted, state, units)),
            Err(why) => {
                log_failure(predictor);
                figures.push(unpredicted(*why, state_of(survey, state), survey.load.is_some()));
            }
        }
    }
    if detail == Detail::Sides {
        for (state, predicted) in predicted_states(prediction) {
            figures.extend(sides(predictor.survey(), predicted, state, units));
        }
    }
    for (state, predicted) in predicted_states(prediction) {
        figures.extend(rake(predicted, state_of(survey, state), units));
    }
    for (state, predicted) in predicted_states(prediction) {
        figures.extend(travel(parts, predicted, state_of(survey, state), units));
    }
    for (state, predicted) in predicted_states(prediction) {
        figures.extend(ride(predicted, state_of(survey, state), units));
    }
    figures
}

fn predicted_states(prediction: &Prediction) -> impl Iterator<Item = (LoadState, &PredictedState)> {
    prediction.each().filter_map(|(state, predicted)| predicted.as_ref().ok().map(|predicted| (state, predicted)))
}

/// What could not be worked out goes on the log with its cause; the page says what to do about it.
pub(crate) fn log_failure(predictor: &Predictor) {
    if let Some(cause) = predictor.failure() {
        tracing::warn!(%cause, "heights could not be predicted");
    }
}

/// How a predicted height comes about.
pub(crate) fn height_sum(
    predictor: &Predictor,
    parts: &[Correction],
    predicted: &PredictedState,
    state: LoadState,
    units: Units,
) -> Sum {
    let mut numbers =
        vec![format!("rear measured {} {}", state_of(predictor.survey(), state), units.exact(predicted.rear_before))];
    numbers.extend(account(parts, units));
    if let Some(figure) = predictor.rate().measured() {
        numbers.push(format!("rear rate {} ± {}", units.rate(figure.rate), percent(2.0 * figure.relative_sd)));
        numbers.extend(figure.stages.map(|stages| {
            format!(
                "taken as {} for the first {} of travel from empty, and {} past that",
                units.rate(stages.first),
                units.exact(stages.from),
                units.rate(stages.first + stages.added)
            )
        }));
        if state == LoadState::Loaded {
            numbers.push(format!("load on the rear axle {}", units.weight(figure.load_change.value)));
        }
    }
    if predictor.tells_of_a_stop() {
        numbers.push("a bump stop is taken to bear part of the load: what lifts the vehicle comes off it first".to_owned());
    }
    numbers.push(format!(
        "{} + rise of {} = {} ({})",
        units.exact(predicted.rear_before),
        units.exact(predicted.rise.value),
        units.exact(predicted.rear.value),
        units.height(predicted.rear.value)
    ));
    let part =
        parts_doubt(parts, units).map(|words| (format!(", and ± {} of the part itself", units.exact(predicted.part)), words));
    let (of_part, words) = part.unwrap_or_default();
    let doubt = format!(
        "± {} is where it comes to rest: tape, load, rate, tire and the leaf friction of every reading carried through together, over every \
         story that fits{of_part}. The tape will read it within ± {}: ± {} of leaf friction, the tape and settling lie on top. The rise \
         itself is good to ± {}. {words}",
        units.exact(predicted.rear.band()),
        units.exact(predicted.tape().band()),
        units.exact(predicted.friction),
        units.exact(predicted.rise.band()),
    );
    Sum::new(formula(parts), numbers, SOURCE).doubt(doubt)
}

fn height(predictor: &Predictor, parts: &[Correction], predicted: &PredictedState, state: LoadState, units: Units) -> Figure {
    let sum = height_sum(predictor, parts, predicted, state, units);
    let label = format!("Rear, {}", state_of(predictor.survey(), state));
    let note = match predicted.rise.value {
        rise if units.is_nothing(rise) => "where it is now".to_owned(),
        rise => format!("{} from now", units.change(rise)),
    };
    Figure::new(label, units.predicted(predicted.rear), sum).note(format!("{note}{}", leaning_words(predicted, units)))
}

/// Both sides of the rear where it would lean.
fn leaning_words(predicted: &PredictedState, units: Units) -> String {
    let leaning = predicted.rear_sides.filter(|sides| is_a_lean(sides.right.value - sides.left.value));
    leaning.map_or_else(String::new, |sides| {
        let [left, right] = [sides.left, sides.right].map(|side| units.height(side.value));
        format!("; left {left}, right {right}")
    })
}

/// The same in few signs, where a table has little room.
pub(crate) fn sides_in_short(predicted: &PredictedState, units: Units) -> String {
    let leaning = predicted.rear_sides.filter(|sides| is_a_lean(sides.right.value - sides.left.value));
    leaning.map_or_else(String::new, |sides| {
        let [left, right] = [sides.left, sides.right].map(|side| units.bare_height(side.value));
        format!(", L\u{a0}{left}, R\u{a0}{right}")
    })
}

/// Either side of an end that leans, or would, and the front where the correction is there.
fn sides(survey: &Survey, predicted: &PredictedState, state: LoadState, units: Units) -> Vec<Figure> {
    let class = survey.vehicle.class;
    let front = predicted.front_sides.and(predicted.front).map(|front| {
        let before = survey.height(End::Front, state).map_or(front.value, |height| height.value);
        let label = format!("{}, {}", sentence(end_name(class, End::Front)), state_of(survey, state));
        risen(label, front, before, SPRINGS_ASSUMED, units)
    });
    let each = [(End::Front, predicted.front_sides), (End::Rear, predicted.rear_sides)];
    let leaning = each.into_iter().filter_map(|(end, sides)| {
        let sides = sides?;
        let leans = survey.leans(end, state) || is_a_lean(sides.right.value - sides.left.value);
        leans.then_some((end, sides))
    });
    let of_side = |(end, sides): (End, Sides<Uncertain<Length>>)| {
        Side::BOTH.map(|side| {
            let height = *sides.get(side);
            let before = survey.side(end, state, side).map_or(height.value, |height| height.value);
            let label = format!("{} {}, {}", sentence(end_name(class, end)), side.name(), state_of(survey, state));
            risen(label, height, before, ROLL_ASSUMED, units)
        })
    };
    front.into_iter().chain(leaning.flat_map(of_side)).collect()
}

const SPRINGS_ASSUMED: &str = "The front springs are assumed for the class, to 35%.";
const ROLL_ASSUMED: &str =
    "How stiff the vehicle is in roll is not known: between bare springs and a heavy bar in front. Weigh both corners after.";

fn risen(label: String, height: Uncertain<Length>, before: Length, doubt: &'static str, units: Units) -> Figure {
    let rise = height.value - before;
    let numbers = vec![format!("{} + rise of {} = {}", units.exact(before), units.exact(rise), units.exact(height.value))];
    let sum = Sum::new("height = height measured there + its own rise", numbers, SOURCE)
        .doubt(format!("± {} is two standard deviations. {doubt}", units.exact(height.band())));
    let note = if units.is_nothing(rise) { "where it is now".to_owned() } else { format!("{} from now", units.change(rise)) };
    Figure::new(label, units.predicted(height), sum).note(note)
}

/// Why nothing is said, in a sentence, of a state that may be the loaded one.
pub(crate) fn unpredicted_words(why: Unpredicted, loaded: bool) -> String {
    let (value, note) = why_unpredicted(why, loaded);
    format!("{}: {note}.", sentence(value))
}

/// Why nothing is said, in short, and what to do.
fn why_unpredicted(why: Unpredicted, loaded: bool) -> (&'static str, &'static str) {
    match why {
        Unpredicted::NotMeasured => ("not measured", "the heights of this state, or what was put on, are missing on Tape"),
        Unpredicted::NeedsRate => (
            "too weak to say",
            if loaded {
                "this depends on the rear rate, and the load put on was too small to give one; a block on both sides needs none"
            } else {
                "this depends on the rear rate, and no load was put on to tell it; read the rear with a real load; a block on both sides needs none"
            },
        ),
        Unpredicted::OnTheStops => ("on the stops", "the bump stops carry load as measured; measure again with them clear"),
        Unpredicted::NotIdentified => {
            ("outside the model", "readings, load and vehicle do not come together; check the heights, the load and its place")
        }
        Unpredicted::DoesNotStand => ("does not stand", "with these figures the vehicle tips; check the load and its place"),
        Unpredicted::PastThePack => {
            ("outside the model", "the pack would be bent further than it can be worked out; check its leaves")
        }
        Unpredicted::PastThePart => (
            "past its capacity",
            "a part would be pressed further than what it is sold for; take a stronger one, or set it lower",
        ),
        Unpredicted::NeedsTheOverloadLeaf => {
            ("overload leaf unread", "say on Tape whether the overload leaves bear with the load on, or read their gap empty")
        }
        Unpredicted::NeedsTheStopGap => ("stop gap unread", "read the gap at the bump stops empty: a longer stop may bear"),
        Unpredicted::NoSuchAxle => ("no such axle", "this vehicle has no axle where that would go"),
        _ => ("outside the model", "with these figures no balance was found; check them"),
    }
}

fn unpredicted(why: Unpredicted, state: &str, loaded: bool) -> Figure {
    let (value, note) = why_unpredicted(why, loaded);
    let sum = Sum::new("no figure is given where the readings do not carry one", Vec::new(), SOURCE);
    Figure::new(format!("Rear, {state}"), value, sum).note(note).tone(Tone::Act)
}

fn rake(predicted: &PredictedState, state: &str, units: Units) -> Option<Figure> {
    let front = predicted.front?;
    let rake = predicted.rear.value - front.value;
    let numbers = vec![format!("{} − {} = {}", units.exact(predicted.rear.value), units.exact(front.value), units.exact(rake))];
    let sum = Sum::new("rake = rear predicted − front; a rear correction leaves the front where it is", numbers, SOURCE);
    Some(Figure::new(format!("Rake {state}"), units.change(rake), sum).note(rake_words(rake)))
}

fn travel(parts: &[Correction], predicted: &PredictedState, state: &str, units: Units) -> Option<Figure> {
    let left = predicted.travel_left?;
    let rubber = parts.iter().any(Correction::replaces_stops);
    let bears = left.si() < 0.0;
    let (what, note) = match (rubber, bears) {
        (true, true) => ("Load rubber", "the rubber bears by this much"),
        (true, false) => ("Load rubber", "clear by this much"),
        (false, true) => ("Bump travel left", "the stop would bear: outside what is predicted here"),
        (false, false) => ("Bump travel left", "to the bump stop"),
    };
    let sum = match predicted.travel_before.filter(|_| !rubber) {
        Some(before) => Sum::new(
            "clearance = gap as it is + what the axle goes away from the stop; a block opens it, as the stop stays on the frame",
            vec![format!("{} + {} = {}", units.exact(before), units.exact(left - before), units.exact(left))],
            SOURCE,
        ),
        None => Sum::new(
            "the clearance that the rubber is set to empty, less what the axle comes nearer under the load",
            vec![format!("clearance {}", units.exact(left))],
            SOURCE,
        ),
    };
    let tone = if bears && !rubber { Tone::Act } else { Tone::Plain };
    let value = if bears { units.height(-left) } else { units.height(left) };
    Some(Figure::new(format!("{what}, {state}"), value, sum).note(note).tone(tone))
}

fn ride(predicted: &PredictedState, state: &str, units: Units) -> Option<Figure> {
    let (before, after) = (predicted.bounce_before?, predicted.bounce_after?);
    let line = |bounce: Bounce| frequency_sum(bounce.rate, bounce.sprung, bounce.frequency, units);
    let numbers = vec![format!("before: {}", line(before)), format!("after: {}", line(after))];
    let (before, after) = (before.frequency, after.frequency);
    let sum = Sum::new(
        "f = √(rate × g / sprung weight) / 2π, with the springs that bear at this height and the tires left out",
        numbers,
        "Any vibration text; unsprung weight assumed for the class.",
    );
    let change = frequency(after);
    let note = if frequency(before) == change { "as before".to_owned() } else { format!("{} before", frequency(before)) };
    Some(Figure::new(format!("Ride frequency, {state}"), change, sum).note(note))
}

/// Whether a goal of the job is met with an option fitted, in a sentence; of one that is ruled out nothing else is said.
pub(crate) fn goal_sentence(work: &Casework, place: usize, option: usize, units: Units) -> Option<(Tone, String)> {
    if !work.gate_of(option).is_empty() {
        return Some((Tone::Act, "Ruled out.".to_owned()));
    }
    let goal = work.goal(place)?;
    goal.wanted(work.found())?;
    let Some(verdict) = work.judged(place, option, units.step()) else {
        let text = match goal.when() {
            GoalCase::State(state) => {
                format!("The aim is about the {} height, which is not predicted here.", state_of(work.found(), state))
            }
            GoalCase::Planned(_) => "The aim is about a case of the load plan, which is not predicted here.".to_owned(),
        };
        return Some((Tone::Act, text));
    };
    let side = |off: Length| {
        let (by, word) = if off.si() > 0.0 { (off, "above") } else { (-off, "below") };
        format!("{} {word} the middle of the aim", units.height(by))
    };
    Some(match verdict {
        AimVerdict::Meets => (Tone::Good, "Meets the aim, all of its band.".to_owned()),
        AimVerdict::LikelyMeets => (Tone::Part, "Meets the aim; the edge of its band reaches outside.".to_owned()),
        AimVerdict::MayMiss { off } => (Tone::Act, format!("May miss the aim: {}, with part of its band inside.", side(off))),
        AimVerdict::Misses { off } => (Tone::Act, format!("Misses the aim: {}.", side(off))),
    })
}

/// One line for a list: where it would sit.
pub(crate) fn prediction_line(survey: &Survey, prediction: &Prediction, units: Units) -> String {
    let part = |(state, predicted): (LoadState, &Result<PredictedState, Unpredicted>)| match predicted {
        Ok(predicted) => format!("{} {}", state_of(survey, state), units.predicted(predicted.rear)),
        Err(_) => format!("{} not predicted", state_of(survey, state)),
    };
    sentence(&prediction.each().map(part).collect::<Vec<_>>().join("; "))
}
