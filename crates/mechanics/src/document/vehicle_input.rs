//! Reading the vehicle of a document.

use serde::Deserialize;

use super::DocumentError;
use super::element_input::{ElementText, one};
use super::reading::at_most;
use super::state_input::SideText;
use crate::side::Sides;
use crate::stance::{Axle, AxleKind, BodyPoint, Corner, Coupler, Equaliser, MainSpring, SpringStage, Vehicle};
use crate::units::{metres, newton_metres_per_radian, newtons, newtons_per_metre, radians};

const MOST_AXLES: usize = 6;
const MOST_ELEMENTS: usize = 20;

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
pub(super) struct VehicleText {
    sprung_cg_height_m: f64,
    axles: Vec<AxleText>,
    #[serde(default)]
    points: Vec<PointText>,
    coupler: Option<CouplerText>,
    #[serde(default)]
    equalisers: Vec<EqualiserText>,
}

impl VehicleText {
    pub(super) fn into_vehicle(self) -> Result<Vehicle, DocumentError> {
        at_most("vehicle.axles", self.axles.len(), MOST_AXLES)?;
        let axles = self.axles.into_iter().enumerate().map(|(index, axle)| axle.into_axle(&format!("vehicle.axles[{index}]")));
        let point = |point: PointText| BodyPoint {
            name: point.name,
            position: metres(point.position_m),
            lateral: metres(point.lateral_m),
        };
        Ok(Vehicle {
            axles: axles.collect::<Result<_, _>>()?,
            points: self.points.into_iter().map(point).collect(),
            sprung_cg_height: metres(self.sprung_cg_height_m),
            coupler: self.coupler.map(CouplerText::into_coupler),
            equalisers: self.equalisers.into_iter().map(EqualiserText::into_equaliser).collect(),
        })
    }
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
                    .enumerate()
                    .map(|(index, stage)| stage.into_stage(&format!("{path}.spring.stages[{index}]")))
                    .collect::<Result<_, _>>()?,
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

impl StageText {
    /// A pack may soften on its way; in a document a stage adds a rate.
    fn into_stage(self, path: &str) -> Result<SpringStage, DocumentError> {
        if self.added_rate_n_per_m < 0.0 {
            return Err(DocumentError::field(format!("{path}.added_rate_n_per_m"), "must be 0 or more"));
        }
        Ok(SpringStage { at_travel: metres(self.at_travel_m), added_rate: newtons_per_metre(self.added_rate_n_per_m) })
    }
}

fn yes() -> bool {
    true
}
