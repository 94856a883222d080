//! A half-ton just opened: its ratings and nothing else.

use wise_badger_casework::case::Case;
use wise_badger_casework::entry::{Typed, UnitWord};
use wise_badger_casework::intake::Intake;
use wise_badger_casework::survey::{RearWheels, VehicleClass};

pub(crate) const INCH: f64 = 0.0254;
pub(crate) const POUND: f64 = 4.448_221_615_260_5;

pub(crate) fn inches(value: f64) -> Typed {
    Typed { text: value.to_string(), unit: UnitWord::In, si: value * INCH }
}

pub(crate) fn pounds(value: f64) -> Typed {
    Typed { text: value.to_string(), unit: UnitWord::Lb, si: value * POUND }
}

pub(crate) fn half_ton() -> Case {
    Case::opened(Intake {
        label: "by hand".to_owned(),
        class: VehicleClass::HalfTonPickup,
        rear_wheels: RearWheels::Single,
        wheelbase: inches(145.0),
        axle_spread: None,
        equalised: true,
        front_rating: pounds(3900.0),
        rear_rating: pounds(4100.0),
        gross_rating: None,
        kerb_front: None,
        kerb_rear: None,
    })
}
