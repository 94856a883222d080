//! Drawings in SVG, drawn to scale.

mod marks;
mod outline;
mod ruler;
mod stance;
mod svg;

pub(crate) use marks::{Marks, Shown};
pub(crate) use stance::StanceDrawing;
