//! Why heights came out otherwise than it was said: what each story would make of them, and how well that fits.

use wise_badger_mechanics::units::{InShopUnits, Length, inches, metres};

use crate::survey::{End, LoadState};

/// A height held against what was predicted of it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Miss {
    /// Which end.
    pub end: End,
    /// In which state.
    pub state: LoadState,
    /// Measured less predicted.
    pub difference: Length,
    /// What a reading lies off by itself, as one standard deviation.
    pub reading_sd: Length,
    /// How far that end was predicted to sink from empty to this state.
    pub sinks: Length,
}

/// A story.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum MissCause {
    /// One height was misread; its place among the misses.
    Misread(usize),
    /// The part lifts more or less than was said of it: the rear is off alike in every state.
    PartsLift,
    /// The springs are stiffer or softer: the rear is off the more it sinks.
    Rate,
    /// The load is not the one it was predicted for: both ends may be off with it, and nothing empty.
    Load,
    /// Floor, tires or datum: every height is off alike.
    Ground,
    /// Bushings were tightened in the air, or it was not rolled: the rear stands too high, until it is driven.
    Preload,
}

/// A story with its odds.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct CauseOdds {
    /// Which.
    pub cause: MissCause,
    /// How likely, of all that is weighed.
    pub share: f64,
}

/// What a story is believed before anything is read, and how far it usually goes (our own working rules).
struct Story {
    cause: MissCause,
    prior: f64,
    /// What it adds to each height, one standard deviation strong, in metres.
    pattern: Vec<f64>,
}

/// How much likelier a story is before anything is read where somebody said that something of the kind was not as before (our own
/// working rule).
const SAID_TIMES: f64 = 5.0;

/// The stories by their odds, the likeliest first. `driven` says that it was driven since it was fitted: by then nothing is preloaded, unless
/// somebody said that it was not rolled. `said` are the stories for which something was read otherwise than before.
///
/// Of a story that adds `a·v` to the heights, `a` of standard deviation one, the differences `d` with readings' variances `S` have the
/// likelihood `N(d; 0, S + v·vᵀ)`.
///
/// # Source     marginal likelihood of a linear model with one unknown; determinant and inverse by Sherman and Morrison
pub fn likely_causes(misses: &[Miss], driven: bool, said: &[MissCause]) -> Vec<CauseOdds> {
    let differences: Vec<f64> = misses.iter().map(|miss| miss.difference.si()).collect();
    let variances: Vec<f64> = misses.iter().map(|miss| miss.reading_sd.si().max(metres(0.0005).si()).powi(2)).collect();
    let mut stories = stories(misses, driven && !said.contains(&MissCause::Preload));
    stories.iter_mut().filter(|story| said.contains(&story.cause)).for_each(|story| story.prior *= SAID_TIMES);
    let logs: Vec<f64> =
        stories.iter().map(|story| story.prior.ln() + log_likelihood(&differences, &variances, &story.pattern)).collect();
    let highest = logs.iter().copied().fold(f64::NEG_INFINITY, f64::max);
    let weights: Vec<f64> = logs.iter().map(|log| (log - highest).exp()).collect();
    let all: f64 = weights.iter().sum();
    let mut odds: Vec<CauseOdds> =
        stories.iter().zip(&weights).map(|(story, weight)| CauseOdds { cause: story.cause, share: weight / all }).collect();
    odds.sort_by(|one, other| other.share.total_cmp(&one.share));
    odds
}

fn stories(misses: &[Miss], driven: bool) -> Vec<Story> {
    let inch = inches(1.0).si();
    let of =
        |cause, prior, strength: &dyn Fn(&Miss) -> f64| Story { cause, prior, pattern: misses.iter().map(strength).collect() };
    let rear = |miss: &Miss| if miss.end == End::Rear { 1.0 } else { 0.0 };
    let loaded = |miss: &Miss| if miss.state == LoadState::Empty { 0.0 } else { 1.0 };
    let mut all = vec![
        of(MissCause::PartsLift, 0.3, &|miss| rear(miss) * 0.5 * inch),
        of(MissCause::Rate, 0.15, &|miss| rear(miss) * 0.2 * miss.sinks.si()),
        of(MissCause::Load, 0.25, &|miss| loaded(miss) * 0.2 * miss.sinks.si()),
        of(MissCause::Ground, 0.1, &|_| 0.35 * inch),
    ];
    if !driven {
        all.push(of(MissCause::Preload, 0.1, &|miss| rear(miss) * 0.3 * inch));
    }
    let each = 0.15 / misses.len().max(1) as f64;
    all.extend((0..misses.len()).map(|place| {
        let pattern = (0..misses.len()).map(|at| if at == place { inch } else { 0.0 }).collect();
        Story { cause: MissCause::Misread(place), prior: each, pattern }
    }));
    // A story that can explain nothing here is none.
    all.retain(|story| story.pattern.iter().any(|strength| strength.abs() > 1e-9));
    // What pulls the other way than it can is none either: nothing preloaded stands too low.
    let mean = misses.iter().filter(|miss| miss.end == End::Rear).map(|miss| miss.difference.si()).sum::<f64>();
    all.retain(|story| story.cause != MissCause::Preload || mean > 0.0);
    all
}

fn log_likelihood(differences: &[f64], variances: &[f64], pattern: &[f64]) -> f64 {
    let each = || differences.iter().zip(variances).zip(pattern);
    let strength: f64 = each().map(|((_, variance), of)| of * of / variance).sum();
    let along: f64 = each().map(|((difference, variance), of)| of * difference / variance).sum();
    let square: f64 = each().map(|((difference, variance), _)| difference * difference / variance).sum();
    let log_det: f64 = variances.iter().map(|variance| variance.ln()).sum::<f64>() + (1.0 + strength).ln();
    -0.5 * (square - along * along / (1.0 + strength) + log_det)
}
