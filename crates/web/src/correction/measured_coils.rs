//! The words of new coils that were measured beside the old.

use wise_badger_mechanics::correction::measured_coils::ROW;

use super::{FieldWords, KindWords};

pub(super) static WORDS: KindWords = KindWords {
    row: &ROW,
    name: "New coils, measured beside the old",
    in_a_list: "New coils, {new_height} free in place of {old_height}",
    fields: &[
        FieldWords {
            figure: "new_height",
            field: "coil_new_height",
            label: "Free height, new",
            hint: "side by side on a flat floor, with their isolators",
            usual: "",
            what: "A coil's free height",
        },
        FieldWords {
            figure: "old_height",
            field: "coil_old_height",
            label: "Free height, old",
            hint: "",
            usual: "",
            what: "A coil's free height",
        },
        FieldWords {
            figure: "standing_height",
            field: "coil_standing_height",
            label: "Old one as it stands in the vehicle, empty",
            hint: "between the same two faces, on its wheels",
            usual: "",
            what: "A coil's height",
        },
        FieldWords {
            figure: "solid_height",
            field: "coil_solid_height",
            label: "New one pressed solid",
            hint: "all its turns, times the wire",
            usual: "",
            what: "A coil pressed solid",
        },
        FieldWords {
            figure: "new_rate",
            field: "coil_new_rate",
            label: "Rate of one coil, new",
            hint: "by wire, diameter and turns: the sum of the coil works it out",
            usual: "",
            what: "A coil's rate",
        },
        FieldWords {
            figure: "old_rate",
            field: "coil_old_rate",
            label: "Rate of one coil, old",
            hint: "by the same sum",
            usual: "",
            what: "A coil's rate",
        },
    ],
    account: &[
        "free heights {new_height} and {old_height}: taller by {taller}",
        "the old one is squashed by {squashed} empty",
        "the new one is solid at {solid_height}",
        "rates of one coil {new_rate} and {old_rate}",
    ],
    formula: "the old coil pushes with rate × (what it is squashed by + travel), the new one with the rates' ratio × rate × (that + taller + travel); height where both sides balance",
};
