//! Where the inches went and why, against sums by hand and the facts of the trade ("common practice").

#[allow(dead_code, reason = "shared by several test files")]
mod support;

use proptest::prelude::*;
use support::{half_ton, heights};
use wise_badger_casework::look_over::{Area, Defect, Finding, Grade, LookOver};
use wise_badger_casework::survey::{
    Complaint, End, Gaps, Item, LoadPut, Modification, RearWheels, SpringKind, States, Survey, VehicleClass,
};
use wise_badger_casework::verdict::{
    Breakdown, Cause, Evidence, Grounds, Judged, Overload, PartKind, RateVerdict, Settling, SoundHeight, contact_suspicion,
    is_clear_of_the_stop, rank_causes,
};
use wise_badger_mechanics::axle_rate::ContactSuspicion;
use wise_badger_mechanics::side::{Side, Sides};
use wise_badger_mechanics::tape::{AxleReadings, Datum};
use wise_badger_mechanics::units::{InShopUnits, inches, pounds, pounds_per_inch};

fn breakdown(survey: &Survey, sound: Option<f64>) -> Breakdown {
    let sound = sound.map(|rear| SoundHeight { rear: inches(rear) });
    Breakdown::of(survey, &RateVerdict::of_two_states(survey), sound).expect("measured")
}

fn part(breakdown: &Breakdown, kind: PartKind) -> f64 {
    breakdown.part(kind).unwrap_or_else(|| panic!("{kind:?} in {breakdown:?}")).value.customary()
}

fn close(what: &str, got: f64, want: f64, tolerance: f64) {
    assert!((got - want).abs() <= tolerance, "{what}: {got}, expected {want}");
}

fn adds_up(breakdown: &Breakdown) {
    let down: f64 = breakdown.parts.iter().map(|part| part.down.value.customary()).sum();
    close("start less all parts", breakdown.start.customary() - down, breakdown.measured.customary(), 1e-9);
}

fn found(defects: &[Defect]) -> LookOver {
    let finding =
        |defect: &Defect| Finding { area: defect.rule().area, grade: Grade::Watch, defects: vec![*defect], measured: vec![] };
    LookOver { findings: defects.iter().map(finding).collect(), ..LookOver::default() }
}

fn ranked(survey: &Survey, look_over: &LookOver, complaints: &[Complaint], breakdown: Option<&Breakdown>) -> Vec<Judged> {
    let (rate, overload) = (RateVerdict::of_two_states(survey), Overload::of(survey));
    let overload = overload.as_ref();
    rank_causes(&Grounds { survey, rate: &rate, overload, look_over, complaints, modifications: &[], breakdown })
}

fn judged(causes: &[Judged], cause: Cause) -> &Judged {
    causes.iter().find(|judged| judged.cause == cause).unwrap_or_else(|| panic!("{cause:?} in {causes:?}"))
}

#[test]
fn tyres_permanent_load_and_set_are_told_apart_when_the_sound_height_is_known() {
    // From the ground, 40 to 37 in with 1,000 lb over the axle: tyres 1,000/2,900 = 0.345 in, springs 2.655 in.
    let mut survey = half_ton();
    survey.datum = Datum::GroundToArch;
    survey.heights = States::of(heights(37.0, 40.0), heights(37.0, 37.0));
    survey.vehicle.always = vec![Item::at(pounds(200.0), inches(0.0))];
    let way = breakdown(&survey, Some(42.0));
    adds_up(&way);
    close("tyres", part(&way, PartKind::Tyres), 0.345, 0.001);
    close("carried", part(&way, PartKind::CarriedLoad), 2.655, 0.001);
    // 200 lb always aboard at the measured 1,000/2.655 = 376.6 lb/in, and on the tyres: 0.531 + 0.069 in.
    close("permanent", part(&way, PartKind::PermanentLoad), 0.600, 0.002);
    close("set", part(&way, PartKind::SpringSet), 42.0 - 40.0 - 0.600, 0.002);
}

/// Common practice: a vehicle on air springs stands where its valve holds it, so what is low there leaks or is set low.
#[test]
fn what_rests_on_air_is_low_by_its_valve_and_not_by_its_springs() {
    let mut survey = half_ton();
    survey.vehicle.springs.rear = Some(SpringKind::Air);
    let way = breakdown(&survey, Some(23.0));
    let causes = ranked(&survey, &found(&[Defect::AirLeak]), &[Complaint::LowEmpty, Complaint::LowLoaded], Some(&way));
    assert_eq!(causes[0].cause, Cause::AirSprings, "{causes:#?}");
    let springs = [Cause::SpringSet, Cause::WeakSprings, Cause::CarriedLoad];
    assert!(causes.iter().all(|judged| !springs.contains(&judged.cause)), "{causes:#?}");
    survey.vehicle.springs.rear = Some(SpringKind::Coil);
    let causes = ranked(&survey, &LookOver::default(), &[Complaint::LowEmpty], Some(&way));
    assert!(causes.iter().all(|judged| judged.cause != Cause::AirSprings), "{causes:#?}");
}

#[test]
fn without_a_sound_height_set_is_not_guessed_at() {
    let way = breakdown(&half_ton(), None);
    adds_up(&way);
    close("from empty", way.start.customary(), 21.5, 1e-9);
    assert_eq!(way.part(PartKind::SpringSet), None);
    let causes = ranked(&half_ton(), &LookOver::default(), &[Complaint::LowEmpty], Some(&way));
    assert_eq!(judged(&causes, Cause::SpringSet).settles, Some(Settling::SoundHeight));
}

#[test]
fn an_overload_leaf_holds_up_what_the_first_stage_would_have_let_down() {
    // Common practice: a one-ton with some 3,900 lb of camper falls 3 7/8 in at the arch.
    let mut survey = half_ton();
    survey.vehicle.class = VehicleClass::OneTonPickup;
    survey.vehicle.axle_ratings.rear = pounds(9000.0);
    survey.datum = Datum::GroundToArch;
    survey.heights = States::of(heights(39.5, 42.0), heights(39.5, 38.125));
    survey.load = Some(LoadPut::Placed { weight: pounds(3900.0), behind_rear_axle: inches(0.0) });
    survey.stop_gap = States::of(Gaps::at_the_rear(inches(4.75)), Gaps::at_the_rear(inches(2.0)));
    let way = breakdown(&survey, Some(42.0));
    adds_up(&way);
    // The class's tires give 3,900/4,300 = 0.907 in to 15 %, so the heights leave 2.968 in of spring, to 0.175 in; the gap closed by
    // 2.75 in, to 0.125 in. Each weighed by its variance: 2.82 in.
    close("springs and leaf", part(&way, PartKind::SpringsAndOverloadLeaf), 2.824, 0.01);
    close("tires", part(&way, PartKind::Tyres), 3.875 - 2.824, 0.01);
    // How much the leaf holds up is within what the class's own rate may be off by: not two wide figures that take each other back.
    assert_eq!(way.part(PartKind::SecondStage), None);
    // Seen not to bear, the leaf has no part in it, and the springs have one rate.
    survey.overload_leaves.bears = States::of(Some(false), Some(false));
    let way = breakdown(&survey, Some(42.0));
    close("springs alone", part(&way, PartKind::CarriedLoad), 2.824, 0.01);
    // A softer class with so much load shows what its leaf holds up past any doubt.
    survey.overload_leaves.bears = States::default();
    survey.overload_leaves.pad_gap = Some(inches(0.5));
    let RateVerdict::Measured(figure) = RateVerdict::of_two_states(&survey) else { panic!("measured") };
    let stages = figure.stages.expect("by its gap");
    close("joins in at its gap", stages.from.customary(), 0.5, 1e-9);
    close(
        "and makes the drop",
        {
            let (first, past) = (stages.first.customary(), figure.spring_drop.value.customary() - 0.5);
            first * figure.spring_drop.value.customary() + stages.added.customary() * past
        },
        3900.0,
        1.0,
    );
}

#[test]
fn a_gap_that_does_not_go_with_the_heights_is_left_out_and_one_that_does_makes_the_rate_surer() {
    let mut survey = half_ton();
    survey.datum = Datum::GroundToArch;
    survey.heights = States::of(heights(37.0, 40.0), heights(37.0, 37.0));
    let rate = |survey: &Survey| *RateVerdict::of_two_states(survey).measured().expect("a rate");
    let alone = rate(&survey);
    survey.stop_gap = States::of(Gaps::at_the_rear(inches(5.0)), Gaps::at_the_rear(inches(2.375)));
    let with = rate(&survey);
    assert!(with.by_gap.unwrap().agrees && with.relative_sd < alone.relative_sd);
    // Heights 2.655 in to 0.121, gap 2.625 to 0.125: their mean, by variance.
    close("springs", with.spring_drop.value.customary(), 2.6405, 0.002);
    survey.stop_gap.loaded = Gaps::at_the_rear(inches(6.0));
    let grows = rate(&survey);
    assert!(!grows.by_gap.unwrap().agrees, "a gap that grows while the rear falls");
    assert_eq!((grows.rate, grows.relative_sd), (alone.rate, alone.relative_sd));
}

#[test]
fn a_stop_that_is_well_clear_is_not_named_and_one_that_is_gone_comes_first() {
    // Gap 4 3/4 in empty, travel 2 3/8 in from the hub: 2 3/8 in are left.
    let mut survey = half_ton();
    survey.heights.loaded = heights(20.5, 21.5 - 2.375);
    survey.stop_gap.empty = Gaps::at_the_rear(inches(4.75));
    let causes = ranked(&survey, &LookOver::default(), &[], None);
    assert!(!judged(&causes, Cause::OnTheStops).is_likely(), "{causes:#?}");
    // Nearly twice the class's rate: the question is still asked, though not of the stop.
    survey.load = Some(LoadPut::Placed { weight: pounds(1680.0), behind_rear_axle: inches(0.0) });
    let rate = RateVerdict::of_two_states(&survey);
    assert!(is_clear_of_the_stop(&survey, &rate));
    let Some(ContactSuspicion::StifferThanItsClass { times }) = contact_suspicion(&survey, &rate) else { panic!("{rate:?}") };
    close("times its class", times, 1680.0 / 2.375 / 370.0, 0.001);
    survey.overload_leaves.bears = States::of(None, Some(false));
    assert_eq!(contact_suspicion(&survey, &rate), None, "stop clear, leaf seen: nothing bears unseen");
    // Gone with the load on: before everything that the heights say.
    let mut gone = half_ton();
    gone.stop_gap = States::of(Gaps::at_the_rear(inches(2.5)), Gaps::at_the_rear(inches(0.0)));
    let way = breakdown(&gone, Some(23.5));
    let causes = ranked(&gone, &LookOver::default(), &[Complaint::LowLoaded], Some(&way));
    assert_eq!(causes[0].cause, Cause::OnTheStops, "{causes:#?}");
}

#[test]
fn the_low_side_stands_half_the_lean_below_the_axle_by_spring_and_by_load() {
    let mut survey = half_ton();
    let rear = |left: f64, right: f64| AxleReadings { corners: Sides { left: vec![inches(left)], right: vec![inches(right)] } };
    survey.heights.empty.rear = rear(21.25, 21.75);
    survey.heights.loaded.rear = rear(18.3125, 19.3125);
    let way = breakdown(&survey, Some(21.5));
    adds_up(&way);
    assert_eq!(way.low_side, Some(Side::Left));
    close("low side", way.measured.customary(), 18.3125, 1e-9);
    close("by spring", part(&way, PartKind::LeanBySpring), 0.25, 1e-9);
    close("by load", part(&way, PartKind::LeanByLoad), 0.25, 1e-9);
    let causes = ranked(&survey, &LookOver::default(), &[Complaint::Leans], Some(&way));
    assert!(judged(&causes, Cause::LeanBySpring).is_likely());
    assert!(judged(&causes, Cause::LeanByLoad).is_likely());
}

#[test]
fn a_tired_pack_is_named_first_and_a_sound_one_is_not() {
    // Common practice: a tired half-ton pack under a heavier bumper gained 2 1/4 in with a leaf.
    let mut survey = half_ton();
    survey.heights = States::of(heights(20.5, 19.25), heights(20.5, 16.5625));
    let tired = breakdown(&survey, Some(21.5));
    let causes = ranked(&survey, &found(&[Defect::LeafPitted]), &[Complaint::LowEmpty], Some(&tired));
    assert_eq!(causes[0].cause, Cause::SpringSet, "{causes:#?}");
    let sound = breakdown(&half_ton(), Some(21.5));
    let causes = ranked(&half_ton(), &LookOver::default(), &[], Some(&sound));
    assert!(!judged(&causes, Cause::SpringSet).is_likely());
    assert_eq!(causes[0].cause, Cause::CarriedLoad, "{causes:#?}");
}

#[test]
fn a_passed_rating_and_a_failed_leaf_come_before_everything_else() {
    let mut survey = half_ton();
    survey.vehicle.kerb.rear = Some(pounds(2250.0));
    survey.load = Some(LoadPut::Placed { weight: pounds(2400.0), behind_rear_axle: inches(0.0) });
    let way = breakdown(&survey, Some(24.0));
    let causes = ranked(&survey, &LookOver::default(), &[Complaint::LowEmpty], Some(&way));
    assert_eq!(causes[0].cause, Cause::Overload);
    assert!(matches!(causes[0].evidence_for[..], [Evidence::OverRating(_)]), "{:?}", causes[0]);
    // Where nobody weighed it, the same load is too much only if the vehicle weighs what its class does.
    survey.vehicle.kerb.rear = None;
    let causes = ranked(&survey, &LookOver::default(), &[], Some(&way));
    let over = judged(&causes, Cause::Overload);
    assert!(matches!(over.evidence_for[..], [Evidence::OverRatingAsAssumed(_)]), "{over:?}");
    let causes = ranked(&half_ton(), &found(&[Defect::LeafBroken]), &[Complaint::LowEmpty], None);
    assert_eq!(causes[0].cause, Cause::FailedPart);
    assert_eq!(Area::Leaves, Defect::LeafBroken.rule().area);
}

#[test]
fn a_nose_that_comes_up_under_a_tongue_is_weight_behind_and_no_spring() {
    let mut survey = half_ton();
    survey.heights = States::of(heights(20.5, 21.5), heights(20.9375, 19.6875));
    survey.load = Some(LoadPut::Planned {
        items: vec![Item { on_hitch: true, ..Item::at(pounds(550.0), inches(52.0)) }],
        scale: Default::default(),
    });
    let way = breakdown(&survey, Some(21.5));
    let causes = ranked(&survey, &LookOver::default(), &[Complaint::NoseUp, Complaint::LightsHigh], Some(&way));
    assert_eq!(causes[0].cause, Cause::WeightBehind, "{causes:#?}");
    assert!(!judged(&causes, Cause::SpringSet).is_likely());
    let lightened = causes[0].evidence_for.iter().any(|evidence| matches!(evidence, Evidence::FrontLightened(_)));
    assert!(lightened && survey.axle_loads().change.get(End::Front).is_some());
}

#[test]
fn a_load_that_weighs_the_front_down_is_no_weight_behind_whatever_the_lights_do() {
    let mut survey = half_ton();
    survey.load = Some(LoadPut::Placed { weight: pounds(1000.0), behind_rear_axle: inches(-12.0) });
    let way = breakdown(&survey, Some(21.5));
    let causes = ranked(&survey, &LookOver::default(), &[Complaint::LightsHigh], Some(&way));
    let behind = judged(&causes, Cause::WeightBehind);
    assert!(!behind.is_likely(), "{behind:#?}");
    // By hand: 1,000 × 12 / 145 = 82.8 lb goes on the front.
    let [Evidence::FrontWeighedDown(on)] = behind.evidence_against[..] else { panic!("{behind:#?}") };
    assert!((on.customary() - 82.76).abs() < 0.01);
}

#[test]
fn stops_that_close_or_show_marks_are_a_cause_and_a_wide_gap_speaks_against() {
    let mut survey = half_ton();
    survey.stop_gap = States::of(Gaps::at_the_rear(inches(2.5)), Gaps::at_the_rear(inches(0.0)));
    let way = breakdown(&survey, Some(21.5));
    adds_up(&way);
    assert!(way.part(PartKind::SpringsAndStops).is_some(), "what the stop holds up is within what the class may be off by");
    let marks = found(&[Defect::StopHasBeenHitting]);
    let causes = ranked(&survey, &marks, &[Complaint::Bottoms], Some(&way));
    assert_eq!(causes[0].cause, Cause::OnTheStops, "{causes:#?}");
    survey.stop_gap = States::of(Gaps::at_the_rear(inches(6.0)), Gaps::at_the_rear(inches(3.25)));
    let causes = ranked(&survey, &LookOver::default(), &[], None);
    assert!(!judged(&causes, Cause::OnTheStops).is_likely());
}

#[test]
fn a_measured_rate_is_held_against_the_one_it_should_have() {
    let mut survey = half_ton();
    survey.vehicle.rear_wheels = RearWheels::Single;
    for (sound, weak) in [(600.0, true), (380.0, false)] {
        survey.vehicle.rear_rate_when_sound = Some(pounds_per_inch(sound));
        let causes = ranked(&survey, &LookOver::default(), &[], None);
        assert_eq!(judged(&causes, Cause::WeakSprings).is_likely(), weak, "{sound}");
    }
}

#[test]
fn earlier_work_is_named_and_nothing_is_said_of_what_nobody_knows() {
    let survey = half_ton();
    let look_over = found(&[Defect::HomeMadeWedge]);
    let rate = RateVerdict::of_two_states(&survey);
    let grounds = Grounds {
        survey: &survey,
        rate: &rate,
        overload: None,
        look_over: &look_over,
        complaints: &[],
        modifications: &[Modification::RearBlock],
        breakdown: None,
    };
    assert!(judged(&rank_causes(&grounds), Cause::EarlierWork).is_likely());
    let mut bare = half_ton();
    (bare.heights, bare.load) = (States::default(), None);
    assert_eq!(ranked(&bare, &LookOver::default(), &[], None), []);
}

proptest! {
    #[test]
    fn the_parts_always_add_up(
        empty in 18.0..45.0f64, drop in -1.0..8.0f64, lean in -2.0..2.0f64, gained in -2.0..2.0f64,
        load in 50.0..4000.0f64, sound in prop::option::of(18.0..45.0f64),
        gap in prop::option::of(0.0..6.0f64), ground in any::<bool>(), always in 0.0..800.0f64,
    ) {
        let mut survey = half_ton();
        survey.vehicle.class = VehicleClass::OneTonPickup;
        survey.datum = if ground { Datum::GroundToArch } else { Datum::HubToArch };
        let rear = |height: f64, lean: f64| AxleReadings {
            corners: Sides { left: vec![inches(height - lean / 2.0)], right: vec![inches(height + lean / 2.0)] },
        };
        survey.heights.empty.rear = rear(empty, lean);
        survey.heights.loaded.rear = rear(empty - drop, lean + gained);
        survey.load = Some(LoadPut::Placed { weight: pounds(load), behind_rear_axle: inches(0.0) });
        survey.stop_gap = States::of(gap.map(|gap| Gaps::at_the_rear(inches(gap))).unwrap_or_default(), Gaps::default());
        survey.vehicle.always = vec![Item::at(pounds(always), inches(0.0))];
        let way = breakdown(&survey, sound);
        let down: f64 = way.parts.iter().map(|part| part.down.value.customary()).sum();
        prop_assert!((way.start.customary() - down - way.measured.customary()).abs() < 1e-9, "{way:?}");
        prop_assert!(way.parts.iter().all(|part| part.down.sd.si() >= 0.0));
    }
}

#[test]
fn a_plow_ahead_of_the_front_axle_is_why_the_rear_stands_high() {
    // 650 lb 42 in ahead of the front axle take 650·42/145 = 188 lb off the rear.
    let mut survey = half_ton();
    survey.vehicle.always = vec![Item::at(pounds(650.0), inches(-187.0))];
    let causes = ranked(&survey, &LookOver::default(), &[Complaint::TooMuchRake], None);
    let plow = judged(&causes, Cause::WeightAhead);
    assert!(plow.is_likely());
    let Evidence::RearLightened(off) = plow.evidence_for[0] else { panic!("{plow:?}") };
    close("off the rear", off.customary(), 188.3, 0.1);
}

#[test]
fn ordinary_squash_of_tires_is_no_cause_and_far_more_of_it_is() {
    let mut survey = half_ton();
    survey.datum = Datum::GroundToArch;
    survey.heights = States::of(heights(37.0, 40.0), heights(37.0, 37.0));
    let way = breakdown(&survey, None);
    let causes = ranked(&survey, &LookOver::default(), &[], Some(&way));
    assert!(!causes.iter().any(|judged| judged.cause == Cause::Tyres && judged.is_likely()), "{causes:#?}");
    // Heights fall by 4 in, the springs by their gap no more than 3: three times what such tires usually squash.
    survey.heights.loaded = heights(37.0, 36.0);
    survey.stop_gap = States::of(Gaps::at_the_rear(inches(4.0)), Gaps::at_the_rear(inches(1.0)));
    let soft = ranked(&survey, &LookOver::default(), &[], Some(&breakdown(&survey, None)));
    let Evidence::Part(PartKind::Tyres, squash) = judged(&soft, Cause::Tyres).evidence_for[0] else { panic!("{soft:#?}") };
    close("4 in of heights less 3 in of gap", squash.value.customary(), 1.0, 1e-9);
}

#[test]
fn what_is_always_aboard_comes_before_set_and_a_test_weight_is_no_load() {
    let mut survey = half_ton();
    survey.vehicle.always = vec![Item::at(pounds(240.0), inches(45.0))];
    // No height when sound is known: set is not named, the bumper is.
    let causes = ranked(&survey, &LookOver::default(), &[Complaint::LowEmpty], Some(&breakdown(&survey, None)));
    let place = |cause| causes.iter().position(|judged| judged.cause == cause);
    assert!(place(Cause::PermanentLoad) < place(Cause::SpringSet), "{causes:#?}");
    assert!(judged(&causes, Cause::PermanentLoad).is_likely());
    survey.test_weight = true;
    let causes = ranked(&survey, &LookOver::default(), &[Complaint::LowLoaded], Some(&breakdown(&survey, None)));
    assert!(!judged(&causes, Cause::CarriedLoad).is_likely(), "{causes:#?}");
    assert_eq!(causes[0].cause, Cause::PermanentLoad);
}

#[test]
fn a_chafed_line_stops_the_job_and_lets_nothing_sag() {
    let chafed = found(&[Defect::HoseChafed]);
    assert_eq!(chafed.stops().len(), 1);
    let causes = ranked(&half_ton(), &chafed, &[Complaint::LowLoaded], None);
    assert!(!causes.iter().any(|judged| judged.cause == Cause::FailedPart), "{causes:#?}");
    let hanger = ranked(&half_ton(), &found(&[Defect::HangerCracked]), &[], None);
    assert_eq!(hanger[0].cause, Cause::FailedPart);
}

#[test]
fn floating_with_nothing_aboard_speaks_of_shocks_and_a_pack_on_its_overload_leaf_of_that() {
    let mut survey = half_ton();
    (survey.load, survey.heights.loaded) = (None, heights(20.5, 18.8125));
    let causes = ranked(&survey, &found(&[Defect::ShockWorn]), &[Complaint::FloatsOrSways], None);
    assert_eq!(causes[0].cause, Cause::ShocksAndBars, "{causes:#?}");
    // A shock that is drawn out says nothing of the stops, one that is closed up does.
    let shocks = |defect| ranked(&half_ton(), &found(&[defect]), &[], None);
    assert!(judged(&shocks(Defect::ShockWitnessMark), Cause::OnTheStops).is_likely());
    assert!(!shocks(Defect::ShockToppedOut).iter().any(|judged| judged.cause == Cause::OnTheStops));
    let mut bears = half_ton();
    bears.overload_leaves.bears = States::of(Some(true), Some(true));
    let causes = ranked(&bears, &LookOver::default(), &[Complaint::TooHarsh], None);
    assert_eq!(causes[0].cause, Cause::OnTheOverloadLeaf, "{causes:#?}");
}
