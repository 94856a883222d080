//! A stroke that is linear in the unknowns. Raw SI `f64` inside.

use super::assembly::HEAVE;

/// Most unknowns one stroke depends on: heave, pitch, roll, two wheels, a rocker.
const MOST: usize = 6;

/// `stroke = offset + Σ coefficient·unknown`, and what it gains when the held coupler rises.
#[derive(Debug, Clone, Copy)]
pub(super) struct Row {
    unknowns: [usize; MOST],
    coefficients: [f64; MOST],
    count: usize,
    offset: f64,
    /// Stroke per rise of the body as a whole.
    heave: f64,
    /// Whether that rise is an unknown, or given by the coupler.
    floats: bool,
}

impl Row {
    pub(super) fn new(offset: f64, entries: &[(usize, f64)]) -> Self {
        let row = Row { unknowns: [0; MOST], coefficients: [0.0; MOST], count: 0, offset, heave: 0.0, floats: false };
        entries.iter().fold(row, |row, entry| row.with(*entry))
    }

    /// With one more unknown. There is room for every kind there is.
    pub(super) fn with(mut self, (unknown, coefficient): (usize, f64)) -> Self {
        if let (Some(name), Some(value)) = (self.unknowns.get_mut(self.count), self.coefficients.get_mut(self.count)) {
            (*name, *value) = (unknown, coefficient);
            self.count += 1;
        }
        self
    }

    /// With the body's rise in it: an unknown when the body floats, otherwise given from outside.
    pub(super) fn riding(mut self, heave: f64, floats: bool) -> Self {
        (self.heave, self.floats) = (heave, floats);
        if floats { self.with((HEAVE, heave)) } else { self }
    }

    /// With a longer spring seat: a block, a spacer.
    pub(super) fn raised(mut self, by: f64) -> Self {
        self.offset += by;
        self
    }

    pub(super) fn entries(&self) -> impl Iterator<Item = (usize, f64)> + Clone + '_ {
        self.unknowns.iter().copied().zip(self.coefficients.iter().copied()).take(self.count)
    }

    /// The stroke at some unknowns, the coupler risen by so much.
    #[expect(clippy::indexing_slicing, reason = "a row names unknowns below the length of `q`")]
    pub(super) fn stroke(&self, q: &[f64], coupler_rise: f64) -> f64 {
        let given = if self.floats { 0.0 } else { self.heave * coupler_rise };
        self.entries().fold(self.offset + given, |stroke, (unknown, coefficient)| stroke + coefficient * q[unknown])
    }

    /// Adds a force along the stroke to a gradient.
    #[expect(clippy::indexing_slicing, reason = "a row names unknowns below the length of the gradient")]
    pub(super) fn add_to(&self, gradient: &mut [f64], force: f64) {
        for (unknown, coefficient) in self.entries() {
            gradient[unknown] += coefficient * force;
        }
    }

    /// Adds a rate between this stroke and another to the lower half of an `n` by `n` stiffness.
    #[expect(clippy::indexing_slicing, reason = "rows name unknowns below n, and the matrix is n by n")]
    pub(super) fn add_stiffness(&self, other: &Row, stiffness: &mut [f64], n: usize, rate: f64) {
        for (unknown, coefficient) in self.entries() {
            for (across, other_coefficient) in other.entries() {
                if across <= unknown {
                    stiffness[unknown * n + across] += rate * coefficient * other_coefficient;
                }
            }
        }
    }
}
