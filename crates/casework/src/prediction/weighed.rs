//! Every account of the readings, weighed: which is how likely once they are read, and what all of them together say.

use super::account::{Account, misread, structures};
use super::experiment::{experiment, gap_reading, is_weighed};
use super::model::{FRONT, rear_axles};
use super::telling::{Misread, Telling};
use crate::survey::{AxleLoads, End, LoadState, Survey};
use crate::verdict::RateVerdict;
use wise_badger_mechanics::correction::BUMP_STOP;
use wise_badger_mechanics::identification::{
    Borrowing, Doubt, Doubtful, Forecast, IdentificationError, Identified, LeafFriction, Moving, TapeMark, Told,
};
use wise_badger_mechanics::mixture::{Mixture, Part, below};
use wise_badger_mechanics::side::Side;
use wise_badger_mechanics::stance::{Change, Element, ElementKind, Load, Stance, StopCurve, Vehicle};
use wise_badger_mechanics::uncertain::Uncertain;
use wise_badger_mechanics::units::{InShopUnits, Length, inches, metres};

/// What could be going on with a rear that was read.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
#[non_exhaustive]
pub enum Story {
    /// The springs alone bear, at one rate over all that was read.
    OneRate,
    /// A second stage joined in on the way.
    SecondStage,
    /// A stop bore part of the load.
    StopContact,
    /// A reading was misread.
    Misread(Misread),
}

/// An account held against the readings.
#[derive(Debug)]
pub(super) struct Weighty {
    pub(super) story: Story,
    /// Whether stops that push back are part of it.
    pub(super) has_a_stop: bool,
    /// How likely it is: all together come to one.
    pub(super) weight: f64,
    pub(super) identified: Identified,
    telling: Telling,
}

/// Every account that the readings leave, the leading one first: the likeliest of the story that is told.
#[derive(Debug)]
pub(super) struct Weighed {
    accounts: Vec<Weighty>,
    /// From whom each of them borrows by how much the figures move the vehicle with parts fitted; nobody of one that is solved with every
    /// figure moved.
    lenders: Vec<Option<Lender>>,
}

/// From which account another borrows by how much figures move the vehicle.
#[derive(Debug)]
struct Lender {
    account: usize,
    own: Own,
    borrowing: Borrowing,
}

/// Which figures an account moves itself that borrows the rest.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
enum Own {
    /// Those of what bears at the rear, in which the accounts differ: tires, and what is in front, move every one of them alike.
    WhatBears,
    /// None: it is the vehicle of the account that lends, or all but.
    Nothing,
}

/// Where the vehicle stands in one state by every account. An account by which it does not stand has nothing to say.
#[derive(Debug, Clone)]
pub(super) struct Standing {
    leading: Forecast,
    others: Vec<Option<Forecast>>,
    /// Whether some of them moved only figures of their own, and borrow the rest.
    borrows: bool,
}

/// An account less likely than this is left out.
const NEGLIGIBLE: f64 = 0.005;
/// An account less likely than this borrows from the likeliest of its kind how its figures move the vehicle: on the band of all of them a
/// share so small in its own has no hold.
const LIGHT: f64 = 0.05;
/// With which odds one rate alone is still told, and with which another story takes its place (our own working rules).
const LIKELY_ENOUGH: f64 = 0.15;
pub(super) const CLEARLY: f64 = 0.65;
/// Margin within which nobody sees whether a leaf or a stop bears, as one standard deviation (our own working rule).
const SEEN_IN: f64 = 1.0 / 8.0;
/// How likely somebody who looked saw the wrong thing (our own working rule).
const SEEN_WRONG: f64 = 0.03;

impl Weighed {
    /// Holds every account against the readings.
    ///
    /// # Errors     [`IdentificationError`] where not even one rate goes with them
    /// # Source     Bayes' rule over models, each by its evidence: MacKay, Information Theory, Inference, and Learning Algorithms, 28
    ///   (Cambridge, 2003; from memory)
    pub(super) fn of(survey: &Survey, loads: &AxleLoads, two_states: &RateVerdict) -> Result<Self, IdentificationError> {
        let mut most = f64::NEG_INFINITY;
        let mut hold = |account: &Account, near: Option<&Identified>| -> Result<(f64, Weighty), IdentificationError> {
            let experiment = experiment(survey, loads, two_states, &account.telling);
            let worth = most + NEGLIGIBLE.ln() - account.before.ln();
            let identified = experiment.identify_near(near, worth)?;
            let (borne, seen) = borne_and_seen(survey, &identified);
            let story = match account.telling.misread {
                Some(misread) => Story::Misread(misread),
                None if !borne => Story::OneRate,
                None if account.telling.stop.is_some() => Story::StopContact,
                None => Story::SecondStage,
            };
            let log_weight = account.before.ln() + seen + identified.log_evidence();
            most = f64::max(most, log_weight);
            let has_a_stop = account.telling.stop.is_some();
            Ok((log_weight, Weighty { story, has_a_stop, weight: 0.0, identified, telling: account.telling }))
        };
        let (plain, further) = structures(survey);
        let mut held = vec![(plain, hold(&plain, None)?)];
        // An account that goes with nothing, or comes to nothing, is none.
        held.extend(further.iter().filter_map(|account| Some((*account, hold(account, None).ok()?))));
        // One reading misread: about the springs alone, and about what is likeliest.
        let likeliest = held.iter().max_by(|(_, (a, _)), (_, (b, _))| a.total_cmp(b)).filter(|(account, _)| *account != plain);
        let readings = readings(survey, two_states);
        let about = held.first().into_iter().chain(likeliest);
        let off: Vec<(f64, Weighty)> = about
            .flat_map(|(account, (_, found))| {
                let each = misread(account, readings.iter().copied());
                each.filter_map(|account| hold(&account, Some(&found.identified)).ok()).collect::<Vec<_>>()
            })
            .collect();
        let accounts = ranked(held.into_iter().map(|(_, weighed)| weighed).chain(off).collect());
        let lenders = (0..accounts.len()).map(|place| lender(place, &accounts)).collect();
        Ok(Weighed { accounts, lenders })
    }

    pub(super) fn leading(&self) -> &Weighty {
        self.accounts.first().expect("one rate is always among the accounts")
    }

    /// How likely each story is, the likeliest first.
    pub(super) fn odds(&self) -> Vec<(Story, f64)> {
        odds(self.accounts.iter().map(|account| (account.story, account.weight)))
    }

    /// The leaf friction of an axle, where pressing down or lifting measured it.
    pub(super) fn friction(&self, axle: &str) -> Option<LeafFriction> {
        self.leading().identified.friction(axle)
    }

    /// Where the vehicle stands in a state as it came in, or with other loads aboard; every account with every figure moved, so that
    /// anything may be told of it.
    ///
    /// # Errors     [`IdentificationError`] where it does not stand so by the leading account
    pub(super) fn plain(&self, state: usize, loads: Option<&[Load]>) -> Result<Standing, IdentificationError> {
        let solve = |identified: &Identified| match loads {
            Some(loads) => identified.forecast_with_loads(state, loads, Moving::Everything, |_| Vec::new()),
            None => identified.forecast(state, |_| Vec::new()),
        };
        let others = self.accounts.iter().skip(1).map(|account| solve(&account.identified).ok()).collect();
        Ok(Standing { leading: solve(&self.leading().identified)?, others, borrows: false })
    }

    /// Where it stands in each of some states with parts fitted, their changes made for the vehicle of every account.
    pub(super) fn fitted(
        &self,
        states: &[usize],
        changes: impl Fn(&Vehicle) -> Vec<Change>,
    ) -> Vec<Result<Standing, IdentificationError>> {
        self.solve(|identified, moving| identified.forecasts(states, moving, &changes))
    }

    /// Where it stands in one with other loads aboard.
    ///
    /// # Errors     [`IdentificationError`] where it does not by the leading account
    pub(super) fn with_loads(
        &self,
        state: usize,
        loads: &[Load],
        changes: impl Fn(&Vehicle) -> Vec<Change>,
    ) -> Result<Standing, IdentificationError> {
        let mut solved = self.solve(|identified, moving| vec![identified.forecast_with_loads(state, loads, moving, &changes)]);
        solved.pop().ok_or(IdentificationError::NoSuchState(state))?
    }

    /// Solves some states by every account, each with the figures moved that it does not borrow.
    fn solve(
        &self,
        solve: impl Fn(&Identified, Moving<'_>) -> Vec<Result<Forecast, IdentificationError>>,
    ) -> Vec<Result<Standing, IdentificationError>> {
        let of_account = |(account, lender): (&Weighty, &Option<Lender>)| solve(&account.identified, moving(lender.as_ref()));
        let mut others: Vec<_> =
            self.accounts.iter().zip(&self.lenders).skip(1).map(|account| of_account(account).into_iter()).collect();
        let standing = |leading: Result<Forecast, IdentificationError>| {
            let others = others.iter_mut().map(|account| account.next().and_then(Result::ok)).collect();
            Ok(Standing { leading: leading?, others, borrows: true })
        };
        solve(&self.leading().identified, Moving::Everything).into_iter().map(standing).collect()
    }

    /// The height of a mark by every account, with its weight; none by an account that has nothing to say.
    pub(super) fn heights_told(&self, to: &Standing, mark: &TapeMark) -> Vec<Option<Told>> {
        self.told(to, |account, place| account.identified.height_told(to.of(place)?, mark))
    }

    /// The rise of a mark from one standing to another by every account; none by an account that has nothing to say.
    pub(super) fn rises_told(&self, from: &Standing, to: &Standing, mark: &TapeMark) -> Vec<Option<Told>> {
        self.told(to, |account, place| account.identified.rise_told(from.of(place)?, to.of(place)?, mark))
    }

    /// A figure told of a standing by every account, what it borrows laid over its own.
    fn told(&self, to: &Standing, own: impl Fn(&Weighty, usize) -> Option<Told>) -> Vec<Option<Told>> {
        let mut told: Vec<Option<Told>> = self.accounts.iter().enumerate().map(|(place, account)| own(account, place)).collect();
        // Who moves something of his own borrows from the leading one alone, and may lend in turn to who moves nothing.
        for kind in [Own::WhatBears, Own::Nothing].into_iter().filter(|_| to.borrows) {
            for (place, lender) in self.lenders.iter().enumerate() {
                let Some(lender) = lender.as_ref().filter(|lender| lender.own == kind) else { continue };
                let own = told.get_mut(place).and_then(Option::take);
                let theirs = told.get(lender.account).and_then(Option::as_ref);
                let whole = own.zip(theirs).map(|(own, theirs)| lender.borrowing.whole(own, theirs));
                if let Some(there) = told.get_mut(place) {
                    *there = whole;
                }
            }
        }
        told
    }

    /// Every account, the leading one first.
    pub(super) fn accounts(&self) -> &[Weighty] {
        &self.accounts
    }

    /// The rise of a mark from one standing to another: by the leading account, its band as wide as all accounts make it.
    pub(super) fn rise(&self, from: &Standing, to: &Standing, mark: &TapeMark) -> Option<Uncertain<Length>> {
        let value = self.leading().identified.rise(&from.leading, &to.leading, mark)?.value;
        let rises = self.parts_of(&self.rises_told(from, to, mark));
        Some(Uncertain::new(value, about(rises, value)))
    }

    /// How far the height of a mark may lie from what is said of it, as one standard deviation; `None` for a mark that was never read.
    pub(super) fn height_sd(&self, to: &Standing, mark: &TapeMark, said: Length) -> Option<Length> {
        let heights = self.parts_of(&self.heights_told(to, mark));
        (!heights.is_empty()).then(|| about(heights, said))
    }

    /// What the accounts say of a figure, each with its weight; a spread past all figures says nothing.
    fn parts_of(&self, told: &[Option<Told>]) -> Vec<Part> {
        let each = self.accounts.iter().zip(told).filter_map(|(account, told)| Some(account.part(told.as_ref()?)));
        each.filter(|part| part.mean.is_finite() && part.sd.is_finite()).collect()
    }

    /// The logarithm of what the rear springs gain from one standing to another over how far they come down, by every account.
    pub(super) fn log_rates<'s>(
        &'s self,
        survey: &Survey,
        empty: &'s Standing,
        loaded: &'s Standing,
    ) -> Vec<(Told, &'s Weighty)> {
        let both = self.solved(empty).zip(self.solved(loaded)).zip(&self.accounts);
        let rates = both.filter_map(|((empty, loaded), account)| {
            let (empty, loaded) = (empty?, loaded?);
            let told = account.identified.tell(&[empty, loaded], |vehicle, stances| log_rate(survey, vehicle, stances));
            Some((told?, account))
        });
        rates.collect()
    }

    /// By every account by which it stands.
    pub(super) fn one<'s>(&'s self, standing: &'s Standing) -> impl Iterator<Item = (&'s Weighty, &'s Forecast)> {
        self.accounts.iter().zip(self.solved(standing)).filter_map(|(account, forecast)| Some((account, forecast?)))
    }

    fn solved<'s>(&'s self, standing: &'s Standing) -> impl Iterator<Item = Option<&'s Forecast>> {
        (0..self.accounts.len()).map(|place| standing.of(place))
    }
}

impl Weighty {
    /// What the account says of a figure, with its weight.
    pub(super) fn part(&self, told: &Told) -> Part {
        let sd = self.identified.covariance(told, told).max(0.0).sqrt();
        Part { weight: self.weight, mean: told.value, sd }
    }
}

impl Standing {
    /// By the leading account.
    pub(super) fn leading(&self) -> &Forecast {
        &self.leading
    }

    /// By an account.
    fn of(&self, account: usize) -> Option<&Forecast> {
        match account.checked_sub(1) {
            None => Some(&self.leading),
            Some(other) => self.others.get(other)?.as_ref(),
        }
    }
}

/// Half of the band about a figure that holds what two standard deviations hold.
fn about(parts: Vec<Part>, said: Length) -> Length {
    metres(Mixture::new(parts).half_width_about(said.si()) / 2.0)
}

/// Weights from their logarithms, the negligible left out, the likeliest of the story that is told first.
fn ranked(held: Vec<(f64, Weighty)>) -> Vec<Weighty> {
    let most = held.iter().map(|(log, _)| *log).fold(f64::NEG_INFINITY, f64::max);
    let mut accounts: Vec<Weighty> =
        held.into_iter().map(|(log, account)| Weighty { weight: (log - most).exp(), ..account }).collect();
    for least in [NEGLIGIBLE, 0.0] {
        let total: f64 = accounts.iter().map(|account| account.weight).sum();
        accounts.iter_mut().for_each(|account| account.weight /= total);
        accounts.retain(|account| account.weight >= least);
    }
    let leading = leading(&odds(accounts.iter().map(|account| (account.story, account.weight))));
    accounts.sort_by(|a, b| {
        let leads = |account: &Weighty| Some(account.story) == leading;
        leads(b).cmp(&leads(a)).then(b.weight.total_cmp(&a.weight))
    });
    accounts
}

/// From whom an account borrows by how much figures move the vehicle: one with a reading misread, of that of the same vehicle by which
/// nothing was; a light one, of the likeliest of its kind; any other of the leading one, which borrows of nobody.
fn lender(place: usize, accounts: &[Weighty]) -> Option<Lender> {
    let account = accounts.get(place).filter(|_| place > 0)?;
    let borrowing = |of: &Weighty, own| account.identified.borrowing(&of.identified, moving_of(own));
    let may_borrow = |of: &Weighty, own| borrowing(of, own).is_some();
    let sound = |of: &Weighty| of.telling.misread.is_none();
    let same = |other: &Weighty| sound(other) && other.telling == Telling { misread: None, ..account.telling };
    let kind = |of: &Weighty| (of.telling.stage.is_some(), of.telling.stop.is_some());
    // They stand by their weight behind the leading one: the first of a kind is its likeliest.
    let likeliest =
        accounts.iter().position(|other| sound(other) && kind(other) == kind(account) && may_borrow(other, Own::Nothing));
    let is_heavy = |at: &usize| accounts.get(*at).is_some_and(|of| of.weight >= LIGHT);
    let its_own = accounts.iter().position(|other| same(other) && may_borrow(other, Own::Nothing)).filter(is_heavy);
    let all_of = its_own.or(likeliest).filter(|at| *at != place && (account.telling.misread.is_some() || !is_heavy(&place)));
    let (account, own) = all_of.map_or((0, Own::WhatBears), |account| (account, Own::Nothing));
    Some(Lender { account, own, borrowing: borrowing(accounts.get(account)?, own)? })
}

fn moving(lender: Option<&Lender>) -> Moving<'static> {
    lender.map_or(Moving::Everything, |lender| moving_of(lender.own))
}

fn moving_of(own: Own) -> Moving<'static> {
    match own {
        Own::WhatBears => Moving::These(&bears),
        Own::Nothing => Moving::Nothing,
    }
}

/// Whether a doubt is about what bears at the rear.
fn bears(doubt: &Doubt) -> bool {
    let of_what_bears = match doubt.what {
        Doubtful::SpringRate | Doubtful::StageTravel | Doubtful::StageRate | Doubtful::StopGap | Doubtful::StopRate => true,
        Doubtful::RightOverLeft | Doubtful::TyreRate | Doubtful::AntiRoll => false,
    };
    of_what_bears && doubt.axles.iter().all(|axle| axle != FRONT)
}

/// The story that is told: one rate, the plainest, as long as it is likely enough and no other is likelier than all the rest.
fn leading(odds: &[(Story, f64)]) -> Option<Story> {
    let (first, likely) = odds.first()?;
    let plain = odds.iter().find(|(story, odds)| *story == Story::OneRate && *odds > LIKELY_ENOUGH);
    Some(if *likely > CLEARLY { *first } else { plain.map_or(*first, |(story, _)| *story) })
}

fn odds(accounts: impl Iterator<Item = (Story, f64)>) -> Vec<(Story, f64)> {
    let mut odds: Vec<(Story, f64)> = Vec::new();
    for (story, weight) in accounts {
        match odds.iter_mut().find(|(of, _)| *of == story) {
            Some((_, sum)) => *sum += weight,
            None => odds.push((story, weight)),
        }
    }
    odds.sort_by(|(_, a), (_, b)| b.total_cmp(a));
    odds
}

/// Everything read of the rear that may have been misread.
fn readings(survey: &Survey, two_states: &RateVerdict) -> Vec<Misread> {
    let weighed = |state: &LoadState| is_weighed(survey, two_states, *state) && survey.height(End::Rear, *state).is_some();
    let of_state = |state| {
        let gap = gap_reading(survey, state).map(|_| Misread { state, gap: true });
        std::iter::once(Misread { state, gap: false }).chain(gap)
    };
    survey.states().filter(weighed).flat_map(of_state).collect()
}

/// Whether a stage or a stop of the vehicle found bears in any state that was read, and how well that goes with what somebody saw of it
/// (its logarithm).
fn borne_and_seen(survey: &Survey, identified: &Identified) -> (bool, f64) {
    let vehicle = identified.vehicle();
    let (mut borne, mut seen) = (false, 0.0);
    for (index, state) in survey.states().enumerate() {
        // A state in which it does not stand was not read; it says nothing, and takes nothing from the others.
        let Ok(stance) = identified.stand(index, |_| Vec::new()) else { continue };
        let read = survey.height(End::Rear, state).is_some();
        let (leaf, stop) = (bears_by(survey, &vehicle, &stance), stop_bears_by(survey, &vehicle, &stance));
        borne |= read && leaf.into_iter().chain(stop).any(|by| by > metres(0.0));
        let answers = [
            survey.overload_leaves.bears.get(state).copied().flatten().map(|seen| (leaf, seen)),
            survey.gap(state).filter(|_| state != LoadState::Empty).map(|gap| (stop, gap < inches(SEEN_IN / 2.0))),
        ];
        for (by, seen_to_bear) in answers.into_iter().flatten() {
            let yes = chance_seen(by);
            seen += if seen_to_bear { yes } else { 1.0 - yes }.ln();
        }
    }
    (borne, seen)
}

/// How likely somebody who looks sees it bear.
pub(super) fn chance_seen(by: Option<Length>) -> f64 {
    let bears = by.map_or(0.0, |by| below((by / inches(SEEN_IN)).value));
    SEEN_WRONG + (1.0 - 2.0 * SEEN_WRONG) * bears
}

/// How far past its gap a second stage of the rear springs is pressed; negative, it is clear. `None` where there is none.
pub(super) fn bears_by(survey: &Survey, vehicle: &Vehicle, stance: &Stance) -> Option<Length> {
    // On a pack read leaf by leaf a stage is no single leaf.
    let none = survey.vehicle.rear_pack.is_some();
    let axles = rear_axles(survey).iter().filter(|_| !none).filter_map(|name| {
        let spring = &vehicle.axles.iter().find(|axle| axle.name == *name)?.corners.left.spring;
        let down = -stance.axle(name)?.hub_to_arch_change.left;
        Some(down - spring.stages.first()?.at_travel)
    });
    axles.reduce(Length::max)
}

/// The same of a rear stop that pushes back.
pub(super) fn stop_bears_by(survey: &Survey, vehicle: &Vehicle, stance: &Stance) -> Option<Length> {
    let stops = rear_axles(survey).iter().filter(|name| pushes_back(vehicle, name)).filter_map(|name| {
        let axle = stance.axle(name)?;
        Side::BOTH.into_iter().filter_map(|side| axle.gap(side, BUMP_STOP)).reduce(Length::min)
    });
    stops.map(|gap| -gap).reduce(Length::max)
}

/// Whether the stops of an axle of the model have a force of their own, and not only a clearance.
fn pushes_back(vehicle: &Vehicle, axle: &str) -> bool {
    let pushes = |kind: &ElementKind| matches!(kind, ElementKind::Bump { curve: StopCurve::Linear(rate), .. } if rate.si() > 0.0);
    let stop = |element: &Element| element.name == BUMP_STOP && pushes(&element.kind);
    vehicle.axles.iter().filter(|of| of.name == axle).any(|of| of.corners.left.elements.iter().any(stop))
}

/// `ln(ΔF/Δs)` of all rear springs from empty to loaded.
fn log_rate(survey: &Survey, vehicle: &Vehicle, stances: &[&Stance]) -> Option<f64> {
    let [empty, loaded] = stances else { return None };
    let (mut gained, mut down, mut sides) = (0.0, 0.0, 0.0);
    for name in rear_axles(survey) {
        let axle = vehicle.axles.iter().find(|axle| axle.name == *name)?;
        for side in Side::BOTH {
            let travel = |stance: &Stance| Some(-*stance.axle(name)?.hub_to_arch_change.get(side));
            let (from, to) = (travel(empty)?, travel(loaded)?);
            let spring = &axle.corners.get(side).spring;
            gained += (spring.gained(to) - spring.gained(from)).si();
            down += (to - from).si();
            sides += 1.0;
        }
    }
    let rate = gained * sides / down;
    (rate.is_finite() && rate > 0.0).then(|| rate.ln())
}
