//! The words of other shocks.

use wise_badger_mechanics::correction::shocks::ROW;

use super::{FieldWords, KindWords};

pub(super) static WORDS: KindWords = KindWords {
    row: &ROW,
    name: "Other shocks",
    in_a_list: "Shocks {new_open} open, {new_closed} closed",
    fields: &[
        FieldWords {
            figure: "new_open",
            field: "shock_new_open",
            label: "New one, drawn out",
            hint: "eye to eye, both laid side by side",
            usual: "",
            what: "A shock drawn out",
        },
        FieldWords {
            figure: "old_open",
            field: "shock_old_open",
            label: "Old one, drawn out",
            hint: "",
            usual: "",
            what: "A shock drawn out",
        },
        FieldWords {
            figure: "new_closed",
            field: "shock_new_closed",
            label: "New one, pressed together",
            hint: "",
            usual: "",
            what: "A shock pressed together",
        },
        FieldWords {
            figure: "old_closed",
            field: "shock_old_closed",
            label: "Old one, pressed together",
            hint: "",
            usual: "",
            what: "A shock pressed together",
        },
        FieldWords {
            figure: "mounts_nearer",
            field: "shock_mounts",
            label: "Mounts brought nearer by",
            hint: "a mount on the axle moved up 2 in: 2; 0 where they stay",
            usual: "0",
            what: "A mount",
        },
    ],
    account: &[
        "drawn out {new_open} in place of {old_open}, together {new_closed} in place of {old_closed}",
        "mounts nearer by {mounts_nearer}",
        "draws out further by {opens}, closes further by {closes}",
    ],
    formula: "it carries nothing: heights stay as they are without it; what it makes good stands under what else changes",
};
