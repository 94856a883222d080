//! The survey as a vehicle for the stance solver, left and right alike, with what was read of it: empty is the kerb state.

use crate::survey::{
    ASSUMED_RATE_SD, ASSUMED_TYRE_SD, AxleLoads, End, FurtherLoad, Item, LoadPut, LoadState, Manner, SpringKind, Survey, Tandem,
    place_sd, scale_sd,
};
use crate::verdict::{RateFigure, RateVerdict};
use wise_badger_mechanics::correction::{Axles, BUMP_STOP, Site};
use wise_badger_mechanics::identification::{
    Doubt, Doubtful, Experiment, LeafFriction, LoadDoubt, MeasuredState, Measurement, Rest, TapeMark,
};
use wise_badger_mechanics::pack::{LEAF_FRICTION, LEAF_RATE_SD};
use wise_badger_mechanics::side::{Side, Sides};
use wise_badger_mechanics::stance::{
    Axle, AxleKind, BodyPoint, Change, Corner, Coupler, Element, ElementKind, Equaliser, Load, MainSpring, Mount, SpringStage,
    State, StopCurve, Vehicle,
};
use wise_badger_mechanics::tape::ReadingPrecision;
use wise_badger_mechanics::uncertain::Uncertain;
use wise_badger_mechanics::units::{
    Force, InShopUnits, Length, SpringRate, inches, metres, newton_metres_per_radian, newtons, newtons_per_metre, radians,
};

pub(super) const FRONT: &str = "front";
const REAR: &str = "rear";
/// The axles of a trailer, as many of them as it has.
const TRAILER_AXLES: [&str; 3] = ["rear, first", "rear, second", "rear, third"];
/// Doubt about a rate of which only the readings are to speak.
const ANY_RATE_SD: f64 = 3.0;
/// Further apart than so many standard deviations tape and leaves do not go together.
const GOES_SDS: f64 = 3.0;
/// Under so much there is no telling a clear stop from a touching one.
const TOUCHING_IN: f64 = 1.0 / 16.0;
/// Standard deviation of what one rear spring is stiffer than its fellow, as a share of it (our own working rule).
const SIDE_TO_SIDE_SD: f64 = 0.10;
/// Arms of a trailer's rockers and how far they turn: alike, so that their length has no part in the answer.
const ROCKER_ARM_IN: f64 = 3.0;
const ROCKER_STOP_RAD: f64 = 0.5;

/// The names of the axles that a correction goes on.
pub(super) fn rear_axles(survey: &Survey) -> &'static [&'static str] {
    match survey.vehicle.class.is_trailer() {
        true => TRAILER_AXLES.get(..usize::from(survey.vehicle.class.rear_axles())).unwrap_or_default(),
        false => &[REAR],
    }
}

/// The names of the axles that a site is; none where the vehicle has no such axle.
pub(super) fn site_axles(survey: &Survey, site: Site) -> &'static [&'static str] {
    let rear = rear_axles(survey);
    let trailer = survey.vehicle.class.is_trailer();
    match site.axles {
        Axles::Rear => rear,
        Axles::Front if trailer => &[],
        Axles::Front => &[FRONT],
        Axles::OneOfRear(number) => {
            let place = usize::from(number).checked_sub(1).filter(|_| trailer);
            place.and_then(|place| rear.get(place..=place)).unwrap_or_default()
        }
    }
}

/// What stands for the height that was read at an end; a trailer's coupler stands where it is held.
pub(super) fn end_mark(survey: &Survey, end: End) -> Option<TapeMark> {
    match (end, survey.vehicle.class.is_trailer()) {
        (End::Front, true) => None,
        // The frame over the middle between the axles, which are themselves free to share the load.
        (End::Rear, true) => Some(TapeMark::Point(REAR.to_owned())),
        (End::Front, false) => Some(TapeMark::axle(FRONT, survey.datum)),
        (End::Rear, false) => Some(TapeMark::axle(REAR, survey.datum)),
    }
}

/// What stands for the height of one side of an end.
pub(super) fn side_mark(survey: &Survey, end: End, side: Side) -> Option<TapeMark> {
    match (end, survey.vehicle.class.is_trailer()) {
        (End::Front, true) => None,
        (End::Rear, true) => Some(TapeMark::Point(frame_point(side).to_owned())),
        (End::Front, false) => Some(TapeMark::corner(FRONT, side, survey.datum)),
        (End::Rear, false) => Some(TapeMark::corner(REAR, side, survey.datum)),
    }
}

/// The place on a trailer's frame that is read on a side.
fn frame_point(side: Side) -> &'static str {
    match side {
        Side::Left => "rear, left of the frame",
        Side::Right => "rear, right of the frame",
    }
}

/// A vehicle as stiff in roll as one with a heavy bar in front: twice what its front springs give (common practice). `None` on a
/// trailer, which rolls on its own springs alone.
pub(super) fn stiffer_in_roll(survey: &Survey) -> Option<Change> {
    let base = spring_base();
    let springs = newton_metres_per_radian(survey.vehicle.assumptions().front_rate.si() * base.si().powi(2) / 4.0);
    (!survey.vehicle.class.is_trailer()).then(|| Change::AntiRoll { axle: FRONT.to_owned(), stiffness: 2.0 * springs })
}

/// What an account says beside the springs' one rate.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub(super) struct Telling {
    /// A second stage of the rear springs.
    pub(super) stage: Option<StageTold>,
    /// Rear stops that push back.
    pub(super) stop: Option<StopTold>,
    /// A reading that was misread.
    pub(super) misread: Option<Misread>,
}

/// A second stage as an account has it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(super) struct StageTold {
    /// Travel from empty at which it joins in.
    pub(super) from: Length,
    /// Standard deviation of it, as a share.
    pub(super) from_sd: f64,
    /// What it adds, as a multiple of the first rate.
    pub(super) adds: f64,
}

/// Stops as an account has them.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(super) struct StopTold {
    /// Clearance empty.
    pub(super) gap: Length,
    /// Standard deviation of it, as a share.
    pub(super) gap_sd: f64,
}

/// What of the rear was misread.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Misread {
    /// In which state.
    pub state: LoadState,
    /// Whether it is the clearance at the stops; otherwise the height.
    pub gap: bool,
}

/// How far a misread reading may be off, as one standard deviation (our own working rule).
const MISREAD_IN: f64 = 0.5;
/// How hard a rear stop is beside the springs of its axle, and the standard deviation of that (our own working rule, held against what
/// load rubbers of the trade push).
const STOP_TIMES_RATE: f64 = 3.0;
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

/// The vehicle at empty weight, its rear springs as assumed for the class, or as read on the bench, and as an account tells of them.
///
/// A stop of which only the clearance was read bears with no force of its own: it is there to keep count of its clearance, and a
/// prediction in which it would bear is not given.
fn vehicle(survey: &Survey, loads: &AxleLoads, telling: &Telling) -> Vehicle {
    let assumed = survey.vehicle.assumptions();
    let rear_axles = f64::from(assumed.rear_axles);
    let one_spring = assumed.rear_rate / (2.0 * rear_axles);
    let carried = survey.vehicle.on_one_spring(loads.empty.rear);
    let springs = match &survey.vehicle.rear_pack {
        // What was read of the packs leaf by leaf tells their stages better than the class does.
        Some(packs) => Sides::from_fn(|side| packs.get(side).main_spring(carried)),
        None => Sides::both(MainSpring {
            stages: telling
                .stage
                .map(|stage| SpringStage { at_travel: stage.from, added_rate: stage.adds * one_spring })
                .into_iter()
                .collect(),
            ..MainSpring::linear(one_spring)
        }),
    };
    let told_stop = |end| telling.stop.filter(|_| end == End::Rear);
    let stop_rate = STOP_TIMES_RATE * one_spring;
    let corners = |end: End, springs: &Sides<MainSpring>| {
        let gaps = &survey.stop_gap.empty;
        let gaps = if end == End::Front { gaps.front } else { gaps.rear };
        Sides::from_fn(|side| Corner {
            spring: springs.get(side).clone(),
            elements: match (told_stop(end), gaps.get(side)) {
                (Some(told), gap) => vec![stop(gap.unwrap_or(told.gap), stop_rate)],
                (None, gap) => gap.map(|gap| stop(gap, newtons_per_metre(0.0))).into_iter().collect(),
            },
        })
    };
    let rear = |name: &str, position| ModelAxle {
        name: name.to_owned(),
        position,
        kerb: loads.empty.rear / rear_axles,
        unsprung: assumed.rear_unsprung / rear_axles,
        tyre_rate: assumed.rear_tyre_rate,
        track: survey.vehicle.rear_track.unwrap_or_else(usual_track),
        corners: corners(End::Rear, &springs),
    };
    let wheelbase = survey.vehicle.wheelbase;
    match survey.vehicle.tandem() {
        Some(tandem) => trailer(survey, loads, tandem, rear),
        None => {
            let front = ModelAxle {
                name: FRONT.to_owned(),
                position: metres(0.0),
                kerb: loads.empty.front,
                unsprung: newtons(0.0),
                tyre_rate: assumed.front_tyre_rate,
                track: usual_track(),
                corners: corners(End::Front, &Sides::both(MainSpring::linear(assumed.front_rate / 2.0))),
            };
            standing(vec![front.axle(), rear(REAR, wheelbase).axle()])
        }
    }
}

fn trailer(survey: &Survey, loads: &AxleLoads, tandem: Tandem, rear: impl Fn(&str, Length) -> ModelAxle) -> Vehicle {
    let middle = survey.vehicle.wheelbase;
    let names = rear_axles(survey);
    let last = f64::from(survey.vehicle.class.rear_axles()) - 1.0;
    let place = |index: u8| middle + (f64::from(index) - last / 2.0) * tandem.spread;
    let axles = (0_u8..).zip(names).map(|(index, name)| rear(name, place(index)));
    let rocker = |ahead: &str, behind: &str, side| Equaliser {
        side,
        axles: [ahead, behind].map(str::to_owned),
        front_arm: inches(ROCKER_ARM_IN),
        rear_arm: inches(ROCKER_ARM_IN),
        stop: radians(ROCKER_STOP_RAD),
    };
    // One on either side between each axle and the next.
    let between = names.iter().zip(names.iter().skip(1));
    let rockers = between.flat_map(|(ahead, behind)| Side::BOTH.map(|side| rocker(ahead, behind, side))).collect();
    let over_the_axles = |side: Side| BodyPoint {
        name: frame_point(side).to_owned(),
        position: middle,
        lateral: side.sign() * frame_half_width(),
    };
    Vehicle {
        coupler: Some(Coupler { position: metres(0.0), lateral: metres(0.0), kerb_load: loads.empty.front }),
        equalisers: if tandem.equalised { rockers } else { Vec::new() },
        points: vec![
            BodyPoint { name: REAR.to_owned(), position: middle, lateral: metres(0.0) },
            over_the_axles(Side::Left),
            over_the_axles(Side::Right),
        ],
        ..standing(axles.map(ModelAxle::axle).collect())
    }
}

fn standing(axles: Vec<Axle>) -> Vehicle {
    Vehicle { axles, points: Vec::new(), sprung_cg_height: inches(20.0), coupler: None, equalisers: Vec::new() }
}

/// Between the wheels where it was not measured (common practice); it matters to the lean alone.
fn usual_track() -> Length {
    inches(66.0)
}

/// Between the springs of an axle (common practice); it matters to the lean alone.
fn spring_base() -> Length {
    inches(42.0)
}

/// From the middle of a trailer to the outside of its frame (common practice); it matters to the lean alone.
fn frame_half_width() -> Length {
    inches(30.0)
}

/// What an axle of the model differs in from the others.
struct ModelAxle {
    name: String,
    position: Length,
    kerb: Force,
    unsprung: Force,
    tyre_rate: SpringRate,
    track: Length,
    corners: Sides<Corner>,
}

impl ModelAxle {
    fn axle(self) -> Axle {
        Axle {
            name: self.name,
            position: self.position,
            kind: AxleKind::Solid,
            // Left and right are alike, so that spring base and roll heights have no part in the answer.
            track: self.track,
            spring_base: spring_base(),
            unsprung_weight: self.unsprung,
            kerb_wheel_loads: Sides::both(self.kerb / 2.0),
            tyre_rate: self.tyre_rate,
            anti_roll: newton_metres_per_radian(0.0),
            roll_centre_height: inches(20.0),
            hub_height: inches(15.0),
            arch_lateral: None,
            corners: self.corners,
        }
    }
}

fn stop(gap: Length, rate: SpringRate) -> Element {
    let curve = StopCurve::Linear(rate);
    Element {
        name: BUMP_STOP.to_owned(),
        lateral: None,
        motion_ratio: 1.0,
        mount: Mount::Frame,
        kind: ElementKind::Bump { gap, extension: metres(0.0), curve },
    }
}
