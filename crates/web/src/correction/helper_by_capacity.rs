//! The words of helpers that are bought by what they carry.

use wise_badger_mechanics::correction::helper_by_capacity::ROW;

use super::{FieldWords, KindWords};

/// The fields of whatever helps by its capacity, by the names that these have on the form, with what is said of its travel and gap.
pub(super) const fn fields(
    [capacity, travel, gap]: [&'static str; 3],
    [of_travel, of_gap]: [&'static str; 2],
) -> [FieldWords; 3] {
    [
        FieldWords {
            figure: "capacity",
            field: capacity,
            label: "Capacity, all of them together",
            hint: "as on the box; a pair sold at 1,000 lb each carries 2,000 together",
            usual: "",
            what: "The capacity of helpers",
        },
        FieldWords {
            figure: "working_travel",
            field: travel,
            label: "Travel over which they carry it",
            hint: of_travel,
            usual: "6",
            what: "The travel of helpers",
        },
        FieldWords {
            figure: "engagement_gap",
            field: gap,
            label: "Gap empty, before they bear",
            hint: of_gap,
            usual: "",
            what: "A helper's gap",
        },
    ]
}

pub(super) const FORMULA: &str = "helper rate = capacity ÷ its travel (our own working rule); rear rate × travel + helper rate × (travel − gap) = load; height = height measured + travel saved";

pub(super) static WORDS: KindWords = KindWords {
    row: &ROW,
    name: "Helper springs, by capacity",
    in_a_list: "Helper springs for {capacity} together, gap {engagement_gap}",
    fields: &fields(
        ["helper_capacity", "helper_travel", "helper_gap"],
        ["6 in where the box does not say", "hung at full droop with no play: minus what the axle drops from rest to there"],
    ),
    account: &["helpers for {capacity} together over {working_travel}: {pair_rate}", "gap {engagement_gap}"],
    formula: FORMULA,
};
