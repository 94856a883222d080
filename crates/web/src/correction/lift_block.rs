//! The words of a block.

use wise_badger_mechanics::correction::lift_block::ROW;

use super::{FieldWords, KindWords};

pub(super) static WORDS: KindWords = KindWords {
    row: &ROW,
    name: "Lift block",
    in_a_list: "Lift block, {thickness}",
    fields: &[FieldWords {
        figure: "thickness",
        field: "thickness",
        label: "Block height",
        hint: "",
        usual: "",
        what: "A block",
    }],
    account: &["block {thickness}"],
    formula: "height = height measured + block: the springs carry what they carried, so any rate gives the same",
};
