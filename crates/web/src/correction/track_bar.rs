//! The words of a track bar.

use wise_badger_mechanics::correction::track_bar::ROW;

use super::{FieldWords, KindWords};

pub(super) static WORDS: KindWords = KindWords {
    row: &ROW,
    name: "Track bar",
    in_a_list: "Track bar[ dropped {dropped}][, longer by {longer}]",
    fields: &[
        FieldWords {
            figure: "dropped",
            field: "track_bar_dropped",
            label: "Drop bracket on the frame brings it down by",
            hint: "0 where the bar alone is another",
            usual: "0",
            what: "A drop",
        },
        FieldWords {
            figure: "longer",
            field: "track_bar_longer",
            label: "Adjustable bar longer by",
            hint: "0 of the bar there is",
            usual: "0",
            what: "A bar",
        },
    ],
    account: &["bracket down {dropped}, bar longer by {longer}"],
    formula: "it carries nothing: heights stay as they are without it; what it makes good stands under what else changes",
};
