//! The survey as a vehicle for the stance solver: left and right alike, empty as the kerb state.

use crate::side::Sides;
use crate::stance::{
    Axle, AxleKind, Corner, Element, ElementKind, Load, MainSpring, Mount, SpringStage, State, StopCurve, Vehicle,
};
use crate::survey::{AxleEnd, AxleLoads, Survey};
use crate::units::{
    Force, InShopUnits, Length, SpringRate, inches, metres, newton_metres_per_radian, newtons, newtons_per_metre,
};

pub(super) const FRONT: &str = "front";
pub(super) const REAR: &str = "rear";
pub(super) const STOP: &str = "bump stop";

/// What the model does not take from the survey as it stands: the figures a prediction is tried with.
#[derive(Debug, Clone, Copy)]
pub(super) struct Figures {
    /// Both rear springs together, from empty on.
    pub(super) rear_rate: SpringRate,
    /// Where their second stage bears and what it adds, where there is one.
    pub(super) rear_stage: Option<(Length, SpringRate)>,
    /// One rear wheel end.
    pub(super) rear_tyre_rate: SpringRate,
    /// What the load adds to the rear axle.
    pub(super) rear_change: Force,
    /// What it adds to the front axle.
    pub(super) front_change: Force,
}

/// The vehicle at empty weight.
///
/// The stop bears with no force of its own: it is there to keep count of its clearance, and a
/// prediction in which it would bear is not given.
pub(super) fn vehicle(survey: &Survey, loads: &AxleLoads, figures: &Figures, keep_stops: bool) -> Vehicle {
    let assumed = survey.vehicle.assumptions();
    let stop = survey.stop_gap.empty.filter(|_| keep_stops).map(|gap| Element {
        name: STOP.to_owned(),
        lateral: None,
        motion_ratio: 1.0,
        mount: Mount::Frame,
        kind: ElementKind::Bump { gap, extension: metres(0.0), curve: StopCurve::Linear(newtons_per_metre(0.0)) },
    });
    let rear_stages = figures.rear_stage.map(|(at_travel, added)| SpringStage { at_travel, added_rate: added / 2.0 });
    let axle = |end: AxleEnd, rate: SpringRate, tyre_rate: SpringRate, elements: Vec<Element>| Axle {
        name: if end == AxleEnd::Front { FRONT } else { REAR }.to_owned(),
        position: if end == AxleEnd::Front { metres(0.0) } else { survey.vehicle.wheelbase },
        kind: AxleKind::Solid,
        // Left and right are alike, so that track, spring base and roll heights have no part in the answer.
        track: inches(66.0),
        spring_base: inches(42.0),
        unsprung_weight: if end == AxleEnd::Front { newtons(0.0) } else { assumed.rear_unsprung },
        kerb_wheel_loads: Sides::both(*loads.empty.get(end) / 2.0),
        tyre_rate,
        anti_roll: newton_metres_per_radian(0.0),
        roll_centre_height: inches(20.0),
        hub_height: inches(15.0),
        arch_lateral: None,
        corners: Sides::both(Corner {
            spring: MainSpring {
                stages: rear_stages.filter(|_| end == AxleEnd::Rear).into_iter().collect(),
                ..MainSpring::linear(rate / 2.0)
            },
            elements,
        }),
    };
    Vehicle {
        axles: vec![
            axle(AxleEnd::Front, assumed.front_rate, assumed.front_tyre_rate, Vec::new()),
            axle(AxleEnd::Rear, figures.rear_rate, figures.rear_tyre_rate, stop.into_iter().collect()),
        ],
        points: Vec::new(),
        sprung_cg_height: inches(20.0),
        coupler: None,
        equalisers: Vec::new(),
    }
}

/// The load as one weight where the axles say it sits, so that weighed axles need no place of their own.
pub(super) fn loaded_state(wheelbase: Length, figures: &Figures) -> State {
    let weight = figures.front_change + figures.rear_change;
    let place = metres(figures.rear_change.si() * wheelbase.si() / weight.si());
    State::with_loads("loaded", vec![Load::at(weight, place)])
}
