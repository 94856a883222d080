//! The words of an added leaf that is bought by its lift.

use wise_badger_mechanics::correction::leaf_by_lift::ROW;

use super::{FieldWords, KindWords};

pub(super) static WORDS: KindWords = KindWords {
    row: &ROW,
    name: "Add-a-leaf, by its lift",
    in_a_list: "Add-a-leaf sold as {lift} of lift for {capacity} together",
    fields: &[
        FieldWords {
            figure: "lift",
            field: "leaf_lift",
            label: "Lift it is sold for",
            hint: "empty, on a sound pack; what the old leaves have set stays",
            usual: "",
            what: "A leaf's lift",
        },
        FieldWords {
            figure: "capacity",
            field: "leaf_capacity",
            label: "Capacity, both packs together",
            hint: "as on the box",
            usual: "",
            what: "The capacity of the leaves",
        },
        FieldWords {
            figure: "working_travel",
            field: "leaf_travel",
            label: "Travel over which they carry it",
            hint: "6 in where the box does not say",
            usual: "6",
            what: "The travel of the leaves",
        },
    ],
    account: &["sold as {lift} of lift", "leaves for {capacity} together over {working_travel}: {pair_rate}"],
    formula: "rate added = capacity ÷ its travel (our own working rule); it carries rear rate × lift empty; height where rear rate, leaf and load balance",
};
