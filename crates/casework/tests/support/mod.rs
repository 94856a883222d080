//! A half-ton measured from the hub: rear 21 1/2 in empty and 18 13/16 in with 1,000 lb right over the axle.

use wise_badger_casework::survey::{
    Ends, Gaps, LoadPut, Manner, OverloadLeaves, RearWheels, Seen, States, Survey, VehicleClass, VehicleFacts,
};
use wise_badger_mechanics::side::Sides;
use wise_badger_mechanics::tape::{AxleReadings, Datum, HeightReadings};
use wise_badger_mechanics::units::{inches, pounds};

pub(crate) fn heights(front: f64, rear: f64) -> HeightReadings {
    let both = |height| AxleReadings { corners: Sides::both(vec![inches(height)]) };
    HeightReadings { front: both(front), rear: both(rear) }
}

pub(crate) fn half_ton() -> Survey {
    Survey {
        vehicle: VehicleFacts::new(
            VehicleClass::HalfTonPickup,
            RearWheels::Single,
            inches(145.0),
            Ends { front: pounds(3900.0), rear: pounds(4100.0) },
        ),
        datum: Datum::HubToArch,
        heights: States::of(heights(20.5, 21.5), heights(20.5, 18.8125)),
        load: Some(LoadPut::Placed { weight: pounds(1000.0), behind_rear_axle: inches(0.0) }),
        stop_gap: States::default(),
        manner: States::of(Manner::Rolled, Manner::Rolled),
        further: Vec::new(),
        overload_leaves: OverloadLeaves::default(),
        test_weight: false,
        seen: Seen::default(),
    }
}

/// The same with stops and overload leaf seen clear of everything with the load on: the springs alone bore, and no other story fits.
#[allow(dead_code, reason = "not every test needs it")]
pub(crate) fn on_springs_alone(mut survey: Survey) -> Survey {
    survey.stop_gap.loaded = Gaps::at_the_rear(inches(2.0));
    survey.overload_leaves.bears = States::of(Some(false), Some(false));
    survey
}
