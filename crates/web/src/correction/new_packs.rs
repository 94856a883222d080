//! The words of new packs that are bought by their lift.

use wise_badger_mechanics::correction::new_packs::ROW;

use super::KindWords;
use super::bought_springs::{ACCOUNT, FORMULA, fields};

pub(super) static WORDS: KindWords = KindWords {
    row: &ROW,
    name: "New packs, by their lift",
    in_a_list: "New packs sold as {lift} of lift[ in place of {old_lift}]",
    fields: &fields(["packs_lift", "packs_old_lift", "packs_set", "packs_added_rate"]),
    account: ACCOUNT,
    formula: FORMULA,
};
