//! The words of a coil spacer.

use wise_badger_mechanics::correction::coil_spacer::ROW;

use super::{FieldWords, KindWords};

/// The field of the spacer that comes out, which Intake may know.
pub(super) const COMES_OUT: &str = "spacer_out";

pub(super) static WORDS: KindWords = KindWords {
    row: &ROW,
    name: "Coil spacer",
    in_a_list: "{thickness} coil spacer[ in place of {replaces}]",
    fields: &[
        FieldWords {
            figure: "thickness",
            field: "spacer",
            label: "Spacer height at the wheel",
            hint: "its own where the coil stands on the axle; on an arm, times pivot to wheel over pivot to coil",
            usual: "",
            what: "A spacer",
        },
        FieldWords {
            figure: "replaces",
            field: COMES_OUT,
            label: "Spacer that comes out",
            hint: "0 where none is there; one is never put on another",
            usual: "",
            what: "The spacer that comes out",
        },
    ],
    account: &["new spacer {thickness}", "spacer that comes out {replaces}"],
    formula: "height = height measured + new spacer − spacer that comes out: the springs carry what they carried, so any rate gives the same",
};
