//! The words of a differential drop.

use wise_badger_mechanics::correction::differential_drop::ROW;

use super::{FieldWords, KindWords};

pub(super) static WORDS: KindWords = KindWords {
    row: &ROW,
    name: "Differential drop",
    in_a_list: "Differential dropped {dropped}",
    fields: &[FieldWords {
        figure: "dropped",
        field: "differential_dropped",
        label: "How far it comes down",
        hint: "in front, where the half-shafts leave it",
        usual: "",
        what: "A drop",
    }],
    account: &["differential down {dropped}"],
    formula: "it carries nothing: heights stay as they are without it; what it makes good stands under what else changes",
};
