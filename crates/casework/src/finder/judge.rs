//! The best combinations, each looked into as any option of the job is.

use wise_badger_mechanics::bound::Dimension;
use wise_badger_mechanics::correction::{Correction, KindRow, Site, brake_hoses, u_bolts};
use wise_badger_mechanics::units::{InShopUnits, Length, inches, psi};

use super::asked::asked;
use super::chance::chance;
use super::found::{Ranked, Refused};
use super::pool::Piece;
use super::school::School;
use super::screen::{Alone, Ground, SOMETHING_IN};
use super::search::{Counted, Search};
use super::watch::{At, Came, Watch};
use super::worth::Worth;
use crate::aim::{GoalCase, TargetBand};
use crate::case::PlannedCase;
use crate::casework::Casework;
use crate::entry::{OptionEntry, PartEntry, SettingEntry, ShelfPart, WhenEntry};
use crate::look_over::{Addition, Gate};
use crate::prediction::{Moment, Unpredicted};
use crate::shelf_fit::{correction_of, entry_of, settable};
use crate::survey::LoadState;

/// Halvings of the search for a setting.
const HALVINGS: u32 = 14;

/// Every combination looked into.
#[derive(Clone)]
pub(super) struct Judged {
    pub(super) ranked: Vec<Ranked>,
    pub(super) refused: Vec<Refused>,
}

pub(super) fn judge(
    search: &Search<'_>,
    ground: &Ground<'_>,
    pieces: &[(Piece, Alone)],
    screened: &[Vec<usize>],
    counted: &mut Counted,
    watch: &dyn Watch,
    so_far: &dyn Fn(&Judged, Counted),
) -> Judged {
    let mut judged = Judged { ranked: Vec::new(), refused: Vec::new() };
    let all = screened.len();
    for (done, places) in screened.iter().enumerate() {
        if !watch.goes_on() {
            counted.not_judged = all - done;
            break;
        }
        watch.comes(Came { at: At::TheBest, done, of: all });
        let of: Vec<&Piece> = places.iter().filter_map(|place| pieces.get(*place).map(|(piece, _)| piece)).collect();
        let mut option = OptionEntry { name: String::new(), parts: of.iter().map(|piece| piece.entry.clone()).collect() };
        let mut on_shelf: Vec<Option<usize>> = of.iter().map(|piece| piece.place).collect();
        set(search, ground, &mut option);
        if !every_part_does_something(search.work, ground, &option) {
            counted.move_nothing += usize::from(option.parts.len() == 1);
            continue;
        }
        // What differed only by how it was set first may come to the same.
        if judged.ranked.iter().any(|there| there.option == option) || judged.refused.iter().any(|there| there.option == option) {
            continue;
        }
        counted.judged += 1;
        let mut work = search.work.trying(option.clone(), search.work.case().plan.clone());
        let mut gates = work.gate_of(0);
        while let Some((place, part)) = makes_good(search, &option, &gates) {
            option.parts.push(part);
            on_shelf.push(Some(place));
            work = search.work.trying(option.clone(), search.work.case().plan.clone());
            gates = work.gate_of(0);
        }
        let unpredicted = unpredicted(&work);
        let spoken_of = unpredicted.iter().find(|(when, _)| work.goals().any(|goal| goal.when() == *when)).map(|(_, why)| *why);
        if !gates.is_empty() || spoken_of.is_some() {
            let asks = asked(search, &work);
            judged.refused.push(Refused { option, places: on_shelf, gates, unpredicted: spoken_of, misses_the_aim: None, asks });
            continue;
        }
        let chance = chance(&work, 0);
        if let Some(misses) = chance.clone().filter(|chance| chance.now.unwrap_or(chance.all) < LEAST_CHANCE) {
            let misses_the_aim = Some(misses);
            judged.refused.push(Refused { option, places: on_shelf, gates, unpredicted: None, misses_the_aim, asks: Vec::new() });
            continue;
        }
        let worth = Worth {
            cures: ground.faults.cured(&of),
            firmer: firmer(&work),
            headroom: headroom(&work),
            ..Worth::of(option.parts.iter())
        };
        judged.ranked.push(Ranked {
            chance,
            schools: schools(&of),
            another_way: false,
            option,
            places: on_shelf,
            worth,
            score: 0.0,
            dominated: false,
            unpredicted: unpredicted.into_iter().map(|(_, why)| why).collect(),
            survives: None,
        });
        so_far(&judged, Counted { not_judged: all - done - 1, ..*counted });
    }
    judged
}

/// An option that meets the aim less likely than this is not proposed (our own working rule).
const LEAST_CHANCE: f64 = 0.2;
/// So much left at the stops is enough in a case that comes later (our own working rule).
const ENOUGH_LEFT_IN: f64 = 2.0;

/// Whether the vehicle stands elsewhere without any one of the parts, in some state or case that the customer came for.
fn every_part_does_something(work: &Casework, ground: &Ground<'_>, option: &OptionEntry) -> bool {
    let Some(parts) = option.corrections(None) else { return false };
    let moments = ground.came_for();
    let stands = |parts: &[Correction]| work.predictor().ends_at_best(parts, &moments);
    let with_all = stands(&parts);
    (0..parts.len()).all(|place| {
        let others = parts.iter().enumerate().filter(|(other, _)| *other != place).map(|(_, part)| part.clone());
        let without = stands(&others.collect::<Vec<_>>());
        with_all.iter().zip(&without).any(|(with, without)| {
            let (Ok(with), Ok(without)) = (with, without) else { return true };
            let moved = |one: Option<Length>, other: Option<Length>| {
                one.zip(other).is_some_and(|(one, other)| (one - other).abs() >= inches(SOMETHING_IN))
            };
            moved(with.front, without.front) || moved(with.rear, without.rear)
        })
    })
}

/// The schools of some pieces, each once.
fn schools(pieces: &[&Piece]) -> Vec<School> {
    let mut schools: Vec<School> = pieces.iter().filter_map(|piece| School::of(piece.correction.row())).collect();
    schools.sort_unstable();
    schools.dedup();
    schools
}

/// Sets what may be set so that the rear stands where the aim wants it: in the state that it speaks of, and of bags in every other too.
fn set(search: &Search<'_>, ground: &Ground<'_>, option: &mut OptionEntry) {
    let Some((state, band)) = search.work.target() else { return };
    let settable_part = option.parts.iter().position(|part| part.shelf.as_deref().is_some_and(|of| settable(of).is_some()));
    let Some(place) = settable_part else { return };
    let is_state = |moment: &Moment<'_>| matches!(moment, Moment::State(of) if *of == state);
    let Some(first) = ground.moments.iter().find(|moment| is_state(moment)) else { return };
    let Some(best) = best_setting(search, option, place, *first, &band) else { return };
    let Some(set) = with_setting(search, option, place, best) else { return };
    *option = set;
    let by_gauge = option.parts.get(place).and_then(|part| part.shelf.as_deref()).and_then(settable);
    if by_gauge.is_none_or(|(_, bound)| bound.dimension != Dimension::Pressure) {
        return;
    }
    let mut settings = Vec::new();
    for moment in ground.moments.iter().filter(|moment| !is_state(moment)) {
        let when = match moment {
            Moment::State(state) => WhenEntry::State(*state),
            Moment::Case(case) => match search.work.cases().iter().find(|planned| std::ptr::eq(&raw const planned.survey, *case))
            {
                Some(planned) => WhenEntry::Case(planned.key),
                None => continue,
            },
        };
        let value = best_setting(search, option, place, *moment, &band).and_then(|si| search.units.of(Dimension::Pressure, si));
        settings.extend(value.map(|value| SettingEntry { when, value }));
    }
    if let Some(part) = option.parts.get_mut(place) {
        part.settings = settings;
    }
}

/// The setting of a part, in whole steps of a gauge or a tape, with which the rear stands nearest to the aim in a moment.
fn best_setting(search: &Search<'_>, option: &OptionEntry, place: usize, moment: Moment<'_>, band: &TargetBand) -> Option<f64> {
    let (_, bound) = settable(option.parts.get(place)?.shelf.as_deref()?)?;
    let stands = |si: f64| -> Option<Length> {
        let parts = with_setting(search, option, place, si)?.corrections(None)?;
        search.work.predictor().ends_at_best(&parts, &[moment]).pop()?.ok()?.rear
    };
    let rises = stands(bound.most).unwrap_or_default() > stands(bound.least).unwrap_or_default();
    let (mut low, mut high) = (bound.least, bound.most);
    for _ in 0..HALVINGS {
        let middle = f64::midpoint(low, high);
        let is_low = stands(middle).is_some_and(|stands| stands < band.height);
        if is_low == rises { low = middle } else { high = middle }
    }
    let step = if bound.dimension == Dimension::Pressure { psi(1.0).si() } else { inches(0.125).si() };
    let si = ((f64::midpoint(low, high) / step).round() * step).clamp(bound.least, bound.most);
    stands(si).map(|_| si)
}

fn with_setting(search: &Search<'_>, option: &OptionEntry, place: usize, si: f64) -> Option<OptionEntry> {
    let mut option = option.clone();
    let part = option.parts.get_mut(place)?;
    let (figure, bound) = settable(part.shelf.as_deref()?)?;
    let typed = search.units.of(bound.dimension, si)?;
    part.correction = part.correction.with_figure(figure, typed.into());
    part.settings.clear();
    Some(option)
}

/// A part of the shelf that makes good what is too short for an option, the cheapest that does.
fn makes_good(search: &Search<'_>, option: &OptionEntry, gates: &[Gate]) -> Option<(usize, PartEntry)> {
    let short = gates.iter().find_map(|gate| match gate {
        Gate::TooShort(what) => kind_that_makes_good(*what),
        _ => None,
    })?;
    // One of a kind is enough, or none of it is.
    if option.parts.iter().any(|part| part.correction.row == short) {
        return None;
    }
    let vehicle = &search.work.found().vehicle;
    let mut of_kind: Vec<(usize, &ShelfPart)> = search.shelf.iter().enumerate().filter(|(_, part)| part.kind == short).collect();
    of_kind.sort_by_key(|(place, part)| (part.price.as_ref().map_or(i64::MAX, |price| price.hundredths), *place));
    of_kind.into_iter().find_map(|(place, part)| {
        let entry = entry_of(vehicle, part, Site::default(), None, search.units)?;
        correction_of(vehicle, &entry)?;
        let entry = PartEntry { shelf: Some(Box::new(part.clone())), ..PartEntry::by_itself(entry) };
        let with = OptionEntry { parts: [&option.parts[..], std::slice::from_ref(&entry)].concat(), ..option.clone() };
        let work = search.work.trying(with, search.work.case().plan.clone());
        let still = work
            .gate_of(0)
            .iter()
            .filter_map(|gate| match gate {
                Gate::TooShort(what) => kind_that_makes_good(*what),
                _ => None,
            })
            .any(|kind| kind == short);
        (!still).then_some((place, entry))
    })
}

/// The kind of part that makes good what is too short, where the vehicle is asked for nothing more.
fn kind_that_makes_good(what: Addition) -> Option<&'static KindRow> {
    match what {
        Addition::NewUBolts => Some(&u_bolts::ROW),
        Addition::LongerHose => Some(&brake_hoses::ROW),
        _ => None,
    }
}

/// What of the option is not predicted, and why.
fn unpredicted(work: &Casework) -> Vec<(GoalCase, Unpredicted)> {
    let of_states = work.predicted(0).into_iter().flat_map(|predicted| predicted.each());
    let of_states = of_states.filter_map(|(state, predicted)| Some((GoalCase::State(state), *predicted.as_ref().err()?)));
    // What was not read says nothing against an option.
    let of_states = of_states.filter(|(_, why)| *why != Unpredicted::NotMeasured);
    let of_cases = work.cases().iter().filter_map(|case| Some((GoalCase::Planned(case.key), work.in_case(0, case).err()?)));
    of_states.chain(of_cases).collect()
}

/// How much of what is enough is left at the stops in the cases that come later, or in all of them where none does: from 0 to 1; `None`
/// where nobody read the gap, or nothing is planned.
fn headroom(work: &Casework) -> Option<f64> {
    let any_later = work.cases().iter().any(|case| case.later);
    let left = |case: &PlannedCase| Some(work.in_case(0, case).ok()?.travel_left?.si());
    let cases = work.cases().iter().filter(|case| case.later || !any_later);
    let least = cases.map(left).reduce(|one, other| Some(one?.min(other?)))??;
    Some((least / inches(ENOUGH_LEFT_IN).si()).clamp(0.0, 1.0))
}

/// How much quicker the rear bounces with the option, empty and loaded.
fn firmer(work: &Casework) -> [Option<f64>; 2] {
    LoadState::BOTH.map(|state| {
        let predicted = work.predicted(0)?.at(state).ok()?;
        let (before, after) = (predicted.bounce_before?, predicted.bounce_after?);
        Some((after.frequency / before.frequency).value - 1.0)
    })
}
