//! A state's changes laid over the vehicle as it was measured. Raw SI `f64` inside.

use super::check::{finite, nought_or_more};
use super::element::{Element, ElementKind};
use super::state::Change;
use super::vehicle::{Axle, SpringDifference, StanceError, Vehicle};
use crate::side::{Side, Sides};
use crate::units::InShopUnits;

/// One axle as it is in a state.
pub(super) struct ChangedAxle<'a> {
    pub(super) kerb: &'a Axle,
    pub(super) tyre_rate: f64,
    pub(super) anti_roll: f64,
    /// Free radius gained, m.
    pub(super) radius_gained: f64,
    pub(super) corners: Sides<ChangedCorner<'a>>,
}

/// One corner as it is in a state.
pub(super) struct ChangedCorner<'a> {
    /// Block or spacer at the spring, m.
    pub(super) spacer: f64,
    /// Force added at the wheel, N.
    pub(super) added_force: f64,
    /// What was done to the main spring, one thing beside another.
    pub(super) other_springs: Vec<&'a SpringDifference>,
    pub(super) elements: Vec<ChangedElement<'a>>,
}

/// An element that is there in a state.
pub(super) struct ChangedElement<'a> {
    pub(super) element: &'a Element,
    /// Clearance opened (+) or closed (−), m.
    pub(super) gap_opened: f64,
}

/// Every axle with the changes on it.
pub(super) fn changed_axles<'a>(vehicle: &'a Vehicle, changes: &'a [Change]) -> Result<Vec<ChangedAxle<'a>>, StanceError> {
    let mut axles: Vec<ChangedAxle<'a>> = vehicle.axles.iter().map(ChangedAxle::new).collect();
    for change in changes {
        apply(&mut axles, change)?;
    }
    Ok(axles)
}

impl<'a> ChangedAxle<'a> {
    fn new(kerb: &'a Axle) -> Self {
        let corner = |side| ChangedCorner {
            spacer: 0.0,
            added_force: 0.0,
            other_springs: Vec::new(),
            elements: kerb.corners.get(side).elements.iter().map(|element| ChangedElement { element, gap_opened: 0.0 }).collect(),
        };
        ChangedAxle {
            kerb,
            tyre_rate: kerb.tyre_rate.si(),
            anti_roll: kerb.anti_roll.value,
            radius_gained: 0.0,
            corners: Sides::from_fn(corner),
        }
    }

    /// Works on the corners that a change names: one side, or both.
    fn each_corner(
        &mut self,
        side: Option<Side>,
        mut work: impl FnMut(&mut ChangedCorner<'a>, Side) -> Result<(), StanceError>,
    ) -> Result<(), StanceError> {
        Side::BOTH
            .into_iter()
            .filter(|each| side.is_none_or(|only| only == *each))
            .try_for_each(|each| work(self.corners.get_mut(each), each))
    }
}

fn apply<'a>(axles: &mut [ChangedAxle<'a>], change: &'a Change) -> Result<(), StanceError> {
    match change {
        Change::Add { axle, side, element } => {
            element.check(axle)?;
            find(axles, axle)?.each_corner(*side, |corner, _| {
                if corner.elements.iter().any(|there| there.element.name == element.name) {
                    return Err(StanceError::NameUsedTwice(element.name.clone()));
                }
                corner.elements.push(ChangedElement { element, gap_opened: 0.0 });
                Ok(())
            })
        }
        Change::Remove { axle, side, element } => find(axles, axle)?.each_corner(*side, |corner, side| {
            let index = element_index(corner, axle, side, element)?;
            corner.elements.remove(index);
            Ok(())
        }),
        Change::Gap { axle, side, element, by } => {
            finite(|| format!("gap change of “{element}” on axle “{axle}”"), by.si())?;
            find(axles, axle)?.each_corner(*side, |corner, side| {
                let index = element_index(corner, axle, side, element)?;
                match corner.elements.get_mut(index) {
                    Some(there) if !matches!(there.element.kind, ElementKind::Air(_)) => there.gap_opened += by.si(),
                    _ => return Err(no_gap(axle, side, element)),
                }
                Ok(())
            })
        }
        Change::Spacer { axle, side, thickness } => {
            finite(|| format!("spacer thickness on axle “{axle}”"), thickness.si())?;
            find(axles, axle)?.each_corner(*side, |corner, _| {
                corner.spacer += thickness.si();
                Ok(())
            })
        }
        Change::Spring { axle, side, added_force } => {
            finite(|| format!("added spring force on axle “{axle}”"), added_force.si())?;
            find(axles, axle)?.each_corner(*side, |corner, _| {
                corner.added_force += added_force.si();
                Ok(())
            })
        }
        Change::OtherSpring { axle, side, difference } => {
            let changed = find(axles, axle)?;
            difference.check(changed.kerb)?;
            changed.each_corner(*side, |corner, _| {
                corner.other_springs.push(difference);
                Ok(())
            })
        }
        Change::Tyre { axle, rate, radius_change } => {
            finite(|| format!("tire radius change on axle “{axle}”"), radius_change.si())?;
            let changed = find(axles, axle)?;
            if let Some(rate) = rate {
                super::check::positive(|| format!("tire rate on axle “{axle}”"), rate.si())?;
                changed.tyre_rate = rate.si();
            }
            changed.radius_gained += radius_change.si();
            Ok(())
        }
        Change::AntiRoll { axle, stiffness } => {
            nought_or_more(|| format!("sway-bar stiffness on axle “{axle}”"), stiffness.value)?;
            find(axles, axle)?.anti_roll = stiffness.value;
            Ok(())
        }
    }
}

fn find<'v, 'a>(axles: &'v mut [ChangedAxle<'a>], name: &str) -> Result<&'v mut ChangedAxle<'a>, StanceError> {
    axles.iter_mut().find(|axle| axle.kerb.name == name).ok_or_else(|| StanceError::NoSuchAxle(name.to_owned()))
}

fn element_index(corner: &ChangedCorner<'_>, axle: &str, side: Side, element: &str) -> Result<usize, StanceError> {
    corner.elements.iter().position(|there| there.element.name == element).ok_or_else(|| StanceError::NoSuchElement {
        axle: axle.to_owned(),
        side: side.name(),
        element: element.to_owned(),
    })
}

fn no_gap(axle: &str, side: Side, element: &str) -> StanceError {
    StanceError::NoGap { axle: axle.to_owned(), side: side.name(), element: element.to_owned() }
}
