//! The words of longer brake hoses.

use wise_badger_mechanics::correction::brake_hoses::ROW;

use super::{FieldWords, KindWords};

pub(super) static WORDS: KindWords = KindWords {
    row: &ROW,
    name: "Longer brake hoses",
    in_a_list: "Brake hoses longer by {longer}",
    fields: &[FieldWords {
        figure: "longer",
        field: "hose_longer",
        label: "How much longer, or its bracket nearer",
        hint: "both sides of the axle, and the one to the frame",
        usual: "",
        what: "A brake hose",
    }],
    account: &["hoses longer by {longer}"],
    formula: "it carries nothing: heights stay as they are without it; what it makes good stands under what else changes",
};
