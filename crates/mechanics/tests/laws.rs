//! Laws that hold for any vehicle: lever arms, blocks, balance.

#![allow(clippy::unwrap_used, clippy::indexing_slicing, reason = "a test fails where it stands")]

use proptest::prelude::*;
use wise_badger_mechanics::side::Sides;
use wise_badger_mechanics::stance::{
    Axle, AxleKind, Change, Corner, Element, ElementKind, Load, MainSpring, Mount, Outcome, SpringStage, Stance, State,
    StopCurve, Vehicle, settle,
};
use wise_badger_mechanics::units::{InShopUnits, metres, newton_metres_per_radian, newtons, newtons_per_metre};

fn axle(name: &str, position: f64, per_wheel: f64, rate: f64, tyre: f64) -> Axle {
    let spring = MainSpring {
        stages: vec![SpringStage { at_travel: metres(0.06), added_rate: newtons_per_metre(rate * 0.8) }],
        ..MainSpring::linear(newtons_per_metre(rate))
    };
    let kind = ElementKind::Bump { gap: metres(0.3), extension: metres(0.0), curve: StopCurve::Linear(newtons_per_metre(2e5)) };
    let stop = Element { name: "stop".to_owned(), lateral: None, motion_ratio: 1.0, mount: Mount::Frame, kind };
    Axle {
        name: name.to_owned(),
        position: metres(position),
        kind: AxleKind::Solid,
        track: metres(1.7),
        spring_base: metres(1.1),
        unsprung_weight: newtons(0.3 * per_wheel),
        kerb_wheel_loads: Sides::both(newtons(per_wheel)),
        tyre_rate: newtons_per_metre(tyre),
        anti_roll: newton_metres_per_radian(20_000.0),
        roll_centre_height: metres(0.4),
        hub_height: metres(0.36),
        arch_lateral: None,
        corners: Sides::both(Corner { spring, elements: vec![stop] }),
    }
}

fn settled(vehicle: &Vehicle, state: &State) -> Stance {
    match settle(vehicle, state) {
        Ok(Outcome::Settled(stance)) => stance,
        other => panic!("it stands: {other:?}"),
    }
}

prop_compose! {
    fn vehicles()(wheelbase in 2.5_f64..5.5, front in 5e3_f64..1.2e4, rear in 4e3_f64..1.5e4,
                  front_rate in 3e4_f64..1.5e5, rear_rate in 2.5e4_f64..2e5, tyre in 2e5_f64..8e5) -> Vehicle {
        Vehicle {
            axles: vec![axle("F", 0.0, front, front_rate, tyre), axle("R", wheelbase, rear, rear_rate, tyre)],
            points: vec![],
            sprung_cg_height: metres(0.8),
            coupler: None,
            equalisers: vec![],
        }
    }
}

proptest! {
    #[test]
    fn axle_loads_are_lever_arms_and_sum_to_the_weight(vehicle in vehicles(), weight in 0.0_f64..8e3, place in 0.0_f64..1.1) {
        let wheelbase = vehicle.axles[1].position.si();
        let state = State::with_loads("loaded", vec![Load::at(newtons(weight), metres(place * wheelbase))]);
        let stance = settled(&vehicle, &state);
        let (front, rear) = (stance.axles[0].load().si(), stance.axles[1].load().si());
        prop_assert!((front + rear - vehicle.kerb_weight().si() - weight).abs() < 1e-3);
        prop_assert!((rear - vehicle.axles[1].kerb_load().si() - weight * place).abs() < 1e-3);
    }

    #[test]
    fn a_block_moves_its_axle_by_its_thickness_at_any_load(vehicle in vehicles(), weight in 0.0_f64..6e3, thickness in -0.05_f64..0.15) {
        let load = vec![Load::at(newtons(weight), vehicle.axles[1].position)];
        let plain = settled(&vehicle, &State::with_loads("plain", load.clone()));
        let block = Change::Spacer { axle: "R".to_owned(), side: None, thickness: metres(thickness) };
        let raised = settled(&vehicle, &State::with_loads("block", load).changed(vec![block]));
        let stop_clear = |stance: &Stance| stance.axles[1].gaps.iter().all(|gap| gap.gap.si() > 0.0);
        prop_assume!(stop_clear(&plain) && stop_clear(&raised));
        let rise = raised.axles[1].hub_to_arch_change.left - plain.axles[1].hub_to_arch_change.left;
        prop_assert!((rise.si() - thickness).abs() < 1e-8);
        // The front axle neither gains nor loses, and does not move.
        prop_assert!((raised.axles[0].hub_to_arch_change.left - plain.axles[0].hub_to_arch_change.left).si().abs() < 1e-8);
    }

    #[test]
    fn more_weight_never_sits_higher(vehicle in vehicles(), weights in prop::collection::vec(0.0_f64..9e3, 2..6)) {
        let mut weights = weights;
        weights.sort_by(f64::total_cmp);
        let mut last = f64::INFINITY;
        for weight in weights {
            let stance = settled(&vehicle, &State::with_loads("w", vec![Load::at(newtons(weight), vehicle.axles[1].position)]));
            let height = stance.axles[1].ground_to_arch_change.left.si();
            prop_assert!(height <= last + 1e-9);
            last = height;
        }
    }
}

#[test]
fn a_load_past_the_tipping_point_is_an_answer() {
    let vehicle = Vehicle {
        axles: vec![axle("F", 0.0, 5e3, 5e4, 2.5e5), axle("R", 3.5, 5e3, 5e4, 2.5e5)],
        points: vec![],
        sprung_cg_height: metres(0.8),
        coupler: None,
        equalisers: vec![],
    };
    let tipping = State::with_loads("too far behind", vec![Load::at(newtons(2e4), metres(6.0))]);
    assert_eq!(settle(&vehicle, &tipping), Ok(Outcome::NoEquilibrium));
}
