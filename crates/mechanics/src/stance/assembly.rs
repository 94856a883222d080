//! The numeric form of a vehicle in a state. Raw SI `f64` inside: metres, newtons, radians.

use std::ops::Range;
use std::sync::Arc;

use super::air::{Bag, Gas, GaugePressure};
use super::changes::{ChangedAxle, ChangedCorner, ChangedElement};
use super::element::{AirBag, Element, ElementKind, Mount, StopCurve};
use super::row::Row;
use super::unknowns::{PITCH, ROLL, rocker, wheel};
use super::vehicle::{Axle, AxleKind, Equaliser, SpringStage, StanceError, Vehicle};
use crate::side::{Side, Sides};
use crate::units::InShopUnits;

/// Stiffness of a rocker's stop, N·m/rad.
const ROCKER_STOP: f64 = 2e5;

/// A stroke linear in the unknowns, and the things along it that store energy: a spring, and the stop and the helper that
/// stand where it does.
pub(super) struct Line {
    pub(super) row: Row,
    /// Axle whose ride frequency it takes part in, and its motion ratio.
    pub(super) ride: Option<(usize, f64)>,
    /// Where its members are among all.
    members: Range<usize>,
}

/// One thing that stores energy: its force depends on the stroke of its line alone.
struct Member<'a> {
    line: usize,
    /// What its own stroke is ahead of the line's: a block, a spacer, a tyre's kerb compression.
    offset: f64,
    law: Law<'a>,
}

enum Law<'a> {
    Spring { kerb_force: f64, rate: f64, captive: bool, stages: &'a [SpringStage] },
    Stop { clearance: f64, curve: &'a StopCurve },
    Helper { clearance: f64, rate: f64 },
    Tyre { rate: f64 },
    AntiRoll { stiffness: f64 },
    RockerStop { at: f64 },
}

/// Bags that hold one gas: the force of each depends on the strokes of all.
pub(super) struct Chamber {
    pub(super) gas: Gas,
    pub(super) mounts: Vec<BagMount>,
}

/// One bag of a chamber.
pub(super) struct BagMount {
    pub(super) row: Row,
    pub(super) bag: Bag,
    pub(super) ride: (usize, f64),
}

/// The clearance of an element, for reporting.
pub(super) struct Clearance {
    pub(super) axle: usize,
    pub(super) side: Side,
    pub(super) element: Arc<str>,
    pub(super) row: Row,
    pub(super) clearance: f64,
}

/// What is solved: everything but the loads, which may differ from one solve to the next.
#[derive(Default)]
pub(super) struct Assembly<'a> {
    pub(super) unknowns: usize,
    /// Whether the coupler decides the body's rise, which then is no unknown.
    pub(super) heave_is_given: bool,
    pub(super) lines: Vec<Line>,
    /// Line by line.
    members: Vec<Member<'a>>,
    pub(super) chambers: Vec<Chamber>,
    pub(super) clearances: Vec<Clearance>,
    /// What each wheel's main spring does to the gradient, per newton at the wheel.
    pub(super) springs: Vec<Sides<Row>>,
    /// Each wheel's tyre among the lines.
    pub(super) tyres: Vec<Sides<usize>>,
    /// Gradient of the potential of the kerb weights: what springs and tyres balance at `q = 0`.
    pub(super) kerb: Vec<f64>,
    /// Names of elements, each kept once.
    element_names: Vec<Arc<str>>,
}

impl Member<'_> {
    /// Force and tangent rate along the line's stroke.
    #[inline(always)]
    fn force(&self, stroke: f64) -> (f64, f64) {
        let stroke = stroke + self.offset;
        match &self.law {
            Law::Spring { kerb_force, rate, captive, stages } => {
                let (mut force, mut tangent) = (kerb_force + rate * stroke, *rate);
                for stage in *stages {
                    let (at, added) = (stage.at_travel.si(), stage.added_rate.si());
                    // A stage that bears at kerb already is part of the kerb force.
                    force += added * ((stroke - at).max(0.0) - (-at).max(0.0));
                    tangent += if stroke > at { added } else { 0.0 };
                }
                if !captive && force <= 0.0 { (0.0, 0.0) } else { (force, tangent) }
            }
            Law::Stop { clearance, curve } => curve.force(stroke - clearance),
            Law::Helper { clearance, rate } if stroke > *clearance => (rate * (stroke - clearance), *rate),
            Law::Tyre { rate } if stroke > 0.0 => (rate * stroke, *rate),
            Law::Helper { .. } | Law::Tyre { .. } => (0.0, 0.0),
            Law::AntiRoll { stiffness } => (stiffness * stroke, *stiffness),
            Law::RockerStop { at } if stroke > *at => (ROCKER_STOP * (stroke - at), ROCKER_STOP),
            Law::RockerStop { at } if stroke < -at => (ROCKER_STOP * (stroke + at), ROCKER_STOP),
            Law::RockerStop { .. } => (0.0, 0.0),
        }
    }
}

impl Chamber {
    /// Pressure with every bag where the unknowns put it.
    pub(super) fn pressure(&self, q: &[f64], coupler_rise: f64) -> GaugePressure {
        let taken_up = self.mounts.iter().map(|mount| mount.bag.taken_up(mount.row.stroke(q, coupler_rise))).sum();
        self.gas.pressure(taken_up)
    }

    /// The pressure and its slope were the regulator shut off where the unknowns put every bag.
    pub(super) fn shut_in(&self, q: &[f64], coupler_rise: f64) -> GaugePressure {
        let taken_up = self.mounts.iter().map(|mount| mount.bag.taken_up(mount.row.stroke(q, coupler_rise))).sum();
        self.gas.shut_in(taken_up)
    }

    /// Force that one bag gains per stroke of another: `A_i·A_j·dp/dv`, and `p·dA/du` of its own.
    pub(super) fn rate(&self, pressure: GaugePressure, place: usize, stroke: f64, other: usize, other_stroke: f64) -> f64 {
        let (Some(mount), Some(across)) = (self.mounts.get(place), self.mounts.get(other)) else { return 0.0 };
        let own = if place == other { pressure.value * mount.bag.area_slope(stroke) } else { 0.0 };
        mount.bag.area(stroke) * across.bag.area(other_stroke) * pressure.slope + own
    }
}

impl<'a> Assembly<'a> {
    pub(super) fn new(vehicle: &'a Vehicle, axles: &[ChangedAxle<'a>]) -> Result<Self, StanceError> {
        let mut assembly = Assembly {
            lines: Vec::with_capacity(6 * axles.len()),
            members: Vec::with_capacity(8 * axles.len()),
            clearances: Vec::with_capacity(4 * axles.len()),
            springs: Vec::with_capacity(axles.len()),
            tyres: Vec::with_capacity(axles.len()),
            ..Assembly::default()
        };
        assembly.lay_out(vehicle, axles)?;
        Ok(assembly)
    }

    /// Lays out a vehicle in the room of the one that was laid out before. After an error it is neither.
    pub(super) fn lay_out(&mut self, vehicle: &'a Vehicle, axles: &[ChangedAxle<'a>]) -> Result<(), StanceError> {
        self.unknowns = 3 + 2 * axles.len() + vehicle.equalisers.len();
        self.heave_is_given = vehicle.coupler.is_some();
        self.lines.clear();
        self.members.clear();
        self.chambers.clear();
        self.clearances.clear();
        self.springs.clear();
        self.tyres.clear();
        self.kerb.clear();
        self.kerb.resize(self.unknowns, 0.0);
        let rows = Rows::new(vehicle);
        for (index, axle) in axles.iter().enumerate() {
            self.add_axle(&rows, index, axle)?;
        }
        for (index, equaliser) in vehicle.equalisers.iter().enumerate() {
            let row = Row::new(0.0, &[(rocker(axles.len(), index), 1.0)]);
            self.add_member(row, None, Law::RockerStop { at: equaliser.stop.value });
        }
        self.bring_members_to_their_lines();
        Ok(())
    }

    /// The name of an element, as every clearance of that name carries it.
    fn element_name(&mut self, name: &str) -> Arc<str> {
        if let Some(there) = self.element_names.iter().find(|there| &***there == name) {
            return Arc::clone(there);
        }
        let new: Arc<str> = name.into();
        self.element_names.push(Arc::clone(&new));
        new
    }

    /// A member, on a line of its own or on one that is there already.
    fn add_member(&mut self, row: Row, ride: Option<(usize, f64)>, law: Law<'a>) -> usize {
        let (row, offset) = row.split_offset();
        let there = self.lines.iter().position(|line| line.row == row && line.ride == ride);
        let line = there.unwrap_or_else(|| {
            self.lines.push(Line { row, ride, members: 0..0 });
            self.lines.len() - 1
        });
        self.members.push(Member { line, offset, law });
        line
    }

    fn bring_members_to_their_lines(&mut self) {
        self.members.sort_by_key(|member| member.line);
        let mut end = 0;
        for (index, line) in self.lines.iter_mut().enumerate() {
            let count = self.members.iter().skip(end).take_while(|member| member.line == index).count();
            line.members = end..end + count;
            end += count;
        }
    }

    /// Force and tangent rate of everything on a line at some unknowns.
    #[inline(always)]
    pub(super) fn force(&self, line: &Line, q: &[f64], coupler_rise: f64) -> (f64, f64) {
        let stroke = line.row.stroke(q, coupler_rise);
        let members = self.members.get(line.members.clone()).unwrap_or_default().iter();
        members.map(|member| member.force(stroke)).fold((0.0, 0.0), |sum, each| (sum.0 + each.0, sum.1 + each.1))
    }

    fn add_axle(&mut self, rows: &Rows<'_>, index: usize, axle: &ChangedAxle<'a>) -> Result<(), StanceError> {
        let kerb = axle.kerb;
        self.springs.push(Sides::from_fn(|side| rows.stroke(index, side, kerb.spring_lateral(side), 1.0, true)));
        let mut tyres = Sides::both(0);
        let mut line = None;
        for side in Side::BOTH {
            let corner = axle.corners.get(side);
            self.add_spring(rows, index, kerb, side, corner);
            for there in &corner.elements {
                let packed = there.element.mount == Mount::Pack;
                let lateral = element_lateral(kerb, side, there.element);
                let row = rows.stroke(index, side, lateral, there.element.motion_ratio, packed);
                // What goes with the spring goes as far as the wheel does, in its own measure: a stop that the spring's own way closes at
                // half the wheel's, or the other way round, is moved by as much of it.
                let shift = corner.spacer / kerb.corners.get(side).spring.motion_ratio * there.element.motion_ratio;
                let row = if packed { row.raised(shift) } else { row };
                self.add_element((index, side), there, row, &mut line)?;
            }
            // F = k·max(0, W_kerb/k_kerb + ΔR − z).
            let kerb_load = kerb.kerb_wheel_loads.get(side).si();
            let row = Row::new(kerb_load / kerb.tyre_rate.si() + axle.radius_gained, &[(wheel(index, side), -1.0)]);
            *tyres.get_mut(side) = self.add_member(row, None, Law::Tyre { rate: axle.tyre_rate });
            self.balance(&row, kerb_load);
        }
        self.tyres.push(tyres);
        if axle.anti_roll > 0.0 {
            let per_metre = 1.0 / kerb.track.si();
            let lean = [(ROLL, 1.0), (wheel(index, Side::Left), per_metre), (wheel(index, Side::Right), -per_metre)];
            self.add_member(Row::new(0.0, &lean), None, Law::AntiRoll { stiffness: axle.anti_roll });
        }
        Ok(())
    }

    /// An element; bags of one axle on a shared line join the chamber of the first, which `line` names.
    fn add_element(
        &mut self,
        (axle, side): (usize, Side),
        there: &ChangedElement<'a>,
        row: Row,
        line: &mut Option<(usize, &'a AirBag)>,
    ) -> Result<(), StanceError> {
        let element = there.element;
        let ride = (axle, element.motion_ratio);
        let clearance = element.clearance_m() + there.gap_opened;
        let law = match &element.kind {
            ElementKind::Bump { curve, .. } => Law::Stop { clearance, curve },
            ElementKind::Helper { rate, .. } => Law::Helper { clearance, rate: rate.si() },
            ElementKind::Air(bag) => {
                let mount = BagMount { row, bag: Bag::new(bag), ride };
                let Some((chamber, first)) = line.filter(|_| bag.shares_line) else {
                    if bag.shares_line {
                        *line = Some((self.chambers.len(), bag));
                    }
                    self.chambers.push(Chamber { gas: Gas::new(bag), mounts: vec![mount] });
                    return Ok(());
                };
                let Some(chamber) = self.chambers.get_mut(chamber).filter(|_| first.is_filled_like(bag)) else {
                    return Err(StanceError::LineNotAlike(element.name.clone()));
                };
                chamber.gas.join(bag);
                chamber.mounts.push(mount);
                return Ok(());
            }
        };
        self.add_member(row, Some(ride), law);
        let name = self.element_name(&element.name);
        self.clearances.push(Clearance { axle, side, element: name, row, clearance });
        Ok(())
    }

    /// The main spring; what it and the elements already fitted carry at kerb is what the weights are balanced with.
    fn add_spring(&mut self, rows: &Rows<'_>, index: usize, kerb: &'a Axle, side: Side, corner: &ChangedCorner<'a>) {
        let spring = &kerb.corners.get(side).spring;
        let mut carried = kerb.kerb_spring_force(side);
        for (element, force) in kerb_helpers(kerb, side) {
            carried -= force;
            let packed = element.mount == Mount::Pack;
            self.balance(&rows.stroke(index, side, element_lateral(kerb, side, element), 1.0, packed), force);
        }
        let lateral = kerb.spring_lateral(side);
        self.balance(&rows.stroke(index, side, lateral, 1.0, true), carried);
        let ratio = spring.motion_ratio;
        let law = Law::Spring {
            kerb_force: (carried + corner.added_force) / ratio,
            rate: spring.rate.si(),
            captive: spring.captive,
            stages: &spring.stages,
        };
        let row = rows.stroke(index, side, lateral, ratio, true).raised(corner.spacer);
        for other in &corner.other_springs {
            let law = Law::Spring { kerb_force: other.force.si(), rate: other.rate.si(), captive: true, stages: &other.stages };
            self.add_member(row, Some((index, ratio)), law);
        }
        self.add_member(row, Some((index, ratio)), law);
    }

    fn balance(&mut self, row: &Row, force: f64) {
        row.add_to(&mut self.kerb, -force);
    }
}

/// The elements that carry part of the kerb weight, each with its share at the wheel.
fn kerb_helpers(axle: &Axle, side: Side) -> impl Iterator<Item = (&Element, f64)> {
    let line = Side::BOTH.into_iter().flat_map(|side| &axle.corners.get(side).elements);
    let elements = axle.corners.get(side).elements.iter().filter(|element| element.already_fitted());
    elements.map(move |element| {
        let force = match &element.kind {
            ElementKind::Helper { gap, rate, .. } => rate.si() * (-gap.si()).max(0.0),
            ElementKind::Bump { .. } => 0.0,
            ElementKind::Air(bag) => {
                let (mut gas, mut taken_up) = (Gas::new(bag), Bag::new(bag).taken_up(0.0));
                if bag.shares_line {
                    let others = line.clone().filter(|other| !std::ptr::eq(*other, element));
                    for other in others {
                        if let ElementKind::Air(other) = &other.kind
                            && other.shares_line
                        {
                            gas.join(other);
                            taken_up += Bag::new(other).taken_up(0.0);
                        }
                    }
                }
                gas.pressure(taken_up).value * Bag::new(bag).area(0.0)
            }
        };
        (element, element.motion_ratio * force)
    })
}

fn element_lateral(axle: &Axle, side: Side, element: &Element) -> f64 {
    element.lateral.map_or(axle.spring_lateral(side), |lateral| side.sign() * lateral.si().abs())
}

/// Makes strokes out of places, with the body's heave given by the coupler where there is one.
struct Rows<'a> {
    vehicle: &'a Vehicle,
    /// Where the body is held: pitch and roll turn about it. The origin when it floats.
    held: Option<(f64, f64)>,
}

impl<'a> Rows<'a> {
    fn new(vehicle: &'a Vehicle) -> Self {
        Rows { vehicle, held: vehicle.coupler.map(|coupler| (coupler.position.si(), coupler.lateral.si())) }
    }

    /// `u = ratio·(z_axle(y) − (z + xθ + yφ))`, and the rocker's part for what hangs on the spring.
    fn stroke(&self, index: usize, side: Side, lateral: f64, ratio: f64, on_spring: bool) -> Row {
        let Some(axle) = self.vehicle.axles.get(index) else { return Row::new(0.0, &[]) };
        let shares = match axle.kind {
            AxleKind::Solid => {
                let lean = lateral / axle.track.si();
                Sides { left: 0.5 - lean, right: 0.5 + lean }
            }
            AxleKind::Independent => Sides::from_fn(|each| if each == side { 1.0 } else { 0.0 }),
        };
        let (x, y) = self.held.unwrap_or((0.0, 0.0));
        let mut row = Row::riding(-ratio, self.held.is_none());
        row.push(PITCH, -ratio * (axle.position.si() - x));
        row.push(ROLL, -ratio * (lateral - y));
        row.push(wheel(index, Side::Left), ratio * shares.left);
        row.push(wheel(index, Side::Right), ratio * shares.right);
        for (place, equaliser) in self.vehicle.equalisers.iter().enumerate().filter(|_| on_spring) {
            if let Some(arm) = rocker_arm(equaliser, side, &axle.name) {
                row.push(rocker(self.vehicle.axles.len(), place), ratio * arm);
            }
        }
        row
    }
}

fn rocker_arm(equaliser: &Equaliser, side: Side, axle: &str) -> Option<f64> {
    let [front, rear] = &equaliser.axles;
    match side == equaliser.side {
        true if front == axle => Some(-0.5 * equaliser.front_arm.si()),
        true if rear == axle => Some(0.5 * equaliser.rear_arm.si()),
        _ => None,
    }
}
