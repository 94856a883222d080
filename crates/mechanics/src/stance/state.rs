//! A state to solve for: what is aboard, and what was changed on the vehicle.

use super::element::Element;
use super::vehicle::{Corner, StanceError, Vehicle, finite, nought_or_more};
use crate::side::Side;
use crate::units::{Force, InShopUnits, Length, Moment, RollStiffness, SpringRate, metres, newton_metres_per_radian};

/// A load aboard.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Load {
    /// Its weight.
    pub weight: Force,
    /// Rearward from the front axle.
    pub position: Length,
    /// To the right of the middle.
    pub lateral: Length,
    /// Height of its centre above the ground; absent, it has no part in roll.
    pub height: Option<Length>,
}

impl Load {
    /// A load on the middle line whose height does not matter.
    pub fn at(weight: Force, position: Length) -> Self {
        Load { weight, position, lateral: metres(0.0), height: None }
    }
}

/// What to solve for, measured from the kerb state.
#[derive(Debug, Clone, PartialEq)]
pub struct State {
    /// What the state is called.
    pub name: String,
    /// Everything aboard beyond the kerb weight.
    pub loads: Vec<Load>,
    /// What is different on the vehicle in this state.
    pub changes: Vec<Change>,
    /// Sideways acceleration in units of standard gravity; + = the vehicle is pushed to the right.
    pub lateral_acceleration_g: f64,
    /// A couple on the body; + lifts the rear.
    pub pitch_couple: Moment,
}

impl State {
    /// A state with these loads and nothing changed on the vehicle.
    pub fn with_loads(name: impl Into<String>, loads: Vec<Load>) -> Self {
        State {
            name: name.into(),
            loads,
            changes: Vec::new(),
            lateral_acceleration_g: 0.0,
            pitch_couple: newton_metres_per_radian(0.0),
        }
    }

    /// The same state with a list of changes on the vehicle.
    #[must_use]
    pub fn changed(mut self, changes: Vec<Change>) -> Self {
        self.changes = changes;
        self
    }

    pub(super) fn check(&self) -> Result<(), StanceError> {
        let named = |what: &str| format!("{what} in state “{}”", self.name);
        for load in &self.loads {
            nought_or_more(named("weight"), load.weight.si())?;
            finite(named("load position"), load.position.si())?;
            finite(named("load lateral place"), load.lateral.si())?;
            finite(named("load height"), load.height.map_or(0.0, |height| height.si()))?;
        }
        finite(named("lateral acceleration"), self.lateral_acceleration_g)?;
        finite(named("pitch couple"), self.pitch_couple.value)
    }
}

/// One thing changed on the vehicle. `side` absent means both sides.
#[derive(Debug, Clone, PartialEq)]
pub enum Change {
    /// An element is fitted; it comes on top of the kerb forces.
    Add {
        /// On which axle.
        axle: String,
        /// On which side.
        side: Option<Side>,
        /// The element.
        element: Element,
    },
    /// An element is taken off.
    Remove {
        /// On which axle.
        axle: String,
        /// On which side.
        side: Option<Side>,
        /// The element's name.
        element: String,
    },
    /// A block, or a coil or strut spacer, between spring and axle or body; negative takes one out.
    Spacer {
        /// On which axle.
        axle: String,
        /// On which side.
        side: Option<Side>,
        /// Its thickness along the spring.
        thickness: Length,
    },
    /// An element's clearance is opened (+) or closed (−).
    Gap {
        /// On which axle.
        axle: String,
        /// On which side.
        side: Option<Side>,
        /// The element's name.
        element: String,
        /// By how much.
        by: Length,
    },
    /// The main spring pushes harder at the same length (re-arched, replaced).
    Spring {
        /// On which axle.
        axle: String,
        /// On which side.
        side: Option<Side>,
        /// Force added, at the wheel.
        added_force: Force,
    },
    /// Another tyre or another pressure.
    Tyre {
        /// On which axle.
        axle: String,
        /// The new rate per wheel end, where it changes.
        rate: Option<SpringRate>,
        /// The free radius gained.
        radius_change: Length,
    },
    /// Another anti-roll bar.
    AntiRoll {
        /// On which axle.
        axle: String,
        /// Its stiffness.
        stiffness: RollStiffness,
    },
}

/// The vehicle once a state's changes are on it, with what the kerb forces do not know of.
pub(super) struct Altered {
    pub(super) vehicle: Vehicle,
    /// Per axle: what the changes did to springs and tyres.
    pub(super) axles: Vec<AxleAlteration>,
}

/// Changes of one axle that are not part of its description.
#[derive(Clone, Copy)]
pub(super) struct AxleAlteration {
    /// Left, right: block or spacer thickness at the spring, m.
    pub(super) spacer_m: [f64; 2],
    /// Left, right: force added at the wheel, N.
    pub(super) added_force_n: [f64; 2],
    /// Free radius gained, m.
    pub(super) radius_change_m: f64,
}

impl Altered {
    pub(super) fn new(vehicle: &Vehicle, changes: &[Change]) -> Result<Self, StanceError> {
        let untouched = AxleAlteration { spacer_m: [0.0; 2], added_force_n: [0.0; 2], radius_change_m: 0.0 };
        let mut altered = Altered { vehicle: vehicle.clone(), axles: vec![untouched; vehicle.axles.len()] };
        for change in changes {
            altered.apply(change)?;
        }
        altered.vehicle.check()?;
        Ok(altered)
    }

    fn apply(&mut self, change: &Change) -> Result<(), StanceError> {
        match change {
            Change::Add { axle, side, element } => self.corners(axle, *side, |corner, _| {
                corner.elements.push(element.clone());
                Ok(())
            }),
            Change::Remove { axle, side, element } => self.corners(axle, *side, |corner, side| {
                let index = element_index(corner, axle, side, element)?;
                corner.elements.remove(index);
                Ok(())
            }),
            Change::Gap { axle, side, element, by } => {
                finite(format!("gap change of “{element}”"), by.si())?;
                self.corners(axle, *side, |corner, side| {
                    let index = element_index(corner, axle, side, element)?;
                    if let Some(element) = corner.elements.get_mut(index) {
                        element.open_gap(*by);
                    }
                    Ok(())
                })
            }
            Change::Spacer { axle, side, thickness } => {
                finite(format!("spacer thickness on axle “{axle}”"), thickness.si())?;
                let (_, alteration) = self.axle(axle)?;
                add_to_sides(&mut alteration.spacer_m, *side, thickness.si());
                Ok(())
            }
            Change::Spring { axle, side, added_force } => {
                finite(format!("added spring force on axle “{axle}”"), added_force.si())?;
                let (_, alteration) = self.axle(axle)?;
                add_to_sides(&mut alteration.added_force_n, *side, added_force.si());
                Ok(())
            }
            Change::Tyre { axle, rate, radius_change } => {
                finite(format!("tyre radius change on axle “{axle}”"), radius_change.si())?;
                let (axle, alteration) = self.axle(axle)?;
                axle.tyre_rate = rate.unwrap_or(axle.tyre_rate);
                alteration.radius_change_m += radius_change.si();
                Ok(())
            }
            Change::AntiRoll { axle, stiffness } => {
                nought_or_more(format!("anti-roll stiffness on axle “{axle}”"), stiffness.value)?;
                self.axle(axle)?.0.anti_roll = *stiffness;
                Ok(())
            }
        }
    }

    fn axle(&mut self, name: &str) -> Result<(&mut super::vehicle::Axle, &mut AxleAlteration), StanceError> {
        self.vehicle
            .axles
            .iter_mut()
            .zip(&mut self.axles)
            .find(|(axle, _)| axle.name == name)
            .ok_or_else(|| StanceError::NoSuchAxle(name.to_owned()))
    }

    fn corners(
        &mut self,
        axle: &str,
        side: Option<Side>,
        mut change: impl FnMut(&mut Corner, Side) -> Result<(), StanceError>,
    ) -> Result<(), StanceError> {
        let (axle, _) = self.axle(axle)?;
        for each in Side::BOTH {
            if side.is_none_or(|only| only == each) {
                change(axle.corners.get_mut(each), each)?;
            }
        }
        Ok(())
    }
}

fn element_index(corner: &Corner, axle: &str, side: Side, element: &str) -> Result<usize, StanceError> {
    corner.elements.iter().position(|each| each.name == element).ok_or_else(|| StanceError::NoSuchElement {
        axle: axle.to_owned(),
        side: side.name(),
        element: element.to_owned(),
    })
}

fn add_to_sides(values: &mut [f64; 2], side: Option<Side>, amount: f64) {
    for (value, each) in values.iter_mut().zip(Side::BOTH) {
        if side.is_none_or(|only| only == each) {
            *value += amount;
        }
    }
}
