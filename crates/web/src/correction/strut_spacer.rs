//! The words of a strut spacer.

use wise_badger_mechanics::correction::strut_spacer::ROW;

use super::{FieldWords, KindWords};

pub(super) static WORDS: KindWords = KindWords {
    row: &ROW,
    name: "Strut spacer",
    in_a_list: "{thickness} strut spacer",
    fields: &[
        FieldWords {
            figure: "thickness",
            field: "strut_spacer",
            label: "Thickness, on top of the strut",
            hint: "as it is made, not the lift it is sold for",
            usual: "",
            what: "A strut spacer",
        },
        FieldWords {
            figure: "pivot_to_strut",
            field: "pivot_to_strut",
            label: "Along the lower arm: pivot to strut",
            hint: "where the strut stands on the arm",
            usual: "",
            what: "The arm to the strut",
        },
        FieldWords {
            figure: "pivot_to_wheel",
            field: "pivot_to_wheel",
            label: "Along the lower arm: pivot to ball joint",
            hint: "",
            usual: "",
            what: "The arm to the ball joint",
        },
    ],
    account: &["spacer {thickness}", "arm {pivot_to_strut} to the strut, {pivot_to_wheel} to the ball joint", "lift {lifts}"],
    formula: "lift = thickness × (pivot to ball joint) ÷ (pivot to strut); the springs carry what they carried, so any rate gives the same",
};
