//! Where the inches went: from the height when sound, or else from empty, to the height that was measured, part by part. What is wanted
//! has no part in that.

use super::rate::{MeasuredStages, RateVerdict};
use crate::survey::{ASSUMED_RATE_SD, ASSUMED_TYRE_SD, End, LoadState, Survey, is_a_lean};
use wise_badger_mechanics::side::Side;
use wise_badger_mechanics::uncertain::Uncertain;
use wise_badger_mechanics::units::{Force, InShopUnits, Length, SpringRate, inches, metres};

/// Part of the way down to the height measured.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub enum PartKind {
    /// The springs have set: what is left of the drop from sound to empty once the permanent load is taken off.
    SpringSet,
    /// What is always aboard, on springs and tyres.
    PermanentLoad,
    /// What was put on, on the springs, as if they had one rate.
    CarriedLoad,
    /// What was put on, on springs and overload leaf together: how much the leaf holds up cannot be told.
    SpringsAndOverloadLeaf,
    /// What was put on, on springs and bump stops together: how much the stops hold up cannot be told.
    SpringsAndStops,
    /// What was put on, on the tyres.
    Tyres,
    /// An overload leaf holds some of it up: a negative part.
    SecondStage,
    /// The bump stops hold some of it up: a negative part.
    StopContact,
    /// The low side's lean with nothing put on.
    LeanBySpring,
    /// What the load adds to the lean.
    LeanByLoad,
}

/// One part, downwards positive.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Part {
    /// What it is.
    pub kind: PartKind,
    /// How much lower it makes the rear; negative, it holds it up.
    pub down: Uncertain<Length>,
}

/// The whole way. `start` less all parts is `measured`.
#[derive(Debug, Clone, PartialEq)]
pub struct Breakdown {
    /// The state it ends in.
    pub state: LoadState,
    /// Where it begins: the rear height when sound, or the one read empty.
    pub start: Length,
    /// Whether that is the height when sound.
    pub from_sound: bool,
    /// The rear height measured: of the low side where it leans, otherwise of the axle.
    pub measured: Length,
    /// The low side, where it leans by more than the tape explains.
    pub low_side: Option<Side>,
    /// The parts, in order from start to measured.
    pub parts: Vec<Part>,
}

/// What the rear stood at, empty, when the vehicle was sound: from the maker's sheet or from a sound twin.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct SoundHeight {
    /// Of the rear, from the job's datum.
    pub rear: Length,
}

impl SoundHeight {
    /// Standard deviation of a height somebody else read, or a maker states (common practice).
    fn sd() -> Length {
        inches(1.0 / 8.0)
    }
}

impl Breakdown {
    /// Takes the way apart, loaded where that was read and what was put on is known. `None` while the rear was not read empty, and where
    /// the way would begin and end there.
    ///
    /// What the springs came down is that of the vehicle which agrees best with all readings, where a rate was measured, and the tyres are
    /// what is left of the drop; otherwise the tyres are `ΔW/K` at the class's rate. Permanent load: `ΔW/k`, `k` as measured, or the
    /// class's with its 35 %. Where the measured rate was taken apart into two, the carried load is reckoned at the first and the second
    /// stage is what it holds up; where that is not larger than its own band, the two are one part. Set is a remainder, so that all parts
    /// add up. The low side stands half the lean below the axle's mean.
    ///
    /// # Sign       down is positive
    /// # Source     springs in series, any statics text; first-order propagation, JCGM 100:2008 (GUM), 5.1.2
    pub fn of(survey: &Survey, rate: &RateVerdict, sound: Option<SoundHeight>) -> Option<Breakdown> {
        let empty = survey.height(End::Rear, LoadState::Empty)?;
        let loaded = survey.height(End::Rear, LoadState::Loaded);
        let carried = loaded.and_then(|loaded| Some((loaded, carried(survey, rate, empty.value - loaded.value)?)));
        if sound.is_none() && carried.is_none() {
            return None;
        }
        let mut parts = sound.map(|sound| to_empty(survey, rate, empty, sound)).unwrap_or_default();
        let state = if carried.is_some() { LoadState::Loaded } else { LoadState::Empty };
        let mut measured = empty.value;
        if let Some((loaded, carried)) = carried {
            parts.extend(carried);
            measured = loaded.value;
        }
        let start = sound.map_or(empty.value, |sound| sound.rear);
        let low_side = lean(survey, state, &mut parts);
        if low_side.is_some() {
            let leans = parts.iter().filter(|part| matches!(part.kind, PartKind::LeanBySpring | PartKind::LeanByLoad));
            measured -= leans.map(|part| part.down.value).sum::<Length>();
        }
        Some(Breakdown { state, start, from_sound: sound.is_some(), measured, low_side, parts })
    }

    /// A part, where there is one.
    pub fn part(&self, kind: PartKind) -> Option<Uncertain<Length>> {
        self.parts.iter().find(|part| part.kind == kind).map(|part| part.down)
    }
}

/// The rate that carries the first of a load, and its standard deviation as a share of it.
pub fn first_rate(survey: &Survey, rate: &RateVerdict) -> (SpringRate, f64) {
    match rate {
        RateVerdict::Measured(figure) => (figure.stages.map_or(figure.rate, |stages| stages.first), figure.relative_sd),
        _ => (survey.vehicle.assumptions().rear_rate, ASSUMED_RATE_SD),
    }
}

/// Give of the rear tyres, m/N; nought where the datum leaves them out.
fn tyre_give(survey: &Survey) -> f64 {
    if survey.datum.includes_tyre() { 1.0 / survey.vehicle.assumptions().rear_tyres().si() } else { 0.0 }
}

fn on_tyres(survey: &Survey, load: Force) -> Uncertain<Length> {
    let give = metres(load.si() * tyre_give(survey));
    Uncertain::new(give, give.abs() * ASSUMED_TYRE_SD)
}

/// From sound to empty.
fn to_empty(survey: &Survey, rate: &RateVerdict, empty: Uncertain<Length>, sound: SoundHeight) -> Vec<Part> {
    let mut parts = Vec::new();
    let always = survey.vehicle.always_on(End::Rear);
    let (rate, rate_sd) = first_rate(survey, rate);
    let mut permanent = Uncertain::new(metres(0.0), metres(0.0));
    if always.si().abs() > 0.0 {
        permanent = under_always(survey, always, rate, rate_sd);
        parts.push(Part { kind: PartKind::PermanentLoad, down: permanent });
    }
    parts.push(Part { kind: PartKind::SpringSet, down: set_of(sound.rear, empty, permanent) });
    parts
}

fn set_of(sound: Length, empty: Uncertain<Length>, permanent: Uncertain<Length>) -> Uncertain<Length> {
    let sd = Length::hypot(Length::hypot(SoundHeight::sd(), empty.sd), permanent.sd);
    Uncertain::new(sound - empty.value - permanent.value, sd)
}

/// How far the rear springs have set, with what is always aboard on springs as its class has them; `None` while the rear was not read
/// empty.
pub fn rear_set(survey: &Survey, sound: SoundHeight) -> Option<Uncertain<Length>> {
    let (empty, always) = (survey.height(End::Rear, LoadState::Empty)?, survey.vehicle.always_on(End::Rear));
    let permanent = under_always(survey, always, survey.vehicle.assumptions().rear_rate, ASSUMED_RATE_SD);
    Some(set_of(sound.rear, empty, permanent))
}

/// How far down what is always aboard holds it, on springs of such a rate and on the tires.
fn under_always(survey: &Survey, always: Force, rate: SpringRate, rate_sd: f64) -> Uncertain<Length> {
    let (springs, tyres) = (metres(always.si() / rate.si()), on_tyres(survey, always));
    Uncertain::new(springs + tyres.value, Length::hypot(springs.abs() * rate_sd, tyres.sd))
}

/// From empty to loaded: the drop that was read, on springs, tyres and whatever held some of it up.
fn carried(survey: &Survey, rate: &RateVerdict, drop: Length) -> Option<Vec<Part>> {
    let load = survey.axle_loads().change.rear?;
    let drop_sd = survey.drop(End::Rear).map_or(metres(0.0), |drop| drop.sd);
    let tyres = survey.datum.includes_tyre();
    let of_class = on_tyres(survey, load.value);
    let on_springs = match rate.measured().filter(|_| tyres) {
        Some(figure) => Uncertain::new(figure.springs_down(), figure.spring_drop.sd),
        None => Uncertain::new(drop - of_class.value, Length::hypot(drop_sd, of_class.sd)),
    };
    // Together they are what was read: what the one is off by, the other is off the other way.
    let on_tyres = tyres.then(|| Part { kind: PartKind::Tyres, down: Uncertain::new(drop - on_springs.value, on_springs.sd) });
    let by_itself = || vec![Part { kind: PartKind::CarriedLoad, down: on_springs }];
    let held = |kind, together, at_one_rate: Length| {
        let sd = Length::hypot(at_one_rate * ASSUMED_RATE_SD, on_springs.sd);
        let held = Uncertain::new(on_springs.value - at_one_rate, sd);
        match held.value.abs() > held.band() {
            true => vec![Part { kind: PartKind::CarriedLoad, down: Uncertain::new(at_one_rate, sd) }, Part { kind, down: held }],
            false => vec![Part { kind: together, down: on_springs }],
        }
    };
    let mut parts = match rate {
        RateVerdict::Measured(figure) => match figure.stages {
            Some(MeasuredStages { first, .. }) => {
                held(PartKind::SecondStage, PartKind::SpringsAndOverloadLeaf, metres(load.value.si() / first.si()))
            }
            None => by_itself(),
        },
        RateVerdict::OnTheStops { .. } => {
            let usual = survey.vehicle.assumptions().rear_rate;
            held(PartKind::StopContact, PartKind::SpringsAndStops, metres(load.value.si() / usual.si()))
        }
        _ => by_itself(),
    };
    parts.extend(on_tyres);
    Some(parts)
}

/// The lean of the low side, by spring and by load; `None` where it is within the tape.
fn lean(survey: &Survey, state: LoadState, parts: &mut Vec<Part>) -> Option<Side> {
    let now = survey.lean(End::Rear, state)?;
    if !is_a_lean(now) {
        return None;
    }
    // Right less left: positive, the left is low.
    let (low, sign) = if now.si() > 0.0 { (Side::Left, 1.0) } else { (Side::Right, -1.0) };
    // Either side's mean is read to a sixteenth or so, half of what they differ by counts.
    let sd = inches(1.0 / 16.0);
    let empty = survey.lean(End::Rear, LoadState::Empty);
    let mut push = |kind, lean: Length| parts.push(Part { kind, down: Uncertain::new(0.5 * sign * lean, sd) });
    match (state, empty) {
        (LoadState::Loaded, Some(empty)) => {
            push(PartKind::LeanBySpring, empty);
            push(PartKind::LeanByLoad, now - empty);
        }
        _ => push(PartKind::LeanBySpring, now),
    }
    Some(low)
}
