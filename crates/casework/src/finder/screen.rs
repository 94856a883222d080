//! Every combination solved once by the account that is told, and how likely it meets the aim to first order.

use wise_badger_mechanics::correction::Correction;
use wise_badger_mechanics::mixture::below;
use wise_badger_mechanics::uncertain::Uncertain;
use wise_badger_mechanics::units::{InShopUnits, Length, inches};

use super::cures::{Faults, comes_for_the_load};
use super::leaning::Leaning;
use super::pool::Piece;
use super::rank::score;
use super::search::{Counted, MOST_JUDGED, Search};
use super::watch::{At, Came, Watch};
use super::worth::Worth;
use crate::aim::{GoalCase, GoalMark, TargetBand};
use crate::casework::Casework;
use crate::prediction::{Moment, Unpredicted};
use crate::survey::{End, Ends, LoadState};

/// Of those that are made of the same kinds, the most that are looked into.
const MOST_ALIKE: usize = 3;
/// What moves the vehicle by less does nothing for it.
pub(super) const SOMETHING_IN: f64 = 1.0 / 16.0;
/// What is expected of a goal that screening does not see.
const UNSEEN: f64 = 0.5;

/// A goal, where screening sees it.
struct Seen {
    mark: GoalMark,
    band: TargetBand,
    moment: usize,
}

/// What every combination is held against.
pub(super) struct Ground<'a> {
    work: &'a Casework,
    pub(super) moments: Vec<Moment<'a>>,
    goals: Vec<Seen>,
    leans: Vec<Leaning<'a>>,
    unseen: usize,
    /// Whether the customer came for how it stands with a load on too.
    for_the_load: bool,
    /// What was found to be behind it that parts put right.
    pub(super) faults: Faults,
    /// Where both ends stand with nothing fitted, and how sure that is.
    plain: Vec<Ends<Option<Uncertain<Length>>>>,
}

/// A part by itself: how far it lifts both ends in each moment, and how far that may be off, m.
#[derive(Debug, Clone)]
pub(super) struct Alone {
    pub(super) rises: Vec<Ends<f64>>,
    sds: Vec<Ends<f64>>,
}

impl<'a> Ground<'a> {
    pub(super) fn of(work: &'a Casework) -> Self {
        let states: Vec<LoadState> =
            work.found().states().filter(|state| work.found().height(End::Rear, *state).is_some()).collect();
        let cases = || work.cases().iter();
        let moments: Vec<Moment<'a>> =
            states.iter().copied().map(Moment::State).chain(cases().map(|case| Moment::Case(&case.survey))).collect();
        let whens: Vec<GoalCase> =
            states.into_iter().map(GoalCase::State).chain(cases().map(|case| GoalCase::Planned(case.key))).collect();
        let (mut goals, mut leans, mut unseen) = (Vec::new(), Vec::new(), 0);
        for goal in work.goals() {
            let moment = whens.iter().position(|when| *when == goal.when());
            match moment.zip(goal.wanted(work.found())) {
                Some((moment, (mark @ (GoalMark::Front | GoalMark::Rear | GoalMark::Rake), band))) => {
                    goals.push(Seen { mark, band, moment });
                }
                Some((moment, (GoalMark::Lean(end), band))) => {
                    let state = match goal.when() {
                        GoalCase::State(state) => state,
                        GoalCase::Planned(_) => LoadState::Empty,
                    };
                    match Leaning::of(work.found(), end, state, band, moment) {
                        Some(lean) => leans.push(lean),
                        None => unseen += 1,
                    }
                }
                _ => unseen += 1,
            }
        }
        let prediction = work.predictor().predict(&[][..]);
        let plain = moments.iter().map(|moment| match moment {
            Moment::State(state) => {
                let predicted = prediction.at(*state).ok();
                Ends { front: predicted.and_then(|of| of.front), rear: predicted.map(|of| of.rear) }
            }
            Moment::Case(case) => {
                let there = work.predictor().in_case(case, &[][..]).ok();
                Ends { front: there.and_then(|of| of.front), rear: there.map(|of| of.rear) }
            }
        });
        let for_the_load = comes_for_the_load(work);
        Ground {
            work,
            plain: plain.collect(),
            moments,
            goals,
            leans,
            unseen,
            faults: Faults::of(work, for_the_load),
            for_the_load,
        }
    }

    /// Whether a moment is any of what the customer came for.
    fn counts(&self, moment: &Moment<'_>) -> bool {
        self.for_the_load || matches!(moment, Moment::State(LoadState::Empty))
    }

    /// The moments that the customer came for.
    pub(super) fn came_for(&self) -> Vec<Moment<'a>> {
        self.moments.iter().filter(|moment| self.counts(moment)).copied().collect()
    }

    /// Whether a part does something with a load on alone, where nobody came for that.
    pub(super) fn is_for_the_load_alone(&self, alone: &Alone) -> bool {
        let moved = |(moment, rise): (&Moment<'_>, &Ends<f64>)| {
            self.counts(moment) && rise.front.abs().max(rise.rear.abs()) >= inches(SOMETHING_IN).si()
        };
        !self.for_the_load && !self.moments.iter().zip(&alone.rises).any(moved)
    }

    /// The moment that the first goal speaks of, where it is seen; loaded, or whatever was read last, without one.
    pub(super) fn first_moment(&self) -> usize {
        let loaded = || self.moments.iter().position(|moment| matches!(moment, Moment::State(LoadState::Loaded)));
        self.goals.first().map(|goal| goal.moment).or_else(loaded).unwrap_or_default()
    }

    /// How far both ends would have to rise for the goals that are seen, on the average of them.
    pub(super) fn wanted_rise(&self) -> Option<f64> {
        let of_goal = |goal: &Seen| {
            let plain = self.plain.get(goal.moment)?;
            let stands = match goal.mark {
                GoalMark::Front => plain.front?.value,
                GoalMark::Rake => plain.rear?.value - plain.front?.value,
                _ => plain.rear?.value,
            };
            Some((goal.band.height - stands).si())
        };
        let each: Vec<f64> = self.goals.iter().filter_map(of_goal).collect();
        #[expect(clippy::cast_precision_loss, reason = "a handful of goals")]
        let count = each.len() as f64;
        (!each.is_empty()).then(|| each.iter().sum::<f64>() / count)
    }

    /// A part by itself.
    ///
    /// # Errors     why it is not predicted in the moment that counts
    pub(super) fn alone(&self, part: &Correction) -> Result<Alone, Unpredicted> {
        let predictor = self.work.predictor();
        let at = |part: &Correction| predictor.ends_at_best(std::slice::from_ref(part), &self.moments);
        let solved = at(part);
        if let Some(Err(why)) = solved.get(self.first_moment()) {
            return Err(*why);
        }
        let rise = |of: &Result<Ends<Option<Length>>, Unpredicted>, plain: &Ends<Option<Uncertain<Length>>>| {
            let of = of.as_ref().ok();
            let rise = |end: fn(&Ends<Option<Length>>) -> Option<Length>, plain: Option<Uncertain<Length>>| {
                of.and_then(end).zip(plain).map_or(0.0, |(to, from)| (to - from.value).si())
            };
            Ends { front: rise(|of| of.front, plain.front), rear: rise(|of| of.rear, plain.rear) }
        };
        let rises_of = |solved: &[_]| solved.iter().zip(&self.plain).map(|(of, plain)| rise(of, plain)).collect::<Vec<_>>();
        let rises = rises_of(&solved);
        let mut variances = vec![Ends { front: 0.0, rear: 0.0 }; rises.len()];
        for (_, [above, below]) in part.one_deviation_off() {
            let (above, below) = (rises_of(&at(&above)), rises_of(&at(&below)));
            for (((variance, rise), above), below) in variances.iter_mut().zip(&rises).zip(above).zip(below) {
                let most = |rise: f64, above: f64, below: f64| (above - rise).abs().max((below - rise).abs()).powi(2);
                variance.front += most(rise.front, above.front, below.front);
                variance.rear += most(rise.rear, above.rear, below.rear);
            }
        }
        let sds = variances.iter().map(|of| Ends { front: of.front.sqrt(), rear: of.rear.sqrt() }).collect();
        Ok(Alone { rises, sds })
    }

    /// How likely a combination meets the goal that it is least likely to meet; `None` where it is not predicted in a moment that one of
    /// them speaks of.
    fn chance(&self, parts: &[Correction], alone: &[&Alone]) -> Result<f64, Unpredicted> {
        let solved = self.work.predictor().ends_at_best(parts, &self.moments);
        let mut least: f64 = if self.unseen > 0 { UNSEEN } else { 1.0 };
        for goal in &self.goals {
            let ends = match solved.get(goal.moment) {
                Some(Ok(ends)) => ends,
                Some(Err(why)) => return Err(*why),
                None => return Err(Unpredicted::NotMeasured),
            };
            let plain = self.plain.get(goal.moment).copied().unwrap_or_default();
            let spread = |end: fn(&Ends<f64>) -> f64, plain: Option<Uncertain<Length>>| {
                let of_parts = alone.iter().filter_map(|of| of.sds.get(goal.moment)).map(|sd| end(sd).powi(2)).sum::<f64>();
                (plain.map_or(0.0, |plain| plain.sd.si().powi(2)) + of_parts).sqrt()
            };
            let (front, rear) = (spread(|of| of.front, plain.front), spread(|of| of.rear, plain.rear));
            let stands = match goal.mark {
                GoalMark::Front => ends.front.map(|height| (height, front)),
                GoalMark::Rake => ends.rear.zip(ends.front).map(|(high, low)| (high - low, front.hypot(rear))),
                _ => ends.rear.map(|height| (height, rear)),
            };
            let (height, sd) = stands.ok_or(Unpredicted::NotMeasured)?;
            least = least.min(within(&goal.band, height, sd));
        }
        for lean in &self.leans {
            let each = parts.iter().zip(alone).filter_map(|(part, alone)| Some((part, *alone.rises.get(lean.moment)?)));
            let (stands, sd) = lean.with(&each.collect::<Vec<_>>());
            least = least.min(within(&lean.band, stands, sd));
        }
        Ok(least)
    }
}

/// The share of a normal height that a band holds.
fn within(band: &TargetBand, height: Length, sd: f64) -> f64 {
    let (low, high) = band.range();
    let deviations = |at: f64| (at - height.si()) / sd.max(1e-9);
    below(deviations(high)) - below(deviations(low))
}

/// The combinations that are looked into, the likeliest first.
pub(super) fn screen(
    search: &Search<'_>,
    ground: &Ground<'_>,
    pieces: &[(Piece, Alone)],
    combined: Vec<Vec<usize>>,
    counted: &mut Counted,
    watch: &dyn Watch,
) -> Vec<Vec<usize>> {
    let of = combined.len();
    let mut scored: Vec<(f64, Vec<usize>)> = combined
        .into_iter()
        .enumerate()
        .take_while(|_| watch.goes_on())
        .map(|(done, places)| {
            watch.comes(Came { at: At::Combinations, done, of });
            let of: Vec<&(Piece, Alone)> = places.iter().filter_map(|place| pieces.get(*place)).collect();
            let parts: Vec<Correction> = of.iter().map(|(piece, _)| piece.correction.clone()).collect();
            let alone: Vec<&Alone> = of.iter().map(|(_, alone)| alone).collect();
            // One that is not predicted is looked into after all others, so that it is said why.
            let chance = ground.chance(&parts, &alone).unwrap_or(0.0);
            let these: Vec<&Piece> = of.iter().map(|(piece, _)| piece).collect();
            let worth = Worth { cures: ground.faults.cured(&these), ..Worth::of(these.iter().map(|piece| &piece.entry)) };
            (score(search, Some(chance), &worth), places)
        })
        .collect();
    counted.screened = scored.len();
    counted.not_screened += of - scored.len();
    scored.sort_by(|(one, _), (other, _)| other.total_cmp(one));
    let mut alike: Vec<(Vec<&str>, usize)> = Vec::new();
    let mut taken = Vec::new();
    for (_, places) in scored {
        let kinds: Vec<&str> = places.iter().filter_map(|place| Some(pieces.get(*place)?.0.correction.row().word)).collect();
        let count = match alike.iter_mut().find(|(of, _)| *of == kinds) {
            Some((_, count)) => count,
            None => {
                alike.push((kinds, 0));
                &mut alike.last_mut().expect("pushed just now").1
            }
        };
        *count += 1;
        if *count <= MOST_ALIKE && taken.len() < MOST_JUDGED {
            taken.push(places);
        }
    }
    taken
}
