//! After fitting: which part can be set otherwise, and how, so that the rear stands where the aim wants it.

use wise_badger_mechanics::bound::Bound;
use wise_badger_mechanics::correction::{Correction, Quantity};
use wise_badger_mechanics::uncertain::Uncertain;
use wise_badger_mechanics::units::{Length, metres};

use crate::aim::AimVerdict;
use crate::casework::Casework;
use crate::entry::{FigureEntry, TypedIn, WhenEntry};
use crate::shelf_fit::settable_of;
use crate::survey::{End, LoadState};

/// How often the way to a setting is halved: a thousandth of it is left.
const HALVINGS: usize = 12;
/// A setting that moves the rear by less than this is none.
const LEAST_MOVE_M: f64 = 0.001;

/// A part set otherwise.
#[derive(Debug, Clone, PartialEq)]
pub struct Adjustment {
    /// Its place in the option.
    pub part: usize,
    /// The figure that is set.
    pub figure: &'static str,
    /// What it is now.
    pub now: Quantity,
    /// What it is to be.
    pub to: Quantity,
    /// How much higher the rear stands then, by the prediction; lower is negative.
    pub rises: Length,
}

/// What the rear lacks of its aim after fitting, and what of it can be made good by setting.
#[derive(Debug, Clone, PartialEq)]
pub struct Adjust {
    /// The state that the aim speaks of.
    pub state: LoadState,
    /// How much higher it would have to stand.
    pub wanted: Length,
    /// The parts that can be set, each with what is nearest.
    pub settings: Vec<Adjustment>,
}

/// What can be set where the rear was measured outside its aim; `None` while it was not, where it is inside, over a rating, and where it
/// was read otherwise than before: under another load nothing is set for this one.
pub fn adjust(work: &Casework) -> Option<Adjust> {
    // Past a rating nothing is made to carry more.
    if work.overload().is_some() {
        return None;
    }
    let aim = work.aim()?;
    let state = aim.state();
    // What hangs on the front goes by where that stands now.
    let front = work.fitted().height(End::Front, state).or_else(|| work.found().height(End::Front, state));
    let band = aim.target_over(front.map(|height| height.value), work.found())?;
    let measured = work.fitted().height(End::Rear, state)?;
    let as_read = Uncertain::new(measured.value, metres(0.0));
    if matches!(band.judge(as_read), AimVerdict::Meets | AimVerdict::LikelyMeets) {
        return None;
    }
    if [End::Rear, End::Front].into_iter().any(|end| !work.case().otherwise_at(state, end).is_empty()) {
        return None;
    }
    let off = band.height - measured.value;
    let (option, _) = work.chosen()?;
    let settings = (0..option.parts.len()).filter_map(|place| setting(work, place, state, off)).collect();
    Some(Adjust { state, wanted: off, settings })
}

/// How a part is set so that the rear moves by so much, or as near to it as the part allows.
fn setting(work: &Casework, place: usize, state: LoadState, wanted: Length) -> Option<Adjustment> {
    let (option, _) = work.chosen()?;
    let part = option.parts.get(place)?;
    let row = part.correction.row;
    let best = |name: &str| part.shelf.as_deref().and_then(|shelf| shelf.best(name)).or_else(|| part.correction.figure(name));
    let (figure, bound) = settable_of(row, best)?;
    let when = WhenEntry::State(state);
    let now = match part.settings.iter().find(|setting| setting.when == when) {
        Some(setting) => setting.value.si,
        None => match part.correction.figure(figure)? {
            FigureEntry::Typed(typed) => typed.si,
            _ => return None,
        },
    };
    let with = |si: f64| -> Option<Vec<Correction>> {
        let mut parts = work.option_at(work.case().chosen?, when)?.to_vec();
        let one = parts.get_mut(place)?;
        let typed = TypedIn::default().of(bound.dimension, si)?;
        *one = part.correction.with_figure(figure, typed.into()).correction()?;
        Some(parts)
    };
    let height = |si: f64| work.predictor().height_at_best(&with(si)?, state).ok();
    let stands = height(now)?;
    let to = nearest(now, &bound, stands + wanted, stands, &height)?;
    let rises = height(to)? - stands;
    // What it is set to must be allowed as what is chosen was.
    let parts = with(to)?;
    let prediction = work.predictor().predict_set(|of| if of == state { parts.as_slice() } else { usual(work) });
    let allowed = work.gate_with(&parts, &prediction).is_empty();
    let quantity = |si: f64| Quantity::of(bound.dimension, si);
    (allowed && rises.abs() >= metres(LEAST_MOVE_M)).then(|| Adjustment {
        part: place,
        figure,
        now: quantity(now),
        to: quantity(to),
        rises,
    })
}

fn usual(work: &Casework) -> &[Correction] {
    work.chosen().map(|(_, parts)| parts).unwrap_or_default()
}

/// The setting between what it is and an end of its bound at which the rear stands nearest to where it is wanted. What is past the part
/// is too far.
fn nearest(now: f64, bound: &Bound, wanted: Length, stands: Length, height: &dyn Fn(f64) -> Option<Length>) -> Option<f64> {
    let up = wanted > stands;
    let toward = |end: f64| {
        height(f64::midpoint(now, end)).is_some_and(|there| (there > stands) == up && (there - stands).abs() > metres(1e-5))
    };
    let end = [bound.most, bound.least].into_iter().find(|end| (end - now).abs() > 1e-9 && toward(*end))?;
    let is_too_far = |si: f64| height(si).is_none_or(|there| if up { there > wanted } else { there < wanted });
    if !is_too_far(end) {
        return Some(end);
    }
    let (mut near, mut far) = (now, end);
    for _ in 0..HALVINGS {
        let middle = f64::midpoint(near, far);
        if is_too_far(middle) { far = middle } else { near = middle }
    }
    Some(near)
}
