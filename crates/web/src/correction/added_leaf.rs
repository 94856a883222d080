//! The words of an added leaf.

use wise_badger_mechanics::correction::added_leaf::ROW;

use super::{FieldWords, KindWords};

pub(super) static WORDS: KindWords = KindWords {
    row: &ROW,
    name: "Add-a-leaf, by rate",
    in_a_list: "Add-a-leaf, {pair_rate} together, lift {lift}",
    fields: &[
        FieldWords {
            figure: "pair_rate",
            field: "leaf_rate",
            label: "Rate all the leaves add together",
            hint: "",
            usual: "",
            what: "What leaves add to the rate",
        },
        FieldWords { figure: "lift", field: "lift", label: "Lift when empty", hint: "", usual: "", what: "An add-a-leaf's lift" },
    ],
    account: &["leaves add {pair_rate} together", "lift empty {lift}"],
    formula: "lift = lift empty + load × (1 / rate − 1 / (rate + leaf rate)); height = height measured + lift",
};
