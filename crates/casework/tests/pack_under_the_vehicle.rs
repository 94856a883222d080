//! A pack from the bench as the rear spring of a vehicle.

#![allow(clippy::unwrap_used, reason = "a test fails where it stands")]

#[path = "../../mechanics/tests/support/truck.rs"]
mod truck;

use truck::{arch, truck};
use wise_badger_casework::prediction::Predictor;
use wise_badger_casework::survey::{
    Ends, LoadPut, Manner, OverloadLeaves, RearWheels, Seen, States, Survey, VehicleClass, VehicleFacts,
};
use wise_badger_mechanics::correction::{Correction, ReworkedPack};
use wise_badger_mechanics::pack::{Pack, PackWork, PartKind};
use wise_badger_mechanics::side::Sides;
use wise_badger_mechanics::tape::{AxleReadings, Datum, HeightReadings};
use wise_badger_mechanics::units::{InShopUnits, inches, pounds};

/// The vehicle as it is.
const NOTHING: &[Correction] = &[];

/// A one-ton pickup with these packs, 1,200 lb over its axle, read from the hub so that tyres have no part.
fn survey(pack: &Pack) -> Survey {
    let ratings = Ends { front: pounds(4_000.0), rear: pounds(6_000.0) };
    let heights = |rear: f64| HeightReadings {
        front: AxleReadings { corners: Sides::both(vec![inches(20.0)]) },
        rear: AxleReadings { corners: Sides::both(vec![inches(rear)]) },
    };
    let vehicle = VehicleFacts {
        kerb: Ends { front: Some(pounds(2_800.0)), rear: Some(pounds(1_850.0)) },
        rear_pack: Some(Sides::both(pack.curve_to(pounds(1600.0)).unwrap())),
        ..VehicleFacts::new(VehicleClass::OneTonPickup, RearWheels::Single, inches(145.0), ratings)
    };
    Survey {
        vehicle,
        datum: Datum::HubToArch,
        heights: States::of(heights(22.0), HeightReadings::default()),
        load: Some(LoadPut::Placed { weight: pounds(500.0), behind_rear_axle: inches(0.0) }),
        stop_gap: States::default(),
        manner: States::of(Manner::Rolled, Manner::Rolled),
        further: Vec::new(),
        overload_leaves: OverloadLeaves::default(),
        test_weight: false,
        seen: Seen::default(),
    }
}

/// On two axles the loads are lever arms only, so each pack carries 600 lb empty whatever is done to it: what an added leaf lifts
/// is the difference of the two packs' own heights there.
#[test]
fn under_a_vehicle_an_added_leaf_lifts_what_the_pack_says() {
    let found = truck();
    let mut planned = truck();
    let added = PartKind::ShortAddedLeaf.leaf_for(&planned).unwrap();
    let place = planned.place_by_length(&added);
    assert_eq!(place, 3, "over the overload leaf, by its length");
    planned.leaves.insert(place, added);
    let survey = survey(&found);
    let work = PackWork::new(&found, &planned, pounds(1600.0)).unwrap();
    assert!(work.adds_leaves && !work.rearches);
    let correction = Correction::at_the_rear(ReworkedPack(work));
    let predictor = Predictor::new(&survey);
    let empty = predictor.predict(&correction).empty.unwrap();
    let own = arch(&planned, pounds(600.0)) - arch(&found, pounds(600.0));
    assert!(
        (empty.rise.value - own).si().abs() < 3e-4,
        "{} by the stance, {} by the pack",
        empty.rise.value.customary(),
        own.customary()
    );
    // In another case too, from where the plain pack would stand there.
    let case = survey.clone();
    let (plain, with) = (predictor.in_case(&case, NOTHING).unwrap(), predictor.in_case(&case, &correction).unwrap());
    let own = arch(&planned, pounds(850.0)) - arch(&found, pounds(850.0));
    assert!(((with.rear.value - plain.rear.value) - own).si().abs() < 5e-4);
    assert!(own > arch(&planned, pounds(600.0)) - arch(&found, pounds(600.0)), "it lifts more under load");
    // Past what the packs can be worked out for there is no answer.
    let heavy =
        Survey { load: Some(LoadPut::Placed { weight: pounds(4_000.0), behind_rear_axle: inches(0.0) }), ..survey.clone() };
    assert!(predictor.in_case(&heavy, &correction).is_err());
}
