//! What follows from what stands on a job: the vehicle, the load, the heights in the job's own datum.

#![allow(clippy::unwrap_used, clippy::indexing_slicing, reason = "a test fails where it stands")]

#[path = "support/case.rs"]
mod opened;

use opened::{INCH, POUND, half_ton, inches, pounds};
use wise_badger_casework::case::Case;
use wise_badger_casework::entry::{CaseEntry, ItemEntry, LoadEntry, LoadPlanEntry, Typed};
use wise_badger_casework::reading::{Phase, Place, Reading, Spot};
use wise_badger_casework::survey::{End, LoadPut, LoadState};
use wise_badger_mechanics::tape::Datum;

fn read(state: LoadState, place: Place, datum: Datum, value: Typed) -> Reading {
    Reading { spot: Spot { phase: Phase::Found, state, place }, datum, value }
}

#[test]
fn a_height_from_another_datum_waits_for_the_hub_and_is_turned_by_it() {
    let mut case = half_ton();
    case.measured.datum = Some(Datum::HubToArch);
    case.readings = vec![read(LoadState::Empty, Place::FrontLeft, Datum::GroundToArch, inches(35.0))];
    assert_eq!(case.not_converted(Phase::Found).len(), 1);
    assert!(case.survey(Phase::Found).height(End::Front, LoadState::Empty).is_none());
    case.readings.push(read(LoadState::Empty, Place::HubFront, Datum::GroundToArch, inches(14.5)));
    assert!(case.not_converted(Phase::Found).is_empty());
    let front = case.survey(Phase::Found).height(End::Front, LoadState::Empty).unwrap();
    assert!((front.value.value - 20.5 * INCH).abs() < 1e-12, "35 in less 14 1/2: {front:?}");
}

#[test]
fn what_stood_on_a_scale_empty_counts_where_intake_states_nothing_and_not_otherwise() {
    let mut case = half_ton();
    case.readings = vec![
        read(LoadState::Empty, Place::WeightRearLeft, Datum::HubToArch, pounds(1010.0)),
        read(LoadState::Empty, Place::WeightRearRight, Datum::HubToArch, pounds(1030.0)),
    ];
    let kerb = |case: &Case| case.vehicle().kerb_weight(End::Rear).0.value / POUND;
    assert!((kerb(&case) - 2040.0).abs() < 1e-9, "corner by corner: {}", kerb(&case));
    case.readings.push(read(LoadState::Empty, Place::WeightRear, Datum::HubToArch, pounds(2060.0)));
    assert!((kerb(&case) - 2060.0).abs() < 1e-9, "the axle whole");
    case.intake.kerb_rear = Some(pounds(2200.0));
    assert!((kerb(&case) - 2200.0).abs() < 1e-9, "what was stated");
}

#[test]
fn a_case_of_the_plan_is_the_load_put_and_names_what_came_aboard() {
    let mut case = half_ton();
    let item = |name: &str, weight: f64, always: bool| ItemEntry {
        name: name.to_owned(),
        liquid: None,
        amount: pounds(weight),
        distance: inches(12.0),
        ahead: true,
        lateral: None,
        left: false,
        height: None,
        on_hitch: false,
        always,
        cases: vec![1],
        usual: false,
    };
    case.plan = Some(LoadPlanEntry {
        cases: vec![CaseEntry {
            key: 1,
            name: "Usual".to_owned(),
            front_scale: None,
            rear_scale: None,
            with: None,
            later: false,
        }],
        items: vec![item("Pump", 320.0, false), item("Rack", 90.0, true)],
    });
    assert!(case.load_put().is_none() && case.measured_case().is_none());
    case.tape = case.tape.clone().with_load(LoadState::Loaded, Some(LoadEntry::Planned { case: 1 }));
    let Some(LoadPut::Planned { items, .. }) = case.load_put() else { panic!("planned") };
    assert_eq!((items.len(), case.names_aboard()), (1, vec!["Pump".to_owned()]), "the rack is part of the vehicle");
    assert!((items[0].behind_rear_axle.value + 12.0 * INCH).abs() < 1e-12, "ahead is negative");
    assert_eq!(case.vehicle().always.len(), 1);
    case.tape = case.tape.clone().with_load(LoadState::Loaded, Some(LoadEntry::Planned { case: 2 }));
    assert!(case.load_put().is_none(), "a case that was struck off is no load");
}
