//! A stroke that is linear in the unknowns. Raw SI `f64` inside.

use super::unknowns::HEAVE;

/// Most unknowns one stroke depends on: heave, pitch, roll, two wheels, a rocker at either end of the spring.
const MOST: usize = 7;

/// `stroke = offset + Σ coefficient·unknown`, and what it gains when the held coupler rises.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(super) struct Row {
    /// By rising unknowns, so that a pair of them names a place in a matrix's lower half.
    entries: [Entry; MOST],
    count: usize,
    /// Whether the body's rise is an unknown, or given by the coupler.
    floats: bool,
    offset: f64,
    /// Stroke per rise of the body as a whole.
    heave: f64,
}

#[derive(Debug, Clone, Copy, Default, PartialEq)]
struct Entry {
    unknown: usize,
    coefficient: f64,
}

impl Row {
    /// A stroke with these coefficients, given by rising unknowns.
    pub(super) fn new(offset: f64, entries: &[(usize, f64)]) -> Self {
        let mut row = Row { entries: [Entry::default(); MOST], count: 0, floats: false, offset, heave: 0.0 };
        for (unknown, coefficient) in entries {
            row.push(*unknown, *coefficient);
        }
        row
    }

    /// One more unknown, later than those it has; one without effect is left out. There is room for every kind there is.
    pub(super) fn push(&mut self, unknown: usize, coefficient: f64) {
        if coefficient.abs() > 0.0
            && let Some(free) = self.entries.get_mut(self.count)
        {
            *free = Entry { unknown, coefficient };
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

    /// The stroke without its offset, and the offset.
    pub(super) fn split_offset(self) -> (Row, f64) {
        (Row { offset: 0.0, ..self }, self.offset)
    }

    fn entries(&self) -> &[Entry] {
        self.entries.get(..self.count).unwrap_or_default()
    }

    /// The stroke at some unknowns, the coupler risen by so much. Worked out for every part at every step of the
    /// iteration, as is [`Self::add_to`]: both are always inlined.
    #[expect(clippy::indexing_slicing, reason = "a row names unknowns below the length of `q`")]
    #[inline(always)]
    pub(super) fn stroke(&self, q: &[f64], coupler_rise: f64) -> f64 {
        let given = if self.floats { 0.0 } else { self.heave * coupler_rise };
        self.entries().iter().fold(self.offset + given, |stroke, entry| stroke + entry.coefficient * q[entry.unknown])
    }

    /// Adds a force along the stroke to a gradient.
    #[expect(clippy::indexing_slicing, reason = "a row names unknowns below the length of the gradient")]
    #[inline(always)]
    pub(super) fn add_to(&self, gradient: &mut [f64], force: f64) {
        for entry in self.entries() {
            gradient[entry.unknown] += entry.coefficient * force;
        }
    }

    /// Adds a rate along the stroke to the lower half of an `n` by `n` stiffness.
    #[expect(clippy::indexing_slicing, reason = "rows name unknowns below n, and the matrix is n by n")]
    pub(super) fn add_own_stiffness(&self, stiffness: &mut [f64], n: usize, rate: f64) {
        let entries = self.entries();
        for (place, entry) in entries.iter().enumerate() {
            let (line, scaled) = (&mut stiffness[entry.unknown * n..entry.unknown * n + n], rate * entry.coefficient);
            for other in &entries[..=place] {
                line[other.unknown] += scaled * other.coefficient;
            }
        }
    }

    /// Adds a rate between this stroke and another to the lower half of an `n` by `n` stiffness.
    #[expect(clippy::indexing_slicing, reason = "rows name unknowns below n, and the matrix is n by n")]
    pub(super) fn add_stiffness(&self, other: &Row, stiffness: &mut [f64], n: usize, rate: f64) {
        for entry in self.entries() {
            for across in other.entries().iter().filter(|across| across.unknown <= entry.unknown) {
                stiffness[entry.unknown * n + across.unknown] += rate * entry.coefficient * across.coefficient;
            }
        }
    }
}
