//! A pickup's axle on a pair of springs of one rate, at kerb.

use wise_badger_mechanics::side::Sides;
use wise_badger_mechanics::stance::{Axle, AxleKind, Corner, MainSpring};
use wise_badger_mechanics::units::{inches, newton_metres_per_radian, pounds, pounds_per_inch};

pub(crate) fn axle(name: &str, position: f64, pair_rate: f64) -> Axle {
    Axle {
        name: name.into(),
        position: inches(position),
        kind: AxleKind::Solid,
        track: inches(66.0),
        spring_base: inches(42.0),
        unsprung_weight: pounds(450.0),
        kerb_wheel_loads: Sides::both(pounds(1_200.0)),
        tyre_rate: pounds_per_inch(1_450.0),
        anti_roll: newton_metres_per_radian(0.0),
        roll_centre_height: inches(20.0),
        hub_height: inches(14.5),
        arch_lateral: None,
        corners: Sides::both(Corner { spring: MainSpring::linear(pounds_per_inch(pair_rate / 2.0)), elements: vec![] }),
    }
}
