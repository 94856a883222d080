//! The words of bags inside the coils.

use wise_badger_mechanics::correction::bags_in_coils::ROW;

use super::{FieldWords, KindWords};

pub(super) static WORDS: KindWords = KindWords {
    row: &ROW,
    name: "Bags inside the coils",
    in_a_list: "Bags inside the coils at {pressure}",
    fields: &[
        FieldWords {
            figure: "diameter",
            field: "coil_bag_diameter",
            label: "Across the bag, blown up",
            hint: "at most the inside of the coil; for coils that stand on the axle",
            usual: "",
            what: "A bag's diameter",
        },
        FieldWords {
            figure: "height",
            field: "coil_bag_height",
            label: "Height of the bag, vehicle empty",
            hint: "8 in where nobody measured it; it makes the ride, not the height",
            usual: "8",
            what: "A bag's height",
        },
        FieldWords {
            figure: "pressure",
            field: "coil_bag_pressure",
            label: "Pressure, by the gauge",
            hint: "with the vehicle standing so; below, the pressure in each case",
            usual: "",
            what: "A pressure",
        },
        FieldWords {
            figure: "least_pressure",
            field: "coil_bag_least",
            label: "Its least pressure",
            hint: "by its maker, so that the coil does not pinch it",
            usual: "5",
            what: "A pressure",
        },
        FieldWords {
            figure: "most_pressure",
            field: "coil_bag_most",
            label: "Its most pressure",
            hint: "by its maker",
            usual: "35",
            what: "A pressure",
        },
    ],
    account: &["bags {diameter} across, at {pressure} one carries {carries}", "they take {least_pressure} to {most_pressure}"],
    formula: "force of one = pressure × π ÷ 4 × diameter²; rear rate × travel + force of two = load; height = height measured + travel saved",
};
