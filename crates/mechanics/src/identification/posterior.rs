//! The best agreement of model and readings, and the covariance around it. Raw SI `f64` inside.

use super::arrow::{Arrow, Layout};
use super::doubt::Share;
use super::experiment::{Experiment, IdentificationError, Unknown};
use super::friction::LeafFriction;
use super::ready::{Held, Ready};
use crate::stance::{State, Vehicle};

/// A vehicle as the readings make it, with everything that is still in doubt about it.
#[derive(Debug, Clone, PartialEq)]
pub struct Identified {
    pub(super) experiment: Experiment,
    pub(super) figures: Vec<Unknown>,
    pub(super) at: Vec<f64>,
    /// Row by row, of the figures in their own units.
    pub(super) covariance: Vec<f64>,
    misfits: Vec<Misfit>,
    search: Search,
    log_evidence: f64,
}

/// What it took to find the best agreement.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Search {
    /// Rounds of the search, the last one that moved no further included.
    pub rounds: usize,
    /// How far the last round would still have moved, squared, in standard deviations.
    pub still: f64,
}

/// How far a reading lies from what the vehicle found would show.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Misfit {
    /// Which state.
    pub state: usize,
    /// Which of its readings.
    pub reading: usize,
    /// Reading less model, in standard deviations of the reading.
    pub deviations: f64,
}

const MOST_ROUNDS: usize = 100;
/// How often leaf friction that was measured is taken for what was believed.
const FRICTION_ROUNDS: usize = 3;
/// Step of a difference quotient, in prior standard deviations of a figure, no longer than so much of a logarithm: wide enough that on a
/// kink both its sides are seen, and which of them rounding leaves it on changes nothing.
const SMALL: f64 = 0.02;
const LONGEST_LOG: f64 = 0.01;
/// Longest step of one round in a rate's logarithm.
const LONGEST_STEP: f64 = 0.7;
/// The shortest step that is worth trying, in standard deviations.
const SHORTEST: f64 = 1e-4;
/// Squared length of a step, in standard deviations, that ends the search.
const STILL: f64 = 1e-6;
/// Rounds after which it is enough to be within a tenth of a standard deviation of the best: along an edge where a stage joins the
/// search goes to and fro for ever shorter.
const PATIENT: usize = 30;
const NEARLY_STILL: f64 = 1e-2;
/// By how much an account's evidence must fall short to be seen to before it is found, as a logarithm.
const SURELY: f64 = 1.0;
/// How far a figure is tried to either side where no step gets better, in its own standard deviations, the furthest first.
const BESIDE: [f64; 4] = [0.3, 0.1, 0.03, 0.01];
/// What such a try must gain to count.
const GAINED: f64 = 1e-9;

impl Experiment {
    /// Finds the figures that agree best with what was read and believed, and how far they can be leant on.
    ///
    /// Minimises `Σ((reading − model)/σ)² + Σ(figure/σ_prior)²` by damped Gauss–Newton steps. The covariance is the
    /// inverse of the curvature there; rates are taken by their logarithm, in which it is nearly round.
    ///
    /// # Valid      stops and helpers clear of the readings' states, or in them by more than the readings' errors
    /// # Errors     [`IdentificationError`]
    /// # Source     Tarantola, Inverse Problem Theory (SIAM, 2005), 3.2 (from memory)
    pub fn identify(self) -> Result<Identified, IdentificationError> {
        self.identify_near(None, f64::NEG_INFINITY)
    }

    /// The same for one of several accounts of the same readings: begun where another ended the answer is the same, and found sooner; one
    /// whose evidence is seen to stay below a logarithm is not worth finding closer than to a tenth of a standard deviation.
    ///
    /// # Errors     as [`Self::identify`]
    pub fn identify_near(self, other: Option<&Identified>, worth: f64) -> Result<Identified, IdentificationError> {
        self.check()?;
        let figures = self.figures(&self.friction)?;
        let alike = other.filter(|other| other.figures == figures);
        let at = alike.map_or_else(|| self.start(&figures), |other| other.at.clone());
        let mut found = seek(self, figures, at, worth)?;
        // How far the states spread goes by how strong friction is found to be, and that again by how far they spread.
        for _ in 0..FRICTION_ROUNDS {
            let Some(friction) = found.friction_as_found() else { break };
            let figures = found.experiment.figures(&friction)?;
            found = seek(found.experiment, figures, found.at, worth)?;
        }
        Ok(found)
    }
}

fn seek(experiment: Experiment, figures: Vec<Unknown>, mut at: Vec<f64>, worth: f64) -> Result<Identified, IdentificationError> {
    let layout = Layout::new(&figures, experiment.states.len());
    let mut now = Agreement::at(&experiment, &figures, &layout, &at)?;
    let n = figures.len();
    let mut before = None;
    for rounds in 1..=MOST_ROUNDS {
        let slopes = slopes(&experiment, &figures, &layout, &at)?;
        let (curvature, mut step) = normal_equations(&experiment, &figures, &at, &now, &slopes);
        let factor = layout.factorise(&curvature, n).ok_or(IdentificationError::NotSettled)?;
        let downhill = step.clone();
        factor.solve(&mut step);
        // The step's squared length in standard deviations is its product with the slope that it answers.
        let length: f64 = step.iter().zip(&downhill).map(|(step, down)| step * down).sum();
        let mixed = before.as_ref().and_then(|(from, gone): &(Vec<f64>, Vec<f64>)| mixed(&curvature, &at, &step, from, gone));
        let better = || {
            let along = mixed.and_then(|step| shorten(&experiment, &figures, &layout, &at, &step, &now, f64::INFINITY));
            let along = along.or_else(|| shorten(&experiment, &figures, &layout, &at, &step, &now, SHORTEST / length.sqrt()));
            along.or_else(|| past_a_kink(&experiment, &figures, &layout, &at, &now, &factor))
        };
        let evidence_of = |total: f64| log_evidence(&experiment, &figures, total, factor.log_determinant());
        let enough = || rounds >= PATIENT || evidence_of(now.total - length) < worth - SURELY;
        let there = length.abs() < STILL || (length.abs() < NEARLY_STILL && enough());
        let better = if there { None } else { better() };
        let Some(better) = better else {
            // Nothing near is any better: it is the best there is, in a hollow, or in the edge between two where a stage joins.
            let covariance = factor.inverse(n);
            // Figures so wild that their squares overflow agree with anything.
            if !covariance
                .iter()
                .chain(&at)
                .chain(now.left_over.iter().flatten())
                .chain([&length, &now.total])
                .all(|value| value.is_finite())
            {
                return Err(IdentificationError::NotSettled);
            }
            let search = Search { rounds, still: length };
            let log_evidence = evidence_of(now.total);
            let misfits = now.misfits(&experiment);
            return Ok(Identified { covariance, misfits, experiment, figures, at, search, log_evidence });
        };
        before = Some((std::mem::replace(&mut at, better.0), step));
        now = better.1;
    }
    Err(IdentificationError::NotSettled)
}

/// `−½·least − Σ ln σ_reading − Σ ln σ_prior − ½·ln det(curvature)`: what of Laplace's approximation differs between two accounts of
/// the same readings.
fn log_evidence(experiment: &Experiment, figures: &[Unknown], least: f64, log_determinant: f64) -> f64 {
    let readings = experiment.states.iter().flat_map(|state| &state.readings).map(|reading| reading.si().1.ln());
    let priors = figures.iter().map(|figure| Experiment::prior_sd(figure).ln());
    -0.5 * (least + log_determinant) - readings.sum::<f64>() - priors.sum::<f64>()
}

/// Readings less model, and the sum that is to be least.
struct Agreement {
    /// By state, by reading.
    left_over: Vec<Vec<f64>>,
    total: f64,
}

impl Agreement {
    fn at(experiment: &Experiment, figures: &[Unknown], layout: &Layout, at: &[f64]) -> Result<Self, IdentificationError> {
        let mut total: f64 = figures.iter().zip(at).map(|(figure, value)| (value / Experiment::prior_sd(figure)).powi(2)).sum();
        let mut left_over = Vec::with_capacity(experiment.states.len());
        let vehicle = experiment.vehicle_at(figures, at);
        let mut ready = Ready::new(&vehicle);
        for (index, measured) in experiment.states.iter().enumerate() {
            if measured.readings.is_empty() {
                left_over.push(Vec::new());
                continue;
            }
            let (state, held) = experiment.laid_over(index, figures, at, layout)?;
            let modelled = experiment.shown(index, ready.settle(&state, &measured.state.changes, &held)?)?;
            let left: Vec<f64> = measured
                .readings
                .iter()
                .zip(modelled)
                .map(|(reading, modelled)| {
                    let added: f64 = reading.mark().map_or(0.0, |mark| {
                        let moving = layout.moving(index).filter_map(|place| figures.get(place).zip(at.get(place)));
                        moving.map(|(figure, value)| experiment.adds(figure, index, mark) * value).sum()
                    });
                    reading.si().0 - modelled - added
                })
                .collect();
            total += measured.readings.iter().zip(&left).map(|(reading, left)| (left / reading.si().1).powi(2)).sum::<f64>();
            left_over.push(left);
        }
        Ok(Agreement { left_over, total })
    }

    fn misfits(&self, experiment: &Experiment) -> Vec<Misfit> {
        let states = experiment.states.iter().zip(&self.left_over).enumerate();
        let each = states.flat_map(|(state, (measured, left))| {
            measured.readings.iter().zip(left).enumerate().map(move |(reading, (read, left))| Misfit {
                state,
                reading,
                deviations: left / read.si().1,
            })
        });
        each.collect()
    }
}

impl Experiment {
    /// A state with the figures laid over it, what is changed on the vehicle left out, and how leaf friction holds it.
    fn laid_over<'f>(
        &self,
        index: usize,
        figures: &'f [Unknown],
        at: &[f64],
        layout: &Layout,
    ) -> Result<(State, Held<'f>), IdentificationError> {
        let state = self.loads_at(index, figures, at, layout.moving(index)).ok_or(IdentificationError::NoSuchState(index))?;
        let held = layout.moving(index).filter_map(|place| figures.get(place)?.holds(index, *at.get(place)?));
        Ok((state, held.collect()))
    }
}

/// How the readings of each state move with every figure that moves them, by reading.
type Slopes = Vec<Vec<(usize, Vec<f64>)>>;

/// The slopes where the figures are, each by a difference quotient to both sides.
fn slopes(experiment: &Experiment, figures: &[Unknown], layout: &Layout, at: &[f64]) -> Result<Slopes, IdentificationError> {
    let vehicle = experiment.vehicle_at(figures, at);
    let mut same = Ready::new(&vehicle);
    let laid_over = |index| experiment.laid_over(index, figures, at, layout);
    let mut states = (0..experiment.states.len()).map(laid_over).collect::<Result<Vec<(State, Held<'_>)>, _>>()?;
    let mut slopes: Slopes = vec![Vec::new(); states.len()];
    let mut loads = Vec::new();
    let with_a_figure_off = |place: usize, figure: &Unknown| {
        let step = figure.small_step(experiment);
        [step, -step].map(|step| {
            let moved: Vec<f64> = at.iter().enumerate().map(|(of, at)| if of == place { at + step } else { *at }).collect();
            experiment.vehicle_at(figures, &moved)
        })
    };
    let is_doubt = |figure: &Unknown| matches!(figure, Unknown::Doubt(_));
    let off = figures.iter().enumerate().map(|(place, figure)| is_doubt(figure).then(|| with_a_figure_off(place, figure)));
    let off: Vec<Option<[Vehicle; 2]>> = off.collect();
    // Figure by figure, so that no more than two other vehicles are laid out at a time.
    let mut others: Option<[Ready<'_>; 2]> = None;
    for ((place, (figure, value)), off) in figures.iter().zip(at).enumerate().zip(&off) {
        let step = figure.small_step(experiment);
        if let Some(pair) = off {
            match &mut others {
                Some(others) => others.iter_mut().zip(pair).for_each(|(other, vehicle)| other.turn_to(vehicle)),
                None => others = Some(pair.each_ref().map(Ready::new)),
            }
        }
        let each = experiment.states.iter().zip(&mut states).zip(&mut slopes).enumerate();
        for (index, ((measured, (state, held)), slopes)) in each {
            if measured.readings.is_empty() || figure.owner().is_some_and(|of| of != index) {
                continue;
            }
            if !figure.moves_the_readings_in(index) {
                let marks = measured.readings.iter().map(|reading| reading.mark());
                slopes.push((place, marks.map(|mark| mark.map_or(0.0, |mark| experiment.adds(figure, index, mark))).collect()));
                continue;
            }
            let mut shown = |way: usize, step: f64| {
                let held_before = held.len();
                loads.clone_from(&state.loads);
                experiment.load_off(state, index, figure, step);
                if let Some(((_, now), (axle, then))) = figure.holds(index, *value).zip(figure.holds(index, value + step)) {
                    held.push((axle, then - now));
                }
                let changes = &measured.state.changes;
                let other = others.as_mut().filter(|_| off.is_some());
                let stance = match other.and_then(|pair| pair.get_mut(way)) {
                    Some(own) => own.settle(state, changes, held)?,
                    None => same.settle(state, changes, held)?,
                };
                let shown = experiment.shown(index, stance);
                held.truncate(held_before);
                std::mem::swap(&mut state.loads, &mut loads);
                shown
            };
            let (above, below) = (shown(0, step)?, shown(1, -step)?);
            slopes.push((place, above.iter().zip(below).map(|(above, below)| (above - below) / (2.0 * step)).collect()));
        }
    }
    Ok(slopes)
}

impl Unknown {
    fn small_step(&self, experiment: &Experiment) -> f64 {
        match self {
            Unknown::Doubt(index) => {
                let sd = experiment.doubts.get(*index).map_or(1.0, |doubt| doubt.relative_sd);
                SMALL.min(LONGEST_LOG / sd)
            }
            _ => SMALL,
        }
    }

    /// How far a round may move it.
    fn longest_step(&self, experiment: &Experiment) -> f64 {
        match self {
            Unknown::Doubt(index) => LONGEST_STEP / experiment.doubts.get(*index).map_or(1.0, |doubt| doubt.relative_sd),
            _ => f64::INFINITY,
        }
    }
}

/// `JᵀWJ + P` and `JᵀW r − P x`, summed state by state over the figures that move its readings.
fn normal_equations(
    experiment: &Experiment,
    figures: &[Unknown],
    at: &[f64],
    now: &Agreement,
    slopes: &Slopes,
) -> (Vec<f64>, Vec<f64>) {
    let n = figures.len();
    let (mut curvature, mut downhill) = (vec![0.0; n * n], vec![0.0; n]);
    for (place, (figure, value)) in figures.iter().zip(at).enumerate() {
        let precision = Experiment::prior_sd(figure).powi(-2);
        if let (Some(curved), Some(down)) = (curvature.get_mut(place * (n + 1)), downhill.get_mut(place)) {
            *curved = precision;
            *down = -precision * value;
        }
    }
    for ((measured, left_over), slopes) in experiment.states.iter().zip(&now.left_over).zip(slopes) {
        // Every slope and every reading left over, in standard deviations of its reading.
        let weigh = |values: &[f64]| -> Vec<f64> {
            values.iter().zip(&measured.readings).map(|(value, reading)| value / reading.si().1).collect()
        };
        let left_over = weigh(left_over);
        let rows: Vec<(usize, Vec<f64>)> = slopes.iter().map(|(place, slope)| (*place, weigh(slope))).collect();
        let product = |a: &[f64], b: &[f64]| a.iter().zip(b).map(|(a, b)| a * b).sum::<f64>();
        for (row, of_row) in &rows {
            if let Some(down) = downhill.get_mut(*row) {
                *down += product(of_row, &left_over);
            }
            for (column, of_column) in &rows {
                if let Some(curved) = curvature.get_mut(row * n + column) {
                    *curved += product(of_row, of_column);
                }
            }
        }
    }
    (curvature, downhill)
}

/// A step mixed of this round's and the last one's: where readings and model lie far apart a step is too long or too short by the same
/// share round after round, and two of them tell by how much.
///
/// # Source     Anderson, Iterative procedures for nonlinear integral equations (J. ACM 12, 1965), of depth one (from memory)
fn mixed(curvature: &[f64], at: &[f64], step: &[f64], from: &[f64], gone: &[f64]) -> Option<Vec<f64>> {
    let change: Vec<f64> = step.iter().zip(gone).map(|(step, gone)| step - gone).collect();
    let along = |other: &[f64]| -> f64 {
        let rows = curvature.chunks(change.len()).zip(&change);
        rows.map(|(row, change)| change * row.iter().zip(other).map(|(c, other)| c * other).sum::<f64>()).sum()
    };
    let share = along(step) / along(&change);
    let of_both = at.iter().zip(step).zip(from.iter().zip(gone));
    let mixed = of_both.map(|((at, step), (from, gone))| step - share * (at + step - from - gone));
    share.is_finite().then(|| mixed.collect())
}

/// Goes along a step as far as it gets better, halving it down to the least share; `None` where nothing gets better.
fn shorten(
    experiment: &Experiment,
    figures: &[Unknown],
    layout: &Layout,
    at: &[f64],
    step: &[f64],
    now: &Agreement,
    least: f64,
) -> Option<(Vec<f64>, Agreement)> {
    let longest = figures.iter().zip(step).map(|(figure, step)| figure.longest_step(experiment) / step.abs());
    let mut share = longest.fold(1.0, f64::min);
    loop {
        let moved: Vec<f64> = at.iter().zip(step).map(|(at, step)| at + share * step).collect();
        if let Ok(there) = Agreement::at(experiment, figures, layout, &moved)
            && there.total < now.total
        {
            return Some((moved, there));
        }
        share *= 0.5;
        if least.is_nan() || share < least {
            return None;
        }
    }
}

/// Where a stage joins the model has a kink, and the slopes taken across it may lead nowhere, though there is something better to one
/// side: every figure of the
/// springs is tried to both, by shares of its standard deviation. `None` where nothing near is any better.
fn past_a_kink(
    experiment: &Experiment,
    figures: &[Unknown],
    layout: &Layout,
    at: &[f64],
    now: &Agreement,
    factor: &Arrow<'_>,
) -> Option<(Vec<f64>, Agreement)> {
    let n = figures.len();
    let sides = || BESIDE.into_iter().flat_map(|share| [share, -share]);
    // With the others where they agree best with it: along its column of the covariance.
    let of_springs = figures.iter().enumerate().filter(|(_, figure)| matches!(figure, Unknown::Doubt(_)));
    let columns: Vec<Vec<f64>> = of_springs
        .map(|(place, _)| {
            let mut column: Vec<f64> = (0..n).map(|row| if row == place { 1.0 } else { 0.0 }).collect();
            factor.solve(&mut column);
            let sd = column.get(place).map_or(1.0, |variance| variance.max(f64::MIN_POSITIVE).sqrt());
            column.iter().map(|covariance| covariance / sd).collect()
        })
        .collect();
    let tried = sides().flat_map(|share| columns.iter().map(move |column| (column, share)));
    for (column, share) in tried {
        let moved: Vec<f64> = at.iter().zip(column).map(|(at, along)| at + share * along).collect();
        if let Ok(there) = Agreement::at(experiment, figures, layout, &moved)
            && there.total < now.total - GAINED * now.total.max(1.0)
        {
            return Some((moved, there));
        }
    }
    None
}

impl Identified {
    /// The vehicle with the figures that agree best.
    pub fn vehicle(&self) -> Vehicle {
        self.experiment.vehicle_at(&self.figures, &self.at)
    }

    /// What the readings say about every doubt, in the order they were given.
    pub fn shares(&self) -> Vec<Share> {
        let n = self.figures.len();
        let of_doubt = |(place, doubt): (usize, &super::doubt::Doubt)| {
            let variance = self.covariance.get(place * n + place).copied().unwrap_or(1.0);
            Share {
                log_factor: self.at.get(place).copied().unwrap_or(0.0) * doubt.relative_sd,
                relative_sd: variance.sqrt() * doubt.relative_sd,
                told_by_readings: (1.0 - variance).clamp(0.0, 1.0),
            }
        };
        self.experiment.doubts.iter().enumerate().map(of_doubt).collect()
    }

    /// Logarithm of how likely the readings are, were the vehicle of the kind that was given, up to a constant that all accounts of the
    /// same readings share.
    ///
    /// # Source     Laplace's approximation: MacKay, Information Theory, Inference, and Learning Algorithms, 27 (Cambridge, 2003; from
    ///   memory)
    pub fn log_evidence(&self) -> f64 {
        self.log_evidence
    }

    /// How strong an axle's leaf friction is found to be, where pressing down or lifting measured it.
    pub fn friction(&self, axle: &str) -> Option<LeafFriction> {
        let believed = self.experiment.friction.iter().find(|friction| friction.axle == axle)?;
        let of_axle = |figure: &Unknown| matches!(figure, Unknown::FrictionSize { axle, .. } if *axle == believed.axle);
        let place = self.figures.iter().position(of_axle)?;
        let share = believed.share * (believed.relative_sd * self.at.get(place)?).exp();
        let sd = believed.relative_sd * self.covariance.get(place * (self.figures.len() + 1))?.sqrt();
        Some(LeafFriction { axle: axle.to_owned(), share: share.min(1.0), relative_sd: sd.min(1.0) })
    }

    /// The same of every axle on which it was measured.
    pub fn friction_measured(&self) -> impl Iterator<Item = LeafFriction> {
        self.experiment.friction.iter().filter_map(|believed| self.friction(&believed.axle))
    }

    /// The axles' leaf friction as found; `None` where no reading measured it on any.
    fn friction_as_found(&self) -> Option<Vec<LeafFriction>> {
        let found = |believed: &LeafFriction| self.friction(&believed.axle);
        self.friction_measured().next()?;
        Some(self.experiment.friction.iter().map(|believed| found(believed).unwrap_or_else(|| believed.clone())).collect())
    }

    /// What it took to find it.
    pub fn search(&self) -> Search {
        self.search
    }

    /// The reading that fits worst, if it lies further off than `deviations` of its own.
    pub fn misfit(&self, deviations: f64) -> Option<Misfit> {
        let off = |misfit: &Misfit| misfit.deviations.abs();
        let worst = self.misfits.iter().max_by(|a, b| off(a).total_cmp(&off(b)))?;
        (off(worst) > deviations).then_some(*worst)
    }
}
