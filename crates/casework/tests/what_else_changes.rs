//! What else changes with an option, by hand: hose, shock, stop, U-bolts and shaft.

#![allow(clippy::unwrap_used, clippy::indexing_slicing, reason = "a test fails where it stands")]

#[allow(dead_code, reason = "shared by several test files")]
mod support;

use support::half_ton;
use wise_badger_casework::consequence::{Consequence, OptionFitted, consequences};
use wise_badger_casework::look_over::{Addition, Area, Finding, Grade, LookOver, Measure, Measured};
use wise_badger_casework::prediction::Predictor;
use wise_badger_casework::survey::{Gaps, LoadState, SpringKind, Survey};
use wise_badger_mechanics::correction::{
    AddedLeaf, AntiRollBar, Axles, CoilSpacer, Correction, ExchangedBlock, ExchangedTaper, Given, HelperSpring, KindRow,
    LiftBlock, LongerShackle, MeasuredCoils, RearchedPack, Site, StrutSpacer, TaperedBlock,
};
use wise_badger_mechanics::side::Side;
use wise_badger_mechanics::tape::Datum;
use wise_badger_mechanics::units::{InShopUnits, Length, inches, pounds_per_inch};

fn measured(taken: &[(Measure, f64)]) -> LookOver {
    let finding = |(what, value): &(Measure, f64)| Finding {
        area: what.area(),
        grade: Grade::Fine,
        defects: Vec::new(),
        measured: vec![Measured { what: *what, value: inches(*value) }],
    };
    LookOver { findings: taken.iter().map(finding).collect(), ..LookOver::default() }
}

/// On the half-ton, without what the rake does to the caster, which is held by itself.
fn of(parts: &[Correction], look_over: &LookOver) -> Vec<Consequence> {
    let told = on(&half_ton(), parts, look_over).into_iter();
    told.filter(|one| !matches!(one, Consequence::Caster { .. })).collect()
}

fn on(survey: &Survey, parts: &[Correction], look_over: &LookOver) -> Vec<Consequence> {
    let prediction = Predictor::new(survey).predict(parts);
    consequences(&OptionFitted { survey, parts, prediction: Some(&prediction), benches: &[], look_over })
}

fn close(got: Length, inch: f64) {
    assert!((got.customary() - inch).abs() < 1e-6, "{} is not {inch}", got.customary());
}

fn block(inch: f64) -> Correction {
    Correction::at_the_rear(LiftBlock { thickness: inches(inch) })
}

#[test]
fn a_block_takes_its_height_from_hose_and_shock_and_opens_the_stop() {
    let taken = measured(&[
        (Measure::HoseSlack, 1.0),
        (Measure::ShockRod, 4.0),
        (Measure::UBoltLeg, 9.5),
        (Measure::ShaftLength, 50.0),
        (Measure::ShaftDrop, 5.0),
    ]);
    let told = of(&[block(2.0)], &taken);
    let [
        hose,
        shock,
        Consequence::StopOpens(opens),
        Consequence::UBoltLeg { measured, longer, new: None },
        Consequence::Shaft { before, after },
    ] = told[..]
    else {
        panic!("{told:?}")
    };
    close(hose.left().unwrap(), -1.0);
    assert_eq!(hose.asks_for(), Some(Addition::LongerHose));
    close(shock.left().unwrap(), 2.0);
    assert_eq!(shock.asks_for(), None, "two inches are enough");
    close(opens, 2.0);
    close(measured.unwrap() + longer, 11.5);
    // The span stays √(50² − 5²) under the slope before; two inches more drop over it.
    assert!((before.value.sin() - 5.0 / 50.0).abs() < 1e-9);
    let span = (50.0_f64.powi(2) - 7.0_f64.powi(2)).sqrt();
    assert!((after.value.tan() - 7.0 / span).abs() < 1e-9);
}

#[test]
fn what_raises_no_spring_hangs_the_axle_no_lower() {
    let taken = measured(&[(Measure::HoseSlack, 1.0), (Measure::ShockRod, 0.5)]);
    let hangs = |part: Correction| {
        let told = of(&[part], &taken);
        told.iter().find_map(|one| if let Consequence::HoseSlack { .. } = one { one.left() } else { None })
    };
    let helper = Correction::at_the_rear(HelperSpring { pair_rate: pounds_per_inch(300.0), engagement_gap: inches(-0.5) });
    assert_eq!(hangs(helper.clone()), None);
    // It stands higher all the same, which the shock feels.
    let told = of(&[helper], &taken);
    assert!(matches!(told[..], [Consequence::ShockRod { .. }, Consequence::AgainstLeaning { .. }]), "{told:?}");
    assert_eq!(told[0].asks_for(), Some(Addition::LongerShocks));
    close(hangs(Correction::at_the_rear(RearchedPack { free_height_gained: inches(1.5) })).unwrap(), -0.5);
    close(hangs(Correction::at_the_rear(AddedLeaf { pair_rate: pounds_per_inch(100.0), lift: inches(0.75) })).unwrap(), 0.25);
    let exchanged = |thickness| Correction::at_the_rear(ExchangedBlock { thickness: inches(thickness), replaces: inches(2.0) });
    close(hangs(exchanged(3.0)).unwrap(), 0.0);
    assert_eq!(hangs(exchanged(1.0)), None, "nobody said that the shortest hose is at that end");
    // Of parts at both ends the end that hangs lower counts; at one end they add up.
    let front = Correction::at_the_rear(RearchedPack { free_height_gained: inches(0.5) })
        .on(Site { axles: Axles::Front, ..Site::default() });
    let told = of(&[block(1.0), front], &taken);
    close(told[0].left().unwrap(), 0.0);
}

/// A coil's shock and stop stay where they are: the axle hangs no lower, nothing reaches round more, and the stop opens by what the
/// coil is set off.
#[test]
fn a_coil_spacer_opens_the_stop_and_takes_nothing_from_the_hose() {
    let taken = measured(&[(Measure::HoseSlack, 1.0), (Measure::ShockRod, 2.5), (Measure::UBoltLeg, 9.5)]);
    let spacer = |replaces| Correction::at_the_rear(CoilSpacer { thickness: inches(2.0), replaces: inches(replaces) });
    let told = of(&[spacer(0.5)], &taken);
    let [shock, Consequence::StopOpens(opens)] = told[..] else { panic!("{told:?}") };
    close(shock.left().unwrap(), 1.0);
    close(opens, 1.5);
    let told = of(&[spacer(0.0)], &taken);
    assert_eq!(told[0].asks_for(), Some(Addition::LongerShocks), "half an inch of rod is none to spare");
}

/// Lever arms along the pack: 2 in longer, 25 and 31 in, raises by 2 × 25/56 and turns the seat by atan(2/56), nose up.
#[test]
fn a_longer_shackle_turns_the_seat_and_hangs_the_axle_lower() {
    let shackle =
        LongerShackle { new_length: inches(6.5), old_length: inches(4.5), front_half: inches(25.0), rear_half: inches(31.0) };
    let taken = measured(&[(Measure::HoseSlack, 2.0), (Measure::UBoltLeg, 9.5)]);
    let told = of(&[Correction::at_the_rear(shackle)], &taken);
    let [hose, Consequence::StopOpens(opens), Consequence::SeatTurns(turned)] = told[..] else { panic!("{told:?}") };
    close(hose.left().unwrap(), 2.0 - 50.0 / 56.0);
    close(opens, 50.0 / 56.0);
    assert!((turned.value.tan() - 2.0 / 56.0).abs() < 1e-9, "{turned:?}");
    // One no longer than the other changes nothing.
    let same = LongerShackle { new_length: inches(4.5), ..shackle };
    assert!(of(&[Correction::at_the_rear(same)], &taken).is_empty());
}

/// A part a side is not two parts: what it opens and turns is told of the side where it is most.
#[test]
fn parts_on_either_side_do_not_add_up() {
    let shackle = |new: f64, side| {
        let shackle =
            LongerShackle { new_length: inches(new), old_length: inches(4.5), front_half: inches(28.0), rear_half: inches(28.0) };
        Correction::at_the_rear(shackle).on(Site { side: Some(side), ..Site::default() })
    };
    let taken = measured(&[(Measure::HoseSlack, 3.0)]);
    let told = of(&[shackle(6.5, Side::Left), shackle(5.5, Side::Right)], &taken);
    let [hose, Consequence::StopOpens(opens), Consequence::SeatTurns(turned)] = told[..] else { panic!("{told:?}") };
    close(hose.left().unwrap(), 2.0);
    close(opens, 1.0);
    assert!((turned.value.tan() - 2.0 / 56.0).abs() < 1e-9, "{turned:?}");
}

/// A block of 1.8 and 2.2 in, 5 3/4 in long: 2 in of lift, and the nose of the pinion up by atan(0.4/5.75).
#[test]
fn a_tapered_block_raises_as_its_middle_does_and_turns_the_pinion() {
    let tapered = |front: f64, rear: f64| {
        Correction::at_the_rear(TaperedBlock { front_end: inches(front), rear_end: inches(rear), length: inches(5.75) })
    };
    let told = of(&[tapered(1.8, 2.2)], &measured(&[(Measure::UBoltLeg, 9.5)]));
    let [Consequence::StopOpens(opens), Consequence::UBoltLeg { longer, .. }, Consequence::PinionTurned(up)] = told[..] else {
        panic!("{told:?}")
    };
    close(opens, 2.0);
    close(longer, 2.0);
    assert!((up.value.tan() - 0.4 / 5.75).abs() < 1e-9, "{up:?}");
    let Some(Consequence::PinionTurned(down)) = of(&[tapered(2.2, 1.8)], &LookOver::default()).pop() else { panic!() };
    assert!((down + up).abs().value < 1e-9, "the other way round, the other way");
    // A shim against what a longer shackle turns leaves nothing to shim.
    let shackle =
        LongerShackle { new_length: inches(6.5), old_length: inches(4.5), front_half: inches(28.0), rear_half: inches(28.0) };
    let against = 5.75 * 2.0 / 56.0;
    let told = of(&[Correction::at_the_rear(shackle), tapered(against, 0.0)], &LookOver::default());
    assert!(!told.iter().any(|one| matches!(one, Consequence::SeatTurns(_))), "{told:?}");
    assert!(matches!(told.last(), Some(Consequence::PinionTurned(_))));
}

/// A tapered block of 2.4 and 2.8 in for one of 1 in: 1.6 in of lift. For a straight one the pinion turns by all of its taper, for one that
/// was tapered alike by nothing.
#[test]
fn a_tapered_block_in_exchange_turns_the_pinion_by_what_the_tapers_differ() {
    let exchanged = |replaces_taper: f64| {
        let block = TaperedBlock { front_end: inches(2.4), rear_end: inches(2.8), length: inches(5.75) };
        Correction::at_the_rear(ExchangedTaper { block, replaces: inches(1.0), replaces_taper: inches(replaces_taper) })
    };
    let told = of(&[exchanged(0.0)], &measured(&[(Measure::UBoltLeg, 9.5)]));
    let [Consequence::StopOpens(opens), Consequence::UBoltLeg { longer, .. }, Consequence::PinionTurned(up)] = told[..] else {
        panic!("{told:?}")
    };
    close(opens, 1.6);
    close(longer, 1.6);
    assert!((up.value.tan() - 0.4 / 5.75).abs() < 1e-9, "{up:?}");
    let turns =
        |taper: f64| of(&[exchanged(taper)], &LookOver::default()).iter().any(|one| matches!(one, Consequence::PinionTurned(_)));
    assert!(!turns(0.4) && turns(-0.4), "what was turned so before is not turned again");
}

#[test]
fn nothing_is_told_of_what_was_not_measured_but_what_follows_by_itself() {
    let told = of(&[block(2.0)], &LookOver::default());
    assert!(matches!(told[..], [Consequence::StopOpens(_), Consequence::UBoltLeg { measured: None, .. }]), "{told:?}");
    assert!(told.iter().all(|one| one.asks_for().is_none()));
    assert_eq!(Measure::ShockRod.area(), Area::Shocks);
}

/// A part beside the springs, by its kind's word and its figures in inches.
fn beside(word: &str, figures: &[(&'static str, f64)], axles: Axles) -> Correction {
    let given = figures.iter().fold(Given::default(), |given, (name, inch)| given.with_length(name, inches(*inch)));
    let part = KindRow::of(word).unwrap().correction(&given, Site { axles, side: None }).unwrap();
    assert_eq!(part.problems(), [], "{word}");
    part
}

fn shocks(open: f64, closed: f64, nearer: f64, axles: Axles) -> Correction {
    let figures =
        [("new_open", open), ("old_open", 24.0), ("new_closed", closed), ("old_closed", 15.0), ("mounts_nearer", nearer)];
    beside("shocks", &figures, axles)
}

/// The half-ton on coils in front, so that a strut may be raised there.
fn on_front_coils() -> Survey {
    let mut survey = half_ton();
    survey.vehicle.springs.front = Some(SpringKind::Coil);
    survey
}

fn in_front(part: Correction) -> Correction {
    part.on(Site { axles: Axles::Front, side: None })
}

/// 2 in of block: a hose 1 in slack comes 1 in short, and 3 in more of hose leave 2; shocks that draw out 3 in further let the axle hang
/// that much lower where the old ones ended its droop, which takes more of the hose than the block does.
#[test]
fn what_goes_with_a_lift_makes_good_what_it_uses_up() {
    let taken = measured(&[(Measure::HoseSlack, 1.0), (Measure::ShockRod, 1.5), (Measure::UBoltLeg, 9.5)]);
    let hoses = beside("brake_hoses", &[("longer", 3.0)], Axles::Rear);
    let left =
        |told: &[Consequence], which: fn(&Consequence) -> bool| told.iter().find(|one| which(one)).unwrap().left().unwrap();
    let hose: fn(&Consequence) -> bool = |one| matches!(one, Consequence::HoseSlack { .. });
    let rod: fn(&Consequence) -> bool = |one| matches!(one, Consequence::ShockRod { .. });
    let legs: fn(&Consequence) -> bool = |one| matches!(one, Consequence::UBoltLeg { .. });
    let bare = of(&[block(2.0)], &taken);
    let short: Vec<_> = bare.iter().filter_map(Consequence::too_short).collect();
    assert_eq!(short, [Addition::LongerHose, Addition::LongerShocks]);
    let mended = of(&[block(2.0), hoses.clone(), shocks(27.0, 15.0, 0.0, Axles::Rear)], &taken);
    close(left(&mended, hose), 1.0 - 3.0 + 3.0);
    close(left(&mended, rod), 1.5 - 2.0 + 3.0);
    assert!(mended.iter().all(|one| one.too_short().is_none()), "{mended:?}");
    // A mount on the axle brought up by the block's height gives the rod back what the block takes of it.
    let moved = of(&[block(2.0), hoses, shocks(24.0, 15.0, 2.0, Axles::Rear)], &taken);
    close(left(&moved, rod), 1.5);
    let new = |leg: f64| of(&[block(2.0), beside("u_bolts", &[("leg", leg)], Axles::Rear)], &taken);
    close(left(&new(12.0), legs), 0.5);
    assert_eq!(new(11.0).iter().find(|one| legs(one)).unwrap().too_short(), Some(Addition::NewUBolts));
}

/// A shock must not end the travel before the stop does: 6 in of shock and a stop 4 in away leave 2; the block opens both alike; a shock
/// that closes 3 in less ends the travel an inch early.
#[test]
fn a_shock_that_ends_the_travel_before_the_stop_is_told() {
    let mut survey = half_ton();
    survey.stop_gap.empty = Gaps::at_the_rear(inches(4.0));
    let taken = measured(&[(Measure::ShockCloses, 6.0)]);
    let told = |parts: &[Correction]| {
        let told = on(&survey, parts, &taken);
        told.into_iter().find(|one| matches!(one, Consequence::ShockCloses { .. })).unwrap()
    };
    close(told(&[block(2.0)]).left().unwrap(), 2.0);
    let longer = told(&[block(2.0), shocks(27.0, 18.0, 0.0, Axles::Rear)]);
    close(longer.left().unwrap(), -1.0);
    assert_eq!(longer.too_short(), Some(Addition::ShorterShocks));
    // One that did so before is to be put right, and rules out nothing that makes it no worse.
    let taken = measured(&[(Measure::ShockCloses, 3.0)]);
    let told = on(&survey, &[block(2.0)], &taken);
    let before = told.iter().find(|one| matches!(one, Consequence::ShockCloses { .. })).unwrap();
    close(before.left().unwrap(), -1.0);
    assert_eq!((before.asks_for(), before.too_short()), (Some(Addition::ShorterShocks), None));
}

/// Common practice: 1 1/2 in of strut spacer is 3 in at the wheel. The half-shaft of 24 in, 2 in down, then goes 5 in down; the
/// differential an inch lower leaves 4. The strut's own droop limit comes down with it, and its shock draws out no further.
#[test]
fn a_strut_spacer_steepens_the_half_shafts_and_a_lowered_differential_gives_some_of_it_back() {
    let spacer = in_front(Correction::at_the_rear(StrutSpacer {
        thickness: inches(1.5),
        pivot_to_strut: inches(8.0),
        pivot_to_wheel: inches(16.0),
    }));
    let taken = measured(&[
        (Measure::HalfShaftLength, 24.0),
        (Measure::HalfShaftDrop, 2.0),
        (Measure::FrontShockRod, 3.0),
        (Measure::RadiusArmLength, 40.0),
    ]);
    let told = on(&on_front_coils(), std::slice::from_ref(&spacer), &taken);
    let slope = |told: &[Consequence]| {
        told.iter()
            .find_map(|one| if let Consequence::HalfShaft { before, after } = one { Some((*before, *after)) } else { None })
    };
    let (before, after) = slope(&told).unwrap();
    assert!((before.value.sin() - 2.0 / 24.0).abs() < 1e-9);
    assert!((after.value.sin() - 5.0 / 24.0).abs() < 1e-6);
    assert!(told.contains(&Consequence::FrontHangsLower(inches(3.0))), "{told:?}");
    assert!(!told.iter().any(|one| matches!(one, Consequence::ShockRod { .. })), "the strut goes up whole");
    let caster = told.iter().find_map(|one| match one {
        Consequence::Caster { by_rake, by_arms } => Some((*by_rake, *by_arms)),
        _ => None,
    });
    let (by_rake, by_arms) = caster.unwrap();
    let wheelbase = on_front_coils().vehicle.wheelbase.customary();
    assert!((by_rake.value.tan() - 3.0 / wheelbase).abs() < 1e-4, "the front up leans the axis back: {by_rake:?}");
    assert!((by_arms.value.sin() + 3.0 / 40.0).abs() < 1e-4, "the arms turn the axle the other way: {by_arms:?}");
    let lowered = beside("differential_drop", &[("dropped", 1.0)], Axles::Front);
    let arms = beside("radius_arm_drop", &[("dropped", 3.0)], Axles::Front);
    let told = on(&on_front_coils(), &[spacer, lowered, arms], &taken);
    assert!((slope(&told).unwrap().1.value.sin() - 4.0 / 24.0).abs() < 1e-6);
    let by_arms = told.iter().find_map(|one| if let Consequence::Caster { by_arms, .. } = one { Some(*by_arms) } else { None });
    assert!(by_arms.unwrap().value.abs() < 1e-4, "the brackets bring the arms back as they lay");
}

/// Pythagoras: a bar of 32 in that drops by 4 in holds its ends 31.749 in apart, by 6 in 31.432; a bracket of 2 in brings that back.
#[test]
fn a_track_bar_carries_the_axle_sideways_until_its_end_is_brought_down() {
    let taken = measured(&[(Measure::RearTrackBarLength, 32.0), (Measure::RearTrackBarDrop, 4.0)]);
    let bar = |dropped: f64, longer: f64| beside("track_bar", &[("dropped", dropped), ("longer", longer)], Axles::Rear);
    let shift = |parts: &[Correction]| {
        of(parts, &taken).into_iter().find_map(|one| match one {
            Consequence::TrackBar { by_the_lift, shift, .. } => Some((by_the_lift.customary(), shift.customary())),
            _ => None,
        })
    };
    let span = |length: f64, drop: f64| (length * length - drop * drop).sqrt();
    let by_the_lift = span(32.0, 6.0) - span(32.0, 4.0);
    let (lift, bare) = shift(&[block(2.0)]).unwrap();
    assert!((lift - by_the_lift).abs() < 1e-6 && (bare - by_the_lift).abs() < 1e-6, "{lift} {bare}");
    let (lift, dropped) = shift(&[block(2.0), bar(2.0, 0.0)]).unwrap();
    assert!((lift - by_the_lift).abs() < 1e-6 && dropped.abs() < 1e-6, "{lift} {dropped}");
    let (_, longer) = shift(&[block(2.0), bar(0.0, 0.25)]).unwrap();
    assert!((longer - (span(32.25, 6.0) - span(32.0, 4.0))).abs() < 1e-6, "{longer}");
}

#[test]
fn longer_links_give_a_bar_back_what_the_lift_turned_it_by() {
    let links = |inch: f64| beside("bar_links", &[("longer", inch)], Axles::Rear);
    let short = |parts: &[Correction]| {
        of(parts, &LookOver::default()).into_iter().find_map(|one| match one {
            Consequence::BarLinks { short, .. } => Some(short.customary()),
            _ => None,
        })
    };
    assert!((short(&[block(2.0), links(1.5)]).unwrap() - 0.5).abs() < 1e-6);
    assert_eq!(short(&[block(2.0)]), None, "nobody says that there is a bar");
}

/// Empty the coil stands at 11 in, its stop 4 in away: solid at 8 in it binds an inch before the stop. Free at 14 in it is loose past 3 in
/// of droop, and shocks that draw out an inch further make that worse.
#[test]
fn a_coil_that_binds_before_the_stop_or_hangs_loose_at_droop_is_told() {
    let mut survey = half_ton();
    survey.vehicle.springs.rear = Some(SpringKind::Coil);
    survey.stop_gap.empty = Gaps::at_the_rear(inches(4.0));
    let coil = |solid: f64| {
        let rate = pounds_per_inch(300.0);
        Correction::at_the_rear(MeasuredCoils {
            new_height: inches(14.0),
            old_height: inches(13.0),
            standing_height: inches(11.0),
            solid_height: inches(solid),
            new_rate: rate,
            old_rate: rate,
        })
    };
    let taken = measured(&[(Measure::ShockRod, 3.5)]);
    let told = on(&survey, &[coil(8.0)], &taken);
    let by =
        |told: &[Consequence], which: fn(&Consequence) -> Option<Length>| told.iter().find_map(which).map(|by| by.customary());
    let binds: fn(&Consequence) -> Option<Length> =
        |one| if let Consequence::CoilBindsFirst { by, .. } = one { Some(*by) } else { None };
    let loose: fn(&Consequence) -> Option<Length> =
        |one| if let Consequence::CoilLoose { by, .. } = one { Some(*by) } else { None };
    assert!((by(&told, binds).unwrap() - 1.0).abs() < 1e-9 && (by(&told, loose).unwrap() - 0.5).abs() < 1e-9, "{told:?}");
    let told = on(&survey, &[coil(6.0), shocks(25.0, 15.0, 0.0, Axles::Rear)], &taken);
    assert_eq!(by(&told, binds), None);
    assert!((by(&told, loose).unwrap() - 1.5).abs() < 1e-9, "{told:?}");
}

/// The one-ton's overload leaf has a 2 in gap: 1 3/4 in of rubber takes it off its pad by as much, a block takes the pack along with it
/// and leaves it where it is, and helpers of as much as the springs stiffen the rear by their own share.
#[test]
fn what_carries_beside_the_pack_takes_the_overload_leaf_off_its_pad() {
    let mut survey = half_ton();
    survey.overload_leaves.pad_gap = Some(inches(2.0));
    survey.overload_leaves.bears.loaded = Some(true);
    let of_loaded = |parts: &[Correction]| {
        on(&survey, parts, &LookOver::default()).into_iter().find_map(|one| match one {
            Consequence::OverloadLeaf { state: LoadState::Loaded, before, after } => {
                Some((before.customary(), after.customary()))
            }
            _ => None,
        })
    };
    let helper = Correction::at_the_rear(HelperSpring { pair_rate: pounds_per_inch(200.0), engagement_gap: inches(0.0) });
    let (before, after) = of_loaded(std::slice::from_ref(&helper)).unwrap();
    let prediction = Predictor::new(&survey).predict(&helper);
    let loaded = prediction.loaded.unwrap();
    assert!(before < 0.0, "it was seen to bear: {before}");
    assert!((after - before - loaded.rise.value.customary()).abs() < 1e-9, "{before} {after}");
    assert_eq!(of_loaded(&[block(2.0)]), None, "a block changes nothing of that");
    let share = on(&survey, std::slice::from_ref(&helper), &LookOver::default()).into_iter().find_map(|one| match one {
        Consequence::AgainstLeaning { share, .. } => Some(share),
        _ => None,
    });
    let rates = loaded.bounce_after.unwrap().rate / loaded.bounce_before.unwrap().rate;
    assert!((share.unwrap() - (rates.value - 1.0)).abs() < 1e-9 && share.unwrap() > 0.1, "{share:?}");
    // A bar of 100 lb/in at ends 42 in apart is four times what springs of as much rate together give.
    let bar = Correction::at_the_rear(AntiRollBar { end_rate: pounds_per_inch(100.0), base: inches(42.0) });
    let rate = loaded.bounce_before.unwrap().rate.customary();
    let told = on(&survey, &[bar], &LookOver::default());
    let share = told.iter().find_map(|one| if let Consequence::AgainstLeaning { share, .. } = one { Some(*share) } else { None });
    assert!((share.unwrap() - 400.0 / rate).abs() < 1e-6, "{told:?}");
}

/// Springs by half softer that stand as high empty reach their stop with less on them: what is left at the axle's rating is what is left
/// loaded, less what the rest of the rating brings them down by.
#[test]
fn softer_springs_are_nearer_their_stop_at_the_rating() {
    let mut survey = half_ton();
    survey.vehicle.springs.rear = Some(SpringKind::Coil);
    survey.stop_gap.empty = Gaps::at_the_rear(inches(5.0));
    let figures = [("lift", 0.0), ("old_lift", 0.0), ("set", 0.0)];
    let given = figures.iter().fold(Given::default(), |given, (name, inch)| given.with_length(name, inches(*inch)));
    let softer =
        KindRow::of("new_coils").unwrap().correction(&given.with_rate("added_rate", pounds_per_inch(-60.0)), Site::default());
    let softer = softer.unwrap();
    let told = on(&survey, std::slice::from_ref(&softer), &LookOver::default());
    let left = told.iter().find_map(|one| match one {
        Consequence::AtItsRating { before, after } => Some((before.customary(), after.customary())),
        _ => None,
    });
    let (before, after) = left.unwrap();
    let loaded = Predictor::new(&survey).predict(&softer).loaded.unwrap();
    let bounce = loaded.bounce_after.unwrap();
    let rest = (2.0 * survey.vehicle.on_one_spring(survey.vehicle.axle_ratings.rear) - bounce.sprung) / bounce.rate;
    assert!((after - (loaded.travel_left.unwrap() - rest).customary()).abs() < 1e-9, "{after}");
    assert!(after < before - 0.5, "{before} {after}");
}

/// Larger tires raise axle and frame alike: read from the ground the rear stands an inch higher, and no shock, shaft or leaf feels it.
#[test]
fn larger_tires_take_nothing_from_shock_shaft_and_leaf() {
    let mut survey = half_ton();
    survey.datum = Datum::GroundToArch;
    survey.overload_leaves.pad_gap = Some(inches(2.0));
    survey.overload_leaves.bears.loaded = Some(true);
    let taken = measured(&[(Measure::ShockRod, 0.5), (Measure::ShaftLength, 50.0), (Measure::ShaftDrop, 5.0)]);
    let tires = beside("tires", &[("diameter", 33.0), ("old_diameter", 31.0)], Axles::Rear);
    let rise = Predictor::new(&survey).predict(&tires).empty.unwrap().rise.value;
    assert!((rise.customary() - 1.0).abs() < 0.05, "{rise:?}");
    let told = on(&survey, &[tires], &taken);
    assert!(told.iter().all(|one| matches!(one, Consequence::Caster { .. })), "{told:?}");
}

/// A spacer at the coil's seat takes its height from the coil's room: an inch of it, and the coil binds an inch sooner.
#[test]
fn a_spacer_at_its_seat_binds_a_coil_sooner_and_a_longer_stop_keeps_it_from_that() {
    let mut survey = half_ton();
    survey.vehicle.springs.rear = Some(SpringKind::Coil);
    survey.stop_gap.empty = Gaps::at_the_rear(inches(4.0));
    let rate = pounds_per_inch(300.0);
    let coil = Correction::at_the_rear(MeasuredCoils {
        new_height: inches(13.0),
        old_height: inches(13.0),
        standing_height: inches(11.0),
        solid_height: inches(6.5),
        new_rate: rate,
        old_rate: rate,
    });
    let spacer = Correction::at_the_rear(CoilSpacer { thickness: inches(1.0), replaces: inches(0.0) });
    let stop = beside("stop_extension", &[("height", 1.0)], Axles::Rear);
    let binds = |parts: &[Correction]| {
        on(&survey, parts, &LookOver::default()).into_iter().find_map(|one| match one {
            Consequence::CoilBindsFirst { by, .. } => Some(by.customary()),
            _ => None,
        })
    };
    assert_eq!(binds(std::slice::from_ref(&coil)), None, "half an inch to spare");
    assert!((binds(&[coil.clone(), spacer.clone()]).unwrap() - 0.5).abs() < 1e-9);
    assert_eq!(binds(&[coil, spacer, stop]), None);
}
