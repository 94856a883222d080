//! The words of helpers.

use wise_badger_mechanics::correction::helper_spring::ROW;

use super::{FieldWords, KindWords};

pub(super) static WORDS: KindWords = KindWords {
    row: &ROW,
    name: "Helper springs, by rate",
    in_a_list: "Helper springs, {pair_rate} together, gap {engagement_gap}",
    fields: &[
        FieldWords {
            figure: "pair_rate",
            field: "helper_rate",
            label: "Rate of all of them together",
            hint: "",
            usual: "",
            what: "The rate of helpers",
        },
        FieldWords {
            figure: "engagement_gap",
            field: "engagement_gap",
            label: "Gap empty, before it bears",
            hint: "a minus is set tight",
            usual: "",
            what: "A helper's gap",
        },
    ],
    account: &["helpers {pair_rate} together", "gap {engagement_gap}"],
    formula: "rear rate × travel + helper rate × (travel − gap) = load; height = height measured + travel saved",
};
