//! Drawings in SVG, drawn to scale.

mod breakdown;
mod load_plan;
mod marks;
mod outline;
mod ruler;
mod stance;
mod svg;

pub(crate) use breakdown::{BreakdownDrawing, RowWords};
pub(crate) use load_plan::{Aboard, LoadPlanDrawing};
pub(crate) use marks::{Marks, Shown};
pub(crate) use stance::StanceDrawing;
