//! Reading the elements of a stance document.

use serde::Deserialize;

use super::DocumentError;
use crate::stance::{AirBag, Element, ElementKind, ForceTable, Mount, StopCurve};
use crate::units::{Length, cubic_metres, metres, newtons, newtons_per_metre, pascals, square_metres};

/// What a ratio or an exponent is when nothing is said.
pub(super) fn one() -> f64 {
    1.0
}

#[derive(Deserialize, Default, Clone, Copy)]
#[serde(rename_all = "snake_case")]
pub(super) enum MountText {
    #[default]
    Frame,
    Pack,
}

/// The one word there is for a line: bags without it have a line each.
#[derive(Deserialize, Clone, Copy)]
#[serde(rename_all = "snake_case")]
pub(super) enum LineText {
    Shared,
}

#[derive(Deserialize)]
#[serde(tag = "kind", rename_all = "snake_case", deny_unknown_fields)]
pub(super) enum ElementText {
    Bump {
        name: String,
        lateral_m: Option<f64>,
        #[serde(default = "one")]
        motion_ratio: f64,
        #[serde(default)]
        mount: MountText,
        gap_m: f64,
        #[serde(default)]
        extension_m: f64,
        force_table: Option<Vec<[f64; 2]>>,
        rate_n_per_m: Option<f64>,
    },
    Helper {
        name: String,
        lateral_m: Option<f64>,
        #[serde(default = "one")]
        motion_ratio: f64,
        #[serde(default)]
        mount: MountText,
        gap_m: f64,
        rate_n_per_m: f64,
        #[serde(default)]
        already_fitted: bool,
    },
    Air {
        name: String,
        lateral_m: Option<f64>,
        #[serde(default = "one")]
        motion_ratio: f64,
        #[serde(default)]
        mount: MountText,
        area_m2: f64,
        volume_m3: f64,
        fill_pressure_pa: f64,
        #[serde(default)]
        fill_travel_m: f64,
        #[serde(default = "one")]
        polytropic_exponent: f64,
        #[serde(default)]
        area_slope_m2_per_m: f64,
        line: Option<LineText>,
        #[serde(default)]
        line_volume_m3: f64,
        #[serde(default)]
        held_pressure: bool,
        #[serde(default)]
        already_fitted: bool,
    },
}

impl ElementText {
    pub(super) fn into_element(self, path: &str) -> Result<Element, DocumentError> {
        let (name, lateral_m, motion_ratio, mount, kind) = match self {
            ElementText::Bump { name, lateral_m, motion_ratio, mount, gap_m, extension_m, force_table, rate_n_per_m } => {
                let curve = stop_curve(force_table, rate_n_per_m, path)?;
                let kind = ElementKind::Bump { gap: metres(gap_m), extension: metres(extension_m), curve };
                (name, lateral_m, motion_ratio, mount, kind)
            }
            ElementText::Helper { name, lateral_m, motion_ratio, mount, gap_m, rate_n_per_m, already_fitted } => {
                let kind = ElementKind::Helper { gap: metres(gap_m), rate: newtons_per_metre(rate_n_per_m), already_fitted };
                (name, lateral_m, motion_ratio, mount, kind)
            }
            ElementText::Air {
                name,
                lateral_m,
                motion_ratio,
                mount,
                area_m2,
                volume_m3,
                fill_pressure_pa,
                fill_travel_m,
                polytropic_exponent,
                area_slope_m2_per_m,
                line,
                line_volume_m3,
                held_pressure,
                already_fitted,
            } => {
                let bag = AirBag {
                    area: square_metres(area_m2),
                    volume: cubic_metres(volume_m3),
                    fill_pressure: pascals(fill_pressure_pa),
                    fill_travel: metres(fill_travel_m),
                    polytropic_exponent,
                    area_slope: metres(area_slope_m2_per_m),
                    shares_line: matches!(line, Some(LineText::Shared)),
                    line_volume: cubic_metres(line_volume_m3),
                    held_pressure,
                    already_fitted,
                };
                (name, lateral_m, motion_ratio, mount, ElementKind::Air(bag))
            }
        };
        let mount = match mount {
            MountText::Frame => Mount::Frame,
            MountText::Pack => Mount::Pack,
        };
        Ok(Element { name, lateral: lateral_m.map(metres), motion_ratio, mount, kind })
    }
}

fn stop_curve(table: Option<Vec<[f64; 2]>>, rate: Option<f64>, path: &str) -> Result<StopCurve, DocumentError> {
    match (table, rate) {
        (Some(points), None) => {
            let points: Vec<(Length, _)> = points.into_iter().map(|[travel, force]| (metres(travel), newtons(force))).collect();
            let table = ForceTable::new(&points)
                .map_err(|error| DocumentError::field(format!("{path}.force_table"), error.to_string()))?;
            Ok(StopCurve::Table(table))
        }
        (None, Some(rate)) => Ok(StopCurve::Linear(newtons_per_metre(rate))),
        _ => Err(DocumentError::field(path, "a bump needs either force_table or rate_n_per_m")),
    }
}
