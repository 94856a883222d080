//! From a vehicle and a state to where it sits.

use std::f64::consts::TAU;

use super::assembly::{Assembly, HEAVE, Member, PITCH, ROLL, wheel};
use super::newton::{Rest, minimise};
use super::outcome::{AxleStance, ElementGap, Outcome, Stance};
use super::state::{Altered, State};
use super::vehicle::{Axle, StanceError, Vehicle};
use crate::side::{Side, Sides};
use crate::units::{Force, Frequency, InShopUnits, Length, STANDARD_GRAVITY, metres, newtons, newtons_per_metre, radians};
use uom::si::frequency::hertz;

/// Finds where a vehicle sits in a state.
///
/// Minimises the potential energy of springs, stops, tyres and weights over heave, pitch, roll and
/// wheel heights. A vehicle that goes over is an answer ([`Outcome::NoEquilibrium`]), and so is a
/// wheel off the ground (its load is nought).
///
/// # Sign       see the module's page
/// # Valid      small angles; level ground; any load and change the checks let through
/// # Errors     [`StanceError`] names the quantity that has no meaning, or says that no balance was found
/// # Source     virtual work; any statics text. Lever arms and series springs check it in `tests/`
pub fn settle(vehicle: &Vehicle, state: &State) -> Result<Outcome, StanceError> {
    vehicle.check()?;
    state.check()?;
    let altered = Altered::new(vehicle, &state.changes)?;
    let assembly = Assembly::new(vehicle, &altered, state);
    Ok(match minimise(&assembly)? {
        Rest::None => Outcome::NoEquilibrium,
        Rest::At(q) => Outcome::Settled(read(&altered.vehicle, &assembly, &q)),
    })
}

fn read(vehicle: &Vehicle, assembly: &Assembly, q: &[f64]) -> Stance {
    let at = |unknown: usize| q.get(unknown).copied().unwrap_or(0.0);
    let rise = |x: f64, y: f64| at(HEAVE) + x * at(PITCH) + y * at(ROLL);
    let axles = vehicle.axles.iter().enumerate().map(|(index, axle)| read_axle(index, axle, assembly, q, &rise)).collect();
    let points =
        vehicle.points.iter().map(|point| (point.name.clone(), metres(rise(point.position.si(), point.lateral.si())))).collect();
    Stance { heave: metres(at(HEAVE)), pitch: radians(at(PITCH)), roll: radians(at(ROLL)), axles, points }
}

fn read_axle(index: usize, axle: &Axle, assembly: &Assembly, q: &[f64], rise: &dyn Fn(f64, f64) -> f64) -> AxleStance {
    let ground: Sides<Length> = Sides::from_fn(|side| metres(rise(axle.position.si(), axle.arch_lateral(side))));
    let wheel_rise = |side| q.get(wheel(index, side)).copied().unwrap_or(0.0);
    let wheel_loads = Sides::from_fn(|side| wheel_load(index, side, assembly, q));
    let gaps = assembly.members.iter().filter_map(|member| read_gap(index, axle, member, q)).collect();
    let wheel_rate: f64 = assembly
        .members
        .iter()
        .filter(|member| member.ride_axle == Some(index))
        .map(|member| {
            // The coefficient of heave is the motion ratio, which counts twice.
            let ratio = member.row.first().map_or(0.0, |(_, coefficient)| *coefficient);
            member.force(member.stroke(q)).1 * ratio * ratio
        })
        .sum();
    let sprung = wheel_loads.left.si() + wheel_loads.right.si() - axle.unsprung_weight.si();
    // f = √(k·g/W) / 2π.
    let ride_frequency = (sprung > 0.0).then(|| Frequency::new::<hertz>((wheel_rate * STANDARD_GRAVITY / sprung).sqrt() / TAU));
    AxleStance {
        name: axle.name.clone(),
        ground_to_arch_change: ground,
        hub_to_arch_change: Sides::from_fn(|side| *ground.get(side) - metres(wheel_rise(side))),
        wheel_loads,
        gaps,
        spring_rate: newtons_per_metre(wheel_rate),
        ride_frequency,
    }
}

fn wheel_load(index: usize, side: Side, assembly: &Assembly, q: &[f64]) -> Force {
    let tyre = assembly.members.iter().find(|member| member.is_tyre_of(wheel(index, side)));
    newtons(tyre.map_or(0.0, |member| member.force(member.stroke(q)).0))
}

fn read_gap(index: usize, axle: &Axle, member: &Member, q: &[f64]) -> Option<ElementGap> {
    let (_, side, place) = member.element.filter(|(of, _, _)| *of == index)?;
    let element = axle.corners.get(side).elements.get(place)?;
    let gap = element.clearance_m() - member.stroke(q);
    Some(ElementGap { side, element: element.name.clone(), gap: metres(gap) })
}
