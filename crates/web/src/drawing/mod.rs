//! Drawings in SVG, drawn to scale.

pub(crate) mod bay_week;
mod breakdown;
mod curve;
mod effect;
mod fit_cost;
pub(crate) mod ledger;
mod load_curve;
mod load_plan;
mod marks;
mod names_under;
mod outline;
mod pack;
mod plan_outline;
mod ruler;
mod spread;
mod stance;
pub(crate) mod svg;
pub(crate) mod visits;

pub(crate) use breakdown::{BreakdownDrawing, RowWords};
pub(crate) use curve::{DrawnCurve, curve_drawing};
pub(crate) use effect::effect_drawing;
pub(crate) use fit_cost::{FitPoint, fit_cost_drawing};
pub(crate) use load_curve::{OnTheCurve, load_curve_drawing};
pub(crate) use load_plan::{Aboard, LoadPlanDrawing};
pub(crate) use marks::{EarlierHeight, Marks, Shown};
pub(crate) use pack::{DrawnPack, LeafMark, PackDrawing};
pub(crate) use plan_outline::plan_outline;
pub(crate) use stance::StanceDrawing;
pub(crate) use svg::Drawing;
