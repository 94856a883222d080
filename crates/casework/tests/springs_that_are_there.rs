//! A correction goes only onto springs that it fits.

#![allow(clippy::unwrap_used, reason = "a test fails where it stands")]

use proptest::prelude::*;
use wise_badger_casework::survey::{End, Ends, Misfit, RearWheels, SpringKind, VehicleClass, VehicleFacts};
use wise_badger_casework::words::Word as _;
use wise_badger_mechanics::correction::{KINDS, KindRow, Needs};
use wise_badger_mechanics::units::{inches, pounds};

fn on(class: VehicleClass, springs: Ends<Option<SpringKind>>, over: Option<bool>) -> VehicleFacts {
    let ratings = Ends { front: pounds(4000.0), rear: pounds(4100.0) };
    let facts = VehicleFacts::new(class, RearWheels::Single, inches(145.0), ratings);
    VehicleFacts { springs, rear_spring_over: over, ..facts }
}

fn rear(on_what: Option<SpringKind>, over: Option<bool>) -> VehicleFacts {
    on(VehicleClass::HalfTonPickup, Ends { front: None, rear: on_what }, over)
}

fn kind(word: &str) -> &'static KindRow {
    KindRow::of(word).unwrap()
}

/// Common practice: a leaf goes into a leaf pack; a block goes between a leaf spring and the axle that its U-bolts clamp to it.
#[test]
fn on_coils_no_leaf_and_no_block() {
    for other in [SpringKind::Coil, SpringKind::Torsion, SpringKind::Air] {
        let vehicle = rear(Some(other), None);
        for word in ["added_leaf", "rearched_pack", "reworked_pack"] {
            assert_eq!(vehicle.misfit(End::Rear, kind(word).needs), Some(Misfit::NoLeaves(End::Rear, other)), "{word}");
        }
        assert_eq!(vehicle.misfit(End::Rear, kind("lift_block").needs), Some(Misfit::NothingClamped(End::Rear, other)));
        assert_eq!(vehicle.misfit(End::Rear, kind("load_rubber").needs), None);
    }
}

/// Common practice: with the spring below the axle, what goes between them lets the vehicle down.
#[test]
fn under_the_axle_a_block_lowers_and_a_leaf_still_goes_in() {
    let vehicle = rear(Some(SpringKind::Leaf), Some(false));
    assert_eq!(vehicle.misfit(End::Rear, Needs::ClampedSpring), Some(Misfit::Lowers(End::Rear)));
    assert_eq!(vehicle.misfit(End::Rear, Needs::Leaves), None);
    assert_eq!(rear(Some(SpringKind::Leaf), Some(true)).misfit(End::Rear, Needs::ClampedSpring), None);
    assert_eq!(rear(None, Some(false)).misfit(End::Rear, Needs::ClampedSpring), Some(Misfit::Lowers(End::Rear)));
    assert!(matches!(
        rear(Some(SpringKind::Coil), Some(false)).misfit(End::Rear, Needs::ClampedSpring),
        Some(Misfit::NothingClamped(..))
    ));
}

#[test]
fn where_nobody_said_leaves_are_taken_for_granted_only_where_they_are_usual() {
    assert_eq!(rear(None, None).misfit(End::Rear, Needs::Leaves), None);
    assert_eq!(rear(None, None).misfit(End::Front, Needs::Leaves), Some(Misfit::NotSaid(End::Front)));
    let wagon = on(VehicleClass::Wagon, Ends::default(), None);
    assert_eq!(wagon.misfit(End::Rear, Needs::Leaves), Some(Misfit::NotSaid(End::Rear)));
    assert_eq!(wagon.misfit(End::Rear, Needs::ClampedSpring), Some(Misfit::NotSaid(End::Rear)));
    let said = on(VehicleClass::Wagon, Ends { front: None, rear: Some(SpringKind::Leaf) }, None);
    assert_eq!(said.misfit(End::Rear, Needs::ClampedSpring), None);
}

proptest! {
    /// A kind that fits nowhere fits the rear no better than it says, and one that needs nothing fits everywhere.
    #[test]
    fn what_fits_nowhere_does_not_fit_the_rear(
        class in proptest::sample::select(VehicleClass::WORDS.iter().map(|(class, _)| *class).collect::<Vec<_>>()),
        front in proptest::option::of(proptest::sample::select(SpringKind::ALL.to_vec())),
        behind in proptest::option::of(proptest::sample::select(SpringKind::ALL.to_vec())),
        over in proptest::option::of(any::<bool>()),
    ) {
        let vehicle = on(class, Ends { front, rear: behind }, over);
        for row in KINDS {
            let nowhere = vehicle.fits_nowhere(row);
            prop_assert!(row.needs != Needs::Nothing || nowhere.is_none(), "{}", row.word);
            if nowhere.is_some() {
                prop_assert_eq!(nowhere, vehicle.misfit(End::Rear, row.needs), "{}", row.word);
                prop_assert!(!row.goes_on_the_front || class.is_trailer() || front != Some(SpringKind::Leaf), "{}", row.word);
            }
        }
    }
}
