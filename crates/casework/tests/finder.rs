//! The finder: its chances against a slower way that shares nothing with it, and the laws that its ranking keeps.

#![allow(clippy::unwrap_used, clippy::indexing_slicing, reason = "a test fails where it stands")]

#[path = "support/finder_job.rs"]
mod finder_job;
#[path = "support/in_short.rs"]
mod in_short;
#[path = "support/shelf_part.rs"]
mod shelf_part;

use finder_job::{half_ton, in_short, look, wagon};
use in_short::demo_shelf;
use proptest::prelude::*;
use rand::SeedableRng as _;
use rand_pcg::Pcg64;
use serde_json::json;
use shelf_part::part;
use wise_badger_casework::entry::{Currency, MoneyEntry, ShelfPart, TypedIn};
use wise_badger_casework::finder::{Found, Lead, MOST_SCREENED, Search, ToTheEnd, Weights, find};
use wise_badger_casework::look_over::Gate;
use wise_badger_casework::survey::{End, LoadState, Survey};
use wise_badger_mechanics::tape::{LengthUnit, WeightUnit};

/// What is found by the numbers of its parts, in order.
fn order(found: &Found, shelf: &[ShelfPart]) -> Vec<Vec<String>> {
    let number = |place: &Option<usize>| place.map_or("work".to_owned(), |place| shelf[place].number.clone());
    found.ranked.iter().map(|ranked| ranked.places.iter().map(number).collect()).collect()
}

/// One normal number.
fn normal(random: &mut Pcg64) -> f64 {
    let (one, other): (f64, f64) = (1.0 - random.random::<f64>(), random.random());
    (-2.0 * one.ln()).sqrt() * (std::f64::consts::TAU * other).cos()
}

fn density(off: f64, sd: f64) -> f64 {
    (-0.5 * (off / sd).powi(2)).exp() / sd
}

/// The rear of a vehicle on coils by Hooke alone, drawn from what is known of its class and weighed by what was read: as it stands empty
/// and loaded, one reading in ten misread by half an inch; a spacer is as thick as it is said to be, give or take. Nothing of it is the
/// program's but the sizes of the doubts.
///
/// # Source     importance sampling; MacKay, Information Theory, Inference, and Learning Algorithms, 29.2 (Cambridge, 2003; from memory)
fn slowly(survey: &Survey, thick: f64, meets: impl Fn(f64, f64) -> bool) -> f64 {
    let inch = 0.0254;
    let height = |state| survey.height(End::Rear, state).unwrap();
    let (empty, loaded) = (height(LoadState::Empty), height(LoadState::Loaded));
    let change = survey.axle_loads().change.rear.unwrap();
    let class = survey.vehicle.assumptions().rear_rate.value;
    let mut random = Pcg64::seed_from_u64(7);
    let (mut all, mut met) = (0.0, 0.0);
    for _ in 0..1_000_000 {
        let rate = class * (0.35 * normal(&mut random)).exp();
        let weight = change.value.value + change.sd.value * normal(&mut random);
        let stands = empty.value.value + 1.75 * inch * (2.0 * random.random::<f64>() - 1.0);
        let under = stands - weight / rate;
        let read = |misread: [bool; 2]| {
            let sd = |sd: f64, off: bool| if off { sd.hypot(0.5 * inch) } else { sd };
            density(stands - empty.value.value, sd(empty.sd.value, misread[0]))
                * density(under - loaded.value.value, sd(loaded.sd.value, misread[1]))
        };
        let likely = read([false; 2]) + 0.1 * read([true, false]) + 0.1 * read([false, true]);
        all += likely;
        let spacer = thick + normal(&mut random) / 32.0;
        met += if meets(stands / inch + spacer, under / inch + spacer) { likely } else { 0.0 };
    }
    met / all
}

/// Two goals at once, one spacer: what both have in common is not counted twice. Within 3 in 100 of the slow way.
#[test]
fn chances_are_those_of_a_slower_way_that_shares_nothing_with_it() {
    let mark = |height: f64, tolerance: f64| json!([{ "stock": [height, tolerance] }, { "stock_loaded": [height - 2.0, 0.5] }]);
    let mut told = 0;
    for (thick, height, tolerance) in [(1.0, 21.5, 0.25), (1.0, 21.75, 0.375), (1.5, 21.75, 0.3125), (0.75, 21.5, 0.3125)] {
        let work = wagon(mark(height, tolerance));
        let shelf = [part("S", "coil_spacer", &[("thickness", &thick.to_string())])];
        let found = look(&work, &shelf);
        let meets = |empty: f64, loaded: f64| (empty - height).abs() <= tolerance && (loaded - height + 2.0).abs() <= 0.5;
        let slow = slowly(work.found(), thick, meets);
        let quick = match found.ranked.first() {
            Some(ranked) => ranked.chance.clone().unwrap(),
            None => found.refused[0].misses_the_aim.clone().unwrap(),
        };
        assert!((quick.all - slow).abs() <= 0.03, "{thick} {height}: {quick:?}, slowly {slow}");
        assert!(quick.all <= quick.each.iter().copied().fold(1.0, f64::min) + 1e-9);
        assert!(quick.all >= quick.each.iter().sum::<f64>() - 1.0 - 1e-9, "no less than both leave together (Fréchet)");
        told += usize::from(slow > 0.05 && slow < 0.95);
    }
    assert!(told >= 2, "chances that are neither sure nor none are among them");
}

/// Every spacer of a small shelf by the slower way: allowed is what meets the aim as likely as an option must, refused what does not, and
/// what was not looked into for being one of many alike is none of the best.
#[test]
fn what_is_allowed_is_what_the_slower_way_allows() {
    let thick = [0.25, 0.5, 0.75, 1.0, 1.25, 1.5, 2.0, 3.0];
    let shelf: Vec<ShelfPart> =
        thick.iter().map(|thick| part(&format!("S{thick}"), "coil_spacer", &[("thickness", &thick.to_string())])).collect();
    let mut decided = [0, 0];
    for (height, tolerance) in [(21.5, 0.375), (22.25, 0.1875), (21.125, 0.25), (23.0, 0.25)] {
        let work = wagon(json!([{ "stock": [height, tolerance] }]));
        let found = look(&work, &shelf);
        let slow: Vec<f64> =
            thick.iter().map(|thick| slowly(work.found(), *thick, |empty, _| (empty - height).abs() <= tolerance)).collect();
        let allowed: Vec<usize> = found.ranked.iter().filter_map(|ranked| ranked.places[0]).collect();
        let missing = found.refused.iter().filter(|refused| refused.misses_the_aim.is_some());
        let missing: Vec<usize> = missing.filter_map(|refused| refused.places[0]).collect();
        for (place, slow) in slow.iter().enumerate().filter(|(_, slow)| (**slow - 0.2).abs() > 0.03) {
            assert!(!allowed.contains(&place) || *slow > 0.2, "{height}: {} is allowed, slowly {slow}", thick[place]);
            assert!(!missing.contains(&place) || *slow < 0.2, "{height}: {} misses, slowly {slow}", thick[place]);
        }
        let looked_into = || allowed.iter().chain(&missing);
        let least = looked_into().map(|place| slow[*place]).fold(1.0, f64::min);
        let others = slow.iter().enumerate().filter(|(place, _)| !looked_into().any(|of| of == place));
        assert!(others.map(|(_, slow)| *slow).fold(0.0, f64::max) <= least + 0.03);
        decided = [decided[0] + allowed.len(), decided[1] + missing.len()];
    }
    assert!(decided.iter().all(|count| *count >= 3), "{decided:?}: allowed and refused are among them");
}

/// A part that changes nothing for this vehicle changes nothing in the order of the others.
#[test]
fn a_part_that_is_of_no_use_here_changes_no_ranking() {
    let work = in_short(half_ton()).work();
    let shelf = demo_shelf();
    let before = order(&look(&work, &shelf), &shelf);
    assert!(before.len() > 5);
    let more: Vec<ShelfPart> = shelf
        .iter()
        .cloned()
        .chain([
            part("COILS", "new_coils", &[("lift", "2"), ("added_rate", "0")]),
            part("HOSE", "brake_hoses", &[("longer", "3")]),
        ])
        .collect();
    assert_eq!(order(&look(&work, &more), &more), before);
}

/// Read in millimeters and weighed in kilograms it is the same vehicle.
#[test]
fn the_units_that_settings_are_written_in_change_no_ranking() {
    let work = in_short(half_ton()).work();
    let shelf = demo_shelf();
    let metric = TypedIn { length: LengthUnit::Millimetres, weight: WeightUnit::Kilograms };
    let of = |units| find(&Search { work: &work, shelf: &shelf, weights: Weights::default(), today: None, units }, &ToTheEnd);
    let (inches, millimetres) = (of(TypedIn::default()), of(metric));
    assert_eq!(order(&inches, &shelf), order(&millimetres, &shelf));
    for (one, other) in inches.ranked.iter().zip(&millimetres.ranked) {
        assert!((one.score - other.score).abs() < 0.005, "{} {}", one.score, other.score);
    }
}

/// What stands low on the left is to it what stands low on the right is to its mirror.
#[test]
fn left_and_right_are_alike() {
    let leaning = |sides: [f64; 2]| {
        let mut job = half_ton();
        job["sides_loaded"] = json!(sides);
        in_short(job).work()
    };
    let shelf = demo_shelf();
    let (left, right) = (leaning([18.5, 19.125]), leaning([19.125, 18.5]));
    let (one, other) = (look(&left, &shelf), look(&right, &shelf));
    assert_eq!(order(&one, &shelf), order(&other, &shelf));
    for (one, other) in one.ranked.iter().zip(&other.ranked) {
        assert!((one.chance.as_ref().unwrap().all - other.chance.as_ref().unwrap().all).abs() < 0.02);
    }
}

/// What is folded away is worse than something in everything, and nothing else is.
#[test]
fn what_is_folded_is_what_another_is_better_than() {
    let shelf = demo_shelf();
    for work in [in_short(half_ton()).work(), wagon(json!([{ "level_loaded": [0.0, 0.5] }]))] {
        let found = look(&work, &shelf);
        for option in &found.ranked {
            let better = found.ranked.iter().any(|other| other.is_better_in_everything_than(option));
            assert_eq!(option.dominated, better);
            assert!(!option.is_better_in_everything_than(option));
        }
        assert!(found.ranked.iter().any(|option| option.dominated) && found.ranked.iter().any(|option| !option.dominated));
    }
}

/// Of a weight of nought nothing is left.
#[test]
fn a_weight_of_nought_counts_for_nothing() {
    let work = in_short(half_ton()).work();
    let shelf = demo_shelf();
    let weights = Weights { aim: 0.0, cause: 0.0, ride: 0.0, upkeep: 0.0, removable: 0.0, price: 10.0, time: 0.0, headroom: 0.0 };
    let found = find(&Search { work: &work, shelf: &shelf, weights, today: None, units: TypedIn::default() }, &ToTheEnd);
    let single = found.ranked.iter().filter(|option| option.option.parts.len() == 1 && option.worth.price.is_some());
    let mut by_score: Vec<(f64, i64)> = single.map(|option| (option.score, option.worth.price.unwrap().0)).collect();
    by_score.sort_by(|one, other| other.0.total_cmp(&one.0));
    assert!(by_score.len() > 3 && by_score.windows(2).all(|pair| pair[0].1 <= pair[1].1), "{by_score:?}");
}

/// Every option that is proposed is allowed by every rule of an option, and is predicted where the aim looks.
#[test]
fn nothing_is_proposed_that_options_would_rule_out() {
    let shelf = demo_shelf();
    let mut job = half_ton();
    job["findings"] = json!([["eyes_and_bushes", "put_right", ["bush_worn"]]]);
    for work in [in_short(job).work(), in_short(half_ton()).work(), wagon(json!([{ "level_loaded": [0.0, 0.5] }]))] {
        let found = look(&work, &shelf);
        for ranked in &found.ranked {
            let trial = work.trying(ranked.option.clone(), work.case().plan.clone());
            assert!(trial.gate_of(0).is_empty() && trial.predicted(0).unwrap().at(LoadState::Loaded).is_ok());
            assert_eq!(ranked.option.problem(), None, "it could be put on the list as it is");
        }
        assert!(found.counted.screened <= MOST_SCREENED);
    }
}

/// A hose with an eighth of an inch to spare: a block goes in with longer hoses off the shelf, or not at all.
#[test]
fn what_is_too_short_is_made_good_from_the_shelf_or_said() {
    let mut job = half_ton();
    job["measured"] = json!([["hoses_and_wires", "hose_slack", 0.125]]);
    let work = in_short(job).work();
    let block = part("B", "lift_block", &[("thickness", "2")]);
    let without = look(&work, std::slice::from_ref(&block));
    let refused = without.refused.iter().find(|refused| refused.places == [Some(0)]).unwrap();
    assert!(matches!(refused.gates[..], [Gate::TooShort(_)]), "{refused:?}");
    let hoses = [block, part("H2", "brake_hoses", &[("longer", "1")]), part("H4", "brake_hoses", &[("longer", "4")])];
    let with = look(&work, &hoses);
    let made_good = with.ranked.iter().find(|ranked| ranked.places.contains(&Some(0))).unwrap();
    assert_eq!(made_good.places, [Some(0), Some(2)], "the one that is long enough");
}

/// Of two parts that do the same the cheaper is looked into, unless it comes too late; what is not predicted even by itself is said.
#[test]
fn of_parts_that_do_the_same_the_one_that_comes_in_time_is_taken_and_nothing_is_dropped_unsaid() {
    let block = |number: &str, hundredths: i64, lead_days: u32| {
        let price = MoneyEntry { text: String::new(), hundredths, currency: Currency::Usd };
        ShelfPart {
            price: Some(price),
            lead_days: Some(lead_days),
            in_stock: Some(0),
            ..part(number, "lift_block", &[("thickness", "1.75")])
        }
    };
    let pads = part("PADS", "overload_pads", &[("front_half", "1"), ("rear_half", "1")]);
    let shelf = [block("CHEAP", 5_000, 20), block("SOON", 8_000, 1), pads];
    let found_by = |wanted: Option<&str>| {
        let mut job = half_ton();
        job["wanted"] = json!(wanted);
        let work = in_short(job).work();
        let search = Search {
            work: &work,
            shelf: &shelf,
            weights: Weights::default(),
            today: Some("2026-11-29"),
            units: TypedIn::default(),
        };
        find(&search, &ToTheEnd)
    };
    let numbers = |found: &Found| order(found, &shelf).concat();
    let (no_hurry, soon) = (found_by(None), found_by(Some("2026-12-02")));
    assert!(numbers(&no_hurry).contains(&"CHEAP".to_owned()) && !numbers(&no_hurry).contains(&"SOON".to_owned()));
    assert!(numbers(&soon).contains(&"SOON".to_owned()) && !numbers(&soon).contains(&"CHEAP".to_owned()));
    assert_eq!(no_hurry.counted.left_out, 1);
    let unsaid = no_hurry.refused.iter().find(|refused| refused.places == [Some(2)]);
    assert!(unsaid.is_some_and(|refused| refused.unpredicted.is_some()), "{:?}", no_hurry.refused);
}

/// A case of the plan that is over a rating is said; a goal that speaks of it bars every part, since none raises a rating.
#[test]
fn what_is_planned_over_a_rating_is_promised_nothing() {
    let shelf = demo_shelf();
    let mut job = half_ton();
    job["planned"] = json!([[3_400.0, 0.0, 0.0]]);
    let said = look(&in_short(job.clone()).work(), &shelf);
    assert!(said.leads.contains(&Lead::CaseOverARating(2, false)) && !said.ranked.is_empty(), "{:?}", said.leads);
    job["aim"] = json!([{ "level_loaded": [0.0, 0.5] }, { "planned": [17.0, 0.5] }]);
    let barred = look(&in_short(job.clone()).work(), &shelf);
    assert!(barred.leads.contains(&Lead::CaseOverARating(2, true)) && barred.ranked.is_empty(), "{:?}", barred.leads);
    job["planned"] = json!([[1_200.0, 0.0, 0.0]]);
    let light = look(&in_short(job).work(), &shelf);
    assert!(light.leads.is_empty() && !light.ranked.is_empty(), "{:?}", light.leads);
    let two = light.ranked[0].chance.as_ref().unwrap();
    assert_eq!(two.each.len(), 2, "both goals are judged, one of them in the case that nobody read");
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 12, ..ProptestConfig::default() })]

    /// Whatever the aim, the chance of an option is one, and the order is by what each comes to among those that stand alike.
    #[test]
    fn chances_and_places_are_in_order(rake in -1.0..1.5_f64, tolerance in 0.125..1.0_f64, weight in 700.0..1_200.0_f64) {
        let mut job = half_ton();
        job["aim"] = json!([{ "level_loaded": [rake, tolerance] }]);
        job["load"] = json!([weight, 0.0]);
        let work = in_short(job).work();
        let found = look(&work, &demo_shelf());
        for ranked in &found.ranked {
            let chance = ranked.chance.as_ref().unwrap();
            prop_assert!((0.2..=1.0).contains(&chance.all) && (0.0..=1.0).contains(&ranked.score));
        }
        let firsts: Vec<f64> = found.ranked.iter().take_while(|ranked| !ranked.another_way && !ranked.dominated).map(|ranked| ranked.score).collect();
        prop_assert!(firsts.windows(2).all(|pair| pair[0] >= pair[1]));
    }
}
