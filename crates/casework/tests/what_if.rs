//! Loads and parts that are only tried: held against the load plan that they would be, against lever arms, and against what is predicted
//! of the same option on the list.

#![allow(clippy::unwrap_used, clippy::indexing_slicing, reason = "a test fails where it stands")]

use proptest::prelude::*;
use wise_badger_casework::casework::Casework;
use wise_badger_casework::entry::{CorrectionEntry, ItemEntry, OptionEntry, Typed, TypedIn, UnitWord};
use wise_badger_casework::job_document::JobDocument;
use wise_badger_casework::survey::{End, LoadProblem, LoadState};
use wise_badger_casework::what_if::{Aboard, CannotTry, LoadTried};
use wise_badger_mechanics::correction::{Correction, KindRow, LiftBlock, Site};
use wise_badger_mechanics::tape::{LengthUnit, WeightUnit};
use wise_badger_mechanics::units::{Force, InShopUnits, Length, inches, metres, pounds};

const EXAMPLE: &str = include_str!("../../../docs/examples/job.json");
const UNITS: TypedIn = TypedIn { length: LengthUnit::Inches, weight: WeightUnit::Pounds };
const KEY: u8 = 4;

fn work() -> Casework {
    Casework::new(JobDocument::read(EXAMPLE).unwrap().case())
}

fn nothing() -> OptionEntry {
    OptionEntry { name: String::new(), parts: Vec::new() }
}

fn block(thick: &str, si: f64) -> OptionEntry {
    let thickness = Typed { text: thick.to_owned(), unit: UnitWord::In, si };
    let figures = [("thickness".to_owned(), thickness.into())].into_iter().collect();
    CorrectionEntry::new(KindRow::of("lift_block").unwrap(), Site::default(), figures).unwrap().into()
}

fn tried(from: Aboard) -> LoadTried {
    LoadTried { name: "Rack, next spring".to_owned(), from, rearward: metres(0.0), to_the_right: metres(0.0), more: None }
}

fn thing(weight: f64, behind: f64, right: f64) -> ItemEntry {
    ItemEntry::weight_at("rack", UNITS.weight(pounds(weight)), inches(behind), inches(right), UNITS)
}

/// What a load that is tried puts on the rear axle beyond empty.
fn on_the_rear(work: &Casework, load: &LoadTried) -> Force {
    let plan = load.on_the_plan(work, KEY, UNITS).unwrap();
    let trial = work.trying(nothing(), Some(plan));
    let case = trial.cases().iter().find(|case| case.key == KEY).unwrap().clone();
    case.survey.axle_loads().change.get(End::Rear).unwrap().value
}

#[test]
fn one_thing_more_weighs_on_the_rear_by_its_lever_arm() {
    let work = work();
    let wheelbase = work.found().vehicle.wheelbase.customary();
    let load = LoadTried { more: Some(thing(200.0, 20.0, 0.0)), ..tried(Aboard::Nothing) };
    let expected = 200.0 * (1.0 + 20.0 / wheelbase);
    assert!((on_the_rear(&work, &load).customary() - expected).abs() < 0.1);
}

#[test]
fn what_was_read_loaded_weighs_on_the_axles_as_it_was_read() {
    let work = work();
    let read = work.found().axle_loads().change.get(End::Rear).unwrap().value;
    assert!((on_the_rear(&work, &tried(Aboard::AsLoaded)) - read).abs() < pounds(0.5));
}

#[test]
fn what_is_tried_leaves_everything_on_the_plan_as_it_was() {
    let work = work();
    let before = work.case().plan.clone().unwrap_or_default();
    let load = LoadTried { more: Some(thing(200.0, 20.0, 0.0)), ..tried(Aboard::AsLoaded) };
    let plan = load.on_the_plan(&work, KEY, UNITS).unwrap();
    assert!(before.cases.iter().filter(|case| case.key != KEY).all(|case| plan.cases.contains(case)));
    assert!(before.items.iter().filter(|item| !item.cases.contains(&KEY)).all(|item| plan.items.contains(item)));
    assert_eq!(plan.case(KEY).unwrap().name, "Rack, next spring");
}

#[test]
fn a_case_of_the_plan_with_nothing_moved_is_taken_in_and_not_written_down_twice() {
    let work = work();
    let first =
        LoadTried { more: Some(thing(300.0, -10.0, 0.0)), ..tried(Aboard::Nothing) }.on_the_plan(&work, 3, UNITS).unwrap();
    let work = Casework::new(work.case().clone().with_plan(first));
    let more = LoadTried { more: Some(thing(200.0, 20.0, 0.0)), ..tried(Aboard::Case(3)) };
    let plan = more.on_the_plan(&work, KEY, UNITS).unwrap();
    assert_eq!(plan.case(KEY).unwrap().with, Some(3));
    assert_eq!(plan.items_of(KEY).len(), plan.items_of(3).len() + 1);
    // Moved, it is a load of its own.
    let moved = LoadTried { rearward: inches(12.0), ..more };
    let plan = moved.on_the_plan(&work, KEY, UNITS).unwrap();
    assert_eq!(plan.case(KEY).unwrap().with, None);
    assert!(plan.items_of(KEY).iter().any(|item| (item.behind_rear_axle - inches(2.0)).abs() < inches(0.01)));
}

#[test]
fn a_load_that_cannot_be_is_refused_by_what_is_wrong_with_it() {
    let work = work();
    let refused = |load: LoadTried| load.on_the_plan(&work, KEY, UNITS).unwrap_err();
    assert_eq!(refused(tried(Aboard::Nothing)), CannotTry::NothingAboard);
    assert_eq!(refused(tried(Aboard::Case(200))), CannotTry::NoSuchCase);
    let off = LoadTried { more: Some(thing(200.0, 900.0, 0.0)), ..tried(Aboard::Nothing) };
    assert!(matches!(refused(off), CannotTry::More(LoadProblem::OffTheVehicle { .. })));
    let aside = LoadTried { more: Some(thing(200.0, 0.0, 90.0)), ..tried(Aboard::Nothing) };
    assert!(matches!(refused(aside), CannotTry::More(LoadProblem::PastTheSide { .. })));
    let moved = LoadTried { rearward: inches(900.0), ..tried(Aboard::AsLoaded) };
    assert!(matches!(refused(moved), CannotTry::Moved(LoadProblem::OffTheVehicle { .. })));
    let light = LoadTried { more: Some(thing(0.0, 0.0, 0.0)), ..tried(Aboard::Nothing) };
    assert!(matches!(refused(light), CannotTry::More(_)));
}

/// One vehicle, whoever asks: what is tried is predicted as it would be on the list.
#[test]
fn what_is_tried_is_predicted_as_the_same_option_on_the_list_is() {
    let work = work();
    let option = block("1 1/2", 0.0381);
    let trial = work.trying(option.clone(), work.case().plan.clone());
    let parts = option.corrections(None).unwrap();
    assert_eq!(trial.predicted(0), Some(&work.predictor().predict(&parts)));
    assert!(std::ptr::eq(trial.predictor(), work.predictor()), "what follows from the readings is shared");
    // With nothing fitted it stands where it was read.
    let bare = work.trying(nothing(), None);
    let empty = bare.predicted(0).unwrap().at(LoadState::Empty).unwrap();
    assert!(empty.rise.value.abs() < inches(1e-6), "{empty:?}");
}

#[test]
fn a_block_lifts_the_whole_curve_and_the_cases_lie_on_it() {
    let work = work();
    let most = pounds(1_500.0);
    let now = work.predictor().load_curve(&[], most).unwrap();
    let lifted = Correction::at_the_rear(LiftBlock { thickness: inches(2.0) });
    let with = work.predictor().load_curve(&[lifted], most).unwrap();
    for ((load, bare), (_, lifted)) in now.iter().zip(&with) {
        assert!((*lifted - *bare - inches(2.0)).abs() < inches(0.02), "at {load:?}: {bare:?} {lifted:?}");
    }
    assert!(now.windows(2).all(|pair| pair[1].1 < pair[0].1), "more weight, lower");
    let empty = work.found().height(End::Rear, LoadState::Empty).unwrap().value;
    assert!((now[0].1 - empty).abs() < inches(1e-6));
}

fn leans(work: &Casework, parts: &[Correction], force: Force, height: Length) -> f64 {
    work.predictor().leans_when_pulled(parts, LoadState::Empty, force, height).unwrap().value.value
}

/// A block adds no roll stiffness (common practice): it leans as far as before.
#[test]
fn a_block_leans_as_far_as_before_and_stiffer_springs_lean_less() {
    let work = work();
    let (pull, height) = (pounds(1_000.0), inches(48.0));
    let now = leans(&work, &[], pull, height);
    let block = Correction::at_the_rear(LiftBlock { thickness: inches(2.0) });
    assert!((leans(&work, &[block], pull, height) / now - 1.0).abs() < 1e-6);
    let rate = wise_badger_mechanics::units::pounds_per_inch(200.0);
    let leaf = wise_badger_mechanics::correction::AddedLeaf { pair_rate: rate, lift: inches(1.0) };
    let with = leans(&work, &[Correction::at_the_rear(leaf)], pull, height);
    assert!(with < now * 0.95, "{with} {now}");
    // A helper is sold for what it carries, and may be off by a quarter of its rate: the lean with it is as much in doubt.
    let exact = wise_badger_mechanics::correction::HelperSpring { pair_rate: rate, engagement_gap: inches(0.0) };
    let by_capacity = KindRow::of("helper_by_capacity").unwrap();
    let given = wise_badger_mechanics::correction::Given::default()
        .with_weight("capacity", pounds(1_200.0))
        .with_length("working_travel", inches(6.0))
        .with_length("engagement_gap", inches(0.0));
    let sold = by_capacity.correction(&given, Site::default()).unwrap();
    let sd = |part: Correction| work.predictor().leans_when_pulled(&[part], LoadState::Loaded, pull, height).unwrap().sd.value;
    assert!(sd(sold) >= sd(Correction::at_the_rear(exact)), "what nobody measured is no surer than what somebody did");
    let told = work.predictor().leans_when_pulled(&[], LoadState::Empty, pull, height).unwrap();
    assert!(told.sd.value > 0.1 * told.value.value, "nobody measured how stiff it is in roll: {told:?}");
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(24))]

    /// Twice the pull leans twice as far, or less where something comes to bear on the way; and a pull higher up leans further.
    #[test]
    fn it_leans_in_proportion_to_the_pull(force in 100.0..500.0_f64, height in 30.0..90.0_f64) {
        let work = work();
        let one = leans(&work, &[], pounds(force), inches(height));
        let two = leans(&work, &[], pounds(2.0 * force), inches(height));
        prop_assert!(two / one > 1.6 && two / one < 2.02, "{one} {two}");
        prop_assert!(leans(&work, &[], pounds(force), inches(height + 6.0)) > one);
    }
}
