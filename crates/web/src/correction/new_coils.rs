//! The words of new coils that are bought by their lift.

use wise_badger_mechanics::correction::new_coils::ROW;

use super::{FieldWords, KindWords};

pub(super) static WORDS: KindWords = KindWords {
    row: &ROW,
    name: "New coils, by their lift",
    in_a_list: "New coils sold as {lift} of lift[ in place of {old_lift}]",
    fields: &[
        FieldWords {
            figure: "lift",
            field: "coils_lift",
            label: "Lift they are sold for",
            hint: "0 for springs as the maker of the vehicle fitted them",
            usual: "",
            what: "A lift",
        },
        FieldWords {
            figure: "old_lift",
            field: "coils_old_lift",
            label: "Lift the old ones were sold for",
            hint: "0 where they came with the vehicle",
            usual: "0",
            what: "The old lift",
        },
        FieldWords {
            figure: "set",
            field: "coils_set",
            label: "How far the old ones have set",
            hint: "1/2 in where nobody knows how high the vehicle stood new",
            usual: "1/2",
            what: "A set",
        },
        FieldWords {
            figure: "added_rate",
            field: "coils_added_rate",
            label: "Rate they add, both together",
            hint: "0 where nobody says; a minus where they are softer",
            usual: "0",
            what: "The rate they add",
        },
    ],
    account: &[
        "sold as {lift} of lift, the old ones as {old_lift}",
        "set that goes with the old ones {set}",
        "rise empty {rises}",
        "rate added {added_rate}",
    ],
    formula: "rise empty = lift sold − lift of the old ones + set of the old ones (our own working rule); loaded they come down by load ÷ (rate + rate added)",
};
