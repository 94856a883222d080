//! How far the springs that come out have set: known where it is known what the vehicle stood at when sound, and guessed at elsewhere.

#![allow(clippy::unwrap_used, clippy::indexing_slicing, reason = "a test fails where it stands")]

#[path = "support/in_short.rs"]
mod in_short;

use in_short::{InShort, demo_shelf};
use serde_json::{Value, json};
use wise_badger_casework::casework::Casework;
use wise_badger_casework::entry::{FigureEntry, OptionEntry};
use wise_badger_casework::job_document::JobDocument;
use wise_badger_casework::option_document::OptionDocument;
use wise_badger_casework::survey::LoadState;
use wise_badger_casework::verdict::PartKind;
use wise_badger_mechanics::correction::{Axles, Given, KindRow, Site};
use wise_badger_mechanics::side::Side;
use wise_badger_mechanics::units::{InShopUnits, Length, inches, pounds_per_inch};

/// A wagon on leaves that stands at 26 in empty.
fn wagon(more: Value) -> Casework {
    let mut short = json!({
        "name": "Wagon", "why": "", "class": "wagon", "wheelbase": 96.5, "ratings": [2430, 2870], "kerb": [1980, 1650],
        "springs": ["leaf", "leaf"], "empty": [26.75, 26], "loaded": [26.8, 24.25], "load": [550, 0], "aim": [],
    });
    for (name, value) in more.as_object().unwrap() {
        short[name] = value.clone();
    }
    serde_json::from_value::<InShort>(short).unwrap().work()
}

fn set(work: &Casework) -> Option<f64> {
    work.found().vehicle.rear_set.map(|set| set.value.customary())
}

/// A part of the demo shelf, as an option.
fn option(work: &Casework, number: &str) -> OptionEntry {
    let job = JobDocument::of(work.case(), None);
    let document = OptionDocument::of_shelf(&job, &demo_shelf(), &[number.to_owned()]).unwrap();
    OptionEntry { name: String::new(), parts: document.parts }
}

/// The rear, empty, with a part of the demo shelf: where it stands, and how far off that may be.
fn with(work: &Casework, number: &str) -> (f64, f64) {
    let trying = work.trying(option(work, number), None);
    let rear = trying.predicted(0).unwrap().at(LoadState::Empty).unwrap().rear;
    (rear.value.customary(), rear.sd.customary())
}

fn close(got: f64, want: f64) {
    assert!((got - want).abs() < 1e-6, "{got}, expected {want}");
}

/// What anybody wants of it says nothing of what it was: else a part would be told to do whatever is wanted.
#[test]
fn the_height_when_sound_says_how_far_they_have_set_and_no_aim_does() {
    assert_eq!(set(&wagon(json!({}))), None, "nobody knows it");
    close(set(&wagon(json!({ "sound": 28 }))).unwrap(), 2.0);
    assert_eq!(set(&wagon(json!({ "aim": [{ "stock": [28, 0.5] }] }))), None);
    let part = |work: &Casework| work.breakdown().unwrap().part(PartKind::SpringSet).map(|set| set.value.customary());
    assert_eq!(part(&wagon(json!({ "aim": [{ "stock": [28, 0.5] }] }))), None);
    close(part(&wagon(json!({ "sound": 28 }))).unwrap(), 2.0);
}

#[test]
fn what_was_done_to_the_rear_since_leaves_it_open() {
    for (done, known) in [("rear_block", false), ("added_leaf", false), ("front_spacer", true)] {
        let work = wagon(json!({ "sound": 28, "earlier": [[done, 1.0]] }));
        assert_eq!(set(&work).is_some(), known, "{done}");
    }
}

/// New springs as the maker fitted them bring it back to where it stood when sound, whatever the old ones had set; and how far off that
/// may be is what the height when sound and the box leave open, and no guess at the set.
#[test]
fn stock_springs_bring_it_back_to_its_height_when_sound() {
    let guessed = with(&wagon(json!({})), "NP-301");
    close(guessed.0, 26.5);
    for sound in [26.75, 28.0, 29.0] {
        let (stands, sd) = with(&wagon(json!({ "sound": sound })), "NP-301");
        close(stands, sound);
        assert!(sd < 0.8 * guessed.1, "{sd} beside {}", guessed.1);
    }
    // Springs that stand higher than sound ones have not set; a pack that lifts nothing lets them down to that.
    let (stands, _) = with(&wagon(json!({ "sound": 25.5 })), "NP-301");
    close(stands, 26.0);
}

/// A lean that is there empty is mostly the springs': a new pair, alike, takes it out with them. The same leaves arched alike keep it, and
/// what is new on one side alone lifts that side.
#[test]
fn a_new_pair_takes_the_lean_out_that_is_there_empty() {
    let leaning = |number: &str| {
        let work = wagon(json!({ "sides_empty": [25.5, 26.5], "sides_loaded": [23.75, 24.75] }));
        let trying = work.trying(option(&work, number), None);
        LoadState::BOTH.map(|state| {
            let sides = trying.predicted(0).unwrap().at(state).unwrap().rear_sides.unwrap();
            ((sides.right.value - sides.left.value).customary(), sides.left.sd.customary())
        })
    };
    let [pair, other] = ["NP-301", "BL-502"].map(leaning);
    for (pair, other) in pair.iter().zip(&other) {
        close(pair.0, 0.0);
        close(other.0, 1.0);
        assert!(pair.1 > other.1, "what of the lean was not the springs' is in doubt");
    }
    assert!(leaning("BL-502@left")[0].0 < 0.5);
}

/// The height of the middle says how far the pair has set: what one spring of it has by itself stays as doubtful as ever.
#[test]
fn the_set_of_one_spring_alone_is_not_known() {
    let [guessed, known] = [json!({}), json!({ "sound": 26.5 })].map(|more| with(&wagon(more), "NP-301@left"));
    close(known.0, guessed.0);
    close(known.1, guessed.1);
}

/// On one side, or on one axle of several, old springs stay beside the new ones.
#[test]
fn only_all_springs_of_an_end_are_a_new_pair() {
    let row = KindRow::of("new_packs").unwrap();
    let lengths =
        ["lift", "old_lift", "set"].into_iter().fold(Given::default(), |given, name| given.with_length(name, inches(0.0)));
    let given = lengths.with_rate("added_rate", pounds_per_inch(0.0));
    let renews = |axles, side| row.correction(&given, Site { axles, side }).unwrap().renews_the_pair();
    assert!(renews(Axles::Rear, None) && renews(Axles::Front, None));
    assert!(!renews(Axles::Rear, Some(Side::Left)) && !renews(Axles::OneOfRear(2), None));
}

#[test]
fn another_set_than_the_readings_have_is_as_doubtful_as_ever() {
    let work = wagon(json!({ "sound": 28 }));
    let sd = |set: f64| {
        let mut option = option(&work, "NP-301");
        let typed = json!({ "text": set.to_string(), "unit": "in", "si": inches(set).si() });
        let typed = FigureEntry::Typed(serde_json::from_value(typed).unwrap());
        option.parts[0].correction = option.parts[0].correction.with_figure("set", typed);
        let trying = work.trying(option, None);
        trying.predicted(0).unwrap().at(LoadState::Empty).unwrap().rear.sd
    };
    let [read, other]: [Length; 2] = [sd(2.0), sd(1.0)];
    assert!(read < 0.8 * other, "{read:?} {other:?}");
}
