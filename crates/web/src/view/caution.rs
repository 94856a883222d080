//! The words of the cautions.

use wise_badger_mechanics::correction::Caution;

pub(crate) fn caution_text(caution: Caution) -> &'static str {
    match caution {
        Caution::AddsNoCapacity => "It adds no capacity: it raises no axle, tire, wheel or gross rating.",
        Caution::OneBlockOnly => {
            "Rear axle only, one block a side. Never stack blocks; a block already there is replaced, not added to."
        }
        Caution::NewUBolts => "New U-bolts and nuts every time. Torque them again with the weight on, and after the first miles.",
        Caution::HoseSlack => "Before the first drive: slack in brake hoses, lines and sensor wires at full droop.",
        Caution::DrivelineAngle => "The shaft angle changes with the height; check it, and shim if the maker's limit says so.",
        Caution::AimAndAlignment => "Afterward: headlight aim, alignment and the load-sensing brake valve.",
        Caution::FirmerEmpty => "It rides firmer empty as well as loaded; say so to the customer first.",
        Caution::SetEqualSides => "Set it with the weight on, the same both sides, then lock it.",
        Caution::TravelUsed => "A load rubber takes up bump travel; check tire and frame clearance at full bump.",
        Caution::StoredEnergy => {
            "A pack under clamps stores energy: clamp it before the center bolt goes, and wear eye protection."
        }
        Caution::SoundPackOnly => "Only on a sound pack: no cracked, broken or shifted leaf, no worn eyes or bushings.",
        Caution::OneSideOnly => "One side only: first know why it leans, look at both packs, and weigh both corners afterward.",
        Caution::SteeredAxle => "A steered axle: alignment, steering stops and hose slack checked before it drives.",
        Caution::OneAxleOfSeveral => "One axle of several: it then carries more than its share; keep to that axle's own rating.",
        Caution::TakesASet => "A new arch takes a set in the first weeks; measure again after it has settled.",
    }
}
