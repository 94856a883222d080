//! The numeric form of a vehicle in a state. Raw SI `f64` inside: metres, newtons, radians.

use super::element::{Element, Mount};
use super::state::{Altered, AxleAlteration, State};
use super::vehicle::{Axle, AxleKind, Vehicle};
use crate::side::{Side, Sides};
use crate::units::InShopUnits;

pub(super) const HEAVE: usize = 0;
pub(super) const PITCH: usize = 1;
pub(super) const ROLL: usize = 2;

/// The unknown that is the height of one wheel.
pub(super) fn wheel(axle: usize, side: Side) -> usize {
    3 + 2 * axle + usize::from(side == Side::Right)
}

/// One thing that stores energy: a stroke linear in the unknowns, and a force that depends on it.
pub(super) struct Member {
    /// (unknown, change of stroke per change of the unknown); unused places have coefficient 0.
    pub(super) row: [(usize, f64); 5],
    /// Stroke at `q = 0`.
    pub(super) offset: f64,
    law: Law,
    /// Axle whose ride frequency it takes part in.
    pub(super) ride_axle: Option<usize>,
    /// Element of the corner, for reporting its gap.
    pub(super) element: Option<(usize, Side, usize)>,
}

enum Law {
    Spring { kerb_force: f64, rate: f64, captive: bool, stages: Vec<(f64, f64)> },
    Element(Element),
    Tyre { rate: f64 },
    AntiRoll { stiffness: f64 },
}

impl Member {
    pub(super) fn stroke(&self, q: &[f64]) -> f64 {
        self.offset
            + self.row.iter().map(|(unknown, coefficient)| coefficient * q.get(*unknown).copied().unwrap_or(0.0)).sum::<f64>()
    }

    /// Whether this is the tyre under the wheel with that unknown.
    pub(super) fn is_tyre_of(&self, unknown: usize) -> bool {
        matches!(self.law, Law::Tyre { .. }) && self.row.first().is_some_and(|(first, _)| *first == unknown)
    }

    /// Force and tangent rate along the stroke.
    pub(super) fn force(&self, stroke: f64) -> (f64, f64) {
        match &self.law {
            Law::Spring { kerb_force, rate, captive, stages } => {
                let (mut force, mut tangent) = (kerb_force + rate * stroke, *rate);
                for (at, added) in stages {
                    // A stage that bears at kerb already is part of the kerb force.
                    force += added * ((stroke - at).max(0.0) - (-at).max(0.0));
                    tangent += if stroke > *at { *added } else { 0.0 };
                }
                if !captive && force <= 0.0 { (0.0, 0.0) } else { (force, tangent) }
            }
            Law::Element(element) => element.force(stroke),
            Law::Tyre { rate } if stroke > 0.0 => (rate * stroke, *rate),
            Law::Tyre { .. } => (0.0, 0.0),
            Law::AntiRoll { stiffness } => (stiffness * stroke, *stiffness),
        }
    }
}

/// Everything the iteration needs: members, and the weights that do not depend on the state of travel.
pub(super) struct Assembly {
    pub(super) unknowns: usize,
    pub(super) members: Vec<Member>,
    /// Gradient of the potential of all constant forces.
    pub(super) constant: Vec<f64>,
    /// Moment that gravity adds per radian of roll, N·m/rad.
    pub(super) roll_gravity: f64,
    /// Whether the weights can stand on the axles at all: each axle's load by lever arms.
    pub(super) stands: bool,
}

impl Assembly {
    pub(super) fn new(base: &Vehicle, altered: &Altered, state: &State) -> Self {
        let unknowns = 3 + 2 * base.axles.len();
        let mut assembly = Assembly {
            unknowns,
            members: Vec::with_capacity(8 * base.axles.len()),
            constant: vec![0.0; unknowns],
            roll_gravity: 0.0,
            stands: true,
        };
        for (index, ((kerb, axle), alteration)) in base.axles.iter().zip(&altered.vehicle.axles).zip(&altered.axles).enumerate() {
            assembly.add_axle(index, kerb, axle, alteration);
        }
        assembly.balance_kerb(base);
        assembly.add_weights(base, state);
        assembly
    }

    fn add_axle(&mut self, index: usize, kerb: &Axle, axle: &Axle, alteration: &AxleAlteration) {
        for (side, (spacer_m, added_force_n)) in
            Side::BOTH.into_iter().zip(alteration.spacer_m.iter().zip(&alteration.added_force_n))
        {
            let kerb_spring = &kerb.corners.get(side).spring;
            let ratio = kerb_spring.motion_ratio;
            let fitted_force: f64 = kerb_helpers(kerb, side).map(|(_, force)| force).sum();
            let kerb_force = (kerb.kerb_spring_force(side) - fitted_force) / ratio;
            self.members.push(Member {
                row: stroke_row(index, axle, side, axle.spring_lateral(side), ratio),
                offset: *spacer_m,
                law: Law::Spring {
                    kerb_force: kerb_force + added_force_n / ratio,
                    rate: kerb_spring.rate.si(),
                    captive: kerb_spring.captive,
                    stages: kerb_spring.stages.iter().map(|stage| (stage.at_travel.si(), stage.added_rate.si())).collect(),
                },
                ride_axle: Some(index),
                element: None,
            });
            for (place, element) in axle.corners.get(side).elements.iter().enumerate() {
                let lateral = element_lateral(axle, side, element);
                self.members.push(Member {
                    row: stroke_row(index, axle, side, lateral, element.motion_ratio),
                    offset: if element.mount == Mount::Pack { *spacer_m } else { 0.0 },
                    law: Law::Element(element.clone()),
                    ride_axle: Some(index),
                    element: Some((index, side, place)),
                });
            }
            // F = k·max(0, W_kerb/k_kerb + ΔR − z).
            let kerb_compression = kerb.kerb_wheel_loads.get(side).si() / kerb.tyre_rate.si();
            self.members.push(Member {
                row: row(&[(wheel(index, side), -1.0)]),
                offset: kerb_compression + alteration.radius_change_m,
                law: Law::Tyre { rate: axle.tyre_rate.si() },
                ride_axle: None,
                element: None,
            });
        }
        let per_metre = 1.0 / axle.track.si();
        self.members.push(Member {
            row: row(&[(ROLL, 1.0), (wheel(index, Side::Left), per_metre), (wheel(index, Side::Right), -per_metre)]),
            offset: 0.0,
            law: Law::AntiRoll { stiffness: axle.anti_roll.value },
            ride_axle: None,
            element: None,
        });
    }

    /// Sets the constant forces to those that the kerb state balances: springs and tyres as measured, before any change.
    fn balance_kerb(&mut self, base: &Vehicle) {
        for (index, axle) in base.axles.iter().enumerate() {
            for side in Side::BOTH {
                let mut spring = axle.kerb_spring_force(side);
                for (element, force) in kerb_helpers(axle, side) {
                    spring -= force;
                    self.subtract(&stroke_row(index, axle, side, element_lateral(axle, side, element), 1.0), force);
                }
                self.subtract(&stroke_row(index, axle, side, axle.spring_lateral(side), 1.0), spring);
                self.subtract(&row(&[(wheel(index, side), -1.0)]), axle.kerb_wheel_loads.get(side).si());
            }
        }
    }

    fn subtract(&mut self, row: &[(usize, f64); 5], force: f64) {
        for (unknown, coefficient) in row {
            if let Some(constant) = self.constant.get_mut(*unknown) {
                *constant -= coefficient * force;
            }
        }
    }

    fn add(&mut self, unknown: usize, amount: f64) {
        if let Some(constant) = self.constant.get_mut(unknown) {
            *constant += amount;
        }
    }

    fn add_weights(&mut self, base: &Vehicle, state: &State) {
        let (Some(first), Some(last)) = (base.axles.first(), base.axles.last()) else { return };
        let wheelbase = last.position.si() - first.position.si();
        // Roll centre height varies evenly from the first axle to the last.
        let roll_centre = |x: f64| {
            first.roll_centre_height.si()
                + (last.roll_centre_height.si() - first.roll_centre_height.si()) * (x - first.position.si()) / wheelbase
        };
        let sprung: f64 = base.axles.iter().map(|axle| axle.kerb_load().si() - axle.unsprung_weight.si()).sum();
        let sprung_moment: f64 =
            base.axles.iter().map(|axle| (axle.kerb_load().si() - axle.unsprung_weight.si()) * axle.position.si()).sum();
        let sprung_place = if sprung > 0.0 { sprung_moment / sprung } else { 0.0 };
        let mut heeling = sprung * (base.sprung_cg_height.si() - roll_centre(sprung_place));
        let (mut weight, mut moment) = (0.0, -state.pitch_couple.value);
        for load in &state.loads {
            let (newtons, x) = (load.weight.si(), load.position.si());
            self.add(HEAVE, newtons);
            self.add(PITCH, newtons * x);
            self.add(ROLL, newtons * load.lateral.si());
            weight += newtons;
            moment += newtons * x;
            if let Some(height) = load.height {
                heeling += newtons * (height.si() - roll_centre(x));
            }
        }
        self.add(PITCH, -state.pitch_couple.value);
        self.roll_gravity = heeling;
        // In units of g, so that weights stand for masses.
        let pushed = state.lateral_acceleration_g;
        self.add(ROLL, -pushed * heeling);
        for (index, axle) in base.axles.iter().enumerate() {
            let kerb_sprung = axle.kerb_load().si() - axle.unsprung_weight.si();
            // Lever arms: what the loads add to this axle, shared between the first and the last.
            let share = if index == 0 {
                (weight * last.position.si() - moment) / wheelbase
            } else if index + 1 == base.axles.len() {
                (moment - weight * first.position.si()) / wheelbase
            } else {
                0.0
            };
            let arm = (kerb_sprung + share) * axle.roll_centre_height.si() + axle.unsprung_weight.si() * axle.hub_height.si();
            for side in Side::BOTH {
                self.add(wheel(index, side), -side.sign() * pushed * arm / axle.track.si());
            }
            if base.axles.len() == 2 && axle.kerb_load().si() + share < 0.0 {
                self.stands = false;
            }
        }
    }
}

/// The elements that carry part of the kerb weight, each with its share at the wheel.
fn kerb_helpers(axle: &Axle, side: Side) -> impl Iterator<Item = (&Element, f64)> {
    let elements = &axle.corners.get(side).elements;
    elements
        .iter()
        .filter(|element| element.already_fitted())
        .map(|element| (element, element.motion_ratio * element.force(0.0).0))
}

fn element_lateral(axle: &Axle, side: Side, element: &Element) -> f64 {
    element.lateral.map_or(axle.spring_lateral(side), |lateral| side.sign() * lateral.si().abs())
}

/// Stroke of something at a lateral place on an axle, through a motion ratio.
fn stroke_row(index: usize, axle: &Axle, side: Side, lateral: f64, ratio: f64) -> [(usize, f64); 5] {
    let shares = match axle.kind {
        AxleKind::Solid => {
            let lean = lateral / axle.track.si();
            Sides { left: 0.5 - lean, right: 0.5 + lean }
        }
        AxleKind::Independent => Sides::from_fn(|each| if each == side { 1.0 } else { 0.0 }),
    };
    row(&[
        (HEAVE, -ratio),
        (PITCH, -ratio * axle.position.si()),
        (ROLL, -ratio * lateral),
        (wheel(index, Side::Left), ratio * shares.left),
        (wheel(index, Side::Right), ratio * shares.right),
    ])
}

fn row(entries: &[(usize, f64)]) -> [(usize, f64); 5] {
    let mut row = [(HEAVE, 0.0); 5];
    for (place, entry) in row.iter_mut().zip(entries) {
        *place = *entry;
    }
    row
}
