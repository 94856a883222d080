//! What a part of the shelf does, on a vehicle that every part of the shelf is told by.

use std::collections::BTreeMap;

use wise_badger_mechanics::correction::{Axles, Correction, FigureRole, KindRow, Needs, Site, Takes};
use wise_badger_mechanics::side::Sides;
use wise_badger_mechanics::stance::{
    Axle, AxleKind, Change, Corner, Load, MainSpring, Outcome, SpringStage, State, Vehicle, settle,
};
use wise_badger_mechanics::units::{Force, InShopUnits, Length, SpringRate, inches, newton_metres_per_radian, newtons, pounds};

use crate::entry::{EndWord, FigureEntry, ShelfPart, Typed, UnitWord};
use crate::survey::{RearWheels, VehicleClass};

const WHEELBASE_IN: f64 = 145.0;
/// How much is put over the axle at the most.
const MOST_LB: f64 = 1_600.0;
/// How many times stiffer the pack is past its overload leaf (our own working value: what the parts of that leaf are told by).
const PAST_THE_OVERLOAD_LEAF: f64 = 2.0;
const STEPS: u8 = 16;

/// Where an axle comes to stand under loads over it, from where it stands empty with nothing fitted: as it is, and with the part.
#[derive(Debug, Clone, PartialEq)]
pub struct Effect {
    /// On the front axle, or on the rear.
    pub end: EndWord,
    /// The load over the axle, and how much higher the body over it stands than empty, without and with the part.
    pub points: Vec<(Force, Length, Length)>,
}

impl Effect {
    /// By how much the part lifts it empty, and with the most that is put on.
    pub fn lifts(&self) -> Option<(Length, (Force, Length))> {
        let rise = |point: &(Force, Length, Length)| point.2 - point.1;
        let last = self.points.last()?;
        Some((rise(self.points.first()?), (last.0, rise(last))))
    }
}

/// What a part does on a sound half-ton pickup of the usual weights and rates, of whose own springs, blocks and the like it takes the
/// place as they are. `None` where it carries nothing, or that vehicle would not stand with it.
pub fn effect(part: &ShelfPart) -> Option<Effect> {
    let end = part.end.unwrap_or(if part.kind.ends.have_a_rear() { EndWord::Rear } else { EndWord::Front });
    let axles = if end == EndWord::Front { Axles::Front } else { Axles::Rear };
    let correction = part.on(Site { axles, side: None }, usual_of_the_vehicle(part)).ok()?.correction()?;
    let vehicle = half_ton(part.kind);
    let changes = correction.changes(&vehicle, &[end.word()]);
    if changes.is_empty() {
        return None;
    }
    let at = if end == EndWord::Front { 0.0 } else { WHEELBASE_IN };
    let stands = |load: Force, changes: &[Change]| {
        let state = State::with_loads("loaded", vec![Load::at(load, inches(at))]).changed(changes.to_vec());
        match settle(&vehicle, &state) {
            Ok(Outcome::Settled(stance)) => Some(stance.axle(end.word())?.ground_to_arch_change.left),
            _ => None,
        }
    };
    let point = |step: u8| {
        let load = pounds(MOST_LB * f64::from(step) / f64::from(STEPS));
        Some((load, stands(load, &[])?, stands(load, &changes)?))
    };
    let points: Option<Vec<_>> = (0..=STEPS).map(point).collect();
    let points = points.filter(|points| is_inside(&correction, points))?;
    let moves = |(_, without, with): &(Force, Length, Length)| (*with - *without).abs() > inches(1e-3);
    points.iter().any(moves).then_some(Effect { end, points })
}

/// Whether the part is nowhere pressed solid.
fn is_inside(correction: &Correction, points: &[(Force, Length, Length)]) -> bool {
    correction.solid_after().is_none_or(|most| points.iter().all(|(_, _, with)| -*with < most))
}

/// Figures of the vehicle that change nothing by themselves: its own part is as new, and like the one that takes its place where
/// nothing else is usual.
fn usual_of_the_vehicle(part: &ShelfPart) -> BTreeMap<String, FigureEntry> {
    let of_the_vehicle = part.kind.figures.iter().filter(|figure| figure.role == FigureRole::OfTheVehicle);
    let as_set = part.kind.figures.iter().filter(|figure| figure.role == FigureRole::AsSet && part.best(figure.name).is_none());
    let usual = |name: &str| -> Option<f64> {
        let own = |name: &str| match part.best(name)? {
            FigureEntry::Typed(typed) => Some(typed.si),
            _ => None,
        };
        Some(match name {
            "standing_height" => own("new_height")? - inches(4.0).si(),
            "pivot_to_strut" => inches(10.0).si(),
            "pivot_to_wheel" => inches(15.0).si(),
            "front_half" | "rear_half" => inches(26.0).si(),
            "old_length" => own("new_length").map_or(inches(4.0).si(), |new| new.min(inches(4.0).si())),
            _ => match name.strip_prefix("old_") {
                Some("lift") => 0.0,
                Some(alike) => own(&format!("new_{alike}")).or_else(|| own(alike))?,
                None => 0.0,
            },
        })
    };
    let entry = |figure: &wise_badger_mechanics::correction::KindFigure| {
        let Takes::Within(bound) = figure.takes else { return None };
        let si = usual(figure.name)?.clamp(bound.least, bound.most);
        // What must come out is not there.
        if figure.name == "replaces" && si > 0.0 {
            return None;
        }
        Some((figure.name.to_owned(), FigureEntry::Typed(Typed { text: si.to_string(), unit: UnitWord::In, si })))
    };
    of_the_vehicle.chain(as_set).filter_map(entry).collect()
}

/// A half-ton of the usual weights and rates; with its overload leaf where the part goes onto leaves.
fn half_ton(kind: &KindRow) -> Vehicle {
    let usual = VehicleClass::HalfTonPickup.assumptions(RearWheels::Single, None);
    let on_leaves = kind.needs != Needs::Coils;
    let times = usual.second_stage_times.unwrap_or(PAST_THE_OVERLOAD_LEAF);
    let past = |at_travel| SpringStage { at_travel, added_rate: (times - 1.0) * usual.rear_rate / 2.0 };
    let stage = usual.second_stage_from.filter(|_| on_leaves).map(past);
    let axle = |name: &str, position: f64, kerb: Force, unsprung: Force, tyre_rate: SpringRate, spring: MainSpring| Axle {
        name: name.to_owned(),
        position: inches(position),
        kind: AxleKind::Solid,
        track: inches(66.0),
        spring_base: inches(42.0),
        unsprung_weight: unsprung,
        kerb_wheel_loads: Sides::both(kerb / 2.0),
        tyre_rate,
        anti_roll: newton_metres_per_radian(0.0),
        roll_centre_height: inches(20.0),
        hub_height: inches(15.0),
        arch_lateral: None,
        corners: Sides::both(Corner { spring, elements: vec![] }),
    };
    let front = MainSpring::linear(usual.front_rate / 2.0);
    let rear = MainSpring { stages: stage.into_iter().collect(), ..MainSpring::linear(usual.rear_rate / 2.0) };
    Vehicle {
        axles: vec![
            axle(EndWord::Front.word(), 0.0, usual.kerb_front, newtons(0.0), usual.front_tyre_rate, front),
            axle(EndWord::Rear.word(), WHEELBASE_IN, usual.kerb_rear, usual.rear_unsprung, usual.rear_tyre_rate, rear),
        ],
        points: vec![],
        sprung_cg_height: inches(28.0),
        coupler: None,
        equalisers: vec![],
    }
}
