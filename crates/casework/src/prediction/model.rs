//! The survey as a vehicle for the stance solver, left and right alike: empty is the kerb state.

use super::telling::Telling;
use crate::survey::{AxleLoads, End, Survey, Tandem};
use wise_badger_mechanics::correction::{Axles, BUMP_STOP, Site};
use wise_badger_mechanics::identification::TapeMark;
use wise_badger_mechanics::side::{Side, Sides};
use wise_badger_mechanics::stance::{
    Axle, AxleKind, BodyPoint, Change, Corner, Coupler, Element, ElementKind, Equaliser, MainSpring, Mount, SpringStage,
    StopCurve, Vehicle,
};
use wise_badger_mechanics::units::{
    Force, InShopUnits, Length, SpringRate, inches, metres, newton_metres_per_radian, newtons, newtons_per_metre, radians,
};

pub(super) const FRONT: &str = "front";
const REAR: &str = "rear";
/// The axles of a trailer, as many of them as it has.
const TRAILER_AXLES: [&str; 3] = ["rear, first", "rear, second", "rear, third"];
/// Arms of a trailer's rockers and how far they turn: alike, so that their length has no part in the answer.
const ROCKER_ARM_IN: f64 = 3.0;
const ROCKER_STOP_RAD: f64 = 0.5;
/// How hard a rear stop is beside the springs of its axle (our own working rule, held against what load rubbers of the trade push).
const STOP_TIMES_RATE: f64 = 3.0;

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

/// The vehicle at empty weight, its rear springs as assumed for the class, or as read on the bench, and as an account tells of them.
///
/// A stop of which only the clearance was read bears with no force of its own: it is there to keep count of its clearance, and a
/// prediction in which it would bear is not given.
pub(super) fn vehicle(survey: &Survey, loads: &AxleLoads, telling: &Telling) -> Vehicle {
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
