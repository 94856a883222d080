//! The words of bump stops made longer.

use wise_badger_mechanics::correction::stop_extension::ROW;

use super::{FieldWords, KindWords};

pub(super) static WORDS: KindWords = KindWords {
    row: &ROW,
    name: "Stop extension",
    in_a_list: "Stops made {height} longer",
    fields: &[FieldWords {
        figure: "height",
        field: "stop_extension",
        label: "How much longer",
        hint: "what goes between frame and stop",
        usual: "",
        what: "A stop extension",
    }],
    account: &["{height} longer"],
    formula: "gap at the stop = gap − what it is longer; the height changes only where the stop then bears",
};
