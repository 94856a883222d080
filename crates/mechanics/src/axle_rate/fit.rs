//! Rates from any number of measured states: the whole posterior over the rate, on a grid. Raw SI `f64` inside.
//!
//! Both the load and the height of every state are uncertain. For a given rate each height is normal about
//! `H₀ − W/k` with variance `σ_H² + σ_W²/k²`; the free height `H₀` is integrated out; what is left is a curve over
//! `ln k`, multiplied by the prior of the vehicle's class and summed on a grid. A second stage adds its rate and the
//! travel at which it bears to the grid, and is claimed only when it explains the readings twenty times better.

use super::grade::{GOOD, RateGrade};
use crate::uncertain::Uncertain;
use crate::units::{Force, InShopUnits, Length, SpringRate, metres, newtons, newtons_per_metre};

/// One state of one axle: what lies on it beyond the first state, and how high it stands.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct AxleState {
    /// Load on the axle; only differences between states matter.
    pub load: Uncertain<Force>,
    /// Height, from one datum in all states.
    pub height: Uncertain<Length>,
}

/// What is believed of a rate before anything is measured.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct RatePrior {
    /// Both springs of the axle together.
    pub rate: SpringRate,
    /// Standard deviation as a share of it (of the logarithm, exactly).
    pub relative_sd: f64,
}

/// The tyres under a datum that counts them in.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct TyresInHeight {
    /// Both ends of the axle together.
    pub rate: SpringRate,
    /// Standard deviation as a share of it.
    pub relative_sd: f64,
}

/// What a set of states says about an axle's springs.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct RateFit {
    /// Rate of both springs together, first stage.
    pub rate: SpringRate,
    /// Standard deviation of its logarithm: the share by which it may be off.
    pub relative_sd: f64,
    /// Good, rough, or nothing to be said.
    pub grade: Option<RateGrade>,
    /// Load change that would make it good to 10 %.
    pub load_needed: Force,
    /// A second stage, where the readings carry one.
    pub second_stage: Option<SecondStage>,
    /// How far the springs were seen to travel; nothing is claimed beyond.
    pub seen_to: Length,
}

/// A rate that joins further up the travel. Heights alone do not tell an overload leaf from a bump stop.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct SecondStage {
    /// Travel from the lightest state at which it bears.
    pub at_travel: Uncertain<Length>,
    /// The rate it adds.
    pub added_rate: SpringRate,
    /// How many times better it explains the readings than one rate does.
    pub odds: f64,
}

/// Why nothing can be fitted.
#[derive(Debug, Clone, Copy, PartialEq, thiserror::Error)]
#[non_exhaustive]
pub enum RateFitError {
    /// Fewer than two states.
    #[error("a rate needs two states or more, {0} given")]
    TooFewStates(usize),
    /// A reading or a precision that is no finite number, or a precision of nought.
    #[error("state {0} has a load, a height or a precision that cannot be")]
    State(usize),
    /// Readings so far apart, or so exact, that nothing fits them.
    #[error("these readings lie past all that can be worked with; check their figures and units")]
    PastAllFigures,
    /// A prior without meaning.
    #[error("the rate expected beforehand must be above zero, and its spread too")]
    Prior,
}

/// Odds at which a second stage is claimed: strong evidence (Kass and Raftery, JASA 90 (1995), from memory).
const CLAIM_ODDS: f64 = 20.0;
const RATE_STEPS: u32 = 240;
/// Prior standard deviations that the grid spans to either side.
const SPAN: f64 = 6.0;
/// Three-point Gauss–Hermite rule for the tyre's share: places in standard deviations, and weights.
const TYRE_RULE: [(f64, f64); 3] =
    [(-1.732_050_807_568_877_2, 1.0 / 6.0), (0.0, 2.0 / 3.0), (1.732_050_807_568_877_2, 1.0 / 6.0)];
/// Steps over the first of two rates, and where they run, as logarithms: from so far below the single rate, so wide.
const FIRST_STEPS: u32 = 60;
const FIRST_SPAN: (f64, f64) = (1.2, 1.5);
const TRAVEL_STEPS: u32 = 24;
const ADDED_STEPS: u32 = 12;
/// Added rates tried, as multiples of the first rate, lowest and highest.
const ADDED: (f64, f64) = (0.25, 4.0);

struct Plain {
    load: f64,
    load_sd: f64,
    height: f64,
    height_sd: f64,
}

/// Fits an axle's rate, and a second stage where the readings carry one.
///
/// # Sign       loads press down, heights count up; a rate is always above nought
/// # Valid      two states or more, the stops clear in all of them, settled alike
/// # Errors     [`RateFitError`]
/// # Source     Bayes on a grid; errors in both variables by their effective variance (Orear, Am. J. Phys. 50 (1982))
/// # Example
/// ```
/// use wise_badger_mechanics::uncertain::Uncertain;
/// use wise_badger_mechanics::units::{InShopUnits, inches, pounds, pounds_per_inch};
/// use wise_badger_mechanics::axle_rate::{AxleState, RatePrior, fit_rate};
/// let state = |load: f64, height: f64| AxleState {
///     load: Uncertain::new(pounds(load), pounds(26.0)),
///     height: Uncertain::new(inches(height), inches(0.075)),
/// };
/// let prior = RatePrior { rate: pounds_per_inch(370.0), relative_sd: 0.35 };
/// let fit = fit_rate(&[state(0.0, 21.5), state(1000.0, 18.8125)], &prior, None).expect("two states");
/// assert!((fit.rate.customary() - 372.0).abs() < 3.0 && fit.relative_sd < 0.06);
/// ```
pub fn fit_rate(states: &[AxleState], prior: &RatePrior, tyres: Option<&TyresInHeight>) -> Result<RateFit, RateFitError> {
    let plain = checked(states)?;
    let centre = prior.rate.si().ln();
    if !centre.is_finite() || !prior.relative_sd.is_finite() || prior.relative_sd <= 0.0 {
        return Err(RateFitError::Prior);
    }
    let tyre_shares: Vec<(f64, f64)> = match tyres {
        None => vec![(0.0, 1.0)],
        Some(tyres) => {
            TYRE_RULE.iter().map(|(off, weight)| (1.0 / (tyres.rate.si() * (off * tyres.relative_sd).exp()), *weight)).collect()
        }
    };
    let grid = |step: u32| centre + prior.relative_sd * SPAN * (2.0 * f64::from(step) / f64::from(RATE_STEPS) - 1.0);
    let log_prior = |ln_rate: f64| -0.5 * ((ln_rate - centre) / prior.relative_sd).powi(2);
    let single = Curve::over(RATE_STEPS, grid, |ln_rate| {
        log_prior(ln_rate)
            + log_mean(tyre_shares.iter().map(|(tyre, weight)| (log_likelihood(&plain, ln_rate.exp(), None, *tyre), *weight)))
    });
    let (middle, relative_sd) = (single.mean(), single.sd());
    let travel = seen(&plain);
    let second = (plain.len() >= 4).then(|| two_stage(&plain, &single, log_prior, travel, &tyre_shares)).flatten();
    let (rate, relative_sd) = match &second {
        Some(found) => (found.0.exp(), found.1),
        None => (middle.exp(), relative_sd),
    };
    let load_needed = load_needed(&plain, rate);
    if ![rate, relative_sd, load_needed, travel].iter().all(|value| value.is_finite()) {
        return Err(RateFitError::PastAllFigures);
    }
    Ok(RateFit {
        rate: newtons_per_metre(rate),
        relative_sd,
        grade: RateGrade::of(relative_sd),
        load_needed: newtons(load_needed),
        second_stage: second.map(|found| found.2),
        seen_to: metres(travel),
    })
}

fn checked(states: &[AxleState]) -> Result<Vec<Plain>, RateFitError> {
    if states.len() < 2 {
        return Err(RateFitError::TooFewStates(states.len()));
    }
    let plain = |(index, state): (usize, &AxleState)| {
        let plain = Plain {
            load: state.load.value.si(),
            load_sd: state.load.sd.si(),
            height: state.height.value.si(),
            height_sd: state.height.sd.si(),
        };
        let finite = [plain.load, plain.height, plain.load_sd, plain.height_sd].iter().all(|value| value.is_finite());
        let sound = finite && plain.load_sd >= 0.0 && plain.height_sd > 0.0;
        if sound { Ok(plain) } else { Err(RateFitError::State(index)) }
    };
    states.iter().enumerate().map(plain).collect()
}

/// How far apart the highest and the lowest state stand.
fn seen(states: &[Plain]) -> f64 {
    let heights = || states.iter().map(|state| state.height);
    heights().fold(f64::NEG_INFINITY, f64::max) - heights().fold(f64::INFINITY, f64::min)
}

/// `√(2σ_W² + 2k²σ_H²) / 0.10`, with the mean precisions of the states.
fn load_needed(states: &[Plain], rate: f64) -> f64 {
    #[expect(clippy::cast_precision_loss, reason = "a handful of states")]
    let count = states.len() as f64;
    let mean = |part: fn(&Plain) -> f64| states.iter().map(|state| part(state).powi(2)).sum::<f64>() / count;
    (2.0 * mean(|state| state.load_sd) + 2.0 * rate * rate * mean(|state| state.height_sd)).sqrt() / GOOD
}

/// Travel under a load, from where the lightest state stands, and its slope; a second stage joins at a travel.
fn travel(load: f64, rate: f64, stage: Option<(f64, f64)>) -> (f64, f64) {
    match stage {
        Some((at, added)) if load > rate * at => (at + (load - rate * at) / (rate + added), 1.0 / (rate + added)),
        _ => (load / rate, 1.0 / rate),
    }
}

/// Between these a product of variances is taken further.
const FAR_FROM_OVERFLOW: std::ops::Range<f64> = 1e-30..1e30;

/// Logarithm of how likely the heights are, free height integrated out.
fn log_likelihood(states: &[Plain], rate: f64, stage: Option<(f64, f64)>, tyre: f64) -> f64 {
    let lightest = states.iter().map(|state| state.load).fold(f64::INFINITY, f64::min);
    let (mut weights, mut sum, mut squares, mut spread) = (0.0, 0.0, 0.0, 0.0);
    // One logarithm of many variances, as long as their product is a number.
    let mut variances = 1.0_f64;
    for state in states {
        let (spring, slope) = travel(state.load - lightest, rate, stage);
        let free = state.height + spring + (state.load - lightest) * tyre;
        let variance = state.height_sd.powi(2) + (state.load_sd * (slope + tyre)).powi(2);
        let weight = 1.0 / variance;
        weights += weight;
        sum += free * weight;
        squares += free * free * weight;
        variances *= variance;
        if !FAR_FROM_OVERFLOW.contains(&variances) {
            spread += variances.ln();
            variances = 1.0;
        }
    }
    -0.5 * (squares - sum * sum / weights + spread + variances.ln() + weights.ln())
}

/// Logarithm of a weighted mean of exponentials.
fn log_mean(terms: impl Iterator<Item = (f64, f64)> + Clone) -> f64 {
    let most = terms.clone().map(|(log, _)| log).fold(f64::NEG_INFINITY, f64::max);
    most + terms.map(|(log, weight)| weight * (log - most).exp()).sum::<f64>().ln()
}

/// A density on an even grid.
struct Curve {
    places: Vec<f64>,
    shares: Vec<f64>,
    /// Logarithm of the sum before it was brought to one.
    log_total: f64,
}

impl Curve {
    fn over(steps: u32, place: impl Fn(u32) -> f64, log_density: impl Fn(f64) -> f64) -> Self {
        let places: Vec<f64> = (0..=steps).map(place).collect();
        Curve::new(places.iter().map(|place| log_density(*place)).collect(), places)
    }

    fn new(logs: Vec<f64>, places: Vec<f64>) -> Self {
        let most = logs.iter().copied().fold(f64::NEG_INFINITY, f64::max);
        let mut shares: Vec<f64> = logs.into_iter().map(|log| (log - most).exp()).collect();
        let total: f64 = shares.iter().sum();
        shares.iter_mut().for_each(|share| *share /= total);
        Curve { places, shares, log_total: most + total.ln() }
    }

    fn step(&self) -> f64 {
        self.places.first().zip(self.places.get(1)).map_or(1.0, |(first, second)| second - first)
    }

    fn mean(&self) -> f64 {
        self.places.iter().zip(&self.shares).map(|(place, share)| place * share).sum()
    }

    fn sd(&self) -> f64 {
        let mean = self.mean();
        self.places.iter().zip(&self.shares).map(|(place, share)| share * (place - mean).powi(2)).sum::<f64>().sqrt()
    }
}

/// First rate (its logarithm) with its spread and the second stage, where the odds claim one.
fn two_stage(
    plain: &[Plain],
    single: &Curve,
    log_prior: impl Fn(f64) -> f64,
    seen: f64,
    tyres: &[(f64, f64)],
) -> Option<(f64, f64, SecondStage)> {
    let at = |step: u32| seen * (0.1 + 0.8 * f64::from(step) / f64::from(TRAVEL_STEPS));
    let added = |step: u32| ADDED.0 * (ADDED.1 / ADDED.0).powf(f64::from(step) / f64::from(ADDED_STEPS));
    // The first rate is looked for around one that a stiffer second half would have pushed up.
    let around: Vec<f64> = (0..=FIRST_STEPS)
        .map(|step| single.mean() - FIRST_SPAN.0 + FIRST_SPAN.1 * f64::from(step) / f64::from(FIRST_STEPS))
        .collect();
    let centre_tyre = tyres.iter().map(|(tyre, weight)| tyre * weight).sum::<f64>();
    let mut over_rate = vec![f64::NEG_INFINITY; around.len()];
    let mut over_travel = vec![f64::NEG_INFINITY; usize::try_from(TRAVEL_STEPS).ok()? + 1];
    let mut over_added = 0.0;
    let mut total = f64::NEG_INFINITY;
    let join = |a: f64, b: f64| {
        if a > b {
            a + (b - a).exp().ln_1p()
        } else if b.is_finite() {
            b + (a - b).exp().ln_1p()
        } else {
            a
        }
    };
    for (ln_rate, rate_total) in around.iter().zip(&mut over_rate) {
        let prior = log_prior(*ln_rate);
        for (travel_total, travel_step) in over_travel.iter_mut().zip(0..) {
            for added_step in 0..=ADDED_STEPS {
                let (rate, multiple) = (ln_rate.exp(), added(added_step));
                let log = prior + log_likelihood(plain, rate, Some((at(travel_step), multiple * rate)), centre_tyre);
                *rate_total = join(*rate_total, log);
                *travel_total = join(*travel_total, log);
                let known = total;
                total = join(total, log);
                if total.is_finite() {
                    // A running mean, weighed by the share of the total so far.
                    over_added = over_added * (known - total).exp() + multiple * rate * (log - total).exp();
                }
            }
        }
    }
    // Mean over the stage's own grid, on the step of the single-rate grid, so that both are evidence of the same kind.
    let cells = f64::from((TRAVEL_STEPS + 1) * (ADDED_STEPS + 1));
    let log_odds = total - cells.ln() + (FIRST_SPAN.1 / f64::from(FIRST_STEPS)).ln() - (single.log_total + single.step().ln());
    let odds = log_odds.min(700.0).exp();
    if odds < CLAIM_ODDS {
        return None;
    }
    let rate = Curve::new(over_rate, around);
    let place = Curve::new(over_travel, (0..=TRAVEL_STEPS).map(at).collect());
    let at_travel = Uncertain::new(metres(place.mean()), metres(place.sd()));
    Some((rate.mean(), rate.sd(), SecondStage { at_travel, added_rate: newtons_per_metre(over_added), odds }))
}
