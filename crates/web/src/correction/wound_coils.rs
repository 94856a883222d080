//! The words of new coils that were measured by their wire beside the old.

use wise_badger_mechanics::correction::wound_coils::ROW;

use super::{FieldWords, KindWords};

const WIRE: &str = "with calipers, paint scraped off";
const OUTSIDE: &str = "outside to outside, in the middle of its height";
const TURNS: &str = "that move: without those that lie on a seat or on each other";

pub(super) static WORDS: KindWords = KindWords {
    row: &ROW,
    name: "New coils, by wire and turns beside the old",
    in_a_list: "New coils, {new_wire} wire, {new_height} free in place of {old_height}",
    fields: &[
        FieldWords {
            figure: "new_height",
            field: "wound_new_height",
            label: "Free height, new",
            hint: "side by side on a flat floor, with their isolators",
            usual: "",
            what: "A coil's free height",
        },
        FieldWords {
            figure: "old_height",
            field: "wound_old_height",
            label: "Free height, old",
            hint: "",
            usual: "",
            what: "A coil's free height",
        },
        FieldWords {
            figure: "standing_height",
            field: "wound_standing_height",
            label: "Old one as it stands in the vehicle, empty",
            hint: "between the same two faces, on its wheels",
            usual: "",
            what: "A coil's height",
        },
        FieldWords {
            figure: "new_wire",
            field: "wound_new_wire",
            label: "Wire, new",
            hint: WIRE,
            usual: "",
            what: "A coil's wire",
        },
        FieldWords {
            figure: "new_outside",
            field: "wound_new_outside",
            label: "Across, new",
            hint: OUTSIDE,
            usual: "",
            what: "A coil's diameter",
        },
        FieldWords {
            figure: "new_turns",
            field: "wound_new_turns",
            label: "Turns, new",
            hint: TURNS,
            usual: "",
            what: "A coil's working turns",
        },
        FieldWords {
            figure: "old_wire",
            field: "wound_old_wire",
            label: "Wire, old",
            hint: WIRE,
            usual: "",
            what: "A coil's wire",
        },
        FieldWords {
            figure: "old_outside",
            field: "wound_old_outside",
            label: "Across, old",
            hint: OUTSIDE,
            usual: "",
            what: "A coil's diameter",
        },
        FieldWords {
            figure: "old_turns",
            field: "wound_old_turns",
            label: "Turns, old",
            hint: TURNS,
            usual: "",
            what: "A coil's working turns",
        },
    ],
    account: &[
        "free heights {new_height} and {old_height}: taller by {taller}",
        "the old one is squashed by {squashed} empty",
        "wire {new_wire}, {new_outside} across, {new_turns}: {new_rate} for one new coil",
        "wire {old_wire}, {old_outside} across, {old_turns}: {old_rate} for one old coil",
        "two turns more on the seats: the new one is solid at {solid_height}",
    ],
    formula: "rate of a coil = shear modulus × wire⁴ / (8 × (across − wire)³ × turns); the old coil pushes with rate × (what it is squashed by + travel), the new one with the rates' ratio × rate × (that + taller + travel); height where both sides balance",
};
