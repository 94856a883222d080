//! Left and right from the tape to the prediction: what leans stays told apart, and a correction may go on one side or at one end.

#![allow(clippy::unwrap_used, clippy::indexing_slicing, reason = "a test fails where it stands")]

mod support;

use proptest::prelude::*;
use wise_badger_casework::entry::PredictedHeights;
use wise_badger_casework::prediction::{PredictedState, Predictor, Unpredicted};
use wise_badger_casework::survey::{End, Ends, Gaps, Item, LoadPut, LoadState, States, Survey, VehicleClass};
use wise_badger_mechanics::correction::{
    AddedLeaf, AntiRollBar, Axles, Caution, Correction, CorrectionProblem, HelperSpring, LiftBlock, LoadRubber, Site,
};
use wise_badger_mechanics::side::{Side, Sides};
use wise_badger_mechanics::stance::ForceTable;
use wise_badger_mechanics::tape::{AxleReadings, Datum};
use wise_badger_mechanics::units::{InShopUnits, inches, newtons, pounds, pounds_per_inch};

use support::{half_ton, on_springs_alone};

fn leaning(by: f64) -> Survey {
    let mut survey = on_springs_alone(half_ton());
    let sides = |height: f64| AxleReadings {
        corners: Sides { left: vec![inches(height - by / 2.0)], right: vec![inches(height + by / 2.0)] },
    };
    (survey.heights.empty.rear, survey.heights.loaded.rear) = (sides(21.5), sides(18.8125));
    survey
}

fn block(thickness: f64, side: Option<Side>) -> Correction {
    Correction::at_the_rear(LiftBlock { thickness: inches(thickness) }).on(Site { axles: Axles::Rear, side })
}

fn loaded(survey: &Survey, correction: &Correction) -> PredictedState {
    Predictor::new(survey).predict(correction).loaded.unwrap()
}

fn rise(predicted: &PredictedState, survey: &Survey, side: Side) -> f64 {
    let before = survey.side(End::Rear, LoadState::Loaded, side).unwrap().value;
    (predicted.rear_sides.unwrap().get(side).value - before).customary()
}

#[test]
fn a_lean_that_was_read_is_still_there_with_a_block_on_both_sides() {
    let survey = leaning(0.75);
    let predicted = loaded(&survey, &block(2.0, None));
    let sides = predicted.rear_sides.unwrap();
    assert!(((sides.right.value - sides.left.value).customary() - 0.75).abs() < 1e-6);
    assert!((rise(&predicted, &survey, Side::Left) - 2.0).abs() < 1e-6);
    for side in Side::BOTH {
        assert!(sides.get(side).sd >= predicted.rear.sd, "one corner is never surer than the axle");
    }
    let written = PredictedHeights::of(&Predictor::new(&survey).predict(&block(2.0, None)));
    let rear = written.sides.iter().find(|sides| sides.end == End::Rear && sides.state == LoadState::Loaded).unwrap();
    assert!((rear.left.height_m - sides.left.value.si()).abs() < 1e-12);
}

#[test]
fn one_side_read_is_predicted_as_an_axle_and_no_side() {
    let mut survey = half_ton();
    survey.heights.loaded.rear.corners.left.clear();
    assert_eq!(loaded(&survey, &block(2.0, None)).rear_sides, None);
}

#[test]
fn a_block_on_one_side_lifts_that_side_most_and_says_how_little_is_known_of_the_roll() {
    let survey = leaning(0.0);
    let predicted = loaded(&survey, &block(1.0, Some(Side::Left)));
    let [left, right] = Side::BOTH.map(|side| rise(&predicted, &survey, side));
    assert!((left + right - 1.0).abs() < 1e-3, "together they rise by the block: {left} {right}");
    assert!(left > 0.6 && right < 0.4 && right > -0.3, "{left} {right}");
    // Common practice has no figure for how stiff a truck is in roll; the band must reach from bare springs to a heavy bar.
    assert!(predicted.rear_sides.unwrap().left.sd.customary() > 0.12, "{:?}", predicted.rear_sides);
    let both = loaded(&survey, &block(1.0, None));
    assert!(both.rear_sides.unwrap().left.sd < predicted.rear_sides.unwrap().left.sd);
}

#[test]
fn at_the_front_the_front_rises_and_the_rear_stays() {
    let survey = half_ton();
    let helper = HelperSpring { pair_rate: pounds_per_inch(300.0), engagement_gap: inches(-1.0) };
    let site = Site { axles: Axles::Front, side: None };
    let helpers = Correction::at_the_rear(helper).on(site);
    let predicted = Predictor::new(&survey).predict(&helpers).empty.unwrap();
    let before = survey.height(End::Front, LoadState::Empty).unwrap();
    let front = predicted.front.unwrap();
    assert!(front.value > before.value + inches(0.2), "{front:?}");
    assert!(front.sd > before.sd, "the front springs are only assumed");
    assert!(predicted.rise.value.abs() < inches(0.01), "{:?}", predicted.rise.value);
    let leaf = AddedLeaf { pair_rate: pounds_per_inch(90.0), lift: inches(1.0) };
    assert!(Correction::at_the_rear(leaf).on(site).cautions().starts_with(&[Caution::SteeredAxle]));
}

#[test]
fn on_one_axle_of_a_tandem_the_frame_rises_by_part_of_it() {
    let mut survey = half_ton();
    survey.vehicle.class = VehicleClass::TandemTrailer;
    survey.datum = Datum::GroundToArch;
    let on = |axles| block(1.0, None).on(Site { axles, side: None });
    let rise = |axles| loaded(&survey, &on(axles)).rise.value.customary();
    let (all, first, second) = (rise(Axles::Rear), rise(Axles::OneOfRear(1)), rise(Axles::OneOfRear(2)));
    assert!((all - 1.0).abs() < 1e-6, "{all}");
    assert!((first + second - all).abs() < 0.02 && first > 0.2 && second > 0.2, "{first} {second}");
    let third = Predictor::new(&survey).predict(&on(Axles::OneOfRear(3))).loaded;
    assert_eq!(third, Err(Unpredicted::NoSuchAxle));
    assert_eq!(Predictor::new(&survey).predict(&on(Axles::Front)).loaded, Err(Unpredicted::NoSuchAxle));
}

#[test]
fn what_never_goes_there_is_refused() {
    let steered = block(2.0, None).on(Site { axles: Axles::Front, side: None });
    assert_eq!(steered.problems(), [CorrectionProblem::NotOnTheFront], "no block on a steered axle");
    let force = ForceTable::new(&[(inches(0.0), newtons(0.0)), (inches(1.0), newtons(900.0))]).unwrap();
    let rubber = LoadRubber { clearance: inches(1.0), force };
    let one = Correction::at_the_rear(rubber).on(Site { axles: Axles::Rear, side: Some(Side::Left) });
    assert_eq!(one.problems(), [CorrectionProblem::NotOnOneSide]);
    let sided = block(1.0, Some(Side::Right));
    assert_eq!(sided.problems(), []);
    assert!(sided.cautions().contains(&Caution::OneSideOnly));
}

#[test]
fn a_bar_lifts_nothing_and_takes_part_of_what_a_load_to_one_side_leans() {
    let mut survey = on_springs_alone(half_ton());
    let item = Item { lateral: inches(20.0), ..Item::at(pounds(1000.0), inches(0.0)) };
    survey.load = Some(LoadPut::Planned { items: vec![item], scale: Ends::default() });
    let bar = AntiRollBar { end_rate: pounds_per_inch(300.0), base: inches(40.0) };
    let predicted = loaded(&survey, &Correction::at_the_rear(bar));
    assert!(predicted.rise.value.abs() < inches(1e-4), "{:?}", predicted.rise.value);
    // 20 in to the right of the middle the right is low; a bar brings it up and the left down by as much.
    let [left, right] = Side::BOTH.map(|side| rise(&predicted, &survey, side));
    assert!(right > 0.1 && (left + right).abs() < 1e-3, "{left} {right}");
    let stiffer = AntiRollBar { end_rate: pounds_per_inch(600.0), base: inches(40.0) };
    let more = loaded(&survey, &Correction::at_the_rear(stiffer));
    assert!(rise(&more, &survey, Side::Right) > right);
}

fn rubber(axles: Axles) -> Correction {
    let force = ForceTable::new(&[(inches(0.0), newtons(0.0)), (inches(1.0), newtons(900.0))]).unwrap();
    Correction::at_the_rear(LoadRubber { clearance: inches(3.0), force }).on(Site { axles, side: None })
}

#[test]
fn a_block_on_one_side_jacks_the_other_up_and_opens_both_gaps() {
    // The front resists the roll, so that the side without the block is unloaded, and its spring lengthens.
    let mut survey = leaning(0.0);
    survey.stop_gap = States::of(Gaps::at_the_rear(inches(4.0)), Gaps::at_the_rear(inches(2.0)));
    let one = loaded(&survey, &block(2.0, Some(Side::Left))).travel_left.unwrap();
    let both = loaded(&survey, &block(2.0, None)).travel_left.unwrap();
    assert!(one > inches(2.0) && one < both, "{one:?} {both:?}");
}

#[test]
fn while_the_stops_still_bear_no_height_is_promised() {
    let mut survey = half_ton();
    // 2 in of gap empty, and the axle came up 2 11/16 in: the stops bore part of the load, whatever is fitted.
    survey.stop_gap = States::of(Gaps::at_the_rear(inches(2.0)), Gaps::default());
    for thickness in [0.5, 1.0, 4.0] {
        let loaded = Predictor::new(&survey).predict(&block(thickness, None)).loaded;
        assert_eq!(loaded, Err(Unpredicted::OnTheStops), "{thickness} in");
    }
    assert!(Predictor::new(&survey).predict(&block(0.5, None)).empty.is_ok(), "empty they are clear");
}

#[test]
fn a_rubber_at_the_front_leaves_the_rear_its_own_stops() {
    let mut survey = half_ton();
    survey.stop_gap = States::of(Gaps::at_the_rear(inches(4.0)), Gaps::at_the_rear(inches(1.5)));
    let at_the_front = loaded(&survey, &rubber(Axles::Front)).travel_left.unwrap();
    assert!((at_the_front - inches(1.5)).abs() < inches(0.02), "{at_the_front:?}");
    assert!(!rubber(Axles::Front).replaces_stops() && rubber(Axles::Rear).replaces_stops());
    // Beyond the stops' gap no case is predicted with it either.
    let mut heavy = survey.clone();
    heavy.load = Some(LoadPut::Placed { weight: pounds(2000.0), behind_rear_axle: inches(0.0) });
    let case = Predictor::new(&survey).in_case(&heavy, &rubber(Axles::Front));
    assert_eq!(case, Err(Unpredicted::OnTheStops));
}

#[test]
fn travel_and_frequency_are_those_of_the_axle_it_goes_on_and_the_least_gap_counts() {
    let mut survey = half_ton();
    survey.vehicle.class = VehicleClass::TandemTrailer;
    survey.datum = Datum::GroundToArch;
    survey.stop_gap = States::of(Gaps::at_the_rear(inches(4.0)), Gaps::at_the_rear(inches(2.0)));
    survey.overload_leaves.bears = States::of(Some(false), Some(false));
    survey.load = Some(LoadPut::Placed { weight: pounds(5_000.0), behind_rear_axle: inches(0.0) });
    let springs = HelperSpring { pair_rate: pounds_per_inch(400.0), engagement_gap: inches(-0.5) };
    let on = |axles| Correction::at_the_rear(springs).on(Site { axles, side: None });
    for axles in [Axles::OneOfRear(1), Axles::OneOfRear(2)] {
        let predicted = loaded(&survey, &on(axles));
        let (before, after) = (predicted.bounce_before.unwrap().frequency, predicted.bounce_after.unwrap().frequency);
        assert!(after > before, "{axles:?}: stiffer springs on that axle: {before:?} {after:?}");
        // The axle with the block opens by more of it than the other: the lesser is told, whichever that is.
        let lifted = loaded(&survey, &block(2.0, None).on(Site { axles, side: None }));
        let opened = lifted.travel_left.unwrap() - inches(2.0);
        assert!(
            opened < lifted.rise.value + inches(0.25) && opened > inches(0.2),
            "{axles:?}: {opened:?}, {:?}",
            lifted.rise.value
        );
    }
}

proptest! {
    #[test]
    fn left_and_right_mirror_each_other_and_add_up_to_both(thickness in 0.25_f64..4.0, lean in -1.5_f64..1.5) {
        let (survey, mirrored) = (leaning(lean), leaning(-lean));
        let left = loaded(&survey, &block(thickness, Some(Side::Left)));
        let right = loaded(&mirrored, &block(thickness, Some(Side::Right)));
        let (of_left, of_right) = (left.rear_sides.unwrap(), right.rear_sides.unwrap());
        prop_assert!((of_left.left.value - of_right.right.value).abs() < inches(1e-4));
        prop_assert!((of_left.right.value - of_right.left.value).abs() < inches(1e-4));
        let other = loaded(&survey, &block(thickness, Some(Side::Right)));
        let together = rise(&left, &survey, Side::Left) + rise(&other, &survey, Side::Left);
        prop_assert!((together - thickness).abs() < 1e-3, "{together}");
    }
}

#[test]
fn that_the_springs_of_a_pair_are_not_quite_alike_leaves_the_sides_more_open_than_the_axle() {
    let survey = leaning(0.5);
    let sd = |correction: &Correction| {
        let predicted = loaded(&survey, correction);
        let half_lean = survey.half_lean_sd(End::Rear, LoadState::Loaded).unwrap();
        let of_reading = (predicted.rear.sd.si().powi(2) + half_lean.si().powi(2)).sqrt();
        predicted.rear_sides.unwrap().left.sd.si() - of_reading
    };
    // What lifts both by as much whatever they carry has no part in it; what the springs decide has.
    assert!(sd(&block(2.0, None)).abs() < 1e-6);
    let helpers = HelperSpring { pair_rate: pounds_per_inch(300.0), engagement_gap: inches(0.5) };
    assert!(sd(&Correction::at_the_rear(helpers)) > 1e-5, "{}", sd(&Correction::at_the_rear(helpers)));
    assert!(
        (loaded(&survey, &Correction::at_the_rear(helpers)).rear.value - {
            let mut axle_only = survey.clone();
            axle_only.heights.loaded.rear.corners = Sides::both(vec![inches(18.8125)]);
            axle_only.heights.empty.rear.corners = Sides::both(vec![inches(21.5)]);
            loaded(&axle_only, &Correction::at_the_rear(helpers)).rear.value
        })
        .si()
        .abs()
            < 1e-6,
        "the axle as a whole stays where it was"
    );
}
