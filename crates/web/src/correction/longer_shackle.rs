//! The words of longer shackles.

use wise_badger_mechanics::correction::longer_shackle::ROW;

use super::{FieldWords, KindWords};

pub(super) static WORDS: KindWords = KindWords {
    row: &ROW,
    name: "Longer shackles",
    in_a_list: "{new_length} shackles in place of {old_length}",
    fields: &[
        FieldWords {
            figure: "new_length",
            field: "shackle_new",
            label: "New shackle, bolt to bolt",
            hint: "middle to middle",
            usual: "",
            what: "A shackle",
        },
        FieldWords {
            figure: "old_length",
            field: "shackle_old",
            label: "Shackle that comes out, bolt to bolt",
            hint: "as measured, whatever was done before",
            usual: "",
            what: "The shackle that comes out",
        },
        FieldWords {
            figure: "front_half",
            field: "shackle_front_half",
            label: "Front eye to center bolt",
            hint: "",
            usual: "",
            what: "Front eye to center bolt",
        },
        FieldWords {
            figure: "rear_half",
            field: "shackle_rear_half",
            label: "Center bolt to shackle eye",
            hint: "",
            usual: "",
            what: "Center bolt to shackle eye",
        },
    ],
    account: &[
        "new shackle {new_length}",
        "shackle that comes out {old_length}",
        "front eye to center bolt {front_half}",
        "center bolt to shackle eye {rear_half}",
    ],
    formula: "height = height measured + (new shackle − old) × front half ÷ (front half + rear half)",
};
