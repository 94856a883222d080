//! Which school of the trade an option is of: what bears more, what lifts, and what is made right.

use wise_badger_mechanics::correction::{
    KindRow, added_leaf, air_helper, bags_in_coils, coil_spacer, exchanged_block, exchanged_taper, half_pack, helper_by_capacity,
    helper_coils, helper_spring, leaf_by_lift, lift_block, load_rubber, longer_shackle, measured_coils, new_coils, new_packs,
    other_overload_leaf, overload_pads, rearched_pack, reworked_pack, rubber_by_capacity, spring_over, stop_extension,
    strut_spacer, taller_struts, tapered_block, wound_coils,
};

/// A school; what is bought in several ways is one and the same.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
pub enum School {
    /// Leaves added.
    Leaf,
    /// The pack made right, or another.
    Pack,
    /// The overload leaf, or its pads.
    OverloadLeaf,
    /// Other coils.
    Coils,
    /// Struts, or what stands on them.
    Struts,
    /// How the spring hangs.
    Hanging,
    /// Steel that helps.
    Steel,
    /// Load rubbers.
    Rubber,
    /// Air.
    Air,
    /// Blocks and spacers.
    Block,
}

impl School {
    /// Every one, in the order that it is told.
    pub const ALL: [School; 10] = [
        School::Leaf,
        School::Pack,
        School::OverloadLeaf,
        School::Coils,
        School::Struts,
        School::Hanging,
        School::Steel,
        School::Rubber,
        School::Air,
        School::Block,
    ];

    /// The word it goes by in documents.
    pub fn word(self) -> &'static str {
        match self {
            School::Leaf => "leaf",
            School::Pack => "pack",
            School::OverloadLeaf => "overload_leaf",
            School::Coils => "coils",
            School::Struts => "struts",
            School::Hanging => "hanging",
            School::Steel => "steel",
            School::Rubber => "rubber",
            School::Air => "air",
            School::Block => "block",
        }
    }

    /// That of a kind; none of what only goes along with others.
    pub(super) fn of(row: &KindRow) -> Option<School> {
        OF_KINDS.iter().find(|(kind, _)| *kind == row).map(|(_, school)| *school)
    }
}

/// Every kind that is of one.
static OF_KINDS: &[(&KindRow, School)] = &[
    (&leaf_by_lift::ROW, School::Leaf),
    (&added_leaf::ROW, School::Leaf),
    (&half_pack::ROW, School::Leaf),
    (&new_packs::ROW, School::Pack),
    (&rearched_pack::ROW, School::Pack),
    (&reworked_pack::ROW, School::Pack),
    (&overload_pads::ROW, School::OverloadLeaf),
    (&other_overload_leaf::ROW, School::OverloadLeaf),
    (&new_coils::ROW, School::Coils),
    (&measured_coils::ROW, School::Coils),
    (&wound_coils::ROW, School::Coils),
    (&strut_spacer::ROW, School::Struts),
    (&taller_struts::ROW, School::Struts),
    (&longer_shackle::ROW, School::Hanging),
    (&spring_over::ROW, School::Hanging),
    (&helper_by_capacity::ROW, School::Steel),
    (&helper_spring::ROW, School::Steel),
    (&helper_coils::ROW, School::Steel),
    (&rubber_by_capacity::ROW, School::Rubber),
    (&load_rubber::ROW, School::Rubber),
    (&stop_extension::ROW, School::Rubber),
    (&air_helper::ROW, School::Air),
    (&bags_in_coils::ROW, School::Air),
    (&lift_block::ROW, School::Block),
    (&exchanged_block::ROW, School::Block),
    (&tapered_block::ROW, School::Block),
    (&exchanged_taper::ROW, School::Block),
    (&coil_spacer::ROW, School::Block),
];

#[cfg(test)]
mod tests {
    use wise_badger_mechanics::correction::KINDS;

    use super::*;

    /// A kind to come that has no school is seen here, and not by its options standing under none.
    #[test]
    fn every_kind_is_of_a_school_or_goes_along_with_others() {
        let along = [
            "shocks",
            "brake_hoses",
            "u_bolts",
            "bar_links",
            "anti_roll_bar",
            "track_bar",
            "radius_arm_drop",
            "differential_drop",
            "tires",
        ];
        for row in KINDS {
            assert_eq!(School::of(row).is_none(), along.contains(&row.word), "{}", row.word);
        }
        assert!(OF_KINDS.iter().all(|(_, school)| School::ALL.contains(school)));
    }
}
