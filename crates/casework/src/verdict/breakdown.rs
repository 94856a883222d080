//! Where the inches went: from the height that is wanted to the height that was measured, part by part.

use super::rate::{MeasuredStages, RateVerdict};
use crate::survey::{ASSUMED_RATE_SD, ASSUMED_TYRE_SD, End, LoadState, Survey, is_a_lean};
use wise_badger_mechanics::side::Side;
use wise_badger_mechanics::uncertain::Uncertain;
use wise_badger_mechanics::units::{Force, InShopUnits, Length, SpringRate, inches, metres};

/// Part of the way from the height wanted to the height measured.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub enum PartKind {
    /// What is wanted lies above what the vehicle had when sound (or below, as a negative part).
    WantedAboveSound,
    /// The springs have set: what is left of the drop from sound to empty once the permanent load is taken off.
    SpringSet,
    /// What is always aboard, on springs and tyres.
    PermanentLoad,
    /// From wanted to empty as a whole: set and permanent load cannot be told apart while the sound height is not known.
    NotToldApart,
    /// What was put on, on the springs, as if they had one rate.
    CarriedLoad,
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

/// The whole way. `wanted` less all parts is `measured`.
#[derive(Debug, Clone, PartialEq)]
pub struct Breakdown {
    /// The state it ends in: the aim's own.
    pub state: LoadState,
    /// The rear height wanted.
    pub wanted: Length,
    /// The rear height measured: of the low side where it leans, otherwise of the axle.
    pub measured: Length,
    /// The low side, where it leans by more than the tape explains.
    pub low_side: Option<Side>,
    /// The parts, in order from wanted to measured.
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
    /// Takes the way apart. `None` while the rear was not read in the state the height is wanted in, or, for a loaded one,
    /// while what was put on is not known.
    ///
    /// Springs: `ΔW/k`, `k` as measured, or the class's with its 35 %; tyres: `ΔW/K` where the datum has them in it. Where the
    /// measured rate was taken apart into two, the carried load is reckoned at the first and the second stage is what it
    /// holds up. Set is a remainder, so that all parts add up. The low side stands half the lean below the axle's mean.
    ///
    /// # Sign       down is positive
    /// # Source     springs in series, any statics text; first-order propagation, JCGM 100:2008 (GUM), 5.1.2
    pub fn of(
        survey: &Survey,
        rate: &RateVerdict,
        state: LoadState,
        wanted: Length,
        sound: Option<SoundHeight>,
    ) -> Option<Breakdown> {
        let empty = survey.height(End::Rear, LoadState::Empty)?;
        let mut parts = to_empty(survey, rate, wanted, empty, sound);
        let mut measured = empty.value;
        if state == LoadState::Loaded {
            let loaded = survey.height(End::Rear, LoadState::Loaded)?;
            parts.extend(carried(survey, rate, empty.value - loaded.value)?);
            measured = loaded.value;
        }
        let low_side = lean(survey, state, &mut parts);
        if low_side.is_some() {
            let leans = parts.iter().filter(|part| matches!(part.kind, PartKind::LeanBySpring | PartKind::LeanByLoad));
            measured -= leans.map(|part| part.down.value).sum::<Length>();
        }
        Some(Breakdown { state, wanted, measured, low_side, parts })
    }

    /// A part, where there is one.
    pub fn part(&self, kind: PartKind) -> Option<Uncertain<Length>> {
        self.parts.iter().find(|part| part.kind == kind).map(|part| part.down)
    }
}

/// The rate that carries the first of a load, and its standard deviation as a share of it.
fn first_rate(survey: &Survey, rate: &RateVerdict) -> (SpringRate, f64) {
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

/// From wanted to empty.
fn to_empty(
    survey: &Survey,
    rate: &RateVerdict,
    wanted: Length,
    empty: Uncertain<Length>,
    sound: Option<SoundHeight>,
) -> Vec<Part> {
    let Some(sound) = sound else {
        return vec![Part { kind: PartKind::NotToldApart, down: Uncertain::new(wanted - empty.value, empty.sd) }];
    };
    let mut parts = vec![Part { kind: PartKind::WantedAboveSound, down: Uncertain::new(wanted - sound.rear, SoundHeight::sd()) }];
    let always = survey.vehicle.always_on(End::Rear);
    let (rate, rate_sd) = first_rate(survey, rate);
    let mut permanent = Uncertain::new(metres(0.0), metres(0.0));
    if always.si().abs() > 0.0 {
        let (springs, tyres) = (metres(always.si() / rate.si()), on_tyres(survey, always));
        permanent = Uncertain::new(springs + tyres.value, Length::hypot(springs.abs() * rate_sd, tyres.sd));
        parts.push(Part { kind: PartKind::PermanentLoad, down: permanent });
    }
    let set = sound.rear - empty.value - permanent.value;
    let sd = Length::hypot(Length::hypot(SoundHeight::sd(), empty.sd), permanent.sd);
    parts.push(Part { kind: PartKind::SpringSet, down: Uncertain::new(set, sd) });
    parts
}

/// From empty to loaded: the drop that was read, on springs, tyres and whatever held some of it up.
fn carried(survey: &Survey, rate: &RateVerdict, drop: Length) -> Option<Vec<Part>> {
    let load = survey.axle_loads().change.rear?;
    let tyres = on_tyres(survey, load.value);
    let on_springs = drop - tyres.value;
    let drop_sd = survey.drop(End::Rear).map_or(metres(0.0), |drop| drop.sd);
    let tyres = (tyres.value.si().abs() > 0.0).then_some(Part { kind: PartKind::Tyres, down: tyres });
    let held = |kind, at_one_rate: Length, relative_sd: f64| {
        let sd = Length::hypot(at_one_rate * relative_sd, drop_sd);
        let carried = Part { kind: PartKind::CarriedLoad, down: Uncertain::new(at_one_rate, sd) };
        vec![carried, Part { kind, down: Uncertain::new(on_springs - at_one_rate, sd) }]
    };
    let mut parts = match rate {
        RateVerdict::Measured(figure) => match figure.stages {
            Some(MeasuredStages { first, .. }) => {
                held(PartKind::SecondStage, metres(load.value.si() / first.si()), ASSUMED_RATE_SD)
            }
            None => vec![Part { kind: PartKind::CarriedLoad, down: Uncertain::new(on_springs, drop_sd) }],
        },
        RateVerdict::OnTheStops { .. } => {
            let usual = survey.vehicle.assumptions().rear_rate;
            held(PartKind::StopContact, metres(load.value.si() / usual.si()), ASSUMED_RATE_SD)
        }
        _ => vec![Part { kind: PartKind::CarriedLoad, down: Uncertain::new(on_springs, drop_sd) }],
    };
    parts.extend(tyres);
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
