//! The order of the modules: each uses only those before it, and no file goes round in a ring.

#![allow(clippy::unwrap_used, clippy::indexing_slicing, reason = "a test fails where it stands")]

#[path = "support/layers.rs"]
mod layers;

/// From the lowest, as `src/lib.rs` says.
const LAYERS: &[&str] = &[
    "units",
    "bound",
    "uncertain",
    "mixture",
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

#[test]
fn a_ring_of_files_put_back_is_found_also_through_what_a_folder_hands_on() {
    let plain = [("stance/solver.rs", "use super::newton::Rest;"), ("stance/newton.rs", "use super::solver::Solver;")];
    assert_eq!(layers::rings(&plain), [["stance/newton", "stance/solver"]]);
    let handed_on = [
        ("pack/mod.rs", "mod arch;\nmod fit;\npub use arch::Arch;\npub use fit::{Fit, Given};"),
        ("pack/arch.rs", "use crate::pack::Fit;"),
        ("pack/fit.rs", "use super::{Arch, Given};"),
    ];
    assert_eq!(layers::rings(&handed_on), [["pack/arch", "pack/fit"]]);
    let own = [("pack/mod.rs", "mod fit;\nfn f() { fit::work() }"), ("pack/fit.rs", "use super::Leaf;")];
    assert_eq!(layers::rings(&own), [["pack", "pack/fit"]]);
    let one_way = [("pack/mod.rs", "mod fit;\npub use fit::Fit;"), ("pack/fit.rs", "use super::Leaf;")];
    assert_eq!(layers::rings(&one_way), Vec::<Vec<String>>::new(), "handing a name on is no use of it");
}
