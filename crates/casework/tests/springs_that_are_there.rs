//! A correction goes only onto springs that it fits.

#![allow(clippy::unwrap_used, reason = "a test fails where it stands")]

use proptest::prelude::*;
use wise_badger_casework::entry::{IntakeSheetEntry, ModificationEntry, Typed, UnitWord};
use wise_badger_casework::prediction::Predictor;
use wise_badger_casework::survey::OverloadLeaves;
use wise_badger_casework::survey::{
    End, Ends, Modification, NoFit, PartThere, RearWheels, Seen, SpringKind, States, Survey, VehicleClass, VehicleFacts,
};
use wise_badger_casework::words::Word as _;
use wise_badger_mechanics::correction::{
    Axles, CoilSpacer, Correction, Ends as CorrectionEnds, ExchangedBlock, KINDS, KindRow, Needs, Site,
};
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

/// A spacer goes where a coil stands, at either end; nobody takes it for granted.
#[test]
fn a_coil_spacer_goes_onto_coils_that_somebody_saw() {
    let needs = kind("coil_spacer").needs;
    assert_eq!(rear(Some(SpringKind::Coil), None).no_fit(End::Rear, needs), None);
    for other in [SpringKind::Leaf, SpringKind::Torsion, SpringKind::Air] {
        assert_eq!(rear(Some(other), None).no_fit(End::Rear, needs), Some(NoFit::NoCoils(End::Rear, other)));
    }
    let unsaid = rear(None, None);
    assert_eq!(unsaid.no_fit(End::Rear, needs), Some(NoFit::CoilsNotSaid(End::Rear)));
    let in_front = on(VehicleClass::HalfTonPickup, Ends { front: Some(SpringKind::Coil), rear: None }, None);
    assert_eq!(in_front.fits_nowhere(kind("coil_spacer")), None, "it is offered for the front");
    assert_eq!(in_front.no_fit(End::Rear, needs), Some(NoFit::CoilsNotSaid(End::Rear)));
}

/// Common practice: the springs of a trailer hang on rockers and slippers between its axles.
#[test]
fn a_longer_shackle_goes_onto_a_leaf_pack_and_on_no_trailer() {
    let needs = kind("longer_shackle").needs;
    for vehicle in [rear(Some(SpringKind::Leaf), Some(true)), rear(Some(SpringKind::Leaf), Some(false)), rear(None, None)] {
        assert_eq!(vehicle.no_fit(End::Rear, needs), None, "over or under its axle");
    }
    assert_eq!(rear(Some(SpringKind::Coil), None).no_fit(End::Rear, needs), Some(NoFit::NoLeaves(End::Rear, SpringKind::Coil)));
    let trailer = on(VehicleClass::TandemTrailer, Ends::default(), None);
    assert_eq!(trailer.no_fit(End::Rear, needs), Some(NoFit::NoShackles));
    let on_bars = on(VehicleClass::TandemTrailer, Ends { front: None, rear: Some(SpringKind::Torsion) }, None);
    assert!(matches!(on_bars.no_fit(End::Rear, needs), Some(NoFit::NoLeaves(..))));
}

/// Spacers noted before anybody asked at which end may be at any end that has coils.
#[test]
fn intake_knows_which_spacers_come_out_at_which_end() {
    let noted = |what, height, front_spring, rear_spring| {
        let size = Some(Typed { text: String::new(), unit: UnitWord::In, si: inches(height).si() });
        let sheet = IntakeSheetEntry {
            front_spring,
            rear_spring,
            modifications: vec![ModificationEntry { what, size }],
            ..IntakeSheetEntry::default()
        };
        let there = sheet.complete(rear(None, None)).spacers;
        [there.front, there.rear]
            .map(|there| there.and_then(|there| there.height).map(|height| (height.customary() * 16.0).round() / 16.0))
    };
    let (coil, leaf) = (Some(SpringKind::Coil), Some(SpringKind::Leaf));
    assert_eq!(noted(Modification::FrontSpacer, 2.0, coil, coil), [Some(2.0), None]);
    assert_eq!(noted(Modification::RearSpacer, 1.0, coil, coil), [None, Some(1.0)]);
    assert_eq!(noted(Modification::Spacer, 1.5, coil, leaf), [Some(1.5), None]);
    assert_eq!(noted(Modification::Spacer, 1.5, coil, coil), [Some(1.5), Some(1.5)], "until somebody says where");
    assert_eq!(noted(Modification::RearBlock, 1.5, coil, leaf), [None, None]);
}

/// What comes out must be what Intake notes, at the end that the part goes on; else parts would stand on parts.
#[test]
fn what_comes_out_is_what_is_there() {
    let vehicle = |height: Option<Option<f64>>| {
        let there = height.map(|height| PartThere { height: height.map(inches) });
        VehicleFacts { spacers: Ends { front: None, rear: there }, ..rear(Some(SpringKind::Coil), None) }
    };
    let out = |inch| Correction::at_the_rear(CoilSpacer { thickness: inches(2.0), replaces: inches(inch) });
    assert_eq!(vehicle(None).no_fit_of(&out(0.0)), None);
    assert_eq!(vehicle(None).no_fit_of(&out(1.0)), Some(NoFit::NoneComesOut(End::Rear)));
    assert_eq!(vehicle(Some(None)).no_fit_of(&out(0.0)), Some(NoFit::OneComesOut(End::Rear)));
    assert_eq!(vehicle(Some(None)).no_fit_of(&out(1.0)), None);
    assert_eq!(vehicle(Some(Some(1.0))).no_fit_of(&out(0.0)), Some(NoFit::OtherComesOut(End::Rear)));
    assert_eq!(vehicle(Some(Some(1.0))).no_fit_of(&out(1.0625)), None, "a tape tells no less apart");
    let in_front = out(1.0).on(Site { axles: Axles::Front, side: None });
    let both = VehicleFacts {
        springs: Ends { front: Some(SpringKind::Coil), rear: Some(SpringKind::Coil) },
        ..vehicle(Some(Some(1.0)))
    };
    assert_eq!(both.no_fit_of(&in_front), Some(NoFit::NoneComesOut(End::Front)), "the one behind is another");
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
    let with = |height| VehicleFacts { rear_block: Some(PartThere { height }), ..rear(Some(SpringKind::Leaf), None) };
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
        seen: Seen::default(),
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
            if row.ends == CorrectionEnds::Front {
                let front = if class.is_trailer() { Some(NoFit::NoFront) } else { vehicle.no_fit(End::Front, row.needs) };
                prop_assert_eq!(nowhere, front, "{}", row.word);
                continue;
            }
            prop_assert!(row.needs != Needs::Nothing || nowhere.is_none(), "{}", row.word);
            if nowhere.is_some() {
                prop_assert_eq!(nowhere, vehicle.no_fit(End::Rear, row.needs), "{}", row.word);
                let in_front = row.ends.have_a_front() && !class.is_trailer() && vehicle.no_fit(End::Front, row.needs).is_none();
                prop_assert!(!in_front, "{}", row.word);
            }
        }
    }
}
