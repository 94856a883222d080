//! A quick answer: held against what a shop reckons by hand from the class's values, and against what must never be said.

#![allow(clippy::unwrap_used, clippy::indexing_slicing, reason = "a test fails where it stands")]

use proptest::prelude::*;
use wise_badger_casework::entry::{
    AboardEntry, BareUnits, CallEntry, Currency, LowWord, MoneyEntry, PlaceWord, ShelfPart, ThingWord, Typed, TypedIn, UnitWord,
    WhenLow,
};
use wise_badger_casework::quick_answer::{Behind, First, KindAnswer, MayChange, NoAnswer, QuickAnswer, quick_answer};
use wise_badger_casework::survey::{End, RearWheels, SpringKind, Thing, VehicleClass};
use wise_badger_mechanics::correction::KindRow;
use wise_badger_mechanics::tape::{LengthUnit, WeightUnit};
use wise_badger_mechanics::units::{InShopUnits, inches, pounds};

const UNITS: TypedIn = TypedIn { length: LengthUnit::Inches, weight: WeightUnit::Pounds };

fn call(class: VehicleClass) -> CallEntry {
    CallEntry {
        label: "a call".to_owned(),
        class,
        rear_wheels: RearWheels::Single,
        rear_spring: None,
        rear_rating: None,
        things: Vec::new(),
        aboard: None,
        low: None,
        when: None,
        leans: false,
        words: String::new(),
        upkeep: None,
        removable: None,
        budget: None,
    }
}

fn lb(weight: f64) -> Typed {
    Typed { text: weight.to_string(), unit: UnitWord::Lb, si: pounds(weight).si() }
}

fn over_the_axle(weight: f64) -> Option<AboardEntry> {
    Some(AboardEntry { weight: lb(weight), place: PlaceWord::OverTheAxle })
}

fn words(answer: &QuickAnswer) -> Vec<&'static str> {
    answer.kinds.iter().map(|kind| kind.row.word).collect()
}

fn part(number: &str, word: &str, figures: &[(&str, &str)], price: i64, hours: f64) -> ShelfPart {
    let units = BareUnits { length: LengthUnit::Inches, weight: WeightUnit::Pounds };
    let mut part = ShelfPart::new(number, word, KindRow::of(word).unwrap());
    for (name, text) in figures {
        let figure = part.kind.figures.iter().find(|figure| figure.name == *name).unwrap();
        part.sold.insert((*name).to_owned(), units.figure(figure.takes, text).unwrap());
    }
    part.price = Some(MoneyEntry { text: price.to_string(), hundredths: 100 * price, currency: Currency::Usd });
    part.hours = Some(hours);
    assert_eq!(part.problem(), None);
    part
}

/// A half-ton has 370 lb/in behind and tires of 1,450 lb/in a side: 740 lb over the axle take it down 2 in and a quarter more.
#[test]
fn what_is_told_to_be_aboard_takes_it_down_by_the_rate_of_its_class() {
    let answer = quick_answer(&CallEntry { aboard: over_the_axle(740.0), ..call(VehicleClass::HalfTonPickup) }, &[]).unwrap();
    let down = answer.comes_down.unwrap();
    let by_hand = 740.0 / 370.0 + 740.0 / 2_900.0;
    assert!((down.value.customary() - by_hand).abs() < 0.1 * by_hand, "{down:?}");
    // Rate and weight are told, not measured: two standard deviations are more than half of it.
    assert!(down.band().customary() > 0.5 * by_hand, "{down:?}");
    // Half of that is to come back where nobody said how low it sits (common practice).
    assert!((answer.gain.value - down.value / 2.0).abs() < inches(1e-9));
}

#[test]
fn load_or_tired_springs_by_whether_the_load_explains_how_low_it_sits() {
    let half_ton = call(VehicleClass::HalfTonPickup);
    let behind = |call: CallEntry| quick_answer(&call, &[]).unwrap().behind;
    let low = Some(LowWord::ThreeInches);
    assert_eq!(behind(CallEntry { aboard: over_the_axle(1_000.0), low, ..half_ton.clone() }), Behind::TheLoad);
    assert_eq!(behind(CallEntry { aboard: over_the_axle(150.0), low, ..half_ton.clone() }), Behind::TiredSprings);
    assert_eq!(behind(CallEntry { low, when: Some(WhenLow::EmptyToo), ..half_ton.clone() }), Behind::TiredSprings);
    assert_eq!(behind(CallEntry { low, ..half_ton }), Behind::Either);
}

#[test]
fn two_or_three_kinds_by_what_is_behind_it_what_it_rests_on_and_what_the_customer_wants() {
    let load = CallEntry { aboard: over_the_axle(800.0), low: Some(LowWord::AnInch), ..call(VehicleClass::HalfTonPickup) };
    let kinds = |call: &CallEntry| words(&quick_answer(call, &[]).unwrap());
    assert_eq!(kinds(&load)[..2], ["helper_by_capacity", "rubber_by_capacity"]);
    let tired = CallEntry { when: Some(WhenLow::EmptyToo), ..load.clone() };
    assert_eq!(kinds(&tired)[0], "new_packs");
    let coils = CallEntry { rear_spring: Some(SpringKind::Coil), ..call(VehicleClass::Wagon) };
    let coils = CallEntry { aboard: over_the_axle(400.0), low: Some(LowWord::AnInch), ..coils };
    assert!(kinds(&coils).contains(&"new_coils") && !kinds(&coils).contains(&"helper_by_capacity"), "{:?}", kinds(&coils));
    let bags = part(
        "BAG",
        "bags_in_coils",
        &[("diameter", "4"), ("height", "8"), ("least_pressure", "5"), ("most_pressure", "35")],
        180,
        2.0,
    );
    let with_bags = quick_answer(&coils, std::slice::from_ref(&bags)).unwrap();
    assert_eq!(words(&with_bags)[0], "bags_in_coils");
    let no_upkeep = quick_answer(&CallEntry { upkeep: Some(false), ..coils }, &[bags]).unwrap();
    assert!(!words(&no_upkeep).contains(&"bags_in_coils"), "who will not look after air is offered none");
    let comes_off = CallEntry { removable: Some(true), ..tired };
    assert!(!kinds(&comes_off).contains(&"new_packs"), "{:?}", kinds(&comes_off));
}

#[test]
fn prices_and_hours_go_from_the_least_to_the_most_of_what_comes_near() {
    let shelf = [
        part("H1", "helper_by_capacity", &[("capacity", "1000"), ("working_travel", "6")], 250, 1.5),
        part("H2", "helper_by_capacity", &[("capacity", "2500"), ("working_travel", "6")], 390, 2.0),
        part("BL", "lift_block", &[("thickness", "1")], 58, 1.0),
    ];
    let load = CallEntry { aboard: over_the_axle(800.0), low: Some(LowWord::AnInch), ..call(VehicleClass::HalfTonPickup) };
    let answer = quick_answer(&load, &shelf).unwrap();
    let helpers: &KindAnswer = answer.kinds.iter().find(|kind| kind.row.word == "helper_by_capacity").unwrap();
    let (least, most) = helpers.price.as_ref().unwrap();
    assert_eq!((least.hundredths, most.hundredths, helpers.hours), (25_000, 39_000, Some((1.5, 2.0))));
    assert!(helpers.shelf.iter().all(|near| near.rise.value.si() > 0.0 && near.rise.sd.si() > 0.0));
    // A block carries nothing: it is no answer to a load.
    assert!(!words(&answer).contains(&"lift_block"));
}

#[test]
fn probably_over_a_rating_no_part_is_spoken_of() {
    let heavy = CallEntry { aboard: over_the_axle(3_000.0), ..call(VehicleClass::HalfTonPickup) };
    let untold = quick_answer(&heavy, &[]).unwrap();
    assert!(untold.over.is_none() && untold.may_change.contains(&MayChange::NoRating) && untold.first.contains(&First::Ratings));
    let told = quick_answer(&CallEntry { rear_rating: Some(lb(3_800.0)), ..heavy.clone() }, &[]).unwrap();
    // 2,250 lb empty by its class, and 3,000 lb aboard.
    assert!((told.over.unwrap().customary() - 1_450.0).abs() < 5.0, "{:?}", told.over);
    assert!(told.kinds.is_empty());
    let near = quick_answer(&CallEntry { rear_rating: Some(lb(5_200.0)), ..heavy }, &[]).unwrap();
    assert!(near.over.is_none() && near.may_change.contains(&MayChange::NearItsRating));
}

#[test]
fn with_nothing_said_there_is_no_answer_and_what_matters_is_asked_for() {
    assert_eq!(quick_answer(&call(VehicleClass::Van), &[]).unwrap_err(), NoAnswer::NothingSaid);
    let towed = CallEntry { things: vec![ThingWord(Thing::TongueWeight)], ..call(VehicleClass::ThreeQuarterTonPickup) };
    let answer = quick_answer(&towed, &[]).unwrap();
    assert!(answer.first.contains(&First::TongueWeight) && answer.may_change.contains(&MayChange::NoseUp));
    let trailer = CallEntry { low: Some(LowWord::TwoInches), leans: true, ..call(VehicleClass::TandemTrailer) };
    let answer = quick_answer(&trailer, &[]).unwrap();
    assert!(answer.first.contains(&First::BallHeight) && answer.first.contains(&First::BothSides));
}

#[test]
fn what_was_told_becomes_the_load_plan_of_the_job_at_what_such_things_usually_weigh() {
    let told =
        CallEntry { things: vec![ThingWord(Thing::Toolbox)], aboard: over_the_axle(300.0), ..call(VehicleClass::OneTonPickup) };
    let vehicle = wise_badger_casework::survey::VehicleFacts::new(
        told.class,
        told.rear_wheels,
        inches(160.0),
        wise_badger_casework::survey::Ends { front: pounds(4_800.0), rear: pounds(6_000.0) },
    );
    let plan = told.load_plan(&vehicle, "As told", UNITS, |thing| if thing.is_some() { "Toolbox" } else { "The rest" }).unwrap();
    assert_eq!(plan.cases.len(), 1);
    let named: Vec<(&str, bool)> = plan.items.iter().map(|item| (item.name.as_str(), item.usual)).collect();
    assert_eq!(named, [("Toolbox", true), ("The rest", false)], "who told a weight was not asked to weigh it, but meant it");
    let rear: f64 =
        plan.items_of(1).iter().map(|item| item.weight.customary() * item.share_on(End::Rear, vehicle.wheelbase)).sum();
    assert!((rear - (300.0 + 350.0 * 0.7)).abs() < 1.0, "{rear}");
    assert!(call(VehicleClass::Van).load_plan(&vehicle, "As told", UNITS, |_| "").is_none());
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(24))]

    /// Whatever is said, there is an answer or a reason, and every band has a width.
    #[test]
    fn whatever_is_said_is_answered(class in 0..13_usize, weight in 1.0..6_000.0_f64, low in 0..5_usize, place in 0..4_usize, dual in any::<bool>()) {
        let class = VehicleClass::all().nth(class).unwrap();
        let lows = [None, Some(LowWord::AnInch), Some(LowWord::ThreeInches), Some(LowWord::AHand), Some(LowWord::OnItsStops)];
        let places = [PlaceWord::OnTheFloor, PlaceWord::OverTheAxle, PlaceWord::AtTheTail, PlaceWord::OnTheHitch];
        let rear_wheels = if dual { RearWheels::Dual } else { RearWheels::Single };
        let said = CallEntry { rear_wheels, low: lows[low], aboard: Some(AboardEntry { weight: lb(weight), place: places[place] }), ..call(class) };
        match quick_answer(&said, &[]) {
            Ok(answer) => {
                prop_assert!(answer.gain.value.si() > 0.0 && answer.gain.sd.si() > 0.0);
                prop_assert!(answer.comes_down.unwrap().sd.si() > 0.0);
                prop_assert!(answer.kinds.len() <= 3 && !answer.first.is_empty() && !answer.may_change.is_empty());
                for kind in &answer.kinds {
                    prop_assert!(kind.rise.is_none_or(|rise| rise.value.is_finite() && rise.sd.si() > 0.0), "{kind:?}");
                }
            }
            Err(why) => prop_assert!(why == NoAnswer::NotSolved || low == 0, "{why:?}"),
        }
    }
}
