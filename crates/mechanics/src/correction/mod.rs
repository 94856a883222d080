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
pub mod bar_links;
mod beside;
mod bought_springs;
pub mod brake_hoses;
mod caution;
pub mod coil_spacer;
pub mod differential_drop;
mod ends;
pub mod exchanged_block;
pub mod exchanged_taper;
mod given;
pub mod half_pack;
pub mod helper_by_capacity;
pub mod helper_coils;
pub mod helper_spring;
mod kind;
pub mod leaf_by_lift;
pub mod lift_block;
pub mod load_rubber;
pub mod longer_shackle;
mod makes_good;
pub mod measured_coils;
mod needs;
pub mod new_coils;
pub mod new_packs;
pub mod other_overload_leaf;
mod overload_leaf;
pub mod overload_pads;
mod part_doubt;
mod placed;
mod problem;
pub mod radius_arm_drop;
pub mod rearched_pack;
pub mod reworked_pack;
pub mod rubber_by_capacity;
pub mod shocks;
mod site;
pub mod spring_over;
pub mod stop_extension;
pub mod strut_spacer;
mod takes_up;
pub mod taller_struts;
pub mod tapered_block;
pub mod tires;
mod together;
pub mod track_bar;
pub mod u_bolts;
mod work;
pub mod wound_coils;

pub use added_leaf::AddedLeaf;
pub use air_bags::AirBags;
pub use air_helper::AirHelper;
pub use anti_roll_bar::AntiRollBar;
pub use bags_in_coils::BagsInCoils;
pub use caution::Caution;
pub use coil_spacer::CoilSpacer;
pub use ends::Ends;
pub use exchanged_block::ExchangedBlock;
pub use exchanged_taper::ExchangedTaper;
pub use given::{Given, Quantity};
pub use half_pack::HalfPack;
pub use helper_by_capacity::HelperByCapacity;
pub use helper_coils::HelperCoils;
pub use helper_spring::HelperSpring;
pub use kind::{BUMP_STOP, CorrectionKind, FigureRole, FittedOn, KindFigure, KindRow, Takes, kerb_spring_force};
pub use leaf_by_lift::LeafByLift;
pub use lift_block::LiftBlock;
pub use load_rubber::LoadRubber;
pub use longer_shackle::LongerShackle;
pub use makes_good::MakesGood;
pub use measured_coils::MeasuredCoils;
pub use needs::Needs;
pub use other_overload_leaf::OtherOverloadLeaf;
pub use overload_pads::OverloadPads;
pub use part_doubt::PartDoubt;
pub use placed::Correction;
pub use problem::CorrectionProblem;
pub use rearched_pack::RearchedPack;
pub use reworked_pack::ReworkedPack;
pub use rubber_by_capacity::RubberByCapacity;
pub use shocks::Shocks;
pub use site::{Axles, Site};
pub use spring_over::SpringOver;
pub use stop_extension::StopExtension;
pub use strut_spacer::StrutSpacer;
pub use takes_up::TakesUp;
pub use tapered_block::TaperedBlock;
pub use tires::Tires;
pub use together::{NotTogether, cautions_of, not_together, on_the_coil_seat, solid_after};
pub use track_bar::TrackBar;
pub use work::Work;
pub use wound_coils::{Wound, WoundCoils};

/// Every kind, in the order it is offered.
pub static KINDS: &[&KindRow] = &[
    &leaf_by_lift::ROW,
    &added_leaf::ROW,
    &half_pack::ROW,
    &new_packs::ROW,
    &rearched_pack::ROW,
    &overload_pads::ROW,
    &other_overload_leaf::ROW,
    &longer_shackle::ROW,
    &spring_over::ROW,
    &lift_block::ROW,
    &exchanged_block::ROW,
    &tapered_block::ROW,
    &exchanged_taper::ROW,
    &coil_spacer::ROW,
    &strut_spacer::ROW,
    &new_coils::ROW,
    &measured_coils::ROW,
    &wound_coils::ROW,
    &taller_struts::ROW,
    &helper_by_capacity::ROW,
    &helper_spring::ROW,
    &helper_coils::ROW,
    &rubber_by_capacity::ROW,
    &load_rubber::ROW,
    &stop_extension::ROW,
    &air_helper::ROW,
    &bags_in_coils::ROW,
    &shocks::ROW,
    &brake_hoses::ROW,
    &u_bolts::ROW,
    &bar_links::ROW,
    &anti_roll_bar::ROW,
    &track_bar::ROW,
    &radius_arm_drop::ROW,
    &differential_drop::ROW,
    &tires::ROW,
    &reworked_pack::ROW,
];

impl KindRow {
    /// The kind that goes by a word.
    pub fn of(word: &str) -> Option<&'static KindRow> {
        KINDS.iter().copied().find(|row| row.word == word)
    }
}
