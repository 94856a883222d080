//! The words of springs taken from under an axle to over it.

use wise_badger_mechanics::correction::spring_over::ROW;

use super::{FieldWords, KindWords};

pub(super) static WORDS: KindWords = KindWords {
    row: &ROW,
    name: "Springs from under the axle to over it",
    in_a_list: "Springs over the axle, tube {tube} and pack {stack}",
    fields: &[
        FieldWords {
            figure: "tube",
            field: "axle_tube",
            label: "Across the axle, seats and all",
            hint: "where the springs are clamped",
            usual: "",
            what: "An axle",
        },
        FieldWords {
            figure: "stack",
            field: "axle_stack",
            label: "Height of the pack there",
            hint: "all its leaves, clamped",
            usual: "",
            what: "A pack",
        },
    ],
    account: &["axle {tube} across, pack {stack} high", "the frame stands higher by {raises}"],
    formula: "height = height measured + axle + pack",
};
