//! A stroke that is linear in the unknowns. Raw SI `f64` inside.

use super::unknowns::HEAVE;

/// Most unknowns one stroke depends on: heave, pitch, roll, two wheels, a rocker at either end of the spring.
const MOST: usize = 7;

/// `stroke = offset + Σ coefficient·unknown`, and what it gains when the held coupler rises.
#[derive(Debug, Clone, Copy)]
pub(super) struct Row {
    coefficients: [f64; MOST],
    /// Which unknown each coefficient is of, rising, so that a pair of them names a place in a matrix's lower half.
    unknowns: [u8; MOST],
    count: u8,
    /// Whether the body's rise is an unknown, or given by the coupler.
    floats: bool,
    offset: f64,
    /// Stroke per rise of the body as a whole.
    heave: f64,
}

impl Row {
    /// A stroke with these coefficients, given by rising unknowns.
    pub(super) fn new(offset: f64, entries: &[(usize, f64)]) -> Self {
        let (coefficients, unknowns) = ([0.0; MOST], [0; MOST]);
        let mut row = Row { coefficients, unknowns, count: 0, floats: false, offset, heave: 0.0 };
        for (unknown, coefficient) in entries {
            row.push(*unknown, *coefficient);
        }
        row
    }

    /// One more unknown, later than those it has; one without effect is left out. There is room for every kind there is.
    pub(super) fn push(&mut self, unknown: usize, coefficient: f64) {
        let place = usize::from(self.count);
        if coefficient.abs() > 0.0
            && let (Some(free), Some(name), Ok(unknown)) =
                (self.coefficients.get_mut(place), self.unknowns.get_mut(place), u8::try_from(unknown))
        {
            (*free, *name) = (coefficient, unknown);
            self.count += 1;
        }
    }

    /// A stroke with the body's rise in it: an unknown when the body floats, otherwise given from outside.
    pub(super) fn riding(heave: f64, floats: bool) -> Self {
        let mut row = Row { heave, floats, ..Row::new(0.0, &[]) };
        if floats {
            row.push(HEAVE, heave);
        }
        row
    }

    /// With a longer spring seat: a block, a spacer.
    pub(super) fn raised(mut self, by: f64) -> Self {
        self.offset += by;
        self
    }

    fn entries(&self) -> impl Iterator<Item = (usize, f64)> {
        let entries = self.unknowns.iter().zip(&self.coefficients).take(usize::from(self.count));
        entries.map(|(unknown, coefficient)| (usize::from(*unknown), *coefficient))
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

    /// Adds a rate along the stroke to the lower half of an `n` by `n` stiffness.
    #[expect(clippy::indexing_slicing, reason = "rows name unknowns below n, and the matrix is n by n")]
    pub(super) fn add_own_stiffness(&self, stiffness: &mut [f64], n: usize, rate: f64) {
        for (place, (row, coefficient)) in self.entries().enumerate() {
            let (line, scaled) = (&mut stiffness[row * n..row * n + n], rate * coefficient);
            for (column, other) in self.entries().take(place + 1) {
                line[column] += scaled * other;
            }
        }
    }

    /// Adds a rate between this stroke and another to the lower half of an `n` by `n` stiffness.
    #[expect(clippy::indexing_slicing, reason = "rows name unknowns below n, and the matrix is n by n")]
    pub(super) fn add_stiffness(&self, other: &Row, stiffness: &mut [f64], n: usize, rate: f64) {
        for (row, coefficient) in self.entries() {
            for (column, across) in other.entries().filter(|(column, _)| *column <= row) {
                stiffness[row * n + column] += rate * coefficient * across;
            }
        }
    }
}
