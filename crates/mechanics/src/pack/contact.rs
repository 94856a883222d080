//! The complementarity problem of leaves that press and never pull. Raw SI `f64` inside.

use crate::cholesky::{factorise, solve_factorised};

/// `w = q + rP + Aλ ≥ 0`, `λ ≥ 0`, `w·λ = 0`, with `A` symmetric and positive definite.
pub(super) struct Contacts {
    /// How many there are.
    pub(super) count: usize,
    /// Row by row, whole.
    pub(super) compliance: Vec<f64>,
    /// Gaps with no load and no contact, m.
    pub(super) gap: Vec<f64>,
    /// What a load adds to them, m/N.
    pub(super) per_load: Vec<f64>,
}

/// Which contacts bear, and with what force; carried from one load to the next, which is then nearly solved.
#[derive(Debug, Clone)]
pub(super) struct Bearing {
    pub(super) bears: Vec<bool>,
    pub(super) force: Vec<f64>,
}

/// A gap closer to nought than this is shut, m.
const SHUT_M: f64 = 1e-11;
/// Whole blocks are exchanged so often without getting nearer before one contact at a time is.
const PATIENCE: u32 = 8;
const MOST_TURNS: usize = 4_000;

impl Bearing {
    /// Nothing bears.
    pub(super) fn nothing(count: usize) -> Self {
        Bearing { bears: vec![false; count], force: vec![0.0; count] }
    }
}

impl Contacts {
    /// Solves at a load, beginning with what bears now; false when it was not found.
    ///
    /// Block principal pivoting: whatever is wrong changes sides, all at once while that gets nearer, otherwise only the last
    /// one, which cannot go round in circles.
    ///
    /// # Source     Júdice and Pires, block principal pivoting for strictly monotone complementarity problems; Murty's least
    /// index rule as the fall-back
    pub(super) fn solve(&self, load: f64, bearing: &mut Bearing) -> bool {
        let (mut fewest, mut patience) = (usize::MAX, PATIENCE);
        let mut wrong: Vec<usize> = Vec::with_capacity(self.count);
        for _ in 0..MOST_TURNS {
            if !self.press(load, bearing) {
                return false;
            }
            self.find_wrong(load, bearing, &mut wrong);
            if wrong.is_empty() {
                return true;
            }
            if wrong.len() < fewest {
                (fewest, patience) = (wrong.len(), PATIENCE);
            } else if patience > 0 {
                patience -= 1;
            } else if let Some(last) = wrong.last().copied() {
                wrong.clear();
                wrong.push(last);
            }
            for place in &wrong {
                if let Some(bears) = bearing.bears.get_mut(*place) {
                    *bears = !*bears;
                }
            }
        }
        false
    }

    /// Forces that shut the gaps of all contacts that bear.
    #[expect(clippy::indexing_slicing, reason = "places are below the count, and the matrices are as large")]
    fn press(&self, load: f64, bearing: &mut Bearing) -> bool {
        let places: Vec<usize> = (0..self.count).filter(|place| bearing.bears[*place]).collect();
        let n = places.len();
        let mut matrix = vec![0.0; n * n];
        let mut force = Vec::with_capacity(n);
        for (row, place) in places.iter().enumerate() {
            let line = &self.compliance[place * self.count..(place + 1) * self.count];
            for (column, other) in places[..=row].iter().enumerate() {
                matrix[row * n + column] = line[*other];
            }
            force.push(-(self.gap[*place] + self.per_load[*place] * load));
        }
        let mut factor = vec![0.0; n * n];
        if n > 0 && !factorise(&matrix, &mut factor, n, 0.0) {
            return false;
        }
        solve_factorised(&factor, &mut force, n);
        bearing.force.fill(0.0);
        for (place, force) in places.into_iter().zip(force) {
            bearing.force[place] = force;
        }
        true
    }

    /// Contacts that pull, and gaps that are overlaps.
    #[expect(clippy::indexing_slicing, reason = "places are below the count, and the matrices are as large")]
    fn find_wrong(&self, load: f64, bearing: &Bearing, wrong: &mut Vec<usize>) {
        wrong.clear();
        for place in 0..self.count {
            let is_wrong = match bearing.bears[place] {
                // What a contact pulls with is weighed by the gap that letting it go would open.
                true => bearing.force[place] * self.compliance[place * (self.count + 1)] < -SHUT_M,
                false => self.open(load, bearing, place) < -SHUT_M,
            };
            if is_wrong {
                wrong.push(place);
            }
        }
    }

    /// The gap at a contact.
    #[expect(clippy::indexing_slicing, reason = "places are below the count, and the matrices are as large")]
    fn open(&self, load: f64, bearing: &Bearing, place: usize) -> f64 {
        let line = &self.compliance[place * self.count..(place + 1) * self.count];
        let pressed: f64 = line.iter().zip(&bearing.force).map(|(compliance, force)| compliance * force).sum();
        self.gap[place] + self.per_load[place] * load + pressed
    }
}
