//! Where the vehicle will stand, with everything still in doubt carried through. Raw SI `f64` inside.

use super::experiment::{IdentificationError, Unknown};
use super::measured::TapeMark;
use super::moving::Moving;
use super::posterior::Identified;
use super::ready::Ready;
use crate::stance::{Change, Load, SidewaysPull, Stance, State, Vehicle};
use crate::uncertain::Uncertain;
use crate::units::{Length, metres};

/// Where the vehicle stands in one state, with changes.
#[derive(Debug, Clone, PartialEq)]
pub struct Forecast {
    /// At the best figures.
    pub stance: Stance,
    /// With each figure up and down by one standard deviation; `None` for what the model need not be solved for, or was not.
    beside: Vec<Option<[Stance; 2]>>,
}

/// A state to be solved, what is aboard in it where that is something else than was read, and what pulls it to one side.
#[derive(Clone, Copy)]
struct Asked<'l> {
    state: usize,
    loads: Option<&'l [Load]>,
    pull: Option<SidewaysPull>,
}

impl<'l> Asked<'l> {
    fn as_measured(state: usize) -> Asked<'static> {
        Asked { state, loads: None, pull: None }
    }

    fn with_loads(state: usize, loads: &'l [Load]) -> Self {
        Asked { state, loads: Some(loads), pull: None }
    }
}

/// A vehicle with what is changed on it, and the states in which it is asked where it comes to rest.
struct AsAt<'s> {
    vehicle: Vehicle,
    of_parts: Vec<Change>,
    /// Each with the changes that it has of its own, and those of the parts after them.
    states: Vec<(&'s State, Option<Vec<Change>>)>,
}

impl AsAt<'_> {
    /// Where it comes to rest in each, laid out once with what is changed on it, in the room of a vehicle that was solved before.
    fn settle<'v>(&'v self, ready: &mut Ready<'v>) -> Vec<Result<Stance, IdentificationError>> {
        ready.turn_to(&self.vehicle);
        let changes = |own: &'v Option<Vec<Change>>| own.as_deref().unwrap_or(&self.of_parts);
        self.states.iter().map(|(state, own)| ready.settle(state, changes(own), &Vec::new()).cloned()).collect()
    }
}

fn as_measured(states: &[usize]) -> Vec<Asked<'static>> {
    states.iter().copied().map(Asked::as_measured).collect()
}

fn first<T>(of_one: Vec<T>) -> T {
    of_one.into_iter().next().expect("as many answers as were asked for")
}

/// Puts where a vehicle stands with a figure up and down to a forecast; where it does not stand so, there is none.
fn put(
    forecasts: &mut [Result<Forecast, IdentificationError>],
    of: usize,
    place: usize,
    [above, below]: [Result<Stance, IdentificationError>; 2],
) {
    let Some(forecast) = forecasts.get_mut(of) else { return };
    match (above, below) {
        (Ok(above), Ok(below)) => {
            if let Some(beside) = forecast.as_mut().ok().and_then(|forecast| forecast.beside.get_mut(place)) {
                *beside = Some([above, below]);
            }
        }
        (Err(error), _) | (_, Err(error)) => {
            if forecast.is_ok() {
                *forecast = Err(error);
            }
        }
    }
}

/// A figure worked out of forecasts, and how it hangs on everything that is in doubt. In SI units.
#[derive(Debug, Clone, PartialEq)]
pub struct Told {
    /// At the best figures.
    pub value: f64,
    /// Per standard deviation of each.
    slopes: Vec<f64>,
}

impl Told {
    /// A figure that hangs on nothing in doubt.
    pub fn sure(value: f64) -> Self {
        Told { value, slopes: Vec::new() }
    }

    /// How it hangs on the figure at a place.
    pub(super) fn slope(&self, place: usize) -> f64 {
        self.slopes.get(place).copied().unwrap_or(0.0)
    }

    pub(super) fn set_slope(&mut self, place: usize, slope: f64) {
        if let Some(there) = self.slopes.get_mut(place) {
            *there = slope;
        }
    }

    /// The same figure counted from elsewhere.
    #[must_use]
    pub fn from(self, origin: f64) -> Self {
        Told { value: self.value + origin, ..self }
    }
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
        first(self.forecast_each(&[Asked::as_measured(state)], Moving::Everything, &changes))
    }

    /// The same of several states, in their order, with some of the figures moved: what is changed on the vehicle is laid out once for
    /// all of them.
    pub fn forecasts(
        &self,
        states: &[usize],
        moving: Moving<'_>,
        changes: impl Fn(&Vehicle) -> Vec<Change>,
    ) -> Vec<Result<Forecast, IdentificationError>> {
        self.forecast_each(&as_measured(states), moving, &changes)
    }

    /// The same with other loads aboard, whose weights and places are exact.
    ///
    /// # Errors     as [`Self::forecast`]
    pub fn forecast_with_loads(
        &self,
        state: usize,
        loads: &[Load],
        moving: Moving<'_>,
        changes: impl Fn(&Vehicle) -> Vec<Change>,
    ) -> Result<Forecast, IdentificationError> {
        first(self.forecast_each(&[Asked::with_loads(state, loads)], moving, &changes))
    }

    /// The same while something pulls the body to one side.
    ///
    /// # Errors     as [`Self::forecast`]
    pub fn forecast_pulled(
        &self,
        state: usize,
        pull: SidewaysPull,
        changes: impl Fn(&Vehicle) -> Vec<Change>,
    ) -> Result<Forecast, IdentificationError> {
        first(self.forecast_each(&[Asked { pull: Some(pull), ..Asked::as_measured(state) }], Moving::Everything, &changes))
    }

    fn forecast_each(
        &self,
        asked: &[Asked<'_>],
        moving: Moving<'_>,
        changes: &dyn Fn(&Vehicle) -> Vec<Change>,
    ) -> Vec<Result<Forecast, IdentificationError>> {
        let states = self.states_of(asked);
        let sound: Vec<&State> = states.iter().flatten().collect();
        // What moves the loads of a state moves nothing of the vehicle, and is solved along with its best figures.
        let of_loads = if matches!(moving, Moving::Nothing) { Vec::new() } else { self.with_loads_off(asked, &states) };
        let off = of_loads.iter().flat_map(|(_, _, pair)| pair);
        let doubts = self.figures.iter().enumerate().filter(|(_, figure)| matches!(figure, Unknown::Doubt(_)));
        let doubts = doubts.filter(|(_, figure)| moving.moves(&self.experiment, figure));
        let doubts: Vec<usize> = doubts.map(|(place, _)| place).collect();
        let best = self.as_at(&self.at, &sound.iter().copied().chain(off).collect::<Vec<_>>(), changes);
        let beside: Vec<[AsAt; 2]> = doubts
            .iter()
            .map(|place| {
                [1.0, -1.0].map(|way| {
                    let mut moved = self.at.clone();
                    if let Some(value) = moved.get_mut(*place) {
                        *value += way * self.sd(*place);
                    }
                    self.as_at(&moved, &sound, changes)
                })
            })
            .collect();
        let mut ready = Ready::new(&best.vehicle);
        let mut at_best = best.settle(&mut ready).into_iter();
        let mut next = || at_best.next().expect("as many answers as states");
        let mut forecasts: Vec<Result<Forecast, IdentificationError>> = Vec::with_capacity(asked.len());
        for state in &states {
            let stance = state.as_ref().map_err(Clone::clone).and_then(|_| next());
            forecasts.push(stance.map(|stance| Forecast { stance, beside: vec![None; self.figures.len()] }));
        }
        for (asked, place, _) in &of_loads {
            put(&mut forecasts, *asked, *place, [next(), next()]);
        }
        for (place, beside) in doubts.iter().zip(&beside) {
            let [above, below] = beside.each_ref().map(|moved| moved.settle(&mut ready));
            let places = states.iter().enumerate().filter_map(|(asked, state)| state.is_ok().then_some(asked));
            for (asked, (above, below)) in places.zip(above.into_iter().zip(below)) {
                put(&mut forecasts, asked, *place, [above, below]);
            }
        }
        forecasts
    }

    /// The states asked for, with the loads that are aboard at the best figures.
    fn states_of(&self, asked: &[Asked<'_>]) -> Vec<Result<State, IdentificationError>> {
        let state = |asked: &Asked<'_>| {
            let state = self.experiment.state_at(asked.state, &self.figures, &self.at)?;
            let state = State { sideways_pull: asked.pull, ..state };
            Ok(asked.loads.map_or(state.clone(), |loads| State { loads: loads.to_vec(), ..state }))
        };
        asked.iter().map(state).collect()
    }

    /// Each state asked for with each figure of its loads up and down by one standard deviation: which one it is, and which figure.
    fn with_loads_off(
        &self,
        asked: &[Asked<'_>],
        states: &[Result<State, IdentificationError>],
    ) -> Vec<(usize, usize, [State; 2])> {
        let measured = asked.iter().zip(states).enumerate().filter(|(_, (asked, _))| asked.loads.is_none());
        let each = measured.flat_map(|(position, (asked, state))| {
            let of_loads = self
                .figures
                .iter()
                .enumerate()
                .filter(|(_, figure)| !matches!(figure, Unknown::Doubt(_)) && figure.moves_the_rest_in(asked.state));
            of_loads.filter_map(move |(place, figure)| {
                let off = |by: f64| {
                    let mut off = state.as_ref().ok()?.clone();
                    self.experiment.load_off(&mut off, asked.state, figure, by);
                    Some(off)
                };
                Some((position, place, [off(self.sd(place))?, off(-self.sd(place))?]))
            })
        });
        each.collect()
    }

    /// The vehicle with some figures, to come to rest in some states.
    fn as_at<'s>(&self, at: &[f64], states: &[&'s State], changes: &dyn Fn(&Vehicle) -> Vec<Change>) -> AsAt<'s> {
        let vehicle = self.experiment.vehicle_at(&self.figures, at);
        let of_parts = changes(&vehicle);
        let with_own = |state: &'s State| (!state.changes.is_empty()).then(|| [&state.changes[..], &of_parts].concat());
        let states = states.iter().map(|state| (*state, with_own(state))).collect();
        AsAt { vehicle, of_parts, states }
    }

    /// The same at the best figures alone.
    ///
    /// # Errors     as [`Self::forecast`]
    pub fn stand(&self, state: usize, changes: impl Fn(&Vehicle) -> Vec<Change>) -> Result<Stance, IdentificationError> {
        first(self.stand_each(&[Asked::as_measured(state)], &changes))
    }

    /// The same while something pulls the body to one side.
    ///
    /// # Errors     as [`Self::forecast`]
    pub fn stand_pulled(
        &self,
        state: usize,
        pull: SidewaysPull,
        changes: impl Fn(&Vehicle) -> Vec<Change>,
    ) -> Result<Stance, IdentificationError> {
        first(self.stand_each(&[Asked { pull: Some(pull), ..Asked::as_measured(state) }], &changes))
    }

    /// The same of several states, in their order.
    pub fn stands(
        &self,
        states: &[usize],
        changes: impl Fn(&Vehicle) -> Vec<Change>,
    ) -> Vec<Result<Stance, IdentificationError>> {
        self.stand_each(&as_measured(states), &changes)
    }

    /// The same of several states, each with what was aboard in it or with other loads, laid out once for all of them.
    pub fn stands_with(
        &self,
        states: &[(usize, Option<&[Load]>)],
        changes: impl Fn(&Vehicle) -> Vec<Change>,
    ) -> Vec<Result<Stance, IdentificationError>> {
        let asked = states.iter().map(|(state, loads)| Asked { state: *state, loads: *loads, pull: None });
        self.stand_each(&asked.collect::<Vec<_>>(), &changes)
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
        first(self.stand_each(&[Asked::with_loads(state, loads)], &changes))
    }

    fn stand_each(
        &self,
        asked: &[Asked<'_>],
        changes: &dyn Fn(&Vehicle) -> Vec<Change>,
    ) -> Vec<Result<Stance, IdentificationError>> {
        let states = self.states_of(asked);
        let sound: Vec<&State> = states.iter().flatten().collect();
        let best = self.as_at(&self.at, &sound, changes);
        let mut settled = best.settle(&mut Ready::new(&best.vehicle)).into_iter();
        let stance = |state: &Result<State, IdentificationError>| {
            state.as_ref().map_err(Clone::clone).and_then(|_| settled.next().expect("as many answers as states"))
        };
        states.iter().map(stance).collect()
    }

    /// The height of a mark in a forecast. `None` for a mark that the vehicle does not have, or that was never read, or
    /// where its spread is past all figures.
    pub fn height(&self, forecast: &Forecast, mark: &TapeMark) -> Option<Uncertain<Length>> {
        self.band_of(&self.height_told(forecast, mark)?)
    }

    /// The same, with how it hangs on everything that is in doubt.
    pub fn height_told(&self, forecast: &Forecast, mark: &TapeMark) -> Option<Told> {
        let change = mark.change(&forecast.stance)?;
        let place = self.figures.iter().position(|figure| *figure == Unknown::KerbHeight(mark.clone()))?;
        let kerb = self.at.get(place)?;
        let mut slopes = forecast.slopes(mark);
        if let Some(slope) = slopes.get_mut(place) {
            *slope += self.sd(place);
        }
        Some(Told { value: kerb + change, slopes })
    }

    /// How much a mark rises from one forecast to another: what both have in common falls out.
    pub fn rise(&self, from: &Forecast, to: &Forecast, mark: &TapeMark) -> Option<Uncertain<Length>> {
        self.band_of(&self.rise_told(from, to, mark)?)
    }

    /// The same, with how it hangs on everything that is in doubt.
    pub fn rise_told(&self, from: &Forecast, to: &Forecast, mark: &TapeMark) -> Option<Told> {
        let value = mark.change(&to.stance)? - mark.change(&from.stance)?;
        let slopes = to.slopes(mark).iter().zip(from.slopes(mark)).map(|(to, from)| to - from).collect();
        Some(Told { value, slopes })
    }

    /// How much more one mark rises than another from one forecast to another: what all of it has in common falls out.
    pub fn rise_apart(&self, from: &Forecast, to: &Forecast, more: &TapeMark, than: &TapeMark) -> Option<Uncertain<Length>> {
        let rise = |mark: &TapeMark| Some(mark.change(&to.stance)? - mark.change(&from.stance)?);
        let slope = |forecast: &Forecast| -> Vec<f64> {
            forecast.slopes(more).iter().zip(forecast.slopes(than)).map(|(more, than)| more - than).collect()
        };
        let slopes = slope(to).iter().zip(slope(from)).map(|(to, from)| to - from).collect();
        self.band_of(&Told { value: rise(more)? - rise(than)?, slopes })
    }

    /// A figure worked out of the vehicle and where it stands in each of some forecasts. `None` where it has no meaning.
    pub fn tell<'f>(&self, forecasts: &[&'f Forecast], of: impl Fn(&Vehicle, &[&'f Stance]) -> Option<f64>) -> Option<Told> {
        let value = of(&self.vehicle(), &forecasts.iter().map(|forecast| &forecast.stance).collect::<Vec<_>>())?;
        let mut moved = self.at.clone();
        let mut slopes = Vec::with_capacity(self.figures.len());
        for place in 0..self.figures.len() {
            let beside = |way: usize| -> Vec<&'f Stance> {
                let pair = |forecast: &'f Forecast| forecast.beside.get(place).and_then(Option::as_ref);
                let moved = |forecast: &'f Forecast| pair(forecast).and_then(|pair| pair.get(way)).unwrap_or(&forecast.stance);
                forecasts.iter().copied().map(moved).collect()
            };
            if forecasts.iter().all(|forecast| forecast.beside.get(place).is_none_or(Option::is_none)) {
                slopes.push(0.0);
                continue;
            }
            let mut off = |by: f64, way: usize| {
                if let Some(value) = moved.get_mut(place) {
                    *value += by;
                }
                let told = of(&self.experiment.vehicle_at(&self.figures, &moved), &beside(way));
                moved.copy_from_slice(&self.at);
                told
            };
            let sd = self.sd(place);
            slopes.push(0.5 * (off(sd, 0)? - off(-sd, 1)?));
        }
        Some(Told { value, slopes })
    }

    /// Covariance of two figures told of this vehicle; of one with itself, its variance.
    pub fn covariance(&self, one: &Told, other: &Told) -> f64 {
        // Most figures move any one thing by nothing.
        let per_unit = |slopes: &[f64]| -> Vec<(usize, f64)> {
            let each = slopes.iter().enumerate().filter(|(_, slope)| **slope != 0.0);
            each.map(|(place, slope)| (place, slope / self.sd(place).max(f64::MIN_POSITIVE))).collect()
        };
        let (n, own) = (self.figures.len(), per_unit(&one.slopes));
        let other = (!std::ptr::eq(one, other)).then(|| per_unit(&other.slopes));
        let across = other.as_ref().unwrap_or(&own);
        let along = |(place, slope): &(usize, f64)| -> f64 {
            let row = self.covariance.get(place * n..(place + 1) * n).unwrap_or_default();
            slope * across.iter().map(|(column, other)| row.get(*column).copied().unwrap_or(0.0) * other).sum::<f64>()
        };
        own.iter().map(along).sum()
    }

    /// A length told of this vehicle with its standard deviation. `None` where its spread is past all figures.
    pub fn band_of(&self, told: &Told) -> Option<Uncertain<Length>> {
        // √(gᵀΣg)
        let spread = self.covariance(told, told).max(0.0).sqrt();
        (told.value.is_finite() && spread.is_finite()).then(|| Uncertain::new(metres(told.value), metres(spread)))
    }

    pub(super) fn sd(&self, place: usize) -> f64 {
        self.covariance.get(place * (self.figures.len() + 1)).copied().unwrap_or(0.0).max(0.0).sqrt()
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
