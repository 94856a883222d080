//! What a job is asked for next: empty alone, without a load, proved.

#![allow(clippy::unwrap_used, clippy::indexing_slicing, reason = "a test fails where it stands")]

#[path = "support/case.rs"]
mod opened;

use opened::{half_ton, inches, pounds};
use wise_badger_casework::case::Case;
use wise_badger_casework::casework::Casework;
use wise_badger_casework::entry::{AimSheet, GoalEntry, LoadEntry, LookOverEntry};
use wise_badger_casework::reading::{Phase, Place, Reading, Spot};
use wise_badger_casework::route::{Missing, Progress, Stage, ToDo};
use wise_badger_casework::survey::{End, LoadState};
use wise_badger_mechanics::tape::Datum;

fn read(case: &mut Case, phase: Phase, state: LoadState, rear: f64) {
    case.measured.datum = Some(Datum::HubToArch);
    for (place, height) in
        [(Place::FrontLeft, 20.5), (Place::FrontRight, 20.5), (Place::RearLeft, rear), (Place::RearRight, rear)]
    {
        case.readings.push(Reading { spot: Spot { phase, state, place }, datum: Datum::HubToArch, value: inches(height) });
    }
}

fn to_do(case: &Case) -> ToDo {
    Progress::of(&Casework::new(case.clone()), false).to_do
}

fn empty_only() -> Case {
    let mut case = half_ton();
    read(&mut case, Phase::Found, LoadState::Empty, 20.25);
    case.look_over = Some(LookOverEntry::default());
    case
}

#[test]
fn a_job_about_the_vehicle_empty_goes_on_without_loaded_heights() {
    let mut case = empty_only();
    assert_eq!(to_do(&case), ToDo::Measure(vec![Missing::Heights(LoadState::Loaded), Missing::Load]));
    let level = |loaded| match loaded {
        true => GoalEntry::LevelLoaded { rake: inches(0.0), tolerance: inches(0.5) },
        false => GoalEntry::LevelEmpty { tolerance: inches(0.5) },
    };
    case.aim = Some(AimSheet::from(level(false)));
    assert_eq!(to_do(&case), ToDo::Choose);
    assert!(Progress::of(&Casework::new(case.clone()), false).is_done(Stage::Tape));
    // One that is about the load as well still wants it read.
    let mut both = AimSheet::from(level(false));
    both.goals.push(level(true));
    case.aim = Some(both);
    assert!(matches!(to_do(&case), ToDo::Measure(_)));
    // And the rear must be read, whatever the aim.
    let mut unread = half_ton();
    (unread.look_over, unread.aim) = (Some(LookOverEntry::default()), Some(AimSheet::from(level(false))));
    assert!(matches!(to_do(&unread), ToDo::Measure(_)));
}

#[test]
fn what_was_promised_without_the_front_is_not_followed_by_measuring_it() {
    let mut case = empty_only();
    read(&mut case, Phase::Found, LoadState::Loaded, 18.0);
    case.tape = case
        .tape
        .with_load(LoadState::Loaded, Some(LoadEntry::Placed { weight: pounds(900.0), distance: inches(0.0), ahead: true }));
    let front = |place| matches!(place, Place::FrontLeft | Place::FrontRight);
    case.readings.retain(|reading| !(front(reading.spot.place) && reading.spot.state == LoadState::Loaded));
    case.aim = Some(AimSheet::from(GoalEntry::LevelLoaded { rake: inches(0.0), tolerance: inches(0.5) }));
    assert_eq!(to_do(&case), ToDo::Measure(vec![Missing::Height(End::Front, LoadState::Loaded)]));
    case.chosen = Some(0);
    assert_eq!(to_do(&case), ToDo::PlanTheWork);
    read(&mut case, Phase::Fitted, LoadState::Empty, 21.0);
    assert_eq!(to_do(&case), ToDo::Finish);
}
