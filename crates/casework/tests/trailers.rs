//! Trailers on one, two and three axles, from the survey to the height in a load case, against lever arms and springs in series.

#[allow(dead_code, reason = "shared by several test files")]
mod support;

use proptest::prelude::*;
use support::heights;
use wise_badger_casework::look_over::LookOver;
use wise_badger_casework::prediction::Predictor;
use wise_badger_casework::survey::{
    End, Ends, Item, LoadPut, Manner, OverloadLeaves, RearWheels, Seen, States, Survey, Tandem, VehicleClass, VehicleFacts,
};
use wise_badger_casework::verdict::{Breakdown, Cause, Grounds, RateVerdict, Rated, RatingCheck, Settling, rank_causes};
use wise_badger_mechanics::correction::{Correction, LiftBlock};
use wise_badger_mechanics::side::Sides;
use wise_badger_mechanics::tape::{AxleReadings, Datum};
use wise_badger_mechanics::units::{InShopUnits, inches, pounds};

/// The vehicle as it is.
const NOTHING: &[Correction] = &[];

const CLASSES: [(VehicleClass, u8); 3] =
    [(VehicleClass::SingleTrailer, 1), (VehicleClass::TandemTrailer, 2), (VehicleClass::TripleTrailer, 3)];

/// A trailer of 150 in from coupler to axles whose frame fell by `drop` in under 2,000 lb right over them.
fn trailer(class: VehicleClass, drop: f64) -> Survey {
    let ratings = Ends { front: pounds(1500.0), rear: pounds(12_000.0) };
    Survey {
        vehicle: VehicleFacts {
            kerb: Ends { front: Some(pounds(400.0)), rear: Some(pounds(3000.0)) },
            ..VehicleFacts::new(class, RearWheels::Single, inches(150.0), ratings)
        },
        datum: Datum::GroundToArch,
        heights: States::of(heights(19.0, 20.0), heights(19.0, 20.0 - drop)),
        load: Some(LoadPut::Placed { weight: pounds(2000.0), behind_rear_axle: inches(0.0) }),
        stop_gap: States::default(),
        manner: States::of(Manner::Rolled, Manner::Rolled),
        further: Vec::new(),
        overload_leaves: OverloadLeaves::default(),
        test_weight: false,
        seen: Seen::default(),
    }
}

#[test]
fn every_axle_has_its_own_tyres_and_shares_the_rate() {
    for (class, axles) in CLASSES {
        let survey = trailer(class, 2.0);
        assert_eq!(survey.vehicle.tyre_count(End::Rear), 2 * axles, "{class:?}");
        assert_eq!(survey.vehicle.tyre_count(End::Front), 0, "a coupler has none");
        // Springs and tyres in series: 2,000 lb on tyres of 1,370 lb/in each, the rest of 2 in on the springs.
        let on_tyres = 2000.0 / (2.0 * f64::from(axles) * 1370.0);
        let verdict = RateVerdict::of_two_states(&survey);
        let rate = verdict.measured().unwrap_or_else(|| panic!("{class:?}: {verdict:?}")).rate.customary();
        assert!((rate - 2000.0 / (2.0 - on_tyres)).abs() < 0.5, "{class:?}: {rate}");
    }
}

#[test]
fn a_block_raises_the_frame_over_the_axles_and_half_the_load_sags_half_as_far() {
    for (class, axles) in CLASSES {
        for equalised in [true, false] {
            let mut survey = trailer(class, 2.0);
            // As much as the class's springs go down by two inches under, and seen to bear on nothing else.
            let put = 2000.0 * f64::from(axles);
            survey.load = Some(LoadPut::Placed { weight: pounds(put), behind_rear_axle: inches(0.0) });
            survey.overload_leaves.bears = States::of(Some(false), Some(false));
            survey.vehicle.tandem = Some(Tandem { spread: inches(33.0), equalised });
            let predictor = Predictor::new(&survey);
            let block = predictor.predict(&Correction::at_the_rear(LiftBlock { thickness: inches(1.5) }));
            let rise = block.loaded.expect("measured").rise.value.customary();
            // Rockers let every axle carry alike, and the middle rises by the block. Without them the frame turns about the
            // coupler until Σk·x·(t − θx) = 0: the middle at X rises by t·X·Σx/Σx².
            let places: Vec<f64> = (0..axles).map(|axle| 150.0 + 33.0 * (f64::from(axle) - f64::from(axles - 1) / 2.0)).collect();
            let turned = 150.0 * places.iter().sum::<f64>() / places.iter().map(|x| x * x).sum::<f64>();
            let expected = if equalised { 1.5 } else { 1.5 * turned };
            assert!((rise - expected).abs() < 0.002, "{class:?}, equalizers {equalised}: {rise}, expected {expected}");
            let half = survey.in_case(vec![Item::at(pounds(put / 2.0), inches(0.0))], Ends::default());
            let sits = predictor.in_case(&half, NOTHING).expect("measured").rear.value.customary();
            // A rate far below the class's is drawn toward it a little.
            assert!((sits - 19.0).abs() < 0.04, "{class:?}, equalizers {equalised}: {sits}");
        }
    }
}

#[test]
fn what_would_settle_a_cause_can_be_read_on_a_trailer() {
    for (class, _) in CLASSES {
        let mut survey = trailer(class, 2.0);
        let rear =
            |left: f64, right: f64| AxleReadings { corners: Sides { left: vec![inches(left)], right: vec![inches(right)] } };
        survey.heights.empty.rear = rear(19.75, 20.25);
        survey.heights.loaded.rear = rear(17.75, 18.25);
        let (rate, look_over) = (RateVerdict::of_two_states(&survey), LookOver::default());
        let breakdown = Breakdown::of(&survey, &rate, None);
        let causes = rank_causes(&Grounds {
            survey: &survey,
            rate: &rate,
            overload: None,
            look_over: &look_over,
            complaints: &[],
            modifications: &[],
            breakdown: breakdown.as_ref(),
        });
        let lean = causes.iter().find(|judged| judged.cause == Cause::LeanBySpring).expect("it leans");
        assert_eq!(lean.settles, Some(Settling::HubFromTheGround), "{class:?}");
        let from_hub = causes.iter().find(|judged| judged.settles == Some(Settling::ReadFromTheHub));
        assert_eq!(from_hub, None, "{class:?}: a trailer's frame is not read from its hubs");
    }
}

#[test]
fn a_tyre_rating_counts_as_often_as_there_are_tyres() {
    for (class, axles) in CLASSES {
        let mut survey = trailer(class, 2.0);
        survey.vehicle.tyre_ratings.rear = Some(pounds(1800.0));
        let checks = RatingCheck::all(&survey);
        let tyres = checks.iter().rfind(|check| check.rated == Rated::Tyres(End::Rear)).expect("rated");
        assert!((tyres.rating.customary() - 3600.0 * f64::from(axles)).abs() < 1e-6, "{class:?}");
        assert!((tyres.load.customary() - 5000.0).abs() < 1e-6, "{class:?}");
        assert!(!checks.iter().any(|check| check.rated == Rated::Tyres(End::Front)));
    }
}

proptest! {
    #[test]
    fn hitch_and_axles_carry_every_load_by_lever_arms(weight in 50.0..4000.0_f64, behind in -140.0..100.0_f64, which in 0..3_usize) {
        let survey = trailer(CLASSES[which].0, 2.0).in_case(vec![Item::at(pounds(weight), inches(behind))], Ends::default());
        let change = survey.axle_loads().change;
        let (front, rear) = (change.front.expect("known").value.customary(), change.rear.expect("known").value.customary());
        prop_assert!((front + rear - weight).abs() < 1e-6);
        prop_assert!((rear - weight * (150.0 + behind) / 150.0).abs() < 1e-6);
        // Behind the axles it pulls the coupler up.
        prop_assert!(behind <= 0.0 || front < 0.0);
    }
}
