//! What parts really did: each proof held against its promise, and what a part's proofs together say of the next one.
//!
//! # What one proof says of a part
//!
//! A height after fitting differs from the promise by a miss. Where one part of the option raises that end by a figure that it may be off in
//! (an advertised lift, a rate), and moving that figure by its kind's standard deviation moves the height by `g`, the miss says that this
//! one part was off by `miss / g` of those deviations; all else that the promise left open leaves that figure uncertain by `rest / g`.
//! Of a job the height counts that says the most.
//!
//! # What several say of the next
//!
//! A part of a number is off by `b`, alike in all of that number, and each single one of them by some `u` besides. Before any proof, `b` and
//! `u` together are off by one standard deviation, as the kind's doubt says; of its variance [`BETWEEN_NUMBERS`] is `b`'s and the rest `u`'s
//! (our own working rule). With `n` jobs that say `yᵢ` with variance `vᵢ`, and `ω² = 1 − τ²`:
//!
//! ```text
//! 1 / var(b) = 1 / τ² + Σ 1 / (ω² + vᵢ)        b̂ = var(b) · Σ yᵢ / (ω² + vᵢ)
//! the next one: b̂, with variance var(b) + ω²
//! ```
//!
//! the normal hierarchical model with known variances, which draws few and rough proofs toward what was said of the part and lets many good
//! ones speak for themselves. Source: A. Gelman et al., *Bayesian Data Analysis*, 3rd ed., section 5.4, equations 5.17 and 5.20, with the
//! mean of the population held at what was said (from memory; checked against made-up histories in the tests).

use wise_badger_mechanics::correction::{Axles, Correction, FigureRole, KindFigure, PartDoubt};
use wise_badger_mechanics::tape::ReadingPrecision;
use wise_badger_mechanics::units::InShopUnits as _;

use crate::casework::Casework;
use crate::entry::{PartRecord, PredictedHeights};
use crate::prediction::Moment;
use crate::reading::Phase;
use crate::survey::{End, LoadState};

/// Of what a part of a number may be off by, the share of the variance that all of that number have alike.
pub const BETWEEN_NUMBERS: f64 = 0.8;
/// Fewer jobs than that say nothing of a part.
pub const LEAST_JOBS: usize = 3;
/// One proof counts for no more than so many deviations: what is further off is another story than the part's.
const FURTHEST: f64 = 3.0;
/// A part that moves a height by less per deviation is not seen in it, m.
const SEEN_M: f64 = 0.0008;

/// A height after fitting, held against its promise.
#[derive(Debug, Clone, PartialEq)]
pub struct LedgerLine {
    /// Which end.
    pub end: End,
    /// In which state.
    pub state: LoadState,
    /// The height before, m.
    pub before_m: f64,
    /// What was promised, m.
    pub promised_m: f64,
    /// Half the band of what the tape would read, m: two standard deviations.
    pub band_m: f64,
    /// What it read, m.
    pub read_m: f64,
    /// What it read first after fitting, where it was read again since, m.
    pub first_m: Option<f64>,
    /// What it says of a part.
    pub says: Option<Says>,
}

/// What a height says of one part.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Says {
    /// The part's place in the option.
    pub place: usize,
    /// How far off it was, in standard deviations of its kind.
    pub deviations: f64,
    /// With which standard deviation.
    pub sd: f64,
}

/// What every band takes one reading of the tape to be off by, m: one standard deviation. Nothing is known closer from one.
pub fn taken_for_m() -> f64 {
    ReadingPrecision::shop_tape().tape.si()
}

/// How closely somebody reads, by what they read more than once.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum ReadsHow {
    /// Too few spots to say.
    TooFew,
    /// As close as the bands take a reading for, or closer.
    AsTaken,
    /// Wider than that.
    Wider,
}

/// Fewer spots than that say nothing of a reader (our own working rule).
const LEAST_SPOTS: i64 = 5;
/// So much wider than what a reading is taken for is told; less is chance (our own working rule).
const TOLD_FROM: f64 = 1.25;

/// How somebody reads whose readings at so many spots differ by a standard deviation, m.
pub fn reads_how(spots: i64, sd_m: f64) -> ReadsHow {
    if spots < LEAST_SPOTS {
        ReadsHow::TooFew
    } else if sd_m > TOLD_FROM * taken_for_m() {
        ReadsHow::Wider
    } else {
        ReadsHow::AsTaken
    }
}

/// The mean of what was seen, and its standard deviation (the sample's, with `n − 1`); both nought of nothing, and the latter of one.
pub fn mean_and_sd(seen: &[f64]) -> (f64, f64) {
    let count = seen.len().max(1) as f64;
    let mean = seen.iter().sum::<f64>() / count;
    let variance = seen.iter().map(|one| (one - mean).powi(2)).sum::<f64>() / (count - 1.0).max(1.0);
    (mean, variance.sqrt())
}

/// Every height of a job that was read after fitting, as it was read before, and had been promised.
pub fn lines(work: &Casework, promised: &PredictedHeights) -> Vec<LedgerLine> {
    let (found, fitted) = (work.found(), work.fitted());
    let case = work.case();
    let first = case.survey(Phase::Fitted);
    // What is put down to something else says nothing of a part, nor how it settled.
    let tells = !case.proof.clears_the_parts();
    let mut lines = Vec::new();
    for state in fitted.states() {
        for end in End::BOTH {
            let heights = (found.height(end, state), fitted.height(end, state), promised.get(end, state));
            let (Some(before), Some(read), Some(promise)) = heights else { continue };
            // On another floor, under another load: that is another height.
            if !case.otherwise_at(state, end).is_empty() {
                continue;
            }
            let read_m = read.value.si();
            let first = first.height(end, state).filter(|_| tells && case.otherwise_in(Phase::Fitted, state).is_empty());
            let first_m = first.map(|first| first.value.si()).filter(|first| (first - read_m).abs() > 1e-6);
            let band_m = promise.tape_band_m.unwrap_or(promise.band_m);
            lines.push(LedgerLine {
                end,
                state,
                before_m: before.value.si(),
                promised_m: promise.height_m,
                band_m,
                read_m,
                first_m,
                says: says(work, end, state, read_m - promise.height_m, band_m / 2.0).filter(|_| tells),
            });
        }
    }
    lines
}

/// What a miss says of the one part that it can come from.
fn says(work: &Casework, end: End, state: LoadState, miss: f64, sd: f64) -> Option<Says> {
    let (option, parts) = work.chosen()?;
    let at_end = |part: &Correction| (part.site().axles == Axles::Front) == (end == End::Front);
    let mut learned = parts.iter().enumerate().filter(|(_, part)| at_end(part) && part.learned_from_heights().is_some());
    let (place, part) = learned.next()?;
    // Two parts that may both be off are not told apart by one height.
    if learned.next().is_some() || is_anything_else_in_doubt(parts, place, end) {
        return None;
    }
    let per_deviation = per_deviation(work, parts, place, part, end, state)?;
    if per_deviation.abs() < SEEN_M {
        return None;
    }
    // The promise may have gone by what earlier ones said of the part already.
    let known = option.parts.get(place).and_then(|part| part.shelf.as_deref()?.record);
    let (before, left) = known.map_or((0.0, 1.0), |known| (known.deviations, known.left));
    // What the promise left open of this very part is what is asked here, and counts for nothing beside it.
    let rest = (sd * sd - (per_deviation * left).powi(2)).max(taken_for_m().powi(2)).sqrt();
    let deviations = (before + miss / per_deviation).clamp(-FURTHEST, FURTHEST);
    Some(Says { place, deviations, sd: rest / per_deviation.abs() })
}

/// Whether another part at that end has anything that it may be off in.
fn is_anything_else_in_doubt(parts: &[Correction], place: usize, end: End) -> bool {
    let other = |(at, part): (usize, &Correction)| {
        let here = (part.site().axles == Axles::Front) == (end == End::Front);
        let open = |figure: &KindFigure| figure.role != FigureRole::OfTheVehicle && figure.doubt != PartDoubt::Exact;
        at != place && here && part.row().figures.iter().any(open)
    };
    parts.iter().enumerate().any(other)
}

/// By how much a height moves with a part's figure one deviation up, m.
fn per_deviation(
    work: &Casework,
    parts: &[Correction],
    place: usize,
    part: &Correction,
    end: End,
    state: LoadState,
) -> Option<f64> {
    let moved = part.by_deviations(part.learned_from_heights()?, 1.0)?;
    let with: Vec<Correction> =
        parts.iter().enumerate().map(|(at, of)| if at == place { moved.clone() } else { of.clone() }).collect();
    let stands = |parts: &[Correction]| {
        let ends = work.predictor().ends_at_best(parts, &[Moment::State(state)]).pop()?.ok()?;
        Some(match end {
            End::Front => ends.front?,
            End::Rear => ends.rear?,
        })
    };
    Some((stands(&with)? - stands(parts)?).si())
}

/// What one job says of a part: of its heights the one that says the most.
pub fn of_job(lines: &[LedgerLine], place: usize) -> Option<Says> {
    let says = lines.iter().filter_map(|line| line.says).filter(|says| says.place == place);
    says.min_by(|one, other| one.sd.total_cmp(&other.sd))
}

/// What several jobs say of the next part of a number, each with how far off its part was and with which standard deviation. `None` of fewer
/// than [`LEAST_JOBS`].
///
/// # Source     see the module
pub fn record(jobs: &[(f64, f64)]) -> Option<PartRecord> {
    if jobs.len() < LEAST_JOBS {
        return None;
    }
    let between = BETWEEN_NUMBERS;
    let within = 1.0 - between;
    let weights: Vec<f64> = jobs.iter().map(|(_, sd)| 1.0 / (within + sd * sd)).collect();
    let precision = 1.0 / between + weights.iter().sum::<f64>();
    let sum: f64 = jobs.iter().zip(&weights).map(|((deviations, _), weight)| deviations * weight).sum();
    let left = (1.0 / precision + within).sqrt();
    Some(PartRecord { deviations: sum / precision, left, jobs: u32::try_from(jobs.len()).unwrap_or(u32::MAX) })
}
