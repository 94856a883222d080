//! The words of helper coils.

use wise_badger_mechanics::correction::helper_coils::ROW;

use super::{FieldWords, KindWords};

pub(super) static WORDS: KindWords = KindWords {
    row: &ROW,
    name: "Helper coils, by capacity",
    in_a_list: "Helper coils for {capacity} together, gap {engagement_gap}",
    fields: &[
        FieldWords {
            figure: "capacity",
            field: "helper_coil_capacity",
            label: "Capacity, all of them together",
            hint: "as on the box; a pair sold at 1,000 lb each carries 2,000 together",
            usual: "",
            what: "The capacity of helpers",
        },
        FieldWords {
            figure: "working_travel",
            field: "helper_coil_travel",
            label: "Travel over which they carry it",
            hint: "free height less solid height; 6 in where nobody says",
            usual: "6",
            what: "The travel of helpers",
        },
        FieldWords {
            figure: "engagement_gap",
            field: "helper_coil_gap",
            label: "Gap empty, before they bear",
            hint: "nothing where they just touch; a minus where they are squeezed in",
            usual: "",
            what: "A helper's gap",
        },
    ],
    account: &["helper coils for {capacity} together over {working_travel}: {pair_rate}", "gap {engagement_gap}"],
    formula: "helper rate = capacity ÷ its travel (our own working rule); rear rate × travel + helper rate × (travel − gap) = load; height = height measured + travel saved",
};
