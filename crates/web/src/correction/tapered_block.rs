//! The words of a tapered block.

use wise_badger_mechanics::correction::tapered_block::ROW;

use super::{FieldWords, KindWords};

pub(super) static WORDS: KindWords = KindWords {
    row: &ROW,
    name: "Tapered block or shim",
    in_a_list: "Tapered block, front {front_end}, rear {rear_end}",
    fields: &[
        FieldWords {
            figure: "front_end",
            field: "taper_front",
            label: "Height at its front end",
            hint: "short end forward turns the pinion up",
            usual: "",
            what: "The end of a block",
        },
        FieldWords {
            figure: "rear_end",
            field: "taper_rear",
            label: "Height at its rear end",
            hint: "",
            usual: "",
            what: "The end of a block",
        },
        FieldWords {
            figure: "length",
            field: "taper_length",
            label: "From end to end",
            hint: "along the spring",
            usual: "",
            what: "A block's length",
        },
    ],
    account: &["block {front_end} in front, {rear_end} behind, {length} long", "in its middle {raises}"],
    formula: "height = height measured + the block in its middle",
};
