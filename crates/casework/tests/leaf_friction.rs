//! What leaf friction leaves open of a height: by how the vehicle was brought to rest, what its leaves look like, and what two quick
//! readings make of it.

#![allow(clippy::unwrap_used, reason = "a test fails where it stands")]

mod support;

use support::{half_ton, heights, on_springs_alone};
use wise_badger_casework::prediction::{PredictedState, Predictor};
use wise_badger_casework::survey::{Ends, FurtherLoad, FurtherState, Gaps, LoadState, Manner, Seen, SpringKind, States, Survey};
use wise_badger_mechanics::correction::{Correction, LiftBlock};
use wise_badger_mechanics::units::{InShopUnits, inches};

fn loaded(survey: &Survey) -> PredictedState {
    let block = Correction::at_the_rear(LiftBlock { thickness: inches(2.0) });
    Predictor::new(survey).predict(&block).loaded.unwrap()
}

fn as_it_stood() -> Survey {
    Survey { manner: States::of(Manner::AsItStood, Manner::AsItStood), ..on_springs_alone(half_ton()) }
}

/// The loaded half-ton read twice more: pressed down, and lifted, so far under and over where it stood.
fn pressed_and_lifted(mut survey: Survey, by: f64) -> Survey {
    for (key, manner, height) in [(1, Manner::PressedDown, 18.8125 - by), (2, Manner::Lifted, 18.8125 + by)] {
        survey.heights.further.push((key, heights(20.5, height)));
        survey.stop_gap.further.push((key, Gaps::default()));
        survey.manner.further.push((key, manner));
        let load = FurtherLoad::Over { state: LoadState::Loaded, more: None };
        survey.further.push(FurtherState { key, name: format!("{manner:?}"), load, test_weight: false });
    }
    survey
}

#[test]
fn rolling_it_halves_what_friction_leaves_open_dry_leaves_treble_it_and_coils_have_none() {
    let stood = loaded(&as_it_stood()).friction.customary();
    // By hand: 5 % of 2,800 lb over 372 lb/in, its own doubt of half on top.
    assert!((stood - 0.05 * 1.25_f64.sqrt() * 2_800.0 / 372.1).abs() < 0.01, "{stood}");
    let rolled = loaded(&on_springs_alone(half_ton())).friction.customary();
    assert!((rolled / stood - 0.5).abs() < 1e-3, "{rolled} {stood}");
    let dry = loaded(&Survey { seen: Seen { dry_leaves: true, ..Seen::default() }, ..as_it_stood() });
    assert!((dry.friction.customary() / stood - 3.0).abs() < 0.01 && dry.rear.sd > 2.0 * loaded(&as_it_stood()).rear.sd);
    let mut coils = as_it_stood();
    coils.vehicle.springs = Ends { front: None, rear: Some(SpringKind::Coil) };
    assert!(loaded(&coils).friction.customary() < 1e-9);
}

#[test]
fn two_quick_readings_make_of_it_what_they_show() {
    let (plain, slick, rough) =
        (as_it_stood(), pressed_and_lifted(as_it_stood(), 0.0625), pressed_and_lifted(as_it_stood(), 0.75));
    let friction = |survey: &Survey| loaded(survey).friction.customary();
    assert!(friction(&slick) < 0.6 * friction(&plain), "{} {}", friction(&slick), friction(&plain));
    assert!(friction(&rough) > 1.5 * friction(&plain), "{} {}", friction(&rough), friction(&plain));
    // Where leaves hold little, the height at rest is known the better for it.
    assert!(loaded(&slick).rear.sd < 0.85 * loaded(&plain).rear.sd, "{:?} {:?}", loaded(&slick).rear, loaded(&plain).rear);
}

/// A front on leaves is held off like a rear; on coils, or where nobody said, it is as sure as its reading.
#[test]
fn a_front_on_leaves_has_friction_in_its_band_too() {
    let front = |on: Option<SpringKind>| {
        let mut survey = as_it_stood();
        survey.vehicle.springs = Ends { front: on, rear: None };
        loaded(&survey).front.unwrap().sd.customary()
    };
    assert!((front(None) - front(Some(SpringKind::Coil))).abs() < 1e-9);
    // By hand: half of 5 % of 3,000 lb over the class's 500 lb/in, its own doubt of half on top.
    let held = 0.025 * 1.25_f64.sqrt() * 3_000.0 / 500.0;
    let expected = front(None).hypot(held);
    assert!((front(Some(SpringKind::Leaf)) - expected).abs() < 0.01, "{} {expected}", front(Some(SpringKind::Leaf)));
}
