//! The chance that an option meets every goal of the aim, all that is in doubt drawn together.

use wise_badger_mechanics::uncertain::Uncertain;
use wise_badger_mechanics::units::{InShopUnits, Length};

use crate::aim::{GoalCase, GoalMark, TargetBand};
use crate::casework::Casework;
use crate::entry::WhenEntry;
use crate::prediction::{Drawn, Moment, Normals};
use crate::survey::{End, LoadState};

/// So many drawings leave a chance good to 1 in 100, as one standard deviation.
const DRAWINGS: usize = 2_500;
/// The streams of what a lean is off by lie beyond those of heights.
const OF_LEANS: u128 = 3;

/// A chance.
#[derive(Debug, Clone, PartialEq)]
pub struct Chance {
    /// That every goal is met.
    pub all: f64,
    /// That each is met by itself, by its place among the goals.
    pub each: Vec<f64>,
    /// That all of those are met that speak of what is aboard now; `None` where none of them speaks of a case that comes later.
    pub now: Option<f64>,
}

impl Chance {
    /// The goal that limits it most, by its place.
    pub fn limited_by(&self) -> Option<usize> {
        let least = self.each.iter().enumerate().min_by(|(_, one), (_, other)| one.total_cmp(other));
        least.map(|(place, _)| place)
    }
}

/// A goal, and what of a drawing it is read off.
struct Target {
    mark: GoalMark,
    band: TargetBand,
    moment: usize,
    /// Of a point: what it read, and where both ends stood then.
    point: Option<(Length, Length, Length)>,
    /// Of a lean: right above left.
    lean: Option<Uncertain<Length>>,
    /// Whether it speaks of a case that comes later.
    later: bool,
}

/// The chance of the option at a place of a job's list. `None` without an aim, and where something that it speaks of is not predicted.
pub(super) fn chance(work: &Casework, option: usize) -> Option<Chance> {
    let mut whens: Vec<GoalCase> = Vec::new();
    let mut targets = Vec::new();
    for goal in work.goals() {
        let when = goal.when();
        let moment = whens.iter().position(|of| *of == when).unwrap_or_else(|| {
            whens.push(when);
            whens.len() - 1
        });
        let (mark, band) = goal.wanted(work.found())?;
        let point = match mark {
            GoalMark::Point { place, .. } => Some(point(work, place, when)?),
            _ => None,
        };
        let lean = match mark {
            GoalMark::Lean(end) => Some(lean(work, option, end, when)?),
            _ => None,
        };
        let later = matches!(when, GoalCase::Planned(key) if work.is_later(key));
        targets.push(Target { mark, band, moment, point, lean, later });
    }
    if targets.is_empty() {
        return None;
    }
    let moments = whens.iter().map(|when| match when {
        GoalCase::State(state) => Some((Moment::State(*state), work.option_at(option, WhenEntry::State(*state))?)),
        GoalCase::Planned(key) => {
            let case = work.cases().iter().find(|case| case.key == *key)?;
            Some((Moment::Case(&case.survey), work.option_at(option, WhenEntry::Case(*key))?))
        }
    });
    let moments: Vec<_> = moments.collect::<Option<_>>()?;
    let joint = work.predictor().joint(&moments).ok()?;
    let mut leans = Normals::new(OF_LEANS);
    let (mut all, mut now, mut each) = (0_u32, 0_u32, vec![0_u32; targets.len()]);
    for drawn in joint.draw(DRAWINGS, moments.len()) {
        let off = leans.take(targets.len());
        let (mut every, mut every_now) = (true, true);
        for ((target, off), met) in targets.iter().zip(off).zip(&mut each) {
            let holds = target.band.holds(target.height(work, &drawn, off)?);
            *met += u32::from(holds);
            every &= holds;
            every_now &= holds || target.later;
        }
        all += u32::from(every);
        now += u32::from(every_now);
    }
    #[expect(clippy::cast_precision_loss, reason = "a few thousand drawings")]
    let share = |met: u32| f64::from(met) / DRAWINGS as f64;
    let of_both = targets.iter().any(|target| target.later) && targets.iter().any(|target| !target.later);
    Some(Chance { all: share(all), each: each.into_iter().map(share).collect(), now: of_both.then(|| share(now)) })
}

impl Target {
    /// What the goal is about, in one drawing.
    fn height(&self, work: &Casework, drawn: &Drawn, off: f64) -> Option<Length> {
        let ends = drawn.get(self.moment)?;
        match self.mark {
            GoalMark::Front => ends.front,
            GoalMark::Rear => ends.rear,
            GoalMark::Rake => Some(ends.rear? - ends.front?),
            GoalMark::Lean(_) => self.lean.map(|lean| lean.value + lean.sd * off),
            GoalMark::Point { behind_rear_axle, .. } => {
                let (read, front, rear) = self.point?;
                let overhang = behind_rear_axle.si() / work.found().vehicle.wheelbase.si();
                Some(read + (ends.rear? - rear) * (1.0 + overhang) - (ends.front? - front) * overhang)
            }
        }
    }
}

/// What a point read, and where front and rear stood then; a case is counted from the empty vehicle.
fn point(work: &Casework, place: Option<usize>, when: GoalCase) -> Option<(Length, Length, Length)> {
    let state = match when {
        GoalCase::State(state) => state,
        GoalCase::Planned(_) => LoadState::Empty,
    };
    let stood = |end| Some(work.found().height(end, state)?.value);
    Some((work.case().point_height(place, state)?, stood(End::Front)?, stood(End::Rear)?))
}

/// Right above left at an end, as it is predicted.
fn lean(work: &Casework, option: usize, end: End, when: GoalCase) -> Option<Uncertain<Length>> {
    match when {
        GoalCase::State(state) => *work.predicted(option)?.at(state).ok()?.lean.get(end),
        GoalCase::Planned(key) => {
            let case = work.cases().iter().find(|case| case.key == key)?;
            work.in_case(option, case).ok()?.rear_lean.filter(|_| end == End::Rear)
        }
    }
}
