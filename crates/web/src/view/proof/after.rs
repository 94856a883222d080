//! What is said beside a proof: how it settled, what is likeliest behind a miss, what can be set otherwise, what was checked.

use wise_badger_casework::adjust::{Adjustment, adjust};
use wise_badger_casework::entry::{CheckWord, CheckedWord, OtherwiseWord};
use wise_badger_casework::proof::{Miss, MissCause, likely_causes};
use wise_badger_casework::reading::Phase;
use wise_badger_casework::survey::{End, LoadState};
use wise_badger_mechanics::units::metres;
use wise_badger_store::job_file::JobFile;

use super::super::finder::in_a_hundred;
use super::super::{Units, end_name, sentence, state_of};
use crate::correction::{correction_name, figure_label, figure_words};

/// What a time after fitting is called.
pub(crate) fn phase_name(phase: Phase) -> &'static str {
    match phase {
        Phase::Found => "As it came",
        Phase::Fitted => "After fitting",
        Phase::Driven => "After the drive",
        Phase::Settled => "After settling",
    }
}

/// What a check is called.
pub(crate) fn check_name(check: CheckWord) -> &'static str {
    match check {
        CheckWord::BackOn => "Spare, skid plates and all that was taken off are back on",
        CheckWord::Headlights => "Headlights aimed",
        CheckWord::Alignment => "Wheel alignment",
        CheckWord::HoseSlack => "Hoses, lines and wires slack at full droop",
        CheckWord::TireClearance => "Tires clear at full lock and full bump",
        CheckWord::BrakeValve => "Load-sensing brake valve set",
        CheckWord::HitchHeight => "Hitch height read",
        CheckWord::Leaks => "No leaks",
        CheckWord::Lamps => "Lights work, warning lamps out",
    }
}

/// What became of one.
pub(crate) fn checked_name(checked: CheckedWord) -> &'static str {
    match checked {
        CheckedWord::Done => "done",
        CheckedWord::NotDone => "not done",
        CheckedWord::HasNone => "has none",
    }
}

/// What it is called that something was not as before.
pub(crate) fn otherwise_name(word: OtherwiseWord) -> &'static str {
    match word {
        OtherwiseWord::Floor => "another floor, or another spot on it",
        OtherwiseWord::Tires => "other tires or pressures",
        OtherwiseWord::Load => "other load, or elsewhere",
        OtherwiseWord::NotRolled => "not rolled and bounced",
        OtherwiseWord::LeftOff => "something taken off is not back on",
    }
}

/// The stories that somebody gave a reason for by what he said was not as before.
fn spoken_for(file: &JobFile) -> Vec<MissCause> {
    let case = file.case();
    let words = [End::Rear, End::Front]
        .into_iter()
        .flat_map(|end| file.work.fitted().states().flat_map(move |state| case.otherwise_at(state, end)).collect::<Vec<_>>());
    let story = |word: OtherwiseWord| match word {
        OtherwiseWord::Floor | OtherwiseWord::Tires => MissCause::Ground,
        OtherwiseWord::Load | OtherwiseWord::LeftOff => MissCause::Load,
        OtherwiseWord::NotRolled => MissCause::Preload,
    };
    words.map(story).collect()
}

/// Every height that was read more than once after fitting: what it is, and what it was each time, with how far it came down between
/// the first and the last.
pub(crate) fn settled_rows(file: &JobFile, units: Units) -> Vec<(String, Vec<String>)> {
    let found = file.work.found();
    let surveys = Phase::AFTER.map(|phase| file.case().survey(phase));
    let row = |end: End, state: LoadState| {
        let heights =
            surveys.each_ref().map(|survey| survey.height(end, state).map(|height| height.in_steps_of(units.step()).value));
        let read: Vec<_> = heights.iter().flatten().collect();
        let (first, last) = read.first().zip(read.last()).filter(|_| read.len() > 1)?;
        let change = **last - **first;
        let came = if units.is_nothing(change) { "as it was".to_owned() } else { units.change(change) };
        let cells = heights.iter().map(|height| height.map_or_else(|| "–".to_owned(), |height| units.height(height)));
        let name = format!("{}, {}", sentence(end_name(found.vehicle.class, end)), state_of(found, state));
        Some((name, cells.chain([came]).collect()))
    };
    [End::Rear, End::Front]
        .into_iter()
        .flat_map(|end| found.states().filter_map(move |state| row(end, state)).collect::<Vec<_>>())
        .collect()
}

/// The likeliest stories behind heights that are off, with what speaks for each and what would tell.
pub(crate) fn cause_words(file: &JobFile, units: Units) -> Vec<String> {
    let Some(fitting) = &file.fitting else { return Vec::new() };
    let (promised, fitted) = (&fitting.predicted.0, file.work.fitted());
    let miss = |end: End, state: LoadState| {
        let (predicted, measured) = (promised.get(end, state)?, fitted.height(end, state)?);
        let empty = promised.get(end, LoadState::Empty).unwrap_or(predicted);
        let of_a_reading = predicted.band_of_a_reading().powi(2) - predicted.band_m.powi(2);
        let reading_sd = if of_a_reading > 0.0 { metres(of_a_reading.sqrt() / 2.0) } else { measured.sd };
        let difference = measured.value - metres(predicted.height_m);
        Some(Miss { end, state, difference, reading_sd, sinks: metres(empty.height_m - predicted.height_m) })
    };
    let misses: Vec<Miss> = [End::Rear, End::Front]
        .into_iter()
        .flat_map(|end| fitted.states().filter_map(move |state| miss(end, state)).collect::<Vec<_>>())
        .collect();
    if misses.is_empty() {
        return Vec::new();
    }
    let driven = file.case().readings.iter().any(|reading| matches!(reading.spot.phase, Phase::Driven | Phase::Settled));
    let odds = likely_causes(&misses, driven, &spoken_for(file));
    let told = odds.iter().take(3).filter(|odds| odds.share > 0.1);
    told.map(|odds| format!("{} ({}).", story(odds.cause, &misses, file, units), in_a_hundred(odds.share))).collect()
}

fn story(cause: MissCause, misses: &[Miss], file: &JobFile, units: Units) -> String {
    let class = file.work.found().vehicle.class;
    match cause {
        MissCause::Misread(place) => misses.get(place).map_or_else(String::new, |miss| {
            let (end, state) = (end_name(class, miss.end), state_of(file.work.found(), miss.state));
            format!("One height is off by itself: read the {end} {state} again, {} from what was said", units.change(miss.difference))
        }),
        MissCause::PartsLift => "The part does not lift what was said of it: the rear is off alike in every state".to_owned(),
        MissCause::Rate => "The springs are stiffer or softer than they were taken for: off the more it is loaded".to_owned(),
        MissCause::Load => "The load is another than it was said for: right empty, off loaded. Weigh it".to_owned(),
        MissCause::Ground => "Floor, tires or what is measured from: every height is off alike, front and rear".to_owned(),
        MissCause::Preload => {
            "Not settled: bushings tightened in the air, or not rolled. Let them go with the weight on, tighten, drive, read again"
                .to_owned()
        }
    }
}

/// What can be set otherwise so that the rear meets its aim.
pub(crate) fn adjust_words(file: &JobFile, units: Units) -> Vec<String> {
    let Some(adjust) = adjust(&file.work) else { return Vec::new() };
    let Some((option, _)) = file.work.chosen() else { return Vec::new() };
    let class = file.work.found().vehicle.class;
    let state = state_of(file.work.found(), adjust.state);
    let words = |setting: &Adjustment| {
        let part = option.parts.get(setting.part)?;
        let label = figure_label(part.correction.row, setting.figure).to_lowercase();
        let (now, to) = (figure_words(&setting.now, units), figure_words(&setting.to, units));
        let name = correction_name(&part.correction, class, units);
        let reaches = (setting.rises - adjust.wanted).abs() <= units.step();
        let rest = if reaches { "" } else { ", as near as it goes" };
        Some(format!("{name}: {label} from {now} to {to} moves it {}{rest}", units.change(setting.rises)))
    };
    let settings: Vec<String> = adjust.settings.iter().filter_map(words).collect();
    let wanted = format!("The aim asks {} at the rear, {state}.", units.change(adjust.wanted));
    if settings.is_empty() {
        return vec![format!("{wanted} Nothing fitted can be set to give it: look at Options again.")];
    }
    std::iter::once(wanted).chain(settings.into_iter().map(|setting| format!("{setting}. Read again after it."))).collect()
}
