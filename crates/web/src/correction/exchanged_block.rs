//! The words of a block in place of another.

use wise_badger_mechanics::correction::exchanged_block::ROW;

use super::{FieldWords, KindWords};

/// The field of the block that comes out, which Intake may know.
pub(super) const COMES_OUT: &str = "replaces";

pub(super) static WORDS: KindWords = KindWords {
    row: &ROW,
    name: "Block exchanged",
    in_a_list: "{thickness} block in place of {replaces}",
    fields: &[
        FieldWords {
            figure: "thickness",
            field: "new_thickness",
            label: "New block's height",
            hint: "",
            usual: "",
            what: "A block",
        },
        FieldWords {
            figure: "replaces",
            field: COMES_OUT,
            label: "Block that comes out",
            hint: "as measured; one is never put on another",
            usual: "",
            what: "The block that comes out",
        },
    ],
    account: &["new block {thickness}", "block that comes out {replaces}"],
    formula: "height = height measured + new block − block that comes out: the springs carry what they carried, so any rate gives the same",
};
