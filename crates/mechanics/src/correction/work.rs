//! What a correction does to a vehicle, as far as something found on it may speak against that.

use super::kind::Correction;

/// A kind of work.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Work {
    /// A leaf is added.
    AddedLeaf,
    /// The leaves there are are re-arched.
    Rearching,
    /// A block goes between spring and axle.
    Block,
    /// A load rubber takes the stop's place.
    LoadRubber,
    /// A helper goes over or beside the axle.
    Helper,
}

impl Correction {
    /// Every kind of work that it takes.
    pub fn works(&self) -> Vec<Work> {
        match self {
            Correction::LiftBlock { .. } => vec![Work::Block],
            Correction::HelperSpring { .. } => vec![Work::Helper],
            Correction::AddedLeaf { .. } => vec![Work::AddedLeaf],
            Correction::LoadRubber { .. } => vec![Work::LoadRubber],
            Correction::RearchedPack { .. } => vec![Work::Rearching],
            Correction::ReworkedPack(work) => {
                let added = work.adds_leaves.then_some(Work::AddedLeaf);
                added.into_iter().chain(work.rearches.then_some(Work::Rearching)).collect()
            }
        }
    }
}
