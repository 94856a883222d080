//! The words of pads under the overload leaves.

use wise_badger_mechanics::correction::overload_pads::ROW;

use super::{FieldWords, KindWords};

pub(super) static WORDS: KindWords = KindWords {
    row: &ROW,
    name: "Overload contact pads",
    in_a_list: "Overload contacts raised[ front {front_half},] rear {rear_half}",
    fields: &[
        FieldWords {
            figure: "front_half",
            field: "pads_front",
            label: "At the front halves",
            hint: "0 where none goes in",
            usual: "0",
            what: "A pad",
        },
        FieldWords {
            figure: "rear_half",
            field: "pads_rear",
            label: "At the rear halves",
            hint: "0 where none goes in",
            usual: "",
            what: "A pad",
        },
    ],
    account: &["contacts raised {front_half} in front and {rear_half} behind", "over the axle the gap closes by {closes}"],
    formula: "rear rate × travel + rate of the overload leaf × (travel − gap + what it closes by) = load; where no overload leaf is believed in, nothing",
};
