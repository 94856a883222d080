//! Wrench cards: the order that holds on every one of them, and what is made of ticks.

#![allow(clippy::unwrap_used, clippy::indexing_slicing, clippy::panic, reason = "a test fails where it stands")]

#[path = "support/finder_job.rs"]
mod finder_job;
#[path = "support/in_short.rs"]
mod in_short;
#[path = "support/shelf_part.rs"]
mod shelf_part;

use proptest::prelude::*;
use proptest::sample::subsequence;
use wise_badger_casework::entry::{Answer, TickEntry};
use wise_badger_casework::entry::{Typed, UnitWord};
use wise_badger_casework::look_over::Addition;
use wise_badger_casework::survey::End;
use wise_badger_casework::wrench::work::{OF_KINDS, OF_REPAIRS};
use wise_badger_casework::wrench::{
    Asks, Card, Consumable, Effect, Fastener, Lifting, Needed, OPERATIONS, Operation, Ordered, Phase, Place, Setting, Standing,
    Step, StepStands, What, carry_over, on_the_worse_stand, tips_back,
};
use wise_badger_mechanics::correction::{Axles, Ends, KINDS, KindRow, Site};
use wise_badger_mechanics::side::Side;
use wise_badger_mechanics::units::{InShopUnits, inches};

const PICKUP: Setting = Setting { lifting: Lifting::Floor, trailer: false, front_driven: true };

fn at(axles: Axles, side: Option<Side>) -> Site {
    Site { axles, side }
}

fn card(parts: &[(&'static KindRow, Site)], repairs: &[Addition], setting: Setting) -> Card {
    let rear_axles = if setting.trailer { 2 } else { 1 };
    Card::of(&Ordered { parts, repairs, rear_axles, setting, first: Side::Left })
}

fn of_kind(word: &str, setting: Setting) -> Card {
    let row = KindRow::of(word).unwrap();
    let front = matches!(row.ends, Ends::Front);
    card(&[(row, at(if front { Axles::Front } else { Axles::Rear }, None))], &[], setting)
}

fn place(card: &Card, word: &str) -> Option<usize> {
    card.steps.iter().position(|step| step.operation.word == word)
}

/// Whether a step at one place counts for another: at the same, or at all of its end, or once for the whole job.
fn covers(place: &Place, other: &Place) -> bool {
    (place.end.is_none() || place.end == other.end)
        && (place.axle.is_none() || place.axle == other.axle)
        && (place.side.is_none() || place.side == other.side)
}

fn before(card: &Card, at: usize, words: &[&str]) -> bool {
    card.steps[..at].iter().any(|step| words.contains(&step.operation.word) && covers(&step.place, &card.steps[at].place))
}

/// Everything that holds of every card, whatever is fitted.
fn keeps_the_order(card: &Card) {
    let mut keys: Vec<String> = card.steps.iter().map(Step::key).collect();
    keys.sort_unstable();
    assert!(keys.windows(2).all(|pair| pair[0] != pair[1]), "a step stands on it twice");
    for (at, step) in card.steps.iter().enumerate() {
        let (word, here) = (step.operation.word, &step.place);
        for effect in step.operation.effects {
            let after = |wanted: &dyn Fn(&Effect) -> bool| {
                let there = |later: &&Step| covers(&later.place, here) && later.operation.effects.iter().any(wanted);
                card.steps[at + 1..].iter().find(there).map(|later| later.operation.word)
            };
            match effect {
                Effect::Loosens(of) | Effect::Snug(of) => {
                    assert!(after(&|effect| *effect == Effect::Final(*of)).is_some(), "{word} leaves {of:?} loose at {here:?}");
                }
                Effect::Opens(of) => {
                    assert!(after(&|effect| *effect == Effect::Closes(*of)).is_some(), "{word} leaves {of:?} open at {here:?}");
                }
                Effect::Final(of) if of.waits_for_the_weight() => {
                    let down = before(card, at, &["lowered"]);
                    assert!(down || !card.steps.iter().any(|step| step.operation.word == "lowered"), "{word} in the air");
                }
                Effect::Final(_) | Effect::Closes(_) => {}
            }
        }
        if step.operation.effects.iter().any(|effect| matches!(effect, Effect::Loosens(_) | Effect::Opens(_))) {
            assert!(before(card, at, &["chocked"]), "{word} before it is chocked");
            let held = before(card, at, &["stands_set", "pads_checked"]);
            assert!(held || word == "wheels_off" && before(card, at, &["raised"]), "{word} before it stands");
        }
        for (later, first) in [
            ("u_bolts_off", "axle_carried"),
            ("shackle_off", "axle_carried"),
            ("eye_off", "axle_carried"),
            ("coil_out", "axle_carried"),
            ("coil_out", "coils_chained"),
            ("axle_down", "hoses_slack"),
            ("center_bolt_out", "pack_clamped"),
            ("center_bolt_in", "drawn_by_clamps"),
            ("u_bolts_on", "pin_seated"),
            ("differential_off", "differential_held"),
            ("driven", "nothing_loose"),
            ("u_bolts_again", "driven"),
            ("lug_nuts_again", "driven"),
        ] {
            // A card may do without the hold where nothing of it is at stake.
            let there = card.steps.iter().any(|step| step.operation.word == first);
            assert!(word != later || !there || before(card, at, &[first]), "{later} before {first}");
        }
    }
    let phases: Vec<Phase> = card.steps.iter().map(|step| step.operation.phase).collect();
    let last_down = card.steps.iter().rposition(|step| step.operation.word == "lowered");
    let first_on_wheels = phases.iter().position(|phase| *phase >= Phase::OnWheels);
    assert!(last_down.zip(first_on_wheels).is_none_or(|(down, on)| down < on), "all ends are down before the weight counts");
}

fn settings() -> Vec<Setting> {
    let each = |lifting| {
        [(false, false), (false, true), (true, false)].map(|(trailer, front_driven)| Setting { lifting, trailer, front_driven })
    };
    [Lifting::Floor, Lifting::Lift].into_iter().flat_map(each).collect()
}

#[test]
fn every_kind_of_part_has_a_card_and_every_step_of_it_is_known() {
    for row in KINDS {
        assert!(OF_KINDS.iter().any(|(word, _)| *word == row.word), "no card for {}", row.word);
    }
    assert_eq!(OF_KINDS.len(), KINDS.len(), "a card for what is no kind");
    let words: Vec<&str> = OF_KINDS
        .iter()
        .map(|(_, work)| work)
        .chain(OF_REPAIRS.iter().map(|(_, work)| work))
        .flat_map(|work| work.steps.iter().copied().flatten().copied())
        .collect();
    for word in &words {
        assert!(Operation::of(word).is_some(), "no step {word}");
    }
    for operation in OPERATIONS {
        assert!(words.contains(&operation.word), "nothing asks for {}", operation.word);
    }
    let phases: Vec<Phase> = OPERATIONS.iter().map(|operation| operation.phase).collect();
    assert!(phases.is_sorted(), "the table is in the order of the work");
}

#[test]
fn every_card_of_one_part_keeps_the_order_on_the_floor_and_on_a_lift_both_sides_and_one() {
    for row in KINDS {
        for setting in settings() {
            for axles in [Axles::Rear, Axles::Front, Axles::OneOfRear(2)] {
                for side in [None, Some(Side::Left), Some(Side::Right)] {
                    let card = card(&[(row, at(axles, side))], &[], setting);
                    assert!(card.unknown.is_empty() && card.steps.len() > 4, "{}", row.word);
                    keeps_the_order(&card);
                    let corners = card.steps.iter().filter_map(|step| step.place.side);
                    assert!(side.is_none_or(|only| corners.clone().all(|of| of == only)), "{} on one side", row.word);
                }
            }
        }
    }
    for (repair, _) in OF_REPAIRS {
        settings().into_iter().for_each(|setting| keeps_the_order(&card(&[], &[*repair], setting)));
    }
}

/// Leaf springs come down one side at a time, since the other holds the axle; coils of a solid axle come down level.
#[test]
fn leaves_are_done_side_by_side_and_coils_together() {
    let sides = |card: &Card| -> Vec<Side> {
        let between = |step: &&Step| matches!(step.operation.phase, Phase::Apart | Phase::Together);
        card.steps.iter().filter(between).filter_map(|step| step.place.side).collect()
    };
    let turns = |sides: &[Side]| sides.windows(2).filter(|pair| pair[0] != pair[1]).count();
    assert_eq!(turns(&sides(&of_kind("lift_block", PICKUP))), 1);
    assert_eq!(turns(&sides(&of_kind("rearched_pack", PICKUP))), 1);
    assert!(turns(&sides(&of_kind("new_coils", PICKUP))) > 5);
    let right = Card::of(&Ordered {
        parts: &[(KindRow::of("lift_block").unwrap(), at(Axles::Rear, None))],
        repairs: &[],
        rear_axles: 1,
        setting: PICKUP,
        first: Side::Right,
    });
    assert_eq!(sides(&right)[0], Side::Right, "the harder side is begun with");
}

/// A ten-minute rubber is a short card; a pack that comes out is a long one (common practice).
#[test]
fn a_card_is_as_long_as_the_job() {
    let count = |word: &str| of_kind(word, PICKUP).steps.len();
    assert!(count("load_rubber") < 24, "{}", count("load_rubber"));
    assert!(count("rearched_pack") > 2 * count("load_rubber"));
    let words: Vec<&str> = of_kind("load_rubber", PICKUP).steps.iter().map(|step| step.operation.word).collect();
    assert!(!words.contains(&"u_bolts_off") && !words.contains(&"wheels_off"));
    for word in ["chocked", "stands_set", "seat_clean", "rubber_in", "stop_held", "clearance_read", "nothing_loose"] {
        assert!(words.contains(&word), "a rubber without {word}");
    }
}

/// A trailer has each of its axles on the card, its coupler held, and no brake pedal; what is driven in front has its half-shafts looked at.
#[test]
fn a_card_goes_by_the_vehicle() {
    let trailer = Setting { trailer: true, front_driven: false, ..PICKUP };
    let block = of_kind("lift_block", trailer);
    let axles: Vec<u8> = block.steps.iter().filter_map(|step| step.place.axle).collect();
    assert!(axles.contains(&1) && axles.contains(&2));
    assert!(place(&block, "coupler_held").is_some() && place(&block, "leveling_off").is_none());
    let strut = |driven| of_kind("strut_spacer", Setting { front_driven: driven, ..PICKUP });
    assert!(place(&strut(true), "axle_nut_new").is_some() && place(&strut(false), "axle_nut_new").is_none());
    let lift = of_kind("lift_block", Setting { lifting: Lifting::Lift, ..PICKUP });
    assert!(place(&lift, "pads_checked").is_some() && place(&lift, "stands_set").is_none());
}

fn torque(target: f64, read: f64) -> Answer {
    let typed = |value: f64| Typed { text: value.to_string(), unit: UnitWord::LbFt, si: value * 1.355_817_948_331_4 };
    Answer::Torque { target: typed(target), read: typed(read), wrench: "half-inch click".to_owned() }
}

fn good(step: &Step) -> TickEntry {
    let answer = match step.operation.asks {
        Asks::Hold => Answer::Yes,
        Asks::Torque(_) => torque(100.0, 101.0),
        Asks::Done | Asks::Picture => Answer::Done,
    };
    TickEntry { step: step.key(), answer, note: String::new() }
}

#[test]
fn a_card_done_in_its_order_is_done_and_nothing_is_loose_at_its_hold() {
    for row in KINDS {
        let card = of_kind(row.word, PICKUP);
        let ticks: Vec<TickEntry> = card.steps.iter().map(good).collect();
        for done in 0..ticks.len() {
            let standing = Standing::of(&card, &[], &ticks[..done]);
            assert_eq!(standing.next(), Some(done), "{}: {}", row.word, card.steps[done].key());
            if card.steps[done].operation.word == "nothing_loose" {
                assert!(standing.loose.is_empty(), "{}: {:?}", row.word, standing.loose);
            }
        }
        assert!(Standing::of(&card, &[], &ticks).is_done(), "{}", row.word);
    }
}

/// No figure, no release: a torque that is not told, or far off its figure, leaves the fastener loose and the drive waiting.
#[test]
fn what_was_not_torqued_holds_up_the_drive() {
    let card = of_kind("lift_block", PICKUP);
    let tight = place(&card, "u_bolts_tight").unwrap();
    let hold = place(&card, "nothing_loose").unwrap();
    for bad in [None, Some(Answer::Done), Some(torque(100.0, 80.0))] {
        let mut ticks: Vec<TickEntry> = card.steps.iter().take(hold + 1).map(good).collect();
        match bad {
            None => drop(ticks.remove(tight)),
            Some(answer) => ticks[tight].answer = answer,
        }
        let standing = Standing::of(&card, &[], &ticks);
        assert!(matches!(standing.loose[..], [_]), "{:?}", standing.loose);
        assert_eq!(standing.steps[hold], StepStands::Stopped);
        assert_eq!(standing.steps[place(&card, "driven").unwrap()], StepStands::Waits);
    }
}

#[test]
fn a_hold_answered_with_no_keeps_its_end_waiting_until_it_is_taken_back() {
    let card = of_kind("new_coils", PICKUP);
    let chocked = place(&card, "chocked").unwrap();
    let mut ticks: Vec<TickEntry> = card.steps.iter().take(chocked).map(good).collect();
    let tick = |answer| TickEntry { step: card.steps[chocked].key(), answer, note: String::new() };
    ticks.push(tick(Answer::No));
    let standing = Standing::of(&card, &[], &ticks);
    assert_eq!((standing.steps[chocked], standing.next()), (StepStands::Stopped, Some(chocked)));
    assert!(standing.steps[chocked + 1..].iter().all(|stands| *stands == StepStands::Waits));
    ticks.push(tick(Answer::TakenBack));
    assert_eq!(Standing::of(&card, &[], &ticks).steps[chocked], StepStands::Open);
    ticks.push(tick(Answer::Yes));
    assert_eq!(Standing::of(&card, &[], &ticks).next(), Some(chocked + 1));
}

/// Work found on the way has the customer's yes or no before it goes on: wherever a card has come to, nothing comes apart or goes together
/// meanwhile, what was done stays done, what comes before is done, and once all is together it comes down and is made tight.
#[test]
fn a_card_waits_for_the_customer_from_where_the_work_is() {
    for row in KINDS {
        let card = of_kind(row.word, PICKUP);
        let ticks: Vec<TickEntry> = card.steps.iter().map(good).collect();
        let is_work = |place: usize| (Phase::Apart..=Phase::Together).contains(&card.steps[place].operation.phase);
        for done in 0..ticks.len() {
            let free = Standing::of(&card, &[], &ticks[..done]);
            let held = free.clone().until_the_customer_answers(&card);
            let from = (done..card.steps.len()).find(|place| is_work(*place));
            assert_eq!(held.customer, from, "{} after {done}", row.word);
            for (place, (free, held)) in free.steps.iter().zip(&held.steps).enumerate() {
                let waits = from.is_some_and(|from| place >= from);
                assert_eq!(*held, if waits { StepStands::Waits } else { *free }, "{}: {}", row.word, card.steps[place].key());
            }
            assert_eq!(held.next(), (from != Some(done)).then_some(done), "{} after {done}", row.word);
        }
    }
}

proptest! {
    /// Whatever is fitted together with whatever repairs, at both ends and on any side, the order holds.
    #[test]
    fn every_card_of_several_parts_keeps_the_order(
        words in subsequence(OF_KINDS.iter().map(|(word, _)| *word).collect::<Vec<_>>(), 1..5),
        front in 0_u8..16,
        one_side in 0_u8..16,
        repairs in subsequence(OF_REPAIRS.iter().map(|(repair, _)| *repair).collect::<Vec<_>>(), 0..4),
        setting in 0_usize..6,
    ) {
        let setting = settings()[setting];
        let site = |place: usize| {
            let axles = if front & (1 << place) == 0 || setting.trailer { Axles::Rear } else { Axles::Front };
            at(axles, (one_side & (1 << place) != 0).then_some(Side::Left))
        };
        let parts: Vec<_> = words.iter().enumerate().map(|(place, word)| (KindRow::of(word).unwrap(), site(place))).collect();
        let card = card(&parts, &repairs, setting);
        keeps_the_order(&card);
        let ticks: Vec<TickEntry> = card.steps.iter().map(good).collect();
        prop_assert!(Standing::of(&card, &[], &ticks).is_done());
    }

    /// Two people tick one card: in whichever order the ticks of different steps come in, it stands the same; and a tick that comes twice
    /// is one.
    #[test]
    fn ticks_of_different_steps_may_come_in_any_order(order in Just((0..40_usize).collect::<Vec<_>>()).prop_shuffle(), twice in 0_usize..40) {
        let card = of_kind("rearched_pack", PICKUP);
        let ticks: Vec<TickEntry> = card.steps.iter().map(good).take(40).collect();
        let mut shuffled: Vec<TickEntry> = order.iter().map(|place| ticks[*place].clone()).collect();
        shuffled.push(ticks[twice].clone());
        let (one, other) = (Standing::of(&card, &[], &ticks), Standing::of(&card, &[], &shuffled));
        prop_assert_eq!(one.steps, other.steps);
        prop_assert_eq!(one.loose.len(), other.loose.len());
    }
}

/// Nothing comes apart until every part is here and held against the vehicle; the lead may say why it is begun all the same.
#[test]
fn nothing_comes_apart_until_every_part_is_here_or_the_lead_says_why() {
    let card = of_kind("lift_block", PICKUP);
    let needed = ["part.option.0", "part.used.u_bolts"].map(|key| Needed { key: key.to_owned(), what: What::Part(0) });
    let tick = |step: &str, answer, note: &str| TickEntry { step: step.to_owned(), answer, note: note.to_owned() };
    let mut ticks = vec![tick("part.option.0", Answer::Done, ""), tick("parts_checked", Answer::Yes, "")];
    let standing = Standing::of(&card, &needed, &ticks);
    assert_eq!((standing.steps[0], &standing.missing[..]), (StepStands::Stopped, &["part.used.u_bolts".to_owned()][..]));
    assert!(standing.steps[1..].iter().all(|stands| *stands == StepStands::Waits));
    ticks.push(tick("part.used.u_bolts", Answer::Done, "checked: 9/16, 7 in legs"));
    assert_eq!(Standing::of(&card, &needed, &ticks).steps[0], StepStands::Done);
    ticks.push(tick("part.used.u_bolts", Answer::TakenBack, ""));
    assert_eq!(Standing::of(&card, &needed, &ticks).steps[0], StepStands::Stopped);
    ticks.push(tick("parts_checked", Answer::Yes, "lead: they come at noon, only looked at until then"));
    assert_eq!(Standing::of(&card, &needed, &ticks).steps[0], StepStands::Done);
}

/// What a job takes: its parts, what they ask for, and what is never used twice; the legs of new U-bolts reach round the block.
#[test]
fn a_block_takes_new_u_bolts_with_longer_legs() {
    let mut job = finder_job::half_ton();
    job["measured"] = serde_json::json!([["u_bolts_and_seats", "u_bolt_leg", 7.5]]);
    let work = finder_job::in_short(job).work();
    let block = shelf_part::part("B-2", "lift_block", &[("thickness", "2")]);
    let found = finder_job::look(&work, &[block]);
    let option = found.ranked.into_iter().find(|option| option.places == [Some(0)]).unwrap().option;
    let trial = work.trying(option, work.case().plan.clone());
    let needed = Needed::of(&trial, 0, &of_kind("lift_block", PICKUP));
    let keys: Vec<&str> = needed.iter().map(|needed| needed.key.as_str()).collect();
    assert_eq!(keys.first(), Some(&"part.option.0"));
    let legs = needed.iter().find_map(|needed| match needed.what {
        What::Consumable(Consumable::UBolts(leg)) => Some(leg.unwrap()),
        _ => None,
    });
    // By hand: 7 1/2 in round the axle and its pack, and the 2 in of the block.
    assert!((legs.unwrap() - inches(9.5)).abs() < inches(1e-6), "{keys:?}");
}

/// By hand: 3,000 and 2,000 lb on axles 145 in apart act 58 in behind the front axle; stands 121 in behind it carry 5,000 × 58/121, and the
/// worse one six tenths of that.
#[test]
fn the_worse_stand_goes_by_lever_arms_and_a_heavy_tail_tips_back() {
    let stands = |kerb: [f64; 2], load: [f64; 2], end: End| {
        let mut job = finder_job::half_ton();
        job["kerb"] = serde_json::json!(kerb);
        job["load"] = serde_json::json!(load);
        let work = finder_job::in_short(job).work();
        let each: Vec<f64> = on_the_worse_stand(work.found(), end).iter().map(|of| of.load.customary()).collect();
        (each, tips_back(work.found(), end))
    };
    let (rear, tips) = stands([3_000.0, 2_000.0], [1_000.0, 0.0], End::Rear);
    assert!((rear[0] - 5_000.0 * 58.0 / 121.0 * 0.6).abs() < 1.0, "{rear:?}");
    assert!((rear[1] - 3_000.0 * 145.0 / 121.0 * 0.6).abs() < 1.0, "with 1,000 lb over the rear axle: {rear:?}");
    assert!(!tips);
    let (front, _) = stands([3_000.0, 2_000.0], [1_000.0, 0.0], End::Front);
    assert!((front[0] - 5_000.0 * 87.0 / 121.0 * 0.6).abs() < 1.0, "{front:?}");
    let (_, tips) = stands([2_000.0, 2_000.0], [3_800.0, 30.0], End::Rear);
    assert!(tips, "most of it lies behind the stands");
}

/// The parts are changed while the U-bolts are off: the new card keeps them loose until they are tight, and a card of the same parts, or one
/// whose work was closed again, carries nothing over.
#[test]
fn what_was_loosened_for_other_parts_stays_on_the_card_until_it_is_tight() {
    let block = of_kind("lift_block", PICKUP);
    let off = place(&block, "u_bolts_off").unwrap();
    let mut ticks: Vec<TickEntry> = block.steps.iter().take(off + 1).map(good).collect();
    let mut rubber = of_kind("load_rubber", PICKUP);
    let plain = rubber.steps.len();
    carry_over(&mut rubber, &ticks);
    let tight = "rear.left.u_bolts_tight";
    let keys: Vec<String> = rubber.steps.iter().map(Step::key).collect();
    assert!(keys.iter().any(|key| key == tight) && keys.iter().any(|key| key == "rear.lug_nuts"), "{keys:?}");
    assert!(!Standing::of(&rubber, &[], &ticks).loose.is_empty());
    // Done to its end, the changed card leaves nothing loose.
    ticks.extend(rubber.steps.iter().map(good));
    assert!(Standing::of(&rubber, &[], &ticks).is_done());
    let mut again = of_kind("load_rubber", PICKUP);
    carry_over(&mut again, &ticks);
    assert_eq!(again.steps.len(), plain, "what is tight again is carried no further");
    let mut same = of_kind("lift_block", PICKUP);
    carry_over(&mut same, &ticks);
    assert_eq!(same.steps.len(), block.steps.len());
    // Nothing is chosen any more: what is loose is all that the card has.
    let mut none = card(&[], &[], PICKUP);
    carry_over(&mut none, &block.steps.iter().take(off + 1).map(good).collect::<Vec<_>>());
    assert!(none.steps.iter().any(|step| step.key() == tight));
}

#[test]
fn both_ends_are_raised_one_after_the_other_and_tightened_when_both_are_down() {
    let parts = [
        (KindRow::of("lift_block").unwrap(), at(Axles::Rear, None)),
        (KindRow::of("coil_spacer").unwrap(), at(Axles::Front, None)),
    ];
    let card = card(&parts, &[], PICKUP);
    let of = |end: End, word: &str| {
        card.steps.iter().position(|step| step.operation.word == word && step.place.end == Some(end)).unwrap()
    };
    assert!(of(End::Rear, "lowered") < of(End::Front, "chocked"));
    assert!(of(End::Front, "lowered") < of(End::Rear, "u_bolts_tight"));
    let lug_nuts = |end| of(end, "lug_nuts");
    assert!(lug_nuts(End::Rear) > of(End::Front, "lowered") && lug_nuts(End::Front) > of(End::Front, "lowered"));
    assert_eq!(card.steps.iter().filter(|step| step.operation.asks == Asks::Torque(Fastener::LugNuts)).count(), 4);
}
