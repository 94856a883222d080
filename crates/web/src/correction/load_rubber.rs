//! The words of a load rubber.

use wise_badger_mechanics::correction::load_rubber::ROW;

use super::{FieldWords, KindWords};

pub(super) static WORDS: KindWords = KindWords {
    row: &ROW,
    name: "Load rubber, by its sheet",
    in_a_list: "Load rubber, clearance {clearance}",
    fields: &[
        FieldWords {
            figure: "clearance",
            field: "clearance",
            label: "Clearance empty",
            hint: "",
            usual: "",
            what: "A rubber's clearance",
        },
        FieldWords {
            figure: "force",
            field: "force_table",
            label: "Force of one rubber: compression ; force, one point a line",
            hint: "From the part's own sheet; start at 0 ; 0.",
            usual: "",
            what: "The rubber's force",
        },
    ],
    account: &["clearance {clearance}", "force of one {force}"],
    formula: "rear rate × travel + force of two rubbers at (travel − clearance) = load; height = height measured + travel saved",
};
