//! Where both ends stand in several states and cases at once with parts fitted: all that is in doubt drawn together, so that what is too
//! high in one of them by a soft spring is so in the others too.

use rand::RngExt as _;
use rand_pcg::Pcg64;
use wise_badger_mechanics::correction::Correction;
use wise_badger_mechanics::identification::{Forecast, TapeMark, Told};
use wise_badger_mechanics::stance::Vehicle;
use wise_badger_mechanics::units::{InShopUnits, Length, metres};

use super::answer::Unpredicted;
use super::experiment::{aboard, is_weighed};
use super::model::end_mark;
use super::parts_off::PartsOff;
use super::predictor::{Predictor, reaches_the_front};
use super::weighed::{Standing, Weighed};
use crate::survey::{End, Ends, LoadState, Survey};

/// A state that was read, or a case that was not.
#[derive(Debug, Clone, Copy)]
pub enum Moment<'s> {
    /// As it was read in a state.
    State(LoadState),
    /// With what is aboard in a case.
    Case(&'s Survey),
}

/// Heights of both ends in some moments, with all that is in doubt of them together.
#[derive(Debug, Clone)]
pub struct Joint {
    /// The heights that are known, by their place among the moments.
    heights: Vec<(usize, End)>,
    accounts: Vec<OfAccount>,
    /// What each figure of the parts does to every height, one standard deviation up and down.
    of_parts: Vec<Vec<[f64; 2]>>,
    /// What is in doubt of each height by itself, as one standard deviation, m.
    own: Vec<f64>,
}

/// Heights by one account of the readings: normal, together.
#[derive(Debug, Clone)]
struct OfAccount {
    weight: f64,
    mean: Vec<f64>,
    /// The lower half of a factor of their covariance, row by row.
    factor: Vec<f64>,
}

/// Where the drawing begins.
const SEED: u128 = 0x0bad_cafe;

/// One drawing: the height of each end in each moment, `None` where it was not read.
pub type Drawn = Vec<Ends<Option<Length>>>;

impl Joint {
    /// Draws so many times, always in the same way.
    pub fn draw(&self, times: usize, moments: usize) -> impl Iterator<Item = Drawn> {
        // The same for every option, so that two options differ by what they are and not by what was drawn.
        let (mut of_readings, mut of_parts) = (Normals::new(1), Normals::new(2));
        (0..times).map(move |_| {
            let mut drawn: Drawn = vec![Ends::default(); moments];
            for ((moment, end), height) in self.heights.iter().zip(self.one(&mut of_readings, &mut of_parts)) {
                let Some(of) = drawn.get_mut(*moment) else { continue };
                match end {
                    End::Front => of.front = Some(metres(height)),
                    End::Rear => of.rear = Some(metres(height)),
                }
            }
            drawn
        })
    }

    fn one(&self, random: &mut Normals, for_parts: &mut Normals) -> Vec<f64> {
        let mut left = random.even();
        let chosen = self.accounts.iter().find(|account| {
            left -= account.weight;
            left <= 0.0
        });
        let Some(account) = chosen.or_else(|| self.accounts.first()) else { return Vec::new() };
        let count = self.heights.len();
        let of_readings = random.take(count);
        let of_heights = random.take(count);
        let of_parts = for_parts.take(self.of_parts.len());
        let mut heights = account.mean.clone();
        for (row, height) in heights.iter_mut().enumerate() {
            let factor = account.factor.get(row * count..row * count + count).unwrap_or_default();
            *height += factor.iter().zip(&of_readings).map(|(factor, drawn)| factor * drawn).sum::<f64>();
            *height += self.own.get(row).copied().unwrap_or(0.0) * of_heights.get(row).copied().unwrap_or(0.0);
            for (figure, drawn) in self.of_parts.iter().zip(&of_parts) {
                let [above, below] = figure.get(row).copied().unwrap_or_default();
                *height += if *drawn > 0.0 { above * drawn } else { below * -drawn };
            }
        }
        heights
    }
}

/// Normal numbers of mean nought and standard deviation one, always the same of a stream.
pub(crate) struct Normals(Pcg64);

impl Normals {
    /// A stream of its own, by its number.
    pub(crate) fn new(stream: u128) -> Self {
        Normals(Pcg64::new(SEED, stream))
    }

    /// An even number from nought to one.
    fn even(&mut self) -> f64 {
        self.0.random()
    }

    /// So many of them.
    ///
    /// # Source     two by two: Box and Muller, Annals of Mathematical Statistics 29, 610 (1958)
    pub(crate) fn take(&mut self, count: usize) -> Vec<f64> {
        let pair = |_| {
            let (one, other) = (1.0 - self.even(), self.even());
            let (length, turn) = ((-2.0 * one.ln()).sqrt(), std::f64::consts::TAU * other);
            [length * turn.cos(), length * turn.sin()]
        };
        let mut numbers: Vec<f64> = (0..count.div_ceil(2)).flat_map(pair).collect();
        numbers.truncate(count);
        numbers
    }
}

/// A factor of a covariance that may leave some of its directions nothing: `L` with `L·Lᵀ` the covariance.
///
/// # Source     Cholesky's decomposition, a column of nought where nothing is left; any text on numerical linear algebra
fn factor_of(covariance: &[f64], n: usize) -> Vec<f64> {
    let mut factor = vec![0.0; n * n];
    let at = |matrix: &[f64], row: usize, column: usize| matrix.get(row * n + column).copied().unwrap_or(0.0);
    for column in 0..n {
        let before = |factor: &[f64], row: usize| (0..column).map(|k| at(factor, row, k) * at(factor, column, k)).sum::<f64>();
        let left = at(covariance, column, column) - before(&factor, column);
        // Below this share of its own variance what is left is rounding.
        if left <= 1e-9 * at(covariance, column, column) {
            continue;
        }
        let pivot = left.sqrt();
        for row in column..n {
            let value = (at(covariance, row, column) - before(&factor, row)) / pivot;
            if let Some(place) = factor.get_mut(row * n + column) {
                *place = value;
            }
        }
    }
    factor
}

/// What every account says of one height, and what is in doubt of it beside that.
struct Height {
    moment: usize,
    end: End,
    by_account: Vec<Option<Told>>,
    own_sd: f64,
    of_parts: Vec<[f64; 2]>,
}

impl Predictor {
    /// Heights of both ends with parts fitted, in some moments together; the parts of each moment are the same, set otherwise at most.
    ///
    /// # Errors     [`Unpredicted`] where one of the moments is not predicted
    pub fn joint(&self, moments: &[(Moment<'_>, &[Correction])]) -> Result<Joint, Unpredicted> {
        let weighed = self.weighed()?;
        let mut heights = Vec::new();
        for (place, (moment, parts)) in moments.iter().enumerate() {
            heights.extend(match moment {
                Moment::State(state) => self.in_state(weighed, place, *state, parts)?,
                Moment::Case(case) => self.with_aboard(weighed, place, case, parts)?,
            });
        }
        let count = heights.len();
        let accounts = weighed.accounts().iter().enumerate().filter_map(|(account, of)| {
            let told: Vec<&Told> =
                heights.iter().map(|height| height.by_account.get(account)?.as_ref()).collect::<Option<_>>()?;
            let covariance = told.iter().flat_map(|one| told.iter().map(|other| of.identified.covariance(one, other)));
            let covariance: Vec<f64> = covariance.collect();
            let sound = covariance.iter().all(|value| value.is_finite());
            sound.then(|| OfAccount {
                weight: of.weight,
                mean: told.iter().map(|told| told.value).collect(),
                factor: factor_of(&covariance, count),
            })
        });
        let mut accounts: Vec<OfAccount> = accounts.collect();
        let all: f64 = accounts.iter().map(|account| account.weight).sum();
        accounts.iter_mut().for_each(|account| account.weight /= all);
        if accounts.is_empty() {
            return Err(Unpredicted::NotSolved);
        }
        let figures = heights.iter().map(|height| height.of_parts.len()).max().unwrap_or_default();
        let figure = |figure: usize| -> Vec<[f64; 2]> {
            heights.iter().map(|height| height.of_parts.get(figure).copied().unwrap_or_default()).collect()
        };
        Ok(Joint {
            of_parts: (0..figures).map(figure).collect(),
            own: heights.iter().map(|height| height.own_sd).collect(),
            heights: heights.iter().map(|height| (height.moment, height.end)).collect(),
            accounts,
        })
    }

    fn in_state(
        &self,
        weighed: &Weighed,
        moment: usize,
        state: LoadState,
        parts: &[Correction],
    ) -> Result<Vec<Height>, Unpredicted> {
        self.may_be_predicted(parts, state)?;
        let index = self.index(state);
        let changes = |vehicle: &Vehicle| self.changes(parts, vehicle);
        let to = weighed.fitted(&[index], changes).pop().ok_or(Unpredicted::NotSolved)?.map_err(|error| self.note(error))?;
        let leading = &weighed.leading().identified;
        let off = PartsOff::of_each(parts, 1, |parts| leading.stands(&[index], |vehicle| self.changes(parts, vehicle)));
        let off = off.into_iter().next().ok_or(Unpredicted::NotSolved)?.map_err(|error| self.note(error))?;
        let from = self.plain(state)?;
        let told = |end: End| self.told(weighed, (from, &to, &off), moment, end, state, parts);
        Ok([End::Rear, End::Front].into_iter().filter_map(told).collect())
    }

    /// One end in a state that was read.
    fn told(
        &self,
        weighed: &Weighed,
        (from, to, off): (&Standing, &Standing, &PartsOff),
        moment: usize,
        end: End,
        state: LoadState,
        parts: &[Correction],
    ) -> Option<Height> {
        let before = self.survey.height(end, state)?;
        let reading = || {
            let friction = self.friction_sd(weighed, to.leading(), end, self.survey.manner(state));
            Length::hypot(before.sd, friction).si()
        };
        let mark = end_mark(&self.survey, end).filter(|_| end == End::Rear || reaches_the_front(parts));
        // Where nothing is fitted at an end it stands where it was read; a trailer's coupler, where it is held.
        let Some(mark) = mark else { return Some(as_read(moment, end, before.value, reading(), weighed)) };
        let of_parts = off.each(to.leading(), &mark);
        let weighs = is_weighed(&self.survey, self.two_states(), state);
        let absolute = if weighs { weighed.heights_told(to, &mark) } else { Vec::new() };
        if absolute.iter().any(Option::is_some) {
            return Some(Height { moment, end, by_account: absolute, own_sd: 0.0, of_parts });
        }
        let origin = before.value.si();
        let by_account = weighed.rises_told(from, to, &mark).into_iter().map(|told| Some(told?.from(origin))).collect();
        Some(Height { moment, end, by_account, own_sd: reading(), of_parts })
    }

    fn with_aboard(
        &self,
        weighed: &Weighed,
        moment: usize,
        case: &Survey,
        parts: &[Correction],
    ) -> Result<Vec<Height>, Unpredicted> {
        self.goes_on(parts)?;
        let case_loads = case.axle_loads();
        let loads = aboard(case, &case_loads).0.loads;
        let index = self.index(LoadState::Empty);
        let changes = |vehicle: &Vehicle| self.changes(parts, vehicle);
        let to = weighed.with_loads(index, &loads, changes).map_err(|error| self.note(error))?;
        let leading = &weighed.leading().identified;
        let solve = |parts: &[Correction]| vec![leading.stand_with_loads(index, &loads, |vehicle| self.changes(parts, vehicle))];
        let off = PartsOff::of_each(parts, 1, solve).pop().ok_or(Unpredicted::NotSolved)?.map_err(|error| self.note(error))?;
        let from = self.plain(LoadState::Empty)?;
        let told = |end: End| {
            // A coupler is held where it is, whatever is aboard.
            let Some(mark) = end_mark(&self.survey, end) else {
                return self.told(weighed, (from, &to, &off), moment, end, LoadState::Empty, parts);
            };
            let told = self.told(weighed, (from, &to, &off), moment, end, LoadState::Empty, parts);
            let height = match end {
                End::Rear => told?,
                // The load moves the front, whether anything is fitted there or not.
                End::Front => {
                    let before = self.survey.height(end, LoadState::Empty)?;
                    let friction = self.friction_sd(weighed, to.leading(), end, self.survey.manner(LoadState::Empty));
                    let rises = weighed.rises_told(from, &to, &mark).into_iter();
                    Height {
                        moment,
                        end,
                        by_account: rises.map(|told| Some(told?.from(before.value.si()))).collect(),
                        own_sd: Length::hypot(before.sd, friction).si(),
                        of_parts: off.each(to.leading(), &mark),
                    }
                }
            };
            let load_sd = case_loads.change.get(end).map_or(0.0, |change| change.sd.si());
            Some(Height { own_sd: height.own_sd.hypot(load_sd / self.rate_under_a_load(&to, end)), ..height })
        };
        Ok([End::Rear, End::Front].into_iter().filter_map(told).collect())
    }
}

/// An end that stands where it was read, by every account.
fn as_read(moment: usize, end: End, height: Length, sd: f64, weighed: &Weighed) -> Height {
    let told = |_| Some(Told::sure(height.si()));
    Height { moment, end, by_account: weighed.accounts().iter().map(told).collect(), own_sd: sd, of_parts: Vec::new() }
}

impl PartsOff {
    /// What each figure of the parts does to a mark, up and down, m: the wider of all by themselves and all of a kind alike.
    fn each(&self, fitted: &Forecast, mark: &TapeMark) -> Vec<[f64; 2]> {
        let moved = |pair: &[_; 2]| pair.each_ref().map(|other| fitted.higher_in(other, mark).map_or(0.0, |by| by.si()));
        self.wider(fitted, mark).iter().map(moved).collect()
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    /// L·Lᵀ gives the covariance back, also where one height is another's double and nothing is left of it.
    #[test]
    fn a_covariance_is_factored_also_where_one_direction_has_nothing() {
        for covariance in [[4.0, 2.0, 1.0, 2.0, 3.0, 0.5, 1.0, 0.5, 2.0], [1.0, 2.0, 0.0, 2.0, 4.0, 0.0, 0.0, 0.0, 0.0]] {
            let factor = factor_of(&covariance, 3);
            for row in 0..3 {
                for column in 0..3 {
                    let value: f64 = (0..3).map(|k| factor[row * 3 + k] * factor[column * 3 + k]).sum();
                    assert!((value - covariance[row * 3 + column]).abs() < 1e-12, "{factor:?}");
                }
            }
        }
    }

    /// Mean, spread and togetherness of what is drawn are those it is drawn from; a figure that moves one way alone does so.
    #[test]
    fn what_is_drawn_is_as_it_was_said() {
        let joint = Joint {
            heights: vec![(0, End::Rear), (1, End::Rear)],
            accounts: vec![
                OfAccount { weight: 0.75, mean: vec![1.0, 2.0], factor: vec![0.1, 0.0, 0.1, 0.0] },
                OfAccount { weight: 0.25, mean: vec![1.4, 2.4], factor: vec![0.1, 0.0, 0.1, 0.0] },
            ],
            of_parts: vec![vec![[0.02, 0.0], [0.0, 0.0]]],
            own: vec![0.0, 0.05],
        };
        let drawn: Vec<[f64; 2]> =
            joint.draw(20_000, 2).map(|drawn| [drawn[0].rear.unwrap().value, drawn[1].rear.unwrap().value]).collect();
        let mean = |of: &dyn Fn(&[f64; 2]) -> f64| drawn.iter().map(of).sum::<f64>() / 20_000.0;
        // A quarter of a normal number's mean absolute value, 0.7979, of what one way alone moves.
        assert!((mean(&|d| d[0]) - (1.1 + 0.02 * 0.3989)).abs() < 0.006);
        assert!((mean(&|d| d[1]) - 2.1).abs() < 0.006);
        let apart = mean(&|d| d[1] - d[0]);
        let spread = mean(&|d| (d[1] - d[0] - apart).powi(2)).sqrt();
        assert!((spread - 0.05_f64.hypot(0.02 * 0.5838)).abs() < 0.002, "what both have in common falls out: {spread}");
    }
}
