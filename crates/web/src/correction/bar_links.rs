//! The words of a sway bar's links.

use wise_badger_mechanics::correction::bar_links::ROW;

use super::{FieldWords, KindWords};

pub(super) static WORDS: KindWords = KindWords {
    row: &ROW,
    name: "Longer sway bar links",
    in_a_list: "Sway bar links longer by {longer}",
    fields: &[FieldWords {
        figure: "longer",
        field: "links_longer",
        label: "How much longer",
        hint: "hole to hole, beside the old ones",
        usual: "",
        what: "A link",
    }],
    account: &["links longer by {longer}"],
    formula: "it carries nothing: heights stay as they are without it; what it makes good stands under what else changes",
};
