//! A part of the shelf as it goes onto a vehicle: the vehicle's own figures filled in, and set as it may be set.

use std::collections::BTreeMap;

use wise_badger_mechanics::bound::{Bound, Dimension};
use wise_badger_mechanics::correction::{Axles, Correction, FigureRole, KindFigure, KindRow, Needs, Site, Takes};
use wise_badger_mechanics::units::{InShopUnits, Length, inches};

use crate::casework::as_known;
use crate::entry::{CorrectionEntry, FigureEntry, ShelfPart, Typed, TypedIn};
use crate::survey::{End, VehicleFacts};

/// Between what load rubbers are set clear of the axle, empty (common practice).
const LEAST_CLEARANCE_IN: f64 = 0.5;
const MOST_CLEARANCE_IN: f64 = 1.5;
/// The widest gap that a helper is set to (our own working rule).
const MOST_GAP_IN: f64 = 3.0;
/// How far springs have set of which nobody knows it (as the form of new springs begins).
const USUAL_SET_IN: f64 = 0.5;

/// A figure set to something.
#[derive(Debug, Clone, Copy)]
pub(crate) struct Setting {
    pub(crate) figure: &'static str,
    pub(crate) dimension: Dimension,
    pub(crate) si: f64,
}

/// What a figure of a kind may be.
pub(crate) fn bound_of(row: &KindRow, figure: &str) -> Option<Bound> {
    match row.figures.iter().find(|of| of.name == figure)?.takes {
        Takes::Within(bound) => Some(bound),
        _ => None,
    }
}

/// Between what a part may be set, where anything of it may: a bag by its own pressures, anything else as far as a shop sets it.
pub(crate) fn settable(part: &ShelfPart) -> Option<(&'static str, Bound)> {
    settable_of(part.kind, |name| part.best(name))
}

/// The same of a kind of part with figures of its own.
pub(crate) fn settable_of<'f>(
    kind: &KindRow,
    figure_of: impl Fn(&str) -> Option<&'f FigureEntry>,
) -> Option<(&'static str, Bound)> {
    let figure = kind.set_by_case?;
    let bound = bound_of(kind, figure)?;
    let own = |name: &str| match figure_of(name) {
        Some(FigureEntry::Typed(typed)) => Some(typed.si),
        _ => None,
    };
    let bound = match bound.dimension {
        Dimension::Pressure => Bound {
            least: own("least_pressure").unwrap_or(bound.least),
            most: own("most_pressure").unwrap_or(bound.most),
            ..bound
        },
        // A rubber is never set closer than its box says, or than rubbers are set.
        _ if figure == "clearance" => {
            let least = own(figure).unwrap_or(f64::INFINITY).min(inches(LEAST_CLEARANCE_IN).si());
            Bound { least, most: inches(MOST_CLEARANCE_IN).si(), ..bound }
        }
        _ => Bound { least: bound.least.max(0.0), most: bound.most.min(inches(MOST_GAP_IN).si()), ..bound },
    };
    Some((figure, bound))
}

/// A part of the shelf in its place, the vehicle's own figures as they are known or usually are; `None` where nothing is usual of one.
pub(crate) fn entry_of(
    vehicle: &VehicleFacts,
    part: &ShelfPart,
    site: Site,
    set: Option<Setting>,
    units: TypedIn,
) -> Option<CorrectionEntry> {
    let mut others = BTreeMap::new();
    for figure in part.kind.figures.iter().filter(|figure| figure.role == FigureRole::OfTheVehicle) {
        let length = of_the_vehicle(vehicle, part.kind, site, figure.name)?;
        others.insert(figure.name.to_owned(), FigureEntry::Typed(units.length(length)));
    }
    let Some(set) = set else { return part.on(site, others).ok() };
    let typed: Typed = units.of(set.dimension, set.si)?;
    match part.on(site, others.clone()) {
        Ok(entry) => Some(entry.with_figure(set.figure, typed.into())),
        // A part whose box says nothing of how it is set.
        Err(_) => {
            let mut part = part.clone();
            part.sold.insert(set.figure.to_owned(), typed.into());
            part.on(site, others).ok()
        }
    }
}

/// The figures of the vehicle that a part asks for in its place, and that nobody took and nothing is usual of.
pub(crate) fn figures_wanted(vehicle: &VehicleFacts, kind: &'static KindRow, site: Site) -> Vec<&'static KindFigure> {
    let of_it = kind.figures.iter().filter(|figure| figure.role == FigureRole::OfTheVehicle);
    of_it.filter(|figure| of_the_vehicle(vehicle, kind, site, figure.name).is_none()).collect()
}

/// A part in its place with the middle of what may be for every figure that nobody took: as good as any to see whether it goes on at all.
pub(crate) fn as_if(vehicle: &VehicleFacts, part: &ShelfPart, site: Site, units: TypedIn) -> Option<Correction> {
    let mut others = BTreeMap::new();
    for figure in part.kind.figures.iter().filter(|figure| figure.role == FigureRole::OfTheVehicle) {
        let known = of_the_vehicle(vehicle, part.kind, site, figure.name).map(|length| units.length(length));
        let in_the_middle = || {
            let bound = bound_of(part.kind, figure.name)?;
            units.of(bound.dimension, f64::midpoint(bound.least, bound.most))
        };
        others.insert(figure.name.to_owned(), FigureEntry::Typed(known.or_else(in_the_middle)?));
    }
    part.on(site, others).ok()?.correction()
}

/// A figure that is the vehicle's own, as it is known or usually is.
fn of_the_vehicle(vehicle: &VehicleFacts, row: &KindRow, site: Site, figure: &str) -> Option<Length> {
    let end = if site.axles == Axles::Front { End::Front } else { End::Rear };
    match figure {
        "old_lift" | "replaces_taper" => Some(Length::default()),
        "set" => Some(set_of(vehicle, end)),
        "replaces" => {
            let there = if row.needs == Needs::Coils { *vehicle.spacers.get(end) } else { vehicle.rear_block };
            there.map_or(Some(Length::default()), |there| there.height)
        }
        _ => None,
    }
}

/// A part of the shelf as the mechanics take it; `None` where it does not go onto the vehicle, or cannot be what it says.
pub(crate) fn correction_of(vehicle: &VehicleFacts, entry: &CorrectionEntry) -> Option<Correction> {
    let correction = entry.correction()?;
    let goes_on = correction.problems().is_empty() && vehicle.no_fit_of(&correction).is_none();
    goes_on.then(|| as_known(vehicle, correction))
}

/// How far the springs of an end have set: as what it stood at when sound has it, or as far as usual.
pub(crate) fn set_of(vehicle: &VehicleFacts, end: End) -> Length {
    let known = vehicle.rear_set.filter(|_| end == End::Rear);
    known.map_or(inches(USUAL_SET_IN), |set| set.value.max(Length::default()))
}
