//! What an aim asks for, and what it does in the other load case.

use wise_badger_casework::aim::{Aim, AimVerdict, GoalMark, Way};
use wise_badger_casework::case::PlannedCase;
use wise_badger_casework::casework::Casework;
use wise_badger_casework::entry::{GoalEntry, MarkEntry, WhenEntry};
use wise_badger_casework::survey::{End, LoadState, Survey};
use wise_badger_mechanics::units::{InShopUnits, Length};
use wise_badger_store::job_file::JobFile;

use super::load_plan::NOTHING_FITTED;
use super::verdict::rake_words;
use super::{Figure, Opened, Sum, Tone, Units, end_name, percent, sentence, state_of};

/// An aim in a few words.
pub(crate) fn aim_name(aim: &Aim, units: Units) -> String {
    let tolerance = units.height(aim.tolerance());
    match aim {
        Aim::LevelLoaded { rake, .. } if rake.si().abs() < 1e-9 => format!("level loaded, ± {tolerance}"),
        Aim::LevelLoaded { rake, .. } => format!("rake {} loaded, ± {tolerance}", units.change(*rake)),
        Aim::LevelEmpty { .. } => format!("level empty, ± {tolerance}"),
        Aim::StockHeight { rear, .. } => format!("rear {} empty, ± {tolerance}", units.height(*rear)),
        Aim::RecoverSag { share, .. } => format!("at least {} of the sag back", percent(*share)),
        Aim::Clearance { wanted, .. } => format!("at least {} under the point named", units.height(*wanted)),
        Aim::Mark(goal) => {
            let height = match goal.mark {
                GoalMark::Rake | GoalMark::Lean(_) => units.change(goal.height),
                _ => units.height(goal.height),
            };
            match goal.way {
                Way::Within => format!("{height} ± {tolerance}"),
                Way::AtLeast => format!("at least {height} ({tolerance} short still counts)"),
                Way::AtMost => format!("at most {height} ({tolerance} over still counts)"),
            }
        }
    }
}

/// A goal of a job by its name: what it is about, when, and what is wanted.
pub(crate) fn goal_name(file: &JobFile, goal: &GoalEntry, units: Units) -> String {
    goal_of(&file.work, goal, units)
}

fn goal_of(work: &Casework, goal: &GoalEntry, units: Units) -> String {
    let Some(aim) = work.case().goal(goal) else { return "a goal whose mark is no longer on Tape".to_owned() };
    let GoalEntry::Mark { mark, when, .. } = goal else { return aim_name(&aim, units) };
    let class = work.found().vehicle.class;
    let [front, rear] = [End::Front, End::Rear].map(|end| end_name(class, end));
    let what = match mark {
        MarkEntry::Front => front.to_owned(),
        MarkEntry::Rear => rear.to_owned(),
        MarkEntry::Rake => "rake".to_owned(),
        MarkEntry::LeanFront => format!("lean, {front}"),
        MarkEntry::LeanRear => format!("lean, {rear}"),
        MarkEntry::Hitch => "hitch".to_owned(),
        MarkEntry::Point(name) => name.clone(),
    };
    let when = match when {
        WhenEntry::State(state) => state_of(work.found(), *state).to_owned(),
        WhenEntry::Case(key) => {
            let case = work.case().plan.as_ref().and_then(|plan| plan.case(*key));
            case.map_or_else(|| "in a case no longer planned".to_owned(), |case| case.name.clone())
        }
    };
    format!("{what} {when}: {}", aim_name(&aim, units))
}

/// Every goal of a job by its name, the first first.
pub(crate) fn goal_names(work: &Casework, units: Units) -> Vec<String> {
    work.case().aim.iter().flat_map(|aim| &aim.goals).map(|goal| goal_of(work, goal, units)).collect()
}

/// The aim of a job in a few words; empty while none is set.
pub(crate) fn aim_words(work: &Casework, units: Units) -> String {
    goal_names(work, units).join("; ")
}

/// The target, how far the rear is from it, and what it makes of the loaded rake.
pub(crate) fn aim_figures(aim: &Aim, survey: &Survey, units: Units) -> Vec<Figure> {
    let (mut figures, state) = (Vec::new(), aim.state());
    if let Some(target) = aim.target(survey) {
        let formula = match aim {
            Aim::LevelLoaded { .. } => "rear wanted, loaded = front height loaded + rake",
            Aim::LevelEmpty { .. } => "rear wanted, empty = front height empty",
            Aim::StockHeight { .. } => "rear wanted, empty = the height stated",
            Aim::RecoverSag { .. } => "rear wanted, loaded = rear loaded + share × sag",
            Aim::Clearance { .. } => {
                "rear wanted, loaded = rear loaded + (clearance wanted − measured) / (1 + distance behind the axle / wheelbase)"
            }
            Aim::Mark(_) => "rear wanted = the height stated, or front height + rake",
        };
        let numbers = target_numbers(aim, survey, target.height, units);
        let sum = Sum::new(formula, numbers, "The aim and the tape readings of this job.");
        let value = match target.way {
            Way::AtLeast => format!("{} or more", units.height(target.height)),
            Way::AtMost => format!("{} or less", units.height(target.height)),
            Way::Within => format!("{} ± {}", units.height(target.height), units.height(target.tolerance)),
        };
        figures.push(Figure::new(format!("Rear wanted, {}", state_of(survey, state)), value, sum));
        figures.extend(survey.height(End::Rear, state).map(|rear| {
            let raise = target.height - rear.value;
            let numbers = vec![format!("{} − {} = {}", units.exact(target.height), units.exact(rear.value), units.exact(raise))];
            let sum = Sum::new("raise = rear wanted − rear measured", numbers, "The aim and the tape readings of this job.");
            let within = raise.si().abs() <= target.tolerance.si();
            let (label, by) = match raise.si() < 0.0 {
                true => ("Rear must come down by", -raise),
                false => ("Rear must come up by", raise),
            };
            let figure = Figure::new(label, units.height(by), sum);
            if within { figure.note("already within the aim").tone(Tone::Good) } else { figure }
        }));
    }
    if let (false, Some(rake)) = (state == LoadState::Loaded, aim.rake_loaded(survey)) {
        let now = survey.rake(LoadState::Loaded).zip(aim.raise(survey));
        let numbers = now.map(|(now, raise)| format!("{} + {} = {}", units.exact(now), units.exact(raise), units.exact(rake)));
        let numbers = numbers.into_iter().collect();
        let sum = Sum::new(
            "rake loaded, with the aim met = rake loaded now + raise",
            numbers,
            "The drops measured; exact for what raises both states alike.",
        )
        .doubt("A stiffer rear drops less, so this is the lowest it would come to.");
        let nose_up = rake_words(rake) == "nose up";
        let note = if nose_up { "nose up when loaded: tell the customer before it is done" } else { rake_words(rake) };
        let tone = if nose_up { Tone::Act } else { Tone::Plain };
        figures.push(Figure::new("That leaves, loaded, a rake of", units.change(rake), sum).note(note).tone(tone));
    }
    figures
}

/// What the rear height that is wanted is made of.
fn target_numbers(aim: &Aim, survey: &Survey, wanted: Length, units: Units) -> Vec<String> {
    let exact = |length: Length| units.exact(length);
    let height = |end, state| survey.height(end, state).map(|height| height.value);
    let raised = |from: Option<Length>, by: String| from.map(|from| format!("{} + {by} = {}", exact(from), exact(wanted)));
    let numbers = match aim {
        Aim::LevelLoaded { rake, .. } => raised(height(End::Front, LoadState::Loaded), exact(*rake)),
        Aim::RecoverSag { share, .. } => {
            let sag = survey.drop(End::Rear).map(|drop| exact(drop.value)).unwrap_or_default();
            raised(height(End::Rear, LoadState::Loaded), format!("{share:.2} × {sag}"))
        }
        Aim::Clearance { behind_rear_axle, measured, wanted: clearance, .. } => {
            let (behind, long) = (exact(*behind_rear_axle), exact(survey.vehicle.wheelbase));
            let by = format!("({} − {}) / (1 + {behind} / {long})", exact(*clearance), exact(*measured));
            raised(height(End::Rear, LoadState::Loaded), by)
        }
        Aim::Mark(goal) if goal.mark == GoalMark::Rake => raised(height(End::Front, aim.state()), exact(goal.height)),
        Aim::LevelEmpty { .. } | Aim::StockHeight { .. } | Aim::Mark(_) => None,
    };
    vec![numbers.unwrap_or_else(|| format!("rear wanted {}", exact(wanted)))]
}

/// What the aim, met exactly at the rear, does in a load case.
pub(crate) struct AimCase {
    pub(crate) name: String,
    pub(crate) rear: Opened,
    pub(crate) front: String,
    pub(crate) rake: Opened,
    pub(crate) nose_up: bool,
}

/// The aim in every case of the load plan, empty first: rear raised alike in all of them.
pub(crate) fn aim_cases(aim: &Aim, work: &Casework, units: Units) -> Vec<AimCase> {
    let (found, predictor) = (work.found(), work.predictor());
    let Some(raise) = aim.raise(found) else { return Vec::new() };
    let line = |name: &str, rear: Length, front: Length| {
        let rake = rear + raise - front;
        AimCase {
            name: name.to_owned(),
            rear: Opened::new(units.height(rear + raise), raised(rear, raise, units)),
            front: units.height(front),
            rake: Opened::new(format!("{}, {}", units.change(rake), rake_words(rake)), raked(rear + raise, front, units)),
            nose_up: rake_words(rake) == "nose up",
        }
    };
    let read = |state| Some((found.height(End::Rear, state)?.value, found.height(End::Front, state)?.value));
    let mut lines: Vec<AimCase> = found
        .states()
        .filter_map(|state| {
            read(state).map(|(rear, front)| line(&format!("{}, as measured", sentence(state_of(found, state))), rear, front))
        })
        .collect();
    for PlannedCase { name, survey: case, .. } in work.cases() {
        if let Ok(heights) = predictor.in_case(case, NOTHING_FITTED)
            && let Some(front) = heights.front
        {
            lines.push(line(name, heights.rear.value, front.value));
        }
    }
    lines
}

fn raised(rear: Length, raise: Length, units: Units) -> Sum {
    let numbers = vec![format!("{} + {} = {}", units.exact(rear), units.exact(raise), units.exact(rear + raise))];
    Sum::new(
        "rear with the aim met = rear in this case + raise, alike in all cases",
        numbers,
        "The aim and the tape readings of this job.",
    )
}

fn raked(rear: Length, front: Length, units: Units) -> Sum {
    let numbers = vec![format!("{} − {} = {}", units.exact(rear), units.exact(front), units.exact(rear - front))];
    Sum::new("rake = rear − front", numbers, "The aim and the tape readings of this job.")
}

/// Whether it leans by more than the customer will have.
pub(crate) fn side_to_side(survey: &Survey, most: Length, units: Units) -> Vec<Figure> {
    let figure = |state: LoadState| {
        let lean = survey.lean(End::Rear, state)?;
        let within = lean.abs() <= most;
        let sum = Sum::new(
            "lean = mean of the right readings − mean of the left",
            vec![format!("{}, at most {}", units.exact(lean), units.exact(most))],
            "The aim and the tape readings of this job.",
        );
        let note =
            if within { "within what is wanted side to side" } else { "more than is wanted side to side: see Verdict for why" };
        let tone = if within { Tone::Good } else { Tone::Act };
        Some(Figure::new(format!("Lean, rear, {}", state_of(survey, state)), units.change(lean), sum).note(note).tone(tone))
    };
    survey.states().filter_map(figure).collect()
}

/// Every goal beside the first, and whether the vehicle as it came in meets it.
pub(crate) fn goals_as_found(work: &Casework, units: Units) -> Vec<(String, &'static str)> {
    let names = goal_names(work, units).into_iter().enumerate().skip(1);
    let told = |(place, name)| {
        let words = match work.as_found(place, units.step()) {
            None => "not told by what was read",
            Some(AimVerdict::Meets | AimVerdict::LikelyMeets) => "met as it came in",
            Some(AimVerdict::MayMiss { .. } | AimVerdict::Misses { .. }) => "not met as it came in",
        };
        (name, words)
    };
    names.map(told).collect()
}
