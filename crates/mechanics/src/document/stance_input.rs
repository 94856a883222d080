//! Reading a `wise-badger/stance` document, version 1, into a vehicle and its states.

use serde::Deserialize;

use super::element_input::{ElementText, one};
use super::{DocumentError, LARGEST_DOCUMENT, StanceResult};
use crate::side::{Side, Sides};
use crate::stance::{
    Axle, AxleKind, BodyPoint, Change, Corner, Coupler, Equaliser, Load, MainSpring, SpringStage, State, Vehicle, settle,
};
use crate::units::{metres, newton_metres_per_radian, newtons, newtons_per_metre, radians};

const FORMAT: &str = "wise-badger/stance";
const MOST_AXLES: usize = 6;
const MOST_ELEMENTS: usize = 20;
const MOST_STATES: usize = 1_000;

/// A vehicle and the states asked about, as read from a document.
#[derive(Debug, Clone, PartialEq)]
pub struct StanceDocument {
    /// The vehicle at kerb weight.
    pub vehicle: Vehicle,
    /// The states, in the document's order.
    pub states: Vec<State>,
}

impl StanceDocument {
    /// Reads a document.
    ///
    /// # Errors     [`DocumentError`] names the field
    pub fn read(json: &str) -> Result<Self, DocumentError> {
        if json.len() > LARGEST_DOCUMENT {
            return Err(DocumentError::TooLarge);
        }
        let head: HeadText = from_json(json)?;
        if head.format != FORMAT {
            return Err(DocumentError::Format(head.format, FORMAT));
        }
        if head.version != 1 {
            return Err(DocumentError::Version(head.version));
        }
        let text: DocumentText = from_json(json)?;
        at_most("vehicle.axles", text.vehicle.axles.len(), MOST_AXLES)?;
        at_most("states", text.states.len(), MOST_STATES)?;
        let axles =
            text.vehicle.axles.into_iter().enumerate().map(|(index, axle)| axle.into_axle(&format!("vehicle.axles[{index}]")));
        let vehicle = Vehicle {
            axles: axles.collect::<Result<_, _>>()?,
            points: text
                .vehicle
                .points
                .into_iter()
                .map(|point| BodyPoint { name: point.name, position: metres(point.position_m), lateral: metres(point.lateral_m) })
                .collect(),
            sprung_cg_height: metres(text.vehicle.sprung_cg_height_m),
            coupler: text.vehicle.coupler.map(CouplerText::into_coupler),
            equalisers: text.vehicle.equalisers.into_iter().map(EqualiserText::into_equaliser).collect(),
        };
        if vehicle.coupler.is_none() {
            let risen = text.states.iter().position(|state| state.coupler_rise_m.abs() > 0.0);
            if let Some(index) = risen {
                let path = format!("states[{index}].coupler_rise_m");
                return Err(DocumentError::field(path, "this vehicle has no coupler to rise"));
            }
        }
        let states = text.states.into_iter().enumerate().map(|(index, state)| state.into_state(&format!("states[{index}]")));
        Ok(StanceDocument { vehicle, states: states.collect::<Result<_, _>>()? })
    }

    /// Solves every state.
    ///
    /// # Errors     [`DocumentError::Stance`] names the state that could not be solved
    pub fn solve(&self) -> Result<StanceResult, DocumentError> {
        let answers = self.states.iter().map(|state| {
            settle(&self.vehicle, state)
                .map(|outcome| (state.name.clone(), outcome))
                .map_err(|source| DocumentError::Stance { state: state.name.clone(), source })
        });
        Ok(StanceResult::new(answers.collect::<Result<Vec<_>, _>>()?))
    }
}

fn from_json<'de, T: Deserialize<'de>>(json: &'de str) -> Result<T, DocumentError> {
    let mut reader = serde_json::Deserializer::from_str(json);
    let value = serde_path_to_error::deserialize(&mut reader).map_err(|error| DocumentError::Shape {
        path: match error.path().to_string().as_str() {
            "." | "?" => "document".to_owned(),
            path => path.to_owned(),
        },
        problem: error.into_inner().to_string(),
    })?;
    reader.end().map_err(|error| DocumentError::Shape { path: "document".to_owned(), problem: error.to_string() })?;
    Ok(value)
}

fn at_most(path: &str, count: usize, most: usize) -> Result<(), DocumentError> {
    if count > most {
        return Err(DocumentError::TooMany { path: path.to_owned(), count, most });
    }
    Ok(())
}

/// Format and version are looked at before anything else, so that a newer document is not blamed for a new field.
#[derive(Deserialize)]
struct HeadText {
    format: String,
    version: u64,
}

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct DocumentText {
    #[serde(rename = "format")]
    _format: String,
    #[serde(rename = "version")]
    _version: u64,
    vehicle: VehicleText,
    states: Vec<StateText>,
}

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct VehicleText {
    sprung_cg_height_m: f64,
    axles: Vec<AxleText>,
    #[serde(default)]
    points: Vec<PointText>,
    coupler: Option<CouplerText>,
    #[serde(default)]
    equalisers: Vec<EqualiserText>,
}

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct CouplerText {
    position_m: f64,
    #[serde(default)]
    lateral_m: f64,
    kerb_load_n: f64,
}

impl CouplerText {
    fn into_coupler(self) -> Coupler {
        Coupler { position: metres(self.position_m), lateral: metres(self.lateral_m), kerb_load: newtons(self.kerb_load_n) }
    }
}

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct EqualiserText {
    side: SideText,
    axles: [String; 2],
    front_arm_m: f64,
    rear_arm_m: f64,
    stop_rad: f64,
}

impl EqualiserText {
    fn into_equaliser(self) -> Equaliser {
        Equaliser {
            side: self.side.into(),
            axles: self.axles,
            front_arm: metres(self.front_arm_m),
            rear_arm: metres(self.rear_arm_m),
            stop: radians(self.stop_rad),
        }
    }
}

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct PointText {
    name: String,
    position_m: f64,
    #[serde(default)]
    lateral_m: f64,
}

#[derive(Deserialize)]
#[serde(rename_all = "snake_case")]
enum KindText {
    Solid,
    Independent,
}

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct AxleText {
    name: String,
    position_m: f64,
    kind: KindText,
    track_m: f64,
    spring_base_m: f64,
    unsprung_weight_n: f64,
    kerb_wheel_loads_n: [f64; 2],
    tyre_rate_n_per_m: f64,
    #[serde(default)]
    anti_roll_nm_per_rad: f64,
    roll_centre_height_m: f64,
    hub_height_m: f64,
    arch_lateral_m: Option<f64>,
    corners: [CornerText; 2],
}

impl AxleText {
    fn into_axle(self, path: &str) -> Result<Axle, DocumentError> {
        let kind = match self.kind {
            KindText::Solid => AxleKind::Solid,
            KindText::Independent => AxleKind::Independent,
        };
        let [left, right] = self.corners;
        let [left_load, right_load] = self.kerb_wheel_loads_n;
        Ok(Axle {
            name: self.name,
            position: metres(self.position_m),
            kind,
            track: metres(self.track_m),
            spring_base: metres(self.spring_base_m),
            unsprung_weight: newtons(self.unsprung_weight_n),
            kerb_wheel_loads: Sides { left: newtons(left_load), right: newtons(right_load) },
            tyre_rate: newtons_per_metre(self.tyre_rate_n_per_m),
            anti_roll: newton_metres_per_radian(self.anti_roll_nm_per_rad),
            roll_centre_height: metres(self.roll_centre_height_m),
            hub_height: metres(self.hub_height_m),
            arch_lateral: self.arch_lateral_m.map(metres),
            corners: Sides {
                left: left.into_corner(kind, &format!("{path}.corners[0]"))?,
                right: right.into_corner(kind, &format!("{path}.corners[1]"))?,
            },
        })
    }
}

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct CornerText {
    spring: SpringText,
    #[serde(default)]
    elements: Vec<ElementText>,
}

impl CornerText {
    fn into_corner(self, kind: AxleKind, path: &str) -> Result<Corner, DocumentError> {
        at_most(&format!("{path}.elements"), self.elements.len(), MOST_ELEMENTS)?;
        if kind == AxleKind::Solid && (self.spring.motion_ratio - 1.0).abs() > 0.0 {
            return Err(DocumentError::field(format!("{path}.spring.motion_ratio"), "a solid axle's spring has motion ratio 1"));
        }
        let elements = self.elements.into_iter().enumerate();
        Ok(Corner {
            spring: MainSpring {
                rate: newtons_per_metre(self.spring.rate_n_per_m),
                motion_ratio: self.spring.motion_ratio,
                captive: self.spring.captive,
                stages: self
                    .spring
                    .stages
                    .into_iter()
                    .map(|stage| SpringStage {
                        at_travel: metres(stage.at_travel_m),
                        added_rate: newtons_per_metre(stage.added_rate_n_per_m),
                    })
                    .collect(),
            },
            elements: elements
                .map(|(index, element)| element.into_element(&format!("{path}.elements[{index}]")))
                .collect::<Result<_, _>>()?,
        })
    }
}

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct SpringText {
    rate_n_per_m: f64,
    #[serde(default = "one")]
    motion_ratio: f64,
    #[serde(default = "yes")]
    captive: bool,
    #[serde(default)]
    stages: Vec<StageText>,
}

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct StageText {
    at_travel_m: f64,
    added_rate_n_per_m: f64,
}

fn yes() -> bool {
    true
}

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct StateText {
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
    fn into_state(self, path: &str) -> Result<State, DocumentError> {
        at_most(&format!("{path}.loads"), self.loads.len(), MOST_STATES)?;
        let changes = self.changes.into_iter().enumerate();
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
            changes: changes
                .map(|(index, change)| change.into_change(&format!("{path}.changes[{index}]")))
                .collect::<Result<_, _>>()?,
            coupler_rise: metres(self.coupler_rise_m),
            lateral_acceleration_g: self.lateral_acceleration_g,
            pitch_couple: newton_metres_per_radian(self.pitch_couple_nm),
        })
    }
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
enum SideText {
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

fn side(text: Option<SideText>) -> Option<Side> {
    text.map(Side::from)
}

#[derive(Deserialize)]
#[serde(tag = "change", rename_all = "snake_case", deny_unknown_fields)]
enum ChangeText {
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
