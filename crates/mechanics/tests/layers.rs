//! The order of the modules: each uses only those before it, and no file goes round in a ring.

#![allow(clippy::unwrap_used, clippy::indexing_slicing, reason = "a test fails where it stands")]

#[path = "support/layers.rs"]
mod layers;

/// From the lowest, as `src/lib.rs` says.
const LAYERS: &[&str] = &[
    "units",
    "bound",
    "uncertain",
    "side",
    "cholesky",
    "range",
    "tape",
    "stance",
    "side_effect",
    "pack",
    "axle_rate",
    "identification",
    "correction",
    "document",
];

#[test]
fn every_module_uses_only_those_before_it() {
    layers::hold(env!("CARGO_MANIFEST_DIR"), LAYERS);
}

#[test]
fn a_ring_put_back_is_found() {
    let upward = layers::upward(LAYERS, &[("stance/solver.rs", "use crate::side_effect::ride::bounce_frequency;")]);
    assert_eq!(upward, ["stance/solver.rs uses side_effect, which is above stance"]);
    let inline = layers::upward(LAYERS, &[("units.rs", "fn f() -> crate::pack::Pack { super::stance::settle() }")]);
    assert_eq!(inline, ["units.rs uses pack, which is above units", "units.rs uses stance, which is above units"]);
    let nested = layers::upward(LAYERS, &[("tape/length.rs", "use super::super::{document, units};")]);
    assert_eq!(nested, ["tape/length.rs uses document, which is above tape"]);
    let unknown = layers::upward(LAYERS, &[("novelty.rs", "")]);
    assert_eq!(unknown, ["novelty.rs is in no layer"]);
    let words = layers::upward(
        LAYERS,
        &[("units.rs", "// see crate::pack\n/// and [`crate::stance`]\nconst A: &str = \"crate::pack\";")],
    );
    assert_eq!(words, Vec::<String>::new(), "what is only spoken of is not used");
}
