//! The words of new coils that are bought by their lift.

use wise_badger_mechanics::correction::new_coils::ROW;

use super::KindWords;
use super::bought_springs::{ACCOUNT, FORMULA, fields};

pub(super) static WORDS: KindWords = KindWords {
    row: &ROW,
    name: "New coils, by their lift",
    in_a_list: "New coils sold as {lift} of lift[ in place of {old_lift}]",
    fields: &fields(["coils_lift", "coils_old_lift", "coils_set", "coils_added_rate"]),
    account: ACCOUNT,
    formula: FORMULA,
};
