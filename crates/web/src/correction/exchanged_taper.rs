//! The words of a tapered block in place of another.

use wise_badger_mechanics::correction::exchanged_taper::ROW;

use super::{FieldWords, KindWords};

/// The field of the block that comes out, which Intake may know.
pub(super) const COMES_OUT: &str = "taper_replaces";

pub(super) static WORDS: KindWords = KindWords {
    row: &ROW,
    name: "Tapered block exchanged",
    in_a_list: "Tapered block, front {front_end}, rear {rear_end}, in place of {replaces}",
    fields: &[
        FieldWords {
            figure: "front_end",
            field: "new_taper_front",
            label: "New block's front end",
            hint: "short end forward turns the pinion up",
            usual: "",
            what: "The end of a block",
        },
        FieldWords {
            figure: "rear_end",
            field: "new_taper_rear",
            label: "New block's rear end",
            hint: "",
            usual: "",
            what: "The end of a block",
        },
        FieldWords {
            figure: "length",
            field: "new_taper_length",
            label: "From end to end",
            hint: "along the spring",
            usual: "",
            what: "A block's length",
        },
        FieldWords {
            figure: "replaces",
            field: COMES_OUT,
            label: "Block that comes out",
            hint: "as measured in its middle; one is never put on another",
            usual: "",
            what: "The block that comes out",
        },
        FieldWords {
            figure: "replaces_taper",
            field: "taper_of_old",
            label: "That one taller behind by",
            hint: "0 for a straight one; less than 0 where it is taller in front",
            usual: "0",
            what: "The taper of the block that comes out",
        },
    ],
    account: &[
        "new block {front_end} in front, {rear_end} behind, {length} long, {middle} in its middle",
        "block that comes out {replaces}, taller behind by {replaces_taper}",
    ],
    formula: "height = height measured + the new block in its middle − the block that comes out; the axle turns by what the tapers differ",
};
