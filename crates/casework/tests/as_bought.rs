//! Parts as a shop buys them, by what a box says: held against facts of the trade ("common practice", no source) and against formulas
//! of any statics text.

#![allow(clippy::unwrap_used, reason = "a test fails where it stands")]

#[allow(dead_code, reason = "each test file its own part of it")]
#[path = "support/mod.rs"]
mod support;

use proptest::prelude::*;
use support::{half_ton, heights, on_springs_alone};
use wise_badger_casework::prediction::{PredictedState, Predictor, Unpredicted};
use wise_badger_casework::survey::{End, Ends, Gaps, LoadPut, LoadState, NoFit, SpringKind, States, Survey, VehicleClass};
use wise_badger_mechanics::correction::{
    Axles, Correction, CorrectionProblem, Given, KindRow, LiftBlock, Quantity, RubberByCapacity, Site, not_together,
};
use wise_badger_mechanics::tape::{Datum, HeightReadings};
use wise_badger_mechanics::units::{self, InShopUnits, inches, pounds, pounds_per_inch};

/// A part of a kind, its figures by name.
fn part(word: &str, figures: &[(&'static str, Quantity)]) -> Correction {
    let given = figures.iter().cloned().fold(Given::default(), |given, (name, figure)| given.with(name, figure));
    KindRow::of(word).unwrap().correction(&given, Site::default()).unwrap()
}

fn length(inch: f64) -> Quantity {
    Quantity::Length(inches(inch))
}

fn weight(pound: f64) -> Quantity {
    Quantity::Weight(pounds(pound))
}

fn rate(pound_per_inch: f64) -> Quantity {
    Quantity::Rate(pounds_per_inch(pound_per_inch))
}

fn loaded(survey: &Survey, part: &Correction) -> PredictedState {
    Predictor::new(survey).predict(part).loaded.unwrap()
}

/// What was measured lies in the band of what the tape will read, and the band at rest is no wider than a foreman would state it.
fn holds(predicted: PredictedState, measured: f64, foreman: f64) {
    let (tape, band) = (predicted.tape(), 2.0 * predicted.rear.sd.customary());
    assert!((tape.value.customary() - measured).abs() <= 2.0 * tape.sd.customary(), "{tape:?}, measured {measured}");
    assert!(band <= foreman, "± {band} is wider than ± {foreman}");
}

/// A half-ton with 1,000 lb over its axle, 40 in empty and 37 loaded from the ground to the arch.
fn half_ton_at_the_arch() -> Survey {
    let mut survey = half_ton();
    survey.datum = Datum::GroundToArch;
    survey.heights = States::of(heights(37.0, 40.0), heights(37.0, 37.0));
    survey
}

#[test]
fn push_in_rubbers_sold_for_three_thousand_each_bring_half_of_a_half_tons_sag_back() {
    // Common practice: 38 1/2 in, the front as it was. The box says 6,000 lb, which is the pair's.
    let rubber =
        part("rubber_by_capacity", &[("capacity", weight(3_000.0)), ("free_height", length(5.0)), ("clearance", length(0.5))]);
    let predicted = loaded(&half_ton_at_the_arch(), &rubber);
    holds(predicted, 38.5, 5.0 / 8.0);
    let front = predicted.front.unwrap();
    assert!((front.value.customary() - 37.0).abs() <= 2.0 * front.sd.customary() + 1.0 / 16.0, "{front:?}");
}

#[test]
fn heavy_rubbers_bring_a_slide_in_camper_back_by_nearly_half() {
    // Common practice: a one-ton with 3,800 to 4,000 lb falls 42 -> 38 1/8 in, its stop gap 4 3/4 -> 2 in; rubbers with 1/2 in of
    // clearance bring it to 39 7/8 in.
    let mut survey = half_ton();
    survey.vehicle.class = VehicleClass::OneTonPickup;
    survey.vehicle.axle_ratings = Ends { front: pounds(5200.0), rear: pounds(7200.0) };
    survey.datum = Datum::GroundToArch;
    survey.heights = States::of(heights(39.0, 42.0), heights(39.0, 38.125));
    survey.stop_gap = States::of(Gaps::at_the_rear(inches(4.75)), Gaps::at_the_rear(inches(2.0)));
    survey.load = Some(LoadPut::Placed { weight: pounds(3900.0), behind_rear_axle: inches(0.0) });
    let rubber =
        part("rubber_by_capacity", &[("capacity", weight(5_000.0)), ("free_height", length(5.0)), ("clearance", length(0.5))]);
    holds(loaded(&survey, &rubber), 39.875, 5.0 / 8.0);
}

#[test]
fn packs_sold_as_forty_millimetres_raise_a_tired_wagon_by_more() {
    // Common practice: rim to arch, rear 700 -> 760 mm and front 680 -> 750, before settling. Nobody knew how far the old ones had set.
    let mut survey = half_ton();
    survey.vehicle.class = VehicleClass::Wagon;
    survey.vehicle.springs = Ends { front: Some(SpringKind::Leaf), rear: Some(SpringKind::Leaf) };
    survey.datum = Datum::RimToArch;
    survey.heights = States::of(heights(680.0 / 25.4, 700.0 / 25.4), HeightReadings::default());
    survey.load = None;
    let figures = [("lift", length(40.0 / 25.4)), ("old_lift", length(0.0)), ("set", length(0.5)), ("added_rate", rate(0.0))];
    let rear = part("new_packs", &figures);
    let predicted = Predictor::new(&survey).predict(&rear).empty.unwrap();
    let (tape, measured) = (predicted.tape(), 760.0 / 25.4);
    assert!((tape.value.customary() - measured).abs() <= 2.0 * tape.sd.customary(), "{tape:?}");
    let in_front = rear.on(Site { axles: Axles::Front, side: None });
    let front = Predictor::new(&survey).predict(&in_front).empty.unwrap().front.unwrap();
    assert!((front.value.customary() - 750.0 / 25.4).abs() <= 2.0 * front.sd.customary(), "{front:?}");
}

#[test]
fn a_strut_spacer_raises_about_twice_its_thickness() {
    // Common practice: 1 1/2 in gives about 3; the strut stands half-way along its arm.
    let mut survey = half_ton();
    survey.vehicle.springs.front = Some(SpringKind::Coil);
    let figures = [("thickness", length(1.5)), ("pivot_to_strut", length(7.0)), ("pivot_to_wheel", length(14.0))];
    let spacer = part("strut_spacer", &figures).on(Site { axles: Axles::Front, side: None });
    let raised = Predictor::new(&survey).predict(&spacer).empty.unwrap().front.unwrap();
    assert!((raised.value.customary() - 23.5).abs() < 0.05, "{raised:?}");
    // The arm's ratio is in doubt by 15 %: nine tenths of an inch of three, as two standard deviations.
    assert!((0.8..1.1).contains(&(2.0 * raised.sd.customary())), "{raised:?}");
}

#[test]
fn helpers_by_capacity_are_helpers_of_that_rate_with_a_wider_band() {
    let survey = on_springs_alone(half_ton());
    let sold = part(
        "helper_by_capacity",
        &[("capacity", weight(1_200.0)), ("working_travel", length(6.0)), ("engagement_gap", length(0.5))],
    );
    let measured = part("helper_spring", &[("pair_rate", rate(200.0)), ("engagement_gap", length(0.5))]);
    let (sold, measured) = (loaded(&survey, &sold), loaded(&survey, &measured));
    assert!((sold.rear.value - measured.rear.value).abs() < inches(1e-6));
    assert!(sold.part.customary() > 1.8 * measured.part.customary(), "{:?} {:?}", sold.part, measured.part);
}

#[test]
fn a_leaf_by_its_lift_is_a_leaf_of_that_rate_and_its_lift_is_no_more_than_it_is_sold_for() {
    let survey = on_springs_alone(half_ton());
    let figures = [("lift", length(1.5)), ("capacity", weight(600.0)), ("working_travel", length(6.0))];
    let sold = Predictor::new(&survey).predict(&part("leaf_by_lift", &figures));
    let measured = [("pair_rate", rate(100.0)), ("lift", length(1.5))];
    let measured = Predictor::new(&survey).predict(&part("added_leaf", &measured));
    let (empty, loaded) = (sold.empty.unwrap(), sold.loaded.unwrap());
    // Half an inch is what a box's lift is off by, as one standard deviation; what the old leaves have set is no part of it.
    assert!((empty.rise.value.customary() - 1.5).abs() < 1e-6 && empty.part.customary() >= 1.0 - 1e-6, "{empty:?}");
    let by_rate = measured.loaded.unwrap();
    assert!((loaded.rear.value - by_rate.rear.value).abs() < inches(1e-6) && loaded.part >= by_rate.part);
}

#[test]
fn a_half_pack_lifts_as_added_leaves_do_and_asks_for_longer_u_bolts() {
    let survey = on_springs_alone(half_ton());
    let leaves = [("lift", length(1.25)), ("capacity", weight(900.0)), ("working_travel", length(6.0))];
    let half_pack = part("half_pack", &[&leaves[..], &[("stack", length(1.5))]].concat());
    let (one, other) = (loaded(&survey, &half_pack), loaded(&survey, &part("leaf_by_lift", &leaves)));
    assert_eq!(one.rear, other.rear);
    assert!((half_pack.off_the_seat() - inches(1.5)).abs() < inches(1e-9) && half_pack.opens_the_stop() == inches(0.0));
    assert!(!half_pack.row().ends.have_a_front(), "a stack over a steered axle's seat is a block");
    let block = Correction::at_the_rear(LiftBlock { thickness: inches(1.0) });
    assert!(not_together(&[half_pack, block]).is_some(), "one stack a seat");
}

#[test]
fn a_part_pressed_past_what_it_is_sold_for_has_no_height() {
    let survey = on_springs_alone(half_ton());
    let small = [("capacity", weight(150.0)), ("free_height", length(2.0)), ("clearance", length(0.0))];
    let predicted = Predictor::new(&survey).predict(&part("rubber_by_capacity", &small));
    assert!(predicted.empty.is_ok(), "{:?}", predicted.empty);
    assert_eq!(predicted.loaded.unwrap_err(), Unpredicted::PastThePart);
}

#[test]
fn coils_of_the_same_free_height_and_twice_the_rate_give_back_half_of_the_squash() {
    let mut survey = on_springs_alone(half_ton());
    survey.vehicle.springs.rear = Some(SpringKind::Coil);
    survey.overload_leaves = Default::default();
    let figures = [
        ("new_height", length(14.0)),
        ("old_height", length(14.0)),
        ("standing_height", length(11.0)),
        ("solid_height", length(5.5)),
        ("new_rate", rate(400.0)),
        ("old_rate", rate(200.0)),
    ];
    let coils = part("measured_coils", &figures);
    let predictor = Predictor::new(&survey);
    let predicted = predictor.predict(&coils);
    let rate = predictor.rate().measured().unwrap().rate.customary();
    // Half of the 3 in that it was squashed by empty, whatever it carried; and half of what 1,000 lb more squash it by.
    let sag = 1_000.0 / rate;
    for (predicted, before, squash) in [(predicted.empty.unwrap(), 21.5, 3.0), (predicted.loaded.unwrap(), 18.8125, 3.0 + sag)] {
        let rise = predicted.rear.value.customary() - before;
        assert!((rise - squash / 2.0).abs() < 0.06, "{rise} {}", squash / 2.0);
        // Heights by a tape, to an eighth each, and rates to a twentieth.
        assert!(predicted.part.customary() > 0.25, "{:?}", predicted.part);
    }
}

/// The old coil stands 11 in tall empty, and 3 in shorter under the load: a new one that is solid at 8 in is bound there, and one that is
/// no taller free than solid is no coil.
#[test]
fn a_coil_that_is_pressed_solid_is_not_predicted() {
    let mut survey = on_springs_alone(half_ton());
    survey.vehicle.springs.rear = Some(SpringKind::Coil);
    survey.overload_leaves = Default::default();
    let coils = |solid: f64| {
        let heights = [("new_height", 12.0), ("old_height", 14.0), ("standing_height", 11.0), ("solid_height", solid)];
        let heights = heights.map(|(name, inch)| (name, length(inch)));
        part("measured_coils", &[&heights[..], &[("new_rate", rate(200.0)), ("old_rate", rate(200.0))]].concat())
    };
    // Two inches shorter at the same rate it stands lower by two: 9 in empty, some 6 1/4 loaded.
    let predicted = Predictor::new(&survey).predict(&coils(7.0));
    assert!(predicted.empty.is_ok(), "{:?}", predicted.empty);
    assert_eq!(predicted.loaded.unwrap_err(), Unpredicted::PastThePart);
    assert!(Predictor::new(&survey).predict(&coils(5.5)).loaded.is_ok());
    assert_eq!(coils(12.5).problems(), [CorrectionProblem::NotLonger { figure: "new_height", than: "solid_height" }]);
}

/// The rate of a coil by the handbook's formula (Shigley, helical springs, from memory), worked out here by hand: G·d⁴ / (8·D³·n). By its
/// wire a coil is predicted as by the rate that it comes to, and as far off.
#[test]
fn a_coil_told_by_its_wire_is_the_coil_of_that_rate() {
    let mut survey = on_springs_alone(half_ton());
    survey.vehicle.springs.rear = Some(SpringKind::Coil);
    survey.overload_leaves = Default::default();
    let heights = [("new_height", length(14.0)), ("old_height", length(14.0)), ("standing_height", length(11.0))];
    let turns = |turns: f64| Quantity::Count(turns);
    let wound = |new_turns: f64, new_height: f64| {
        let wires = [("new_wire", length(0.75)), ("new_outside", length(5.75)), ("new_turns", turns(new_turns))];
        let old = [("old_wire", length(0.625)), ("old_outside", length(5.625)), ("old_turns", turns(8.0))];
        let heights =
            heights.clone().map(|(name, height)| (name, if name == "new_height" { length(new_height) } else { height }));
        part("wound_coils", &[&heights[..], &wires, &old].concat())
    };
    // 79.3 GPa = 11.50e6 psi; 5 in from wire to wire.
    let by_hand = |wire: f64, turns: f64| 79.3e9 / 6_894.757 * wire.powi(4) / (8.0 * 125.0 * turns);
    let rates = [("new_rate", rate(by_hand(0.75, 7.0))), ("old_rate", rate(by_hand(0.625, 8.0)))];
    let by_rate = part("measured_coils", &[&heights[..], &[("solid_height", length(9.0 * 0.75))], &rates].concat());
    let predictor = Predictor::new(&survey);
    let (one, other) = (predictor.predict(&wound(7.0, 14.0)), predictor.predict(&by_rate));
    for (one, other) in [(one.empty, other.empty), (one.loaded, other.loaded)] {
        let (one, other) = (one.unwrap(), other.unwrap());
        assert!((one.rear.value - other.rear.value).abs() < inches(1e-6), "{:?} {:?}", one.rear, other.rear);
        assert!((one.part / other.part).value > 0.95 && (one.part / other.part).value < 1.05, "{:?} {:?}", one.part, other.part);
    }
    // Nine turns and two on the seats, of 3/4 in: 8 1/4 in solid.
    assert_eq!(wound(9.0, 8.0).problems(), [CorrectionProblem::SolidAlready { figure: "new_height" }]);
    assert!(wound(9.0, 8.5).problems().is_empty());
}

/// A bag so far across inside the coils, and 8 in tall, that takes 5 to 45 psi.
fn bags_in_coils(diameter: f64, pressure: f64) -> Correction {
    let gauge = |psi| Quantity::Pressure(units::psi(psi));
    let limits = [("least_pressure", gauge(5.0)), ("most_pressure", gauge(45.0))];
    let bag = [("diameter", length(diameter)), ("height", length(8.0)), ("pressure", gauge(pressure))];
    part("bags_in_coils", &[&bag[..], &limits].concat())
}

fn on_coils(mut survey: Survey) -> Survey {
    survey.vehicle.springs = Ends { front: Some(SpringKind::Coil), rear: Some(SpringKind::Coil) };
    survey.overload_leaves = Default::default();
    survey
}

#[test]
fn bags_in_coils_gain_about_an_inch_fully_loaded() {
    // Common practice: about 1 in at 43 psi, over firmer coils; the foreman states 1/2 in.
    let mut survey = on_coils(half_ton());
    survey.vehicle.class = VehicleClass::Wagon;
    survey.datum = Datum::GroundToArch;
    survey.heights = States::of(heights(34.0, 36.0), heights(34.0, 34.75));
    survey.stop_gap.loaded = Gaps::at_the_rear(inches(2.0));
    survey.load = Some(LoadPut::Placed { weight: pounds(600.0), behind_rear_axle: inches(0.0) });
    holds(loaded(&survey, &bags_in_coils(3.25, 43.0)), 35.75, 0.75);
}

/// A one-ton on its overload leaves under a camper, 42 in empty and 38 3/4 loaded.
fn one_ton_on_its_overload_leaves() -> Survey {
    let mut survey = half_ton();
    survey.vehicle.class = VehicleClass::OneTonPickup;
    survey.vehicle.axle_ratings = Ends { front: pounds(5200.0), rear: pounds(7200.0) };
    survey.datum = Datum::GroundToArch;
    survey.heights = States::of(heights(39.0, 42.0), heights(39.0, 38.75));
    survey.stop_gap = States::of(Gaps::at_the_rear(inches(4.75)), Gaps::at_the_rear(inches(2.5)));
    survey.overload_leaves.bears = States::of(Some(false), Some(true));
    survey.load = Some(LoadPut::Placed { weight: pounds(3600.0), behind_rear_axle: inches(0.0) });
    survey
}

#[test]
fn raised_overload_contacts_bring_a_camper_up_by_a_part_of_it() {
    // Common practice: about 1 in at the rear halves brings the arch from 38 3/4 to 39 1/4 in, the front halves too to 39 5/8.
    let survey = one_ton_on_its_overload_leaves();
    let pads = |front| part("overload_pads", &[("front_half", length(front)), ("rear_half", length(1.0))]);
    holds(loaded(&survey, &pads(0.0)), 39.25, 3.0 / 8.0);
    holds(loaded(&survey, &pads(1.0)), 39.625, 3.0 / 4.0);
    // Empty the leaf is clear of them, and stays so.
    let empty = Predictor::new(&survey).predict(&pads(0.0)).empty.unwrap();
    assert!(empty.rise.value.customary().abs() < 0.05, "{:?}", empty.rise);
}

#[test]
fn an_overload_leaf_that_nobody_looked_at_is_not_moved_on_paper() {
    let pads = part("overload_pads", &[("front_half", length(1.0)), ("rear_half", length(1.0))]);
    let with = |bears: States<Option<bool>>, gap: Option<f64>| {
        let mut survey = one_ton_on_its_overload_leaves();
        survey.overload_leaves.bears = bears;
        survey.overload_leaves.pad_gap = gap.map(inches);
        Predictor::new(&survey).predict(&pads).loaded.map(|_| ())
    };
    let unseen = Err(Unpredicted::NeedsTheOverloadLeaf);
    assert_eq!(with(States::of(None, None), None), unseen);
    assert_eq!(with(States::of(Some(false), Some(false)), None), unseen, "it may join in just past what was read");
    assert_eq!(with(States::of(Some(true), Some(true)), None), unseen, "empty too it is part of the one rate");
    assert_eq!((with(States::of(None, Some(true)), None), with(States::of(None, None), Some(2.0))), (Ok(()), Ok(())));
}

#[test]
fn a_flatter_overload_leaf_lets_it_down_and_the_same_one_again_changes_nothing() {
    let survey = one_ton_on_its_overload_leaves();
    let other = |opens, added| part("other_overload_leaf", &[("gap_opens", length(opens)), ("added_rate", rate(added))]);
    let rise = |part: &Correction| loaded(&survey, part).rise.value.customary();
    assert!(rise(&other(0.0, 0.0)).abs() < 1e-6);
    let (flatter, softer, stiffer) = (rise(&other(0.75, 0.0)), rise(&other(0.0, -300.0)), rise(&other(0.0, 300.0)));
    assert!(flatter < -0.1 && softer < -0.05 && stiffer > 0.05, "{flatter} {softer} {stiffer}");
    // Earlier by what pads close the gap by, it is what the pads make of it.
    let pads = part("overload_pads", &[("front_half", length(0.5)), ("rear_half", length(0.5))]);
    assert!((rise(&other(-0.5, 0.0)) - rise(&pads)).abs() < 1e-6);
}

#[test]
fn a_leaf_and_another_overload_leaf_go_together_and_add_up() {
    let survey = one_ton_on_its_overload_leaves();
    let leaf = part("leaf_by_lift", &[("lift", length(1.5)), ("capacity", weight(900.0)), ("working_travel", length(6.0))]);
    let packs = [("lift", length(1.0)), ("old_lift", length(0.0)), ("set", length(0.5)), ("added_rate", rate(0.0))];
    let flatter = part("other_overload_leaf", &[("gap_opens", length(0.5)), ("added_rate", rate(0.0))]);
    assert!(
        not_together(&[leaf.clone(), flatter.clone()]).is_none() && not_together(&[flatter.clone(), flatter.clone()]).is_some()
    );
    for with in [leaf, part("new_packs", &packs)] {
        let rise = |parts: &[Correction]| Predictor::new(&survey).predict(parts).loaded.unwrap().rise.value.customary();
        let (alone, together) = (rise(std::slice::from_ref(&with)), rise(&[with.clone(), flatter.clone()]));
        // Both push on the same spring: what the flatter leaf lets down is no less than with a stiffer pack, and no more than alone.
        let let_down = alone - together;
        let by_itself = -rise(std::slice::from_ref(&flatter));
        assert!(let_down > 0.3 * by_itself && let_down < by_itself + 1e-6, "{let_down} of {by_itself}");
    }
}

#[test]
fn larger_tires_raise_by_half_of_what_they_are_larger_and_from_the_hub_by_nothing() {
    let tires = part("tires", &[("diameter", length(33.0)), ("old_diameter", length(31.6))]);
    let from_the_ground = loaded(&half_ton_at_the_arch(), &tires);
    assert!((from_the_ground.rise.value.customary() - 0.7).abs() < 1e-6, "{:?}", from_the_ground.rise);
    assert!(loaded(&half_ton(), &tires).rise.value.customary().abs() < 1e-9, "a tape from the hub sees none of it");
    let in_front = tires.on(Site { axles: Axles::Front, side: None });
    let front = Predictor::new(&half_ton_at_the_arch()).predict(&in_front).empty.unwrap().front.unwrap();
    assert!((front.value.customary() - 37.7).abs() < 1e-6, "{front:?}");
}

#[test]
fn a_longer_stop_takes_its_length_of_the_travel_and_raises_nothing_that_is_clear_of_it() {
    let mut survey = half_ton();
    survey.stop_gap = States::of(Gaps::at_the_rear(inches(4.0)), Gaps::at_the_rear(inches(1.3125)));
    let longer = |inch| Predictor::new(&survey).predict(&part("stop_extension", &[("height", length(inch))]));
    let predicted = longer(1.0).loaded.unwrap();
    assert!(predicted.rise.value.customary().abs() < 1e-6 && (predicted.travel_left.unwrap().customary() - 0.3125).abs() < 1e-6);
    // Where it would bear, what it carries is not known.
    assert_eq!(longer(2.0).loaded.unwrap_err(), Unpredicted::OnTheStops);
    // Stops of which nobody read how near they are may come to bear: no height is told, unless a block opens them by as much.
    let unread = Predictor::new(&half_ton());
    let longer = part("stop_extension", &[("height", length(1.0))]);
    assert_eq!(unread.predict(&longer).loaded.unwrap_err(), Unpredicted::NeedsTheStopGap);
    let block = |inch| Correction::at_the_rear(LiftBlock { thickness: inches(inch) });
    assert!(unread.predict(&[block(1.0), longer.clone()]).loaded.is_ok());
    assert_eq!(unread.predict(&[block(0.5), longer.clone()]).empty.unwrap_err(), Unpredicted::NeedsTheStopGap);
    let in_front = longer.on(Site { axles: Axles::Front, side: None });
    assert_eq!(
        unread.predict(&[block(1.0), in_front]).empty.unwrap_err(),
        Unpredicted::NeedsTheStopGap,
        "a block behind opens none"
    );
}

#[test]
fn springs_over_a_trailers_axle_raise_it_by_tube_and_pack_at_any_load() {
    let mut survey = half_ton();
    survey.vehicle.class = VehicleClass::SingleTrailer;
    survey.vehicle.springs.rear = Some(SpringKind::Leaf);
    survey.datum = Datum::GroundToArch;
    survey.heights = States::of(heights(19.5, 19.0), heights(19.5, 17.5));
    let over = part("spring_over", &[("tube", length(2.375)), ("stack", length(1.25))]);
    assert_eq!(survey.vehicle.no_fit_of(&over), Some(NoFit::NotUnder(End::Rear)), "nobody said where they are");
    survey.vehicle.rear_spring_over = Some(false);
    assert_eq!(survey.vehicle.no_fit_of(&over), None);
    let predicted = Predictor::new(&survey).predict(&over);
    for state in [predicted.empty.unwrap(), predicted.loaded.unwrap()] {
        assert!((state.rise.value.customary() - 3.625).abs() < 1e-6, "{:?}", state.rise);
        assert!(state.rise.sd.customary() < 0.05, "a thickness is exact but for the tape: {:?}", state.rise);
    }
}

#[test]
fn bags_push_with_their_pressure_on_their_area_and_are_springs_of_their_own_on_the_road() {
    let survey = on_coils(on_springs_alone(half_ton()));
    let predictor = Predictor::new(&survey);
    let rate = predictor.rate().measured().unwrap().rate.customary();
    let area = std::f64::consts::FRAC_PI_4 * 3.25 * 3.25;
    let predicted = predictor.predict(&bags_in_coils(3.25, 20.0));
    let (empty, loaded) = (predicted.empty.unwrap(), predicted.loaded.unwrap());
    let rises = 2.0 * 20.0 * area / rate;
    for predicted in [empty, loaded] {
        assert!((predicted.rise.value.customary() - rises).abs() < 0.01 * rises, "{:?} {rises}", predicted.rise);
        // Twice a tenth of the area, and twice 2 psi of 20.
        let part = predicted.part.customary() / rises;
        assert!((part - 0.2_f64.hypot(0.2)).abs() < 0.02, "{part}");
    }
    // Shut in, air goes by n·(p + p_atm)·A/h, with 14.696 psi of atmosphere.
    let of_air = 2.0 * 1.3 * (20.0 + 14.696) * area / (8.0 + rises);
    let gained = empty.bounce_after.unwrap().rate.customary() - empty.bounce_before.unwrap().rate.customary();
    assert!((gained - of_air).abs() < 0.01 * of_air, "{gained} {of_air}");
}

#[test]
fn bags_take_no_pressure_past_their_own() {
    let outside = |pressure| {
        let problems = bags_in_coils(3.25, pressure).problems();
        problems.iter().any(|problem| matches!(problem, CorrectionProblem::PressureOutside { figure: "pressure", .. }))
    };
    assert_eq!([4.0, 5.0, 45.0, 46.0, 400.0].map(outside), [true, false, false, true, true]);
    // By their sheet: 1,000 lb at 100 psi are 10 square inches, and 400 lb at 40 psi.
    let gauge = |psi| Quantity::Pressure(units::psi(psi));
    let limits = [("height", length(6.0)), ("least_pressure", gauge(5.0)), ("most_pressure", gauge(100.0))];
    let sheet = [("capacity", weight(1_000.0)), ("capacity_pressure", gauge(100.0)), ("pressure", gauge(40.0))];
    let helper = part("air_helper", &[&sheet[..], &limits].concat());
    assert!((helper.account().weight("carries").unwrap().customary() - 400.0).abs() < 1e-6);
    assert_eq!(helper.problems(), []);
}

proptest! {
    /// New springs by their lift, and the same formula written down again: two springs side by side, `k·s` each.
    #[test]
    fn bought_springs_lift_by_what_is_sold_less_what_was_and_the_set(lift in -1.0..4.0_f64, old in 0.0..2.0_f64, set in 0.0..1.5_f64, firmer in -100.0..400.0_f64) {
        let survey = on_springs_alone(half_ton());
        let figures = [("lift", length(lift)), ("old_lift", length(old)), ("set", length(set)), ("added_rate", rate(firmer))];
        let predictor = Predictor::new(&survey);
        let predicted = predictor.predict(&part("new_packs", &figures));
        let (empty, loaded) = (predicted.empty.unwrap(), predicted.loaded.unwrap());
        let rises = lift - old + set;
        prop_assert!((empty.rise.value.customary() - rises).abs() < 1e-6);
        let before = predictor.rate().measured().unwrap().rate.customary();
        let sag = 1_000.0 / (before + firmer);
        prop_assert!((empty.rear.value.customary() - loaded.rear.value.customary() - sag).abs() < 0.02 * sag + 0.01);
        // Half an inch of lift and half an inch of set are in doubt, and come together as errors do.
        let doubt = 2.0 * 0.5_f64.hypot(0.5);
        prop_assert!((empty.part.customary() - doubt).abs() < 1e-3, "{:?}", empty.part);
    }

    /// A rubber never pushes less the further it is squashed, and carries at half of its height what it is sold for.
    #[test]
    fn a_bought_rubber_carries_what_it_is_sold_for_at_half_of_its_height(capacity in 200.0..10_000.0_f64, height in 2.0..9.0_f64, share in 0.0..1.0_f64) {
        let rubber = RubberByCapacity::new(pounds(capacity), inches(height), inches(0.0));
        let at = |squash: f64| -> f64 { rubber.force(inches(squash)).customary() };
        prop_assert!((at(height / 2.0) - capacity).abs() < 1e-6 * capacity);
        prop_assert!(at(share * height / 2.0) <= at((share + 0.01) * height / 2.0) + 1e-9);
        prop_assert!((at(share * height / 2.0) - capacity * share.powf(1.2)).abs() < 0.01 * capacity);
    }
}

/// A coil's rate is even over its travel like a helper spring's: by the same capacity, travel and gap both raise alike, on leaves and on
/// coils.
#[test]
fn helper_coils_raise_as_helper_springs_of_the_same_capacity_do() {
    let figures = [("capacity", weight(900.0)), ("working_travel", length(5.0)), ("engagement_gap", length(-0.25))];
    let (springs, coils) = (part("helper_by_capacity", &figures), part("helper_coils", &figures));
    for survey in [on_springs_alone(half_ton()), on_coils(half_ton())] {
        let (springs, coils) = (loaded(&survey, &springs), loaded(&survey, &coils));
        assert_eq!((springs.rear, springs.rise), (coils.rear, coils.rise));
        assert!(coils.rise.value > inches(0.5), "{:?}", coils.rise);
    }
    // On coils there is no pack for helper springs to lie on.
    let vehicle = on_coils(half_ton()).vehicle;
    assert_eq!(vehicle.no_fit_of(&springs), Some(NoFit::NoLeaves(End::Rear, SpringKind::Coil)));
    assert_eq!(vehicle.no_fit_of(&coils), None);
}

/// Sold as 2 in over a sound strut, in place of one as it came that has set by 1/2 in: 2 1/2 in at the wheel, the rear as it was.
#[test]
fn taller_struts_raise_the_front_by_what_they_are_sold_for_and_what_the_old_have_set() {
    let survey = on_coils(half_ton());
    let figures = [("lift", length(2.0)), ("old_lift", length(0.0)), ("set", length(0.5)), ("added_rate", rate(0.0))];
    let struts = part("taller_struts", &figures).on(Site { axles: Axles::Front, side: None });
    assert_eq!(struts.problems(), []);
    let empty = Predictor::new(&survey).predict(&struts).empty.unwrap();
    let before = survey.height(End::Front, LoadState::Empty).unwrap().value;
    assert!(((empty.front.unwrap().value - before).customary() - 2.5).abs() < 0.02, "{:?}", empty.front);
    assert!(empty.rise.value.customary().abs() < 1e-3, "{:?}", empty.rise);
    // 3/4 in of the lift and 1/2 in of the set are in doubt, as one standard deviation each.
    assert!((2.0 * empty.front.unwrap().sd.customary() - 2.0 * 0.75_f64.hypot(0.5)).abs() < 0.15, "{:?}", empty.front);
    assert!((struts.takes_the_shock_along().customary() - 2.5).abs() < 1e-9, "shock and stop go up whole");
}

/// What goes on a front axle alone does not go on a trailer, nor behind.
#[test]
fn what_goes_in_front_alone_goes_nowhere_else() {
    for (word, figure) in [("differential_drop", "dropped"), ("radius_arm_drop", "dropped")] {
        let behind = part(word, &[(figure, length(1.0))]);
        assert_eq!(behind.problems(), [CorrectionProblem::NotAtTheRear], "{word}");
        assert_eq!(behind.on(Site { axles: Axles::Front, side: None }).problems(), [], "{word}");
        let mut vehicle = half_ton().vehicle;
        vehicle.class = VehicleClass::TandemTrailer;
        assert_eq!(vehicle.fits_nowhere(KindRow::of(word).unwrap()), Some(NoFit::NoFront), "{word}");
    }
}
