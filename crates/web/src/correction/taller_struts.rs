//! The words of struts that are bought by their lift.

use wise_badger_mechanics::correction::taller_struts::ROW;

use super::KindWords;
use super::bought_springs::{ACCOUNT, FORMULA, fields};

pub(super) static WORDS: KindWords = KindWords {
    row: &ROW,
    name: "Struts, by their lift",
    in_a_list: "Struts sold as {lift} of lift[ in place of {old_lift}]",
    fields: &fields(["struts_lift", "struts_old_lift", "struts_set", "struts_added_rate"]),
    account: ACCOUNT,
    formula: FORMULA,
};
