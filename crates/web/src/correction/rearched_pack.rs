//! The words of re-arched packs.

use wise_badger_mechanics::correction::rearched_pack::ROW;

use super::{FieldWords, KindWords};

pub(super) static WORDS: KindWords = KindWords {
    row: &ROW,
    name: "Re-arched pack",
    in_a_list: "Re-arched pack, {free_height_gained} of free height",
    fields: &[FieldWords {
        figure: "free_height_gained",
        field: "free_height_gained",
        label: "Free height gained",
        hint: "",
        usual: "",
        what: "Free height gained by re-arching",
    }],
    account: &["free height gained {free_height_gained}"],
    formula: "height = height measured + free height gained: same leaves, same rate, more arch",
};
