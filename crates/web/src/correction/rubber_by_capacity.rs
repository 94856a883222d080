//! The words of load rubbers that are bought by what they carry.

use wise_badger_mechanics::correction::rubber_by_capacity::ROW;

use super::{FieldWords, KindWords};

pub(super) static WORDS: KindWords = KindWords {
    row: &ROW,
    name: "Load rubber, by capacity",
    in_a_list: "Load rubber for {capacity} each, clearance {clearance}",
    fields: &[
        FieldWords {
            figure: "capacity",
            field: "rubber_capacity",
            label: "Capacity of one rubber",
            hint: "half of it where the box gives the pair or the axle",
            usual: "",
            what: "A rubber's capacity",
        },
        FieldWords {
            figure: "free_height",
            field: "rubber_height",
            label: "Height of the rubber, free",
            hint: "without its spacer; 5 in where nobody measured it",
            usual: "5",
            what: "A rubber's height",
        },
        FieldWords {
            figure: "clearance",
            field: "rubber_clearance",
            label: "Clearance empty, spacer in",
            hint: "from its tip to the axle",
            usual: "1/2",
            what: "A rubber's clearance",
        },
    ],
    account: &["rubbers for {capacity} each, squashed by {most_squash} under that", "clearance {clearance}"],
    formula: "force of one = capacity × (squash ÷ half of its height)^1.2 (our own working rule); rear rate × travel + force of two at (travel − clearance) = load; height = height measured + travel saved",
};
