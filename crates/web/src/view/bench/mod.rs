//! The bench in figures and words.

mod at_load;
mod heights;
mod words;

pub(crate) use at_load::{ContactLine, PackUnder, contact_lines, drawn, drawn_loose, load_figures};
pub(crate) use heights::{AgreementWords, HeightLine, agreement_words, height_lines, second_stage_figure};
pub(crate) use words::{
    against_words, cannot_rearch_words, cannot_words, doubt_words, estimated_words, load_name, shim_words, sides_steel_words,
    steel_words, strain_words, work_words,
};

const PACK_SOURCE: &str = "Leaves as cantilevers that press on each other and never pull (Shigley; SAE HS-788, from memory). Friction, axle wrap and shackle angle left out.";
