//! The cautions that belong to a correction.

use super::kind::Correction;

/// A caution, by what it is about. The words are the interface's.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Caution {
    /// Height without capacity: ratings, rate and roll stiffness stay as they were.
    AddsNoCapacity,
    /// Only on the rear axle, only one a side, never on a steered axle.
    OneBlockOnly,
    /// New U-bolts, torqued again after the first miles.
    NewUBolts,
    /// Brake hose and wire slack at full droop.
    HoseSlack,
    /// Shaft angle changes with the height.
    DrivelineAngle,
    /// Headlamps, alignment, load-sensing brake valve.
    AimAndAlignment,
    /// Firmer when empty.
    FirmerEmpty,
    /// Set with the weight on, both sides equal, and locked.
    SetEqualSides,
    /// Travel left before something solid.
    TravelUsed,
    /// A pack under clamps stores energy.
    StoredEnergy,
    /// Not on a cracked, broken or shifted leaf, nor on worn eyes.
    SoundPackOnly,
    /// A new arch takes a set in the first weeks.
    TakesASet,
}

impl Correction {
    /// The cautions to show with it, the most particular first.
    pub fn cautions(&self) -> Vec<Caution> {
        use Caution::*;
        match self {
            Correction::LiftBlock { .. } => {
                vec![AddsNoCapacity, OneBlockOnly, NewUBolts, HoseSlack, DrivelineAngle, AimAndAlignment]
            }
            Correction::HelperSpring { .. } => vec![AddsNoCapacity, SetEqualSides, HoseSlack, AimAndAlignment],
            Correction::AddedLeaf { .. } => vec![SoundPackOnly, StoredEnergy, NewUBolts, FirmerEmpty, HoseSlack, AimAndAlignment],
            Correction::LoadRubber { .. } => vec![AddsNoCapacity, TravelUsed, AimAndAlignment],
            Correction::ReworkedPack(work) => {
                let firmer = work.adds_leaves.then_some(FirmerEmpty);
                let settles = work.rearches.then_some(TakesASet);
                let always = [SoundPackOnly, StoredEnergy, NewUBolts].into_iter();
                always.chain(firmer).chain(settles).chain([HoseSlack, DrivelineAngle, AimAndAlignment]).collect()
            }
            Correction::RearchedPack { .. } => {
                vec![SoundPackOnly, StoredEnergy, NewUBolts, TakesASet, HoseSlack, AimAndAlignment]
            }
        }
    }
}
