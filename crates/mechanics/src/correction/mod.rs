//! Corrections: what can be fitted at a vehicle's springs, and what it changes on the vehicle.
//!
//! Every kind is a file of its own, and a row of [`KINDS`]: its figures with their bounds, what it changes on an axle and on which
//! side, what work it takes and what to be careful of. Nothing outside asks a correction for its kind; it asks the kind for what it
//! does.

pub mod added_leaf;
mod air_bags;
pub mod air_helper;
pub mod anti_roll_bar;
pub mod bags_in_coils;
mod bought_springs;
mod caution;
pub mod coil_spacer;
pub mod exchanged_block;
mod given;
pub mod half_pack;
pub mod helper_by_capacity;
pub mod helper_spring;
mod kind;
pub mod leaf_by_lift;
pub mod lift_block;
pub mod load_rubber;
pub mod longer_shackle;
pub mod measured_coils;
mod needs;
pub mod new_coils;
pub mod new_packs;
pub mod other_overload_leaf;
mod overload_leaf;
pub mod overload_pads;
mod part_doubt;
pub mod rearched_pack;
pub mod reworked_pack;
pub mod rubber_by_capacity;
mod site;
pub mod spring_over;
pub mod stop_extension;
pub mod strut_spacer;
mod takes_up;
pub mod tapered_block;
pub mod tires;
mod together;
mod work;

pub use added_leaf::AddedLeaf;
pub use air_bags::AirBags;
pub use air_helper::AirHelper;
pub use anti_roll_bar::AntiRollBar;
pub use bags_in_coils::BagsInCoils;
pub use caution::Caution;
pub use coil_spacer::CoilSpacer;
pub use exchanged_block::ExchangedBlock;
pub use given::{Given, Quantity};
pub use half_pack::HalfPack;
pub use helper_by_capacity::HelperByCapacity;
pub use helper_spring::HelperSpring;
pub use kind::{
    BUMP_STOP, Correction, CorrectionKind, CorrectionProblem, FittedOn, KindFigure, KindRow, Takes, kerb_spring_force,
};
pub use leaf_by_lift::LeafByLift;
pub use lift_block::LiftBlock;
pub use load_rubber::LoadRubber;
pub use longer_shackle::LongerShackle;
pub use measured_coils::MeasuredCoils;
pub use needs::Needs;
pub use other_overload_leaf::OtherOverloadLeaf;
pub use overload_pads::OverloadPads;
pub use part_doubt::PartDoubt;
pub use rearched_pack::RearchedPack;
pub use reworked_pack::ReworkedPack;
pub use rubber_by_capacity::RubberByCapacity;
pub use site::{Axles, Site};
pub use spring_over::SpringOver;
pub use stop_extension::StopExtension;
pub use strut_spacer::StrutSpacer;
pub use takes_up::TakesUp;
pub use tapered_block::TaperedBlock;
pub use tires::Tires;
pub use together::{NotTogether, cautions_of, not_together};
pub use work::Work;

/// Every kind, in the order it is offered.
pub static KINDS: &[&KindRow] = &[
    &lift_block::ROW,
    &exchanged_block::ROW,
    &tapered_block::ROW,
    &coil_spacer::ROW,
    &strut_spacer::ROW,
    &helper_by_capacity::ROW,
    &helper_spring::ROW,
    &leaf_by_lift::ROW,
    &added_leaf::ROW,
    &half_pack::ROW,
    &rubber_by_capacity::ROW,
    &load_rubber::ROW,
    &air_helper::ROW,
    &bags_in_coils::ROW,
    &new_packs::ROW,
    &rearched_pack::ROW,
    &new_coils::ROW,
    &measured_coils::ROW,
    &overload_pads::ROW,
    &other_overload_leaf::ROW,
    &longer_shackle::ROW,
    &anti_roll_bar::ROW,
    &stop_extension::ROW,
    &spring_over::ROW,
    &tires::ROW,
    &reworked_pack::ROW,
];

impl KindRow {
    /// The kind that goes by a word.
    pub fn of(word: &str) -> Option<&'static KindRow> {
        KINDS.iter().copied().find(|row| row.word == word)
    }
}
