//! The words of helper coils.

use wise_badger_mechanics::correction::helper_coils::ROW;

use super::KindWords;
use super::helper_by_capacity::{FORMULA, fields};

pub(super) static WORDS: KindWords = KindWords {
    row: &ROW,
    name: "Helper coils, by capacity",
    in_a_list: "Helper coils for {capacity} together, gap {engagement_gap}",
    fields: &fields(
        ["helper_coil_capacity", "helper_coil_travel", "helper_coil_gap"],
        [
            "free height less solid height; 6 in where nobody says",
            "nothing where they just touch; a minus where they are squeezed in",
        ],
    ),
    account: &["helper coils for {capacity} together over {working_travel}: {pair_rate}", "gap {engagement_gap}"],
    formula: FORMULA,
};
