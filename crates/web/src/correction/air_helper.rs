//! The words of air helpers between frame and axle.

use wise_badger_mechanics::correction::air_helper::ROW;

use super::{FieldWords, KindWords};

pub(super) static WORDS: KindWords = KindWords {
    row: &ROW,
    name: "Air helpers",
    in_a_list: "Air helpers at {pressure}",
    fields: &[
        FieldWords {
            figure: "capacity",
            field: "bag_capacity",
            label: "What one bag carries",
            hint: "half of it where the box gives the pair",
            usual: "",
            what: "What a bag carries",
        },
        FieldWords {
            figure: "capacity_pressure",
            field: "bag_capacity_pressure",
            label: "At a pressure of",
            hint: "the one that its capacity is stated for; most often its most",
            usual: "100",
            what: "The pressure of a capacity",
        },
        FieldWords {
            figure: "height",
            field: "bag_height",
            label: "Height of the bag, vehicle empty",
            hint: "6 in where nobody measured it; it makes the ride, not the height",
            usual: "6",
            what: "A bag's height",
        },
        FieldWords {
            figure: "pressure",
            field: "bag_pressure",
            label: "Pressure, by the gauge",
            hint: "with the vehicle standing so; below, the pressure in each case",
            usual: "",
            what: "A pressure",
        },
        FieldWords {
            figure: "least_pressure",
            field: "bag_least",
            label: "Its least pressure",
            hint: "by its maker",
            usual: "5",
            what: "A pressure",
        },
        FieldWords {
            figure: "most_pressure",
            field: "bag_most",
            label: "Its most pressure",
            hint: "by its maker",
            usual: "100",
            what: "A pressure",
        },
    ],
    account: &[
        "one bag carries {capacity} at {capacity_pressure}",
        "at {pressure} it carries {carries}",
        "it takes {least_pressure} to {most_pressure}",
    ],
    formula: "force of one = pressure × capacity ÷ its pressure; rear rate × travel + force of two = load; height = height measured + travel saved",
};
