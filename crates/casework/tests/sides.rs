//! Left and right from the tape to the prediction: what leans stays told apart, and a correction may go on one side or at one end.

#![allow(clippy::unwrap_used, clippy::indexing_slicing, reason = "a test fails where it stands")]

mod support;

use proptest::prelude::*;
use wise_badger_casework::entry::PredictedHeights;
use wise_badger_casework::prediction::{PredictedState, Predictor, Unpredicted};
use wise_badger_casework::survey::{End, Ends, Item, LoadPut, LoadState, Survey, VehicleClass};
use wise_badger_mechanics::correction::{
    AddedLeaf, AntiRollBar, Axles, Caution, Correction, CorrectionProblem, HelperSpring, LiftBlock, LoadRubber, Site,
};
use wise_badger_mechanics::side::{Side, Sides};
use wise_badger_mechanics::stance::ForceTable;
use wise_badger_mechanics::tape::{AxleReadings, Datum};
use wise_badger_mechanics::units::{InShopUnits, inches, newtons, pounds, pounds_per_inch};

use support::half_ton;

fn leaning(by: f64) -> Survey {
    let mut survey = half_ton();
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
    assert!(predicted.rise.abs() < inches(0.01), "{:?}", predicted.rise);
    let leaf = AddedLeaf { pair_rate: pounds_per_inch(90.0), lift: inches(1.0) };
    assert!(Correction::at_the_rear(leaf).on(site).cautions().starts_with(&[Caution::SteeredAxle]));
}

#[test]
fn on_one_axle_of_a_tandem_the_frame_rises_by_part_of_it() {
    let mut survey = half_ton();
    survey.vehicle.class = VehicleClass::TandemTrailer;
    survey.datum = Datum::GroundToArch;
    let on = |axles| block(1.0, None).on(Site { axles, side: None });
    let rise = |axles| loaded(&survey, &on(axles)).rise.customary();
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
    let mut survey = half_ton();
    let item = Item { lateral: inches(20.0), ..Item::at(pounds(1000.0), inches(0.0)) };
    survey.load = Some(LoadPut::Planned { items: vec![item], scale: Ends::default() });
    let bar = AntiRollBar { end_rate: pounds_per_inch(300.0), base: inches(40.0) };
    let predicted = loaded(&survey, &Correction::at_the_rear(bar));
    assert!(predicted.rise.abs() < inches(1e-6), "{:?}", predicted.rise);
    // 20 in to the right of the middle the right is low; a bar brings it up and the left down by as much.
    let [left, right] = Side::BOTH.map(|side| rise(&predicted, &survey, side));
    assert!(right > 0.1 && (left + right).abs() < 1e-3, "{left} {right}");
    let stiffer = AntiRollBar { end_rate: pounds_per_inch(600.0), base: inches(40.0) };
    let more = loaded(&survey, &Correction::at_the_rear(stiffer));
    assert!(rise(&more, &survey, Side::Right) > right);
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
