//! The words of U-bolts.

use wise_badger_mechanics::correction::u_bolts::ROW;

use super::{FieldWords, KindWords};

pub(super) static WORDS: KindWords = KindWords {
    row: &ROW,
    name: "U-bolts",
    in_a_list: "U-bolts, leg {leg}",
    fields: &[FieldWords {
        figure: "leg",
        field: "u_bolt_leg",
        label: "Leg of the new ones",
        hint: "from inside the bend to the end",
        usual: "",
        what: "The leg of a U-bolt",
    }],
    account: &["leg {leg}"],
    formula: "it carries nothing: heights stay as they are without it; what it makes good stands under what else changes",
};
