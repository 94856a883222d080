//! The words of the radius arms' brackets.

use wise_badger_mechanics::correction::radius_arm_drop::ROW;

use super::{FieldWords, KindWords};

pub(super) static WORDS: KindWords = KindWords {
    row: &ROW,
    name: "Radius arm drop brackets",
    in_a_list: "Radius arms dropped {dropped}",
    fields: &[FieldWords {
        figure: "dropped",
        field: "radius_arm_dropped",
        label: "How far they bring the arms down",
        hint: "at the end on the frame",
        usual: "",
        what: "A drop",
    }],
    account: &["arms down {dropped}"],
    formula: "it carries nothing: heights stay as they are without it; what it makes good stands under what else changes",
};
