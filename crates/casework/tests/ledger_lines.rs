//! What a proof puts down in the Ledger: every height that was promised and read, and what it says of the part, where it says anything.

#![allow(clippy::unwrap_used, clippy::indexing_slicing, reason = "a test fails where it stands")]

#[path = "support/finder_job.rs"]
mod finder_job;
#[path = "support/in_short.rs"]
mod in_short;

use serde_json::{Value, json};
use wise_badger_casework::case::Case;
use wise_badger_casework::casework::Casework;
use wise_badger_casework::entry::{
    BareUnits, CorrectionEntry, OptionEntry, OtherwiseEntry, OtherwiseWord, OutsideReason, Typed, UnitWord,
};
use wise_badger_casework::ledger::{LedgerLine, lines, of_job};
use wise_badger_casework::reading::{Phase, Place, Reading, Spot};
use wise_badger_casework::survey::{End, LoadState};
use wise_badger_mechanics::correction::KindRow;
use wise_badger_mechanics::tape::{Datum, LengthUnit, WeightUnit};
use wise_badger_mechanics::units::{InShopUnits, inches};

const REAR: [Place; 2] = [Place::RearLeft, Place::RearRight];

fn option<const N: usize>(word: &str, figures: [(&'static str, &str); N]) -> OptionEntry {
    let row = KindRow::of(word).unwrap();
    let units = BareUnits { length: LengthUnit::Inches, weight: WeightUnit::Pounds };
    let given = figures.map(|(name, text)| {
        let figure = row.figures.iter().find(|figure| figure.name == name).unwrap();
        (name, units.figure(figure.takes, text).unwrap())
    });
    OptionEntry::from(CorrectionEntry::of(row, given).unwrap())
}

fn leaf() -> OptionEntry {
    option("leaf_by_lift", [("lift", "1.5"), ("capacity", "500"), ("working_travel", "3")])
}

fn block() -> OptionEntry {
    option("lift_block", [("thickness", "1")])
}

/// A job with parts chosen, nothing read again yet.
fn chosen(job: Value, parts: &[OptionEntry]) -> Case {
    let mut case = finder_job::in_short(job).work().case().clone();
    let mut all = parts[0].clone();
    all.parts = parts.iter().flat_map(|part| part.parts.clone()).collect();
    (case.options, case.chosen) = (vec![all], Some(0));
    case
}

/// Reads the rear, both sides alike, so many inches off what was promised; in the unit and phase told.
fn read_off(case: &mut Case, phase: Phase, state: LoadState, off: f64, unit: UnitWord) {
    let promised = promised_rear(case, state);
    let value = inches(promised + off);
    let text = match unit {
        UnitWord::In => format!("{:.6}", value.customary()),
        _ => format!("{:.4}", value.si() * 1000.0),
    };
    let datum = case.measured.datum.unwrap_or(Datum::GroundToArch);
    for place in REAR {
        let value = Typed { text: text.clone(), unit, si: value.si() };
        case.readings.push(Reading { spot: Spot { phase, state, place }, datum, value });
    }
}

fn promised_rear(case: &Case, state: LoadState) -> f64 {
    let (promised, _) = Casework::new(case.clone()).promise(0, "test").unwrap();
    promised.get(End::Rear, state).unwrap().height_m / 0.0254
}

/// Lines by what was promised before anything was read again.
fn ledger(case: &Case) -> Vec<LedgerLine> {
    let mut before = case.clone();
    before.readings.retain(|reading| reading.spot.phase == Phase::Found);
    let (promised, _) = Casework::new(before).promise(0, "test").unwrap();
    lines(&Casework::new(case.clone()), &promised)
}

/// With the rear empty read so far off.
fn leaf_off_by(off: f64) -> Case {
    let mut case = chosen(finder_job::half_ton(), &[leaf()]);
    read_off(&mut case, Phase::Fitted, LoadState::Empty, off, UnitWord::In);
    case
}

fn deviations(case: &Case) -> Option<f64> {
    of_job(&ledger(case), 0).map(|says| says.deviations)
}

#[test]
fn a_height_as_promised_says_that_the_part_is_what_was_said_of_it() {
    let case = leaf_off_by(0.0);
    let lines = ledger(&case);
    assert_eq!(lines.len(), 1, "the loaded rear and the front were not read again: {lines:?}");
    let line = &lines[0];
    assert_eq!((line.end, line.state, line.first_m), (End::Rear, LoadState::Empty, None));
    assert!((line.promised_m - line.read_m).abs() < 1e-6 && line.promised_m > line.before_m, "{line:?}");
    assert!(line.band_m > 0.0 && line.says.unwrap().deviations.abs() < 1e-3, "{line:?}");
}

/// An advertised lift is off by half an inch as one standard deviation; on springs that share the load what is too much of it lifts less than
/// that.
#[test]
fn too_high_is_a_part_that_lifts_more_and_as_far_below_one_that_lifts_as_much_less() {
    let (high, low) = (deviations(&leaf_off_by(0.3)).unwrap(), deviations(&leaf_off_by(-0.3)).unwrap());
    assert!(high > 0.5 && high < 3.0, "{high}");
    assert!((high + low).abs() < 1e-6, "as far either way: {high} {low}");
    let far = deviations(&leaf_off_by(6.0)).unwrap();
    assert!((far - 3.0).abs() < 1e-9, "further off is another story than the part's: {far}");
}

#[test]
fn what_was_typed_in_millimetres_says_the_same() {
    let of = |unit| {
        let mut case = chosen(finder_job::half_ton(), &[leaf()]);
        read_off(&mut case, Phase::Fitted, LoadState::Empty, 0.3, unit);
        deviations(&case).unwrap()
    };
    assert!((of(UnitWord::In) - of(UnitWord::Mm)).abs() < 1e-3);
}

#[test]
fn a_part_that_is_exact_says_nothing_and_two_that_may_be_off_are_not_told_apart() {
    let with = |parts: &[OptionEntry]| {
        let mut case = chosen(finder_job::half_ton(), parts);
        read_off(&mut case, Phase::Fitted, LoadState::Empty, 0.3, UnitWord::In);
        ledger(&case)
    };
    let exact = with(&[block()]);
    assert!(exact.len() == 1 && exact[0].says.is_none(), "{exact:?}");
    let both = with(&[leaf(), block()]);
    assert_eq!(both[0].says.unwrap().place, 0, "the block is as thick as it is: {both:?}");
    let two = with(&[leaf(), option("helper_spring", [("pair_rate", "200"), ("engagement_gap", "0.5")])]);
    assert!(two.iter().all(|line| line.says.is_none()), "{two:?}");
}

#[test]
fn the_last_reading_counts_and_the_first_is_told_beside_it() {
    let mut case = leaf_off_by(0.3);
    read_off(&mut case, Phase::Settled, LoadState::Empty, 0.05, UnitWord::In);
    let line = ledger(&case).remove(0);
    assert!((line.first_m.unwrap() - line.read_m - 0.25 * 0.0254).abs() < 1e-6, "{line:?}");
    assert!(deviations(&case).unwrap() < deviations(&leaf_off_by(0.3)).unwrap());
}

/// Read with another load, on another floor, not rolled, or with the spare still off: another height, and none for the Ledger.
#[test]
fn what_was_read_otherwise_than_before_says_nothing_of_the_part() {
    let with = |words: &[OtherwiseWord], phase: Phase, datum: Option<&str>| {
        let mut job = finder_job::half_ton();
        if let Some(datum) = datum {
            job["datum"] = json!(datum);
        }
        let mut case = chosen(job, &[leaf()]);
        for state in LoadState::BOTH {
            read_off(&mut case, Phase::Fitted, state, 0.3, UnitWord::In);
        }
        case.proof.otherwise = phase.said_otherwise(OtherwiseEntry::default(), words.to_vec());
        let lines = ledger(&case);
        assert!(lines.iter().all(|line| line.says.is_some()), "{lines:?}");
        LoadState::BOTH.map(|state| lines.iter().any(|line| line.state == state))
    };
    assert_eq!(with(&[], Phase::Fitted, None), [true, true]);
    assert_eq!(with(&[OtherwiseWord::NotRolled], Phase::Fitted, None), [false, false]);
    assert_eq!(with(&[OtherwiseWord::LeftOff], Phase::Fitted, None), [false, false]);
    assert_eq!(with(&[OtherwiseWord::Load], Phase::Fitted, None), [true, false], "empty nothing is aboard");
    // From hub to arch neither floor nor tire is in the height; from the ground both are.
    for word in [OtherwiseWord::Floor, OtherwiseWord::Tires] {
        assert_eq!(with(&[word], Phase::Fitted, Some("hub_to_arch")), [true, true], "{word:?}");
        assert_eq!(with(&[word], Phase::Fitted, Some("ground_to_arch")), [false, false], "{word:?}");
    }
    // What was otherwise another time has nothing to do with these.
    assert_eq!(with(&[OtherwiseWord::NotRolled], Phase::Settled, None), [true, true]);
    assert_eq!(with(&[OtherwiseWord::NotRolled], Phase::Found, None), [true, true]);
}

/// Where the first reading was on another floor, how far it came down since says nothing of settling; the last one still counts.
#[test]
fn settling_is_told_between_readings_that_were_both_as_before() {
    let first = |phase: Phase| {
        let mut case = leaf_off_by(0.3);
        read_off(&mut case, Phase::Settled, LoadState::Empty, 0.05, UnitWord::In);
        case.proof.otherwise = phase.said_otherwise(OtherwiseEntry::default(), vec![OtherwiseWord::NotRolled]);
        ledger(&case).first().map(|line| (line.first_m.is_some(), line.says.is_some()))
    };
    assert_eq!(first(Phase::Found), Some((true, true)));
    assert_eq!(first(Phase::Fitted), Some((false, true)));
    assert_eq!(first(Phase::Settled), None);
}

#[test]
fn a_miss_that_is_put_down_to_something_else_is_not_the_parts() {
    let tells = |reason: Option<OutsideReason>| {
        let mut case = leaf_off_by(2.5);
        case.proof.reason = reason;
        deviations(&case).is_some()
    };
    assert!(tells(None));
    for (reason, part) in [
        (OutsideReason::Reading, false),
        (OutsideReason::OtherWork, false),
        (OutsideReason::FirstReadings, false),
        (OutsideReason::Part, true),
        (OutsideReason::NotFound, true),
    ] {
        assert_eq!(tells(Some(reason)), part, "{reason:?}");
    }
}

/// On coils, on a trailer's leaves and with one side read alone the same holds: what lies above its promise is a part that lifts more.
#[test]
fn it_holds_on_a_tandem_trailer_and_with_one_side_read() {
    let trailer = json!({
        "name": "trailer", "why": "", "class": "tandem_trailer", "wheelbase": 120.0, "ratings": [900.0, 3500.0],
        "empty": [17.0, 21.5], "loaded": [17.0, 19.5], "load": [900.0, 0.0], "gap_loaded": 2.0, "aim": [{ "level_loaded": [0.0, 0.5] }],
    });
    let mut case = chosen(trailer, &[leaf()]);
    read_off(&mut case, Phase::Fitted, LoadState::Empty, 0.3, UnitWord::In);
    assert!(deviations(&case).unwrap() > 0.1, "{:?}", ledger(&case));
    let mut one = leaf_off_by(0.3);
    one.readings.retain(|reading| reading.spot.phase == Phase::Found || reading.spot.place == Place::RearLeft);
    assert!(deviations(&one).unwrap() > 0.5, "{:?}", ledger(&one));
}

#[test]
fn nothing_chosen_or_nothing_promised_puts_nothing_down() {
    let mut case = leaf_off_by(0.3);
    let (promised, _) = Casework::new(chosen(finder_job::half_ton(), &[leaf()])).promise(0, "test").unwrap();
    case.chosen = None;
    let lines = lines(&Casework::new(case), &promised);
    assert!(lines.iter().all(|line| line.says.is_none()), "{lines:?}");
    assert_eq!(of_job(&[], 0), None);
}
