//! The words of helpers that are bought by what they carry.

use wise_badger_mechanics::correction::helper_by_capacity::ROW;

use super::{FieldWords, KindWords};

pub(super) static WORDS: KindWords = KindWords {
    row: &ROW,
    name: "Helper springs, by capacity",
    in_a_list: "Helper springs for {capacity} together, gap {engagement_gap}",
    fields: &[
        FieldWords {
            figure: "capacity",
            field: "helper_capacity",
            label: "Capacity, all of them together",
            hint: "as on the box; a pair sold at 1,000 lb each carries 2,000 together",
            usual: "",
            what: "The capacity of helpers",
        },
        FieldWords {
            figure: "working_travel",
            field: "helper_travel",
            label: "Travel over which they carry it",
            hint: "6 in where the box does not say",
            usual: "6",
            what: "The travel of helpers",
        },
        FieldWords {
            figure: "engagement_gap",
            field: "helper_gap",
            label: "Gap empty, before they bear",
            hint: "hung at full droop with no play: minus what the axle drops from rest to there",
            usual: "",
            what: "A helper's gap",
        },
    ],
    account: &["helpers for {capacity} together over {working_travel}: {pair_rate}", "gap {engagement_gap}"],
    formula: "helper rate = capacity ÷ its travel (our own working rule); rear rate × travel + helper rate × (travel − gap) = load; height = height measured + travel saved",
};
