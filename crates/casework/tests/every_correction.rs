//! Laws that hold of every kind of correction, wherever it may go and whatever vehicle it goes on. The kinds come from their own
//! list, so that a new one is held to them from its first day.

#![allow(clippy::unwrap_used, reason = "a test fails where it stands")]

#[path = "support/any_survey.rs"]
mod any_survey;
#[allow(dead_code, reason = "the arch is other tests' alone")]
#[path = "../../mechanics/tests/support/truck.rs"]
mod truck;

use proptest::prelude::*;
use proptest::sample::select;
use wise_badger_casework::prediction::{CaseHeights, PredictedState, Predictor, Unpredicted};
use wise_badger_casework::survey::{End, Ends as EachEnd, RearWheels, SpringKind, Survey, VehicleClass, VehicleFacts};
use wise_badger_mechanics::bound::Dimension;
use wise_badger_mechanics::correction::{
    Axles, Caution, CoilSpacer, Correction, CorrectionProblem, ExchangedBlock, Given, KINDS, KindRow, LiftBlock, LongerShackle,
    Needs, Quantity, Site, Takes, Work,
};
use wise_badger_mechanics::pack::PartKind;
use wise_badger_mechanics::side::{Side, Sides};
use wise_badger_mechanics::stance::ForceTable;
use wise_badger_mechanics::uncertain::Uncertain;
use wise_badger_mechanics::units::{InShopUnits, Length, inches, pounds};

use any_survey::{any_survey, mirrored, without_loaded};

/// A rubber that gets stiffer the further it is pressed.
fn table(force: f64) -> Quantity {
    let points = [(0.0, 0.0), (1.0, force), (2.0, 3.0 * force)].map(|(inch, pound)| (inches(inch), pounds(pound)));
    Quantity::Table(ForceTable::new(&points).unwrap())
}

/// A light truck's pack as found, and with a leaf more.
fn pack(planned: bool) -> Quantity {
    let mut pack = truck::truck();
    if planned {
        let added = PartKind::ShortAddedLeaf.leaf_for(&pack).unwrap();
        let place = pack.place_by_length(&added);
        pack.leaves.insert(place, added);
    }
    Quantity::Pack(Box::new(pack))
}

/// Every figure of a kind as far up between its bounds as `share` says.
fn given(row: &KindRow, share: &[f64]) -> Given {
    row.figures.iter().zip(share.iter().cycle()).fold(Given::default(), |given, (figure, share)| {
        let quantity = match figure.takes {
            // Bags that take whatever they are filled to.
            Takes::Within(bound) if figure.name == "least_pressure" => Quantity::of(bound.dimension, bound.least),
            // What is pressed together is shorter than what is not.
            Takes::Within(bound) if figure.name.ends_with("_closed") || figure.name == "solid_height" => {
                Quantity::of(bound.dimension, bound.least)
            }
            Takes::Within(bound) if figure.name == "most_pressure" => Quantity::of(bound.dimension, bound.most),
            Takes::Within(bound) => {
                Quantity::of(bound.dimension, (bound.least + share * (bound.most - bound.least)).clamp(bound.least, bound.most))
            }
            Takes::Any(Dimension::Weight) => Quantity::Weight(pounds(1600.0)),
            Takes::Any(dimension) => Quantity::of(dimension, *share),
            Takes::Table => table(100.0 + 900.0 * share),
            Takes::Pack | Takes::PackAfter(_) => pack(figure.name == "planned"),
        };
        given.with(figure.name, quantity)
    })
}

fn any_site() -> impl Strategy<Value = Site> {
    let axles = select(vec![Axles::Rear, Axles::Front, Axles::OneOfRear(1), Axles::OneOfRear(2), Axles::OneOfRear(3)]);
    let side = select(vec![None, Some(Side::Left), Some(Side::Right)]);
    (axles, side).prop_map(|(axles, side)| Site { axles, side })
}

/// Any kind, small figures more often than large ones, anywhere that it may go.
fn any_correction() -> impl Strategy<Value = Correction> {
    let share = prop_oneof![3 => 0.0..0.15_f64, 1 => 0.0..=1.0_f64];
    (select(KINDS.to_vec()), prop::collection::vec(share, 3), any_site())
        .prop_map(|(row, share, site)| row.correction(&given(row, &share), site).unwrap())
        .prop_filter("it may go there", |correction| correction.problems().is_empty())
}

fn heights(predicted: &PredictedState) -> Vec<Uncertain<Length>> {
    let sides = [predicted.rear_sides, predicted.front_sides].into_iter().flatten();
    let sides = sides.flat_map(|sides| [sides.left, sides.right]);
    [Some(predicted.rear), predicted.front].into_iter().flatten().chain(sides).collect()
}

fn close(one: Uncertain<Length>, other: Uncertain<Length>) -> bool {
    (one.value - other.value).si().abs() < 1e-5 && (one.sd - other.sd).si().abs() < 1e-5
}

fn alike(one: Option<Sides<Uncertain<Length>>>, other: Option<Sides<Uncertain<Length>>>) -> bool {
    match (one, other) {
        (None, None) => true,
        (Some(one), Some(other)) => close(one.left, other.right) && close(one.right, other.left),
        _ => false,
    }
}

/// Any kind that goes with a lift and carries nothing, where it may go.
fn any_that_carries_nothing() -> impl Strategy<Value = Correction> {
    let words = ["shocks", "brake_hoses", "u_bolts", "bar_links", "track_bar", "radius_arm_drop", "differential_drop"];
    let kind = select(words.map(|word| KindRow::of(word).unwrap()).to_vec());
    (kind, prop::collection::vec(0.0..=1.0_f64, 3), any_site())
        .prop_map(|(row, share, site)| row.correction(&given(row, &share), Site { side: None, ..site }).unwrap())
        .prop_filter("it may go there", |correction| correction.problems().is_empty())
}

fn sane(heights: &CaseHeights) -> bool {
    heights.rear.value.si().is_finite() && heights.rear.sd.si() > 0.0
}

/// A leveling valve lets out what a part lifts: where air bears, nothing that bears or lifts is told of; what only goes along may be
/// fitted.
#[test]
fn nothing_that_lifts_goes_where_air_bears() {
    let ratings = EachEnd { front: pounds(4000.0), rear: pounds(4100.0) };
    let on = |spring| {
        let facts = VehicleFacts::new(VehicleClass::Wagon, RearWheels::Single, inches(110.0), ratings);
        VehicleFacts { springs: EachEnd { front: None, rear: Some(spring) }, ..facts }
    };
    for row in KINDS.iter().filter(|row| row.ends.have_a_rear()) {
        let part = row.correction(&given(row, &[0.1]), Site::default()).unwrap();
        let [coil, air] = [SpringKind::Coil, SpringKind::Air].map(|spring| on(spring).no_fit_of(&part));
        match part.takes_up().holds_the_vehicle_up() {
            true => assert!(air.is_some(), "{}", row.word),
            false => assert_eq!(air.is_some(), coil.is_some(), "{}", row.word),
        }
    }
}

#[test]
fn every_bound_of_every_figure_is_kept_at_its_edge_and_told_past_it() {
    let mut told = 0;
    for row in KINDS {
        for figure in row.figures {
            let Takes::Within(bound) = figure.takes else { continue };
            let with = |si: f64| {
                let others = given(row, &[0.5]);
                let given = row.figures.iter().fold(Given::default(), |all, of| {
                    let own = if of.name == figure.name {
                        Quantity::of(bound.dimension, si)
                    } else {
                        others.get(of.name).unwrap().clone()
                    };
                    all.with(of.name, own)
                });
                let problems = row.correction(&given, Site::default()).unwrap().problems();
                // What figures are beside each other is another matter.
                let of_one = |problem: &CorrectionProblem| matches!(problem, CorrectionProblem::OutOfBounds { .. });
                problems.into_iter().filter(of_one).collect::<Vec<_>>()
            };
            let past = (bound.most - bound.least) * 1e-6;
            assert_eq!(with(bound.least), [], "{} of {}", figure.name, row.word);
            assert_eq!(with(bound.most), [], "{} of {}", figure.name, row.word);
            for outside in [bound.least - past, bound.most + past, f64::NAN, f64::INFINITY] {
                assert_eq!(with(outside), [CorrectionProblem::OutOfBounds { figure: figure.name, bound }], "{}", row.word);
                told += 1;
            }
        }
    }
    assert!(told >= 30, "{told} figures past a bound");
}

#[test]
fn a_figure_that_is_missing_or_measures_something_else_makes_no_correction() {
    for row in KINDS {
        let whole = given(row, &[0.5]);
        for figure in row.figures {
            let without = |other: Option<Quantity>| {
                let kept = whole.each().filter(|(name, _)| *name != figure.name);
                let kept = kept.fold(Given::default(), |all, (name, quantity)| all.with(name, quantity.clone()));
                row.correction(&other.map_or(kept.clone(), |other| kept.with(figure.name, other)), Site::default())
            };
            assert!(without(None).is_none(), "{} of {}", figure.name, row.word);
            let other = match whole.get(figure.name).unwrap() {
                Quantity::Weight(_) => Quantity::Length(inches(1.0)),
                _ => Quantity::Weight(pounds(100.0)),
            };
            assert!(without(Some(other)).is_none(), "{} of {}", figure.name, row.word);
        }
    }
}

#[test]
fn every_kind_takes_some_work_and_warns_of_something_before_it_is_chosen() {
    for row in KINDS {
        let correction = row.correction(&given(row, &[0.3]), Site::default()).unwrap();
        assert!(!correction.works().is_empty(), "{} would pass every gate of the look-over", row.word);
        // What carries nothing and hangs beside the springs opens none of the rest.
        if correction.row().needs != Needs::Nothing && correction.works() != [Work::Beside] {
            // What lies on a pack that stays clamped leaves the wheels where they are, and a pin that nobody unclamps its hole.
            let stays_clamped = correction.works() == [Work::BearsOnTheFrame];
            let unclamped = [Work::Block, Work::AddedLeaf, Work::Rearching, Work::WholePack];
            let opened = [
                (Caution::PinSeated, correction.works().iter().any(|work| unclamped.contains(work))),
                (Caution::WheelNuts, !stays_clamped),
            ];
            let opened = opened.into_iter().filter(|(_, opened)| *opened).map(|(caution, _)| caution);
            for needed in [Caution::HoseSlack, Caution::ShockLength, Caution::DrivelineAngle].into_iter().chain(opened) {
                assert!(correction.cautions().contains(&needed), "{}: {needed:?}", row.word);
            }
        }
        assert!(!correction.cautions().is_empty(), "{} says nothing of what to be careful of", row.word);
    }
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(160))]

    /// Either a height that is a height, surer than nothing and less sure than perfect, or the reason why there is none.
    #[test]
    fn a_prediction_is_a_height_with_a_band_or_a_reason(survey in any_survey(), correction in any_correction()) {
        let predictor = Predictor::new(&survey);
        let prediction = predictor.predict(&correction);
        for state in survey.states() {
            let Ok(predicted) = prediction.at(state) else { continue };
            let before = survey.height(End::Rear, state).unwrap();
            prop_assert_eq!(predicted.rear_before, before.value);
            prop_assert!((predicted.rear.value - predicted.rear_before - predicted.rise.value).si().abs() < 1e-9);
            // Both states together may say more than one reading; never more than four of them would.
            prop_assert!(predicted.rear.sd >= before.sd / 2.0, "far surer than the tape: {:?}", predicted);
            for height in heights(predicted) {
                prop_assert!(height.value.si().is_finite() && height.sd.si().is_finite() && height.sd.si() > 0.0, "{:?}", height);
            }
            let frequencies = [predicted.bounce_before, predicted.bounce_after].into_iter().flatten().map(|bounce| bounce.frequency);
            for frequency in frequencies {
                prop_assert!((0.1..60.0).contains(&frequency.value), "{:?}", frequency);
            }
        }
        if let Ok(there) = predictor.in_case(&survey, &correction) {
            prop_assert!(sane(&there), "{:?}", there);
        }
    }

    /// Left and right are names: everything mirrored, the answer is mirrored too.
    #[test]
    fn a_vehicle_in_a_mirror_is_predicted_in_a_mirror(survey in any_survey(), correction in any_correction()) {
        let site = correction.site();
        let other = correction.clone().on(Site { side: site.side.map(any_survey::other), ..site });
        let (one, mirror) = (Predictor::new(&survey).predict(&correction), Predictor::new(&mirrored(&survey)).predict(&other));
        for state in survey.states() {
            match (one.at(state), mirror.at(state)) {
                (Ok(one), Ok(mirror)) => {
                    prop_assert!(close(one.rear, mirror.rear), "{:?}\n{:?}", one, mirror);
                    prop_assert!(alike(one.rear_sides, mirror.rear_sides), "{:?}\n{:?}", one, mirror);
                    prop_assert!(alike(one.front_sides, mirror.front_sides), "{:?}\n{:?}", one, mirror);
                }
                (one, mirror) => prop_assert_eq!(one.map(|_| ()), mirror.map(|_| ())),
            }
        }
    }

    /// The same survey asked twice, and a survey that says the same, are answered the same.
    #[test]
    fn what_is_asked_again_is_answered_the_same(survey in any_survey(), correction in any_correction()) {
        let predictor = Predictor::new(&survey);
        let first = predictor.predict(&correction);
        prop_assert_eq!(&predictor.predict(&correction), &first);
        prop_assert_eq!(&Predictor::new(&survey.clone()).predict(&correction), &first);
    }

    /// With nothing read loaded there is no loaded height, and the empty one does not pretend to a rate that nobody measured.
    #[test]
    fn with_the_empty_vehicle_alone_nothing_is_said_of_it_loaded(survey in any_survey(), correction in any_correction()) {
        let empty_only = without_loaded(survey);
        let prediction = Predictor::new(&empty_only).predict(&correction);
        prop_assert!(prediction.loaded.is_err());
        if let Ok(empty) = prediction.empty {
            prop_assert_eq!((empty.bounce_before, empty.bounce_after), (None, None));
        }
    }

    /// A block lifts by its own thickness where it goes on every rear axle and both sides, whatever stands on it; a trailer whose
    /// coupler is held tilts, so that its axles share what comes up a little otherwise. Off a stop that bore it lifts by less.
    #[test]
    fn a_block_lifts_by_its_own_thickness(survey in any_survey(), thickness in 0.25..5.0_f64) {
        let block = Correction::at_the_rear(LiftBlock { thickness: inches(thickness) });
        let predictor = Predictor::new(&survey);
        let prediction = predictor.predict(&block);
        let within = if survey.vehicle.class.is_trailer() { 0.05 * thickness } else { 0.001 };
        for state in survey.states() {
            if let Ok(predicted) = prediction.at(state) {
                let rise = predicted.rise.value.customary();
                if predictor.tells_of_a_stop() {
                    prop_assert!(rise > 0.0 && rise < thickness + within, "{} for {}", rise, thickness);
                    continue;
                }
                prop_assert!((rise - thickness).abs() < within, "{} for {}", rise, thickness);
            }
        }
    }

    /// A block in place of another lifts by what it is higher, or lets down by what it is lower; never by the whole of itself.
    #[test]
    fn an_exchanged_block_lifts_by_what_it_is_higher(survey in any_survey(), thickness in 0.25..5.0_f64, replaces in 0.25..3.0_f64) {
        let block = Correction::at_the_rear(ExchangedBlock { thickness: inches(thickness), replaces: inches(replaces) });
        let predictor = Predictor::new(&survey);
        let prediction = predictor.predict(&block);
        let within = if survey.vehicle.class.is_trailer() { 0.05 * (thickness - replaces).abs() + 0.001 } else { 0.001 };
        for state in survey.states() {
            // What comes down may come to rest on a stop or an overload leaf that it was clear of.
            if let (Ok(predicted), true) = (prediction.at(state), thickness >= replaces && !predictor.tells_of_a_stop()) {
                let rise = predicted.rise.value.customary();
                prop_assert!((rise - (thickness - replaces)).abs() < within, "{} for {} in place of {}", rise, thickness, replaces);
            }
        }
    }

    /// A spacer in place of another lifts by what it is higher, at any load and however poorly the rate is known; where none comes
    /// out, by the whole of itself, like a block.
    #[test]
    fn a_coil_spacer_lifts_by_what_it_is_higher(survey in any_survey(), more in 0.25..3.0_f64, replaces in 0.0..3.0_f64) {
        let spacer = Correction::at_the_rear(CoilSpacer { thickness: inches(replaces + more), replaces: inches(replaces) });
        let block = Correction::at_the_rear(LiftBlock { thickness: inches(more) });
        let predictor = Predictor::new(&survey);
        let (spacer, block) = (predictor.predict(&spacer), predictor.predict(&block));
        for state in survey.states() {
            if let (Ok(spacer), Ok(block)) = (spacer.at(state), block.at(state)) {
                prop_assert!((spacer.rear.value - block.rear.value).si().abs() < 1e-6, "{:?} {:?}", spacer, block);
                prop_assert!(spacer.rear.sd >= block.rear.sd, "what a spacer counts at the wheel is in doubt");
            }
        }
    }

    /// Common practice: with the center bolt in the middle a longer shackle raises by half of what it is longer. Whatever was done to
    /// the one that comes out is in its length.
    #[test]
    fn a_longer_shackle_raises_by_its_share_of_what_it_is_longer(
        survey in any_survey(), old in 3.0..7.0_f64, longer in 0.5..3.0_f64, share in 0.35..0.65_f64,
    ) {
        let shackle = LongerShackle {
            new_length: inches(old + longer),
            old_length: inches(old),
            front_half: inches(56.0 * share),
            rear_half: inches(56.0 * (1.0 - share)),
        };
        let predictor = Predictor::new(&survey);
        let prediction = predictor.predict(&Correction::at_the_rear(shackle));
        let within = if survey.vehicle.class.is_trailer() { 0.05 * longer } else { 0.001 };
        for state in survey.states() {
            if let Ok(predicted) = prediction.at(state) {
                let rise = predicted.rise.value.customary();
                let exact = (rise - longer * share).abs() < within;
                prop_assert!(exact || predictor.tells_of_a_stop(), "{} for {} by {}", rise, longer, share);
                // A tenth of the rise is in doubt, whatever else is.
                prop_assert!(predicted.rear.sd.customary() > 0.099 * rise, "{:?}", predicted);
            }
        }
    }

    /// On two axles what is done in front, on both sides alike, leaves the rear where it is. (On one side it rolls the body, and a rear
    /// that stands on its overload leaves then comes off one of them.)
    #[test]
    fn what_is_done_in_front_leaves_the_rear_of_a_two_axle_vehicle_where_it_is(survey in any_survey(), correction in any_correction()) {
        let in_front = correction.on(Site { axles: Axles::Front, side: None });
        if survey.vehicle.class.is_trailer() || !in_front.problems().is_empty() {
            return Ok(());
        }
        let prediction = Predictor::new(&survey).predict(&in_front);
        for state in survey.states() {
            if let Ok(predicted) = prediction.at(state) {
                prop_assert!(predicted.rise.value.customary().abs() < 0.02, "{:?}", predicted);
            }
        }
    }

    /// What goes with a lift and carries nothing moves nothing: every height and band is what it is without it.
    #[test]
    fn what_carries_nothing_moves_nothing(survey in any_survey(), correction in any_that_carries_nothing(), thickness in 0.5..3.0_f64) {
        let block = Correction::at_the_rear(LiftBlock { thickness: inches(thickness) });
        let predictor = Predictor::new(&survey);
        let (bare, with) = (predictor.predict(&block), predictor.predict(&[block.clone(), correction.clone()][..]));
        for state in survey.states() {
            match (bare.at(state), with.at(state)) {
                (Ok(bare), Ok(with)) => {
                    prop_assert!(close(bare.rear, with.rear), "{}: {:?}\n{:?}", correction.row().word, bare, with);
                    prop_assert!((bare.rise.value - with.rise.value).si().abs() < 1e-9);
                }
                // There may be no such axle as it goes on.
                (Ok(_), Err(why)) => prop_assert_eq!(why, Unpredicted::NoSuchAxle),
                (Err(_), answer) => prop_assert!(answer.is_err()),
            }
        }
    }

    /// More of the same lifts more, on one side and on one axle of several too.
    #[test]
    fn a_thicker_block_is_never_lower(survey in any_survey(), thin in 0.25..4.0_f64, more in 0.1..2.0_f64, site in any_site()) {
        prop_assume!(site.axles != Axles::Front);
        let rear = |thickness: f64| {
            let block = Correction::at_the_rear(LiftBlock { thickness: inches(thickness) }).on(site);
            Predictor::new(&survey).predict(&block)
        };
        let (thin, thick) = (rear(thin), rear(thin + more));
        for state in survey.states() {
            if let (Ok(thin), Ok(thick)) = (thin.at(state), thick.at(state)) {
                prop_assert!(thick.rear.value > thin.rear.value, "{:?} {:?}", thin, thick);
            }
        }
    }
}

/// So that no law above holds for want of anything to hold of: most of what may be asked is answered.
#[test]
fn most_of_what_may_be_asked_is_answered() {
    use proptest::strategy::ValueTree;
    use proptest::test_runner::TestRunner;
    let mut runner = TestRunner::deterministic();
    let mut drawn = || {
        let survey: Survey = any_survey().new_tree(&mut runner).unwrap().current();
        let correction = any_correction().new_tree(&mut runner).unwrap().current();
        let prediction = Predictor::new(&survey).predict(&correction);
        (prediction.empty.is_ok(), prediction.loaded.is_ok(), correction.row().word)
    };
    let all: Vec<_> = (0..2_400).map(|_| drawn()).collect();
    let of = |answered: &dyn Fn(&(bool, bool, &str)) -> bool| all.iter().filter(|one| answered(one)).count();
    assert!(of(&|one| one.0) > 100 && of(&|one| one.1) > 80, "{} empty, {} loaded", of(&|one| one.0), of(&|one| one.1));
    for row in KINDS {
        assert!(of(&|one| one.2 == row.word && (one.0 || one.1)) > 0, "{} was never answered", row.word);
    }
}
