//! A correction goes only onto springs that it fits.

#![allow(clippy::unwrap_used, reason = "a test fails where it stands")]

use proptest::prelude::*;
use wise_badger_casework::prediction::Predictor;
use wise_badger_casework::survey::OverloadLeaves;
use wise_badger_casework::survey::{
    BlockThere, End, Ends, NoFit, RearWheels, SpringKind, States, Survey, VehicleClass, VehicleFacts,
};
use wise_badger_casework::words::Word as _;
use wise_badger_mechanics::correction::{Correction, ExchangedBlock, KINDS, KindRow, Needs};
use wise_badger_mechanics::side::Sides;
use wise_badger_mechanics::tape::{AxleReadings, Datum, HeightReadings};
use wise_badger_mechanics::units::{InShopUnits as _, inches, pounds};

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
            assert_eq!(vehicle.no_fit(End::Rear, kind(word).needs), Some(NoFit::NoLeaves(End::Rear, other)), "{word}");
        }
        assert_eq!(vehicle.no_fit(End::Rear, kind("lift_block").needs), Some(NoFit::NothingClamped(End::Rear, other)));
        assert_eq!(vehicle.no_fit(End::Rear, kind("load_rubber").needs), None);
    }
}

/// Common practice: with the spring below the axle, what goes between them lets the vehicle down.
#[test]
fn under_the_axle_a_block_lowers_and_a_leaf_still_goes_in() {
    let vehicle = rear(Some(SpringKind::Leaf), Some(false));
    assert_eq!(vehicle.no_fit(End::Rear, Needs::BareSeat), Some(NoFit::Lowers(End::Rear)));
    assert_eq!(vehicle.no_fit(End::Rear, Needs::Leaves), None);
    assert_eq!(rear(Some(SpringKind::Leaf), Some(true)).no_fit(End::Rear, Needs::BareSeat), None);
    assert_eq!(rear(None, Some(false)).no_fit(End::Rear, Needs::BareSeat), Some(NoFit::Lowers(End::Rear)));
    assert!(matches!(
        rear(Some(SpringKind::Coil), Some(false)).no_fit(End::Rear, Needs::BareSeat),
        Some(NoFit::NothingClamped(..))
    ));
}

#[test]
fn where_nobody_said_leaves_are_taken_for_granted_only_where_they_are_usual() {
    assert_eq!(rear(None, None).no_fit(End::Rear, Needs::Leaves), None);
    assert_eq!(rear(None, None).no_fit(End::Front, Needs::Leaves), Some(NoFit::NotSaid(End::Front)));
    let wagon = on(VehicleClass::Wagon, Ends::default(), None);
    assert_eq!(wagon.no_fit(End::Rear, Needs::Leaves), Some(NoFit::NotSaid(End::Rear)));
    assert_eq!(wagon.no_fit(End::Rear, Needs::BareSeat), Some(NoFit::NotSaid(End::Rear)));
    let said = on(VehicleClass::Wagon, Ends { front: None, rear: Some(SpringKind::Leaf) }, None);
    assert_eq!(said.no_fit(End::Rear, Needs::BareSeat), None);
}

/// Common practice: blocks are never stacked; a 3 1/4 in one in place of a 1 1/4 in one raises by 2 in.
#[test]
fn where_a_block_is_another_goes_in_its_place() {
    let with = |height| VehicleFacts { rear_block: Some(BlockThere { height }), ..rear(Some(SpringKind::Leaf), None) };
    for vehicle in [with(Some(inches(1.25))), with(None)] {
        assert_eq!(vehicle.no_fit(End::Rear, kind("lift_block").needs), Some(NoFit::OnABlock(End::Rear)));
        assert_eq!(vehicle.no_fit(End::Rear, kind("exchanged_block").needs), None);
        assert_eq!(vehicle.no_fit(End::Rear, vehicle.needs_of_a_block()), None);
    }
    let bare = rear(Some(SpringKind::Leaf), None);
    assert_eq!(bare.no_fit(End::Rear, kind("exchanged_block").needs), Some(NoFit::NoBlockThere(End::Rear)));
    let under = VehicleFacts { rear_spring_over: Some(false), ..with(None) };
    assert_eq!(under.no_fit(End::Rear, kind("exchanged_block").needs), Some(NoFit::Lowers(End::Rear)));
    let exchanged = Correction::at_the_rear(ExchangedBlock { thickness: inches(3.25), replaces: inches(1.25) });
    let both = |height| AxleReadings { corners: Sides::both(vec![inches(height)]) };
    let survey = Survey {
        vehicle: with(Some(inches(1.25))),
        datum: Datum::HubToArch,
        heights: States::of(HeightReadings { front: both(20.5), rear: both(21.5) }, HeightReadings::default()),
        load: None,
        stop_gap: States::default(),
        manner: States::default(),
        further: Vec::new(),
        overload_leaves: OverloadLeaves::default(),
        test_weight: false,
    };
    let empty = Predictor::new(&survey).predict(&exchanged).empty.unwrap();
    assert!((empty.rear.value.customary() - 23.5).abs() < 0.001, "{}", empty.rear.value.customary());
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
                prop_assert_eq!(nowhere, vehicle.no_fit(End::Rear, row.needs), "{}", row.word);
                prop_assert!(!row.goes_on_the_front || class.is_trailer() || front != Some(SpringKind::Leaf), "{}", row.word);
            }
        }
    }
}
