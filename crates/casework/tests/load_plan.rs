//! Load plan, cases and ratings against lever arms worked by hand.

#[allow(dead_code, reason = "shared by several test files")]
mod support;

use proptest::prelude::*;
use support::half_ton;
use wise_badger_casework::prediction::{Predictor, Unpredicted};
use wise_badger_casework::survey::{Basis, Centre, End, Ends, Gaps, Item, LoadProblem, LoadPut, LoadState, Survey, Thing};
use wise_badger_casework::verdict::{Overload, Rated, RatingCheck, Relief};
use wise_badger_mechanics::correction::{AddedLeaf, Correction, LiftBlock};
use wise_badger_mechanics::units::{Force, InShopUnits, Length, inches, kilograms, pounds, pounds_per_inch};

/// The vehicle as it is.
const NOTHING: &[Correction] = &[];

fn item(weight: f64, behind: f64) -> Item {
    Item::at(pounds(weight), inches(behind))
}

fn with(items: Vec<Item>) -> Survey {
    half_ton().in_case(items, Ends::default())
}

fn change_lb(survey: &Survey, end: End) -> f64 {
    survey.axle_loads().change.get(end).expect("known").value.customary()
}

fn close(what: &str, got: f64, want: f64, tolerance: f64) {
    assert!((got - want).abs() <= tolerance, "{what}: {got}, expected {want}");
}

#[test]
fn overhang_lightens_the_front_and_a_plough_the_rear() {
    // Wheelbase 145 in. Tongue: 500·(145 + 50)/145. Plough, 42 in ahead of the front axle: −650·42/145.
    let tongue = with(vec![item(500.0, 50.0)]);
    close("tongue, rear", change_lb(&tongue, End::Rear), 672.41, 0.01);
    close("tongue, front", change_lb(&tongue, End::Front), -172.41, 0.01);
    let plough = with(vec![item(650.0, -187.0)]);
    close("plow, rear", change_lb(&plough, End::Rear), -188.28, 0.01);
    close("plow, front", change_lb(&plough, End::Front), 838.28, 0.01);
    let both = with(vec![item(500.0, 50.0), item(650.0, -187.0)]);
    close("both, rear", change_lb(&both, End::Rear), 672.41 - 188.28, 0.02);
}

#[test]
fn the_common_centre_is_the_weighted_mean_of_all_three_ways() {
    let low = Item { lateral: inches(-20.0), height: Some(inches(30.0)), ..item(300.0, 10.0) };
    let high = Item { lateral: inches(10.0), height: Some(inches(60.0)), ..item(100.0, -30.0) };
    let centre = Centre::of(&[low, high]).expect("something is aboard");
    close("along", centre.behind_rear_axle.customary(), 0.0, 1e-9);
    close("across", centre.lateral.customary(), -12.5, 1e-9);
    close("up", centre.height.expect("both have one").customary(), 37.5, 1e-9);
    assert_eq!(Centre::of(&[low, Item { height: None, ..high }]).and_then(|centre| centre.height), None);
    assert_eq!(Centre::of(&[]), None);
}

#[test]
fn occupants_weigh_what_the_standards_say() {
    // 49 CFR 571.110 S3 and ISO 2416, from memory.
    let vehicle = half_ton().vehicle;
    assert_eq!(Thing::Occupant.usual(&vehicle).weight, kilograms(68.0));
    assert_eq!(Thing::OccupantWithLuggage.usual(&vehicle).weight, kilograms(75.0));
}

#[test]
fn everything_on_the_shelf_can_be_put_where_it_usually_sits() {
    let vehicle = half_ton().vehicle;
    for thing in Thing::all().filter(|thing| thing.fits(&vehicle)) {
        assert_eq!(thing.usual(&vehicle).problem(&vehicle), None, "{thing:?}");
    }
    assert!(Thing::TongueWeight.usual(&vehicle).on_hitch);
}

#[test]
fn a_scale_against_a_known_empty_weight_overrides_the_plan_and_shows_the_difference() {
    let mut survey = half_ton();
    survey.vehicle.kerb.rear = Some(pounds(2200.0));
    let case = survey.in_case(vec![item(1000.0, 0.0)], Ends { front: None, rear: Some(pounds(3350.0)) });
    close("rear change", change_lb(&case, End::Rear), 1150.0, 1e-6);
    let over = case.load.as_ref().and_then(|load| load.scale_over_plan(&case.vehicle, End::Rear)).expect("weighed");
    close("difference", over.value.customary(), 150.0, 1e-6);
    assert!(!case.load_is_as_planned());
}

#[test]
fn a_scale_where_the_empty_weight_is_assumed_tells_the_empty_weight() {
    let case = half_ton().in_case(vec![item(1000.0, 0.0)], Ends { front: None, rear: Some(pounds(3350.0)) });
    let loads = case.axle_loads();
    close("empty rear", loads.empty.rear.customary(), 2350.0, 1e-6);
    assert_eq!(loads.empty_basis.rear, Basis::Stated);
    close("rear change", change_lb(&case, End::Rear), 1000.0, 1e-6);
    assert_eq!(case.load.as_ref().and_then(|load| load.scale_over_plan(&case.vehicle, End::Rear)), None);
}

#[test]
fn what_is_always_aboard_comes_on_top_of_an_assumed_empty_weight_alone() {
    let mut survey = half_ton();
    let (bare, _) = survey.vehicle.kerb_weight(End::Rear);
    survey.vehicle.always = vec![item(145.0, -14.5)];
    close("assumed", (survey.vehicle.kerb_weight(End::Rear).0 - bare).customary(), 130.5, 1e-6);
    survey.vehicle.kerb.rear = Some(pounds(2400.0));
    close("weighed", survey.vehicle.kerb_weight(End::Rear).0.customary(), 2400.0, 1e-9);
}

#[test]
fn tyres_wheels_and_hitch_are_held_against_their_own_ratings() {
    let mut survey = with(vec![Item { on_hitch: true, ..item(600.0, 50.0) }]);
    survey.vehicle.tyre_ratings.rear = Some(pounds(1500.0));
    survey.vehicle.wheel_ratings.rear = Some(pounds(1600.0));
    survey.vehicle.hitch_rating = Some(pounds(500.0));
    let margin = |rated| {
        let checks = RatingCheck::of_state(&survey, LoadState::Loaded);
        checks.iter().find(|check| check.rated == rated).expect("checked").margin().customary()
    };
    let rear = 2250.0 + 600.0 * 195.0 / 145.0;
    close("two tires", margin(Rated::Tyres(End::Rear)), 3000.0 - rear, 0.01);
    close("two wheels", margin(Rated::Wheels(End::Rear)), 3200.0 - rear, 0.01);
    close("hitch", margin(Rated::Hitch), -100.0, 1e-6);
    let overload = Overload::of(&survey).expect("tires and hitch are over");
    let Relief::TakeOffItems { off, .. } = &overload.relief else { panic!("{overload:?}") };
    assert_eq!(off.len(), 1);
    close("off the tongue", off[0].1.customary(), 100.0, 0.5);
}

/// 2,250 lb of the class and 3,000 of a camper nobody weighed, right over an axle rated for 4,100.
#[test]
fn only_what_was_weighed_or_stated_is_surely_over_a_rating() {
    let sure = |kerb: Option<f64>, basis: Basis, scale: Option<f64>| {
        let mut survey = with(vec![Item { basis, ..item(3000.0, 0.0) }]);
        survey.vehicle.kerb.rear = kerb.map(pounds);
        if let (Some(LoadPut::Planned { scale: of, .. }), Some(scale)) = (&mut survey.load, scale) {
            of.rear = Some(pounds(scale));
        }
        let overload = Overload::of(&survey).expect("over, by what is known and assumed");
        overload.is_sure()
    };
    assert!(!sure(Some(2250.0), Basis::Assumed, None), "the camper may weigh less");
    assert!(sure(Some(2250.0), Basis::Stated, None));
    assert!(sure(None, Basis::Assumed, Some(5200.0)), "a scale weighs all of it");
    // No half-ton is under seven tenths of its class: 1,575 and 3,000 are past 4,100.
    assert!(sure(None, Basis::Stated, None));
    let mut light = with(vec![item(2000.0, 0.0)]);
    light.vehicle.kerb.rear = None;
    assert!(!Overload::of(&light).unwrap().is_sure(), "1,575 and 2,000 are not");
    // A thing behind the axle lightens the front: not weighed, it makes the front no less sure.
    let tongue = |basis| {
        let mut survey = with(vec![Item { basis, ..item(600.0, 50.0) }]);
        survey.vehicle.kerb.front = Some(pounds(4300.0));
        Overload::of(&survey).unwrap().is_sure()
    };
    assert!(tongue(Basis::Assumed) && tongue(Basis::Stated));
}

#[test]
fn the_usual_weight_of_a_thing_is_in_more_doubt_than_a_weighed_one() {
    let doubt = |basis| {
        let survey = with(vec![Item { basis, ..item(1000.0, 0.0) }]);
        survey.axle_loads().change.rear.unwrap().sd.customary()
    };
    // A fifth of it, beside 2 in of place in 145 of wheelbase.
    close("usual", doubt(Basis::Assumed), 200.0_f64.hypot(1000.0 * 2.0 / 145.0), 0.01);
    close("weighed", doubt(Basis::Stated), 26.0_f64.hypot(1000.0 * 2.0 / 145.0), 0.01);
}

#[test]
fn a_place_off_the_vehicle_is_refused_with_what_is_possible() {
    let vehicle = half_ton().vehicle;
    assert!(matches!(item(100.0, 140.0).problem(&vehicle), Some(LoadProblem::OffTheVehicle { .. })));
    assert_eq!(item(0.0, 0.0).problem(&vehicle), Some(LoadProblem::Nothing));
    let outside = Item { lateral: inches(-60.0), ..item(100.0, 0.0) };
    assert_eq!(outside.problem(&vehicle), Some(LoadProblem::PastTheSide { most: inches(51.0) }));
}

#[test]
fn half_the_load_over_the_axle_sags_half_as_far_from_the_hub() {
    // 1,000 lb brought the rear from 21 1/2 to 18 13/16 in: 2 11/16 in, so 500 lb bring it 1 11/32 in down.
    let survey = half_ton();
    let predictor = Predictor::new(&survey);
    let case = predictor.in_case(&with(vec![item(500.0, 0.0)]), NOTHING).expect("measured");
    close("rear", case.rear.value.customary(), 21.5 - 2.6875 / 2.0, 0.005);
    assert!(case.rate_measured);
    let block = Correction::at_the_rear(LiftBlock { thickness: inches(2.0) });
    let raised = predictor.in_case(&with(vec![item(500.0, 0.0)]), &block).expect("measured");
    close("block", (raised.rear.value - case.rear.value).customary(), 2.0, 1e-6);
    // Nose up: a tongue takes 172 lb off the front, at the class's 500 lb/in.
    let nose = predictor.in_case(&with(vec![item(500.0, 50.0)]), NOTHING).expect("measured");
    close("front", nose.front.expect("read").value.customary(), 20.5 + 172.41 / 500.0, 0.01);
}

#[test]
fn a_case_that_would_rest_on_the_stops_is_not_predicted_until_they_are_clear() {
    let mut survey = half_ton();
    survey.stop_gap.empty = Gaps::at_the_rear(inches(3.0));
    let heavy = survey.in_case(vec![item(1400.0, 0.0)], Ends::default());
    let predictor = Predictor::new(&survey);
    // 1,400 lb at 372 lb/in use up 3 3/4 in of the 3 in there are.
    assert_eq!(predictor.in_case(&heavy, NOTHING).err(), Some(Unpredicted::OnTheStops));
    let leaf = Correction::at_the_rear(AddedLeaf { pair_rate: pounds_per_inch(400.0), lift: inches(1.0) });
    let clear = predictor.in_case(&heavy, &leaf).expect("a leaf keeps it off them");
    assert!(clear.travel_left.is_some_and(|left| left > inches(0.5)), "{clear:?}");
}

#[test]
fn a_case_is_not_predicted_without_empty_heights() {
    let mut survey = half_ton();
    survey.heights.empty = Default::default();
    let answer = Predictor::new(&survey).in_case(&with(vec![item(500.0, 0.0)]), NOTHING);
    assert_eq!(answer.err(), Some(Unpredicted::NotMeasured));
}

proptest! {
    #[test]
    fn taking_off_what_is_named_brings_every_rating_back(
        weights in prop::collection::vec((50.0..2500.0f64, -140.0..70.0f64), 1..6),
        rear_rating in 2600.0..4500.0f64,
    ) {
        let mut survey = with(weights.iter().map(|(weight, behind)| item(*weight, *behind)).collect());
        survey.vehicle.axle_ratings.rear = pounds(rear_rating);
        survey.vehicle.gross_rating = Some(pounds(7500.0));
        let Some(Overload { relief: Relief::TakeOffItems { off, .. }, .. }) = Overload::of(&survey) else { return Ok(()) };
        let Some(LoadPut::Planned { items, .. }) = survey.load.as_mut() else { panic!("planned") };
        for (index, weight) in off {
            prop_assert!(weight <= items[index].weight + pounds(1e-6));
            items[index].weight -= weight;
        }
        for check in RatingCheck::of_state(&survey, LoadState::Loaded) {
            prop_assert!(check.margin().customary() > -0.01, "{check:?}");
        }
    }

    #[test]
    fn both_axles_together_carry_what_is_aboard(weights in prop::collection::vec((1.0..3000.0f64, -150.0..80.0f64), 1..8)) {
        let items: Vec<Item> = weights.iter().map(|(weight, behind)| item(*weight, *behind)).collect();
        let total: Force = items.iter().map(|item| item.weight).sum();
        let survey = with(items.clone());
        let added = change_lb(&survey, End::Front) + change_lb(&survey, End::Rear);
        prop_assert!((added - total.customary()).abs() < 1e-6);
        // And they carry it at its centre.
        let centre = Centre::of(&items).expect("aboard").behind_rear_axle + inches(145.0);
        let by_lever = Length::customary(&centre) * total.customary() / 145.0;
        prop_assert!((change_lb(&survey, End::Rear) - by_lever).abs() < 1e-6);
    }
}
