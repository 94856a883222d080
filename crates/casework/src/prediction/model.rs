//! The survey as a vehicle for the stance solver, left and right alike, with what was read of it: empty is the kerb state.

use crate::survey::{
    ASSUMED_RATE_SD, ASSUMED_TYRE_SD, AxleLoads, End, FurtherLoad, Item, LoadPut, LoadState, Survey, Tandem, place_sd, scale_sd,
};
use crate::verdict::RateVerdict;
use wise_badger_mechanics::correction::{Axles, BUMP_STOP, Site};
use wise_badger_mechanics::identification::{Doubt, Doubtful, Experiment, LoadDoubt, MeasuredState, Measurement, TapeMark};
use wise_badger_mechanics::pack::{LEAF_FRICTION, LEAF_RATE_SD};
use wise_badger_mechanics::side::{Side, Sides};
use wise_badger_mechanics::stance::{
    Axle, AxleKind, BodyPoint, Change, Corner, Coupler, Element, ElementKind, Equaliser, Load, MainSpring, Mount, SpringStage,
    State, StopCurve, Vehicle,
};
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

/// Everything that was read, and what is in doubt about it.
pub(super) fn experiment(survey: &Survey, loads: &AxleLoads, rate: &RateVerdict) -> Experiment {
    let measured = rate.measured();
    let rear_axles = || rear_axles(survey).iter().map(|axle| (*axle).to_owned()).collect::<Vec<_>>();
    let doubt = |what, relative_sd| Doubt { what, axles: rear_axles(), relative_sd };
    // A measured rate takes the place of the one assumed for the class.
    let pack = survey.vehicle.rear_pack.is_some();
    let believed = if pack { LEAF_RATE_SD } else { ASSUMED_RATE_SD };
    let mut doubts = vec![doubt(Doubtful::SpringRate, if measured.is_some() { ANY_RATE_SD } else { believed })];
    if survey.datum.includes_tyre() {
        doubts.push(doubt(Doubtful::TyreRate, ASSUMED_TYRE_SD));
    }
    // It moves no axle as a whole, only one side of it against the other.
    let both_sides = |state| End::BOTH.into_iter().any(|end| survey.half_lean_sd(end, state).is_some());
    if survey.states().any(both_sides) {
        doubts.push(doubt(Doubtful::RightOverLeft, SIDE_TO_SIDE_SD));
    }
    if let Some(stage) = survey.second_stage().filter(|_| !pack && measured.is_some_and(|figure| figure.stages.is_some())) {
        doubts.push(doubt(Doubtful::StageTravel, stage.relative_sd));
    }
    // The front of a trailer stands where what tows it holds it.
    if !survey.vehicle.class.is_trailer() {
        let front = |what, relative_sd| Doubt { what, axles: vec![FRONT.to_owned()], relative_sd };
        doubts.push(front(Doubtful::SpringRate, ASSUMED_RATE_SD));
        if survey.datum.includes_tyre() {
            doubts.push(front(Doubtful::TyreRate, ASSUMED_TYRE_SD));
        }
    }
    // Where the rear went the wrong way, or stood on its stops, the loaded height says nothing of the springs.
    let springs_alone = matches!(rate, RateVerdict::Measured(_) | RateVerdict::TooWeak { .. });
    let read = |state: LoadState| {
        let on_springs = match state {
            LoadState::Empty => true,
            LoadState::Loaded => springs_alone,
            LoadState::Further(_) => springs_alone && !on_its_stops(survey, state),
        };
        survey.height(End::Rear, state).filter(|_| on_springs)
    };
    let states = survey.states().map(|state| measured_state(survey, state, read(state)));
    Experiment { vehicle: vehicle(survey, loads, rate), doubts, states: states.collect() }
}

/// Whether a state beside the first two was read with the stops touching: its height says nothing of the springs alone.
pub(super) fn on_its_stops(survey: &Survey, state: LoadState) -> bool {
    survey.gap(state).is_some_and(|gap| gap < inches(1.0 / 16.0))
}

fn measured_state(survey: &Survey, state: LoadState, rear: Option<Uncertain<Length>>) -> MeasuredState {
    let aboard = aboard_in(survey, state);
    // What is aboard in it is not known: then nothing that was read in it can be set against a load.
    let rear = rear.filter(|_| aboard.is_some());
    let (state_aboard, load_doubts) = aboard.unwrap_or_else(|| (State::with_loads("", Vec::new()), Vec::new()));
    let settling = if survey.manner(state).is_held_by_friction() { held_by_friction(survey, state) } else { metres(0.0) };
    let rear = rear.zip(end_mark(survey, End::Rear)).map(|(height, mark)| Measurement::Height { mark, height });
    // Beside a rear that says nothing of its springs, the loaded front has nothing to go with.
    let front = end_mark(survey, End::Front).zip(survey.height(End::Front, state)).filter(|_| rear.is_some());
    let front = front.map(|(mark, height)| Measurement::Height { mark, height });
    let gap = gap_reading(survey, state).filter(|_| rear.is_some());
    let readings = rear.into_iter().chain(front).chain(gap).collect();
    MeasuredState { state: state_aboard, load_doubts, settling, readings }
}

/// The clearance at the stops of a rear axle, which leaves the tyres out: with the heights from the ground it tells the one from the
/// other. Only where it was read in both states, and goes with the heights.
fn gap_reading(survey: &Survey, state: LoadState) -> Option<Measurement> {
    let [axle] = rear_axles(survey) else { return None };
    let rate = RateVerdict::of_two_states(survey);
    rate.measured()?.by_gap.filter(|gap| gap.agrees)?;
    let mark = TapeMark::Gap { axle: (*axle).to_owned(), element: BUMP_STOP.to_owned() };
    Some(Measurement::Height { mark, height: survey.middle_gap(state)? })
}

/// How far leaf friction may hold an axle from where it would come to rest, as one standard deviation.
fn held_by_friction(survey: &Survey, state: LoadState) -> Length {
    let carried = survey
        .axle_loads_in(state)
        .map_or(newtons(0.0), |loads| loads.empty.rear + loads.change.rear.map_or(newtons(0.0), |change| change.value));
    metres(LEAF_FRICTION * carried.si().max(0.0) / survey.vehicle.assumptions().rear_rate.si())
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

/// The vehicle at empty weight, its rear springs as measured or as assumed for the class.
///
/// The stop bears with no force of its own: it is there to keep count of its clearance, and a
/// prediction in which it would bear is not given.
fn vehicle(survey: &Survey, loads: &AxleLoads, rate: &RateVerdict) -> Vehicle {
    let assumed = survey.vehicle.assumptions();
    let measured = rate.measured();
    let stages = measured.and_then(|figure| figure.stages);
    let rear_rate = stages.map(|stages| stages.first).or(measured.map(|figure| figure.rate)).unwrap_or(assumed.rear_rate);
    let rear_axles = f64::from(assumed.rear_axles);
    let carried = survey.vehicle.on_one_spring(loads.empty.rear);
    let springs = match &survey.vehicle.rear_pack {
        // What was read of the packs leaf by leaf tells their stages better than the class does.
        Some(packs) => Sides::from_fn(|side| packs.get(side).main_spring(carried)),
        None => Sides::both(MainSpring {
            stages: stages
                .map(|stages| SpringStage { at_travel: stages.from, added_rate: stages.added / (2.0 * rear_axles) })
                .into_iter()
                .collect(),
            ..MainSpring::linear(rear_rate / (2.0 * rear_axles))
        }),
    };
    let corners = |end: End, springs: &Sides<MainSpring>| {
        let gaps = &survey.stop_gap.empty;
        let gaps = if end == End::Front { gaps.front } else { gaps.rear };
        Sides::from_fn(|side| Corner {
            spring: springs.get(side).clone(),
            elements: gaps.get(side).map(stop).into_iter().collect(),
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

fn stop(gap: Length) -> Element {
    let curve = StopCurve::Linear(newtons_per_metre(0.0));
    Element {
        name: BUMP_STOP.to_owned(),
        lateral: None,
        motion_ratio: 1.0,
        mount: Mount::Frame,
        kind: ElementKind::Bump { gap, extension: metres(0.0), curve },
    }
}
