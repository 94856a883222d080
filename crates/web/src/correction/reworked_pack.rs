//! The words of packs from the bench, which is where they are worked on.

use wise_badger_mechanics::correction::reworked_pack::ROW;

use super::KindWords;

pub(super) static WORDS: KindWords = KindWords {
    row: &ROW,
    name: "Pack from the bench",
    in_a_list: "Pack from the bench: {words}",
    fields: &[],
    account: &["arch with no load: found {found_arch}, planned {planned_arch}"],
    formula: "height = height measured + arch of the planned pack − arch of the pack found, each under the load it carries there",
};
