//! What the words of new packs and new coils, bought by their lift, have in common.

use super::FieldWords;

/// Their fields, by the names that these have on the form.
pub(super) const fn fields([lift, old_lift, set, added_rate]: [&'static str; 4]) -> [FieldWords; 4] {
    [
        FieldWords {
            figure: "lift",
            field: lift,
            label: "Lift they are sold for",
            hint: "0 for springs as the maker of the vehicle fitted them",
            usual: "",
            what: "A lift",
        },
        FieldWords {
            figure: "old_lift",
            field: old_lift,
            label: "Lift the old ones were sold for",
            hint: "0 where they came with the vehicle",
            usual: "0",
            what: "The old lift",
        },
        FieldWords {
            figure: "set",
            field: set,
            label: "How far the old ones have set",
            hint: "1/2 in where nobody knows how high the vehicle stood new",
            usual: "1/2",
            what: "A set",
        },
        FieldWords {
            figure: "added_rate",
            field: added_rate,
            label: "Rate they add, both together",
            hint: "0 where nobody says; a minus where they are softer",
            usual: "0",
            what: "The rate they add",
        },
    ]
}

pub(super) const ACCOUNT: &[&str] = &[
    "sold as {lift} of lift, the old ones as {old_lift}",
    "set that goes with the old ones {set}",
    "rise empty {rises}",
    "rate added {added_rate}",
];

pub(super) const FORMULA: &str = "rise empty = lift sold − lift of the old ones + set of the old ones (our own working rule); loaded they come down by load ÷ (rate + rate added)";
