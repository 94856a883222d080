//! The words of an anti-roll bar.

use wise_badger_mechanics::correction::anti_roll_bar::ROW;

use super::{FieldWords, KindWords};

pub(super) static WORDS: KindWords = KindWords {
    row: &ROW,
    name: "Sway bar",
    in_a_list: "Sway bar, {end_rate} at an end",
    fields: &[
        FieldWords {
            figure: "end_rate",
            field: "bar_rate",
            label: "Rate at one end",
            hint: "force there for each inch or millimeter above the other end",
            usual: "",
            what: "A bar's rate",
        },
        FieldWords {
            figure: "base",
            field: "bar_base",
            label: "Between its ends",
            hint: "",
            usual: "",
            what: "A bar between its ends",
        },
    ],
    account: &["bar {end_rate} at an end, {base} between them"],
    formula: "height = height measured: a bar carries nothing while both sides move alike, and takes part of what leans",
};
