//! What parts that are only tried would do, case by case.

use wise_badger_casework::casework::Casework;
use wise_badger_casework::prediction::{Bounce, CaseHeights, PredictedState, Unpredicted};
use wise_badger_casework::survey::{End, LoadState, is_a_lean};
use wise_badger_mechanics::correction::Correction;
use wise_badger_mechanics::side::Sides;
use wise_badger_mechanics::uncertain::Uncertain;
use wise_badger_mechanics::units::{Force, InShopUnits, Length};

use super::comparison::left_words;
use super::load_plan::{NOTHING_FITTED, over_words, unpredicted_words};
use super::{Figure, Sum, Units, degrees, percent, sentence, state_of};

/// A state or a case: how it stands there now, and with what is tried.
pub(crate) struct TriedRow {
    pub(crate) name: String,
    /// The rating that is passed there, and by how much.
    pub(crate) warning: String,
    pub(crate) now: String,
    pub(crate) rear: String,
    pub(crate) front: String,
    pub(crate) lean: String,
    pub(crate) gap: String,
    pub(crate) ride: String,
}

/// What is not known, or has no meaning here.
const NOTHING: &str = "–";
/// A smaller change of its frequency nobody feels.
const NO_FIRMER: f64 = 0.01;

/// Every state that was read and every case of the plan, with the first option of a job.
pub(crate) fn tried_rows(work: &Casework, units: Units) -> Vec<TriedRow> {
    let survey = work.found();
    let of_state = |state: LoadState| {
        let predicted = work.predicted(0).map_or(Err(Unpredicted::NotMeasured), |prediction| prediction.at(state));
        let now = survey.height(End::Rear, state).map_or_else(|| NOTHING.to_owned(), |height| units.bare_height(height.value));
        let loads = if state == LoadState::Empty || state == LoadState::Loaded {
            over_words(survey, state, units)
        } else {
            String::new()
        };
        row(sentence(state_of(survey, state)), loads, now, predicted.map(Stands::in_state), units)
    };
    let states: Vec<TriedRow> = survey.states().map(of_state).collect();
    let cases = work.cases().iter().map(|case| {
        let now = work.predictor().in_case(&case.survey, NOTHING_FITTED);
        let now = now.map_or_else(|why| unpredicted_words(why).to_owned(), |heights| predicted(heights.rear, units));
        let with = work.in_case(0, case);
        let stands = with.as_ref().map(Stands::in_case).map_err(|why| *why);
        row(case.name.clone(), over_words(&case.survey, LoadState::Loaded, units), now, stands, units)
    });
    states.into_iter().chain(cases).collect()
}

/// What is said of where it stands.
struct Stands {
    rear: Uncertain<Length>,
    sides: Option<Sides<Uncertain<Length>>>,
    front: Option<Uncertain<Length>>,
    left: Option<Length>,
    bounce: Option<(Bounce, Bounce)>,
}

impl Stands {
    fn in_state(predicted: &PredictedState) -> Self {
        Stands {
            rear: predicted.rear,
            sides: predicted.rear_sides,
            front: predicted.front,
            left: predicted.travel_left,
            bounce: predicted.bounce_before.zip(predicted.bounce_after),
        }
    }

    fn in_case(heights: &CaseHeights) -> Self {
        Stands { rear: heights.rear, sides: heights.rear_sides, front: heights.front, left: heights.travel_left, bounce: None }
    }
}

fn row(name: String, warning: String, now: String, stands: Result<Stands, Unpredicted>, units: Units) -> TriedRow {
    let nothing = || NOTHING.to_owned();
    match stands {
        Err(why) => TriedRow {
            name,
            warning,
            now,
            rear: unpredicted_words(why).to_owned(),
            front: nothing(),
            lean: nothing(),
            gap: nothing(),
            ride: nothing(),
        },
        Ok(stands) => TriedRow {
            name,
            warning,
            now,
            rear: predicted(stands.rear, units),
            front: stands.front.map_or_else(nothing, |front| predicted(front, units)),
            lean: stands.sides.map_or_else(nothing, |sides| lean_words(&sides, units)),
            gap: stands.left.map_or_else(nothing, |left| left_words(left, |length| units.bare_height(length))),
            ride: stands.bounce.map_or_else(nothing, |(before, after)| ride_words(&before, &after)),
        },
    }
}

/// A height with its band, where the table says the unit.
fn predicted(height: Uncertain<Length>, units: Units) -> String {
    format!("{}\u{a0}±\u{a0}{}", units.bare_height(height.value), units.bare_band(height.band()))
}

/// Which side stands lower, and by how much.
fn lean_words(sides: &Sides<Uncertain<Length>>, units: Units) -> String {
    let lean = sides.right.value - sides.left.value;
    match lean {
        lean if !is_a_lean(lean) => "level".to_owned(),
        lean if lean.si() < 0.0 => format!("right {} low", units.bare_height(-lean)),
        lean => format!("left {} low", units.bare_height(lean)),
    }
}

fn ride_words(before: &Bounce, after: &Bounce) -> String {
    let change = (after.frequency / before.frequency).value - 1.0;
    match change {
        change if change.abs() < NO_FIRMER => "as now".to_owned(),
        change if change > 0.0 => format!("{} firmer", percent(change)),
        change => format!("{} softer", percent(-change)),
    }
}

/// A pull to one side: how hard, and how high above the ground.
#[derive(Clone, Copy)]
pub(crate) struct Pull {
    pub(crate) force: Force,
    pub(crate) height: Length,
}

/// How far it leans when it is pulled to one side, with what is tried and without it: loaded, where that was read.
pub(crate) fn leans_figure(work: &Casework, parts: &[Correction], pull: Pull, units: Units) -> Option<Figure> {
    let predictor = work.predictor();
    let leans = |parts: &[Correction], state| predictor.leans_when_pulled(parts, state, pull.force, pull.height);
    let (state, with, now) = [LoadState::Loaded, LoadState::Empty]
        .into_iter()
        .find_map(|state| Some((state, leans(parts, state).ok()?, leans(NOTHING_FITTED, state).ok()?)))?;
    let less = 1.0 - (with.value / now.value).value;
    let note = match less {
        less if less.abs() < 0.01 => "as far as now".to_owned(),
        less if less > 0.0 => format!("{} now: leans {} less", degrees(now.value), percent(less)),
        less => format!("{} now: leans {} more", degrees(now.value), percent(-less)),
    };
    let pulled = format!(
        "{} pulls at {} above the ground, over the middle of the wheelbase",
        units.weight(pull.force),
        units.height(pull.height)
    );
    let numbers = vec![
        pulled,
        format!("now {} ± {}", degrees(now.value), degrees(now.band())),
        format!("with it {} ± {}", degrees(with.value), degrees(with.band())),
    ];
    let sum = Sum::new(
        "lean = moment about the roll axis (taken 20 in up) / what springs, helpers, bars and tires hold against it",
        numbers,
        "Static balance of springs, stops and tires over all axles; springs taken 42 in apart (common practice).",
    )
    .doubt(
        "How stiff the front is in roll nobody measured: between bare springs and a heavy bar, and the band is that wide. Both figures are off \
         the same way, so what changes is surer than either. What leans out adds to it, before and after alike.",
    );
    let label = format!("Pulled sideways, {}", state_of(work.found(), state));
    Some(Figure::new(label, format!("{} ± {}", degrees(with.value), degrees(with.band())), sum).note(note))
}
