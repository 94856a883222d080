//! What corrections are called.

use wise_badger_casework::entry::CorrectionEntry;

use super::{Units, typed_text};

/// Word in a form and name of each kind, in the order offered.
pub(crate) const CORRECTION_KINDS: [(&str, &str); 5] = [
    ("lift_block", "Lift block"),
    ("helper_spring", "Helper springs"),
    ("added_leaf", "Added leaf"),
    ("load_rubber", "Load rubber"),
    ("rearched_pack", "Re-arched pack"),
];

/// The form word of a correction.
pub(crate) fn kind_word(entry: &CorrectionEntry) -> &'static str {
    match entry {
        CorrectionEntry::LiftBlock { .. } => "lift_block",
        CorrectionEntry::HelperSpring { .. } => "helper_spring",
        CorrectionEntry::AddedLeaf { .. } => "added_leaf",
        CorrectionEntry::LoadRubber { .. } => "load_rubber",
        CorrectionEntry::RearchedPack { .. } => "rearched_pack",
        CorrectionEntry::ReworkedPack { .. } => "reworked_pack",
    }
}

/// A correction with its figures, short enough for a list.
pub(crate) fn correction_name(entry: &CorrectionEntry, units: Units) -> String {
    let said = |typed, unit: &str| {
        let text = typed_text(typed, units);
        if text.ends_with(|c: char| c.is_ascii_digit()) { format!("{text} {unit}") } else { text }
    };
    let (length, rate) = (units.length_name(), units.rate_name());
    match entry {
        CorrectionEntry::LiftBlock { thickness } => format!("Lift block, {}", said(thickness, length)),
        CorrectionEntry::HelperSpring { pair_rate, engagement_gap } => {
            format!("Helper springs, {} together, gap {}", said(pair_rate, rate), said(engagement_gap, length))
        }
        CorrectionEntry::AddedLeaf { pair_rate, lift } => {
            format!("Added leaf, {} together, lift {}", said(pair_rate, rate), said(lift, length))
        }
        CorrectionEntry::LoadRubber { clearance, .. } => format!("Load rubber, clearance {}", said(clearance, length)),
        CorrectionEntry::ReworkedPack { words, .. } => format!("Pack from the bench: {words}"),
        CorrectionEntry::RearchedPack { free_height_gained } => {
            format!("Re-arched pack, {} of free height", said(free_height_gained, length))
        }
    }
}
