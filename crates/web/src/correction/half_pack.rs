//! The words of a half-pack.

use wise_badger_mechanics::correction::half_pack::ROW;

use super::{FieldWords, KindWords};

pub(super) static WORDS: KindWords = KindWords {
    row: &ROW,
    name: "Half-pack under the main pack",
    in_a_list: "Half-pack sold as {lift} of lift for {capacity} together",
    fields: &[
        FieldWords {
            figure: "lift",
            field: "half_pack_lift",
            label: "Lift it is sold for",
            hint: "empty, on a sound pack; what the old leaves have set stays",
            usual: "",
            what: "A half-pack's lift",
        },
        FieldWords {
            figure: "capacity",
            field: "half_pack_capacity",
            label: "Capacity, both sides together",
            hint: "as on the box",
            usual: "",
            what: "The capacity of half-packs",
        },
        FieldWords {
            figure: "working_travel",
            field: "half_pack_travel",
            label: "Travel over which they carry it",
            hint: "6 in where the box does not say",
            usual: "6",
            what: "The travel of half-packs",
        },
        FieldWords {
            figure: "stack",
            field: "half_pack_stack",
            label: "Its leaves and block, at the center bolt",
            hint: "what U-bolts and center bolt must reach round",
            usual: "",
            what: "A half-pack's stack",
        },
    ],
    account: &[
        "sold as {lift} of lift",
        "half-packs for {capacity} together over {working_travel}: {pair_rate}",
        "stack at the center bolt {stack}",
    ],
    formula: "rate added = capacity ÷ its travel (our own working rule); it carries rear rate × lift empty; height where rear rate, half-pack and load balance",
};
