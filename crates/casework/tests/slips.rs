//! Slips of the hand are asked about, and never refused.

#![allow(clippy::unwrap_used, clippy::indexing_slicing, reason = "a test fails where it stands")]

#[path = "support/case.rs"]
mod opened;

use opened::{half_ton, inches, pounds};
use wise_badger_casework::casework::Casework;
use wise_badger_casework::reading::{Phase, Place, Reading, Spot};
use wise_badger_casework::slips::{Slip, slips};
use wise_badger_casework::survey::{Basis, End, FurtherLoad, FurtherState, LoadPut, LoadState, Manner};
use wise_badger_mechanics::side::Sides;
use wise_badger_mechanics::tape::{AxleReadings, Datum, HeightReadings};
use wise_badger_mechanics::units::{self, InShopUnits};

const REAR: [Place; 2] = [Place::RearLeft, Place::RearRight];

fn read(state: LoadState, place: Place, value: f64, datum: Datum) -> Reading {
    Reading { spot: Spot { phase: Phase::Found, state, place }, datum, value: inches(value) }
}

/// The half-ton with its rear read left and right, empty and loaded, from a datum.
fn with_rear(datum: Datum, empty: [f64; 2], loaded: [f64; 2], gaps: Option<[f64; 2]>) -> Vec<Slip> {
    let mut case = half_ton();
    case.measured.datum = Some(datum);
    for (state, heights) in [(LoadState::Empty, empty), (LoadState::Loaded, loaded)] {
        case.readings.extend(REAR.into_iter().zip(heights).map(|(place, height)| read(state, place, height, datum)));
    }
    if let Some([empty, loaded]) = gaps {
        case.readings.push(read(LoadState::Empty, Place::StopGap, empty, datum));
        case.readings.push(read(LoadState::Loaded, Place::StopGap, loaded, datum));
    }
    Casework::new(case).slips()
}

#[test]
fn what_stands_as_vehicles_do_is_not_asked_about() {
    assert_eq!(with_rear(Datum::GroundToArch, [40.0, 40.25], [37.0, 37.5], Some([4.75, 2.5])), []);
    assert_eq!(with_rear(Datum::HubToArch, [21.5, 21.5], [18.5, 18.5], None), []);
    assert_eq!(with_rear(Datum::TyreTopToArch, [7.25, 7.25], [6.25, 6.25], None), []);
}

#[test]
fn sides_far_apart_a_height_of_another_datum_and_a_gap_that_grows_are() {
    let apart = with_rear(Datum::GroundToArch, [40.0, 40.0], [38.0, 30.0], None);
    let [Slip::SidesApart { end: End::Rear, state: LoadState::Loaded, apart }] = apart[..] else { panic!("{apart:?}") };
    assert!((apart.customary() - 8.0).abs() < 1e-9);
    let empty = with_rear(Datum::GroundToArch, [40.0, 33.0], [38.0, 38.0], None);
    assert!(matches!(empty[..], [Slip::SidesApart { state: LoadState::Empty, .. }]), "{empty:?}");
    let slipped = with_rear(Datum::GroundToArch, [4.2, 4.2], [37.0, 37.0], None);
    assert!(matches!(slipped[..], [Slip::HeightSeldom { fits: Some(Datum::TyreTopToArch), .. }, _]), "{slipped:?}");
    let from_the_hub = with_rear(Datum::HubToArch, [40.0, 40.0], [18.0, 18.0], None);
    assert!(matches!(from_the_hub[0], Slip::HeightSeldom { fits: Some(Datum::GroundToArch), .. }), "{from_the_hub:?}");
    let grows = with_rear(Datum::GroundToArch, [40.0, 40.0], [37.0, 37.0], Some([2.0, 4.75]));
    let [Slip::GapGrows { state: LoadState::Loaded, by }] = grows[..] else { panic!("{grows:?}") };
    assert!((by.customary() - 2.75).abs() < 1e-9);
}

#[test]
fn readings_of_one_corner_that_do_not_go_together_are() {
    let mut case = half_ton();
    case.measured.datum = Some(Datum::GroundToArch);
    for height in [38.75, 37.75] {
        case.readings.push(read(LoadState::Empty, Place::RearLeft, height, Datum::GroundToArch));
    }
    let slips = Casework::new(case).slips();
    assert!(matches!(slips[..], [Slip::RepeatsApart { spot: Spot { place: Place::RearLeft, .. }, .. }]), "{slips:?}");
}

#[test]
fn lifted_lower_than_pressed_down_with_the_same_aboard_is() {
    let (pressed, lifted) = (LoadState::Further(1), LoadState::Further(2));
    let slips_with = |heights: [f64; 2], more: Option<f64>| {
        let case = half_ton();
        let mut survey = Casework::new(case.clone()).found().clone();
        survey.load = Some(LoadPut::Placed { weight: units::pounds(600.0), behind_rear_axle: units::inches(0.0) });
        for ((key, manner), height) in [(1, Manner::PressedDown), (2, Manner::Lifted)].into_iter().zip(heights) {
            let corners = Sides::both(vec![units::inches(height)]);
            let front = AxleReadings { corners: Sides::both(Vec::new()) };
            survey.heights.further.push((key, HeightReadings { front, rear: AxleReadings { corners } }));
            survey.manner.further.push((key, manner));
            let more = more.filter(|_| key == 2).map(|more| (units::pounds(more), units::inches(0.0)));
            let load = FurtherLoad::Over { state: LoadState::Loaded, more };
            survey.further.push(FurtherState { key, name: "held".to_owned(), load, test_weight: false });
        }
        slips(&case, &survey)
    };
    assert_eq!(slips_with([37.0, 37.5], None), []);
    assert!(
        matches!(slips_with([37.5, 37.0], None)[..], [Slip::LiftedStandsLower { pressed: p, lifted: l, .. }] if (p, l) == (pressed, lifted))
    );
    // With more aboard it may well stand lower.
    assert_eq!(slips_with([37.5, 37.0], Some(200.0)), []);
}

#[test]
fn a_rating_under_what_it_weighs_or_ten_times_too_high_is() {
    let rated = |rear: f64, gross: Option<f64>, kerb: Option<f64>| {
        let mut case = half_ton();
        case.intake.rear_rating = pounds(rear);
        case.intake.gross_rating = gross.map(pounds);
        (case.intake.kerb_front, case.intake.kerb_rear) = (kerb.map(pounds), kerb.map(pounds));
        Casework::new(case).slips()
    };
    assert_eq!(rated(4100.0, Some(6900.0), None), []);
    let far = rated(39_000.0, None, None);
    let [Slip::RatingFarAboveEmpty { end: End::Rear, likely }] = far[..] else { panic!("{far:?}") };
    assert!((likely.customary() - 3900.0).abs() < 1e-6);
    assert!(matches!(rated(390.0, None, None)[..], [Slip::RatingBelowEmpty { end: Some(End::Rear), basis: Basis::Assumed, .. }]));
    assert!(matches!(rated(2000.0, None, Some(2300.0))[..], [Slip::RatingBelowEmpty { basis: Basis::Stated, .. }]));
    assert!(matches!(rated(4100.0, Some(4000.0), None)[..], [Slip::RatingBelowEmpty { end: None, .. }]));
}
