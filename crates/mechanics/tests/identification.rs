//! Whole vehicles from tape and scale: made-up vehicles are measured with made-up errors, and have to be found again.

#![allow(clippy::unwrap_used, clippy::indexing_slicing, reason = "a test fails where it stands")]

#[path = "support/errors.rs"]
mod errors;
#[path = "support/plain_axle.rs"]
mod plain_axle;

use errors::Errors;
use plain_axle::axle;
use wise_badger_mechanics::axle_rate::{AxleState, RateGrade, RatePrior, fit_rate};
use wise_badger_mechanics::identification::{
    Doubt, Doubtful, Experiment, IdentificationError, Identified, LoadDoubt, MeasuredState, Measurement, Moving, Rest, TapeMark,
};
use wise_badger_mechanics::side::Side;
use wise_badger_mechanics::stance::{
    Change, Coupler, Element, ElementKind, Equaliser, Load, Mount, Outcome, State, Vehicle, settle,
};
use wise_badger_mechanics::tape::Datum;
use wise_badger_mechanics::uncertain::Uncertain;
use wise_badger_mechanics::units::{InShopUnits, inches, newton_metres_per_radian, newtons, pounds, pounds_per_inch, radians};

const TAPE_IN: f64 = 0.06;
const SETTLING_IN: f64 = 0.06;
const SCALE_LB: f64 = 26.0;
const WHEELBASE_IN: f64 = 145.0;

fn truck() -> Vehicle {
    let mut front = axle("front", 0.0, 500.0);
    front.anti_roll = newton_metres_per_radian(25_000.0);
    let axles = vec![front, axle("rear", WHEELBASE_IN, 370.0)];
    Vehicle { axles, points: vec![], sprung_cg_height: inches(28.0), coupler: None, equalisers: vec![] }
}

fn rear(what: Doubtful, relative_sd: f64) -> Doubt {
    Doubt { what, axles: vec!["rear".into()], relative_sd }
}

fn put(weight: f64, lateral: f64) -> Load {
    Load { lateral: inches(lateral), ..Load::at(pounds(weight), inches(WHEELBASE_IN)) }
}

fn stands(vehicle: &Vehicle, state: &State) -> wise_badger_mechanics::stance::Stance {
    match settle(vehicle, state).unwrap() {
        Outcome::Settled(stance) => stance,
        Outcome::NoEquilibrium => panic!("{} tips", state.name),
    }
}

/// Measures a vehicle with loads on its rear: marks are read from 21.5 in at kerb, weights stated a little wrong.
fn measured(vehicle: &Vehicle, loads: &[Load], marks: &[TapeMark], errors: &mut Errors) -> Vec<MeasuredState> {
    let each = loads.iter().map(|load| {
        let stance = stands(vehicle, &State::with_loads("true", vec![*load]));
        let settling = SETTLING_IN * errors.normal();
        let readings = marks.iter().map(|mark| {
            let TapeMark::Arch { axle, side, .. } = mark else { panic!("an arch") };
            let change = stance.axle(axle).unwrap().hub_to_arch_change;
            let change = side.map_or((change.left + change.right) / 2.0, |side| *change.get(side));
            let height = inches(21.5 + settling + TAPE_IN * errors.normal()) + change;
            Measurement::Height { mark: mark.clone(), height: Uncertain::new(height, inches(TAPE_IN)) }
        });
        let readings: Vec<Measurement> = readings.collect();
        let stated = Load { weight: load.weight + pounds(SCALE_LB * errors.normal()), ..*load };
        let (state, load_doubts) = match load.weight > newtons(0.0) {
            true => {
                (State::with_loads("loaded", vec![stated]), vec![LoadDoubt { weight: pounds(SCALE_LB), ..LoadDoubt::default() }])
            }
            false => (State::with_loads("empty", vec![]), vec![]),
        };
        MeasuredState { state, load_doubts, settling: inches(SETTLING_IN), rest: Rest::AsItStood, readings }
    });
    each.collect()
}

fn rear_mean() -> TapeMark {
    TapeMark::axle("rear", Datum::HubToArch)
}

fn corners() -> Vec<TapeMark> {
    Side::BOTH.map(|side| TapeMark::corner("rear", side, Datum::HubToArch)).to_vec()
}

fn identify(doubts: Vec<Doubt>, states: Vec<MeasuredState>) -> Identified {
    Experiment { vehicle: truck(), doubts, friction: vec![], states }.identify().unwrap()
}

/// A helper on both sides of the rear axle, past an inch.
fn helper(_: &Vehicle) -> Vec<Change> {
    let kind = ElementKind::Helper { gap: inches(1.0), rate: pounds_per_inch(100.0), already_fitted: false };
    let element = Element { name: "helper".into(), lateral: None, motion_ratio: 1.0, mount: Mount::Frame, kind };
    vec![Change::Add { axle: "rear".into(), side: None, element }]
}

#[test]
fn loads_on_either_side_tell_the_corners_and_the_bar_apart() {
    let mut truth = truck();
    truth.axles[1].anti_roll = newton_metres_per_radian(9_000.0);
    truth.axles[1].corners.left.spring.rate *= 0.85;
    let mut believed = truck();
    believed.axles[1].anti_roll = newton_metres_per_radian(6_000.0);
    let loads = [put(0.0, 0.0), put(1_000.0, 0.0), put(800.0, -24.0), put(800.0, 24.0), put(1_000.0, -24.0), put(1_000.0, 24.0)];
    let doubts = vec![rear(Doubtful::SpringRate, 0.35), rear(Doubtful::RightOverLeft, 0.3), rear(Doubtful::AntiRoll, 0.5)];
    let mut held = [0; 3];
    for seed in 0..40 {
        let states = measured(&truth, &loads, &corners(), &mut Errors::new(seed));
        let shares = Experiment { vehicle: believed.clone(), doubts: doubts.clone(), friction: vec![], states }
            .identify()
            .unwrap()
            .shares();
        let truths = [0.85_f64.sqrt().ln(), -(0.85_f64.ln()), 1.5_f64.ln()];
        for ((share, truth), held) in shares.iter().zip(truths).zip(&mut held) {
            *held += i32::from((share.log_factor - truth).abs() <= 2.0 * share.relative_sd);
            assert!(share.told_by_readings > 0.5, "{share:?}");
        }
        assert_eq!(shares[0].grade(), Some(RateGrade::Good));
    }
    assert!(held.iter().all(|held| *held >= 36), "two standard deviations held {held:?} of 40");
}

#[test]
fn loads_in_the_middle_say_nothing_of_the_bar() {
    let loads = [put(0.0, 0.0), put(500.0, 0.0), put(1_000.0, 0.0)];
    let states = measured(&truck(), &loads, &corners(), &mut Errors::new(5));
    let shares = identify(vec![rear(Doubtful::SpringRate, 0.35), rear(Doubtful::TyreRate, 0.15)], states).shares();
    assert!(shares[0].told_by_readings > 0.9 && shares[0].grade() == Some(RateGrade::Good));
    // Nor does a datum without the tyre say anything of the tyre.
    assert!(shares[1].told_by_readings < 1e-6 && shares[1].grade().is_none() && (shares[1].relative_sd - 0.15).abs() < 1e-9);
}

#[test]
fn the_whole_vehicle_and_the_axle_alone_find_one_rate() {
    let loads = [put(0.0, 0.0), put(400.0, 0.0), put(900.0, 0.0)];
    for seed in 0..20 {
        let states = measured(&truck(), &loads, &[rear_mean()], &mut Errors::new(seed));
        let alone: Vec<AxleState> = states
            .iter()
            .map(|state| {
                let Measurement::Height { height, .. } = &state.readings[0] else { panic!("a height") };
                let load = state
                    .state
                    .loads
                    .first()
                    .map_or(Uncertain::new(newtons(0.0), newtons(0.0)), |load| Uncertain::new(load.weight, pounds(SCALE_LB)));
                AxleState { load, height: Uncertain::new(height.value, inches(TAPE_IN.hypot(SETTLING_IN))) }
            })
            .collect();
        let fit = fit_rate(&alone, &RatePrior { rate: pounds_per_inch(370.0), relative_sd: 0.35 }, None).unwrap();
        let share = identify(vec![rear(Doubtful::SpringRate, 0.35)], states).shares()[0];
        let apart = (share.factor() * 370.0 / fit.rate.customary()).ln().abs();
        assert!(apart < 0.2 * fit.relative_sd, "{share:?} {fit:?}");
        assert!((share.relative_sd / fit.relative_sd - 1.0).abs() < 0.15, "{share:?} {fit:?}");
    }
}

#[test]
fn two_standard_deviations_of_a_forecast_hold_the_truth() {
    let mut held = 0;
    for seed in 0..300 {
        let mut errors = Errors::new(seed);
        let mut truth = truck();
        let factor = (0.35 * errors.normal()).exp();
        for side in Side::BOTH {
            truth.axles[1].corners.get_mut(side).spring.rate *= factor;
        }
        let states = measured(&truth, &[put(0.0, 0.0), put(900.0, 0.0)], &[rear_mean()], &mut errors);
        let found = identify(vec![rear(Doubtful::SpringRate, 0.35)], states);
        let fitted = State::with_loads("true", vec![put(900.0, 0.0)]).changed(helper(&truth));
        let truly = inches(21.5) + stands(&truth, &fitted).axle("rear").unwrap().hub_to_arch_change.left;
        let forecast = found.height(&found.forecast(1, helper).unwrap(), &rear_mean()).unwrap();
        held += i32::from((forecast.value - truly).abs() <= forecast.band());
    }
    assert!(held >= 279, "{held} of 300");
}

#[test]
fn a_blocks_rise_is_exact_though_the_rate_is_not() {
    let states = measured(&truck(), &[put(0.0, 0.0), put(150.0, 0.0)], &[rear_mean()], &mut Errors::new(3));
    let found = identify(vec![rear(Doubtful::SpringRate, 0.35)], states);
    let block = |_: &Vehicle| vec![Change::Spacer { axle: "rear".into(), side: None, thickness: inches(2.0) }];
    let (plain, blocked) = (found.forecast(1, |_| vec![]).unwrap(), found.forecast(1, block).unwrap());
    let rise = found.rise(&plain, &blocked, &rear_mean()).unwrap();
    assert!((rise.value.customary() - 2.0).abs() < 1e-6 && rise.sd.customary() < 1e-6, "{rise:?}");
    assert!(found.shares()[0].grade().is_none(), "150 lb are too weak to say");
}

#[test]
fn a_tandems_axles_share_one_factor_about_the_coupler() {
    let names = ["first", "second"];
    let arm = inches(3.0);
    let rocker = |side| Equaliser { side, axles: names.map(str::to_owned), front_arm: arm, rear_arm: arm, stop: radians(0.5) };
    let trailer = |pair_rate| Vehicle {
        axles: vec![axle("first", 151.0, pair_rate), axle("second", 185.0, pair_rate)],
        coupler: Some(Coupler { position: inches(0.0), lateral: inches(0.0), kerb_load: pounds(400.0) }),
        equalisers: Side::BOTH.map(rocker).to_vec(),
        ..truck()
    };
    // By hand, 2,000 lb over the middle between the axles of 800 lb/in each: 1.25 in on the springs and 1,000 / 2,900 in on
    // the tyres there, a frame that turns about its coupler, and tyres that squash alike.
    let (tyres, middle) = (1_000.0 / 2_900.0, 1.25 + 1_000.0 / 2_900.0);
    let drops = [middle * 151.0 / 168.0 - tyres, middle * 185.0 / 168.0 - tyres];
    let state = |load: f64, share: f64| MeasuredState {
        state: State::with_loads("state", vec![Load::at(pounds(load), inches(168.0))]),
        load_doubts: vec![],
        settling: inches(0.0),
        rest: Rest::RolledAndBounced,
        readings: names
            .iter()
            .zip(drops)
            .map(|(name, drop)| Measurement::Height {
                mark: TapeMark::axle(*name, Datum::HubToArch),
                height: Uncertain::new(inches(12.0 - share * drop), inches(TAPE_IN)),
            })
            .collect(),
    };
    let doubts = vec![Doubt { what: Doubtful::SpringRate, axles: names.map(str::to_owned).to_vec(), relative_sd: 3.0 }];
    let states = vec![state(0.0, 0.0), state(2_000.0, 1.0)];
    let share = Experiment { vehicle: trailer(1_200.0), doubts, friction: vec![], states }.identify().unwrap().shares()[0];
    assert!((share.factor() * 1_200.0 - 800.0).abs() < 1.0, "{}", share.factor() * 1_200.0);
}

#[test]
fn a_reading_that_does_not_fit_is_named() {
    let loads = [put(0.0, 0.0), put(300.0, 0.0), put(600.0, 0.0), put(900.0, 0.0)];
    let mut states = measured(&truck(), &loads, &[rear_mean()], &mut Errors::new(11));
    let found = |states: &[MeasuredState]| identify(vec![rear(Doubtful::SpringRate, 0.35)], states.to_vec());
    assert_eq!(found(&states).misfit(3.0), None);
    states.iter_mut().for_each(|state| state.settling = inches(0.0));
    let Measurement::Height { height, .. } = &mut states[2].readings[0] else { panic!("a height") };
    height.value += inches(1.0);
    assert_eq!(found(&states).misfit(3.0).map(|misfit| (misfit.state, misfit.reading)), Some((2, 0)));
}

#[test]
fn what_cannot_be_identified_is_said() {
    let states = || measured(&truck(), &[put(0.0, 0.0), put(900.0, 0.0)], &[rear_mean()], &mut Errors::new(1));
    let error = |doubts, states| Experiment { vehicle: truck(), doubts, friction: vec![], states }.identify().unwrap_err();
    let rate = || vec![rear(Doubtful::SpringRate, 0.35)];
    assert!(matches!(error(vec![rear(Doubtful::SpringRate, 0.0)], states()), IdentificationError::NotPositive(_)));
    let elsewhere = vec![Doubt { what: Doubtful::TyreRate, axles: vec!["tag".into()], relative_sd: 0.1 }];
    assert!(matches!(error(elsewhere, states()), IdentificationError::Stance(_)));
    let mut heavy = states();
    heavy[1].state.loads[0].position = inches(4_000.0);
    assert_eq!(error(rate(), heavy), IdentificationError::Tips("loaded".into()));
    let mut nowhere = states();
    nowhere[0].readings.push(Measurement::TongueWeight(Uncertain::new(pounds(300.0), pounds(26.0))));
    assert_eq!(error(rate(), nowhere), IdentificationError::NothingThere("empty".into()));
    let mut no_number = states();
    no_number[0]
        .readings
        .push(Measurement::AxleLoad { axle: "rear".into(), load: Uncertain::new(pounds(f64::NAN), pounds(26.0)) });
    assert!(matches!(error(rate(), no_number), IdentificationError::NotPositive(_)));
}

/// Laid out once for several states or for each by itself, the answer is the same to the last digit; a state that is not there spoils
/// none of the others.
#[test]
fn several_states_together_are_forecast_as_each_by_itself() {
    let loads = [put(0.0, 0.0), put(600.0, 12.0), put(900.0, -8.0)];
    let states = measured(&truck(), &loads, &[rear_mean()], &mut Errors::new(5));
    let found = identify(vec![rear(Doubtful::SpringRate, 0.35), rear(Doubtful::AntiRoll, 0.3)], states);
    let together = found.forecasts(&[2, 0, 7, 1], Moving::Everything, helper);
    assert_eq!(together.len(), 4);
    for (place, state) in [(0, 2), (1, 0), (3, 1)] {
        assert_eq!(together[place], found.forecast(state, helper), "state {state}");
    }
    assert_eq!(together[2], Err(IdentificationError::NoSuchState(7)));
    let stands = found.stands(&[2, 7, 1], helper);
    assert_eq!(stands[0].as_ref().unwrap(), &together[0].as_ref().unwrap().stance);
    assert_eq!((stands[1].clone().unwrap_err(), stands[2].is_ok()), (IdentificationError::NoSuchState(7), true));
}

/// An account that holds one reading to be poor is told with the slopes of the one that trusts it: nearly what it tells by its own,
/// with a block's rise as exact as ever, and nothing where the figures are others.
#[test]
fn an_account_may_take_the_slopes_of_another_of_the_same_vehicle() {
    let mut errors = Errors::new(11);
    let read =
        |errors: &mut Errors| measured(&truck(), &[put(0.0, 0.0), put(500.0, 0.0), put(900.0, 0.0)], &[rear_mean()], errors);
    let states = read(&mut errors);
    let doubts = || vec![rear(Doubtful::SpringRate, 0.35), rear(Doubtful::TyreRate, 0.2)];
    let trusting = identify(doubts(), states.clone());
    let mut doubted = states.clone();
    if let Measurement::Height { height, .. } = &mut doubted[1].readings[0] {
        *height = Uncertain::new(height.value + inches(0.4), inches(0.5));
    }
    let doubting = identify(doubts(), doubted);
    let block = |_: &Vehicle| vec![Change::Spacer { axle: "rear".into(), side: None, thickness: inches(2.0) }];
    let plain = |of: &Identified| of.forecast(2, |_| vec![]).unwrap();
    let springs = |doubt: &Doubt| doubt.what == Doubtful::SpringRate;
    for moving in [Moving::Nothing, Moving::These(&springs)] {
        let borrowing = doubting.borrowing(&trusting, moving).unwrap();
        for (fitted, exact) in [(&helper as &dyn Fn(&Vehicle) -> Vec<Change>, false), (&block, true)] {
            let with = |of: &Identified| of.forecast(2, fitted).unwrap();
            let (own, as_told) = (with(&doubting), with(&trusting));
            let part = doubting.forecasts(&[2], moving, fitted).remove(0).unwrap();
            assert_eq!(part.stance, own.stance, "the figure itself is its own");
            let from = plain(&doubting);
            let by_own = doubting.rise(&from, &own, &rear_mean()).unwrap();
            let rise = trusting.rise_told(&plain(&trusting), &as_told, &rear_mean()).unwrap();
            let told = doubting.rise_told(&from, &part, &rear_mean()).unwrap();
            let lent = borrowing.whole(told, &rise);
            let by_other = doubting.band_of(&lent).unwrap();
            assert_eq!(by_own.value, by_other.value);
            if exact {
                assert!(by_other.sd.customary() < 1e-6, "{by_other:?}");
            } else {
                assert!(
                    (by_other.sd / by_own.sd).value > 0.95 && (by_other.sd / by_own.sd).value < 1.05,
                    "{by_own:?} {by_other:?}"
                );
            }
            let height = doubting.height(&own, &rear_mean()).unwrap();
            let theirs = trusting.height_told(&as_told, &rear_mean()).unwrap();
            let told = doubting.height_told(&part, &rear_mean()).unwrap();
            let told = doubting.band_of(&borrowing.whole(told, &theirs)).unwrap();
            assert_eq!(height.value, told.value);
            assert!((told.sd / height.sd).value > 0.97 && (told.sd / height.sd).value < 1.03, "{height:?} {told:?}");
        }
    }
    // One that knows nothing of the tires cannot lend how they move it.
    let other = identify(vec![rear(Doubtful::SpringRate, 0.35)], states);
    for moving in [Moving::Nothing, Moving::These(&springs)] {
        assert!(doubting.borrowing(&other, moving).is_none());
    }
}

/// What a vehicle lends is meant per deviation of who borrows: an account that is twice as unsure of its tires before anything is read
/// borrows slopes that go with its own doubt.
#[test]
fn what_is_lent_goes_with_the_doubt_of_who_borrows() {
    let states = measured(&truck(), &[put(0.0, 0.0), put(900.0, 0.0)], &[rear_mean()], &mut Errors::new(17));
    let with_tires = |sd: f64| identify(vec![rear(Doubtful::SpringRate, 0.35), rear(Doubtful::TyreRate, sd)], states.clone());
    let (sure, unsure) = (with_tires(0.1), with_tires(0.2));
    let springs = |doubt: &Doubt| doubt.what == Doubtful::SpringRate;
    let moving = Moving::These(&springs);
    let whole = |of: &Identified| of.height_told(&of.forecast(1, helper).unwrap(), &rear_mean()).unwrap();
    let part = unsure.forecasts(&[1], moving, helper).remove(0).unwrap();
    let borrowing = unsure.borrowing(&sure, moving).unwrap();
    let lent = borrowing.whole(unsure.height_told(&part, &rear_mean()).unwrap(), &whole(&sure));
    let (own, lent) = (unsure.band_of(&whole(&unsure)).unwrap(), unsure.band_of(&lent).unwrap());
    assert!((lent.sd / own.sd).value > 0.9 && (lent.sd / own.sd).value < 1.1, "{own:?} {lent:?}");
}

/// A load that is doubtful by itself moves its own state alone: the same weight with no doubt narrows that state's forecast and no other's.
#[test]
fn the_doubt_of_a_load_is_its_own_states_alone() {
    let band = |doubtful: bool| {
        let mut states =
            measured(&truck(), &[put(0.0, 0.0), put(600.0, 0.0), put(900.0, 0.0)], &[rear_mean()], &mut Errors::new(3));
        states[2].readings.clear();
        let doubt = if doubtful { pounds(150.0) } else { pounds(0.0) };
        states[2].load_doubts = vec![LoadDoubt { weight: doubt, position: inches(0.0) }];
        let found = identify(vec![rear(Doubtful::SpringRate, 0.35)], states);
        let each = found.forecasts(&[1, 2], Moving::Everything, |_| vec![]);
        let sd = |place: usize| found.height(each[place].as_ref().unwrap(), &rear_mean()).unwrap().sd.customary();
        (sd(0), sd(1))
    };
    let ((read, predicted), (_, exact)) = (band(true), band(false));
    assert!((read - band(false).0).abs() < 1e-6, "{read}");
    // 150 lb over the springs and tires of that end: some 0.4 in more, as one standard deviation.
    let more = (predicted.powi(2) - exact.powi(2)).sqrt();
    assert!(more > 0.2 && more < 0.6, "{predicted} {exact}");
}
