//! The words of another overload leaf.

use wise_badger_mechanics::correction::other_overload_leaf::ROW;

use super::{FieldWords, KindWords};

pub(super) static WORDS: KindWords = KindWords {
    row: &ROW,
    name: "Other overload leaf",
    in_a_list: "Other overload leaf, gap {gap_opens} wider[, rate by {added_rate}]",
    fields: &[
        FieldWords {
            figure: "gap_opens",
            field: "overload_gap",
            label: "How much wider its gap is",
            hint: "flatter, wider; a minus where it joins in earlier",
            usual: "",
            what: "A gap",
        },
        FieldWords {
            figure: "added_rate",
            field: "overload_rate",
            label: "Rate it adds more, both together",
            hint: "0 where nobody says; a minus where it is softer",
            usual: "0",
            what: "The rate it adds",
        },
    ],
    account: &["gap wider by {gap_opens}", "rate it adds more {added_rate}"],
    formula: "rear rate × travel + rate of the new overload leaf × (travel − its gap) = load; where no overload leaf is believed in, nothing",
};
