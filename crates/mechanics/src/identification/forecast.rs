//! Where the vehicle will stand, with everything still in doubt carried through. Raw SI `f64` inside.

use super::experiment::{IdentificationError, Unknown};
use super::measured::TapeMark;
use super::posterior::Identified;
use crate::stance::{Change, Load, Stance, Vehicle};
use crate::uncertain::Uncertain;
use crate::units::{Length, metres};

/// Where the vehicle stands in one state, with changes.
#[derive(Debug, Clone, PartialEq)]
pub struct Forecast {
    /// At the best figures.
    pub stance: Stance,
    /// With each figure up and down by one standard deviation; `None` for what the model need not be solved for.
    beside: Vec<Option<[Stance; 2]>>,
}

impl Identified {
    /// Solves a state of the experiment, measured or only to be predicted, with changes made for the vehicle at hand
    /// (a re-arched pack's force depends on its rate).
    ///
    /// Each figure is moved by its standard deviation, up and down, so that a kink within the band is seen.
    ///
    /// # Errors     [`IdentificationError`] when the vehicle does not stand, or a change has no meaning
    /// # Source     propagation with correlated inputs, JCGM 100:2008 (GUM), 5.2
    pub fn forecast(&self, state: usize, changes: impl Fn(&Vehicle) -> Vec<Change>) -> Result<Forecast, IdentificationError> {
        self.forecast_each(state, |at| self.experiment.stance_at(state, &self.figures, at, &changes))
    }

    /// The same with other loads aboard, whose weights and places are exact.
    ///
    /// # Errors     as [`Self::forecast`]
    pub fn forecast_with_loads(
        &self,
        state: usize,
        loads: &[Load],
        changes: impl Fn(&Vehicle) -> Vec<Change>,
    ) -> Result<Forecast, IdentificationError> {
        self.forecast_each(state, |at| self.experiment.stance_with_loads(state, &self.figures, at, loads, &changes))
    }

    fn forecast_each(
        &self,
        state: usize,
        solve: impl Fn(&[f64]) -> Result<Stance, IdentificationError>,
    ) -> Result<Forecast, IdentificationError> {
        let mut moved = self.at.clone();
        let mut beside = Vec::with_capacity(self.figures.len());
        for (place, figure) in self.figures.iter().enumerate() {
            if !figure.is_modelled_in(state) {
                beside.push(None);
                continue;
            }
            let sd = self.sd(place);
            let mut off = |by: f64| {
                if let Some(value) = moved.get_mut(place) {
                    *value += by;
                }
                let stance = solve(&moved);
                moved.copy_from_slice(&self.at);
                stance
            };
            beside.push(Some([off(sd)?, off(-sd)?]));
        }
        Ok(Forecast { stance: solve(&self.at)?, beside })
    }

    /// The same at the best figures alone.
    ///
    /// # Errors     as [`Self::forecast`]
    pub fn stand(&self, state: usize, changes: impl Fn(&Vehicle) -> Vec<Change>) -> Result<Stance, IdentificationError> {
        self.experiment.stance_at(state, &self.figures, &self.at, &changes)
    }

    /// The same at the best figures alone.
    ///
    /// # Errors     as [`Self::forecast_with_loads`]
    pub fn stand_with_loads(
        &self,
        state: usize,
        loads: &[Load],
        changes: impl Fn(&Vehicle) -> Vec<Change>,
    ) -> Result<Stance, IdentificationError> {
        self.experiment.stance_with_loads(state, &self.figures, &self.at, loads, &changes)
    }

    /// The height of a mark in a forecast. `None` for a mark that the vehicle does not have, or that was never read, or
    /// where its spread is past all figures.
    pub fn height(&self, forecast: &Forecast, mark: &TapeMark) -> Option<Uncertain<Length>> {
        let change = mark.change(&forecast.stance)?;
        let place = self.figures.iter().position(|figure| *figure == Unknown::KerbHeight(mark.clone()))?;
        let kerb = self.at.get(place)?;
        let mut slopes = forecast.slopes(mark);
        if let Some(slope) = slopes.get_mut(place) {
            *slope += self.sd(place);
        }
        self.finite(kerb + change, &slopes)
    }

    /// How much a mark rises from one forecast to another: what both have in common falls out.
    pub fn rise(&self, from: &Forecast, to: &Forecast, mark: &TapeMark) -> Option<Uncertain<Length>> {
        let rise = mark.change(&to.stance)? - mark.change(&from.stance)?;
        let slopes: Vec<f64> = to.slopes(mark).iter().zip(from.slopes(mark)).map(|(to, from)| to - from).collect();
        self.finite(rise, &slopes)
    }

    /// How much more one mark rises than another from one forecast to another: what all of it has in common falls out.
    pub fn rise_apart(&self, from: &Forecast, to: &Forecast, more: &TapeMark, than: &TapeMark) -> Option<Uncertain<Length>> {
        let rise = |mark: &TapeMark| Some(mark.change(&to.stance)? - mark.change(&from.stance)?);
        let slope = |forecast: &Forecast| -> Vec<f64> {
            forecast.slopes(more).iter().zip(forecast.slopes(than)).map(|(more, than)| more - than).collect()
        };
        let slopes: Vec<f64> = slope(to).iter().zip(slope(from)).map(|(to, from)| to - from).collect();
        self.finite(rise(more)? - rise(than)?, &slopes)
    }

    fn finite(&self, value: f64, slopes: &[f64]) -> Option<Uncertain<Length>> {
        let spread = self.spread(slopes);
        (value.is_finite() && spread.is_finite()).then(|| Uncertain::new(metres(value), metres(spread)))
    }

    fn sd(&self, place: usize) -> f64 {
        self.covariance.get(place * (self.figures.len() + 1)).copied().unwrap_or(0.0).max(0.0).sqrt()
    }

    /// `√(gᵀΣg)`, with `g` per standard deviation of each figure.
    fn spread(&self, slopes: &[f64]) -> f64 {
        let n = self.figures.len();
        let slopes: Vec<f64> =
            slopes.iter().enumerate().map(|(place, slope)| slope / self.sd(place).max(f64::MIN_POSITIVE)).collect();
        let rows = self.covariance.chunks(n).zip(&slopes);
        let variance: f64 =
            rows.map(|(row, slope)| slope * row.iter().zip(&slopes).map(|(c, other)| c * other).sum::<f64>()).sum();
        variance.max(0.0).sqrt()
    }
}

impl Forecast {
    /// How much higher a mark stands in another stance than here; `None` for one that the vehicle does not have.
    pub fn higher_in(&self, other: &Stance, mark: &TapeMark) -> Option<Length> {
        Some(metres(mark.change(other)? - mark.change(&self.stance)?))
    }

    /// How the mark's change moves per standard deviation of each figure.
    fn slopes(&self, mark: &TapeMark) -> Vec<f64> {
        let difference = |[above, below]: &[Stance; 2]| Some(0.5 * (mark.change(above)? - mark.change(below)?));
        self.beside.iter().map(|beside| beside.as_ref().and_then(difference).unwrap_or(0.0)).collect()
    }
}
