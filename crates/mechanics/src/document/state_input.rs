//! Reading a state of a document: loads and changes.

use serde::Deserialize;

use super::DocumentError;
use super::element_input::ElementText;
use super::reading::at_most;
use crate::side::Side;
use crate::stance::{Change, Load, State, Vehicle};
use crate::units::{metres, newton_metres_per_radian, newtons, newtons_per_metre};

const MOST_LOADS: usize = 1_000;

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
pub(super) struct StateText {
    name: String,
    #[serde(default)]
    loads: Vec<LoadText>,
    #[serde(default)]
    coupler_rise_m: f64,
    #[serde(default)]
    lateral_acceleration_g: f64,
    #[serde(default)]
    pitch_couple_nm: f64,
    #[serde(default)]
    changes: Vec<ChangeText>,
}

impl StateText {
    pub(super) fn into_state(self, path: &str, vehicle: &Vehicle) -> Result<State, DocumentError> {
        if vehicle.coupler.is_none() && self.coupler_rise_m.abs() > 0.0 {
            return Err(DocumentError::field(format!("{path}.coupler_rise_m"), "this vehicle has no coupler to rise"));
        }
        at_most(&format!("{path}.loads"), self.loads.len(), MOST_LOADS)?;
        Ok(State {
            name: self.name,
            loads: self
                .loads
                .into_iter()
                .map(|load| Load {
                    weight: newtons(load.weight_n),
                    position: metres(load.position_m),
                    lateral: metres(load.lateral_m),
                    height: load.height_m.map(metres),
                })
                .collect(),
            changes: into_changes(self.changes, path)?,
            coupler_rise: metres(self.coupler_rise_m),
            lateral_acceleration_g: self.lateral_acceleration_g,
            pitch_couple: newton_metres_per_radian(self.pitch_couple_nm),
            sideways_pull: None,
        })
    }
}

/// The changes of a state or a prediction.
pub(super) fn into_changes(changes: Vec<ChangeText>, path: &str) -> Result<Vec<Change>, DocumentError> {
    let changes = changes.into_iter().enumerate();
    changes.map(|(index, change)| change.into_change(&format!("{path}.changes[{index}]"))).collect()
}

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct LoadText {
    weight_n: f64,
    position_m: f64,
    #[serde(default)]
    lateral_m: f64,
    height_m: Option<f64>,
}

#[derive(Deserialize, Clone, Copy)]
#[serde(rename_all = "snake_case")]
pub(super) enum SideText {
    Left,
    Right,
}

impl From<SideText> for Side {
    fn from(text: SideText) -> Side {
        match text {
            SideText::Left => Side::Left,
            SideText::Right => Side::Right,
        }
    }
}

pub(super) fn side(text: Option<SideText>) -> Option<Side> {
    text.map(Side::from)
}

#[derive(Deserialize)]
#[serde(tag = "change", rename_all = "snake_case", deny_unknown_fields)]
pub(super) enum ChangeText {
    Add {
        axle: String,
        side: Option<SideText>,
        element: ElementText,
    },
    Remove {
        axle: String,
        side: Option<SideText>,
        element: String,
    },
    Spacer {
        axle: String,
        side: Option<SideText>,
        thickness_m: f64,
    },
    Gap {
        axle: String,
        side: Option<SideText>,
        element: String,
        by_m: f64,
    },
    Spring {
        axle: String,
        side: Option<SideText>,
        added_force_n: f64,
    },
    Tyre {
        axle: String,
        rate_n_per_m: Option<f64>,
        #[serde(default)]
        radius_change_m: f64,
    },
    AntiRoll {
        axle: String,
        nm_per_rad: f64,
    },
}

impl ChangeText {
    fn into_change(self, path: &str) -> Result<Change, DocumentError> {
        Ok(match self {
            ChangeText::Add { axle, side: on, element } => {
                Change::Add { axle, side: side(on), element: element.into_element(&format!("{path}.element"))? }
            }
            ChangeText::Remove { axle, side: on, element } => Change::Remove { axle, side: side(on), element },
            ChangeText::Spacer { axle, side: on, thickness_m } => {
                Change::Spacer { axle, side: side(on), thickness: metres(thickness_m) }
            }
            ChangeText::Gap { axle, side: on, element, by_m } => Change::Gap { axle, side: side(on), element, by: metres(by_m) },
            ChangeText::Spring { axle, side: on, added_force_n } => {
                Change::Spring { axle, side: side(on), added_force: newtons(added_force_n) }
            }
            ChangeText::Tyre { axle, rate_n_per_m, radius_change_m } => {
                Change::Tyre { axle, rate: rate_n_per_m.map(newtons_per_metre), radius_change: metres(radius_change_m) }
            }
            ChangeText::AntiRoll { axle, nm_per_rad } => {
                Change::AntiRoll { axle, stiffness: newton_metres_per_radian(nm_per_rad) }
            }
        })
    }
}
