//! Everything that was read, and what is in doubt about it, by one account.

use super::model::{FRONT, end_mark, rear_axles, vehicle};
use super::telling::{Misread, Telling};
use crate::survey::{
    ASSUMED_RATE_SD, ASSUMED_TYRE_SD, AxleLoads, End, FurtherLoad, Item, LoadPut, LoadState, Manner, SpringKind, Survey,
    place_sd, scale_sd,
};
use crate::verdict::{RateFigure, RateVerdict};
use wise_badger_mechanics::correction::BUMP_STOP;
use wise_badger_mechanics::identification::{
    Doubt, Doubtful, Experiment, LeafFriction, LoadDoubt, MeasuredState, Measurement, Rest, TapeMark,
};
use wise_badger_mechanics::pack::{LEAF_FRICTION, LEAF_RATE_SD};
use wise_badger_mechanics::side::Side;
use wise_badger_mechanics::stance::{Load, State, Vehicle};
use wise_badger_mechanics::tape::ReadingPrecision;
use wise_badger_mechanics::uncertain::Uncertain;
use wise_badger_mechanics::units::{InShopUnits, Length, inches, metres, newtons};

/// Doubt about a rate of which only the readings are to speak.
const ANY_RATE_SD: f64 = 3.0;
/// Further apart than so many standard deviations tape and leaves do not go together.
const GOES_SDS: f64 = 3.0;
/// Under so much there is no telling a clear stop from a touching one.
const TOUCHING_IN: f64 = 1.0 / 16.0;
/// Standard deviation of what one rear spring is stiffer than its fellow, as a share of it (our own working rule).
const SIDE_TO_SIDE_SD: f64 = 0.10;
/// How far a misread reading may be off, as one standard deviation (our own working rule).
const MISREAD_IN: f64 = 0.5;
/// Standard deviation of how hard a rear stop is, as a share of it (our own working rule).
const STOP_RATE_SD: f64 = 0.6;
/// Standard deviation of what a second stage adds, as a share of it.
const STAGE_RATE_SD: f64 = 0.35;
/// The share of their load by which leaves hold an axle that rub on each other dry or rusty (common practice).
const DRY_LEAF_FRICTION: f64 = 0.15;
/// Standard deviation of how strong leaf friction is, as a share of it (our own working rule).
const FRICTION_SD: f64 = 0.5;

/// Everything that was read, and what is in doubt about it, by one account. `two_states` is what empty and loaded alone say: a loaded
/// height that is none of the springs' says nothing of them.
pub(super) fn experiment(survey: &Survey, loads: &AxleLoads, two_states: &RateVerdict, telling: &Telling) -> Experiment {
    let rear_axles = || rear_axles(survey).iter().map(|axle| (*axle).to_owned()).collect::<Vec<_>>();
    let doubt = |what, relative_sd| Doubt { what, axles: rear_axles(), relative_sd };
    let pack = survey.vehicle.rear_pack.is_some();
    let vehicle = vehicle(survey, loads, telling);
    let believed = match two_states.measured() {
        Some(figure) if pack && !goes_with_the_leaves(survey, &vehicle, figure) => ANY_RATE_SD,
        _ if pack => LEAF_RATE_SD,
        _ => ASSUMED_RATE_SD,
    };
    let mut doubts = vec![doubt(Doubtful::SpringRate, believed)];
    if survey.datum.includes_tyre() {
        doubts.push(doubt(Doubtful::TyreRate, ASSUMED_TYRE_SD));
    }
    // It moves no axle as a whole, only one side of it against the other.
    let both_sides = |state| End::BOTH.into_iter().any(|end| survey.half_lean_sd(end, state).is_some());
    if survey.states().any(both_sides) {
        doubts.push(doubt(Doubtful::RightOverLeft, SIDE_TO_SIDE_SD));
    }
    if let Some(stage) = telling.stage {
        doubts.push(doubt(Doubtful::StageTravel, stage.from_sd));
        doubts.push(doubt(Doubtful::StageRate, STAGE_RATE_SD));
    }
    if let Some(stop) = telling.stop {
        doubts.push(doubt(Doubtful::StopGap, stop.gap_sd));
        doubts.push(doubt(Doubtful::StopRate, STOP_RATE_SD));
    }
    // The front of a trailer stands where what tows it holds it.
    if !survey.vehicle.class.is_trailer() {
        let front = |what, relative_sd| Doubt { what, axles: vec![FRONT.to_owned()], relative_sd };
        doubts.push(front(Doubtful::SpringRate, ASSUMED_RATE_SD));
        if survey.datum.includes_tyre() {
            doubts.push(front(Doubtful::TyreRate, ASSUMED_TYRE_SD));
        }
    }
    let read = |state| survey.height_by_tape(End::Rear, state).filter(|_| is_weighed(survey, two_states, state));
    let states = survey.states().map(|state| measured_state(survey, state, read(state), telling.misread));
    Experiment { vehicle, doubts, friction: leaf_friction(survey).collect(), states: states.collect() }
}

/// Whether a rate from two states is what the leaves make it, as well as either is known. Where it is not, a thickness may have been
/// misread, and is cubed: then only the readings are to speak.
fn goes_with_the_leaves(survey: &Survey, vehicle: &Vehicle, figure: &RateFigure) -> bool {
    let down = figure.spring_drop.value;
    let axles = vehicle.axles.iter().filter(|axle| rear_axles(survey).contains(&axle.name.as_str()));
    let springs = axles.flat_map(|axle| Side::BOTH.map(|side| axle.corners.get(side).spring.gained(down).si()));
    let apart = (springs.sum::<f64>() / (figure.rate * down).si()).ln().abs();
    apart <= GOES_SDS * figure.relative_sd.hypot(LEAF_RATE_SD)
}

/// Whether the heights of a state say anything of the springs: where the rear went the wrong way, or stood on its stops, they do not.
pub(super) fn is_weighed(survey: &Survey, two_states: &RateVerdict, state: LoadState) -> bool {
    let springs_alone = matches!(two_states, RateVerdict::Measured(_) | RateVerdict::TooWeak { .. });
    match state {
        LoadState::Empty => true,
        LoadState::Loaded => springs_alone,
        LoadState::Further(_) => springs_alone && !on_its_stops(survey, state) && aboard_in(survey, state).is_some(),
    }
}

/// On which axles leaves rub on each other: at the rear unless somebody said that it rests on something else, in front where somebody
/// said that it rests on leaves.
fn leaf_friction(survey: &Survey) -> impl Iterator<Item = LeafFriction> {
    let share = if survey.seen.dry_leaves { DRY_LEAF_FRICTION } else { LEAF_FRICTION };
    let rear = rear_axles(survey).iter().filter(|_| survey.vehicle.rests_on_leaves()).map(move |axle| (*axle, share));
    let in_front = survey.vehicle.springs.front == Some(SpringKind::Leaf) && !survey.vehicle.class.is_trailer();
    let front = in_front.then_some((FRONT, LEAF_FRICTION));
    rear.chain(front).map(|(axle, share)| LeafFriction { axle: axle.to_owned(), share, relative_sd: FRICTION_SD })
}

/// How a state was brought to rest.
fn rest(manner: Manner) -> Rest {
    match manner {
        Manner::AsItStood => Rest::AsItStood,
        Manner::Rolled => Rest::RolledAndBounced,
        Manner::PressedDown => Rest::PressedDown,
        Manner::Lifted => Rest::Lifted,
    }
}

/// How far leaf friction may hold an axle where it stands, as one standard deviation of what its springs carry.
pub(super) fn friction_share_sd(survey: &Survey, axle: &str, measured: Option<LeafFriction>, manner: Manner) -> f64 {
    let friction = measured.or_else(|| leaf_friction(survey).find(|friction| friction.axle == axle));
    friction.map_or(0.0, |friction| rest(manner).spread() * friction.sd())
}

/// Whether a state beside the first two was read with the stops touching: its height says nothing of the springs alone.
pub(super) fn on_its_stops(survey: &Survey, state: LoadState) -> bool {
    survey.gap(state).is_some_and(|gap| gap < inches(TOUCHING_IN))
}

fn measured_state(survey: &Survey, state: LoadState, rear: Option<Uncertain<Length>>, misread: Option<Misread>) -> MeasuredState {
    let aboard = aboard_in(survey, state);
    // What is aboard in it is not known: then nothing that was read in it can be set against a load.
    let rear = rear.filter(|_| aboard.is_some());
    let (state_aboard, load_doubts) = aboard.unwrap_or_else(|| (State::with_loads("", Vec::new()), Vec::new()));
    let as_told = |read: Uncertain<Length>, gap: bool| match misread == Some(Misread { state, gap }) {
        true => Uncertain::new(read.value, Length::hypot(read.sd, inches(MISREAD_IN))),
        false => read,
    };
    let gap = gap_reading(survey, state).filter(|_| rear.is_some());
    let gap = gap.map(|(mark, height)| Measurement::Height { mark, height: as_told(height, true) });
    let rear = rear.zip(end_mark(survey, End::Rear));
    let rear = rear.map(|(height, mark)| Measurement::Height { mark, height: as_told(height, false) });
    // Beside a rear that says nothing of its springs, the loaded front has nothing to go with.
    let front = end_mark(survey, End::Front).zip(survey.height_by_tape(End::Front, state)).filter(|_| rear.is_some());
    let front = front.map(|(mark, height)| Measurement::Height { mark, height });
    let readings = rear.into_iter().chain(front).chain(gap).collect();
    // Heights and clearances of one axle settle together.
    let settling = ReadingPrecision::shop_tape().settling;
    MeasuredState { state: state_aboard, load_doubts, settling, rest: rest(survey.manner(state)), readings }
}

/// The clearance at the stops of a rear axle, which leaves the tyres out: with the heights from the ground it tells the one from the
/// other. Only where it was read both empty and loaded, and clear.
pub(super) fn gap_reading(survey: &Survey, state: LoadState) -> Option<(TapeMark, Uncertain<Length>)> {
    let [axle] = rear_axles(survey) else { return None };
    let clear = |state| survey.gap(state).is_some_and(|gap| gap > inches(TOUCHING_IN));
    if !LoadState::BOTH.into_iter().all(clear) {
        return None;
    }
    let mark = TapeMark::Gap { axle: (*axle).to_owned(), element: BUMP_STOP.to_owned() };
    Some((mark, survey.middle_gap_by_tape(state)?))
}

/// What is aboard in a state, and how well that is known; `None` where it is not.
pub(super) fn aboard_in(survey: &Survey, state: LoadState) -> Option<(State, Vec<LoadDoubt>)> {
    match (state, survey.further(state).map(|further| &further.load)) {
        (LoadState::Empty, _) => Some((State::with_loads("empty", Vec::new()), Vec::new())),
        (LoadState::Loaded, _) => Some(aboard(survey, &survey.axle_loads())),
        (LoadState::Further(_), Some(FurtherLoad::Put(put))) => {
            let alone = Survey { load: Some(put.clone()), ..survey.clone() };
            Some(aboard(&alone, &alone.axle_loads()))
        }
        (LoadState::Further(_), Some(FurtherLoad::Over { state: under, more })) if survey.precedes(*under, state) => {
            let (mut state, mut doubts) = aboard_in(survey, *under)?;
            if let Some((weight, behind_rear_axle)) = more {
                state.loads.push(Load::at(*weight, survey.vehicle.wheelbase + *behind_rear_axle));
                doubts.push(LoadDoubt { weight: scale_sd(), position: place_sd() });
            }
            Some((state, doubts))
        }
        (LoadState::Further(_), _) => None,
    }
}

/// The load as one weight where the axles say it sits, and how well that is known.
pub(super) fn aboard(survey: &Survey, loads: &AxleLoads) -> (State, Vec<LoadDoubt>) {
    let wheelbase = survey.vehicle.wheelbase;
    let (load, doubt) = match &survey.load {
        Some(LoadPut::Placed { weight, behind_rear_axle }) => {
            (Load::at(*weight, wheelbase + *behind_rear_axle), LoadDoubt { weight: scale_sd(), position: place_sd() })
        }
        // Where the axles were not weighed, each thing is as sure as its own weight and place; otherwise the scale speaks.
        Some(LoadPut::Planned { items, .. }) if survey.load_is_as_planned() => {
            let loads = items.iter().map(|item| placed(survey, item)).collect();
            let doubts = items.iter().map(|item| LoadDoubt { weight: item.weight_sd(), position: place_sd() }).collect();
            return (coupled(survey, State::with_loads("loaded", loads)), doubts);
        }
        _ => {
            let rear = loads.change.rear;
            let (rear, rear_sd) = rear.map_or((newtons(0.0), newtons(0.0)), |change| (change.value, change.sd));
            let front = loads.change.front.map_or(newtons(0.0), |change| change.value);
            let weight = front + rear;
            // Where the axles together weigh nothing more, what the rear gained is all that can be told.
            if weight > newtons(0.0) {
                let lever = wheelbase / weight;
                (Load::at(weight, rear * lever), LoadDoubt { weight: newtons(0.0), position: rear_sd * lever })
            } else {
                (Load::at(newtons(rear.si().max(0.0)), wheelbase), LoadDoubt { weight: rear_sd, position: metres(0.0) })
            }
        }
    };
    (coupled(survey, State::with_loads("loaded", vec![load])), vec![doubt])
}

/// What tows a trailer holds its coupler where it was read.
fn coupled(survey: &Survey, mut state: State) -> State {
    if survey.vehicle.class.is_trailer() {
        state.coupler_rise = survey.drop(End::Front).map_or(metres(0.0), |drop| -drop.value);
    }
    state
}

/// A thing of the load plan where the solver counts from.
pub(super) fn placed(survey: &Survey, item: &Item) -> Load {
    let position = survey.vehicle.wheelbase + item.behind_rear_axle;
    Load { lateral: item.lateral, ..Load::at(item.weight, position) }
}
