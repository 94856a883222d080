//! The order of the modules: each uses only those before it.

#![allow(clippy::unwrap_used, clippy::indexing_slicing, reason = "a test fails where it stands")]

#[path = "../../mechanics/tests/support/layers.rs"]
mod layers;

/// From the lowest, as `src/lib.rs` says.
const LAYERS: &[&str] = &[
    "bounds",
    "table_cell",
    "survey",
    "words",
    "look_over",
    "verdict",
    "prediction",
    "aim",
    "proof",
    "entry",
    "reading",
    "intake",
    "case",
    "slips",
    "job_document",
    "shelf",
    "bench",
    "consequence",
    "casework",
    "shelf_fit",
    "back_solve",
    "quick_answer",
    "what_if",
    "adjust",
    "finder",
    "wrench",
    "work_plan",
    "bay_plan",
    "ledger",
    "option_document",
    "route",
];

#[test]
fn every_module_uses_only_those_before_it() {
    layers::hold(env!("CARGO_MANIFEST_DIR"), LAYERS);
}
