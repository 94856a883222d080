//! After fitting: what is likeliest behind a miss, what can be set otherwise, and which reading counts.

#![allow(clippy::unwrap_used, clippy::indexing_slicing, reason = "a test fails where it stands")]

#[path = "support/finder_job.rs"]
mod finder_job;
#[path = "support/in_short.rs"]
mod in_short;
use proptest::prelude::*;
use rand::SeedableRng as _;
use wise_badger_casework::adjust::adjust;
use wise_badger_casework::casework::Casework;
use wise_badger_casework::entry::{
    AimSheet, BareUnits, CorrectionEntry, GoalEntry, MarkEntry, OptionEntry, OtherwiseEntry, OtherwiseWord, Typed, UnitWord,
    WayWord, WhenEntry,
};
use wise_badger_casework::proof::{Miss, MissCause, likely_causes};
use wise_badger_casework::reading::{Phase, Place, Reading, Spot};
use wise_badger_casework::survey::{End, LoadState};
use wise_badger_mechanics::correction::{KindRow, Quantity};
use wise_badger_mechanics::tape::{Datum, LengthUnit, WeightUnit};
use wise_badger_mechanics::units::{InShopUnits, inches, pounds};

/// Rear and front, empty and loaded, each off by so many inches; the rear sinks by 3, the front not.
fn misses(rear: [f64; 2], front: [f64; 2]) -> Vec<Miss> {
    let miss = |end, state, difference: f64, sinks: f64| Miss {
        end,
        state,
        difference: inches(difference),
        reading_sd: inches(0.1),
        sinks: inches(sinks),
    };
    vec![
        miss(End::Rear, LoadState::Empty, rear[0], 0.0),
        miss(End::Rear, LoadState::Loaded, rear[1], 3.0),
        miss(End::Front, LoadState::Empty, front[0], 0.0),
        miss(End::Front, LoadState::Loaded, front[1], 0.0),
    ]
}

fn likeliest(rear: [f64; 2], front: [f64; 2], driven: bool) -> MissCause {
    likely_causes(&misses(rear, front), driven, &[])[0].cause
}

#[test]
fn the_pattern_of_the_heights_tells_the_story() {
    assert_eq!(likeliest([-0.6, -0.6], [0.0, 0.0], true), MissCause::PartsLift);
    assert_eq!(likeliest([-0.4, -0.4], [-0.4, -0.4], true), MissCause::Ground);
    assert_eq!(likeliest([0.0, 0.0], [0.9, 0.0], true), MissCause::Misread(2));
    // Empty right and loaded off: load or rate, which two states alone do not tell apart; the load is asked for first.
    assert_eq!(likeliest([0.0, -0.6], [0.0, 0.0], true), MissCause::Load);
}

#[test]
fn nothing_is_preloaded_once_it_was_driven_nor_where_it_stands_too_low() {
    let has =
        |rear, driven| likely_causes(&misses(rear, [0.0, 0.0]), driven, &[]).iter().any(|odds| odds.cause == MissCause::Preload);
    assert!(has([0.5, 0.5], false));
    assert!(!has([0.5, 0.5], true));
    assert!(!has([-0.5, -0.5], false));
}

proptest! {
    /// Odds are odds, and do not change with the unit that heights are read in.
    #[test]
    fn odds_add_up_and_know_no_unit(rear in proptest::array::uniform2(-1.5_f64..1.5), front in proptest::array::uniform2(-0.5_f64..0.5)) {
        let odds = likely_causes(&misses(rear, front), false, &[]);
        let sum: f64 = odds.iter().map(|odds| odds.share).sum();
        prop_assert!((sum - 1.0).abs() < 1e-9);
        prop_assert!(odds.windows(2).all(|pair| pair[0].share >= pair[1].share));
    }

    /// With nothing off no story is nearer than its weight beforehand: none is accused by more than that.
    #[test]
    fn of_one_height_read_alone_no_story_is_sure(off in -0.3_f64..0.3) {
        let one = vec![Miss { end: End::Rear, state: LoadState::Loaded, difference: inches(off), reading_sd: inches(0.1), sinks: inches(3.0) }];
        prop_assert!(likely_causes(&one, true, &[])[0].share < 0.6);
    }
}

/// What somebody said was not as before is likelier behind a miss, and never makes likelier what the heights speak against.
#[test]
fn a_story_that_was_spoken_of_is_likelier() {
    let odds = |said: &[MissCause], cause: MissCause, driven: bool| {
        let odds = likely_causes(&misses([-0.3, -0.5], [0.0, -0.2]), driven, said);
        odds.iter().find(|odds| odds.cause == cause).map_or(0.0, |odds| odds.share)
    };
    for cause in [MissCause::Ground, MissCause::Load, MissCause::Rate, MissCause::PartsLift] {
        assert!(odds(&[cause], cause, true) > odds(&[], cause, true), "{cause:?}");
        assert!(odds(&[cause], cause, true) <= 5.0 * odds(&[], cause, true) + 1e-12, "{cause:?}");
    }
    // Where the front is right and the rear alone off, another floor explains little, said or not.
    let rear_alone = |said: &[MissCause]| likely_causes(&misses([-0.6, -0.6], [0.0, 0.0]), true, said)[0].cause;
    assert_eq!(rear_alone(&[MissCause::Ground]), MissCause::PartsLift);
    // Not rolled: what is held up may be so after the drive too.
    let held = |said: &[MissCause]| {
        likely_causes(&misses([0.3, 0.3], [0.0, 0.0]), true, said).iter().any(|odds| odds.cause == MissCause::Preload)
    };
    assert!(held(&[MissCause::Preload]) && !held(&[]));
    let all: f64 =
        likely_causes(&misses([0.3, 0.3], [0.0, 0.0]), true, &[MissCause::Preload]).iter().map(|odds| odds.share).sum();
    assert!((all - 1.0).abs() < 1e-9);
}

fn reading(phase: Phase, state: LoadState, place: Place, value: f64) -> Reading {
    let value = Typed { text: value.to_string(), unit: UnitWord::In, si: inches(value).si() };
    Reading { spot: Spot { phase, state, place }, datum: Datum::HubToArch, value }
}

/// The half-ton with bags at some pressure chosen, and its rear read loaded.
fn with_bags(pressure: &str, rear: f64) -> Casework {
    let mut case = finder_job::in_short(finder_job::half_ton()).work().case().clone();
    let row = KindRow::of("air_helper").unwrap();
    let units = BareUnits { length: LengthUnit::Inches, weight: WeightUnit::Pounds };
    let texts = [
        ("capacity", "1000"),
        ("capacity_pressure", "100"),
        ("height", "8"),
        ("pressure", pressure),
        ("least_pressure", "5"),
        ("most_pressure", "100"),
    ];
    let figures = texts.map(|(name, text)| {
        let figure = row.figures.iter().find(|figure| figure.name == name).unwrap();
        (name, units.figure(figure.takes, text).unwrap())
    });
    case.options = vec![OptionEntry::from(CorrectionEntry::of(row, figures).unwrap())];
    case.chosen = Some(0);
    for place in [Place::RearLeft, Place::RearRight] {
        case.readings.push(reading(Phase::Fitted, LoadState::Loaded, place, rear));
    }
    Casework::new(case)
}

#[test]
fn the_last_reading_of_an_end_in_a_state_counts_and_the_others_stay() {
    let mut case = finder_job::in_short(finder_job::half_ton()).work().case().clone();
    for (phase, state, height) in [
        (Phase::Fitted, LoadState::Empty, 23.0),
        (Phase::Fitted, LoadState::Loaded, 20.75),
        (Phase::Driven, LoadState::Loaded, 20.625),
        (Phase::Settled, LoadState::Loaded, 20.5),
    ] {
        for place in [Place::RearLeft, Place::RearRight] {
            case.readings.push(reading(phase, state, place, height));
        }
    }
    case.readings.push(reading(Phase::Driven, LoadState::Empty, Place::FrontLeft, 20.25));
    assert_eq!(case.last_after(LoadState::Loaded, End::Rear), Some(Phase::Settled));
    assert_eq!(case.last_after(LoadState::Empty, End::Rear), Some(Phase::Fitted));
    assert_eq!(case.last_after(LoadState::Loaded, End::Front), None);
    let work = Casework::new(case);
    let height = |end, state| work.fitted().height(end, state).map(|height| height.value.customary());
    assert!((height(End::Rear, LoadState::Loaded).unwrap() - 20.5).abs() < 1e-9);
    assert!((height(End::Rear, LoadState::Empty).unwrap() - 23.0).abs() < 1e-9);
    let driven = work.case().survey(Phase::Driven).height(End::Rear, LoadState::Loaded).unwrap();
    assert!((driven.value.customary() - 20.625).abs() < 1e-9);
}

/// Half an inch too low loaded: more pressure, and by the prediction with that pressure the rear stands where it was wanted.
#[test]
fn a_bag_is_pressed_up_by_as_much_as_the_rear_lacks() {
    let aim = |work: &Casework| work.target().unwrap().1;
    let level = aim(&with_bags("30", 20.0)).height.customary();
    let low = with_bags("30", level - 0.7);
    let told = adjust(&low).unwrap();
    assert!((told.wanted.customary() - 0.7).abs() < 1e-6);
    let setting = &told.settings[0];
    assert_eq!(setting.figure, "pressure");
    let psi = |of: &Quantity| if let Quantity::Pressure(pressure) = of { pressure.customary() } else { f64::NAN };
    assert!(psi(&setting.to) > psi(&setting.now));
    assert!((setting.rises - told.wanted).abs() <= inches(1.0 / 64.0), "{setting:?}");
    // Too high: let down, and never below its least pressure.
    let high = adjust(&with_bags("30", level + 3.0)).unwrap();
    assert!(high.settings.iter().all(|of| psi(&of.to) >= 5.0 - 1e-6 && psi(&of.to) < psi(&of.now)));
    assert!(high.settings.iter().all(|of| of.rises > high.wanted), "a bag let down to its least does not give three inches");
}

#[test]
fn nothing_is_set_where_the_aim_is_met_or_nothing_can_be() {
    let level = with_bags("30", 20.0).target().unwrap().1.height.customary();
    assert_eq!(adjust(&with_bags("30", level)), None);
    let mut case = with_bags("30", level - 1.5).case().clone();
    let thick = Typed { text: "1".to_owned(), unit: UnitWord::In, si: 0.0254 };
    let row = KindRow::of("lift_block").unwrap();
    case.options = vec![OptionEntry::from(CorrectionEntry::of(row, [("thickness", thick.into())]).unwrap())];
    assert_eq!(adjust(&Casework::new(case)).unwrap().settings, []);
}

/// Under another load than the one that the aim speaks of, nothing is set; what bears on no height changes nothing.
#[test]
fn nothing_is_set_by_a_height_that_was_read_otherwise() {
    let level = with_bags("30", 20.0).target().unwrap().1.height.customary();
    let set = |word| {
        let mut case = with_bags("30", level - 0.7).case().clone();
        case.proof.otherwise = OtherwiseEntry { fitted: vec![word], ..OtherwiseEntry::default() };
        adjust(&Casework::new(case)).is_some()
    };
    assert!(!set(OtherwiseWord::Load) && !set(OtherwiseWord::NotRolled) && !set(OtherwiseWord::LeftOff));
    assert!(set(OtherwiseWord::Floor), "from hub to arch the floor is in no height");
}

/// Above a height that anything above is as good as, nothing is let down; below it, it is pressed up.
#[test]
fn what_may_stand_higher_is_not_let_down() {
    let at = |rear: f64| {
        let mut case = with_bags("30", rear).case().clone();
        let (height, tolerance) = (typed(20.0), typed(0.25));
        let (when, way) = (WhenEntry::State(LoadState::Loaded), WayWord::AtLeast);
        case.aim = Some(AimSheet::from(GoalEntry::Mark { mark: MarkEntry::Rear, when, way, height, tolerance }));
        Casework::new(case)
    };
    assert_eq!(adjust(&at(21.5)), None);
    assert!(adjust(&at(19.0)).unwrap().wanted > inches(0.5));
}

/// A rake goes by where the front stands after the work, and over a rating nothing is set to carry more.
#[test]
fn a_setting_goes_by_the_front_as_it_is_now_and_is_none_over_a_rating() {
    let level = with_bags("30", 20.0).target().unwrap().1.height.customary();
    let mut raised = with_bags("30", level).case().clone();
    for place in [Place::FrontLeft, Place::FrontRight] {
        raised.readings.push(reading(Phase::Fitted, LoadState::Loaded, place, 21.75));
    }
    let told = adjust(&Casework::new(raised)).unwrap();
    assert!((told.wanted.customary() - 1.25).abs() < 1e-6, "the front came up by 1 1/4: {told:?}");
    let mut over = with_bags("30", level - 1.5).case().clone();
    let weight = |value: f64| Typed { text: value.to_string(), unit: UnitWord::Lb, si: pounds(value).si() };
    (over.intake.kerb_front, over.intake.kerb_rear) = (Some(weight(2_900.0)), Some(weight(2_600.0)));
    over.intake.rear_rating = weight(3_000.0);
    let over = Casework::new(over);
    assert!(over.overload().is_some() && adjust(&over).is_none());
}

fn typed(value: f64) -> Typed {
    Typed { text: value.to_string(), unit: UnitWord::In, si: inches(value).si() }
}

/// What of the stories two states tell apart: load and rate look alike there, and so do the places of a misreading to whoever reads again.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
enum Group {
    Lift,
    LoadOrRate,
    Ground,
    Misread,
    Preload,
}

fn group(cause: MissCause) -> Group {
    match cause {
        MissCause::PartsLift => Group::Lift,
        MissCause::Rate | MissCause::Load => Group::LoadOrRate,
        MissCause::Ground => Group::Ground,
        MissCause::Misread(_) => Group::Misread,
        MissCause::Preload => Group::Preload,
    }
}

/// A made-up history: in each job one thing went wrong, by as much as it usually does, and the heights were read with the tape's own
/// doubt. Of what is said with so much confidence so much is so.
#[test]
fn odds_of_a_cause_are_met_as_often_as_they_say() {
    let mut dice = rand_pcg::Pcg64::seed_from_u64(20_261_129);
    let mut normal = move || {
        let (one, other): (f64, f64) = (dice.random::<f64>().max(1e-12), dice.random());
        (-2.0 * one.ln()).sqrt() * (std::f64::consts::TAU * other).cos()
    };
    // By how sure it was: the odds said, how often, and how often it was so.
    let mut told = [(0.0, 0.0, 0.0); 3];
    for job in 0..4_200 {
        // In 21 jobs as many of each as the stories are believed beforehand.
        let (truth, pattern) = match job % 21 {
            0..=5 => (Group::Lift, [0.5, 0.5, 0.0, 0.0]),
            6..=13 => (Group::LoadOrRate, [0.0, 0.6, 0.0, 0.0]),
            14..=15 => (Group::Ground, [0.35; 4]),
            16..=18 => {
                let mut pattern = [0.0; 4];
                pattern[job / 21 % 4] = 1.0;
                (Group::Misread, pattern)
            }
            _ => (Group::Preload, [0.3, 0.3, 0.0, 0.0]),
        };
        let strength = normal();
        // Nothing preloaded stands too low.
        let strength = if truth == Group::Preload { f64::abs(strength) } else { strength };
        let read = pattern.map(|of| of * strength + 0.1 * normal());
        let odds = likely_causes(&misses([read[0], read[1]], [read[2], read[3]]), false, &[]);
        let share = |of: Group| odds.iter().filter(|odds| group(odds.cause) == of).map(|odds| odds.share).sum::<f64>();
        let groups = [Group::Lift, Group::LoadOrRate, Group::Ground, Group::Misread, Group::Preload];
        let first = groups.into_iter().max_by(|one, other| share(*one).total_cmp(&share(*other))).unwrap();
        let sure = share(first);
        let of = &mut told[if sure > 0.8 { 2 } else { usize::from(sure > 0.5) }];
        *of = (of.0 + sure, of.1 + 1.0, of.2 + f64::from(u8::from(first == truth)));
    }
    for (said, count, so) in told {
        assert!(count > 100.0, "{told:?}");
        assert!((said / count - so / count).abs() < 0.08, "said {:.2}, so {:.2} of {count}", said / count, so / count);
    }
}
