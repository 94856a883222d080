//! The finder while somebody waits for it, what it says of what comes later, and of what would make possible what it refuses.

#![allow(clippy::unwrap_used, clippy::indexing_slicing, reason = "a test fails where it stands")]

#[path = "support/finder_job.rs"]
mod finder_job;
#[path = "support/in_short.rs"]
mod in_short;
#[path = "support/shelf_part.rs"]
mod shelf_part;

use std::cell::{Cell, RefCell};

use finder_job::{half_ton, in_short, look, wagon};
use in_short::demo_shelf;
use serde_json::json;
use shelf_part::part;
use wise_badger_casework::casework::Casework;
use wise_badger_casework::entry::{ShelfPart, TypedIn};
use wise_badger_casework::finder::{At, Came, Found, Lead, Search, Survives, Watch, Weights, find};
use wise_badger_casework::look_over::Addition;
use wise_badger_mechanics::units::inches;

fn search<'a>(work: &'a Casework, shelf: &'a [ShelfPart]) -> Search<'a> {
    Search { work, shelf, weights: Weights::default(), today: None, units: TypedIn::default() }
}

/// Hears everything, and calls the search off once so many options were found.
struct Listening {
    enough: usize,
    heard: RefCell<Vec<Came>>,
    found: Cell<usize>,
}

impl Listening {
    fn until(enough: usize) -> Self {
        Listening { enough, heard: RefCell::default(), found: Cell::new(0) }
    }
}

impl Watch for Listening {
    fn goes_on(&self) -> bool {
        self.found.get() < self.enough
    }

    fn comes(&self, came: Came) {
        self.heard.borrow_mut().push(came);
    }

    fn found(&self, so_far: &dyn Fn() -> Found) {
        let found = so_far();
        assert_eq!(found.ranked.len(), self.found.get() + 1, "each that is found is told of");
        self.found.set(found.ranked.len());
    }
}

/// Whoever waits hears of every step in its order, and what was found before it is called off is what the whole search says of it.
#[test]
fn a_search_tells_how_far_it_has_come_and_gives_what_it_found_when_it_is_called_off() {
    let work = in_short(half_ton()).work();
    let shelf = demo_shelf();
    let listens = Listening::until(usize::MAX);
    let whole = find(&search(&work, &shelf), &listens);
    assert!(!whole.called_off && whole.counted.not_judged == 0);
    let heard = listens.heard.into_inner();
    let steps: Vec<At> = heard.iter().map(|came| came.at).collect();
    let began = |at| steps.iter().position(|step| *step == at).unwrap();
    assert!(began(At::Parts) < began(At::Combinations) && began(At::Combinations) < began(At::TheBest));
    assert!(heard.iter().all(|came| came.done < came.of));
    assert!(heard.windows(2).all(|pair| pair[0].at != pair[1].at || pair[0].done + 1 == pair[1].done));

    let stopped = find(&search(&work, &shelf), &Listening::until(3));
    assert!(stopped.called_off && stopped.counted.not_judged > 0 && stopped.ranked.len() == 3);
    for option in &stopped.ranked {
        let same = whole.ranked.iter().find(|other| other.option == option.option).unwrap();
        assert_eq!((&same.chance, same.score), (&option.chance, option.score));
    }
}

#[test]
fn a_search_that_nobody_waits_for_says_nothing_against_the_shelf() {
    let work = in_short(half_ton()).work();
    let found = find(&search(&work, &demo_shelf()), &Listening::until(0));
    assert!(found.called_off && found.ranked.is_empty() && !found.leads.contains(&Lead::NothingAllowed));
}

/// A rack that comes next spring: the chance for what is aboard now is no less than that for all of it, and of every option it is said
/// what of it stays.
#[test]
fn what_is_right_for_now_is_told_from_what_is_right_once_the_rest_is_aboard() {
    let mut job = half_ton();
    job["planned"] = json!([[1_400.0, 0.0, 0.0]]);
    job["aim"] = json!([{ "level_loaded": [0.0, 0.5] }, { "planned": [20.25, 0.0] }]);
    let shelf = demo_shelf();
    let at_once = look(&in_short(job.clone()).work(), &shelf);
    assert!(at_once.ranked.iter().all(|option| option.survives.is_none() && option.chance.as_ref().unwrap().now.is_none()));
    assert!(!at_once.leads.iter().any(|lead| matches!(lead, Lead::Later(_))));

    job["later"] = json!(true);
    let found = look(&in_short(job).work(), &shelf);
    assert!(found.leads.contains(&Lead::Later(2)), "{:?}", found.leads);
    let number = |place: &Option<usize>| place.map_or("work", |place| &shelf[place].number);
    let has = |of: &wise_badger_casework::finder::Ranked, parts: &[String]| {
        parts.iter().all(|part| of.places.iter().any(|place| number(place) == part))
    };
    let mut grows = 0;
    for option in &found.ranked {
        let chance = option.chance.as_ref().unwrap();
        assert!(chance.now.unwrap() >= chance.all && chance.now.unwrap() >= 0.2);
        match option.survives.as_ref().unwrap() {
            Survives::With(more) => {
                let own: Vec<String> = option.places.iter().map(|place| number(place).to_owned()).collect();
                let grown = found.ranked.iter().filter(|other| has(other, &own) && has(other, more));
                assert!(grown.into_iter().any(|other| other.chance.as_ref().unwrap().all >= 0.5), "{own:?} {more:?}");
                grows += 1;
            }
            Survives::ComesOff(parts) => assert!(has(option, parts)),
            Survives::AsItIs | Survives::SetOtherwise | Survives::NotKnown => {}
        }
    }
    assert!(grows > 0 || found.ranked.iter().any(|option| option.survives == Some(Survives::AsItIs)), "something survives");
}

/// With all of the weight on what is left at the stops, what leaves more of it in the planned case stands before what leaves less.
#[test]
fn headroom_counts_by_its_weight_alone() {
    let mut job = half_ton();
    job["planned"] = json!([[1_400.0, 0.0, 0.0]]);
    job["gap_empty"] = json!(4.5);
    let work = in_short(job).work();
    let shelf = demo_shelf();
    let none = Weights { aim: 0.0, cause: 0.0, ride: 0.0, upkeep: 0.0, removable: 0.0, price: 0.0, time: 0.0, headroom: 0.0 };
    let by = |weights| find(&Search { weights, ..search(&work, &shelf) }, &Listening::until(usize::MAX));
    let weighed = by(Weights { headroom: 1.0, ..none });
    let one_part = weighed.ranked.iter().filter(|option| option.option.parts.len() == 1);
    assert!(one_part.clone().count() > 2);
    for option in one_part.clone() {
        assert!((option.score - option.worth.headroom.unwrap_or(0.5)).abs() < 1e-9);
    }
    let told: Vec<f64> = one_part.filter_map(|option| option.worth.headroom).collect();
    assert!(told.iter().any(|one| told.iter().any(|other| one - other > 0.05)), "{told:?}");
    assert!(by(none).ranked.iter().all(|option| option.score.abs() < 1e-9), "a weight of nought is nought");
}

/// A shock that has an inch left bars two inches of spacer, says by how much it comes short, and which shock of the shelf has the stroke.
#[test]
fn what_is_refused_for_a_short_shock_says_what_would_make_it_possible() {
    let mut job = half_ton();
    job["aim"] = json!([{ "stock": [23.5, 0.5] }]);
    job["measured"] = json!([["shocks", "shock_rod", 1.0], ["shocks", "shock_closes", 4.0]]);
    let shock = |number: &str, open: &str| {
        let figures = [("new_open", open), ("new_closed", "12"), ("mounts_nearer", "0")];
        part(number, "shocks", &figures)
    };
    let block = part("BLOCK-2", "lift_block", &[("thickness", "2")]);
    let refused = |shelf: &[ShelfPart]| {
        let found = look(&in_short(job.clone()).work(), shelf);
        found.refused.into_iter().find(|refused| refused.places == [Some(0)]).unwrap()
    };
    let none = refused(std::slice::from_ref(&block));
    let [asked] = &none.asks[..] else { panic!("{none:?}") };
    assert_eq!((asked.what, asked.may_do.as_deref()), (Addition::LongerShocks, None));
    // The block lifts the frame off the axle by what it is thick: two inches, of which one was left.
    assert!((asked.by - inches(1.0)).abs() < inches(0.01), "{asked:?}");
    let long = refused(&[block.clone(), shock("SHORT", "17.5"), shock("LONG", "18.25")]);
    assert_eq!(long.asks[0].may_do.as_deref(), Some("LONG"), "a stroke of 5 in and the inch that is short");
}

#[test]
fn nothing_is_asked_for_where_the_aim_is_what_is_missed() {
    let work = wagon(json!([{ "stock": [20.5, 0.25] }, { "stock_loaded": [18.75, 0.25] }]));
    let found = look(&work, &[part("S", "coil_spacer", &[("thickness", "3")])]);
    assert!(found.refused.iter().all(|refused| refused.asks.is_empty()));
}
