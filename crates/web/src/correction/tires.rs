//! The words of tires of another size.

use wise_badger_mechanics::correction::tires::ROW;

use super::{FieldWords, KindWords};

pub(super) static WORDS: KindWords = KindWords {
    row: &ROW,
    name: "Tires of another size",
    in_a_list: "Tires {diameter} across in place of {old_diameter}",
    fields: &[
        FieldWords {
            figure: "diameter",
            field: "tire_diameter",
            label: "Across the new tires",
            hint: "by their size, as Sums works it out",
            usual: "",
            what: "A tire",
        },
        FieldWords {
            figure: "old_diameter",
            field: "tire_old_diameter",
            label: "Across those that come off",
            hint: "the same way",
            usual: "",
            what: "A tire",
        },
    ],
    account: &["{diameter} across in place of {old_diameter}", "the axle stands higher by {raises}"],
    formula: "height from the ground = height measured + half of what they are larger across; from the hub nothing changes",
};
