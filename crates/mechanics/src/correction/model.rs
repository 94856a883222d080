//! The survey as a vehicle for the stance solver, left and right alike, with what was read of it: empty is the kerb state.

use crate::identification::{Doubt, Doubtful, Experiment, LoadDoubt, Mark, MeasuredState, Reading};
use crate::side::{Side, Sides};
use crate::stance::{
    Axle, AxleKind, BodyPoint, Corner, Coupler, Element, ElementKind, Equaliser, Load, MainSpring, Mount, SpringStage, State,
    StopCurve, Vehicle,
};
use crate::survey::{ASSUMED_RATE_SD, ASSUMED_TYRE_SD, AxleLoads, End, LoadPut, LoadState, Survey, Tandem, place_sd, scale_sd};
use crate::uncertain::Uncertain;
use crate::units::{
    Force, InShopUnits, Length, SpringRate, inches, metres, newton_metres_per_radian, newtons, newtons_per_metre, radians,
};
use crate::verdict::RateVerdict;

pub(super) const STOP: &str = "bump stop";
const FRONT: &str = "front";
const REAR: &str = "rear";
/// The axles of a tandem trailer.
const TANDEM: [&str; 2] = ["rear, first", "rear, second"];
/// Doubt about a rate of which only the readings are to speak.
const ANY_RATE_SD: f64 = 3.0;
/// Arms of a trailer's rockers and how far they turn: alike, so that their length has no part in the answer.
const ROCKER_ARM_IN: f64 = 3.0;
const ROCKER_STOP_RAD: f64 = 0.5;

/// The names of the axles that a correction goes on.
pub(super) fn rear_axles(survey: &Survey) -> &'static [&'static str] {
    if survey.vehicle.class.is_trailer() { &TANDEM } else { &[REAR] }
}

/// What stands for the rear height that was read.
pub(super) fn rear_mark(survey: &Survey) -> Mark {
    match survey.vehicle.class.is_trailer() {
        // The frame over the middle between the axles, which are themselves free to share the load.
        true => Mark::Point(REAR.to_owned()),
        false => Mark::axle(REAR, survey.datum),
    }
}

/// Everything that was read at the rear, and what is in doubt about it.
pub(super) fn experiment(survey: &Survey, loads: &AxleLoads, rate: &RateVerdict) -> Experiment {
    let measured = rate.measured();
    let rear_axles = || rear_axles(survey).iter().map(|axle| (*axle).to_owned()).collect::<Vec<_>>();
    let doubt = |what, relative_sd| Doubt { what, axles: rear_axles(), relative_sd };
    // A measured rate takes the place of the one assumed for the class.
    let mut doubts = vec![doubt(Doubtful::SpringRate, if measured.is_some() { ANY_RATE_SD } else { ASSUMED_RATE_SD })];
    if survey.datum.includes_tyre() {
        doubts.push(doubt(Doubtful::TyreRate, ASSUMED_TYRE_SD));
    }
    if measured.is_some_and(|figure| figure.stages.is_some()) {
        doubts.push(doubt(Doubtful::StageTravel, ASSUMED_RATE_SD));
    }
    // Where the rear went the wrong way, or stood on its stops, the loaded height says nothing of the springs.
    let springs_alone = matches!(rate, RateVerdict::Measured(_) | RateVerdict::TooWeak { .. });
    let read = |state: LoadState| survey.height(End::Rear, state).filter(|_| state == LoadState::Empty || springs_alone);
    let states = LoadState::BOTH.into_iter().map(|state| measured_state(survey, loads, state, read(state)));
    Experiment { vehicle: vehicle(survey, loads, rate), doubts, states: states.collect() }
}

fn measured_state(survey: &Survey, loads: &AxleLoads, state: LoadState, rear: Option<Uncertain<Length>>) -> MeasuredState {
    let (state_aboard, load_doubts) = match state {
        LoadState::Empty => (State::with_loads("empty", Vec::new()), Vec::new()),
        LoadState::Loaded => aboard(survey, loads),
    };
    let mark = rear_mark(survey);
    let readings = rear.map(|height| Reading::Height { mark, height });
    MeasuredState { state: state_aboard, load_doubts, settling: metres(0.0), readings: readings.into_iter().collect() }
}

/// The load as one weight where the axles say it sits, and how well that is known.
fn aboard(survey: &Survey, loads: &AxleLoads) -> (State, Vec<LoadDoubt>) {
    let wheelbase = survey.vehicle.wheelbase;
    let (load, doubt) = match &survey.load {
        Some(LoadPut::Placed { weight, behind_rear_axle }) => {
            (Load::at(*weight, wheelbase + *behind_rear_axle), LoadDoubt { weight: scale_sd(), position: place_sd() })
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
    let mut state = State::with_loads("loaded", vec![load]);
    // What tows the trailer holds its coupler where it was read.
    if survey.vehicle.class.is_trailer() {
        state.coupler_rise = survey.drop(End::Front).map_or(metres(0.0), |drop| -drop.value);
    }
    (state, vec![doubt])
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
    let rear_corner = Corner {
        spring: MainSpring {
            stages: stages
                .map(|stages| SpringStage { at_travel: stages.from, added_rate: stages.added / (2.0 * rear_axles) })
                .into_iter()
                .collect(),
            ..MainSpring::linear(rear_rate / (2.0 * rear_axles))
        },
        elements: survey.stop_gap.empty.map(stop).into_iter().collect(),
    };
    let rear = |name: &str, position| ModelAxle {
        name: name.to_owned(),
        position,
        kerb: loads.empty.rear / rear_axles,
        unsprung: assumed.rear_unsprung / rear_axles,
        tyre_rate: assumed.rear_tyre_rate,
        corner: rear_corner.clone(),
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
                corner: Corner { spring: MainSpring::linear(assumed.front_rate / 2.0), elements: Vec::new() },
            };
            standing(vec![front.axle(), rear(REAR, wheelbase).axle()])
        }
    }
}

fn trailer(survey: &Survey, loads: &AxleLoads, tandem: Tandem, rear: impl Fn(&str, Length) -> ModelAxle) -> Vehicle {
    let middle = survey.vehicle.wheelbase;
    let [first, second] = TANDEM;
    let axles = [rear(first, middle - tandem.spread / 2.0), rear(second, middle + tandem.spread / 2.0)];
    let rocker = |side| Equaliser {
        side,
        axles: TANDEM.map(str::to_owned),
        front_arm: inches(ROCKER_ARM_IN),
        rear_arm: inches(ROCKER_ARM_IN),
        stop: radians(ROCKER_STOP_RAD),
    };
    Vehicle {
        coupler: Some(Coupler { position: metres(0.0), lateral: metres(0.0), kerb_load: loads.empty.front }),
        equalisers: if tandem.equalised { Side::BOTH.map(rocker).to_vec() } else { Vec::new() },
        points: vec![BodyPoint { name: REAR.to_owned(), position: middle, lateral: metres(0.0) }],
        ..standing(axles.into_iter().map(ModelAxle::axle).collect())
    }
}

fn standing(axles: Vec<Axle>) -> Vehicle {
    Vehicle { axles, points: Vec::new(), sprung_cg_height: inches(20.0), coupler: None, equalisers: Vec::new() }
}

/// What an axle of the model differs in from the others.
struct ModelAxle {
    name: String,
    position: Length,
    kerb: Force,
    unsprung: Force,
    tyre_rate: SpringRate,
    corner: Corner,
}

impl ModelAxle {
    fn axle(self) -> Axle {
        Axle {
            name: self.name,
            position: self.position,
            kind: AxleKind::Solid,
            // Left and right are alike, so that track, spring base and roll heights have no part in the answer.
            track: inches(66.0),
            spring_base: inches(42.0),
            unsprung_weight: self.unsprung,
            kerb_wheel_loads: Sides::both(self.kerb / 2.0),
            tyre_rate: self.tyre_rate,
            anti_roll: newton_metres_per_radian(0.0),
            roll_centre_height: inches(20.0),
            hub_height: inches(15.0),
            arch_lateral: None,
            corners: Sides::both(self.corner),
        }
    }
}

fn stop(gap: Length) -> Element {
    let curve = StopCurve::Linear(newtons_per_metre(0.0));
    Element {
        name: STOP.to_owned(),
        lateral: None,
        motion_ratio: 1.0,
        mount: Mount::Frame,
        kind: ElementKind::Bump { gap, extension: metres(0.0), curve },
    }
}
